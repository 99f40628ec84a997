"""The job file: open JSON, read with messages that name the place, written whole or not at all."""

import inspect
import json
from pathlib import Path
from typing import Any, NamedTuple

import msgspec

from roomy_hull import __version__
from roomy_hull.core.card import range_words
from roomy_hull.core.errors import JobFileError
from roomy_hull.core.refs import RESERVED
from roomy_hull.core.value import put_back
from roomy_hull.formats.atomic import KEPT_SUFFIX, MAX_BYTES, read_whole, write_whole
from roomy_hull.formats.plain_json import (
    MOST_QUOTED,
    converted,
    decode,
    encode,
    refuse_halves,
    worded,
)
from roomy_hull.job.carried import Carried
from roomy_hull.job.migrations import news, to_newest
from roomy_hull.job.model import FORMAT, VERSION, WRITTEN_BY, Job
from roomy_hull.kinds.placed import Placed

SUFFIX = ".hull.json"


class Opened(NamedTuple):
    """A job read from a file, and what means something else since the version in which that was written."""

    job: Job
    news: tuple[str, ...]


def loads(data: bytes, place: str = "the file") -> Job:
    """Read a job from the bytes of its file, as `read` does, without the news."""
    return read(data, place).job


def read(data: bytes, place: str = "the file") -> Opened:
    """Read a job from the bytes of its file.

    Returns: The job, unknown fields kept in each value's `extra`; and the news.
    Raises:
        JobFileError: The file is empty, damaged, truncated, foreign or newer, or a value in it is not allowed; the
            message names the line or the field.
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
    raw.pop(WRITTEN_BY, None)
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


def load(path: Path) -> Job:
    """Read a job file.

    Raises:
        JobFileError: The file cannot be read, or `loads` refuses it.
    """
    return opened(path).job


def opened(path: Path) -> Opened:
    """Read a job file with what means something else since it was written.

    Raises:
        JobFileError: The file cannot be read, or `read` refuses it.
    """
    return read(read_whole(path), path.name)


def dumps(job: Job) -> bytes:
    """Write a job as the bytes of its file: indented, UTF-8, unknown fields back in place."""
    rows = put_back(msgspec.to_builtins(job))
    head = {key: rows.pop(key) for key in ("format", "version")}
    return encode({**head, WRITTEN_BY: __version__, **rows})


def checked(job: Job) -> Job:
    """Hold a job against all that its file may hold, as it would be when it is read again.

    Raises:
        JobFileError: A figure is out of its bounds, a list or text is too long; names the field.
    """
    raw = msgspec.to_builtins(job)
    try:
        msgspec.convert(raw, Job)
        msgspec.json.encode(raw)
    except msgspec.ValidationError as trouble:
        what, where = worded(str(trouble), raw)
        raise JobFileError(what, where, "Give a value that the file can hold.") from None
    except UnicodeEncodeError:
        refuse_halves(raw, "")
    return job


def save(job: Job, path: Path, *, keep: bool = True) -> None:
    """Write a job file whole or not at all, the previous version kept beside it.

    Args:
        keep: Whether the version on disk is kept as ``NAME.previous``.
    Raises:
        JobFileError: The place cannot be written; what was there is untouched.
        UnwritableError: What would be written could not be opened again; nothing is written.
    """
    write_whole(path, tried(job), keep=keep, named=True)


class UnwritableError(JobFileError):
    """A job that its file could not hold as it is."""


def tried(job: Job) -> bytes:
    """Write a job as the bytes of its file, and read them again before anything is done with them.

    Returns: What `loads` takes.
    Raises:
        UnwritableError: It would not be taken; says why.
    """
    try:
        data = dumps(job)
        loads(data, "the job")
    except JobFileError as trouble:
        raise UnwritableError(trouble.what, trouble.place, trouble.remedy) from None
    except (ValueError, TypeError, RecursionError) as trouble:
        raise UnwritableError(
            f"it cannot be written ({str(trouble)[:MOST_QUOTED]})", "the job"
        ) from None
    return data


def rescue(job: Job, path: Path) -> None:
    """Write a job that its file could not hold as near to it as can be: every value that it has.

    Args:
        path: Of the rescue file; it may have to be mended by hand before it opens.
    Raises:
        JobFileError: The place cannot be written.
    """
    text = json.dumps(msgspec.to_builtins(job), indent=1, allow_nan=True)
    write_whole(path, text.encode())


def schema() -> dict[str, Any]:
    """The JSON Schema of the job file, generated from the model.

    Returns:
        JSON Schema, draft 2020-12. Unknown fields are allowed everywhere, and `extra`, which is ours alone, is
        left out.
    """
    found = msgspec.json.schema(Job)
    for body in found["$defs"].values():
        body.get("properties", {}).pop("extra", None)
    found["$defs"]["Job"]["properties"][WRITTEN_BY] = {
        "type": "string", "description": "Which version of the program wrote the file."
    }  # fmt: skip
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": f"Roomy Hull job file, version {VERSION}",
        **found,
    }


def fields_listed() -> str:
    """Every field of the job file as a page of words (Markdown), made from its JSON Schema."""
    rows = [
        "# Fields of the job file",
        "",
        "Every value of a job: its field in the file, its words on the card where the card shows it, what it may be (in the",
        "unit of the file; then what it is where nothing is said), and what it means. Where things are measured from is",
        "told in [formats.md](formats.md).",
        "",
    ]
    for name, body in sorted(schema()["$defs"].items()):
        rows += [f"## {name}", "", inspect.cleandoc(body.get("description", "")), ""]
        rows += ["| field | on the card | may be | meaning |", "| --- | --- | --- | --- |"]
        for key, one in body.get("properties", {}).items():
            cells = (f"`{key}`", one.get("title", ""), _may_be(one), one.get("$comment", ""))
            rows.append(f"| {' | '.join(c.replace('|', chr(92) + '|') for c in cells)} |")
        rows.append("")
    return "\n".join(rows)


_PLAIN = {
    "number": "a figure",
    "string": "text",
    "boolean": "yes or no",
    "integer": "whole",
    "null": "nothing",
}


def _may_be(one: dict[str, Any]) -> str:
    """What a field may be: some words, a range, another value, several of them; and what it is where nothing is said."""
    unit = one.get("description", "")
    if "enum" in one:
        found = ", ".join(f"`{v}`" if v != "" else "empty" for v in one["enum"])
    elif "$ref" in one:
        found = one["$ref"].rsplit("/", 1)[-1]
    elif "anyOf" in one:
        found = " or ".join(filter(None, map(_may_be, one["anyOf"])))
    elif one.get("type") == "array":
        found = f"several: {_may_be(one['items']) if one.get('items') else 'anything'}"
    elif "minimum" in one and "maximum" in one:
        found = range_words(one["minimum"], one["maximum"], unit)
    else:
        found = unit or _PLAIN.get(str(one.get("type", "")), "")
    usual = put_back(one.get("default"))
    if isinstance(usual, bool):
        usual = "yes" if usual else "no"
    return f"{found}; {usual}" if isinstance(usual, int | float | str) and usual != "" else found
