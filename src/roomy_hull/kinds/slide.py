"""Slide: a bought slide or drop slide with a platform, for whatever stands on it."""

from typing import Annotated, Protocol

from roomy_hull.core.card import shown
from roomy_hull.core.fill import CONTENTS
from roomy_hull.core.geometry.motion import Motion, Moved, Step
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware
from roomy_hull.core.primitives import Scene, line, rectangle
from roomy_hull.core.value import Gap
from roomy_hull.kinds.expansion import INWARD, Expansion, PointMass, Solid, Zone
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import Locks, Placed, SlideMass, SlideRating, SlideStyle


class Slide(Placed, frozen=True, kw_only=True, tag_field="kind", tag="slide"):
    """A bought slide with a platform for whatever stands on it; `height` is the room kept over it all.

    A drop slide lowers its load by `drop` once it is out.
    """

    style: Annotated[SlideStyle, shown("Slide", "A drop slide lowers its load once it is out")] = "plain"  # fmt: skip
    drop: Annotated[Gap, shown("Drops by")] = 350.0
    slide_height: Annotated[Gap, shown("Slide height")] = 50.0
    slide_mass: SlideMass = 17.0
    slide_rating: SlideRating = 150.0
    locks: Locks = True


class Slid(Protocol):
    """What stands on a slide that may drop: its depth, and by how much it drops. [mm]"""

    @property
    def depth(self) -> float:
        """Outside, inward from the access face. [mm]"""

    @property
    def drop(self) -> float:
        """By how much the slide lowers it. [mm]"""


DROP_CLEAR = 90.0
"""How far a drop slide runs out beyond its depth, to clear the tray's edge (common practice). [mm]"""


def travel(unit: Slid, drops: bool) -> float:
    """How far a slide runs out. [mm]"""
    return unit.depth + (DROP_CLEAR if drops and unit.drop > 0 else 0.0)


def way_out(unit: Slid, drops: bool, *groups: str) -> tuple[Step, ...]:
    """The steps of a slide: out by its whole depth, and further out and down if it drops. [mm]"""
    out = Step("slide", INWARD, -travel(unit, drops), groups)
    return (out, Step("lower", 2, -unit.drop, groups)) if drops and unit.drop > 0 else (out,)


def platform(unit: Slid, width: float, under: float, group: str = "") -> tuple[Moved, ...]:
    """What of a drop slide goes down with its load: all that is under it. [mm]"""
    return (Moved(Box(6, 10, 0, width - 6, unit.depth, under), group),) if unit.drop > 0 else ()


def expand(unit: Slide, site: Site) -> Expansion:
    """Write a slide with its load out.

    Args:
        unit: The slide; `height` is the room kept over slide and load. [mm, kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    """
    w, d, h = unit.width, unit.depth, unit.height
    s = min(unit.slide_height, h * 0.8)
    gap = site.shop.rules.running_gap
    load = Box(6, 10, s, w - 6, d, h)
    drops = unit.style == "drop"
    goes = (Moved(load), *(platform(unit, w, s) if drops else ()))
    motion = Motion("", unit.name, goes, way_out(unit, drops, ""), unit.locks)
    return Expansion(
        (Solid(Box(0, 0, 0, w, d, s), "bought"), Solid(load, "contents", moves=True)),
        (Zone(Box(-gap, 0, 0, w + gap, d, h), "running"),),
        (
            PointMass("slide", unit.slide_mass, "data sheet", (w / 2, d / 2, s / 2)),
            PointMass(
                "load",
                unit.contents,
                unit.contents_source,
                (w / 2, d / 2, s + (h - s) * 0.45),
                CONTENTS,
            ),
        ),
        (
            Hardware(
                f"{'drop slide' if drops else 'slide'}, {unit.slide_rating:g} kg",
                unit.ref,
            ),
        ),
        Box(0, 0, 0, w, d, h),
        elevation(unit),
        travel=travel(unit, drops),
        slide_rating=unit.slide_rating,
        slide_load=unit.contents + unit.slide_mass / 2,
        motions=(motion,),
        plan=(
            rectangle("bought", 6, 10, w - 6, d, 8),
            rectangle("bought dark", w * 0.3, 0, w * 0.7, 22, 6),
        ),
    )


def elevation(unit: Slide) -> Scene:
    """Draw the slide's end, its handle, and the room above it."""
    w, h = unit.width, unit.height
    s = min(unit.slide_height, h * 0.8)
    return (
        rectangle("space", 6, s, w - 6, h, 6),
        rectangle("bought dark", 0, 0, w, s),
        rectangle("detail", w * 0.3, s * 0.25, w * 0.7, s * 0.6, s * 0.15),
        line("strap", (w * 0.3, s), (w * 0.3, h - 20)),
        line("strap", (w * 0.7, s), (w * 0.7, h - 20)),
    )


def offers() -> tuple[Offer, ...]:
    """List the slides in the stores."""
    return (
        offer(Slide, "slide", "Cold", "Slide", (450, 740, 400), "For anything that stands on it", contents=30),
        offer(Slide, "slide-drop", "Cold", "Drop slide", (450, 740, 420), "Out, then down", style="drop",
              slide_height=70, slide_mass=29, contents=30),
    )  # fmt: skip


KIND = Kind(
    Slide,
    expand,
    offers,
    rank=20,
    made=False,
    stance="floor",
    carries=False,
    use="each stop",
)
