"""Strips: every way to stack a few units between two vertical cuts of a bay, without those that another one beats.

A strip is grown unit by unit over a skyline. A new unit is pushed left against the strip's edge or the right edge of a
unit in it, and down onto what is below; what hangs may also hang at one of its own heights. Levels never fall, at equal
levels offsets rise, so that each arrangement occurs once.
"""

from collections.abc import Callable

import msgspec
import numpy as np
from numpy.typing import NDArray

from roomy_hull.arrange.instance import Floats, Instance, Ints, ceiling
from roomy_hull.arrange.places import MOST_CELLS, Places

Bools = NDArray[np.bool_]
MOST_STATES = 25_000
"""With more unfinished ways after four units, five are not tried."""
LEVELS = 4096
"""Heights are below this. [mm]"""
HARD_STATES = 90_000
"""More than so many unfinished ways are thinned to the cheapest, and the list is then no longer complete."""


class Bar(msgspec.Struct, frozen=True):
    """Two units that may not stand so to each other in a bay.

    `apart` are the forbidden numbers of cells from the first one's block to the other's; `levels` the heights of both at
    which that is so, none for any; `bay` the bay, below 0 for any.
    """

    a: int
    b: int
    apart: frozenset[int]
    levels: tuple[int, int] | None = None
    bay: int = -1


class Watch(msgspec.Struct, frozen=True):
    """Units whose exact place matters, since a rule names them; and pairs that may not stand so in one bay."""

    units: tuple[int, ...] = ()
    bars: tuple[Bar, ...] = ()


class Strips(msgspec.Struct, eq=False):
    """Strips as arrays of one row each.

    Attributes
    ----------
    mask, cells : array of int, shape (k,)
        Its units as bits, its width. [cells]
    has, offset, level : array, shape (k, items)
        Which items it has, the cell of each from its start, and its height. [1, cells, mm]
    cost : array of float, shape (k, bays)
        Points of its heights in each bay.
    kg, moment : array of float, shape (k,)
        Mass, and Σ kg · offset. [kg, kg·mm]
    fits : array of int, shape (k, bays)
        In which cells of each bay it may begin, as bits.
    most : int
        How many units a strip may have.
    states : int
        Ways that were followed.
    complete : bool
        Whether nothing was left out.
    """

    mask: Ints
    cells: Ints
    has: Floats
    offset: Floats
    level: Ints
    cost: Floats
    kg: Floats
    moment: Floats
    fits: Ints
    most: int
    states: int
    complete: bool

    def __len__(self) -> int:
        return len(self.mask)

    def members(self, k: int) -> list[tuple[int, int, int]]:
        """The items of a strip, as (item, cells from its start, height)."""
        return [
            (int(i), int(self.offset[k, i]), int(self.level[k, i]))
            for i in np.nonzero(self.has[k])[0]
        ]


