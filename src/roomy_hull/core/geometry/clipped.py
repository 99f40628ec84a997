"""What of a convex body lies above a plane: the water that runs out of a tank, at any slope.

Plain figures: it is asked at every start of the window, before any large library is read.
"""

import itertools
import math
from typing import NamedTuple

from roomy_hull.core.geometry.motion import PLANE, Piece

Point = tuple[float, float, float]


class Up(NamedTuple):
    """A direction, of length 1."""

    x: float
    y: float
    z: float


def faces(piece: Piece) -> list[list[Point]]:
    """The faces of a prism.

    Args:
        piece: [mm]
    Returns: Both ends and every side, their corners in turn. [mm]
    """
    a, b = PLANE[piece.axis]

    def at(p: tuple[float, float], far: float) -> Point:
        found = [far, far, far]
        found[a], found[b] = p
        return (found[0], found[1], found[2])

    ends = [[at(p, far) for p in piece.ring] for far in (piece.lo, piece.hi)]
    sides = [
        [ends[0][n], ends[0][m], ends[1][m], ends[1][n]]
        for n, m in ((n, (n + 1) % len(piece.ring)) for n in range(len(piece.ring)))
    ]
    return [*ends, *sides]


def tilted(nose_up: float, left_up: float) -> Up:
    """The direction of up in the axes of a vehicle that stands on a slope.

    Args:
        nose_up, left_up: By how much front and left side stand higher. [°]
    """
    x, y = -math.tan(math.radians(nose_up)), -math.tan(math.radians(left_up))
    long = math.sqrt(x * x + y * y + 1.0)
    return Up(x / long, y / long, 1.0 / long)


def above(piece: Piece, point: Point, up: Up) -> float:
    """How much of a convex prism lies above a plane.

    Args:
        piece: A convex prism. [mm]
        point: A point of the plane. [mm]
    Returns:
        Exact: pyramids over what of each face is above, all to the plane's point, so that the cut itself adds
        nothing (Sutherland & Hodgman, 1974, for the faces). [mm³]
    """
    middle = _mean([p for face in faces(piece)[:2] for p in face])
    total = 0.0
    for face in faces(piece):
        kept = _clipped(face, point, up)
        if len(kept) < 3:
            continue
        volume = sum(_six(kept[0], kept[n], kept[n + 1], point) for n in range(1, len(kept) - 1))
        # Outwards, whichever way the corners run: the middle of the whole lies inside.
        outward = _six(face[0], face[1], face[2], middle)
        total += volume if outward >= 0 else -volume
    return max(0.0, total / 6.0)


def _mean(points: list[Point]) -> Point:
    """The middle of some points."""
    n = len(points)
    return (
        sum(p[0] for p in points) / n,
        sum(p[1] for p in points) / n,
        sum(p[2] for p in points) / n,
    )


def _six(a: Point, b: Point, c: Point, apex: Point) -> float:
    """Six times the signed volume of the tetrahedron of a triangle and an apex. [mm³]"""
    (ax, ay, az), (bx, by, bz), (cx, cy, cz) = (
        (p[0] - apex[0], p[1] - apex[1], p[2] - apex[2]) for p in (a, b, c)
    )
    return ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)


def _clipped(face: list[Point], point: Point, up: Up) -> list[Point]:
    """What of a face lies above a plane."""
    heights = [sum((q - r) * n for q, r, n in zip(p, point, up, strict=True)) for p in face]
    found: list[Point] = []
    for (p, h), (q, g) in itertools.pairwise([
        *zip(face, heights, strict=True),
        (face[0], heights[0]),
    ]):
        if h >= 0:
            found.append(p)
        if (h > 0) != (g > 0) and h != g:
            t = h / (h - g)
            found.append((
                p[0] + (q[0] - p[0]) * t,
                p[1] + (q[1] - p[1]) * t,
                p[2] + (q[2] - p[2]) * t,
            ))
    return found
