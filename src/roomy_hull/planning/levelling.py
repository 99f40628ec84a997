"""Levelling: a plan that keeps within people and stations, as short as several rules and a search make it, and its bound."""

import functools
import heapq
import random
import time
from collections.abc import Callable, Mapping
from typing import NamedTuple

import numpy as np

from roomy_hull.core.errors import InputError
from roomy_hull.planning.network import Times, in_sequence, times
from roomy_hull.planning.placing import Means, Placed, Span, Task, in_turn

SEED = 20
MOST_PLACED = 3000
"""Further rules are tried on one job as long as no more operations than this are placed: up to 230 all are."""
Step = Callable[[float], bool]
Score = tuple[int, int, int]


class Levelled(NamedTuple):
    """A plan within people and stations. [min]

    Attributes:
        placed: Every operation, in the order in which they were placed.
        end: When the last one is ended.
        late: By how much jobs are ended after they are due, together, each by its rank.
        bound: Before which no plan at all can be ended.
    """

    placed: dict[str, Placed]
    end: int
    late: int
    bound: int

    @property
    def gap(self) -> float:
        """By which part of the bound it is longer than the bound."""
        return self.end / self.bound - 1 if self.bound else 0.0

    @property
    def order(self) -> list[str]:
        """Its operations by when they begin, each behind those that it comes after."""
        return sorted(self.placed, key=lambda k: (self.placed[k].start, self.placed[k].finish))


