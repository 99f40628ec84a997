"""How long the together table takes from nothing and after an edit, and against sampling with FCL."""

import json
import random
import statistics
import sys
from typing import Any

from edit import p95
from jobs import busy, crowded, frozen
from pace import paced
from roomy_hull.assembly.assemble import assemble
from roomy_hull.assembly.study import Before, Context
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.studies.fit import together
from roomy_hull.verdict.verdict import judge
from sampling import clashes

SAMPLES = 36


def scratch(job: Job) -> float:
    """Time the table from nothing. [ms]"""
    context = Context(assemble(job), {}, None)
    times: list[float] = []
    for _ in range(5):
        with paced(times):
            together.study(context)
    return statistics.median(times)


def after_edits(job: Job, count: int = 200) -> list[float]:
    """Time the table after moves of random units. [ms]"""
    chance = random.Random(11)
    context = Context(assemble(job), {}, None)
    context.results[together.KEY] = together.study(context)
    times: list[float] = []
    for n in range(count):
        unit = chance.choice(job.units)
        job = edits.changed(job, unit.id, u=unit.u + (25.0 if n % 2 else -25.0))
        known = Before(context.assembly, context.results)
        context = Context(assemble(job, context.assembly), {}, known)
        with paced(times):
            context.results[together.KEY] = together.study(context)
    return times


def whole(job: Job, count: int = 60) -> list[float]:
    """Time the verdict that a hand waits for after moves of random units. [ms]"""
    chance = random.Random(5)
    verdict = judge(job)
    times: list[float] = []
    for n in range(count):
        unit = chance.choice(job.units)
        with paced(times):
            job = edits.changed(job, unit.id, u=unit.u + (25.0 if n % 2 else -25.0))
            verdict = judge(job, verdict, moving=True)
    return times


def main() -> None:
    """Print the figures as JSON."""
    found: dict[str, Any] = {"growth": {}}
    for units in (15, 30, 60):
        job = busy(units)
        edit = after_edits(job)
        found["growth"][units] = {
            "motions": len(assemble(job).openings()), "scratch": scratch(job), "edit": statistics.median(edit),
            "edit_p95": p95(edit), "verdict_p95": p95(whole(job)),
        }  # fmt: skip
    many = crowded(300)
    edit = after_edits(many, 60)
    found["growth"][300] = {
        "motions": len(assemble(many).openings()), "scratch": scratch(many), "edit": statistics.median(edit),
        "edit_p95": p95(edit), "verdict_p95": p95(whole(many, 60)),
    }  # fmt: skip
    assembly = assemble(frozen())
    ours = scratch(frozen())
    theirs: list[float] = []
    with paced(theirs):
        closed, opened = clashes(assembly, SAMPLES)
    table = together.study(Context(assembly, {}, None))
    mine = {("shut", *p) for p, m in table.shut.items() if m.clashes}
    mine |= {("open", *p) for p, m in table.opened.items() if m.clashes}
    seen = {("shut", *p) for p in closed} | {("open", *p) for p in opened}
    found["reference"] = {
        "ours_ms": ours, "theirs_ms": theirs[0], "ratio": theirs[0] / ours, "missed": len(seen - mine),
        "alarms": len(mine - seen), "clashes": len(seen), "samples": SAMPLES,
    }  # fmt: skip
    json.dump(found, sys.stdout)


if __name__ == "__main__":
    main()
