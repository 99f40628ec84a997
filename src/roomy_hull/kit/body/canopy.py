"""Canopy: shell, frame, doors, bays; its place on the tray, mass and parts."""

import math

import msgspec

from roomy_hull.core.geometry.frames import Frame
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import BarPart, Cutout, Hardware, Part, SheetPart
from roomy_hull.core.refs import CANOPY
from roomy_hull.job.body import Bay, Body, Canopy, Door
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kinds.expansion import PointMass
from roomy_hull.kit.body.tray import floor_z, front_x
from roomy_hull.shop.shop import Shop


class BayPlace(msgspec.Struct, frozen=True):
    """A bay with its frame, its size, and the opening of its access face in (u, w). [mm]"""

    bay: Bay
    frame: Frame
    size: Box
    opening: tuple[float, float, float, float]


def outside(vehicle: Vehicle, body: Body) -> Box | None:
    """The canopy's outside box in vehicle axes, or nothing without a canopy. [mm]"""
    canopy = body.canopy
    if canopy is None:
        return None
    x0, z0 = front_x(vehicle, body.tray) + canopy.start, floor_z(vehicle, body.tray)
    half = canopy.width / 2
    return Box(x0, -half, z0, x0 + canopy.length, half, z0 + canopy.height)


def inside(vehicle: Vehicle, body: Body) -> Box | None:
    """The canopy's clear inside box, between walls and under the roof. [mm]"""
    canopy, box = body.canopy, outside(vehicle, body)
    if canopy is None or box is None:
        return None
    w = canopy.wall
    return Box(box.x0 + w, box.y0 + w, box.z0, box.x1 - w, box.y1 - w, box.z1 - canopy.roof)


def bays(vehicle: Vehicle, body: Body) -> dict[str, BayPlace]:
    """Every bay's place.

    Parameters
    ----------
    vehicle : Vehicle
        What the body stands on.
    body : Body
        Tray and canopy. [mm]

    Returns
    -------
    dict of str to BayPlace
        By bay id, in the order of the job.
    """
    canopy, clear = body.canopy, inside(vehicle, body)
    if canopy is None or clear is None:
        return {}
    found = {}
    for bay in canopy.bays:
        z = clear.z0 + bay.sill
        if bay.side == "left":
            frame = Frame(clear.x0 + bay.start, clear.y0, z, "left")
        elif bay.side == "right":
            frame = Frame(clear.x0 + bay.start, clear.y1, z, "right")
        else:
            frame = Frame(clear.x1, clear.y0 + bay.start, z, "rear")
        opening = (
            bay.margin_start,
            bay.margin_bottom,
            bay.length - bay.margin_end,
            bay.height - bay.margin_top,
        )
        size = Box(0, 0, 0, bay.length, bay.depth, bay.height)
        found[bay.id] = BayPlace(bay, frame, size, opening)
    return found


def door_parts(canopy: Canopy, door: Door, shop: Shop) -> tuple[Part, ...]:
    """List the leaf, frame and hardware of one door. [mm]"""
    skin, metal = shop.material(canopy.skin_material), shop.material(canopy.frame_material)
    leaf_l, leaf_h = door.length + 30, door.height + 30
    heights = (leaf_h,) if not door.split else (leaf_h - door.split, door.split)
    names = ("",) if not door.split else (" upper half", " let-down half")
    leaves = tuple(
        SheetPart(f"Canopy: door {door.id}{name}", CANOPY, leaf_l, h, canopy.skin,
                  skin, left=20.0, right=20.0, front=20.0, back=20.0, role="leaf")
        for name, h in zip(names, heights, strict=True)
    )  # fmt: skip
    return (
        *leaves,
        BarPart(f"Canopy: door {door.id} stile", CANOPY, "25x25x2", leaf_h, metal, 2, role="leaf"),
        BarPart(f"Canopy: door {door.id} rail", CANOPY, "25x25x2", leaf_l, metal, 2 * len(leaves),
                role="leaf"),
        Hardware(f"hinge, seal, two locks and two gas struts for door {door.id}", CANOPY),
    )  # fmt: skip


def door_mass(canopy: Canopy, door: Door, shop: Shop) -> float:
    """Sum the mass of a door's leaf, or of both its halves. [kg]"""
    parts = (p for p in door_parts(canopy, door, shop) if isinstance(p, SheetPart | BarPart))
    return sum(p.mass() * p.count for p in parts)


INSULATION_DENSITY = 32.0
"""Closed-cell foam (common practice). [kg/m³]"""
JACK_MASS = 5.5
"""One jack leg with its socket (common practice). [kg]"""


def _cut_height(canopy: Canopy, door: Door) -> float:
    """How much of a door is cut into the made wall; the rest is the tub's tailgate. [mm]"""
    return door.sill + door.height - max(door.sill, canopy.base)


