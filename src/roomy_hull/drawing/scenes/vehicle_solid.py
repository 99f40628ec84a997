"""The vehicle in the round: its outline as prisms, open over the wheels, with its windows, pillars and roof."""

import itertools
import math
from typing import NamedTuple

from roomy_hull.core.geometry.hull import convex_hull
from roomy_hull.core.geometry.motion import Piece, block, prism
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.tyres import overall_diameter
from roomy_hull.job.vehicle import Vehicle

ARCH = 1.14
"""How much larger a wheel arch is than its tyre, as drawn."""
CHORDS = 6
PANEL, DEEP = 55.0, 330.0
"""Thickness of a side panel, and how far a wheel's room goes in, as drawn. [mm]"""
LID = 80.0
ROOF, INSET = 60.0, 70.0
"""Thickness of the roof, and how far the windows lean in, as drawn. [mm]"""


class Part(NamedTuple):
    """A prism of the vehicle, the role of its colour, how solid it looks, its words."""

    piece: Piece
    role: str
    solid: float
    words: str


def _over_wheel(
    x: float, radius: float, low: float, high: float, y0: float, y1: float, role: str
) -> list[Part]:
    """A panel above a wheel, its lower edge round: convex strips between the arch and the panel's top. [mm]"""
    far = radius * ARCH
    turns = [math.pi * (1 - n / CHORDS) for n in range(CHORDS + 1)]
    arch = [(x + far * math.cos(t), max(low, radius + far * math.sin(t))) for t in turns]
    found = []
    for (xa, za), (xb, zb) in itertools.pairwise(arch):
        if min(za, zb) < high - 1:
            ring = convex_hull([(xa, min(za, high)), (xb, min(zb, high)), (xb, high), (xa, high)])
            if len(ring) > 2:
                found.append(Part(prism(1, ring, y0, y1), role, 1.0, "wheel arch"))
    return found


def parts(vehicle: Vehicle) -> list[Part]:
    """The vehicle as one would know it.

    Args:
        vehicle: Its outline and tyres; wheels and chassis are drawn by themselves. [mm]
    Returns: In vehicle axes. Only drawn: what is judged are the plainer prisms of `kit.vehicle_pieces`.
    """
    return [*_nose(vehicle), *_cabin(vehicle), *_tail(vehicle)]


def _nose(v: Vehicle) -> list[Part]:
    """Bumper and bonnet, open over the front wheels."""
    s, half, radius = v.shape, v.shape.width / 2, overall_diameter(v.tyre) / 2
    far = radius * ARCH
    ahead = min(-far, s.windscreen)
    front = convex_hull([
        (-s.front, s.sill), (ahead, s.sill), (ahead, s.bonnet), (min(ahead, -s.front + 250), s.bonnet),
        (-s.front, s.bonnet - 130),
    ])  # fmt: skip
    found = [Part(prism(1, front, -half, half), "cab", 1.0, "bonnet")] if s.front > -ahead else []
    engine = Box(-far, DEEP - half, s.sill, far, half - DEEP, s.bonnet - LID)
    found += [
        Part(block(engine), "steel", 1.0, "engine"),
        Part(block(engine._replace(z0=s.bonnet - LID, z1=s.bonnet)), "cab", 1.0, "bonnet"),
    ]
    for y0, y1 in ((-half, DEEP - half), (half - DEEP, half)):
        found += _over_wheel(0.0, radius, s.sill, s.bonnet, y0, y1, "cab")
    if s.windscreen > far:
        found.append(
            Part(block(Box(far, -half, s.sill, s.windscreen, half, s.bonnet)), "cab", 1.0, "bonnet")
        )
    return found


def _cabin(v: Vehicle) -> list[Part]:
    """Doors up to the belt, windows leaning in, pillars at the doors' edges, the roof."""
    s, half = v.shape, v.shape.width / 2
    begin = max(s.windscreen, overall_diameter(v.tyre) / 2 * ARCH)
    end = v.cab_back
    found = [Part(block(Box(begin, -half, s.sill, end, half, s.belt)), "cab", 1.0, "cab")]
    if begin > s.windscreen and s.belt > s.bonnet:
        found.append(
            Part(block(Box(s.windscreen, -half, s.bonnet, begin, half, s.belt)), "cab", 1.0, "cab")
        )
    top = s.height - ROOF
    if not s.roof_rear > s.roof_front or top <= s.belt:
        return found
    windows = ((s.windscreen, s.belt), (end, s.belt), (s.roof_rear, top), (s.roof_front, top))
    found.append(Part(prism(1, windows, INSET - half, half - INSET), "glass", 1.0, "windows"))
    roof = (
        (s.roof_front, top),
        (s.roof_rear, top),
        (s.roof_rear - 40, s.height),
        (s.roof_front + 60, s.height),
    )
    found.append(Part(prism(1, roof, INSET - half, half - INSET), "cab", 1.0, "cab roof"))
    for x in (*s.doors, end - 40):
        if s.roof_front < x < end:
            found += [
                Part(block(Box(x - 30, y, s.belt, x + 30, y + 14, top)), "cab", 1.0, "pillar")
                for y in (INSET - half - 14, half - INSET)
            ]
    return found


def _tail(v: Vehicle) -> list[Part]:
    """The sides of a pickup's tub or a wagon's body, open over the rear wheels; a wagon's windows and roof."""
    s, half = v.shape, v.shape.width / 2
    if v.kind == "cab-chassis" or s.rear <= v.cab_back:
        return []
    radius = overall_diameter(v.tyre) / 2
    far, top = radius * ARCH, s.belt
    found: list[Part] = []
    for y0, y1 in ((-half, PANEL - half), (half - PANEL, half)):
        a, b = v.wheelbase - far, v.wheelbase + far
        for x0, x1 in ((v.cab_back, a), (b, s.rear)):
            if x1 - x0 > 1:
                found.append(
                    Part(block(Box(x0, y0, s.sill, x1, y1, top)), "cab", 1.0, "side panel")
                )
        found += _over_wheel(v.wheelbase, radius, s.sill, top, y0, y1, "cab")
    bumper = Box(s.rear - 90, PANEL - half, s.sill, s.rear, half - PANEL, s.sill + 110)
    found.append(Part(block(bumper), "steel", 1.0, "bumper"))
    if v.kind == "wagon" and s.height - ROOF > top:
        for y in (INSET - half, half - INSET - 8):
            found.append(
                Part(
                    block(Box(v.cab_back, y, top, s.rear - 60, y + 8, s.height - ROOF)),
                    "glass",
                    0.45,
                    "windows",
                )
            )
        roof = Box(v.cab_back, INSET - half, s.height - ROOF, s.rear - 40, half - INSET, s.height)
        found.append(Part(block(roof), "cab", 0.5, "roof"))
    return found


SHADES = 5


def shadow(box: Box) -> list[Part]:
    """A soft shadow on the ground below what stands there: sheets one above another, each smaller. [mm]"""
    found = []
    for n in range(SHADES):
        by = 90.0 - 60.0 * n
        flat = Box(box.x0 - by, box.y0 - by, -8.0 + n, box.x1 + by, box.y1 + by, -7.5 + n)
        found.append(Part(block(flat), "shadow", 0.055, "shadow"))
    return found
