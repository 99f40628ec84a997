"""Vehicles as files: the library that ships, a folder of the user's own, import and export."""

import json
import os
from pathlib import Path
from typing import Any

import msgspec

from roomy_hull.core.errors import JobFileError, UserError
from roomy_hull.core.shipped import FOLDER
from roomy_hull.formats.jobfile import decode, worded, write_whole
from roomy_hull.job.value import put_back, set_aside
from roomy_hull.job.vehicle import Vehicle

FORMAT = "roomy-hull-vehicle"
SUFFIX = ".vehicle.json"


class Entry(msgspec.Struct, frozen=True):
    """One file of the library: a vehicle, or why it cannot be used."""

    path: Path
    vehicle: Vehicle | None
    trouble: str = ""


def loads(data: bytes, place: str) -> Vehicle:
    """Read a vehicle from the bytes of its file.

    Parameters
    ----------
    data : bytes
        UTF-8 JSON.
    place : str
        What to call the file in messages.

    Returns
    -------
    Vehicle
        The vehicle, unknown fields kept.

    Raises
    ------
    JobFileError
        The file is damaged, foreign or newer, or a value in it is not allowed; names the place.
    """
    if not data.strip():
        raise JobFileError("the file is empty", place, "Export the vehicle again.")
    raw = decode(data, place)
    if not isinstance(raw, dict) or raw.get("format") != FORMAT:
        raise JobFileError(
            "this is not a Roomy Hull vehicle",
            place,
            f'A vehicle file starts with "format": "{FORMAT}".',
        )
    if raw.get("version") != 1:
        raise JobFileError(
            f"the version {raw.get('version')!r} is not 1",
            place,
            "Open it with a newer Roomy Hull.",
        )
    inner = raw.get("vehicle")
    if not isinstance(inner, dict):
        raise JobFileError("there is no field vehicle", place, "See docs/formats.md.")
    try:
        return msgspec.convert(set_aside(inner, Vehicle), Vehicle)
    except msgspec.ValidationError as trouble:
        what, where = worded(str(trouble), inner)
        raise JobFileError(
            what, f"{place}, {where}" if where else place, "Mend the value; see docs/formats.md."
        ) from None


def load(path: Path) -> Vehicle:
    """Read one vehicle file.

    Parameters
    ----------
    path : Path
        The file.

    Returns
    -------
    Vehicle
        The vehicle.

    Raises
    ------
    JobFileError
        The file cannot be read, or `loads` refuses it.
    """
    try:
        data = path.read_bytes()
    except OSError as trouble:
        raise JobFileError(
            f"the file cannot be read ({trouble.strerror})", str(path), "Check its name and rights."
        ) from None
    return loads(data, path.name)


def dumps(vehicle: Vehicle) -> bytes:
    """Write a vehicle as the bytes of its file."""
    frame: dict[str, Any] = {
        "format": FORMAT,
        "version": 1,
        "vehicle": put_back(msgspec.to_builtins(vehicle)),
    }
    return (json.dumps(frame, indent=1, ensure_ascii=False, allow_nan=False) + "\n").encode()


def save(vehicle: Vehicle, path: Path) -> None:
    """Export a vehicle.

    Parameters
    ----------
    vehicle : Vehicle
        The vehicle.
    path : Path
        The file.

    Raises
    ------
    JobFileError
        The place cannot be written.
    """
    write_whole(path, dumps(vehicle))


def own_folder() -> Path:
    """Give the folder of the user's own vehicles, as the desktop standard names it."""
    home = os.environ.get("XDG_DATA_HOME") or Path.home() / ".local/share"
    return Path(home) / "roomy-hull" / "vehicles"


def library(own: Path | None = None) -> list[Entry]:
    """List the library: what ships, then what the user added; a bad file is listed with its trouble.

    Parameters
    ----------
    own : Path or None
        The user's folder; by default `own_folder`.

    Returns
    -------
    list of Entry
        Sorted by file name within each folder.
    """
    found = []
    for folder in (FOLDER / "vehicles", own or own_folder()):
        for path in sorted(folder.glob(f"*{SUFFIX}")) if folder.is_dir() else []:
            try:
                found.append(Entry(path, load(path)))
            except UserError as trouble:
                found.append(Entry(path, None, str(trouble)))
    return found
