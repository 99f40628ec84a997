"""What is etched on a blank, and where on its metal there is room for words."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, NamedTuple

from roomy_hull.core import lazily
from roomy_hull.core.primitives import Point, Words
from roomy_hull.making.flats import Blank, bend_words

if TYPE_CHECKING:
    import numpy as np
    import shapely
else:
    np = lazily.module("numpy")
    shapely = lazily.module("shapely")

LINE, LETTER = 1.8, 0.62
"""A line's height and a letter's width, in heights of the letters."""
SCALES = (1.0, 0.8, 0.6, 0.45, 0.3)
GRID = 12
"""Places are tried so many along each side."""


class Spot(NamedTuple):
    """Where words stand: their middle, whether upright, by how much smaller they are than wished. [mm]"""

    at: Point
    upright: bool = False
    scale: float = 1.0


def metal_of(blank: Blank, *, holes: bool = True) -> Any:
    """A flat's metal: its outline less openings and holes.

    Args:
        blank: The flat. [mm]
        holes: Whether its holes are taken off.
    Returns: In its own plane. [mm]
    """
    out = [shapely.box(c.x, c.y, c.x + c.length, c.y + c.width) for c in blank.cutouts]
    if holes:
        out += [shapely.Point(h.x, h.y).buffer(h.diameter / 2, quad_segs=4) for h in blank.holes]
    return shapely.Polygon(blank.outline).difference(shapely.unary_union(out))


def spot(blank: Blank, long: float, high: float, *, holes: bool = True) -> Spot:
    """Where on a blank's metal words find room.

    Args:
        blank: The flat. [mm]
        long, high: What the words take, lying. [mm]
        holes: Whether they keep clear of holes too.
    Returns:
        The middle, where that is metal; else the place nearest to it, lying or upright, with the words as large as
        can be; at worst in the middle of the widest metal. [mm]
    """
    middle = (blank.length / 2, blank.width / 2)
    if _clear(blank, middle, long / 2, high / 2, holes=holes):
        return Spot(middle)
    metal = metal_of(blank, holes=holes)
    shapely.prepare(metal)
    places = sorted(
        ((blank.length * (i + 0.5) / GRID, blank.width * (j + 0.5) / GRID) for i in range(GRID) for j in range(GRID)),
        key=lambda p: (p[0] - middle[0]) ** 2 + (p[1] - middle[1]) ** 2,
    )  # fmt: skip
    tried = np.array([*_rims(blank, middle), *places])
    x, y = tried[:, 0], tried[:, 1]
    for scale in SCALES:
        for upright in (False, True):
            a, b = (n * scale / 2 for n in ((high, long) if upright else (long, high)))
            fit = np.flatnonzero(shapely.contains(metal, shapely.box(x - a, y - b, x + a, y + b)))
            if len(fit):
                n = int(fit[0])
                return Spot((float(x[n]), float(y[n])), upright, scale)
    wide = shapely.maximum_inscribed_circle(metal, tolerance=1.0)
    return Spot(wide.coords[0], scale=SCALES[-1])


def _clear(blank: Blank, p: Point, a: float, b: float, *, holes: bool) -> bool:
    """Whether a rectangle about a point is metal, asked without cutting anything out."""
    x, y = p
    for c in blank.cutouts:
        if abs(c.x + c.length / 2 - x) < a + c.length / 2 and abs(c.y + c.width / 2 - y) < b + c.width / 2:  # fmt: skip
            return False
    for h in blank.holes if holes else ():
        r = h.diameter / 2
        if abs(h.x - x) < a + r and abs(h.y - y) < b + r:
            return False
    box = shapely.box(x - a, y - b, x + a, y + b)
    return bool(shapely.Polygon(blank.outline).contains(box))


def _rims(blank: Blank, middle: Point) -> list[Point]:
    """The middles of the strips beside openings."""
    found = []
    for c in blank.cutouts:
        x, y = c.x + c.length / 2, c.y + c.width / 2
        found += [
            (x, (c.y + c.width + blank.width) / 2), (x, c.y / 2), (c.x / 2, y), ((c.x + c.length + blank.length) / 2, y)
        ]  # fmt: skip
    return sorted(found, key=lambda p: (p[0] - middle[0]) ** 2 + (p[1] - middle[1]) ** 2)


def etched(blank: Blank) -> list[Words]:
    """Write what is etched on a blank: its part's number, name, how many, sheet, bends; on its metal.

    Args:
        blank: The flat. [mm]
    Returns: One for each line. [mm]
    """
    part = blank.part
    height = max(4.0, min(14.0, min(blank.length, blank.width) / 12))
    number = f"{blank.number:03d} " if blank.number else ""
    words = [f"{number}{part.name}  x{part.count}", f"{part.thickness:g} {part.material.key}"]
    if blank.bends:
        words.append(bend_words(blank).replace("°", ""))  # a machine's etcher has plain letters
    longest = max(map(len, words))
    where = spot(blank, longest * height * LETTER, len(words) * height * LINE)
    size = height * where.scale
    found = []
    for i, row in enumerate(words):
        off = (i - (len(words) - 1) / 2) * size * LINE
        x, y = where.at
        at = (x + off, y) if where.upright else (x, y - off)
        found.append(Words("etched", at, row, size, fixed=False, upright=where.upright))
    return found
