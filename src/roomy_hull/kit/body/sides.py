"""Sides: a canopy's wall, clear openings, jambs and leaves as one thing, in the wall's own directions.

Along the wall one counts from the canopy's front, at the rear from its left end; up from its floor. A door's
sizes are those of its clear opening. The leaf is larger: it laps over the opening's edge, where it presses on
the seal, wherever floor, roof and corners leave room for it, and lies in a rebate of the wall, flush with the
outside. What is cut, what swings and what is in the way all come from here.
"""

import msgspec

from roomy_hull.core.geometry.regions import Rect, left_of
from roomy_hull.core.geometry.solids import Box, without
from roomy_hull.job.canopy import Canopy, Door

LAP = 15.0
"""By how much a made leaf laps over its clear opening, all round (common practice). [mm]"""
PANEL_GAP = 5.0
"""Gap around a leaf (common practice). [mm]"""
RETURN = 20.0
"""Depth of a leaf's returns where the wall is thick enough (common practice). [mm]"""
STILES = {25.0: "25x25x2", 20.0: "20x20x2"}
"""Sections of a leaf's frame by their depth, the deepest first. [mm]"""
LAND = 3.0
"""What of the wall's depth is left behind a leaf: the jamb's leg and the pressed seal (common practice). [mm]"""
LEAST_LEAF = 2.0


class Leaf(msgspec.Struct, frozen=True):
    """One leaf of a door.

    Attributes:
        key: Empty for the door's own leaf; ``half`` for a let-down half, which may be the tub's own tailgate.
        rect: From its lower corner nearest to where the wall begins: along and up, along and up. [mm]
        hinge: The edge about which it turns.
        swing: How far. [degrees]
        made: Whether it is cut, or the vehicle's own.
    """

    key: str
    rect: Rect
    hinge: str
    swing: float
    made: bool

    def size(self) -> tuple[float, float]:
        """Length and height as cut. [mm]"""
        return self.rect[2] - self.rect[0], self.rect[3] - self.rect[1]


class DoorPlace(msgspec.Struct, frozen=True):
    """A door in its wall: its clear opening, the rebate for its leaves in the wall's outside, its leaves. [mm]"""

    door: Door
    clear: Rect
    rebate: Rect
    leaves: tuple[Leaf, ...]

    @property
    def made(self) -> tuple[Leaf, ...]:
        """The leaves that the workshop makes: all but a vehicle's own tailgate."""
        return tuple(leaf for leaf in self.leaves if leaf.made)


def depth(canopy: Canopy) -> tuple[float, str]:
    """How deep a leaf is, and the section of its frame.

    Args:
        canopy: Whose wall and skin. [mm]
    Returns: Depth from the outside inward; the section is empty where the wall is too thin for a frame. [mm]
    """
    room = canopy.wall - LAND
    for bar, section in STILES.items():
        if canopy.skin + bar <= room:
            return canopy.skin + bar, section
    return max(LEAST_LEAF, min(RETURN, room)), ""


def doors(canopy: Canopy) -> tuple[DoorPlace, ...]:
    """Every door of a canopy in its wall.

    Args:
        canopy: The canopy. [mm]
    Returns: In the order of the job.
    """
    return tuple(placed(canopy, door) for door in canopy.doors)


def placed(canopy: Canopy, door: Door) -> DoorPlace:
    """Place one door in its wall.

    Args:
        canopy: The canopy. [mm]
        door: A door of it, or one that is tried.
    Returns: What of it is lower than a tub's walls is the tub's own tailgate.
    """
    clear = (door.start, door.sill, door.start + door.length, door.sill + door.height)
    a0, z0, a1, z1 = clear
    if canopy.kind == "cargo":
        whole = (a0 + PANEL_GAP, z0 + PANEL_GAP, a1 - PANEL_GAP, z1 - PANEL_GAP)
        return DoorPlace(door, clear, clear, _halves(door, whole, z0, made=False))
    gate = z0 < canopy.base
    g = PANEL_GAP
    # Lapped all round, but for where floor, roof or the wall's end leave no room: there it stops a gap before them.
    lowest = canopy.base if gate else max(z0 - LAP, g)
    whole = (
        max(a0 - LAP, g), lowest, min(a1 + LAP, wall_length(canopy, door.side) - g),
        min(z1 + LAP, canopy.height - canopy.roof - g),
    )  # fmt: skip
    rebate = (whole[0] - g, lowest - (0.0 if gate else g), whole[2] + g, whole[3] + g)
    leaves: tuple[Leaf, ...] = ()
    if gate and z1 > canopy.base:
        leaves = (Leaf("", whole, door.hinge, door.swing, made=True),)
    elif not gate:
        leaves = _halves(door, whole, z0, made=True)
    if gate:
        own = (a0 + g, z0 + g, a1 - g, min(canopy.base, z1) - g)
        if own[3] - own[1] > 2 * g:
            key = "half" if leaves else ""
            leaves = (*leaves[:1], Leaf(key, own, "bottom", 90.0, made=False))
    return DoorPlace(door, clear, rebate, leaves)


