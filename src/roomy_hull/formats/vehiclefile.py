"""Vehicles as files: the library that ships, a folder of the user's own, import and export."""

import os
from pathlib import Path
from typing import Any

import msgspec

from roomy_hull.core.errors import JobFileError, UserError
from roomy_hull.core.shipped import FOLDER
from roomy_hull.formats.jobfile import converted, decode, encode, read_whole, write_whole
from roomy_hull.job.value import put_back
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
    return converted(inner, Vehicle, place, "Mend the value; see docs/formats.md.")


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
    return loads(read_whole(path), path.name)


def dumps(vehicle: Vehicle) -> bytes:
    """Write a vehicle as the bytes of its file."""
    frame: dict[str, Any] = {
        "format": FORMAT,
        "version": 1,
        "vehicle": put_back(msgspec.to_builtins(vehicle)),
    }
    return encode(frame)


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
