"""Join: one filling for each bay so that together every unit is placed once."""

from collections.abc import Callable, Iterator

import msgspec
import numpy as np

from roomy_hull.arrange.fillings import Bools, Filling
from roomy_hull.arrange.instance import Floats, Ints
from roomy_hull.arrange.master import Master
from roomy_hull.arrange.sets import Sets
from roomy_hull.arrange.tables import first_parts

AT_ONCE = 400_000


class Clash(msgspec.Struct, frozen=True):
    """Units that may not be exactly there together: each as (place among the watched, bay, 1 + cell + 64 · (height + 1))."""

    places: tuple[tuple[int, int, int], ...]


class Joined(msgspec.Struct, frozen=True, eq=False):
    """Layouts found, cheapest first: points, and the row of each bay's filling."""

    points: tuple[float, ...]
    rows: tuple[tuple[int, ...], ...]


class _Parts(msgspec.Struct, eq=False):
    """Fillings of several bays taken together, one a row; `rows` are those of each bay."""

    mask: Ints
    excess: Floats
    rows: Ints


def joined(
    master: Master, fillings: list[Filling], runs: list[int], gap: float, clashes: tuple[Clash, ...],
    alive: Callable[[], bool], most: int = 400,
) -> Joined | None:  # fmt: skip
    """Find the layouts within a gap of the bound.

    Args:
        gap: How much dearer than the bound a layout may be. [points]
        clashes: Exact places that may not be together.
        alive: Asked now and then; False gives up.
    Returns: The layouts, cheapest first; none where it was given up.
    """
    if any(not len(f.mask) for f in fillings):
        return Joined((), ())
    order = sorted(range(len(fillings)), key=lambda b: len(fillings[b].mask))
    worth = _Worth(master, fillings, order, runs, clashes)
    points, rows = [np.zeros(0)], [np.zeros((0, len(order)), np.int64)]
    last = _Last(fillings[order[-1]], master.sets.full)
    for parts in _parts([fillings[b] for b in order[:-1]], master.sets, last.least, gap):
        for some in last.completed(parts, gap):
            if not alive():
                return None
            worths, good = worth.of(some)
            worths, there = worths[good], some[good]
            best = np.argsort(worths, kind="stable")[:most]
            points.append(worths[best])
            rows.append(there[best])
        if not alive():
            return None
    every, there = np.concatenate(points), np.concatenate(rows)
    best = np.argsort(every, kind="stable")[:most]
    back = np.argsort(order)
    return Joined(
        tuple(every[best].tolist()), tuple(tuple(int(x) for x in there[k][back]) for k in best)
    )


def _parts(some: list[Filling], sets: Sets, last: float, gap: float) -> Iterator[_Parts]:
    """Fillings of all bays but one taken together, so many at once, where they share no unit and stay within the gap.

    `last` is the least excess of the bay that is still to come. [points]
    """
    start = _Parts(np.zeros(1, np.int64), np.zeros(1), np.zeros((1, 0), np.int64))
    if not some:
        yield start
        return
    before = _parts(some[:-1], sets, last, gap) if len(some) > 1 else iter((start,))
    f = some[-1]
    order = np.argsort(f.excess, kind="stable")
    excess, mask = f.excess[order], f.mask[order]
    for parts in before:
        # In the order of excess a first part of the fillings is cheap enough for each part.
        many = np.searchsorted(excess, gap + 1e-9 - last - parts.excess, side="right")
        for every_a, every_b in first_parts(many, AT_ONCE):
            ok = sets.together(parts.mask[every_a], mask[every_b])
            a, b = every_a[ok], every_b[ok]
            if len(a):
                yield _Parts(
                    parts.mask[a] + mask[b],
                    parts.excess[a] + excess[b],
                    np.concatenate([parts.rows[a], order[b][:, None]], axis=1),
                )


class _Last:
    """The fillings of the last bay, looked up by the units that are missing; they are ordered by their units."""

    def __init__(self, f: Filling, full: np.int64) -> None:
        self.f, self.full = f, full
        self.masks, self.start, self.count = np.unique(
            f.mask, return_index=True, return_counts=True
        )
        self.by_mask = np.minimum.reduceat(f.excess, self.start)
        self.least = float(self.by_mask.min())

    def completed(self, parts: _Parts, gap: float) -> Iterator[Ints]:
        """Every part with every filling that has just the units that are missing, so many at once."""
        want = self.full - parts.mask
        at = np.minimum(np.searchsorted(self.masks, want), len(self.masks) - 1)
        ok = (self.masks[at] == want) & (parts.excess + self.by_mask[at] <= gap + 1e-9)
        chosen, group = np.nonzero(ok)[0], at[ok]
        for pick, nth in first_parts(self.count[group], AT_ONCE):
            row = self.start[group[pick]] + nth
            fine = parts.excess[chosen[pick]] + self.f.excess[row] <= gap + 1e-9
            yield np.concatenate([parts.rows[chosen[pick[fine]]], row[fine][:, None]], axis=1)


class _Worth:
    """Points of layouts from those of their fillings, and which of them no rule forbids."""

    def __init__(
        self,
        master: Master,
        fillings: list[Filling],
        order: list[int],
        runs: list[int],
        clashes: tuple[Clash, ...],
    ) -> None:
        self.m, self.fillings, self.order, self.runs, self.clashes = (
            master,
            fillings,
            order,
            runs,
            clashes,
        )
        self.points = master.of.weights.points()

    def of(self, rows: Ints) -> tuple[Floats, Bools]:
        """Points of each, and whether it may be.

        Args:
            rows: Of each bay's filling, in the order of joining.
        Returns: Points, exact; and whether no clash forbids it.
        """
        of = self.m.of
        n, runs = len(rows), self.runs
        cost, lean = np.zeros(n), np.full(n, of.lean)
        free = np.zeros(n, np.int64)
        where = np.zeros((2, n, len(runs)))
        told = []
        for k, b in enumerate(self.order):
            f, r = self.fillings[b], rows[:, k]
            cost += f.cost[r]
            lean += f.lean[r]
            free = np.maximum(free, f.free[r])
            told.append((b, f.told[r]))
            if len(runs):
                along = 0 if of.bays[b].along[0] else 1
                where[along] += f.at[r]
                where[1 - along] += f.side[r]
        points = cost + self.points["balance"] * np.abs(lean) - self.points["room"] * of.cell * free
        for run in of.runs:
            i, j = self.runs.index(run.a), self.runs.index(run.b)
            away = np.abs(where[:, :, i] - where[:, :, j]).sum(axis=0)
            points += self.points["runs"] * run.weight * away / 1000
        good = np.ones(n, bool)
        for clash in self.clashes:
            hit = np.ones(n, bool)
            for unit, bay, place in clash.places:
                hit &= next(t for b, t in told if b == bay)[:, unit] == place
            good &= ~hit
        return points, good
