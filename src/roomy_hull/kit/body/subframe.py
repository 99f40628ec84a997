"""What a tray, or the lining of a hold, is cut of: each part where it stands, in vehicle axes."""

import math

from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.material import Material
from roomy_hull.core.mechanics.sections import section_height, section_width
from roomy_hull.core.parts import BarPart, EndCut, Hardware, Part, SheetPart
from roomy_hull.core.poses import ACROSS, BACK, FORTH, REAR, UPRIGHT, WALL, Turned, at
from roomy_hull.core.refs import TRAY
from roomy_hull.job.body import Tray
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.shop.shop import Shop

HEADBOARD_POST, POSTS, SKIN = "50x25x3", 3, 2.0
"""The section of a headboard's bars, its first side across the vehicle or upright; how many posts; its skin (common
practice). [mm]"""
BOARD = section_width(HEADBOARD_POST) + SKIN
"""A headboard's depth, ahead of the tray's front: skin, and bars behind it. [mm]"""
PLANK = (150.0, 25.0, 2.0)
"""A floor plank: its width lying, its height, its wall (common practice). [mm]"""
LEAST_PLANK = 10.0
OTHER_UPRIGHT = Turned("w", "-u", "-v")
HUNG = Turned("v", "u", "-w")
MITRE = EndCut(45.0, "high")


def front_x(vehicle: Vehicle, tray: Tray) -> float:
    """Where the tray begins, aft of the front axle. [mm]"""
    return vehicle.cab_back + tray.gap


def floor_depth(tray: Tray) -> float:
    """How thick the floor is: its sheet, or its planks. [mm]"""
    return PLANK[1] if tray.boards == "planks" and tray.kind == "tray" else tray.floor


def floor_z(vehicle: Vehicle, tray: Tray) -> float:
    """The height of the tray's floor above the ground: rail, subframe, cross-members, sheet or planks.

    The cross-members lie between the subframe rails, flush with their tops. A hold's floor is as
    high as it was measured. [mm]
    """
    if tray.kind == "hold":
        return tray.floor_z
    return vehicle.rail_top + section_height(tray.rail) + floor_depth(tray)


def frame_z(vehicle: Vehicle, tray: Tray) -> float:
    """The height of the underside of the cross-members and the coaming above the ground. [mm]"""
    return vehicle.rail_top + section_height(tray.rail) - section_height(tray.cross)


def rail_boxes(vehicle: Vehicle, tray: Tray) -> tuple[Box, Box]:
    """The subframe's rails on those of the chassis, left and right, in vehicle axes. [mm]"""
    x0, low, wide = front_x(vehicle, tray), vehicle.rail_top, section_width(tray.rail)
    high = low + section_height(tray.rail)
    left, right = (
        Box(x0, c - wide / 2, low, x0 + tray.length, c + wide / 2, high)
        for c in (-vehicle.rail_spread / 2, vehicle.rail_spread / 2)
    )
    return left, right


def own_parts(vehicle: Vehicle, tray: Tray, shop: Shop) -> tuple[Part, ...]:
    """What is cut for the tray itself, without what hangs under it. [mm]"""
    bar, sheet = shop.material(tray.bar_material), shop.material(shop.sheet)
    return (
        *_subframe(vehicle, tray, bar),
        *_floor(vehicle, tray, bar, shop),
        *_headboard(vehicle, tray, bar, sheet),
        *_sides(vehicle, tray, sheet),
    )


def _subframe(vehicle: Vehicle, tray: Tray, bar: Material) -> list[Part]:
    """Rails on the chassis, coaming at the edges, and between them the cross-members, flush with the rails' tops."""
    x0, half, edge = front_x(vehicle, tray), tray.width / 2, section_width(tray.cross)
    rails = rail_boxes(vehicle, tray)
    level = frame_z(vehicle, tray)
    made: list[Part] = [
        BarPart("Tray: subframe rail", TRAY, tray.rail, tray.length, bar, 2, "rail",
                poses=tuple(at(*r[:3]) for r in rails)),
        BarPart("Tray: coaming", TRAY, tray.cross, tray.length, bar, 2,
                poses=tuple(at(x0, y, level) for y in (-half, half - edge))),
    ]  # fmt: skip
    rows = max(2, math.ceil(tray.length / tray.cross_spacing) + 1)
    ends = [x0 + edge + n * (tray.length - edge) / (rows - 1) for n in range(rows)]
    # Cut between the rails, and from each to its coaming.
    inner, outer = rails[1].y0, rails[1].y1
    for name, starts, long in (
        ("between rails", (-inner,), 2 * inner),
        ("beside rail", (edge - half, outer), half - edge - outer),
    ):  # fmt: skip
        if long > edge:
            poses = tuple(at(x, y, level, ACROSS) for x in ends for y in starts)
            made.append(
                BarPart(f"Tray: cross-member {name}", TRAY, tray.cross, long, bar, len(poses), poses=poses)
            )  # fmt: skip
    return made


