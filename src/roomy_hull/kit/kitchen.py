"""Kitchen: a galley that pulls out with fold-out worktops, drops down, or lies flush in a bench."""

from roomy_hull.core.motion import Motion, Moved, Step
from roomy_hull.core.sheetmetal import Hardware, Part, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Disc, Scene, Stroke, line, rectangle
from roomy_hull.core.tables import rules
from roomy_hull.job.unit import Kitchen
from roomy_hull.kit.expansion import (
    INWARD,
    Expansion,
    Lump,
    Solid,
    Zone,
    lid,
    part_mass,
    pull,
    sheet_lumps,
)

WALL_CLEAR = 80.0
LEAF = 20.0
"""Thickness of a folded worktop leaf (common practice). [mm]"""
FITTINGS: dict[str, tuple[str, float]] = {
    "burner": ("two-flame gas burner", 3.2), "induction": ("portable induction plate", 2.9),
    "sink": ("folded sink with trap", 1.8), "tap": ("fold-down tap", 0.7), "oven": ("12 V oven", 5.5),
    "spice_rack": ("spice rack", 0.6), "cutlery": ("cutlery tray", 0.9),
}  # fmt: skip
"""What is bought for a galley, and its usual mass (common practice). [kg]"""


def fitted(unit: Kitchen) -> list[str]:
    """Name what is built in, in a fixed order."""
    found = [] if unit.cooker == "none" else [unit.cooker]
    return found + [n for n in ("sink", "tap", "oven", "spice_rack", "cutlery") if getattr(unit, n)]


def parts(unit: Kitchen) -> tuple[Part, ...]:
    """Give what is cut and bought: box, worktop, leaves, front, fittings. [mm]"""
    w, d, t = unit.width, unit.depth - unit.front, unit.sheet
    h = max(60.0, unit.height - 30)
    made: list[Part] = [
        SheetPart(f"{unit.name}: front", unit.id, w, unit.height, unit.front, unit.material),
        SheetPart(f"{unit.name}: box", unit.id, w - 40, d - 25, t, unit.material, left=h, right=h, front=h,
                  back=h),
        SheetPart(f"{unit.name}: worktop", unit.id, w - 40, d - 25, 2.0, unit.material, left=18.0, right=18.0),
    ]  # fmt: skip
    for side, leaf in (("left", unit.leaf_left), ("right", unit.leaf_right)):
        if unit.style == "pull-out" and leaf:
            made += [SheetPart(f"{unit.name}: {side} leaf", unit.id, min(leaf, unit.height - 40), d - 60, 2.0,
                               unit.material, front=LEAF - 3, back=LEAF - 3),
                     Hardware(f"hinge and stay for the {side} leaf", unit.id)]  # fmt: skip
    made += [Hardware(FITTINGS[n][0], unit.id) for n in fitted(unit)]
    made.append(Hardware(f"pair of locking slides, {unit.slide_rating:g} kg", unit.id))
    return tuple(made)


def expand(unit: Kitchen, pitch: float) -> Expansion:  # ruff: ignore[unused-function-argument]  # one signature for all kinds
    """Write a kitchen out.

    Parameters
    ----------
    unit : Kitchen
        The kitchen. [mm, kg]
    pitch : float
        Rail pitch of its bay; its slides bolt on by their own slots. [mm]

    Returns
    -------
    Expansion
        Its solids, zones, masses, parts, motion and likeness.
    """
    w, d, h, f = unit.width, unit.depth, unit.height, unit.front
    made = parts(unit)
    gap = rules().running_gap
    box, face = Box(20, f, 10, w - 20, d - 25, h - LEAF), Box(0, 0, 0, w, f, h)
    top = Box(20, f, h - LEAF, w - 20, d - 25, h)
    rails = (Solid(Box(0, f, h / 2 - 22, 19, d, h / 2 + 22), "bought"),
             Solid(Box(w - 19, f, h / 2 - 22, w, d, h / 2 + 22), "bought"))  # fmt: skip
    out = unit.style != "drop-down"
    solids: tuple[Solid, ...] = (
        *rails, Solid(box, "made", moves=out), Solid(top, "made", moves=out), Solid(face, "front", moves=True)
    )  # fmt: skip
    travel = d - f - 25
    fittings = sum(FITTINGS[n][1] for n in fitted(unit))
    motion = _motion(unit, box, top, face, travel)
    travel = travel if out else 0.0
    return Expansion(
        solids,
        (Zone(Box(-gap, 0, -gap, w + gap, f, h + gap), "running"),),
        (
            *sheet_lumps(made, unit, (w / 2, d / 2, h * 0.4)),
            Lump("slides", unit.slide_mass, "data sheet", (w / 2, d / 2, h / 2)),
            Lump("burner, sink and fittings", fittings, "data sheet", (w / 2, d / 2, h * 0.8)),
        ),
        made,
        Box(0, 0, 0, w, d, h),
        likeness(unit),
        travel=travel,
        slide_rating=unit.slide_rating if travel else 0.0,
        slide_load=part_mass(made) + unit.contents + fittings + unit.slide_mass / 2
        if travel
        else 0.0,
        motions=(motion,),
        plan=plan(unit),
    )


