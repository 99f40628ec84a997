"""Fasteners: where they stand on what two parts share, and the holes that they need in both."""

import math
from typing import NamedTuple

import msgspec

from roomy_hull.core.folded import Hole, Point, ends_of, places
from roomy_hull.core.parts import BarHole, BarPart, Hardware, Part, SheetPart
from roomy_hull.making.contacts import BAR_SIDES, Contact, Patch, Rect, Side
from roomy_hull.making.flats import wanted_to_bend


class Drill(NamedTuple):
    """A hole to be put into a piece: which face, where in it, how wide; of a bar which side."""

    piece: tuple[int, int]
    face: int
    x: float
    y: float
    diameter: float


ANYWHERE: Rect = (-math.inf, -math.inf, math.inf, math.inf)


def clear_of_bends(contact: Contact, faces: list[tuple[Side, Part]], diameter: float) -> Rect:
    """Where on what two faces share a hole keeps off the bends of both: edge to tangent line 2·T + R (common practice).

    Args:
        contact: What they share. [mm]
        faces: Both faces, with the parts that they are of.
        diameter: The hole's. [mm]
    Returns: The room for its middle in the patch's directions; without an end where no bend is. [mm]
    """
    x0, y0, x1, y1 = ANYWHERE
    for side, part in faces:
        if side.frame is None or side.sort != "big" or not isinstance(part, SheetPart):
            continue
        need = wanted_to_bend(part) + diameter / 2
        (u, v), (ux, vx), (uy, vy) = (
            side.frame.local(contact.at(*p)) for p in ((0, 0), (1, 0), (0, 1))
        )
        for (ax, ay), (bx, by) in _bend_lines(part, side.face):
            long = math.hypot(bx - ax, by - ay)
            nx, ny = (ay - by) / long, (bx - ax) / long  # into the face
            here = nx * (u - ax) + ny * (v - ay)
            gx, gy = nx * (ux - u) + ny * (vx - v), nx * (uy - u) + ny * (vy - v)
            if abs(gx) > SQUARE:
                at = (need - here) / gx
                x0, x1 = (max(x0, at), x1) if gx > 0 else (x0, min(x1, at))
            elif abs(gy) > SQUARE:
                at = (need - here) / gy
                y0, y1 = (max(y0, at), y1) if gy > 0 else (y0, min(y1, at))
    return x0, y0, x1, y1


SQUARE = 0.999
"""A bend runs along one of the patch's sides where its direction is so near to it."""


def _bend_lines(part: SheetPart, face: int) -> list[tuple[Point, Point]]:
    """The tangent lines of the bends at one of a sheet's flat stretches, the face to their left. [mm]"""
    placed = places(part.faces(), part.thickness)[face]
    found = [ends_of(placed.face, b) for b in placed.face.bends]
    if placed.before is not None:
        found.append((placed.face.ring[0], placed.face.ring[1]))
    return found


def spots_on(
    patch: Patch, edge: float, pitch: float, clear: Rect = ANYWHERE
) -> list[tuple[float, float]]:
    """Where fasteners stand on what two parts share.

    Args:
        patch: What they share. [mm]
        edge, pitch: The least distance from its edge, and the greatest between two. [mm]
        clear: Where their middles keep off bends. [mm]
    Returns:
        A row along the middle of what is narrow, or as near to it as the bends leave; else around it, that far
        inside its edge. At least two where there is room for two. [mm]
    """
    x0, y0, x1, y1 = patch.bounds
    wide, high = x1 - x0, y1 - y0
    room_x, room_y = (
        _room(x0, x1, edge, clear[0], clear[2]),
        _room(y0, y1, edge, clear[1], clear[3]),
    )
    rows: list[tuple[float, float]] = []
    off = edge
    if min(wide, high) < 4 * edge + 1e-6:
        along, across = (room_x, room_y) if wide >= high else (room_y, room_x)
        low, top = (y0, y1) if wide >= high else (x0, x1)
        middle = min(max((low + top) / 2, across[0]), across[1])
        rows = [(s, middle) if wide >= high else (middle, s) for s in _steps(along, pitch)]
        off = min(edge, middle - low, top - middle)
    else:
        xs, ys = _steps(room_x, pitch), _steps(room_y, pitch)
        rows = [(x, y) for x in xs for y in dict.fromkeys((ys[0], ys[-1]))]
        rows += [(x, y) for x in dict.fromkeys((xs[0], xs[-1])) for y in ys[1:-1]]
    if patch.ring is None:
        return rows
    inner = patch.ring.buffer(-off * 0.98)
    import shapely  # ruff: ignore[import-outside-top-level]  # heavy: read when first needed

    inside = shapely.intersects_xy(inner, [r[0] for r in rows], [r[1] for r in rows])
    return [r for r, fine in zip(rows, inside, strict=True) if fine]


