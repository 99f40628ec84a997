"""Master: the linear programme over strips in places, and a bound that holds for any prices."""

from collections import Counter
from collections.abc import Callable
from typing import Any

import msgspec
import numpy as np

from roomy_hull.arrange import solver
from roomy_hull.arrange.instance import Floats, Instance
from roomy_hull.arrange.sets import Sets, alike
from roomy_hull.arrange.strips import Strips

MISSING = 1000.0
"""What a unit that is left out costs in the programme. [points]"""
A_ROUND, A_CELL, A_STRIP = 400, 10, 4
"""So many places are added at most per bay and round, in one cell, and of one strip."""
WIDEST = 24
"""Wider stretches of free wall are not told apart. [cells of 50 mm]"""


class Prices(msgspec.Struct, eq=False):
    """Prices of the programme's rows, made such that the bound holds whatever they are.

    `cover` a unit's (of those that are alike the first one's), `cells` a cell's in each bay, `lean` the two of the balance,
    `room` that of the free wall (0 or less), `runs` four for each run: x and y, both ways.
    """

    cover: Floats
    cells: list[Floats]
    lean: tuple[float, float]
    room: float
    runs: Floats


class Bound(msgspec.Struct, eq=False):
    """What some prices prove.

    Attributes:
        value: No layout built of the strips is worth less. [points]
        reduced: By bay, what a strip at a cell costs more than its prices pay; infinite where it cannot be.
        idle: By bay, what leaving some cells free from a cell on costs: [from, how many].
        after: By bay, the least that can still come from a cell on.
    """

    value: float
    reduced: list[Floats]
    idle: list[Floats]
    after: list[Floats]


