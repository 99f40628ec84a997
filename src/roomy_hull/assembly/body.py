"""The ground that things stand on: vehicle and body in vehicle axes, with their masses, parts and openings."""

import msgspec

from roomy_hull.assembly.motions import (
    FixedPiece,
    Opening,
    fixed,
    of_body,
    of_canopy,
    of_vehicle,
)
from roomy_hull.assembly.things import Mass
from roomy_hull.core.capabilities import Capabilities, Held
from roomy_hull.core.errors import InputError
from roomy_hull.core.fill import BALL, FUEL, Fill
from roomy_hull.core.geometry.motion import Piece
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, Part
from roomy_hull.core.refs import CANOPY, TRAILER, TRAY, VEHICLE, Ref
from roomy_hull.core.uncertainty import uncertainty_of
from roomy_hull.job.body import Body
from roomy_hull.job.canopy import Canopy
from roomy_hull.job.carried import Mount
from roomy_hull.job.edits.setups import hung, setup_of
from roomy_hull.job.model import Job
from roomy_hull.kinds.expansion import PointMass
from roomy_hull.kit import vehicle_pieces
from roomy_hull.kit.body import canopy as canopy_kit
from roomy_hull.kit.body import fittings, lining, shell, undertray
from roomy_hull.kit.body import racks as rack_kit
from roomy_hull.kit.body import rooms as room_kit
from roomy_hull.kit.body import tray as tray_kit
from roomy_hull.kit.body.canopy import BayPlace
from roomy_hull.kit.body.leaves import door_mass
from roomy_hull.kit.body.pieces import BodyParts, BodyThing
from roomy_hull.kit.body.racks import RackPlace
from roomy_hull.kit.body.rooms import RoomPlace
from roomy_hull.kit.vehicle_pieces import Inside
from roomy_hull.shop.shop import Shop


class Shell(msgspec.Struct, frozen=True):
    """Something with walls, doors and bays where it stands: the canopy, or another room.

    `path` is where its value is in the job, `ref` what its parts belong to, `own` whether its walls and doors are
    the vehicle's own or bought with it.
    """

    value: Canopy
    box: Box
    inside: Box
    path: str
    ref: Ref
    own: bool = False


class Ground(msgspec.Struct, frozen=True):
    """What the things stand on: bays, body solids, and the masses of vehicle and body.

    Attributes:
        bays: By id, in the order of the job.
        tray: The tray's solids, the floor first. [mm]
        canopy, inside: The canopy's outside, and the clear space in it. [mm]
        cab: Around the cab. [mm]
        masses, parts: Of vehicle and body.
        mounts: What a bay's units come off with, by bay id: the canopy, the tray, or never where it is the vehicle's
            own.
        openings: The body's own doors.
        fixed: What never moves.
        rooms: What wheels with their travel, rear axle and fuel tanks need.
        rooms_there: The rooms beside the canopy.
        shells: The canopy, then the rooms: everything with doors and bays.
        racks: The racks.
        shut: What of the canopy's doors reaches into the bays while they are shut.
        things: Pieces of the body that are things to everybody else, as what hangs under the tray.
        insides: Rooms inside the vehicle in which things can be carried. [mm]
    """

    bays: dict[str, BayPlace]
    tray: BodyParts
    canopy: Box | None
    inside: Box | None
    cab: Box
    masses: tuple[Mass, ...]
    parts: tuple[Part, ...]
    mounts: dict[str, Mount]
    openings: tuple[Opening, ...] = ()
    fixed: tuple[FixedPiece, ...] = ()
    rooms: tuple[FixedPiece, ...] = ()
    insides: tuple[tuple[Inside, Piece], ...] = ()
    shut: tuple[FixedPiece, ...] = ()
    rooms_there: tuple[RoomPlace, ...] = ()
    shells: tuple[Shell, ...] = ()
    racks: tuple[RackPlace, ...] = ()
    things: tuple[BodyThing, ...] = ()

    def shell_of(self, bay: str) -> Shell | None:
        """Find what a bay is in."""
        return next((s for s in self.shells if any(b.id == bay for b in s.value.bays)), None)

    def stands_in(self, bay: str) -> Ref | None:
        """What a bay is in: the canopy or a room; none for what is carried, whose bay is empty."""
        shell = self.shell_of(bay)
        return shell.ref if shell is not None else None

    def rack(self, key: str) -> RackPlace | None:
        """Find a rack where it stands by its id."""
        return next((r for r in self.racks if r.rack.id == key), None)

    def room(self, key: str) -> RoomPlace | None:
        """Find a room where it stands by its id."""
        return next((r for r in self.rooms_there if r.room.id == key), None)

    @property
    def floor(self) -> Box:
        """The tray's floor. [mm]"""
        return self.tray[0].box


