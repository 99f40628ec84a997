"""Openings: everything in a job that opens, with its space closed, on its way and open."""

import functools
from collections.abc import Iterable

import msgspec

from roomy_hull.core.geometry.frames import Frame
from roomy_hull.core.geometry.motion import (
    FINE,
    TURNS,
    Motion,
    Piece,
    block,
    carried,
    round_piece,
    shifted,
    sweep_of,
)
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.parts import Part
from roomy_hull.core.refs import Ref
from roomy_hull.core.tyres import overall_diameter, parts_of
from roomy_hull.job.body import Body
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kit import vehicle_pieces
from roomy_hull.kit.body import fittings, mudguards
from roomy_hull.kit.body import rooms as room_kit
from roomy_hull.kit.body.canopy import solids as canopy_solids
from roomy_hull.kit.body.doors import canopy_doors, tray_doors
from roomy_hull.kit.body.pieces import OPENS, BodyParts
from roomy_hull.kit.body.racks import RackPlace
from roomy_hull.kit.body.rooms import RoomPlace
from roomy_hull.kit.vehicle_pieces import VehiclePiece

Corner = tuple[float, float, float]
"""Of a carried thing: lower, front, left. [mm]"""


class Opening(msgspec.Struct, frozen=True):
    """Something that opens, in vehicle axes.

    Attributes:
        id, owner, name: Its id, the thing it belongs to (empty for the body's own), its words.
        kind: ``unit``, ``door``, ``tray`` or ``outside``.
        side: Where one stands to open it.
        motion: In the owner's own directions.
        rest, swept, opened: Closed, all that it passes through, and open. [mm]
        rest_box, swept_box, opened_box: Around each of them. [mm]
        where: Where the owner's own directions lie; nothing where they are the vehicle's. [mm]
    """

    id: str
    owner: str
    name: str
    kind: str
    side: str
    motion: Motion
    rest: tuple[Piece, ...]
    swept: tuple[Piece, ...]
    opened: tuple[Piece, ...]
    rest_box: Box
    swept_box: Box
    opened_box: Box
    where: Frame | Corner | None = None

    @property
    def turns(self) -> bool:
        """Whether any part of it swings or folds."""
        return any(s.verb in TURNS for s in self.motion.steps)

    @property
    def lifts(self) -> bool:
        """Whether it is only lifted, as a hatch is."""
        return all(s.verb == "lift" for s in self.motion.steps)


def opening_id(owner: str, motion: Motion) -> str:
    """The id of a thing's opening: its own id, with the motion's where it has one."""
    return f"{owner}:{motion.id}" if motion.id else owner


def _made(
    key: str, owner: str, kind: str, side: str, motion: Motion, where: Frame | Corner | None
) -> Opening:  # fmt: skip
    """Put an opening together from its motion and its place."""
    space = sweep_of(motion)
    sets = [_put(pieces, where) for pieces in (space.rest, space.swept, space.opened)]
    rest, swept, opened = sets
    boxes = [hull(p.box for p in pieces) for pieces in sets]
    boxes[1] = hull(boxes)  # what holds it open stands beside what it passes through
    return Opening(
        key,
        owner,
        motion.name,
        kind,
        side,
        motion,
        rest,
        swept,
        opened,
        boxes[0],
        boxes[1],
        boxes[2],
        where,
    )


def _put(pieces: tuple[Piece, ...], where: Frame | Corner | None) -> tuple[Piece, ...]:
    """Put pieces from an owner's own directions into vehicle axes. [mm]"""
    if where is None:
        return pieces
    if isinstance(where, Frame):
        return tuple(carried(where, p) for p in pieces)
    return tuple(_at(p, where) for p in pieces)


@functools.lru_cache(maxsize=128)
def closely(motion: Motion, where: Frame | Corner | None) -> tuple[Piece, ...]:
    """All that an opening passes through, followed so closely that nothing but a true meeting is one.

    Returns: In vehicle axes; it exceeds the true space by less than touching is. [mm]
    """
    # Kept here, few at a time: such sweeps are long.
    return _put(sweep_of.__wrapped__(motion, FINE).swept, where)


def of_unit(owner: str, motions: tuple[Motion, ...], at: Frame) -> tuple[Opening, ...]:
    """A unit's openings, its motions carried to where it stands.

    Args:
        motions: In the unit's own directions. [mm]
        at: The unit's corner and side. [mm]
    Returns: In the order of the motions.
    Raises:
        InputError: A motion has no end.
    """
    return tuple(_made(opening_id(owner, m), owner, "unit", at.side, m, at) for m in motions)


def of_carried(
    owner: str, motions: tuple[Motion, ...], corner: Corner, side: str
) -> tuple[Opening, ...]:
    """A carried thing's openings, its motions shifted to its lower front left corner. [mm]"""
    return tuple(_made(opening_id(owner, m), owner, "outside", side, m, corner) for m in motions)


