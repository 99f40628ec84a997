"""The build: operations and schedule from a judged job, levelling several jobs, a bar that is dragged, a long log."""

import json
import os
import random
import statistics
import sys
import time
from pathlib import Path

import msgspec

from jobs import frozen
from pace import paced
from roomy_hull.formats.jobfile import dumps, loads
from roomy_hull.job.logs import Entry
from roomy_hull.planning.levelling import Problem
from roomy_hull.planning.placing import Means, Task
from roomy_hull.planning.plan import build_of
from roomy_hull.planning.replay import replayed
from roomy_hull.verdict.verdict import judge

JOBS, OPERATIONS, ENTRIES, SECONDS = 8, 80, 10_000, 5.0
TIMES = 15


def several(seed: int) -> Problem:
    """Eight jobs of eighty operations on three people and three stations."""
    chance = random.Random(seed)
    tasks = {}
    for job in range(JOBS):
        for n in range(OPERATIONS):
            key = f"{job}.{n}"
            after = (
                {f"{job}.{chance.randrange(max(0, n - 10), n)}" for _ in range(chance.randrange(3))}
                if n
                else set()
            )
            who = chance.choice(("abc", "ab", "bc", "c", "ac", ""))
            station = chance.choice(("s", "t", "u", "")) if who else ""
            tasks[key] = Task(
                key,
                chance.randrange(15, 260),
                tuple(sorted(after)),
                tuple(who),
                1,
                station,
                0,
                str(job),
            )
    return Problem(tasks, Means({"a": (), "b": (), "c": ()}, {"s": 1, "t": 1, "u": 2}))


def dragged() -> dict[str, float]:
    """A bar of the demo's plan dragged in the real window, painted at every step."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from roomy_hull.desktop.application import application, session_for, window_for  # ruff: ignore[import-outside-top-level]  # Qt, for this one
    from roomy_hull.desktop.shots import _Forgetful, wait  # ruff: ignore[import-outside-top-level, import-private-name]  # as above

    application()
    session = session_for(None, _Forgetful(Path("/tmp")))
    window = window_for(session)
    window.resize(1280, 800)
    window.show()
    window.settle()
    session.view.turn_to("Build", "Plan")
    page = window.page("Build", "Plan")
    wait(60)
    model = page.model
    key = next(k for k, p in model.placed().items() if p.people and p.finish - p.start > 60)
    start, steps = model.placed()[key].start, list[float]()
    for n in range(60):
        with paced(steps):
            model.hold(key, start + 20.0 * n, 0.0)
            page.picture.repaint()
    model.cancel()
    return {"median": statistics.median(steps), "worst": sorted(steps)[-3]}


def main() -> None:
    """Print the figures as JSON."""
    job = frozen()
    verdict = judge(job)
    context = verdict.context()
    fresh = msgspec.structs.replace(job, log=(), releases=())
    fresh_case = judge(fresh, verdict).context()
    made: dict[str, list[float]] = {"begun": [], "fresh": []}
    for _ in range(TIMES):
        with paced(made["begun"]):
            build_of(context)
        with paced(made["fresh"]):
            build_of(fresh_case)
    gaps, rules = [], []
    for seed in range(4):
        problem = several(seed)
        begun = time.process_time()
        rules.append(problem.level().gap)
        first = time.process_time() - begun
        gaps.append(problem.level(1_000_000, None, SECONDS).gap)
    log = tuple(
        Entry(
            id=f"e{n}",
            at="2027-02-03T10:00:00",
            by="AB",
            kind="work",
            op=f"unit:galley:{n % 40}",
            hours=0.5,
            words="as planned",
        )
        for n in range(ENTRIES)
    )
    data, opened = dumps(msgspec.structs.replace(job, log=log)), list[float]()
    for _ in range(5):
        with paced(opened):
            replayed(loads(data).log)
    json.dump(
        {
            "operations": len(build_of(fresh_case).ops),
            **{k: statistics.median(t) for k, t in made.items()},
            "gap": max(gaps), "rules": max(rules), "rules_s": first,
            "log": statistics.median(opened),
            "drag": dragged(),
        },
        sys.stdout,
    )  # fmt: skip


if __name__ == "__main__":
    main()
