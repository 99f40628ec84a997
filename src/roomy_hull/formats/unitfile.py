"""Units as files: the user's own stores, one open file for each unit."""

from pathlib import Path

import msgspec

from roomy_hull.formats import thingfile
from roomy_hull.formats.atomic import read_whole, write_whole
from roomy_hull.kinds.kind import Offer, Use
from roomy_hull.kinds.registry import Unit

FORMAT = "roomy-hull-unit"
SUFFIX = ".unit.json"
USE: Use = "Your own"


def loads(data: bytes, place: str) -> Unit:
    """Read a unit from the bytes of its file.

    Raises:
        JobFileError: The file is damaged, foreign or newer, or a value in it is not allowed; names the place.
    """
    found: Unit = thingfile.read(data, place, FORMAT, "unit", Unit)
    return found


def load(path: Path) -> Unit:
    """Read one unit file.

    Raises:
        JobFileError: The file cannot be read, or `loads` refuses it.
    """
    return loads(read_whole(path), path.name)


def save(unit: Unit, path: Path) -> None:
    """Write a unit, without its place in a bay.

    Raises:
        JobFileError: The place cannot be written.
    """
    bare = msgspec.structs.replace(unit, bay="-", u=0.0, v=0.0, w=0.0)
    write_whole(path, thingfile.written(bare, FORMAT, "unit"), named=True)


def own_folder() -> Path:
    """The folder of the user's own stores."""
    return thingfile.own_folder("units")


def own_stores(folder: Path | None = None) -> tuple[tuple[Offer, ...], tuple[str, ...]]:
    """Read the user's own stores.

    Args:
        folder: By default `own_folder`.
    Returns: What can be placed, and the trouble of each file that cannot.
    """
    found, troubles = [], []
    for path, unit, trouble in thingfile.listed(folder or own_folder(), SUFFIX, load):
        if unit is None:
            troubles.append(trouble)
        else:
            found.append(Offer(f"own:{path.name}", USE, unit, f"From {path.name}"))
    return tuple(found), tuple(troubles)
