"""Passage: can a unit be got in through its opening: upright, turned in plan, or tilted?

A flat search, exact but for the angle: for every half degree, the places where the unit's outline, grown by what
a quarter of a degree more or less moves its corners, touches neither wall nor back nor roof nor what stands
inside already. Places at neighbouring angles that overlap are one way. Upright and square it is not grown, so
that it may be pushed home with little play. The third size has to pass the opening by itself, and what would
have to be turned about two axes at once is refused.
"""

from __future__ import annotations

import functools
import math
from typing import TYPE_CHECKING, NamedTuple

import msgspec

from roomy_hull.core import lazily

if TYPE_CHECKING:
    import numpy as np
    import shapely
else:
    np = lazily.module("numpy")
    shapely = lazily.module("shapely")

TURN = 0.5
"""Angle step. [degrees]"""
PLAY = 3.0
"""Room kept all round on the way. [mm]"""
WALL = 35.0
"""Thickness of the wall around an opening. [mm]"""

Opening = tuple[float, float, float, float]
Six = tuple[float, float, float, float, float, float]
"""A box: lower corner, upper corner. [mm]"""


class Passage(msgspec.Struct, frozen=True):
    """How a unit goes in: ``upright``, ``turned``, ``tilted`` or ``not``; and by how much it is too large."""

    how: str
    short: float = 0.0


class Flat(NamedTuple):
    """The search in one plane. Inward is the first axis, the wall fills from minus `WALL` to 0. [mm]

    Attributes:
        deep, tall: The outline as it stands.
        gap: The opening along the second axis.
        room: Depth and breadth of the empty room.
        home: Lower corner of where it is to stand.
        inside: What stands in the room already.
    """

    deep: float
    tall: float
    gap: tuple[float, float]
    room: tuple[float, float]
    home: tuple[float, float]
    inside: tuple[tuple[float, float, float, float], ...]


@functools.lru_cache(maxsize=512)
def passage(
    size: tuple[float, float, float], bay: tuple[float, float, float], opening: Opening,
    home: tuple[float, float, float] = (0.0, 0.0, 0.0), inside: tuple[Six, ...] = (),
) -> Passage:  # fmt: skip
    """Find how a unit can be got into its bay.

    Args:
        size: Outside sizes of the unit as it stands. [mm]
        bay: Of the empty bay. [mm]
        opening: Of the access face. [mm]
        home: Where its lower corner is to stand. [mm]
        inside: What stands in the bay already when it goes in. [mm]
    """
    a, b, c = size
    u, v, w = home
    wide, high = opening[2] - opening[0], opening[3] - opening[1]
    short = max(a - wide, c - high)
    if short <= 0.05:
        return Passage("upright")
    # Tilted it keeps its place along the wall, turned its height: only what stands there is in the way.
    beside = tuple((i[1], i[2], i[4], i[5]) for i in inside if i[0] < u + a and i[3] > u)
    level = tuple((i[1], i[0], i[4], i[3]) for i in inside if i[2] < w + c and i[5] > w)
    if a <= wide and way_in(Flat(b, c, (opening[1], opening[3]), (bay[1], bay[2]), (v, w), beside)):
        return Passage("tilted")
    if c <= high and way_in(Flat(b, a, (opening[0], opening[2]), (bay[1], bay[0]), (v, u), level)):
        return Passage("turned")
    return Passage("not", short)


def way_in(flat: Flat) -> bool:
    """Search a way from outside to where it is to stand.

    Args:
        flat: The plane. [mm]
    Returns: Whether there is one; that none is found may be wrong where a turn leaves less than some millimetres.
    """
    deep, tall, gap, room = flat.deep, flat.tall, flat.gap, flat.room
    if min(deep, tall) > gap[1] - gap[0] or deep > room[0] or tall > room[1]:
        return False
    reach = math.hypot(deep, tall) / 2
    far = 4 * (reach + sum(room))
    walls = [
        (-WALL, -far, 0.0, gap[0]), (-WALL, gap[1], 0.0, far), (0.0, -far, far, 0.0),
        (0.0, room[1], far, far), (room[0], -far, far, far), *flat.inside,
    ]  # fmt: skip
    frame = shapely.box(-4 * reach - WALL, gap[0] - 4 * reach, room[0], gap[1] + 4 * reach)
    grown = reach * math.radians(TURN) / 2
    layers = [(angle, grown) for angle in np.arange(-90.0, 90.0 - TURN / 2, TURN).tolist()]
    # Square to the room it slides: no turn to grow for, and home with whatever play there is.
    square = [n for n, (angle, _by) in enumerate(layers) if abs(angle % 90.0) < 1e-9]
    places = [_free(flat, walls, frame, angle, by + PLAY) for angle, by in layers]
    slides = {n: _free(flat, walls, frame, layers[n][0], -0.01) for n in square}
    target = shapely.Point(flat.home[0] + deep / 2, flat.home[1] + tall / 2)
    outside = shapely.Point(-3 * reach - WALL, (gap[0] + gap[1]) / 2)
    reached = {n: [p for p in parts if p.intersects(outside)] for n, parts in enumerate(places)}
    return _spread(places, slides, reached, target)


def _free(
    flat: Flat, walls: list[tuple[float, float, float, float]], frame: shapely.Polygon, angle: float, by: float
) -> list[shapely.Polygon]:  # fmt: skip
    """Where the middle of the outline may be at an angle, in pieces that do not hang together.

    A wall takes away its Minkowski sum with the turned outline, grown by so much: an octagon.
    """
    c, s = math.cos(math.radians(angle)), math.sin(math.radians(angle))
    p, q = flat.deep / 2 + by, flat.tall / 2 + by
    corners = np.array([
        (c * a - s * b, s * a + c * b) for a, b in ((-p, -q), (p, -q), (p, q), (-p, q))
    ])
    sums = []
    for x0, y0, x1, y1 in walls:
        box = np.array([(x0, y0), (x1, y0), (x1, y1), (x0, y1)])
        sums.append(shapely.MultiPoint((box[:, None] + corners[None]).reshape(-1, 2)).convex_hull)
    left = frame.difference(shapely.union_all(sums))
    return [
        g for g in getattr(left, "geoms", [left]) if not g.is_empty and g.geom_type == "Polygon"
    ]


def _spread(
    places: list[list[shapely.Polygon]], slides: dict[int, list[shapely.Polygon]],
    reached: dict[int, list[shapely.Polygon]], target: shapely.Point,
) -> bool:  # fmt: skip
    """Go from what is reached to the neighbouring angles until nothing new is, or the target is."""
    queue = [(n, p) for n, parts in reached.items() for p in parts]
    seen = {(n, places[n].index(p)) for n, p in queue}
    while queue:
        n, place = queue.pop()
        if n in slides:
            # Pushed on, square to the room, from where it has come to.
            home = 2 * n == len(places)
            for slide in slides[n]:
                if not slide.intersects(place):
                    continue
                if home and slide.buffer(0.02).intersects(target):
                    return True
                for k, other in enumerate(places[n]):
                    if (n, k) not in seen and other.intersects(slide):
                        seen.add((n, k))
                        queue.append((n, other))
        # Turned by a half turn an outline is the same: behind the last angle comes the first.
        for m in ((n - 1) % len(places), (n + 1) % len(places)):
            for k, other in enumerate(places[m]):
                if (m, k) not in seen and other.intersects(place):
                    seen.add((m, k))
                    queue.append((m, other))
    return False
