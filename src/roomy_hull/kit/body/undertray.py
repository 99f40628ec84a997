"""What hangs under the tray: toolboxes, trundle drawer, water tank, mudguards; and what is in the way."""

import msgspec

from roomy_hull.core.capabilities import Capabilities, placed
from roomy_hull.core.fill import CONTENTS, WATER
from roomy_hull.core.folded import Hole
from roomy_hull.core.geometry.frames import Frame
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.mechanics.sections import section_height
from roomy_hull.core.parts import BarPart, Hardware, Part, Pose, SheetPart
from roomy_hull.core.poses import BACK, FORTH, at, standing, stood
from roomy_hull.core.refs import TRAY
from roomy_hull.core.tyres import overall_diameter, parts_of
from roomy_hull.job.body import TRUNDLE, Tray, UnderBox
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kinds import tank
from roomy_hull.kinds.boxes import Sized, open_box
from roomy_hull.kinds.expansion import PointMass, part_mass
from roomy_hull.kinds.kind import Site
from roomy_hull.kinds.tank import Tank
from roomy_hull.kit.body import mudguards
from roomy_hull.kit.body.pieces import BodyPart, BodyParts, BodyThing, Hand
from roomy_hull.kit.body.subframe import floor_depth, floor_z, front_x, rail_boxes
from roomy_hull.kit.body.trundle import TRUNDLE_SAYS, TRUNDLE_SLIDES, trundle_parts
from roomy_hull.kit.vehicle_pieces import BULGE, axle_box, rail_box, tank_box
from roomy_hull.shop.shop import Shop

SIDES: tuple[Hand, ...] = ("left", "right")
EDGE, HUNG_GAP = 75.0, 10.0
"""How far under the floor's top a box begins at least, and how far below coaming and cross-members (common practice).
[mm]"""
DOOR = 20.0
"""Depth of a toolbox's door, which covers its whole face (common practice). [mm]"""


def as_tank(tray: Tray) -> Tank | None:
    """The under-tray tank as the unit whose parts and volume the kit knows. [mm]"""
    one = tray.tank
    if one is None:
        return None
    return Tank(
        id="tank", name="Under-tray tank", bay="-", width=one.length, depth=one.width,
        height=one.height, sheet=one.sheet, baffles=one.baffles,
    )  # fmt: skip


def tank_parts(one: Tank, shop: Shop) -> tuple[Part, ...]:
    """List the sheets of the under-tray tank; they belong to the tray. [mm]"""
    made = tank.parts(one, Site(0.0, shop))
    return tuple(msgspec.structs.replace(p, owner=TRAY) for p in made)


def solids(tray: Tray, x0: float, top: float) -> BodyParts:
    """List what hangs under the tray.

    Args:
        tray: The tray. [mm]
        x0, top: Where it begins, and the height of its floor. [mm]
    Returns: Toolboxes, trundle drawer and tank, in vehicle axes. [mm]
    """
    x1, half = x0 + tray.length, tray.width / 2
    low = top - max(EDGE, floor_depth(tray) + section_height(tray.cross) + HUNG_GAP)
    found: list[BodyPart] = []
    for box in tray.boxes:
        a = x0 + box.gap if box.place == "ahead" else x1 - box.gap - box.length
        y0, y1 = (-half, -half + box.depth) if box.side == "left" else (half - box.depth, half)
        solid = Box(a, y0, low - box.height, a + box.length, y1, low)
        found.append(BodyPart("box", solid, box.side, box.id))
    if tray.trundle is not None:
        t = tray.trundle
        solid = Box(x1 - t.length, -t.width / 2, low - t.height, x1, t.width / 2, low)
        found.append(BodyPart("trundle", solid))
    if tray.tank is not None:
        u = tray.tank
        a = x0 + u.start
        solid = Box(a, -u.width / 2, low - u.height, a + u.length, u.width / 2, low)
        found.append(BodyPart("tank", solid))
    return tuple(found)


