"""The hand-over pack: what a customer is given with the vehicle, as built and as logged."""

import math
from pathlib import Path

from roomy_hull.core.days import dated, day_of
from roomy_hull.drawing.paper import Paper
from roomy_hull.drawing.scenes import access as access_scene
from roomy_hull.drawing.scenes import ground
from roomy_hull.drawing.view import Station
from roomy_hull.formats import load_sheet
from roomy_hull.formats.access_tables import canopy_sheet
from roomy_hull.formats.book import Book
from roomy_hull.formats.book_parts import BookPage, Image, Table
from roomy_hull.formats.photos import path_of
from roomy_hull.formats.services_tables import plan_paper
from roomy_hull.formats.sheet_parts import Section
from roomy_hull.formats.workshop import built
from roomy_hull.job.logs import Entry
from roomy_hull.planning.plan import Build
from roomy_hull.studies.loads import board
from roomy_hull.tables.build import CHECKS, check_rows
from roomy_hull.tables.column import heads, told
from roomy_hull.verdict.gates import gate
from roomy_hull.verdict.verdict import Verdict

CAUTIONS = (
    "The figures are planning figures and certify nothing. Rating plates, the certifying engineer, licensed "
    "electricians and gas "
    "fitters and the road authority decide.",
    "Never load beyond a rating. Weigh the loaded vehicle once before a long trip, axle by axle.",
    "Gas: close the bottle on the road; have line and locker tested as your local code wants. Mains: only a "
    "licensed electrician "
    "opens it. Lithium batteries: keep their maker's temperatures, never bypass a fuse.",
    "Never be under a canopy on its legs or under a jacked vehicle. On a slope, lock every slide before you let go.",
)
CARE = (
    "After the first 500 km and again at 5,000 km (common practice): retorque the bolts of the list, look at every "
    "hinge, seal "
    "and weld, listen for what rattles.",
    "Rinse salt and mud off, under the tray too; keep drains and vents free; a drop of oil on locks and hinges "
    "twice a year.",
    "Empty and dry the water tank before frost and before a long rest; flush it before the next trip.",
)
RETORQUE = (500, 5000)
"""When bolts are tightened again (common practice). [km]"""
PER_PAGE = 6
WORDS: dict[Station, str] = {
    "left": "The left side",
    "right": "The right side",
    "rear": "From behind",
}


def pack(verdict: Verdict, job_file: Path | None = None, day: str = "") -> Book:
    """Make the hand-over pack of a judged job.

    Args:
        day: Its day, as YYYY-MM-DD; that of the last entry of the log where none is given.
    Returns:
        Cover, drawings of each side, what is where, loads, advice, circuits, water and gas, canopy, care, what was
        tested and signed, what was built otherwise, photos.
    """
    build, job = built(verdict), verdict.job
    when = day_of(day or build.state.handed_over or build.state.last)
    pages = [
        _cover(verdict, build, _handed(build, day)), *_sides(verdict), *_where(verdict), *_loads(verdict),
        *_services(verdict), *_canopy(verdict), _care(verdict, build), *_tested(build), *_as_built(build),
        *photo_pages(build.state.photos, job_file, "Photos of the build"),
    ]  # fmt: skip
    foot = f"{job.name}; {verdict.assembly.shop.name}" + (
        f"; {when.isoformat()}" if when is not None else ""
    )
    bars = gate("pack", verdict, build).bars
    # Every page may be read alone.
    foot += f"; NOT TO BE HANDED OVER: {'; '.join(bars)}" if bars else ""
    return Book(f"Hand-over: {job.name}", foot, tuple(pages))


def _handed(build: Build, day: str) -> str:
    """The day on which it was, or is, handed over, in words; empty while it is not."""
    found = day_of(day or build.state.handed_over)
    return dated(found) if found is not None else ""


def _cover(verdict: Verdict, build: Build, day: str) -> BookPage:
    job = verdict.job
    r = job.vehicle.ratings
    rows = [
        ("vehicle", job.vehicle.name), ("for", job.brief.customer or "not entered"), ("handed over", day or "not yet"),
        ("revision built", job.releases[-1].revision if job.releases else "not released"),
        ("gross rating", f"{r.gross:g} kg, {r.standard}" + (f", certificate {r.certificate}" if r.certificate else "")),
    ]  # fmt: skip
    signed: list[tuple[str, ...]] = [
        (s.what, s.name, s.date, s.number) for s in job.services.signatures
    ]
    signed += [(e.about, e.words or e.by, e.at[:10], e.number) for e in build.state.signed]
    serials = [(e.about, e.number, e.words) for e in build.state.noted if e.kind == "serial"]
    tables = [
        Table(("", ""), tuple(rows)), Table(("signed for", "by", "on", "licence or certificate"), tuple(signed)),
        Table(("serial number of", "number", ""), tuple(serials)),
    ]  # fmt: skip
    open_ = (
        f"Still open: {verdict.count('stop')} stop, {verdict.count('look')} look."
        if verdict.count("stop") or verdict.count("look")
        else ""
    )
    return BookPage(
        f"{job.name}: your vehicle", (*CAUTIONS, *((open_,) if open_ else ())), (), tuple(tables)
    )


