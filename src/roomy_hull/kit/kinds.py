"""The kinds by name, and the one function that expands any unit."""

from collections.abc import Callable
from typing import Any

from roomy_hull.job.unit import Drawer, Fridge, Shelf, Tank, Unit
from roomy_hull.kit import drawer, fridge, shelf, tank
from roomy_hull.kit.expansion import Expansion

_EXPAND: dict[type, Callable[[Any, float], Expansion]] = {
    Drawer: drawer.expand,
    Fridge: fridge.expand,
    Shelf: shelf.expand,
    Tank: tank.expand,
}


def expand(unit: Unit, pitch: float) -> Expansion:
    """Write any unit out in its own frame.

    Parameters
    ----------
    unit : Unit
        The unit. [mm, kg]
    pitch : float
        Rail pitch of its bay. [mm]

    Returns
    -------
    Expansion
        Its solids, zones, masses, parts and likeness.

    Raises
    ------
    InputError
        The unit's sizes leave nothing inside it.
    """
    return _EXPAND[type(unit)](unit, pitch)


def kind_of(unit: Unit) -> str:
    """Give the unit's kind as the file names it."""
    return str(unit.__struct_config__.tag)
