"""The whole cut: blanks, sheets and bars of a job's parts."""

import msgspec

from roomy_hull.core.sheetmetal import Hardware, Part, SheetPart
from roomy_hull.core.tables import stock
from roomy_hull.making.bars import BarPlan, plan
from roomy_hull.making.flats import Blank, blank
from roomy_hull.making.sheets import Nest, Progress, nest


class CutList(msgspec.Struct, frozen=True):
    """Everything the workshop cuts and buys for a job.

    `blanks` hold each different blank once, in the order of the parts; `hardware` is bought.
    """

    parts: tuple[Part, ...]
    blanks: tuple[Blank, ...]
    nest: Nest
    bars: BarPlan
    hardware: tuple[Hardware, ...]


def cut_list(parts: list[Part], progress: Progress = lambda _share: True) -> CutList:
    """Unfold, nest and saw all parts of a job.

    Parameters
    ----------
    parts : list of Part
        All parts. [mm]
    progress : callable
        Called with the share done; returning False gives up.

    Returns
    -------
    CutList
        Blanks, sheets, bars, hardware.

    Raises
    ------
    InputError
        A blank or bar is larger than the stock, or the work was given up.
    """
    shop = stock()
    sheet_parts = [p for p in parts if isinstance(p, SheetPart)]
    blanks = [blank(p) for p in sheet_parts]
    pieces = [b for b, p in zip(blanks, sheet_parts, strict=True) for _ in range(p.count)]
    return CutList(
        tuple(parts),
        tuple(blanks),
        nest(pieces, shop, progress),
        plan(parts, shop.bar_length, shop.kerf),
        tuple(p for p in parts if isinstance(p, Hardware)),
    )
