"""Racks in their places: bars, deck and panels as they are cut, in vehicle axes, and what they weigh."""

import itertools
import math

import msgspec

from roomy_hull.core.folded import Hole
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.material import Material
from roomy_hull.core.mechanics.sections import section_height, section_width
from roomy_hull.core.parts import BarHole, BarPart, Hardware, Part, Pose, SheetPart
from roomy_hull.core.poses import ACROSS, BACK, FLAT, FORTH, UPRIGHT, at, standing, stood
from roomy_hull.job.body import Body
from roomy_hull.job.carried import Carried, Mount
from roomy_hull.job.racks import Rack
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kinds.expansion import PointMass
from roomy_hull.kit.body.canopy import outside
from roomy_hull.kit.body.subframe import floor_z, front_x
from roomy_hull.shop.shop import Shop

MESH_KG_PER_M2 = 3.4
"""Flattened aluminium mesh of 3 mm (common practice). [kg/m²]"""
FOOT_KG = 0.6
"""A foot with its bolts or its clamp (common practice). [kg]"""
BORE, EDGE = 9.0, 20.0
"""Holes for lashing and bolting, and how far they stay from an edge (common practice). [mm]"""
BOLT_IN, HEAD, THICK = 30.0, 13.0, 5.3
"""How far a rear wall's outer bolts stand from its rails' ends, and how wide and thick a head of M8 is
(ISO 4017). [mm]"""
FEET = {
    "tub rack": ("foot clamped on the tub's rail", "M8", 1), "cab rack": ("roof leg with pad and clamp", "M8", 1),
    "gap rack": ("foot with four M10 bolts", "M10", 4), "hoop": ("foot with four M10 bolts", "M10", 4),
    "rear wall": ("M8 bolt with backing plate through the canopy's rear", "M8", 1),
}  # fmt: skip
"""What a rack stands on: its words, the size of its bolts, how many a foot has."""
MOUNTS: dict[str, Mount] = {
    "tub rack": "vehicle", "cab rack": "vehicle", "gap rack": "tray", "hoop": "tray", "rear wall": "canopy",
}  # fmt: skip
"""With what a rack comes off."""


class Member(msgspec.Struct, frozen=True):
    """A straight bar of a rack from end to end of its middle line, in vehicle axes; what it is. [mm]"""

    name: str
    a: tuple[float, float, float]
    b: tuple[float, float, float]


class RackPlace(msgspec.Struct, frozen=True):
    """A rack where it stands: the box around it, its deck or wall, its bars as members, its feet. [mm]

    `deck` is what things stand on, thin and level; a rear wall's and a hoop's is upright, behind them.
    """

    rack: Rack
    box: Box
    deck: Box
    boxes: tuple[Box, ...]
    members: tuple[Member, ...]
    feet: tuple[tuple[float, float, float], ...]

    def nearest(self, item: Carried) -> dict[str, float]:
        """Where a thing is put to lie on the rack, at the nearest of its holes.

        Args:
            item: The thing. [mm]
        Returns: Its new x, y or z; on a deck it keeps within it where there is room. [mm]
        """
        deck, pitch = self.deck, self.rack.pitch

        def within(at: float, half: float, low: float, high: float) -> float:
            room = (low + half, high - half)
            return (low + high) / 2 if room[0] > room[1] else min(max(at, room[0]), room[1])

        def hole(at: float, half: float, low: float, high: float) -> float:
            spot = low + round((within(at, half, low, high) - low) / pitch) * pitch
            # The nearest hole may stand a little out: then the next one inward.
            spot -= pitch if spot + half > high + 1e-6 and spot - half - pitch >= low else 0.0
            return spot + (
                pitch if spot - half < low - 1e-6 and spot + half + pitch <= high else 0.0
            )

        if self.upright:
            y = hole(item.y, item.width / 2, deck.y0, deck.y1)
            z = (
                within(item.z + item.height / 2, item.height / 2, deck.z0, deck.z1)
                - item.height / 2
            )
            return {"x": deck.x0 + item.length / 2, "y": y, "z": z}
        x = hole(item.x, item.length / 2, deck.x0, deck.x1)
        return {"x": x, "y": within(item.y, item.width / 2, deck.y0, deck.y1), "z": deck.z1}

    @property
    def bars_box(self) -> Box:
        """Around its bars, without deck and panels. [mm]"""
        return hull(list(self.boxes[: len(self.members)]))

    @property
    def upright(self) -> bool:
        """Whether things hang on it instead of standing on it."""
        return self.rack.kind in ("rear wall", "hoop")


