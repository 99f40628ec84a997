"""Shelf: one folded sheet with a lip in front, so that nothing slides out; fixed, or on slides."""

from typing import Annotated

from roomy_hull.core.card import shown
from roomy_hull.core.fill import CONTENTS
from roomy_hull.core.folded import Hole
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, Part, SheetPart
from roomy_hull.core.poses import at
from roomy_hull.core.primitives import Disc, Scene, line, rectangle
from roomy_hull.core.value import Gap
from roomy_hull.kinds.boxes import Sized, open_box
from roomy_hull.kinds.common import room_inside, slides_mass
from roomy_hull.kinds.expansion import (
    Expansion,
    PointMass,
    Solid,
    made,
    part_mass,
    pull_out,
    rail_holes,
)
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import Locks, Placed, PlainSheet, SheetMaterial, SlideMass, SlideRating

BOLT_HOLE = 6.5
"""For an M6 bolt. [mm]"""


class Shelf(Placed, frozen=True, kw_only=True, tag_field="kind", tag="shelf"):
    """A folded shelf with a lip in front; `height` is the space kept above it. `slides` makes it pull out."""

    sheet: PlainSheet = 2.0
    lip: Annotated[Gap, shown("Lip", "Keeps what lies on it from sliding out")] = 40.0
    flange: Annotated[Gap, shown("Side flange")] = 25.0
    slides: Annotated[bool, shown("Pulls out")] = False
    slide_rating: SlideRating = 60.0
    slide_mass: SlideMass = 0.0
    locks: Locks = True
    material: SheetMaterial = "5052-H32"


def expand(unit: Shelf, site: Site) -> Expansion:
    """Write a shelf out.

    Args:
        unit: The shelf; `height` is the space that it keeps for what lies on it. [mm, kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    """
    slides = slides_mass(unit.slide_mass, unit.depth, unit.slide_rating)
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    lip = min(unit.lip, h)
    flange = min(unit.flange, h)
    holes = tuple(Hole(x, y, 8.5) for x, y in rail_holes(w, d, site.pitch, site.phase))
    metal, pose = site.material(unit.material), at(0.0, 0.0, 0.0)
    if metal.wood:
        size = Sized(w, d, (flange, flange, lip, flange), t, metal)
        parts: tuple[Part, ...] = open_box(
            f"{unit.name}: shelf", unit.ref, size, site.shop.tools.brake, pose, role="floor", holes=holes
        )  # fmt: skip
    else:
        parts = (
            SheetPart(f"{unit.name}: shelf", unit.ref, w, d, t, metal, left=flange, right=flange, front=lip, back=flange,
                      holes=holes, role="floor", poses=(pose,)),
        )  # fmt: skip
    solids = [s for p in parts for s in made(p)]
    if flange > 3 * t and not unit.slides:
        # Through the flanges at its ends, into what stands beside it or an upright rail.
        rows = [(x, y) for x in (t, w - t - 6) for y in (d * 0.2, d * 0.8)]
        # Off the bend by 2·T + R and half the hole.
        up = min(
            max(flange / 2 + 1, 3 * t + 2 * metal.bend_radius_per_t * t + BOLT_HOLE / 2),
            flange - BOLT_HOLE,
        )
        parts += (
            Hardware("M6 bolt with clip nut, through the end flanges", unit.ref, 4, fix="bolts",
                     places=tuple(Box(x, y - 6, up - 6, x + 6, y + 6, up + 6) for x, y in rows), sort="bolt"),
        )  # fmt: skip
    load = Solid(Box(t, t, t, w - t, d - t, h), "contents")
    solids.append(load)
    if unit.slides:
        rails = tuple(Box(x, 20.0, -10.0, x + 40, d - 20, 0.0) for x in (40.0, w - 80))
        parts += (
            Hardware(
                f"pair of shelf slides, {unit.slide_rating:g} kg",
                unit.ref,
                places=rails,
                fix="bolts",
            ),
        )
        solids = [Solid(s.box, s.role, moves=True) for s in solids]
    travel = d * 0.9 if unit.slides else 0.0
    everything = tuple(s.box for s in solids)
    return Expansion(
        tuple(solids),
        (),
        (
            PointMass("slides", slides if unit.slides else 0.0, "data sheet", (w / 2, d / 2, t)),
            PointMass("sheet metal", part_mass(parts), "geometry", (w / 2, d / 2, t)),
            PointMass("contents", unit.contents, unit.contents_source,
                 (w / 2, d / 2, t + (h - t) * 0.4), CONTENTS),
        ),
        parts,
        Box(0, 0, 0, w, d, h),
        elevation(unit),
        travel=travel,
        slide_rating=unit.slide_rating if unit.slides else 0.0,
        slide_load=part_mass(parts) + unit.contents if unit.slides else 0.0,
        motions=(pull_out(unit.name, everything, travel, locks=unit.locks),) if unit.slides else (),
        plan=(rectangle("front", 0, 0, w, d, 4), rectangle("space", 8, 12, w - 8, d - 8, 4)),
    )  # fmt: skip


def elevation(unit: Shelf) -> Scene:
    """Draw the shelf's lip and the space above it."""
    w, h, t = unit.width, unit.height, unit.sheet
    lip = max(min(unit.lip, h), 4 * t)
    return (
        rectangle("space", 0, 0, w, h),
        rectangle("front", 0, 0, w, lip, 3),
        line("detail", (8, lip * 0.5), (w - 8, lip * 0.5)),
        Disc("fitting", (24, lip * 0.5), 5),
        Disc("fitting", (w - 24, lip * 0.5), 5),
    )


_LIP = "Folded shelf with a lip in front"


def offers() -> tuple[Offer, ...]:
    """List the shelves in the stores."""
    return (
        offer(Shelf, "shelf", "Shelves and walls", "Shelf", (600, 500, 300), _LIP, contents=15),
        offer(Shelf, "shelf-long", "Shelves and walls", "Long shelf", (1200, 500, 300), _LIP, contents=30,
              id="shelf-long"),
        offer(Shelf, "shelf-sliding", "Shelves and walls", "Sliding shelf", (600, 600, 300),
              "Pulls out; what lies at its back is reached", contents=20, slides=True, id="shelf-sliding"),
    )  # fmt: skip


KIND = Kind(
    Shelf,
    expand,
    offers,
    railed=True,
    rank=10,
    open_front=True,
    stored=room_inside,
    stance="hang",
)