def _sides(verdict: Verdict) -> list[BookPage]:
    """Every side as built, the slice under it."""
    pages = []
    for side, words in WORDS.items():
        upper, lower = ground.frame(verdict.assembly, side, whole=side != "rear")
        papers = (
            Paper("", ground.elevation(verdict.assembly, side), upper),
            Paper("", ground.slice_scene(verdict.assembly, side), lower),
        )
        pages.append(BookPage(f"{words}, as built", (), papers))
    return pages


def _where(verdict: Verdict) -> list[BookPage]:
    """What is where, on the drawing and as a list."""
    found, job = verdict.access, verdict.job
    pages = []
    for side, words in WORDS.items():
        if job.goods and any(s.side == side for s in found.spaces):
            drawn, frame = access_scene.where_is_what(
                verdict.assembly, job.goods, found.stowed, found.spaces, side
            )
            pages.append(BookPage(f"Where is what: {words}", (), (Paper("", drawn, frame),)))
    rows = tuple(
        (
            g.name,
            str(g.count),
            f"{g.kg:.1f}",
            found.spaces[w.space].name if w.space >= 0 else w.where,
        )
        for g, w in zip(job.goods, found.stowed, strict=True)
    )
    if rows:
        pages.append(
            BookPage("Packing list", (), (), (Table(("what", "pieces", "kg", "where"), rows),))
        )
    return pages


def _loads(verdict: Verdict) -> list[BookPage]:
    """The load sheet's tables, and what to leave at home."""
    sheet = load_sheet.build(verdict, day="-")
    wanted = (
        "Every scenario",
        "Axles",
        "Vehicle and ratings",
        "Sides",
        "Towing",
        "Weighings",
        "Springs",
    )
    parts = [s for s in sheet.sections if s.rows and s.title.startswith(wanted)]
    tables = tuple(_table(s) for s in parts)
    return [BookPage("Loads", advice(verdict), (), tables)]


def _table(section: Section) -> Table:
    wide = max(len(r) for r in section.rows)
    heads = (*section.heads, *[""] * (wide - len(section.heads)))[:wide]
    return Table(
        (section.title + (f": {heads[0]}" if heads[0] else ""), *heads[1:]),
        tuple((*r, *[""] * (wide - len(r))) for r in section.rows),
    )


def advice(verdict: Verdict) -> tuple[str, ...]:
    """What may still be taken along in each scenario, and what to leave at home where it is too much.

    Returns: A sentence for each scenario: the room that the tightest of all limits leaves; else what it is over by, and
        the goods that bring most.
    """
    found = []
    names = dict(board.ROWS)
    for one, s in zip(verdict.assembly.job.scenarios, verdict.loads.scenarios, strict=True):
        words = f"{s.name}: water {100 * one.water:.0f} %, fuel {100 * one.fuel:.0f} %. "
        least = board.room(s)
        if least is None:
            found.append(
                f"{words}No limit is entered: nothing may be said of what may still come along."
            )
            continue
        room, by = least[0], names[least[1]].lower()
        if room >= 0:
            found.append(
                f"{words}{math.floor(room)} kg at the most may still come along: then the limit '{by}' is reached."
            )
            continue
        heavy = sorted(
            (g for g in verdict.job.goods if not g.only or one.id in g.only), key=lambda g: -g.kg
        )
        home, kg = [], 0.0
        for good in heavy:
            if kg >= -room:
                break
            home.append(good.name)
            kg += good.kg
        leave = f" Leave at home: {', '.join(home)} ({kg:.0f} kg)." if home else ""
        fluids = verdict.services.fluids
        water = sum(t.holds for t in fluids.tanks) * one.water if fluids is not None else 0.0
        drain = f" Or carry {min(water, -room):.0f} l less water." if water > 1 else ""
        found.append(
            f"{words}Over by {math.ceil(-room)} kg: {by}. Do not drive it so.{leave}{drain}"
        )
    return tuple(found)


