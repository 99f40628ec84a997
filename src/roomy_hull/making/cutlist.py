"""The whole cut: blanks, sheets and bars of a job's parts."""

import msgspec

from roomy_hull.core.parts import Hardware, Part, SheetPart
from roomy_hull.making.bars import BarPlan, plan
from roomy_hull.making.flats import Blank, blank
from roomy_hull.making.sheets import Nest, Progress, nest
from roomy_hull.shop.shop import Stock


class CutList(msgspec.Struct, frozen=True):
    """Everything the workshop cuts and buys for a job.

    `blanks` hold each different blank once, in the order of the parts; `hardware` is bought.
    """

    parts: tuple[Part, ...]
    blanks: tuple[Blank, ...]
    nest: Nest
    bars: BarPlan
    hardware: tuple[Hardware, ...]


def cut_list(parts: list[Part], stock: Stock, progress: Progress = lambda _share: True) -> CutList:
    """Unfold, nest and saw all parts of a job.

    Parameters
    ----------
    parts : list of Part
        All parts. [mm]
    stock : Stock
        What the shop buys. [mm]
    progress : callable
        Called with the share done; returning False gives up.

    Returns
    -------
    CutList
        Blanks, sheets, bars, hardware.

    Raises
    ------
    InputError
        A blank or bar is larger than the stock.
    GivenUp
        The work was given up.
    """
    sheet_parts = [p for p in parts if isinstance(p, SheetPart)]
    blanks = [blank(p) for p in sheet_parts]
    pieces = [b for b, p in zip(blanks, sheet_parts, strict=True) for _ in range(p.count)]
    return CutList(
        tuple(parts),
        tuple(blanks),
        nest(pieces, stock, progress),
        plan(parts, stock.bar_length, stock.kerf),
        tuple(p for p in parts if isinstance(p, Hardware)),
    )
