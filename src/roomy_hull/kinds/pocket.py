"""Open pocket: a folded box without a door, its front low enough to look and reach over."""

from typing import Annotated

from roomy_hull.core.card import shown
from roomy_hull.core.folded import Hole
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.poses import at
from roomy_hull.core.primitives import Scene, line, rectangle
from roomy_hull.core.value import Gap
from roomy_hull.kinds.boxes import Sized, open_box
from roomy_hull.kinds.common import room_inside
from roomy_hull.kinds.expansion import Expansion, Solid, made, rail_holes, sheet_masses
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import Placed, PlainSheet, SheetMaterial


class Pocket(Placed, frozen=True, kw_only=True, tag_field="kind", tag="pocket"):
    """An open folded box with a low front, for what is wanted without opening anything."""

    sheet: PlainSheet = 1.6
    lip: Annotated[Gap, shown("Front", "Low enough to look and reach over")] = 90.0
    material: SheetMaterial = "5052-H32"


def expand(unit: Pocket, site: Site) -> Expansion:
    """Write an open pocket out.

    Args:
        unit: The pocket. [mm, kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    lip = min(unit.lip, h)
    holes = tuple(Hole(x, y, 8.5) for x, y in rail_holes(w, d, site.pitch, site.phase))
    parts = open_box(
        f"{unit.name}: pocket", unit.ref, Sized(w, d, (h, h, lip, h), t, site.material(unit.material)),
        site.shop.tools.brake, at(0.0, 0.0, 0.0), role="floor", holes=holes,
    )  # fmt: skip
    solids = (
        *(s for p in parts for s in made(p)), Solid(Box(t, t, t, w - t, d - t, h), "contents"),
    )  # fmt: skip
    return Expansion(
        solids, (), sheet_masses(parts, unit, (w / 2, d / 2, h * 0.35)), parts, Box(0, 0, 0, w, d, h),
        elevation(unit),
    )  # fmt: skip


def elevation(unit: Pocket) -> Scene:
    """Draw the opening, its low front, and the sides."""
    w, h, lip = unit.width, unit.height, min(unit.lip, unit.height)
    return (
        rectangle("front", 0, 0, w, h, 6),
        rectangle("recess", 10, lip, w - 10, h - 10, 14),
        line("detail", (12, lip * 0.5), (w - 12, lip * 0.5)),
    )


def offers() -> tuple[Offer, ...]:
    """List the pockets in the stores."""
    return (
        offer(Pocket, "pocket", "Drawers", "Open pocket", (400, 400, 250),
              "What nobody could see in a high drawer is better here", contents=6),
    )  # fmt: skip


KIND = Kind(
    Pocket,
    expand,
    offers,
    railed=True,
    rank=40,
    open_front=True,
    stored=room_inside,
    stance="hang",
)
