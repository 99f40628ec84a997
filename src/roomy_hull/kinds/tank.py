"""Water: a welded tank of two folded shells, ends and baffles; a wedge; a bladder in a tray; loose cans."""

import math
from typing import Annotated, Literal, NamedTuple

from msgspec import Meta

from roomy_hull.core.capabilities import Capabilities, Vessel
from roomy_hull.core.card import shown
from roomy_hull.core.errors import InputError
from roomy_hull.core.fill import WATER
from roomy_hull.core.folded import Hole
from roomy_hull.core.geometry.motion import Piece, prism
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.material import Material
from roomy_hull.core.parts import Hardware, Part, SheetPart
from roomy_hull.core.poses import BACK, WALL, at
from roomy_hull.core.shapes import gusset
from roomy_hull.core.value import BentSheet, Gap
from roomy_hull.kinds import boxes
from roomy_hull.kinds.expansion import Expansion, PointMass, Solid, part_mass
from roomy_hull.kinds.kind import Kind, Offer, Site, Walls, offer
from roomy_hull.kinds.placed import Placed, SheetMaterial
from roomy_hull.kinds.tank_face import tank_face
from roomy_hull.shop.tools import Brake


class Tank(Placed, frozen=True, kw_only=True, tag_field="kind", tag="tank"):
    """Water: a welded box or wedge, a bladder in a tray, or loose cans; outside sizes.

    A wedge is `height` high at the back and `low` at the front; `cans` stand side by side.
    """

    style: Annotated[Literal["box", "wedge", "bladder", "cans"], shown("Kind")] = "box"
    low: Annotated[Gap, shown("Front height", "Of a wedge")] = 150.0
    cans: Annotated[int, Meta(ge=1, le=8), shown("Cans", "Of 20 l")] = 2
    sheet: Annotated[BentSheet, shown("Sheet")] = 2.0
    baffles: Annotated[int, Meta(ge=0, le=20), shown("Baffles", "Against surge; they cost a little volume")] = 2  # fmt: skip
    material: SheetMaterial = "5052-H32"
    inlet: Annotated[Gap, shown("Filler", "38 mm takes a bucket")] = 38.0


CAN_LITRES, CAN_MASS = 20.0, 1.4
"""A usual water can (common practice). [l, kg]"""
BLADDER_FILL = 0.85
"""How much of its box a full bladder fills (common practice)."""
WELD_LAP = 15.0
"""Flange on each end and baffle by which it is welded in (common practice). [mm]"""


def inside(unit: Tank) -> tuple[float, float, float]:
    """The tank's inside sizes along u, v and w: each outside size less two sheets. [mm]

    Raises:
        InputError: The sheets leave no room inside.
    """
    a, b, c = (x - 2 * unit.sheet for x in (unit.width, unit.depth, unit.height))
    if min(a, b, c) < 20:
        raise InputError(
            "the sheets leave no room inside the tank",
            place=unit.name,
            remedy="Make it larger or its sheet thinner.",
        )
    return a, b, c


def surges_along(side: str) -> int:
    """Which of a tank's directions lies along the vehicle: 0 for u, in a side's bay; 1 for v, at the rear."""
    return 1 if side == "rear" else 0


def litres(unit: Tank, side: str = "left") -> float:
    """The tank's volume from the inside of the metal, less the baffles and their flanges.

    Args:
        unit: The tank, by its outside sizes. [mm]
        side: Of its bay: baffles stand across the vehicle, so that water surges little in braking.
    Returns: Volume. [l]
    Raises:
        InputError: The sheets leave no room inside.
    """
    if unit.style == "cans":
        return CAN_LITRES * unit.cans
    a, b, c = inside(unit)
    if unit.style == "bladder":
        return a * b * c * 1e-6 * BLADDER_FILL
    c *= mean_height(unit) / unit.height
    across = (b, a)[surges_along(side)]
    baffle = (across * c + 2 * (WELD_LAP - unit.sheet) * (across + c)) * unit.sheet
    return max(0.0, (a * b * c - unit.baffles * baffle) * 1e-6)


def mean_height(unit: Tank) -> float:
    """The height of a box of the same volume: a wedge's is midway between front and back. [mm]"""
    return (wedge(unit).low + unit.height) / 2 if unit.style == "wedge" else unit.height


