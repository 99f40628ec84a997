"""Drawer: a folded box on a pair of slides in a folded carcass."""

from typing import Annotated, Literal

from roomy_hull.core.capabilities import Capabilities
from roomy_hull.core.card import shown
from roomy_hull.core.errors import InputError
from roomy_hull.core.fill import CONTENTS
from roomy_hull.core.folded import Cutout, Hole
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, Part, SheetPart, short_name
from roomy_hull.core.poses import BACK, LID, at
from roomy_hull.core.primitives import Disc, Scene, Stroke, line, rectangle
from roomy_hull.core.value import Sheet, Thickness
from roomy_hull.kinds import boxes
from roomy_hull.kinds.boxes import Carcass, Sized
from roomy_hull.kinds.common import slides_mass
from roomy_hull.kinds.expansion import (
    Expansion,
    PointMass,
    Solid,
    Zone,
    made,
    part_mass,
    pull,
    pull_out,
)
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import FrontSheet, Locks, Placed, SheetMaterial, SlideMass, SlideRating


class Drawer(Placed, frozen=True, kw_only=True, tag_field="kind", tag="drawer"):
    """A made drawer on a pair of slides in a folded carcass that bolts to the rails.

    `table` is a board that pulls out above the box; `lockable` a lock with a key in the front; `top` says whether the
    carcass has a tie above, or a full top for what stands on it.
    """

    carcass: Annotated[Sheet, shown("Carcass sheet")] = 2.0
    sheet: Annotated[Sheet, shown("Box sheet")] = 1.6
    front: FrontSheet = 3.0
    slide: Annotated[Thickness, shown("Slide thickness", "Each of the pair; common are 12.7 to 19 mm")] = 19.0  # fmt: skip
    slide_rating: SlideRating = 110.0
    slide_mass: SlideMass = 0.0
    locks: Locks = True
    lockable: Annotated[bool, shown("Lock with a key")] = False
    table: Annotated[bool, shown("Table above it", "A board pulls out over the box")] = False
    top: Annotated[Literal["tie", "full"], shown("Top", "Full where something stands on it")] = "tie"  # fmt: skip
    material: SheetMaterial = "5052-H32"


BOX_GAP = 4.0
"""Room between the drawer box and the carcass below and above it (common practice). [mm]"""


TABLE_HEM = 28.0
"""A table's edges are folded so far down: room for its runners' bolts off bend and edge (common practice). [mm]"""
TABLE_ROOM = TABLE_HEM + 5.0
"""Room of a table above the box, its runners included (common practice). [mm]"""


def inner_width(unit: Drawer) -> float:
    """The drawer box's outside width: unit less two carcass sheets and two slides. [mm]"""
    return unit.width - 2 * (unit.carcass + unit.slide)


def head(unit: Drawer) -> float:
    """The room above the box: for the slides' play, and for a table if it has one. [mm]"""
    return 20.0 + (TABLE_ROOM if unit.table else 0.0)


def front_height(unit: Drawer) -> float:
    """The height of the front, which leaves a table's edge free. [mm]"""
    return unit.height - (TABLE_ROOM + 6.0 if unit.table else 0.0)


