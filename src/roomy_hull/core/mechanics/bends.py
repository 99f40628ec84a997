"""Bends: the length of sheet that a bend takes."""

import math

from roomy_hull.core.errors import InputError


def bend_allowance(angle: float, radius: float, thickness: float, k: float) -> float:
    """The length of the neutral line through a bend.

    Parameters
    ----------
    angle : float
        Angle through which the sheet is bent; 90 for a right angle. [degree]
    radius : float
        Inside bend radius. [mm]
    thickness : float
        Sheet thickness. [mm]
    k : float
        Neutral line's place as a fraction of the thickness.

    Returns
    -------
    float
        BA = A·π/180·(R + K·T). [mm]

    Notes
    -----
    Source: Machinery's Handbook, sheet-metal bend allowance.
    """
    return math.radians(angle) * (radius + k * thickness)


def din_correction(thickness: float, radius: float, opening: float = 90.0) -> float:
    """The flat-length difference of a bend after DIN 6935.

    Parameters
    ----------
    thickness, radius : float
        Sheet thickness and inside bend radius, above 0. [mm]
    opening : float
        Opening angle β between the legs, at most 90. [degree]

    Returns
    -------
    float
        v = π·(180-β)/180·(R + T·k/2) - 2(R+T), k = 0.65 + 0.5·log10(R/T) at most 1. Added to
        the sum of the outside legs it gives the flat length. [mm]

    Raises
    ------
    InputError
        The opening angle is beyond 90 degrees, where DIN 6935 uses another formula.
    """
    if not 0 <= opening <= 90:
        raise InputError(
            "this form of DIN 6935 holds for opening angles up to 90 degrees",
            remedy="Give an angle between 0 and 90.",
        )
    k = min(1.0, 0.65 + 0.5 * math.log10(radius / thickness))
    return math.radians(180 - opening) * (radius + thickness * k / 2) - 2 * (radius + thickness)
