"""Fridge: a bought chest on a slide, an upright, or a drawer fridge, with room for its air."""

from roomy_hull.core.motion import Motion, Moved
from roomy_hull.core.sheetmetal import Hardware
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Disc, Scene, Stroke, line, rectangle
from roomy_hull.core.tables import rules
from roomy_hull.job.unit import Fridge
from roomy_hull.kit.expansion import Expansion, Lump, Solid, Zone, lid, pull_out, side_door
from roomy_hull.kit.slide import travel, way_out


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
    s = foot(unit)
    gap = rules().running_gap
    vents = {
        "back": Box(0, d, s, w, d + unit.vent, h * 0.7),
        "left": Box(-unit.vent, d * 0.3, s, 0, d, h * 0.7),
        "right": Box(w, d * 0.3, s, w + unit.vent, d, h * 0.7),
    }
    zones = [Zone(Box(-gap, 0, 0, w + gap, d, h), "running")]
    if unit.vent > 0:
        zones.append(Zone(vents[unit.vent_side], "vent"))
    if unit.lid_gap > 0 and unit.style == "chest":
        zones.append(Zone(Box(0, 0, h, w, d, h + unit.lid_gap), "running"))
    body = (w / 2, d / 2, s + (h - s) * 0.42)
    inside = (w / 2, d / 2, s + (h - s) * 0.5)
    chest = unit.style == "chest"
    lumps = [
        Lump("fridge", unit.mass, unit.mass_source, body),
        Lump("contents", unit.contents, unit.contents_source, inside, "contents"),
    ]
    parts = [Hardware(f"{unit.style} fridge, {unit.litres:g} l", unit.id)]
    solids = [Solid(Box(6, 10, s, w - 6, d, h), "bought", moves=unit.style != "upright")]
    if chest:
        lumps.insert(1, Lump("slide", unit.slide_mass, "data sheet", (w / 2, d / 2, s / 2)))
        drops = "drop slide" if unit.slide_style == "drop" else "fridge slide"
        parts.append(Hardware(f"{drops}, {unit.slide_rating:g} kg", unit.id))
    # Its slide, or the feet it stands on.
    solids.insert(0, Solid(Box(0, 0, 0, w, d, s), "bought"))
    carried = unit.mass + unit.contents
    return Expansion(
        tuple(solids),
        tuple(zones),
        tuple(lumps),
        tuple(parts),
        Box(0, 0, 0, w, d, h),
        likeness(unit),
        travel={
            "chest": travel(unit, unit.slide_style == "drop"),
            "drawer": d * 0.85,
            "upright": 0.0,
        }[unit.style],
        slide_rating=unit.slide_rating if chest else 0.0,
        slide_load=carried + unit.slide_mass / 2 if chest else 0.0,
        motions=motions(unit),
        plan=plan(unit),
    )


def foot(unit: Fridge) -> float:
    """Give how high a fridge stands above its base: on its slide, or on its feet. [mm]"""
    return min(unit.slide_height, unit.height * 0.5) if unit.style == "chest" else 12.0


def motions(unit: Fridge) -> tuple[Motion, ...]:
    """Give what opens: chest (out, down, lid up), door or drawer. [mm]"""
    w, d, h, s = unit.width, unit.depth, unit.height, foot(unit)
    if unit.style == "upright":
        hinge = "right" if unit.hinge == "right" else "left"
        return (side_door(unit.name, Box(6, 10, s, w - 6, 60, h), hinge, 110.0, ""),)
    if unit.style == "drawer":
        return (pull_out(unit.name, (Box(6, 10, s, w - 6, d, h),), d * 0.85, locks=unit.locks),)
    split = h - (h - s) * 0.17
    chest, top = Box(6, 10, s, w - 6, d, split), Box(6, 10, split, w - 6, d, h)
    drops = unit.slide_style == "drop"
    out = way_out(unit, drops, "chest", "lid")
    sunk = -unit.drop if drops else 0.0
    up = lid(top.moved(0, 0, sunk), unit.hinge, travel(unit, drops))
    return (
        Motion("", unit.name, (Moved(chest, "chest"), Moved(top, "lid")), (*out, up), unit.locks),
    )


def plan(unit: Fridge) -> Scene:
    """Draw the fridge from above, open: the chest's basket, or the body of the others."""
    w, d = unit.width, unit.depth
    found: list[Stroke] = [rectangle("bought", 6, 10, w - 6, d, 26)]
    if unit.style == "chest":
        found.append(rectangle("screen", 40, 50, w - 40, d * 0.62, 14))
        found += [line("detail", (40, 50 + (d * 0.62 - 50) * n / 4), (w - 40, 50 + (d * 0.62 - 50) * n / 4))
                  for n in (1, 2, 3)]  # fmt: skip
        found.append(rectangle("bought dark", w * 0.2, d * 0.7, w * 0.8, d - 40, 8))
    elif unit.style == "drawer":
        found.append(rectangle("screen", 40, 50, w - 40, d - 60, 14))
    return tuple(found)


def likeness(unit: Fridge) -> Scene:
    """Draw the fridge as one faces it: slide with its handle, body, lid, door or drawers, grille, display."""
    w, h = unit.width, unit.height
    s = foot(unit)
    if unit.style != "chest":
        return _front(unit, s)
    lid_low = h - (h - s) * 0.17
    strokes: list[Stroke] = [
        rectangle("bought dark", 0, 0, w, s),
        rectangle("detail", w * 0.3, s * 0.25, w * 0.7, s * 0.6, s * 0.15),
        rectangle("bought", 6, s, w - 6, h, 26),
        line("detail", (6, lid_low), (w - 6, lid_low)),
        rectangle("bought dark", w * 0.36, lid_low - 14, w * 0.64, lid_low + 16, 5),
    ]
    top = s + (lid_low - s) * 0.5
    strokes += _grille(w * 0.14, s + 26, w * 0.46, top)
    strokes.append(rectangle("screen", w * 0.6, top - 6, w * 0.86, top + 26, 4))
    strokes.append(Disc("fitting", (w * 0.73, top - 28), 8))
    return tuple(strokes)


def _grille(h0: float, k0: float, h1: float, k1: float) -> list[Stroke]:
    """Draw the lines of an air grille."""
    return [
        line("detail", (h0, k0 + n * (k1 - k0) / 4), (h1, k0 + n * (k1 - k0) / 4)) for n in range(5)
    ]


def _front(unit: Fridge, s: float) -> Scene:
    """Draw an upright fridge's door with its handle, or the fronts of a drawer fridge."""
    w, h = unit.width, unit.height
    strokes: list[Stroke] = [rectangle("bought", 6, s, w - 6, h, 12)]
    if unit.style == "upright":
        c = w - 40 if unit.hinge != "right" else 40
        strokes += [rectangle("bought dark", c - 9, h * 0.4, c + 9, h * 0.8, 8),
                    rectangle("screen", w * 0.35, h - 60, w * 0.65, h - 36, 4),
                    line("detail", (6, s + 70), (w - 6, s + 70))]  # fmt: skip
        strokes += _grille(40, s + 14, w - 40, s + 56)
    else:
        middle = s + (h - s) * 0.5
        strokes += [line("detail", (6, middle), (w - 6, middle)),
                    rectangle("bought dark", w * 0.25, middle - 34, w * 0.75, middle - 16, 8),
                    rectangle("bought dark", w * 0.25, h - 40, w * 0.75, h - 22, 8)]  # fmt: skip
    return tuple(strokes)
