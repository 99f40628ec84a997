"""Arranging: thirty generated cases, the demos anew, against a constraint solver in the same run; window and stop."""

import itertools
import json
import multiprocessing
import os
import resource
import statistics
import sys
import time
from typing import Any

from arranging_cases import CASES, context
from arranging_reference import solve
from roomy_hull.arrange.arranger import arrange
from roomy_hull.arrange.judging import Rules, rule_watch
from roomy_hull.arrange.search import Progress, Search
from roomy_hull.formats.demo import DEMOS, demo_job
from roomy_hull.job.arranging import Arranging
from roomy_hull.session.arranging import ArrangeRun
from roomy_hull.session.doing import do
from roomy_hull.shop.shop import shipped_shop
from roomy_hull.verdict.verdict import judge

LIMIT = 10.0
"""Seconds for a case, as in the window."""
REFERENCES = (0, 2, 6, 9, 13, 17, 21, 24, 27)
"""Cases that the reference is given too."""


def one(number: int) -> dict[str, Any]:
    """One case: its best, its bound, when the first was there and when three per cent were proved."""
    seed, many, length, fill, rear = CASES[number]
    instance = context(seed, many, length, fill, rear=rear)
    watch, clashes = rule_watch(instance, Rules())
    within: list[float] = []
    bounds: list[float] = []

    def note(p: Progress) -> bool:
        if p.bound is not None:
            bounds.append(p.bound)
            if p.best is not None and p.best - p.bound <= 0.03 * abs(p.best):
                within.append(p.seconds)
        return p.seconds < LIMIT

    found = Search(instance, 4, note).run(watch, clashes)
    best = found.layouts[0][0] if found.layouts else None
    if best is not None and found.gap <= 0.03 * abs(best):
        within.append(found.seconds)
    row: dict[str, Any] = {
        "case": number + 1, "units": many, "best": best, "bound": found.bound, "first_s": found.first,
        "within_3_s": min(within, default=None), "proved": found.proved, "seconds": found.seconds,
        "falls": sum(b < a - 1e-9 for a, b in itertools.pairwise(bounds)),
        "mb": resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024,
    }  # fmt: skip
    if number in REFERENCES:
        there = solve(instance, LIMIT)
        row["reference"] = there.points if there.layout is not None else None
        row["reference_bound"] = there.bound
    return row


def demos() -> dict[str, Any]:
    """Every demo emptied and arranged anew, in the rails' own steps."""
    rows = {}
    for name in DEMOS:
        verdict = judge(demo_job(name))
        found = arrange(verdict, Arranging(), LIMIT, 25.0)
        stops = [s for o in found.offers[:1] for s in o.stops]
        rows[name] = {
            "by_hand": found.hand.points if found.hand else None, "points": min(o.value.points for o in found.offers),
            "stops": len(stops), "looks": len(found.offers[0].looks),
        }  # fmt: skip
    return rows


def window() -> dict[str, float]:
    """The window while a run goes on: milliseconds between its ticks of 16, and from Stop to standing still."""
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    from PyQt6.QtCore import QEventLoop, QTimer  # ruff: ignore[import-outside-top-level]  # only this part has a window

    from roomy_hull.desktop.application import window_for  # ruff: ignore[import-outside-top-level]
    from roomy_hull.formats.settings import Settings  # ruff: ignore[import-outside-top-level]
    from roomy_hull.session.session import Session  # ruff: ignore[import-outside-top-level]

    session = Session(demo_job("tarn"), Settings())
    shown = window_for(session)
    shown.resize(1280, 800)
    shown.show()
    session.view.turn_to("Fit-out", "Arrange")
    run: ArrangeRun = session.arranging
    ticks: list[float] = []
    timer = QTimer()
    timer.setInterval(16)
    timer.timeout.connect(lambda: ticks.append(time.perf_counter()))

    def wait(ms: int) -> None:
        loop = QEventLoop()
        QTimer.singleShot(ms, loop.quit)
        loop.exec()

    wait(3000)
    run.set(seconds=60.0, pitch=25.0)
    do(session, "arrange.go")
    timer.start()
    wait(4000)
    timer.stop()
    before = time.perf_counter()
    do(session, "arrange.stop")
    stopped = (time.perf_counter() - before) * 1000
    session.history.mark_saved()
    run.close()
    gaps = [(b - a) * 1000 for a, b in itertools.pairwise(ticks)]
    return {
        "median_ms": statistics.median(gaps), "share_over_33_ms": sum(g > 33 for g in gaps) / len(gaps),
        "longest_ms": max(gaps), "stop_ms": stopped,
    }  # fmt: skip


def main() -> None:
    """Print the figures as JSON; each case in a process of its own."""
    context = multiprocessing.get_context("spawn")
    with context.Pool(1, maxtasksperchild=1) as pool:
        rows = pool.map(one, range(len(CASES)), chunksize=1)
    both = [r for r in rows if r.get("reference") is not None and r["best"] is not None]
    run = ArrangeRun()
    run.warm()
    before = time.perf_counter()
    run.start(demo_job("tarn"), shipped_shop(), 30.0, 25.0)
    while run.told is None or run.told.job is None:
        run.pump()
        time.sleep(0.005)
    first = time.perf_counter() - before
    run.close()
    json.dump({
        "cases": rows, "within_3_percent": sum(r["within_3_s"] is not None for r in rows),
        "proved_best": sum(r["proved"] for r in rows), "first_in_3_s": sum(0 <= r["first_s"] <= 3 for r in rows),
        "bound_falls": sum(r["falls"] for r in rows), "most_mb": max(r["mb"] for r in rows),
        "reference_better_by": [round(1 - r["reference"] / r["best"], 4) for r in both],
        "demos": demos(), "window": window(), "first_in_window_s": first,
    }, sys.stdout, indent=1)  # fmt: skip


if __name__ == "__main__":
    main()