class _Grow:
    """What growing needs to know of an instance, as arrays."""

    def __init__(self, instance: Instance, places: Places, watch: Watch) -> None:
        bays = instance.bays
        self.of, self.places, self.watch = instance, places, watch
        self.forms = instance.forms()
        front = [instance.items[f.item] for f in self.forms]
        self.n, self.nb = len(instance.items), len(bays)
        # By form: only what stands in front takes cells and height.
        self.mask = np.array(
            [sum(1 << instance.unit(i) for i in (f.item, *f.riders)) for f in self.forms], np.int64
        )
        self.cells = np.array([i.cells for i in front], np.int64)
        self.tall = np.array([int(np.ceil(i.height - 1e-6)) for i in front], np.int64)
        self.top = np.array([ceiling(i) for i in front], np.int64)
        self.below = np.array([int(np.ceil(i.below - 1e-6)) for i in front], np.int64)
        self.carries = np.array([i.carries for i in front])
        self.kg = np.array([i.kg for i in instance.items])
        self.form_kg = np.array([
            sum(instance.items[i].kg for i in (f.item, *f.riders)) for f in self.forms
        ])
        self.width = min(MOST_CELLS, max(b.cells for b in bays))
        self.height = int(max(b.height for b in bays))
        self.lowest = int(self.tall.min())
        # By bay: points and sway of each item at cell 0 of it, and how they grow along it.
        self.first, self.sway = np.zeros((self.nb, self.n)), np.zeros((self.nb, self.n))
        axle = instance.weights.points()["axle"] * instance.per_x
        self.swing = instance.weights.points()["balance"] * instance.per_y
        for i, item in enumerate(instance.items):
            for b, spot in enumerate(item.spots):
                if spot is not None:
                    x = spot.x + bays[b].along[0] * item.shift
                    self.first[b, i] = axle * item.kg * (x - instance.x_from)
                    self.sway[b, i] = (
                        self.swing * item.kg * (spot.y + bays[b].along[1] * item.shift)
                    )
        self.ay = np.array([b.along[1] for b in bays])
        self.slope = instance.weights.points()["axle"] * instance.per_x
        self.ax = np.array([b.along[0] for b in bays])
        runs = {i for r in instance.runs for i in (r.a, r.b)} | {t.a for t in instance.ties}
        self.told = sorted({*runs, *watch.units})
        self.levels: dict[int, NDArray[np.float64]] = {}

    def feet(self, i: int) -> list[int]:
        """Heights at which a unit stands without a unit under it."""
        return sorted({lvl for s in self.of.items[i].spots if s is not None for lvl, _ in s.feet})

    def level_cost(self, i: int, level: Ints) -> Floats:
        """Points of a unit's height in each bay, 0 where it may not go. [points]"""
        if i not in self.levels:
            every = np.arange(self.height + 1)
            rows = [
                self.of.level_cost(i, b, every)
                if self.of.items[i].spots[b] is not None
                else np.zeros(len(every))
                for b in range(self.nb)
            ]
            self.levels[i] = np.stack(rows, axis=1)
        found: Floats = self.levels[i][level]
        return found


class _States(msgspec.Struct, eq=False):
    """Unfinished strips, one a row."""

    mask: Ints
    sky: NDArray[np.int16]
    carry: Ints
    cross: Ints
    cells: Ints
    cost: Floats
    lean: Floats
    last: Ints
    offset: Ints
    fits: Ints
    told: Ints
    edges: Ints
    node: Ints


class _Nodes:
    """How each state came about: the state before it, the unit, its offset and height."""

    def __init__(self) -> None:
        self.rows: list[tuple[Ints, Ints, Ints, Ints]] = []
        self.count = 0

    def add(self, parent: Ints, unit: Ints, offset: Ints, level: Ints) -> Ints:
        """Note new states; their numbers come back."""
        self.rows.append((parent, unit, offset, level))
        found: Ints = np.arange(len(parent)) + self.count
        self.count += len(parent)
        return found

    def arrays(self) -> tuple[Ints, Ints, Ints, Ints]:
        """All of them, by number."""
        a, b, c, d = (np.concatenate(x) for x in zip(*self.rows, strict=True))
        return a, b, c, d


def list_strips(
    instance: Instance, places: Places, most: int = 4, watch: Watch | None = None,
    alive: Callable[[], bool] = lambda: True, *, thin: bool = True,
) -> Strips:  # fmt: skip
    """List the strips of an instance.

    Parameters
    ----------
    instance : Instance
        What has to go where.
    places : Places
        Its free cells.
    most : int
        How many units a strip may have.
    watch : Watch or None
        Units whose exact place matters, and what may not stand so in one bay.
    alive : callable
        Asked now and then; False ends the search with what there is.
    thin : bool
        Whether too many are thinned to the promising ones; else none come back.

    Returns
    -------
    Strips
        All that no other one beats whatever stands beside it.
    """
    grow = _Grow(instance, places, watch or Watch())
    state, nodes, done = _empty(grow), _Nodes(), []
    reached, complete = 0, True
    for size in range(1, most + 1):
        if not alive():
            complete = False
            break
        state = _grown(grow, state, nodes, alive, last=size == most)
        if state is None:
            complete &= alive()
            break
        reached = size
        if len(state.mask) > HARD_STATES:
            complete = False
            if not thin:
                done.clear()
                break
            state = _rows(state, _promising(grow, state))
        closed = state.cross == (np.int64(1) << state.cells) - 2
        done.append(
            tuple(
                getattr(state, f)[closed] for f in ("mask", "cells", "cost", "lean", "fits", "node")
            )
        )
        if size == most or (size >= 4 and len(state.mask) > MOST_STATES):
            break
    return _listed(grow, nodes, done, max(reached, 1), complete)


