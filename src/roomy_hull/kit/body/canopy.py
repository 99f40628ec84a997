"""Canopy: its place on the tray, what of it never moves, and its bays."""

import msgspec

from roomy_hull.core.geometry.frames import Frame
from roomy_hull.core.geometry.regions import Rect
from roomy_hull.core.geometry.solids import Box
from roomy_hull.job.body import Body
from roomy_hull.job.canopy import Bay, Canopy
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kit.body import frame, sides
from roomy_hull.kit.body.faces import FaceWay, ways_of
from roomy_hull.kit.body.subframe import floor_z, front_x


class CanopyPiece(msgspec.Struct, frozen=True):
    """A piece of a canopy that never moves: ``roof``, ``wall`` or ``divider``, its words, its box, its side. [mm]"""

    role: str
    words: str
    box: Box
    side: str = ""


class BayPlace(msgspec.Struct, frozen=True):
    """A bay with its frame, its size, and what is open of its access face.

    Attributes:
        bay, frame, size: The bay, its directions, and its room in them. [mm]
        openings: The clear openings of the doors before it, less the bay's margins; where it has no door, what the
            margins leave of its face. [mm]
        doorless: Whether no door opens into it.
        also: Further ways into it.
    """

    bay: Bay
    frame: Frame
    size: Box
    openings: tuple[Rect, ...]
    doorless: bool = False
    also: tuple[FaceWay, ...] = ()

    def opening_for(self, e: Box) -> Rect:
        """The opening behind which something stands: that which shares most of its front with it.

        Args:
            e: In the bay's directions. [mm]
        Returns: In (u, w); the nearest along the wall where it stands behind none. [mm]
        """
        if len(self.openings) == 1:
            return self.openings[0]

        def shared(o: Rect) -> tuple[float, float]:
            wide = min(e.x1, o[2]) - max(e.x0, o[0])
            high = min(e.z1, o[3]) - max(e.z0, o[1])
            return (wide * high if min(wide, high) > 0 else 0.0), min(wide, high)

        return max(self.openings, key=shared)


def outside(vehicle: Vehicle, body: Body) -> Box | None:
    """The canopy's outside box in vehicle axes, or nothing without a canopy. [mm]"""
    canopy = body.canopy
    if canopy is None:
        return None
    x0, z0 = front_x(vehicle, body.tray) + canopy.start, floor_z(vehicle, body.tray)
    half = canopy.width / 2
    return Box(x0, -half, z0, x0 + canopy.length, half, z0 + canopy.height)


def inside(vehicle: Vehicle, body: Body) -> Box | None:
    """The canopy's clear inside box, between walls and under the roof. [mm]"""
    canopy, box = body.canopy, outside(vehicle, body)
    if canopy is None or box is None:
        return None
    return clear_of(canopy, box)


def clear_of(canopy: Canopy, box: Box) -> Box:
    """The clear inside of a canopy, or of another room, from its outside. [mm]"""
    w = canopy.wall
    return Box(box.x0 + w, box.y0 + w, box.z0, box.x1 - w, box.y1 - w, box.z1 - roof_depth(canopy))


def bays(vehicle: Vehicle, body: Body) -> dict[str, BayPlace]:
    """Every bay's place.

    Args:
        body: Tray and canopy. [mm]
    Returns: By bay id, in the order of the job.
    """
    canopy, clear = body.canopy, inside(vehicle, body)
    return bays_of(canopy, clear) if canopy is not None and clear is not None else {}


def bays_of(canopy: Canopy, clear: Box, *, own: bool = False) -> dict[str, BayPlace]:
    """The bays of a canopy, or of another room.

    Args:
        canopy: Walls, doors and bays. [mm]
        clear: Its clear inside in vehicle axes. [mm]
        own: Whether its walls are the vehicle's own, whose doors nobody drew.
    Returns: By bay id, in the order of the job.
    """
    found = {}
    for bay in canopy.bays:
        z = clear.z0 + bay.sill
        if bay.side == "left":
            frame = Frame(clear.x0 + bay.start, clear.y0, z, "left")
        elif bay.side == "right":
            frame = Frame(clear.x0 + bay.start, clear.y1, z, "right")
        else:
            frame = Frame(clear.x1, clear.y0 + bay.start, z, "rear")
        face = (
            bay.margin_start,
            bay.margin_bottom,
            bay.length - bay.margin_end,
            bay.height - bay.margin_top,
        )
        seen = sides.clear_in(canopy, bay.side, canopy.wall + bay.start, bay.sill, face)
        size = Box(0, 0, 0, bay.length, bay.depth, bay.height)
        found[bay.id] = BayPlace(
            bay, frame, size, seen or (face,), not seen, ways_of(canopy, bay, own=own)
        )
    return found


def divider(canopy: Canopy) -> tuple[float, float] | None:
    """Between where the divider stands: where bays of both sides stand back to back, up to a bay from the rear.

    Args:
        canopy: The canopy. [mm]
    Returns: From the canopy's front, along; none where there is no divider. [mm]
    """
    if canopy.divider <= 0:
        return None
    rows = {
        side: [(b.start, b.start + b.length) for b in canopy.bays if b.side == side]
        for side in ("left", "right")
    }
    both = [
        (max(a0, b0), min(a1, b1))
        for a0, a1 in rows["left"] for b0, b1 in rows["right"] if min(a1, b1) > max(a0, b0)
    ]  # fmt: skip
    if not both:
        return None
    start, end = min(a for a, _b in both), max(b for _a, b in both)
    middle = canopy.width / 2 - canopy.wall
    deep = [
        b.depth for b in canopy.bays if b.side == "rear" and b.start < middle < b.start + b.length
    ]
    end = min([end, *(canopy.length - 2 * canopy.wall - d for d in deep)])
    return (canopy.wall + start, canopy.wall + end) if end - start > 1 else None


def roof_depth(canopy: Canopy) -> float:
    """How far the roof reaches down with its bows and insulation, which may be thicker. [mm]"""
    made = 0.0 if canopy.kind == "cargo" else frame.hung(canopy)
    return max(canopy.roof, canopy.insulation + canopy.skin if canopy.insulation else 0.0, made)


def solids(canopy: Canopy, box: Box) -> tuple[CanopyPiece, ...]:
    """What of a canopy never moves: walls around the doors, roof with its insulation, divider.

    Args:
        canopy: The canopy; a topper stands on a tub's walls, of a cargo space everything is the vehicle's. [mm]
        box: Its outside in vehicle axes. [mm]
    Returns: In vehicle axes. [mm]
    """
    found = [CanopyPiece("roof", "canopy roof", box._replace(z0=box.z1 - roof_depth(canopy)))]
    found += [
        CanopyPiece("wall", f"canopy {s} wall", wall, s) for s, wall in sides.walls(canopy, box)
    ]
    span = divider(canopy)
    if span is not None:
        half = canopy.divider / 2
        middle = (box.y0 + box.y1) / 2
        sheet = Box(box.x0 + span[0], middle - half, box.z0, box.x0 + span[1], middle + half,
                    box.z1 - canopy.roof)  # fmt: skip
        found.append(CanopyPiece("divider", "divider", sheet))
    return tuple(found)
