"""Stored: how much room for goods a unit gives."""

from roomy_hull.core.errors import InputError
from roomy_hull.job import unit as units
from roomy_hull.job.unit import Unit
from roomy_hull.kit import drawer, stack


def _drawer(one: units.Drawer) -> float:
    """Give the inside of a drawer's box. [mm³]"""
    wide = drawer.inner_width(one) - 2 * one.sheet
    deep = one.depth - one.front - 25 - 2 * one.sheet
    high = one.height - one.carcass - 2 * drawer.BOX_GAP - drawer.head(one) - one.sheet
    return max(0.0, wide) * max(0.0, deep) * max(0.0, high)


def stored_litres(unit: Unit) -> float:
    """Give the room that a unit has for goods, from the inside of its sheets.

    Parameters
    ----------
    unit : Unit
        Any unit. [mm]

    Returns
    -------
    float
        Volume; a fridge's as its data sheet says, 0 for tanks, devices and what stores nothing. [l]
    """
    w, d, h = unit.width, unit.depth, unit.height
    if isinstance(unit, units.Drawer):
        return _drawer(unit) * 1e-6
    if isinstance(unit, units.Stack):
        try:
            return sum(_drawer(one) for _low, one in stack.drawers(unit)) * 1e-6
        except InputError:
            return 0.0
    if isinstance(unit, units.Fridge):
        return unit.litres
    if isinstance(unit, units.CaseRack):
        return unit.across * unit.up * unit.case_width * unit.case_depth * unit.case_height * 1e-6
    if isinstance(unit, units.Pantry):
        return max(0.0, w - 50) * max(0.0, d - unit.front - 60) * h * 0.8 * 1e-6
    if isinstance(unit, units.Shelf | units.Pocket | units.Tube | units.Compartment):
        t = unit.sheet
        return max(0.0, w - 2 * t) * max(0.0, d - t) * max(0.0, h - t) * 1e-6
    if isinstance(unit, units.Wing | units.FalseFloor):
        t = unit.board
        return max(0.0, w - 2 * t) * max(0.0, d - 2 * t) * max(0.0, h - t) * 1e-6
    if isinstance(unit, units.Kitchen):
        return max(0.0, w - 60) * max(0.0, d - 60) * max(0.0, h - 60) * 0.5 * 1e-6
    return 0.0
