"""What is bought for a canopy and stands in the way: gas struts, locks, hinges, sockets of jack legs.

Struts are those that a job names. With the door shut they lie beside its clear opening's ends, from a stud on the wall
inside to one on the leaf; with the door open they stand between the two in the way of what slides out past them.
"""

import math
from typing import NamedTuple

import msgspec

from roomy_hull.core.geometry.hull import convex_hull
from roomy_hull.core.geometry.motion import Piece, block, prism
from roomy_hull.core.geometry.regions import Rect
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.tyres import parts_of
from roomy_hull.job.canopy import Canopy, Strut
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kit.body import sides
from roomy_hull.kit.body.sides import DoorPlace, Leaf

STRUT = 22.0
"""A gas strut's diameter (common practice). [mm]"""
STRUT_ROW = 30.0
"""From one strut to the next where two stand at one end (common practice). [mm]"""
LOCK = (110.0, 80.0, 8.0)
"""A lock's case on a leaf's inside: along, up, inward (common practice). [mm]"""
LOCK_EDGE = 40.0
"""How far a lock's case stands from the leaf's edges (common practice). [mm]"""
HINGE = 12.0
"""A hinge's knuckle outside a leaf's edge, high and deep (common practice). [mm]"""
SOCKET = (25.0, 10.0, 250.0)
"""A jack leg's socket on a corner post's outside: along, outward, up (common practice). [mm]"""
BESIDE = 50.0
"""On each side so much is left between a leg and what drives out (common practice). [mm]"""
SOCKET_FOOT = 100.0
"""How high above the canopy's lower edge a socket begins (common practice). [mm]"""


def leg_room(vehicle: Vehicle, tray: float, canopy: Canopy) -> float:
    """What is left on each side between a canopy's legs and the widest of what drives out from under it.

    Args:
        tray: Its width. [mm]
    Returns: Below 0 where the legs are in the way. [mm]
    """
    widest = max(tray, vehicle.track_rear + parts_of(vehicle.tyre)[0])
    return (canopy.width + SOCKET[1] - widest) / 2 + canopy.leg_out


def with_legs_clear(vehicle: Vehicle, tray: float, canopy: Canopy) -> Canopy:
    """A canopy whose legs stand out as far as it takes to drive out between them. [mm]"""
    lacks = BESIDE - leg_room(vehicle, tray, canopy)
    out = 5.0 * math.ceil(lacks / 5.0 - 1e-9)
    return msgspec.structs.replace(canopy, leg_out=canopy.leg_out + out) if lacks > 0 else canopy


class Fitting(NamedTuple):
    """A bought piece: ``strut``, ``lock``, ``hinge`` or ``jack``, its words, its prism, the wall it is on. [mm]"""

    role: str
    words: str
    piece: Piece
    side: str


def _piece(box: Box, side: str, ring: list[tuple[float, float]], a0: float, a1: float) -> Piece:
    """A prism along a wall from its ring of (inward, up), both from the canopy's outside. [mm]"""
    if side == "rear":
        points = [(box.x1 - d, box.z0 + z) for d, z in ring]
        return prism(1, convex_hull(points), box.y0 + a0, box.y0 + a1)
    out = 1 if side == "left" else -1
    y = box.y0 if side == "left" else box.y1
    return prism(
        0, convex_hull([(y + out * d, box.z0 + z) for d, z in ring]), box.x0 + a0, box.x0 + a1
    )


def strut_starts(place: DoorPlace, strut: Strut) -> tuple[float, ...]:
    """Where a door's struts begin along their wall: at the ends of its clear opening, in turn. [mm]"""
    a0, _z0, a1, _z1 = place.clear
    rows = (a0, a1 - STRUT, a0 + STRUT_ROW, a1 - STRUT - STRUT_ROW)
    return rows[: strut.count]


def struts(canopy: Canopy, box: Box, place: DoorPlace, *, opened: bool) -> tuple[Piece, ...]:
    """A door's gas struts.

    Args:
        canopy: Whose door. [mm]
        box: Its outside in vehicle axes. [mm]
        place: The door; one that is hinged at its top and names its struts.
    Returns:
        In vehicle axes; the studs as the moments of a strut are computed, about a hinge in the plane of the leaf's
        inside. Empty where the door names none. [mm]
    """
    strut, leaf = place.door.strut, next((x for x in place.made if not x.key), None)
    if strut is None or leaf is None or leaf.hinge != "top":
        return ()
    inside, hinge = sides.depth(canopy)[0], leaf.rect[3]
    angle = math.radians(leaf.swing) if opened else 0.0
    studs = (
        (inside + strut.inset, hinge - strut.body),
        (inside - strut.leaf * math.sin(angle), hinge - strut.leaf * math.cos(angle)),
    )
    if not opened:
        # The rod's end lies on the leaf's inside, not in it.
        studs = (studs[0], (inside + STRUT / 2, studs[1][1]))
    ring = _round_ends(*studs)
    return tuple(
        _piece(box, place.door.side, ring, a, a + STRUT) for a in strut_starts(place, strut)
    )


