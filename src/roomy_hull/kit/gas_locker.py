"""Gas locker: the sealed place of a bottle, vented low to the outside, with its own door."""

from roomy_hull.core.errors import InputError
from roomy_hull.core.sheetmetal import Hardware, Hole, SheetPart
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Disc, Scene, line, rectangle
from roomy_hull.job.unit import GasLocker
from roomy_hull.kit.expansion import Expansion, Lump, Solid, sheet_lumps, side_door

BOTTLES: dict[str, tuple[float, float, float, float]] = {
    "2 kg": (205.0, 330.0, 4.0, 2.0), "4.5 kg": (245.0, 455.0, 6.5, 4.5), "9 kg": (310.0, 580.0, 9.5, 9.0),
}  # fmt: skip
"""Diameter and height over its collar [mm], empty mass and gas [kg] (usual bottles, common practice)."""
VENT = 50.0
"""Bore of each of two drop vents in the floor (common practice; the local gas code decides). [mm]"""
CAUTION = (
    "The locker is sealed from the inside and vents low to the outside, away from ignition; a licensed gas "
    "fitter and the local code decide"
)


def expand(unit: GasLocker, pitch: float) -> Expansion:  # ruff: ignore[unused-function-argument]  # one signature for all kinds
    """Write a gas locker out.

    Parameters
    ----------
    unit : GasLocker
        The locker. [mm]
    pitch : float
        Rail pitch of its bay; it is welded or sealed in. [mm]

    Returns
    -------
    Expansion
        Its solids, masses, parts, the motion of its door, and likeness.

    Raises
    ------
    InputError
        The bottle does not fit into it.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    bore, high, empty, gas = BOTTLES[unit.bottle]
    if min(w, d - 25) < bore + 2 * t + 10 or h < high + 2 * t + 40:
        raise InputError(
            f"a {unit.bottle} bottle of {bore:g} × {high:g} mm does not fit",
            place=unit.name,
            remedy=f"Make it at least {bore + 2 * t + 10:.0f} wide, {bore + 2 * t + 35:.0f} deep and "
            f"{high + 2 * t + 40:.0f} high.",
        )
    parts = (
        SheetPart(f"{unit.name}: wrap", unit.id, w, d, t, unit.material, left=h - t, right=h - t, back=h - t,
                  holes=(Hole(w * 0.3, d * 0.5, VENT), Hole(w * 0.7, d * 0.5, VENT))),
        SheetPart(f"{unit.name}: roof", unit.id, w, d, t, unit.material),
        SheetPart(f"{unit.name}: door", unit.id, w, h, t, unit.material, left=18.0, right=18.0, front=18.0,
                  back=18.0),
        Hardware("seal, hinge, latch, bottle strap and two flanged drop vents", unit.id),
    )  # fmt: skip
    leaf = Box(0, 0, 0, w, 20, h)
    c = (w / 2, (d + 20) / 2)
    bottle = Box(c[0] - bore / 2, c[1] - bore / 2, t, c[0] + bore / 2, c[1] + bore / 2, t + high)
    solids = (
        Solid(Box(0, 20, 0, w, d, t), "made"), Solid(Box(0, 20, t, t, d, h), "made"),
        Solid(Box(w - t, 20, t, w, d, h), "made"), Solid(Box(t, d - t, t, w - t, d, h - t), "made"),
        Solid(Box(t, 20, h - t, w - t, d - t, h), "made"), Solid(bottle, "bought"),
        Solid(leaf, "front", moves=True),
    )  # fmt: skip
    at = (c[0], c[1], t + high * 0.45)
    return Expansion(
        solids, (),
        (*sheet_lumps(parts, unit, at), Lump("bottle", empty, "data sheet", at),
         Lump("gas", gas, "data sheet", at, "contents")),
        parts, Box(0, 0, 0, w, d, h), likeness(unit),
        motions=(side_door(f"Door of {unit.name}", leaf, unit.hinge),),
    )  # fmt: skip


def likeness(unit: GasLocker) -> Scene:
    """Draw the locker's door with its latch, a bottle drawn thin behind it, and the low vents."""
    w, h = unit.width, unit.height
    bore, high, *_ = BOTTLES[unit.bottle]
    c = w / 2
    latch = w - 22 if unit.hinge == "left" else 22
    return (
        rectangle("front", 0, 0, w, h, 8), rectangle("detail", c - bore / 2, 12, c + bore / 2, high * 0.8, bore * 0.3),
        rectangle("detail", c - bore * 0.2, high * 0.8, c + bore * 0.2, high, 8),
        line("detail", (20, 14), (w - 20, 14)), Disc("fitting", (latch, h / 2), 10),
        Disc("recess", (w * 0.3, 24), 9), Disc("recess", (w * 0.7, 24), 9),
    )  # fmt: skip
