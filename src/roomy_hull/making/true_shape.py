"""True shape: odd outlines laid into one another, so that a sheet less is bought than their rectangles need.

The strip packer is `spyrrow` (Gardeyn, Vanden Berghe & Wauters, a heuristic by separation); what it lays is taken over
only after the check of a layout that knows nothing of it.
"""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Any, NamedTuple

import msgspec

from roomy_hull.core import lazily
from roomy_hull.making.checked_layout import flaw, shape_of
from roomy_hull.making.nest_finish import lying, rests
from roomy_hull.making.sheets import Nest, PlacedBlank, Progress, Sheet

if TYPE_CHECKING:
    import shapely
    import spyrrow

    from roomy_hull.shop.shop import Stock
else:
    shapely = lazily.module("shapely")
    spyrrow = lazily.module("spyrrow")

SECONDS = 3
"""For one sheet at a time. [s]"""
ODD = 0.985
"""Where outlines fill more of their rectangles than this, true shape gains nothing."""
DENSE = 0.96
"""A sheet is not tried any fuller: cuts leave so much at least."""
SAFE = 0.02
"""The packer reckons in single precision: so much is kept beyond the kerf. [mm]"""
TRIES = 3
"""So often a sheet is tried with half as much to be added."""


class Clump(NamedTuple):
    """What is cut as one: a blank and what lies in its openings, the blank first."""

    placed: tuple[PlacedBlank, ...]

    @property
    def outline(self) -> Any:
        """Of the blank, where it lies. [mm]"""
        host = self.placed[0]
        return shapely.Polygon([host.at(p) for p in host.blank.outline])

    @property
    def grain(self) -> bool:
        """Whether anything in it has to keep the rolling direction."""
        return any(p.blank.part.grain for p in self.placed)


def by_shape(nest: Nest, stock: Stock, progress: Progress = lambda _share: True) -> Nest:
    """Lay odd outlines into one another wherever that saves a sheet.

    Args:
        nest: As found with rectangles. [mm]
        stock: Kerf, trim and the least offcut worth keeping. [mm]
        progress: Called with the share done; returning False stops, and what was saved till then is kept.
    Returns: With fewer bought sheets, or as it was. Where it was changed the bound is that of the area. [mm]

    What lies in a blank's openings goes with it. Offcuts of the shop's stay as they are.
    """
    groups = _groups(nest)
    found: list[Sheet] = []
    bounds: dict[str, tuple[int, int]] = {}
    # A nest has its bounds in the order of its groups.
    for n, (sheets, (words, bound)) in enumerate(
        zip(groups.values(), nest.bounds.items(), strict=True)
    ):
        least = area_bound(sheets, stock)
        now, going = sheets, True
        while going and len(bought(now)) > least and odd(now):

            def told(share: float, n: int = n) -> bool:
                return progress((n + share) / len(groups))

            fewer = one_less(now, stock, told)
            going, now = fewer is not None, fewer or now
        found += now
        bounds[words] = (len(bought(now)), least) if now is not sheets else bound
    return Nest(tuple(found), bounds)


def hopeful(nest: Nest, stock: Stock) -> bool:
    """Whether true shape could save a sheet: outlines are odd enough, and their area would go on fewer.

    Args:
        nest: As it is. [mm]
        stock: Its trim. [mm]
    Returns: False where every sheet is needed.
    """
    return any(len(bought(g)) > area_bound(g, stock) and odd(g) for g in _groups(nest).values())


def _groups(nest: Nest) -> dict[tuple[str, float], list[Sheet]]:
    found: dict[tuple[str, float], list[Sheet]] = {}
    for sheet in nest.sheets:
        found.setdefault((sheet.material.key, sheet.thickness), []).append(sheet)
    return found


def area_bound(sheets: list[Sheet], stock: Stock) -> int:
    """How many bought sheets no layout of any shape does without, by area alone.

    Args:
        sheets: Of one material and thickness. [mm]
        stock: Its trim. [mm]
    Returns: Of the largest size bought; what the shop's offcuts could hold is taken off.
    """

    def room(s: Sheet) -> float:
        return (s.length - 2 * stock.trim) * (s.width - 2 * stock.trim)

    paid = bought(sheets)
    if not paid:
        return 0
    metal: float = sum(shape_of(lying(p)).area for s in sheets for p in s.placed)
    metal -= sum(room(s) for s in sheets if not s.bought)
    return max(1, math.ceil(metal / max(map(room, paid)) - 1e-9))


def bought(sheets: list[Sheet]) -> list[Sheet]:
    """Those that cost something."""
    return [s for s in sheets if s.bought]


def odd(sheets: list[Sheet]) -> bool:
    """Whether outlines leave enough of their rectangles for true shape to gain anything."""
    rows = [p for s in bought(sheets) for p in s.placed if p.inside < 0]
    boxes = sum(p.length * p.width for p in rows)
    outlines: float = sum(shapely.Polygon(p.blank.outline).area for p in rows)
    return outlines < ODD * boxes


def one_less(sheets: list[Sheet], stock: Stock, progress: Progress) -> list[Sheet] | None:
    """Lay what is on the emptiest bought sheet on the others.

    Args:
        sheets: Of one material and thickness. [mm]
        stock: Kerf, trim, least offcut. [mm]
        progress: Called with the share done; returning False stops.
    Returns: One sheet fewer; None where it was not found, or stopped.
    """
    order = sorted(bought(sheets), key=Sheet.used)
    if len(order) < 2:
        return None
    left = sorted(clumps(order[0]), key=lambda c: -c.outline.area)
    done: dict[int, Sheet] = {}
    for n, sheet in enumerate(order[1:]):
        if not left:
            break
        if not progress(n / len(order)):
            return None
        got, left = added(sheet, left, stock)
        done[id(sheet)] = got
    if left:
        return None
    return [done.get(id(s), s) for s in sheets if s is not order[0]]


