"""A vehicle's own solids, the rooms its wheels and tanks need, and the rooms inside it. [mm]

The outline is what Survey asks for, so these are its prisms: bonnet and cab along y, the tub's walls, the
chassis rails. Wheels need more room than where they stand: they rise by the body's wheel travel, and at the
front they turn.
"""

import functools
import math
from typing import Literal

import msgspec

from roomy_hull.core.geometry.hull import convex_hull
from roomy_hull.core.geometry.motion import Piece, block, prism, round_piece
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.tyres import overall_diameter, parts_of
from roomy_hull.job.vehicle import FuelTank, Vehicle

LOCK = 35.0
"""How far a front wheel turns either way (common practice). [degree]"""
SKIN = 40.0
"""What doors, roof and bonnet take of the inside (common practice). [mm]"""
TANK_HEIGHT, TANK_WIDTH = 220.0, 400.0
"""A usual fuel tank where its shape was not measured (common practice). [mm]"""
GUESSED = "its shape is guessed from its volume; measure it in Survey"
"""What a finding about a guessed tank says of it."""
SLABS = 32
"""In so many level slabs a turned wheel is held against what stands beside it."""

Role = Literal["cab", "tub", "chassis rail", "wheel", "fuel tank", "rear axle"]
Inside = Literal["bonnet", "cab", "tub", "cargo"]


class VehiclePiece(msgspec.Struct, frozen=True):
    """One piece of the vehicle: its role, what findings call it, its prism, its side, whether it is guessed."""

    role: Role
    words: str
    piece: Piece
    side: str = ""
    guessed: bool = False


def _bonnet(vehicle: Vehicle) -> Piece:
    s = vehicle.shape
    ring = [(-s.front, s.sill), (-s.front, s.bonnet - 130), (-s.front + 250, s.bonnet),
            (s.windscreen, s.bonnet), (s.windscreen, s.sill)]  # fmt: skip
    return prism(1, convex_hull(ring), -s.width / 2, s.width / 2)


def _cab(vehicle: Vehicle, inset: float = 0.0) -> Piece:
    s = vehicle.shape
    back = vehicle.cab_back - inset
    front, low = s.windscreen + inset, s.sill + 2 * inset
    ring = [(front, low), (front, s.bonnet), (s.roof_front + inset, s.height - inset),
            (min(s.roof_rear, back), s.height - inset), (back, max(s.belt, s.height - 150) - inset),
            (back, low)]  # fmt: skip
    return prism(1, convex_hull(ring), -s.width / 2 + inset, s.width / 2 - inset)


def solids(vehicle: Vehicle) -> tuple[VehiclePiece, ...]:
    """What of a vehicle never moves: bonnet, cab, a tub's walls, chassis rails.

    Args:
        vehicle: The vehicle. [mm]
    Returns: In vehicle axes. A wagon's and a tub's own floor, and a wagon's walls, belong to the body.
    """
    found = [
        VehiclePiece("cab", "bonnet", _bonnet(vehicle)),
        VehiclePiece("cab", "cab", _cab(vehicle)),
    ]
    hold, shape = vehicle.hold, vehicle.shape
    if vehicle.kind == "pickup" and hold is not None:
        x0, x1 = hold.start, hold.start + hold.length
        inner, outer = hold.width / 2, max(shape.width, hold.width + 20) / 2
        low, high = hold.floor, hold.floor + hold.height
        found += [
            VehiclePiece(
                "tub", "tub's left wall", block(Box(x0, -outer, low, x1, -inner, high)), "left"
            ),
            VehiclePiece(
                "tub", "tub's right wall", block(Box(x0, inner, low, x1, outer, high)), "right"
            ),
        ]
        if x0 - vehicle.cab_back > 1:
            front = Box(vehicle.cab_back, -outer, low, x0, outer, high)
            found.append(VehiclePiece("tub", "tub's front wall", block(front)))
    for side in ("left", "right"):
        rail = block(rail_box(vehicle, side))
        found.append(VehiclePiece("chassis rail", f"{side} chassis rail", rail, side))
    return tuple(found)


