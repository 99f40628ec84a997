"""Passage: can a unit be got in through its opening: upright, turned in plan, tilted, or one after the other?

A flat search, exact but for the angle: for every half degree, the places where the unit's outline, grown by what
a quarter of a degree more or less moves its corners, touches neither wall nor back nor roof nor what stands
inside already. Places at neighbouring angles that overlap are one way. Upright and square it is not grown, so
that it may be pushed home with little play. The third size has to pass the opening by itself. Where one turn does
not do, it may lie in any way outside, go in so, and be turned inside about one axis after the other; what would have
to be turned about two axes at once is refused.
"""

from __future__ import annotations

import functools
import math
from collections import deque
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
Size = tuple[float, float, float]
Six = tuple[float, float, float, float, float, float]
"""A box: lower corner, upper corner. [mm]"""


class Passage(msgspec.Struct, frozen=True):
    """How a unit goes in, in words; else what there is too little of.

    Attributes:
        how: ``upright``, ``turned`` (in plan), ``tilted`` (towards one), ``rolled`` (sideways, inside), one behind the
            other; or ``not``.
        short: How much wider or higher the opening would have to be for it to go straight in. [mm]
        lacks: Of which there is too little: ``width`` or ``height`` of the opening; or ``depth``, where a deeper bay
            would let it turn.
    """

    how: str
    short: float = 0.0
    lacks: str = ""


class Flat(NamedTuple):
    """The search in one plane. Inward is the first axis, the wall fills from minus `WALL` to 0. [mm]

    Attributes:
        deep, tall: The outline as it stands.
        gap: The opening along the second axis.
        room: Depth and breadth of the empty room.
        home: Lower corner of where it is to stand; none: anywhere in the room.
        inside: What stands in the room already.
    """

    deep: float
    tall: float
    gap: tuple[float, float]
    room: tuple[float, float]
    home: tuple[float, float] | None
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
    a, _b, c = size
    wide, high = opening[2] - opening[0], opening[3] - opening[1]
    if max(a - wide, c - high) <= 0.05:
        return Passage("upright")
    how = _planar(size, bay, opening, home, inside) or _in_turn(size, bay, opening, home, inside)
    if how:
        return Passage(how)
    short, lacks = max((a - wide, "width"), (c - high, "height"))
    # A bay as deep as its diagonal lets anything turn that passes at all.
    deep = math.hypot(*size) + 2 * PLAY
    if not inside and bay[1] < deep and _planar(size, (bay[0], deep, bay[2]), opening, home, ()):
        lacks = "depth"
    return Passage("not", short, lacks)


def _planar(
    size: Size, bay: Size, opening: Opening, home: Size | None, inside: tuple[Six, ...]
) -> str:  # fmt: skip
    """The one turn with which a unit goes in from outside: ``tilted`` or ``turned``, or empty.

    Args:
        home: Where its lower corner is to stand; none: anywhere inside. [mm]
    """
    a, b, c = size
    u, v, w = home or (0.0, 0.0, 0.0)
    # Tilted it keeps its place along the wall, turned its height: only what stands there is in the way.
    beside = tuple((i[1], i[2], i[4], i[5]) for i in inside if i[0] < u + a and i[3] > u)
    level = tuple((i[1], i[0], i[4], i[3]) for i in inside if i[2] < w + c and i[5] > w)
    fits = all(x <= y for x, y in zip(size, bay, strict=True))
    tilt = Flat(b, c, (opening[1], opening[3]), (bay[1], bay[2]), (v, w) if home else None, beside)
    if fits and a <= opening[2] - opening[0] and way_in(tilt):
        return "tilted"
    turn = Flat(b, a, (opening[0], opening[2]), (bay[1], bay[0]), (v, u) if home else None, level)
    if fits and c <= opening[3] - opening[1] and way_in(turn):
        return "turned"
    return ""


PLANES = {"tilted": (1, 2), "turned": (1, 0), "rolled": (0, 2)}
"""Which two sizes of a unit change places when it is turned so: along the wall, inward, up."""


