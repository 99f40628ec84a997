"""Unfolding: a folded part laid flat, with its bend lines, openings and area."""

import math

import msgspec

from roomy_hull.core.folded import (
    ROOT,
    Cutout,
    Face,
    Hole,
    Place,
    Point,
    Vector,
    beyond,
    ends_of,
    shoelace,
)
from roomy_hull.core.mechanics.bends import bend_allowance


class BendLine(msgspec.Struct, frozen=True):
    """A bend's centre line on the flat, its angle and inside radius. [mm, degrees]"""

    a: Point
    b: Point
    angle: float
    radius: float


class Flat(msgspec.Struct, frozen=True):
    """A folded part laid flat, in the root face's directions.

    Attributes:
        outline: Counter-clockwise. [mm]
        bends: Centre lines, in the order of the tree.
        holes, cutouts: All openings; a cut-out of a turned face by its turned rectangle.
        pieces: Every face and every bend's strip as polygons, to be laid against one another. [mm]
    """

    outline: tuple[Point, ...]
    bends: tuple[BendLine, ...]
    holes: tuple[Hole, ...]
    cutouts: tuple[Cutout, ...]
    pieces: tuple[tuple[Point, ...], ...]


def flat_area(root: Face, thickness: float, k: float) -> float:
    """The area of the flat: faces and bends, less holes and cut-outs.

    Args:
        root: The part. [mm]
        thickness, k: Sheet and neutral line. [mm]
    Returns: [mm²]
    """
    area = shoelace(root.ring)
    area -= sum(math.pi / 4 * h.diameter**2 for h in root.holes)
    area -= sum(c.length * c.width - (4 - math.pi) * c.radius**2 for c in root.cutouts)
    for bend in root.bends:
        strip = bend_allowance(abs(bend.angle), bend.radius, thickness, k)
        area += strip * math.dist(*ends_of(root, bend)) + flat_area(bend.face, thickness, k)
    return area


def unfolded(root: Face, thickness: float, k: float) -> Flat:
    """Lay a folded part flat.

    Args:
        thickness: Of the sheet. [mm]
        k: The neutral line's part of the thickness; every bend takes A·π/180·(R + K·T) of sheet.
    Returns: In the root's directions. [mm]
    """
    bends: list[BendLine] = []
    holes: list[Hole] = []
    cutouts: list[Cutout] = []
    pieces: list[tuple[Point, ...]] = []

    def walk(face: Face, place: Place, first: int) -> list[Point]:
        """Go round a face from the end of one edge, and round all beyond it."""
        ring = tuple(_two(place.at(p)) for p in face.ring)
        pieces.append(ring)
        for h in face.holes:
            x, y = _two(place.at((h.x, h.y)))
            holes.append(Hole(x, y, h.diameter))
        for c in face.cutouts:
            corners = [_two(place.at(p)) for p in
                       ((c.x, c.y), (c.x + c.length, c.y + c.width))]  # fmt: skip
            (x0, x1), (y0, y1) = (sorted(v) for v in zip(*corners, strict=True))
            cutouts.append(Cutout(x0, y0, x1 - x0, y1 - y0, c.radius))
        by_edge = {b.edge: b for b in face.bends}
        way: list[Point] = []
        for step in range(len(ring)):
            edge = (first + step) % len(ring)
            way.append(ring[edge])
            bend = by_edge.get(edge)
            if bend is None:
                continue
            far = beyond(place, face, bend, thickness, k)
            p, q = ring[edge], ring[(edge + 1) % len(ring)]
            long = math.dist(p, q)
            start, end = _two(far.at((long, 0.0))), _two(far.at((0.0, 0.0)))
            pieces.append((p, start, end, q))
            middle = tuple(
                ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2) for a, b in ((p, start), (q, end))
            )
            bends.append(BendLine(middle[0], middle[1], bend.angle, bend.radius))
            # Round the next face from the end of the edge that they share.
            way += [start, *walk(bend.face, far, 1), end]
        return way

    around = walk(root, ROOT, 0)
    return Flat(_plain(around), tuple(bends), tuple(holes), tuple(cutouts), tuple(pieces))


def _two(p: Vector) -> Point:
    return (p[0], p[1])


def _plain(way: list[Point]) -> tuple[Point, ...]:
    """Leave out corners that stand twice, and those on a straight line between their neighbours."""
    found = [p for n, p in enumerate(way) if math.dist(p, way[n - 1]) > 1e-6]
    return tuple(
        p for n, p in enumerate(found)
        if abs(_cross(found[n - 1], p, found[(n + 1) % len(found)])) > 1e-6
    )  # fmt: skip


def _cross(a: Point, b: Point, c: Point) -> float:
    return (b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0])
