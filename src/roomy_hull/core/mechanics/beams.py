"""Beams: shear and bending of point and spread loads, and the closed forms of usual members."""

import math
from collections.abc import Iterable, Sequence

Load = tuple[float, float, float]
"""A force and between where it is spread evenly; at a point where both are the same. [N or kg, mm]"""
Change = tuple[float, float, float, int]
"""Where something begins or ends [mm], by how much force and its density jump there [N, N/mm], and its group."""
POINT = 1e-6
"""What is spread over less than this stands at a point. [mm]"""


def changes(loads: Iterable[Load], group: int = 0) -> list[Change]:
    """Where loads begin and end.

    Args:
        loads: [N or kg, mm]
        group: What they scale with, for `carried`.
    Returns: In the order of the loads.
    """
    found: list[Change] = []
    for force, start, end in loads:
        if end - start <= POINT:
            found.append((end, force, 0.0, group))
        else:
            density = force / (end - start)
            found += ((start, 0.0, density, group), (end, 0.0, -density, group))
    return found


def carried(
    xs: Sequence[float], sorted_changes: Sequence[Change], factors: Sequence[float]
) -> tuple[list[float], list[float]]:
    """The force of scaled loads left of each point, and their moment there.

    Args:
        xs: The points, ascending. [mm]
        sorted_changes: Ascending. [mm, N or kg]
    Returns:
        Force, just right of the point, and moment: the shear and bending that the loads by themselves make, with
        their sign turned. [N, N·mm; or kg, kg·mm]
    Statics: force and moment are carried from place to place where a load begins or ends, as dV = q·dx and
    dM = V·dx + q·dx²/2. AISC Steel Construction Manual, table 3-23, holds special cases.
    """
    forces, moments = [], []
    force = density = moment = 0.0
    n, count = 0, len(sorted_changes)
    at = next_at = sorted_changes[0][0] if count else math.inf
    for x in xs:
        while next_at <= x:
            _where, jump, change, group = sorted_changes[n]
            factor = factors[group]
            by = next_at - at
            if by:
                moment += (force + density * by / 2) * by
                force += density * by
                at = next_at
            force += factor * jump
            density += factor * change
            n += 1
            next_at = sorted_changes[n][0] if n < count else math.inf
        by = x - at if x > at else 0.0
        forces.append(force + density * by)
        moments.append(moment + (force + density * by / 2) * by)
    return forces, moments


def span_moment(w: float, span: float) -> float:
    """The greatest moment of a simply supported beam under an even load.

    Args:
        w: Load. [N/mm]
        span: Between the supports. [mm]
    Returns: w·l²/8. [N·mm] AISC table 3-23, case 1.
    """
    return w * span**2 / 8


def span_deflection(w: float, span: float, young: float, inertia: float) -> float:
    """The sag in the middle of a simply supported beam under an even load.

    Args:
        w: Load. [N/mm]
        span: Between the supports. [mm]
        young: Modulus of elasticity. [MPa]
        inertia: Second moment of area. [mm⁴]
    Returns: 5·w·l⁴/(384·E·I). [mm] AISC table 3-23, case 1.
    """
    return 5 * w * span**4 / (384 * young * inertia)


def overhang_moments(w: float, span: float, overhang: float) -> tuple[float, float]:
    """The moments of a beam that hangs over both supports alike, under an even load.

    Args:
        w: Load over the whole length. [N/mm]
        span, overhang: Between the supports, and beyond each. [mm]
    Returns: Over a support w·a²/2 (hogging, given positive), and in the middle w·l²/8 - w·a²/2. [N·mm]
    """
    over = w * overhang**2 / 2
    return over, w * span**2 / 8 - over


def overhang_tip(w: float, span: float, overhang: float, young: float, inertia: float) -> float:
    """How far the tips of a beam that hangs over both supports alike go down.

    Args:
        w: Even load over the whole length. [N/mm]
        span, overhang: Between the supports, and beyond each. [mm]
        young, inertia: Modulus of elasticity [MPa] and second moment of area [mm⁴].
    Returns:
        a·θ + w·a⁴/8EI with the slope over the support θ = (w·a²/2·l/2 - w·l³/24)/EI; below 0 where the middle's
        sag lifts the tips. [mm]
    """
    slope = (w * overhang**2 / 2 * span / 2 - w * span**3 / 24) / (young * inertia)
    return slope * overhang + w * overhang**4 / (8 * young * inertia)
