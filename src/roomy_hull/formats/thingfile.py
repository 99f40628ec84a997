"""Files of one thing each, a vehicle or a unit: what is common to reading, writing and listing them."""

from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar

import msgspec

from roomy_hull.core.errors import JobFileError, UserError
from roomy_hull.core.value import put_back
from roomy_hull.formats import folders
from roomy_hull.formats.plain_json import converted, decode, encode, first_version

T = TypeVar("T")


def read(data: bytes, place: str, form: str, field: str, kind: Any) -> Any:
    """Read one thing from the bytes of its file.

    Args:
        form, field: The file's format word, and the field that holds the thing.
    Raises:
        JobFileError: The file is damaged, foreign or newer, or a value in it is not allowed; names the place.
    """
    if not data.strip():
        raise JobFileError("the file is empty", place, f"Export the {field} again.")
    raw = decode(data, place)
    if not isinstance(raw, dict) or raw.get("format") != form:
        raise JobFileError(
            f"this is not a Roomy Hull {field}",
            place,
            f'A {field} file starts with "format": "{form}".',
        )
    if not first_version(raw.get("version")):
        raise JobFileError(
            f"the version {raw.get('version')!r} is not 1",
            place,
            "Open it with a newer Roomy Hull.",
        )
    inner = raw.get(field)
    if not isinstance(inner, dict):
        raise JobFileError(f"there is no field {field}", place, "See docs/formats.md.")
    return converted(inner, kind, place, "Mend the value; see docs/formats.md.")


def written(value: Any, form: str, field: str) -> bytes:
    """Write a thing as the bytes of its file."""
    frame: dict[str, Any] = {
        "format": form,
        "version": 1,
        field: put_back(msgspec.to_builtins(value)),
    }
    return encode(frame)


def own_folder(name: str) -> Path:
    """Name a folder of the user's own things."""
    return folders.data(name)


def listed(
    folder: Path, suffix: str, load: Callable[[Path], T]
) -> list[tuple[Path, T | None, str]]:
    """Read every file of a folder; a bad one is listed with its trouble.

    Returns: Sorted by name: the thing, or why it cannot be used.
    """
    found: list[tuple[Path, T | None, str]] = []
    for path in sorted(folder.glob(f"*{suffix}")) if folder.is_dir() else []:
        try:
            found.append((path, load(path), ""))
        except UserError as trouble:
            found.append((path, None, str(trouble)))
    return found
