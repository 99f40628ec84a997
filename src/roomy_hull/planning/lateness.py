"""What is late in a plan, and why: the chain of what its last operation waited for."""

import math
from collections.abc import Mapping
from typing import NamedTuple

from roomy_hull.core.days import spoken
from roomy_hull.planning.placing import Cause
from roomy_hull.planning.plan import FIRST_DAY, Build


class Late(NamedTuple):
    """By how many working days something is late, and the chain of what it waits for, the last first."""

    days: float
    chain: tuple[tuple[str, Cause], ...]


def why(build: Build, key: str) -> tuple[tuple[str, Cause], ...]:
    """The chain of what an operation's beginning waited for, from it back to what nothing was in the way of."""
    found: list[tuple[str, Cause]] = []
    seen: set[str] = set()
    while key in build.levelled.placed and key not in seen:
        seen.add(key)
        cause = build.levelled.placed[key].cause
        found.append((key, cause))
        key = cause.op
    return tuple(found)


def late(build: Build) -> Late | None:
    """How late the job is as planned, and why; none where it is not."""
    if build.due is None or not build.levelled.placed or build.levelled.end <= build.due:
        return None
    last = max(build.levelled.placed.values(), key=lambda p: p.finish)
    days = (build.levelled.end - build.due) / build.calendar.day_minutes
    return Late(days, why(build, last.key))


def waited_for(build: Build, chain: tuple[tuple[str, Cause], ...], names: Mapping[str, str]) -> str:
    """What a chain comes down to, in words: somebody or a station that was taken, what was not here, or the work itself.

    Args:
        chain: From `why`.
    Returns: The cause that costs the most, the first where several do.
    """
    tasks, placed = build.tasks, build.levelled.placed
    first = build.calendar.minute(build.now)
    lost: dict[str, int] = {}
    for key, cause in chain:
        task = tasks[key]
        words = build.ops[key].words if key in build.ops else key
        if cause.kind == "from":
            told, much = _not_before(build, key, words), task.begins - first
        elif cause.kind == "away":
            told, much = (
                f"{names.get(cause.by, cause.by)} is away",
                placed[key].start - max(first, task.begins),
            )
        elif cause.kind in ("person", "station") and cause.op in placed:
            # As long as the work that was in the way took: the chain has no gaps.
            told = f"{names.get(cause.by, cause.by)} is busy with other work"
            much = placed[cause.op].finish - placed[cause.op].start
        else:
            told, much = "", 0
        if told:
            lost[told] = lost.get(told, 0) + much
        if not task.people and task.minutes:
            told = f"{words} takes {task.minutes / build.calendar.day_minutes:.0f} days"
            lost[told] = lost.get(told, 0) + task.minutes
    worst = max(lost, key=lambda k: lost[k], default="")
    return worst if worst and lost[worst] > 0 else "there is more work in a row than time"


def _not_before(build: Build, key: str, words: str) -> str:
    """Why an operation cannot be begun before its day: what it waits for is not here, or it was fixed."""
    op = build.ops.get(key)
    needs = [
        p for p in build.buying if op is not None and p.key in op.needs and p.arrives is not None
    ]
    last = max(needs, key=lambda p: (p.arrives or FIRST_DAY, p.key), default=None)
    if (
        last is not None
        and last.arrives is not None
        and build.calendar.minute(last.arrives) >= build.tasks[key].begins
    ):
        return f"{last.words} is here on {spoken(last.arrives)} only"
    if op is not None and op.station == "bay":
        return f"{words} waits for the vehicle or its fixed day"
    return f"{words} is fixed to its day"


def in_days(days: float) -> str:
    """How late, in whole working days that are begun."""
    whole = math.ceil(days - 1e-9)
    return f"{whole} working day{'s' * (whole != 1)}"


def told(build: Build, names: Mapping[str, str]) -> str:
    """How late the job is and why, in words; empty where it is not."""
    found = late(build)
    return f"{in_days(found.days)} late: {waited_for(build, found.chain, names)}" if found else ""