def clumps(sheet: Sheet) -> list[Clump]:
    """What lies on a sheet, each blank with what lies in its openings."""
    by_host: dict[int, list[PlacedBlank]] = {}
    for p in sheet.placed:
        if p.inside < 0:
            by_host.setdefault(p.number, []).insert(0, p)
        else:
            by_host.setdefault(p.inside, []).append(p)
    return [Clump(tuple(rows)) for rows in by_host.values()]


def added(sheet: Sheet, more: list[Clump], stock: Stock) -> tuple[Sheet, list[Clump]]:
    """A sheet with as much of some clumps as it takes, and what it did not take.

    Args:
        sheet: As it is. [mm]
        stock: Kerf, trim, least offcut. [mm]
    Returns: The same sheet where it takes none.
    """
    own = clumps(sheet)
    room = (sheet.length - 2 * stock.trim + stock.kerf) * (
        sheet.width - 2 * stock.trim + stock.kerf
    )
    free = DENSE * room - sum(_grown(c.outline, stock.kerf).area for c in own)
    chosen: list[Clump] = []
    for c in more:
        area = _grown(c.outline, stock.kerf).area
        if area <= free:
            chosen.append(c)
            free -= area
    for _ in range(TRIES):
        if not chosen:
            break
        laid = packed([*own, *chosen], (sheet.length, sheet.width), stock)
        if laid is not None:
            new = msgspec.structs.replace(sheet, placed=laid, left=_left(laid, sheet, stock))
            return new, [c for c in more if c not in chosen]
        chosen = chosen[: len(chosen) // 2]
    return sheet, more


def packed(
    rows: list[Clump], size: tuple[float, float], stock: Stock, seconds: int = SECONDS
) -> tuple[PlacedBlank, ...] | None:
    """Some clumps on one sheet, by their true shape.

    Args:
        rows: Where they lie now does not matter. [mm]
        size: Of the sheet. [mm]
        stock: Kerf and trim. [mm]
        seconds: Given to the packer. [s]
    Returns: Checked; None where they do not go on.
    """
    k, trim = stock.kerf, stock.trim
    high, long = size[1] - 2 * trim + k, size[0] - 2 * trim + k
    shapes = [_grown(c.outline, k) for c in rows]
    if any(not _fits(s, c.grain, long, high) for s, c in zip(shapes, rows, strict=True)):
        return None  # the packer fails on what is larger than its strip
    ways = ((0.0, 180.0), (0.0, 90.0, 180.0, 270.0))
    items = [
        spyrrow.Item(str(n), list(s.exterior.coords)[:-1], 1, ways[not c.grain])
        for n, (s, c) in enumerate(zip(shapes, rows, strict=True))
    ]
    strip = spyrrow.StripPackingInstance("sheet", high, items)
    found = strip.solve(
        spyrrow.StripPackingConfig(total_computation_time=seconds, seed=1, num_workers=1)
    )
    if found.width > long:
        return None
    laid: list[PlacedBlank] = []
    for one in found.placed_items:
        dx, dy = one.translation
        turned = quarters(rows[int(one.id)], round(one.rotation / 90) % 4)
        off = trim - k / 2
        laid += [msgspec.structs.replace(p, x=p.x + dx + off, y=p.y + dy + off) for p in turned]
    return None if flaw([lying(p) for p in laid], size, trim, k) else tuple(laid)


def quarters(clump: Clump, n: int) -> list[PlacedBlank]:
    """A clump turned about the origin by quarters, against the clock.

    Args:
        clump: Where it lies. [mm]
        n: How many quarters, 0 to 3.
    Returns: Its blanks where they then lie. [mm]
    """
    rows = list(clump.placed)
    for _ in range(n):
        # A quarter turn carries the upper left corner of a blank's rectangle to its lower left one.
        rows = [
            msgspec.structs.replace(
                p, x=-(p.y + p.width), y=p.x, length=p.width, width=p.length,
                turned=not p.turned, about=p.about != p.turned,
            )
            for p in rows
        ]  # fmt: skip
    return rows


def _grown(outline: Any, kerf: float) -> Any:
    """An outline with half of the kerf around it, without openings. [mm]"""
    grown = outline.buffer(kerf / 2 + SAFE, join_style="mitre").simplify(SAFE / 4)
    return shapely.Polygon(grown.exterior)


def _fits(shape: Any, grain: bool, long: float, high: float) -> bool:
    x0, y0, x1, y1 = shape.bounds
    a, b = x1 - x0, y1 - y0
    return (a <= long and b <= high) or (not grain and b <= long and a <= high)


def _left(
    laid: tuple[PlacedBlank, ...], sheet: Sheet, stock: Stock
) -> tuple[tuple[float, float, float, float], ...]:
    """The rectangles worth keeping beside everything's rectangle, the largest first. [mm]"""
    k, trim = stock.kerf, stock.trim
    room = (
        math.floor((sheet.length - 2 * trim + k) * 10),
        math.floor((sheet.width - 2 * trim + k) * 10),
    )
    boxes = [
        (math.floor((p.x - trim) * 10), math.floor((p.y - trim) * 10),
         math.ceil((p.x - trim + p.length + k) * 10), math.ceil((p.y - trim + p.width + k) * 10))
        for p in laid
    ]  # fmt: skip
    return rests(boxes, room, stock)
