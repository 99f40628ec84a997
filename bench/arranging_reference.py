"""The reference for arranging: units as optional rectangles of every bay in a constraint solver, any layout whatever."""

import math
from typing import Any, NamedTuple

from ortools.sat.python import cp_model

from roomy_hull.arrange.instance import At, Instance, Layout, ceiling

SCALE = 1000
"""Points as whole numbers."""


class Solved(NamedTuple):
    """What the solver came to: its status, points of its layout and of its bound, the layout."""

    status: str
    points: float
    bound: float
    layout: Layout | None


def solve(
    instance: Instance, seconds: float, workers: int = 2, start: Layout | None = None
) -> Solved:
    """Place everything anywhere, not in stacks only; nothing stands behind anything.

    Args:
        instance: Whose bays have no obstacles; units of one width all along.
        seconds: How long it may take. [s]
        workers: Threads.
        start: A layout to begin with.
    Returns: Points in the instance's own measure; infinite where there is none.
    """
    m = _Model(instance)
    if start is not None:
        for n, at in enumerate(start):
            m.model.add_hint(m.at[n], at.cell)
            m.model.add_hint(m.level[n], at.level)
            for b, inside in m.inside[n].items():
                m.model.add_hint(inside, int(b == at.bay))
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.num_workers = workers
    solver.parameters.random_seed = 1
    status = solver.solve(m.model)
    word = solver.status_name(status)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return Solved(word, math.inf, solver.best_objective_bound / SCALE, None)
    layout = tuple(
        At(
            next(b for b, x in m.inside[n].items() if solver.value(x)),
            solver.value(m.at[n]),
            solver.value(m.level[n]),
        )
        for n in range(instance.count)
    )
    return Solved(word, solver.objective_value / SCALE, solver.best_objective_bound / SCALE, layout)


