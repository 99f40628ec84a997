"""What is left of a sheet: its largest free rectangle, and whether cuts from edge to edge part it."""

from collections.abc import Sequence

import numpy as np

Rect = tuple[int, int, int, int]


def largest_free(boxes: Sequence[Rect], room: tuple[int, int]) -> Rect:
    """The largest rectangle that no box reaches into.

    Returns: By the largest rectangle under each row's heights; of no size where nothing is free.
    """
    xs = sorted({0, room[0], *(min(max(v, 0), room[0]) for b in boxes for v in (b[0], b[2]))})
    ys = sorted({0, room[1], *(min(max(v, 0), room[1]) for b in boxes for v in (b[1], b[3]))})
    taken = np.zeros((len(ys) - 1, len(xs) - 1), dtype=bool)
    for x0, y0, x1, y1 in boxes:
        c0, c1 = np.searchsorted(xs, (x0, x1))
        r0, r1 = np.searchsorted(ys, (y0, y1))
        taken[r0:r1, c0:c1] = True
    best = (0, 0, 0, 0)
    floor = [0] * (len(xs) - 1)  # from which y each column is free
    for row in range(len(ys) - 1):
        top = ys[row + 1]
        for c in np.flatnonzero(taken[row]):
            floor[c] = top
        best = max(best, _under(xs, floor, top), key=lambda r: r[2] * r[3])
    return best


def _under(xs: list[int], floor: list[int], top: int) -> Rect:
    """The largest rectangle that hangs from a level over uneven floors."""
    best = (0, 0, 0, 0)
    stack: list[tuple[int, int]] = []  # from which x, how low
    for n in range(len(floor) + 1):
        low = floor[n] if n < len(floor) else top
        x = xs[n]
        while stack and stack[-1][1] < low:
            start, base = stack.pop()
            found = (start, base, xs[n] - start, top - base)
            best = max(best, found, key=lambda r: r[2] * r[3])
            x = start
        if not stack or stack[-1][1] > low:
            stack.append((x, low))
    return best


def whole_cuts(boxes: Sequence[tuple[float, float, float, float]]) -> bool:
    """Whether cuts from edge to edge alone part every box from the rest.

    Args:
        boxes: What lies on a sheet. [mm]
    Returns: By trying every cut, and the same on both sides of it: of cuts that part a group, any will do.
    """
    if len(boxes) < 2:
        return True
    for axis in (0, 1):
        for cut in sorted({b[axis + 2] for b in boxes}):
            low = [b for b in boxes if b[axis + 2] <= cut + 1e-6]
            high = [b for b in boxes if b[axis] >= cut - 1e-6]
            if low and high and len(low) + len(high) == len(boxes):
                return whole_cuts(low) and whole_cuts(high)
    return False
