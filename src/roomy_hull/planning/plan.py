"""The plan of one job: its operations on people and stations, from the log's last day on, with its bound and its end."""

from collections.abc import Mapping
from datetime import date
from typing import NamedTuple

import msgspec
import numpy as np

from roomy_hull.assembly.study import Context
from roomy_hull.core.days import day_of
from roomy_hull.core.errors import InputError
from roomy_hull.job.plans import Plan
from roomy_hull.making.works import Works, works_of
from roomy_hull.planning import monte_carlo
from roomy_hull.planning.buying import Purchase, purchases
from roomy_hull.planning.calendar import Calendar, When, calendar_of
from roomy_hull.planning.checklist import Check, checks_of
from roomy_hull.planning.levelling import Levelled, Problem
from roomy_hull.planning.network import Times, critical
from roomy_hull.planning.op import KINDS, Op
from roomy_hull.planning.operations import operations_of
from roomy_hull.planning.placing import Means, Task
from roomy_hull.planning.rates import Tuned, tuned
from roomy_hull.planning.replay import State, replayed
from roomy_hull.shop.workshop import Workshop

STILL = 0.1
"""What is begun and has used up its hours still takes this part of them (common practice)."""
FIRST_DAY = date(2000, 1, 3)


class Build(msgspec.Struct, frozen=True, eq=False):
    """Everything of a job's building; each equals only itself.

    Attributes:
        ops: Every operation.
        hours: What each takes by the recalibrated rates, or as fixed by hand. [h]
        rates: How each kind of work turned out so far.
        state: What the log comes to.
        calendar: The shop's working minutes, from the plan's first day.
        now: The day from which the rest is planned: the plan's first, or that of the last entry.
        tasks: What is still to do. [min]
        levelled: It, within people and stations.
        times: Its earliest and latest times without regard to people. [min]
        path: One critical path of it.
        buying: What comes from outside.
        checks: The check sheets.
        due: The minute at which it is due.
        trouble: Why it cannot be planned; empty where it can.
    """

    ops: dict[str, Op]
    hours: dict[str, float]
    rates: dict[str, Tuned]
    state: State
    calendar: Calendar
    now: date
    tasks: dict[str, Task]
    levelled: Levelled
    times: dict[str, Times]
    path: tuple[str, ...]
    buying: tuple[Purchase, ...]
    checks: tuple[Check, ...]
    due: int | None = None
    trouble: str = ""

    def begins(self, key: str) -> When:
        """When an operation that is still to do is begun."""
        return self.calendar.at(self.levelled.placed[key].start)

    def ends(self, key: str) -> When:
        """When it is ended."""
        return self.calendar.at(self.levelled.placed[key].finish, ends=True)

    @property
    def end(self) -> date:
        """The day on which all is ended."""
        return self.calendar.at(self.levelled.end, ends=True).day

    @property
    def worked(self) -> float:
        """Hours logged so far. [h]"""
        return sum(self.state.hours.values())

    def worth(self, key: str) -> float:
        """What an operation takes of all hands together. [h]"""
        return self.hours[key] * self.ops[key].crew

    @property
    def finished(self) -> list[str]:
        """The operations that are done."""
        return [k for k in self.ops if k in self.state.done]

    @property
    def share(self) -> float:
        """The part of all its hours that is done."""
        whole = sum(map(self.worth, self.ops))
        return sum(map(self.worth, self.finished)) / whole if whole else 0.0

    @property
    def left(self) -> float:
        """Hours of work still to do. [h]"""
        return sum(t.minutes * t.crew for t in self.tasks.values() if t.people) / 60


class Todo(NamedTuple):
    """A job's work as it is placed: its operations and their hours, its plan, what is done, what comes from outside."""

    ops: Mapping[str, Op]
    hours: Mapping[str, float]
    plan: Plan
    state: State
    buying: tuple[Purchase, ...]


def build_of(context: Context) -> Build:
    """Plan a job.

    Returns: Where it cannot be planned, its trouble is named and nothing is placed.
    """
    assembly = context.assembly
    plan, shop = assembly.job.plan, assembly.shop.workshop
    works: Works = works_of(assembly)
    ops = operations_of(context, works, shop.coat_days if plan.coated else 0.0)
    state = replayed(assembly.job.log)
    checks = checks_of(context, works)
    ops |= _rework(ops, context, checks, state)
    begin = day_of(plan.begin) or day_of(state.last) or FIRST_DAY
    calendar = calendar_of(begin, shop)
    now = max(begin, day_of(state.last) or begin)
    held = {h.op: h for h in plan.held}
    rates = _rates(ops, state, shop.rate_doubt)
    hours = {
        k: held[k].hours if k in held and held[k].hours else op.hours * rates[op.kind].factor
        for k, op in ops.items()
    }
    buying = purchases(context, works, ops, state, now, shop.lead_days)
    due = due_minute(plan, calendar)
    tasks = tasks_of(Todo(ops, hours, plan, state, buying), shop, calendar, now)
    whole = Build(
        ops, hours, rates, state, calendar, now, tasks, Levelled({}, 0, 0, 0), {}, (), buying, checks, due
    )  # fmt: skip
    before: Build | None = context.old("build")
    if before is not None and _as_before(before, whole, context):
        return msgspec.structs.replace(
            whole, levelled=before.levelled, times=before.times, path=before.path
        )
    try:
        problem = Problem(tasks, means_of(shop, calendar), {"": due} if due is not None else None)
    except InputError as trouble:
        return msgspec.structs.replace(whole, trouble=str(trouble))
    path = critical(problem.times, {k: t.after for k, t in tasks.items()})
    return msgspec.structs.replace(
        whole,
        levelled=problem.level(start=list(plan.order) or None),
        times=problem.times,
        path=path,
    )