def _at(piece: Piece, corner: Corner) -> Piece:
    """Shift a piece along all three axes. [mm]"""
    for axis, by in enumerate(corner):
        piece = shifted(piece, axis, by)
    return piece


def of_body(
    body: Body, canopy: Box | None, tray: BodyParts, rooms: tuple[RoomPlace, ...] = ()
) -> tuple[Opening, ...]:
    """The openings of the body's own doors.

    Args:
        canopy: The canopy's outside. [mm]
        tray: The tray's solids. [mm]
    Returns: Canopy doors, those of the rooms, then drop sides, toolboxes, trundle drawer.
    """
    rows = (
        [("door", row) for row in canopy_doors(body.canopy, canopy)]
        if body.canopy and canopy
        else []
    )
    rows += [("door", row) for one in rooms for row in canopy_doors(one.room.shell, one.box)]
    rows += [("tray", row) for row in tray_doors(body.tray, tray)]
    return tuple(_made(key, "", kind, side, motion, None) for kind, (key, side, motion) in rows)


class FixedPiece(msgspec.Struct, frozen=True):
    """Something that never moves.

    Attributes:
        ref: What it belongs to (vehicle, tray or canopy), and what findings call it.
        role: ``ground``, ``wall``, ``roof``, ``divider``, or the role of a piece of vehicle or body, or of a fitting.
        piece: In vehicle axes. [mm]
        side: Of a canopy's wall.
        guessed: Whether its shape was not measured.
    """

    ref: Ref
    role: str
    piece: Piece
    side: str = ""
    guessed: bool = False


def of_vehicle(piece: VehiclePiece) -> FixedPiece:
    """A piece of the vehicle as what never moves. [mm]"""
    ref = Ref("vehicle piece", piece.words)
    return FixedPiece(ref, piece.role, piece.piece, piece.side, piece.guessed)


def of_canopy(fitting: fittings.Fitting) -> FixedPiece:
    """A bought piece of the canopy as what never moves. [mm]"""
    return FixedPiece(Ref("canopy piece", fitting.words), fitting.role, fitting.piece, fitting.side)


FAR = 20000.0


def fixed(
    vehicle: Vehicle,
    body: Body,
    tray: BodyParts,
    canopy: Box | None,
    rooms: tuple[RoomPlace, ...] = (),
    racks: tuple[RackPlace, ...] = (),
    parts: Iterable[Part] = (),
) -> tuple[FixedPiece, ...]:
    """List what never moves: ground, vehicle, tray, and the canopy's walls around its openings.

    Args:
        vehicle: For its wheels. [mm]
        tray: The tray's solids. [mm]
        canopy: The canopy's outside. [mm]
        parts: Of the body: its mudguards stand as they are cut. [mm]
    Returns:
        In vehicle axes; drop sides, toolboxes and the trundle drawer open and are left out. A wheel is a prism
        around its tyre. [mm]
    """
    found = [
        FixedPiece(
            Ref("vehicle piece", "ground"), "ground", block(Box(-FAR, -FAR, -500.0, FAR, FAR, 0.0))
        ),
    ]
    found += [of_vehicle(piece) for piece in vehicle_pieces.solids(vehicle)]
    radius, section = overall_diameter(vehicle.tyre) / 2, parts_of(vehicle.tyre)[0]
    for x, track in ((0.0, vehicle.track_front), (vehicle.wheelbase, vehicle.track_rear)):
        for side, sign in (("left", -1), ("right", 1)):
            y = sign * track / 2
            wheel = round_piece(1, (x, radius), radius, y - section / 2, y + section / 2)
            name = f"{side} {'rear' if x else 'front'} wheel"
            found.append(FixedPiece(Ref("vehicle piece", name), "wheel", wheel, side))
    found += [
        FixedPiece(Ref("tray piece", p.words), p.role, block(p.box))
        for p in tray
        if p.role not in OPENS
    ]
    for piece in mudguards.pieces(parts):
        side = "left" if piece.hi < 0 else "right"
        found.append(FixedPiece(Ref("tray piece", f"{side} mudguard"), "mudguard", piece, side))
    if canopy is not None and body.canopy is not None:
        found += [
            FixedPiece(Ref("canopy piece", p.words), p.role, block(p.box), p.side)
            for p in canopy_solids(body.canopy, canopy)
        ]
        found += [of_canopy(f) for f in fittings.outside(body.canopy, canopy)]
    for one in rooms:
        found += [
            FixedPiece(Ref("canopy piece", p.words), p.role, block(p.box), p.side) for p in room_kit.solids(one)
        ]  # fmt: skip
        found += [of_canopy(f) for f in fittings.outside(one.room.shell, one.box)]
    found += [FixedPiece(Ref("rack", r.rack.id), "rack", block(b)) for r in racks for b in r.boxes]
    return tuple(found)
