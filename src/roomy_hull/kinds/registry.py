"""The kinds by name, found in their folder, and the one function that expands any unit."""

import functools
import importlib
import operator
import os
from typing import TYPE_CHECKING

import msgspec

from roomy_hull import kinds
from roomy_hull.core.errors import InputError
from roomy_hull.core.geometry.frames import OTHER_SIDE
from roomy_hull.core.parts import BarPart, SheetPart, mirrored
from roomy_hull.kinds.expansion import Expansion
from roomy_hull.kinds.kind import Kind, Site
from roomy_hull.kinds.placed import Placed

SUPPORT = frozenset({
    "boxes",
    "card",
    "common",
    "expansion",
    "kind",
    "placed",
    "registry",
    "tank_face",
})
"""Files of the folder that are no kind of unit."""


def _found() -> dict[type[Placed], Kind]:
    """Read every kind in the folder: a new one is one new file."""
    # Not by `pkgutil`, which reads `inspect` first: a twentieth of the time until the window is drawn.
    files = {
        name.removesuffix(".py")
        for folder in kinds.__path__
        for name in os.listdir(folder)
        if name.endswith(".py")
    }
    names = sorted(files - SUPPORT - {"__init__"})
    records = [importlib.import_module(f"{kinds.__name__}.{name}").KIND for name in names]
    return {record.value: record for record in records}


KINDS: dict[type[Placed], Kind] = _found()
"""Every kind by its value's type."""

if TYPE_CHECKING:
    Unit = Placed
else:
    Unit = functools.reduce(operator.or_, KINDS)
"""Any unit: in the job file its field ``kind`` says which."""


def kind_of(unit: Placed) -> Kind:
    """Look up what kind a unit is."""
    return KINDS[type(unit)]


def handed_changes(unit: Placed) -> dict[str, object]:
    """List what changes as a unit is mirrored: fields that are handed, with left and right changed, and places on it."""
    kind = kind_of(unit)
    changes: dict[str, object] = {
        name: OTHER_SIDE[getattr(unit, name)]
        for name in kind.handed
        if getattr(unit, name) in OTHER_SIDE
    }
    for a, b in kind.paired:
        changes |= {a: getattr(unit, b), b: getattr(unit, a)}
    return changes | kind.turned(unit)


def expand(unit: Placed, site: Site, side: str = "left") -> Expansion:
    """Write any unit out in its own frame.

    Args:
        unit: The unit; its left and right are those of somebody facing it. [mm, kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
        side: Side of its bay: on the right side u runs from right to left as one faces it.
    Raises:
        InputError: The unit's sizes leave nothing inside it, or the shop lacks its material.
    """
    found = _expanded(unit, site, side)
    for part in found.parts:
        if isinstance(part, SheetPart | BarPart) and not _has_size(part):
            raise InputError(
                f"its sizes leave nothing of the {part.name.split(': ')[-1]}", place=unit.name,
                remedy="Make it larger, or its sheets thinner.",
            )  # fmt: skip
    return found


def _has_size(part: SheetPart | BarPart) -> bool:
    """Whether there is anything to cut of a part."""
    sizes = (
        (part.length, part.width, part.thickness) if isinstance(part, SheetPart) else (part.length,)
    )
    return min(sizes) > 0 and part.mass() > 0


def _expanded(unit: Placed, site: Site, side: str) -> Expansion:
    """Write a unit out as its kind does, on the right side turned over."""
    if side == "right":
        changes = handed_changes(unit)
        unit = msgspec.structs.replace(unit, **changes) if changes else unit
        found = kind_of(unit).expand(unit, site)
        # There u, v, w are left-handed: what is cut is turned over, so that it stands where it is drawn.
        return msgspec.structs.replace(found, parts=tuple(mirrored(p) for p in found.parts))
    return kind_of(unit).expand(unit, site)
