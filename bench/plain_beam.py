"""A beam computed point by point in plain Python: what the chassis and finite elements are held against."""

import msgspec


class Load(msgspec.Struct, frozen=True):
    """A force down, at a point (`start` = `end`) or spread evenly between. [N, mm]

    An upward force, such as a support's, is negative.
    """

    newton: float
    start: float
    end: float


def shear_at(loads: tuple[Load, ...], x: float) -> float:
    """The shear force just right of a point: what is left of it pushes up, less what pushes down.

    Args:
        loads: All forces on the beam, supports included as negative ones. [N, mm]
        x: Where. [mm]
    Returns: V(x) = -Σ F·(share of it left of x). [N]
    """
    total = 0.0
    for load in loads:
        if x >= load.end:
            total -= load.newton
        elif x > load.start:
            total -= load.newton * (x - load.start) / (load.end - load.start)
    return total


def moment_at(loads: tuple[Load, ...], x: float) -> float:
    """The bending moment at a point; positive where the beam sags.

    Args:
        loads: All forces on the beam, supports included as negative ones. [N, mm]
        x: Where. [mm]
    Returns: M(x) = -Σ F·(lever of what is left of x). [N·mm]

    Statics; AISC Steel Construction Manual, table 3-23, holds special cases.
    """
    total = 0.0
    for load in loads:
        if x >= load.end:
            total -= load.newton * (x - (load.start + load.end) / 2)
        elif x > load.start:
            total -= load.newton * (x - load.start) ** 2 / (2 * (load.end - load.start))
    return total