def parts(unit: Drawer, site: Site, gap: float = 0.0) -> tuple[Part, ...]:
    """What is cut and bought for one drawer.

    Args:
        unit: The drawer. [mm]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
        gap: What its front leaves free above it for that of a drawer in the same carcass. [mm]
    Raises:
        InputError: Carcass and slides leave no drawer box.
    """
    box_width = inner_width(unit)
    box_depth = unit.depth - unit.front - 25.0
    box_height = unit.height - unit.carcass - 2 * BOX_GAP - head(unit)
    if min(box_width, box_depth, box_height) < 60:
        raise InputError(
            f"carcass and slides leave a drawer box of {box_width:.0f} × {box_depth:.0f} × "
            f"{box_height:.0f} mm",
            place=unit.name,
            remedy="Make the drawer at least 60 mm larger inside, or use thinner slides.",
        )
    metal = site.material(unit.material)
    size = Sized(box_width, box_depth, (box_height,) * 4, unit.sheet, metal)
    outer = Carcass(unit.width, unit.depth, unit.height, unit.front, unit.carcass, metal)
    found: tuple[Part, ...] = (
        *boxes.carcass(f"{unit.name}: carcass", unit.ref, outer, site, full_top=unit.top == "full"),
        *boxes.open_box(f"{unit.name}: drawer box", unit.ref, size, site.shop.tools.brake,
                        at(unit.carcass + unit.slide, unit.front, unit.carcass + BOX_GAP), group=BOX, role="floor"),
        _front(unit, site, gap),
        Hardware(f"pair of slides, {unit.slide_rating:g} kg, {unit.slide:g} mm each", unit.ref,
                 places=slide_places(unit), fix="bolts"),
    )  # fmt: skip
    if unit.table:
        hem = 0.0 if metal.wood else TABLE_HEM
        found += (
            SheetPart(f"{unit.name}: table", unit.ref, box_width, unit.depth - 25, 9.0 if metal.wood else 2.0, metal,
                      left=hem, right=hem, group="table",
                      poses=(at(unit.carcass + unit.slide, unit.depth - 25, unit.height - 6, LID),)),
            Hardware("pair of table runners with stops", unit.ref, places=runner_places(unit), fix="bolts"),
        )  # fmt: skip
    if metal.wood:
        edges = sum(2 * (p.length + p.width) * p.count for p in found if isinstance(p, SheetPart))
        found += (Hardware("edge lipping", unit.ref, metres=round(edges / 2000, 1)),)
    if unit.lockable:
        w, high = _lock_at(unit)
        found += (
            Hardware("drawer lock with key", unit.ref, fix="clamped", opening=True,
                     places=(Box(w - 9, 0.0, high - 9, w + 9, unit.front + 12, high + 9),)),
        )  # fmt: skip
    return found


BOX = "box"
"""What moves with the drawer box."""


def carcass_parts(listed: tuple[Part, ...]) -> tuple[Part, ...]:
    """What of a drawer's parts stays where it is bolted."""
    return tuple(p for p in listed if isinstance(p, SheetPart) and not p.group)


def _lock_at(unit: Drawer) -> tuple[float, float]:
    """The middle of the lock in the front, from its lower left corner. [mm]"""
    top = front_height(unit)
    return 24.0, top - min(40.0, unit.height / 2)


def _front(unit: Drawer, site: Site, gap: float) -> SheetPart:
    """The front with its pull, bolted to the box; a lock's hole where it has one."""
    pull_width = min(120.0, unit.width / 2)
    high = front_height(unit) - gap
    holes: tuple[Hole, ...] = ()
    if unit.lockable:
        x, y = _lock_at(unit)
        holes = (Hole(x, y, 19.0),)
    return SheetPart(
        f"{unit.name}: front", unit.ref, unit.width, high, unit.front, site.material(unit.material),
        cutouts=(
            Cutout((unit.width - pull_width) / 2, high - 55.0, pull_width, 30.0, 12.0),
        ) if high >= 90 else (),
        holes=holes, group=BOX, join="bolts", poses=(at(0.0, unit.front, 0.0, BACK),),
    )  # fmt: skip


def slide_places(unit: Drawer) -> tuple[Box, Box]:
    """Where its slides lie, between the carcass's sides and the box. [mm]"""
    t, s, f = unit.carcass, unit.slide, unit.front
    w, far, low, high = unit.width, unit.depth - 25.0, unit.height / 2 - 22, unit.height / 2 + 22
    return Box(t, f + 2, low, t + s, far, high), Box(w - t - s, f + 2, low, w - t, far, high)


def runner_places(unit: Drawer) -> tuple[Box, Box]:
    """Where a table's runners lie, between the carcass's sides and the table. [mm]"""
    t, s, f = unit.carcass, unit.slide, unit.front
    w, far, low, high = unit.width, unit.depth - 25.0, unit.height - 6 - TABLE_HEM, unit.height - 6
    front = f + boxes.TIE + 5
    return Box(t, front, low, t + s, far, high), Box(w - t - s, front, low, w - t, far, high)


