"""The commands of the stage Cut: the cut files, the book, releases."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import TYPE_CHECKING

from roomy_hull.cli.codes import DEMO, FINE, STOPS
from roomy_hull.cli.given import shop_of, verdict_of
from roomy_hull.cli.paths import job_of, job_path
from roomy_hull.cli.report import finding_line
from roomy_hull.core.days import now_words
from roomy_hull.core.errors import InputError, JobFileError, UserError
from roomy_hull.core.wording import counted
from roomy_hull.formats import cutfiles, jobfile
from roomy_hull.formats.atomic import alone, read_whole
from roomy_hull.formats.locks import Lock
from roomy_hull.formats.making_json import making_json
from roomy_hull.job.edits.building import entry, logged
from roomy_hull.job.edits.releases import released
from roomy_hull.making.cutlist import CutList, cut_of, shaped
from roomy_hull.making.release import current, drawn_up, stale
from roomy_hull.making.works import works_of
from roomy_hull.planning.as_built import owners
from roomy_hull.planning.progress import last_release
from roomy_hull.verdict.gates import gate
from roomy_hull.verdict.marks import marking_now
from roomy_hull.verdict.verdict import Verdict

if TYPE_CHECKING:
    import argparse

    from roomy_hull.cli.desktop import Desktop
    from roomy_hull.job.model import Job


def cut(args: argparse.Namespace, _desktop: Desktop) -> int:
    """Write the cut files, unless stops are open; or tell everything of the cut as JSON; or verify files that are there."""
    verdict = verdict_of(args)
    if args.verify:
        return _verified(verdict, Path(args.out))
    if args.rounds < 0:
        raise InputError(f"{args.rounds} rounds cannot be made", "--rounds", "Give 0 or more.")
    made = cut_of(verdict.assembly, rounds=args.rounds)
    if args.shapes:
        made = shaped(made, verdict.assembly.shop)
    if args.json:
        told = making_json(verdict, works_of(verdict.assembly), made)
        print(json.dumps(told, indent=1, ensure_ascii=False))
        if not args.out:
            return STOPS if verdict.count("stop") else FINE
    return _cut_files(verdict, made, args)


def _cut_files(verdict: Verdict, made: CutList, args: argparse.Namespace) -> int:
    """Write the cut files, unless stops are open."""
    out = Path(args.out)
    bars = "; ".join(gate("cut", verdict).bars)
    for finding in verdict.findings:
        if finding.severity == "stop":
            print(finding_line(finding), file=sys.stderr)
    if bars and not args.anyway:
        print(
            f"roomy-hull: nothing is written: {bars}. Mend them, or add --anyway.", file=sys.stderr
        )
        return STOPS
    marking = marking_now(verdict)
    paths = cutfiles.write(made, out, marking, solids=verdict.assembly if args.solids else None)
    # What is told on standard output is the JSON, where it was asked for.
    print(
        f"{len(paths)} files in {out}: {len(made.blanks)} different blanks, "
        f"{len(made.nest.sheets)} sheets, {len(made.bars.bars)} bars; {marking.state}.",
        file=sys.stderr if args.json else sys.stdout,
    )
    for words in marking.warnings:
        print(f"Every file says: {words}", file=sys.stderr)
    if bars:
        _log_cut(args.job, f"Cut files written although {bars}, to {out}")
    return STOPS if bars else FINE


def _log_cut(word: str, words: str) -> None:
    """Log in the job's own file that it was cut although stops were open."""
    path = job_path(word)
    if path is None or word.startswith(DEMO):
        return
    try:
        with alone(path):
            job = jobfile.load(path)
            jobfile.save(logged(job, entry(now_words(), "", kind="note", words=words)), path)
    except UserError as trouble:
        print(f"roomy-hull: it is not logged: {trouble}", file=sys.stderr)


