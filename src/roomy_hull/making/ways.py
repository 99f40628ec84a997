"""Two ways of building one thing: folded of metal, or of ply boards screwed and glued; both weighed, costed and timed."""

from typing import Any

import msgspec

from roomy_hull.kinds.expansion import part_mass
from roomy_hull.kinds.kind import Site
from roomy_hull.kinds.placed import Placed
from roomy_hull.kinds.registry import expand
from roomy_hull.making.cost import NOTHING, Cost, cost, hours, joining
from roomy_hull.making.joints import joined
from roomy_hull.shop.shop import Shop

PLY: dict[str, float] = {"carcass": 12.0, "sheet": 9.0, "front": 12.0, "board": 12.0}
METAL: dict[str, float] = {"carcass": 2.0, "sheet": 1.6, "front": 3.0, "board": 3.0}
"""Usual thicknesses of each, by the field of the unit (common practice). [mm]"""
BOTH = frozenset({"drawer", "stack", "shelf", "pocket", "false floor", "wing"})
"""Kinds that owners build of either, by their word in the file."""


class Built(msgspec.Struct, frozen=True):
    """One way of building: of what, what it weighs, costs and takes. [kg, h]

    `changes` are the fields that make the unit so.
    """

    ply: bool
    kg: float
    cost: Cost
    hours: float
    changes: dict[str, Any]

    @property
    def words(self) -> str:
        """Which way it is."""
        return "of ply, screwed and glued" if self.ply else "folded of metal"

    @property
    def money(self) -> float:
        """What it costs in all."""
        return self.cost.total


def of_wood(unit: Placed, shop: Shop) -> bool:
    """Whether a unit is built of ply."""
    key = getattr(unit, "material", "")
    return key in shop.materials and shop.materials[key].wood


def changes_to(unit: Placed, shop: Shop, *, ply: bool) -> dict[str, Any]:
    """The fields that turn a unit into one of ply, or of metal.

    Args:
        unit: A unit of a kind that is built of either.
    Returns: Material and thicknesses; nothing for a kind that is built one way only, or is so already.
    """
    kind = str(type(unit).__struct_config__.tag)
    if kind not in BOTH or of_wood(unit, shop) == ply:
        return {}
    usual = PLY if ply else METAL
    fields = type(unit).__struct_fields__
    found: dict[str, Any] = {name: value for name, value in usual.items() if name in fields}
    return found | {"material": shop.ply if ply else shop.sheet}


def both_ways(
    unit: Placed, shop: Shop, pitch: float = 0.0, side: str = "left"
) -> tuple[Built, ...]:
    """Weigh, cost and time both ways of building a unit.

    Args:
        pitch: Of its bay's rails. [mm]
    Returns: As it is, then the other way; empty for a kind that is built one way only.
    Raises:
        InputError: The other way leaves no room inside.
    """
    other = changes_to(unit, shop, ply=not of_wood(unit, shop))
    if not other:
        return ()
    site = Site(pitch, shop, 0.0, side)
    return tuple(_built(unit.but(**changes), site, changes) for changes in ({}, other))


def _built(unit: Placed, site: Site, changes: dict[str, Any]) -> Built:
    """One way."""
    shop = site.shop
    made = joined(expand(unit, site).parts, shop.tools.joining)
    time = hours(made.parts, shop.prices)
    money = cost(list(made.parts), shop.prices).plus(joining(made.joints, shop.prices))
    money = money.plus(msgspec.structs.replace(NOTHING, labour=time * shop.prices.hour))
    return Built(of_wood(unit, shop), part_mass(made.parts), money, time, changes)
