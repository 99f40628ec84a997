"""The commands of the stage Build: the plan, the offer, the pack, the board of a folder."""

from __future__ import annotations

import json
import sys
from datetime import date
from pathlib import Path
from typing import TYPE_CHECKING

from roomy_hull.cli.codes import FINE, STOPS
from roomy_hull.cli.given import shop_of, verdict_of
from roomy_hull.cli.paths import job_of, job_path
from roomy_hull.core.days import spoken
from roomy_hull.formats.atomic import write_whole
from roomy_hull.formats.plan_json import buying_csv, plan_csv, plan_json
from roomy_hull.formats.workshop import Board, Card, board_of, built
from roomy_hull.planning.judge import names_of
from roomy_hull.planning.lateness import in_days, told
from roomy_hull.planning.plan import Build, chances_of
from roomy_hull.verdict.gates import gate
from roomy_hull.verdict.verdict import Verdict

if TYPE_CHECKING:
    import argparse

    from roomy_hull.cli.desktop import Desktop


def plan(args: argparse.Namespace, _desktop: Desktop) -> int:
    """Tell the plan of a job, as words, as JSON, as tables."""
    verdict = verdict_of(args)
    build = built(verdict)
    if args.out:
        out = Path(args.out)
        write_whole(
            out / "operations.csv", plan_csv(build, verdict.assembly.shop.workshop).encode()
        )
        write_whole(out / "buying.csv", buying_csv(build).encode())
    if args.json:
        print(json.dumps(plan_json(verdict, build), indent=1, ensure_ascii=False))
    else:
        for line in _plan_lines(verdict, build):
            print(line)
    return STOPS if verdict.count("stop") else FINE


def _plan_lines(verdict: Verdict, build: Build) -> list[str]:
    shop = verdict.assembly.shop.workshop
    names = names_of(shop)
    found = [
        f"{verdict.job.name}: {len(build.ops)} operations, {build.left:.1f} h to do, {build.worked:.1f} h logged."
    ]
    if build.trouble:
        return [*found, f"It cannot be planned: {build.trouble}"]
    begun = bool(verdict.job.plan.begin)
    days = {d: n for n, d in enumerate(build.calendar.days, 1)}

    def said(day: date, *, short: bool = False) -> str:
        if not begun:
            return f"day {days.get(day, len(days))}"
        return day.isoformat() if short else spoken(day)

    if not begun:
        found.append("No plan is begun (plan.begin): days are counted from the first.")
    if build.levelled.placed:
        chance = chances_of(build, shop)
        sure = (
            build.calendar.at(chance.ready(0.9), ends=True).day if chance is not None else build.end
        )
        bound = build.calendar.at(build.levelled.bound, ends=True).day
        found.append(
            f"Ready on {said(build.end)} as planned, by {said(sure)} nine times in ten; no plan ends before "
            f"{said(bound)} (gap {100 * build.levelled.gap:.1f} %)."
        )
    behind = told(build, names)
    if behind:
        found.append(f"{behind}.")
    for key in build.levelled.order:
        op, one = build.ops[key], build.levelled.placed[key]
        begin, end = build.begins(key), build.ends(key)
        who = ", ".join(names.get(p, p) for p in one.people)
        found.append(
            f"{said(begin.day, short=True)} {begin.minute / 60:5.2f} h to {said(end.day, short=True)} "
            f"{end.minute / 60:5.2f} h  {op.words}" + (f"  ({who})" if who else "")
        )
    return found


def offer(args: argparse.Namespace, desktop: Desktop) -> int:
    """Write an offer of the job as it stands, as PDF and CSV."""
    for file in desktop.offer(job_of(args.job), Path(args.out), shop_of(args.shop), args.by):
        print(file)
    return FINE


def pack(args: argparse.Namespace, desktop: Desktop) -> int:
    """Write the hand-over pack, unless something forbids to hand over."""
    verdict = verdict_of(args)
    bars = "; ".join(gate("pack", verdict, built(verdict)).bars)
    if bars and not args.anyway:
        print(
            f"roomy-hull: nothing is handed over: {bars}. Mend them, or add --anyway.",
            file=sys.stderr,
        )
        return STOPS
    for file in desktop.pack(verdict, Path(args.out), job_path(args.job)):
        print(file)
    return STOPS if bars else FINE


def board(args: argparse.Namespace, _desktop: Desktop) -> int:
    """Tell all jobs of a workshop's folder."""
    found = board_of(Path(args.folder), shop_of(args.shop), rounds=args.rounds)
    if args.json:
        print(json.dumps(board_json(found), indent=1, ensure_ascii=False))
        return FINE
    for card in found.cards:
        print(_card_line(card))
    for trouble in found.troubles:
        print(trouble, file=sys.stderr)
    for lesson in found.lessons:
        print(f"Learnt at {lesson.job}, {lesson.day}: {lesson.words}")
    if not found.cards:
        print("There are no jobs in this folder.")
    return FINE


def _card_line(card: Card) -> str:
    if card.trouble and card.stage.order == 9:
        return f"{card.path.name}: {card.trouble}"
    parts = [f"{card.name}" + (f" ({card.customer})" if card.customer else ""), card.stage.words]
    parts.append(f"{card.stops} stop, {card.looks} look")
    if card.due is not None:
        parts.append(f"due {card.due}")
    if card.ready is not None:
        parts.append(f"ready {card.ready}")
    if card.late > 0:
        parts.append(f"{in_days(card.late)} late: {card.because}")
    if card.step:
        parts.append(f"next: {card.step}")
    if card.holder is not None:
        parts.append(f"open at {card.holder.words()}")
    return "; ".join(parts)


def board_json(found: Board) -> dict[str, object]:
    """A board as built-in objects."""
    return {
        "folder": str(found.folder),
        "shop": found.shop.name,
        "jobs": [
            {
                "file": c.path.name, "name": c.name, "customer": c.customer, "stage": c.stage.words, "stops": c.stops,
                "looks": c.looks, "due": str(c.due) if c.due else None, "ready": str(c.ready) if c.ready else None,
                "late_days": round(c.late, 3), "because": c.because, "next": c.step, "trouble": c.trouble,
                "open_at": c.holder.words() if c.holder is not None else None,
            }
            for c in found.cards
        ],
        "gap": round(found.plan.levelled.gap, 6) if found.plan is not None else None,
        "lessons": [{"job": x.job, "day": x.day, "words": x.words} for x in found.lessons],
        "troubles": list(found.troubles),
    }  # fmt: skip