def _promising(grow: _Grow, state: _States) -> Ints:
    """Of too many states those that are cheap for the units they have."""
    has = (state.mask[:, None] >> np.arange(grow.of.count)) & 1 > 0
    usual = np.array([
        state.cost[has[:, n], 0].mean() if has[:, n].any() else 0.0 for n in range(grow.of.count)
    ])
    dear = state.cost[:, 0] - (has @ usual) / np.maximum(1, has.sum(axis=1))
    found: Ints = np.argpartition(dear, HARD_STATES)[:HARD_STATES]
    return found


def _empty(grow: _Grow) -> _States:
    """Nothing yet, in any cell of any bay."""
    zero = np.zeros(1, np.int64)
    fits = np.array([[(1 << b.cells) - 1 for b in grow.of.bays]], np.int64)
    return _States(
        zero.copy(), np.zeros((1, grow.width), np.int16), zero.copy(), zero.copy(), zero.copy(), np.zeros((1, grow.nb)),
        np.zeros((1, grow.nb)),
        zero.copy(), zero - 1, fits, np.zeros((1, len(grow.told)), np.int64), zero + 1, zero - 1,
    )  # fmt: skip


def _rows(state: _States, keep: Ints | Bools) -> _States:
    """Some of the states."""
    return _States(*(getattr(state, f)[keep] for f in state.__struct_fields__))


def _windows(sky: NDArray[np.int16], widest: int) -> list[NDArray[np.int16]]:
    """The skyline's highest point over 1, 2, 4 … cells from each on; past the end it is out of reach."""
    found = [sky]
    while 2 ** len(found) <= widest:
        d = 2 ** (len(found) - 1)
        beside = np.full_like(sky, 32000)
        beside[:, : sky.shape[1] - d] = found[-1][:, d:]
        found.append(np.maximum(found[-1], beside))
    return found


def _grown(
    grow: _Grow, s: _States, nodes: _Nodes, alive: Callable[[], bool], *, last: bool
) -> _States | None:
    """Put every unit into every state in every way."""
    windows = _windows(s.sky, int(grow.cells.max()))
    out: list[tuple[Ints, Ints, Ints, Ints, Ints]] = []
    for i in range(len(grow.forms)):
        if not alive():
            return None
        free = np.nonzero(s.mask & grow.mask[i] == 0)[0]
        if not len(free):
            continue
        w = int(grow.cells[i])
        if w > grow.width:
            continue
        k = w.bit_length() - 1
        shift = w - 2**k
        win = np.full_like(s.sky, 32000)
        win[:, : grow.width - shift] = np.maximum(
            windows[k][:, : grow.width - shift], windows[k][:, shift:]
        )
        for o in range(grow.width - w + 1):
            row = free[(s.edges[free] >> o) & 1 > 0]
            if len(row):
                at = np.full(len(row), o, np.int64)
                out += _put(grow, s, i, row, at, win[row, at].astype(np.int64), last=last)
    if not out:
        return None
    row, unit, at, level, bits = (np.concatenate(x) for x in zip(*out, strict=True))
    return _after(grow, s, nodes, row, unit, at, level, bits, last=last)


