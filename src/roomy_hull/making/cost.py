"""What the parts cost: metal by mass, cutting by length, bends, and what is bought."""

import math

import msgspec

from roomy_hull.core.parts import BarPart, Hardware, Part, SheetPart
from roomy_hull.making.flats import blank
from roomy_hull.shop.shop import Prices


class Cost(msgspec.Struct, frozen=True):
    """Cost by what it is for, in the shop's own money."""

    sheet: float
    bar: float
    hardware: float
    cutting: float
    bending: float

    @property
    def total(self) -> float:
        """The whole."""
        return self.sheet + self.bar + self.hardware + self.cutting + self.bending


def cost(parts: list[Part], p: Prices) -> Cost:
    """Add up what some parts cost.

    Parameters
    ----------
    parts : list of Part
        The parts.
    p : Prices
        The shop's prices.

    Returns
    -------
    Cost
        Net metal by mass, the length of every outline and opening, every bend, every bought piece.
    """
    sheet = bar = hardware = cutting = bending = 0.0
    for part in parts:
        if isinstance(part, SheetPart):
            flat = blank(part)
            edge = sum(
                math.dist(a, b)
                for a, b in zip(flat.outline, flat.outline[1:] + flat.outline[:1], strict=True)
            )
            edge += sum(math.pi * h.diameter for h in flat.holes)
            edge += sum(2 * (c.length + c.width) for c in flat.cutouts)
            sheet += part.mass() * part.count * p.sheet_per_kg
            cutting += edge / 1000 * part.count * p.cut_per_m
            bending += len(flat.bends) * part.count * p.bend
        elif isinstance(part, BarPart):
            bar += part.mass() * part.count * p.bar_per_kg
        elif isinstance(part, Hardware):
            hardware += part.count * p.hardware
    return Cost(sheet, bar, hardware, cutting, bending)
