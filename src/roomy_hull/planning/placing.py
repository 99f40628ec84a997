"""Placing operations one after another: each as early as people, stations and what comes before it allow.

The serial scheme of schedule generation (Kelley 1963; Kolisch, European Journal of Operational Research 90 (1996)):
operations are taken in an order, and each is begun as early as can be beside those that were taken before. Somebody
who goes home goes on with the same work when they are back; other than that, what is begun is ended.
"""

import bisect
import itertools
from collections.abc import Mapping, Sequence
from typing import NamedTuple

Span = tuple[int, int]
NEVER = 1 << 60


class Task(NamedTuple):
    """An operation as it is placed. [min]

    Attributes:
        key: Its own.
        minutes: Of work; of waiting where nobody of the shop does it.
        after: What has to be ended before.
        people: Who may do it; empty where it only takes time.
        crew: How many of them it takes at once.
        station: Where; empty for anywhere.
        begins: Not before.
        job: Of which job.
    """

    key: str
    minutes: int
    after: tuple[str, ...] = ()
    people: tuple[str, ...] = ()
    crew: int = 1
    station: str = ""
    begins: int = 0
    job: str = ""


class Means(NamedTuple):
    """Who and what is there: when each of the people is away, and how many can work at each station at once. [min]"""

    people: Mapping[str, tuple[Span, ...]]
    stations: Mapping[str, int]


class Cause(NamedTuple):
    """What an operation's beginning waited for: ``after``, ``person``, ``away``, ``station``, ``from`` or ``nothing``.

    `by` is who or which station, `op` the operation that ended before or was in the way.
    """

    kind: str = "nothing"
    by: str = ""
    op: str = ""


FROM, NOTHING = Cause("from"), Cause()


class Placed(NamedTuple):
    """An operation in its place. [min]"""

    key: str
    start: int
    finish: int
    people: tuple[str, ...]
    lane: int
    cause: Cause


class _Line:
    """What somebody, or one place at a station, is taken up with: spans that do not overlap, in order.

    Spans that touch are kept as one run, with its last operation: a free time is looked for from run to run. Of the
    absences it is kept how much of them lies before each, so that the end of some work is found by bisection.
    """

    __slots__ = (
        "away_from",
        "away_to",
        "before",
        "ends",
        "ops",
        "spans",
        "starts",
        "turns",
        "work",
    )

    def __init__(self, off: tuple[Span, ...] = ()) -> None:
        self.away_from = [a for a, _b in off]
        self.away_to = [b for _a, b in off]
        self.before = [0, *itertools.accumulate(b - a for a, b in off)]
        self.turns = [a - gone for a, gone in zip(self.away_from, self.before, strict=False)]
        self.starts: list[int] = []
        self.ends: list[int] = []
        self.ops: list[str] = []
        self.spans: list[tuple[int, int, str]] = []
        self.work = 0

    def end(self, start: int, minutes: int) -> int:
        """When work that is begun at a moment is ended, absences left out; below 0 where nobody is there then."""
        n = bisect.bisect_right(self.away_to, start)
        if n < len(self.away_to) and self.away_from[n] <= start:
            return -self.away_to[n]
        worked = start - self.before[n] + minutes
        return worked + self.before[bisect.bisect_left(self.turns, worked)]

    def earliest(self, start: int, minutes: int) -> tuple[int, int, str]:
        """The first time from a moment on in which so much work is done at a stretch.

        Args:
            start, minutes: Not before, and how much. [min]
        Returns: From, to, and what was in the way last: an operation's key, ``away``, or nothing. [min]
        """
        starts, ends = self.starts, self.ends
        n, count, why = bisect.bisect_right(ends, start), len(starts), ""
        if not self.away_to:
            while n < count and starts[n] - start < minutes:
                start, why = ends[n], self.ops[n]
                n += 1
            return start, start + minutes, why
        while True:
            end = self.end(start, minutes)
            if end < 0:
                start, why = -end, "away"
                while n < count and ends[n] <= start:
                    n += 1
                continue
            if n >= count or starts[n] >= end:
                return start, end, why
            start, why = ends[n], self.ops[n]
            n += 1

    def clash(self, start: int, finish: int) -> tuple[int, str] | None:
        """When the first operation in the way is ended, and which it is; none where the time is free."""
        first = min(
            ((a, b, op) for a, b, op in self.spans if a < finish and b > start), default=None
        )
        return first[1:] if first is not None else None

    def take(self, start: int, finish: int, op: str) -> None:
        """Be taken up."""
        self.spans.append((start, finish, op))
        self.work += finish - start
        starts, ends, ops = self.starts, self.ends, self.ops
        n = bisect.bisect_left(ends, start)
        if n < len(ends) and ends[n] == start:
            ends[n], ops[n] = finish, op
            if n + 1 < len(ends) and starts[n + 1] == finish:
                ends[n], ops[n] = ends[n + 1], ops[n + 1]
                del starts[n + 1], ends[n + 1], ops[n + 1]
        elif n < len(ends) and starts[n] == finish:
            starts[n] = start
        else:
            starts.insert(n, start)
            ends.insert(n, finish)
            ops.insert(n, op)


