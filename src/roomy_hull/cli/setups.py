"""The command swap: the set-ups of a job, and the way from one to another."""

from __future__ import annotations

import json
from pathlib import Path
from typing import TYPE_CHECKING

from roomy_hull.cli.codes import FINE, STOPS
from roomy_hull.cli.given import verdict_of
from roomy_hull.core.errors import InputError
from roomy_hull.formats.atomic import write_whole
from roomy_hull.formats.csv_tables import table
from roomy_hull.formats.setups_json import setups_json, swap_json
from roomy_hull.job.edits.setups import absent
from roomy_hull.verdict.swaps import Swap, swap, swap_rows
from roomy_hull.verdict.verdict import Verdict

if TYPE_CHECKING:
    import argparse

    from roomy_hull.cli.desktop import Desktop


def run(args: argparse.Namespace, _desktop: Desktop) -> int:
    """Tell the set-ups of a job, or the way from one to another, as words, as JSON, as a table."""
    verdict = verdict_of(args)
    if not args.start:
        if args.json:
            print(json.dumps(setups_json(verdict), indent=1, ensure_ascii=False))
        else:
            for line in _setup_lines(verdict):
                print(line)
        return STOPS if verdict.count("stop") else FINE
    if not args.end:
        raise InputError(
            "a swap wants two set-ups",
            "swap",
            "Name the one it begins with and the one it ends with.",
        )
    found = swap(verdict, args.start, args.end)
    if args.out:
        write_whole(Path(args.out), table(swap_rows(found)).encode(), named=True)
    if args.json:
        print(json.dumps(swap_json(found), indent=1, ensure_ascii=False))
    else:
        for line in _swap_lines(verdict, found):
            print(line)
    return STOPS if found.circle else FINE


def _setup_lines(verdict: Verdict) -> list[str]:
    job = verdict.job
    if not job.setups:
        return [f"{job.name} has no set-ups: everything is always on."]
    rows = []
    for s in job.setups:
        used = [x.name for x in job.scenarios if x.setup == s.id]
        off = sorted(absent(job, s))
        rows.append(f"{s.name} ({s.id}): {len(off)} off; in {', '.join(used) or 'no scenario'}")
        rows += [f"  off: {key}" for key in s.off]
        if not s.canopy:
            rows.append("  off: the canopy")
        if not s.sides:
            rows.append("  off: drop sides and tailboard")
    found = [f for f in verdict.open_findings() if f.setups]
    return rows + [f"{f.severity}: {f.title}" for f in found]


def _swap_lines(verdict: Verdict, found: Swap) -> list[str]:
    head = f"From {found.start.name} to {found.end.name}: "
    if found.circle:
        names = [t.name if (t := verdict.job.thing(k)) is not None else k for k in found.circle]
        return [f"{head}there is no order, {', '.join(names)} are in one another's way."]
    rows = [f"{head}{len(found.steps)} steps, about {found.minutes:.0f} minutes."]
    for n, s in enumerate(found.steps, 1):
        more = [f"{s.minutes:g} min", "two people" if s.people > 1 else "", s.tool, *s.plugs]
        rows.append(f"{n:3}. {s.do} {s.name} ({'; '.join(m for m in more if m)})")
        if s.caution:
            rows.append(f"     {s.caution}")
    return rows
