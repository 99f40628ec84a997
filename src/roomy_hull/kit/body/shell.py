"""Shell: what is cut and bought for a canopy, and what it weighs where."""

import math

from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.mechanics.sections import section_height, section_width
from roomy_hull.core.parts import BarHole, BarPart, Hardware, Part, SheetPart
from roomy_hull.core.poses import BACK, at, carried, folded
from roomy_hull.core.refs import CANOPY
from roomy_hull.job.body import Body
from roomy_hull.job.canopy import Canopy
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kinds.expansion import PointMass
from roomy_hull.kit.body import frame, sides
from roomy_hull.kit.body.canopy import divider, outside
from roomy_hull.kit.body.leaves import door_parts, hardware_mass, meshes, of_door
from roomy_hull.shop.shop import Shop

RAIL_KG_PER_M, CORNER_KG, FASTENERS_KG_PER_M2 = 1.3, 0.8, 1.1
"""A roof rail by the metre, a lifting corner, sealant and fasteners by the area of skin (common practice)."""
RAILS_A_BAY, SLOTTED_KG_PER_M = 4, 0.8
"""Slotted rails along a bay, two low and two up the walls, and their mass (common practice). [kg/m]"""
INSULATION_DENSITY = 32.0
"""Closed-cell foam (common practice). [kg/m³]"""
JACK_MASS = 5.5
"""One jack leg with its socket (common practice). [kg]"""


def parts(canopy: Canopy, shop: Shop) -> tuple[Part, ...]:
    """List what is cut for the canopy.

    Args:
        canopy: The canopy. [mm]
    Returns: Sides with the rebates of the doors, roof, front, rear, divider, frame bars, doors.
    """
    if canopy.kind == "cargo":
        return _rails(canopy, shop)
    skin, metal = shop.material(canopy.skin_material), shop.material(canopy.frame_material)
    made: list[Part] = []
    length, width, t = canopy.length, canopy.width, canopy.skin
    for side in ("left", "right", "rear", "front"):
        start, end = frame.sheet_span(canopy, side)
        pose = frame.from_inside(canopy, side, frame.seen(side, start, end - start), canopy.base)
        made.append(
            SheetPart(f"Canopy: {side} wall", CANOPY, end - start, canopy.height - canopy.base - t, t, skin,
                      cutouts=frame.cutouts(canopy, side), role="wall", poses=(pose,))
        )  # fmt: skip
    panels = max(1, math.ceil(width / 1450))
    made.append(
        SheetPart("Canopy: roof", CANOPY, length, width / panels, t, skin, count=panels, role="roof",
                  poses=tuple(at(0.0, n * width / panels, canopy.height - t) for n in range(panels)))
    )  # fmt: skip
    span = divider(canopy)
    if span is not None:
        made.append(
            SheetPart("Canopy: divider", CANOPY, span[1] - span[0], canopy.height - frame.hung(canopy), canopy.divider, skin,
                      poses=(at(span[0], (width + canopy.divider) / 2, 0.0, BACK),))
        )  # fmt: skip
    for door in canopy.doors:
        made += door_parts(canopy, door, shop)
    bows = frame.bars(canopy, metal)
    made += _bought(canopy, bows)
    made += _rails(canopy, shop)
    if canopy.jacks:
        made.append(Hardware("jack leg to stand the canopy off on, with its socket", CANOPY, 4))
    if canopy.insulation:
        made.append(
            Hardware(
                f"roof insulation {canopy.insulation:g} mm, {length * width * 1e-6:.2f} m²",
                CANOPY,
                area=length * width * 1e-6,
            )
        )
    return (*made, *bows)


RAIL_SECTION, SLOT = "40x20x2.5", (9.0, 20.0)
"""A slotted rail, and its slots: across and along (common practice). [mm]"""


