"""Pull-out pantry: a tall narrow frame on slides, its baskets reached from both sides."""

from typing import Annotated

from msgspec import Meta

from roomy_hull.core.card import shown
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import BarPart, Hardware, Part, SheetPart
from roomy_hull.core.poses import BACK, UPRIGHT, at
from roomy_hull.core.primitives import Scene, Stroke, line, rectangle
from roomy_hull.kinds.common import slides_mass
from roomy_hull.kinds.expansion import (
    Expansion,
    PointMass,
    Solid,
    Zone,
    made,
    part_mass,
    pull_out,
    sheet_masses,
)
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import (
    FrontSheet,
    Locks,
    Placed,
    PlainSheet,
    SheetMaterial,
    SlideMass,
    SlideRating,
)


class Pantry(Placed, frozen=True, kw_only=True, tag_field="kind", tag="pantry"):
    """A tall narrow pull-out with baskets, reached from both sides when it is out."""

    baskets: Annotated[int, Meta(ge=1, le=8), shown("Baskets")] = 3
    sheet: PlainSheet = 1.6
    front: FrontSheet = 3.0
    slide_rating: SlideRating = 60.0
    slide_mass: SlideMass = 0.0
    locks: Locks = True
    material: SheetMaterial = "5052-H32"


FRAME = "20x20x2"


def parts(unit: Pantry, site: Site) -> tuple[Part, ...]:
    """What is cut and bought: front, baskets, frame, slides. [mm]"""
    w, d = unit.width, unit.depth - unit.front
    inner = max(40.0, w - 50)
    wall = max(30.0, min(90.0, unit.height / unit.baskets * 0.35))
    f, high = unit.front, unit.height - 35
    step = (high - 20) / unit.baskets
    corners = [(u, v) for u in (20.0, w - 40) for v in (f, unit.depth - 40)]
    return (
        SheetPart(f"{unit.name}: front", unit.ref, w, unit.height, unit.front, site.material(unit.material),
                  group="basket", join="bolts", poses=(at(0.0, f, 0.0, BACK),)),
        SheetPart(f"{unit.name}: basket", unit.ref, inner, d - 60, unit.sheet, site.material(unit.material), left=wall,
                  right=wall, front=wall, back=wall, count=unit.baskets, role="floor", group="basket",
                  poses=tuple(at((w - inner) / 2, f + 20, 25 + n * step) for n in range(unit.baskets))),
        BarPart(f"{unit.name}: upright", unit.ref, FRAME, high, site.material(site.shop.bar), 4, group="basket",
                poses=tuple(at(u, v, 25.0, UPRIGHT) for u, v in corners)),
        Hardware(f"pair of slides, {unit.slide_rating:g} kg", unit.ref, fix="bolts",
                 places=(Box(20, f + 2, 0, 40, unit.depth - 20, 25), Box(w - 40, f + 2, 0, w - 20, unit.depth - 20, 25))),
    )  # fmt: skip


def expand(unit: Pantry, site: Site) -> Expansion:
    """Write a pantry out.

    Args:
        unit: The pantry. [mm, kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    """
    slides = slides_mass(unit.slide_mass, unit.depth, unit.slide_rating)
    w, d, h, f = unit.width, unit.depth, unit.height, unit.front
    listed = parts(unit, site)
    frame, face = Box(20, f, 25, w - 20, d - 20, h - 10), made(listed[0])[0].box
    gap = site.shop.rules.running_gap
    travel = d - f - 20
    return Expansion(
        (Solid(Box(0, f, 0, w, d, 25), "bought"), Solid(frame, "made", moves=True),
         Solid(face, "front", moves=True)),
        (Zone(Box(-gap, 0, -gap, w + gap, f, h + gap), "running"),),
        (*sheet_masses(listed, unit, (w / 2, d / 2, h * 0.45)),
         PointMass("slides", slides, "data sheet", (w / 2, d / 2, 12))),
        listed,
        Box(0, 0, 0, w, d, h),
        elevation(unit),
        travel=travel,
        slide_rating=unit.slide_rating,
        slide_load=part_mass(listed) + unit.contents + slides / 2,
        motions=(pull_out(unit.name, (frame, face), travel, locks=unit.locks),),
        plan=(rectangle("space", 20, f, w - 20, d - 20, 6), rectangle("unit face", 0, 0, w, 14)),
    )  # fmt: skip


def elevation(unit: Pantry) -> Scene:
    """Draw the tall front with its grip, and the baskets' heights marked on it."""
    w, h = unit.width, unit.height
    found: list[Stroke] = [rectangle("front", 0, 0, w, h, 4),
                           rectangle("recess", w / 2 - 12, h * 0.42, w / 2 + 12, h * 0.58, 10)]  # fmt: skip
    found += [line("detail", (12, h * n / unit.baskets), (w - 12, h * n / unit.baskets))
              for n in range(1, unit.baskets)]  # fmt: skip
    return tuple(found)


def offers() -> tuple[Offer, ...]:
    """List the pantries in the stores."""
    return (
        offer(Pantry, "pantry", "Drawers", "Pull-out pantry", (250, 600, 700),
              "Tall and narrow, reached from both sides", contents=22, baskets=3),
    )  # fmt: skip


def stored(unit: Pantry) -> float:
    """Compute the room of its baskets. [l]"""
    wide, deep = max(0.0, unit.width - 50), max(0.0, unit.depth - unit.front - 60)
    return wide * deep * unit.height * 0.8 * 1e-6


KIND = Kind(Pantry, expand, offers, rank=30, stored=stored)
