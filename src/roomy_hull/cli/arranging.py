"""The command arrange: a place for everything that has to go in."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import TYPE_CHECKING

from roomy_hull.arrange.arranger import arrange
from roomy_hull.arrange.instance import PARTS
from roomy_hull.arrange.offers import Arranged, Told
from roomy_hull.cli.codes import FINE, STOPS
from roomy_hull.cli.given import verdict_of
from roomy_hull.cli.paths import job_of
from roomy_hull.core.errors import InputError
from roomy_hull.formats import jobfile, wantfile
from roomy_hull.formats.arrange_json import arrange_json, arrange_rows
from roomy_hull.formats.atomic import write_whole
from roomy_hull.formats.csv_tables import table
from roomy_hull.job.edits import arranging as edits

if TYPE_CHECKING:
    import argparse

    from roomy_hull.cli.desktop import Desktop


def run(args: argparse.Namespace, _desktop: Desktop) -> int:
    """Arrange a job, and write every layout as a job of its own."""
    if not 0 < args.seconds <= 3600:
        raise InputError(
            f"{args.seconds:g} s is no time to arrange in",
            "--seconds",
            "Give more than 0, 3,600 at most.",
        )
    if not 10 <= args.pitch <= 200:
        raise InputError(
            f"steps of {args.pitch:g} mm are not tried", "--pitch", "Give 10 to 200 mm."
        )
    job = job_of(args.job)
    if args.want:
        path = Path(args.want)
        job = wantfile.with_want(job, wantfile.load(path), path.name)
    verdict = verdict_of(args, job)
    said: list[str] = []

    def tell(told: Told) -> bool:
        if told.best is not None and not args.json and (not said or said[-1] != f"{told.best:.1f}"):
            said.append(f"{told.best:.1f}")
            bound = (
                f", nothing in stacks is better than {told.bound:.1f}"
                if told.bound is not None
                else ""
            )
            sys.stderr.write(f"{told.seconds:5.1f} s: {told.best:.1f} points{bound}\n")
        return True

    found = arrange(verdict, job.arrange, args.seconds, args.pitch, tell)
    text = json.dumps(arrange_json(found), indent=1, ensure_ascii=False)
    if args.out:
        folder = Path(args.out)
        folder.mkdir(parents=True, exist_ok=True)
        jobs = tuple(o.job for o in found.offers)
        for n in range(len(jobs)):
            done = edits.taken(job, jobs, n, others=False)
            jobfile.save(done, folder / f"layout-{n + 1}{jobfile.SUFFIX}")
        write_whole(folder / "layouts.csv", table(arrange_rows(found)).encode())
        write_whole(folder / "arrange.json", text.encode())
    if args.json:
        print(text)
    else:
        for line in lines(found):
            print(line)
    return FINE if found.offers and not found.offers[0].stops else STOPS


def lines(found: Arranged) -> list[str]:
    """What a run came to, in lines."""
    rows = [found.words]
    for n, o in enumerate(found.offers, 1):
        worth = ", ".join(f"{k} {getattr(o.value, k):.1f}" for k in PARTS)
        rows.append(f"{n}. {o.sort}: {o.value.points:.1f} points ({worth})")
        rows += [f"   stop: {s}" for s in o.stops] + [f"   look: {s}" for s in o.looks]
    return rows