def parts(canopy: Canopy, shop: Shop) -> tuple[Part, ...]:
    """List what is cut for the canopy.

    Parameters
    ----------
    canopy : Canopy
        The canopy. [mm]
    shop : Shop
        Its materials.

    Returns
    -------
    tuple of Part
        Sides with door openings, roof, front, rear, divider, frame bars, doors.
    """
    if canopy.kind == "cargo":
        return ()
    skin, metal = shop.material(canopy.skin_material), shop.material(canopy.frame_material)
    made: list[Part] = []
    length, width, height = canopy.length, canopy.width, canopy.height - canopy.base
    for side in ("left", "right", "rear", "front"):
        wall = length if side in ("left", "right") else width
        cuts = tuple(
            Cutout(d.start, max(0.0, d.sill - canopy.base), d.length, _cut_height(canopy, d), 40.0)
            for d in canopy.doors
            if d.side == side and _cut_height(canopy, d) > 0
        )
        made.append(
            SheetPart(f"Canopy: {side} wall", CANOPY, wall, height, canopy.skin,
                      skin, back=25.0, cutouts=cuts)
        )  # fmt: skip
    panels = max(1, math.ceil(width / 1450))
    made.append(
        SheetPart("Canopy: roof", CANOPY, length, width / panels, canopy.skin,
                  skin, count=panels)
    )  # fmt: skip
    if canopy.divider > 0:
        made.append(
            SheetPart("Canopy: divider", CANOPY, length - 2 * canopy.wall,
                      canopy.height - canopy.roof, canopy.divider, skin)
        )  # fmt: skip
    for door in canopy.doors:
        made += door_parts(canopy, door, shop)
    made.append(Hardware("pair of roof rails", CANOPY))
    if canopy.jacks:
        made.append(Hardware("jack leg to stand the canopy off on", CANOPY, 4))
    if canopy.insulation:
        made.append(
            Hardware(
                f"roof insulation {canopy.insulation:g} mm, {length * width * 1e-6:.2f} m²",
                CANOPY,
            )
        )
    hoops = max(2, math.ceil(length / 900) + 1)
    frame = canopy.frame
    made += [
        BarPart("Canopy: sill and cant rail", CANOPY, frame, length, metal, 4),
        BarPart("Canopy: post", CANOPY, frame, height, metal, 2 * hoops),
        BarPart("Canopy: roof bow", CANOPY, frame, width, metal, hoops + 1),
        BarPart("Canopy: floor bearer", CANOPY, frame, width, metal, hoops),
    ]
    return tuple(made)


def masses(vehicle: Vehicle, body: Body, shop: Shop) -> tuple[PointMass, ...]:
    """List the canopy's masses in vehicle axes: shell at its middle, doors at their walls.

    Parameters
    ----------
    vehicle : Vehicle
        What the body stands on.
    body : Body
        Tray and canopy. [mm]
    shop : Shop
        Its materials.

    Returns
    -------
    tuple of PointMass
        Shell, each door, fittings; empty without a canopy. [mm, kg]
    """
    canopy, box = body.canopy, outside(vehicle, body)
    if canopy is None or box is None:
        return ()
    cx, cy, cz = box.centre()
    shell = sum(
        p.mass() * p.count
        for p in parts(canopy, shop)
        if isinstance(p, SheetPart | BarPart) and p.role != "leaf"
    )
    if canopy.kind == "cargo":
        return ()
    cz += canopy.base / 2
    found = [PointMass("shell", shell, "geometry", (cx, cy, cz + canopy.height * 0.1))]
    if canopy.insulation:
        kg = canopy.length * canopy.width * canopy.insulation * INSULATION_DENSITY * 1e-9
        found.append(PointMass("roof insulation", kg, "geometry", (cx, cy, box.z1 - canopy.roof)))
    if canopy.jacks:
        found.append(PointMass("jack legs", 4 * JACK_MASS, "estimate", (cx, cy, cz)))
    for door in canopy.doors:
        kg = door_mass(canopy, door, shop)
        found.append(PointMass(f"door {door.id}", kg, "geometry", door_box(box, door).centre()))
    if canopy.fittings:
        found.append(
            PointMass("seals, locks, struts, jacks", canopy.fittings, "estimate", (cx, cy, cz))
        )
    return tuple(found)


def door_box(box: Box, door: Door) -> Box:
    """A door's clear opening as a thin box on its wall, in vehicle axes. [mm]"""
    z0 = box.z0 + door.sill
    z1 = z0 + door.height
    if door.side == "rear":
        return Box(
            box.x1 - 30, box.y0 + door.start, z0, box.x1, box.y0 + door.start + door.length, z1
        )
    x0 = box.x0 + door.start
    y0, y1 = (box.y0, box.y0 + 30) if door.side == "left" else (box.y1 - 30, box.y1)
    return Box(x0, y0, z0, x0 + door.length, y1, z1)
