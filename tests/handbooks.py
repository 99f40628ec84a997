"""Formulas of handbooks that the program's own are held against."""

import math


def din_correction(thickness: float, radius: float, opening: float = 90.0) -> float:
    """The flat-length difference of a bend after DIN 6935.

    Args:
        thickness, radius: Sheet thickness and inside bend radius, above 0. [mm]
        opening: Opening angle β between the legs, at most 90. [degree]
    Returns: v = π·(180-β)/180·(R + T·k/2) - 2(R+T), k = 0.65 + 0.5·log10(R/T) at most 1. Added to the sum of the
        outside legs it gives the flat length. [mm]
    """
    k = min(1.0, 0.65 + 0.5 * math.log10(radius / thickness))
    return math.radians(180 - opening) * (radius + thickness * k / 2) - 2 * (radius + thickness)


def peukert_hours(capacity: float, rated_hours: float, amps: float, exponent: float) -> float:
    """How long a lead-acid battery lasts at a current.

    Args:
        capacity: Rated. [Ah]
        rated_hours: The discharge that it is rated at. [h]
        amps: Current. [A]
        exponent: 1.05 to 1.3; 1 for lithium.
    Returns: t = H·(C/(I·H))^k (Peukert, 1897). [h]
    """
    if amps <= 0:
        return math.inf
    return float(rated_hours * (capacity / (amps * rated_hours)) ** exponent)


def luminance(colour: str) -> float:
    """A colour's relative luminance after WCAG 2.2.

    Args:
        colour: ``#rrggbb``.
    Returns: Between 0 and 1.
    """

    def linear(c: float) -> float:
        return c / 12.92 if c <= 0.04045 else float(((c + 0.055) / 1.055) ** 2.4)

    r, g, b = (linear(int(colour[i : i + 2], 16) / 255) for i in (1, 3, 5))
    return 0.2126 * r + 0.7152 * g + 0.0722 * b


def contrast(one: str, other: str) -> float:
    """The contrast ratio of two colours after WCAG 2.2, 1 to 21."""
    a, b = luminance(one), luminance(other)
    return (max(a, b) + 0.05) / (min(a, b) + 0.05)