def _verified(verdict: Verdict, out: Path) -> int:
    """Tell whether a folder's cut files are as they were written, and which are not of the job as it is now."""
    wrong = cutfiles.wrong(out)
    for words in wrong:
        print(words)
    old = 0
    known = current(works_of(verdict.assembly))
    for path in sorted(out.glob("*/*.dxf")):
        gone = [h for h in cutfiles.parts_in(read_whole(path)) if h not in known]
        old += bool(gone)
        if gone:
            print(f"{path.relative_to(out)} is not of the job as it is now")
    print(
        f"{len(wrong)} files are not as they were written, {old} are not of the job as it is now."
    )
    return STOPS if wrong or old else FINE


def file_told(verdict: Verdict, path: Path) -> int:
    """Tell whether a cut file is of the job as it is now, part by part."""
    found = cutfiles.parts_in(read_whole(path))
    if not found:
        raise JobFileError(
            "it says of no part that it was made from it",
            str(path),
            "Give a DXF, STEP or list of a cut.",
        )
    known = current(works_of(verdict.assembly))
    for one in found:
        name = known.get(one)
        print(
            f"{one}: {name} as it is now"
            if name
            else f"{one}: NOT a part of the job as it is now: do not cut by it"
        )
    fine = all(one in known for one in found)
    print(
        f"{path.name} is {'the current one' if fine else 'NOT the current one'}; the job: {marking_now(verdict).state}."
    )
    return FINE if fine else STOPS


def book(args: argparse.Namespace, desktop: Desktop) -> int:
    """Write the book and its labels as PDF."""
    for file in desktop.book(job_of(args.job), Path(args.out), shop_of(args.shop)):
        print(file)
    return FINE


def release(args: argparse.Namespace, _desktop: Desktop) -> int:
    """Say what is stale since the last release; with initials, release what is drawn now."""
    path = job_path(args.job)
    before = read_whole(path) if path is not None else b""
    verdict = verdict_of(args)
    job, works, prices = verdict.job, works_of(verdict.assembly), verdict.assembly.shop.prices
    last = last_release(job)
    changes = stale(last, works, prices, owners(job))
    if last is None:
        print("Nothing is released yet.")
    else:
        much = f"{len(changes)} parts have changed." if changes else "nothing has changed."
        print(f"Revision {last.revision} of {last.day} by {last.by}: {much}")
        for c in changes:
            print(f"  {c.key}: {c.words}" + (f", about {c.cost:,.0f}" if c.cost else ""))
    if not args.by:
        return FINE
    found = gate("release", verdict)
    if found.bars:
        print(
            f"roomy-hull: nothing is released: {'; '.join(found.bars)}. Mend them first.",
            file=sys.stderr,
        )
        return STOPS
    for words in found.asks:
        print(f"{words[0].upper()}{words[1:]}")
    target = Path(args.out) if args.out else path
    if target is None or (not args.out and args.job.startswith(DEMO)):
        raise InputError("a demo job is not written to", args.job, "Add --out FILE.")
    made = drawn_up(job.releases, works, args.by, args.note)
    _keep_release(released(job, made), target, before, own=not args.out)
    print(f"Revision {made.revision}: {len(made.parts)} parts are released in {target}.")
    return FINE


def _keep_release(job: Job, target: Path, before: bytes, *, own: bool) -> None:
    """Write a job back, unless its file holds something else by now than what was released."""
    with alone(target):
        if own and read_whole(target) != before:
            raise JobFileError(
                "it was saved by somebody else while it was judged; nothing is released", str(target), "Release again."
            )  # fmt: skip
        if not own and target.exists():
            _refuse_shorter(job, target)
        other = Lock.to(target).holder()
        jobfile.save(job, target)
    if other is not None:
        print(f"{other.words()}, has this file open: saving there will ask.", file=sys.stderr)


def _refuse_shorter(job: Job, target: Path) -> None:
    """Refuse to write over a job whose log holds what this one's does not."""
    try:
        theirs = jobfile.load(target).log
    except JobFileError:
        return
    known = {e.id for e in job.log}
    lost = sum(e.id not in known for e in theirs)
    if lost:
        raise JobFileError(
            f"its log holds {counted(lost, 'entry', 'entries')} that would be lost",
            str(target),
            "Write to another file.",
        )
