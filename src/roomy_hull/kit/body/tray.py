"""Tray: subframe bars, floor sheet, headboard, drop sides; its solids, mass and parts."""

import math

from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.material import Material
from roomy_hull.core.mechanics.sections import section_height, section_width
from roomy_hull.core.parts import BarPart, Hardware, Part, SheetPart
from roomy_hull.core.refs import TRAY
from roomy_hull.job.body import Tray
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kinds.expansion import PointMass
from roomy_hull.kit.body import undertray
from roomy_hull.kit.body.pieces import BodyPart, BodyParts, Hand
from roomy_hull.shop.shop import Shop

HEADBOARD_POST = "50x50x3"
POSTS = 3
PLY = 12.0
"""Thickness of false floor and wings (common practice). [mm]"""
WING_HEIGHT = 330.0
"""Height of a side wing over the floor (common practice). [mm]"""
PLANK = "150x25x2"
"""Section of a floor plank (common practice)."""


def front_x(vehicle: Vehicle, tray: Tray) -> float:
    """Where the tray begins, aft of the front axle. [mm]"""
    return vehicle.cab_back + tray.gap


def floor_z(vehicle: Vehicle, tray: Tray) -> float:
    """The height of the tray's floor above the ground: rail, subframe, cross-members, sheet.

    The cross-members lie between the subframe rails, flush with their tops. A hold's floor is as
    high as it was measured. [mm]
    """
    if tray.kind == "hold":
        return tray.floor_z
    return vehicle.rail_top + section_height(tray.rail) + tray.floor


def solids(vehicle: Vehicle, tray: Tray) -> BodyParts:
    """List the tray's solids, the floor first.

    Parameters
    ----------
    vehicle : Vehicle
        What it stands on.
    tray : Tray
        The tray. [mm]

    Returns
    -------
    tuple of BodyPart
        Floor, headboard, subframe rails, drop sides and arches, in vehicle axes. [mm]
    """
    x0 = front_x(vehicle, tray)
    x1, half = x0 + tray.length, tray.width / 2
    top = floor_z(vehicle, tray)
    rail, wide = section_height(tray.rail), section_width(tray.rail)
    low = vehicle.rail_top
    spread = vehicle.rail_spread / 2
    found = [BodyPart("floor", Box(x0, -half, top - tray.floor, x1, half, top))]
    if tray.kind == "tray":
        sides: tuple[tuple[Hand, float], ...] = (("left", -spread), ("right", spread))
        for side, c in sides:
            found.append(
                BodyPart("rail", Box(x0, c - wide / 2, low, x1, c + wide / 2, low + rail), side)
            )
        found += undertray.solids(tray, x0, top)
    else:
        found += _lining(tray, found[0].box)
    if tray.headboard > 0:
        board = Box(x0 - 30, -half, top, x0, half, top + tray.headboard + tray.rack)
        found.append(BodyPart("headboard", board))
    if tray.sides > 0:
        t = tray.side_thickness
        high = top + tray.sides
        found += [
            BodyPart("side", Box(x0, -half, top, x1, -half + t, high), "left"),
            BodyPart("side", Box(x0, half - t, top, x1, half, high), "right"),
            BodyPart("tail", Box(x1 - t, -half + t, top, x1, half - t, high)),
        ]
    for i, arch in enumerate(tray.arches):
        a0 = x0 + arch.start
        rows: tuple[tuple[Hand, float, float], ...] = (
            ("left", -half, -half + arch.width),
            ("right", half - arch.width, half),
        )
        for side, y0, y1 in rows:
            if arch.side in (side, "both"):
                hump = Box(a0, y0, top, a0 + arch.length, y1, top + arch.height)
                found.append(BodyPart("arch", hump, side, str(i + 1)))
    return tuple(found)


