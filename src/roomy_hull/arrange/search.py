"""Search: strips, their programme, fillings within a gap, joined; wider until nothing better can be left."""

import time
from collections.abc import Callable, Iterable
from typing import Literal

import msgspec

from roomy_hull.arrange.fillings import Filling, Sweep, TooManyError
from roomy_hull.arrange.instance import At, Instance, Layout
from roomy_hull.arrange.joining import Clash, Joined, joined
from roomy_hull.arrange.master import MISSING, Bound, Master
from roomy_hull.arrange.objective import broken, value
from roomy_hull.arrange.places import Places
from roomy_hull.arrange.strips import HARD_STATES, Strips, list_strips
from roomy_hull.arrange.watching import Watch

FIRST_BEAM = 1500
"""Until there is a layout, so many half-filled bays are kept a cell."""
LEAST_STEP = 0.002
"""Gaps that differ by a smaller part of the bound are one."""
NOTHING = 20.0
"""Where even so many times the bound holds no layout, there is none."""
KEPT = 400
"""So many of the cheapest layouts are kept for choosing."""
Stage = Literal["strips", "bound", "fillings", "layouts", "done"]


class Progress(msgspec.Struct, frozen=True):
    """How far it is: the best layout with its points, the bound [points], the seconds."""

    stage: Stage
    best: float | None
    bound: float | None
    seconds: float
    layout: Layout | None = None


class Found(msgspec.Struct, frozen=True, eq=False):
    """What a search came to.

    Attributes:
        layouts: Points and places, the best first; empty where there is none.
        bound: No layout of the class is worth less. [points]
        most: Units a strip may have in that class.
        fits: Whether every unit found its place at least in the programme: if not, none of the class exists.
        complete: Whether the list of strips was whole, so that the bound holds.
        strips, states: How many there were.
        seconds, first: In all, and until the first layout; below 0 where there was none. [s]
        stopped: Whether it was ended before the proof was.
    """

    layouts: tuple[tuple[float, Layout], ...]
    bound: float
    most: int
    fits: bool
    complete: bool
    strips: int
    states: int
    seconds: float
    first: float
    stopped: bool

    @property
    def gap(self) -> float:
        """What may be left to gain. [points]"""
        return self.layouts[0][0] - self.bound if self.layouts else float("inf")

    @property
    def proved(self) -> bool:
        """Whether nothing of the class is better."""
        return (
            bool(self.layouts)
            and self.fits
            and self.complete
            and self.gap <= proof(self.layouts[0][0])
        )


def proof(points: float) -> float:
    """Less than this is no difference. [points]"""
    return 1e-6 * max(1.0, abs(points))


class Search:
    """One search, step by step; it may be asked again with more rules.

    Args:
        most: How many units a strip may have.
        progress: Takes `Progress`; False ends it with what there is.
        wanted: Stop where the gap is so small a part of the best. [1]
        thin: Whether to go on without a proof where there are too many strips.
        hard: How many ways to stack are too many.
    """

    def __init__(
        self, instance: Instance, most: int = 4, progress: Callable[[Progress], bool] = lambda _p: True,
        wanted: float = 0.0, *, thin: bool = True, hard: int = HARD_STATES,
    ) -> None:  # fmt: skip
        self.of, self.most, self.wanted, self.thin, self.hard = instance, most, wanted, thin, hard
        self._progress = progress
        self._since = time.monotonic()
        self.runs = sorted({i for r in instance.runs for i in (r.a, r.b)})
        self.best: tuple[float, Layout] | None = None
        self.bound = float("-inf")
        self._stage: Stage = "strips"
        self._going = True
        self._first = -1.0

    def alive(self) -> bool:
        """Tell how far it is; False once it was ended."""
        if self._going:
            best = self.best
            self._going = self._progress(
                Progress(self._stage, best[0] if best else None, self.bound if self.bound > float("-inf") else None,
                         self.seconds, best[1] if best else None)
            )  # fmt: skip
        return self._going

    @property
    def seconds(self) -> float:
        """Since it began. [s]"""
        return time.monotonic() - self._since

    def run(
        self,
        watch: Watch | None = None,
        clashes: tuple[Clash, ...] = (),
        known: Layout | None = None,
        nowhere: Iterable[tuple[int, int, int, int]] = (),
    ) -> Found:
        """Search.

        Args:
            watch: Rules on pairs within a bay, and units whose exact place matters.
            clashes: Exact places that may not be together.
            known: A layout to begin with, that breaks no rule.
            nowhere: Places of one unit each that do not go.
        Returns: The best layouts and what is proved of them.
        """
        watch = watch or Watch()
        self.best = None
        if known is not None:
            self.best = (value(self.of, known).points, known)
        self._stage = "strips"
        nowhere = set(nowhere)
        named = frozenset({*watch.units, *(self.of.unit(i) for i, *_ in nowhere)})
        places = Places(self.of, nowhere)
        strips = list_strips(
            self.of,
            places,
            self.most,
            watch,
            self.alive,
            thin=self.thin,
            named=named,
            hard=self.hard,
        )
        if not len(strips):
            return self._found(strips, (), float("-inf"), fits=not strips.complete)
        master = Master(self.of, strips, named)
        self._stage = "bound"
        bound, fits = master.solve(self._at_bound)
        self.bound = bound.value
        if not fits or not self._going:
            return self._found(strips, (), bound.value, fits=fits or not self._going)
        loop = _Loop(self, master, bound, watch, clashes)
        rows = loop.run()
        return self._found(strips, rows, loop.bound, fits=True)

    def _at_bound(self, bound: float) -> bool:
        self.bound = max(self.bound, bound)
        return self.alive()

    def note(self, points: float, layout: Layout, stage: Stage) -> None:
        """Take a better layout."""
        self.best = (points, layout)
        self._stage = stage
        if self._first < 0:
            self._first = self.seconds

    def stage(self, stage: Stage, bound: float) -> None:
        """Say what is done now, and what is proved."""
        self._stage, self.bound = stage, bound

    def _found(
        self, strips: Strips, rows: tuple[tuple[float, Layout], ...], bound: float, *, fits: bool
    ) -> Found:
        if not rows and self.best is not None:
            rows = (self.best,)
        return Found(
            rows, bound, strips.most, fits, strips.complete, len(strips), strips.states, self.seconds, self._first,
            not self._going,
        )  # fmt: skip