def _rows(first: float, last: float, count: int) -> list[float]:
    """So many places from a first to a last, evenly; the first where there is one only."""
    if count == 1:
        return [first]
    return [first + (last - first) * n / (count - 1) for n in range(count)]


def _around(vehicle: Vehicle, body: Body, rack: Rack) -> Box:
    """The box around a rack's bars. [mm]"""
    y0 = rack.across - rack.width / 2
    low = floor_z(vehicle, body.tray) + rack.foot
    wide = section_width(rack.section)
    if rack.kind == "rear wall":
        canopy = outside(vehicle, body)
        x0 = canopy.x1 if canopy is not None else front_x(vehicle, body.tray) + body.tray.length
        high = max(rack.height, section_height(rack.section))
        return Box(x0, y0, low, x0 + wide, y0 + rack.width, low + high)
    x0 = front_x(vehicle, body.tray) + rack.start
    long = rack.length if rack.bows > 1 else wide
    return Box(x0, y0, low, x0 + max(long, wide), y0 + rack.width, low + rack.height)


def _bars(rack: Rack, b: Box) -> list[tuple[str, float, Pose]]:
    """Every bar: what it is, how long, where it stands."""
    high, wide = section_height(rack.section), section_width(rack.section)
    top = b.z1 - high
    found: list[tuple[str, float, Pose]] = []
    if rack.kind == "rear wall":
        rows = _rows(b.z0, b.z1 - high, rack.bows)
        return [("rail", b.y1 - b.y0, at(b.x0 + wide, b.y0, z, ACROSS)) for z in rows]
    bows = _rows(b.x0, b.x1 - wide, rack.bows)
    # The posts stand with their second side along the vehicle and their first across it.
    posts = [(x, y) for x in bows for y in (b.y0, b.y1 - high)]
    found += [("post", top - b.z0, at(x, y, b.z0, UPRIGHT)) for x, y in posts]
    if rack.kind == "hoop":
        found += [("beam", b.y1 - b.y0, at(x + wide, b.y0, top, ACROSS)) for x in bows]
        ties = [(x0 + wide, x1) for x0, x1 in itertools.pairwise(bows)]
        found += [
            ("tie", x1 - x0, at(x0, y, top, FLAT)) for x0, x1 in ties for y in (b.y0, b.y1 - wide) if x1 > x0
        ]  # fmt: skip
        return found
    found += [("side rail", b.x1 - b.x0, at(b.x0, y, top, FLAT)) for y in (b.y0, b.y1 - wide)]
    between = (b.y1 - b.y0) - 2 * wide
    fields = itertools.pairwise(bows)
    bars = [
        x0 + (x1 - x0) * n / (rack.cross_bars + 1)
        for x0, x1 in fields
        for n in range(1, rack.cross_bars + 1)
    ]
    found += [("bow", between, at(x + wide, b.y0 + wide, top, ACROSS)) for x in bows]
    found += [("cross bar", between, at(x + wide, b.y0 + wide, top, ACROSS)) for x in bars]
    return found


def _bar_box(rack: Rack, long: float, pose: Pose) -> Box:
    """A bar's box where it stands. [mm]"""
    high, wide = section_height(rack.section), section_width(rack.section)
    return stood(Box(0.0, 0.0, 0.0, long, wide, high), pose)


def _member(name: str, box: Box, pose: Pose) -> Member:
    """A bar's middle line."""
    axis = {"v": 1, "w": 2, "u": 0}[pose.x[-1]]
    a, b = list(box.centre()), list(box.centre())
    a[axis], b[axis] = box[axis], box[axis + 3]
    return Member(name, tuple(a), tuple(b))  # type: ignore[arg-type]  # three of them