def _lining(tray: Tray, floor: Box) -> list[BodyPart]:
    """A hold's made false floor, board and bearers, and the boards of its wings, as they are cut. [mm]"""
    found: list[BodyPart] = []
    x0, y0, _z0, x1, y1, top = floor
    if tray.false_floor > 0:
        low, high = y0 + tray.wings, y1 - tray.wings
        level = top + tray.false_floor
        found.append(BodyPart("false floor", Box(x0, low, max(top, level - PLY), x1, high, level)))
        rows = bearers(tray)
        step = (tray.length - PLY) / (rows - 1)
        if tray.false_floor > PLY:
            found += [
                BodyPart(
                    "false floor",
                    Box(x0 + n * step, low, top, x0 + n * step + PLY, high, level - PLY),
                )
                for n in range(rows)
            ]
    if tray.wings > 0:
        lid = top + WING_HEIGHT
        sides: tuple[tuple[Hand, float, float], ...] = (
            ("left", y0, y0 + tray.wings),
            ("right", y1 - tray.wings, y1),
        )
        for side, a, b in sides:
            inner = (b - PLY, b) if side == "left" else (a, a + PLY)
            found += [
                BodyPart("wing", Box(x0, a, lid - PLY, x1, b, lid), side),
                BodyPart("wing", Box(x0, inner[0], top, x1, inner[1], lid - PLY), side),
            ]
    return found


def bearers(tray: Tray) -> int:
    """How many bearers a hold's false floor lies on: at most 450 apart."""
    return max(2, math.ceil(tray.length / 450) + 1)


def parts(vehicle: Vehicle, tray: Tray, shop: Shop) -> tuple[Part, ...]:
    """What is cut for the tray and hung under it; nothing for a hold.

    Parameters
    ----------
    vehicle : Vehicle
        Its rails say where cross-members are cut, its tyres decide the mudguards. [mm]
    tray : Tray
        The tray. [mm]
    shop : Shop
        Its materials.

    Returns
    -------
    tuple of Part
        Rails, cross-members, coaming, floor sheets, headboard, drop sides; toolboxes and the rest.
    """
    if tray.kind == "hold":
        return hold_parts(tray, shop)
    return (*own_parts(vehicle, tray, shop), *undertray.parts(tray, vehicle.tyre, shop))


def hold_parts(tray: Tray, shop: Shop) -> tuple[Part, ...]:
    """What is cut for a tub or wagon: a false floor on bearers, and a wing on each side. [mm]"""
    made: list[Part] = []
    between, ply = tray.width - 2 * tray.wings, shop.material(shop.ply)
    if tray.false_floor > 0:
        halves = max(1, math.ceil(tray.length / 2400))
        made += [
            SheetPart("False floor: board", TRAY, tray.length / halves, between, PLY, ply,
                      count=halves),
            SheetPart("False floor: bearer", TRAY, between, max(1.0, tray.false_floor - PLY), PLY,
                      ply, count=bearers(tray)),
            Hardware("flush lift ring for a hatch", TRAY, 2),
        ]  # fmt: skip
    if tray.wings > 0:
        made += [
            SheetPart("Wing: top", TRAY, tray.length, tray.wings, PLY, ply, count=2),
            SheetPart("Wing: side", TRAY, tray.length, WING_HEIGHT - PLY, PLY, ply, count=2),
        ]
    return tuple(made)


def own_parts(vehicle: Vehicle, tray: Tray, shop: Shop) -> tuple[Part, ...]:
    """What is cut for the tray itself, without what hangs under it. [mm]"""
    bar, sheet = shop.material(tray.bar_material), shop.material(shop.sheet)
    crosses = max(2, math.ceil(tray.length / tray.cross_spacing) + 1)
    panels = max(1, math.ceil(tray.width / 1450))
    rows = max(1, math.ceil(tray.length / 2950))
    made: list[Part] = [
        BarPart("Tray: subframe rail", TRAY, tray.rail, tray.length, bar, 2),
        BarPart("Tray: coaming", TRAY, tray.cross, tray.length, bar, 2),
        *_crosses(vehicle, tray, bar, crosses),
    ]
    if tray.boards == "planks":
        made.append(BarPart("Tray: floor plank", TRAY, PLANK, tray.length, bar,
                            math.ceil(tray.width / 150)))  # fmt: skip
    else:
        made.append(SheetPart("Tray: floor", TRAY, tray.length / rows, tray.width / panels, tray.floor,
                              shop.material(tray.floor_material), count=panels * rows, grain=True))  # fmt: skip
    if tray.filler:
        made.append(SheetPart("Tray: filler pocket", TRAY, 180.0, 180.0, 2.0, sheet, left=90.0,
                              right=90.0, front=90.0, back=90.0))  # fmt: skip
    if tray.headboard > 0:
        # The posts go through, the rails are cut between them.
        made += [
            BarPart("Tray: headboard post", TRAY, HEADBOARD_POST, tray.headboard, bar, POSTS,
                    role="headboard"),
            BarPart("Tray: headboard rail", TRAY, HEADBOARD_POST,
                    max(10.0, (tray.width - POSTS * section_height(HEADBOARD_POST)) / (POSTS - 1)), bar,
                    2 * (POSTS - 1), role="headboard"),
            SheetPart("Tray: headboard skin", TRAY, tray.width - 100,
                      max(60.0, tray.headboard * 0.55), 2.0, sheet, role="headboard"),
        ]  # fmt: skip
    if tray.rack > 0:
        made.append(BarPart("Tray: rack hoop", TRAY, HEADBOARD_POST,
                            tray.width + 2 * tray.rack, bar, role="headboard"))  # fmt: skip
    if tray.lift_points:
        made.append(Hardware("rated lifting eye with backing plate", TRAY, tray.lift_points))
    if tray.sides > 0:
        hem = min(25.0, tray.sides / 3)
        made += [
            SheetPart("Tray: drop side", TRAY, tray.length, tray.sides, tray.side_thickness,
                      sheet, front=hem, back=hem, count=2),
            SheetPart("Tray: tailboard", TRAY, tray.width, tray.sides, tray.side_thickness,
                      sheet, front=hem, back=hem),
        ]  # fmt: skip
    return tuple(made)


