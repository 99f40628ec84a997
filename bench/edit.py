"""How long one move takes, from the new job value to the complete new verdict."""

import json
import random
import statistics
import sys
from typing import Any

from jobs import crowded
from pace import paced
from reference import judge as reference
from roomy_hull.assembly.assemble import assemble
from roomy_hull.assembly.study import Before, Case
from roomy_hull.job.edits import units as edits
from roomy_hull.studies.fit import closed
from roomy_hull.studies.loads import axles
from roomy_hull.verdict.verdict import judge


def moves(units: int, count: int) -> list[float]:
    """Time moves of random units by a pitch, forth and back. [ms]"""
    job = crowded(units)
    verdict = judge(job)
    chance = random.Random(7)
    times: list[float] = []
    for n in range(count):
        unit = chance.choice(job.units)
        step = 25.0 if n % 2 else -25.0
        with paced(times):
            job = edits.changed(job, unit.id, u=unit.u + step)
            verdict = judge(job, verdict)
    return times


def same_studies(units: int, count: int) -> list[float]:
    """Time what the reference judges too, closed fit and axles, with the memory of the move before. [ms of processor]"""
    job = crowded(units)
    case = Case(assemble(job), {}, None)
    chance = random.Random(7)
    times: list[float] = []
    for n in range(count + 1):
        unit = chance.choice(job.units)
        with paced(times):
            if n:
                job = edits.changed(job, unit.id, u=unit.u + (25.0 if n % 2 else -25.0))
            known = Before(case.assembly, case.results) if n else None
            case = Case(assemble(job, case.assembly), {}, known)
            case.results[closed.KEY] = closed.study(case)
            case.results[axles.KEY] = axles.study(case)
    return times[1:]


def whole(units: int) -> float:
    """The median time of a whole verdict from nothing. [ms of processor]"""
    job = crowded(units)
    times: list[float] = []
    for _ in range(3):
        with paced(times):
            judge(job)
    return statistics.median(times)


def p95(times: list[float]) -> float:
    """The 95th percentile."""
    return statistics.quantiles(times, n=20)[-1]


def main() -> None:
    """Print the figures as JSON."""
    found: dict[str, Any] = {"growth": {}}
    for units in (15, 60, 150, 300):
        times = moves(units, 400)
        found["growth"][units] = {"median": statistics.median(times), "p95": p95(times)}
    job = crowded(60)
    plain: list[float] = []
    for _ in range(5):
        with paced(plain):
            reference(job)
    found["reference_60"] = statistics.median(plain)
    found["same_60"] = statistics.median(same_studies(60, 200))
    found["ratio_60"] = found["reference_60"] / found["same_60"]
    found["whole"] = {units: whole(units) for units in (300, 1000)}
    json.dump(found, sys.stdout)


if __name__ == "__main__":
    main()
