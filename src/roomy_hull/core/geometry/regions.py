"""Sets of upright rectangles in a plane: what some leave free, what some cover together."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from typing import TYPE_CHECKING

from roomy_hull.core import lazily

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Grid = npt.NDArray[np.bool_]
    Marks = npt.NDArray[np.float64]
else:
    np = lazily.module("numpy")

Rect = tuple[float, float, float, float]
Segment = tuple[tuple[float, float], tuple[float, float]]


def free_cells(room: Rect, blocked: Sequence[Rect], touch: float) -> list[Rect]:
    """Cut what some open rectangles leave of a room into rectangles that do not overlap.

    Args:
        room: The room; it may be a line or a point. [mm]
        blocked: Open rectangles that are not free. [mm]
        touch: By how much a blocked rectangle may be entered. [mm]
    Returns: Free rectangles, merged where they line up. [mm]
    """
    us = _marks(room[0], room[2], [b[i] for b in blocked for i in (0, 2)])
    ws = _marks(room[1], room[3], [b[i] for b in blocked for i in (1, 3)])
    middle_u, middle_w = (us[:-1] + us[1:]) / 2, (ws[:-1] + ws[1:]) / 2
    grid = np.ones((len(middle_u), len(middle_w)), dtype=bool)
    for b in blocked:
        i = np.searchsorted(middle_u, (b[0] + touch, b[2] - touch), side="left")
        j = np.searchsorted(middle_w, (b[1] + touch, b[3] - touch), side="left")
        grid[i[0] : i[1], j[0] : j[1]] = False
    return _merged(grid, us, ws)


def left_of(face: Rect, holes: list[Rect]) -> list[Rect]:
    """What some holes leave of a face, in upright strips from hole's edge to hole's edge.

    Args:
        face: The whole. [mm]
        holes: They may overlap and reach beyond it. [mm]
    Returns: Rectangles that do not overlap. [mm]
    """
    marks = sorted({
        face[0],
        face[2],
        *(e for h in holes for e in (h[0], h[2]) if face[0] < e < face[2]),
    })
    found: list[Rect] = []
    begun: dict[tuple[float, float], float] = {}
    strips = list(itertools.pairwise(marks))
    for a0, a1 in [*strips, (face[2], face[2])]:
        here = [h for h in holes if h[0] < a1 and h[2] > a0]
        spans = _spans(face, here) if a1 > a0 else []
        for span in [s for s in begun if s not in spans]:
            found.append((begun.pop(span), span[0], a0, span[1]))
        for span in spans:
            begun.setdefault(span, a0)
    return found


def _spans(face: Rect, holes: list[Rect]) -> list[tuple[float, float]]:
    """The stretches between holes from a face's lower to its upper edge. [mm]"""
    found, at = [], face[1]
    for low, high in sorted((h[1], h[3]) for h in holes):
        if low > at:
            found.append((at, min(low, face[3])))
        at = max(at, high)
    if at < face[3]:
        found.append((at, face[3]))
    return [s for s in found if s[1] - s[0] > 0.01]


def union(rects: Sequence[Rect]) -> tuple[list[Rect], list[Segment]]:
    """What some rectangles cover together, and its edge.

    Args:
        rects: Rectangles, overlapping or not. [mm]
    Returns: The same area in rectangles that do not overlap, and the straight pieces of its edge. [mm]
    """
    if not rects:
        return [], []
    hs = np.unique([r[i] for r in rects for i in (0, 2)])
    ks = np.unique([r[i] for r in rects for i in (1, 3)])
    if len(hs) < 2 or len(ks) < 2:
        return list(rects), []
    grid = np.zeros((len(hs) - 1, len(ks) - 1), dtype=bool)
    for h0, k0, h1, k1 in rects:
        i, j = np.searchsorted(hs, (h0, h1)), np.searchsorted(ks, (k0, k1))
        grid[i[0] : i[1], j[0] : j[1]] = True
    return _merged(grid, hs, ks), _edges(grid, hs, ks)


def _marks(low: float, high: float, marks: list[float]) -> Marks:
    """The sorted cut lines between two bounds; a room of no width keeps both bounds."""
    inner = {m for m in marks if low < m < high}
    return np.array([low, *sorted(inner), high])


def _runs(column: Grid) -> list[tuple[int, int]]:
    """The runs of true cells as (first, behind the last)."""
    steps = np.flatnonzero(np.diff(np.concatenate(([0], column.astype(np.int8), [0]))))
    return [(int(a), int(b)) for a, b in zip(steps[::2], steps[1::2], strict=True)]


def _merged(grid: Grid, us: Marks, ws: Marks) -> list[Rect]:
    """Turn true cells into rectangles: runs along the second axis, merged along the first."""
    found: list[Rect] = []
    going: dict[tuple[int, int], int] = {}
    for i in range(grid.shape[0] + 1):
        here = set(_runs(grid[i])) if i < grid.shape[0] else set()
        for run in [r for r in going if r not in here]:
            start = going.pop(run)
            found.append((float(us[start]), float(ws[run[0]]), float(us[i]), float(ws[run[1]])))
        for run in here:
            going.setdefault(run, i)
    return sorted(found)


def _edges(grid: Grid, hs: Marks, ks: Marks) -> list[Segment]:
    """The pieces of the edge between true and false cells."""
    padded = np.pad(grid, 1)
    found: list[Segment] = []
    for i in range(len(hs)):
        for a, b in _runs((padded[i] != padded[i + 1])[1:-1]):
            found.append(((float(hs[i]), float(ks[a])), (float(hs[i]), float(ks[b]))))
    for j in range(len(ks)):
        for a, b in _runs((padded[:, j] != padded[:, j + 1])[1:-1]):
            found.append(((float(hs[a]), float(ks[j])), (float(hs[b]), float(ks[j]))))
    return found