def _room(
    low: float, high: float, edge: float, clear_low: float, clear_high: float
) -> tuple[float, float]:
    """Where middles may stand along one direction; in the middle of what both ends ask for where that is too much."""
    a, b = max(low + edge, clear_low), min(high - edge, clear_high)
    if a > b:
        # One diameter at least is left to the edge, so that it does not tear out.
        off = min(edge, high - low) / 2
        middle = min(max((a + b) / 2, low + off), high - off)
        return middle, middle
    return a, b


def _steps(room: tuple[float, float], pitch: float) -> list[float]:
    """Where a row's fasteners stand along it: evenly, at both ends and at most a pitch apart."""
    start, long = room[0], room[1] - room[0]
    if long <= 1e-9:
        return [start]
    count = max(1, math.ceil(long / pitch - 1e-9))
    return [start + n * long / count for n in range(count + 1)]


CLOSE = 0.3
"""Two holes nearer than this are one. [mm]"""


def drilled(
    parts: tuple[Part, ...], drills: list[Drill]
) -> tuple[tuple[Part, ...], tuple[int, ...]]:
    """Put holes into parts; pieces of one part that get other holes become parts of their own.

    Args:
        drills: The holes; one that is there already is not made twice.
    Returns: The parts with their holes, and of each which of the given ones it is.
    """
    by_piece: dict[tuple[int, int], list[Drill]] = {}
    for d in drills:
        rows = by_piece.setdefault(d.piece, [])
        if all(d.face != r.face or math.dist((d.x, d.y), (r.x, r.y)) > CLOSE for r in rows):
            rows.append(d)
    made: list[Part] = []
    of: list[int] = []
    for n, part in enumerate(parts):
        if isinstance(part, Hardware) or not part.poses:
            made.append(part)
            of.append(n)
            continue
        groups: dict[tuple[object, ...], list[int]] = {}
        for m in range(len(part.poses)):
            holes = _holes(part, by_piece.get((n, m), []))
            groups.setdefault(holes, []).append(m)
        spare = part.count - len(part.poses)
        for number, (holes, which) in enumerate(groups.items()):
            name = (
                part.name
                if len(groups) == 1
                else f"{part.name} {chr(65 + number % 26)}{number // 26 or ''}"
            )
            made.append(
                msgspec.structs.replace(
                    part, name=name, count=len(which) + (spare if number == 0 else 0),
                    poses=tuple(part.poses[m] for m in which), drilled=holes,
                )
            )  # fmt: skip
            of.append(n)
    return tuple(made), tuple(of)


def _holes(part: SheetPart | BarPart, rows: list[Drill]) -> tuple[object, ...]:
    """A piece's holes in an order that does not depend on how they were found, to the hundredth. [mm]"""
    if isinstance(part, BarPart):
        return tuple(sorted(
            BarHole(BAR_SIDES[r.face], round(r.x, 2), round(r.y, 2), r.diameter) for r in rows  # type: ignore[arg-type]
        ))  # fmt: skip
    found = sorted((r.face, round(r.x, 2), round(r.y, 2), r.diameter) for r in rows)
    return tuple((f, Hole(x, y, d)) for f, x, y, d in found)
