"""What of a convex body lies below a plane: the water that a tank holds under its outlet or over it, at any slope."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING

from roomy_hull.core import lazily
from roomy_hull.core.geometry.motion import PLANE, Piece

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
else:
    np = lazily.module("numpy")

FLAT = 1e-6
"""What is thinner than this holds nothing. [mm]"""


def corners(piece: Piece) -> Array:
    """The corners of a prism.

    Parameters
    ----------
    piece : Piece
        [mm]

    Returns
    -------
    array, n by 3
        Those of its near end, then those of its far one, in the same order. [mm]
    """
    count = len(piece.ring)
    found = np.zeros((2 * count, 3))
    found[:, PLANE[piece.axis]] = [*piece.ring, *piece.ring]
    found[:count, piece.axis], found[count:, piece.axis] = piece.lo, piece.hi
    return found


def tilted(nose_up: float, left_up: float) -> Array:
    """The direction of up in the axes of a vehicle that stands on a slope.

    Parameters
    ----------
    nose_up, left_up : float
        By how much front and left side stand higher. [°]

    Returns
    -------
    array of 3
        A unit vector.
    """
    up = np.array([-math.tan(math.radians(nose_up)), -math.tan(math.radians(left_up)), 1.0])
    found: Array = up / math.sqrt(float(up @ up))
    return found


def above(piece: Piece, point: tuple[float, float, float], up: Array) -> float:
    """How much of a convex prism lies above a plane.

    Parameters
    ----------
    piece : Piece
        A convex prism. [mm]
    point : (x, y, z)
        A point of the plane. [mm]
    up : array of 3
        Its normal, on the side that counts.

    Returns
    -------
    float
        Exact: the hull of the corners above and of where its edges cross the plane. [mm³]
    """
    from scipy.spatial import (  # ruff: ignore[import-outside-top-level]  # 0.3 s, and only where there is a tank
        ConvexHull,
        QhullError,
    )

    points = corners(piece)
    heights = (points - np.array(point)) @ up
    if heights.max() <= FLAT:
        return 0.0
    count = len(piece.ring)
    edges = [(i, (i + 1) % count) for i in range(count)]
    edges += [(i + count, j + count) for i, j in edges] + [(i, i + count) for i in range(count)]
    kept = list(points[heights >= 0])
    for i, j in edges:
        a, b = heights[i], heights[j]
        if (a > 0) != (b > 0):
            kept.append(points[i] + (points[j] - points[i]) * (a / (a - b)))
    if len(kept) < 4:
        return 0.0
    try:
        return float(ConvexHull(np.array(kept)).volume)
    except QhullError:  # a flat rest
        return 0.0