def obstacles(vehicle: Vehicle, tray: Tray) -> BodyParts:
    """List what nothing under the tray may touch.

    Args:
        vehicle: Wheels, axle, chassis rails and fuel tanks. [mm]
        tray: For the wheels' travel. [mm]
    Returns:
        In vehicle axes: the room of each rear wheel with its travel, the axle's, the rails of chassis and
        subframe, the fuel tanks. [mm]
    """
    radius, section = overall_diameter(vehicle.tyre) / 2, parts_of(vehicle.tyre)[0]
    base, half = vehicle.wheelbase, vehicle.track_rear / 2
    room, high = radius + 0.5 * tray.wheel_travel, 2 * radius + tray.wheel_travel
    near, far = half - section / 2 - BULGE, half + section / 2 + BULGE
    if mudguards.has(tray):
        room = mudguards.reach(vehicle, tray)
        high, (inner, outer) = mudguards.top(vehicle, tray), mudguards.span(vehicle, tray)
        near, far = min(near, inner), max(far, outer)
    found: list[BodyPart] = []
    for side in SIDES:
        a, b = (-far, -near) if side == "left" else (near, far)
        wheel = Box(base - room, a, 0, base + room, b, high)
        rail = rail_box(vehicle, side)
        found += [BodyPart("wheel", wheel, side), BodyPart("chassis rail", rail, side)]
    if tray.kind == "tray":
        left, right = rail_boxes(vehicle, tray)
        found += [BodyPart("rail", left, "left"), BodyPart("rail", right, "right")]
    found.append(BodyPart("rear axle", axle_box(vehicle, tray.wheel_travel)))
    for key, fuel in (("", vehicle.fuel), ("long-range", vehicle.long_range)):
        if fuel is not None:
            solid, _guessed = tank_box(fuel)
            found.append(BodyPart("fuel tank", solid, "", key))
    return tuple(found)


def box_parts(box: UnderBox, shop: Shop, place: Box | None = None) -> tuple[Part, ...]:
    """List what is cut for one toolbox: a folded body, open to the outside, and its door.

    Args:
        box: Its sizes, its side. [mm]
        place: Where it hangs, in vehicle axes; none: its parts have no stand. [mm]
    """
    name, metal = f"{box.name} {box.id}", shop.material(shop.sheet)
    deep = box.depth - DOOR
    body: tuple[Pose, ...] = ()
    door: tuple[Pose, ...] = ()
    if place is not None:
        # One sees the body from outside, its door from inside.
        left, right = at(place.x0, 0.0, place.z0, BACK), at(place.x1, 0.0, place.z0, FORTH)
        if box.side == "left":
            body, door = (_at_y(left, place.y1),), (_at_y(right, place.y0),)
        else:
            body, door = (_at_y(right, place.y0),), (_at_y(left, place.y1),)
    group = f"{name}: door"
    spots = tuple((box.length * share, 45.0) for share in (0.2, 0.8))
    return (
        *open_box(f"{name}: body", TRAY, Sized(box.length, box.height, (deep,) * 4, box.sheet, metal), shop.tools.brake,
                  body[0] if body else None),
        SheetPart(group, TRAY, box.length, box.height, box.sheet, metal, left=DOOR, right=DOOR, front=DOOR, back=DOOR,
                  holes=tuple(Hole(x, y, LOCK_BORE) for x, y in spots), group=group, poses=door),
        Hardware(f"continuous hinge for {name.lower()}", TRAY, metres=round(box.length / 1000, 2), links=("", group),
             sort="hinge"),
        *((Hardware(f"drain with flap in the floor of {name.lower()}", TRAY, 2),) if box.kind == "wet pocket" else
          (Hardware(f"bulb seal for {name.lower()}", TRAY, metres=round(2 * (box.length + box.height) / 1000, 2)),)),
        Hardware(f"round lock for {name.lower()}", TRAY, LOCKS, fix="clamped", opening=True,
                 places=_lock_places(spots, door[0]) if door else ()),
    )  # fmt: skip


LOCK_BORE = 32.0
"""A round lock's hole (common practice). [mm]"""
HANGER = 25.0
"""A rubber spacer between a hung box and the frame (common practice). [mm]"""


