"""How long a verdict takes after one move, and from nothing: quick, as a hand sees it, and with everything settled."""

import json
import math
import random
import statistics
import subprocess
import sys
from pathlib import Path
from typing import Any

from jobs import crowded, frozen
from pace import paced
from reference import judge as reference
from roomy_hull.assembly.assemble import assemble
from roomy_hull.assembly.study import Before, Context
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.studies.fit import closed
from roomy_hull.studies.loads import axles
from roomy_hull.verdict.verdict import judge

NOTHING = """
import sys
from jobs import crowded, frozen
from pace import paced
from roomy_hull.verdict.verdict import judge
job = crowded(int(sys.argv[1])) if int(sys.argv[1]) else frozen()
times = []
with paced(times):
    judge(job)
print(times[0])
"""


def moves(job: Job, count: int, *, quick: bool) -> list[float]:
    """Time moves of random units by a pitch, forth and back: what a hand waits for, or everything. [ms]"""
    verdict = judge(job)
    chance = random.Random(7)
    times: list[float] = []
    for n in range(count):
        unit = chance.choice(job.units)
        step = 25.0 if n % 2 else -25.0
        with paced(times):
            job = edits.changed(job, unit.id, u=unit.u + step)
            verdict = judge(job, verdict, moving=quick)
    return times


def same_studies(units: int, count: int) -> list[float]:
    """Time what the reference judges too, closed fit and axles, with the memory of the move before. [ms of processor]"""
    job = crowded(units)
    context = Context(assemble(job), {}, None)
    chance = random.Random(7)
    times: list[float] = []
    for n in range(count + 1):
        unit = chance.choice(job.units)
        with paced(times):
            if n:
                job = edits.changed(job, unit.id, u=unit.u + (25.0 if n % 2 else -25.0))
            known = Before(context.assembly, context.results) if n else None
            context = Context(assemble(job, context.assembly), {}, known)
            context.results[closed.KEY] = closed.study(context)
            context.results[axles.KEY] = axles.study(context)
    return times[1:]


def from_nothing(units: int, count: int) -> float:
    """The median of a whole verdict in a process of its own, all that it reads included; 0 units for the demo. [ms]"""
    here = Path(__file__).parent
    times = []
    for _ in range(count):
        done = subprocess.run(
            [sys.executable, "-c", NOTHING, str(units)], capture_output=True, text=True, check=True, cwd=here
        )  # fmt: skip
        times.append(float(done.stdout))
    return statistics.median(times)


def p95(times: list[float]) -> float:
    """The 95th percentile."""
    return statistics.quantiles(times, n=20)[-1]


def main() -> None:
    """Print the figures as JSON."""
    found: dict[str, Any] = {"growth": {}}
    for units, hands, settled in (
        (0, 100, 30),
        (15, 60, 30),
        (60, 200, 40),
        (150, 60, 16),
        (300, 60, 10),
    ):
        job = crowded(units) if units else frozen()
        quick, all_ = moves(job, hands, quick=True), moves(job, settled, quick=False)
        found["growth"][units or "demo"] = {
            "quick": statistics.median(quick), "quick_p95": p95(quick),
            "median": statistics.median(all_), "p95": p95(all_),
        }  # fmt: skip
    job = crowded(60)
    plain: list[float] = []
    for _ in range(5):
        with paced(plain):
            reference(job)
    found["reference_60"] = statistics.median(plain)
    found["same_60"] = statistics.median(same_studies(60, 200))
    found["ratio_60"] = found["reference_60"] / found["same_60"]
    whole = {
        units or "demo": from_nothing(units, count)
        for units, count in ((0, 5), (60, 3), (300, 3), (1000, 1))
    }
    found["whole"] = whole
    found["power"] = math.log(whole[1000] / whole[300]) / math.log(1000 / 300)
    json.dump(found, sys.stdout)


if __name__ == "__main__":
    main()
