"""Tray: subframe bars, floor sheet, headboard, drop sides; its solids, mass and parts."""

import math

from roomy_hull.core.sheetmetal import BarPart, Hardware, Part, SheetPart, section_area
from roomy_hull.core.solids import Box
from roomy_hull.job.body import Tray
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kit import undertray
from roomy_hull.kit.expansion import Lump

HEADBOARD_POST = "50x50x3"
PLY = 12.0
"""Thickness of false floor and wings (common practice). [mm]"""
WING_HEIGHT = 330.0
"""Height of a side wing over the floor (common practice). [mm]"""
PLANK = "150x25x2"
"""Section of a floor plank (common practice)."""


def section_height(section: str) -> float:
    """Give a bar section's first side, which stands upright. [mm]"""
    section_area(section)
    return float(section.split("x", maxsplit=1)[0])


def front_x(vehicle: Vehicle, tray: Tray) -> float:
    """Give where the tray begins, aft of the front axle. [mm]"""
    return vehicle.cab_back + tray.gap


def floor_z(vehicle: Vehicle, tray: Tray) -> float:
    """Give the height of the tray's floor above the ground: rail, subframe, cross-members, sheet.

    The cross-members lie between the subframe rails, flush with their tops. A hold's floor is as
    high as it was measured. [mm]
    """
    if tray.kind == "hold":
        return tray.floor_z
    return vehicle.rail_top + section_height(tray.rail) + tray.floor


def solids(vehicle: Vehicle, tray: Tray) -> dict[str, Box]:
    """Give the tray's boxes by name.

    Parameters
    ----------
    vehicle : Vehicle
        What it stands on.
    tray : Tray
        The tray. [mm]

    Returns
    -------
    dict of str to Box
        Floor, headboard, subframe rails, drop sides and arches, in vehicle axes. [mm]
    """
    x0 = front_x(vehicle, tray)
    x1, half = x0 + tray.length, tray.width / 2
    top = floor_z(vehicle, tray)
    rail = section_height(tray.rail)
    low = vehicle.rail_top
    spread = vehicle.rail_spread / 2
    found = {"floor": Box(x0, -half, top - tray.floor, x1, half, top)}
    if tray.kind == "tray":
        found["rail left"] = Box(x0, -spread - 25, low, x1, -spread + 25, low + rail)
        found["rail right"] = Box(x0, spread - 25, low, x1, spread + 25, low + rail)
        found |= undertray.solids(tray, x0, top)
    if tray.headboard > 0:
        found["headboard"] = Box(x0 - 30, -half, top, x0, half, top + tray.headboard + tray.rack)
    if tray.sides > 0:
        t = tray.side_thickness
        found["side left"] = Box(x0, -half, top, x1, -half + t, top + tray.sides)
        found["side right"] = Box(x0, half - t, top, x1, half, top + tray.sides)
        found["tail"] = Box(x1 - t, -half + t, top, x1, half - t, top + tray.sides)
    for i, arch in enumerate(tray.arches):
        a0 = x0 + arch.start
        for side, y0, y1 in (
            ("left", -half, -half + arch.width),
            ("right", half - arch.width, half),
        ):
            if arch.side in (side, "both"):
                found[f"arch {i + 1} {side}"] = Box(
                    a0, y0, top, a0 + arch.length, y1, top + arch.height
                )
    return found


def parts(tray: Tray, tyre: str) -> tuple[Part, ...]:
    """Give what is cut for the tray and hung under it; nothing for a hold.

    Parameters
    ----------
    tray : Tray
        The tray. [mm]
    tyre : str
        Its designation decides the mudguards.

    Returns
    -------
    tuple of Part
        Rails, cross-members, coaming, floor sheets, headboard, drop sides; toolboxes and the rest.
    """
    if tray.kind == "hold":
        return hold_parts(tray)
    return (*own_parts(tray), *undertray.parts(tray, tyre))


def hold_parts(tray: Tray) -> tuple[Part, ...]:
    """Give what is cut for a tub or wagon: a false floor on bearers, and a wing on each side. [mm]"""
    made: list[Part] = []
    between = tray.width - 2 * tray.wings
    if tray.false_floor > 0:
        bearers = max(2, math.ceil(tray.length / 450) + 1)
        halves = max(1, math.ceil(tray.length / 2400))
        made += [
            SheetPart("False floor: board", "tray", tray.length / halves, between, PLY, "birch ply",
                      count=halves),
            SheetPart("False floor: bearer", "tray", between, max(30.0, tray.false_floor - PLY), PLY,
                      "birch ply", count=bearers),
            Hardware("flush lift ring for a hatch", "tray", 2),
        ]  # fmt: skip
    if tray.wings > 0:
        made += [
            SheetPart("Wing: top", "tray", tray.length, tray.wings, PLY, "birch ply", count=2),
            SheetPart(
                "Wing: side", "tray", tray.length, WING_HEIGHT - PLY, PLY, "birch ply", count=2
            ),
        ]
    return tuple(made)


