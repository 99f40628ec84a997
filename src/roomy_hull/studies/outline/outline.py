"""Overall sizes, overhang, ground clearance, approach, ramp and departure angles, and the roof line."""

import math
from collections.abc import Iterator, Sequence
from typing import Literal, Protocol

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.springs import Stance
from roomy_hull.assembly.study import Context, StudyKey
from roomy_hull.core.geometry.gaps import apart, clash, shared
from roomy_hull.core.geometry.motion import Piece, block
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import BarPart
from roomy_hull.core.poses import standing
from roomy_hull.core.refs import TRAY
from roomy_hull.core.tyres import overall_diameter
from roomy_hull.core.tyres import parts_of as parts_of_tyre
from roomy_hull.job.carried import Carried
from roomy_hull.job.vehicle import LowPoints, Vehicle
from roomy_hull.kit.body import mudguards
from roomy_hull.kit.body.pieces import part_of, parts_of
from roomy_hull.kit.body.undertray import obstacles
from roomy_hull.kit.vehicle_pieces import tank_box

KEY = StudyKey["Outline"]("outline")
LOADS = "loads"


class Settling(Protocol):
    """What this study reads of a weighed scenario: its name, and how its ends settle."""

    @property
    def name(self) -> str:
        """Its name."""

    @property
    def stance(self) -> Stance:
        """How its ends settle. [mm]"""


RACK_LEGS = (110.0, 150.0)
"""Heights in which cab-rack legs come (common practice). [mm]"""
RACK_BAR = 40.0
"""Height of a rack's cross-bar over its leg (common practice). [mm]"""


class Angles(msgspec.Struct, frozen=True):
    """Angles at one attitude, and what sets the departure angle. [degree, mm]"""

    scenario: str
    approach: float
    ramp: float
    departure: float
    departs_at: str
    clearance: float


class Conflict(msgspec.Struct, frozen=True):
    """Something ``under`` the tray that stands where it may not, or a ``guard`` in the tray's frame. [mm]"""

    name: str
    other: str
    amount: float
    where: Box
    guessed: bool = False
    kind: Literal["under", "guard"] = "under"


class Step(msgspec.Struct, frozen=True):
    """One height of the roof line over level ground at kerb attitude. [mm]"""

    name: str
    z: float


class WheelRoom(msgspec.Struct, frozen=True):
    """How a rear tyre stands to the tray above and beside it.

    Attributes:
        above: How far the tyre, as it stands, goes up before it meets the tray, negative where it is through it. [mm]
        needed: Its travel, and the mudguard's sheet over it. [mm]
        outside: How far it stands out of the tray, below 0 where the tray covers it. [mm]
        met: What of the tray it comes to first on its way up.
    """

    above: float
    needed: float
    outside: float
    met: str = ""


class Outline(msgspec.Struct, frozen=True):
    """What the vehicle measures outside, canopy on. [mm]"""

    length: float
    width: float
    height: float
    overhang: float
    overhang_limit: float
    angles: tuple[Angles, ...]
    conflicts: tuple[Conflict, ...]
    roof: tuple[Step, ...]
    rack_leg: float
    rack_step: float
    beyond_tail: float
    beyond_edge: float
    behind_cab: float
    wheel: WheelRoom | None = None


def tangent_angle(distance: float, height: float, radius: float) -> float:
    """The slope at which a hard point beyond a wheel just meets the ground with the tyre.

    Args:
        distance: How far the point is beyond the wheel's centre, above 0. [mm]
        height: Its height over level ground. [mm]
        radius: Loaded radius of the tyre, its centre that high over the ground. [mm]
    Returns: asin(R/√(d² + (h-R)²)) + atan2(h-R, d), never below 0. [degree]

    The plane through the point tangent to the tyre's static loaded outline, the definition of
    approach and departure angle in ISO 612, from memory.
    """
    rise = height - radius
    reach = math.hypot(distance, rise)
    if reach <= radius:
        return 90.0
    return max(0.0, math.degrees(math.asin(radius / reach) + math.atan2(rise, distance)))


