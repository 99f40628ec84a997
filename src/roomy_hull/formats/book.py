"""The book: everything that a workshop needs to build a job, page by page, from the same parts that are cut."""

import msgspec

from roomy_hull.core.parts import BarPart, Hardware, SheetPart, short_name
from roomy_hull.drawing.paper import Paper
from roomy_hull.drawing.scenes import cut as cut_scene
from roomy_hull.drawing.scenes.folded import frame_of
from roomy_hull.formats.book_parts import (
    BookPage,
    Order,
    Table,
    drawn_apart,
    joint_rows,
    part_page,
    stock_words,
)
from roomy_hull.making.cutlist import CutList
from roomy_hull.making.flats import Blank
from roomy_hull.making.gap import Gap
from roomy_hull.making.sheets import PlacedBlank
from roomy_hull.making.works import Work, Works, fasteners, numbered, welded

CAUTION = (
    "Figures are for planning: prove every bend with a test bend and every size on the vehicle. Sharp edges, hot work and "
    "lifting hurt people; follow your local rules. Roomy Hull computes and warns; it never certifies."
)


def turned_words(p: PlacedBlank) -> str:
    """How a blank lies on its sheet against its own drawing."""
    return ("", "turned", "turned about", "turned by three quarters")[p.turned + 2 * p.about]


class Book(msgspec.Struct, frozen=True):
    """The whole book; every page carries its foot."""

    title: str
    foot: str
    pages: tuple[BookPage, ...]


def build(works: Works, cut: CutList, gaps: tuple[Gap, ...], order: Order) -> Book:
    """Write the book.

    Returns: Cover and shopping, sheets, bars, then each owner: put together, its joints, and each of its parts.
    """
    numbers = numbered(works.parts)
    flats = {id(b.part): b for b in cut.blanks}
    pages = [_cover(works, cut, order), _shopping(works, cut)]
    for n, sheet in enumerate(cut.nest.sheets, 1):
        paper = Paper("", cut_scene.sheet_scene(sheet), cut_scene.sheet_frame(sheet))
        rows = tuple(
            (str(numbers.get(id(p.blank.part), 0)), p.blank.part.name, f"{p.x:.0f}", f"{p.y:.0f}",
             turned_words(p))
            for p in sheet.placed
        )  # fmt: skip
        where = "bought" if sheet.bought else "an offcut of the shop's"
        pages.append(
            BookPage(f"Sheet {n}: {sheet.thickness:g} mm {sheet.material.key}, {sheet.length:g} × {sheet.width:g}",
                     (f"{where.capitalize()}; {sheet.used():.0%} becomes parts; dashed is worth keeping.",), (paper,),
                     (Table(("no.", "part", "x", "y", ""), rows),))
        )  # fmt: skip
    pages += _bars(works, cut, numbers)
    for work in works.works:
        pages += _work(work, cut, flats, numbers)
    pages.append(_gaps(gaps))
    foot = f"{order.job}, revision {order.revision or 'not released'}, {order.day}; sizes in mm"
    foot = "; ".join((*order.warnings, foot))
    return Book(order.job, foot, tuple(p for p in pages if p is not None))


def _cover(works: Works, cut: CutList, order: Order) -> BookPage:
    made = sum(p.count for p in works.parts if not isinstance(p, Hardware))
    rows = (
        ("parts cut and sawn", str(made)), ("different blanks", str(len(cut.blanks))),
        ("sheets", str(len(cut.nest.sheets))), ("bars", str(len(cut.bars.bars))),
        ("bends", str(sum(len(b.bends) * b.part.count for b in cut.blanks))),
        ("weld", f"{welded(works.joints) / 1000:.1f} m"),
        *((word, str(count)) for word, count in fasteners(works.joints).items()),
    )  # fmt: skip
    units = tuple(
        (w.title, str(sum(p.count for p in w.parts if not isinstance(p, Hardware))))
        for w in works.works
    )
    return BookPage(
        f"{order.job}: to build",
        (f"Revision {order.revision or 'not released'}, {order.day}.", *order.warnings, CAUTION,
         "On a flat, the side that is seen is the outside of the folded part: bends up come towards you."),
        (), (Table(("what", "how much"), rows), Table(("unit", "pieces"), units)),
    )  # fmt: skip


