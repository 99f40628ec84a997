"""Bolts: stress area, and how far shear and tension together use one."""

import functools
import math

import msgspec

from roomy_hull.core.errors import InputError
from roomy_hull.core.tables.read import thread


class Grade(msgspec.Struct, frozen=True):
    """A property class: tensile strength [MPa] and the shear factor of EN 1993-1-8, table 3.4."""

    tensile: float
    shear: float


GRADES = {"8.8": Grade(800.0, 0.6), "10.9": Grade(1000.0, 0.5), "A2-70": Grade(700.0, 0.5)}
"""ISO 898-1 and ISO 3506-1; shear factors from EN 1993-1-8, table 3.4. From memory."""
PARTIAL = 1.25
"""Partial factor of bolts, EN 1993-1-8 (from memory)."""


def stress_area(name: str) -> float:
    """A bolt's stress area.

    Args:
        name: For example ``M8``.
    Returns: A = π/4·(d - 0.9382·P)². [mm²] ISO 898-1.
    Raises:
        InputError: The table does not hold it.
    """
    found = thread(name)
    return math.pi / 4 * (found.diameter - 0.9382 * found.pitch) ** 2


@functools.cache
def strength(name: str, grade: str) -> tuple[float, float]:
    """What one bolt holds in shear and in tension.

    Args:
        name, grade: For example ``M8`` and ``8.8``.
    Returns: F_v,Rd = α_v·f_ub·A/γ and F_t,Rd = 0.9·f_ub·A/γ. [N] EN 1993-1-8, table 3.4, from memory.
    Raises:
        InputError: No such bolt or grade.
    """
    if grade not in GRADES:
        raise InputError(f"there is no grade '{grade}'", remedy=f"Use one of {', '.join(GRADES)}.")
    area, g = stress_area(name), GRADES[grade]
    return g.shear * g.tensile * area / PARTIAL, 0.9 * g.tensile * area / PARTIAL


def bolt_use(name: str, grade: str, shear: float, tension: float) -> float:
    """How far one bolt is used.

    Args:
        name, grade: For example ``M8`` and ``8.8``.
        shear, tension: On one bolt; a push counts as no tension. [N]
    Returns: 1 where it is used up: the greater of F_t/F_t,Rd and F_v/F_v,Rd + F_t/(1.4·F_t,Rd).
    Raises:
        InputError: No such bolt or grade.

    EN 1993-1-8, table 3.4, from memory. The bolt alone: sheet, rail and rivet nut may give way first.
    """
    holds_shear, holds_tension = strength(name, grade)
    pull = max(0.0, tension)
    return max(pull / holds_tension, abs(shear) / holds_shear + pull / (1.4 * holds_tension))