def _put(
    grow: _Grow, s: _States, i: int, row: Ints, at: Ints, under: Ints, *, last: bool
) -> list[tuple[Ints, Ints, Ints, Ints, Ints]]:
    """One form in some states at an offset each: at every height that it may have there."""
    form = grow.forms[i]
    item = grow.of.items[form.item]
    base = np.where(under > 0, under + grow.below[i], 0)
    tries: list[tuple[Ints, bool]] = []
    if item.stance == "hang":
        tries.append((base, False))
        tries += [(np.where(base < h, h, -1), False) for h in item.hooks]
    else:
        if item.stance == "rest":
            end = at + int(grow.cells[i]) - 1
            rests = (
                (under > 0) & (s.sky[row, at] == under) & (s.sky[row, end] == under)
                & (s.carry[row] >> at & 1 > 0) & (s.carry[row] >> end & 1 > 0)
            )  # fmt: skip
            tries.append((np.where(rests, base, -1), False))
        tries += [(np.where(base <= h, h, -1), True) for h in grow.feet(form.item)]
    found = []
    for level, feet in tries:
        ok = (level >= 0) & (level + grow.tall[i] <= grow.height)
        ok &= (level > s.last[row]) | ((level == s.last[row]) & (at > s.offset[row]))
        if last:
            ok &= _closes(s, row, at, int(grow.cells[i]))
        if not ok.any():
            continue
        r, a, z = row[ok], at[ok], level[ok]
        bits = s.fits[r] & (grow.places.bits(form.item, z, feet=feet) >> a[:, None])
        for rider in form.riders:
            bits &= grow.places.bits(rider, z) >> a[:, None]
        some = (bits != 0).any(axis=1)
        if some.any():
            found.append((r[some], np.full(int(some.sum()), i), a[some], z[some], bits[some]))
    return found


def _closes(s: _States, row: Ints, at: Ints, w: int) -> Bools:
    """Whether nothing is left open once a unit is put in: every inner cut of the strip crosses one."""
    cross = s.cross[row] | (((np.int64(1) << (w - 1)) - 1) << (at + 1))
    closed: Bools = cross == (np.int64(1) << np.maximum(s.cells[row], at + w)) - 2
    return closed


def _after(
    grow: _Grow,
    s: _States,
    nodes: _Nodes,
    row: Ints,
    unit: Ints,
    at: Ints,
    level: Ints,
    bits: Ints,
    *,
    last: bool,
) -> _States | None:
    """The states that come of it: bars kept, what cannot be finished left out, twins merged."""
    w = grow.cells[unit]
    cells = np.maximum(s.cells[row], at + w)
    cross = s.cross[row] | (((np.int64(1) << (w - 1)) - 1) << (at + 1))
    cost, lean = s.cost[row].copy(), s.lean[row].copy()
    told = s.told[row].copy()
    for f in np.unique(unit):
        me = unit == f
        form = grow.forms[int(f)]
        for i in (form.item, *form.riders):
            cost[me] += grow.level_cost(i, level[me]) + grow.first[:, i]
            lean[me] += grow.sway[:, i]
            u = grow.of.unit(i)
            if u in grow.told:
                e = grow.told.index(u)
                told[me, e] = (
                    at[me] + place_of(grow.of, i, level[me])
                    if u in grow.watch.units
                    else (1 + at[me] + 64 * (i != u) * (i + 1))
                )
        along = (grow.form_kg[f] * at[me] * grow.of.cell)[:, None]
        cost[me] += grow.slope * grow.ax * along
        lean[me] += grow.swing * grow.ay * along
    fine = ~_barred(grow, told)
    mask = s.mask[row] | grow.mask[unit]
    sky, carry = s.sky[row], s.carry[row]
    if not last:
        col = np.arange(grow.width)
        inside = (col >= at[:, None]) & (col < (at + w)[:, None])
        sky = np.where(inside, (level + grow.top[unit]).astype(np.int16)[:, None], sky)
        span = ((np.int64(1) << w) - 1) << at
        carry = np.where(grow.carries[unit], carry | span, carry & ~span)
        fine &= ~_lost(grow, sky, cross, cells)
    keep = np.nonzero(fine)[0]
    if not len(keep):
        return None
    edges = s.edges[row] | (np.int64(1) << (at + w))
    keys = [mask[keep], cells[keep], *told[keep].T]
    if not last:
        # What it may still become depends on its edges and its highest unit.
        keys += [edges[keep], level[keep]]
        wide = int(cells.max())
        odd = np.random.default_rng(1).integers(1, 2**61, wide, dtype=np.int64) | 1
        with np.errstate(over="ignore"):
            keys.append(
                (sky[keep, :wide].astype(np.int64) * odd).sum(axis=1) ^ (carry[keep] * 7919)
            )
    keep = keep[_cheapest(keys, cost[keep], lean[keep], bits[keep])]
    node = nodes.add(s.node[row[keep]], unit[keep], at[keep], level[keep])
    return _States(
        mask[keep], sky[keep], carry[keep], cross[keep], cells[keep], cost[keep], lean[keep], level[keep], at[keep],
        bits[keep], told[keep], edges[keep], node,
    )  # fmt: skip


