"""Open pocket: a folded box without a door, its front low enough to look and reach over."""

from roomy_hull.core.sheetmetal import Hole, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Scene, line, rectangle
from roomy_hull.job.unit import Pocket
from roomy_hull.kit.expansion import Expansion, Solid, rail_holes, sheet_lumps


def expand(unit: Pocket, pitch: float) -> Expansion:
    """Write an open pocket out.

    Parameters
    ----------
    unit : Pocket
        The pocket. [mm, kg]
    pitch : float
        Rail pitch of its bay. [mm]

    Returns
    -------
    Expansion
        Its solids, masses, part and likeness.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    lip = min(unit.lip, h)
    parts = (
        SheetPart(f"{unit.name}: pocket", unit.id, w, d, t, unit.material, left=h, right=h, back=h,
                  front=lip, holes=tuple(Hole(x, y, 8.5) for x, y in rail_holes(w, d, pitch))),
    )  # fmt: skip
    solids = (
        Solid(Box(0, 0, 0, w, d, t), "made"), Solid(Box(0, 0, t, t, d, h), "made"),
        Solid(Box(w - t, 0, t, w, d, h), "made"), Solid(Box(t, d - t, t, w - t, d, h), "made"),
        Solid(Box(t, 0, t, w - t, t, lip), "made"), Solid(Box(t, t, t, w - t, d - t, h), "contents"),
    )  # fmt: skip
    return Expansion(
        solids, (), sheet_lumps(parts, unit, (w / 2, d / 2, h * 0.35)), parts, Box(0, 0, 0, w, d, h),
        likeness(unit),
    )  # fmt: skip


def likeness(unit: Pocket) -> Scene:
    """Draw the opening, its low front, and the sides."""
    w, h, lip = unit.width, unit.height, min(unit.lip, unit.height)
    return (
        rectangle("front", 0, 0, w, h, 6),
        rectangle("recess", 10, lip, w - 10, h - 10, 14),
        line("detail", (12, lip * 0.5), (w - 12, lip * 0.5)),
    )