def low_points(vehicle: Vehicle) -> LowPoints:
    """The vehicle's lowest hard points as measured, or guessed from its outline."""
    if vehicle.low is not None:
        return vehicle.low
    rail = vehicle.rail_top - vehicle.rail_depth
    return LowPoints(
        front=max(50.0, vehicle.shape.sill - 60),
        belly=max(50.0, rail - 260),
        belly_x=vehicle.wheelbase * 0.55,
        rear=max(50.0, vehicle.tow.z - 30),
    )


def hard_points(assembly: Assembly) -> list[tuple[str, float, float]]:
    """Every hard point behind the rear axle: (name, x, z of its lower rear edge). [mm]"""
    vehicle = assembly.job.vehicle
    base = vehicle.wheelbase
    low = low_points(vehicle)
    found = [("tow bar", vehicle.tow.x, low.rear)]
    for part in assembly.ground.tray:
        if part.box.x1 > base and part.role not in ("arch", "headboard"):
            found.append((part.words, part.box.x1, part.box.z0))
    for thing in assembly.things:
        if (
            isinstance(thing.value, Carried)
            and thing.envelope.x1 > base
            and not thing.value.on_roof
        ):
            found.append((thing.name, thing.envelope.x1, thing.envelope.z0))
    return found


def other_points(assembly: Assembly) -> list[tuple[str, float, float]]:
    """Lower edges of what is carried ahead of the front axle, and low between the axles: (name, x, z). [mm]"""
    base, found = assembly.job.vehicle.wheelbase, []
    for thing in assembly.things:
        box = thing.envelope
        if (
            not isinstance(thing.value, Carried)
            or thing.value.on_roof
            or thing.value.place == "bonnet"
        ):
            continue
        if box.x0 < 0:
            found.append((thing.name, box.x0, box.z0))
        elif box.x1 < base and box.z0 < assembly.ground.floor.z0:
            found += [(thing.name, x, box.z0) for x in (box.x0, box.x1)]
    return found


def angles(
    vehicle: Vehicle, hard: Sequence[tuple[str, float, float]], scenario: str, front_sag: float,
    rear_sag: float, other: Sequence[tuple[str, float, float]] = (),
) -> Angles:  # fmt: skip
    """The angles at one attitude.

    Args:
        vehicle: Its wheels and lowest points. [mm]
        hard: Hard points behind the rear axle: name, x, z. [mm]
        front_sag, rear_sag: How far each axle settles from kerb attitude. [mm]
        other: Hard points ahead of the front axle, and between the axles, besides the vehicle's own. [mm]
    Returns: Ramp angle is the sum of the slopes to both wheels over the lowest point between them.
    """
    base, radius = vehicle.wheelbase, vehicle.axle_height()
    low = low_points(vehicle)

    def settled(x: float, z: float) -> float:
        return z - (front_sag + (rear_sag - front_sag) * x / base)

    nose = settled(-vehicle.shape.front, low.front)
    belly = settled(low.belly_x, low.belly)
    ramp = tangent_angle(low.belly_x, belly, radius) + tangent_angle(
        base - low.belly_x, belly, radius
    )
    slopes = [
        (tangent_angle(x - base, settled(x, z), radius), name)
        for name, x, z in hard
        if x > base + 1
    ]
    departure, at = min(slopes, default=(90.0, "nothing"))
    approach = tangent_angle(vehicle.shape.front, nose, radius)
    for _name, x, z in other:
        if x < -1:
            approach = min(approach, tangent_angle(-x, settled(x, z), radius))
        elif radius < x < base - radius:
            sides = [tangent_angle(d, settled(x, z), radius) for d in (x, base - x)]
            ramp, belly = min(ramp, sum(sides)), min(belly, settled(x, z))
    return Angles(scenario, approach, ramp, departure, at, belly)


