"""Contacts: where the faces of parts that stand in their places lie against one another.

A part is the outer and inner face of each of its flat stretches and the narrow faces of their edges; a bar has four
sides and two ends. Two faces touch where they look at each other, lie in one plane, and share some of it.
"""

from __future__ import annotations

import itertools
import math
from typing import TYPE_CHECKING, Any, Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray

from roomy_hull.core import lazily
from roomy_hull.core.folded import Face, places, to_corners
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import BarPart, Pose, SheetPart
from roomy_hull.core.poses import WAYS, carried, folded

if TYPE_CHECKING:
    import shapely
else:
    shapely = lazily.module("shapely")

Points = NDArray[np.float64]
Shaped = SheetPart | BarPart
GAP = 0.7
"""Faces no further apart than this touch: a weld's gap, and what a bend's allowance is rounded by. [mm]"""
LEAST_AREA = 4.0
"""A smaller contact joins nothing. [mm²]"""
LEAST_SIDE = 0.8
"""A narrower one neither. [mm]"""
Sort = Literal["big", "edge", "side", "end", "box"]
"""A sheet's outer or inner face, the face of its edge; a bar's long side, its end; a bought thing's face."""


class Item(NamedTuple):
    """A part where it stands: its number among the parts, which of its stands, and both."""

    part: int
    pose: int
    what: Shaped | Box
    at: Pose | None


class Frame(NamedTuple):
    """Directions of a face of a part where it stands: its origin, x and y in it, out of it. [mm]"""

    origin: Points
    x: Points
    y: Points

    def local(self, point: Points) -> tuple[float, float]:
        """A point in the face's own directions. [mm]"""
        d = point - self.origin
        return float(d @ self.x), float(d @ self.y)


class Side(NamedTuple):
    """One face of an item.

    `item` is its number, `face` which flat stretch of a sheet, in the order of `folded.places`, or of a bar which of its
    four sides; `ring` its corners in the owner's directions, `normal` out of the metal, `frame` its own directions.
    """

    item: int
    face: int
    sort: Sort
    ring: Points
    normal: Points
    frame: Frame | None
    next_to: frozenset[int]
    cutouts: tuple[Points, ...] = ()


Rect = tuple[float, float, float, float]


class Patch(NamedTuple):
    """What two faces share, in their plane: the rectangle around it, its length round, its ring if it is none. [mm]"""

    bounds: Rect
    length: float
    ring: Any = None


class Contact(NamedTuple):
    """Two faces that touch: the numbers of their sides, and the patch they share, in the plane. [mm]

    `origin`, `e1`, `e2` carry the patch's plane into the owner's directions.
    """

    one: int
    other: int
    patch: Patch
    origin: Points
    e1: Points
    e2: Points

    def at(self, x: float, y: float) -> Points:
        """A point of the patch in the owner's directions. [mm]"""
        return self.origin + self.e1 * x + self.e2 * y


BAR_SIDES = ("low wide", "far wide", "low high", "far high")
_ROUND = ((0, 1, 3, 2), (4, 6, 7, 5))


def sides_of(items: list[Item]) -> list[Side]:
    """Every face of some parts where they stand.

    Args:
        items: Parts and boxes in one owner's directions. [mm]
    Returns: In the order of the items.
    """
    found: list[Side] = []
    for number, item in enumerate(items):
        if isinstance(item.what, Box):
            found += _box_sides(number, item.what)
        elif isinstance(item.what, BarPart) and item.at is not None:
            found += _bar_sides(number, item.what, item.at)
        elif isinstance(item.what, SheetPart) and item.at is not None:
            found += _sheet_sides(number, item.what, item.at)
    return found


def _normal(ring: Points) -> Points:
    """The unit normal of a flat ring by Newell's sum, either way."""
    rows = ring.tolist()  # so few points are quicker without arrays
    x = y = z = 0.0
    ax, ay, az = rows[-1]
    for bx, by, bz in rows:
        x += (ay - by) * (az + bz)
        y += (az - bz) * (ax + bx)
        z += (ax - bx) * (ay + by)
        ax, ay, az = bx, by, bz
    long = math.sqrt(x * x + y * y + z * z)
    return np.array((x / long, y / long, z / long)) if long > 0 else np.zeros(3)


def _cross(a: Points, b: Points) -> Points:
    """The product of two directions that is square to both."""
    (p, q, r), (s, t, u) = a.tolist(), b.tolist()
    return np.array((q * u - r * t, r * s - p * u, p * t - q * s))


def _outward(ring: Points, inside: Points) -> Points:
    n = _normal(ring)
    return n if float(n @ (ring[0] - inside)) >= 0 else -n


def box_corners(box: Box) -> Points:
    """A box's eight corners. [mm]"""
    x, y, z = ((box[n], box[n + 3]) for n in range(3))
    return np.array(list(itertools.product(x, y, z)))


