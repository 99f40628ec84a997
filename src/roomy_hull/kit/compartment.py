"""Compartment: room for a dog or for crew gear behind a mesh door, with air vents."""

from roomy_hull.core.sheetmetal import Cutout, Hardware, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Disc, Lines, Scene, Stroke, rectangle
from roomy_hull.job.unit import Compartment
from roomy_hull.kit.expansion import Expansion, Solid, sheet_lumps, side_door

DOG_VENTS = 500.0
"""Open vent area wanted for a dog's compartment, besides its mesh door (common practice). [cm²]"""


def expand(unit: Compartment, pitch: float) -> Expansion:  # ruff: ignore[unused-function-argument]  # one signature for all kinds
    """Write a compartment out.

    Parameters
    ----------
    unit : Compartment
        The compartment. [mm, cm², kg]
    pitch : float
        Rail pitch of its bay; it bolts to floor and divider. [mm]

    Returns
    -------
    Expansion
        Its solids, masses, parts, the motion of its door, and likeness.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    slot = min(unit.vents * 100 / max(1.0, d * 0.6), h * 0.5)
    cuts = (Cutout(d * 0.2, h * 0.4, d * 0.6, slot, 10.0),) if slot > 5 else ()
    parts = (
        SheetPart(f"{unit.name}: wrap", unit.id, w, d, t, unit.material, left=h - t, right=h - t),
        SheetPart(f"{unit.name}: roof", unit.id, w, d, t, unit.material),
        SheetPart(f"{unit.name}: back", unit.id, w - 2 * t, h - 2 * t, t, unit.material,
                  cutouts=cuts if slot + h * 0.4 < h - 4 * t and d * 0.8 < w else ()),
        Hardware("mesh door with hinge and two latches", unit.id),
        Hardware(f"vent louvres, {unit.vents:g} cm² open", unit.id),
    )  # fmt: skip
    leaf = Box(0, 0, 0, w, 25, h)
    solids = (
        Solid(Box(0, 25, 0, w, d, t), "made"), Solid(Box(0, 25, t, t, d, h), "made"),
        Solid(Box(w - t, 25, t, w, d, h), "made"), Solid(Box(t, 25, h - t, w - t, d, h), "made"),
        Solid(Box(t, d - t, t, w - t, d, h - t), "made"), Solid(leaf, "front", moves=True),
    )  # fmt: skip
    return Expansion(
        solids, (), sheet_lumps(parts, unit, (w / 2, d / 2, h * 0.35)), parts, Box(0, 0, 0, w, d, h),
        likeness(unit), motions=(side_door(f"Door of {unit.name}", leaf, unit.hinge),),
    )  # fmt: skip


def likeness(unit: Compartment) -> Scene:
    """Draw the mesh door with its frame and latches."""
    w, h = unit.width, unit.height
    found: list[Stroke] = [
        rectangle("front", 0, 0, w, h, 6),
        rectangle("recess", 30, 30, w - 30, h - 30, 10),
    ]
    bars = max(3, int((w - 60) / 45))
    found.append(Lines("mesh", tuple(
        ((30 + (w - 60) * n / bars, 30.0), (30 + (w - 60) * n / bars, h - 30)) for n in range(1, bars))))  # fmt: skip
    rows = max(3, int((h - 60) / 45))
    found.append(Lines("mesh", tuple(
        ((30.0, 30 + (h - 60) * n / rows), (w - 30, 30 + (h - 60) * n / rows)) for n in range(1, rows))))  # fmt: skip
    c = w - 15 if unit.hinge == "left" else 15
    found += [Disc("fitting", (c, h * 0.3), 8), Disc("fitting", (c, h * 0.7), 8)]
    return tuple(found)
