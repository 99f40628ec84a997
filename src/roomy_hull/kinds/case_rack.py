"""Case rack: shelves with stops for equal cases, each drawn out by itself."""

from typing import Annotated

from msgspec import Meta

from roomy_hull.core.card import shown
from roomy_hull.core.fill import CONTENTS
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Part, SheetPart
from roomy_hull.core.poses import WALL, at
from roomy_hull.core.primitives import Scene, Stroke, rectangle
from roomy_hull.core.value import Gap, PositiveMm
from roomy_hull.kinds.expansion import Expansion, PointMass, Solid, made, part_mass, pull_out
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import Placed, PlainSheet, SheetMaterial


class CaseRack(Placed, frozen=True, kw_only=True, tag_field="kind", tag="case rack"):
    """A rack for equal cases, so many across and up; they pull out over low stops. [mm]"""

    case_width: Annotated[PositiveMm, shown("Case width")] = 300.0
    case_depth: Annotated[PositiveMm, shown("Case depth")] = 400.0
    case_height: Annotated[PositiveMm, shown("Case height")] = 220.0
    across: Annotated[int, Meta(ge=1, le=8), shown("Cases across")] = 2
    up: Annotated[int, Meta(ge=1, le=8), shown("Cases up")] = 1
    play: Annotated[Gap, shown("Play", "Around each case")] = 6.0
    sheet: PlainSheet = 2.0
    material: SheetMaterial = "5052-H32"

    def __post_init__(self) -> None:
        """Refuse a rack that its cases do not fit into.

        Raises:
            ValueError: Says which size is short and what it has to be.
        """
        for name, have, want in self.needs():
            if have < want - 0.01:
                raise ValueError(
                    f"case rack {self.id}: {name} {have:g} does not take the cases; it wants {want:g}"
                )

    def needs(self) -> tuple[tuple[str, float, float], ...]:
        """Each outside size beside what the cases want, with play and sheets. [mm]"""
        t = self.sheet
        return (
            (
                "width",
                self.width,
                self.across * (self.case_width + self.play) + (self.across + 1) * t,
            ),
            ("depth", self.depth, self.case_depth + self.play + t),
            ("height", self.height, self.up * (self.case_height + self.play + t)),
        )


def pitch(unit: CaseRack) -> float:
    """From wall to wall: the cases share the rack's whole width. [mm]"""
    return (unit.width - unit.sheet) / unit.across


def cases(unit: CaseRack) -> tuple[Box, ...]:
    """Every case in its place, row by row from the lowest. [mm]"""
    t, g = unit.sheet, unit.play
    found = []
    step = pitch(unit)
    for row in range(unit.up):
        for column in range(unit.across):
            u = t + column * step + (step - t - unit.case_width) / 2
            w = t + row * (unit.case_height + g + t)
            found.append(
                Box(u, 2, w, u + unit.case_width, 2 + unit.case_depth, w + unit.case_height)
            )
    return tuple(found)


def expand(unit: CaseRack, site: Site) -> Expansion:
    """Write a case rack out.

    Args:
        unit: The rack. [mm, kg]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    Returns: Its solids, masses, parts, one motion for each case, and elevation.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.sheet
    step_u, step_w = pitch(unit), unit.case_height + unit.play + t
    metal = site.material(unit.material)
    # The walls go through, the shelves stand between them, turned up behind the cases.
    places = tuple(
        at(t + n * step_u, 0.0, m * step_w) for m in range(unit.up) for n in range(unit.across)
    )
    parts: tuple[Part, ...] = (
        SheetPart(f"{unit.name}: shelf", unit.ref, step_u - t, d, t, metal, back=25.0,
                  count=unit.up * unit.across, role="floor", poses=places),
        SheetPart(f"{unit.name}: wall", unit.ref, d, h, t, metal, count=unit.across + 1,
                  poses=tuple(at(n * step_u, 0.0, 0.0, WALL) for n in range(unit.across + 1))),
    )  # fmt: skip
    solids = [s for p in parts for s in made(p)]
    boxes = cases(unit)
    solids += [Solid(b, "contents", moves=True) for b in boxes]
    each = unit.contents / len(boxes)
    masses = [PointMass("sheet metal", part_mass(parts), "geometry", (w / 2, d / 2, h * 0.4))]
    masses += [
        PointMass(f"case {n}", each, unit.contents_source, b.centre(), CONTENTS)
        for n, b in enumerate(boxes, 1)
    ]
    motions = tuple(
        pull_out(f"Case {n} of {unit.name}", (b,), unit.case_depth, f"case {n}")
        for n, b in enumerate(boxes, 1)
    )
    return Expansion(
        tuple(solids), (), tuple(masses), parts, Box(0, 0, 0, w, d, h), elevation(unit), motions=motions,
    )  # fmt: skip


def elevation(unit: CaseRack) -> Scene:
    """Draw rack and cases with their grips."""
    found: list[Stroke] = [rectangle("front", 0, 0, unit.width, unit.height, 3)]
    for b in cases(unit):
        c, m = (b.x0 + b.x1) / 2, (b.z0 + b.z1) / 2
        found += [rectangle("bought dark", b.x0, b.z0, b.x1, b.z1, 14),
                  rectangle("bought", c - 50, m - 14, c + 50, m + 14, 10)]  # fmt: skip
    return tuple(found)


def offers() -> tuple[Offer, ...]:
    """List the case racks in the stores."""
    return (
        offer(CaseRack, "case-rack", "Drawers", "Case rack", (640, 412, 462), "For equal cases, each drawn out",
              across=2, up=2, case_height=220, case_width=310, contents=24),
    )  # fmt: skip


def stored(unit: CaseRack) -> float:
    """Compute the volume of its cases. [l]"""
    return unit.across * unit.up * unit.case_width * unit.case_depth * unit.case_height * 1e-6


KIND = Kind(CaseRack, expand, offers, rank=50, stored=stored)
