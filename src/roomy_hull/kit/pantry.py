"""Pull-out pantry: a tall narrow frame on slides, its baskets reached from both sides."""

from roomy_hull.core.sheetmetal import BarPart, Hardware, Part, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Scene, Stroke, line, rectangle
from roomy_hull.core.tables import rules
from roomy_hull.job.unit import Pantry
from roomy_hull.kit.expansion import Expansion, Lump, Solid, Zone, part_mass, pull_out, sheet_lumps

FRAME = "20x20x2"


def parts(unit: Pantry) -> tuple[Part, ...]:
    """Give what is cut and bought: front, baskets, frame, slides. [mm]"""
    w, d = unit.width, unit.depth - unit.front
    inner = max(40.0, w - 50)
    wall = max(30.0, min(90.0, unit.height / unit.baskets * 0.35))
    return (
        SheetPart(f"{unit.name}: front", unit.id, w, unit.height, unit.front, unit.material),
        SheetPart(f"{unit.name}: basket", unit.id, inner, d - 60, unit.sheet, unit.material, left=wall,
                  right=wall, front=wall, back=wall, count=unit.baskets),
        BarPart(f"{unit.name}: upright", unit.id, FRAME, max(60.0, unit.height - 40), "6060-T5", 4),
        Hardware(f"pair of slides, {unit.slide_rating:g} kg", unit.id),
    )  # fmt: skip


def expand(unit: Pantry, pitch: float) -> Expansion:  # ruff: ignore[unused-function-argument]  # one signature for all kinds
    """Write a pantry out.

    Parameters
    ----------
    unit : Pantry
        The pantry. [mm, kg]
    pitch : float
        Rail pitch of its bay; its slides bolt on by their own slots. [mm]

    Returns
    -------
    Expansion
        Its solids, zones, masses, parts, motion and likeness.
    """
    w, d, h, f = unit.width, unit.depth, unit.height, unit.front
    made = parts(unit)
    frame, face = Box(20, f, 25, w - 20, d - 20, h - 10), Box(0, 0, 0, w, f, h)
    gap = rules().running_gap
    travel = d - f - 20
    return Expansion(
        (Solid(Box(0, f, 0, w, d, 25), "bought"), Solid(frame, "made", moves=True),
         Solid(face, "front", moves=True)),
        (Zone(Box(-gap, 0, -gap, w + gap, f, h + gap), "running"),),
        (*sheet_lumps(made, unit, (w / 2, d / 2, h * 0.45)),
         Lump("slides", unit.slide_mass, "data sheet", (w / 2, d / 2, 12))),
        made,
        Box(0, 0, 0, w, d, h),
        likeness(unit),
        travel=travel,
        slide_rating=unit.slide_rating,
        slide_load=part_mass(made) + unit.contents + unit.slide_mass / 2,
        motions=(pull_out(unit.name, (frame, face), travel, locks=unit.locks),),
        plan=(rectangle("space", 20, f, w - 20, d - 20, 6), rectangle("unit face", 0, 0, w, 14)),
    )  # fmt: skip


def likeness(unit: Pantry) -> Scene:
    """Draw the tall front with its grip, and the baskets' heights marked on it."""
    w, h = unit.width, unit.height
    found: list[Stroke] = [rectangle("front", 0, 0, w, h, 4),
                           rectangle("recess", w / 2 - 12, h * 0.42, w / 2 + 12, h * 0.58, 10)]  # fmt: skip
    found += [line("detail", (12, h * n / unit.baskets), (w - 12, h * n / unit.baskets))
              for n in range(1, unit.baskets)]  # fmt: skip
    return tuple(found)
