"""Vehicles as files: the library that ships, a folder of the user's own, import and export."""

from pathlib import Path

import msgspec

from roomy_hull.core.shipped import FOLDER
from roomy_hull.formats import thingfile
from roomy_hull.formats.atomic import read_whole, write_whole
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

    Raises:
        JobFileError: The file is damaged, foreign or newer, or a value in it is not allowed; names the place.
    """
    found: Vehicle = thingfile.read(data, place, FORMAT, "vehicle", Vehicle)
    return found


def load(path: Path) -> Vehicle:
    """Read one vehicle file.

    Raises:
        JobFileError: The file cannot be read, or `loads` refuses it.
    """
    return loads(read_whole(path), path.name)


def dumps(vehicle: Vehicle) -> bytes:
    """Write a vehicle as the bytes of its file."""
    return thingfile.written(vehicle, FORMAT, "vehicle")


def save(vehicle: Vehicle, path: Path) -> None:
    """Export a vehicle.

    Raises:
        JobFileError: The place cannot be written.
    """
    write_whole(path, dumps(vehicle), named=True)


def own_folder() -> Path:
    """The folder of the user's own vehicles, as the desktop standard names it."""
    return thingfile.own_folder("vehicles")


def library(own: Path | None = None) -> list[Entry]:
    """List the library: what ships, then what the user added; a bad file is listed with its trouble.

    Args:
        own: The user's folder; by default `own_folder`.
    Returns: Sorted by file name within each folder.
    """
    folders = (FOLDER / "vehicles", own or own_folder())
    return [Entry(*row) for folder in folders for row in thingfile.listed(folder, SUFFIX, load)]