def _box_sides(number: int, box: Box) -> list[Side]:
    """The six faces of a bought thing's box."""
    p = box_corners(box)
    middle = p.mean(axis=0)
    rows = ((0, 1, 3, 2), (4, 5, 7, 6), (0, 1, 5, 4), (2, 3, 7, 6), (0, 2, 6, 4), (1, 3, 7, 5))
    return [
        Side(number, n, "box", p[list(row)], _outward(p[list(row)], middle), None, frozenset())
        for n, row in enumerate(rows)
    ]


def carry(points: list[tuple[float, float, float]], pose: Pose) -> Points:
    """Carry points of a part into its owner's directions. [mm]"""
    if pose.tilt:
        return np.array([carried(p, pose) for p in points])
    given, found = np.array(points), np.empty((len(points), 3))
    for n, way in enumerate((pose.x, pose.y, pose.z)):
        axis, sense = WAYS[way]
        found[:, axis] = pose.at[axis] + sense * given[:, n]
    return found


def _bar_sides(number: int, part: BarPart, pose: Pose) -> list[Side]:
    """A bar's four sides and two ends; its ends may be mitred."""
    a, b, c = folded(part)[0][3:]
    (low, high), (one, other) = part.lost(), part.ends

    def start(y: float, z: float) -> float:
        return low * (z / c if one.across == "high" else y / b)

    def end(y: float, z: float) -> float:
        return a - high * (z / c if other.across == "high" else y / b)

    def ring(corners: tuple[tuple[float, float], ...]) -> list[tuple[float, float, float]]:
        (y0, z0), (y1, z1) = corners
        return [(start(y0, z0), y0, z0), (end(y0, z0), y0, z0), (end(y1, z1), y1, z1), (start(y1, z1), y1, z1)]  # fmt: skip

    middle = carry([(a / 2, b / 2, c / 2)], pose)[0]
    found = []
    pairs = (((0.0, 0.0), (b, 0.0)), ((0.0, c), (b, c)), ((0.0, 0.0), (0.0, c)), ((b, 0.0), (b, c)))
    for n, pair in enumerate(pairs):
        across = (0.0, 1.0, 0.0) if n < 2 else (0.0, 0.0, 1.0)
        y, z = pair[0]
        frame = frame_of((0.0, y, z), (1.0, 0.0, 0.0), across, pose)
        points = carry(ring(pair), pose)
        found.append(Side(number, n, "side", points, _outward(points, middle), frame, frozenset()))
    for n, tip in enumerate((start, end)):
        points = carry([(tip(y, z), y, z) for y, z in ((0.0, 0.0), (b, 0.0), (b, c), (0.0, c))], pose)  # fmt: skip
        found.append(
            Side(number, 4 + n, "end", points, _outward(points, middle), None, frozenset())
        )
    return found


def frame_of(
    origin: tuple[float, float, float], x: tuple[float, float, float], y: tuple[float, float, float], pose: Pose
) -> Frame:  # fmt: skip
    """A face's directions carried to where its part stands."""
    p = carry([origin, tuple(o + d for o, d in zip(origin, x, strict=True)),  # type: ignore[list-item]
                tuple(o + d for o, d in zip(origin, y, strict=True))], pose)  # type: ignore[list-item]  # fmt: skip
    return Frame(p[0], p[1] - p[0], p[2] - p[0])


def _neighbours(root: Face) -> list[frozenset[int]]:
    """For each face, in the order of `places`, those that a bend joins to it."""
    found: list[set[int]] = []

    def walk(face: Face) -> int:
        own = len(found)
        found.append(set())
        for bend in face.bends:
            other = walk(bend.face)
            found[own].add(other)
            found[other].add(own)
        return own

    walk(root)
    return [frozenset(f) for f in found]


def _sheet_sides(number: int, part: SheetPart, pose: Pose) -> list[Side]:
    """The two faces of each flat stretch of a sheet, and the faces of its edges where no bend goes on."""
    root, t = part.faces(), part.thickness
    found: list[Side] = []
    beside = _neighbours(root)
    for n, (face, place, before) in enumerate(places(root, t)):
        corners = to_corners(face, before, t)
        outer = carry([place.at(p, 0.0) for p in corners], pose)
        inner = carry([place.at(p, t) for p in corners], pose)
        cutouts = tuple(
            carry([place.at((c.x + dx * c.length, c.y + dy * c.width), 0.0)
                    for dx, dy in ((0, 0), (1, 0), (1, 1), (0, 1))], pose)
            for c in face.cutouts
        )  # fmt: skip
        frame = frame_of(place.origin, place.x, place.y, pose)
        for ring in (outer, inner):
            # The one side looks away from the other, whatever the ring's shape.
            n_ = _normal(ring)
            away = ring[0] - (inner if ring is outer else outer)[0]
            normal = n_ if float(n_ @ away) >= 0 else -n_
            found.append(Side(number, n, "big", ring, normal, frame, beside[n], cutouts))
        bent = {b.edge for b in face.bends} | ({0} if before is not None else set())
        plain = len(corners) == len(face.ring)
        up = _normal(outer)
        for i in range(len(corners)):
            if plain and i in bent:
                continue
            j = (i + 1) % len(corners)
            ring = np.array([outer[i], outer[j], inner[j], inner[i]])
            normal = _normal(ring)
            if not normal.any():
                continue
            # Counter-clockwise from the side that its own normal looks to: out is to the right of the edge.
            if float(_cross(outer[j] - outer[i], up) @ normal) < 0:
                normal = -normal
            found.append(Side(number, n, "edge", ring, normal, None, beside[n]))
    return found


