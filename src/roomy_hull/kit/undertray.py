"""What hangs under the tray: toolboxes, trundle drawer, water tank, mudguards; and what is in the way."""

from roomy_hull.core.sheetmetal import Hardware, Part, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.tyres import overall_diameter, parts_of
from roomy_hull.job.body import Tray, Trundle, UnderBox
from roomy_hull.job.unit import Tank
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kit import tank
from roomy_hull.kit.expansion import Lump, part_mass

EDGE = 75.0
"""How far under the floor's top a box begins: floor, coaming and a gap (common practice). [mm]"""
GUARD_SHEET = 2.0
TRUNDLE_SLIDES = 9.0
"""A pair of heavy slides and a lock (common practice). [kg]"""
GUARD = "Tray: mudguard strip"


def as_tank(tray: Tray) -> Tank | None:
    """Give the under-tray tank as the unit whose parts and volume the kit knows. [mm]"""
    one = tray.tank
    if one is None:
        return None
    return Tank(
        id="tray", name="Under-tray tank", bay="-", width=one.length, depth=one.width,
        height=one.height, sheet=one.sheet, baffles=one.baffles,
    )  # fmt: skip


def solids(tray: Tray, x0: float, top: float) -> dict[str, Box]:
    """Give what hangs under the tray, by name.

    Parameters
    ----------
    tray : Tray
        The tray. [mm]
    x0, top : float
        Where it begins, and the height of its floor. [mm]

    Returns
    -------
    dict of str to Box
        Toolboxes, trundle drawer and tank, in vehicle axes. [mm]
    """
    x1, half, low = x0 + tray.length, tray.width / 2, top - EDGE
    found: dict[str, Box] = {}
    for box in tray.boxes:
        a = x0 + box.gap if box.place == "ahead" else x1 - box.gap - box.length
        y0, y1 = (-half, -half + box.depth) if box.side == "left" else (half - box.depth, half)
        found[f"box {box.id}"] = Box(a, y0, low - box.height, a + box.length, y1, low)
    if tray.trundle is not None:
        t = tray.trundle
        found["trundle drawer"] = Box(
            x1 - t.length, -t.width / 2, low - t.height, x1, t.width / 2, low
        )
    if tray.tank is not None:
        u = tray.tank
        a = x0 + u.start
        found["under-tray tank"] = Box(
            a, -u.width / 2, low - u.height, a + u.length, u.width / 2, low
        )
    return found


def obstacles(vehicle: Vehicle, tray: Tray) -> dict[str, Box]:
    """Give what nothing under the tray may touch, by name.

    Parameters
    ----------
    vehicle : Vehicle
        Wheels, axle, chassis rails and fuel tanks. [mm]
    tray : Tray
        For the wheels' travel. [mm]

    Returns
    -------
    dict of str to Box
        In vehicle axes: the room of each rear wheel with its travel, the axle's, the two rails,
        the fuel tanks (by volume, a guess of their shape). [mm]
    """
    radius, section = overall_diameter(vehicle.tyre) / 2, parts_of(vehicle.tyre)[0]
    base, half = vehicle.wheelbase, vehicle.track_rear / 2
    room = radius + 0.5 * tray.wheel_travel
    axle = vehicle.axle_height()
    found = {}
    for side, sign in (("left", -1), ("right", 1)):
        c = sign * half
        found[f"{side} wheel"] = Box(
            base - room, c - section / 2 - 20, 0, base + room, c + section / 2 + 20,
            2 * radius + tray.wheel_travel,
        )  # fmt: skip
        r = sign * vehicle.rail_spread / 2
        found[f"{side} chassis rail"] = Box(
            vehicle.cab_back, r - vehicle.rail_width / 2, vehicle.rail_top - vehicle.rail_depth,
            vehicle.chassis_end, r + vehicle.rail_width / 2, vehicle.rail_top,
        )  # fmt: skip
    found["rear axle"] = Box(
        base - 150, -half + 150, axle - 120, base + 150, half - 150, axle + 120 + tray.wheel_travel
    )
    for name, fuel in (("fuel tank", vehicle.fuel), ("long-range fuel tank", vehicle.long_range)):
        if fuel is not None:
            # A usual tank is some 220 high and 400 wide; the length follows from its volume.
            long = max(200.0, fuel.litres * 1e6 / (220 * 400))
            found[name] = Box(
                fuel.x - long / 2, fuel.y - 200, fuel.z - 110, fuel.x + long / 2, fuel.y + 200,
                fuel.z + 110,
            )  # fmt: skip
    return found