def expand(unit: Drawer, site: Site, gap: float = 0.0) -> Expansion:
    """Write a drawer out.

    Args:
        unit: The drawer. [mm, kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
        gap: What its front leaves free above it. [mm]
    Raises:
        InputError: Carcass and slides leave no drawer box.
    """
    slides = slides_mass(unit.slide_mass, unit.depth, unit.slide_rating)
    listed = parts(unit, site, gap)
    w, d, h, f = unit.width, unit.depth, unit.height, unit.front
    stays = carcass_parts(listed)
    moves = tuple(p for p in listed if isinstance(p, SheetPart) and p.group == BOX)
    solids: tuple[Solid, ...] = (
        *(s for p in stays for s in made(p)),
        *(Solid(b, "bought") for b in slide_places(unit)),
        *boxes.whole(moves[:-1]),
        *made(moves[-1], "front", moves=True),
    )
    moving_boxes = tuple(b.box for b in solids if b.moves)
    motions = [pull_out(unit.name, moving_boxes, d - f - 25, locks=unit.locks)]
    if unit.table:
        board = made(next(p for p in listed if short_name(p) == "table"), moves=True, whole=True)
        solids += board
        motions.append(
            pull_out(f"Table of {unit.name}", (board[0].box,), (d - f - 25) * 0.8, "table")
        )
    gap = site.shop.rules.running_gap
    zones = (Zone(Box(-gap, 0, -gap, w + gap, f, h + gap), "running"),)
    made_kg = part_mass(listed)
    middle = (w / 2, d / 2, h * 0.45)
    moving = part_mass(tuple(p for p in listed if p not in stays)) + slides / 2 + unit.contents
    return Expansion(
        solids,
        zones,
        (
            PointMass("sheet metal", made_kg, "geometry", middle),
            PointMass(
                "slides",
                slides,
                "data sheet",
                middle,
            ),
            PointMass("contents", unit.contents, unit.contents_source, middle, CONTENTS),
        ),
        listed,
        Box(0, 0, 0, w, d, h),
        elevation(unit),
        travel=d - f - 25,
        slide_rating=unit.slide_rating,
        slide_load=moving,
        motions=tuple(motions),
        plan=plan(unit),
    )


def elevation(unit: Drawer) -> Scene:
    """Draw the drawer's front: panel, recessed pull, latch, and its lock or table if it has one."""
    w, h = unit.width, unit.height
    top = front_height(unit)
    primitives: list[Stroke] = [rectangle("front", 0, 0, w, top, 4), *pull(w, top)]
    if unit.locks:
        primitives.append(Disc("fitting", (w - 24, top - min(40.0, h / 2)), 9))
    if unit.lockable:
        primitives.append(Disc("fitting", (24, top - min(40.0, h / 2)), 6))
    if unit.table:
        primitives.append(rectangle("front", 24, h - 24, w - 24, h - 6, 3))
    primitives.append(line("detail", (10, 10), (w - 10, 10)))
    return tuple(primitives)


def plan(unit: Drawer) -> Scene:
    """Draw the drawer from above: front and open box."""
    w, d, f = unit.width, unit.depth, unit.front
    edge = unit.carcass + unit.slide
    return (
        rectangle("front", edge, f, w - edge, d - 25, 6),
        rectangle("space", edge + 6, f + 6, w - edge - 6, d - 31, 4),
        rectangle("unit face", 0, 0, w, 16),
    )


def offers() -> tuple[Offer, ...]:
    """List the drawers in the stores."""
    return (
        offer(Drawer, "drawer-low", "Drawers", "Low drawer", (600, 800, 250),
              "Full-length drawer for heavy and bulky gear", contents=35, id="drawer-low"),
        offer(Drawer, "drawer", "Drawers", "Drawer", (450, 700, 220), "Drawer on a pair of slides", contents=20),
        offer(Drawer, "drawer-small", "Drawers", "Small drawer", (450, 600, 150), "For small gear, up high",
              contents=8, id="drawer-small"),
        offer(Drawer, "drawer-table", "Drawers", "Drawer with table", (500, 700, 260),
              "A board pulls out above the box", contents=18, table=True, id="drawer-table"),
        offer(Drawer, "drawer-locked", "Drawers", "Locked drawer", (450, 700, 160), "A lock with a key in its front",
              contents=10, lockable=True, id="drawer-locked"),
    )  # fmt: skip


def box_room(unit: Drawer) -> float:
    """Compute the inside of a drawer's box. [mm³]"""
    wide = inner_width(unit) - 2 * unit.sheet
    deep = unit.depth - unit.front - 25 - 2 * unit.sheet
    high = unit.height - unit.carcass - 2 * BOX_GAP - head(unit) - unit.sheet
    return max(0.0, wide) * max(0.0, deep) * max(0.0, high)


def says(unit: Drawer, _side: str = "") -> Capabilities:
    """What it is to everybody else: locked, or not."""
    return Capabilities(locks=int(unit.lockable))


KIND = Kind(
    Drawer, expand, offers, railed=True, rank=10, stored=lambda unit: box_room(unit) * 1e-6, says=says,
)  # fmt: skip
