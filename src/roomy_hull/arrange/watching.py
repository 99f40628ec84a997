"""Watching: rules on pairs of units in one bay, and the exact places of units that a rule names."""

import msgspec
import numpy as np
from numpy.typing import NDArray

from roomy_hull.arrange.instance import Floats, Instance, Ints

Bools = NDArray[np.bool_]


LEVELS = 4096
"""Heights are below this. [mm]"""


class Bar(msgspec.Struct, frozen=True):
    """Two units that may not stand so to each other in a bay.

    `apart` are the forbidden numbers of cells from the first one's block to the other's; `levels` the heights of both at
    which that is so, none for any; `bay` the bay, below 0 for any.
    """

    a: int
    b: int
    apart: frozenset[int]
    levels: tuple[int, int] | None = None
    bay: int = -1


class Watch(msgspec.Struct, frozen=True):
    """Units whose exact place matters, since a rule names them; and pairs that may not stand so in one bay."""

    units: tuple[int, ...] = ()
    bars: tuple[Bar, ...] = ()


def place_of(instance: Instance, item: int, level: Ints) -> Ints:
    """The code of an item's place at cell 0 and some heights: 1 + cell + 64 · (height + 1), other where it rides."""
    rank = item - instance.count + 1 if item >= instance.count else 0
    found: Ints = 1 + 64 * (level + 1 + LEVELS * rank)
    return found


def codes(instance: Instance, has: Floats, off: Floats, lev: Ints, unit: int) -> Ints:
    """The code of a unit's place in every strip, 0 where it is not in it."""
    found = np.zeros(len(has), np.int64)
    for i in range(len(instance.items)):
        if instance.unit(i) == unit:
            found += np.where(
                has[:, i] > 0, off[:, i].astype(np.int64) + place_of(instance, i, lev[:, i]), 0
            )
    return found


def hits(bar: Bar, a: Ints, b: Ints) -> Bools:
    """Whether two places, as 1 + cell + 64 · (height + 1), are so to each other as a bar forbids."""
    away = np.fromiter(bar.apart, np.int64, len(bar.apart))
    found: Bools = np.isin((b - 1) % 64 - (a - 1) % 64, away)
    if bar.levels is not None:
        found &= ((a - 1) // 64 - 1 == bar.levels[0]) & ((b - 1) // 64 - 1 == bar.levels[1])
    return found