def own_parts(tray: Tray) -> tuple[Part, ...]:
    """Give what is cut for the tray itself, without what hangs under it. [mm]"""
    crosses = max(2, math.ceil(tray.length / tray.cross_spacing) + 1)
    panels = max(1, math.ceil(tray.width / 1450))
    rows = max(1, math.ceil(tray.length / 2950))
    made: list[Part] = [
        BarPart("Tray: subframe rail", "tray", tray.rail, tray.length, tray.bar_material, 2),
        BarPart("Tray: cross-member", "tray", tray.cross, tray.width, tray.bar_material, crosses),
        BarPart("Tray: coaming", "tray", tray.cross, tray.length, tray.bar_material, 2),
    ]  # fmt: skip
    if tray.boards == "planks":
        made.append(BarPart("Tray: floor plank", "tray", PLANK, tray.length, tray.bar_material,
                            math.ceil(tray.width / 150)))  # fmt: skip
    else:
        made.append(SheetPart("Tray: floor", "tray", tray.length / rows, tray.width / panels, tray.floor,
                              tray.floor_material, count=panels * rows, grain=True))  # fmt: skip
    if tray.filler:
        made.append(SheetPart("Tray: filler pocket", "tray", 180.0, 180.0, 2.0, "5052-H32", left=90.0,
                              right=90.0, front=90.0, back=90.0))  # fmt: skip
    if tray.headboard > 0:
        made += [
            BarPart("Tray: headboard post", "tray", HEADBOARD_POST, tray.headboard,
                    tray.bar_material, 3),
            BarPart("Tray: headboard rail", "tray", HEADBOARD_POST, tray.width,
                    tray.bar_material, 2),
            SheetPart("Tray: headboard skin", "tray", tray.width - 100,
                      max(60.0, tray.headboard * 0.55), 2.0, "5052-H32"),
        ]  # fmt: skip
    if tray.rack > 0:
        made.append(BarPart("Tray: rack hoop", "tray", HEADBOARD_POST,
                            tray.width + 2 * tray.rack, tray.bar_material))  # fmt: skip
    if tray.lift_points:
        made.append(Hardware("rated lifting eye with backing plate", "tray", tray.lift_points))
    if tray.sides > 0:
        hem = min(25.0, tray.sides / 3)
        made += [
            SheetPart("Tray: drop side", "tray", tray.length, tray.sides, tray.side_thickness,
                      "5052-H32", front=hem, back=hem, count=2),
            SheetPart("Tray: tailboard", "tray", tray.width, tray.sides, tray.side_thickness,
                      "5052-H32", front=hem, back=hem),
        ]  # fmt: skip
    return tuple(made)


def lumps(vehicle: Vehicle, tray: Tray) -> tuple[Lump, ...]:
    """Give the tray's masses in vehicle axes, each at the middle of what it belongs to.

    Parameters
    ----------
    vehicle : Vehicle
        What it stands on.
    tray : Tray
        The tray. [mm]

    Returns
    -------
    tuple of Lump
        Frame and floor, headboard, fittings. [mm, kg]
    """
    x0, z = front_x(vehicle, tray), floor_z(vehicle, tray)
    mid = x0 + tray.length / 2
    if tray.kind == "hold":
        wood = sum(p.mass() * p.count for p in hold_parts(tray) if isinstance(p, SheetPart))
        both = (("false floor and wings", wood, "geometry"),
                ("mats, lining, fasteners", tray.fittings, "estimate"))  # fmt: skip
        return tuple(Lump(name, kg, by, (mid, 0.0, z + 60)) for name, kg, by in both if kg)
    head = flat = 0.0
    for part in own_parts(tray):
        kg = part.mass() * part.count if isinstance(part, SheetPart | BarPart) else 0.0
        if "headboard" in part.name or "rack" in part.name:
            head += kg
        else:
            flat += kg
    found = [Lump("frame, floor and sides", flat, "geometry", (mid, 0.0, z - 30))]
    if head:
        found.append(Lump("headboard", head, "geometry", (x0 - 15, 0.0, z + tray.headboard / 2)))
    guards = sum(
        p.mass() * p.count
        for p in undertray.parts(tray, vehicle.tyre)
        if isinstance(p, SheetPart) and p.name == undertray.GUARD
    )
    if guards:
        found.append(Lump("mudguards", guards, "geometry", (vehicle.wheelbase, 0.0, z - 150)))
    if tray.fittings:
        found.append(Lump("lights, fasteners, lifting eyes", tray.fittings, "estimate",
                          (mid + tray.length * 0.2, 0.0, z - 120)))  # fmt: skip
    return (*found, *undertray.lumps(tray, undertray.solids(tray, x0, z)))
