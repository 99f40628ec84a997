"""Places: in which cells of each bay a unit may begin at a height, as bits."""

from collections.abc import Iterable

import numpy as np

from roomy_hull.arrange.instance import Instance, Ints
from roomy_hull.core.geometry.solids import TOUCH

MOST_CELLS = 62
"""Cells of a bay are bits of one whole number."""


class Places:
    """Looks the free cells of a unit at a height up, each worked out once.

    Args:
        instance: What has to go where; its bays have at most `MOST_CELLS` cells.
        nowhere: Places that a rule forbids.
    """

    def __init__(
        self, instance: Instance, nowhere: Iterable[tuple[int, int, int, int]] = ()
    ) -> None:
        self._of = instance
        self._not = set(nowhere)
        self.tall = int(max(b.height for b in instance.bays))
        n, bays = len(instance.items), len(instance.bays)
        # Two tables: anywhere that is free, and only where something is under both ends.
        self._known = np.zeros((2, n, self.tall + 2), bool)
        self._bits = np.zeros((2, n, self.tall + 2, bays), np.int64)

    def bits(self, i: int, levels: Ints, *, feet: bool = False) -> Ints:
        """In which cells a unit's block may begin at some heights.

        Args:
            levels: Heights above the bays' floors, 0 to the highest bay's height. [mm]
            feet: Only where it needs no unit under it.
        """
        k = int(feet)
        for level in np.unique(levels[~self._known[k, i, levels]]):
            self._known[k, i, level] = True
            for b in range(len(self._of.bays)):
                self._bits[k, i, level, b] = self._cells(i, b, int(level), feet=feet)
        found: Ints = self._bits[k, i, levels]
        return found

    def _cells(self, i: int, bay: int, level: int, *, feet: bool) -> int:
        """The free cells of a unit in one bay at one height, as bits."""
        spot, room = self._of.items[i].spots[bay], self._of.bays[bay]
        if spot is None or spot.free.room is None:
            return 0
        u0, w0, u1, w1 = spot.free.room
        if not w0 - TOUCH <= level <= w1 + TOUCH:
            return 0
        bars = [b for b in spot.free.blocked if b[1] + TOUCH < level < b[3] - TOUCH]
        found = 0
        for cell in range(room.cells):
            u = self._of.u(i, bay, cell)
            if (
                u0 - TOUCH <= u <= u1 + TOUCH
                and (i, bay, cell, level) not in self._not
                and (not feet or spot.stands(u, level))
                and not any(b[0] + TOUCH < u < b[2] - TOUCH for b in bars)
            ):
                found |= 1 << cell
        return found
