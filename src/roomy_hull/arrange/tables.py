"""Tables: pairs of rows of which only a first part counts, and rows of one table in groups."""

from collections.abc import Iterator, Sequence

import numpy as np

from roomy_hull.arrange.instance import Floats, Ints


def first_parts(many: Ints, at_once: int) -> Iterator[tuple[Ints, Ints]]:
    """Pair every row with the first so many of another table, so many pairs at once.

    Args:
        at_once: A portion has fewer pairs than this, but always a whole row.
    Yields: Rows, and the rows of the other table from 0 on, in order.
    """
    ends = np.cumsum(many)
    lo = 0
    while lo < len(many):
        before = int(ends[lo - 1]) if lo else 0
        hi = max(lo + 1, int(np.searchsorted(ends, before + at_once)))
        few = many[lo:hi]
        row = np.repeat(np.arange(lo, hi), few)
        yield row, np.arange(len(row)) - np.repeat(np.cumsum(few) - few, few)
        lo = hi


def grouped(keys: Sequence[Ints], ties: Sequence[Floats | Ints]) -> tuple[Ints, Ints]:
    """Order rows by groups of equal keys.

    Args:
        keys: What is the same within a group; the last one is ordered by first, as of `numpy.lexsort`.
        ties: How a group is ordered, the last one first.
    Returns: The rows in order, and for each place in that order the place at which its group begins.
    """
    order: Ints = np.lexsort((*ties, *keys))
    new = np.arange(len(order)) == 0
    for key in keys:
        k = key[order]
        new[1:] |= k[1:] != k[:-1]
    first: Ints = np.maximum.accumulate(np.where(new, np.arange(len(order)), 0))
    return order, first
