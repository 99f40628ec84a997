"""The job file: open JSON, read with messages that name the place, written whole or not at all."""

import contextlib
import json
import os
import re
import time
from pathlib import Path
from typing import Any, NamedTuple, TypeVar

import msgspec

from roomy_hull.core.errors import JobFileError
from roomy_hull.core.refs import RESERVED
from roomy_hull.core.value import Value, put_back, set_aside
from roomy_hull.job.carried import Carried
from roomy_hull.job.migrations import news, to_newest
from roomy_hull.job.model import FORMAT, Job
from roomy_hull.kinds.placed import Placed

SUFFIX = ".hull.json"
KEPT_SUFFIX = ".previous"
MAX_BYTES = 32 * 1024 * 1024

T = TypeVar("T", bound=Value)


class Opened(NamedTuple):
    """A job read from a file, and what means something else since the version in which that was written."""

    job: Job
    news: tuple[str, ...]


def loads(data: bytes, place: str = "the file") -> Job:
    """Read a job from the bytes of its file, as `read` does, without the news."""
    return read(data, place).job


def read(data: bytes, place: str = "the file") -> Opened:
    """Read a job from the bytes of its file.

    Parameters
    ----------
    data : bytes
        UTF-8 JSON.
    place : str
        What to call the file in messages.

    Returns
    -------
    Opened
        The job, unknown fields kept in each value's `extra`; and the news.

    Raises
    ------
    JobFileError
        The file is empty, damaged, truncated, foreign or newer, or a value in it is not allowed;
        the message names the line or the field.
    """
    if not data.strip():
        raise JobFileError("the file is empty", place, f"Its kept copy ends in {KEPT_SUFFIX}.")
    if len(data) > MAX_BYTES:
        raise JobFileError("the file is too large for a job", place)
    raw = decode(data, place)
    if not isinstance(raw, dict) or raw.get("format") != FORMAT:
        raise JobFileError(
            "this is not a Roomy Hull job", place, f'A job file starts with "format": "{FORMAT}".'
        )
    told = news(raw.get("version"))
    try:
        raw = to_newest(raw)
    except JobFileError as trouble:
        inner = f"{place}, {trouble.place}" if trouble.place else place
        raise JobFileError(trouble.what, inner, trouble.remedy) from None
    job: Job = converted(
        raw, Job, place, "Mend the value; docs/formats.md says what each field may hold."
    )
    _refuse_reserved(job, place)
    return Opened(job, told)


def _refuse_reserved(job: Job, place: str) -> None:
    """Refuse a unit or carried item whose id is one of the words that stand for the vehicle and its body."""
    things: list[tuple[str, Placed | Carried]] = []
    things += [(f"units[{n}]", u) for n, u in enumerate(job.units)]
    things += [(f"carried[{n}]", c) for n, c in enumerate(job.carried)]
    for k, variant in enumerate(job.variants):
        things += [(f"variants[{k}].units[{n}]", u) for n, u in enumerate(variant.units)]
        things += [(f"variants[{k}].carried[{n}]", c) for n, c in enumerate(variant.carried)]
    for where, thing in things:
        if thing.id in RESERVED:
            raise JobFileError(
                f"the id '{thing.id}' stands for the {thing.id} itself",
                f"{place}, {where}.id ({thing.name})",
                f"Give it another, such as '{thing.id}-1', here and in left_behind, sets and runs.",
            )


def converted(raw: dict[str, Any], kind: type[T], place: str, remedy: str) -> T:
    """Make a value of what a file holds, its unknown fields kept.

    Parameters
    ----------
    raw : dict
        As decoded.
    kind : type
        What it should be.
    place, remedy : str
        What to call the file in messages, and what to do about a value that is not allowed.

    Returns
    -------
    Value
        Of that kind.

    Raises
    ------
    JobFileError
        A value is not allowed; names the field.
    """
    try:
        return msgspec.convert(set_aside(raw, kind), kind)
    except msgspec.ValidationError as trouble:
        what, where = worded(str(trouble), raw)
        raise JobFileError(what, f"{place}, {where}" if where else place, remedy) from None


def decode(data: bytes, place: str) -> Any:
    """Decode JSON.

    Parameters
    ----------
    data : bytes
        UTF-8 text.
    place : str
        What to call the file in messages.

    Returns
    -------
    object
        What it holds.

    Raises
    ------
    JobFileError
        Line and column of what is broken, a figure that is none, a field that stands twice.
    """
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as trouble:
        raise JobFileError(
            f"byte {trouble.start} is no text", place, "A job file is plain UTF-8 text."
        ) from None

    def refuse(word: str) -> Any:
        line = next(
            (i for i, row in enumerate(text.splitlines(), 1) if re.search(rf"{word}\b", row)), 0
        )
        raise JobFileError(
            f"{word} is not a figure", f"{place}, line {line}", "Type the measured figure."
        )

    def once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
        found: dict[str, Any] = {}
        for key, value in pairs:
            if key in found:
                raise JobFileError(f"the field '{key}' stands twice", place, "Keep one of them.")
            found[key] = value
        return found

    try:
        return json.loads(text, parse_constant=refuse, object_pairs_hook=once)
    except json.JSONDecodeError as trouble:
        cut = trouble.pos >= len(text.rstrip()) - 1 or trouble.msg.startswith("Unterminated")
        what = "the file ends too early" if cut else f"the text is damaged ({trouble.msg})"
        raise JobFileError(
            what,
            f"{place}, line {trouble.lineno}, column {trouble.colno}",
            f"The copy before the last save ends in {KEPT_SUFFIX}; open that one.",
        ) from None
    except (RecursionError, ValueError):
        raise JobFileError("the text is damaged", place) from None


