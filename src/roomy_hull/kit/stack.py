"""Stack: drawers of different heights, one above another in one carcass."""

import msgspec

from roomy_hull.core.sheetmetal import Hole, Part, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Outline, Panel, Stroke
from roomy_hull.core.tables import rules
from roomy_hull.job.unit import Drawer, Stack
from roomy_hull.kit import drawer
from roomy_hull.kit.expansion import Expansion, Lump, Solid, Zone, part_mass, pull_out, rail_holes


def drawers(unit: Stack) -> tuple[tuple[float, Drawer], ...]:
    """Give each drawer of a stack with the height at which it begins. [mm]"""
    found, low = [], 0.0
    share = sum(unit.heights)
    for n, high in enumerate(unit.heights, 1):
        one = Drawer(
            id=unit.id, name=f"{unit.name} {n}", bay=unit.bay, width=unit.width, depth=unit.depth,
            height=high, contents=unit.contents * high / share, contents_source=unit.contents_source,
            carcass=unit.carcass, sheet=unit.sheet, front=unit.front, slide=unit.slide,
            slide_rating=unit.slide_rating, slide_mass=unit.slide_mass, locks=unit.locks,
            lockable=unit.lockable, material=unit.material,
        )  # fmt: skip
        found.append((low, one))
        low += high
    return tuple(found)


def parts(unit: Stack, pitch: float) -> tuple[Part, ...]:
    """Give what is cut and bought: one carcass, and box, front and slides of each drawer.

    Parameters
    ----------
    unit : Stack
        The stack. [mm]
    pitch : float
        Rail pitch on which the carcass bolts down. [mm]

    Returns
    -------
    tuple of Part
        From the carcass to the uppermost slides.

    Raises
    ------
    InputError
        A drawer is too low or too narrow for its box.
    """
    depth = unit.depth - unit.front
    made: list[Part] = [
        SheetPart(f"{unit.name}: carcass", unit.id, unit.width, depth, unit.carcass, unit.material,
                  left=unit.height, right=unit.height,
                  holes=tuple(Hole(x, y, 8.5) for x, y in rail_holes(unit.width, depth, pitch))),
    ]  # fmt: skip
    for _low, one in drawers(unit):
        made += drawer.parts(one, 0.0)[1:]
    return tuple(made)


def expand(unit: Stack, pitch: float) -> Expansion:
    """Write a stack out.

    Parameters
    ----------
    unit : Stack
        The stack. [mm, kg]
    pitch : float
        Rail pitch of its bay. [mm]

    Returns
    -------
    Expansion
        Its solids, zones, masses, parts, one motion for each drawer, and likeness.

    Raises
    ------
    InputError
        A drawer is too low or too narrow for its box.
    """
    made = parts(unit, pitch)
    w, d, h, t, f = unit.width, unit.depth, unit.height, unit.carcass, unit.front
    solids = [Solid(Box(0, f, 0, w, d, t), "made"), Solid(Box(0, f, t, t, d, h), "made"),
              Solid(Box(w - t, f, t, w, d, h), "made")]  # fmt: skip
    motions, strokes, lumps, load = [], [], [], 0.0
    travel = d - f - 25
    for n, (low, one) in enumerate(drawers(unit), 1):
        own = drawer.expand(one, 0.0)
        boxes = [msgspec.structs.replace(s, box=s.box.moved(0, 0, low)) for s in own.solids[3:]]
        solids += boxes
        moving = tuple(b.box for b in boxes if b.moves)
        motions.append(pull_out(one.name, moving, travel, str(n), locks=unit.locks))
        strokes += [_raised(s, low) for s in own.likeness]
        at = (w / 2, d / 2, low + one.height * 0.45)
        lumps.append(Lump(f"contents {n}", one.contents, one.contents_source, at, "contents"))
        load = max(load, own.slide_load)
    gap = rules().running_gap
    middle = (w / 2, d / 2, h * 0.45)
    return Expansion(
        tuple(solids),
        (Zone(Box(-gap, 0, -gap, w + gap, f, h + gap), "running"),),
        (
            Lump("sheet metal", part_mass(made), "geometry", middle),
            Lump("slides", unit.slide_mass * len(unit.heights), "data sheet", middle),
            *lumps,
        ),
        made,
        Box(0, 0, 0, w, d, h),
        tuple(strokes),
        travel=travel,
        slide_rating=unit.slide_rating,
        slide_load=load,
        motions=tuple(motions),
        plan=drawer.plan(drawers(unit)[0][1]),
    )


def _raised(stroke: Stroke, by: float) -> Stroke:
    """Shift a stroke of a drawer's front up. [mm]"""
    if isinstance(stroke, Panel):
        return msgspec.structs.replace(stroke, k0=stroke.k0 + by, k1=stroke.k1 + by)
    if isinstance(stroke, Outline):
        return msgspec.structs.replace(stroke, points=tuple((h, k + by) for h, k in stroke.points))
    h, k = stroke.centre  # type: ignore[union-attr]  # a drawer's front has panels, lines and discs
    return msgspec.structs.replace(stroke, centre=(h, k + by))
