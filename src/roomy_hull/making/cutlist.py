"""The whole cut: blanks, sheets and bars of a job's parts, drilled for their joints."""

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.errors import InputError
from roomy_hull.core.parts import Hardware, Part, SheetPart
from roomy_hull.making.bars import BarPlan, plan
from roomy_hull.making.bending import BendPlan, plan_bends
from roomy_hull.making.flats import Blank, blank
from roomy_hull.making.joints import Joint
from roomy_hull.making.nesting import ROUNDS, Nesting, nest
from roomy_hull.making.sheets import USUAL, Nest, Progress, Way
from roomy_hull.making.true_shape import by_shape
from roomy_hull.making.works import numbered, works_of
from roomy_hull.shop.shop import Shop, Stock
from roomy_hull.shop.tools import Brake


class CutList(msgspec.Struct, frozen=True):
    """Everything the workshop cuts and buys for a job.

    `least_offcut` is what of a bar is worth keeping. [mm]
    `blanks` hold each different blank once, in the order of the parts; `hardware` is bought; `joints` say how they go
    together.
    """

    parts: tuple[Part, ...]
    blanks: tuple[Blank, ...]
    nest: Nest
    bars: BarPlan
    hardware: tuple[Hardware, ...]
    joints: tuple[Joint, ...] = ()
    brake: Brake | None = None
    least_offcut: float = 150.0

    def bends(self, one: Blank) -> BendPlan:
        """In which order a blank is bent; of no steps where nobody knows the brake."""
        return plan_bends(one.part, self.brake) if self.brake is not None else BendPlan()


def way_of(shop: Shop) -> Way:
    """How a shop cuts its sheets."""
    return Way(shop.prices.sheet_per_kg, shop.tools.cutter.kind == "shear")


def each(blanks: tuple[Blank, ...]) -> list[Blank]:
    """Every blank once for each piece."""
    return [b for b in blanks for _ in range(b.part.count)]


def cut_list(
    parts: list[Part], stock: Stock, progress: Progress = lambda _share: True, way: Way = USUAL,
    rounds: int = ROUNDS,
) -> CutList:  # fmt: skip
    """Unfold, nest and saw some parts.

    Args:
        parts: All parts. [mm]
        stock: What the shop buys and has. [mm]
        progress: Called with the share done; returning False gives up.
        rounds: How often the nesting is improved at most.
    Raises:
        InputError: A blank or bar is larger than the stock.
        GivenUp: The work was given up.
    """
    numbers = numbered(parts)
    blanks = tuple(
        msgspec.structs.replace(blank(p), number=numbers[id(p)])
        for p in parts
        if isinstance(p, SheetPart)
    )
    return CutList(
        tuple(parts),
        blanks,
        nest(each(blanks), stock, progress, way, rounds),
        plan(parts, stock.bar_length, stock.kerf, stock.offcuts),
        tuple(p for p in parts if isinstance(p, Hardware)),
        least_offcut=stock.least_offcut,
    )


def cut_of(
    assembly: Assembly, progress: Progress = lambda _share: True, rounds: int = ROUNDS
) -> CutList:
    """Everything that is cut and bought for a job, drilled for its joints.

    Args:
        progress: Called with the share done; returning False gives up.
        rounds: How often the nesting is improved at most.
    Returns: With joints and the brake on which it is bent.
    Raises:
        InputError: A blank or bar is larger than the stock.
        GivenUp: The work was given up.
    """
    shop, works = assembly.shop, works_of(assembly)
    found = cut_list(list(works.parts), shop.stock, progress, way_of(shop), rounds)
    return msgspec.structs.replace(found, joints=works.joints, brake=shop.tools.brake)


def shaped(cut: CutList, shop: Shop, progress: Progress = lambda _share: True) -> CutList:
    """A cut with odd outlines laid into one another, wherever that saves a sheet.

    Args:
        cut: As found with rectangles. [mm]
        progress: Called with the share done; returning False stops; what was saved till then is kept.
    Returns: The same where nothing is saved.
    Raises:
        InputError: The shop's shear cuts from edge to edge only.
    """
    if way_of(shop).shear:
        raise InputError(
            "a shear cuts from edge to edge: it cannot cut by shape",
            "the shop's cutter",
            "Keep to rectangles, or enter a laser, plasma or router.",
        )
    return msgspec.structs.replace(cut, nest=by_shape(cut.nest, shop.stock, progress))


def nesting_of(cut: CutList, shop: Shop) -> Nesting:
    """A nesting of a cut's blanks that can be improved further, from the beginning."""
    return Nesting(each(cut.blanks), shop.stock, way_of(shop))
