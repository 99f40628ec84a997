"""Tray: subframe bars, floor sheet, headboard, drop sides; its solids, mass and parts."""

import math

from roomy_hull.core.sheetmetal import BarPart, Part, SheetPart, section_area
from roomy_hull.core.solids import Box
from roomy_hull.job.body import Tray
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kit.expansion import Lump

HEADBOARD_POST = "50x50x3"


def section_height(section: str) -> float:
    """Give a bar section's first side, which stands upright. [mm]"""
    section_area(section)
    return float(section.split("x", maxsplit=1)[0])


def front_x(vehicle: Vehicle, tray: Tray) -> float:
    """Give where the tray begins, aft of the front axle. [mm]"""
    return vehicle.cab_back + tray.gap


def floor_z(vehicle: Vehicle, tray: Tray) -> float:
    """Give the height of the tray's floor above the ground: rail, subframe, cross-members, sheet.

    The cross-members lie between the subframe rails, flush with their tops. [mm]
    """
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
    found = {
        "floor": Box(x0, -half, top - tray.floor, x1, half, top),
        "rail left": Box(x0, -spread - 25, low, x1, -spread + 25, low + rail),
        "rail right": Box(x0, spread - 25, low, x1, spread + 25, low + rail),
    }
    if tray.headboard > 0:
        found["headboard"] = Box(x0 - 30, -half, top, x0, half, top + tray.headboard)
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


def parts(tray: Tray) -> tuple[Part, ...]:
    """Give what is cut for the tray.

    Parameters
    ----------
    tray : Tray
        The tray. [mm]

    Returns
    -------
    tuple of Part
        Rails, cross-members, coaming, floor sheets, headboard and drop sides.
    """
    crosses = max(2, math.ceil(tray.length / tray.cross_spacing) + 1)
    panels = max(1, math.ceil(tray.width / 1450))
    made: list[Part] = [
        BarPart("Tray: subframe rail", "tray", tray.rail, tray.length, tray.bar_material, 2),
        BarPart("Tray: cross-member", "tray", tray.cross, tray.width, tray.bar_material, crosses),
        BarPart("Tray: coaming", "tray", tray.cross, tray.length, tray.bar_material, 2),
        SheetPart("Tray: floor", "tray", tray.length, tray.width / panels, tray.floor,
                  tray.floor_material, count=panels, grain=True),
    ]  # fmt: skip
    if tray.headboard > 0:
        made += [
            BarPart("Tray: headboard post", "tray", HEADBOARD_POST, tray.headboard,
                    tray.bar_material, 3),
            BarPart("Tray: headboard rail", "tray", HEADBOARD_POST, tray.width,
                    tray.bar_material, 2),
            SheetPart("Tray: headboard skin", "tray", tray.width - 100,
                      max(60.0, tray.headboard * 0.55), 2.0, "5052-H32"),
        ]  # fmt: skip
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
    head = flat = 0.0
    for part in parts(tray):
        kg = part.mass() * part.count if isinstance(part, SheetPart | BarPart) else 0.0
        if "headboard" in part.name:
            head += kg
        else:
            flat += kg
    found = [Lump("frame, floor and sides", flat, "geometry", (mid, 0.0, z - 30))]
    if head:
        found.append(Lump("headboard", head, "geometry", (x0 - 15, 0.0, z + tray.headboard / 2)))
    if tray.fittings:
        found.append(Lump("guards, lights, fasteners", tray.fittings, "estimate",
                          (mid + tray.length * 0.2, 0.0, z - 120)))  # fmt: skip
    return tuple(found)
