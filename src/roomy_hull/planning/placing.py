"""Placing operations one after another: each as early as people, stations and what comes before it allow.

The serial scheme of schedule generation (Kelley 1963; Kolisch, European Journal of Operational Research 90 (1996)):
operations are taken in an order, and each is begun as early as can be beside those that were taken before. Somebody
who goes home goes on with the same work when they are back; other than that, what is begun is ended.
"""

import bisect
from collections.abc import Mapping, Sequence
from typing import NamedTuple

Span = tuple[int, int]
NEVER = 1 << 60


class Task(NamedTuple):
    """An operation as it is placed. [min]

    Attributes
    ----------
    key : str
        Its own.
    minutes : int
        Of work; of waiting where nobody of the shop does it.
    after : tuple of str
        What has to be ended before.
    people : tuple of str
        Who may do it; empty where it only takes time.
    crew : int
        How many of them it takes at once.
    station : str
        Where; empty for anywhere.
    begins : int
        Not before.
    job : str
        Of which job.
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


class Placed(NamedTuple):
    """An operation in its place. [min]"""

    key: str
    start: int
    finish: int
    people: tuple[str, ...]
    lane: int
    cause: Cause


class _Line:
    """What somebody, or one place at a station, is taken up with: spans that do not overlap, in order."""

    __slots__ = ("ends", "off", "ops", "starts", "work")

    def __init__(self, off: tuple[Span, ...] = ()) -> None:
        self.off = off
        self.starts: list[int] = []
        self.ends: list[int] = []
        self.ops: list[str] = []
        self.work = 0

    def end(self, start: int, minutes: int) -> int:
        """When work that is begun at a moment is ended, absences left out; below 0 where nobody is there then."""
        left, at = minutes, start
        for a, b in self.off:
            if b <= at:
                continue
            if a <= at:
                return -b
            if at + left <= a:
                break
            left -= a - at
            at = b
        return at + left

    def earliest(self, start: int, minutes: int) -> tuple[int, int, str]:
        """The first time from a moment on in which so much work is done at a stretch.

        Parameters
        ----------
        start, minutes : int
            Not before, and how much. [min]

        Returns
        -------
        (int, int, str)
            From, to, and what was in the way last: an operation's key, ``away``, or nothing. [min]
        """
        starts, ends = self.starts, self.ends
        n, count, why = bisect.bisect_right(ends, start), len(starts), ""
        while True:
            end = self.end(start, minutes) if self.off else start + minutes
            if end < 0:
                start, why = -end, "away"
                while n < count and ends[n] <= start:
                    n += 1
                continue
            if n >= count or starts[n] >= end:
                return start, end, why
            start, why = ends[n], self.ops[n]
            n += 1

    def clash(self, start: int, finish: int) -> int:
        """The number of the first span in the way; below 0 where the time is free."""
        n = bisect.bisect_right(self.ends, start)
        return n if n < len(self.starts) and self.starts[n] < finish else -1

    def take(self, start: int, finish: int, op: str) -> None:
        """Be taken up."""
        n = bisect.bisect_left(self.starts, start)
        self.starts.insert(n, start)
        self.ends.insert(n, finish)
        self.ops.insert(n, op)
        self.work += finish - start


class Board:
    """People and stations with what they are taken up with so far.

    Parameters
    ----------
    means : Means
        Who and what is there.
    """

    def __init__(self, means: Means) -> None:
        self.people = {k: _Line(off) for k, off in means.people.items()}
        self.stations = {k: [_Line() for _ in range(n)] for k, n in means.stations.items()}

    def place(  # ruff: ignore[complex-structure, too-many-branches]  # one loop over what can be in the way
        self, task: Task, ready: int, cause: Cause
    ) -> Placed:
        """Place one operation as early as can be.

        Parameters
        ----------
        task : Task
            The operation.
        ready : int
            Not before: what comes before it is ended. [min]
        cause : Cause
            Why not before.

        Returns
        -------
        Placed
            With what it waited for last.
        """
        start = ready
        if not task.people and not task.station:
            return Placed(task.key, start, start + task.minutes, (), 0, cause)
        if task.minutes == 0:
            return Placed(task.key, start, start, (), 0, cause)
        lines = [(k, self.people[k]) for k in task.people]
        lanes = self.stations.get(task.station, ()) if task.station else ()
        while True:
            crew: list[tuple[int, int, int, str, str, _Line]] = []
            finish = start + task.minutes
            if lines:
                found = []
                for key, line in lines:
                    begin, end, why = line.earliest(start, task.minutes)
                    found.append((begin, end, line.work, key, why, line))
                found.sort(key=lambda f: f[:4])
                crew = found[: task.crew]
                begin, _end, _work, key, why, _line = crew[-1]
                if begin > start:
                    start = begin
                    cause = Cause("away", key) if why == "away" else Cause("person", key, why)
                    if task.crew > 1:
                        continue  # the others have to be free then too
                finish = max(c[1] for c in crew)
                # Whoever is done first stays until all are.
                held = [(c[5].ends[h], Cause("person", c[3], c[5].ops[h])) for c in crew
                        if task.crew > 1 and (h := c[5].clash(start, finish)) >= 0]  # fmt: skip
                if held:
                    start, cause = min(held)
                    continue
            lane = 0
            if lanes:
                rows = [(ln.earliest(start, finish - start), n) for n, ln in enumerate(lanes)]
                (free, _end, why), lane = min(rows, key=lambda r: (r[0][0], r[1]))
                if free > start:
                    start, cause = free, Cause("station", task.station, why)
                    if lines:
                        continue
                    finish = start + task.minutes
            for one in crew:
                one[5].take(start, finish, task.key)
            if lanes:
                lanes[lane].take(start, finish, task.key)
            return Placed(task.key, start, finish, tuple(c[3] for c in crew), lane, cause)


def in_turn(tasks: Mapping[str, Task], order: Sequence[str], means: Means) -> dict[str, Placed]:
    """Place operations in an order in which each stands behind those that it comes after.

    Parameters
    ----------
    tasks : mapping of str to Task
        All of them.
    order : sequence of str
        Their keys, each once.
    means : Means
        Who and what is there.

    Returns
    -------
    dict of str to Placed
        In that order.
    """
    board = Board(means)
    found: dict[str, Placed] = {}
    for key in order:
        task = tasks[key]
        ready, cause = task.begins, Cause("from" if task.begins > 0 else "nothing")
        for before in task.after:
            finish = found[before].finish
            if finish > ready or (finish == ready and cause.kind == "nothing"):
                ready, cause = finish, Cause("after", "", before)
        found[key] = board.place(task, ready, cause)
    return found
