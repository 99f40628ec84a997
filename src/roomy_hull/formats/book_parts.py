"""What the book is made of: pages, the drawing of one part, joints in words, labels."""

import msgspec

from roomy_hull.core.parts import BarPart, Hardware, Part, SheetPart, short_name
from roomy_hull.core.primitives import Scene
from roomy_hull.core.units import System, exact
from roomy_hull.drawing.paper import Paper
from roomy_hull.drawing.scenes import cut as cut_scene
from roomy_hull.drawing.scenes.folded import Shown, apart, folded_scene, frame_of
from roomy_hull.drawing.scenes.labels import Label, label_papers
from roomy_hull.making.bending import BendPlan
from roomy_hull.making.cutlist import CutList
from roomy_hull.making.flats import Blank
from roomy_hull.making.joints import Joint
from roomy_hull.making.polyhedra import standing
from roomy_hull.making.release import content
from roomy_hull.making.works import Work, Works, numbered


class Table(msgspec.Struct, frozen=True):
    """A table: its heads, its rows."""

    heads: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]


class Image(msgspec.Struct, frozen=True):
    """A photo on a page: its file, and what stands under it."""

    path: str
    words: str


class BookPage(msgspec.Struct, frozen=True):
    """One page: title, sentences, drawings beside one another, tables below or beside them, then photos."""

    title: str
    words: tuple[str, ...] = ()
    papers: tuple[Paper, ...] = ()
    tables: tuple[Table, ...] = ()
    images: tuple[Image, ...] = ()


class Order(msgspec.Struct, frozen=True):
    """What the book is of: the job's name, its revision, its day, and what is still open."""

    job: str
    revision: str
    day: str
    warnings: tuple[str, ...] = ()


def stock_words(part: Part, system: System = "metric") -> str:
    """What a part is of: thickness or section and material; of what is bought, how much."""
    if isinstance(part, SheetPart):
        return f"{part.thickness:g} {part.material.key}"
    if isinstance(part, BarPart):
        return (
            f"{part.section} {part.material.key}, {exact(part.length, system, unit=system == 'us')}"
        )
    return f"bought{f', {part.metres:g} m' if part.metres else ''}"


def drawn_apart(work: Work, numbers: dict[int, int]) -> Scene:
    """Draw an owner's parts apart where they stand, each with its number, without fasteners' holes. [mm]"""
    shown = []
    for part in work.parts:
        if isinstance(part, Hardware):
            continue
        plain = msgspec.structs.replace(part, drilled=())
        for n, pose in enumerate(part.poses):
            shown.append(Shown(tuple(standing(plain, pose)), "" if n else str(numbers[id(part)])))
    return folded_scene(apart(shown))


def joint_rows(
    work: Work, numbers: dict[int, int], system: System = "metric"
) -> tuple[tuple[str, ...], ...]:
    """Joints in words, those between the same parts in one row.

    Args:
        numbers: From `numbered`.
    Returns: Of what, to what, how, how long in all, with how many of what.
    """
    groups: dict[tuple[str, str, str, str], list[Joint]] = {}
    by_name = {p.name: numbers[id(p)] for p in reversed(work.parts)}
    for j in work.joints:
        groups.setdefault((j.one, j.other, j.method, j.fastener), []).append(j)

    def named(name: str) -> str:
        short = name.rsplit(": ", maxsplit=1)[-1]
        return f"{by_name[name]} {short}" if name in by_name else short

    found = []
    for (one, other, method, fastener), some in groups.items():
        long, weld = sum(j.length for j in some), sum(j.welded for j in some)
        spots = sum(len(j.spots) for j in some)
        if method in ("weld", "stitch"):
            how = "weld all along" if weld >= long - 1 else "stitch weld"
            what = (
                f"{exact(weld, system, unit=True, places=0)} of weld, {exact(some[0].throat, system)} throat"
                if some[0].throat
                else f"{exact(weld, system, unit=True, places=0)} of weld"
            )
        elif fastener:
            how, what = method, f"{spots} × {fastener}, holes {exact(some[0].hole, system)}"
        else:
            how, what = method, f"hole {exact(some[0].hole, system)}" if some[0].hole else ""
        found.append((
            named(one),
            "its own edges" if one == other else named(other),
            how,
            exact(long, system, places=0),
            what,
        ))
    return tuple(found)


