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
FLAT = 1e-9
"""What changes by less from one end to the other is level. [mm]"""
NEAR = 0.01
"""What comes so near to a hull counts as in it. [mm]"""


def blocked(a: Array, b: Array, low: Array, high: Array) -> Flags:
    """Which ways some boxes stop.

    Args:
        a, b: Both ends of each way, (ways, 3). [mm]
        low, high: Corners of the boxes, (boxes, 3), from `skinned`. [mm]
    Returns: (ways,): whether any box has a part of the way in it (slabs: Kay & Kajiya, 1986).
    """
    found = np.zeros(len(a), dtype=bool)
    if not len(low) or not len(a):
        return found
    least, most = np.minimum(a, b) - NEAR, np.maximum(a, b) + NEAR
    step = max(1, MOST // len(low))
    for n in range(0, len(a), step):
        some = slice(n, n + step)
        near = np.ones((len(least[some]), len(low)), dtype=bool)
        for axis in range(3):
            near &= low[:, axis] < most[some, axis, None]
            near &= least[some, axis, None] < high[:, axis]
        way, box = near.nonzero()
        if len(way):
            found[n + way[_met(a[n + way].T, b[n + way].T, low[box].T, high[box].T)]] = True
    return found


def hidden(eyes: Array, points: Array, low: Array, high: Array) -> Flags:
    """Which points some boxes hide from eyes: `blocked` for the ways from each eye to each point.

    Args:
        eyes, points: (eyes, 3) and (points, 3). [mm]
        low, high: Corners of the boxes, (boxes, 3), from `skinned`. [mm]
    """
    found = np.zeros((len(eyes), len(points)), dtype=bool)
    if not len(low) or not found.size:
        return found
    # A box outside of the hull of an eye and the box around all points hides none of them.
    fans = np.empty((len(eyes), 4, 3))
    fans[:, :2] = eyes[:, None]
    fans[:, 2], fans[:, 3] = points.min(axis=0), points.max(axis=0)
    eye, box = in_fans(fans, ends_of(low, high)).nonzero()
    ends = points.T[:, None]
    step = max(1, MOST // len(points))
    for n in range(0, len(eye), step):
        e, b = eye[n : n + step], box[n : n + step]
        hit = _met(eyes[e].T[..., None], ends, low[b].T[..., None], high[b].T[..., None])
        first = np.flatnonzero(np.diff(e, prepend=-1))
        found[e[first]] |= np.logical_or.reduceat(hit, first)
    return found


def skinned(boxes: Array) -> tuple[Array, Array]:
    """Lower and upper corners, (boxes, 3) each, of the boxes, (boxes, 6), that a way does not only graze. [mm]"""
    low, high = boxes[:, :3] + SKIN, boxes[:, 3:] - SKIN
    real = (low < high).all(axis=1)
    return low[real], high[real]


def _met(a: Array, b: Array, low: Array, high: Array) -> Flags:
    """Way by way and box by box, whether they share more than a point: x, y, z are the first axis of each. [mm]"""
    near: Array | float = 0.0
    far: Array | float = 1.0
    for begin, end, least, most in zip(a, b, low, high, strict=True):
        way = end - begin
        inverse = 1.0 / np.where(np.abs(way) < FLAT, FLAT, way)
        one, other = (least - begin) * inverse, (most - begin) * inverse
        enters, leaves = np.minimum(one, other), np.maximum(one, other, out=one)
        near, far = np.maximum(enters, near, out=enters), np.minimum(leaves, far, out=leaves)
    found: Flags = np.less(near, far)
    return found


def ends_of(low: Array, high: Array) -> Array:
    """Boxes as `in_fans` takes them: (6, boxes), their upper corners and the negatives of their lower ones. [mm]"""
    return np.concatenate([high.T, -low.T]) + NEAR


def in_fans(fans: Array, ends: Array) -> Flags:
    """Which boxes lie in hulls of beginnings and ends.

    Args:
        fans: (fans, 4, 3): the lower and upper corner of the box around the ones and around the others. [mm]
        ends: (6, boxes), from `ends_of`. [mm]
    Returns: (fans, boxes): whether it shares room with the hull of the two.
    """
    # At the part t of the way the hull is a box whose corners go evenly from the one to the other: low + t·way.
    way = np.concatenate([fans[:, 2] - fans[:, 0], fans[:, 1] - fans[:, 3]], axis=1)
    start = np.concatenate([fans[:, 0], -fans[:, 1]], axis=1)
    way = np.where(np.abs(way) < FLAT, FLAT, way)
    last, first = np.ones((len(fans), ends.shape[1])), np.zeros((len(fans), ends.shape[1]))
    if len(fans) == 1:
        # One by one along the boxes: each axis is either way as a whole.
        for row, begin, by in zip(ends, start[0].tolist(), way[0].tolist(), strict=True):
            turn = (row - begin) / by
            if by > 0:
                np.minimum(last[0], turn, out=last[0])
            else:
                np.maximum(first[0], turn, out=first[0])
    else:
        for axis, row in enumerate(ends):
            by = way[:, axis, None]
            turn = (row - start[:, axis, None]) / by
            up = by > 0
            last = np.minimum(last, np.where(up, turn, 1.0))
            first = np.maximum(first, np.where(up, 0.0, turn))
    found: Flags = first <= last
    return found
