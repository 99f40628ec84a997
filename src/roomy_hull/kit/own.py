"""Own: a unit that the user made from boxes and keeps in the stores as an open file."""

from roomy_hull.core.motion import Motion, Moved, Step
from roomy_hull.core.sheetmetal import Hardware
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Scene, rectangle
from roomy_hull.job.unit import Block, Own
from roomy_hull.kit.expansion import INWARD, Expansion, Lump, Solid


def box_of(block: Block) -> Box:
    """Give a block's box from the unit's corner. [mm]"""
    return Box(
        block.u, block.v, block.w,
        block.u + block.width, block.v + block.depth, block.w + block.height,
    )  # fmt: skip


def expand(unit: Own, pitch: float) -> Expansion:  # ruff: ignore[unused-function-argument]  # one signature for all kinds
    """Write a user's own unit out.

    Parameters
    ----------
    unit : Own
        Its boxes, mass and motion. [mm, kg, degrees]
    pitch : float
        Rail pitch of its bay; the user says how it is fixed. [mm]

    Returns
    -------
    Expansion
        Its solids, masses, motion if it has one, and likeness.
    """
    w, d, h = unit.width, unit.depth, unit.height
    solids = tuple(Solid(box_of(b), b.role, b.moves) for b in unit.blocks)
    middle = (w / 2, d / 2, h / 2)
    moved = tuple(Moved(s.box) for s in solids if s.moves)
    steps: list[Step] = []
    if unit.travel:
        steps.append(Step("slide", INWARD, -unit.travel))
    if unit.turn:
        left = unit.hinge == "left"
        pivot = (
            (min(m.box.x0 for m in moved) if left else max(m.box.x1 for m in moved), -unit.travel)
            if moved
            else (0.0, 0.0)
        )
        steps.append(Step("swing", 2, -unit.turn if left else unit.turn, pivot=pivot))
    motions = (Motion("", unit.name, moved, tuple(steps), unit.locks),) if moved and steps else ()
    return Expansion(
        solids, (),
        (Lump(unit.name, unit.mass, unit.mass_source, middle),
         Lump("contents", unit.contents, unit.contents_source, middle, "contents")),
        (Hardware(unit.name, unit.id),), Box(0, 0, 0, w, d, h), likeness(unit),
        travel=unit.travel if motions else 0.0, motions=motions,
    )  # fmt: skip


def likeness(unit: Own) -> Scene:
    """Draw its boxes from the access face, the furthest first."""
    return tuple(
        rectangle(b.role, b.u, b.w, b.u + b.width, b.w + b.height, 4)
        for b in sorted(unit.blocks, key=lambda b: -b.v)
    )
