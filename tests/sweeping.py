"""How much is tried: a sample at every run of the tests, everything in a sweep (``./test --sweep``)."""

import itertools
import os
from collections.abc import Callable, Sequence
from typing import Any, TypeVar

SWEEP = os.environ.get("ROOMY_HULL_SWEEP") == "1"
Item = TypeVar("Item")
AGES = 3600.0
"""A search that is bounded by what it does is given this long, so that no slow machine ends it. [s]"""


def some(items: Sequence[Item], most: int) -> Sequence[Item]:
    """So many of some cases, evenly spread; all of them in a sweep."""
    return items if SWEEP else items[:: max(1, -(-len(items) // most))]


def examples(swept: int, usual: int) -> int:
    """How many examples a property is tried on, in a sweep and else."""
    return swept if SWEEP else usual


def bounded(looks: int) -> Callable[[Any], bool]:
    """Lets a search go on until it has told so often how far it is: its work is bounded, not its time."""
    count = itertools.count(1)
    return lambda _told: next(count) < looks