class Master:
    """The linear programme of an instance.

    Args:
        strips: Its strips.
        named: Units that a rule names, as the strips were listed with.
    """

    def __init__(
        self, instance: Instance, strips: Strips, named: frozenset[int] = frozenset()
    ) -> None:
        self.of, self.strips = instance, strips
        self.sets = Sets(instance, alike(instance, named))
        points = self.points = instance.weights.points()
        self.bays = [b.cells for b in instance.bays]
        self.unit = np.array([instance.unit(i) for i in range(len(instance.items))])
        # Units that are alike share the row, and the price, of the first of them.
        self.row = self.sets.first[self.unit]
        self.many = np.zeros(instance.count)
        for group in self.sets.groups:
            self.many[group[0]] = len(group)
        self.set = strips.has.astype(np.int64) @ self.sets.one[self.unit]
        n, kg = len(instance.items), np.array([i.kg for i in instance.items])
        cell, shift = instance.cell, np.array([i.shift for i in instance.items])
        self.x0, self.y0 = np.zeros((len(self.bays), n)), np.zeros((len(self.bays), n))
        for b, bay in enumerate(instance.bays):
            for i, item in enumerate(instance.items):
                spot = item.spots[b]
                if spot is not None:
                    self.x0[b, i] = spot.x + bay.along[0] * (bay.origin + shift[i])
                    self.y0[b, i] = spot.y + bay.along[1] * (bay.origin + shift[i])
        axle = points["axle"] * instance.per_x
        ax, ay = (np.array([b.along[k] for b in instance.bays]) for k in (0, 1))
        has = strips.has
        # By bay: cost and lean of a strip at cell 0, and what each cell further adds.
        weighed = has * kg
        self.cost = strips.cost + axle * (
            weighed @ (self.x0 - instance.x_from).T + strips.moment[:, None] * ax
        )
        self.slope = axle * strips.kg[:, None] * ax * cell
        self.lean = instance.per_y * (weighed @ self.y0.T + strips.moment[:, None] * ay)
        self.tilt = instance.per_y * strips.kg[:, None] * ay * cell
        self.may = [_cells(strips.fits[:, b], size) for b, size in enumerate(self.bays)]
        # What leads to things that stay does not grow evenly along the bay.
        self.ties = [self._ties(b, size) for b, size in enumerate(self.bays)]
        self._starts = np.concatenate([[0], np.cumsum(self.bays)]) + instance.count
        self._row_lean = int(self._starts[-1])
        self._row_room = self._row_lean + 2
        self._row_runs = self._row_room + 1
        self._have: set[tuple[int, int, int]] = set()
        self._lp: Any = None

    def _ties(self, bay: int, size: int) -> Floats:
        """Points of runs to things that stay, of each strip at each cell."""
        found = np.zeros((len(self.strips), size if self.of.ties else 1))
        (ax, ay), at = self.of.bays[bay].along, np.arange(size)
        for tie, i in ((t, i) for t in self.of.ties for i in np.nonzero(self.unit == t.a)[0]):
            has = np.nonzero(self.strips.has[:, i] > 0)[0]
            u = (self.strips.offset[has, i][:, None] + at) * self.of.cell
            away = np.abs(self.x0[bay, i] + ax * u - tie.x)
            away += np.abs(self.y0[bay, i] + ay * u - tie.y)
            found[has] += self.points["runs"] * tie.weight * away / 1000
        return found

    def price(self, k: Any, bay: int, p: Any) -> Any:
        """Points of strips at a cell each, balance, runs between units and free wall left out. [points]"""
        ties = self.ties[bay][k, p] if self.of.ties else 0.0
        return self.cost[k, bay] + self.slope[k, bay] * p + ties

    def solve(self, alive: Callable[[float], bool] = lambda _bound: True) -> tuple[Bound, bool]:
        """Solve the programme by adding the places that would help, until none does.

        Args:
            alive: Takes the bound after each round; False ends it there.
        Returns: The best bound found, and whether every unit finds its place in the programme.
        """
        self._begin()
        best: Bound | None = None
        while True:
            self._lp.run()
            solution = self._lp.getSolution()
            prices = self._prices(np.array(solution.row_dual))
            bound = self.bound(prices)
            if best is None or bound.value > best.value:
                best = bound
            before = len(self._have)
            going = alive(best.value)
            if going:
                for b in range(len(self.bays)):
                    self._add_best(b, bound.reduced[b])
            if not going or len(self._have) == before:
                missing = sum(list(solution.col_value)[: self.of.count])
                return best, bool(missing <= 1e-6)

    def _begin(self) -> None:
        """Write the rows, and the columns that are always there: what is missing, balance, runs, free wall."""
        n, inf = self.of.count, float("inf")
        self._lp = solver.silent()
        base = self.of.lean
        rows = [(float(m), float(m)) for m in self.many] + [(-inf, 1.0)] * sum(self.bays)
        rows += [(base, inf), (-base, inf), (-inf, 1.0)] + [(0.0, inf)] * (4 * len(self.of.runs))
        for low, high in rows:
            solver.row(self._lp, low, high)
        for i in range(n):
            self._column(MISSING if self.many[i] else 0.0, [i], [1.0])
        r = self._row_lean
        self._column(self.points["balance"], [r, r + 1], [1.0, 1.0])
        for e, run in enumerate(self.of.runs):
            for k in (0, 2):
                at = self._row_runs + 4 * e + k
                self._column(self.points["runs"] * run.weight, [at, at + 1], [1.0, 1.0])
        for b, size in enumerate(self.bays):
            start = int(self._starts[b])
            for wide in range(1, min(size, self._widest()) + 1):
                for p in range(size - wide + 1):
                    rows_ = [self._row_room, *range(start + p, start + p + wide)]
                    self._column(
                        -self.points["room"] * wide * self.of.cell, rows_, [1.0] * len(rows_)
                    )
        for b in range(len(self.bays)):
            self._first(b)

    def _widest(self) -> int:
        """Wider free wall than this is not told apart in the programme; the bound looks at all. [cells]"""
        return max(1, int(WIDEST * 50 / self.of.cell))

    def _first(self, bay: int) -> None:
        """A few cheap strips for every unit, here and there in a bay."""
        for i in range(self.of.count):
            have = np.nonzero((self.strips.has[:, i] > 0) & (self.strips.fits[:, bay] != 0))[0]
            many = self.strips.has[have].sum(axis=1)
            for k in have[np.argsort(self.cost[have, bay] / many - 30 * many, kind="stable")[:4]]:
                free = np.nonzero(self.may[bay][k])[0]
                for p in free[:: max(1, len(free) // 3)]:
                    self._add(int(k), bay, int(p))

    def _column(self, cost: float, rows: list[int], values: list[float]) -> None:
        solver.column(self._lp, cost, rows, values)

    def _add(self, k: int, bay: int, p: int) -> None:
        """Write the column of a strip at a cell."""
        if (k, bay, p) in self._have:
            return
        self._have.add((k, bay, p))
        members = self.strips.members(k)
        start = int(self._starts[bay]) + p
        units = Counter(int(self.row[i]) for i, _, _ in members)
        cells = range(start, start + int(self.strips.cells[k]))
        rows = [*units, *cells]
        values = [*map(float, units.values()), *(1.0 for _ in cells)]
        lean = float(self.lean[k, bay] + self.tilt[k, bay] * p)
        rows += [self._row_lean, self._row_lean + 1]
        values += [-lean, lean]
        ax, ay = self.of.bays[bay].along
        where = {
            self.of.unit(i): (
                (self.x0[bay, i] + ax * (p + o) * self.of.cell) / 1000,
                (self.y0[bay, i] + ay * (p + o) * self.of.cell) / 1000,
            )
            for i, o, _ in members
        }
        for e, run in enumerate(self.of.runs):
            if run.a in where or run.b in where:
                a, b = where.get(run.a, (0.0, 0.0)), where.get(run.b, (0.0, 0.0))
                for d in (0, 1):
                    at = self._row_runs + 4 * e + 2 * d
                    rows += [at, at + 1]
                    values += [b[d] - a[d], a[d] - b[d]]
        self._column(float(self.price(k, bay, p)), rows, values)

    def _add_best(self, bay: int, reduced: Floats) -> None:
        """Add the places of a bay that help most, not too many in one cell or of one strip."""
        flat = reduced.ravel()
        if not len(flat):
            return
        few = min(A_ROUND, len(flat))
        best = np.argpartition(flat, few - 1)[:few]
        best = best[flat[best] < -1e-6]
        in_cell: dict[int, int] = {}
        of_strip: dict[int, int] = {}
        for x in best[np.argsort(flat[best], kind="stable")]:
            k, p = divmod(int(x), reduced.shape[1])
            if in_cell.get(p, 0) < A_CELL and of_strip.get(k, 0) < A_STRIP:
                self._add(k, bay, p)
                in_cell[p], of_strip[k] = in_cell.get(p, 0) + 1, of_strip.get(k, 0) + 1

    def _prices(self, duals: Floats) -> Prices:
        """The solver's prices, corrected where tolerance left them out of their bounds."""
        n = self.of.count
        r = self._row_lean
        lean = np.maximum(0.0, duals[r : r + 2])
        lean *= min(1.0, self.points["balance"] / max(float(lean.sum()), 1e-12))
        runs = np.maximum(0.0, duals[self._row_runs :]).reshape(-1, 2)
        pays = np.repeat([self.points["runs"] * run.weight for run in self.of.runs], 2)
        if len(runs):
            runs *= np.minimum(1.0, pays / np.maximum(runs.sum(axis=1), 1e-12))[:, None]
        cells = [duals[self._starts[b] : self._starts[b + 1]] for b in range(len(self.bays))]
        return Prices(
            duals[:n],
            cells,
            (float(lean[0]), float(lean[1])),
            min(0.0, float(duals[self._row_room])),
            runs.reshape(-1, 4),
        )

    def bound(self, prices: Prices) -> Bound:
        """What some prices prove, computed without the solver.

        Returns: The prices' sum and the cheapest sequence of strips and gaps in every bay.
        """
        reduced, idle, after = [], [], []
        pulls = self._pulls(prices)
        for b, size in enumerate(self.bays):
            paid = np.concatenate([[0.0], np.cumsum(prices.cells[b])])
            rc = self._reduced(b, prices, pulls, paid)
            gaps = self._gaps(size, paid, prices.room)
            reduced.append(rc)
            idle.append(gaps)
            after.append(self._after(size, rc, gaps))
        total = prices.cover @ self.many + sum(c.sum() for c in prices.cells) + prices.room
        total += self.of.lean * (prices.lean[0] - prices.lean[1]) + sum(a[0] for a in after)
        return Bound(float(total), reduced, idle, after)

    def _pulls(self, prices: Prices) -> tuple[Floats, Floats]:
        """What a millimetre along x and y costs each item by the prices of its runs. [points/mm]"""
        gx, gy = np.zeros(self.of.count), np.zeros(self.of.count)
        for e, run in enumerate(self.of.runs):
            a, b, c, d = prices.runs[e]
            # Rows d - (a - b) ≥ 0 and d + (a - b) ≥ 0, in metres.
            gx[[run.a, run.b]] += np.array([-1.0, 1.0]) * (a - b) / 1000
            gy[[run.a, run.b]] += np.array([-1.0, 1.0]) * (c - d) / 1000
        return gx[self.unit], gy[self.unit]

    def _reduced(
        self, b: int, prices: Prices, pulls: tuple[Floats, Floats], paid: Floats
    ) -> Floats:
        """What every strip at every cell of a bay costs more than the prices pay."""
        strips, cell, size = self.strips, self.of.cell, self.bays[b]
        (ax, ay), (gx, gy) = self.of.bays[b].along, pulls
        swing = prices.lean[1] - prices.lean[0]
        g = ax * gx + ay * gy
        first = self.cost[:, b] - strips.has @ (
            prices.cover[self.row] + gx * self.x0[b] + gy * self.y0[b]
        )
        first -= swing * self.lean[:, b] + cell * ((strips.has * strips.offset) @ g)
        step = self.slope[:, b] - swing * self.tilt[:, b] - cell * (strips.has @ g)
        at = np.arange(size)
        rc = first[:, None] + step[:, None] * at + self.ties[b]
        rc -= paid[np.minimum(at + strips.cells[:, None], size)] - paid[at]
        rc[~self.may[b]] = np.inf
        found: Floats = rc
        return found

    def _gaps(self, size: int, paid: Floats, room: float) -> Floats:
        """What leaving cells free costs, from each cell on and of each width."""
        found = np.full((size + 1, size + 1), np.inf)
        for p in range(size + 1):
            wide = np.arange(size - p + 1)
            free = -self.points["room"] * wide * self.of.cell - room
            free[0] = 0.0
            found[p, : size - p + 1] = paid[p] - paid[p:] + np.minimum(0.0, free)
        return found

    def _after(self, size: int, reduced: Floats, gaps: Floats) -> Floats:
        """The least that can come from each cell on: strips and gaps to the end."""
        widths = np.unique(self.strips.cells)
        least = np.full((len(widths), size), np.inf)
        for w, wide in enumerate(widths):
            least[w] = reduced[self.strips.cells == wide].min(axis=0)
        after, here = np.full(size + 1, np.inf), np.full(size + 1, np.inf)
        for p in range(size, -1, -1):
            fits = widths + p <= size
            if p < size and fits.any():
                here[p] = (least[fits, p] + after[p + widths[fits]]).min()
            after[p] = gaps[p, size - p]
            if p < size:
                after[p] = min(after[p], float((gaps[p, : size - p] + here[p:size]).min()))
        return after


def _cells(bits: Any, size: int) -> Any:
    """Bits as a table: rows of bits, one column a cell."""
    return (bits[:, None] >> np.arange(size)) & 1 > 0
