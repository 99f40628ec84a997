"""Table: a board that pulls out of a slot, or that folds down from upright."""

from roomy_hull.core.motion import Motion, Moved, Step
from roomy_hull.core.sheetmetal import Hardware, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Disc, Scene, rectangle
from roomy_hull.job.unit import Table
from roomy_hull.kit.expansion import Expansion, Lump, Solid, pull_out, sheet_lumps


def expand(unit: Table, pitch: float) -> Expansion:  # ruff: ignore[unused-function-argument]  # one signature for all kinds
    """Write a table out.

    Parameters
    ----------
    unit : Table
        A pull-out table lies flat, a fold-down one stands upright. [mm]
    pitch : float
        Rail pitch of its bay; runners bolt on by their own slots. [mm]

    Returns
    -------
    Expansion
        Its solids, masses, parts, motion and likeness.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    flat = unit.style == "pull-out"
    hem = min(18.0, (h if flat else d) - 1.0)
    parts = (
        SheetPart(f"{unit.name}: board", unit.id, w - 30, (d if flat else h) - 10, t, unit.material,
                  left=hem, right=hem),
        Hardware("pair of runners with stops" if flat else "hinge and two stays", unit.id),
    )  # fmt: skip
    board = Box(15, 0, 0, w - 15, d, h)
    motion = (
        pull_out(unit.name, (board,), d * 0.85, locks=unit.locks)
        if flat
        else Motion("", unit.name, (Moved(board),), (Step("fold", 0, 90.0),), unit.locks)
    )
    rails = (Box(0, 0, 0, 15, d, h), Box(w - 15, 0, 0, w, d, h))
    return Expansion(
        (*(Solid(r, "bought") for r in rails), Solid(board, "made", moves=True)),
        (),
        (*sheet_lumps(parts, unit, (w / 2, d / 2, h)),
         Lump("runners", unit.slide_mass, "data sheet", (w / 2, d / 2, h / 2))),
        parts,
        Box(0, 0, 0, w, d, h),
        likeness(unit),
        travel=d * 0.85 if flat else 0.0,
        motions=(motion,),
        plan=(rectangle("front", 15, 0, w - 15, d if flat else h, 8),),
    )  # fmt: skip


def likeness(unit: Table) -> Scene:
    """Draw the table's edge with its grip, or the upright board with its latch."""
    w, h = unit.width, unit.height
    if unit.style == "pull-out":
        return (rectangle("bought dark", 0, 0, 15, h), rectangle("bought dark", w - 15, 0, w, h),
                rectangle("front", 15, 0, w - 15, h, 3),
                rectangle("recess", w * 0.4, h * 0.3, w * 0.6, h * 0.7, 4))  # fmt: skip
    return (rectangle("front", 0, 0, w, h, 8), rectangle("detail", 20, 20, w - 20, h - 20, 6),
            Disc("fitting", (w / 2, h - 26), 9))  # fmt: skip