def _crosses(vehicle: Vehicle, tray: Tray, bar: Material, rows: int) -> list[Part]:
    """The cross-members: flush with the rails, so cut between them, and from each to its coaming. [mm]"""
    thick, edge = section_width(tray.rail), section_width(tray.cross)
    between = vehicle.rail_spread - thick
    beside = (tray.width - vehicle.rail_spread - thick) / 2 - edge
    found: list[Part] = []
    if between > edge:
        found.append(
            BarPart("Tray: cross-member between rails", TRAY, tray.cross, between, bar, rows)
        )
    if beside > edge:
        found.append(
            BarPart("Tray: cross-member beside rail", TRAY, tray.cross, beside, bar, 2 * rows)
        )
    return found


def masses(vehicle: Vehicle, tray: Tray, shop: Shop) -> tuple[PointMass, ...]:
    """The tray's masses in vehicle axes, each at the middle of what it belongs to.

    Parameters
    ----------
    vehicle : Vehicle
        What it stands on.
    tray : Tray
        The tray. [mm]
    shop : Shop
        Its materials.

    Returns
    -------
    tuple of PointMass
        Frame and floor, headboard, fittings. [mm, kg]
    """
    x0, z = front_x(vehicle, tray), floor_z(vehicle, tray)
    mid = x0 + tray.length / 2
    if tray.kind == "hold":
        wood = sum(p.mass() * p.count for p in hold_parts(tray, shop) if isinstance(p, SheetPart))
        both = (("false floor and wings", wood, "geometry"),
                ("mats, lining, fasteners", tray.fittings, "estimate"))  # fmt: skip
        return tuple(PointMass(name, kg, by, (mid, 0.0, z + 60)) for name, kg, by in both if kg)
    head = flat = 0.0
    for part in own_parts(vehicle, tray, shop):
        kg = part.mass() * part.count if isinstance(part, SheetPart | BarPart) else 0.0
        if not isinstance(part, Hardware) and part.role == "headboard":
            head += kg
        else:
            flat += kg
    found = [PointMass("frame, floor and sides", flat, "geometry", (mid, 0.0, z - 30))]
    if head:
        found.append(
            PointMass("headboard", head, "geometry", (x0 - 15, 0.0, z + tray.headboard / 2))
        )
    guards = sum(
        p.mass() * p.count
        for p in undertray.parts(tray, vehicle.tyre, shop)
        if isinstance(p, SheetPart) and p.role == "mudguard"
    )
    if guards:
        found.append(PointMass("mudguards", guards, "geometry", (vehicle.wheelbase, 0.0, z - 150)))
    if tray.fittings:
        found.append(PointMass("lights, fasteners, lifting eyes", tray.fittings, "estimate",
                          (mid + tray.length * 0.2, 0.0, z - 120)))  # fmt: skip
    return (*found, *undertray.masses(tray, undertray.solids(tray, x0, z), shop))
