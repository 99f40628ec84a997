"""Parts as polyhedra where they stand: flat stretches with their openings, bends as arcs of flat facets, bars with cut ends.

A bend keeps the metal of its flat: what the neutral line says is missing is the thinning of the sheet in the bend. A
round opening is a polygon of the same area. So the volume is that of the blank, and mass over density.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable
from typing import TYPE_CHECKING, Any, NamedTuple

from roomy_hull.core import lazily
from roomy_hull.core.folded import ROOT, Bend, Face, Hole, Place, Vector, beyond, ends_of
from roomy_hull.core.mechanics.bends import bend_allowance
from roomy_hull.core.parts import BarPart, Pose, SheetPart
from roomy_hull.core.poses import carried, folded
from roomy_hull.making.flats import Point
from roomy_hull.making.part_bent import in_turn

if TYPE_CHECKING:
    import shapely
else:
    shapely = lazily.module("shapely")

ROUND, ARC = 24, 15.0
"""So many corners has a round opening; a bend has a facet for so many degrees."""


class Facet(NamedTuple):
    """A flat face of a solid: its outer ring counter-clockwise seen from outside, and its openings clockwise. [mm]"""

    outer: tuple[Vector, ...]
    inner: tuple[tuple[Vector, ...], ...] = ()


class Polyhedron(NamedTuple):
    """A closed solid of flat faces."""

    facets: tuple[Facet, ...]

    def volume(self) -> float:
        """Its volume, by the divergence theorem. [mm³]"""
        total = 0.0
        for facet in self.facets:
            for ring in (facet.outer, *facet.inner):
                a = ring[0]
                total += sum(_triple(a, b, c) for b, c in itertools.pairwise(ring[1:])) / 6
        return total


def _triple(a: Vector, b: Vector, c: Vector) -> float:
    return (
        a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) + a[2] * (b[0] * c[1] - b[1] * c[0])
    )  # fmt: skip


def prism(low: list[list[Vector]], high: list[list[Vector]]) -> Polyhedron:
    """A solid between two rings, and the same for each opening.

    Args:
        low, high: The outer ring, then the openings, at both ends; the outer one counter-clockwise seen from `high`.
            [mm]
    Returns: Closed, whichever hand the rings have: a mirrored one is turned right.
    """
    ends = [Facet(tuple(reversed(low[0])), tuple(tuple(reversed(r)) for r in low[1:])),
            Facet(tuple(high[0]), tuple(tuple(r) for r in high[1:]))]  # fmt: skip
    sides = []
    for a, b in zip(low, high, strict=True):
        for n in range(len(a)):
            m = (n + 1) % len(a)
            sides.append(Facet((a[n], a[m], b[m], b[n])))
    found = Polyhedron((*ends, *sides))
    if found.volume() < 0:
        found = _turned_out(found)
    return found


def _turned_out(solid: Polyhedron) -> Polyhedron:
    """A solid whose faces look inward, with every face the other way round."""
    return Polyhedron(
        tuple(
            Facet(tuple(reversed(f.outer)), tuple(tuple(reversed(r)) for r in f.inner))
            for f in solid.facets
        )
    )


def _openings(face: Face) -> list[Any]:
    """A face's openings as polygons of the same area. [mm]"""
    found = []
    for c in face.cutouts:
        box = shapely.box(c.x, c.y, c.x + c.length, c.y + c.width)
        r = min(c.radius, c.length / 2, c.width / 2)
        found.append(box.buffer(-r * 0.999).buffer(r * 0.999, quad_segs=16) if r > 0 else box)
    found += [shapely.Polygon(_round(h)) for h in face.holes]
    return found


def _round(h: Hole) -> list[Point]:
    step = math.tau / ROUND
    r = h.diameter / 2 * math.sqrt(step / math.sin(step))
    return [(h.x + r * math.cos(n * step), h.y + r * math.sin(n * step)) for n in range(ROUND)]


def of_sheet(part: SheetPart, done: frozenset[int] | None = None) -> list[Polyhedron]:
    """A folded sheet in its own directions.

    Args:
        part: The part. [mm]
        done: Which of its bends are made, as the flat's bend lines are counted; none for all of them.
    Returns: One for each flat stretch, one for each bend. [mm]
    """
    t, k = part.thickness, part.material.k(part.thickness)
    found: list[Polyhedron] = []

    count = 0

    def walk(face: Face, place: Place, first: int) -> None:
        nonlocal count
        whole = shapely.Polygon(face.ring)
        holes = _openings(face)
        if holes:
            whole = whole.difference(shapely.union_all(holes))
        for piece in getattr(whole, "geoms", [whole]):
            if piece.geom_type != "Polygon" or piece.area < 1e-6:
                continue
            oriented = shapely.geometry.polygon.orient(piece)
            rings = [list(oriented.exterior.coords[:-1]), *(list(r.coords[:-1]) for r in oriented.interiors)]  # fmt: skip
            found.append(
                prism(*([[place.at(p, z) for p in ring] for ring in rings] for z in (0.0, t)))
            )
        for bend in in_turn(face, first):
            made = done is None or count in done
            count += 1
            found.append(
                _bend(face, bend, place, t, k) if made else _strip(face, bend, place, t, k)
            )
            walk(bend.face, beyond(place, face, bend, t, None if made else k), 1)

    walk(part.faces(), ROOT, 0)
    return found


