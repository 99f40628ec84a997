"""Fillings: every sequence of strips and gaps of one bay that could still belong to a better layout."""

from collections.abc import Callable, Iterator
from typing import Any

import msgspec
import numpy as np
from numpy.typing import NDArray

from roomy_hull.arrange.instance import Floats, Ints
from roomy_hull.arrange.master import Bound, Master
from roomy_hull.arrange.tables import first_parts, grouped
from roomy_hull.arrange.watching import Watch, codes, hits

Bools = NDArray[np.bool_]
MOST_STATES = 6_000_000
"""More half-filled bays than this are too many in all, and more than that at once."""
MOST_WAITING = 1_000_000
A_HALF = 15
"""While a beam is kept, so many strips are tried on each half-filled bay, taken together."""
AT_ONCE = 300_000
"""So many pairs of a half-filled bay and a strip are looked at together."""


class TooManyError(Exception):
    """More half-filled bays than memory should hold; the gap has to be smaller."""


class _Columns(msgspec.Struct, eq=False):
    """Wholly or partly filled bays as arrays of one row each.

    Attributes:
        mask: Its set of units, as `Sets` has it.
        excess: By how much prices leave it dearer than the cheapest filling. [points]
        cost, lean: Points of axle, heights; right less left. [points, kg]
        at, side: Where they are along the bay and across it, 0 where not in it. [mm]
        free: The widest gap. [cells]
        told: Their exact places, 0 where not in it: 1 + cell + 64 · (height + 1).
        node: Its last strip, for `Filling.placed`.
    """

    mask: Ints
    excess: Floats
    cost: Floats
    lean: Floats
    at: Floats
    side: Floats
    free: Ints
    told: Ints
    node: Ints


class Filling(_Columns, eq=False):
    """Fillings of one bay, ordered by their units.

    Attributes:
        whole: Whether none was left out.
        parent, strip, cell: By node: the one before it, its strip, and the cell at which that begins.
    """

    whole: bool
    parent: Ints
    strip: Ints
    cell: Ints

    def placed(self, row: int) -> list[tuple[int, int]]:
        """The strips of a filling, as (strip, first cell), from the end."""
        found, node = [], int(self.node[row])
        while node >= 0:
            found.append((int(self.strip[node]), int(self.cell[node])))
            node = int(self.parent[node])
        return found


class _Half(_Columns, eq=False):
    """Half-filled bays that end at one cell."""

    def rows(self, keep: Ints | Bools) -> "_Half":
        """Some of them."""
        return _Half(*(getattr(self, f)[keep] for f in self.__struct_fields__))


def _joined(some: list[_Half]) -> _Half:
    return _Half(*(np.concatenate([getattr(h, f) for h in some]) for f in _Half.__struct_fields__))


