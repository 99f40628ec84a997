"""Apart: how far two convex prisms are from each other, or how deep they share room, and where."""

import functools
import math
from collections.abc import Sequence

from roomy_hull.core.geometry.hull import Ring, cross
from roomy_hull.core.geometry.motion import PLANE, Piece, across
from roomy_hull.core.geometry.solids import TOUCH, Box

FAR = 1e9


def apart(a: Piece, b: Piece, wanted: float = 0.0) -> float:
    """How far two pieces are apart, negative by how deep they share room.

    Args:
        a, b: Two convex prisms. [mm]
        wanted: Where they are further apart than this, any larger figure will do. [mm]
    Returns:
        The widest gap along any separating axis (Gottschalk, Lin & Manocha, 1996): for boxes along the axes exact
        along an axis; else at most the true distance, so never on the unsafe side. [mm]
    """
    p, q = a.box, b.box
    gap = max(q[0] - p[3], p[0] - q[3], q[1] - p[4], p[1] - q[4], q[2] - p[5], p[2] - q[5])
    if gap > wanted or (a.square and b.square):
        return gap
    if a.square or b.square:
        askew, box = (b, p) if a.square else (a, q)
        return _box_gap(askew, box, gap, wanted)
    if a.axis == b.axis:
        return max(gap, _flat_gap(a.ring, b.ring, gap, wanted))
    return _solid_gap(a, b, gap, wanted)


@functools.lru_cache(maxsize=65536)
def _sides(ring: Ring) -> tuple[tuple[float, float, float], ...]:
    """Each edge of a ring as its outward normal and its distance from the origin along that."""
    found = []
    last = ring[-1]
    for p in ring:
        nx, ny = p[1] - last[1], last[0] - p[0]
        long = math.hypot(nx, ny)
        if long > 1e-9:
            nx, ny = nx / long, ny / long
            found.append((nx, ny, last[0] * nx + last[1] * ny))
        last = p
    return tuple(found)


def _box_gap(askew: Piece, box: Box, best: float, wanted: float) -> float:
    """The widest gap between a prism and a box; the box's own faces have been asked before."""
    i, j = PLANE[askew.axis]
    x0, y0, x1, y1 = box[i], box[j], box[i + 3], box[j + 3]
    for nx, ny, base in _sides(askew.ring):
        gap = (x0 if nx > 0 else x1) * nx + (y0 if ny > 0 else y1) * ny - base
        if gap > best:
            best = gap
            if best > wanted:
                return best
    return best


def _flat_gap(one: Ring, other: Ring, best: float, wanted: float) -> float:
    """The widest gap between two rings along the normals of their edges."""
    for first, second in ((one, other), (other, one)):
        for nx, ny, base in _sides(first):
            gap = min(x * nx + y * ny for x, y in second) - base
            if gap > best:
                best = gap
                if best > wanted:
                    return best
    return best


def _corners(piece: Piece) -> list[tuple[float, float, float]]:
    """List a prism's corners in space."""
    a, b = PLANE[piece.axis]
    found = []
    for end in (piece.lo, piece.hi):
        for p, q in piece.ring:
            at = [0.0, 0.0, 0.0]
            at[piece.axis], at[a], at[b] = end, p, q
            found.append((at[0], at[1], at[2]))
    return found


def _edges(piece: Piece) -> list[tuple[float, float, float]]:
    """List the directions of a prism's edges."""
    a, b = PLANE[piece.axis]
    axial = [0.0, 0.0, 0.0]
    axial[piece.axis] = 1.0
    found = [(axial[0], axial[1], axial[2])]
    last = piece.ring[-1]
    for p in piece.ring:
        at = [0.0, 0.0, 0.0]
        at[a], at[b] = p[0] - last[0], p[1] - last[1]
        found.append((at[0], at[1], at[2]))
        last = p
    return found


def _solid_gap(a: Piece, b: Piece, best: float, wanted: float) -> float:
    """The widest gap between two prisms along different axes, over all separating axes."""
    ca, cb, ea, eb = _corners(a), _corners(b), _edges(a), _edges(b)
    axial_a, axial_b = ea[0], eb[0]
    tries = [_cross3(e, axial_a) for e in ea[1:]] + [_cross3(e, axial_b) for e in eb[1:]]
    tries += [_cross3(e, f) for e in ea for f in eb]
    for n in tries:
        long = math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2])
        if long < 1e-9:
            continue
        pa = [c[0] * n[0] + c[1] * n[1] + c[2] * n[2] for c in ca]
        pb = [c[0] * n[0] + c[1] * n[1] + c[2] * n[2] for c in cb]
        gap = max(min(pb) - max(pa), min(pa) - max(pb)) / long
        if gap > best:
            best = gap
            if best > wanted:
                return best
    return best