def rail_box(vehicle: Vehicle, side: str) -> Box:
    """A chassis rail behind the cab: under it they lie lower, nobody measured how much. [mm]"""
    y = (-1 if side == "left" else 1) * vehicle.rail_spread / 2
    return Box(
        vehicle.cab_back, y - vehicle.rail_width / 2, vehicle.rail_top - vehicle.rail_depth,
        vehicle.chassis_end, y + vehicle.rail_width / 2, vehicle.rail_top,
    )  # fmt: skip


def axle_box(vehicle: Vehicle, travel: float) -> Box:
    """The rear axle's beam with its travel upward. [mm]"""
    base, half, axle = vehicle.wheelbase, vehicle.track_rear / 2, vehicle.axle_height()
    return Box(base - 150, -half + 150, axle - 120, base + 150, half - 150, axle + 120 + travel)


def insides(vehicle: Vehicle) -> tuple[tuple[Inside, Piece], ...]:
    """The rooms inside a vehicle in which things can be carried.

    Args:
        vehicle: The vehicle. [mm]
    Returns: Under the bonnet, in the cab, in a pickup's tub or a wagon's cargo area. [mm]
    """
    s, hold = vehicle.shape, vehicle.hold
    nose = [(-s.front + SKIN, s.sill - 200), (-s.front + SKIN, s.bonnet - 130 - SKIN),
            (-s.front + 250, s.bonnet - SKIN), (s.windscreen, s.bonnet - SKIN), (s.windscreen, s.sill - 200)]  # fmt: skip
    found: list[tuple[Inside, Piece]] = [
        ("bonnet", prism(1, convex_hull(nose), -s.width / 2 + SKIN, s.width / 2 - SKIN)),
        ("cab", _cab(vehicle, SKIN)),
    ]
    if hold is not None:
        room = Box(hold.start, -hold.width / 2, hold.floor, hold.start + hold.length, hold.width / 2,
                   hold.floor + hold.height)  # fmt: skip
        found.append(("tub" if vehicle.kind == "pickup" else "cargo", block(room)))
    return tuple(found)


def contains(room: Piece, box: Box) -> float:
    """By how much a box stands out of a room.

    Args:
        room: A prism along y. [mm]
        box: The box. [mm]
    Returns: 0 or less where it is wholly inside: then the least room that is left. [mm]
    """
    if room.axis != 1:
        b = room.box
        return max(
            b.x0 - box.x0, box.x1 - b.x1, b.y0 - box.y0, box.y1 - b.y1, b.z0 - box.z0, box.z1 - b.z1
        )
    out = max(room.lo - box.y0, box.y1 - room.hi)
    last = room.ring[-1]
    for p in room.ring:
        nx, nz = p[1] - last[1], last[0] - p[0]
        long = math.hypot(nx, nz)
        far = (box.x1 if nx > 0 else box.x0) * nx + (box.z1 if nz > 0 else box.z0) * nz
        out = max(out, (far - last[0] * nx - last[1] * nz) / long)
        last = p
    return out


def wheel_ring(x: float, radius: float, travel: float) -> tuple[tuple[float, float], ...]:
    """A wheel from its side with its travel upward: the hull of where it stands and where it stops. [mm]"""
    ring = round_piece(1, (x, radius), radius, 0.0, 1.0).ring
    return convex_hull([(a, b + up) for a, b in ring for up in (0.0, travel)])


BULGE = 20.0
"""So much more than its section a rear tyre takes to each side (common practice). [mm]"""


def wheel_rooms(vehicle: Vehicle, travel: float) -> tuple[VehiclePiece, ...]:
    """The room that every wheel needs: up to its stop, and at the front as far as it turns.

    Args:
        vehicle: Its tyres and tracks. [mm]
        travel: From kerb attitude to the stop. [mm]
    Returns:
        A rear wheel as one prism along y, half its travel longer fore and aft and `BULGE` wider to each side; a front
        wheel also turned both ways, in level slabs. [mm]
    """
    return _wheel_rooms(
        vehicle.tyre, vehicle.track_front, vehicle.track_rear, vehicle.wheelbase, travel
    )


