"""Beams: shear and bending of point and spread loads, and the closed forms of usual members."""

from typing import Any

from roomy_hull.core import lazily

np = lazily.module("numpy")


def left_of(xs: Any, force: Any, start: Any, end: Any) -> tuple[Any, Any]:
    """Give, for each load and each point, the force left of the point and its moment there.

    Parameters
    ----------
    xs : array of n
        The points. [mm]
    force, start, end : array of m
        Loads, and between where each is spread evenly; at a point where both are the same. [N or kg, mm]

    Returns
    -------
    (array of m × n, array of m × n)
        Force, just right of the point, and moment: the shear and bending that a load by itself makes,
        with its sign turned. [N, N·mm; or kg, kg·mm]

    Notes
    -----
    Statics; AISC Steel Construction Manual, table 3-23, holds special cases.
    """
    x, b, f = xs[None, :], end[:, None], force[:, None]
    # A point is a very short stretch that ends there, so that the shear just right of it holds it whole.
    a = np.minimum(start, end - 1e-9)[:, None]
    span = b - a
    inside = np.clip(x - a, 0.0, span)
    share = inside / span
    moment = inside * share / 2 + np.maximum(x - b, 0.0)
    return f * share, f * moment


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