def _rails(canopy: Canopy, shop: Shop) -> tuple[Part, ...]:
    """The slotted rails of every bay, cut to its length and slotted at its pitch; they are weighed as fittings."""
    metal = shop.material(canopy.frame_material)
    found: list[Part] = []
    for bay in canopy.bays:
        if bay.pitch <= 0 or bay.length < bay.pitch:
            continue
        across, long = SLOT
        rows = tuple(
            BarHole("far wide", n * bay.pitch, section_width(RAIL_SECTION) / 2, across, long)
            for n in range(1, int((bay.length - 1.0) // bay.pitch) + 1)
        )
        found.append(
            BarPart(f"Canopy: slotted rail of {bay.name or bay.id}", CANOPY, RAIL_SECTION, bay.length, metal, RAILS_A_BAY,
                    join="bolts", drilled=rows)
        )  # fmt: skip
        found.append(
            Hardware(f"M8 bolt with backing plate for the rails of {bay.name or bay.id}", CANOPY,
                     RAILS_A_BAY * max(2, math.ceil(bay.length / 400.0) + 1), sort="bolt")
        )  # fmt: skip
    return tuple(found)


CLAMP_BORE = 13.0
"""In a canopy's clamp on the tray, for its M12 bolt (common practice). [mm]"""
ROOF_RAIL = 30.0


def _bought(canopy: Canopy, bars: tuple[BarPart, ...]) -> list[Part]:
    """What holds the canopy on the tray, and what carries a load on its roof: bolted over the bows."""
    low, wide = canopy.base, section_width(canopy.frame)
    high = section_height(canopy.frame)
    feet = []
    for side, v in (("left", canopy.skin), ("right", canopy.width - canopy.skin - wide)):
        rows = frame.posts(canopy, side)
        feet += [
            Box(u, v, low - 6, u + high, v + wide, low)
            for u in ((rows[0], rows[-1]) if rows else ())
        ]
    found: list[Part] = [
        Hardware("M12 clamp bolt with plate, canopy to tray: bored through the tray as it stands", CANOPY,
                 max(4, len(feet)), places=tuple(feet), fix="bolts", bore=CLAMP_BORE, sort="bolt",
                 holds=(CANOPY.word, "M12", 1))
    ]  # fmt: skip
    across = [canopy.width * share - ROOF_RAIL / 2 for share in (0.15, 0.85)]
    bows = [s.at for p in bars if p.role == "bow" for s in p.poses]
    spots = tuple(
        Box(a[0], v, canopy.height, a[0] + high, v + ROOF_RAIL, canopy.height + 20) for a in bows for v in across
    )  # fmt: skip
    found.append(
        Hardware("roof rail, bolted over every bow", CANOPY, 2, metres=round(canopy.length / 1000, 2), places=spots,
                 fix="bolts", bore=8.5)
    )  # fmt: skip
    return found


def fittings_mass(canopy: Canopy) -> float:
    """What is bought for a canopy weighs: as the job says, or counted by piece, metre and area. [kg]"""
    if canopy.fittings or canopy.kind == "cargo":
        return canopy.fittings
    high = canopy.height - canopy.base
    skin = 2 * (canopy.length + canopy.width) * high + canopy.length * canopy.width
    slotted = sum(RAILS_A_BAY * b.length for b in canopy.bays if b.pitch > 0) / 1000
    return (
        hardware_mass(canopy) + slotted * SLOTTED_KG_PER_M + 2 * canopy.length / 1000 * RAIL_KG_PER_M + 8 * CORNER_KG
        + skin * 1e-6 * FASTENERS_KG_PER_M2
    )  # fmt: skip


def _shell(made: tuple[Part, ...], box: Box) -> PointMass:
    """Walls, roof, divider and frame, each where it is: a wall with a large opening weighs less. [mm, kg]"""
    rows: list[tuple[float, float, float, float]] = []
    for part in made:
        if isinstance(part, Hardware) or part.role in ("leaf", "jamb"):
            continue
        for pose in part.poses:
            u, v, w = carried(_middle(part), pose)
            rows.append((part.mass(), box.x0 + u, box.y0 + v, box.z0 + w))
    kg = sum(r[0] for r in rows)
    x, y, z = (sum(r[0] * r[i] for r in rows) / kg for i in (1, 2, 3))
    return PointMass("shell", kg, "geometry", (x, y, z))


def _middle(part: SheetPart | BarPart) -> tuple[float, float, float]:
    """The middle of a bar, or of what cut-outs leave of a flat sheet, in its own directions. [mm]"""
    if isinstance(part, BarPart):
        return hull(folded(part)).centre()
    rows = [(part.length * part.width, part.length / 2, part.width / 2)]
    rows += [(-c.length * c.width, c.x + c.length / 2, c.y + c.width / 2) for c in part.cutouts]
    area = sum(r[0] for r in rows)
    if area <= 0:
        return part.length / 2, part.width / 2, part.thickness / 2
    return (
        sum(r[0] * r[1] for r in rows) / area, sum(r[0] * r[2] for r in rows) / area, part.thickness / 2,
    )  # fmt: skip


def masses(
    vehicle: Vehicle, body: Body, shop: Shop, listed: tuple[Part, ...] | None = None
) -> tuple[PointMass, ...]:
    """List the canopy's masses in vehicle axes: shell at its centre of mass, doors at their walls.

    Args:
        body: Tray and canopy. [mm]
        listed: What `parts` gave for it, where somebody has asked already.
    Returns: Shell, each door, fittings; empty without a canopy. [mm, kg]
    """
    canopy, box = body.canopy, outside(vehicle, body)
    if canopy is None or box is None:
        return ()
    return masses_of(canopy, box, listed if listed is not None else parts(canopy, shop))


def masses_of(canopy: Canopy, box: Box, made: tuple[Part, ...]) -> tuple[PointMass, ...]:
    """The masses of a canopy, or of another made room, where it stands.

    Args:
        canopy: Walls, doors and bays. [mm]
        box: Its outside in vehicle axes. [mm]
        made: What `parts` gave for it.
    Returns: Shell, each door, fittings; empty where nothing of it is made. [mm, kg]
    """
    if canopy.kind == "cargo":
        return ()
    cx, cy, cz = box.centre()
    cz += canopy.base / 2
    found = [_shell(made, box)]
    if canopy.insulation:
        kg = canopy.length * canopy.width * canopy.insulation * INSULATION_DENSITY * 1e-9
        found.append(PointMass("roof insulation", kg, "geometry", (cx, cy, box.z1 - canopy.roof)))
    if canopy.jacks:
        found.append(PointMass("jack legs", 4 * JACK_MASS, "estimate", (cx, cy, cz)))
    thick = sides.depth(canopy)[0]
    for place in sides.doors(canopy):
        kg = sum(
            p.mass() * p.count
            for p in made
            if isinstance(p, SheetPart | BarPart) and of_door(p, place.door)
        ) + meshes(place)
        at = sides.stood(box, place.door.side, place.rebate, 0.0, thick).centre()
        found.append(
            PointMass(f"door {place.door.id}", kg, "geometry", at, of=f"door:{place.door.id}")
        )
    found.append(
        PointMass("seals, locks, struts, rails", fittings_mass(canopy), "estimate", (cx, cy, cz))
    )
    return tuple(found)