def _lock_places(spots: tuple[tuple[float, float], ...], pose: Pose) -> tuple[Box, ...]:
    """Where a door's locks stand, through its holes. [mm]"""
    r = LOCK_BORE / 2 - 1
    return tuple(stood(Box(x - r, y - r, -4.0, x + r, y + r, 20.0), pose) for x, y in spots)


def hangers(name: str, key: str, place: Box, frame: tuple[Part, ...]) -> Hardware:
    """The bolts by which something hangs, through spacers under the frame's bars that cross it.

    Args:
        key: Of what hangs, as goods name its place.
        place: Where, in vehicle axes. [mm]
    Returns: A spacer near both ends of every bar's stretch over it; four without a place where none crosses it. [mm]
    """
    spots: list[Box] = []
    for part in frame:
        if not isinstance(part, BarPart) or part.role:
            continue
        for (bar,) in standing(part):
            x0, x1 = max(bar.x0, place.x0 + EDGE_ROOM), min(bar.x1, place.x1 - EDGE_ROOM)
            y0, y1 = max(bar.y0, place.y0 + EDGE_ROOM), min(bar.y1, place.y1 - EDGE_ROOM)
            if min(x1 - x0, y1 - y0) < HANGER:
                continue
            low, high = place.z1, bar.z0
            if x1 - x0 > y1 - y0:
                y = (y0 + y1 - HANGER) / 2
                rows = [(x0, y), (x1 - HANGER, y)]
            else:
                x = (x0 + x1 - HANGER) / 2
                rows = [(x, y0), (x, y1 - HANGER)]
            spots += [Box(x, y, low, x + HANGER, y + HANGER, high) for x, y in rows]
    spots = sorted(set(spots))
    if len(spots) > MOST_HANGERS:
        # Those nearest to its corners, and those that lie between them.
        step = (len(spots) - 1) / (MOST_HANGERS - 1)
        spots = [spots[round(n * step)] for n in range(MOST_HANGERS)]
    return Hardware(f"M10 bolt with rubber spacer for {name}", TRAY, len(spots) or 4, places=tuple(spots), fix="bolts",
                    bore=10.5 if spots else 0.0, sort="bolt", holds=(key, "M10", 1))  # fmt: skip


EDGE_ROOM, MOST_HANGERS = 12.0, 8
"""How far inside a hung box's edge a bolt stands, and how many there are at most (common practice). [mm]"""


def _behind_its_door(box: UnderBox, place: Box) -> Box:
    """A toolbox's body: a bolt through its door would hang nothing. [mm]"""
    if box.side == "left":
        return place._replace(y0=place.y0 + DOOR)
    return place._replace(y1=place.y1 - DOOR)


def _at_y(pose: Pose, y: float) -> Pose:
    return pose._replace(at=(pose.at[0], y, pose.at[2]))


def parts(
    vehicle: Vehicle, tray: Tray, shop: Shop, frame: tuple[Part, ...] = ()
) -> tuple[Part, ...]:
    """List what is cut and bought under the tray.

    Args:
        vehicle: What it hangs under; its tyres decide the mudguards. [mm]
        tray: The tray. [mm]
        frame: The tray's own parts, under whose bars they hang.
    Returns: Toolboxes, trundle drawer, tank, mudguards, each where it hangs in vehicle axes.
    """
    made: list[Part] = []
    hung = solids(tray, front_x(vehicle, tray), floor_z(vehicle, tray))
    places = {(p.role, p.id): p.box for p in hung}
    for box in tray.boxes:
        made += box_parts(box, shop, places["box", box.id])
        made.append(
            hangers(
                f"{box.name.lower()} {box.id}",
                box.holder,
                _behind_its_door(box, places["box", box.id]),
                frame,
            )
        )
    if tray.trundle is not None:
        made += trundle_parts(tray.trundle, shop, places["trundle", ""])
        made.append(hangers("the trundle's tunnel", TRUNDLE, places["trundle", ""], frame))
    one = as_tank(tray)
    if one is not None:
        corner = places["tank", ""][:3]
        for part in tank_parts(one, shop):
            if isinstance(part, SheetPart):
                poses = tuple(
                    s._replace(at=(s.at[0] + corner[0], s.at[1] + corner[1], s.at[2] + corner[2]))
                    for s in part.poses
                )
                made.append(msgspec.structs.replace(part, poses=poses))
            elif isinstance(part, Hardware):
                moved = tuple(b.moved(*corner) for b in part.places)
                made.append(msgspec.structs.replace(part, places=moved))
        made.append(hangers("the tank's straps", TANK, places["tank", ""], frame))
    made += mudguards.parts(vehicle, tray, shop, frame)
    return tuple(made)


