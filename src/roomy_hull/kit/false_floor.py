"""False floor: a raised board with hatches over space that nothing else can use."""

from roomy_hull.core.motion import Motion, Moved, Step
from roomy_hull.core.sheetmetal import Hardware, Part, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Scene, Stroke, rectangle
from roomy_hull.job.unit import FalseFloor
from roomy_hull.kit.expansion import Expansion, Solid, sheet_lumps

BORDER = 60.0
LIFT = 160.0
"""How far a hatch is lifted until it can be tilted away (common practice). [mm]"""


def hatches(unit: FalseFloor) -> tuple[Box, ...]:
    """Give each hatch's board, side by side along the wall at the front. [mm]"""
    if not unit.hatches:
        return ()
    each = (unit.width - BORDER) / unit.hatches - BORDER
    deep = min(unit.depth - 2 * BORDER, 500.0)
    if min(each, deep) < 80:
        return ()
    return tuple(
        Box(BORDER + n * (each + BORDER), BORDER, unit.height - unit.board,
            BORDER + n * (each + BORDER) + each, BORDER + deep, unit.height)
        for n in range(unit.hatches)
    )  # fmt: skip


def expand(unit: FalseFloor, pitch: float) -> Expansion:  # ruff: ignore[unused-function-argument]  # one signature for all kinds
    """Write a false floor out.

    Parameters
    ----------
    unit : FalseFloor
        The floor; `height` is over its board. [mm]
    pitch : float
        Rail pitch of its bay; it stands on its own bearers. [mm]

    Returns
    -------
    Expansion
        Its solids, masses, parts, one motion for each hatch, and likeness.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.board
    high = max(12.0, h - t)
    bearers = max(2, int(w / 450) + 1)
    parts: tuple[Part, ...] = (
        SheetPart(f"{unit.name}: board", unit.id, w, d, t, unit.material),
        SheetPart(f"{unit.name}: bearer", unit.id, d, high, t, unit.material, count=bearers),
    )
    lids = hatches(unit)
    if lids:
        parts += (Hardware("flush lift ring for a hatch", unit.id, len(lids)),)
    step = (w - t) / (bearers - 1)
    solids = [Solid(Box(n * step, 0, 0, n * step + t, d, high), "made") for n in range(bearers)]
    solids.append(Solid(Box(0, 0, high, w, d, h), "made"))
    motions = tuple(
        Motion(f"hatch {n}", f"Hatch {n} of {unit.name}", (Moved(b),), (Step("lift", 2, LIFT),))
        for n, b in enumerate(lids, 1)
    )
    return Expansion(
        tuple(solids), (), sheet_lumps(parts, unit, (w / 2, d / 2, high / 2)), parts, Box(0, 0, 0, w, d, h),
        likeness(unit), motions=motions,
    )  # fmt: skip


def likeness(unit: FalseFloor) -> Scene:
    """Draw the board's edge on its bearers."""
    w, h, t = unit.width, unit.height, unit.board
    found: list[Stroke] = [rectangle("space", 0, 0, w, h - t), rectangle("wood", 0, h - t, w, h, 2)]
    found += [
        rectangle("wood", share * (w - t), 0, share * (w - t) + t, h - t) for share in (0, 0.5, 1)
    ]
    return tuple(found)
