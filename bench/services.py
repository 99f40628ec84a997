"""A trip by the hour with many consumers after an edit, a thousand weathers, and the ways of sixty runs after a move."""

import json
import statistics
import sys
from collections.abc import Callable

import msgspec

from jobs import frozen
from pace import paced
from roomy_hull.studies.services.circuits import laid_out
from roomy_hull.studies.services.trip import by_chance, trip
from roomy_hull.verdict.verdict import judge

TIMES = 30


def timed(do: Callable[[], object]) -> dict[str, float]:
    """The median and the 95th percentile of some rounds. [ms]"""
    rows: list[float] = []
    for _ in range(TIMES):
        with paced(rows):
            do()
    rows.sort()
    return {"median": statistics.median(rows), "p95": rows[int(0.95 * len(rows))]}


def main() -> None:
    """Print the figures as JSON."""
    job = frozen()
    s = job.services
    forty = tuple(s.consumers[n % len(s.consumers)].but(id=f"c{n}") for n in range(40))
    days = tuple(s.trip.days[n % len(s.trip.days)] for n in range(14))
    long = s.but(consumers=forty, trip=s.trip.but(days=days))
    sixty = tuple(s.consumers[n % len(s.consumers)].but(id=f"c{n}") for n in range(60))
    assembly = judge(msgspec.structs.replace(job, services=s.but(consumers=sixty))).assembly
    trip(long)
    found = {
        "trip": timed(lambda: trip(long)),
        "weathers": timed(lambda: by_chance(long, 1000)),
        "routes": timed(lambda: laid_out(assembly)),
    }
    json.dump(found, sys.stdout)


if __name__ == "__main__":
    main()