def holding(tray: Tray, where: BodyParts) -> dict[str, tuple[str, Box, float]]:
    """What hangs under the tray and holds goods.

    Args:
        where: From `solids`. [mm]
    Returns:
        By the place that goods name: what its contents are called, where it hangs, what it holds by its own
        figure. [mm, kg]
    """
    at = {(p.role, p.id): p.box for p in where}
    found = {
        b.holder: (f"in {b.name.lower()} {b.id}", at["box", b.id], b.contents) for b in tray.boxes
    }
    if tray.trundle is not None:
        own = ("in the trundle drawer", at["trundle", ""], tray.trundle.contents)
        found[TRUNDLE] = own
    return found


def things(tray: Tray, where: BodyParts) -> tuple[BodyThing, ...]:
    """What hangs under the tray, as things to everybody else.

    Args:
        where: From `solids`. [mm]
    Returns: Toolboxes behind sealed doors, the trundle drawer, the water tank. [mm]
    """
    at_of = {(p.role, p.id): p for p in where}
    found = []
    for box in tray.boxes:
        part = at_of["box", box.id]
        # What is dirty and wet has drains instead of a seal.
        seal = "" if box.kind == "wet pocket" else "its seal"
        known = Capabilities(sealed=seal, locks=LOCKS)
        found.append(BodyThing(box.holder, part.ref, TRAY, f"{box.name} {box.id}", part.box, known))
    if tray.trundle is not None:
        part = at_of["trundle", ""]
        found.append(BodyThing(TRUNDLE, part.ref, TRAY, "Trundle drawer", part.box, TRUNDLE_SAYS,
                               moves=True))  # fmt: skip
    one = as_tank(tray)
    if one is not None:
        part = at_of["tank", ""]
        known = placed(tank.says(one), Frame(*part.box[:3], "left"))
        found.append(BodyThing(TANK, part.ref, TRAY, one.name, part.box, known))
    return tuple(found)


TANK = "tray.tank"
"""The place of the under-tray tank."""
LOCKS = 2
"""Locks of a toolbox's door."""


def masses(tray: Tray, where: BodyParts, shop: Shop) -> tuple[PointMass, ...]:
    """List the masses under the tray, each at the middle of its box; contents and water too.

    Args:
        tray: The tray. [mm]
        where: From `solids`. [mm]
    Returns: In vehicle axes. [mm, kg]
    """
    found: list[PointMass] = []
    at_of = {(p.role, p.id): p.box.centre() for p in where}
    for box in tray.boxes:
        at = at_of["box", box.id]
        found.append(
            PointMass(
                f"{box.name} {box.id}",
                part_mass(box_parts(box, shop)),
                "geometry",
                at,
                of=box.holder,
            )
        )
    if tray.trundle is not None:
        at = at_of["trundle", ""]
        made = part_mass(trundle_parts(tray.trundle, shop))
        found.append(PointMass("trundle drawer", made + TRUNDLE_SLIDES, "geometry", at, of=TRUNDLE))
    found += [
        PointMass(label, kg, "estimate", box.centre(), CONTENTS, place)
        for place, (label, box, kg) in holding(tray, where).items()
    ]
    one = as_tank(tray)
    if one is not None:
        at = at_of["tank", ""]
        found.append(
            PointMass("under-tray tank", part_mass(tank_parts(one, shop)), "geometry", at, of=TANK)
        )
        found.append(
            PointMass("water under the tray", tank.litres(one), "geometry", at, WATER, TANK)
        )
    return tuple(m for m in found if m.kg > 0)