def _check_shop(body: Body, shop: Shop) -> None:
    """Refuse a body whose metals or rule the shop does not have, naming the field."""
    tray, canopy = body.tray, body.canopy
    wanted = {
        "body.tray.floor_material": tray.floor_material,
        "body.tray.bar_material": tray.bar_material,
    }
    if canopy is not None:
        wanted |= {"body.canopy.skin_material": canopy.skin_material,
                   "body.canopy.frame_material": canopy.frame_material}  # fmt: skip
    for room in body.rooms:
        if room.made:
            path = f"body.rooms.{room.id}.shell."
            wanted |= {path + "skin_material": room.shell.skin_material,
                       path + "frame_material": room.shell.frame_material}  # fmt: skip
    for rack in body.racks:
        path = f"body.racks.{rack.id}."
        wanted |= {
            path + "bar_material": rack.bar_material,
            path + "sheet_material": rack.sheet_material,
        }
    for place, key in wanted.items():
        if key not in shop.materials:
            raise InputError(
                f"there is no material '{key}'", place, f"Use one of {', '.join(shop.materials)}."
            )
    if body.rule not in shop.dimension_rules:
        raise InputError(
            f"there is no rule '{body.rule}'",
            "body.rule",
            f"Use one of {', '.join(shop.dimension_rules)}.",
        )


def ground_of(job: Job, shop: Shop, before: Ground | None = None, *, opens: bool = True) -> Ground:
    """Place vehicle and body, and take from the kerb masses what was aboard at the weighing.

    Args:
        before: An earlier one; openings that stayed the same are taken from it. Only a memory.
        opens: Whether what opens is worked out too.
    Returns: In vehicle axes. [mm, kg]
    Raises:
        InputError: The shop lacks a material.
    """
    vehicle, body = job.vehicle, job.body
    canopy = body.canopy
    _check_shop(body, shop)
    given = lining.setting(vehicle, body, shop)
    parts: tuple[Part, ...] = tray_kit.parts(vehicle, body.tray, shop, given)
    masses = _kerb(job)
    masses += _placed(TRAY, tray_kit.masses(vehicle, body.tray, shop, parts), "tray")
    if canopy is not None:
        made = shell.parts(canopy, shop)
        parts += made
        masses += _placed(CANOPY, shell.masses(vehicle, body, shop, made), "canopy")
    outer, inner = canopy_kit.outside(vehicle, body), canopy_kit.inside(vehicle, body)
    there, racks = room_kit.places(vehicle, body), rack_kit.places(vehicle, body)
    shells = _shells(canopy, outer, inner, there)
    for one in there:
        made = room_kit.parts(one, shop)
        parts += made
        masses += _placed(one.room.ref, room_kit.masses(one, shop), one.mount)
    for standing in racks:
        made = rack_kit.parts(vehicle, body, standing.rack, shop)
        parts += made
        masses += _placed(
            standing.rack.ref, rack_kit.masses(vehicle, body, standing.rack, made),
            rack_kit.MOUNTS[standing.rack.kind],
        )  # fmt: skip
    masses += _other_leaves(job, shells, masses, shop)
    shape = vehicle.shape
    cab = Box(-shape.front, -shape.width / 2, shape.sill,
              vehicle.cab_back, shape.width / 2, shape.height)  # fmt: skip
    solids = tray_kit.solids(vehicle, body.tray, given)
    openings = of_body(body, outer, solids, there) if opens else ()
    if before is not None:
        known = {o.id: o for o in before.openings}
        openings = tuple(known[o.id] if known.get(o.id) == o else o for o in openings)
    return Ground(
        canopy_kit.bays(vehicle, body) | room_kit.bays(there),
        solids,
        outer,
        inner,
        cab,
        tuple(masses),
        parts,
        _mounts(canopy, there),
        openings,
        fixed(vehicle, body, solids, outer, there, racks, parts),
        tuple(of_vehicle(p) for p in vehicle_pieces.rooms(vehicle, body.tray.wheel_travel)),
        vehicle_pieces.insides(vehicle),
        tuple(of_canopy(f) for s in shells for f in fittings.shut(s.value, s.box)),
        there,
        shells,
        racks,
        _things(body, (outer, there, racks, undertray.things(body.tray, solids)), parts),
    )