def _in_turn(
    size: Size, bay: Size, opening: Opening, home: Size, inside: tuple[Six, ...]
) -> str:  # fmt: skip
    """Several turns about one axis after the other, the first on the way in or before it, the others inside.

    Inside it turns in the room around its place that is free of what stands there: where that is not a box, there may
    be ways that are not found.
    """
    found = _room_around(size, bay, home, inside)
    if found is None:
        return ""
    (x0, z0), room = found
    gap = (max(0.0, opening[0] - x0), max(0.0, opening[1] - z0),
           min(room[0], opening[2] - x0), min(room[2], opening[3] - z0))  # fmt: skip
    wide, high = gap[2] - gap[0], gap[3] - gap[1]
    if min(wide, high) <= 0:
        return ""
    first: dict[Size, list[str]] = {}
    a, b, c = size
    every: tuple[Size, ...] = ((a, b, c), (c, b, a), (a, c, b), (b, a, c), (b, c, a), (c, a, b))
    for lying in dict.fromkeys(every):
        if any(x > y for x, y in zip(lying, room, strict=True)) or lying == size:
            continue
        if lying[0] <= wide and lying[2] <= high:
            first[lying] = []
        elif way := _planar(lying, room, gap, None, ()):
            first[lying] = [way]
    queue = deque(sorted(first.items(), key=lambda f: len(f[1])))
    seen = set(first)
    while queue:
        lying, words = queue.popleft()
        for word, (m, n) in PLANES.items():
            turned = list(lying)
            turned[m], turned[n] = lying[n], lying[m]
            after: Size = (turned[0], turned[1], turned[2])
            if after in seen or not _turns(word, after, room, gap):
                continue
            if after == size:
                return ", then ".join((*words, word))
            seen.add(after)
            queue.append((after, [*words, word]))
    return ""


def _turns(word: str, size: Size, room: Size, gap: Opening) -> bool:
    """Whether a unit that is inside can be turned into how it is to lie: within the room, or partly out of the opening."""
    m, n = PLANES[word]
    if any(x > y for x, y in zip(size, room, strict=True)):
        return False
    if math.hypot(size[m], size[n]) + 2 * PLAY <= min(room[m], room[n]):
        return True
    if word == "rolled":
        return False
    wide, high = (gap[0], gap[2]), (gap[1], gap[3])
    span, beside, third = (high, wide, size[0]) if word == "tilted" else (wide, high, size[2])
    if third > beside[1] - beside[0]:
        return False
    return way_in(Flat(size[1], size[n], span, (room[1], room[n]), None, ()), from_inside=True)


def _room_around(
    size: Size, bay: Size, home: Size, inside: tuple[Six, ...]
) -> tuple[tuple[float, float], Size] | None:  # fmt: skip
    """The free room around a place, out to the opening: its lower corner along the wall and up, and its size. [mm]"""
    box = [*home, *(h + s for h, s in zip(home, size, strict=True))]
    box[1] = 0.0
    whole = [0.0, 0.0, 0.0, *bay]

    def free(b: list[float]) -> bool:
        return not any(
            all(i[n] < b[n + 3] - 0.01 and i[n + 3] > b[n] + 0.01 for n in range(3)) for i in inside
        )

    if not free(box):
        return None
    for side in (0, 3, 2, 5, 4):
        wider = [*box]
        wider[side] = whole[side]
        if free(wider):
            box = wider
            continue
        n, up = side % 3, side > 2
        met = [
            i[n] if up else i[n + 3] for i in inside
            if all(m == n or (i[m] < box[m + 3] - 0.01 and i[m + 3] > box[m] + 0.01) for m in range(3))
            and (i[n] >= box[n + 3] - 0.01 if up else i[n + 3] <= box[n] + 0.01)
        ]  # fmt: skip
        box[side] = min(met, default=whole[side]) if up else max(met, default=whole[side])
    return (box[0], box[2]), (box[3] - box[0], box[4] - box[1], box[5] - box[2])


def way_in(flat: Flat, *, from_inside: bool = False) -> bool:
    """Search a way from outside to where it is to stand.

    Args:
        flat: The plane. [mm]
        from_inside: From lying inside, a quarter turned, instead.
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
    if flat.home is None:
        target = shapely.box(deep / 2, tall / 2, room[0] - deep / 2, room[1] - tall / 2)
    else:
        target = shapely.Point(flat.home[0] + deep / 2, flat.home[1] + tall / 2)
    if from_inside:
        # The first angle is a quarter turn.
        lying = shapely.box(tall / 2, deep / 2, room[0] - tall / 2, room[1] - deep / 2)
        reached = {0: [p for p in places[0] if p.intersects(lying)]}
    else:
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
    reached: dict[int, list[shapely.Polygon]], target: shapely.Geometry,
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
