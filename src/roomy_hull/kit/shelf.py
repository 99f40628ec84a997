"""Shelf: one folded sheet with a lip in front, so that nothing slides out; fixed, or on slides."""

from roomy_hull.core.sheetmetal import Hardware, Hole, Part, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Disc, Scene, line, rectangle
from roomy_hull.job.unit import Shelf
from roomy_hull.kit.expansion import Expansion, Lump, Solid, part_mass, pull_out, rail_holes


def expand(unit: Shelf, pitch: float) -> Expansion:
    """Write a shelf out.

    Parameters
    ----------
    unit : Shelf
        The shelf; `height` is the space that it keeps for what lies on it. [mm, kg]
    pitch : float
        Rail pitch of its bay. [mm]

    Returns
    -------
    Expansion
        Its solids, zones, masses, parts and likeness.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    lip = min(unit.lip, h)
    flange = min(unit.flange, h)
    parts: tuple[Part, ...] = (
        SheetPart(
            f"{unit.name}: shelf", unit.id, w, d, t, unit.material,
            left=flange, right=flange, front=lip, back=flange,
            holes=tuple(Hole(x, y, 8.5) for x, y in rail_holes(w, d, pitch)),
        ),
    )  # fmt: skip
    solids = [
        Solid(Box(0, 0, 0, w, d, t), "made"),
        Solid(Box(0, t, t, t, d, max(flange, 2 * t)), "made"),
        Solid(Box(w - t, t, t, w, d, max(flange, 2 * t)), "made"),
    ]
    if lip > t:
        solids.append(Solid(Box(0, 0, t, w, t, lip), "made"))
    load = Solid(Box(t, t, t, w - t, d - t, h), "contents")
    solids.append(load)
    if unit.slides:
        parts += (Hardware(f"pair of shelf slides, {unit.slide_rating:g} kg", unit.id),)
        solids = [Solid(s.box, s.role, moves=True) for s in solids]
    travel = d * 0.9 if unit.slides else 0.0
    everything = tuple(s.box for s in solids)
    return Expansion(
        tuple(solids),
        (),
        (
            Lump("slides", unit.slide_mass if unit.slides else 0.0, "data sheet", (w / 2, d / 2, t)),
            Lump("sheet metal", part_mass(parts), "geometry", (w / 2, d / 2, t)),
            Lump("contents", unit.contents, unit.contents_source,
                 (w / 2, d / 2, t + (h - t) * 0.4), "contents"),
        ),
        parts,
        Box(0, 0, 0, w, d, h),
        likeness(unit),
        travel=travel,
        slide_rating=unit.slide_rating if unit.slides else 0.0,
        slide_load=part_mass(parts) + unit.contents if unit.slides else 0.0,
        motions=(pull_out(unit.name, everything, travel, locks=unit.locks),) if unit.slides else (),
        plan=(rectangle("front", 0, 0, w, d, 4), rectangle("space", 8, 12, w - 8, d - 8, 4)),
    )  # fmt: skip


def likeness(unit: Shelf) -> Scene:
    """Draw the shelf's lip and the space above it."""
    w, h, t = unit.width, unit.height, unit.sheet
    lip = max(min(unit.lip, h), 4 * t)
    return (
        rectangle("space", 0, 0, w, h),
        rectangle("front", 0, 0, w, lip, 3),
        line("detail", (8, lip * 0.5), (w - 8, lip * 0.5)),
        Disc("fitting", (24, lip * 0.5), 5),
        Disc("fitting", (w - 24, lip * 0.5), 5),
    )
