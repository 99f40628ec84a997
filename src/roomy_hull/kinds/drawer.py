"""Drawer: a folded box on a pair of slides in a folded carcass."""

from roomy_hull.core.errors import InputError
from roomy_hull.core.fill import CONTENTS
from roomy_hull.core.folded import Cutout, Hole
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.material import Material
from roomy_hull.core.parts import Hardware, Part, SheetPart, short_name
from roomy_hull.core.standing import BACK, LID, at
from roomy_hull.core.strokes import Disc, Scene, Stroke, line, rectangle
from roomy_hull.core.value import Kg, PositiveKg, Sheet, Thickness
from roomy_hull.kinds import card
from roomy_hull.kinds.card import Field
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
    rail_holes,
)
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import Placed


class Drawer(Placed, frozen=True, kw_only=True, tag_field="kind", tag="drawer"):
    """A made drawer on a pair of slides in a folded carcass that bolts to the rails.

    `table` is a board that pulls out above the box; `lockable` a lock with a key in the front.
    """

    carcass: Sheet = 2.0
    sheet: Sheet = 1.6
    front: Thickness = 3.0
    slide: Thickness = 19.0
    slide_rating: PositiveKg = 110.0
    slide_mass: Kg = 0.0
    locks: bool = True
    lockable: bool = False
    table: bool = False
    material: str = "5052-H32"


BOX_GAP = 4.0
"""Room between the drawer box and the carcass below and above it (common practice). [mm]"""


TABLE_ROOM = 20.0
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


def carcass(
    unit: Placed, thickness: float, front: float, material: Material, site: Site
) -> SheetPart:
    """The folded carcass behind the fronts: a floor and two sides.

    Parameters
    ----------
    unit : Placed
        What it carries the drawers of, by outside sizes. [mm]
    thickness, front : float
        Of the carcass's sheet and of the fronts. [mm]
    material : Material
        Of the sheet.
    site : Site
        Whose rails it is bolted to. [mm]

    Returns
    -------
    SheetPart
        The part, bolted to the rails.
    """
    depth = unit.depth - front
    return SheetPart(
        f"{unit.name}: carcass", unit.ref, unit.width, depth, thickness, material,
        left=unit.height, right=unit.height,
        holes=tuple(Hole(x, y, 8.5) for x, y in rail_holes(unit.width, depth, site.pitch, site.phase)),
        stands=(at(0.0, front, 0.0),),
    )  # fmt: skip


def parts(unit: Drawer, site: Site, gap: float = 0.0) -> tuple[Part, ...]:
    """What is cut and bought for one drawer.

    Parameters
    ----------
    unit : Drawer
        The drawer. [mm]
    site : Site
        Rail pitch of its bay, and the shop's materials and rules. [mm]
    gap : float
        What its front leaves free above it for that of a drawer in the same carcass. [mm]

    Returns
    -------
    tuple of Part
        Carcass, drawer box, front, slides.

    Raises
    ------
    InputError
        Carcass and slides leave no drawer box.
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
    pull_width = min(120.0, unit.width / 2)
    high = front_height(unit) - gap
    made: tuple[Part, ...] = (
        carcass(unit, unit.carcass, unit.front, site.material(unit.material), site),
        SheetPart(
            f"{unit.name}: drawer box", unit.ref, box_width, box_depth, unit.sheet, site.material(unit.material),
            left=box_height, right=box_height, front=box_height, back=box_height,
            role="floor", stands=(at(unit.carcass + unit.slide, unit.front, unit.carcass + BOX_GAP),),
        ),
        SheetPart(
            f"{unit.name}: front", unit.ref, unit.width, high, unit.front, site.material(unit.material),
            cutouts=(
                Cutout((unit.width - pull_width) / 2, high - 55.0, pull_width, 30.0, 12.0),
            ) if high >= 90 else (),
            stands=(at(0.0, unit.front, 0.0, BACK),),
        ),
        Hardware(f"pair of slides, {unit.slide_rating:g} kg, {unit.slide:g} mm each", unit.ref),
    )  # fmt: skip
    if unit.table:
        made += (
            SheetPart(f"{unit.name}: table", unit.ref, box_width, unit.depth - 25, 2.0, site.material(unit.material),
                      left=15.0, right=15.0,
                      stands=(at(unit.carcass + unit.slide, unit.depth - 25, unit.height - 6, LID),)),
            Hardware("pair of table runners with stops", unit.ref),
        )  # fmt: skip
    if unit.lockable:
        made += (Hardware("drawer lock with key", unit.ref),)
    return made


def expand(unit: Drawer, site: Site, gap: float = 0.0) -> Expansion:
    """Write a drawer out.

    Parameters
    ----------
    unit : Drawer
        The drawer. [mm, kg]
    site : Site
        Rail pitch of its bay, and the shop's materials and rules. [mm]
    gap : float
        What its front leaves free above it. [mm]

    Returns
    -------
    Expansion
        Its solids, zones, masses, parts and elevation.

    Raises
    ------
    InputError
        Carcass and slides leave no drawer box.
    """
    slides = slides_mass(unit.slide_mass, unit.depth, unit.slide_rating)
    listed = parts(unit, site, gap)
    w, d, h = unit.width, unit.depth, unit.height
    t, s, f = unit.carcass, unit.slide, unit.front
    solids: tuple[Solid, ...] = (
        *made(listed[0]),
        Solid(Box(t, f, h / 2 - 22, t + s, d, h / 2 + 22), "bought"),
        Solid(Box(w - t - s, f, h / 2 - 22, w - t, d, h / 2 + 22), "bought"),
        *made(listed[1], moves=True, whole=True),
        *made(listed[2], "front", moves=True),
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
    moving = part_mass(listed[1:]) + slides / 2 + unit.contents
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
    strokes: list[Stroke] = [rectangle("front", 0, 0, w, top, 4), *pull(w, top)]
    if unit.locks:
        strokes.append(Disc("fitting", (w - 24, top - min(40.0, h / 2)), 9))
    if unit.lockable:
        strokes.append(Disc("fitting", (24, top - min(40.0, h / 2)), 6))
    if unit.table:
        strokes.append(rectangle("front", 24, h - 24, w - 24, h - 6, 3))
    strokes.append(line("detail", (10, 10), (w - 10, 10)))
    return tuple(strokes)


def plan(unit: Drawer) -> Scene:
    """Draw the drawer from above: front and open box."""
    w, d, f = unit.width, unit.depth, unit.front
    edge = unit.carcass + unit.slide
    return (
        rectangle("front", edge, f, w - edge, d - 25, 6),
        rectangle("space", edge + 6, f + 6, w - edge - 6, d - 31, 4),
        rectangle("unit face", 0, 0, w, 16),
    )


def fields() -> tuple[Field, ...]:
    """Describe what the card shows of a drawer."""
    return (*card.BOXED, card.yes("table", "Table above it", "A board pulls out over the box"))


def offers() -> tuple[Offer, ...]:
    """List the drawers in the stores."""
    return (
        offer(Drawer, "drawer-low", "Drawers", "Low drawer", (600, 800, 250),
              "Full-length drawer for heavy and bulky goods", contents=35, id="drawer-low"),
        offer(Drawer, "drawer", "Drawers", "Drawer", (450, 700, 220), "Drawer on a pair of slides", contents=20),
        offer(Drawer, "drawer-small", "Drawers", "Small drawer", (450, 600, 150), "For small goods, up high",
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


KIND = Kind(
    Drawer, expand, fields, offers, railed=True, rank=10, stored=lambda unit: box_room(unit) * 1e-6
)
