"""Slide: a bought slide or drop slide with a platform, for whatever stands on it."""

from roomy_hull.core.motion import Motion, Moved, Step
from roomy_hull.core.sheetmetal import Hardware
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Scene, line, rectangle
from roomy_hull.core.tables import rules
from roomy_hull.job.unit import Fridge, Slide
from roomy_hull.kit.expansion import INWARD, Expansion, Lump, Solid, Zone

DROP_CLEAR = 90.0
"""How far a drop slide runs out beyond its depth, to clear the tray's edge (common practice). [mm]"""


def travel(unit: Slide | Fridge, drops: bool) -> float:
    """Give how far a slide runs out. [mm]"""
    return unit.depth + (DROP_CLEAR if drops and unit.drop > 0 else 0.0)


def way_out(unit: Slide | Fridge, drops: bool, *groups: str) -> tuple[Step, ...]:
    """Give the steps of a slide: out by its whole depth, and further out and down if it drops. [mm]"""
    out = Step("slide", INWARD, -travel(unit, drops), groups)
    return (out, Step("lower", 2, -unit.drop, groups)) if drops and unit.drop > 0 else (out,)


def expand(unit: Slide, pitch: float) -> Expansion:  # ruff: ignore[unused-function-argument]  # one signature for all kinds
    """Write a slide with its load out.

    Parameters
    ----------
    unit : Slide
        The slide; `height` is the room kept over slide and load. [mm, kg]
    pitch : float
        Rail pitch of its bay; slides bolt on by their own slots. [mm]

    Returns
    -------
    Expansion
        Its solids, zones, masses, motion and likeness.
    """
    w, d, h = unit.width, unit.depth, unit.height
    s = min(unit.slide_height, h * 0.8)
    gap = rules().running_gap
    load = Box(6, 10, s, w - 6, d, h)
    motion = Motion(
        "", unit.name, (Moved(load),), way_out(unit, unit.style == "drop", ""), unit.locks
    )
    return Expansion(
        (Solid(Box(0, 0, 0, w, d, s), "bought"), Solid(load, "contents", moves=True)),
        (Zone(Box(-gap, 0, 0, w + gap, d, h), "running"),),
        (
            Lump("slide", unit.slide_mass, "data sheet", (w / 2, d / 2, s / 2)),
            Lump(
                "load",
                unit.contents,
                unit.contents_source,
                (w / 2, d / 2, s + (h - s) * 0.45),
                "contents",
            ),
        ),
        (
            Hardware(
                f"{'drop slide' if unit.style == 'drop' else 'slide'}, {unit.slide_rating:g} kg",
                unit.id,
            ),
        ),
        Box(0, 0, 0, w, d, h),
        likeness(unit),
        travel=travel(unit, unit.style == "drop"),
        slide_rating=unit.slide_rating,
        slide_load=unit.contents + unit.slide_mass / 2,
        motions=(motion,),
        plan=(
            rectangle("bought", 6, 10, w - 6, d, 8),
            rectangle("bought dark", w * 0.3, 0, w * 0.7, 22, 6),
        ),
    )


def likeness(unit: Slide) -> Scene:
    """Draw the slide's end, its handle, and the room above it."""
    w, h = unit.width, unit.height
    s = min(unit.slide_height, h * 0.8)
    return (
        rectangle("space", 6, s, w - 6, h, 6),
        rectangle("bought dark", 0, 0, w, s),
        rectangle("detail", w * 0.3, s * 0.25, w * 0.7, s * 0.6, s * 0.15),
        line("strap", (w * 0.3, s), (w * 0.3, h - 20)),
        line("strap", (w * 0.7, s), (w * 0.7, h - 20)),
    )