def study(context: Context) -> Outline:
    """Measure the outline.

    Args:
        context: The job in vehicle axes, and how far its axles settle in each scenario. [mm]
    Returns:
        Sizes, overhang with its limit (the lesser of the rule's share of the wheelbase and its absolute limit; 0
        where there is none), angles at kerb and in each scenario, what hangs where it may not, and the roof line.
    """
    assembly = context.assembly
    job, ground = assembly.job, assembly.ground
    scenarios: tuple[Settling, ...] = context.results[LOADS].scenarios
    sags = tuple((s.name, s.stance.front_sag, s.stance.rear_sag) for s in scenarios)
    vehicle, body = job.vehicle, job.body
    boxes = [ground.cab, *(p.box for p in ground.tray), *(t.envelope for t in assembly.things)]
    if ground.canopy is not None:
        boxes.append(ground.canopy)
    boxes += [
        b
        for r in ground.rooms_there
        for b in (r.box, *([r.alcove] if r.alcove is not None else []))
    ]
    boxes += [r.box for r in ground.racks]
    x0 = min([b.x0 for b in boxes] + [-vehicle.shape.front])
    x1 = max([b.x1 for b in boxes] + [vehicle.chassis_end, vehicle.shape.rear])
    tyre = parts_of_tyre(vehicle.tyre)[0] / 2 + max(vehicle.track_front, vehicle.track_rear) / 2
    half = max(tyre, *(max(-b.y0, b.y1) for b in boxes))
    rule = assembly.shop.dimension_rule(body.rule)
    limits = [v for v in (rule.overhang, rule.overhang_share * vehicle.wheelbase) if v > 0]
    roof, leg, step = roof_line(assembly)
    hard = (hard_points(assembly), other_points(assembly))
    floor, canopy = ground.floor, ground.canopy
    return Outline(
        x1 - x0,
        2 * half,
        max(b.z1 for b in boxes),
        x1 - vehicle.wheelbase,
        min(limits, default=0.0),
        tuple(angles(vehicle, hard[0], *s, hard[1]) for s in (("At kerb", 0.0, 0.0), *sags)),
        conflicts(assembly),
        roof,
        leg,
        step,
        canopy.x1 - floor.x1 if canopy is not None else 0.0,
        (canopy.y1 - floor.y1) if canopy is not None else 0.0,
        min(p.box.x0 for p in parts_of(ground.tray, "floor", "headboard")) - vehicle.cab_back,
        wheel_room(assembly),
    )


def _guessed(vehicle: Vehicle, key: str) -> bool:
    """Say whether a fuel tank's shape was not measured."""
    tank = vehicle.long_range if key else vehicle.fuel
    return tank is not None and tank_box(tank)[1]


def wheel_room(assembly: Assembly) -> WheelRoom | None:
    """How the rear tyres stand to the tray: what is above them up to their stop, and what covers them.

    Args:
        assembly: The job in vehicle axes. [mm]
    Returns: None on a tub's or wagon's own floor. Over a hump of the tray the room is up to the hump's top. [mm]
    """
    tray, vehicle, floor = assembly.job.body.tray, assembly.job.vehicle, assembly.ground.floor
    if tray.kind == "hold":
        return None
    radius, section = overall_diameter(vehicle.tyre) / 2, parts_of_tyre(vehicle.tyre)[0]
    outer = vehicle.track_rear / 2 + section / 2
    inner = outer - section
    top = floor.z0
    humps = [p.box for p in parts_of(assembly.ground.tray, "arch") if p.side == "left"]
    # Where the tyre at its stop would meet the floor's level, it is this long.
    rise = 2 * radius + tray.wheel_travel - floor.z0
    chord = math.sqrt(max(0.0, radius**2 - max(0.0, radius - rise) ** 2)) if rise > 0 else 0.0
    for hump in humps:
        covers = hump.x0 <= vehicle.wheelbase - chord and hump.x1 >= vehicle.wheelbase + chord
        if covers and -hump.y1 <= inner:
            top = max(top, hump.z1 - tray.floor)
    guard = mudguards.SHEET if mudguards.has(tray) else 0.0
    above, met = (top - 2 * radius, "floor") if inner < floor.y1 else (math.inf, "")
    if top == floor.z0:
        for name, bar in _frame(assembly):
            beside = max(0.0, bar.x0 - vehicle.wheelbase, vehicle.wheelbase - bar.x1)
            if beside < radius and bar.y0 < outer and bar.y1 > inner:
                free = bar.z0 - radius - math.sqrt(radius**2 - beside**2)
                above, met = min((above, met), (free, name))
    return WheelRoom(above, tray.wheel_travel + guard, outer - floor.y1, met)


