"""Stack: drawers of different heights, one above another in one carcass."""

from typing import Annotated, Literal

import msgspec
from msgspec import Meta

from roomy_hull.core.capabilities import Capabilities
from roomy_hull.core.card import shown
from roomy_hull.core.fill import CONTENTS
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, Part
from roomy_hull.core.primitives import Outline, Panel, Stroke
from roomy_hull.core.value import PositiveMm, Sheet, Thickness
from roomy_hull.kinds import boxes, drawer
from roomy_hull.kinds.boxes import Carcass
from roomy_hull.kinds.common import slides_mass
from roomy_hull.kinds.drawer import Drawer
from roomy_hull.kinds.expansion import (
    Expansion,
    PointMass,
    Zone,
    made,
    part_mass,
    pull_out,
)
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import FrontSheet, Locks, Placed, SheetMaterial, SlideMass, SlideRating


class Stack(Placed, frozen=True, kw_only=True, tag_field="kind", tag="stack"):
    """Drawers one above another in one carcass; `heights` are their fronts', from the lowest up. [mm]"""

    heights: Annotated[
        tuple[PositiveMm, ...],
        Meta(min_length=2, max_length=8),
        shown("Fronts, from below", "Heights with spaces between", quantity="lengths"),
    ]
    carcass: Annotated[Sheet, shown("Carcass sheet")] = 2.0
    sheet: Annotated[Sheet, shown("Box sheet")] = 1.6
    front: FrontSheet = 3.0
    slide: Annotated[Thickness, shown("Slide thickness", "Each of the pair; common are 12.7 to 19 mm")] = 19.0  # fmt: skip
    slide_rating: SlideRating = 110.0
    slide_mass: SlideMass = 0.0
    locks: Locks = True
    lockable: Annotated[bool, shown("Lock with a key")] = False
    top: Annotated[Literal["tie", "full"], shown("Top", "Full where something stands on it")] = "tie"  # fmt: skip
    material: SheetMaterial = "5052-H32"

    def __post_init__(self) -> None:
        """Refuse fronts that are higher together than the stack.

        Raises:
            ValueError: Says by how much.
        """
        over = sum(self.heights) - self.height
        if over > 0.01:
            raise ValueError(f"stack {self.id}: its fronts are {over:g} mm higher than its height")


def drawers(unit: Stack) -> tuple[tuple[float, Drawer], ...]:
    """Each drawer of a stack with the height at which it begins. [mm]"""
    found, low = [], 0.0
    share = sum(unit.heights)
    for n, high in enumerate(unit.heights, 1):
        one = Drawer(
            id=unit.id, name=f"{unit.name} {n}", bay=unit.bay, width=unit.width, depth=unit.depth,
            height=high, contents=unit.contents * high / share, contents_source=unit.contents_source,
            carcass=unit.carcass, sheet=unit.sheet, front=unit.front, slide=unit.slide,
            slide_rating=unit.slide_rating, slide_mass=unit.slide_mass, locks=unit.locks,
            lockable=unit.lockable, material=unit.material,
        )  # fmt: skip
        found.append((low, one))
        low += high
    return tuple(found)


def parts(unit: Stack, site: Site) -> tuple[Part, ...]:
    """What is cut and bought: one carcass, and box, front and slides of each drawer.

    Args:
        unit: The stack. [mm]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    Raises:
        InputError: A drawer is too low or too narrow for its box.
    """
    outer = Carcass(
        unit.width, unit.depth, unit.height, unit.front, unit.carcass, site.material(unit.material)
    )
    listed: list[Part] = [
        *boxes.carcass(f"{unit.name}: carcass", unit.ref, outer, site, full_top=unit.top == "full")
    ]
    gap = site.shop.rules.running_gap
    rows = drawers(unit)
    for n, (low, one) in enumerate(rows):
        # Every front but the uppermost leaves the one above room to run.
        own = drawer.parts(one, site.loose(), gap if n < len(rows) - 1 else 0.0)
        stays = drawer.carcass_parts(own)  # the carcass that each would have alone
        listed += [raised(_of(p, n), low) for p in own if p not in stays]
    return tuple(listed)


