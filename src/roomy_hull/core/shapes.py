"""Standard shapes of folded parts, by their outside sizes: each a few lines over the tree of faces."""

import math
from collections.abc import Sequence
from typing import Literal, NamedTuple

from roomy_hull.core.folded import Bend, Cutout, Face, Hole, Point

Corners = Literal["open", "welded"]
"""How two flanges meet at a corner: ``open``, relieved to the bends' tangent lines; ``welded``, edge to edge."""
WELD_GAP = 0.5
"""What is left between two edges to be welded (common practice). [mm]"""
LEAST = 0.01
"""What is narrower is not there. [mm]"""


class Sheet(NamedTuple):
    """What a part is folded of: thickness and inside bend radius. [mm]"""

    thickness: float
    radius: float


def rectangle(length: float, width: float, at: Point = (0.0, 0.0)) -> tuple[Point, ...]:
    """A rectangle's ring from its lower left corner, counter-clockwise. [mm]"""
    x, y = at
    return ((x, y), (x + length, y), (x + length, y + width), (x, y + width))


def pan(
    sheet: Sheet, length: float, width: float, flanges: tuple[float, float, float, float] = (0, 0, 0, 0), *,
    corners: Corners = "open", holes: tuple[Hole, ...] = (), cutouts: tuple[Cutout, ...] = (),
) -> Face:  # fmt: skip
    """A base with up to four flanges at right angles.

    Args:
        sheet: What it is folded of. [mm]
        length, width: Outside, along x and y. [mm]
        flanges: Outside heights at x = 0, x = length, y = 0, y = width; 0 for none. [mm]
        corners: Welded: those at y = 0 and y = width cover the edges of the others.
        holes, cutouts: In the base, from its lower left outside corner. [mm]
    """
    left, right, front, back = flanges
    s, t = sheet.radius + sheet.thickness, sheet.thickness
    x0, x1 = (s if left > 0 else 0.0), length - (s if right > 0 else 0.0)
    y0, y1 = (s if front > 0 else 0.0), width - (s if back > 0 else 0.0)
    ring = ((x0, y0), (x1, y0), (x1, y1), (x0, y1))
    # By edge: in front, right, at the back, left; whether it has a neighbour where it begins and where it ends.
    rows = (
        (front, x1 - x0, left > 0, right > 0, True), (right, y1 - y0, front > 0, back > 0, False),
        (back, x1 - x0, right > 0, left > 0, True), (left, y1 - y0, back > 0, front > 0, False),
    )  # fmt: skip
    bends = []
    for edge, (high, long, before, after, covers) in enumerate(rows):
        if high <= 0:
            continue
        more = (s if covers else s - t - WELD_GAP) if corners == "welded" else 0.0
        # The next face's x runs against the edge.
        bends.append(
            Bend(edge, 90.0, sheet.radius, _flange(long, high - s, more * after, more * before))
        )
    return Face(ring, holes, cutouts, tuple(bends))


def _flange(long: float, high: float, low_more: float, high_more: float) -> Face:
    """A flange from its bend up, longer than it at either end where it meets a neighbour."""
    a, b = -low_more, long + high_more
    ring: list[Point] = [(0.0, 0.0), (long, 0.0)]
    ring += [(b, 0.0)] if high_more > LEAST else []
    ring += [(b, high), (a, high)]
    ring += [(a, 0.0)] if low_more > LEAST else []
    return Face(tuple(ring))


def gusset(length: float, low: float, high: float) -> Face:
    """A flat plate with two right angles, `low` high at x = 0 and `high` at its other end. [mm]"""
    if low <= LEAST:
        return Face(((0.0, 0.0), (length, 0.0), (length, high)))
    return Face(((0.0, 0.0), (length, 0.0), (length, high), (0.0, low)))


def notched(
    length: float, width: float, start: float, long: float, high: float
) -> tuple[Point, ...]:
    """A rectangle's ring with a notch from its lower edge, as over a wheel arch.

    Args:
        length, width: Of the plate. [mm]
        start, long, high: Where the notch begins along x, how long and how high it is. [mm]
    Returns: Counter-clockwise; a plain rectangle where nothing is left of the notch. [mm]
    """
    return stepped(length, width, [(start, start + long, min(high, width))])


Step = tuple[float, float, float]
"""From where to where along an edge something is cut from it, and how deep. [mm]"""


def stepped(
    length: float, width: float, low: Sequence[Step] = (), high: Sequence[Step] = ()
) -> tuple[Point, ...]:
    """A rectangle's ring with notches from its lower and its upper edge that do not overlap, counter-clockwise. [mm]"""
    above = [(length - end, length - start, deep) for start, end, deep in high]
    return (
        *_edge(length, low),
        *((length - x, width - y) for x, y in _edge(length, above)),
    )


def _edge(length: float, steps: Sequence[Step]) -> list[Point]:
    """The corners along a lower edge, from the left. [mm]"""
    found: list[Point] = [(0.0, 0.0)]
    right: list[Point] = [(length, 0.0)]
    for start, end, deep in sorted(steps):
        a, b = max(0.0, start), min(length, end)
        if b - a <= LEAST or deep <= LEAST or not math.isfinite(a + b + deep):
            continue
        found = [*found, (a, 0.0), (a, deep)] if a > LEAST else [(0.0, deep)]
        if length - b > LEAST:
            found += [(b, deep), (b, 0.0)]
        else:
            right = [(length, deep)]
    return found + right
