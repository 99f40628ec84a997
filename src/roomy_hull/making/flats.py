"""From a folded sheet part to its flat blank: outline, bend lines, holes."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

import msgspec

from roomy_hull.core import lazily
from roomy_hull.core.folded import Cutout, Face, Hole, ends_of, shoelace, to_corners
from roomy_hull.core.parts import SheetPart
from roomy_hull.core.unfolding import BendLine

if TYPE_CHECKING:
    import shapely
else:
    shapely = lazily.module("shapely")

Point = tuple[float, float]


class Blank(msgspec.Struct, frozen=True):
    """A flat blank, its lower left corner at the origin; `number` is its part's in the list, 0 without one. [mm]"""

    part: SheetPart
    length: float
    width: float
    outline: tuple[Point, ...]
    bends: tuple[BendLine, ...]
    holes: tuple[Hole, ...]
    cutouts: tuple[Cutout, ...]
    number: int = 0


def blank(part: SheetPart) -> Blank:
    """Unfold a sheet part.

    Args:
        part: The part, by outside sizes. [mm]
    Returns:
        Outline counter-clockwise, relieved wherever two flanges meet, bend centre lines, openings. Flat length =
        outside legs + BA - 2(R+T) at each right angle (Machinery's Handbook). A cut-out that reaches the edge is a
        notch of the outline. [mm]
    """
    if sizeless(part):
        return Blank(part, min(part.length, part.width, 0.0), 0.0, ((0.0, 0.0),) * 3, (), (), ())
    flat = part.flat()
    outline, cutouts = _notched(flat.outline, flat.cutouts)
    xs, ys = zip(*outline, strict=True)
    x, y = -min(xs), -min(ys)
    return Blank(
        part,
        max(xs) + x,
        max(ys) + y,
        tuple((p[0] + x, p[1] + y) for p in outline),
        tuple(
            BendLine(
                (b.a[0] + x, b.a[1] + y), (b.b[0] + x, b.b[1] + y), b.angle, b.radius
            ) for b in flat.bends
        ),
        tuple(Hole(h.x + x, h.y + y, h.diameter) for h in flat.holes),
        tuple(Cutout(c.x + x, c.y + y, c.length, c.width, c.radius) for c in cutouts),
    )  # fmt: skip


def _notched(
    outline: tuple[Point, ...], cutouts: tuple[Cutout, ...]
) -> tuple[tuple[Point, ...], tuple[Cutout, ...]]:
    """Take cut-outs that reach the edge out of the outline; the others stay openings."""
    if not cutouts:
        return outline, cutouts
    xs, ys = zip(*outline, strict=True)
    low, high = (min(xs), min(ys)), (max(xs), max(ys))
    inside = all(
        c.x > low[0] and c.y > low[1] and c.x + c.length < high[0] and c.y + c.width < high[1]
        for c in cutouts
    )
    if inside and len(outline) == 4:
        return outline, cutouts  # a plain sheet: nothing to be read for that
    whole = shapely.Polygon(outline)
    rows = [(c, shapely.box(c.x, c.y, c.x + c.length, c.y + c.width)) for c in cutouts]
    edge = [hole for _c, hole in rows if not whole.contains_properly(hole)]
    if not edge:
        return outline, cutouts
    rest = whole.difference(shapely.union_all(edge))
    if rest.geom_type != "Polygon" or rest.is_empty or rest.interiors:
        return outline, cutouts  # it falls apart: judged as a part without a size
    ring = shapely.geometry.polygon.orient(rest).exterior.coords[:-1]
    return tuple((x, y) for x, y in ring), tuple(
        c for c, hole in rows if whole.contains_properly(hole)
    )


