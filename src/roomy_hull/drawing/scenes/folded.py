"""Parts in the round: a folded part, or a unit put together, as an eye far away sees them, with balloons."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Any, NamedTuple

from roomy_hull.core import lazily
from roomy_hull.core.folded import Vector
from roomy_hull.core.primitives import Disc, Outline, Rect, Scene, Stroke, Words, line
from roomy_hull.drawing.scenes.partition import Face, partition
from roomy_hull.drawing.scenes.solid import directions, seen
from roomy_hull.making.polyhedra import Facet, Polyhedron, placed

if TYPE_CHECKING:
    import numpy as np
    import shapely
else:
    np = lazily.module("numpy")
    shapely = lazily.module("shapely")

YAW, PITCH = 50.0, 28.0
LIGHT = (0.3, 0.55, 0.8)
SHADES = ("fold dark", "fold", "fold light")
"""Roles of a face by how much light falls on it."""


class Shown(NamedTuple):
    """Some solids of one thing, and what its balloon says; nothing for none."""

    solids: tuple[Polyhedron, ...]
    balloon: str = ""


def _faces(facet: Facet, item: int, eye: tuple[float, float, float]) -> list[Face]:
    """A facet that looks at the eye as convex faces: triangles where it has openings or bays, their inner edges hidden."""
    way = _newell(facet.outer)
    long = math.sqrt(sum(v * v for v in way))
    # What looks away is not seen; a hole's wall is too small to be.
    if long < 2 * LEAST_SEEN or sum(a * b for a, b in zip(way, eye, strict=True)) <= 1e-3 * long:
        return []
    ring, normal = np.array(facet.outer), np.array(way) / long
    offset = float(normal @ ring[0])
    if not facet.inner and _convex(facet.outer, way):
        return [Face(ring, [True] * len(ring), normal, offset, item)]
    e1 = ring[1] - ring[0]
    e1 /= np.linalg.norm(e1)
    plane = np.column_stack([e1, np.cross(normal, e1)])
    rings = [(np.array(r) - ring[0]) @ plane for r in (facet.outer, *facet.inner)]
    flat = shapely.Polygon(rings[0], rings[1:])
    if not flat.is_valid:
        return []
    border = {
        frozenset((_at(r[n - 1]), _at(r[n]))) for r in rings for n in range(len(r))
    }  # fmt: skip
    found = []
    for triangle in shapely.constrained_delaunay_triangles(flat).geoms:
        three = list(triangle.exterior.coords[:3])
        (ax, ay), (bx, by), (cx, cy) = three
        if (bx - ax) * (cy - ay) < (by - ay) * (cx - ax):
            three.reverse()
        edges = [frozenset((_at(three[n]), _at(three[(n + 1) % 3]))) in border for n in range(3)]
        found.append(Face(ring[0] + np.array(three) @ plane.T, edges, normal, offset, item))
    return found


LEAST_SEEN = 30.0
"""A smaller face is not drawn. [mm²]"""


def _at(p: Any) -> tuple[float, float]:
    return round(float(p[0]), 3), round(float(p[1]), 3)


def _newell(ring: tuple[Vector, ...]) -> Vector:
    """A ring's normal, twice as long as its area."""
    x = y = z = 0.0
    ax, ay, az = ring[-1]
    for bx, by, bz in ring:
        x += (ay - by) * (az + bz)
        y += (az - bz) * (ax + bx)
        z += (ax - bx) * (ay + by)
        ax, ay, az = bx, by, bz
    return x, y, z


def _convex(ring: tuple[Vector, ...], way: Vector) -> bool:
    """Whether a ring turns one way only."""
    count = len(ring)
    for n in range(count):
        p, q, r = ring[n - 2], ring[n - 1], ring[n]
        a, b, c = (q[0] - p[0], q[1] - p[1], q[2] - p[2])
        d, e, f = (r[0] - q[0], r[1] - q[1], r[2] - q[2])
        if way[0] * (b * f - c * e) + way[1] * (c * d - a * f) + way[2] * (a * e - b * d) < -1e-6:
            return False
    return True


SPREAD = 0.7
"""How far parts are drawn apart: as a part of how far they stand from the middle of all."""