def place(vehicle: Vehicle, body: Body, rack: Rack) -> RackPlace:
    """Stand a rack in its place.

    Args:
        vehicle: What the body stands on. [mm]
        body: Tray, and the canopy that a rear wall lies on.
        rack: One of the body's, or one that is tried.
    Returns: In vehicle axes. [mm]
    """
    box = _around(vehicle, body, rack)
    bars = _bars(rack, box)
    boxes = tuple(_bar_box(rack, long, pose) for _name, long, pose in bars)
    members = tuple(
        _member(name, b, pose) for (name, _long, pose), b in zip(bars, boxes, strict=True)
    )
    if rack.kind == "rear wall":
        deck = Box(box.x1, box.y0, box.z0, box.x1 + 1.0, box.y1, box.z1)
        feet = tuple(
            (m.a[0], y, m.a[2])
            for m in members
            for y in _rows(m.a[1] + BOLT_IN, m.b[1] - BOLT_IN, 3)
        )
    elif rack.kind == "hoop":
        deck = Box(box.x1, box.y0, box.z0, box.x1 + 1.0, box.y1, box.z1)
        feet = tuple(m.a for m in members if m.name == "post")
    else:
        up = rack.deck_sheet if rack.deck != "bars" else 0.0
        deck = Box(box.x0, box.y0, box.z1, box.x1, box.y1, box.z1 + max(up, 0.1))
        feet = tuple(m.a for m in members if m.name == "post")
    boxes += tuple(b for _name, b in _sheets_at(rack, box))
    return RackPlace(rack, hull([box, *boxes]), deck, boxes, members, feet)


def places(vehicle: Vehicle, body: Body) -> tuple[RackPlace, ...]:
    """Every rack in its place. [mm]"""
    return tuple(place(vehicle, body, rack) for rack in body.racks)


def _sheets_at(rack: Rack, b: Box) -> list[tuple[str, Box]]:
    """Deck and panels as boxes."""
    found: list[tuple[str, Box]] = []
    if rack.kind in ("rear wall", "hoop"):
        return found
    if rack.deck != "bars":
        found.append(("deck", Box(b.x0, b.y0, b.z1, b.x1, b.y1, b.z1 + rack.deck_sheet)))
    low = b.z1 - rack.panel_height
    t = rack.panel_sheet
    if rack.panels in ("left", "both"):
        found.append(("left panel", Box(b.x0, b.y0 - t, low, b.x1, b.y0, b.z1)))
    if rack.panels in ("right", "both"):
        found.append(("right panel", Box(b.x0, b.y1, low, b.x1, b.y1 + t, b.z1)))
    return found


def parts(vehicle: Vehicle, body: Body, rack: Rack, shop: Shop) -> tuple[Part, ...]:
    """What is cut and bought for a rack, standing in vehicle axes.

    Args:
        vehicle: What the body stands on. [mm]
    Returns: Bars with the holes that things are fixed in, deck, panels, feet.
    """
    box, metal = _around(vehicle, body, rack), shop.material(rack.bar_material)
    found: list[Part] = []
    by_kind: dict[tuple[str, float], list[Pose]] = {}
    for name, long, pose in _bars(rack, box):
        by_kind.setdefault((name, round(long, 3)), []).append(pose)
    for (name, long), poses in by_kind.items():
        held = name in ("rail", "side rail") or (rack.kind == "hoop" and name in ("post", "beam"))
        found.append(
            BarPart(f"{rack.name}: {name}", rack.ref, rack.section, long, metal, len(poses), poses=tuple(poses),
                    drilled=_holes(rack, long, name) if held else ())
        )  # fmt: skip
    sheet = shop.material(rack.sheet_material)
    for name, b in _sheets_at(rack, box):
        found += _sheet(rack, name, b, sheet)
    feet = place(vehicle, body, rack).feet
    if feet:
        bolted = rack.kind == "rear wall"
        # A head behind the rail and a plate before it: the bolt goes through both of its walls.
        faces = (box.x1, box.x0 - THICK) if bolted else ()
        spots = tuple(_head(x, y, z) for x in faces for _x, y, z in feet)
        found.append(
            Hardware(f"{rack.name}: {FEET[rack.kind][0]}", rack.ref, len(feet), places=spots, fix="bolts" if bolted else "",
                     bore=BORE if bolted else 0.0, holds=(rack.id, *FEET[rack.kind][1:]))
        )  # fmt: skip
    return tuple(found)


