"""Gas locker: the sealed place of a bottle, vented low to the outside, with its own door."""

import math
from typing import Annotated, Literal

from roomy_hull.core.capabilities import Capabilities
from roomy_hull.core.card import shown
from roomy_hull.core.errors import InputError
from roomy_hull.core.fill import CONTENTS
from roomy_hull.core.folded import Hole
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, Part, SheetPart
from roomy_hull.core.poses import FACE, at
from roomy_hull.core.primitives import Disc, Scene, line, rectangle
from roomy_hull.core.services.bottles import BOTTLES, USUAL_BOTTLE
from roomy_hull.core.value import BentSheet
from roomy_hull.kinds.boxes import Sized, open_box
from roomy_hull.kinds.common import hinge_remedies
from roomy_hull.kinds.expansion import Expansion, PointMass, Solid, made, sheet_masses, side_door
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import HingeSide, Placed, SheetMaterial


class GasLocker(Placed, frozen=True, kw_only=True, tag_field="kind", tag="gas locker"):
    """The place of a gas bottle: sealed from the inside, vented low to the outside, its own door."""

    bottle: Annotated[Literal["2 kg", "4.5 kg", "9 kg"], shown("Bottle", "Its gas")] = USUAL_BOTTLE
    hinge: HingeSide = "left"
    sheet: Annotated[BentSheet, shown("Sheet")] = 2.0
    material: SheetMaterial = "5052-H32"


VENT = 80.0
"""Bore of each of two drop vents in the floor: together the 100 cm² of EN 1949, from memory; the local code decides. [mm]"""
CAUTION = (
    "The locker is sealed from the inside and vents low to the outside, away from ignition; a licensed gas "
    "fitter and the local code decide"
)


def expand(unit: GasLocker, site: Site) -> Expansion:
    """Write a gas locker out.

    Args:
        unit: The locker. [mm]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    Returns: Its solids, masses, parts, the motion of its door, and elevation.
    Raises:
        InputError: The bottle does not fit into it.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    bottle = BOTTLES[unit.bottle]
    bore, high = bottle.bore, bottle.high
    if min(w, d - 25) < bore + 2 * t + 10 or h < high + 2 * t + 40:
        raise InputError(
            f"a {unit.bottle} bottle of {bore:g} × {high:g} mm does not fit",
            place=unit.name,
            remedy=f"Make it at least {bore + 2 * t + 10:.0f} wide, {bore + 2 * t + 35:.0f} deep and "
            f"{high + 2 * t + 40:.0f} high.",
        )
    metal = site.material(unit.material)
    latch = latch_at(unit)
    vents = tuple((w * share, d * 0.5) for share in (0.27, 0.73))
    wrap = open_box(
        f"{unit.name}: wrap", unit.ref, Sized(w, d - 20, (h - t, h - t, 0.0, h - t), t, metal), site.shop.tools.brake,
        at(0.0, 20.0, 0.0), join="tight", holes=tuple(Hole(x, y, VENT) for x, y in vents),
    )  # fmt: skip
    roof = SheetPart(
        f"{unit.name}: roof",
        unit.ref,
        w,
        d - 20,
        t,
        metal,
        join="tight",
        poses=(at(0.0, 20.0, h - t),),
    )
    door = SheetPart(f"{unit.name}: door", unit.ref, w, h, t, metal, left=20.0, right=20.0, front=20.0, back=20.0,
                     holes=(Hole(latch, h / 2, 22.0),), group="door", poses=(at(0.0, 0.0, h, FACE),))  # fmt: skip
    parts: tuple[Part, ...] = (
        *wrap, roof, door,
        Hardware("door seal", unit.ref, metres=round(2 * (w + h) / 1000, 2)),
        Hardware("piano hinge, riveted to wrap and door", unit.ref, metres=round(h / 1000, 2), links=("", "door"),
             sort="hinge"),
        Hardware("turn latch", unit.ref, fix="clamped", opening=True,
                 places=(Box(latch - 10, 0, h / 2 - 10, latch + 10, 18, h / 2 + 10),)),
        Hardware("bottle strap", unit.ref),
        Hardware(f"flanged drop vent {VENT:g} mm", unit.ref, 2, fix="clamped", opening=True,
                 places=tuple(Box(x - VENT / 2 + 1, 20 + y - VENT / 2 + 1, 0, x + VENT / 2 - 1, 20 + y + VENT / 2 - 1, 6)
                              for x, y in vents)),
    )  # fmt: skip
    leaf = made(door, whole=True)[0].box
    c = (w / 2, (d + 20) / 2)
    steel = Box(c[0] - bore / 2, c[1] - bore / 2, t, c[0] + bore / 2, c[1] + bore / 2, t + high)
    solids = (
        *(s for p in wrap for s in made(p)), *made(roof), Solid(steel, "bought"), Solid(leaf, "front", moves=True),
    )  # fmt: skip
    middle = (c[0], c[1], t + high * 0.45)
    return Expansion(
        solids, (),
        (*sheet_masses(parts, unit, middle), PointMass("bottle", bottle.empty, "data sheet", middle),
         PointMass("gas", bottle.gas, "data sheet", middle, CONTENTS)),
        parts, Box(0, 0, 0, w, d, h), elevation(unit),
        motions=(side_door(f"Door of {unit.name}", leaf, unit.hinge),),
    )  # fmt: skip


def latch_at(unit: GasLocker) -> float:
    """Where its latch stands along the door, clear of its bends. [mm]"""
    return unit.width - 45.0 if unit.hinge == "left" else 45.0


def elevation(unit: GasLocker) -> Scene:
    """Draw the locker's door with its latch, a bottle drawn thin behind it, and the low vents."""
    w, h = unit.width, unit.height
    bore, high = BOTTLES[unit.bottle].bore, BOTTLES[unit.bottle].high
    c = w / 2
    latch = latch_at(unit)
    return (
        rectangle("front", 0, 0, w, h, 8), rectangle("detail", c - bore / 2, 12, c + bore / 2, high * 0.8, bore * 0.3),
        rectangle("detail", c - bore * 0.2, high * 0.8, c + bore * 0.2, high, 8),
        line("detail", (20, 14), (w - 20, 14)), Disc("fitting", (latch, h / 2), 10),
        Disc("recess", (w * 0.3, 24), 9), Disc("recess", (w * 0.7, 24), 9),
    )  # fmt: skip


def offers() -> tuple[Offer, ...]:
    """List the gas lockers in the stores."""
    return (
        offer(GasLocker, "gas-locker", "Kitchen", "Gas locker", (270, 300, 510),
              "Sealed inside, vented low to the outside; a licensed gas fitter decides"),
    )  # fmt: skip


def says(unit: GasLocker, _side: str = "") -> Capabilities:
    """What it is to everybody else: its bottle, and the two drop vents in its floor."""
    vents = 2 * math.pi / 4 * VENT**2 / 100.0
    return Capabilities(roles=frozenset({"gas"}), bottle=BOTTLES[unit.bottle], vents=vents,
                        sealed="its door's seal")  # fmt: skip


KIND = Kind(
    GasLocker, expand, offers, rank=30, handed=("hinge",), caution=lambda _unit: CAUTION + ".",
    remedies=hinge_remedies, carries=False, says=says,
)  # fmt: skip