_AT = r"(?s)^(?P<what>.*?)(?: - at `\$\.?(?P<path>[^`]*)`)?$"


def worded(message: str, raw: Any) -> tuple[str, str]:
    """Split a validator's message into plain words and the place, with the unit's name."""
    found = re.match(_AT, message)
    what, path = (found["what"], found["path"] or "") if found else (message, "")
    what = (
        what
        .replace("Expected `float`", "a figure is wanted")
        .replace("Expected `int`", "a whole number is wanted")
        .replace("Expected `str`", "a text is wanted")
        .replace("Expected `array`", "a list is wanted")
        .replace("Expected `object`", "a group of fields is wanted")
        .replace("Object missing required field", "there is no field")
        .replace(", got `", ", not `")
        .replace("`", "")
    )
    name = ""
    step = re.match(r"(\w+)\[(\d+)\]", path)
    if step and isinstance(raw, dict):
        rows = raw.get(step[1])
        row = rows[int(step[2])] if isinstance(rows, list) and int(step[2]) < len(rows) else None
        if isinstance(row, dict) and isinstance(row.get("name"), str):
            name = f" ({row['name']})"
    return what, path + name


def load(path: Path) -> Job:
    """Read a job file.

    Parameters
    ----------
    path : Path
        The file.

    Returns
    -------
    Job
        The job.

    Raises
    ------
    JobFileError
        The file cannot be read, or `loads` refuses it.
    """
    return opened(path).job


def opened(path: Path) -> Opened:
    """Read a job file with what means something else since it was written.

    Parameters
    ----------
    path : Path
        The file.

    Returns
    -------
    Opened
        Job and news.

    Raises
    ------
    JobFileError
        The file cannot be read, or `read` refuses it.
    """
    if os.path.isdir(path):
        raise JobFileError("this is a folder", str(path), "Give a job file.")
    return read(read_whole(path), path.name)


def read_whole(path: Path) -> bytes:
    """Read a file's bytes.

    Parameters
    ----------
    path : Path
        The file.

    Returns
    -------
    bytes
        Its contents.

    Raises
    ------
    JobFileError
        The file cannot be read.
    """
    try:
        return path.read_bytes()
    except OSError as trouble:
        raise JobFileError(
            f"the file cannot be read ({trouble.strerror})", str(path), "Check its name and rights."
        ) from None


def dumps(job: Job) -> bytes:
    """Write a job as the bytes of its file: indented, UTF-8, unknown fields back in place.

    Parameters
    ----------
    job : Job
        The job.

    Returns
    -------
    bytes
        JSON ending in a line break.
    """
    return encode(put_back(msgspec.to_builtins(job)))


def encode(frame: Any) -> bytes:
    """Write plain values as readable JSON that ends in a line break."""
    return (json.dumps(frame, indent=1, ensure_ascii=False, allow_nan=False) + "\n").encode()


def save(job: Job, path: Path, *, keep: bool = True) -> None:
    """Write a job file whole or not at all, the previous version kept beside it.

    Parameters
    ----------
    job : Job
        The job.
    path : Path
        The file.
    keep : bool
        Whether the version on disk is kept as ``NAME.previous``.

    Raises
    ------
    JobFileError
        The place cannot be written; what was there is untouched.
    """
    write_whole(path, dumps(job), keep=keep)


def write_whole(path: Path, data: bytes, *, keep: bool = False) -> None:
    """Write bytes to a new file and put it in the old one's place.

    Parameters
    ----------
    path : Path
        The file.
    data : bytes
        Its contents.
    keep : bool
        Whether the version on disk is kept as ``NAME.previous``.

    Raises
    ------
    JobFileError
        The place cannot be written; what was there is untouched.
    """
    new: Path | None = None
    try:  # ruff: ignore[too-many-statements-in-try-clause]  # written whole or not at all: every step of it may fail
        path.parent.mkdir(parents=True, exist_ok=True)
        new = path.with_name(f".{path.name}.{os.getpid()}-{time.time_ns():x}")
        handle = os.open(new, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
        with os.fdopen(handle, "wb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        mode = path.stat().st_mode & 0o777 if path.exists() else 0o644
        os.chmod(new, mode)
        if keep and path.exists():
            kept = path.with_name(path.name + KEPT_SUFFIX)
            with contextlib.suppress(FileNotFoundError):
                kept.unlink()
            os.link(path, kept) if hasattr(os, "link") else None
        os.replace(new, path)
    except OSError as trouble:
        if new:
            with contextlib.suppress(OSError):
                os.unlink(new)
        raise JobFileError(
            f"the file cannot be written ({trouble.strerror})",
            str(path),
            "Choose another place; what was there is untouched.",
        ) from None


def schema() -> dict[str, Any]:
    """The JSON Schema of the job file, generated from the model.

    Returns
    -------
    dict
        JSON Schema, draft 2020-12. Unknown fields are allowed everywhere, and `extra`, which is
        ours alone, is left out.
    """
    found = msgspec.json.schema(Job)
    for body in found["$defs"].values():
        body.get("properties", {}).pop("extra", None)
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Roomy Hull job file, version 1",
        **found,
    }