def _as_before(before: Build, now: Build, context: Context) -> bool:
    """Whether the very same work was placed on the same people and stations: a unit only moved."""
    old = context.rests_on("build")
    return (
        old is not None
        and old.shop is context.assembly.shop
        and old.job.plan.order == context.assembly.job.plan.order
        and not before.trouble
        and before.calendar is now.calendar
        and before.due == now.due
        and before.tasks == now.tasks
    )


def due_minute(plan: Plan, calendar: Calendar) -> int | None:
    """The working minute at which a job is due; none where no day is said. [min]"""
    day = day_of(plan.due)
    return calendar.end_of(day) if day is not None else None


def means_of(shop: Workshop, calendar: Calendar) -> Means:
    """The shop's people with their absences, and its stations."""
    return Means(
        {w.id: calendar.off(w) for w in shop.people}, {s.id: s.count for s in shop.stations}
    )


def tasks_of(  # ruff: ignore[too-many-locals]  # one loop over all that holds an operation back
    todo: Todo, shop: Workshop, calendar: Calendar, now: date, job: str = ""
) -> dict[str, Task]:
    """What is still to do, as it is placed.

    Args:
        todo: The job's operations, and what is known of them.
        job: Of which job; its keys are put before the operations'.
    Returns: [min]
    """
    ops, hours, plan, state, buying = todo
    first = calendar.minute(now)
    comes = day_of(plan.vehicle_from)
    vehicle = calendar.minute(comes) if comes is not None else 0
    arrives = {p.key: calendar.minute(p.arrives) for p in buying if p.arrives is not None}
    held = {h.op: h for h in plan.held}
    mark = f"{job}/" if job else ""
    found: dict[str, Task] = {}
    hands = {
        trade: tuple(w.id for w in shop.people if trade in w.trades)
        for trade in {op.trade for op in ops.values()}
    }
    stations = {s.id for s in shop.stations}
    for key, op in ops.items():
        if key in state.done:
            continue
        begins = max([first, *(arrives.get(n, 0) for n in op.needs)])
        if op.station == "bay":
            begins = max(begins, vehicle)
        people = hands[op.trade] if op.trade else ()
        own = held.get(key)
        if own is not None:
            on = day_of(own.day)
            begins = max(begins, calendar.minute(on, own.hour) if on is not None else 0)
            if own.person in people:
                people = (own.person,)
        worked = state.hours.get(key, 0.0) / op.crew
        minutes = round(max(hours[key] - worked, hours[key] * STILL) * 60)
        if op.days:
            minutes, people = round(op.days * calendar.day_minutes), ()
        elif op.trade and not people:
            people = (f"anybody for {op.trade}",)
        station = op.station if op.station in stations else ""
        after = tuple(mark + k for k in op.after if k not in state.done)
        found[mark + key] = Task(
            mark + key, max(1, minutes), after, people, min(op.crew, max(1, len(people))), station, begins, job
        )  # fmt: skip
    return found


def _rates(ops: Mapping[str, Op], state: State, uncertainty: float) -> dict[str, Tuned]:
    """Every kind of work as the log has it: finished operations with hours, beside what the rates say."""
    pairs: dict[str, list[tuple[float, float]]] = {kind: [] for kind in KINDS}
    for key in state.done:
        op, got = ops.get(key), state.hours.get(key, 0.0)
        if op is not None and got:
            pairs[op.kind].append((op.hours, got / op.crew))
    return {kind: tuned(rows, uncertainty) for kind, rows in pairs.items()}


def _rework(
    ops: dict[str, Op], context: Context, checks: tuple[Check, ...], state: State
) -> dict[str, Op]:
    """An operation for every check that failed; handing over waits for it."""
    failed = [c for c in checks if state.result(c.key) == "failed"]
    found: dict[str, Op] = {}
    rate, about = context.assembly.shop.workshop.rates.test, KINDS["rework"]
    for check in failed:
        key = f"rework:{check.key}"
        found[key] = Op(
            key, "rework", f"Put right: {check.words}", check.owner, (("test", 1.0),), rate, about.trade, about.station,
        )  # fmt: skip
    before = tuple(found)
    for later in ("job:finish", "job:hand over"):
        own = ops.get(later)
        if before and own is not None:
            found[later] = msgspec.structs.replace(own, after=(*own.after, *before))
    return found


class Chances(NamedTuple):
    """When all is ended: the working minutes of many lives of the plan, in order. [min]"""

    ends: np.ndarray

    def by(self, minute: float) -> float:
        """The chance that it is ended by then."""
        return monte_carlo.by_then(self.ends, minute)

    def ready(self, chance: float) -> int:
        """By when it is ended with a chance. [min]"""
        return monte_carlo.ready(self.ends, chance)


def chances_of(build: Build, shop: Workshop, count: int = monte_carlo.SAMPLES) -> Chances | None:
    """Live the plan many times over; none where nothing is left to do."""
    if not build.levelled.placed:
        return None
    kinds = {
        k: build.ops[k].kind
        for k in build.levelled.placed
        if build.tasks[k].people and k in build.ops
    }
    uncertainties = {kind: t.uncertainty for kind, t in build.rates.items()}
    spread = monte_carlo.Three(shop.fastest, 1.0, shop.slowest)
    found = monte_carlo.ends(
        build.tasks, build.levelled.placed, spread, kinds, uncertainties, count
    )
    return Chances(found[""])
