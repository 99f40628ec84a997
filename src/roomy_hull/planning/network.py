"""A network of operations: earliest and latest times, slack, the critical path.

Kelley, J. E., and Walker, M. R., Critical-path planning and scheduling, Proceedings of the Eastern Joint Computer
Conference (1959): one pass forwards, one backwards.
"""

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from roomy_hull.core.errors import InputError

EXACT = 1e-9


class Times(NamedTuple):
    """When an operation can be begun and ended, at the earliest and at the latest. [h]"""

    start: float
    finish: float
    late_start: float

    @property
    def slack(self) -> float:
        """By how much it can slip without the whole taking longer. [h]"""
        return self.late_start - self.start


def in_sequence(after: Mapping[str, Sequence[str]]) -> list[str]:
    """Order operations so that each stands behind those that it comes after.

    Args:
        after: For every operation, which come before it; the order of those that need not wait stays.
    Raises:
        InputError: Some wait for each other; names them in their circle.
    """
    waits = {key: len(set(before)) for key, before in after.items()}
    follows: dict[str, list[str]] = {key: [] for key in after}
    for key, before in after.items():
        for one in dict.fromkeys(before):
            if one not in after:
                raise InputError(
                    f"'{key}' comes after '{one}', which is not there", "the plan", "Take it out."
                )
            follows[one].append(key)
    ready = [key for key, n in waits.items() if not n]
    found: list[str] = []
    at = 0
    while at < len(ready):
        key = ready[at]
        at += 1
        found.append(key)
        for later in follows[key]:
            waits[later] -= 1
            if not waits[later]:
                ready.append(later)
    if len(found) < len(after):
        raise InputError(
            f"these wait for each other: {', '.join(circle(after, set(found)))}", "the plan",
            "Take one of the conditions out.",
        )  # fmt: skip
    return found


def circle(after: Mapping[str, Sequence[str]], done: set[str]) -> list[str]:
    """Find a circle among operations that cannot be ordered: each waits for the next."""
    key = next(k for k in after if k not in done)
    walked: list[str] = []
    while key not in walked:
        walked.append(key)
        key = next(k for k in after[key] if k not in done)
    return walked[walked.index(key) :]


def times(
    hours: Mapping[str, float], after: Mapping[str, Sequence[str]], begins: Mapping[str, float] | None = None
) -> dict[str, Times]:  # fmt: skip
    """Compute the earliest and latest times of a network.

    Args:
        hours: How long each operation takes. [h]
        after: Which have to be ended before each.
        begins: Before when some cannot be begun. [h]
    Returns: With the latest times measured from the end of the whole.
    Raises:
        InputError: Some wait for each other.
    """
    order = in_sequence(after)
    least = begins or {}
    early: dict[str, tuple[float, float]] = {}
    for key in order:
        start = max((early[p][1] for p in after[key]), default=0.0)
        start = max(start, least.get(key, 0.0))
        early[key] = (start, start + hours[key])
    end = max((finish for _s, finish in early.values()), default=0.0)
    late = dict.fromkeys(order, end)
    for key in reversed(order):
        for before in after[key]:
            late[before] = min(late[before], late[key] - hours[key])
    return {k: Times(*early[k], late[k] - hours[k]) for k in order}


def critical(found: Mapping[str, Times], after: Mapping[str, Sequence[str]]) -> tuple[str, ...]:
    """One critical path, from its first operation to its last: each without slack, each begun as the one before ends.

    Args:
        found: From `times`.
    Returns: Empty where there is nothing to do.
    """
    if not found:
        return ()
    end = max(t.finish for t in found.values())
    path = [next(k for k, t in found.items() if t.finish >= end - EXACT)]
    while True:
        one = found[path[-1]]
        tight = [
            p for p in after[path[-1]]
            if abs(found[p].finish - one.start) < EXACT and abs(found[p].slack) < EXACT
        ]  # fmt: skip
        if not tight:
            return tuple(reversed(path))
        path.append(tight[0])
