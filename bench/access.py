"""Goods and people: moves, reach and sight of 150 goods for two statures, from nothing and after an edit."""

import json
import random
import statistics
import sys
from collections.abc import Iterator

import msgspec

from jobs import frozen
from pace import paced
from roomy_hull.assembly.assemble import assemble
from roomy_hull.assembly.study import Before, Context
from roomy_hull.job.edits import goods as goods_edits
from roomy_hull.job.edits import units as edits
from roomy_hull.job.goods import Good, Party, Person
from roomy_hull.job.model import Job
from roomy_hull.studies.access import judge as access
from roomy_hull.studies.access import looking
from roomy_hull.verdict.verdict import judge

GOODS, STATURES, TIMES = 150, (1530.0, 1870.0), 12


def laden() -> Job:
    """The demo with 150 goods in whatever takes goods, for a small person and a tall one."""
    job = frozen()
    chance = random.Random(3)
    places = sorted({g.place for g in job.goods if g.place})
    more = tuple(
        Good(id=f"g{n}", name=f"Good {n}", mass=chance.uniform(0.2, 12.0), place=chance.choice(places),
             use=chance.choice(("now", "each stop", "each camp", "rarely")))
        for n in range(GOODS - len(job.goods))
    )  # fmt: skip
    party = Party(
        people=tuple(
            Person(id=f"p{n}", name=f"Person {n}", stature=h) for n, h in enumerate(STATURES)
        )
    )
    return msgspec.structs.replace(job, goods=(*job.goods, *more), party=party)


def edited(job: Job) -> Iterator[tuple[str, Job]]:
    """Settled edits of every sort, one after the other, with what they are."""
    chance = random.Random(5)
    units = [u for u in job.units if getattr(u, "bay", "")]
    for n in range(TIMES):
        unit = chance.choice(units)
        job = edits.changed(job, unit.id, u=unit.u + (25.0 + n if n % 2 else -25.0 - n))
        units = [u for u in job.units if getattr(u, "bay", "")]
        yield "unit", job
    for _ in range(TIMES):
        good = chance.choice(job.goods)
        job = goods_edits.changed(job, good.id, mass=good.mass + 0.1)
        yield "good", job


def main() -> None:
    """Print the figures as JSON."""
    job = laden()
    verdict = judge(job)
    assembly, results = verdict.assembly, verdict.results
    nothing: list[float] = []
    for _ in range(5):
        looking.looked.cache_clear()
        with paced(nothing):
            access.study(Context(assembly, results, None))
    times: dict[str, list[float]] = {"unit": [], "good": []}
    for what, after in edited(job):
        told = judge(after, verdict, moving=True)  # all but Access
        context = Context(
            assemble(after, verdict.assembly),
            dict(told.results),
            Before(verdict.assembly, verdict.results),
        )
        with paced(times[what]):
            access.study(context)
        verdict = judge(after, verdict)
    json.dump(
        {
            "goods": GOODS,
            "nothing": statistics.median(nothing),
            **{k: {"median": statistics.median(t), "worst": max(t)} for k, t in times.items()},
        },
        sys.stdout,
    )


if __name__ == "__main__":
    main()
