"""Near: which of many boxes come near to one, without asking each."""

from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from typing import Any

from roomy_hull.core.geometry.solids import Box

FEW_TIMES = 3.0
"""Boxes longer than so many times the middle length count as long."""


def beside(a: Box, b: Box, by: float) -> bool:
    """Whether two boxes are further apart than a gap, along some axis. [mm]"""
    return (
        b[0] - a[3] > by or a[0] - b[3] > by or b[1] - a[4] > by
        or a[1] - b[4] > by or b[2] - a[5] > by or a[2] - b[5] > by
    )  # fmt: skip


MANY = 64
"""In a stretch of more than so many boxes, asking all at once is quicker than one by one."""


class Boxes:
    """Boxes ordered along x, so that those near to another are found by halving.

    Args:
        boxes: In the order in which they are to be named. [mm]
    """

    def __init__(self, boxes: Sequence[Box]) -> None:
        order = sorted(range(len(boxes)), key=lambda n: boxes[n][0])
        lengths = sorted(b[3] - b[0] for b in boxes)
        # A few long ones, asked one by one, would else widen the search for all.
        limit = FEW_TIMES * lengths[len(lengths) // 2] if lengths else 0.0
        self._long = [(n, boxes[n]) for n in order if boxes[n][3] - boxes[n][0] > limit]
        self._short = [(n, boxes[n]) for n in order if boxes[n][3] - boxes[n][0] <= limit]
        self._starts = [box[0] for _n, box in self._short]
        self._columns: Any = None
        self._names: Any = None
        self._longest = max((box[3] - box[0] for _n, box in self._short), default=0.0)

    def near(self, box: Box, by: float) -> list[int]:
        """Those that are no further from a box than a gap along any axis.

        Args:
            box: The one. [mm]
            by: The gap. [mm]
        Returns: Their places in the order in which they were given, ascending.
        """
        # A hair more than the gap, so that rounding of the ends never leaves out what `beside` keeps.
        reach = by + 1e-6
        low = bisect_left(self._starts, box[0] - reach - self._longest)
        high = bisect_right(self._starts, box[3] + reach)
        if high - low > MANY:
            return self._among_many(low, high, box, by)
        x0, y0, z0, x1, y1, z1 = box
        return sorted(
            n
            for some in (self._short[low:high], self._long)
            for n, b in some
            if not (
                b[1] - y1 > by or y0 - b[4] > by or b[2] - z1 > by
                or z0 - b[5] > by or b[0] - x1 > by or x0 - b[3] > by
            )
        )  # fmt: skip

    def _among_many(self, low: int, high: int, box: Box, by: float) -> list[int]:
        """As `near`, for a stretch of so many that all are asked at once."""
        if self._columns is None:
            import numpy as np  # ruff: ignore[import-outside-top-level]  # only where there are many: it would cost a third of the start

            self._names = np.array([n for n, _b in (*self._long, *self._short)])
            self._columns = np.array([b for _n, b in (*self._long, *self._short)]).T
        x0, y0, z0, x1, y1, z1 = box
        long = len(self._long)
        found: list[int] = []
        for some in (slice(0, long), slice(long + low, long + high)):
            a0, a1, a2, b0, b1, b2 = self._columns[:, some]
            hits = ~(
                (a1 - y1 > by) | (y0 - b1 > by) | (a2 - z1 > by)
                | (z0 - b2 > by) | (a0 - x1 > by) | (x0 - b0 > by)
            )  # fmt: skip
            found += self._names[some][hits].tolist()
        return sorted(found)