def _motion(unit: Kitchen, box: Box, top: Box, face: Box, travel: float) -> Motion:
    """Give how the kitchen comes out, by its style. [mm]"""
    w, h = unit.width, unit.height
    if unit.style == "drop-down":
        panel = Box(0, 0, 0, w, max(40.0, unit.front), h)
        return Motion("", unit.name, (Moved(panel),), (Step("fold", 0, 90.0),), unit.locks)
    moved = [Moved(box, "box"), Moved(face, "box")]
    if unit.style == "flush":
        out = Step("slide", INWARD, -travel, ("box", "lid"))
        return Motion(
            "", unit.name, (*moved, Moved(top, "lid")), (out, lid(top, "back", travel)), unit.locks
        )
    moved.append(Moved(top, "box"))
    steps = [Step("slide", INWARD, -travel, ("box", "left", "right"))]
    high = h - LEAF - 20
    # Behind, the leaves stay clear of the wall that the box has come out through.
    v0, v1 = box.y0 + 30, box.y1 - WALL_CLEAR
    for side, wide in (("left", unit.leaf_left), ("right", unit.leaf_right)):
        if wide <= 0:
            continue
        hang = min(wide, high)
        left = side == "left"
        u0 = box.x0 if left else box.x1 - LEAF
        moved.append(Moved(Box(u0, v0, h - LEAF - hang, u0 + LEAF, v1, h - LEAF), side))
        pivot = (box.x0 if left else box.x1, h - LEAF)
        # Hanging inside the side of the box, it turns up and out until level with the worktop's lower face.
        steps.append(Step("fold", 1, -90.0 if left else 90.0, (side,), pivot))
    return Motion("", unit.name, tuple(moved), tuple(steps), unit.locks)


def likeness(unit: Kitchen) -> Scene:
    """Draw the kitchen's front: panel, pull, worktop edge, the folded leaves' edges."""
    w, h = unit.width, unit.height
    found: list[Stroke] = [
        rectangle("front", 0, 0, w, h, 4),
        rectangle("bought dark", 20, h - 14, w - 20, h - 4, 3),
    ]
    if unit.style == "drop-down":
        found += [rectangle("detail", 24, 24, w - 24, h - 34, 8), Disc("fitting", (40, h - 44), 9),
                  Disc("fitting", (w - 40, h - 44), 9)]  # fmt: skip
    else:
        found += pull(w, h - 20)
    if unit.oven:
        found.append(rectangle("screen", w * 0.56, h * 0.16, w * 0.92, h * 0.56, 8))
    if unit.cutlery:
        found += [rectangle("detail", w * 0.06, h * 0.12, w * 0.46, h * 0.34, 4),
                  line("detail", (w * 0.2, h * 0.23), (w * 0.32, h * 0.23))]  # fmt: skip
    found.append(Disc("fitting", (w - 24, h - 44), 9))
    return tuple(found)


def plan(unit: Kitchen) -> Scene:
    """Draw the worktop from above as it stands open: sink, tap, flames, rack, and the leaves."""
    w, d = unit.width, unit.depth
    found: list[Stroke] = []
    if unit.style == "pull-out":
        hang = max(0.0, unit.height - LEAF - 20)
        for wide, at in ((unit.leaf_left, -1), (unit.leaf_right, 1)):
            across = min(wide, hang)
            if across > 0:
                h0 = 20 - across if at < 0 else w - 20
                found.append(
                    rectangle("front", h0, unit.front + 30, h0 + across, d - 25 - WALL_CLEAR, 6)
                )
    found.append(rectangle("bought", 20, unit.front, w - 20, d - 25, 8))
    middle = w / 2
    if unit.sink:
        found += [rectangle("screen", 50, d * 0.2, middle - 20, d * 0.62, 30),
                  Disc("fitting", ((50 + middle - 20) / 2, d * 0.41), 16)]  # fmt: skip
    if unit.tap:
        found += [Disc("fitting", (middle * 0.55, d * 0.72), 16),
                  line("steel line", (middle * 0.55, d * 0.72), (middle * 0.55, d * 0.5))]  # fmt: skip
    if unit.cooker != "none":
        radius = min(w * 0.15, d * 0.15)
        for k in (0.28, 0.62):
            centre = (middle + (w - 40) * 0.24, d * k)
            found += [Disc("bought dark", centre, radius), Disc("bought", centre, radius * 0.72),
                      Disc("bought dark", centre, radius * 0.35)]  # fmt: skip
    if unit.spice_rack:
        found += [
            Disc("fitting", (60 + n * 46, d - 58), 15) for n in range(int((w - 120) // 46) + 1)
        ]
    found.append(rectangle("unit face", 0, 0, w, 14))
    return tuple(found)