TIE_DOWN, LEAST_TIES = 8000.0, 4
"""What a camper's tie-down holds [N], and how many it takes: one near each corner (common practice; its maker decides)."""


def _things(
    body: Body,
    where: tuple[Box | None, tuple[RoomPlace, ...], tuple[RackPlace, ...], tuple[BodyThing, ...]],
    parts: tuple[Part, ...],
) -> tuple[BodyThing, ...]:
    """The pieces of the body that are things to everybody else, each with what holds it down.

    Args:
        where: Around the canopy; rooms, racks, and what hangs under the tray. [mm]
        parts: Of the whole body: the bolts are among them.
    """
    outer, rooms, racks, under = where
    bolts: dict[str, Held] = {}
    for part in parts:
        if isinstance(part, Hardware) and part.holds is not None:
            key, size, each = part.holds
            before = bolts[key].count if key in bolts else 0
            bolts[key] = Held("bolts", before + part.count * each, size, to="what it stands on")
    found = [
        msgspec.structs.replace(t, capabilities=msgspec.structs.replace(
            t.capabilities,
            held=msgspec.structs.replace(bolts[t.id], hung=True, to="the tray's frame") if t.id in bolts else None,
        ))
        for t in under
    ]  # fmt: skip
    if body.canopy is not None and outer is not None and CANOPY.word in bolts:
        known = Capabilities(held=bolts[CANOPY.word])
        found.append(BodyThing(CANOPY.word, CANOPY, CANOPY, body.canopy.name, outer, known))
    for place in rooms:
        room = place.room
        if place.mount == "vehicle":
            continue
        ties = Held(
            "ties", room.tie_downs, each=TIE_DOWN, to="the tray", least=LEAST_TIES, what="tie-down"
        )
        held = bolts.get(room.id) if room.made else ties
        found.append(
            BodyThing(room.id, room.ref, room.ref, room.name, place.box, Capabilities(held=held))
        )
    found += [
        BodyThing(r.rack.id, r.rack.ref, r.rack.ref, r.rack.name, r.box, Capabilities(held=bolts.get(r.rack.id)))
        for r in racks
    ]  # fmt: skip
    return tuple(found)


def leaves_hung(job: Job) -> dict[str, tuple[str, ...]]:
    """In which scenarios the second leaf of a door hangs: their ids, by the door's."""
    found: dict[str, list[str]] = {}
    for one in job.scenarios:
        setup = setup_of(job, one)
        for key in setup.second_doors if setup is not None else ():
            found.setdefault(key, []).append(one.id)
    return {key: tuple(ids) for key, ids in found.items()}


