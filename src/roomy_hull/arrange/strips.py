"""Strips: every way to stack a few units between two vertical cuts of a bay, without those that another one beats.

A strip is grown unit by unit over a skyline. A new unit is pushed left against the strip's edge or the right edge of a
unit in it, and down onto what is below; what hangs may also hang at one of its own heights. Levels never fall, at equal
levels offsets rise, so that each arrangement occurs once.
"""

from collections.abc import Callable
from typing import Any

import msgspec
import numpy as np

from roomy_hull.arrange.growing import Grow, Nodes, States, TooLooseError, empty, grown, rows_of
from roomy_hull.arrange.instance import Floats, Instance, Ints
from roomy_hull.arrange.places import Places
from roomy_hull.arrange.tables import grouped
from roomy_hull.arrange.watching import Watch, codes, hits

MOST_STATES = 25_000
"""With more unfinished ways after four units, five are not tried."""


A_STATE = 6
"""So many times as many ways are looked at before twins are left out."""
HARD_STATES = 90_000
"""More than so many unfinished ways are thinned to the cheapest, and the list is then no longer complete."""


class Strips(msgspec.Struct, eq=False):
    """Strips as arrays of one row each.

    Attributes:
        mask, cells: Its units as bits, its width. [cells]
        has, offset, level: Which items it has, the cell of each from its start, and its height. [1, cells, mm]
        cost: Points of its heights in each bay.
        kg, moment: Mass, and Σ kg · offset. [kg, kg·mm]
        fits: In which cells of each bay it may begin, as bits.
        most: How many units a strip may have.
        states: Ways that were followed.
        complete: Whether nothing was left out.
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
        """How many there are."""
        return len(self.mask)

    def members(self, k: int) -> list[tuple[int, int, int]]:
        """The items of a strip, as (item, cells from its start, height)."""
        return [
            (int(i), int(self.offset[k, i]), int(self.level[k, i]))
            for i in np.nonzero(self.has[k])[0]
        ]


def list_strips(
    instance: Instance, places: Places, most: int = 4, watch: Watch | None = None,
    alive: Callable[[], bool] = lambda: True, *, thin: bool = True,
    named: frozenset[int] = frozenset(), hard: int = HARD_STATES,
) -> Strips:  # fmt: skip
    """List the strips of an instance.

    Args:
        watch: Units whose exact place matters, and what may not stand so in one bay.
        alive: Asked now and then; False ends the search with what there is.
        named: Units that a rule names, so that they are not the same as others that are like them.
        thin: Whether too many are thinned to the promising ones; else none come back.
    Returns: All that no other one beats whatever stands beside it.
    """
    watch = watch or Watch()
    grow = Grow(instance, places, watch, named | set(watch.units))
    state, nodes = empty(grow), Nodes()
    done: list[tuple[Any, ...]] = []
    reached, complete = 0, True
    for size in range(1, most + 1):
        if not alive():
            complete = False
            break
        try:
            after = grown(
                grow, state, nodes, alive, last=size == most, most=0 if thin else A_STATE * hard
            )
        except TooLooseError:
            complete = False
            done.clear()
            break
        if after is None:
            complete &= alive()
            break
        state = after
        reached = size
        if len(state.mask) > hard:
            complete = False
            if not thin:
                done.clear()
                break
            state = rows_of(state, _promising(state, grow.of.count, hard))
        closed = state.cross == (np.int64(1) << state.cells) - 2
        done.append(
            tuple(
                getattr(state, f)[closed] for f in ("mask", "cells", "cost", "lean", "fits", "node")
            )
        )
        if size == most or (size >= 4 and len(state.mask) > MOST_STATES):
            break
    return _listed(grow, nodes, done, max(reached, 1), complete)


def _promising(state: States, units: int, most: int) -> Ints:
    """Of too many states those that are cheap for the units they have."""
    has = (state.mask[:, None] >> np.arange(units)) & 1 > 0
    usual = np.array([
        state.cost[has[:, n], 0].mean() if has[:, n].any() else 0.0 for n in range(units)
    ])
    dear = state.cost[:, 0] - (has @ usual) / np.maximum(1, has.sum(axis=1))
    found: Ints = np.argpartition(dear, most)[:most]
    return found


def _listed(
    grow: Grow, nodes: Nodes, done: list[tuple[Any, ...]], most: int, complete: bool
) -> Strips:
    """Gather the finished strips, and leave out those that another of the same units beats."""
    if not done or not sum(len(d[0]) for d in done):
        zero = np.zeros(0, np.int64)
        rows = np.zeros((0, grow.n))
        return Strips(zero, zero, rows, rows, rows.astype(np.int64), np.zeros((0, grow.nb)), np.zeros(0), np.zeros(0),
                      np.zeros((0, grow.nb), np.int64), most, nodes.count, complete)  # fmt: skip
    mask, cells, cost, lean, fits, node = (np.concatenate(x) for x in zip(*done, strict=True))
    members = _members(grow, nodes, node)
    ends = np.array([b.cells for b in grow.of.bays]) - cells[:, None] + 1
    fits &= (np.int64(1) << np.maximum(ends, 0)) - 1
    for bar in grow.watch.bars:
        if bar.bay >= 0:
            a, b = (codes(grow.of, *members, i) for i in (bar.a, bar.b))
            fits[(a > 0) & (b > 0) & hits(bar, a, b), bar.bay] = 0
    keep = _undominated(grow, (mask, cells, cost, fits), members, lean)
    has, off, lev = members[0][keep], members[1][keep], members[2][keep]
    # Heights only: what the place along the wall costs is added where the place is known.
    heights = np.zeros((len(keep), grow.nb))
    for i in range(grow.n):
        me = has[:, i] > 0
        heights[me] += grow.level_cost(i, lev[me, i])
    moment = (has * off) @ grow.kg * grow.of.cell
    return Strips(
        mask[keep], cells[keep], has, off, lev, heights, has @ grow.kg, moment, fits[keep], most, nodes.count, complete,
    )  # fmt: skip


def _members(grow: Grow, nodes: Nodes, node: Ints) -> tuple[Floats, Floats, Ints]:
    """Which items some states have, at which offsets and heights: three tables of a column an item."""
    parent, form, offset, level = nodes.arrays()
    has = np.zeros((len(node), grow.n))
    off, lev = has.copy(), has.astype(np.int64)
    many = 1 + max((len(f.riders) for f in grow.forms), default=0)
    items = np.full((len(grow.forms), many), -1)
    for n, f in enumerate(grow.forms):
        items[n, : 1 + len(f.riders)] = (f.item, *f.riders)
    here = node.copy()
    while (here >= 0).any():
        a = np.nonzero(here >= 0)[0]
        x = here[a]
        for k in range(many):
            column = items[form[x], k]
            some = column >= 0
            has[a[some], column[some]] = 1
            off[a[some], column[some]], lev[a[some], column[some]] = offset[x][some], level[x][some]
        here[a] = parent[x]
    return has, off, lev


def _pulls(grow: Grow) -> tuple[Floats, set[int]]:
    """What runs to other strips may cost an item for each cell that it is shifted, and the units that have any."""
    points = grow.of.weights.points()
    by_unit = np.zeros(grow.of.count)
    rows = [(i, r.weight) for r in grow.of.runs for i in (r.a, r.b)]
    rows += [(t.a, t.weight) for t in grow.of.ties]
    for i, weight in rows:
        by_unit[i] += weight * points["runs"] / 1000 * grow.of.cell
    return by_unit[[grow.of.unit(i) for i in range(grow.n)]], {i for i, _ in rows}


def _undominated(
    grow: Grow, strips: tuple[Ints, Ints, Floats, Ints], members: tuple[Floats, Floats, Ints],
    lean: Floats,
) -> Ints:  # fmt: skip
    """Which strips no other one of the same units beats, whatever runs, balance or rules there are."""
    (mask, cells, cost, fits), (has, off, lev) = strips, members
    pulls, joined = _pulls(grow)
    # These have to be the same: watched units' places, and whether what is joined rides behind something.
    same: list[Any] = [codes(grow.of, has, off, lev, u) for u in grow.watch.units]
    same += [has[:, i] for i in range(grow.of.count, grow.n) if grow.of.unit(i) in joined]
    at = (off * pulls)[:, pulls > 0]
    order, first = grouped([mask], [cells, cost[:, 0]])
    left = np.arange(len(order))

    def beats(b: Ints, a: Ints) -> Any:
        wins = (cells[b] <= cells[a]) & ((fits[a] & ~fits[b]) == 0).all(axis=1)
        for code in same:
            wins &= code[b] == code[a]
        extra = np.abs(at[b] - at[a]).sum(axis=1)[:, None] + np.abs(lean[b] - lean[a])
        return wins & ((cost[b] + extra <= cost[a] + 1e-6) | (fits[a] == 0)).all(axis=1)

    alive = np.ones(len(order), bool)
    for n in range(len(order)):
        # Each against the n-th of its group, which nothing before it beats.
        left = left[alive[left] & (first[left] + n < left)]
        if not len(left):
            break
        ok = alive[first[left] + n]
        one, other = left[ok], first[left][ok] + n
        alive[one[beats(order[other], order[one])]] = False
    kept: Ints = np.sort(order[alive])
    return kept