def _round_ends(p: tuple[float, float], q: tuple[float, float]) -> list[tuple[float, float]]:
    """The corners of a strut between two studs: eight about each, so that its ends are round."""
    r = STRUT / 2
    turns = [math.tau * n / 8 for n in range(8)]
    return [(c[0] + r * math.cos(t), c[1] + r * math.sin(t)) for c in (p, q) for t in turns]


def shut(canopy: Canopy, box: Box) -> tuple[Fitting, ...]:
    """What of all doors reaches into the bays while they are shut: struts and locks.

    Args:
        canopy: The canopy. [mm]
        box: Its outside in vehicle axes. [mm]
    Returns: In the order of the doors.
    """
    found: list[Fitting] = []
    for place in sides.doors(canopy):
        words = f"of door {place.door.id}"
        found += [
            Fitting("strut", f"gas strut {words}", piece, place.door.side)
            for piece in struts(canopy, box, place, opened=False)
        ]
        inside = sides.depth(canopy)[0]
        for leaf in place.made:
            found += [
                Fitting("lock", f"lock {words}", _case(box, place.door.side, rect, inside, inside + LOCK[2]),
                        place.door.side)
                for rect in lock_rects(leaf)
            ]  # fmt: skip
    return tuple(found)


def _case(box: Box, side: str, rect: Rect, near: float, far: float) -> Piece:
    """A box on a wall, from its rectangle and between which depths from the outside inward it stands. [mm]"""
    return block(sides.stood(box, side, rect, near, far))


def lock_rects(leaf: Leaf) -> list[Rect]:
    """Two lock cases on a leaf's inside, along the edge that opens; none on a leaf too small for them."""
    a0, z0, a1, z1 = leaf.rect
    along, up, _deep = LOCK
    if a1 - a0 < 2 * (along + LOCK_EDGE) or z1 - z0 < up + 2 * LOCK_EDGE:
        return []
    low, high = z0 + LOCK_EDGE, z1 - LOCK_EDGE - up
    first, last = a0 + LOCK_EDGE, a1 - LOCK_EDGE - along
    if leaf.hinge in ("start", "end"):
        # One above the other, along the upright edge that opens.
        a = last if leaf.hinge == "start" else first
        spots = [(a, low), (a, high)]
    else:
        z = high if leaf.hinge == "bottom" else low
        spots = [(first, z), (last, z)]
    return [(a, z, a + along, z + up) for a, z in spots]


def outside(canopy: Canopy, box: Box) -> tuple[Fitting, ...]:
    """What stands out of a canopy's walls: hinges along the leaves, sockets for jack legs at the corners.

    Args:
        canopy: The canopy. [mm]
        box: Its outside in vehicle axes. [mm]
    Returns: Hinges in the order of the doors, then sockets.
    """
    found: list[Fitting] = []
    half = HINGE / 2
    for place in sides.doors(canopy):
        side = place.door.side
        for leaf in place.made:
            a0, z0, a1, z1 = leaf.rect
            if leaf.hinge in ("start", "end"):
                a = a0 if leaf.hinge == "start" else a1
                rect = (a - half, z0, a + half, z1)
            else:
                z = z1 if leaf.hinge == "top" else z0
                rect = (a0, z - half, a1, z + half)
            piece = _case(box, side, rect, -HINGE, 0.0)
            found.append(Fitting("hinge", f"hinge of door {place.door.id}", piece, side))
    if canopy.jacks and canopy.kind == "canopy":
        along, out, up = SOCKET
        up = min(up, canopy.height - SOCKET_FOOT)
        for side in ("left", "right"):
            for a in (0.0, canopy.length - along):
                rect = (a, SOCKET_FOOT, a + along, SOCKET_FOOT + up)
                piece = _case(box, side, rect, -out, 0.0)
                found.append(Fitting("jack", f"jack leg's socket {side}", piece, side))
    return tuple(found)