def part_page(part: SheetPart, flat: Blank, plan: BendPlan, number: int, owner: str) -> BookPage:
    """One sheet part: flat with its sizes, folded, bends in their order, holes.

    Args:
        part: The part, with its holes. [mm]
        plan: In which order it is bent.
    """
    papers = [Paper("flat", cut_scene.blank_scene(flat, plan), cut_scene.blank_frame(flat))]
    if flat.bends:
        scene = folded_scene([Shown(tuple(standing(part)))])
        papers.append(Paper("folded", scene, frame_of(scene)))
    metal, t = part.material, part.thickness
    words = [
        f"{part.count} of {t:g} mm {metal.key}, {part.mass():.2f} kg each, for {owner}. Flat {flat.length:.1f} × "
        f"{flat.width:.1f}; K {metal.k(t):.3f}. Revision mark {content(part)[:8]}."
    ]  # fmt: skip
    if part.grain:
        words.append("Length along the rolling direction.")
    tables = []
    if plan.fault:
        figures = f"{plan.measured:.0f} against {plan.limit:.0f} {plan.unit}"
        words.append(f"It cannot be bent on this brake: {plan.fault} ({figures}). {plan.remedy}")
    elif plan.steps:
        tables.append(
            Table(("bend", "way", "angle", "R", "long", "die", "kN", "punch"), bend_rows(plan))
        )
    holes = tuple((f"{h.x:.1f}", f"{h.y:.1f}", f"ø {h.diameter:g}") for h in flat.holes)
    opens = tuple(
        (
            f"{c.x:.1f}",
            f"{c.y:.1f}",
            f"{c.length:g} × {c.width:g}" + (f" R {c.radius:g}" if c.radius else ""),
        )
        for c in flat.cutouts
    )
    if holes or opens:
        tables.append(Table(("x", "y", "hole from the lower left corner"), (*opens, *holes)))
    return BookPage(f"{number}  {part.name}", tuple(words), tuple(papers), tuple(tables))


def bend_rows(plan: BendPlan, system: System = "metric") -> tuple[tuple[str, ...], ...]:
    """A plan's steps as a table: number, way, angle, radius, length, die, force, punch."""
    return tuple(
        (str(n), ("up" if s.angle > 0 else "down") + (", turned over" if s.flipped else ""), f"{abs(s.angle):g}°",
         exact(s.radius, system), exact(s.length, system), f"V {s.die:g}", f"{s.force:.1f}",
         " + ".join(f"{x:g}" for x in s.punch) or "any")
        for n, s in enumerate(plan.steps, 1)
    )  # fmt: skip


def labels(works: Works, cut: CutList, order: Order) -> tuple[Paper, ...]:
    """A label for every piece that is cut or sawn: part, revision, unit, in which order it is bent."""
    numbers = numbered(works.parts)
    flats = {id(b.part): b for b in cut.blanks}
    rows = []
    for work in works.works:
        for part in work.parts:
            if isinstance(part, Hardware):
                continue
            flat = flats.get(id(part))
            steps = cut.bends(flat).steps if flat is not None else ()
            bends = "bends " + " ".join(str(s.bend + 1) for s in steps) if steps else ""
            mark = f"{order.revision or 'no revision'} {content(part)[:6]}"
            for piece in range(1, part.count + 1):
                code = "|".join((
                    "RH",
                    str(numbers[id(part)]),
                    str(piece),
                    order.revision or "-",
                    work.title,
                    short_name(part),
                    bends,
                ))
                rows.append(
                    Label(f"{numbers[id(part)]}  {short_name(part)}",
                          (work.title, f"{stock_words(part)}  {piece} of {part.count}", mark, *order.warnings, bends), code)
                )  # fmt: skip
    return label_papers(rows, order.job)
