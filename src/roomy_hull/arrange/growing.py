"""Growing: strips grown unit by unit over a skyline, what cannot be finished left out, twins merged."""

import itertools
from collections.abc import Callable
from typing import NamedTuple

import msgspec
import numpy as np
from numpy.typing import NDArray

from roomy_hull.arrange.instance import Floats, Instance, Ints, ceiling
from roomy_hull.arrange.places import MOST_CELLS, Places
from roomy_hull.arrange.sets import alike
from roomy_hull.arrange.tables import grouped
from roomy_hull.arrange.watching import Bools, Watch, hits, place_of


class Grow:
    """What growing needs to know of an instance, as arrays."""

    def __init__(
        self, instance: Instance, places: Places, watch: Watch, named: frozenset[int] = frozenset()
    ) -> None:
        bays = instance.bays
        self.of, self.places, self.watch = instance, places, watch
        self.forms = instance.forms()
        front = [instance.items[f.item] for f in self.forms]
        self.n, self.nb = len(instance.items), len(bays)
        # Of units that are alike a strip has the first ones: the second only where it has the first.
        self.before = np.zeros(len(self.forms), np.int64)
        for group in alike(instance, named):
            for one, n in itertools.pairwise(group):
                self.before[n] = 1 << one
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
                    u = bays[b].origin + item.shift
                    x = spot.x + bays[b].along[0] * u
                    self.first[b, i] = axle * item.kg * (x - instance.x_from)
                    self.sway[b, i] = self.swing * item.kg * (spot.y + bays[b].along[1] * u)
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


class States(msgspec.Struct, eq=False):
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


class Nodes:
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


class TooLooseError(Exception):
    """There are more ways than can be followed."""


def empty(grow: Grow) -> States:
    """Nothing yet, in any cell of any bay."""
    zero = np.zeros(1, np.int64)
    fits = np.array([[(1 << b.cells) - 1 for b in grow.of.bays]], np.int64)
    return States(
        zero.copy(), np.zeros((1, grow.width), np.int16), zero.copy(), zero.copy(), zero.copy(), np.zeros((1, grow.nb)),
        np.zeros((1, grow.nb)),
        zero.copy(), zero - 1, fits, np.zeros((1, len(grow.told)), np.int64), zero + 1, zero - 1,
    )  # fmt: skip


def rows_of(state: States, keep: Ints | Bools) -> States:
    """Some of the states."""
    return States(*(getattr(state, f)[keep] for f in state.__struct_fields__))


def _windows(sky: NDArray[np.int16], widest: int) -> list[NDArray[np.int16]]:
    """The skyline's highest point over 1, 2, 4 … cells from each on; past the end it is out of reach."""
    found = [sky]
    while 2 ** len(found) <= widest:
        d = 2 ** (len(found) - 1)
        beside = np.full_like(sky, 32000)
        beside[:, : sky.shape[1] - d] = found[-1][:, d:]
        found.append(np.maximum(found[-1], beside))
    return found


def grown(
    grow: Grow, s: States, nodes: Nodes, alive: Callable[[], bool], *, last: bool, most: int = 0
) -> States | None:
    """Put every unit into every state in every way; none where there is none, or it was ended.

    Raises `TooLooseError` where there are more than `most` ways before any is left out; 0 for any number.
    """
    count = 0
    windows = _windows(s.sky, int(grow.cells.max()))
    out: list[tuple[Ints, Ints, Ints, Ints, Ints]] = []
    for i in range(len(grow.forms)):
        if not alive():
            return None
        before = grow.before[i]
        free = np.nonzero((s.mask & grow.mask[i] == 0) & (s.mask & before == before))[0]
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
                more = _put(grow, s, i, row, at, win[row, at].astype(np.int64), last=last)
                count += sum(len(x[0]) for x in more)
                if 0 < most < count:
                    raise TooLooseError
                out += more
    if not out:
        return None
    return _after(
        grow, s, nodes, New(*(np.concatenate(x) for x in zip(*out, strict=True))), last=last
    )