def _frame(assembly: Assembly) -> Iterator[tuple[str, Box]]:
    """The bars of the tray's frame by their words, where they stand. [mm]"""
    for part in assembly.ground.parts:
        if part.owner == TRAY and isinstance(part, BarPart) and part.role in ("", "rail"):
            for (bar,) in standing(part):
                yield part.name.removeprefix("Tray: "), bar


def conflicts(assembly: Assembly) -> tuple[Conflict, ...]:
    """Find what under the tray meets wheel, axle, rail, fuel tank, or one another; a wheel's room is that of all things."""
    tray, vehicle = assembly.job.body.tray, assembly.job.vehicle
    if tray.kind == "hold":
        return ()
    under = parts_of(assembly.ground.tray, "box", "trundle", "tank")
    found: list[Conflict] = []
    ground, guards = assembly.ground, _guards(assembly)
    wheels = [(p.ref.id, [p.piece]) for p in ground.rooms if p.role == "wheel"] + guards
    others = [p for p in obstacles(vehicle, tray) if p.role != "wheel"]
    for n, part in enumerate(under):
        found += _worst(part.words, [block(part.box)], wheels)
        for other in (*others, *under[n + 1 :]):
            met = part.box.common(other.box)
            if met is not None:
                guessed = other.role == "fuel tank" and _guessed(vehicle, other.id)
                found.append(Conflict(part.words, other.words, min(met.size()), met, guessed))
    bars = [(f"tray's {name}", [block(bar)]) for name, bar in _frame(assembly)]
    for name, pieces in guards:
        worst = sorted(_worst(name, pieces, bars), key=lambda c: -c.amount)[:1]
        found += [msgspec.structs.replace(c, kind="guard") for c in worst]
    return tuple(found)


def _guards(assembly: Assembly) -> list[tuple[str, list[Piece]]]:
    """The mudguards, each by its words with its pieces."""
    found: dict[str, list[Piece]] = {}
    for piece in assembly.ground.fixed:
        if piece.role == "mudguard":
            found.setdefault(piece.ref.id, []).append(piece.piece)
    return list(found.items())


def _worst(
    name: str, own: list[Piece], others: list[tuple[str, list[Piece]]]
) -> Iterator[Conflict]:
    """Where something stands deepest in each of some others."""
    for other, pieces in others:
        met = [
            (-gap, shared(a, b))
            for a in own
            for b in pieces
            if a.box.shares(b.box) and clash(gap := apart(a, b))
        ]
        if met:
            amount, where = max(met, key=lambda m: m[0])
            yield Conflict(name, other, amount, where)


def roof_line(assembly: Assembly) -> tuple[tuple[Step, ...], float, float]:
    """The heights that should make one level line, and the rack leg that comes nearest.

    Args:
        assembly: The job in vehicle axes. [mm]
    Returns:
        Cab roof, cab rack on its best leg, headboard with its rack, canopy roof; the leg; the step that remains
        between the highest and the lowest of rack, headboard and canopy. [mm]
    """
    ground, vehicle = assembly.ground, assembly.job.vehicle
    steps = [Step("cab roof", vehicle.shape.height)]
    tops: list[Step] = []
    head = part_of(ground.tray, "headboard")
    if head is not None:
        tops.append(Step("headboard", head.box.z1))
    if ground.canopy is not None and vehicle.kind != "wagon":
        tops.append(Step("canopy roof", ground.canopy.z1))
    if not tops:
        return tuple(steps), 0.0, 0.0
    top = max(s.z for s in tops)
    leg = min(RACK_LEGS, key=lambda v: abs(vehicle.shape.height + v + RACK_BAR - top))
    tops.insert(0, Step(f"cab rack on {leg:g} mm legs", vehicle.shape.height + leg + RACK_BAR))
    return (*steps, *tops), leg, max(s.z for s in tops) - min(s.z for s in tops)
