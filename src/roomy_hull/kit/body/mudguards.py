"""Mudguards of a tray: a strip folded half round each rear tyre with its travel, and the brackets that hang it."""

import math
from collections.abc import Iterable, Iterator

import msgspec

from roomy_hull.core.folded import Bend, Face, setback
from roomy_hull.core.geometry.hull import convex_hull
from roomy_hull.core.geometry.motion import Piece, prism
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.material import Material
from roomy_hull.core.parts import BarPart, Part, Pose, SheetPart
from roomy_hull.core.poses import corners, standing
from roomy_hull.core.refs import TRAY
from roomy_hull.core.shapes import rectangle
from roomy_hull.core.tyres import overall_diameter, parts_of
from roomy_hull.job.body import Tray
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kit.body.subframe import frame_z
from roomy_hull.shop.shop import Shop

SHEET = 2.0
BENDS = 6
"""In how many bends half a ring is folded; its two ends stand upright."""
BESIDE, INSIDE_EDGE = 30.0, 5.0
"""How far a guard goes on beside the tyre, and how far inside the tray's edge it ends, so that a drop side hangs
clear of it (common practice). [mm]"""


def has(tray: Tray) -> bool:
    """Whether a tray carries mudguards: they go with a tray of the workshop's own."""
    return tray.kind == "tray" and tray.mudguards


def reach(vehicle: Vehicle, tray: Tray) -> float:
    """From the wheel's centre to a guard's outer face, level and up. [mm]"""
    return overall_diameter(vehicle.tyre) / 2 + tray.wheel_travel + SHEET


def top(vehicle: Vehicle, tray: Tray) -> float:
    """The height of a guard over the ground. [mm]"""
    return overall_diameter(vehicle.tyre) / 2 + reach(vehicle, tray)


RAILS = ("100x50x4", "150x50x4", "200x50x4")
"""Usual rails of a subframe, the lowest first (common practice)."""


def rail_for(vehicle: Vehicle, tray: Tray) -> str | None:
    """The lowest usual rail with which the tyres at their stop, and guards over them, leave a tray's frame clear."""
    trays = (tray.but(rail=rail) for rail in RAILS)
    return next((t.rail for t in trays if top(vehicle, t) <= frame_z(vehicle, t)), None)


def span(vehicle: Vehicle, tray: Tray) -> tuple[float, float]:
    """From where to where a guard lies, from the vehicle's middle outward.

    Returns: Over the tyre and as far beside it as the tray covers; a tyre that stands out of the tray is covered. [mm]
    """
    section, middle = parts_of(vehicle.tyre)[0], vehicle.track_rear / 2
    edge = middle + section / 2
    outer = max(edge, min(edge + BESIDE, tray.width / 2 - INSIDE_EDGE))
    return middle - section / 2 - BESIDE, outer