def _other_leaves(
    job: Job, shells: tuple[Shell, ...], masses: list[Mass], shop: Shop
) -> list[Mass]:
    """What the leaves that hang in some scenarios weigh more than those that are drawn, or less."""
    where = {m.of: m for m in masses if m.of.startswith("door:")}
    found = []
    for key, ids in leaves_hung(job).items():
        drawn = where.get(f"door:{key}")
        for shell_ in shells:
            door = next((d for d in shell_.value.doors if d.id == key and d.second), None)
            if door is None or drawn is None:
                continue
            more = door_mass(shell_.value, hung(door), shop) - door_mass(shell_.value, door, shop)
            words = f"door {key}: leaf of {door.second} instead of {door.leaf}"
            found.append(
                msgspec.structs.replace(drawn, label=words, kg=more, fill=Fill("hung", only=ids),
                                        sigma=uncertainty_of(abs(more), "geometry"))
            )  # fmt: skip
    return found


def _mounts(canopy: Canopy | None, there: tuple[RoomPlace, ...]) -> dict[str, Mount]:
    """What each bay's units come off with."""
    own: Mount = "canopy" if canopy is None or canopy.kind == "canopy" else "vehicle"
    found: dict[str, Mount] = {b.id: own for b in canopy.bays} if canopy is not None else {}
    return found | {b.id: one.mount for one in there for b in one.room.shell.bays}


def _shells(
    canopy: Canopy | None, outer: Box | None, inner: Box | None, there: tuple[RoomPlace, ...]
) -> tuple[Shell, ...]:
    """Everything with doors and bays."""
    found = []
    if canopy is not None and outer is not None and inner is not None:
        found.append(Shell(canopy, outer, inner, "body.canopy", CANOPY, canopy.kind == "cargo"))
    found += [
        Shell(r.room.shell, r.box, r.inside, f"body.rooms.{r.room.id}.shell", r.room.ref, not r.room.made) for r in there
    ]  # fmt: skip
    return tuple(found)


def _placed(owner: Ref, points: tuple[PointMass, ...], mount: Mount) -> list[Mass]:
    """Turn point masses that are already in vehicle axes into masses."""
    return [
        Mass(
            owner, p.label, p.kg, uncertainty_of(p.kg, p.source), *p.at, p.fill,
            "sides" if p.of == tray_kit.SIDES else mount, of=p.of,
        )
        for p in points
    ]  # fmt: skip


def _kerb(job: Job) -> list[Mass]:
    """List the bare vehicle at its two axles, its fuel, its seats and its ball.

    Driver, fuel and tools that were aboard at the weighing are taken off where they sat, so that no
    scenario counts them twice; so are seats that were taken out.
    """
    vehicle = job.vehicle
    kerb, tank, base = vehicle.kerb, vehicle.fuel, vehicle.wheelbase
    aboard = vehicle.not_aboard()
    rear = kerb.rear - sum(kg * x / base for kg, x in aboard)
    front = kerb.front - sum(kg * (1 - x / base) for kg, x in aboard)
    z = kerb.height
    found = [
        Mass(
            VEHICLE,
            "kerb, front axle",
            front,
            uncertainty_of(front, kerb.source),
            0.0,
            0.0,
            z,
            bare=True,
        ),
        Mass(
            VEHICLE,
            "kerb, rear axle",
            rear,
            uncertainty_of(rear, kerb.source),
            base,
            0.0,
            z,
            bare=True,
        ),
    ]
    for one in (tank, vehicle.long_range):
        if one is not None:
            full = one.litres * one.density
            found.append(Mass(VEHICLE, "fuel", full, uncertainty_of(full, "data sheet"), one.x, one.y,
                              one.z, FUEL))  # fmt: skip
    for i, place in enumerate(vehicle.seats):
        found.append(
            Mass(VEHICLE, place.name, 1.0, 0.05, place.x, place.y, place.z, Fill("person", i))
        )
    found.append(Mass(TRAILER, "ball mass", 1.0, 0.05, vehicle.tow.x, 0.0, vehicle.tow.z, BALL))
    return found