def parts(unit: Tank, site: Site) -> tuple[Part, ...]:
    """What is cut and bought for one tank.

    The lower shell is bottom and two sides in one fold, the lid lies on it, two ends close it in front and
    behind; baffles stand across the vehicle, whatever the bay.

    Args:
        unit: The tank. [mm]
    Raises:
        InputError: The sheets leave no room inside.
    """
    a, b, c = inside(unit)
    t, metal = unit.sheet, site.material(unit.material)
    w, d, h = unit.width, unit.depth, unit.height
    if unit.style in ("cans", "bladder"):
        what = (
            Hardware(f"water can, {CAN_LITRES:g} l", unit.ref, unit.cans) if unit.style == "cans"
            else Hardware(f"water bladder {litres(unit):.0f} l with filler and outlet", unit.ref)
        )  # fmt: skip
        rim = min(60.0, h) if unit.style == "cans" else h * 0.6
        size = boxes.Sized(w, d, (rim,) * 4, t, metal)
        return (
            what,
            *boxes.open_box(
                f"{unit.name}: tray", unit.ref, size, site.shop.tools.brake, at(0.0, 0.0, 0.0)
            ),
        )
    if unit.style == "wedge":
        return (*_wedge_parts(unit, site), *_fittings(unit))
    listed: list[Part] = [
        *_shell(unit, metal, site.shop.tools.brake),
        SheetPart(f"{unit.name}: lid", unit.ref, w, d, t, metal, join="tight", poses=(at(0.0, 0.0, h - t),),
                  holes=(Hole(60.0, 60.0, unit.inlet),) if unit.inlet else ()),
    ]  # fmt: skip
    if unit.baffles:
        along = surges_along(site.side)
        across, room = ((b, a), (a, b))[along]
        spots = [t + room * (n + 1) / (unit.baffles + 1) - t / 2 for n in range(unit.baffles)]
        poses = tuple(at(t, v + t, t, BACK) if along else at(v, t, t, WALL) for v in spots)
        listed.append(
            SheetPart(f"{unit.name}: baffle", unit.ref, across, c, t, metal,
                      left=WELD_LAP, right=WELD_LAP, front=WELD_LAP, back=WELD_LAP,
                      holes=tuple(Hole(across * x, c * y, min(60.0, across / 5, c / 5))
                                  for x in (0.25, 0.75) for y in (0.3, 0.7)),
                      count=unit.baffles, join="welded", poses=poses)
        )  # fmt: skip
    return (*listed, *_fittings(unit))


def _shell(unit: Tank, metal: Material, brake: Brake) -> list[SheetPart]:
    """Bottom and two sides in one fold, those that can be bent, and an end between them on either side."""
    a, b, c = inside(unit)
    t, w, d, high = unit.sheet, unit.width, unit.depth, unit.height - unit.sheet
    name = f"{unit.name}: end"
    across = high <= brake.channel_depth(t, w) - boxes.PUNCHES
    along = high <= brake.channel_depth(t, d) - boxes.PUNCHES
    folded = "ends" if across else "sides" if along else ""
    left, front = {"ends": (high, 0.0), "sides": (0.0, high), "": (0.0, 0.0)}[folded]
    found = [
        SheetPart(f"{unit.name}: shell", unit.ref, w, d, t, metal, left, left, front, front, join="tight",
                  poses=(at(0.0, 0.0, 0.0),))
    ]  # fmt: skip
    if folded != "sides":
        found.append(SheetPart(name, unit.ref, a, c, t, metal, count=2, join="tight",
                               poses=(at(t, t, t, BACK), at(t, d, t, BACK))))  # fmt: skip
    if folded != "ends":
        low, long = (t, b) if folded else (0.0, d)
        found.append(SheetPart(name if folded else f"{unit.name}: side", unit.ref, long, c, t, metal, count=2,
                               join="tight", poses=(at(0.0, low, t, WALL), at(w - t, low, t, WALL))))  # fmt: skip
    return found


def _fittings(unit: Tank) -> tuple[Hardware, ...]:
    """Filler, breather, outlet and drain welded in, and the straps that hold it down. [mm]"""
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    top = wedge(unit).under(d - 60.0) if unit.style == "wedge" else h - t

    def socket(
        name: str, at_: tuple[float, float, float], bore: float, way: tuple[float, float, float]
    ) -> Hardware:
        half = bore / 2 + 4
        ends = [
            (p - (half if not n else 0.0), p + (half if not n else n * 25.0))
            for p, n in zip(at_, way, strict=True)
        ]
        (x0, x1), (y0, y1), (z0, z1) = ((min(e), max(e)) for e in ends)
        return Hardware(
            name, unit.ref, places=(Box(x0, y0, z0, x1, y1, z1),), fix="weld", bore=bore
        )

    found = [
        Hardware("tank strap on rubber, with its two bolts", unit.ref, 2),
        socket(
            "outlet socket 1/2 in", (outlet(unit)[0], 0.0, outlet(unit)[2]), 21.0, (0.0, -1.0, 0.0)
        ),
        socket("drain socket 1/2 in with plug", (w - 45.0, d / 2, 0.0), 21.0, (0.0, 0.0, -1.0)),
    ]
    if unit.style == "wedge":
        return (
            Hardware(f"filler neck {unit.inlet:g} mm and breather in the sloping lid", unit.ref),
            *found,
        )
    found.append(socket("breather 10 mm", (w - 45.0, d - 60.0, h), 10.0, (0.0, 0.0, 1.0)))
    if unit.inlet:
        r = unit.inlet / 2 - 1
        found.append(
            Hardware(f"filler neck {unit.inlet:g} mm", unit.ref, fix="weld", opening=True,
                     places=(Box(60 - r, 60 - r, top, 60 + r, 60 + r, h + 30),))
        )  # fmt: skip
    return tuple(found)


