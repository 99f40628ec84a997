"""Tube: a slot for long things, drawn out lengthwise at the access face."""

from typing import Annotated

from roomy_hull.core.card import shown
from roomy_hull.core.geometry.motion import Motion, Moved, Step
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, Part, SheetPart
from roomy_hull.core.poses import LID, at
from roomy_hull.core.primitives import Disc, Scene, rectangle
from roomy_hull.core.value import Gap
from roomy_hull.kinds.boxes import LAP, Sized, open_box
from roomy_hull.kinds.common import room_inside
from roomy_hull.kinds.expansion import INWARD, Expansion, Solid, made, sheet_masses
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import Placed, PlainSheet, SheetMaterial


class Tube(Placed, frozen=True, kw_only=True, tag_field="kind", tag="tube"):
    """A tube or slot for long things; they are drawn out at the access face. `width` is its diameter."""

    reach: Annotated[Gap, shown("Drawn out by", "0 for its whole depth")] = 0.0
    sheet: PlainSheet = 2.0
    material: SheetMaterial = "5052-H32"


def expand(unit: Tube, site: Site) -> Expansion:
    """Write a tube out.

    Args:
        unit: The tube, lying inward; what it holds comes out by `reach`, or its whole depth. [mm, kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    Returns: Its solids, masses, parts, the motion of what it holds, and elevation.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    metal = site.material(unit.material)
    parts: tuple[Part, ...] = (
        *open_box(f"{unit.name}: trough", unit.ref, Sized(w - 2 * t, d, (h - t, h - t, 0.0, 0.0), t, metal),
                  site.shop.tools.brake, at(t, 0.0, 0.0), role="floor"),
        SheetPart(f"{unit.name}: cover", unit.ref, w, d, t, metal, left=LAP, right=LAP,
                  poses=(at(0.0, d, h, LID),)),
        Hardware("hinged end cap with latch", unit.ref, fix="rivets",
                 places=(Box(t, 0.0, -1.0, w - t, 20.0, 0.0),)),
    )  # fmt: skip
    solids = [s for p in parts for s in made(p)]
    goods = Box(2 * t, 0, t, w - 2 * t, d, h - t)
    way = Step("slide", INWARD, -(unit.reach or d))
    return Expansion(
        (*solids, Solid(goods, "contents", moves=True)), (), sheet_masses(parts, unit, (w / 2, d / 2, h / 2)),
        parts, Box(0, 0, 0, w, d, h), elevation(unit),
        motions=(Motion("", f"Drawing out of {unit.name}", (Moved(goods),), (way,)),),
    )  # fmt: skip


def elevation(unit: Tube) -> Scene:
    """Draw the tube's mouth with its cap."""
    w, h = unit.width, unit.height
    return (rectangle("front", 0, 0, w, h, min(w, h) * 0.3), Disc("recess", (w / 2, h / 2), min(w, h) * 0.36),
            Disc("fitting", (w / 2, h * 0.9), 6))  # fmt: skip


def offers() -> tuple[Offer, ...]:
    """List the tubes in the stores."""
    return (
        offer(Tube, "tube", "Drawers", "Long tube", (160, 820, 160), "For poles and rods", contents=5),
    )  # fmt: skip


KIND = Kind(
    Tube,
    expand,
    offers,
    rank=60,
    stored=room_inside,
    stance="hang",
    carries=False,
    use="rarely",
)
