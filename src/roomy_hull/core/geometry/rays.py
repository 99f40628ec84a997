"""Straight ways between points, held against boxes: what an eye sees, what an arm gets past."""

from __future__ import annotations

from typing import TYPE_CHECKING

from roomy_hull.core import lazily

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
    Flags = npt.NDArray[np.bool_]
else:
    np = lazily.module("numpy")

SKIN = 0.05
"""What a way only grazes by less than this does not stop it. [mm]"""
MOST = 40_000
"""So many pairs of a way and a box are asked at one time: what then lies between fits into a processor's cache."""


def blocked(a: Array, b: Array, boxes: Array) -> Flags:
    """Which ways some boxes stop.

    Parameters
    ----------
    a, b : array
        Both ends of each way, (ways, 3). [mm]
    boxes : array
        (boxes, 6): the lower corner and the upper one. [mm]

    Returns
    -------
    array of bool
        (ways,): whether any box has more than a grazing part of the way in it (slabs: Kay & Kajiya, 1986).
    """
    found = np.zeros(len(a), dtype=bool)
    if not len(boxes) or not len(a):
        return found
    low, high = boxes[:, :3] + SKIN, boxes[:, 3:] - SKIN
    real = (low < high).all(axis=1)
    low, high = low[real].T[:, :, None], high[real].T[:, :, None]
    step = max(1, MOST // max(1, low.shape[1]))
    for n in range(0, len(a), step):
        begin = np.ascontiguousarray(a[n : n + step].T)
        way = np.ascontiguousarray(b[n : n + step].T) - begin
        inverse = 1.0 / np.where(np.abs(way) < 1e-9, 1e-9, way)
        near: Array | float = 0.0
        far: Array | float = 1.0
        # Axis by axis, box by box along all ways: a third of the room, and long rows.
        for axis in range(3):
            one = (low[axis] - begin[axis]) * inverse[axis]
            other = (high[axis] - begin[axis]) * inverse[axis]
            near = np.maximum(near, np.minimum(one, other))
            far = np.minimum(far, np.maximum(one, other))
        found[n : n + step] = np.any(near < far, axis=0)
    return found