def _of(part: Part, n: int) -> Part:
    """A part of one of several drawers: it moves with that one only."""
    if isinstance(part, Hardware) or not part.group:
        return part
    return msgspec.structs.replace(part, group=f"{part.group} {n + 1}")


def raised(part: Part, by: float) -> Part:
    """A part that stands higher. [mm]"""
    if isinstance(part, Hardware):
        return msgspec.structs.replace(part, places=tuple(b.moved(0, 0, by) for b in part.places))
    poses = tuple(s._replace(at=(s.at[0], s.at[1], s.at[2] + by)) for s in part.poses)
    return msgspec.structs.replace(part, poses=poses)


def expand(unit: Stack, site: Site) -> Expansion:
    """Write a stack out.

    Args:
        unit: The stack. [mm, kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    Returns: Its solids, zones, masses, parts, one motion for each drawer, and elevation.
    Raises:
        InputError: A drawer is too low or too narrow for its box.
    """
    slides = slides_mass(unit.slide_mass, unit.depth, unit.slide_rating)
    listed = parts(unit, site)
    w, d, h, f = unit.width, unit.depth, unit.height, unit.front
    solids = [s for p in drawer.carcass_parts(listed) for s in made(p)]
    gap = site.shop.rules.running_gap
    rows = drawers(unit)
    motions, primitives, masses, load = [], [], [], 0.0
    travel = d - f - 25
    for n, (low, one) in enumerate(rows, 1):
        own = drawer.expand(one, site.loose(), gap if n < len(rows) else 0.0)
        # Without the carcass that each would have alone.
        inner = own.solids[sum(len(made(p)) for p in drawer.carcass_parts(own.parts)) :]
        boxes = [msgspec.structs.replace(s, box=s.box.moved(0, 0, low)) for s in inner]
        solids += boxes
        moving = tuple(b.box for b in boxes if b.moves)
        motions.append(pull_out(one.name, moving, travel, str(n), locks=unit.locks))
        primitives += [_raised(s, low) for s in own.elevation]
        at = (w / 2, d / 2, low + one.height * 0.45)
        masses.append(PointMass(f"contents {n}", one.contents, one.contents_source, at, CONTENTS))
        load = max(load, own.slide_load)
    middle = (w / 2, d / 2, h * 0.45)
    return Expansion(
        tuple(solids),
        (Zone(Box(-gap, 0, -gap, w + gap, f, h + gap), "running"),),
        (
            PointMass("sheet metal", part_mass(listed), "geometry", middle),
            PointMass(
                "slides",
                slides * len(unit.heights),
                "data sheet",
                middle,
            ),
            *masses,
        ),
        listed,
        Box(0, 0, 0, w, d, h),
        tuple(primitives),
        travel=travel,
        slide_rating=unit.slide_rating,
        slide_load=load,
        motions=tuple(motions),
        plan=drawer.plan(drawers(unit)[0][1]),
    )


def _raised(stroke: Stroke, by: float) -> Stroke:
    """Shift a stroke of a drawer's front up. [mm]"""
    if isinstance(stroke, Panel):
        return msgspec.structs.replace(stroke, k0=stroke.k0 + by, k1=stroke.k1 + by)
    if isinstance(stroke, Outline):
        return msgspec.structs.replace(stroke, points=tuple((h, k + by) for h, k in stroke.points))
    h, k = stroke.centre  # type: ignore[union-attr]  # a drawer's front has panels, lines and discs
    return msgspec.structs.replace(stroke, centre=(h, k + by))


def offers() -> tuple[Offer, ...]:
    """List the stacks in the stores."""
    return (
        offer(Stack, "stack", "Drawers", "Drawer stack", (450, 700, 560), "Different heights in one carcass",
              heights=(240.0, 180.0, 140.0), contents=40),
    )  # fmt: skip


def stored(unit: Stack) -> float:
    """Compute the inside of all its boxes. [l]"""
    return sum(drawer.box_room(one) for _low, one in drawers(unit)) * 1e-6


def says(unit: Stack, _side: str = "") -> Capabilities:
    """What it is to everybody else: a lock for each drawer, or none."""
    return Capabilities(locks=len(unit.heights) if unit.lockable else 0)


KIND = Kind(Stack, expand, offers, railed=True, rank=20, stored=stored, says=says)
