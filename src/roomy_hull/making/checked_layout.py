"""The check of a nested sheet: outlines with their openings, a kerf between any two, nothing over the trim.

It knows nothing of how the layout was found, and is asked again of what was read back from a file.
"""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, NamedTuple

from roomy_hull.core import lazily
from roomy_hull.making.flats import Blank

if TYPE_CHECKING:
    import shapely
else:
    shapely = lazily.module("shapely")

SLACK = 1e-6
"""What is nearer than a kerf, or over the trim, by less is rounding. [mm]"""


class Lying(NamedTuple):
    """A blank where it lies: lower left corner, whether turned, in which other's opening, whether turned about. [mm]"""

    blank: Blank
    x: float
    y: float
    turned: bool
    inside: int = -1
    about: bool = False


def shape_of(one: Lying) -> Any:
    """A blank where it lies, as a polygon with its openings. [mm]"""
    b = one.blank
    rings = [b.outline, *(_rect(c.x, c.y, c.x + c.length, c.y + c.width) for c in b.cutouts)]

    def at(p: tuple[float, float]) -> tuple[float, float]:
        x, y = (b.width - p[1], p[0]) if one.turned else p
        if one.about:
            long, wide = (b.width, b.length) if one.turned else (b.length, b.width)
            x, y = long - x, wide - y
        return one.x + x, one.y + y

    outer, *holes = ([at(p) for p in ring] for ring in rings)
    return shapely.Polygon(outer, holes)


def _rect(x0: float, y0: float, x1: float, y1: float) -> tuple[tuple[float, float], ...]:
    return ((x0, y0), (x1, y0), (x1, y1), (x0, y1))


def flaw(rows: list[Lying], size: tuple[float, float], trim: float, kerf: float) -> str:
    """Say what is wrong with a layout.

    Args:
        rows: What lies on one sheet. [mm]
        size: Of the sheet. [mm]
        trim, kerf: What is left at its edges and between outlines. [mm]
    Returns: The first fault, or nothing.
    """
    shapes = [shape_of(r) for r in rows]
    for row, shape in zip(rows, shapes, strict=True):
        x0, y0, x1, y1 = shape.bounds
        if min(x0, y0) < trim - SLACK or x1 > size[0] - trim + SLACK or y1 > size[1] - trim + SLACK:
            return f"{row.blank.part.name} lies over the edge trim"
    if len(shapes) < 2:
        return ""
    tree = shapely.STRtree(shapes)
    one, other = tree.query(shapes, predicate="dwithin", distance=max(kerf - SLACK, 0.0))
    for a, b in zip(one, other, strict=True):
        if a < b and (kerf > 0 or shapes[a].intersection(shapes[b]).area > SLACK):
            return f"{rows[a].blank.part.name} and {rows[b].blank.part.name} lie too near"
    return ""
