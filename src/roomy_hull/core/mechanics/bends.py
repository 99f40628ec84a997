"""Bends: the length of sheet that a bend takes, the force that it needs, and what test bends tell of both."""

import math
from collections.abc import Sequence

import msgspec

from roomy_hull.core.errors import InputError

FACTOR = 1.33
"""Of the bending force in a V die (Groover, Fundamentals of Modern Manufacturing, from memory)."""
MEASURED = 0.1
"""One-sigma doubt of a leg or flat measured with a calliper (common practice). [mm]"""


def bend_allowance(angle: float, radius: float, thickness: float, k: float) -> float:
    """The length of the neutral line through a bend.

    Args:
        angle: Angle through which the sheet is bent; 90 for a right angle. [degree]
        radius: Inside bend radius. [mm]
        thickness: Sheet thickness. [mm]
        k: Neutral line's place as a fraction of the thickness.
    Returns: BA = A·π/180·(R + K·T). [mm]

    Source: Machinery's Handbook, sheet-metal bend allowance.
    """
    return math.radians(angle) * (radius + k * thickness)


def outside_setback(angle: float, radius: float, thickness: float) -> float:
    """How far a bend's tangent line lies from the corner at which the outsides of two legs meet.

    Args:
        angle: Through which the sheet is bent, under 180. [degree]
        radius, thickness: Inside radius and sheet. [mm]
    Returns: (R + T)·tan(A/2). [mm] Source: Machinery's Handbook, sheet-metal work.
    """
    return (radius + thickness) * math.tan(math.radians(angle) / 2)


def bending_force(
    thickness: float, width: float, tensile: float, opening: float, factor: float = FACTOR
) -> float:
    """The greatest force of bending in a V die.

    Args:
        thickness, width: Sheet thickness, and the bend's length. [mm]
        tensile: Tensile strength. [MPa]
        opening: The die's opening. [mm]
        factor: 1.33 for a V die.
    Returns: F = K·TS·w·t²/D. [N]
    Raises:
        InputError: The die has no opening.

    Source: Groover, Fundamentals of Modern Manufacturing, bending force (from memory).
    """
    if opening <= 0:
        raise InputError(
            "a die without an opening bends nothing", remedy="Enter its opening in mm."
        )
    return factor * tensile * width * thickness**2 / opening


class TestBend(msgspec.Struct, frozen=True):
    """A strip that a shop has bent and measured.

    Attributes:
        material: Its key among the shop's materials.
        thickness, radius: As measured; the inside radius. [mm]
        angle: Through which it was bent, under 180. [degree]
        one, other: Its legs, outside, each out to where their outsides meet. [mm]
        flat: Its length before. [mm]
    """

    __test__ = False  # a strip of metal, not a test of the program

    material: str
    thickness: float
    radius: float
    angle: float
    one: float
    other: float
    flat: float

    def allowance(self) -> float:
        """The sheet that its bend took: flat less both legs' straight stretches. [mm]"""
        back = outside_setback(self.angle, self.radius, self.thickness)
        return self.flat - (self.one - back) - (self.other - back)


class FittedK(msgspec.Struct, frozen=True):
    """A K factor from test bends with its one-sigma doubt, and from how many."""

    k: float
    uncertainty: float
    count: int


def fit_k(rows: Sequence[TestBend]) -> FittedK:
    """The K factor that some test bends of one sheet tell.

    Args:
        rows: At least one, each bent by more than a degree.
    Returns:
        By least squares of BA = A·(R + K·T). The doubt is the rows' scatter about it, or what a calliper leaves
        where that is more.
    Raises:
        InputError: There is none, or what they tell is no K factor: not between 0 and 1.
    """
    if not rows:
        raise InputError(
            "there is no test bend", remedy="Bend a strip, and enter its legs and its flat."
        )
    weights = [math.radians(r.angle) * r.thickness for r in rows]
    rest = [r.allowance() - math.radians(r.angle) * r.radius for r in rows]
    square = sum(w * w for w in weights)
    k = sum(w * b for w, b in zip(weights, rest, strict=True)) / square
    if not 0 < k < 1:
        raise InputError(
            f"these test bends give a K factor of {k:.2f}, which no sheet has",
            place=f"test bends of {rows[0].thickness:g} mm {rows[0].material}",
            remedy="Measure legs and flat again; legs are outside sizes.",
        )
    # Flat and both legs are measured.
    spread = MEASURED * math.sqrt(3)
    if len(rows) > 1:
        faults = sum((b - k * w) ** 2 for w, b in zip(weights, rest, strict=True))
        spread = max(spread, math.sqrt(faults / (len(rows) - 1)))
    return FittedK(k, spread / math.sqrt(square), len(rows))