def _strip(face: Face, bend: Bend, place: Place, t: float, k: float) -> Polyhedron:
    """A bend that is not made yet: its strip of the flat. [mm]"""
    p, q = ends_of(face, bend)
    long = math.dist(p, q)
    allowance = bend_allowance(abs(bend.angle), bend.radius, t, k)
    out = ((q[1] - p[1]) / long * allowance, (p[0] - q[0]) / long * allowance)
    ring = [p, (p[0] + out[0], p[1] + out[1]), (q[0] + out[0], q[1] + out[1]), q]
    return prism(*([[place.at(x, z) for x in ring]] for z in (0.0, t)))


def _bend(face: Face, bend: Bend, place: Place, t: float, k: float) -> Polyhedron:
    """The arc of a bend, as thick as the metal that its flat has. [mm]"""
    p, q = ends_of(face, bend)
    long = math.dist(p, q)
    along = ((q[0] - p[0]) / long, (q[1] - p[1]) / long)
    out = (along[1], -along[0])
    turn, r = math.radians(abs(bend.angle)), bend.radius
    steps = max(2, math.ceil(abs(bend.angle) / ARC))
    # A polygon of so many facets has less than its arc: the radii make up for it.
    half = turn / steps / 2
    more = math.sqrt(2 * half / math.sin(2 * half))
    inner, outer = r * more, math.sqrt(r * r + 2 * (r + k * t) * t) * more
    up = bend.angle > 0
    # Seen along the edge: the centre stands above or below it.
    middle = r + t if up else -r

    def ring(x: float) -> list[Vector]:
        points = []
        for radius, order in ((outer, range(steps + 1)), (inner, range(steps, -1, -1))):
            for n in order:
                a = turn * n / steps
                across = radius * math.sin(a)
                high = middle - radius * math.cos(a) if up else middle + radius * math.cos(a)
                spot = (p[0] + along[0] * x + out[0] * across, p[1] + along[1] * x + out[1] * across)  # fmt: skip
                points.append(place.at(spot, high))
        return points

    if r <= 0:
        # Without a radius the inner side is a line: one corner less.
        def sharp(x: float) -> list[Vector]:
            return ring(x)[: steps + 2]

        return prism([sharp(0.0)], [sharp(long)])
    return prism([ring(0.0)], [ring(long)])


def of_bar(part: BarPart) -> list[Polyhedron]:
    """A bar in its own directions, hollow where its section has a wall, its ends as they are sawn. [mm]"""
    a, b, c = folded(part)[0][3:]
    (low, high), (one, other) = part.lost(), part.ends
    sizes = [float(s) for s in part.section.split("x")]
    wall = sizes[2] if len(sizes) > 2 else 0.0

    def tip(y: float, z: float, *, end: bool) -> Vector:
        cut = other if end else one
        share = z / c if cut.across == "high" else y / b
        return (a - high * share if end else low * share, y, z)

    rings = [[(0.0, 0.0), (b, 0.0), (b, c), (0.0, c)]]
    if wall > 0 and 2 * wall < min(b, c):
        w = wall
        rings.append([(w, w), (w, c - w), (b - w, c - w), (b - w, w)])
    return [prism(*([[tip(y, z, end=end) for y, z in ring] for ring in rings] for end in (False, True)))]  # fmt: skip


def standing(part: SheetPart | BarPart, pose: Pose | None = None) -> list[Polyhedron]:
    """A part as polyhedra, in its own directions or where it stands.

    Args:
        part: The part. [mm]
    Returns: Closed solids. [mm]
    """
    solids = of_sheet(part) if isinstance(part, SheetPart) else of_bar(part)
    if pose is None:
        return solids
    return [placed(solid, lambda p: carried(p, pose)) for solid in solids]


def placed(solid: Polyhedron, at: Callable[[Vector], Vector]) -> Polyhedron:
    """A solid carried elsewhere; turned right where that mirrors it.

    Args:
        solid: The solid. [mm]
    """
    facets = tuple(
        Facet(tuple(at(p) for p in f.outer), tuple(tuple(at(p) for p in r) for r in f.inner))
        for f in solid.facets
    )
    moved = Polyhedron(facets)
    return _turned_out(moved) if moved.volume() < 0 else moved
