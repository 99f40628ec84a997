"""Shop drawings of what is cut: a blank with its bends and sizes, a nested sheet, sawn bars."""

import itertools

import msgspec

from roomy_hull.core.parts import short_name
from roomy_hull.core.primitives import (
    Disc,
    Outline,
    Rect,
    Scene,
    Size,
    Stroke,
    Words,
    line,
    rectangle,
)
from roomy_hull.core.units import System, exact
from roomy_hull.drawing.scenes.etching import etched, spot
from roomy_hull.making.bars import Bar
from roomy_hull.making.bending import BendPlan
from roomy_hull.making.flats import Blank
from roomy_hull.making.marking import Marking, hashes
from roomy_hull.making.sheets import PlacedBlank, Sheet

BAR_STEP = 190.0
"""Distance from one drawn bar to the next; bars are drawn taller than they are. [mm]"""


def blank_frame(blank: Blank) -> Rect:
    """The stretch that shows a blank with its sizes around it. [mm]"""
    pad = _pad(blank)
    across, along = _marks(blank)
    left, low = (3.9 if _tight(along, blank) else 2.1), (3.2 if _tight(across, blank) else 2.6)
    return (-pad * left, -pad * low, blank.length + pad * 1.1, blank.width + pad * 1.1)


def _marks(blank: Blank) -> tuple[list[float], list[float]]:
    """Where sizes begin and end along a blank and across it: its ends and its bends. [mm]"""
    across = sorted({b.a[0] for b in blank.bends if abs(b.a[0] - b.b[0]) < 1e-6})
    along = sorted({b.a[1] for b in blank.bends if abs(b.a[1] - b.b[1]) < 1e-6})
    return [0.0, *across, blank.length], [0.0, *along, blank.width]


def _tight(marks: list[float], blank: Blank) -> bool:
    """Whether some size is too short for its figure."""
    return any(b - a < TIGHT * max(blank.length, blank.width) for a, b in itertools.pairwise(marks))


TIGHT = 0.24
"""A size shorter than this part of its blank has its figure beside it."""


def _pad(blank: Blank) -> float:
    """The room for one row of sizes."""
    return max(blank.length, blank.width * 1.6) * 0.1


def blank_strokes(blank: Blank) -> Scene:
    """Describe a flat blank: what is cut, bent and etched, as its DXF has it.

    Args:
        blank: The blank, its lower left corner at the origin. [mm]
    Returns: What `cut_strokes` says, and the words that are etched. [mm]
    """
    return (*cut_strokes(blank), *etched(blank))


def cut_strokes(blank: Blank) -> Scene:
    """Describe what is cut and bent of a flat blank, for its picture and its DXF alike.

    Args:
        blank: The blank, its lower left corner at the origin. [mm]
    Returns: Outline, holes, openings, bend centre lines. [mm]
    """
    found: list[Stroke] = [Outline("blank", blank.outline)]
    for hole in blank.holes:
        found.append(Disc("blank hole", (hole.x, hole.y), hole.diameter / 2))
    for c in blank.cutouts:
        radius = min(c.radius, c.length / 2, c.width / 2)
        corners = (
            (c.x, c.y),
            (c.x + c.length, c.y),
            (c.x + c.length, c.y + c.width),
            (c.x, c.y + c.width),
        )
        found.append(Outline("blank hole", corners, radius=radius))
    for bend in blank.bends:
        found.append(line("bend up" if bend.angle > 0 else "bend down", bend.a, bend.b))
    return tuple(found)


def placed_strokes(placed: PlacedBlank, *, etching: bool = True) -> Scene:
    """Describe a blank where it lies on its sheet, as it is turned, with or without what is etched. [mm]"""
    at = placed.at
    found: list[Stroke] = []
    for stroke in cut_strokes(placed.blank):
        if isinstance(stroke, Outline):
            role = "nested" if stroke.role == "blank" else stroke.role
            points = tuple(at(p) for p in stroke.points)
            found.append(msgspec.structs.replace(stroke, role=role, points=points))
        elif isinstance(stroke, Disc):
            found.append(msgspec.structs.replace(stroke, centre=at(stroke.centre)))
    words = etched(placed.blank) if etching else []
    quarters = (bool(words and words[0].upright) + placed.turned + 2 * placed.about) % 4
    # Past a quarter the words are still read the right way up: the last line's place is the first one's.
    places = [at(w.at) for w in words][:: -1 if quarters > 1 else 1]
    for w, place in zip(words, places, strict=True):
        found.append(msgspec.structs.replace(w, at=place, upright=quarters % 2 == 1))
    return tuple(found)


