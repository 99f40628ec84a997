"""Beams: shear and bending of point and spread loads, and the closed forms of usual members."""

from collections.abc import Iterable, Sequence

Load = tuple[float, float, float]
"""A force and between where it is spread evenly; at a point where both are the same. [N or kg, mm]"""


def left_of(xs: Sequence[float], loads: Iterable[Load]) -> tuple[list[float], list[float]]:
    """The force of loads left of each point, and their moment there.

    Parameters
    ----------
    xs : sequence of n floats
        The points, ascending. [mm]
    loads : iterable of (force, start, end)
        [N or kg, mm]

    Returns
    -------
    (list of n floats, list of n floats)
        Force, just right of the point, and moment: the shear and bending that the loads by themselves make,
        with their sign turned. [N, N·mm; or kg, kg·mm]

    Notes
    -----
    Statics: force and moment are carried from place to place where a load begins or ends, as dV = q·dx and
    dM = V·dx + q·dx²/2. AISC Steel Construction Manual, table 3-23, holds special cases.
    """
    changes: list[tuple[float, float, float]] = []  # where, by how much force jumps, and density
    for force, start, end in loads:
        if end - start <= POINT:
            changes.append((end, force, 0.0))
        else:
            density = force / (end - start)
            changes.append((start, 0.0, density))
            changes.append((end, 0.0, -density))
    changes.sort()
    forces, moments = [], []
    force = density = moment = 0.0
    at, n, count = (changes[0][0] if changes else 0.0), 0, len(changes)
    for x in xs:
        while n < count and changes[n][0] <= x:
            where, jump, change = changes[n]
            by = where - at
            moment += (force + density * by / 2) * by
            force += density * by + jump
            density += change
            at = where
            n += 1
        by = max(0.0, x - at)
        forces.append(force + density * by)
        moments.append(moment + (force + density * by / 2) * by)
    return forces, moments


POINT = 1e-6
"""What is spread over less than this stands at a point. [mm]"""


def span_moment(w: float, span: float) -> float:
    """The greatest moment of a simply supported beam under an even load.

    Parameters
    ----------
    w : float
        Load. [N/mm]
    span : float
        Between the supports. [mm]

    Returns
    -------
    float
        w·l²/8. [N·mm] AISC table 3-23, case 1.
    """
    return w * span**2 / 8


def span_deflection(w: float, span: float, young: float, inertia: float) -> float:
    """The sag in the middle of a simply supported beam under an even load.

    Parameters
    ----------
    w : float
        Load. [N/mm]
    span : float
        Between the supports. [mm]
    young : float
        Modulus of elasticity. [MPa]
    inertia : float
        Second moment of area. [mm⁴]

    Returns
    -------
    float
        5·w·l⁴/(384·E·I). [mm] AISC table 3-23, case 1.
    """
    return 5 * w * span**4 / (384 * young * inertia)


def overhang_moments(w: float, span: float, overhang: float) -> tuple[float, float]:
    """The moments of a beam that hangs over both supports alike, under an even load.

    Parameters
    ----------
    w : float
        Load over the whole length. [N/mm]
    span, overhang : float
        Between the supports, and beyond each. [mm]

    Returns
    -------
    (float, float)
        Over a support w·a²/2 (hogging, given positive), and in the middle w·l²/8 - w·a²/2. [N·mm]
    """
    over = w * overhang**2 / 2
    return over, w * span**2 / 8 - over


def overhang_tip(w: float, span: float, overhang: float, young: float, inertia: float) -> float:
    """How far the tips of a beam that hangs over both supports alike go down.

    Parameters
    ----------
    w : float
        Even load over the whole length. [N/mm]
    span, overhang : float
        Between the supports, and beyond each. [mm]
    young, inertia : float
        Modulus of elasticity [MPa] and second moment of area [mm⁴].

    Returns
    -------
    float
        a·θ + w·a⁴/8EI with the slope over the support θ = (w·a²/2·l/2 - w·l³/24)/EI; below 0 where
        the middle's sag lifts the tips. [mm]
    """
    slope = (w * overhang**2 / 2 * span / 2 - w * span**3 / 24) / (young * inertia)
    return slope * overhang + w * overhang**4 / (8 * young * inertia)
