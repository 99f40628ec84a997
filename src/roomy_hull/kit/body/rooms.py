"""Rooms in their places: boxes beside the canopy, a slide-in camper, a cab bay, a hold under a lid."""

import msgspec

from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, Part
from roomy_hull.job.body import Body
from roomy_hull.job.carried import Mount
from roomy_hull.job.rooms import Room
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kinds.expansion import PointMass
from roomy_hull.kit.body import shell
from roomy_hull.kit.body.canopy import BayPlace, CanopyPiece, bays_of, clear_of
from roomy_hull.kit.body.canopy import solids as shell_solids
from roomy_hull.kit.body.subframe import floor_z, front_x
from roomy_hull.shop.shop import Shop


class RoomPlace(msgspec.Struct, frozen=True):
    """A room where it stands: its outside, its clear inside, a camper's alcove over the cab. [mm]"""

    room: Room
    box: Box
    inside: Box
    alcove: Box | None = None

    @property
    def mount(self) -> Mount:
        """With what its units come off."""
        return "vehicle" if self.room.vehicles_own else "tray"


def place(vehicle: Vehicle, body: Body, room: Room) -> RoomPlace:
    """Stand a room in its place.

    Args:
        vehicle: What the body stands on. [mm]
        body: Its tray counts: rooms are placed from its front edge and its floor.
        room: One of the body's, or one that is tried.
    Returns: In vehicle axes. [mm]
    """
    one = room.shell
    x0 = front_x(vehicle, body.tray) + room.start
    y0 = room.across - one.width / 2
    z0 = floor_z(vehicle, body.tray) + room.up
    box = Box(x0, y0, z0, x0 + one.length, y0 + one.width, z0 + one.height)
    alcove = None
    if room.over > 0:
        alcove = Box(x0 - room.over, box.y0, z0 + room.over_up, x0, box.y1, box.z1)
    return RoomPlace(room, box, clear_of(one, box), alcove)


def places(vehicle: Vehicle, body: Body) -> tuple[RoomPlace, ...]:
    """Every room in its place. [mm]"""
    return tuple(place(vehicle, body, room) for room in body.rooms)


def bays(there: tuple[RoomPlace, ...]) -> dict[str, BayPlace]:
    """The bays of all rooms, by id. [mm]"""
    found: dict[str, BayPlace] = {}
    for one in there:
        found |= bays_of(one.room.shell, one.inside, own=one.room.vehicles_own)
    return found


def parts(there: RoomPlace, shop: Shop) -> tuple[Part, ...]:
    """What is cut and bought for a room, its parts standing in vehicle axes.

    Returns: As a canopy's, each the room's own; tie-downs of a bought camper.
    """
    room, corner = there.room, there.box[:3]
    found: list[Part] = []
    for part in shell.parts(room.shell, shop):
        name = part.name.replace("Canopy: ", f"{room.name}: ")
        if isinstance(part, Hardware) and room.kind == "side box" and part.metres and part.bore:
            continue  # a side box has no roof rails
        if isinstance(part, Hardware):
            name = name.replace("canopy to tray", f"{room.name} to tray")
            lies = tuple(b.moved(*corner) for b in part.places)
            links = tuple(g.replace("Canopy: ", f"{room.name}: ") for g in part.links)
            holds = (room.id, *part.holds[1:]) if part.holds is not None else None
            found.append(
                msgspec.structs.replace(part, name=name, owner=room.ref, places=lies, links=links, holds=holds)
            )  # fmt: skip
            continue
        poses = tuple(
            s._replace(at=(s.at[0] + corner[0], s.at[1] + corner[1], s.at[2] + corner[2])) for s in part.poses
        )  # fmt: skip
        group = part.group.replace("Canopy: ", f"{room.name}: ")
        found.append(
            msgspec.structs.replace(part, name=name, owner=room.ref, poses=poses, group=group)
        )
    if room.kind == "camper" and room.tie_downs:
        found.append(
            Hardware(f"{room.name}: spring-loaded tie-down to the tray", room.ref, room.tie_downs)
        )
    return tuple(found)


def masses(there: RoomPlace, shop: Shop) -> tuple[PointMass, ...]:
    """A room's own masses in vehicle axes: as it is made, or what a bought one weighs about its centre.

    Returns: Without its contents. [kg, mm]
    """
    room, box = there.room, there.box
    if room.made:
        return shell.masses_of(room.shell, box, shell.parts(room.shell, shop))
    if room.mass <= 0:
        return ()
    front = there.alcove.x0 if there.alcove is not None else box.x0
    x = front + room.centre_along if room.centre_along else (box.x0 + box.x1) / 2
    z = box.z0 + room.centre_up if room.centre_up else (box.z0 + box.z1) / 2
    return (PointMass(room.name, room.mass, room.mass_source, (x, room.across, z)),)


def solids(there: RoomPlace) -> tuple[CanopyPiece, ...]:
    """What of a room never moves, in vehicle axes; nothing of one that is the vehicle's own.

    Args:
        there: The room. [mm]
    Returns: Walls around its doors and roof; a camper's alcove. [mm]
    """
    room = there.room
    if room.vehicles_own:
        return ()
    found = [
        msgspec.structs.replace(p, words=room.name) for p in shell_solids(room.shell, there.box)
    ]
    if there.alcove is not None:
        found.append(CanopyPiece("alcove", f"{room.name}'s alcove", there.alcove))
    return tuple(found)
