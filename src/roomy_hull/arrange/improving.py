"""Improving: parts of a layout arranged anew with the rest where it is, beyond stacks, as long as there is time."""

from __future__ import annotations

import random
from typing import TYPE_CHECKING, Protocol

import msgspec

from roomy_hull.arrange.gather import gather
from roomy_hull.arrange.judging import Rules, rule_watch
from roomy_hull.arrange.layouts import as_it_stands, placed
from roomy_hull.arrange.objective import Value
from roomy_hull.arrange.offers import Offer, offered
from roomy_hull.arrange.search import Progress, Search
from roomy_hull.core.errors import InputError
from roomy_hull.verdict.verdict import Verdict, judge

if TYPE_CHECKING:
    from collections.abc import Iterator

    from roomy_hull.arrange.gather import Gathered
    from roomy_hull.job.arranging import Arranging
    from roomy_hull.job.model import Job

MOST_FREE = 11
"""So many units are arranged anew together at most."""
A_PART = 12_000
"""Parts with more ways to stack than this take longer than they are worth."""
IDLE = 25
"""After so many parts without a gain it ends."""
FEW = 8
"""The same of units drawn by chance from all over."""
WORTH = 0.05
"""A gain of less is no difference. [points]"""


class Run(Protocol):
    """What a run of arranging is to the improving of its layouts."""

    verdict: Verdict
    wish: Arranging
    pitch: float
    of: Gathered

    @property
    def seconds(self) -> float:
        """Since it began. [s]"""

    def alive(self) -> bool:
        """Whether there is time left and nobody ended it."""

    def show(self, job: Job, points: float) -> None:
        """Take a better layout, to be shown."""


def improved(run: Run, job: Job | None, worth: Value | None) -> Offer | None:
    """Better a layout, without a proof.

    Args:
        run: For what is wanted, and the time that is left.
    Returns: A better one that makes no *stop* that was not there; none where there is no better one.
    """
    if job is None or worth is None:
        return None
    now = judge(job, run.verdict)
    mine = {u.id for u in run.of.units}
    tries = _Tries(run, mine)
    best: tuple[Job, Value, Verdict] | None = None
    idle = 0
    for free in _parts(now, mine):
        if not run.alive() or idle > IDLE:
            break
        idle += 1
        for there, better in _again(run, now, free, worth):
            verdict = tries.passes(there, now)
            if verdict is not None:
                best, now, worth = (there, better, verdict), verdict, better
                run.show(there, better.points)
                idle = 0
                break
    if best is None:
        return None
    some = (f for f in best[2].open_findings() if mine & set(f.things))
    return offered("improved", best[0], best[1], some)


class _Tries:
    """Judges layouts, and remembers at which heights what brought a finding that was not there."""

    def __init__(self, run: Run, mine: set[str]) -> None:
        self.run, self.mine = run, mine
        self.old = {f.key for f in run.verdict.findings if f.severity == "stop"}
        self.bad: set[frozenset[tuple[str, str, float]]] = set()
        self.asked = 0

    def passes(self, job: Job, now: Verdict) -> Verdict | None:
        """The verdict on a layout that makes no *stop* and no *look* more; none where it does."""
        where = {(u.id, u.bay, round(u.w)) for u in job.units}
        if any(row <= where for row in self.bad):
            return None
        self.asked += 1
        verdict = judge(job, now)
        had = {f.key for f in now.findings}
        new = [f for f in verdict.open_findings() if f.severity != "note" and f.key not in had]
        stops = any(f.severity == "stop" and f.key not in self.old for f in new)
        if not stops and self._looks(verdict) <= self._looks(now):
            return verdict
        for f in new:
            about = frozenset(w for w in where if w[0] in f.things and w[0] in self.mine)
            if about:
                self.bad.add(about)
        return None

    def _looks(self, verdict: Verdict) -> int:
        """How many open *look* findings are about what is arranged."""
        return sum(
            f.severity == "look" and bool(self.mine & set(f.things))
            for f in verdict.open_findings()
        )


def _parts(now: Verdict, mine: set[str]) -> Iterator[frozenset[str]]:
    """Which units are arranged anew together: bay by bay, then some that stand near one another, again and again."""
    draw = random.Random(1)  # ruff: ignore[suspicious-non-cryptographic-random-usage]  # the same parts each time
    units = [u for u in now.job.units if u.id in mine]
    bays = sorted({u.bay for u in units})
    for bay in bays:
        here = [u.id for u in units if u.bay == bay]
        if len(here) <= MOST_FREE:
            yield frozenset(here)
    for _ in range(200):
        few = min(len(units), draw.randint(min(4, len(units)), min(FEW, len(units))))
        some = draw.sample(units, few)
        if len(bays) > 1 and draw.random() < 0.5:
            two = draw.sample(bays, 2)
            near = [u for u in units if u.bay in two]
            some = draw.sample(near, min(len(near), few))
        yield frozenset(u.id for u in some)


def _again(
    run: Run, now: Verdict, free: frozenset[str], worth: Value
) -> Iterator[tuple[Job, Value]]:
    """Arrange some units anew with all others where they are: the better layouts, the best first."""
    mine = {u.id for u in run.of.units}
    stay = tuple(u.id for u in now.job.units if u.id not in free or u.id not in mine)
    wish = msgspec.structs.replace(run.wish, wanted=(), pinned=stay)
    try:
        part = gather(now, wish, run.pitch)
    except InputError:
        return
    until = run.seconds + 2.0

    def going(_p: Progress) -> bool:
        return run.alive() and run.seconds < until

    search = Search(part.instance, 4 if len(free) > 8 else 5, going, thin=False, hard=A_PART)
    found = search.run(*rule_watch(part.instance, Rules()))
    for _, layout in found.layouts:
        job = placed(part, now.job, layout)
        better = as_it_stands(run.of, job)
        if better is not None and better.points < worth.points - WORTH:
            yield job, better
            if not run.alive():
                return
