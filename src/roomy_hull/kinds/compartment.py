"""Compartment: room for a dog or for crew gear behind a mesh door, with air vents."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.capabilities import Capabilities
from roomy_hull.core.card import shown
from roomy_hull.core.folded import Cutout
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, Part, SheetPart
from roomy_hull.core.poses import BACK, at
from roomy_hull.core.primitives import Disc, Lines, Scene, Stroke, rectangle
from roomy_hull.kinds.boxes import Sized, open_box
from roomy_hull.kinds.common import hinge_remedies, room_inside
from roomy_hull.kinds.expansion import Expansion, Solid, made, sheet_masses, side_door
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import HingeSide, Placed, PlainSheet, SheetMaterial


class Compartment(Placed, frozen=True, kw_only=True, tag_field="kind", tag="compartment"):
    """Room for a dog or for crew gear behind a mesh door; `vents` is the open area of its air vents. [cm²]"""

    use: Annotated[Literal["dog", "crew"], shown("For")] = "dog"
    vents: Annotated[
        float, Meta(ge=0, le=20000, description="cm²"), shown("Open vents, cm²", "Besides the mesh door")
    ] = 600.0  # fmt: skip
    hinge: HingeSide = "left"
    sheet: PlainSheet = 2.0
    material: SheetMaterial = "5052-H32"


DOOR = 25.0
"""Depth of its mesh door in its frame (common practice). [mm]"""
DOG_VENTS = 500.0
"""Open vent area wanted for a dog's compartment, besides its mesh door (common practice). [cm²]"""


def expand(unit: Compartment, site: Site) -> Expansion:
    """Write a compartment out.

    Args:
        unit: The compartment. [mm, cm², kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    Returns: Its solids, masses, parts, the motion of its door, and elevation.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    slot = min(unit.vents * 100 / max(1.0, d * 0.6), h * 0.5)
    cuts = (Cutout(d * 0.2, h * 0.4, d * 0.6, slot, 10.0),) if slot > 5 else ()
    metal = site.material(unit.material)
    parts: tuple[Part, ...] = (
        *open_box(f"{unit.name}: wrap", unit.ref, Sized(w, d - 25, (h - t, h - t, 0.0, 0.0), t, metal),
                  site.shop.tools.brake, at(0.0, 25.0, 0.0), role="floor"),
        SheetPart(f"{unit.name}: roof", unit.ref, w, d - 25, t, metal, poses=(at(0.0, 25.0, h - t),)),
        SheetPart(f"{unit.name}: back", unit.ref, w - 2 * t, h - 2 * t, t, metal,
                  cutouts=cuts if slot + h * 0.4 < h - 4 * t and d * 0.8 < w else (),
                  poses=(at(t, d, t, BACK),)),
        Hardware("mesh door with hinge and two latches", unit.ref),
        Hardware(f"vent louvres, {unit.vents:g} cm² open", unit.ref),
    )  # fmt: skip
    leaf = Box(0, 0, 0, w, 25, h)
    solids = (*(s for p in parts for s in made(p)), Solid(leaf, "front", moves=True))
    return Expansion(
        solids, (), sheet_masses(parts, unit, (w / 2, d / 2, h * 0.35)), parts, Box(0, 0, 0, w, d, h),
        elevation(unit), motions=(side_door(f"Door of {unit.name}", leaf, unit.hinge),),
    )  # fmt: skip


def elevation(unit: Compartment) -> Scene:
    """Draw the mesh door with its frame and latches."""
    w, h = unit.width, unit.height
    found: list[Stroke] = [
        rectangle("front", 0, 0, w, h, 6),
        rectangle("recess", 30, 30, w - 30, h - 30, 10),
    ]
    bars = max(3, int((w - 60) / 45))
    found.append(Lines("mesh", tuple(
        ((30 + (w - 60) * n / bars, 30.0), (30 + (w - 60) * n / bars, h - 30)) for n in range(1, bars))))  # fmt: skip
    rows = max(3, int((h - 60) / 45))
    found.append(Lines("mesh", tuple(
        ((30.0, 30 + (h - 60) * n / rows), (w - 30, 30 + (h - 60) * n / rows)) for n in range(1, rows))))  # fmt: skip
    c = w - 15 if unit.hinge == "left" else 15
    found += [Disc("fitting", (c, h * 0.3), 8), Disc("fitting", (c, h * 0.7), 8)]
    return tuple(found)


def offers() -> tuple[Offer, ...]:
    """List the compartments in the stores."""
    return (
        offer(Compartment, "compartment", "Shelves and walls", "Dog compartment", (600, 700, 600),
              "Mesh door and air vents", contents=25),
    )  # fmt: skip


def air(unit: Compartment) -> tuple[float, float] | None:
    """Compare its vents with what a dog wants. [cm²]"""
    return (unit.vents, DOG_VENTS) if unit.use == "dog" else None


def says(_unit: Compartment, _side: str = "") -> Capabilities:
    """What it is to everybody else: room behind a door."""
    return Capabilities(door=DOOR)


KIND = Kind(
    Compartment, expand, offers, rank=50, handed=("hinge",), stored=room_inside, air=air,
    remedies=hinge_remedies, says=says,
)  # fmt: skip
