"""The kinds by name, and the one function that expands any unit."""

from collections.abc import Callable
from typing import Any

import msgspec

from roomy_hull.job import edits
from roomy_hull.job import unit as units
from roomy_hull.job.unit import Unit
from roomy_hull.kit import (
    case_rack,
    compartment,
    device,
    drawer,
    false_floor,
    fridge,
    gas_locker,
    kitchen,
    own,
    pantry,
    partition,
    pocket,
    shelf,
    slide,
    stack,
    table,
    tank,
    tube,
    wing,
)
from roomy_hull.kit.expansion import Expansion

_EXPAND: dict[type, Callable[[Any, float], Expansion]] = {
    units.Drawer: drawer.expand, units.Stack: stack.expand, units.Fridge: fridge.expand,
    units.Slide: slide.expand, units.Shelf: shelf.expand, units.Pocket: pocket.expand,
    units.Partition: partition.expand, units.Pantry: pantry.expand, units.Table: table.expand,
    units.Kitchen: kitchen.expand, units.FalseFloor: false_floor.expand, units.Wing: wing.expand,
    units.Compartment: compartment.expand, units.Device: device.expand, units.GasLocker: gas_locker.expand,
    units.CaseRack: case_rack.expand, units.Tube: tube.expand, units.Tank: tank.expand,
    units.Own: own.expand,
}  # fmt: skip


def other_handed(unit: Unit) -> Unit:
    """Give a unit with left and right changed in all that is handed."""
    changes = edits.other_handed(unit)
    return msgspec.structs.replace(unit, **changes) if changes else unit


def expand(unit: Unit, pitch: float, side: str = "left") -> Expansion:
    """Write any unit out in its own frame.

    Parameters
    ----------
    unit : Unit
        The unit; its left and right are those of somebody facing it. [mm, kg]
    pitch : float
        Rail pitch of its bay. [mm]
    side : str
        Side of its bay: on the right side u runs from right to left as one faces it.

    Returns
    -------
    Expansion
        Its solids, zones, masses, parts, motions and likeness.

    Raises
    ------
    InputError
        The unit's sizes leave nothing inside it.
    """
    return _EXPAND[type(unit)](other_handed(unit) if side == "right" else unit, pitch)


def kind_of(unit: Unit) -> str:
    """Give the unit's kind as the file names it."""
    return str(unit.__struct_config__.tag)


def caution_of(unit: Unit) -> str:
    """Give what has to be said once where such a unit is placed; empty for most."""
    if isinstance(unit, units.Device) and unit.what in device.CAUTIONS:
        return device.CAUTIONS[unit.what] + "."
    if isinstance(unit, units.GasLocker):
        return gas_locker.CAUTION + "."
    if isinstance(unit, units.Kitchen) and unit.cooker == "burner":
        return (
            "Gas is connected and tested by a licensed gas fitter. Keep an extinguisher beside it."
        )
    return ""
