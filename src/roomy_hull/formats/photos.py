"""Photos beside a job: copied into a folder of its own, under names that every file system takes."""

import hashlib
import re
import struct
from pathlib import Path
from typing import NamedTuple

from roomy_hull.core.errors import JobFileError
from roomy_hull.formats.atomic import is_plain, write_whole
from roomy_hull.formats.jobfile import SUFFIX

MAX_PHOTO = 80_000_000
"""A photo is no larger. [bytes]"""
KINDS: dict[bytes, str] = {
    b"\xff\xd8\xff": ".jpg",
    b"\x89PNG\r\n\x1a\n": ".png",
    b"GIF8": ".gif",
    b"BM": ".bmp",
}
"""How picture files begin, and what they end in here."""
TAKEN, SUB = 0x9003, 0x8769
"""Tags of Exif 2.32: the moment of the picture, and where its own tags stand."""


class Photo(NamedTuple):
    """A photo that was copied: its name in the folder, and the day it was taken, where it says so."""

    file: str
    taken: str


def folder_of(job: Path) -> Path:
    """The folder of a job's photos, beside its file."""
    stem = job.name.removesuffix(SUFFIX)
    return job.with_name(f"{stem}.photos")


def taken_in(job: Path, source: Path) -> Photo:
    """Copy a photo beside a job.

    Args:
        source: The photo; it stays where it is.
    Returns:
        Its new name holds the old one as far as it is plain letters, and a few letters of its content: the same
        photo comes to the same name, another one of the same name does not take its place.
    Raises:
        JobFileError: It cannot be read, is no picture, is too large, or cannot be written.
    """
    data = _read(source)
    ending = ending_of(data)
    if not ending:
        raise JobFileError(
            "this is no picture that can be shown", source.name, "Save it as JPEG or PNG."
        )
    stem = re.sub(r"[^A-Za-z0-9]+", "-", source.stem).strip("-")[:60] or "photo"
    name = f"{stem}-{hashlib.sha256(data).hexdigest()[:8]}{ending}"
    target = folder_of(job) / name
    _own_folder(folder_of(job))
    if not (is_plain(target) and target.stat().st_size == len(data)):
        write_whole(target, data)
    return Photo(name, taken(data))


def _read(source: Path) -> bytes:
    """The bytes of a photo that is there and not too large."""
    if not source.is_file():
        raise JobFileError("there is no such photo", source.name, "Choose a picture file.")
    try:
        size = source.stat().st_size
        data = source.read_bytes() if size <= MAX_PHOTO else b""
    except OSError as trouble:
        raise JobFileError(
            f"the photo cannot be read ({trouble.strerror})",
            source.name,
            "Copy it to this machine first.",
        ) from None
    if size > MAX_PHOTO:
        raise JobFileError(
            f"the photo has {size / 1e6:.0f} MB",
            source.name,
            f"Make it smaller: {MAX_PHOTO / 1e6:.0f} MB at most.",
        )
    return data


def ending_of(data: bytes) -> str:
    """What a picture file's name ends in, by its first bytes; empty for what is no picture that can be shown."""
    if data[:4] == b"RIFF" and data[8:12] == b"WEBP":
        return ".webp"
    return next((end for begin, end in KINDS.items() if data.startswith(begin)), "")


def path_of(job: Path | None, file: str) -> Path | None:
    """Where a job's photo is; none where it is not there, or its name leads elsewhere."""
    if job is None or not file or file != Path(file).name:
        return None
    found = folder_of(job) / file
    return found if is_plain(found) and not folder_of(job).is_symlink() else None


def _own_folder(folder: Path) -> None:
    """Refuse a folder of photos that is a link: what is put into it would land elsewhere."""
    if folder.is_symlink():
        raise JobFileError(
            "the folder of photos is a link, and is not written through", folder.name, "Make it a folder of its own."
        )  # fmt: skip


def brought_along(old: Path | None, new: Path, files: tuple[str, ...]) -> tuple[str, ...]:
    """Copy a job's photos to where it is saved now.

    Args:
        old, new: The job's file before and now.
    Returns: Those that could not be brought along.
    """
    if old is None or folder_of(old) == folder_of(new):
        return ()
    lost = []
    for file in files:
        source, target = path_of(old, file), folder_of(new) / Path(file).name
        if is_plain(target) and not target.parent.is_symlink():
            continue
        try:
            if source is None:
                raise FileNotFoundError
            _own_folder(target.parent)
            write_whole(target, source.read_bytes())
        except (OSError, JobFileError):
            lost.append(file)
    return tuple(lost)


def taken(data: bytes) -> str:
    """The day on which a JPEG was taken.

    Returns: As YYYY-MM-DD, from the tag DateTimeOriginal of its Exif 2.32 block; empty where it has none.
    """
    at = data.find(b"Exif\x00\x00", 0, 70_000)
    if not data.startswith(b"\xff\xd8") or at < 0:
        return ""
    block = data[at + 6 : at + 6 + 66_000]
    order = {b"II": "<", b"MM": ">"}.get(block[:2], "")
    if not order:
        return ""
    try:
        (first,) = struct.unpack_from(order + "I", block, 4)
        own = _tag(block, order, first, SUB)
        words = _tag(block, order, own, TAKEN) if own is not None else None
        if words is None:
            return ""
        said = block[words : words + 10].decode("ascii")
    except (struct.error, UnicodeDecodeError):
        return ""
    return said.replace(":", "-") if re.fullmatch(r"\d{4}:\d{2}:\d{2}", said) else ""


def _tag(block: bytes, order: str, at: int, wanted: int) -> int | None:
    """The value of one tag of a directory, which for what is longer than four bytes is where it stands."""
    (count,) = struct.unpack_from(order + "H", block, at)
    for n in range(min(count, 500)):
        tag, _kind, _count, value = struct.unpack_from(order + "HHII", block, at + 2 + 12 * n)
        if tag == wanted:
            return int(value)
    return None
