"""What a gap is, and how sure the sizes around it are."""

import math

import msgspec

from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.memo import by_identity
from roomy_hull.core.parts import BarPart, SheetPart
from roomy_hull.core.poses import WAYS, standing
from roomy_hull.core.refs import Ref
from roomy_hull.core.stack import Chain, Link
from roomy_hull.job.carried import Carried
from roomy_hull.kinds.expansion import Expansion
from roomy_hull.kinds.registry import kind_of
from roomy_hull.shop.shop import Shop

NEAR = 25.0
"""Gaps wider than this never bind. [mm]"""
BOUGHT = 1.0
"""One sigma of what is bought, by its data sheet (common practice). [mm]"""
TAPE = 1.5
"""One sigma of a size of the vehicle that nobody has measured twice (common practice). [mm]"""
AXES = ("position along", "position in depth", "position in height")


LIKELY = 0.02
"""A chance from which a gap is worth a look (common practice)."""


def level(a: Box, b: Box, axis: int) -> bool:
    """Whether two boxes lie across from one another along an axis: they share more than `OVERLAP` in the others."""
    return all(min(a[n + 3], b[n + 3]) - max(a[n], b[n]) > OVERLAP for n in range(3) if n != axis)


OVERLAP = 1.0
"""Things stand across from one another where they share more than this. [mm]"""


class Gap(msgspec.Struct, frozen=True):
    """A gap between two things, with the chain of its sizes. [mm]

    `where` is the room between them in vehicle axes.
    """

    title: str
    refs: tuple[Ref, ...]
    chain: Chain
    where: Box | None = None

    @property
    def likely(self) -> bool:
        """Whether it is clear as drawn and likely to bind as built."""
        return self.chain.nominal > 0 and self.chain.chance > LIKELY

    def binds(self) -> str:
        """How often it binds, in words."""
        often = self.chain.one_in()
        return "hardly ever binds" if often > 1e5 else f"binds in 1 of {max(1, round(often)):,}"

    def words(self) -> str:
        """The gap with its doubt, and how often it binds."""
        return f"{self.chain.nominal:.1f} mm ± {self.chain.sigma:.1f}: {self.binds()}"


def made_size(thing: Thing, axis: int, shop: Shop) -> Link:
    """The doubt of a thing's own size along one of its directions.

    Args:
        axis: 0 along the wall, 1 inward, 2 up.
    Returns:
        Two cut edges, and every bend of the part that spans it, with what is not known of K; where no part spans
        it, the data sheet's.
    """
    if isinstance(thing.value, Carried) or not kind_of(thing.value).made:
        return Link(f"{thing.name}, by its data sheet", BOUGHT, -1.0)
    part = _spanning(thing.expansion)[axis]
    sigma = part_uncertainty(part, _own_axis(part, axis), shop) if part is not None else BOUGHT
    return Link(f"{thing.name}, {AXES[axis]}", sigma, -1.0)


@by_identity(2048)
def _spanning(expansion: Expansion) -> tuple[SheetPart | BarPart | None, ...]:
    """The part that spans most of a thing along each of its directions, the first of equals; none where no part stands."""
    best: list[tuple[float, SheetPart | BarPart | None]] = [(0.0, None)] * 3
    for part in expansion.parts:
        if isinstance(part, SheetPart | BarPart) and part.poses:
            boxes = standing(part)[0]
            for axis in range(3):
                span = max(b[axis + 3] for b in boxes) - min(b[axis] for b in boxes)
                if span > best[axis][0] + 1e-6:
                    best[axis] = span, part
    return tuple(part for _span, part in best)


def _own_axis(part: SheetPart | BarPart, axis: int) -> int:
    """Which of a part's own directions lies along one of its owner's."""
    pose = part.poses[0]
    return next((n for n, way in enumerate((pose.x, pose.y, pose.z)) if WAYS[way][0] == axis), 2)


def part_uncertainty(part: SheetPart | BarPart, own: int, shop: Shop) -> float:
    """One sigma of a part's outside size along one of its own directions.

    Args:
        own: 0 along its length, 1 along its width, 2 along its flanges or a bar's height.
    Returns: The root of squares of two edges, of each bend, and of K for each. [mm]
    """
    tools = shop.tools
    if isinstance(part, BarPart):
        return tools.saw.uncertainty if own == 0 else 0.2
    if part.shape is None:
        pairs = ((part.left, part.right), (part.front, part.back))
        bends = sum(f > 0 for f in pairs[own]) if own < 2 else int(max(*pairs[0], *pairs[1]) > 0)
    else:
        bends = len(part.shape.bends)
    t = part.thickness
    if own == 2 and not bends:
        return 0.05
    by_k = part.material.k_doubt(t) * t * math.pi / 2
    return math.sqrt(
        2 * tools.cutter.uncertainty**2 + bends * (tools.uncertainties.bend**2 + by_k**2)
    )