def _put(
    grow: Grow, s: States, i: int, row: Ints, at: Ints, under: Ints, *, last: bool
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
        if form.bays:
            bits[:, [k for k in range(grow.nb) if k not in form.bays]] = 0
        some = (bits != 0).any(axis=1)
        if some.any():
            found.append((r[some], np.full(int(some.sum()), i), a[some], z[some], bits[some]))
    return found


def _closes(s: States, row: Ints, at: Ints, w: int) -> Bools:
    """Whether nothing is left open once a unit is put in: every inner cut of the strip crosses one."""
    cross = s.cross[row] | (((np.int64(1) << (w - 1)) - 1) << (at + 1))
    closed: Bools = cross == (np.int64(1) << np.maximum(s.cells[row], at + w)) - 2
    return closed


class New(NamedTuple):
    """Forms put into states: the state's row, the form, its offset and height, and where the strip may then begin."""

    row: Ints
    form: Ints
    at: Ints
    level: Ints
    fits: Ints


def _after(grow: Grow, s: States, nodes: Nodes, new: New, *, last: bool) -> States | None:
    """The states that come of it: bars kept, what cannot be finished left out, twins merged."""
    row, form, at, level = new.row, new.form, new.at, new.level
    w = grow.cells[form]
    cells = np.maximum(s.cells[row], at + w)
    cross = s.cross[row] | (((np.int64(1) << (w - 1)) - 1) << (at + 1))
    cost, lean, told = _weighed(grow, s, new)
    fine = ~_barred(grow, told)
    sky, carry = s.sky[row], s.carry[row]
    if not last:
        sky, carry = _stacked(grow, sky, carry, new)
        fine &= ~_lost(grow, sky, cross, cells)
    keep = np.nonzero(fine)[0]
    if not len(keep):
        return None
    mask = s.mask[row] | grow.mask[form]
    edges = s.edges[row] | (np.int64(1) << (at + w))
    keys = [mask[keep], cells[keep], *told[keep].T]
    if not last:
        # What it may still become depends on its edges, its highest unit, its skyline and what of that carries.
        keys += [
            edges[keep],
            level[keep],
            _known_by(sky[keep, : int(cells.max())]) ^ (carry[keep] * 7919),
        ]
    keep = keep[_cheapest(keys, cost[keep], lean[keep], new.fits[keep])]
    node = nodes.add(s.node[row[keep]], form[keep], at[keep], level[keep])
    return States(
        mask[keep], sky[keep], carry[keep], cross[keep], cells[keep], cost[keep], lean[keep], level[keep], at[keep],
        new.fits[keep], told[keep], edges[keep], node,
    )  # fmt: skip


def _weighed(grow: Grow, s: States, new: New) -> tuple[Floats, Floats, Ints]:
    """Points, sway and told places of the states that come of it."""
    at, level = new.at, new.level
    cost, lean, told = s.cost[new.row].copy(), s.lean[new.row].copy(), s.told[new.row].copy()
    for f in np.unique(new.form):
        me = new.form == f
        form = grow.forms[int(f)]
        for i in (form.item, *form.riders):
            cost[me] += grow.level_cost(i, level[me]) + grow.first[:, i]
            lean[me] += grow.sway[:, i]
            u = grow.of.unit(i)
            if u in grow.told:
                watched = u in grow.watch.units
                place = place_of(grow.of, i, level[me]) if watched else 1 + 64 * (i != u) * (i + 1)
                told[me, grow.told.index(u)] = at[me] + place
        along = (grow.form_kg[f] * at[me] * grow.of.cell)[:, None]
        cost[me] += grow.slope * grow.ax * along
        lean[me] += grow.swing * grow.ay * along
    return cost, lean, told


def _stacked(
    grow: Grow, sky: NDArray[np.int16], carry: Ints, new: New
) -> tuple[NDArray[np.int16], Ints]:
    """The skylines that come of it, and which of their cells carry."""
    w, col = grow.cells[new.form], np.arange(grow.width)
    inside = (col >= new.at[:, None]) & (col < (new.at + w)[:, None])
    sky = np.where(inside, (new.level + grow.top[new.form]).astype(np.int16)[:, None], sky)
    span = ((np.int64(1) << w) - 1) << new.at
    return sky, np.where(grow.carries[new.form], carry | span, carry & ~span)


def _known_by(sky: NDArray[np.int16]) -> Ints:
    """A number that equal skylines share, and others hardly ever."""
    odd = np.random.default_rng(1).integers(1, 2**61, sky.shape[1], dtype=np.int64) | 1
    with np.errstate(over="ignore"):
        found: Ints = (sky.astype(np.int64) * odd).sum(axis=1)
    return found


def _barred(grow: Grow, told: Ints) -> Bools:
    """Which states have two units so to each other as a bar forbids in every bay."""
    found = np.zeros(len(told), bool)
    for bar in grow.watch.bars:
        if bar.bay >= 0 and grow.nb > 1:
            continue  # forbidden in one bay only: looked at when a strip is put there
        a, b = told[:, grow.told.index(bar.a)], told[:, grow.told.index(bar.b)]
        found |= (a > 0) & (b > 0) & hits(bar, a, b)
    return found


def _lost(grow: Grow, sky: NDArray[np.int16], cross: Ints, cells: Ints) -> Bools:
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
    order, first = grouped(keys, [cost[:, 0]])
    far = cost[order[first]] + np.abs(lean[order[first]] - lean[order])
    beaten = ((far <= cost[order] + 1e-9) | (bits[order] == 0)).all(axis=1)
    beaten &= ((bits[order] & ~bits[order[first]]) == 0).all(axis=1)
    kept: Ints = order[(first == np.arange(len(order))) | ~beaten]
    return kept
