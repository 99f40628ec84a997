"""Rounded corners: where an outline leaves its straight pieces, the same for every backend."""

import math

import msgspec

from roomy_hull.core.strokes import Outline, Point


class Corner(msgspec.Struct, frozen=True):
    """One corner of an outline: a curve from `start` to `stop` about `at`; both are `at` where it is sharp."""

    at: Point
    start: Point
    stop: Point

    @property
    def sharp(self) -> bool:
        """Whether there is no curve."""
        return self.start == self.stop == self.at


def corners(outline: Outline, least: float = 0.0) -> tuple[Corner, ...]:
    """Round an outline's corners.

    Parameters
    ----------
    outline : Outline
        Its points, and one radius for all or one each. [mm]
    least : float
        Corners of a smaller radius stay sharp, as they could not be seen. [mm]

    Returns
    -------
    tuple of Corner
        One a point, in order; the ends of an open line are sharp. [mm]
    """
    points, count = outline.points, len(outline.points)
    radii = outline.radii or (outline.radius,) * count
    found = []
    for n, at in enumerate(points):
        end = not outline.closed and n in {0, count - 1}
        if end or count < 3 or radii[n] <= least:
            found.append(Corner(at, at, at))
            continue
        start = _towards(at, points[n - 1], radii[n])
        found.append(Corner(at, start, _towards(at, points[(n + 1) % count], radii[n])))
    return tuple(found)


def _towards(corner: Point, other: Point, radius: float) -> Point:
    """Step from a corner towards a neighbour, at most half the way."""
    dx, dy = other[0] - corner[0], other[1] - corner[1]
    long = math.hypot(dx, dy) or 1.0
    step = min(radius, long / 2) / long
    return (corner[0] + dx * step, corner[1] + dy * step)
