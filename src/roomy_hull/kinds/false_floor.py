"""False floor: a raised board with hatches over space that nothing else can use."""

from typing import Annotated

from msgspec import Meta

from roomy_hull.core.card import shown
from roomy_hull.core.geometry.motion import Motion, Moved, Step
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import Hardware, Part, SheetPart
from roomy_hull.core.poses import WALL, at
from roomy_hull.core.primitives import Scene, Stroke, rectangle
from roomy_hull.core.value import Thickness
from roomy_hull.kinds.common import room_under_board
from roomy_hull.kinds.expansion import Expansion, made, sheet_masses
from roomy_hull.kinds.kind import Kind, Offer, Site, offer
from roomy_hull.kinds.placed import Placed, SheetMaterial


class FalseFloor(Placed, frozen=True, kw_only=True, tag_field="kind", tag="false floor"):
    """A raised floor with hatches over dead space; batteries and fuses often go under it."""

    board: Annotated[Thickness, shown("Board")] = 12.0
    hatches: Annotated[int, Meta(ge=0, le=6), shown("Hatches")] = 2
    material: SheetMaterial = "birch ply"


BORDER = 60.0
BEARERS = 450.0
"""Bearers stand at most so far apart (common practice). [mm]"""
LIFT = 160.0
"""How far a hatch is lifted until it can be tilted away (common practice). [mm]"""


def hatches(unit: FalseFloor) -> tuple[Box, ...]:
    """Each hatch's board, side by side along the wall at the front. [mm]"""
    if not unit.hatches:
        return ()
    each = (unit.width - BORDER) / unit.hatches - BORDER
    deep = min(unit.depth - 2 * BORDER, 500.0)
    if min(each, deep) < 80:
        return ()
    return tuple(
        Box(BORDER + n * (each + BORDER), BORDER, unit.height - unit.board,
            BORDER + n * (each + BORDER) + each, BORDER + deep, unit.height)
        for n in range(unit.hatches)
    )  # fmt: skip


def expand(unit: FalseFloor, site: Site) -> Expansion:
    """Write a false floor out.

    Args:
        unit: The floor; `height` is over its board. [mm]
        site: Rail pitch of its bay, and the shop's materials and rules. [mm]
    Returns: Its solids, masses, parts, one motion for each hatch, and elevation.
    """
    w, d, h, t = unit.width, unit.depth, unit.height, unit.board
    high = max(12.0, h - t)
    bearers = max(2, int(w / BEARERS) + 1)
    step, wood = (w - t) / (bearers - 1), site.material(unit.material)
    parts: tuple[Part, ...] = (
        SheetPart(f"{unit.name}: board", unit.ref, w, d, t, wood, role="floor", poses=(at(0.0, 0.0, high),)),
        SheetPart(f"{unit.name}: bearer", unit.ref, d, high, t, wood, count=bearers,
                  poses=tuple(at(n * step, 0.0, 0.0, WALL) for n in range(bearers))),
    )  # fmt: skip
    lids = hatches(unit)
    if lids:
        parts += (Hardware("flush lift ring for a hatch", unit.ref, len(lids)),)
    solids = [s for p in parts for s in made(p)]
    motions = tuple(
        Motion(f"hatch {n}", f"Hatch {n} of {unit.name}", (Moved(b),), (Step("lift", 2, LIFT),))
        for n, b in enumerate(lids, 1)
    )
    return Expansion(
        tuple(solids), (), sheet_masses(parts, unit, (w / 2, d / 2, high / 2)), parts, Box(0, 0, 0, w, d, h),
        elevation(unit), motions=motions, hollow=True,
    )  # fmt: skip


def elevation(unit: FalseFloor) -> Scene:
    """Draw the board's edge on its bearers."""
    w, h, t = unit.width, unit.height, unit.board
    found: list[Stroke] = [rectangle("space", 0, 0, w, h - t), rectangle("wood", 0, h - t, w, h, 2)]
    found += [
        rectangle("wood", share * (w - t), 0, share * (w - t) + t, h - t) for share in (0, 0.5, 1)
    ]
    return tuple(found)


def offers() -> tuple[Offer, ...]:
    """List the false floors in the stores."""
    return (
        offer(FalseFloor, "false-floor", "Shelves and walls", "False floor", (900, 800, 120),
              "Hatches over space that nothing else can use", contents=0),
    )  # fmt: skip


KIND = Kind(
    FalseFloor,
    expand,
    offers,
    rank=30,
    stood_on=True,
    bearers=BEARERS,
    stored=room_under_board,
    stance="floor",
    use="rarely",
)
