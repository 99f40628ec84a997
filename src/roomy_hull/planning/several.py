"""Several jobs of one workshop on its people and stations: one plan for all of them."""

from collections.abc import Mapping
from datetime import date
from typing import NamedTuple

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.errors import InputError
from roomy_hull.planning.calendar import Calendar, calendar_of
from roomy_hull.planning.levelling import Levelled, Problem, Step
from roomy_hull.planning.placing import Task
from roomy_hull.planning.plan import Build, Todo, due_minute, means_of, tasks_of
from roomy_hull.shop.workshop import Workshop


class Together(NamedTuple):
    """Jobs on one calendar.

    Attributes:
        calendar: Working minutes from the first of their days.
        problem: Their operations, each behind its job's key and a slash.
        levelled: Them, within people and stations.
    """

    calendar: Calendar
    problem: Problem
    levelled: Levelled

    def end(self, job: str) -> date | None:
        """The day on which a job is ended; none where nothing of it is left to do."""
        ends = [
            p.finish for k, p in self.levelled.placed.items() if self.problem.tasks[k].job == job
        ]
        return self.calendar.at(max(ends), ends=True).day if ends else None

    def late(self, job: str) -> float:
        """By how many working days a job is late; 0 where it is not. [days]"""
        due = self.problem.due.get(job)
        ends = [
            p.finish for k, p in self.levelled.placed.items() if self.problem.tasks[k].job == job
        ]
        return (
            max(0.0, (max(ends) - due) / self.calendar.day_minutes)
            if ends and due is not None
            else 0.0
        )

    def held_up_by(self, job: str) -> dict[str, float]:
        """By which other jobs somebody or a station was taken, on the way to a job's end. [working days]"""
        placed, tasks = self.levelled.placed, self.problem.tasks
        own = [k for k in placed if tasks[k].job == job]
        found: dict[str, float] = {}
        key = max(own, key=lambda k: placed[k].finish, default="")
        seen: set[str] = set()
        while key in placed and key not in seen:
            seen.add(key)
            one, cause = placed[key], placed[key].cause
            other = tasks[cause.op].job if cause.op in tasks else job
            if tasks[key].job == job and other != job:
                ready = max([placed[k].finish for k in tasks[key].after] + [tasks[key].begins])
                found[other] = (
                    found.get(other, 0.0) + (one.start - ready) / self.calendar.day_minutes
                )
            key = cause.op
        return found


def together(
    jobs: Mapping[str, tuple[Assembly, Build]], shop: Workshop, rounds: int = 0, step: Step | None = None,
    seconds: float = 0.0,
) -> Together | None:  # fmt: skip
    """Plan several jobs.

    Args:
        jobs: By a key of each; those that cannot be planned by themselves are left out.
        step: Told how far it is; False ends it.
        seconds: When it ends in any case; 0 for no limit. [s]
    Returns: None where nothing is planned.
    Raises:
        InputError: The shop lacks somebody.
    """
    some = {k: v for k, v in jobs.items() if v[1].tasks and not v[1].trouble}
    if not some:
        return None
    calendar = calendar_of(min(b.now for _a, b in some.values()), shop)
    tasks: dict[str, Task] = {}
    due: dict[str, int] = {}
    rank: dict[str, int] = {}
    for key, (assembly, build) in some.items():
        plan = assembly.job.plan
        tasks |= tasks_of(
            Todo(build.ops, build.hours, plan, build.state, build.buying),
            shop,
            calendar,
            build.now,
            key,
        )
        at = due_minute(plan, calendar)
        if at is not None:
            due[key] = at
        rank[key] = plan.rank
    try:
        problem = Problem(tasks, means_of(shop, calendar), due, rank)
    except InputError as trouble:
        raise InputError(trouble.what, "the workshop", trouble.remedy) from None
    return Together(calendar, problem, problem.level(rounds, step, seconds))