def _halves(door: Door, whole: Rect, sill: float, *, made: bool) -> tuple[Leaf, ...]:
    """A door's leaf, or its two halves with a panel gap between them."""
    a0, z0, a1, z1 = whole
    at = sill + door.split
    if door.split <= 0 or at - PANEL_GAP <= z0 + 1 or at >= z1 - 1:
        return (Leaf("", whole, door.hinge, door.swing, made),)
    return (
        Leaf("", (a0, at, a1, z1), "top", door.swing, made),
        Leaf("half", (a0, z0, a1, at - PANEL_GAP), "bottom", 90.0, made),
    )


def wall_length(canopy: Canopy, side: str) -> float:
    """How long a wall is: as the canopy, or at front and rear as it is wide. [mm]"""
    return canopy.length if side in ("left", "right") else canopy.width


def stood(outside: Box, side: str, rect: Rect, near: float, far: float) -> Box:
    """Stand a rectangle of a wall in its place.

    Args:
        outside: The canopy's outside in vehicle axes. [mm]
        rect: In the wall's directions. [mm]
        near, far: Between which depths from the outside inward. [mm]
    Returns: In vehicle axes. [mm]
    """
    a0, z0, a1, z1 = rect
    z0, z1 = outside.z0 + z0, outside.z0 + z1
    if side == "rear":
        return Box(outside.x1 - far, outside.y0 + a0, z0, outside.x1 - near, outside.y0 + a1, z1)
    if side == "front":
        return Box(outside.x0 + near, outside.y0 + a0, z0, outside.x0 + far, outside.y0 + a1, z1)
    x0, x1 = outside.x0 + a0, outside.x0 + a1
    if side == "left":
        return Box(x0, outside.y0 + near, z0, x1, outside.y0 + far, z1)
    return Box(x0, outside.y1 - far, z0, x1, outside.y1 - near, z1)


def walls(canopy: Canopy, outside: Box) -> tuple[tuple[str, Box], ...]:
    """What of the walls stands around the doors: the skin with its rebates, and behind it jambs and posts.

    Args:
        canopy: The canopy. [mm]
        outside: Its outside in vehicle axes. [mm]
    Returns: Left, right, rear, front; from a tub's walls up to below the roof. [mm]
    """
    thick = min(depth(canopy)[0], canopy.wall)
    found: list[tuple[str, Box]] = []
    for side in ("left", "right", "rear", "front"):
        here = [d for d in doors(canopy) if d.door.side == side]
        # At the corners the long walls go through.
        long = side in ("left", "right")
        inset = 0.0 if long else canopy.wall
        face = (inset, canopy.base, wall_length(canopy, side) - inset, canopy.height - canopy.roof)
        layers: list[tuple[float, float, list[Rect]]] = [(0.0, canopy.wall, [])]
        if here:
            layers = [
                (0.0, thick, [d.rebate for d in here]),
                (thick, canopy.wall, [d.clear for d in here]),
            ]
        about = [
            stood(outside, d.door.side, d.rebate, 0.0, thick)
            for d in doors(canopy) if long and d.door.side == "rear"
        ]  # fmt: skip
        for near, far, holes in layers:
            if far - near > 0.01:
                boxes = [stood(outside, side, r, near, far) for r in left_of(face, holes)]
                found += [(side, piece) for box in boxes for piece in without(box, about)]
    return tuple(found)


def clear_in(canopy: Canopy, side: str, along: float, up: float, face: Rect) -> tuple[Rect, ...]:
    """The clear openings of a wall's doors as a bay sees them.

    Args:
        canopy: The canopy. [mm]
        along, up: Where the bay begins in the wall's directions. [mm]
        face: What the bay leaves of its access face itself, in its own directions. [mm]
    Returns: In the bay's directions (u, w), in the order of the doors; those that reach into the face. [mm]
    """
    found = []
    for place in doors(canopy):
        if place.door.side != side:
            continue
        a0, z0, a1, z1 = place.clear
        u0, w0 = max(face[0], a0 - along), max(face[1], z0 - up)
        u1, w1 = min(face[2], a1 - along), min(face[3], z1 - up)
        if u1 - u0 > 1 and w1 - w0 > 1:
            found.append((u0, w0, u1, w1))
    return tuple(found)