ROWS = 256
"""So many faces at one time are held against all."""


def touching(items: list[Item]) -> tuple[list[Side], list[Contact]]:
    """Find every pair of faces of different parts, or of one part, that touch.

    Args:
        items: Parts and boxes in one owner's directions. [mm]
    Returns: All faces, and where two of them lie against each other. What a bend joins does not count. [mm]
    """
    sides = sides_of(items)
    if len(sides) < 2:
        return sides, []
    normals = np.array([s.normal for s in sides])
    level = np.array([float(s.normal @ s.ring[0]) for s in sides])
    low = np.array([s.ring.min(axis=0) for s in sides]) - GAP
    high = np.array([s.ring.max(axis=0) for s in sides]) + GAP
    found: list[Contact] = []
    pairs: list[tuple[int, int]] = []
    for at in range(0, len(sides), ROWS):
        rows, rest = slice(at, at + ROWS), slice(at, None)
        near = np.abs(level[rows, None] + level[None, rest]) <= GAP
        near &= normals[rows] @ normals[rest].T < -0.9999
        for axis in range(3):
            near &= (low[None, rest, axis] < high[rows, None, axis]) & (
                high[None, rest, axis] > low[rows, None, axis]
            )
        one, other = np.nonzero(np.triu(near, 1))
        pairs += zip((one + at).tolist(), (other + at).tolist(), strict=True)
    for i, j in pairs:
        a, b = sides[i], sides[j]
        if a.item == b.item and (a.sort == "box" or a.face == b.face or b.face in a.next_to):
            continue
        if a.sort == b.sort == "box":
            continue
        found += _shared(sides, i, j)
    return sides, found


def _shared(sides: list[Side], i: int, j: int) -> list[Contact]:
    """The patches that two faces in one plane share."""
    a, b = sides[i], sides[j]
    e1 = a.ring[1] - a.ring[0]
    e1 /= np.linalg.norm(e1)
    e2 = _cross(a.normal, e1)
    origin = a.ring[0]
    plane = np.column_stack([e1, e2])
    one, other = (a.ring - origin) @ plane, (b.ring - origin) @ plane
    found = []
    for patch in _patches(a, b, (one, other), (origin, plane)):
        x0, y0, x1, y1 = patch.bounds
        if min(x1 - x0, y1 - y0) >= LEAST_SIDE and (x1 - x0) * (y1 - y0) >= LEAST_AREA:
            found.append(Contact(i, j, patch, origin, e1, e2))
    return found


def _patches(
    a: Side, b: Side, rings: tuple[Points, Points], frame: tuple[Points, Points]
) -> list[Patch]:  # fmt: skip
    """What two faces in one plane share: two rectangles quickly, all else as polygons."""
    rects = [_rect(ring) for ring in rings]
    if rects[0] is not None and rects[1] is not None and not a.cutouts and not b.cutouts:
        (p0, q0, p1, q1), (r0, s0, r1, s1) = rects[0], rects[1]
        x0, y0, x1, y1 = max(p0, r0), max(q0, s0), min(p1, r1), min(q1, s1)
        return [Patch((x0, y0, x1, y1), 2 * (x1 - x0 + y1 - y0))] if x1 > x0 and y1 > y0 else []
    wide, high = np.minimum(*(r.max(axis=0) for r in rings)) - np.maximum(
        *(r.min(axis=0) for r in rings)
    )
    if min(wide, high) < LEAST_SIDE or wide * high < LEAST_AREA:
        return []  # no polygon of theirs is larger
    one, other = (_polygon(side, ring, frame) for side, ring in zip((a, b), rings, strict=True))
    shared = one.intersection(other)
    return [
        Patch(p.bounds, p.length, p) for p in getattr(shared, "geoms", [shared])
        if p.geom_type == "Polygon" and p.area >= LEAST_AREA
    ]  # fmt: skip


def _rect(ring: Points) -> Rect | None:
    """The rectangle that a ring of four corners is, along the plane's directions; none for any other. [mm]"""
    rows = ring.tolist()
    if len(rows) != 4:
        return None
    xs, ys = [p[0] for p in rows], [p[1] for p in rows]
    x0, x1, y0, y1 = min(xs), max(xs), min(ys), max(ys)
    fine = all(min(x - x0, x1 - x) < 1e-6 and min(y - y0, y1 - y) < 1e-6 for x, y in rows)
    return (x0, y0, x1, y1) if fine else None


def _polygon(side: Side, ring: Points, frame: tuple[Points, Points]) -> Any:
    """A face in a plane's two directions, its openings left out."""
    whole = shapely.polygons(ring)
    if not whole.is_valid:
        whole = whole.buffer(0)
    origin, plane = frame
    for hole in side.cutouts:
        whole = whole.difference(shapely.polygons((hole - origin) @ plane))
    return whole
