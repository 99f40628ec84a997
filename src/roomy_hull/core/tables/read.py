"""Published tables of the trade, as data files that name their sources, read once."""

import functools
from pathlib import Path

import msgspec

from roomy_hull.core.errors import InputError

FOLDER = Path(__file__).parent


class Measure(msgspec.Struct, frozen=True):
    """One measure to take.

    Attributes:
        key, words, how: Its key, what it is, how to take it.
        sigma: Usual one-sigma doubt of one reading with a tape (common practice). [mm]
        sum: The lengths it is a sum of, with their signs; empty for a distance of the plan.
        quad: Which distance of the plan's four corners it is; empty for a sum.
    """

    key: str
    words: str
    how: str
    sigma: float
    sum: dict[str, float] = {}
    quad: str = ""


@functools.cache
def measures() -> dict[str, tuple[Measure, ...]]:
    """The guided measure list of each kind of vehicle (common practice)."""
    return msgspec.json.decode(
        (FOLDER / "measures.json").read_bytes(), type=dict[str, tuple[Measure, ...]]
    )


class Thread(msgspec.Struct, frozen=True):
    """A metric coarse thread. [mm]"""

    diameter: float
    pitch: float


@functools.cache
def threads() -> dict[str, Thread]:
    """The usual threads by name (ISO 261 coarse pitches)."""
    return msgspec.json.decode((FOLDER / "bolts.json").read_bytes(), type=dict[str, Thread])


def thread(key: str) -> Thread:
    """Look a thread up.

    Args:
        key: For example ``M8``.
    Raises:
        InputError: No such bolt; the message lists those there are.
    """
    if key not in threads():
        raise InputError(f"there is no bolt '{key}'", remedy=f"Use one of {', '.join(threads())}.")
    return threads()[key]
