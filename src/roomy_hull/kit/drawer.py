"""Drawer: a folded box on a pair of slides in a folded carcass."""

from roomy_hull.core.errors import InputError
from roomy_hull.core.sheetmetal import Cutout, Hardware, Hole, Part, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Disc, Scene, line, rectangle
from roomy_hull.core.tables import rules
from roomy_hull.job.unit import Drawer
from roomy_hull.kit.expansion import Expansion, Lump, Solid, Zone, part_mass, rail_holes

BOX_GAP = 4.0
"""Room between the drawer box and the carcass below and above it (common practice). [mm]"""


def inner_width(unit: Drawer) -> float:
    """Give the drawer box's outside width: unit less two carcass sheets and two slides. [mm]"""
    return unit.width - 2 * (unit.carcass + unit.slide)


def parts(unit: Drawer, pitch: float) -> tuple[Part, ...]:
    """Give what is cut and bought for one drawer.

    Parameters
    ----------
    unit : Drawer
        The drawer. [mm]
    pitch : float
        Rail pitch on which the carcass bolts down. [mm]

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
    box_height = unit.height - unit.carcass - 2 * BOX_GAP - 20.0
    if min(box_width, box_depth, box_height) < 60:
        raise InputError(
            f"carcass and slides leave a drawer box of {box_width:.0f} × {box_depth:.0f} × "
            f"{box_height:.0f} mm",
            place=unit.name,
            remedy="Make the drawer at least 60 mm larger inside, or use thinner slides.",
        )
    depth = unit.depth - unit.front
    holes = tuple(Hole(x, y, 8.5) for x, y in rail_holes(unit.width, depth, pitch))
    pull = min(120.0, unit.width / 2)
    return (
        SheetPart(
            f"{unit.name}: carcass", unit.id, unit.width, depth, unit.carcass, unit.material,
            left=unit.height, right=unit.height, holes=holes,
        ),
        SheetPart(
            f"{unit.name}: drawer box", unit.id, box_width, box_depth, unit.sheet, unit.material,
            left=box_height, right=box_height, front=box_height, back=box_height,
        ),
        SheetPart(
            f"{unit.name}: front", unit.id, unit.width, unit.height, unit.front, unit.material,
            cutouts=(
                Cutout((unit.width - pull) / 2, unit.height - 55.0, pull, 30.0, 12.0),
            ) if unit.height >= 90 else (),
        ),
        Hardware(f"pair of slides, {unit.slide_rating:g} kg, {unit.slide:g} mm each", unit.id),
    )  # fmt: skip


def expand(unit: Drawer, pitch: float) -> Expansion:
    """Write a drawer out.

    Parameters
    ----------
    unit : Drawer
        The drawer. [mm, kg]
    pitch : float
        Rail pitch of its bay. [mm]

    Returns
    -------
    Expansion
        Its solids, zones, masses, parts and likeness.

    Raises
    ------
    InputError
        Carcass and slides leave no drawer box.
    """
    made = parts(unit, pitch)
    w, d, h = unit.width, unit.depth, unit.height
    t, s, f = unit.carcass, unit.slide, unit.front
    solids = (
        Solid(Box(0, f, 0, w, d, t), "made"),
        Solid(Box(0, f, t, t, d, h), "made"),
        Solid(Box(w - t, f, t, w, d, h), "made"),
        Solid(Box(t, f, h / 2 - 22, t + s, d, h / 2 + 22), "bought"),
        Solid(Box(w - t - s, f, h / 2 - 22, w - t, d, h / 2 + 22), "bought"),
        Solid(Box(t + s, f, t + BOX_GAP, w - t - s, d - 25, h - 20 - BOX_GAP), "made", moves=True),
        Solid(Box(0, 0, 0, w, f, h), "front", moves=True),
    )
    gap = rules().running_gap
    zones = (Zone(Box(-gap, 0, -gap, w + gap, f, h + gap), "running"),)
    made_kg = part_mass(made)
    middle = (w / 2, d / 2, h * 0.45)
    moving = part_mass(made[1:]) + unit.slide_mass / 2 + unit.contents
    return Expansion(
        solids,
        zones,
        (
            Lump("sheet metal", made_kg, "geometry", middle),
            Lump("slides", unit.slide_mass, "data sheet", middle),
            Lump("contents", unit.contents, unit.contents_source, middle, "contents"),
        ),
        made,
        Box(0, 0, 0, w, d, h),
        likeness(unit),
        travel=d - f - 25,
        slide_rating=unit.slide_rating,
        slide_load=moving,
    )


def likeness(unit: Drawer) -> Scene:
    """Draw the drawer's front: panel, recessed pull, lock."""
    w, h = unit.width, unit.height
    pull = min(120.0, w / 2)
    strokes: list[object] = [rectangle("front", 0, 0, w, h, 4)]
    if h >= 90:
        strokes.append(rectangle("recess", (w - pull) / 2, h - 55, (w + pull) / 2, h - 25, 12))
    else:
        strokes.append(line("detail", (w / 2 - 40, h - 14), (w / 2 + 40, h - 14)))
    if unit.locks:
        strokes.append(Disc("fitting", (w - 24, h - min(40.0, h / 2)), 9))
    strokes.append(line("detail", (10, 10), (w - 10, 10)))
    return tuple(strokes)  # type: ignore[arg-type]  # all of them are strokes
