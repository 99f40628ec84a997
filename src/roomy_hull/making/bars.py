"""Bar lengths on stock bars: as few as can be, the shop's offcuts first, beside the bound below them.

The fewest bars are those of the whole-number programme over cutting patterns. Its linear relaxation is solved by
column generation (Gilmore & Gomory 1961): patterns are priced by a knapsack until none improves it, and its value,
rounded up, is the bound. Whole numbers come from diving: what is whole in it is kept, the rest is solved anew.
"""

from collections.abc import Callable

import msgspec

from roomy_hull.core.errors import GivenUp, InputError
from roomy_hull.core.material import Material
from roomy_hull.core.parts import BarPart, Part
from roomy_hull.making.cutting_stock import Pattern, fewest, first_fit
from roomy_hull.shop.shop import Offcut

__all__ = ["Bar", "BarPlan", "Pattern", "first_fit", "plan"]


class Bar(msgspec.Struct, frozen=True):
    """One stock bar and what is sawn from it, in order: name, length, how its ends are cut. [mm]

    `bought` is false for one of the shop's offcuts.
    """

    section: str
    material: Material
    length: float
    pieces: tuple[tuple[str, float, str], ...]
    offcut: float
    bought: bool = True


class BarPlan(msgspec.Struct, frozen=True):
    """All bars, and for each section the bars bought beside the lower bound."""

    bars: tuple[Bar, ...]
    bounds: dict[str, tuple[int, int]]


def plan(
    parts: list[Part], stock_length: float, kerf: float, offcuts: tuple[Offcut, ...] = (),
    progress: Callable[[float], bool] = lambda _share: True,
) -> BarPlan:  # fmt: skip
    """Saw bar parts from stock bars, as few as can be.

    Args:
        parts: All parts; only bar parts count. [mm]
        stock_length, kerf: Stock bar and saw kerf. [mm]
        offcuts: What the shop has; those of a section and material are used before a bar is bought.
        progress: Called with the share done; returning False gives up.
    Returns: Bars and bounds; each piece takes its length and one kerf, but for the last of a bar.
    Raises:
        InputError: A piece is longer than the stock bar.
        GivenUp: The work was given up.
    """
    groups: dict[tuple[str, str], list[tuple[str, float, str]]] = {}
    materials: dict[str, Material] = {}
    for part in parts:
        if isinstance(part, BarPart):
            if part.length > stock_length:
                raise InputError(
                    f"a piece of {part.length:.0f} mm is longer than the stock bar",
                    place=part.name,
                    remedy=f"Join it, or buy bars longer than {stock_length:.0f} mm.",
                )
            materials[part.material.key] = part.material
            groups.setdefault((part.section, part.material.key), []).extend(
                [(part.name, part.length, part.cuts())] * part.count
            )
    bars: list[Bar] = []
    bounds: dict[str, tuple[int, int]] = {}
    for done, ((section, metal), pieces) in enumerate(sorted(groups.items())):
        if not progress(done / len(groups)):
            raise GivenUp("the sawing plan was given up")
        old = sorted(
            o.length for o in offcuts if o.material == metal and o.section == section
            for _ in range(o.count)
        )  # fmt: skip
        found = fewest([p[1] for p in pieces], stock_length, kerf, old)
        for row in found.rows:
            cut = tuple(pieces[i] for i in row.pieces)
            # The last piece may end with the bar: it takes no kerf of its own.
            rest = row.length - sum(p[1] + kerf for p in cut)
            bars.append(Bar(section, materials[metal], row.length, cut, max(0.0, rest), row.bought))
        bounds[f"{section} {metal}"] = (sum(r.bought for r in found.rows), found.bound)
    return BarPlan(tuple(bars), bounds)
