"""Lifting: the revised NIOSH equation.

Waters, Putz-Anderson, Garg & Fine, Ergonomics 36 (1993); Applications Manual, DHHS (NIOSH) 94-110 (from memory).
"""

import math
from typing import Literal, NamedTuple

CONSTANT = 23.0
"""Load constant. [kg]"""
NEAR, FAR = 25.0, 63.0
"""Hands are never nearer to the ankles than this, and nothing is lifted further out. [cm]"""
HIGHEST, LONGEST, TWISTED = 175.0, 175.0, 135.0
"""Bounds of the equation: height of the hands, travel [cm], asymmetry [°]."""
SHORTEST = 25.0
Coupling = Literal["good", "fair", "poor"]
COUPLING: dict[Coupling, tuple[float, float]] = {
    "good": (1.0, 1.0),
    "fair": (0.95, 1.0),
    "poor": (0.90, 0.90),
}
"""Multipliers with the hands below 75 cm, and from there on (table 7)."""


class Lift(NamedTuple):
    """One end of a lift.

    `out` is how far the hands are from the middle between the ankles, `height` theirs over the ground, `travel` how far it
    is lifted up or down [cm]; `twist` the asymmetry [°]; `often` the frequency multiplier, 1 for up to one in five minutes.
    """

    out: float
    height: float
    travel: float
    twist: float = 0.0
    coupling: Coupling = "fair"
    often: float = 1.0


def multipliers(one: Lift) -> tuple[float, float, float, float, float, float]:
    """The six multipliers: horizontal, vertical, distance, asymmetry, frequency, coupling.

    Args:
        one: [cm, °]
    Returns: 25/H, 1 - 0.003|V - 75|, 0.82 + 4.5/D, 1 - 0.0032 A, as given, by table 7; 0 beyond the bounds.
    """
    out, travel = max(one.out, NEAR), max(one.travel, SHORTEST)
    return (
        NEAR / out if out <= FAR else 0.0,
        1 - 0.003 * abs(one.height - 75.0) if 0 <= one.height <= HIGHEST else 0.0,
        0.82 + 4.5 / travel if travel <= LONGEST else 0.0,
        1 - 0.0032 * one.twist if one.twist <= TWISTED else 0.0,
        one.often,
        COUPLING[one.coupling][one.height >= 75.0],
    )


def limit(one: Lift) -> float:
    """The recommended weight limit of one end of a lift. [kg]"""
    return CONSTANT * math.prod(multipliers(one))


def index(kg: float, ends: tuple[Lift, ...]) -> float:
    """The lifting index: the mass over the least limit of its ends; infinite where one is beyond the bounds.

    Args:
        kg: What is lifted. [kg]
    Returns: Above 1 it is a strain for some, above 3 for most (the manual's words).
    """
    least = min(limit(e) for e in ends)
    return kg / least if least > 0 else math.inf


def held_out(width: float, height: float) -> float:
    """How far the hands are out with something held close before the body.

    Args:
        width: Of the load, away from the body. [cm]
        height: Of the hands. [cm]
    Returns: 20 + W/2, and 25 + W/2 with the hands below 25 cm (the manual's approximation). [cm]
    """
    return (25.0 if height < 25.0 else 20.0) + width / 2
