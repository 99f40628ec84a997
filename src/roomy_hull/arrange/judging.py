"""Judging: the real verdict on a layout, and what its *stop* findings teach the search.

A finding about one unit forbids the cells in which it comes up again; one about two units of a bay forbids how they stand
to each other; any other forbids exactly those places together. A rule only ever takes layouts away, so that a bound holds.
"""

from collections.abc import Callable, Iterable, Sequence

import msgspec
import numpy as np

from roomy_hull.arrange.gather import Gathered
from roomy_hull.arrange.instance import At, Instance, Layout, which
from roomy_hull.arrange.joining import Clash
from roomy_hull.arrange.layouts import placed, standing
from roomy_hull.arrange.watching import Bar, Watch, place_of
from roomy_hull.assembly.assemble import assemble
from roomy_hull.assembly.study import Context
from roomy_hull.core.findings import Finding
from roomy_hull.job.edits.setups import resolved
from roomy_hull.job.model import Job
from roomy_hull.verdict.registry import to_run
from roomy_hull.verdict.verdict import Verdict, judge

PLACED = frozenset({"fit", "in and out", "together", "outline", "loads"})
"""The studies that are asked when one or two units are tried alone."""
Nowhere = tuple[int, int, int, int]
"""A unit that may not be in a bay, at a cell, at a height."""


class Rules(msgspec.Struct, eq=False):
    """What was learned.

    Attributes:
        nowhere: Places of one unit each that do not go: (item, bay, cell, height).
        bars: Pairs of a bay: (a, b, bay, height of a, height of b) to the forbidden cells from a to b.
        exact: Exact places that do not go together, as tuples of (unit, place).
    """

    nowhere: set[Nowhere] = msgspec.field(default_factory=set)
    bars: dict[tuple[int, int, int, int, int], frozenset[int]] = msgspec.field(default_factory=dict)
    exact: set[tuple[tuple[int, At], ...]] = msgspec.field(default_factory=set)

    def __len__(self) -> int:
        """How many there are."""
        return len(self.nowhere) + len(self.bars) + len(self.exact)

    def copy(self) -> "Rules":
        """The same, to be added to."""
        return Rules(set(self.nowhere), dict(self.bars), set(self.exact))

    def forbid(self, layout: Layout) -> bool:
        """Whether a layout breaks one of them."""
        if any(
            (which(n, at), at.bay, at.cell, at.level) in self.nowhere for n, at in enumerate(layout)
        ):
            return True
        for (a, b, bay, la, lb), apart in self.bars.items():
            p, q = layout[a], layout[b]
            if (
                p.bay == q.bay == bay
                and p.item < 0
                and q.item < 0
                and (p.level, q.level) == (la, lb)
                and (q.cell - p.cell in apart)
            ):
                return True
        return any(all(layout[n] == at for n, at in row) for row in self.exact)


class Judged(msgspec.Struct, frozen=True, eq=False):
    """A layout judged: the job, its verdict, and the open findings about what was arranged."""

    job: Job
    verdict: Verdict
    stops: tuple[Finding, ...]
    looks: tuple[Finding, ...]