def _shopping(works: Works, cut: CutList) -> BookPage:
    sheets: dict[str, int] = {}
    for s in cut.nest.sheets:
        if s.bought:
            key = f"{s.thickness:g} mm {s.material.key}, {s.length:g} × {s.width:g}"
            sheets[key] = sheets.get(key, 0) + 1
    bars: dict[str, int] = {}
    for b in cut.bars.bars:
        if b.bought:
            key = f"{b.section} {b.material.key}, {b.length:g}"
            bars[key] = bars.get(key, 0) + 1
    got = [(w.title, p) for w in works.works for p in w.parts if isinstance(p, Hardware)]
    rows = tuple(
        (str(p.count), p.name + (f", {p.metres:g} m each" if p.metres else ""), t) for t, p in got
    )
    metal = tuple((str(n), key) for key, n in (*sheets.items(), *bars.items()))
    small = tuple((str(n), word) for word, n in fasteners(works.joints).items())
    first = Table(("no.", "sheet, bar"), (*metal, *small))
    return BookPage("To buy", (), (), (first, Table(("no.", "thing", "for"), rows)))


def _bars(works: Works, cut: CutList, numbers: dict[int, int]) -> list[BookPage]:
    """How bars are sawn, and what is drilled into them."""
    found = []
    groups: dict[str, list[int]] = {}
    for n, bar in enumerate(cut.bars.bars):
        groups.setdefault(f"{bar.section} {bar.material.key}", []).append(n)
    for words, some in groups.items():
        bars = tuple(cut.bars.bars[n] for n in some)
        rows = tuple(
            (str(n + 1), name, f"{long:.1f}", ends or "square") for n, bar in zip(some, bars, strict=True)
            for name, long, ends in bar.pieces
        )  # fmt: skip
        paper = Paper("", cut_scene.bars_scene(bars), cut_scene.bars_frame(bars))
        found.append(BookPage(f"Saw: {words}", ("Lengths from the one longest point to the other.",), (paper,),
                              (Table(("bar", "piece", "length", "ends"), rows),)))  # fmt: skip
    drilled = [p for p in works.parts if isinstance(p, BarPart) and p.drilled]
    holes = tuple(
        (str(numbers[id(p)]), p.name, h.words, f"{h.along:.1f}", f"{h.across:.1f}",
         f"ø {h.diameter:g}" + (f" × {h.length:g} slot" if h.length else ""))
        for p in drilled for h in p.drilled[:MOST_HOLES]
    )  # fmt: skip
    if holes:
        words = (
            "Along from the beginning, across from the edge at 0; a long row goes on at its step."
        )
        heads = ("no.", "bar", "side", "along", "across", "hole")
        found.append(BookPage("Drill bars", (words,), (), (Table(heads, holes),)))
    return found


MOST_HOLES = 60


def _work(
    work: Work, cut: CutList, flats: dict[int, Blank], numbers: dict[int, int]
) -> list[BookPage]:
    """An owner put together, its joints, and a page for each of its sheet parts."""
    rows = tuple(
        (str(numbers[id(p)]), str(p.count), short_name(p), stock_words(p)) for p in work.parts
    )  # fmt: skip
    scene = drawn_apart(work, numbers)
    papers = (Paper("", scene, frame_of(scene)),) if scene else ()
    loose = (
        (f"Nothing holds: {', '.join(work.alone)}. Ask before you build.",) if work.alone else ()
    )
    pages = [
        BookPage(
            f"{work.title}: put together",
            loose,
            papers,
            (Table(("no.", "pcs", "part", "of"), rows),),
        )
    ]
    joints = joint_rows(work, numbers)
    if joints:
        pages.append(
            BookPage(
                f"{work.title}: joints",
                (),
                (),
                (Table(("of", "to", "how", "length", "with"), joints),),
            )
        )
    for part in work.parts:
        flat = flats.get(id(part))
        if isinstance(part, SheetPart) and flat is not None:
            pages.append(part_page(part, flat, cut.bends(flat), numbers[id(part)], work.title))
    return pages


def _gaps(gaps: tuple[Gap, ...]) -> BookPage:
    rows = tuple(
        (g.title, f"{g.chain.nominal:.1f}", f"± {g.chain.sigma:.1f}", f"{g.chain.worst:.1f}", g.binds())
        for g in gaps[:60]
    )  # fmt: skip
    words = "The likeliest to bind first; the worst case has every size off by three sigma at once."
    heads = ("gap", "as drawn", "sigma", "worst", "binds")
    return BookPage("Gaps to watch", (words,), (), (Table(heads, rows),))
