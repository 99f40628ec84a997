"""Tube: a slot for long things, drawn out lengthwise at the access face."""

from roomy_hull.core.motion import Motion, Moved, Step
from roomy_hull.core.sheetmetal import Hardware, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Disc, Scene, rectangle
from roomy_hull.job.unit import Tube
from roomy_hull.kit.expansion import INWARD, Expansion, Solid, sheet_lumps


def expand(unit: Tube, pitch: float) -> Expansion:  # ruff: ignore[unused-function-argument]  # one signature for all kinds
    """Write a tube out.

    Parameters
    ----------
    unit : Tube
        The tube, lying inward; what it holds comes out by `reach`, or its whole depth. [mm, kg]
    pitch : float
        Rail pitch of its bay; it hangs in clamps. [mm]

    Returns
    -------
    Expansion
        Its solids, masses, parts, the motion of what it holds, and likeness.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    parts = (
        SheetPart(f"{unit.name}: trough", unit.id, w, d, t, unit.material, left=h - t, right=h - t),
        SheetPart(f"{unit.name}: cover", unit.id, w, d, t, unit.material, left=15.0, right=15.0),
        Hardware("hinged end cap with latch", unit.id),
    )
    solids = (
        Solid(Box(0, 0, 0, w, d, t), "made"), Solid(Box(0, 0, t, t, d, h), "made"),
        Solid(Box(w - t, 0, t, w, d, h), "made"), Solid(Box(t, 0, h - t, w - t, d, h), "made"),
    )  # fmt: skip
    goods = Box(t, 0, t, w - t, d, h - t)
    way = Step("slide", INWARD, -(unit.reach or d))
    return Expansion(
        (*solids, Solid(goods, "contents", moves=True)), (), sheet_lumps(parts, unit, (w / 2, d / 2, h / 2)),
        parts, Box(0, 0, 0, w, d, h), likeness(unit),
        motions=(Motion("", f"Drawing out of {unit.name}", (Moved(goods),), (way,)),),
    )  # fmt: skip


def likeness(unit: Tube) -> Scene:
    """Draw the tube's mouth with its cap."""
    w, h = unit.width, unit.height
    return (rectangle("front", 0, 0, w, h, min(w, h) * 0.3), Disc("recess", (w / 2, h / 2), min(w, h) * 0.36),
            Disc("fitting", (w / 2, h * 0.9), 6))  # fmt: skip