def _cross3(
    a: tuple[float, float, float], b: tuple[float, float, float]
) -> tuple[float, float, float]:
    """The cross product."""
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


def _around(pieces: Sequence[Piece]) -> Box:
    """The box around some pieces. [mm]"""
    columns = list(zip(*[p.box for p in pieces], strict=True))
    return Box(
        min(columns[0]),
        min(columns[1]),
        min(columns[2]),
        max(columns[3]),
        max(columns[4]),
        max(columns[5]),
    )


def _near(pieces: tuple[Piece, ...], among: Sequence[int], box: Box, by: float) -> list[int]:
    """Which pieces are no further from a box than so much."""
    x0, y0, z0, x1, y1, z1 = (
        box[0] - by,
        box[1] - by,
        box[2] - by,
        box[3] + by,
        box[4] + by,
        box[5] + by,
    )
    found = []
    for i in among:
        b = pieces[i].box
        if b[0] <= x1 and b[3] >= x0 and b[1] <= y1 and b[4] >= y0 and b[2] <= z1 and b[5] >= z0:
            found.append(i)
    return found


def nearest(
    one: tuple[Piece, ...], other: tuple[Piece, ...], wanted: float
) -> tuple[float, int, int]:
    """The smallest gap between two sets of pieces, and which two have it.

    Args:
        one, other: Two sets. [mm]
        wanted: Gaps above this are not told apart. [mm]
    Returns:
        Gap, negative where they share room, and the two indices; (a large figure, -1, -1) where all are further
        apart than wanted.
    """
    best, at, to = FAR, -1, -1
    limit = wanted
    first: Sequence[int] = range(len(one))
    second: Sequence[int] = range(len(other))
    if (
        len(one) * len(other) > 24
    ):  # many pieces: only those near to the others as a whole are paired
        first = _near(one, first, _around(other), wanted)
        if not first:
            return best, at, to
        second = _near(other, second, _around([one[i] for i in first]), wanted)
    for i in first:
        a = one[i]
        p0, p1, p2, p3, p4, p5 = a.box
        for j in second:
            b = other[j]
            q = b.box
            if (
                q[0] - p3 > limit or p0 - q[3] > limit or q[1] - p4 > limit
                or p1 - q[4] > limit or q[2] - p5 > limit or p2 - q[5] > limit
            ):  # fmt: skip
                continue
            gap = apart(a, b, limit)
            if gap <= limit and gap < best:
                best, at, to = gap, i, j
                limit = min(limit, gap)
    return best, at, to


def shared(a: Piece, b: Piece) -> Box:
    """A box around what two pieces share (or around the gap between them)."""
    low = [max(p, q) for p, q in zip(a.box[:3], b.box[:3], strict=True)]
    high = [min(p, q) for p, q in zip(a.box[3:], b.box[3:], strict=True)]
    axis = -1
    if not (a.square and b.square) and (a.axis == b.axis or a.square or b.square):
        axis = b.axis if a.square else a.axis
        ring = clipped(across(a, axis).ring, across(b, axis).ring)
        if len(ring) > 2:
            p, q = PLANE[axis]
            low[p], high[p] = min(c[0] for c in ring), max(c[0] for c in ring)
            low[q], high[q] = min(c[1] for c in ring), max(c[1] for c in ring)
    ends = zip(low, high, strict=True)
    pairs = [(min(p, q), max(p, q)) for p, q in ends]
    return Box(*(p for p, _q in pairs), *(q for _p, q in pairs))


def clipped(subject: Ring, window: Ring) -> Ring:
    """What two convex rings share (Sutherland & Hodgman, 1974)."""
    found = list(subject)
    last = window[-1]
    for p in window:
        if not found:
            break
        keep: list[tuple[float, float]] = []
        heights = [cross(last, p, c) for c in found]
        for i, c in enumerate(found):
            before, h, g = found[i - 1], heights[i], heights[i - 1]
            if (g < 0 < h) or (h < 0 < g):
                t = g / (g - h)
                keep.append((
                    before[0] + (c[0] - before[0]) * t,
                    before[1] + (c[1] - before[1]) * t,
                ))
            if h >= 0:
                keep.append(c)
        found, last = keep, p
    return tuple(found)


def clash(gap: float) -> bool:
    """Say whether a gap means that two things share room, beyond touching."""
    return gap < -TOUCH
