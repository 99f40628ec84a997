"""Gas locker: the sealed place of a bottle, vented low to the outside, with its own door."""

from typing import Literal

from roomy_hull.core.errors import InputError
from roomy_hull.core.fill import CONTENTS
from roomy_hull.core.folded import Hole
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, SheetPart
from roomy_hull.core.standing import FACE, at
from roomy_hull.core.strokes import Disc, Scene, line, rectangle
from roomy_hull.core.value import BentSheet
from roomy_hull.kinds import card
from roomy_hull.kinds.card import Field
from roomy_hull.kinds.common import hinge_remedies
from roomy_hull.kinds.expansion import Expansion, PointMass, Solid, made, sheet_masses, side_door
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import Placed


class GasLocker(Placed, frozen=True, kw_only=True, tag_field="kind", tag="gas locker"):
    """The place of a gas bottle: sealed from the inside, vented low to the outside, its own door."""

    bottle: Literal["2 kg", "4.5 kg", "9 kg"] = "4.5 kg"
    hinge: Literal["left", "right"] = "left"
    sheet: BentSheet = 2.0
    material: str = "5052-H32"


BOTTLES: dict[str, tuple[float, float, float, float]] = {
    "2 kg": (205.0, 330.0, 4.0, 2.0), "4.5 kg": (245.0, 455.0, 6.5, 4.5), "9 kg": (310.0, 580.0, 9.5, 9.0),
}  # fmt: skip
"""Diameter and height over its collar [mm], empty mass and gas [kg] (usual bottles, common practice)."""
VENT = 80.0
"""Bore of each of two drop vents in the floor: together the 100 cm² of EN 1949, from memory; the local code decides. [mm]"""
CAUTION = (
    "The locker is sealed from the inside and vents low to the outside, away from ignition; a licensed gas "
    "fitter and the local code decide"
)


def expand(unit: GasLocker, site: Site) -> Expansion:
    """Write a gas locker out.

    Parameters
    ----------
    unit : GasLocker
        The locker. [mm]
    site : Site
        Rail pitch of its bay, and the shop's materials and rules. [mm]

    Returns
    -------
    Expansion
        Its solids, masses, parts, the motion of its door, and elevation.

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
    metal = site.material(unit.material)
    parts = (
        SheetPart(f"{unit.name}: wrap", unit.ref, w, d - 20, t, metal, left=h - t, right=h - t, back=h - t,
                  stands=(at(0.0, 20.0, 0.0),), holes=(Hole(w * 0.27, d * 0.5, VENT), Hole(w * 0.73, d * 0.5, VENT))),
        SheetPart(f"{unit.name}: roof", unit.ref, w, d - 20, t, metal, stands=(at(0.0, 20.0, h - t),)),
        SheetPart(f"{unit.name}: door", unit.ref, w, h, t, metal, left=20.0, right=20.0, front=20.0,
                  back=20.0, stands=(at(0.0, 0.0, h, FACE),)),
        Hardware("seal, hinge, latch, bottle strap and two flanged drop vents", unit.ref),
    )  # fmt: skip
    leaf = made(parts[2], whole=True)[0].box
    c = (w / 2, (d + 20) / 2)
    bottle = Box(c[0] - bore / 2, c[1] - bore / 2, t, c[0] + bore / 2, c[1] + bore / 2, t + high)
    solids = (
        *made(parts[0]), *made(parts[1]), Solid(bottle, "bought"), Solid(leaf, "front", moves=True),
    )  # fmt: skip
    middle = (c[0], c[1], t + high * 0.45)
    return Expansion(
        solids, (),
        (*sheet_masses(parts, unit, middle), PointMass("bottle", empty, "data sheet", middle),
         PointMass("gas", gas, "data sheet", middle, CONTENTS)),
        parts, Box(0, 0, 0, w, d, h), elevation(unit),
        motions=(side_door(f"Door of {unit.name}", leaf, unit.hinge),),
    )  # fmt: skip


def elevation(unit: GasLocker) -> Scene:
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


def fields() -> tuple[Field, ...]:
    """Describe what the card shows of a gas locker."""
    return (
        card.choice("bottle", "Bottle", "Its gas", *BOTTLES),
        card.HINGE,
        card.SHEET,
        card.MATERIAL,
    )


def offers() -> tuple[Offer, ...]:
    """List the gas lockers in the stores."""
    return (
        offer(GasLocker, "gas-locker", "Kitchen", "Gas locker", (270, 300, 510),
              "Sealed inside, vented low to the outside; a licensed gas fitter decides"),
    )  # fmt: skip


KIND = Kind(
    GasLocker, expand, fields, offers, rank=30, handed=("hinge",), caution=lambda _unit: CAUTION + ".",
    remedies=hinge_remedies,
)  # fmt: skip