def parts(
    vehicle: Vehicle, tray: Tray, shop: Shop, frame: tuple[Part, ...] = ()
) -> tuple[Part, ...]:
    """List the two strips and the brackets that hang them, each where it stands in vehicle axes.

    Args:
        frame: The tray's own parts: the brackets are bolted to the cross-members over the wheels. [mm]
    """
    if not has(tray):
        return ()
    metal, high = shop.material(shop.sheet), reach(vehicle, tray)
    low, outer = span(vehicle, tray)
    wide, angle, radius = outer - low, 180.0 / BENDS, metal.bend_radius_per_t * SHEET
    # Tangent to the room's circle: from corner to corner, and what of it stays flat between two bends.
    side, gone = _side(high), setback(angle, radius, SHEET)
    flat = side - 2 * gone

    def chain(left: int) -> Bend:
        long = flat if left > 1 else side / 2 - gone
        more = (chain(left - 1),) if left > 1 else ()
        return Bend(2, angle, radius, Face(rectangle(wide, long), bends=more))

    half = chain(BENDS // 2)
    ring = Face(rectangle(wide, flat), bends=(msgspec.structs.replace(half, edge=0), half))
    centre, z = vehicle.wheelbase, top(vehicle, tray)
    strip = SheetPart(
        "Tray: mudguard strip", TRAY, wide, flat, SHEET, metal, count=2, role="mudguard", shape=ring,
        poses=tuple(Pose((centre - flat / 2, y, z), "v", "u", "-w") for y in (-outer, low)),
    )  # fmt: skip
    return (strip, *_brackets(vehicle, tray, metal, frame))


def _side(high: float) -> float:
    """From corner to corner of a guard's outside. [mm]"""
    return 2 * high * math.tan(math.pi / BENDS / 2)


BRACKET, FOOT, BRACKET_SHEET, LONGEST_LEG = 160.0, 45.0, 3.0, 300.0
"""How wide a bracket is, how far its foot lies on the guard, its sheet, and how long its leg may be (common
practice). [mm]"""
TOP_GAP = 3.0
"""How far under a cross-member's upper edge a bracket's leg ends. [mm]"""


def _brackets(
    vehicle: Vehicle, tray: Tray, metal: Material, frame: tuple[Part, ...]
) -> Iterator[SheetPart]:
    """The folded brackets, from a cross-member's face down on to a guard: one before its middle and one behind.

    On each side it is the outermost cross-member from which a bracket reaches the guard.
    """
    low, outer = span(vehicle, tray)
    over = [
        (b, max(low, b.y0), min(outer, b.y1))
        for part in frame
        if isinstance(part, BarPart) and not part.role
        for (b,) in standing(part)
        if b.y1 - b.y0 > b.x1 - b.x0 and min(outer, b.y1) - max(low, b.y0) >= FOOT
    ]
    for sign, word in ((-1, "front"), (1, "rear")):
        for bar, y0, y1 in sorted(over, key=lambda o: -sign * o[0].x0):
            wide, middle = min(BRACKET, y1 - y0), (y0 + y1) / 2
            one = _bracket(vehicle, tray, metal, bar, sign, wide)
            if one is None:
                continue
            leg, (x, z), ahead = one
            way, corner = ("-v", wide / 2) if ahead else ("v", -wide / 2)
            poses = tuple(
                Pose((x, y + corner, z), way, "-w", "u" if ahead else "-u")
                for y in (-middle, middle)
            )
            yield SheetPart(
                f"Tray: mudguard bracket, {word}", TRAY, wide, leg.ring[2][1], BRACKET_SHEET, metal, count=2,
                role="mudguard", shape=leg, poses=poses, join="bolts",
            )  # fmt: skip
            break


def _bracket(
    vehicle: Vehicle, tray: Tray, metal: Material, bar: Box, sign: int, wide: float
) -> tuple[Face, tuple[float, float], bool] | None:
    """A bracket from one cross-member, its foot away from the wheel's middle, else towards it, where either fits.

    Args:
        bar: The cross-member. [mm]
        sign: -1 before the wheel's middle, 1 behind it.
        wide: How wide the bracket is. [mm]
    Returns: The leg with its foot; its upper edge's x and z [mm]; whether it looks to the rear.
    """
    high, hub = reach(vehicle, tray), overall_diameter(vehicle.tyre) / 2
    radius = metal.bend_radius_per_t * BRACKET_SHEET
    near, far = sorted(sign * (x - vehicle.wheelbase) for x in (bar.x0, bar.x1))
    for at, away in ((far, 1), (near, -1)):
        # Under the leg's outer face the guard is as high as the lowest of its faces' planes.
        turns = [math.radians(n * 180.0 / BENDS) for n in range(BENDS // 2)]
        up, slope = min(((high - at * math.sin(s)) / math.cos(s), s) for s in turns)
        along = at * math.cos(slope) - up * math.sin(slope)
        angle, long = 90.0 - away * math.degrees(slope), bar.z1 - TOP_GAP - hub - up
        gone = setback(angle, radius, BRACKET_SHEET)
        half = _side(high) / 2
        lies = at >= 0 and gone - half <= away * along <= half - gone - FOOT
        if lies and hub + up <= bar.z0 and 2 * gone < long < LONGEST_LEG:
            foot = Face(rectangle(wide, FOOT - gone))
            leg = Face(rectangle(wide, long - gone), bends=(Bend(2, angle, radius, foot),))
            return leg, (vehicle.wheelbase + sign * at, bar.z1 - TOP_GAP), sign * away > 0
    return None


def pieces(made: Iterable[Part]) -> tuple[Piece, ...]:
    """Mudguards as they are cut, each of its faces as a prism across the vehicle. [mm]"""
    found = []
    for part in made:
        if isinstance(part, SheetPart) and part.role == "mudguard":
            for pose in part.poses:
                for face in corners(part, pose):
                    x, y, z = zip(*face, strict=True)
                    found.append(
                        prism(1, convex_hull(list(zip(x, z, strict=True))), min(y), max(y))
                    )
    return tuple(found)