class Problem:
    """Operations of one or more jobs on one shop's people and stations, with all that is computed of them once.

    Args:
        tasks: Every operation.
        due: When each job is due. [min]
        rank: Which job goes first: 1 before 9.
    Raises:
        InputError: Operations wait for each other, or one wants more people, or a station, than there are.
    """

    def __init__(
        self, tasks: Mapping[str, Task], means: Means, due: Mapping[str, int] | None = None,
        rank: Mapping[str, int] | None = None,
    ) -> None:  # fmt: skip
        self.tasks, self.means = dict(tasks), means
        self.due, self.rank = dict(due or {}), dict(rank or {})
        self._jobs = {t.job for t in self.tasks.values()}
        after = {k: t.after for k, t in self.tasks.items()}
        self.sequence = in_sequence(after)
        self._check()
        self.times: dict[str, Times] = times(
            {k: t.minutes for k, t in self.tasks.items()}, after,
            {k: t.begins for k, t in self.tasks.items()},
        )  # fmt: skip
        self.follows: dict[str, list[str]] = {k: [] for k in self.tasks}
        for key, task in self.tasks.items():
            for before in task.after:
                self.follows[before].append(key)
        self.tail: dict[str, int] = {}
        for key in reversed(self.sequence):
            self.tail[key] = max((self.tail[f] + self.tasks[f].minutes for f in self.follows[key]), default=0)  # fmt: skip
        end = max((int(t.finish) for t in self.times.values()), default=0)
        self.latest = {k: self.due.get(self.tasks[k].job, end) - self.tail[k] for k in self.tasks}
        self._behind: dict[str, int] = {}
        for key in reversed(self.sequence):
            self._behind[key] = sum(1 + self._behind[f] for f in self.follows[key])
        self._turned = {
            k: Task(k, t.minutes, tuple(self.follows[k]), t.people, t.crew, t.station, 0, t.job)
            for k, t in self.tasks.items()
        }
        self._instant = any(t.minutes == 0 for t in self.tasks.values())

    def _check(self) -> None:
        for task in self.tasks.values():
            missing = [p for p in task.people if p not in self.means.people]
            if missing:
                raise InputError(f"there is nobody '{missing[0]}' in the shop", task.key, "Add them, or choose "
                                                                                          "another.")  # fmt: skip
            if task.people and len(task.people) < task.crew:
                raise InputError(f"it takes {task.crew} people at once, and {len(task.people)} may do it", task.key,
                                 "Let more people do it.")  # fmt: skip
            if task.station and self.means.stations.get(task.station, 0) < 1:
                missing_one = f"there is no station '{task.station}' in the shop"
                raise InputError(missing_one, task.key, "Add it to the shop.")

    def rules(self) -> dict[str, dict[str, float]]:
        """Priorities by several rules, the least first: latest finish, latest start, slack, followers, weight, length."""
        t, own = self.times, self.tasks
        first = {k: self.rank.get(own[k].job, 5) * 1e7 for k in own}
        return {
            "latest finish": {k: float(self.latest[k]) for k in own},
            "latest start": {k: float(self.latest[k] - own[k].minutes) for k in own},
            "slack": {k: self.latest[k] - own[k].minutes - t[k].start for k in own},
            "followers": {k: -float(self._behind[k]) for k in own},
            "weight": {
                k: -float(own[k].minutes + sum(own[f].minutes for f in self.follows[k]))
                for k in own
            },
            "tail": {k: -float(self.tail[k] + own[k].minutes) for k in own},
            "job first": {k: first[k] + self.latest[k] for k in own},
        }

    def by(self, priority: Mapping[str, float]) -> list[str]:
        """Order the operations by priorities, each behind those that it comes after."""
        waits = {k: len(t.after) for k, t in self.tasks.items()}
        ready = [(priority[k], k) for k, n in waits.items() if not n]
        heapq.heapify(ready)
        found = []
        while ready:
            key = heapq.heappop(ready)[1]
            found.append(key)
            for later in self.follows[key]:
                waits[later] -= 1
                if not waits[later]:
                    heapq.heappush(ready, (priority[later], later))
        return found

    def score(self, placed: Mapping[str, Placed]) -> Score:
        """How good a plan is, the least the best: lateness by rank, then the end, then the jobs' ends together."""
        ends: dict[str, int] = {}
        for key, one in placed.items():
            job = self.tasks[key].job
            ends[job] = max(ends.get(job, 0), one.finish)
        late = sum(
            max(0, end - self.due[j]) * (10 - self.rank.get(j, 5)) for j, end in ends.items() if j in self.due
        )  # fmt: skip
        return late, max(ends.values(), default=0), sum(ends.values())

    def settled(self, order: list[str]) -> dict[str, Placed]:
        """Place an order, then the same from the end backwards and forwards again, which often closes holes."""
        best = in_turn(self.tasks, order, self.means)
        if self._least(best):
            return best
        back = self._backwards(best)
        again = in_turn(self.tasks, back, self.means)
        return min(best, again, key=self.score)

    def _least(self, placed: Mapping[str, Placed]) -> bool:
        """Whether nothing can be better: one job, ended at the bound."""
        return len(self._jobs) == 1 and max(p.finish for p in placed.values()) <= self.bound

    def _backwards(self, placed: Mapping[str, Placed]) -> list[str]:
        """An order by how late everything can begin: the mirrored network placed by descending finish."""
        end = max((p.finish for p in placed.values()), default=0)
        off: dict[str, tuple[Span, ...]] = {
            k: tuple((end - b, end - a) for a, b in reversed(spans) if a < end and b > 0)
            for k, spans in self.means.people.items()
        }
        order = sorted(placed, key=lambda k: (-placed[k].finish, -placed[k].start))
        mirrored = in_turn(
            self._turned, self._legal(order, self._turned), Means(off, self.means.stations)
        )
        return self._legal(
            sorted(mirrored, key=lambda k: (-mirrored[k].finish, -mirrored[k].start)), self.tasks
        )

    def _legal(
        self, order: list[str], tasks: Mapping[str, Task], *, any_order: bool = False
    ) -> list[str]:
        """An order in which nothing stands before what it comes after: what does is held back.

        Where everything takes time, what was placed later than something is never before it by its times.
        """
        if not (self._instant or any_order):
            return order
        found: list[str] = []
        done: set[str] = set()
        waiting: dict[str, list[str]] = {}
        for key in order:
            stack = [key]
            while stack:
                one = stack.pop()
                hold = next((b for b in tasks[one].after if b not in done), None)
                if hold is not None:
                    waiting.setdefault(hold, []).append(one)
                    continue
                done.add(one)
                found.append(one)
                stack += reversed(waiting.pop(one, []))
        return found

    @functools.cached_property
    def bound(self) -> int:
        """Before which no plan can be ended: the longest path, or what people and stations have to work.

        Returns:
            The larger of the longest path and, for any group of people or any station: of all operations that
            cannot begin before some moment and have at least so much to come after them, that moment, the time in which
            the group can work them off, and what comes after. [min]
        """
        found = max((int(t.finish) for t in self.times.values()), default=0)
        groups = dict.fromkeys(frozenset(t.people) for t in self.tasks.values() if t.people)
        whole = list(groups)
        for one in whole:
            groups.setdefault(frozenset().union(*(g for g in whole if g & one)))
        for group in groups:
            mine = [t for t in self.tasks.values() if t.people and set(t.people) <= group]
            off = tuple(self.means.people[p] for p in sorted(group))
            found = max(found, self._worked_off(mine, off, crews=True))
        for station, count in self.means.stations.items():
            mine = [t for t in self.tasks.values() if t.station == station]
            found = max(found, self._worked_off(mine, ((),) * count, crews=False))
        return found

    def _worked_off(
        self, mine: list[Task], off: tuple[tuple[Span, ...], ...], *, crews: bool
    ) -> int:
        """The bound by one group of people, or by the places of one station."""
        rows = [t for t in mine if t.minutes]
        if not rows:
            return 0
        head = np.array([self.times[t.key].start for t in rows])
        tail = np.array([self.tail[t.key] for t in rows], dtype=float)
        work = np.array([t.minutes * (t.crew if crews else 1) for t in rows], dtype=float)
        order = np.argsort(-tail, kind="stable")
        head, tail, work = head[order], tail[order], work[order]
        clock, capacity = _capacity(off)
        best = 0.0
        for begin in sorted(set(head.tolist())):
            some = head >= begin
            total = np.cumsum(work[some])
            done = np.interp(begin, clock, capacity) + total
            # Where capacity stands still, work is done as soon as it can be.
            n = np.searchsorted(capacity, done - 1e-6, side="left")
            n = np.minimum(n, len(clock) - 1)
            ahead = np.maximum(n - 1, 0)
            rise = capacity[n] - capacity[ahead]
            share = np.divide(done - capacity[ahead], rise, out=np.zeros_like(done), where=rise > 0)
            ends = clock[ahead] + share * (clock[n] - clock[ahead])
            best = max(best, float(np.max(ends + tail[some])))
        return int(np.ceil(best - 1e-6))

    def level(self, rounds: int = 0, step: Step | None = None, seconds: float = 0.0,
              start: list[str] | None = None) -> Levelled:  # fmt: skip
        """Make a plan.

        Args:
            rounds: How often the best is changed and tried again after the rules.
            step: Told how far it is; False ends the search.
            seconds: The search ends then, however many rounds are left; 0 for no limit. [s]
            start: An order to begin with beside those by rules, as of an earlier plan.
        Returns: The best that was found; it is the same for the same problem and rounds where `seconds` is 0.
        """
        if not self.tasks:
            return Levelled({}, 0, 0, 0)
        until = time.monotonic() + seconds if seconds else float("inf")
        bound = self.bound
        best = self._by_rules()
        if start is not None:
            known = set(self.tasks)
            rest = [k for k in self.sequence if k not in set(start)]
            order = self._legal([k for k in start if k in known] + rest, self.tasks, any_order=True)
            best = min(best, self.settled(order), key=self.score)
        held = best
        chance = random.Random(SEED)  # ruff: ignore[suspicious-non-cryptographic-random-usage]  # a search, repeatable
        for n in range(rounds):
            late, end, _all = self.score(best)
            if (not late and end <= bound) or time.monotonic() > until:
                break
            if step is not None and not step(n / rounds):
                break
            found = self.settled(self._changed(held, chance))
            if self.score(found) <= self.score(held):
                held = found
            elif chance.random() < 0.02:
                held = best
            if self.score(held) < self.score(best):
                best = held
        late, end, _all = self.score(best)
        return Levelled(best, end, late, min(bound, end))

    def _by_rules(self) -> dict[str, Placed]:
        """The best plan by the rules, the first of equals; of one job's large network the later rules are left out."""
        tried: list[list[str]] = []
        found: dict[str, Placed] = {}
        for priority in self.rules().values():
            if found and len(self._jobs) == 1:
                large = (3 * len(tried) + 1) * len(self.tasks) > MOST_PLACED
                if large or self._least(found):
                    break
            order = self.by(priority)
            if order in tried:
                continue
            tried.append(order)
            one = self.settled(order)
            if not found or self.score(one) < self.score(found):
                found = one
        return found

    def _changed(self, placed: Mapping[str, Placed], chance: random.Random) -> list[str]:
        """An order near that of a plan: some operations go before or behind others, some priorities are shaken."""
        own = sorted(placed, key=lambda k: placed[k].start)
        end = max(p.finish for p in placed.values())
        spread = end * chance.choice((0.01, 0.03, 0.1, 0.4, 1.0))
        share = chance.choice((0.05, 0.2, 1.0))
        priority = {
            k: placed[k].start
            + (chance.uniform(-spread, spread) if chance.random() < share else 0.0)
            for k in own
        }
        return self.by(priority)


def _capacity(off: tuple[tuple[Span, ...], ...]) -> tuple["np.ndarray", "np.ndarray"]:
    """How much a group has been able to work until each moment at which somebody comes or goes. [min]"""
    turns = sorted({0, *(x for spans in off for span in spans for x in span)})
    last = turns[-1] + 100_000_000
    clock = np.array([*turns, last], dtype=float)
    rate = np.zeros(len(clock) - 1)
    for spans in off:
        there = np.ones(len(rate))
        for a, b in spans:
            there[(clock[:-1] >= a) & (clock[:-1] < b)] = 0.0
        rate += there
    return clock, np.concatenate([[0.0], np.cumsum(rate * np.diff(clock))])
