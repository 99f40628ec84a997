"""Water tank: two folded shells, ends and baffles, welded."""

from roomy_hull.core.errors import InputError
from roomy_hull.core.sheetmetal import Hardware, Hole, Part, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Disc, Outline, Scene, Stroke, line, rectangle
from roomy_hull.job.unit import Tank
from roomy_hull.kit.expansion import Expansion, Lump, Solid, part_mass

WELD_LAP = 15.0
"""Flange on each end and baffle by which it is welded in (common practice). [mm]"""


def inside(unit: Tank) -> tuple[float, float, float]:
    """Give the tank's inside sizes along u, v and w.

    Parameters
    ----------
    unit : Tank
        The tank, by its outside sizes. [mm]

    Returns
    -------
    tuple of float
        Each outside size less two sheets. [mm]

    Raises
    ------
    InputError
        The sheets leave no room inside.
    """
    a, b, c = (x - 2 * unit.sheet for x in (unit.width, unit.depth, unit.height))
    if min(a, b, c) < 20:
        raise InputError(
            "the sheets leave no room inside the tank",
            place=unit.name,
            remedy="Make it larger or its sheet thinner.",
        )
    return a, b, c


def litres(unit: Tank) -> float:
    """Give the tank's volume from the inside of the metal, less the baffles and their flanges.

    Parameters
    ----------
    unit : Tank
        The tank, by its outside sizes. [mm]

    Returns
    -------
    float
        Volume. [l]

    Raises
    ------
    InputError
        The sheets leave no room inside.
    """
    a, b, c = inside(unit)
    baffle = (a * c + 2 * (WELD_LAP - unit.sheet) * (a + c)) * unit.sheet
    return max(0.0, (a * b * c - unit.baffles * baffle) * 1e-6)


def parts(unit: Tank) -> tuple[Part, ...]:
    """Give what is cut and bought for one tank.

    The lower shell is bottom and two sides in one fold, the lid lies on it, ends and baffles
    stand across its depth.

    Parameters
    ----------
    unit : Tank
        The tank. [mm]

    Returns
    -------
    tuple of Part
        Shell, lid, two ends, baffles, filler and outlet.

    Raises
    ------
    InputError
        The sheets leave no room inside.
    """
    a, _b, c = inside(unit)
    made: list[Part] = [
        SheetPart(f"{unit.name}: shell", unit.id, unit.width, unit.depth, unit.sheet,
                  unit.material, left=unit.height - unit.sheet, right=unit.height - unit.sheet),
        SheetPart(f"{unit.name}: lid", unit.id, unit.width, unit.depth, unit.sheet, unit.material,
                  holes=(Hole(60.0, 60.0, unit.inlet),) if unit.inlet else ()),
        SheetPart(f"{unit.name}: end", unit.id, a, c, unit.sheet, unit.material, count=2),
    ]  # fmt: skip
    if unit.baffles:
        made.append(
            SheetPart(f"{unit.name}: baffle", unit.id, a, c, unit.sheet, unit.material,
                      left=WELD_LAP, right=WELD_LAP, front=WELD_LAP, back=WELD_LAP,
                      holes=tuple(Hole(a * x, c * y, min(60.0, a / 5, c / 5))
                                  for x in (0.25, 0.75) for y in (0.3, 0.7)),
                      count=unit.baffles)
        )  # fmt: skip
    made.append(Hardware(f"filler {unit.inlet:g} mm, breather and outlet", unit.id))
    return tuple(made)


def expand(unit: Tank, pitch: float) -> Expansion:  # ruff: ignore[unused-function-argument]  # one signature for all kinds
    """Write a tank out, its water included.

    Parameters
    ----------
    unit : Tank
        The tank. [mm, kg]
    pitch : float
        Rail pitch of its bay; tanks stand in straps. [mm]

    Returns
    -------
    Expansion
        Its solids, masses, parts and likeness; water at 1 kg/l scales with the scenario.

    Raises
    ------
    InputError
        The sheets leave no room inside.
    """
    w, d, h = unit.width, unit.depth, unit.height
    made = parts(unit)
    middle = (w / 2, d / 2, h / 2)
    return Expansion(
        (Solid(Box(0, 0, 0, w, d, h), "tank"),),
        (),
        (
            Lump("sheet metal", part_mass(made), "geometry", middle),
            Lump("water", litres(unit), "geometry", middle, "water"),
        ),
        made,
        Box(0, 0, 0, w, d, h),
        likeness(unit),
    )


def likeness(unit: Tank) -> Scene:
    """Draw the tank's face: shell, sight gauge, waves, filler, straps."""
    w, h = unit.width, unit.height
    strokes: list[Stroke] = [rectangle("tank", 0, 0, w, h, 10)]
    level = h * 0.86
    wave = [(0.0, level)]
    steps = 8
    for i in range(1, steps + 1):
        wave.append((w * i / steps, level + (7 if i % 2 else -7) * (0 < i < steps)))
    strokes.append(Outline("water", (*wave, (w, 0.0), (0.0, 0.0)), radius=8))
    for share in (0.16, 0.84):
        strokes.append(rectangle("bought dark", w * share - 9, 0, w * share + 9, h))
    strokes.append(rectangle("screen", w * 0.5 - 7, h * 0.15, w * 0.5 + 7, h * 0.8, 6))
    for i in range(5):
        k = h * (0.2 + 0.13 * i)
        strokes.append(line("detail", (w * 0.5 + 9, k), (w * 0.5 + 22, k)))
    strokes.append(Disc("fitting", (w * 0.3, h - 26), 13))
    return tuple(strokes)
