"""Beams: shear and bending of point and spread loads, and the closed forms of usual members."""

import msgspec


class Load(msgspec.Struct, frozen=True):
    """A force down, at a point (`start` = `end`) or spread evenly between. [N, mm]

    An upward force, such as a support's, is negative.
    """

    newton: float
    start: float
    end: float


def shear_at(loads: tuple[Load, ...], x: float) -> float:
    """Give the shear force just right of a point: what is left of it pushes up, less what pushes down.

    Parameters
    ----------
    loads : tuple of Load
        All forces on the beam, supports included as negative ones. [N, mm]
    x : float
        Where. [mm]

    Returns
    -------
    float
        V(x) = -Σ F·(share of it left of x). [N]
    """
    total = 0.0
    for load in loads:
        if x >= load.end:
            total -= load.newton
        elif x > load.start:
            total -= load.newton * (x - load.start) / (load.end - load.start)
    return total


def moment_at(loads: tuple[Load, ...], x: float) -> float:
    """Give the bending moment at a point; positive where the beam sags.

    Parameters
    ----------
    loads : tuple of Load
        All forces on the beam, supports included as negative ones. [N, mm]
    x : float
        Where. [mm]

    Returns
    -------
    float
        M(x) = -Σ F·(lever of what is left of x). [N·mm]

    Notes
    -----
    Statics; AISC Steel Construction Manual, table 3-23, holds special cases.
    """
    total = 0.0
    for load in loads:
        if x >= load.end:
            total -= load.newton * (x - (load.start + load.end) / 2)
        elif x > load.start:
            total -= load.newton * (x - load.start) ** 2 / (2 * (load.end - load.start))
    return total


def span_moment(w: float, span: float) -> float:
    """Give the greatest moment of a simply supported beam under an even load.

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
    """Give the sag in the middle of a simply supported beam under an even load.

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
    """Give the moments of a beam that hangs over both supports alike, under an even load.

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
    """Give how far the tips of a beam that hangs over both supports alike go down.

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