def sheet_strokes(sheet: Sheet, *, etching: bool = True) -> Scene:
    """Describe a nested sheet for its picture and its DXF alike: its edge, then every blank in place. [mm]

    A picture leaves out what is etched: it says it beside the drawing, in letters that can be read.
    """
    edge = ((0.0, 0.0), (sheet.length, 0.0), (sheet.length, sheet.width), (0.0, sheet.width))
    found: list[Stroke] = [Outline("stock", edge)]
    for placed in sorted(sheet.placed, key=lambda p: p.inside >= 0):
        found += placed_strokes(placed, etching=etching)
    return tuple(found)


MARK, WARNING, MARK_WIDE = 4.0, 40.0, 0.62
"""The most a marking's letters are high, and those of a warning; how wide each is for its height. [mm]"""


def marked(marking: Marking, blanks: tuple[Blank, ...], size: tuple[float, float]) -> Scene:
    """What a cut file says of itself, within what it shows, so that its extent stays: on a layer that nobody cuts.

    Args:
        size: Length and width of what is shown. [mm]
    Returns: A line each; the hash of every part, by which it is known whether the file is still the current one. [mm]
    """
    (long, wide), warnings = size, marking.warnings
    rows = [(words, WARNING) for words in warnings]
    rows += [(words, MARK) for words in marking.lines[len(warnings) :]]
    rows += [(f"part {one}", MARK) for one in hashes(blanks)]
    # What is to be seen is seen from afar; all of it stays within what is shown.
    high = [min(most, 0.9 * long / (MARK_WIDE * len(words))) for words, most in rows]
    share = min(1.0, 0.9 * wide / (1.8 * sum(high)))
    found, top = [], wide * 0.95
    for (words, _most), size_ in zip(rows, high, strict=True):
        top -= 1.8 * size_ * share
        at = (long * 0.05, top + 0.9 * size_ * share)
        found.append(Words("mark", at, words, size_ * share, fixed=False, anchor="left"))
    return tuple(found)


def bend_numbers(blank: Blank, plan: BendPlan) -> list[Stroke]:
    """Number the bends of a blank as they are made, with way and angle. [mm]"""
    found: list[Stroke] = []
    size = max(8.0, min(44.0, min(blank.length, blank.width) / 12))
    for n, step in enumerate(plan.steps, 1):
        bend = blank.bends[step.bend]
        middle = ((bend.a[0] + bend.b[0]) / 2, (bend.a[1] + bend.b[1]) / 2)
        words = f"{n}  {'up' if bend.angle > 0 else 'down'} {abs(bend.angle):g}°"
        upright = abs(bend.a[0] - bend.b[0]) < abs(bend.a[1] - bend.b[1])
        off = size * 0.8
        at = (middle[0] - off, middle[1]) if upright else (middle[0], middle[1] + off)
        found.append(Words("bend words", at, words, size, fixed=False, upright=upright))
    return found


def blank_scene(blank: Blank, plan: BendPlan | None = None, system: System = "metric") -> Scene:
    """Draw a flat blank as on a shop drawing.

    Args:
        blank: The blank, its lower left corner at the origin. [mm]
        plan: In which order it is bent.
    Returns:
        Outline, openings, holes, bend centre lines, overall sizes, and every bend's distance from the blank's left
        and lower edges. [mm]
    """
    numbers = bend_numbers(blank, plan) if plan is not None else []
    return (*cut_strokes(blank), *_sizes(blank, system), *numbers)