def place_of(instance: Instance, item: int, level: Ints) -> Ints:
    """The code of an item's place at cell 0 and some heights: 1 + cell + 64 · (height + 1), other where it rides."""
    rank = item - instance.count + 1 if item >= instance.count else 0
    found: Ints = 1 + 64 * (level + 1 + LEVELS * rank)
    return found


def _barred(grow: _Grow, told: Ints) -> Bools:
    """Which states have two units so to each other as a bar forbids in every bay."""
    found = np.zeros(len(told), bool)
    for bar in grow.watch.bars:
        if bar.bay >= 0 and grow.nb > 1:
            continue  # forbidden in one bay only: looked at when a strip is put there
        a, b = told[:, grow.told.index(bar.a)], told[:, grow.told.index(bar.b)]
        found |= (a > 0) & (b > 0) & hits(bar, a, b)
    return found


def hits(bar: Bar, a: Ints, b: Ints) -> Bools:
    """Whether two places, as 1 + cell + 64 · (height + 1), are so to each other as a bar forbids."""
    away = np.fromiter(bar.apart, np.int64, len(bar.apart))
    found: Bools = np.isin((b - 1) % 64 - (a - 1) % 64, away)
    if bar.levels is not None:
        found &= ((a - 1) // 64 - 1 == bar.levels[0]) & ((b - 1) // 64 - 1 == bar.levels[1])
    return found


def _lost(grow: _Grow, sky: NDArray[np.int16], cross: Ints, cells: Ints) -> Bools:
    """Which states have a cut that no unit has height left to cross."""
    wide = int(cells.max())
    cut = np.arange(1, wide)
    open_ = ((cross[:, None] >> cut) & 1 == 0) & (cut < cells[:, None])
    low = np.maximum(sky[:, : wide - 1], sky[:, 1:wide])
    found: Bools = (open_ & (low + grow.lowest > grow.height)).any(axis=1)
    return found


def _cheapest(keys: list[Ints], cost: Floats, lean: Floats, bits: Ints) -> Ints:
    """Of states with the same keys keep the cheapest, and those that it does not beat in every bay and cell.

    `lean` is what its sides may cost at most. [points]
    """
    order = np.lexsort((cost[:, 0], *keys))
    new = np.arange(len(order)) == 0
    for key in keys:
        k = key[order]
        new[1:] |= k[1:] != k[:-1]
    place = np.arange(len(order))
    first = np.maximum.accumulate(np.where(new, place, 0))
    far = cost[order[first]] + np.abs(lean[order[first]] - lean[order])
    beaten = ((far <= cost[order] + 1e-9) | (bits[order] == 0)).all(axis=1)
    beaten &= ((bits[order] & ~bits[order[first]]) == 0).all(axis=1)
    kept: Ints = order[new | ~beaten]
    return kept


def _listed(
    grow: _Grow, nodes: _Nodes, done: list[tuple[Ints, ...]], most: int, complete: bool
) -> Strips:
    """Gather the finished strips, and leave out those that another of the same units beats."""
    if not done or not sum(len(d[0]) for d in done):
        zero = np.zeros(0, np.int64)
        rows = np.zeros((0, grow.n))
        return Strips(zero, zero, rows, rows, rows.astype(np.int64), np.zeros((0, grow.nb)), np.zeros(0), np.zeros(0),
                      np.zeros((0, grow.nb), np.int64), most, nodes.count, complete)  # fmt: skip
    mask, cells, cost, lean, fits, node = (np.concatenate(x) for x in zip(*done, strict=True))
    parent, unit, offset, level = nodes.arrays()
    has = np.zeros((len(mask), grow.n))
    off, lev = has.copy(), has.astype(np.int64)
    here = node.copy()
    while (here >= 0).any():
        a = np.nonzero(here >= 0)[0]
        x = here[a]
        for k in range(1 + max((len(f.riders) for f in grow.forms), default=0)):
            column = np.array([([f.item, *f.riders, *[-1] * 9])[k] for f in grow.forms])[unit[x]]
            some = column >= 0
            has[a[some], column[some]] = 1
            off[a[some], column[some]], lev[a[some], column[some]] = offset[x][some], level[x][some]
        here[a] = parent[x]
    moment = (has * off) @ grow.kg * grow.of.cell
    ends = np.array([b.cells for b in grow.of.bays]) - cells[:, None] + 1
    fits = fits & ((np.int64(1) << np.maximum(ends, 0)) - 1)
    for bar in grow.watch.bars:
        if bar.bay >= 0:
            a, b = (codes(grow.of, has, off, lev, i) for i in (bar.a, bar.b))
            fits[(a > 0) & (b > 0) & hits(bar, a, b), bar.bay] = 0
    keep = _undominated(grow, (mask, cells, cost, fits), (has, off, lev), lean)
    # Heights only: what the place along the wall costs is added where the place is known.
    heights = np.zeros((len(keep), grow.nb))
    for i in range(grow.n):
        me = has[keep, i] > 0
        heights[me] += grow.level_cost(i, lev[keep][me, i])
    return Strips(
        mask[keep], cells[keep], has[keep], off[keep], lev[keep], heights, has[keep] @ grow.kg, moment[keep], fits[keep],
        most, nodes.count, complete,
    )  # fmt: skip


def codes(instance: Instance, has: Floats, off: Floats, lev: Ints, unit: int) -> Ints:
    """The code of a unit's place in every strip, 0 where it is not in it."""
    found = np.zeros(len(has), np.int64)
    for i in range(len(instance.items)):
        if instance.unit(i) == unit:
            found += np.where(
                has[:, i] > 0, off[:, i].astype(np.int64) + place_of(instance, i, lev[:, i]), 0
            )
    return found


def _undominated(
    grow: _Grow, strips: tuple[Ints, Ints, Floats, Ints], members: tuple[Floats, Floats, Ints],
    lean: Floats,
) -> Ints:  # fmt: skip
    """Which strips no other one of the same units beats, whatever runs, balance or rules there are."""
    (mask, cells, cost, fits), (has, off, lev) = strips, members
    points = grow.of.weights.points()
    by_unit = np.zeros(grow.of.count)
    for r in grow.of.runs:
        by_unit[[r.a, r.b]] += r.weight * points["runs"] / 1000 * grow.of.cell
    for t in grow.of.ties:
        by_unit[t.a] += t.weight * points["runs"] / 1000 * grow.of.cell
    joined = {i for r in grow.of.runs for i in (r.a, r.b)} | {t.a for t in grow.of.ties}
    pulls = by_unit[[grow.of.unit(i) for i in range(grow.n)]]
    # These have to be the same: watched units' places, and whether what is joined rides behind something.
    same = [codes(grow.of, has, off, lev, u) for u in grow.watch.units]
    same += [has[:, i] for i in range(grow.of.count, grow.n) if grow.of.unit(i) in joined]
    told = np.nonzero(pulls > 0)[0]
    at = off[:, told] * pulls[told]
    order = np.lexsort((cells, cost[:, 0], mask))
    place = np.arange(len(order))
    new = np.concatenate([[True], mask[order][1:] != mask[order][:-1]])
    first = np.maximum.accumulate(np.where(new, place, 0))
    alive = np.ones(len(order), bool)
    left = place
    for n in range(len(order)):
        # Each against the n-th of its group, which nothing before it beats.
        left = left[alive[left] & (first[left] + n < left)]
        if not len(left):
            break
        ahead = first[left] + n
        ok = alive[ahead]
        one, other = left[ok], ahead[ok]
        a, b = order[one], order[other]
        wins = (cells[b] <= cells[a]) & ((fits[a] & ~fits[b]) == 0).all(axis=1)
        for code in same:
            wins &= code[b] == code[a]
        extra = np.abs(at[b] - at[a]).sum(axis=1)[:, None] + np.abs(lean[b] - lean[a])
        wins &= ((cost[b] + extra <= cost[a] + 1e-6) | (fits[a] == 0)).all(axis=1)
        alive[one[wins]] = False
    kept: Ints = np.sort(order[alive])
    return kept
