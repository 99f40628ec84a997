"""Fridge: a bought chest fridge on a bought slide, with room for its air."""

from roomy_hull.core.sheetmetal import Hardware
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Disc, Scene, Stroke, line, rectangle
from roomy_hull.core.tables import rules
from roomy_hull.job.unit import Fridge
from roomy_hull.kit.expansion import Expansion, Lump, Solid, Zone


def expand(unit: Fridge, pitch: float) -> Expansion:  # ruff: ignore[unused-function-argument]  # one signature for all kinds
    """Write a fridge on its slide out.

    Parameters
    ----------
    unit : Fridge
        The fridge; `height` runs from under the slide to the top of the lid. [mm, kg]
    pitch : float
        Rail pitch of its bay; slides bolt on by their own slots. [mm]

    Returns
    -------
    Expansion
        Its solids, zones, masses, parts and likeness.
    """
    w, d, h = unit.width, unit.depth, unit.height
    s = min(unit.slide_height, h * 0.5)
    gap = rules().running_gap
    vents = {
        "back": Box(0, d, s, w, d + unit.vent, h * 0.7),
        "left": Box(-unit.vent, d * 0.3, s, 0, d, h * 0.7),
        "right": Box(w, d * 0.3, s, w + unit.vent, d, h * 0.7),
    }
    zones = [Zone(Box(-gap, 0, 0, w + gap, d, h), "running")]
    if unit.vent > 0:
        zones.append(Zone(vents[unit.vent_side], "vent"))
    if unit.lid_gap > 0:
        zones.append(Zone(Box(0, 0, h, w, d, h + unit.lid_gap), "running"))
    body = (w / 2, d / 2, s + (h - s) * 0.42)
    inside = (w / 2, d / 2, s + (h - s) * 0.5)
    return Expansion(
        (
            Solid(Box(0, 0, 0, w, d, s), "bought", moves=False),
            Solid(Box(6, 10, s, w - 6, d, h), "bought", moves=True),
        ),
        tuple(zones),
        (
            Lump("fridge", unit.mass, unit.mass_source, body),
            Lump("slide", unit.slide_mass, "data sheet", (w / 2, d / 2, s / 2)),
            Lump("contents", unit.contents, unit.contents_source, inside, "contents"),
        ),
        (
            Hardware(f"chest fridge, {unit.litres:g} l", unit.id),
            Hardware(f"fridge slide, {unit.slide_rating:g} kg", unit.id),
        ),
        Box(0, 0, 0, w, d, h),
        likeness(unit),
        travel=d,
        slide_rating=unit.slide_rating,
        slide_load=unit.mass + unit.contents + unit.slide_mass / 2,
    )


def likeness(unit: Fridge) -> Scene:
    """Draw the fridge's end: slide with its handle, body, lid, grille, display."""
    w, h = unit.width, unit.height
    s = min(unit.slide_height, h * 0.5)
    lid = h - (h - s) * 0.17
    strokes: list[Stroke] = [
        rectangle("bought dark", 0, 0, w, s),
        rectangle("detail", w * 0.3, s * 0.25, w * 0.7, s * 0.6, s * 0.15),
        rectangle("bought", 6, s, w - 6, h, 26),
        line("detail", (6, lid), (w - 6, lid)),
        rectangle("bought dark", w * 0.36, lid - 14, w * 0.64, lid + 16, 5),
    ]
    top = s + (lid - s) * 0.5
    for i in range(5):
        k = s + 26 + i * (top - s - 26) / 4
        strokes.append(line("detail", (w * 0.14, k), (w * 0.46, k)))
    strokes.append(rectangle("screen", w * 0.6, top - 6, w * 0.86, top + 26, 4))
    strokes.append(Disc("fitting", (w * 0.73, top - 28), 8))
    return tuple(strokes)