def _sizes(blank: Blank, system: System) -> list[Stroke]:
    """Overall sizes and bend positions, with their extension lines."""
    pad = _pad(blank)
    found: list[Stroke] = []
    near, far = -pad * 0.75, -pad * 1.65
    for marks, is_x in zip(_marks(blank), (True, False), strict=True):
        end = marks[-1]
        # Short sizes are written beside their arrows: their row is the outer one, where that is free.
        row, out = (far, near) if _tight(marks, blank) else (near, far)
        if len(marks) == 2:
            row = out = near
        else:
            found += [_size(a, b, row, system, is_x=is_x) for a, b in itertools.pairwise(marks)]
        found.append(_size(0.0, end, out, system, is_x=is_x))
        for m in marks:
            low = (min(out, row) if m in (0.0, end) else row) - pad * 0.1
            ends = ((m, -pad * 0.1), (m, low)) if is_x else ((-pad * 0.1, m), (low, m))
            found.append(line("extension", *ends))
    return found


def _size(a: float, b: float, out: float, system: System, *, is_x: bool) -> Size:
    """One size to cut by, below the blank or left of it."""
    text = exact(b - a, system)
    return Size("shop size", (a, out), (b, out), text=text) if is_x else Size(
        "shop size", (out, a), (out, b), text=text
    )  # fmt: skip


def sheet_frame(sheet: Sheet) -> Rect:
    """The stretch that shows a whole sheet. [mm]"""
    pad = sheet.length * 0.04
    return (-pad, -pad, sheet.length + pad, sheet.width + pad)


ROOMY = 260.0
"""A blank that is narrower is named without what it belongs to. [mm]"""
NAMED = 24.0
"""What a letter of a name takes on a sheet's picture. [mm]"""


def sheet_scene(sheet: Sheet, system: System = "metric") -> Scene:
    """Draw a nested sheet.

    Args:
        sheet: The sheet, its lower left corner at the origin. [mm]
    Returns: Sheet edge, every blank in place with its bends and its name. [mm]
    """
    found = list(sheet_strokes(sheet, etching=False))
    for x, y, long, wide in sheet.left:
        found.append(rectangle("kept", x, y, x + long, y + wide))
        found.append(
            Words(
                "detail words",
                (x + long / 2, y + wide / 2),
                f"keep {exact(long, system, places=0)} × {exact(wide, system, places=0)}",
                11,
                fit=long - 12,
            )
        )
    for placed in sheet.placed:
        part = placed.blank.part
        name = part.name if min(placed.length, placed.width) > ROOMY else short_name(part)
        long = min(NAMED * len(name), placed.blank.length * 0.6)
        where = spot(placed.blank, long, NAMED, holes=False)
        aside = where.at != (placed.blank.length / 2, placed.blank.width / 2)
        upright = aside and where.upright != placed.turned
        fit = (placed.width if upright else placed.length) - 12
        found.append(Words("nested name", placed.at(where.at), name, 11, fit=fit, upright=upright))
    return tuple(found)


def bars_frame(bars: tuple[Bar, ...]) -> Rect:
    """The stretch that shows some bars below each other. [mm]"""
    longest = max((b.length for b in bars), default=1.0)
    return (-longest * 0.03, -BAR_STEP * max(len(bars), 8), longest * 1.03, BAR_STEP * 0.6)


def bars_scene(bars: tuple[Bar, ...], system: System = "metric") -> Scene:
    """Draw how bars are sawn: one strip each, pieces in order, offcut last. [mm]"""
    found: list[Stroke] = []
    for n, bar in enumerate(bars):
        k = -BAR_STEP * (n + 0.5)
        found.append(rectangle("stock", 0, k - 55, bar.length, k + 55))
        x = 0.0
        for name, length, _ends in bar.pieces:
            found.append(rectangle("nested", x, k - 55, x + length, k + 55))
            words = f"{exact(length, system, places=0)}  {name.split(': ')[-1]}"
            found.append(Words("nested name", (x + length / 2, k), words, 11, fit=length - 20))
            x += length + 3.0
        if bar.offcut > 250:
            found.append(Words("detail words", (bar.length - bar.offcut / 2, k),
                               f"offcut {exact(bar.offcut, system, places=0)}", 11, fit=bar.offcut - 20))  # fmt: skip
    return tuple(found)