class Wedge(NamedTuple):
    """A wedge's slope: height in front, angle of the lid, and what its sheet takes of a height. [mm, degrees]"""

    low: float
    angle: float
    sheet: float

    def under(self, v: float) -> float:
        """The height of the lid's underside, some way from the front. [mm]"""
        return self.low - self.sheet + v * math.tan(math.radians(self.angle))


def wedge(unit: Tank) -> Wedge:
    """How a wedge's lid lies: never so low in front that floor, lid and a weld between them have no room."""
    t, h = unit.sheet, unit.height
    low = min(unit.low, h)
    for _ in range(2):
        angle = math.atan2(h - low, unit.depth)
        low = min(h, max(low, 3 * t, t / math.cos(angle) + 2 * t))
    angle = math.atan2(h - low, unit.depth)
    return Wedge(low, math.degrees(angle), t / math.cos(angle))


def _wedge_parts(unit: Tank, site: Site) -> tuple[Part, ...]:
    """A wedge's sheets: floor with back and front, sloping lid, ends and baffles with a sloping upper edge. [mm]"""
    t, metal = unit.sheet, site.material(unit.material)
    w, d = unit.width, unit.depth
    lid = wedge(unit)
    # The lid's edges are square: its upper one in front is flush with the front, its lower one behind with the back.
    first = t * math.sin(math.radians(lid.angle))
    long = (d - first) / math.cos(math.radians(lid.angle))
    inner = d - 2 * t
    # Between the ends, as far from each other as from these.
    spots = [w * n / (unit.baffles + 1) for n in range(1, unit.baffles + 1)]
    return (
        SheetPart(f"{unit.name}: shell", unit.ref, w, d, t, metal, front=lid.under(0.0), back=lid.under(d - t), join="tight",
                  poses=(at(0.0, 0.0, 0.0),)),
        SheetPart(f"{unit.name}: sloping lid", unit.ref, w, long, t, metal, join="tight",
                  holes=(Hole(60.0, long - 60.0, unit.inlet),) if unit.inlet else (),
                  poses=(at(0.0, first, lid.under(first), tilt=lid.angle),)),
        SheetPart(f"{unit.name}: end, cut on the slope", unit.ref, inner, lid.under(d - t) - t, t, metal,
                  shape=gusset(inner, lid.under(t) - t, lid.under(d - t) - t), count=2 + unit.baffles, join="tight",
                  poses=tuple(at(u, t, t, WALL) for u in (0.0, *(s - t / 2 for s in spots), w - t))),
    )  # fmt: skip


STEP = 10.0
MOST_STEPS = 24


def solids(unit: Tank) -> tuple[Solid, ...]:
    """The tank's boxes; a wedge as steps around its slope, never less than it. [mm]"""
    w, d, h = unit.width, unit.depth, unit.height
    if unit.style == "wedge":
        low = wedge(unit).low
        n = min(MOST_STEPS, max(1, math.ceil((h - low) / STEP)))
        return tuple(
            Solid(Box(0, d * i / n, 0, w, d * (i + 1) / n, low + (h - low) * (i + 1) / n), "tank")
            for i in range(n)
        )
    if unit.style == "cans":
        each = w / unit.cans
        cans = (Box(n * each + 3, 3, 0, (n + 1) * each - 3, d - 3, h) for n in range(unit.cans))
        return (Solid(Box(0, 0, 0, w, d, unit.sheet), "made"), *(Solid(b, "tank") for b in cans))
    return (Solid(Box(0, 0, 0, w, d, h), "tank"),)