@functools.lru_cache(maxsize=8)
def _wheel_rooms(
    tyre: str, track_front: float, track_rear: float, wheelbase: float, travel: float
) -> tuple[VehiclePiece, ...]:  # fmt: skip
    """Kept by their figures: they are many, and every edit of a body asks for them."""
    radius, section = overall_diameter(tyre) / 2, parts_of(tyre)[0]
    found: list[VehiclePiece] = []
    for x, track in ((0.0, track_front), (wheelbase, track_rear)):
        for side, sign in (("left", -1), ("right", 1)):
            y = sign * track / 2
            words = f"{side} {'rear' if x else 'front'} wheel"
            ring, half = wheel_ring(x, radius, travel), section / 2
            if x:
                # An axle on its springs moves fore and aft too, and its tyres bulge.
                out, top = radius + travel / 2, 2 * radius + travel
                ends = ((h + by, k) for h, k in ring for by in (-travel / 2, travel / 2))
                # The ring lies about the tyre: no further out than its true reach.
                near = [(min(max(h, x - out), x + out), min(max(k, 0.0), top)) for h, k in ends]
                ring, half = convex_hull(near), half + BULGE
            straight = prism(1, ring, y - half, y + half)
            found.append(VehiclePiece("wheel", words, straight, side))
            if not x:
                found += [
                    VehiclePiece("wheel", words, p, side)
                    for p in _turned(y, radius, section, travel)
                ]
    return tuple(found)


def _turned(y: float, radius: float, section: float, travel: float) -> list[Piece]:
    """A front wheel turned by its lock either way and half of it, in slabs as long as its chord there."""
    found = []
    top = 2 * radius + travel
    for degrees in (-LOCK, -LOCK / 2, LOCK / 2, LOCK):
        c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
        for n in range(SLABS):
            low, high = top * n / SLABS, top * (n + 1) / SLABS
            # The widest chord anywhere in the slab, at any height of the wheel.
            under, over = low - radius - travel, high - radius
            off = 0.0 if under <= 0 <= over else min(abs(under), abs(over))
            chord = math.sqrt(max(0.0, radius**2 - off**2))
            corners = [(a * chord, b * section / 2) for a in (-1, 1) for b in (-1, 1)]
            ring = convex_hull([(c * a - s * b, y + s * a + c * b) for a, b in corners])
            if chord > 1:
                found.append(prism(2, ring, low, high))
    return found


def tank_box(tank: FuelTank) -> tuple[Box, bool]:
    """A fuel tank's box about its middle, and whether its shape is guessed from its volume. [mm]"""
    guessed = not (tank.length and tank.width and tank.height)
    high, wide = tank.height or TANK_HEIGHT, tank.width or TANK_WIDTH
    long = tank.length or max(200.0, tank.litres * 1e6 / (high * wide))
    box = Box(tank.x - long / 2, tank.y - wide / 2, tank.z - high / 2,
              tank.x + long / 2, tank.y + wide / 2, tank.z + high / 2)  # fmt: skip
    return box, guessed


def rooms(vehicle: Vehicle, travel: float) -> tuple[VehiclePiece, ...]:
    """What nothing else may stand in: the wheels' rooms, the rear axle's, the fuel tanks.

    Args:
        vehicle: The vehicle. [mm]
        travel: From kerb attitude to the stop. [mm]
    Returns: In vehicle axes. [mm]
    """
    found = list(wheel_rooms(vehicle, travel))
    found.append(VehiclePiece("rear axle", "rear axle", block(axle_box(vehicle, travel))))
    for key, tank in (("", vehicle.fuel), ("long-range ", vehicle.long_range)):
        if tank is not None:
            box, guessed = tank_box(tank)
            found.append(VehiclePiece("fuel tank", f"{key}fuel tank", block(box), guessed=guessed))
    return tuple(found)