def apart(shown: list[Shown], spread: float = SPREAD) -> list[Shown]:
    """Draw things apart from the middle of all of them, so that one sees what goes where.

    Args:
        shown: Where they belong. [mm]
        spread: How far, as a part of the way from the middle.
    """
    middles = [_middle(s) for s in shown]
    if len(shown) < 2:
        return shown
    low = [min(m[n] for m in middles) for n in range(3)]
    high = [max(m[n] for m in middles) for n in range(3)]
    centre = [(a + b) / 2 for a, b in zip(low, high, strict=True)]
    found = []
    for s, m in zip(shown, middles, strict=True):
        x, y, z = ((m[n] - centre[n]) * spread for n in range(3))

        def moved(p: Vector, x: float = x, y: float = y, z: float = z) -> Vector:
            return p[0] + x, p[1] + y, p[2] + z

        found.append(Shown(tuple(placed(solid, moved) for solid in s.solids), s.balloon))
    return found


def _middle(s: Shown) -> Vector:
    """The middle of the box around some solids. [mm]"""
    points = [p for solid in s.solids for f in solid.facets for p in f.outer]
    if not points:
        return 0.0, 0.0, 0.0
    x, y, z = zip(*points, strict=True)
    return (min(x) + max(x)) / 2, (min(y) + max(y)) / 2, (min(z) + max(z)) / 2


def folded_scene(shown: list[Shown], yaw: float = YAW, pitch: float = PITCH) -> Scene:
    """Draw solids in the round.

    Args:
        shown: What is drawn. [mm]
        yaw, pitch: Where the eye is. [degree]
    Returns: Faces from far to near, lit from above; a balloon and its leader for each that has one. [mm]
    """
    towards = directions(yaw, pitch)[2]
    eye = (float(towards[0]), float(towards[1]), float(towards[2]))
    faces = [
        f
        for n, s in enumerate(shown)
        for solid in s.solids
        for facet in solid.facets
        for f in _faces(facet, n, eye)
    ]
    root = partition(faces)
    found: list[Stroke] = []
    if root is None:
        return ()
    for one in seen(root, yaw, pitch, LIGHT):
        if one.facing <= 1e-3:
            continue
        points = tuple((p[0], p[1]) for p in one.corners)
        role = SHADES[0 if one.lit < 0.2 else 1 if one.lit < 0.75 else 2]
        found.append(Outline(role, points))
        for n, drawn in enumerate(one.face.edges):
            if drawn:
                found.append(line("fold edge", points[n], points[(n + 1) % len(points)]))
    return (*found, *_balloons(shown, yaw, pitch))


def _balloons(shown: list[Shown], yaw: float, pitch: float) -> list[Stroke]:
    """Balloons around the drawing, each beside what it names, in two columns."""
    right, up, _eye = directions(yaw, pitch)
    rows = []
    low, high = [math.inf, math.inf], [-math.inf, -math.inf]
    for s in shown:
        points = np.array([p for solid in s.solids for f in solid.facets for p in f.outer])
        if not len(points):
            continue
        flat = points @ np.column_stack([right, up])
        for n in range(2):
            low[n], high[n] = (
                min(low[n], float(flat[:, n].min())),
                max(high[n], float(flat[:, n].max())),
            )
        if s.balloon:
            rows.append((float(flat[:, 0].mean()), float(flat[:, 1].mean()), s.balloon))
    if not rows:
        return []
    size = max(high[0] - low[0], high[1] - low[1])
    r = size * 0.022
    middle = (low[0] + high[0]) / 2
    found: list[Stroke] = []
    for left in (True, False):
        column = sorted((row for row in rows if (row[0] < middle) == left), key=lambda row: row[1])
        x = low[0] - 4 * r if left else high[0] + 4 * r
        step = max(2.6 * r, (high[1] - low[1]) / max(1, len(column)))
        start = (low[1] + high[1]) / 2 - step * (len(column) - 1) / 2
        for n, (h, k, words) in enumerate(column):
            y = start + n * step
            found += [
                line("leader", (h, k), (x + (r if left else -r), y)), Disc("balloon", (x, y), r),
                Words("balloon words", (x, y), words, r * 1.05, fixed=False),
            ]  # fmt: skip
    return found


def frame_of(scene: Scene, room: float = 0.04) -> Rect:
    """The stretch that shows a scene of outlines, lines and discs, with some room around it. [mm]"""
    xs: list[float] = []
    ys: list[float] = []
    for stroke in scene:
        if isinstance(stroke, Outline):
            xs += [p[0] for p in stroke.points]
            ys += [p[1] for p in stroke.points]
        elif isinstance(stroke, Disc):
            xs += [stroke.centre[0] - stroke.radius, stroke.centre[0] + stroke.radius]
            ys += [stroke.centre[1] - stroke.radius, stroke.centre[1] + stroke.radius]
    if not xs:
        return (0.0, 0.0, 1.0, 1.0)
    pad = room * max(max(xs) - min(xs), max(ys) - min(ys), 1.0)
    return (min(xs) - pad, min(ys) - pad, max(xs) + pad, max(ys) + pad)
