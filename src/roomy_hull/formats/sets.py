"""A set of files in a folder, written whole or not at all: made beside, then put in the place of the set before.

Its manifest names every file with its hash. What else lies in the folder is touched by nothing here. Between the first
and the last renaming of an exchange, about a millisecond, the folder holds a part of each: a journal says so, and what
next writes or verifies the set ends the exchange first.
"""

import contextlib
import hashlib
import json
import os
import re
import shutil
import time
from collections.abc import Callable, Mapping
from pathlib import Path

from roomy_hull.core.errors import JobFileError
from roomy_hull.formats.atomic import alive, alone, is_plain, mark, read_whole, write_whole

JOURNAL = ".cut-exchange.json"
STAGE = re.compile(r"\.cut-new-[A-Za-z0-9_]+-(\d+)-[0-9a-f]+")
ROW = re.compile(r"(?:([0-9a-f]{64})  )?(\S.*)")
Named = Callable[[str], bool]


def put(
    folder: Path, files: Mapping[str, bytes], manifest: str, head: tuple[str, ...], ours: Named
) -> None:
    """Put a set of files in the place of the one that the folder's manifest names.

    Args:
        ours: Whether a name is one that such a set can have; no other is ever taken away.
    Raises:
        JobFileError: The folder cannot be written, or one of its subfolders is a link; the set before it is untouched.
    """
    root = Path(os.path.realpath(folder))
    try:
        root.mkdir(parents=True, exist_ok=True)
    except OSError as trouble:
        raise JobFileError(
            f"the folder cannot be made ({trouble.strerror})", str(folder), "Choose another place."
        ) from None
    with alone(root):
        end_exchange(root, manifest, ours)
        before = set(listed(root, manifest, ours))
        _tidy(root)
        for name in files:
            _refuse_link(root, name)
        rows = [f"# {words}" for words in head]
        rows += [f"{hashlib.sha256(files[name]).hexdigest()}  {name}" for name in sorted(files)]
        stage = root / f".cut-new-{mark()}-{time.time_ns():x}"
        try:
            stage.mkdir()
            for name, data in files.items():
                write_whole(stage / name, data)
            write_whole(stage / manifest, "".join(f"{row}\n" for row in rows).encode())
            plan = {
                "stage": stage.name,
                "put": [*files, manifest],
                "remove": sorted(before - files.keys()),
            }
            write_whole(root / JOURNAL, json.dumps(plan).encode())
        except (OSError, JobFileError) as trouble:
            shutil.rmtree(stage, ignore_errors=True)
            what = (
                trouble.what
                if isinstance(trouble, JobFileError)
                else f"it cannot be written ({trouble.strerror})"
            )
            raise JobFileError(
                what, str(folder), "The files of the cut before are untouched."
            ) from None
        end_exchange(root, manifest, ours)


def end_exchange(root: Path, manifest: str, ours: Named) -> bool:
    """End an exchange that was begun, if there is one; whether there was."""
    try:
        plan = json.loads(read_whole(root / JOURNAL)) if not (root / JOURNAL).is_symlink() else {}
        stage = root / str(plan["stage"])
        names = [n for n in plan["put"] if n == manifest or ours(n)]
        gone = [n for n in plan["remove"] if ours(n)]
    except (JobFileError, ValueError, KeyError, TypeError):
        return False
    if STAGE.fullmatch(stage.name) and not stage.is_symlink() and stage.is_dir():
        for name in gone:
            with contextlib.suppress(OSError):
                (root / name).unlink()
        for name in names:
            if is_plain(stage / name):
                (root / name).parent.mkdir(parents=True, exist_ok=True)
                os.replace(stage / name, root / name)
        shutil.rmtree(stage, ignore_errors=True)
    with contextlib.suppress(OSError):
        (root / JOURNAL).unlink()
    return True


def listed(root: Path, manifest: str, ours: Named) -> dict[str, str]:
    """The files that a folder's manifest names, with their hashes; empty ones in manifests of older versions."""
    try:
        rows = read_whole(root / manifest).decode("utf-8").splitlines()
    except (JobFileError, UnicodeDecodeError):
        return {}
    found = {}
    for row in rows:
        read = ROW.fullmatch(row)
        if read and not row.startswith("#") and ours(read[2]):
            found[read[2]] = read[1] or ""
    return found


def wrong(folder: Path, manifest: str, ours: Named) -> list[str]:
    """What of a folder's set is not as its manifest says, in words; an exchange that was broken off is ended first.

    Raises:
        JobFileError: There is no manifest, or it is one of an older version, without hashes.
    """
    root = Path(os.path.realpath(folder))
    found = (
        ["a cut was broken off while it was put in place; that is done now"]
        if end_exchange(root, manifest, ours)
        else []
    )
    rows = listed(root, manifest, ours)
    if not rows or not all(rows.values()):
        raise JobFileError(
            f"there is no {manifest} with hashes", str(folder), "Cut again into this folder."
        )
    for name, known in rows.items():
        if not is_plain(root / name):
            found.append(f"{name} is missing")
        elif hashlib.sha256((root / name).read_bytes()).hexdigest() != known:
            found.append(f"{name} is not as it was written")
    return found


def _refuse_link(root: Path, name: str) -> None:
    """Refuse a subfolder that leads elsewhere."""
    for parent in list(Path(name).parents)[:-1]:
        if (root / parent).is_symlink():
            raise JobFileError(
                f"its folder {parent} is a link, and is not written through", str(root), "Take the link away."
            )  # fmt: skip


def _tidy(root: Path) -> None:
    """Take away what processes of this machine that are gone left half written."""
    with contextlib.suppress(OSError):
        for name in os.listdir(root):
            found = STAGE.fullmatch(name)
            if found and not alive(int(found[1])) and not (root / name).is_symlink():
                shutil.rmtree(root / name, ignore_errors=True)