class _Loop:
    """Fillings and joins with a gap that grows until the proof is there."""

    def __init__(
        self, search: Search, master: Master, bound: Bound, watch: Watch, clashes: tuple[Clash, ...]
    ) -> None:
        self.search, self.master, self.root = search, master, bound
        self.clashes = clashes
        self.sweeps = [Sweep(master, bound, b, watch, search.runs) for b in range(len(master.bays))]
        self.bound = bound.value
        self.scale = max(1.0, abs(bound.value))
        self.gap, self.lid = 0.0, float("inf")
        self.beam: int | None = FIRST_BEAM if search.best is None else None
        self.kept: dict[Layout, float] = {}
        if search.best is not None:
            self.kept[search.best[1]] = search.best[0]

    def run(self) -> tuple[tuple[float, Layout], ...]:
        """Widen the gap until nothing better can be left, memory is short, or somebody ends it."""
        search = self.search
        self.gap = (0.012 if search.best is not None else 0.03) * self.scale
        while search.alive() and not self._enough():
            best = search.best[0] if search.best else float("inf")
            self.gap = min(self.gap, best - self.root.value + 1e-6)
            try:
                whole = self._once(self.gap, self.beam)
            except TooManyError:
                if not self._narrower():
                    break
                continue
            if whole is None or not self._wider(whole=whole):
                break
        rows = sorted(((p, at) for at, p in self.kept.items()), key=lambda r: r[0])
        return tuple(rows[:KEPT])

    def _enough(self) -> bool:
        """Whether what is left to gain is as small as was wanted."""
        best = self.search.best
        return best is not None and best[0] - self.bound <= max(
            proof(best[0]), self.search.wanted * abs(best[0])
        )

    def _narrower(self) -> bool:
        """There were too many fillings: a narrower beam, or half the way back to the gap that is proved."""
        if self.beam is not None:
            self.beam //= 2
            return self.beam > 40
        self.lid = self.gap
        proved = self.bound - self.root.value
        self.gap = (self.gap + proved) / 2
        return self.gap - proved >= LEAST_STEP * self.scale

    def _wider(self, *, whole: bool) -> bool:
        """After a round: what is proved by it, and how wide the next one is; False where a wider one is of no use."""
        best, root = self.search.best, self.root.value
        if whole:
            # Every layout within the gap was seen.
            self.bound = max(self.bound, min(best[0] if best else float("inf"), root + self.gap))
            self.search.stage("fillings", self.bound)
        if self.beam is not None and best is not None and not whole:
            # There is a layout: from here on exactly.
            self.beam = None
            wanted = min(0.6 * (0.97 * best[0] - root), 2.0 * self.gap)
            self.gap = max(1.2 * (self.bound - root), wanted, 0.012 * self.scale)
            return True
        if (
            whole
            and best is None
            and self.gap > NOTHING * self.scale + MISSING * self.search.of.count
        ):
            return False
        grown = self.gap * (1.5 if best is not None else 2.0)
        self.gap = grown if grown < self.lid else (self.gap + self.lid) / 2
        if self.beam is not None and not whole:
            self.beam = int(self.beam * 1.4)
        return self.lid - self.gap >= LEAST_STEP * self.scale

    def _once(self, gap: float, beam: int | None) -> bool | None:
        """Fill and join once: whether nothing was left out; none where it was ended."""
        fillings: list[Filling] = []
        for sweep in self.sweeps:
            found = sweep.fill(gap, beam, self.search.alive)
            if found is None:
                return None
            fillings.append(found)
        self.search.stage("layouts", self.bound)
        rows = joined(
            self.master, fillings, self.search.runs, gap, self.clashes, self.search.alive, KEPT
        )
        if rows is None:
            return None
        self._take(rows, fillings)
        return all(f.whole for f in fillings)

    def _take(self, rows: Joined, fillings: list[Filling]) -> None:
        """Keep the layouts found, each checked by the independent valuation."""
        for points, row in zip(rows.points, rows.rows, strict=True):
            layout = self._layout(row, fillings)
            if layout in self.kept:
                continue
            worth = value(self.search.of, layout).points
            if broken(self.search.of, layout) or abs(worth - points) > 1e-3:
                raise AssertionError(
                    f"a layout is worth {worth}, not {points}: {broken(self.search.of, layout)}"
                )
            self.kept[layout] = worth
            best = self.search.best
            if best is None or worth < best[0] - 1e-9:
                self.search.note(worth, layout, "layouts")

    def _layout(self, row: tuple[int, ...], fillings: list[Filling]) -> Layout:
        """Where every unit is in one joined row."""
        found: dict[int, At] = {}
        # Units that are alike are given their places one after the other.
        left = {group[0]: list(group) for group in self.master.sets.groups}
        for b, (filling, r) in enumerate(zip(fillings, row, strict=True)):
            for strip, cell in reversed(filling.placed(r)):
                for i, offset, level in self.master.strips.members(strip):
                    unit = left[int(self.master.row[i])].pop(0)
                    rides = i >= self.search.of.count
                    found[unit] = At(b, cell + offset, level, i if rides else -1)
        return tuple(found[i] for i in range(len(found)))
