"""Case rack: shelves with stops for equal cases, each drawn out by itself."""

from roomy_hull.core.sheetmetal import Part, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Scene, Stroke, rectangle
from roomy_hull.job.unit import CaseRack
from roomy_hull.kit.expansion import Expansion, Lump, Solid, part_mass, pull_out


def cases(unit: CaseRack) -> tuple[Box, ...]:
    """Give every case in its place, row by row from the lowest. [mm]"""
    t, g = unit.sheet, unit.play
    found = []
    for row in range(unit.up):
        for column in range(unit.across):
            u = t + g / 2 + column * (unit.case_width + g + t)
            w = t + row * (unit.case_height + g + t)
            found.append(
                Box(u, 2, w, u + unit.case_width, 2 + unit.case_depth, w + unit.case_height)
            )
    return tuple(found)


def expand(unit: CaseRack, pitch: float) -> Expansion:  # ruff: ignore[unused-function-argument]  # one signature for all kinds
    """Write a case rack out.

    Parameters
    ----------
    unit : CaseRack
        The rack. [mm, kg]
    pitch : float
        Rail pitch of its bay; it bolts through its base. [mm]

    Returns
    -------
    Expansion
        Its solids, masses, parts, one motion for each case, and likeness.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    parts: tuple[Part, ...] = (
        SheetPart(
            f"{unit.name}: shelf",
            unit.id,
            w,
            d,
            t,
            unit.material,
            front=12.0,
            back=25.0,
            count=unit.up,
        ),
        SheetPart(
            f"{unit.name}: wall", unit.id, d, h, t, unit.material, left=20.0, count=unit.across + 1
        ),
    )
    step_u, step_w = unit.case_width + unit.play + t, unit.case_height + unit.play + t
    solids = [Solid(Box(0, 0, n * step_w, w, d, n * step_w + t), "made") for n in range(unit.up)]
    solids += [
        Solid(Box(n * step_u, 0, 0, n * step_u + t, d, h), "made") for n in range(unit.across + 1)
    ]
    boxes = cases(unit)
    solids += [Solid(b, "contents", moves=True) for b in boxes]
    each = unit.contents / len(boxes)
    lumps = [Lump("sheet metal", part_mass(parts), "geometry", (w / 2, d / 2, h * 0.4))]
    lumps += [
        Lump(f"case {n}", each, unit.contents_source, b.centre(), "contents")
        for n, b in enumerate(boxes, 1)
    ]
    motions = tuple(
        pull_out(f"Case {n} of {unit.name}", (b,), unit.case_depth, f"case {n}")
        for n, b in enumerate(boxes, 1)
    )
    return Expansion(
        tuple(solids), (), tuple(lumps), parts, Box(0, 0, 0, w, d, h), likeness(unit), motions=motions,
    )  # fmt: skip


def likeness(unit: CaseRack) -> Scene:
    """Draw rack and cases with their grips."""
    found: list[Stroke] = [rectangle("front", 0, 0, unit.width, unit.height, 3)]
    for b in cases(unit):
        c, m = (b.x0 + b.x1) / 2, (b.z0 + b.z1) / 2
        found += [rectangle("bought dark", b.x0, b.z0, b.x1, b.z1, 14),
                  rectangle("bought", c - 50, m - 14, c + 50, m + 14, 10)]  # fmt: skip
    return tuple(found)