def _services(verdict: Verdict) -> list[BookPage]:
    s, pages = verdict.services, []
    if s.circuits:
        rows = tuple(
            (
                c.name,
                f"{c.amps:.1f} A",
                c.section,
                f"{c.fuse:g} A",
                f"{c.metres:.1f} m",
                f"{c.drop:.2f} V",
            )
            for c in s.circuits
        )
        paper = plan_paper(verdict)
        heads = ("circuit", "draws", "cable", "fuse", "length", "loses")
        pages.append(BookPage("Circuits and fuses", ("A blown fuse has a reason: find it before you put in another "
                                                     "of the same.",),
                              (Paper("", paper.scene, paper.frame),), (Table(heads, rows),)))  # fmt: skip
    if s.fluids is not None and (s.fluids.tanks or s.fluids.runs):
        tanks = tuple(
            (t.name, f"{t.holds:.0f} l", f"{t.usable[0]:.0f} l", f"{60 * t.rate:.1f} l/min")
            for t in s.fluids.tanks
        )
        runs = tuple(
            (r.sort, r.name, f"{r.bore:g} mm", f"{r.way.metres:.1f} m") for r in s.fluids.runs
        )
        words = ["Drinking water through food-grade hose only. Gas: close the bottle on the road."]
        if s.fluids.gas_kg:
            words.append(f"{s.fluids.gas_kg:.1f} kg of gas burn {s.fluids.gas_hours:.1f} h.")
        pages.append(BookPage("Water and gas", tuple(words), (), (
            Table(("tank", "holds", "usable, level", "by gravity"), tanks), Table(("", "run", "bore", "length"), runs),
        )))  # fmt: skip
    return pages


def _canopy(verdict: Verdict) -> list[BookPage]:
    text = canopy_sheet(verdict)
    return (
        [BookPage("How the canopy comes off and on", tuple(x for x in text.splitlines()[1:] if x))]
        if text
        else []
    )


def _care(verdict: Verdict, build: Build) -> BookPage:
    torque = tuple(
        (
            c.words,
            f"{c.limit:g} N·m",
            ", ".join(f"{x:g}" for x in e.figures) if (e := build.state.checks.get(c.key)) else "",
            "",
            "",
        )
        for c in build.checks
        if c.group == "Torque" and c.limit is not None
    )
    heads = ("bolts", "to", "as logged", *(f"at {km:,} km" for km in RETORQUE))
    visits = [(e.at[:10], e.about, e.words) for e in build.state.visits]
    day = build.state.to_visit(verdict.job.plan.recheck)
    if day:
        visits.append((day, "planned", ""))
    return BookPage(
        f"Care of {verdict.job.vehicle.name}",
        CARE,
        (),
        (Table(heads, torque), Table(("visit", "for", "found"), tuple(visits))),
    )


def _tested(build: Build) -> list[BookPage]:
    rows = told(CHECKS, check_rows(build))
    return (
        [
            BookPage(
                "What was tested",
                (),
                (),
                (Table(tuple(h.lower() for h in heads(CHECKS)), rows),),
            )
        ]
        if rows
        else []
    )


def _as_built(build: Build) -> list[BookPage]:
    rows = tuple(
        (e.about, e.number, f"{e.was:g}" if e.was is not None else "", f"{e.value:g}" if e.value is not None else
         ", ".join(f"{x:g}" for x in e.figures), e.words, e.by, e.at[:10])
        for e in build.state.deviations.values()
    )  # fmt: skip
    return (
        [
            BookPage(
                "Built otherwise than drawn",
                (),
                (),
                (Table(("what", "size", "drawn", "built", "why", "by", "on"), rows),),
            )
        ]
        if rows
        else []
    )


def photo_pages(photos: tuple[Entry, ...], job_file: Path | None, title: str) -> list[BookPage]:
    """Photos, so many on a page, in the order of the log; one that is missing is named."""
    pages = []
    for n in range(0, len(photos), PER_PAGE):
        images, lost = [], []
        for e in photos[n : n + PER_PAGE]:
            path = path_of(job_file, e.file)
            if path is None:
                lost.append(e.file)
            else:
                images.append(Image(str(path), f"{e.taken or e.at[:10]} {e.words}".strip()))
        words = (f"Missing beside the job: {', '.join(lost)}.",) if lost else ()
        pages.append(BookPage(title, words, (), (), tuple(images)))
    return pages
