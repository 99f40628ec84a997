"""Blanks on sheets: nested by a well-known packer, and the result checked by ourselves."""

import math
from collections.abc import Callable

import msgspec
import rectpack  # type: ignore[import-untyped]  # ships no types

from roomy_hull.core.errors import GivenUp, InputError
from roomy_hull.core.material import Material
from roomy_hull.making.flats import Blank, fits
from roomy_hull.shop.shop import Stock

Progress = Callable[[float], bool]


class PlacedBlank(msgspec.Struct, frozen=True):
    """A blank's place on its sheet; `turned` by a quarter. Lower left corner. [mm]"""

    blank: Blank
    number: int
    x: float
    y: float
    length: float
    width: float
    turned: bool


class Sheet(msgspec.Struct, frozen=True):
    """One sheet with what is cut from it. [mm]"""

    material: Material
    thickness: float
    length: float
    width: float
    placed: tuple[PlacedBlank, ...]

    def used(self) -> float:
        """The share of the sheet's area that becomes blanks."""
        return sum(p.blank.part.area() for p in self.placed) / (self.length * self.width)

    def mass(self) -> float:
        """The whole sheet's mass. [kg]"""
        return self.length * self.width * self.thickness * self.material.density * 1e-9


class Nest(msgspec.Struct, frozen=True):
    """All sheets; for each (material, thickness) the sheets used and the area bound below it."""

    sheets: tuple[Sheet, ...]
    bounds: dict[str, tuple[int, int]]


def nest(blanks: list[Blank], stock: Stock, progress: Progress = lambda _share: True) -> Nest:
    """Nest blanks on stock sheets, material by material.

    Parameters
    ----------
    blanks : list of Blank
        Every blank once for each piece wanted. [mm]
    stock : Stock
        Sheet sizes, kerf and edge trim. [mm]
    progress : callable
        Called with the share done; returning False gives up.

    Returns
    -------
    Nest
        The sheets, and for each group the count used beside its lower bound by area.

    Raises
    ------
    InputError
        A blank is larger than every stock sheet.
    GivenUp
        The work was given up.
    """
    none = next((b for b in blanks if min(b.length, b.width) <= 0), None)
    if none is not None:
        raise InputError(
            f"the blank has no size left ({none.length:.1f} × {none.width:.1f} mm)",
            place=none.part.name,
            remedy="Make what it belongs to larger.",
        )
    groups: dict[tuple[str, float], list[Blank]] = {}
    for one in blanks:
        groups.setdefault((one.part.material.key, one.part.thickness), []).append(one)
    sheets: list[Sheet] = []
    bounds: dict[str, tuple[int, int]] = {}
    for done, ((metal, thick), group) in enumerate(sorted(groups.items(), key=lambda g: g[0])):
        if not progress(done / len(groups)):
            raise GivenUp("the nesting was given up")
        best = _best_size(group, stock)
        found = _pack(group, best, stock)
        sheets += [Sheet(group[0].part.material, thick, *best, placed) for placed in found]
        bounds[f"{metal} {thick:g} mm, sheet {best[0]:g} × {best[1]:g}"] = (
            len(found), area_bound(group, best, stock),
        )  # fmt: skip
    progress(1.0)
    return Nest(tuple(sheets), bounds)


def area_bound(group: list[Blank], size: tuple[float, float], stock: Stock) -> int:
    """The fewest sheets that the blanks' rectangles could fill, by area."""
    k = stock.kerf
    room = (size[0] - 2 * stock.trim + k) * (size[1] - 2 * stock.trim + k)
    return math.ceil(sum((b.length + k) * (b.width + k) for b in group) / room - 1e-9)


MANY = 200
"""More blanks of one sheet than this are packed by one rule only."""


def _best_size(group: list[Blank], stock: Stock) -> tuple[float, float]:
    """Choose the stock size that takes every blank with the least sheet area."""
    able = [s for s in stock.sheets if all(fits(b, s, stock.trim) for b in group)]
    if not able:
        large = max(group, key=lambda b: b.length * b.width)
        raise InputError(
            f"the blank of {large.length:.0f} × {large.width:.0f} mm is larger than every "
            "stock sheet",
            place=large.part.name,
            remedy="Split the part, or order a larger sheet.",
        )
    if len(able) == 1:
        return able[0]
    if len(group) > MANY:
        # So many fill their sheets nearly by area; to pack them once for every size would take seconds.
        return min(able, key=lambda s: area_bound(group, s, stock) * s[0] * s[1])
    return min(
        able, key=lambda s: len(_pack_once(group, s, stock, ALGORITHMS[0], ORDERS[0])) * s[0] * s[1]
    )