def box_parts(box: UnderBox) -> tuple[Part, ...]:
    """Give what is cut for one toolbox: a folded body and its door. [mm]"""
    name = f"{box.name} {box.id}"
    return (
        SheetPart(f"{name}: body", "tray", box.length, box.height, box.sheet, "5052-H32",
                  left=box.depth, right=box.depth, front=box.depth, back=box.depth),
        SheetPart(f"{name}: door", "tray", box.length + 30, box.height + 30, box.sheet, "5052-H32",
                  left=20.0, right=20.0, front=20.0, back=20.0),
        Hardware(f"hinge, seal and two locks for {name.lower()}", "tray"),
    )  # fmt: skip


def trundle_parts(t: Trundle) -> tuple[Part, ...]:
    """Give what is cut and bought for a trundle drawer. [mm]"""
    fold = t.height - 10
    return (
        SheetPart("Trundle drawer: box", "tray", t.length, t.width - 60, t.sheet, "5052-H32",
                  left=fold, right=fold, front=fold, back=fold),
        SheetPart("Trundle drawer: front", "tray", t.width, t.height, 3.0, "5052-H32"),
        Hardware("pair of heavy slides, seal and lock for the trundle drawer", "tray"),
    )  # fmt: skip


def parts(tray: Tray, tyre: str) -> tuple[Part, ...]:
    """Give what is cut and bought under the tray.

    Parameters
    ----------
    tray : Tray
        The tray. [mm]
    tyre : str
        Its designation decides the mudguards.

    Returns
    -------
    tuple of Part
        Toolboxes, trundle drawer, tank, mudguards.
    """
    made: list[Part] = []
    for box in tray.boxes:
        made += box_parts(box)
    if tray.trundle is not None:
        made += trundle_parts(tray.trundle)
    one = as_tank(tray)
    if one is not None:
        made += tank.parts(one)
    if tray.mudguards:
        radius, section = overall_diameter(tyre) / 2, parts_of(tyre)[0]
        # A half ring over the tyre with its travel, rolled from a strip.
        strip = 3.14159265 * (radius + tray.wheel_travel)
        made.append(SheetPart(GUARD, "tray", strip, section + 60, GUARD_SHEET, "5052-H32", count=2))
    return tuple(made)


def lumps(tray: Tray, where: dict[str, Box]) -> tuple[Lump, ...]:
    """Give the masses under the tray, each at the middle of its box; contents and water too.

    Parameters
    ----------
    tray : Tray
        The tray. [mm]
    where : dict of str to Box
        From `solids`. [mm]

    Returns
    -------
    tuple of Lump
        In vehicle axes. [mm, kg]
    """
    found: list[Lump] = []
    for box in tray.boxes:
        at = where[f"box {box.id}"].centre()
        found.append(Lump(f"{box.name} {box.id}", part_mass(box_parts(box)), "geometry", at))
        found.append(
            Lump(f"in {box.name.lower()} {box.id}", box.contents, "estimate", at, "contents")
        )
    if tray.trundle is not None:
        at = where["trundle drawer"].centre()
        made = part_mass(trundle_parts(tray.trundle))
        found.append(Lump("trundle drawer", made + TRUNDLE_SLIDES, "geometry", at))
        found.append(
            Lump("in the trundle drawer", tray.trundle.contents, "estimate", at, "contents")
        )
    one = as_tank(tray)
    if one is not None:
        at = where["under-tray tank"].centre()
        found.append(Lump("under-tray tank", part_mass(tank.parts(one)), "geometry", at))
        found.append(Lump("water under the tray", tank.litres(one), "geometry", at, "water"))
    return tuple(lump for lump in found if lump.kg > 0)
