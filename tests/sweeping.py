"""How much is tried: a sample at every run of the tests, everything in a sweep (``./test --sweep``)."""

import os
from collections.abc import Sequence
from typing import TypeVar

SWEEP = os.environ.get("ROOMY_HULL_SWEEP") == "1"
Item = TypeVar("Item")


def some(items: Sequence[Item], most: int) -> Sequence[Item]:
    """So many of some cases, evenly spread; all of them in a sweep."""
    return items if SWEEP else items[:: max(1, -(-len(items) // most))]


def examples(swept: int, usual: int) -> int:
    """How many examples a property is tried on, in a sweep and else."""
    return swept if SWEEP else usual