def _floor(vehicle: Vehicle, tray: Tray, bar: Material, shop: Shop) -> list[Part]:
    """Sheets side by side, or planks, the last of them ripped; the pocket for the fuel filler."""
    x0, half, top = front_x(vehicle, tray), tray.width / 2, floor_z(vehicle, tray)
    made: list[Part] = []
    if tray.boards == "planks":
        wide, high, wall = PLANK
        full = int(tray.width // wide)
        rest = tray.width - full * wide
        ripped = rest >= LEAST_PLANK
        # What is too narrow to rip is shared out as gaps.
        step = wide + (0.0 if ripped else rest / max(1, full - 1))
        rows = [(wide, [n * step for n in range(full)])]
        rows += [(rest, [full * wide])] if ripped else []
        for width, starts in rows:
            # Lying: its first side is its height.
            made.append(
                BarPart("Tray: floor plank" + (", ripped" if width < wide else ""), TRAY,
                        f"{high:g}x{width:g}x{wall:g}", tray.length, bar, len(starts),
                        poses=tuple(at(x0, y - half, top - high) for y in starts))
            )  # fmt: skip
    else:
        panels, rows_ = max(1, math.ceil(tray.width / 1450)), max(1, math.ceil(tray.length / 2950))
        long, wide = tray.length / rows_, tray.width / panels
        made.append(
            SheetPart("Tray: floor", TRAY, long, wide, tray.floor, shop.material(tray.floor_material),
                      count=panels * rows_, grain=True,
                      poses=tuple(at(x0 + n * long, m * wide - half, top - tray.floor)
                                   for n in range(rows_) for m in range(panels)))
        )  # fmt: skip
    if tray.filler:
        # Where it stands follows from the vehicle's filler, which nobody measured.
        made.append(SheetPart("Tray: filler pocket", TRAY, 180.0, 180.0, 2.0, shop.material(shop.sheet), left=90.0,
                              right=90.0, front=90.0, back=90.0, corners="welded"))  # fmt: skip
    if tray.lift_points:
        made.append(Hardware("rated lifting eye with backing plate", TRAY, tray.lift_points))
    made.append(_mounts(vehicle, tray))
    return made


MOUNT_STEP, MOUNT = 650.0, (70.0, 6.0)
"""Mounts on the chassis stand at most so far apart; how long and how thick one is (common practice). [mm]"""


def _mounts(vehicle: Vehicle, tray: Tray) -> Hardware:
    """What holds the subframe on the chassis: brackets beside both rails, through holes that the chassis already has."""
    count = max(3, math.ceil(tray.length / MOUNT_STEP))
    long, thick = MOUNT
    places = []
    for n, rail in enumerate(rail_boxes(vehicle, tray)):
        y0, y1 = (rail.y0 - thick, rail.y0) if n == 0 else (rail.y1, rail.y1 + thick)
        step = (tray.length - 2 * 120.0 - long) / (count - 1)
        high = rail.z0 + section_height(tray.rail) * 0.7
        starts = [rail.x0 + 120 + m * step for m in range(count)]
        places += [Box(x, y0, rail.z0 - 60, x + long, y1, high) for x in starts]
    return Hardware("chassis mount with four M12 bolts, through holes the chassis has: none is drilled there", TRAY,
                    2 * count, places=tuple(places), fix="bolts")  # fmt: skip


def headboard_posts(vehicle: Vehicle, tray: Tray) -> tuple[Box, ...]:
    """Where the headboard's posts stand: ahead of the first cross-member, from its underside up.

    Args:
        tray: The tray. [mm]
    Returns: In vehicle axes, from left to right; none without a headboard. [mm]
    """
    if tray.headboard <= 0:
        return ()
    x0, half, top = front_x(vehicle, tray), tray.width / 2, floor_z(vehicle, tray)
    high, wide = section_height(HEADBOARD_POST), section_width(HEADBOARD_POST)
    between = (tray.width - POSTS * high) / (POSTS - 1)
    low = top - floor_depth(tray) - section_height(tray.cross)
    starts = [-half + n * (high + between) for n in range(POSTS)]
    return tuple(Box(x0 - wide, y, low, x0, y + high, top + tray.headboard) for y in starts)


def _headboard(vehicle: Vehicle, tray: Tray, bar: Material, sheet: Material) -> list[Part]:
    """Posts that go through, rails cut between them, a skin ahead of them; a hoop on top, mitred at its corners."""
    x0, half, top = front_x(vehicle, tray), tray.width / 2, floor_z(vehicle, tray)
    high, wide = section_height(HEADBOARD_POST), section_width(HEADBOARD_POST)
    made: list[Part] = []
    if tray.headboard > 0:
        between = (tray.width - POSTS * high) / (POSTS - 1)
        posts = headboard_posts(vehicle, tray)
        starts = [p.y0 for p in posts]
        made.append(
            BarPart("Tray: headboard post", TRAY, HEADBOARD_POST, posts[0].z1 - posts[0].z0, bar, POSTS, role="headboard",
                    poses=tuple(at(p.x0, p.y0, p.z0, UPRIGHT) for p in posts))
        )  # fmt: skip
        levels = (top, top + tray.headboard - high) if tray.headboard > 2 * high else (top,)
        if between > LEAST_PLANK and tray.headboard >= high:
            poses = tuple(at(x0, y + high, z, ACROSS) for z in levels for y in starts[:-1])
            made.append(
                BarPart("Tray: headboard rail", TRAY, HEADBOARD_POST, between, bar, len(poses), role="headboard",
                        poses=poses)
            )  # fmt: skip
        made.append(
            SheetPart("Tray: headboard skin", TRAY, tray.width, max(min(60.0, tray.headboard), tray.headboard * 0.55), SKIN,
                      sheet, role="headboard", poses=(at(x0 - BOARD, -half, top, WALL),))
        )  # fmt: skip
    if tray.rack > 0:
        over = top + tray.headboard
        made.append(
            BarPart("Tray: rack hoop, top", TRAY, HEADBOARD_POST, tray.width, bar, role="headboard", ends=(MITRE, MITRE),
                    poses=(at(x0 - wide, -half, over + tray.rack, HUNG),))
        )  # fmt: skip
        made.append(
            BarPart("Tray: rack hoop, leg", TRAY, HEADBOARD_POST, tray.rack, bar, 2, role="headboard",
                    ends=(EndCut(), MITRE if tray.rack >= high else EndCut()),
                    poses=(at(x0 - wide, -half, over, UPRIGHT), at(x0, half, over, OTHER_UPRIGHT)))
        )  # fmt: skip
    return made


DROP = "drop side"
"""How the groups of drop sides begin; the tailboard is one by itself."""
SIDE_PANEL = 2950.0
"""A drop side is made of panels no longer than this: sheets are 3 m (common practice). [mm]"""


def _sides(vehicle: Vehicle, tray: Tray, sheet: Material) -> list[Part]:
    """Drop sides of plain sheet, the tailboard between them; they stand on the floor."""
    if tray.sides <= 0:
        return []
    x0, half, top = front_x(vehicle, tray), tray.width / 2, floor_z(vehicle, tray)
    deep = tray.side_thickness
    across = max(2, math.ceil(tray.width / 800.0))
    # No longer than a usual sheet: a long side is of two or more, one behind the other.
    panels = math.ceil(tray.length / SIDE_PANEL)
    long = tray.length / panels
    hinges = max(2, math.ceil(long / 800.0))
    made: list[Part] = []
    for n in range(panels):
        for side, pose in (
            ("left", at(x0 + (n + 1) * long, -half, top, FORTH)), ("right", at(x0 + n * long, half, top, BACK)),
        ):  # fmt: skip
            # Each swings by itself.
            group = f"{DROP} {side}" + (f" {n + 1}" if panels > 1 else "")
            made += [
                SheetPart(f"Tray: {group}", TRAY, long, tray.sides, tray.side_thickness, sheet, group=group,
                          poses=(pose,)),
                Hardware(f"hinge of the {group}, bolted to coaming and side", TRAY, hinges, links=("", group)),
            ]  # fmt: skip
    return [
        *made,
        SheetPart("Tray: tailboard", TRAY, tray.width - 2 * deep, tray.sides, tray.side_thickness, sheet,
                  group="tailboard", poses=(at(x0 + tray.length, half - deep, top, REAR),)),
        Hardware("tailboard hinge", TRAY, across, links=("", "tailboard")),
        Hardware("over-centre latch for sides and tailboard, with its keeper", TRAY, 4),
    ]  # fmt: skip
