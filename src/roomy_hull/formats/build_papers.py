"""Papers of the build: today's list for each person, check sheets to fill by hand, progress for the customer, the board."""

from datetime import date
from pathlib import Path

from roomy_hull.core.days import spoken
from roomy_hull.drawing.paper import Paper
from roomy_hull.drawing.scenes.growing import growing, grown_frame
from roomy_hull.drawing.view import Station
from roomy_hull.formats.book import Book
from roomy_hull.formats.book_parts import BookPage, Table
from roomy_hull.formats.pack import photo_pages
from roomy_hull.formats.workshop import Board, built
from roomy_hull.job.releases import STATES
from roomy_hull.making.works import works_of
from roomy_hull.planning.lateness import in_days
from roomy_hull.planning.plan import Build, chances_of
from roomy_hull.planning.progress import fitted, part_states
from roomy_hull.tables.build import CHECKS, check_rows
from roomy_hull.tables.column import heads, told
from roomy_hull.verdict.verdict import Verdict

SIDES: tuple[Station, ...] = ("left", "right")
CAUTION = (
    "Guard eyes, ears and hands; two lift what strains one; nobody under a canopy on its legs."
)


def on_day(build: Build, day: date) -> dict[str, list[str]]:
    """What everybody does on a day: keys of operations by person, in the order in which they begin."""
    found: dict[str, list[str]] = {}
    for key in build.levelled.order:
        if build.begins(key).day <= day <= build.ends(key).day:
            for person in build.levelled.placed[key].people:
                found.setdefault(person, []).append(key)
    return found


def lists_of(verdict: Verdict, build: Build, day: date) -> Book:
    """Today's list of every person, to print.

    Returns: A page for each who has something to do.
    """
    shop = verdict.assembly.shop.workshop
    pages = []
    for person, keys in on_day(build, day).items():
        worker = shop.worker(person)
        rows = tuple(
            (f"{build.begins(k).minute / 60:.1f}", build.ops[k].words, build.ops[k].much, f"{build.hours[k]:.1f}",
             station.name if (station := shop.station(build.ops[k].station)) is not None else "", "")
            for k in keys
        )  # fmt: skip
        name = worker.name if worker is not None else person
        heads = ("from h", "what", "how much", "hours", "where", "worked, done")
        pages.append(BookPage(f"{spoken(day)}: {name}", (CAUTION,), (), (Table(heads, rows),)))
    if not pages:
        pages.append(BookPage(f"{spoken(day)}: nothing is planned", ()))
    return Book(
        f"{verdict.job.name}, {day.isoformat()}",
        f"{verdict.job.name}; the plan of {build.now.isoformat()}",
        tuple(pages),
    )


def check_sheets(verdict: Verdict, build: Build) -> Book:
    """The check sheets to fill by hand, with what is known already."""
    groups: dict[str, list[tuple[str, ...]]] = {}
    for row in told(CHECKS, check_rows(build)):
        groups.setdefault(row[0], []).append(row[1:])
    over = tuple(h.lower() for h in heads(CHECKS)[1:])
    pages = tuple(
        BookPage(
            f"Check: {group}",
            (),
            (),
            (Table(over, tuple(rows)),),
        )
        for group, rows in groups.items()
    )
    return Book(f"Check sheets: {verdict.job.name}", f"{verdict.job.name}; check sheets", pages)


def progress_page(verdict: Verdict, job_file: Path | None = None) -> Book:
    """How far the build is, for the customer: shares done, by when it is ready, photos."""
    build, job = built(verdict), verdict.job
    done = build.finished
    words = [
        f"{100 * build.share:.0f} % of the work is done: {len(done)} of {len(build.ops)} operations."
    ]
    chance = chances_of(build, verdict.assembly.shop.workshop)
    if chance is not None and job.plan.begin:
        sure = build.calendar.at(chance.ready(0.9), ends=True).day
        words.append(f"Ready by {spoken(sure)}, nine times in ten.")
    last = job.releases[-1] if job.releases else None
    rows: tuple[tuple[str, ...], ...] = ()
    if last is not None:
        cut = [p for p in last.parts if p.sort != "bought"]
        rows = tuple((s, str(sum(p.count for p in cut if p.state == s))) for s in STATES)
    lately = tuple(
        (build.state.done[k], build.ops[k].words)
        for k in sorted(done, key=lambda k: build.state.done[k], reverse=True)[:20]
    )
    works = works_of(verdict.assembly)
    states, there = part_states(job, works, build), fitted(build)
    assembly = verdict.assembly
    papers = tuple(
        Paper("", growing(assembly, works, states, there, side), grown_frame(assembly, side))
        for side in SIDES
    )
    grown = BookPage(f"{job.name}: as it stands in the shop", (), papers)
    first = BookPage(
        f"{job.name}: how far it is",
        tuple(words),
        (),
        (Table(("parts", "pieces"), rows), Table(("done on", "what"), lately)),
    )
    return Book(f"Progress: {job.name}", f"{job.name}; {build.state.last or 'nothing logged yet'}",
                (first, grown, *photo_pages(build.state.photos, job_file, "Photos")))  # fmt: skip


def board_paper(board: Board) -> Book:
    """The board of all jobs, to hang up."""
    rows = tuple(
        (c.name, c.customer, c.stage.words, f"{c.stops} / {c.looks}", c.due.isoformat() if c.due is not None else "",
         c.ready.isoformat() if c.ready is not None else "", in_days(c.late) if c.late > 0 else "", c.because, c.step)
        for c in board.cards
    )  # fmt: skip
    heads = ("job", "for", "how far", "stop / look", "due", "ready", "late", "because", "next")
    return Book(
        f"Board: {board.folder.name}",
        board.shop.name,
        (BookPage("All jobs", (), (), (Table(heads, rows),)),),
    )
