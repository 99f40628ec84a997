"""Rounded corners: where an outline leaves its straight pieces, the same for every backend."""

import math
from collections.abc import Callable, Iterator

from roomy_hull.core.primitives import Outline, Point

Corner = tuple[Point, Point, Point]
"""Where a corner's curve begins, its corner, where the curve ends; all three are one where it is sharp."""


def corners(
    outline: Outline, place: Callable[[Point], Point], scale: float, least: float = 0.6
) -> Iterator[Corner]:
    """Round an outline's corners as they come onto paper or screen.

    Args:
        outline: Its points, and one radius for all or one each. [mm]
        place: From a point of the scene to one of the page.
        scale: Of the page, per millimetre.
        least: Corners of a smaller radius stay sharp, as they could not be seen, unless another is larger. [page]
    Yields: One a point, in order; the ends of an open line are sharp. [page]
    """
    points, count = [place(p) for p in outline.points], len(outline.points)
    radii = [r * scale for r in outline.radii] or [outline.radius * scale] * count
    if max(radii, default=0.0) < least:
        yield from ((p, p, p) for p in points)
        return
    for n, at in enumerate(points):
        if not outline.closed and n in {0, count - 1}:
            yield at, at, at
        else:
            yield (
                _towards(at, points[n - 1], radii[n]),
                at,
                _towards(at, points[(n + 1) % count], radii[n]),
            )


def _towards(corner: Point, other: Point, radius: float) -> Point:
    """Step from a corner towards a neighbour, at most half the way."""
    dx, dy = other[0] - corner[0], other[1] - corner[1]
    long = math.hypot(dx, dy) or 1.0
    step = min(radius, long / 2)
    return (corner[0] + dx / long * step, corner[1] + dy / long * step)