Found = tuple[int, int, int, str, str, _Line]
"""When somebody is free for some work, until when it takes them, and what they have to do; who; what was in the way."""


class Board:
    """People and stations with what they are taken up with so far."""

    def __init__(self, means: Means) -> None:
        self.people = {k: _Line(off) for k, off in means.people.items()}
        self.stations = {k: [_Line() for _ in range(n)] for k, n in means.stations.items()}

    def place(  # ruff: ignore[complex-structure, too-many-branches]  # one loop over what can be in the way
        self, task: Task, ready: int, cause: Cause
    ) -> Placed:
        """Place one operation as early as can be.

        Args:
            ready: Not before: what comes before it is ended. [min]
        Returns: With what it waited for last.
        """
        key, minutes, start = task.key, task.minutes, ready
        lanes = self.stations.get(task.station, ()) if task.station else ()
        if minutes == 0 or not (task.people or lanes):
            return Placed(key, start, start + minutes, (), 0, cause)
        while True:
            crew: list[Found] = []
            finish = start + minutes
            if task.people:
                crew = self._first_free(task, start)
                begin, finish, _work, who, why, _line = crew[-1]
                if begin > start:
                    start = begin
                    cause = Cause("away", who) if why == "away" else Cause("person", who, why)
                    if task.crew > 1:
                        continue  # the others have to be free then too
                if task.crew > 1:
                    # Whoever is done first stays until all are.
                    finish = max(c[1] for c in crew)
                    held = [
                        (h[0], Cause("person", c[3], h[1]))
                        for c in crew
                        if (h := c[5].clash(start, finish))
                    ]
                    if held:
                        start, cause = min(held)
                        continue
            lane = 0
            if lanes:
                free, why = NEVER, ""
                for n, line in enumerate(lanes):
                    found = line.earliest(start, finish - start)
                    if found[0] < free:
                        free, why, lane = found[0], found[2], n
                if free > start:
                    start, cause = free, Cause("station", task.station, why)
                    if crew:
                        continue
                    finish = start + minutes
                lanes[lane].take(start, finish, key)
            for one in crew:
                one[5].take(start, finish, key)
            return Placed(key, start, finish, tuple([c[3] for c in crew]), lane, cause)

    def _first_free(self, task: Task, start: int) -> list[Found]:
        """Of those who may do it, as many as it takes: free first, then done first, then with least to do so far."""
        minutes, people = task.minutes, self.people
        if task.crew > 1:
            found = []
            for who in task.people:
                line = people[who]
                begin, end, why = line.earliest(start, minutes)
                found.append((begin, end, line.work, who, why, line))
            return sorted(found, key=lambda f: f[:4])[: task.crew]
        best: Found | None = None
        for who in task.people:
            line = people[who]
            begin, end, why = line.earliest(start, minutes)
            if best is None or begin <= best[0]:
                one = (begin, end, line.work, who, why, line)
                if best is None or one[:4] < best[:4]:
                    best = one
        return [best] if best is not None else []


def in_turn(tasks: Mapping[str, Task], order: Sequence[str], means: Means) -> dict[str, Placed]:
    """Place operations in an order in which each stands behind those that it comes after."""
    board = Board(means)
    found: dict[str, Placed] = {}
    ends: dict[str, int] = {}
    for key in order:
        task = tasks[key]
        ready, last = task.begins, ""
        for before in task.after:
            finish = ends[before]
            if finish > ready or (finish == ready and not last and not task.begins):
                ready, last = finish, before
        cause = Cause("after", "", last) if last else FROM if task.begins > 0 else NOTHING
        found[key] = one = board.place(task, ready, cause)
        ends[key] = one.finish
    return found
