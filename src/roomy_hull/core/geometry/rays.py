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

SKIN = 0.5
"""What a way only grazes by less than this does not stop it. [mm]"""
MOST = 2_000_000
"""So many pairs of a way and a box are asked at one time, for the room they take."""


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
    low, high = low[real], high[real]
    step = max(1, MOST // max(1, len(low)))
    for n in range(0, len(a), step):
        begin, way = a[n : n + step, None, :], (b - a)[n : n + step, None, :]
        safe = np.where(np.abs(way) < 1e-9, 1e-9, way)
        one, other = (low[None] - begin) / safe, (high[None] - begin) / safe
        near, far = np.minimum(one, other).max(axis=-1), np.maximum(one, other).min(axis=-1)
        found[n : n + step] = ((near < far) & (far > 0) & (near < 1)).any(axis=-1)
    return found