def slanted(unit: Tank) -> tuple[Piece, ...]:
    """A wedge as it is, where its boxes are only about it. [mm]"""
    if unit.style != "wedge":
        return ()
    d, h, low = unit.depth, unit.height, wedge(unit).low
    return (prism(0, ((0.0, 0.0), (d, 0.0), (d, h), (0.0, low)), 0.0, unit.width),)


def expand(unit: Tank, site: Site) -> Expansion:
    """Write a tank out, its water included.

    Args:
        unit: The tank. [mm, kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    Returns: Its solids, masses, parts and elevation; water at 1 kg/l scales with the scenario.
    Raises:
        InputError: The sheets leave no room inside.
    """
    w, d, h = unit.width, unit.depth, unit.height
    listed = parts(unit, site)
    middle = (w / 2, d / 2, h / 2)
    return Expansion(
        solids(unit),
        (),
        (
            PointMass("sheet metal", part_mass(listed), "geometry", middle),
            PointMass(
                "cans", CAN_MASS * unit.cans if unit.style == "cans" else 0.0, "estimate", middle
            ),
            PointMass("water", litres(unit, site.side), "geometry", water_at(unit), WATER),
        ),
        listed,
        Box(0, 0, 0, w, d, h),
        tank_face(unit, wedge(unit).low),
        hollow=unit.style == "wedge",
        exact=slanted(unit),
    )


def water_at(unit: Tank) -> tuple[float, float, float]:
    """The middle of a full tank's water: a wedge's lies towards its high side. [mm]

    For a trapezium with parallel sides p (front) and q (back) at a distance d, the centroid lies
    d (p + 2q) / 3(p + q) from p, and (p² + pq + q²) / 3(p + q) above the base (closed form).
    """
    d, q = unit.depth, unit.height
    p = wedge(unit).low if unit.style == "wedge" else q
    return (
        unit.width / 2,
        d * (p + 2 * q) / (3 * (p + q)),
        (p * p + p * q + q * q) / (3 * (p + q)),
    )


_WELDED = "Welded tank with baffles; low and ahead of the axle if it can be"


def offers() -> tuple[Offer, ...]:
    """List the tanks in the stores."""
    return (
        offer(Tank, "tank-60", "Water and air", "Water tank 60 l", (300, 600, 345), _WELDED),
        offer(Tank, "tank-90", "Water and air", "Water tank 90 l", (330, 760, 370), _WELDED),
        offer(Tank, "tank-wedge", "Water and air", "Wedge tank", (500, 350, 400),
              "Behind seats or against a sloping back", style="wedge", low=150.0),
        offer(Tank, "bladder", "Water and air", "Water bladder 35 l", (220, 700, 280), "In a tray, in odd room",
              style="bladder", baffles=0, id="bladder"),
        offer(Tank, "cans", "Water and air", "Two water cans", (360, 370, 420),
              "Feed by gravity; carried to fill", style="cans", cans=2, baffles=0, id="cans"),
    )  # fmt: skip


def walls(unit: Tank, side: str = "left") -> Walls | None:
    """Describe its welded walls as they are cut, by their spans between welds; nothing for a bladder or cans."""
    if unit.style not in ("box", "wedge"):
        return None
    a, b, c = inside(unit)
    along, across = ((a, b), (b, a))[surges_along(side)]
    return Walls(along, across, c, unit.material, unit.sheet, unit.baffles)


OUTLET_UP = 21.0
"""An outlet's middle lies so far over the tank's bottom: its socket, welded in, clears the bend below (common practice).
[mm]"""


def outlet(unit: Tank) -> tuple[float, float, float]:
    """Where its water runs out: low in the middle of its front. [mm]"""
    return (unit.width / 2, unit.sheet, unit.sheet + OUTLET_UP)


def hollow(unit: Tank) -> Piece | None:
    """The room inside a welded tank; nothing for bladder and cans. [mm]"""
    if unit.style not in ("box", "wedge"):
        return None
    a, b, c = inside(unit)
    t = unit.sheet
    low = c if unit.style == "box" else max(unit.low - 2 * t, 1.0)
    return prism(0, ((t, t), (t + b, t), (t + b, t + c), (t, t + low)), t, t + a)


def says(unit: Tank, side: str = "left") -> Capabilities:
    """What it is to everybody else; its outlet lies low in the middle of its front.

    Raises:
        InputError: The sheets leave no room inside.
    """
    made = unit.style in ("box", "wedge")
    vessel = Vessel(litres(unit, side), outlet(unit), hollow(unit), made)
    return Capabilities(roles=frozenset({"water"}), vessel=vessel)


KIND = Kind(
    Tank, expand, offers, rank=10, contents=False, says=says, walls=walls, stance="floor", use="rarely",
)  # fmt: skip
