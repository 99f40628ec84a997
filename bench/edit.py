"""How long one move takes, from the new job value to the complete new verdict."""

import json
import random
import statistics
import sys
import time

from jobs import crowded
from reference import judge as reference
from roomy_hull.job.edits import units as edits
from roomy_hull.verdict.verdict import judge


def moves(units: int, count: int) -> list[float]:
    """Time moves of random units by a pitch, forth and back. [ms]"""
    job = crowded(units)
    verdict = judge(job)
    chance = random.Random(7)
    times = []
    for n in range(count):
        unit = chance.choice(job.units)
        step = 25.0 if n % 2 else -25.0
        start = time.perf_counter()
        job = edits.changed(job, unit.id, u=unit.u + step)
        verdict = judge(job, verdict)
        times.append((time.perf_counter() - start) * 1e3)
    return times


def p95(times: list[float]) -> float:
    """The 95th percentile."""
    return statistics.quantiles(times, n=20)[-1]


def main() -> None:
    """Print the figures as JSON."""
    found: dict[str, object] = {"growth": {}}
    for units in (15, 60, 150, 300):
        times = moves(units, 400)
        found["growth"][units] = {"median": statistics.median(times), "p95": p95(times)}
    job = crowded(60)
    plain = []
    for _ in range(5):
        start = time.perf_counter()
        reference(job)
        plain.append((time.perf_counter() - start) * 1e3)
    found["reference_60"] = statistics.median(plain)
    found["ratio_60"] = statistics.median(plain) / found["growth"][60]["median"]
    found["ratio_60_p95"] = statistics.median(plain) / found["growth"][60]["p95"]
    json.dump(found, sys.stdout)


if __name__ == "__main__":
    main()