class Judge:
    """Asks the real verdict, and learns from it.

    Args:
        verdict: The job as it is: a memory for what does not change.
        alive: False ends the learning.
    """

    def __init__(
        self, verdict: Verdict, gathered: Gathered, alive: Callable[[], bool] = lambda: True
    ) -> None:
        self.before, self.of, self.alive = verdict, gathered, alive
        self.ids = {u.id: n for n, u in enumerate(gathered.units)}
        self.rules = Rules()
        self.asked = 0
        self._known: dict[Layout, Judged] = {}
        self._base = resolved(gathered.base)
        self._still = assemble(self._base, verdict.assembly)

    def job_of(self, layout: Layout) -> Job:
        """The job with a layout."""
        return placed(self.of, self.before.job, layout)

    def judge(self, layout: Layout) -> Judged:
        """Judge a layout."""
        if layout not in self._known:
            job = self.job_of(layout)
            found = judge(job, self.before)
            self.asked += 1
            mine = [f for f in found.open_findings() if self.concerned(f)]
            self._known[layout] = Judged(
                job,
                found,
                tuple(f for f in mine if f.severity == "stop"),
                tuple(f for f in mine if f.severity == "look"),
            )
        return self._known[layout]

    def concerned(self, finding: Finding) -> list[int]:
        """Which arranged units a finding is about."""
        found = {self.ids[t] for t in finding.things if t in self.ids}
        for s in finding.subjects:
            owner = s.id.split(":", maxsplit=1)[0]
            if s.kind == "opening" and owner in self.ids:
                found.add(self.ids[owner])
        return sorted(found)

    def learn(self, layout: Layout, findings: Iterable[Finding]) -> None:
        """Learn from findings about a layout.

        Args:
            findings: What may not be; each becomes at least one rule that forbids this layout.
        """
        for f in findings:
            about = self.concerned(f)
            if len(about) == 1:
                self._alone(layout, about[0], f)
            elif len(about) == 2 and layout[about[0]].bay == layout[about[1]].bay:
                self._pair(layout, (about[0], about[1]), f)
            elif about:
                self.rules.exact.add(tuple((n, layout[n]) for n in about))
            if not self.rules.forbid(layout):
                # It needs more than what the finding names: all of these bays stays as it is not to be.
                bays = {layout[n].bay for n in about}
                self.rules.exact.add(
                    tuple((n, at) for n, at in enumerate(layout) if at.bay in bays)
                )

    def _again(self, rows: Sequence[tuple[int, At]], code: str) -> bool:
        """Whether a few units alone, at some places, bring a finding of the same code."""
        units = [standing(self.of, n, at) for n, at in rows]
        job = msgspec.structs.replace(self._base, units=(*self._base.units, *units))
        context = Context(assemble(job, self._still), {}, None)
        some = [s for s in to_run() if s.key in PLACED]
        for s in some:
            context.results[s.key] = s.run(context)
        want = {self.of.units[n].id for n, _ in rows}
        return any(
            f.code == code
            and f.severity == "stop"
            and {self.of.units[k].id for k in self.concerned(f)} == want
            for s in some
            for f in s.judge(context)
        )

    def _alone(self, layout: Layout, n: int, finding: Finding) -> None:
        """Forbid the cells of a bay in which one unit brings the same finding by itself."""
        at, instance = layout[n], self.of.instance
        i = which(n, at)
        if not self._again([(n, at)], finding.code):
            return
        self.rules.nowhere.add((i, at.bay, at.cell, at.level))
        for cell in range(instance.bays[at.bay].cells):
            there = at._replace(cell=cell)
            free = instance.spot(i, at.bay).free.allows(instance.u(i, at.bay, cell), at.level)
            if (
                self.alive()
                and cell != at.cell
                and free
                and self._again([(n, there)], finding.code)
            ):
                self.rules.nowhere.add((i, at.bay, cell, at.level))

    def _pair(self, layout: Layout, pair: tuple[int, int], finding: Finding) -> None:
        """Forbid how two units of a bay stand to each other, and how else they would bring the same."""
        a, b = pair
        p, q = layout[a], layout[b]
        if p.item >= 0 or q.item >= 0 or not self._again([(a, p), (b, q)], finding.code):
            self.rules.exact.add(((a, p), (b, q)))
            return
        instance = self.of.instance
        apart = {q.cell - p.cell}
        for cell in range(instance.bays[p.bay].cells):
            there = q._replace(cell=cell)
            if (
                cell == q.cell
                or not self.alive()
                or not instance.spot(b, q.bay).free.allows(instance.u(b, q.bay, cell), q.level)
            ):
                continue
            if self._overlap(a, p, b, there):
                continue
            if self._again([(a, p), (b, there)], finding.code):
                apart.add(cell - p.cell)
        key = (a, b, p.bay, p.level, q.level)
        self.rules.bars[key] = self.rules.bars.get(key, frozenset()) | apart

    def _overlap(self, a: int, p: At, b: int, q: At) -> bool:
        items = self.of.instance.items
        beside = p.cell < q.cell + items[b].cells and q.cell < p.cell + items[a].cells
        return (
            beside and p.level < q.level + items[b].height and q.level < p.level + items[a].height
        )

    def avoid(self, rules: Rules, layout: Layout, findings: Iterable[Finding]) -> None:
        """Add to some rules so that findings do not come up again: a unit's height in its bay, or exactly these places.

        Nothing is tried for it, so that what is found with such rules is proved of nothing else.
        """
        for f in findings:
            about = self.concerned(f)
            if len(about) == 1:
                n = about[0]
                at = layout[n]
                cells = range(self.of.instance.bays[at.bay].cells)
                rules.nowhere |= {(which(n, at), at.bay, cell, at.level) for cell in cells}
            elif about:
                rules.exact.add(tuple((n, layout[n]) for n in about))

    def watch(self, rules: Rules | None = None) -> tuple[Watch, tuple[Clash, ...]]:
        """Rules as the search takes them, those learned where none are given, beside the wishes that keep things apart."""
        return rule_watch(self.of.instance, rules or self.rules)


def rule_watch(instance: Instance, rules: Rules) -> tuple[Watch, tuple[Clash, ...]]:
    """Rules as the search takes them, beside the wishes that keep things apart.

    Returns: Pairs within a bay and the units to be watched; exact places that may not be together.
    """
    bars = list(wished_bars(instance))
    bars += [Bar(a, b, apart, (la, lb), bay) for (a, b, bay, la, lb), apart in rules.bars.items()]
    units = sorted(
        {i for bar in bars for i in (bar.a, bar.b)} | {n for row in rules.exact for n, _ in row}
    )

    def code(n: int, at: At) -> int:
        place = place_of(instance, which(n, at), np.array([at.level], np.int64))
        return at.cell + int(place[0])

    clashes = [
        Clash(tuple((units.index(n), at.bay, code(n, at)) for n, at in row)) for row in rules.exact
    ]
    return Watch(tuple(units), tuple(bars)), tuple(clashes)


def wished_bars(instance: Instance) -> Iterable[Bar]:
    """What is to be kept apart along the wall, as bars of any height."""
    longest = max(b.cells for b in instance.bays)
    for apart in instance.aparts:
        a, b = instance.items[apart.a], instance.items[apart.b]
        cells = set()
        for d in range(-longest, longest + 1):
            u, w = a.shift, d * instance.cell + b.shift
            if max(w - u - a.width, u - w - b.width) < apart.gap - 1e-6:
                cells.add(d)
        yield Bar(apart.a, apart.b, frozenset(cells))
