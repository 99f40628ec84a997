"""Masses with their doubt, and the chance that a limit is exceeded."""

import math
from typing import Annotated, Literal

from roomy_hull.core.card import shown

Source = Literal["weighed", "data sheet", "geometry", "estimate"]

MassSource = Annotated[Source, shown("Mass known by", "Decides its uncertainty")]

RELATIVE_UNCERTAINTY: dict[str, float] = {
    "weighed": 0.005,
    "data sheet": 0.03,
    "geometry": 0.05,
    "estimate": 0.15,
}
"""One-sigma doubt as a fraction of the mass, by where the figure comes from (common practice)."""


def uncertainty_of(kg: float, source: str) -> float:
    """The one-sigma doubt of a mass.

    Args:
        kg: Mass. [kg]
        source: A key of `RELATIVE_DOUBT`.
    Returns: One-sigma doubt, never negative. [kg]
    """
    return abs(kg) * RELATIVE_UNCERTAINTY[source]


def chance_over(mean: float, sigma: float, limit: float) -> float:
    """The chance that a normally distributed value exceeds a limit.

    Args:
        mean, sigma, limit: Mean, one-sigma doubt and limit, in one common unit; sigma not negative.
    Returns:
        Probability between 0 and 1, from the normal distribution's complement Q = erfc(z / √2) / 2 with z = (limit
        - mean) / sigma.
    """
    if sigma <= 0.0:
        return 1.0 if mean > limit else 0.0
    return 0.5 * math.erfc((limit - mean) / (sigma * math.sqrt(2.0)))


def source_of(kg: float, sigma: float) -> str:
    """Where a mass is known from, by its doubt.

    Args:
        kg, sigma: Mass and its one-sigma doubt. [kg]
    Returns: The key of `RELATIVE_DOUBT` that comes nearest; a person or ball counts as ``estimate``.
    """
    if kg == 0:
        return "estimate"
    share = sigma / abs(kg)
    return min(RELATIVE_UNCERTAINTY, key=lambda key: abs(RELATIVE_UNCERTAINTY[key] - share))
