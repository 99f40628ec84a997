"""Partition: an upright wall that keeps loads apart, with a tie-down rail if wanted."""

from roomy_hull.core.sheetmetal import Hardware, Hole, Part, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Disc, Scene, Stroke, rectangle
from roomy_hull.job.unit import Partition
from roomy_hull.kit.expansion import Expansion, Solid, sheet_lumps

RAIL_KG_PER_M = 0.55
"""A light slotted tie-down rail (common practice). [kg/m]"""


def expand(unit: Partition, pitch: float) -> Expansion:
    """Write a partition out.

    Parameters
    ----------
    unit : Partition
        The partition; `width` is over its flanges. [mm]
    pitch : float
        Rail pitch on which its lower flange bolts down. [mm]

    Returns
    -------
    Expansion
        Its solids, masses, parts and likeness.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    flange = max(0.0, w - t)
    holes = (
        tuple(Hole(20.0 + n * pitch, 20.0, 8.5) for n in range(int((d - 40) // pitch) + 1))
        if pitch > 0
        else ()
    )
    parts: tuple[Part, ...] = (
        SheetPart(f"{unit.name}: wall", unit.id, d, h, t, unit.material, front=flange, back=flange,
                  holes=holes[:12]),
    )  # fmt: skip
    solids = [Solid(Box(0, 0, 0, t, d, h), "made"), Solid(Box(0, 0, 0, w, d, t), "made")]
    lumps = sheet_lumps(parts, unit, (w / 2, d / 2, h / 2))
    if unit.rail:
        parts += (Hardware(f"tie-down rail {d:.0f} mm with two rings", unit.id),)
        solids.append(Solid(Box(0, 0, h - max(t, 25.0), w, d, h), "bought"))
    return Expansion(tuple(solids), (), lumps, parts, Box(0, 0, 0, w, d, h), likeness(unit))


def likeness(unit: Partition) -> Scene:
    """Draw the wall's edge, and its rail's end with a ring."""
    w, h = unit.width, unit.height
    found: list[Stroke] = [
        rectangle("front", 0, 0, max(unit.sheet, 6.0), h),
        rectangle("front", 0, 0, w, 6),
    ]
    if unit.rail:
        found += [rectangle("bought dark", 0, h - 25, w, h, 3), Disc("fitting", (w / 2, h - 12), 7)]
    return tuple(found)
