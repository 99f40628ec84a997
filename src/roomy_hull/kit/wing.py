"""Wing: the box beside the drawers, where the wheel arch leaves odd room, under a lid."""

from roomy_hull.core.motion import Motion, Moved
from roomy_hull.core.sheetmetal import Hardware, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Disc, Scene, line, rectangle
from roomy_hull.job.unit import Wing
from roomy_hull.kit.expansion import Expansion, Solid, lid, sheet_lumps


def expand(unit: Wing, pitch: float) -> Expansion:  # ruff: ignore[unused-function-argument]  # one signature for all kinds
    """Write a wing out.

    Parameters
    ----------
    unit : Wing
        The wing, by its outside sizes. [mm, kg]
    pitch : float
        Rail pitch of its bay; it stands on the floor. [mm]

    Returns
    -------
    Expansion
        Its solids, masses, parts, the motion of its lid, and likeness.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.board
    parts = (
        SheetPart(f"{unit.name}: lid", unit.id, w, d, t, unit.material),
        SheetPart(f"{unit.name}: side", unit.id, d, h - t, t, unit.material, count=2),
        SheetPart(f"{unit.name}: end", unit.id, w - 2 * t, h - t, t, unit.material, count=2),
        Hardware("piano hinge and flush ring for the lid", unit.id),
    )
    top = Box(0, 0, h - t, w, d, h)
    solids = (
        Solid(Box(0, 0, 0, t, d, h - t), "made"), Solid(Box(w - t, 0, 0, w, d, h - t), "made"),
        Solid(Box(t, 0, 0, w - t, t, h - t), "made"), Solid(Box(t, d - t, 0, w - t, d, h - t), "made"),
        Solid(top, "made"), Solid(Box(t, t, 0, w - t, d - t, h - t), "contents"),
    )  # fmt: skip
    motion = Motion(
        "lid", f"Lid of {unit.name}", (Moved(top, "lid"),), (lid(top, unit.hinge, degrees=80.0),)
    )
    return Expansion(
        solids, (), sheet_lumps(parts, unit, (w / 2, d / 2, h * 0.4)), parts, Box(0, 0, 0, w, d, h),
        likeness(unit), motions=(motion,),
    )  # fmt: skip


def likeness(unit: Wing) -> Scene:
    """Draw the wing's end and its lid."""
    w, h, t = unit.width, unit.height, unit.board
    c = 16 if unit.hinge == "left" else w - 16
    return (rectangle("wood", 0, 0, w, h - t, 3), line("detail", (t, 0), (t, h - t)),
            line("detail", (w - t, 0), (w - t, h - t)), rectangle("wood", 0, h - t, w, h, 2),
            Disc("fitting", (c, h - t / 2), 5))  # fmt: skip