class Sweep:
    """Fills one bay from its start to its end.

    Args:
        master: Costs and places of the strips.
        bound: What its prices prove.
        bay: Which bay.
        watch: Rules on pairs of units in one bay.
        runs: Units that runs join.
    """

    def __init__(
        self, master: Master, bound: Bound, bay: int, watch: Watch, runs: list[int]
    ) -> None:
        self.m, self.bay, self.watch, self.runs = master, bay, watch, runs
        s, of = master.strips, master.of
        self.size = master.bays[bay]
        self.reduced, self.idle, self.after = bound.reduced[bay], bound.idle[bay], bound.after[bay]
        self.bars = [b for b in watch.bars if b.bay < 0 or b.bay == bay]
        ax, ay = of.bays[bay].along
        base = (master.x0 if ax else master.y0)[bay]
        self.step = (ax or ay) * of.cell
        of_unit = [np.nonzero(master.unit == u)[0] for u in runs]
        where = s.has * (base + self.step * s.offset)
        # What is across the bay, where it stands itself or behind something.
        side = s.has * (master.y0 if ax else master.x0)[bay]
        self.has = _columns([s.has[:, i].any(axis=1) for i in of_unit], len(s), bool)
        self.at0 = _columns([where[:, i].sum(axis=1) for i in of_unit], len(s), float)
        self.side0 = _columns([side[:, i].sum(axis=1) for i in of_unit], len(s), float)
        told = [codes(of, s.has, s.offset, s.level, u) for u in watch.units]
        self.told0 = _columns(told, len(s), np.int64)
        points = of.weights.points()
        pulls = dict.fromkeys(runs, 0.0)
        for r in of.runs:
            for i in (r.a, r.b):
                pulls[i] += r.weight * points["runs"] / 1000
        self.pulls = np.array([pulls[i] for i in runs])
        self.swing, self.room = points["balance"], points["room"] * of.cell
        only = [u for u in range(of.count) if of.bays_of(u) == {bay}]
        self.must, self.have = master.sets.whole(only)
        self.lists = [self._list(p) for p in range(self.size)]

    def _list(self, cell: int) -> tuple[Ints, Floats]:
        """The strips that can begin at a cell, and the least that each leads to, cheapest first."""
        k = np.nonzero(np.isfinite(self.reduced[:, cell]))[0]
        k = k[cell + self.m.strips.cells[k] <= self.size]
        least = self.reduced[k, cell] + self.after[cell + self.m.strips.cells[k]]
        order = np.argsort(least, kind="stable")
        return k[order], least[order]

    def fill(self, gap: float, beam: int | None, alive: Callable[[], bool]) -> Filling | None:
        """Find the fillings within a gap of the bay's cheapest.

        Args:
            gap: How much dearer they may be. [points]
            beam: Keep so many half-filled bays a cell at most; all where none.
            alive: Asked at each cell; False gives up.
        Returns: All of them, or none where it was given up.
        Raises:
            TooManyError: There are more half-filled bays than `MOST_STATES`.
        """
        nr, nw = len(self.runs), len(self.watch.units)
        zero = np.zeros(1)
        waiting: list[list[_Half]] = [[] for _ in range(self.size + 1)]
        waiting[0].append(
            _Half(np.zeros(1, np.int64), zero, zero, zero, np.zeros((1, nr)), np.zeros((1, nr)), np.zeros(1, np.int64),
                  np.zeros((1, nw), np.int64), np.full(1, -1, np.int64))
        )  # fmt: skip
        ends: list[_Half] = []
        tree: list[tuple[Ints, Ints, Ints]] = []
        count, waits, whole = 0, 1, True
        limit = gap + self.after[0]
        for p in range(self.size + 1):
            if not waiting[p]:
                continue
            if not alive():
                return None
            here = _joined(waiting[p])
            waits -= len(here.mask)
            here, waiting[p] = self._thinned(here), []
            if beam is not None and len(here.mask) > beam:
                here = here.rows(_cheapest(here, beam))
                whole = False
            last = here.excess + self.idle[p, self.size - p]
            ok = (last <= limit) & ((here.mask & self.must) == self.have)
            if ok.any():
                end = here.rows(ok)
                end.excess = last[ok] - self.after[0]
                end.free = np.maximum(end.free, self.size - p)
                ends.append(end)
            here = here.rows(np.argsort(here.excess, kind="stable"))
            near = limit if beam is None else self._nearer(here, p, limit, beam * A_HALF)
            whole &= near >= limit
            for q in range(p, self.size):
                for new, strip in self._extended(here, p, q, near):
                    tree.append((new.node, strip, np.full(len(strip), q, np.int64)))
                    new.node = count + np.arange(len(strip))
                    count += len(strip)
                    waits += len(strip)
                    if count > MOST_STATES or waits > MOST_WAITING:
                        raise TooManyError
                    end_at = q + self.m.strips.cells[strip]
                    for e in np.unique(end_at):
                        waiting[int(e)].append(new.rows(end_at == e))
        return self._ended(ends, tree, whole=whole)

    def _many(self, here: _Half, p: int, q: int, limit: float) -> Ints:
        """How many half-filled bays, in the order of their excess, each strip at q can be put to within a limit."""
        _, least = self.lists[q]
        many: Ints = np.searchsorted(here.excess, limit - self.idle[p, q - p] - least, side="right")
        return many

    def _nearer(self, here: _Half, p: int, limit: float, most: int) -> float:
        """A limit within which there are not too many pairs of a half-filled bay and a strip."""

        def pairs(within: float) -> int:
            return sum(int(self._many(here, p, q, within).sum()) for q in range(p, self.size))

        if pairs(limit) <= most:
            return limit
        low, high = float(here.excess[0] + self.after[p]), limit
        for _ in range(12):
            middle = (low + high) / 2
            low, high = (middle, high) if pairs(middle) <= most else (low, middle)
        return low

    def _extended(self, here: _Half, p: int, q: int, limit: float) -> Iterator[tuple[_Half, Ints]]:
        """Leave the cells from p to q free and put a strip at q, wherever that stays within the limit."""
        strips, _ = self.lists[q]
        if not len(strips):
            return
        # Both are in the order of what they add: for each strip a first part of the half-filled bays is cheap enough.
        many = self._many(here, p, q, limit)
        many = many[: int(np.searchsorted(-many, 0, side="left"))]
        for which, every in first_parts(many, AT_ONCE):
            ok = self.m.sets.together(here.mask[every], self.m.set[strips[which]])
            row, strip = every[ok], strips[which[ok]]
            if len(row):
                new = self._with(here.rows(row), strip, p, q)
                fine = ~self._barred(here.told[row], self._told(strip, q))
                if not fine.all():
                    new, strip = new.rows(fine), strip[fine]
                if len(strip):
                    yield new, strip

    def _with(self, old: _Half, k: Ints, p: int, q: int) -> _Half:
        """Half-filled bays with a gap and a strip more."""
        m, b = self.m, self.bay
        at = old.at + np.where(self.has[k], self.at0[k] + self.step * q, 0.0)
        return _Half(
            old.mask + m.set[k],
            old.excess + self.idle[p, q - p] + self.reduced[k, q],
            old.cost + m.price(k, b, q),
            old.lean + m.lean[k, b] + m.tilt[k, b] * q,
            at, old.side + self.side0[k], np.maximum(old.free, q - p), old.told + self._told(k, q), old.node,
        )  # fmt: skip

    def _told(self, k: Ints, q: int) -> Ints:
        """The exact places of watched units in strips at a cell."""
        found: Ints = self.told0[k] + q * (self.told0[k] > 0)
        return found

    def _barred(self, old: Ints, new: Ints) -> Bools:
        """Which have a unit before and one in the new strip so to each other as a rule forbids."""
        found = np.zeros(len(old), bool)
        for bar in self.bars:
            a, b = self.watch.units.index(bar.a), self.watch.units.index(bar.b)
            for i, j in ((old[:, a], new[:, b]), (new[:, a], old[:, b])):
                found |= (i > 0) & (j > 0) & hits(bar, i, j)
        return found

    def _thinned(self, s: _Half) -> _Half:
        """Of those with the same units up to the same cell keep what no cheaper one beats whatever follows."""
        keys = [*s.told.T, s.mask]  # the last one is the first to be ordered by: joins rely on it
        order, first = grouped(keys, [s.cost])
        place = np.arange(len(order))
        keep = np.ones(len(order), bool)
        cost, lean, free, at = s.cost[order], s.lean[order], s.free[order], s.at[order]
        side = s.side[order]
        for k in range(3):
            f = np.minimum(first + k, place)
            worse = cost[f] - cost + self.swing * np.abs(lean[f] - lean)
            worse += (
                self.room * np.maximum(0, free - free[f])
                + (np.abs(at[f] - at) + np.abs(side[f] - side)) @ self.pulls
            )
            keep &= ~((worse <= 1e-9) & (f < place) & keep[f])
        return s.rows(order[keep])

    def _ended(
        self, ends: list[_Half], tree: list[tuple[Ints, Ints, Ints]], *, whole: bool
    ) -> Filling:
        """Gather what fills the bay to its end, ordered by units."""
        parent, strip, cell = (
            (np.concatenate(x) for x in zip(*tree, strict=True))
            if tree
            else (np.zeros(0, np.int64),) * 3
        )
        if ends:
            some = self._thinned(_joined(ends))
        else:
            none, runs = np.zeros(0, np.int64), np.zeros((0, len(self.runs)))
            told = np.zeros((0, len(self.watch.units)), np.int64)
            some = _Half(none, np.zeros(0), np.zeros(0), np.zeros(0), runs, runs, none, told, none)
        fields = {f: getattr(some, f) for f in _Half.__struct_fields__}
        return Filling(**fields, whole=whole, parent=parent, strip=strip, cell=cell)


def _cheapest(here: _Half, most: int) -> Ints:
    """Of too many half-filled bays the cheapest, one for each set of units, so that many sets can be completed."""
    order = np.argsort(here.excess, kind="stable")
    _, first = np.unique(here.mask[order], return_index=True)
    found: Ints = order[np.sort(first)[:most]]
    return found


def _columns(some: list[Any], rows: int, kind: Any) -> Any:
    """Arrays as the columns of one; no column where there is none."""
    return np.stack(some, axis=1) if some else np.zeros((rows, 0), kind)