ALGORITHMS = (rectpack.MaxRectsBssf, rectpack.MaxRectsBaf, rectpack.MaxRectsBl, rectpack.SkylineMwf)
ORDERS = (rectpack.SORT_LSIDE, rectpack.SORT_AREA, rectpack.SORT_SSIDE)


def _pack(
    group: list[Blank], size: tuple[float, float], stock: Stock
) -> list[tuple[PlacedBlank, ...]]:
    """Pack one group on sheets of one size: the best of several rules and orders.

    Fewest sheets first, then the emptiest last sheet, whose offcut is worth the most.
    """
    best: list[tuple[PlacedBlank, ...]] = []
    score = (math.inf, math.inf)
    bound = area_bound(group, size, stock)
    # So many pieces leave little to choose, and every rule takes its time.
    many = len(group) > MANY
    for algorithm in ALGORITHMS[:1] if many else ALGORITHMS:
        for order in ORDERS[:1] if many else ORDERS:
            found = _pack_once(group, size, stock, algorithm, order)
            least = min(sum(p.length * p.width for p in row) for row in found)
            if (len(found), least) < score:
                best, score = found, (len(found), least)
        if len(best) == bound == 1:
            break
    check(best, group, size, stock)
    return best


def _pack_once(
    group: list[Blank], size: tuple[float, float], stock: Stock, algorithm: type, order: object
) -> list[tuple[PlacedBlank, ...]]:
    """Pack once by one rule, in tenths of a millimetre, rounded up."""
    k, trim = stock.kerf, stock.trim
    room = (math.floor((size[0] - 2 * trim + k) * 10), math.floor((size[1] - 2 * trim + k) * 10))
    grained = any(b.part.grain for b in group)
    # The packer turns all or none; a group with grain is therefore packed unturned.
    packer = rectpack.newPacker(rotation=not grained, pack_algo=algorithm, sort_algo=order)
    sizes = []
    for i, one in enumerate(group):
        a, b = math.ceil((one.length + k) * 10 - 1e-6), math.ceil((one.width + k) * 10 - 1e-6)
        turn_first = not grained and not (a <= room[0] and b <= room[1])
        sizes.append((a, b))
        packer.add_rect(*((b, a) if turn_first else (a, b)), rid=i)
    packer.add_bin(*room, count=len(group))
    packer.pack()
    found: list[tuple[PlacedBlank, ...]] = []
    for sheet in packer:
        row = []
        for rect in sheet:
            one = group[rect.rid]
            turned = (rect.width, rect.height) != sizes[rect.rid]
            long, wide = (one.width, one.length) if turned else (one.length, one.width)
            row.append(PlacedBlank(one, rect.rid, trim + rect.x / 10, trim + rect.y / 10,
                                   long, wide, turned))  # fmt: skip
        if row:
            found.append(tuple(row))
    return found


def check(
    found: list[tuple[PlacedBlank, ...]], group: list[Blank], size: tuple[float, float],
    stock: Stock,
) -> None:  # fmt: skip
    """Check a packing ourselves: every piece once, inside the trim, a kerf between any two.

    Parameters
    ----------
    found : list of tuple of PlacedBlank
        The packing. [mm]
    group : list of Blank
        What was to be packed.
    size : (float, float)
        Sheet size. [mm]
    stock : Stock
        Kerf and trim. [mm]

    Raises
    ------
    InputError
        The packing is not valid; nothing is cut by it.
    """
    numbers = sorted(p.number for row in found for p in row)
    fault = "a blank is missing" if numbers != list(range(len(group))) else ""
    slack = 1e-6
    for row in found:
        for i, p in enumerate(row):
            if (
                min(p.x, p.y) < stock.trim - slack
                or p.x + p.length > size[0] - stock.trim + slack
                or p.y + p.width > size[1] - stock.trim + slack
            ):
                fault = f"{p.blank.part.name} lies over the edge trim"
            for q in row[i + 1 :]:
                apart = max(
                    q.x - p.x - p.length, p.x - q.x - q.length,
                    q.y - p.y - p.width, p.y - q.y - q.width,
                )  # fmt: skip
                if apart < stock.kerf - slack:
                    fault = f"{p.blank.part.name} and {q.blank.part.name} lie too near"
    if fault:
        raise InputError(f"the nesting failed its check: {fault}", remedy="Report this job.")