class _Model:
    """The model: where each unit is, what may not overlap, what rests on what, and what all of it costs."""

    def __init__(self, instance: Instance) -> None:
        self.of, self.model = instance, cp_model.CpModel()
        model, n = self.model, instance.count
        longest = max(b.cells for b in instance.bays)
        tallest = int(max(b.height for b in instance.bays))
        self.at = [
            model.new_int_var(0, longest - instance.items[i].cells, f"at{i}") for i in range(n)
        ]
        self.level = [model.new_int_var(0, tallest, f"level{i}") for i in range(n)]
        self.inside: list[dict[int, Any]] = []
        across: dict[int, list[Any]] = {b: [] for b in range(len(instance.bays))}
        upward: dict[int, list[Any]] = {b: [] for b in range(len(instance.bays))}
        for i in range(n):
            item = instance.items[i]
            bays = {
                b: model.new_bool_var(f"in{i}.{b}")
                for b, s in enumerate(item.spots)
                if s is not None
            }
            model.add_exactly_one(bays.values())
            self.inside.append(bays)
            for b, here in bays.items():
                room = instance.bays[b]
                spot = instance.spot(i, b)
                end = int((spot.free.room[2] if spot.free.room else 0.0) // instance.cell + 1e-9)
                model.add(self.at[i] <= min(end, room.cells - item.cells)).only_enforce_if(here)
                model.add(
                    self.level[i] + math.ceil(item.height) <= int(room.height)
                ).only_enforce_if(here)
                across[b].append(
                    model.new_optional_fixed_size_interval_var(
                        self.at[i], item.cells, here, f"x{i}.{b}"
                    )
                )
                upward[b].append(
                    model.new_optional_fixed_size_interval_var(
                        self.level[i], ceiling(item), here, f"y{i}.{b}"
                    )
                )
        self.gap = self._free_wall(across, upward, longest, tallest)
        for b, some in across.items():
            model.add_no_overlap_2d(some, upward[b])
        for i in range(n):
            self._stands(i)
        for apart in instance.aparts:
            self._apart(apart.a, apart.b, apart.gap)
        self._cost()

    def _free_wall(self, across: Any, upward: Any, longest: int, tallest: int) -> Any:
        """One stretch of free wall, from floor to roof, in one bay."""
        model = self.model
        size, start = model.new_int_var(0, longest, "gap"), model.new_int_var(0, longest, "from")
        where = {b: model.new_bool_var(f"gap.{b}") for b in across}
        model.add_at_most_one(where.values())
        end = model.new_int_var(0, longest, "to")
        model.add(end == start + size)
        for b, here in where.items():
            model.add(end <= self.of.bays[b].cells).only_enforce_if(here)
            across[b].append(model.new_optional_interval_var(start, size, end, here, f"gx{b}"))
            upward[b].append(
                model.new_optional_fixed_size_interval_var(0, tallest + 200, here, f"gy{b}")
            )
        none = model.new_bool_var("no gap")
        model.add_bool_or([*where.values(), none])
        model.add(size == 0).only_enforce_if(none)
        return size

    def _stands(self, i: int) -> None:
        """What does not hang is on the floor, or on carriers under both its ends."""
        model, items = self.model, self.of.items
        item = items[i]
        if item.stance == "hang":
            return
        floor = model.new_bool_var(f"floor{i}")
        model.add(self.level[i] == 0).only_enforce_if(floor)
        if item.stance == "floor":
            model.add(floor == 1)
            return
        for end in (0, item.cells - 1):
            rows = [floor]
            for j in range(self.of.count):
                if j == i or not items[j].carries:
                    continue
                on = model.new_bool_var(f"on{i}.{j}.{end}")
                model.add(self.level[i] == self.level[j] + ceiling(items[j])).only_enforce_if(on)
                model.add(self.at[j] <= self.at[i] + end).only_enforce_if(on)
                model.add(self.at[i] + end < self.at[j] + items[j].cells).only_enforce_if(on)
                for b, here in self.inside[i].items():
                    other = self.inside[j].get(b)
                    if other is None:
                        model.add_implication(on, here.negated())
                    else:
                        model.add(other == 1).only_enforce_if([on, here])
                rows.append(on)
            model.add_bool_or(rows)

    def _apart(self, a: int, b: int, gap: float) -> None:
        """Two units leave so much wall between them where they share a bay."""
        model, items, cell = self.model, self.of.items, int(self.of.cell)
        p, q = items[a], items[b]
        after, before = model.new_bool_var(f"after{a}.{b}"), model.new_bool_var(f"before{a}.{b}")
        far = math.ceil(gap)
        model.add(
            self.at[b] * cell - self.at[a] * cell >= far + math.ceil(p.width)
        ).only_enforce_if(after)
        model.add(
            self.at[a] * cell - self.at[b] * cell >= far + math.ceil(q.width)
        ).only_enforce_if(before)
        for bay, here in self.inside[a].items():
            if bay in self.inside[b]:
                model.add_bool_or([after, before, here.negated(), self.inside[b][bay].negated()])

    def _cost(self) -> None:
        """Points, a thousand to one."""
        model, of = self.model, self.of
        points = of.weights.points()
        terms: list[Any] = []
        lean: list[Any] = [round(of.lean * SCALE)]
        where: list[tuple[Any, Any]] = []
        for i in range(of.count):
            item = of.items[i]
            x, y = (
                model.new_int_var(-10000, 20000, f"x{i}"),
                model.new_int_var(-10000, 20000, f"y{i}"),
            )
            out = model.new_int_var(0, 4000, f"out{i}")
            for b, here in self.inside[i].items():
                spot, (ax, ay) = of.spot(i, b), of.bays[b].along
                model.add(x == round(spot.x) + int(ax * of.cell) * self.at[i]).only_enforce_if(here)
                model.add(y == round(spot.y) + int(ay * of.cell) * self.at[i]).only_enforce_if(here)
                model.add(out >= round(item.band[0] - spot.middle) - self.level[i]).only_enforce_if(
                    here
                )
                model.add(out >= round(spot.middle - item.band[1]) + self.level[i]).only_enforce_if(
                    here
                )
                terms.append(
                    round(points["low"] * item.kg * (spot.z - of.z_from) / 1000 * SCALE) * here
                )
            terms.append(points["low"] * item.kg / 1000 * SCALE * self.level[i])
            terms.append(points["axle"] * item.kg * of.per_x * SCALE * x)
            terms.append(round(-points["axle"] * item.kg * of.per_x * of.x_from * SCALE))
            terms.append(points["reach"] * item.use / 100 * SCALE * out)
            lean.append(round(item.kg * of.per_y * SCALE * 1000) * y)
            where.append((x, y))
        balance = model.new_int_var(0, 10**12, "balance")
        whole = sum(lean[1:]) + lean[0] * 1000
        model.add(balance >= whole)
        model.add(balance >= -whole)
        terms.append(points["balance"] / 1000 * balance)
        for e, run in enumerate(of.runs):
            for k in (0, 1):
                far = model.new_int_var(0, 30000, f"run{e}.{k}")
                model.add(far >= where[run.a][k] - where[run.b][k])
                model.add(far >= where[run.b][k] - where[run.a][k])
                terms.append(points["runs"] * run.weight / 1000 * SCALE * far)
        terms.append(-points["room"] * of.cell * SCALE * self.gap)
        model.minimize(sum(terms))