def _bolted_at(rack: Rack) -> list[float]:
    """Where along a rear wall's rails its bolts go: in holes of the pitch near both ends and the middle. [mm]"""
    first = math.ceil(BOLT_IN / rack.pitch)
    last = math.floor((rack.width - BOLT_IN) / rack.pitch)
    if last <= first:
        return [BOLT_IN, rack.width - BOLT_IN]
    return [n * rack.pitch for n in sorted({first, round((first + last) / 2), last})]


def _head(x: float, y: float, z: float) -> Box:
    """A bolt's head, or the middle of its plate, on the face of a rail. [mm]"""
    r = HEAD / 2
    return Box(x, y - r, z - r, x + THICK, y + r, z + r)


def _holes(rack: Rack, long: float, name: str) -> tuple[BarHole, ...]:
    """Holes at the pitch, counted from the bar's own beginning; on a rail from above, on an upright from behind."""
    wide, high = section_width(rack.section), section_height(rack.section)
    rear = rack.kind in ("rear wall", "hoop")
    # A rail across has its rear side at y = 0 of its own; a post's rear side is that far along its second measure.
    side, across = (
        ("far wide", wide / 2)
        if not rear
        else (("far high" if name == "post" else "low high"), high / 2)
    )
    count = int((long - EDGE) // rack.pitch)
    # Where it is bolted on the bolts' own hole is drilled, through both walls.
    bolted = _bolted_at(rack) if rack.kind == "rear wall" else []
    return tuple(
        BarHole(side, n * rack.pitch, across, BORE) for n in range(1, count + 1)  # type: ignore[arg-type]  # a side
        if EDGE <= n * rack.pitch <= long - EDGE and all(abs(n * rack.pitch - b) > 2 * BORE for b in bolted)
    )  # fmt: skip


def _sheet(rack: Rack, name: str, b: Box, sheet: Material) -> list[Part]:
    """A deck or a panel: of sheet with holes for lashing along its edges, or of mesh bought by its size."""
    long, across = b.x1 - b.x0, (b.y1 - b.y0 if name == "deck" else b.z1 - b.z0)
    if name == "deck" and rack.deck == "mesh":
        return [Hardware(f"{rack.name}: mesh {long:.0f} × {across:.0f}, riveted on", rack.ref)]
    rows = [
        Hole(n * rack.pitch, y, BORE)
        for n in range(1, int(long // rack.pitch) + 1) for y in (EDGE, across - EDGE)
        if EDGE <= n * rack.pitch <= long - EDGE and across > 3 * EDGE
    ]  # fmt: skip
    pose = {
        "deck": at(b.x0, b.y0, b.z0), "left panel": at(b.x1, b.y0, b.z0, FORTH),
        "right panel": at(b.x0, b.y1, b.z0, BACK),
    }[name]  # fmt: skip
    thick = rack.deck_sheet if name == "deck" else rack.panel_sheet
    return [
        SheetPart(f"{rack.name}: {name}", rack.ref, long, across, thick, sheet, holes=tuple(rows), poses=(pose,))
    ]  # fmt: skip


def masses(
    vehicle: Vehicle, body: Body, rack: Rack, listed: tuple[Part, ...]
) -> tuple[PointMass, ...]:
    """A rack's mass at its centre, in vehicle axes.

    Args:
        vehicle: What the body stands on. [mm]
        listed: What `parts` gave for it.
    Returns: Bars and sheets as cut; mesh and feet. [kg, mm]
    """
    rows: list[tuple[float, tuple[float, float, float]]] = []
    for part in listed:
        if isinstance(part, Hardware):
            continue
        rows += [(part.mass(), hull(list(boxes)).centre()) for boxes in standing(part)]
    there = place(vehicle, body, rack)
    extra = FOOT_KG * len(there.feet)
    box = _around(vehicle, body, rack)
    if rack.deck == "mesh" and rack.kind not in ("rear wall", "hoop"):
        extra += (box.x1 - box.x0) * (box.y1 - box.y0) * 1e-6 * MESH_KG_PER_M2
    found = [PointMass("feet, mesh, rivets", extra, "estimate", box.centre())]
    kg = sum(r[0] for r in rows)
    if kg > 0:
        x, y, z = (sum(m * c[i] for m, c in rows) / kg for i in range(3))
        found.insert(0, PointMass("bars and sheet", kg, "geometry", (x, y, z)))
    return tuple(found)
