"""The shop's rates, recalibrated by the hours that were logged, with their doubt."""

import math
from collections.abc import Iterable
from typing import NamedTuple

SCATTER = 0.35
"""One sigma by which one finished operation differs from its rate, as a part (common practice)."""
LEAST_HOURS = 0.05
"""Operations shorter than this tell nothing of a rate. [h]"""


class Tuned(NamedTuple):
    """By what a kind of work takes longer than its rate says, one sigma of that as a part, and from how many operations."""

    factor: float = 1.0
    uncertainty: float = 0.3
    seen: int = 0


def tuned(pairs: Iterable[tuple[float, float]], uncertainty: float) -> Tuned:
    """Recalibrate one kind of work.

    Args:
        pairs: Of finished operations: hours by the rate, hours logged. [h]
        uncertainty: One sigma of the rate before anything was logged, as a part of it.
    Returns:
        The rate and the operations weighted by their precision, in logarithms: with a normal beginning of sigma
        `uncertainty` and observations of sigma `SCATTER`, the textbook's normal result (Gelman et al., Bayesian Data
        Analysis, section 2.5: precisions add, means are weighted by them).
    """
    seen = [math.log(got / said) for said, got in pairs if said > LEAST_HOURS and got > 0]
    begin = 1 / uncertainty**2
    precision = begin + len(seen) / SCATTER**2
    return Tuned(math.exp(sum(seen) / SCATTER**2 / precision), precision**-0.5, len(seen))
