"""Tray: its floor, headboard, drop sides and subframe as solids, and what they weigh."""

from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.mechanics.sections import section_height, section_width
from roomy_hull.core.parts import BarPart, Hardware, Part, SheetPart
from roomy_hull.job.body import Tray
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kinds.expansion import PointMass
from roomy_hull.kit.body import lining, undertray
from roomy_hull.kit.body.lining import Setting
from roomy_hull.kit.body.pieces import BodyPart, BodyParts, Hand
from roomy_hull.kit.body.subframe import (
    BOARD,
    DROP,
    SKIN,
    floor_depth,
    floor_z,
    front_x,
    headboard_posts,
    own_parts,
    rail_boxes,
)
from roomy_hull.shop.shop import Shop

PLAIN = Setting()
SIDES = "tray.sides"
"""What the mass of drop sides and tailboard is called; it can be taken off for a use."""


def solids(vehicle: Vehicle, tray: Tray, given: Setting = PLAIN) -> BodyParts:
    """List the tray's solids, the floor first.

    Args:
        tray: The tray. [mm]
        given: What the lining of a hold has to heed.
    Returns: Floor, headboard, subframe rails, drop sides and arches, in vehicle axes. [mm]
    """
    x0 = front_x(vehicle, tray)
    x1, half = x0 + tray.length, tray.width / 2
    top = floor_z(vehicle, tray)
    found = [BodyPart("floor", Box(x0, -half, top - floor_depth(tray), x1, half, top))]
    if tray.kind == "tray":
        rails = rail_boxes(vehicle, tray)
        found += [BodyPart("rail", rails[0], "left"), BodyPart("rail", rails[1], "right")]
        high = rails[0].z1
        edge, deep = section_width(tray.cross), high - section_height(tray.cross)
        found += [
            BodyPart("coaming", Box(x0, -half, deep, x1, edge - half, high), "left"),
            BodyPart("coaming", Box(x0, half - edge, deep, x1, half, high), "right"),
        ]
        found += undertray.solids(tray, x0, top)
    else:
        found += lining.solids(tray, x0, given)
    if tray.headboard + tray.rack > 0:
        deep = BOARD if tray.headboard > 0 else BOARD - SKIN
        board = Box(x0 - deep, -half, top, x0, half, top + tray.headboard + tray.rack)
        found.append(BodyPart("headboard", board))
    if tray.kind == "tray":
        # Their feet, below the board.
        found += [
            BodyPart("headboard", p._replace(z1=top), id=str(n))
            for n, p in enumerate(headboard_posts(vehicle, tray), 1)
        ]
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


def parts(vehicle: Vehicle, tray: Tray, shop: Shop, given: Setting = PLAIN) -> tuple[Part, ...]:
    """What is cut for the tray and hung under it, or the lining of a hold.

    Args:
        vehicle: Its rails say where cross-members are cut, its tyres decide the mudguards. [mm]
        tray: The tray. [mm]
        given: What the lining of a hold has to heed.
    Returns: Rails, cross-members, coaming, floor sheets, headboard, drop sides; toolboxes and the rest.
    """
    if tray.kind == "hold":
        return lining.parts(vehicle, tray, shop, given)
    own = own_parts(vehicle, tray, shop)
    return (*own, *undertray.parts(vehicle, tray, shop, own))


def masses(
    vehicle: Vehicle, tray: Tray, shop: Shop, listed: tuple[Part, ...] | None = None
) -> tuple[PointMass, ...]:
    """The tray's masses in vehicle axes, each at the middle of what it belongs to.

    Args:
        tray: The tray. [mm]
        listed: What `parts` gave for it, where somebody has asked already.
    Returns: Frame and floor, headboard, fittings. [mm, kg]
    """
    x0, z = front_x(vehicle, tray), floor_z(vehicle, tray)
    mid = x0 + tray.length / 2
    if tray.kind == "hold":
        made = listed if listed is not None else parts(vehicle, tray, shop)
        wood = sum(p.mass() * p.count for p in made if isinstance(p, SheetPart))
        both = (("false floor and wings", wood, "geometry"),
                ("mats, lining, fasteners", tray.fittings, "estimate"))  # fmt: skip
        return tuple(PointMass(name, kg, by, (mid, 0.0, z + 60)) for name, kg, by in both if kg)
    head = flat = guards = drop = 0.0
    for part in listed if listed is not None else parts(vehicle, tray, shop):
        kg = part.mass() * part.count if isinstance(part, SheetPart | BarPart) else 0.0
        if isinstance(part, Hardware):
            continue
        if part.group.startswith((DROP, "tailboard")):
            drop += kg
        elif part.role == "headboard":
            head += kg
        elif part.role == "mudguard":
            guards += kg
        elif part.name.startswith("Tray: "):
            flat += kg
    found = [PointMass("frame, floor and sides", flat, "geometry", (mid, 0.0, z - 30))]
    if head:
        high = z + (tray.headboard + tray.rack) / 2
        found.append(PointMass("headboard", head, "geometry", (x0 - BOARD / 2, 0.0, high)))
    if drop:
        found.append(
            PointMass("drop sides", drop, "geometry", (mid, 0.0, z + tray.sides / 2), of=SIDES)
        )
    if guards:
        found.append(PointMass("mudguards", guards, "geometry", (vehicle.wheelbase, 0.0, z - 150)))
    if tray.fittings:
        found.append(PointMass("lights, fasteners, lifting eyes", tray.fittings, "estimate",
                          (mid + tray.length * 0.2, 0.0, z - 120)))  # fmt: skip
    return (*found, *undertray.masses(tray, undertray.solids(tray, x0, z), shop))