def bend_words(one: Blank) -> str:
    """Say how a blank is bent, as it lies: how many up and down, by how much, and the inside radius; empty for none."""
    if not one.bends:
        return ""
    counts: dict[tuple[str, float], int] = {}
    for b in one.bends:
        key = ("up" if b.angle > 0 else "down", abs(b.angle))
        counts[key] = counts.get(key, 0) + 1
    rows = [
        f"{n} bend{'s' if n > 1 else ''} {way} {angle:g}°" for (way, angle), n in counts.items()
    ]
    return f"{', '.join(rows)}, inside R {one.bends[0].radius:g}"


def sizeless(part: SheetPart) -> bool:
    """Whether the bends leave nothing of some face of a part."""
    if min(part.length, part.width) <= 0:
        return True
    if part.shape is None:  # a pan, by its sizes: quicker
        s = part.setback()
        ends = (part.left, part.right), (part.front, part.back)
        left = [
            size - s * sum(f > 0 for f in pair)
            for size, pair in zip((part.length, part.width), ends, strict=True)
        ]
        return min(left) <= 0 or any(0 < f <= s for pair in ends for f in pair)

    def walk(face: Face) -> bool:
        return shoelace(face.ring) <= 0 or any(walk(b.face) for b in face.bends)

    return walk(part.faces())


def flanges(part: SheetPart) -> list[float]:
    """The outside height of everything that is bent on, from its bend outwards. [mm]"""
    if part.shape is None:
        return [f for f in (part.left, part.right, part.front, part.back) if f > 0]
    found: list[float] = []

    def walk(face: Face) -> None:
        for bend in face.bends:
            ys = [y for _x, y in to_corners(bend.face, bend, part.thickness)]
            found.append(max(ys) - min(ys))
            walk(bend.face)

    walk(part.faces())
    return found


def least_flange(part: SheetPart) -> float:
    """The least outside flange a common press tool can hold: 4·T + R (common practice). [mm]"""
    return 4 * part.thickness + part.radius()


def wanted_to_bend(part: SheetPart) -> float:
    """How far a hole's edge is to be from a bend's tangent line: 2·T + R (common practice). [mm]"""
    return 2 * part.thickness + part.radius()


def hole_to_bend(part: SheetPart) -> float | None:
    """The least distance from a hole's edge to a bend's tangent line in its face, if there is any. [mm]"""
    if part.shape is None and not part.holes and not part.drilled:
        return None
    gaps: list[float] = []

    def walk(face: Face, bent: bool) -> None:
        lines = [ends_of(face, b) for b in face.bends]
        lines += [(face.ring[0], face.ring[1])] if bent else []
        for (ax, ay), (bx, by) in lines:
            long = math.hypot(bx - ax, by - ay)
            for h in face.holes:
                inside = ((bx - ax) * (h.y - ay) - (by - ay) * (h.x - ax)) / long
                gaps.append(inside - h.diameter / 2)
        for bend in face.bends:
            walk(bend.face, bent=True)

    walk(part.faces(), bent=False)
    return min(gaps) if gaps else None


def overlaps(part: SheetPart) -> float:
    """The area that faces and bends of a part take twice on the flat; 0 for what can be cut. [mm²]"""
    if part.shape is None or not part.shape.bends:
        return 0.0  # a pan's flanges lie apart, whatever their sizes
    pieces = [shapely.Polygon(p) for p in part.flat().pieces]
    return float(sum(p.area for p in pieces) - shapely.union_all(pieces).area)


def fits(one: Blank, size: tuple[float, float], trim: float) -> bool:
    """Say whether a blank lies on a sheet at all."""
    return lies_on((one.length, one.width), size, trim, grain=one.part.grain)


def lies_on(
    flat: tuple[float, float], size: tuple[float, float], trim: float, *, grain: bool
) -> bool:
    """Say whether a rectangle lies on a sheet within its trim; one with a grain only as it is. [mm]"""
    a, b = size[0] - 2 * trim, size[1] - 2 * trim
    straight = flat[0] <= a and flat[1] <= b
    return straight or (not grain and flat[1] <= a and flat[0] <= b)
