"""Bounds: how many bins no packing of rectangles can do without, whichever way these are turned.

Dual feasible functions f map shares of a side so that whatever fits beside one another still adds up to at most one.
For two of them, the sum of f(width)·g(height) is at most the number of bins (Fekete & Schepers 2004); where a piece
may be turned, the lesser of both ways counts. The functions are those of Martello & Vigo 1998 and of Fekete &
Schepers 2001.
"""

import math

import numpy as np
from numpy.typing import NDArray

Numbers = NDArray[np.float64]
STEPS = 48
"""So many thresholds are tried for each side."""
ROUNDED = 12
EXACT = 1e-9


def _thresholded(x: Numbers, eps: float) -> Numbers:
    """What is nearly whole is one, what is small is nothing (Martello & Vigo's u)."""
    return np.where(x > 1 - eps + EXACT, 1.0, np.where(x < eps - EXACT, 0.0, x))


def _rounded(x: Numbers, k: int) -> Numbers:
    """Whole multiples of 1/(k+1) as they are, all else rounded down to 1/k (Fekete & Schepers' u^(k))."""
    scaled = x * (k + 1)
    whole = np.abs(scaled - np.round(scaled)) < EXACT
    return np.where(whole, x, np.floor(scaled) / k)


def _halved(x: Numbers, eps: float) -> Numbers:
    """Above a half counts what the rest leaves in steps of eps, below it whole steps (Carlier, Clautiaux & Moukrim's f2)."""
    steps = math.floor(1 / eps + EXACT)
    up = steps - np.floor((1 - x) / eps + EXACT)
    down = np.floor(x / eps + EXACT)
    half = np.abs(x - 0.5) < EXACT
    return np.where(half, steps / 2, np.where(x > 0.5, up, down)) / steps


def _functions(shares: Numbers) -> list[tuple[str, float]]:
    """Which functions are worth trying for the shares there are."""
    small = np.unique(
        np.round(np.concatenate([shares[shares <= 0.5], 1 - shares[shares > 0.5]]), 9)
    )
    small = small[(small > 1e-6) & (small <= 0.5)]
    if len(small) > STEPS:
        small = small[np.linspace(0, len(small) - 1, STEPS).astype(int)]
    rows: list[tuple[str, float]] = [("as it is", 0.0)]
    rows += [("thresholded", float(e)) for e in small]
    rows += [("rounded", float(k)) for k in range(1, ROUNDED + 1)]
    rows += [("halved", float(e)) for e in small if e > 0.02]
    return rows


def _value(function: tuple[str, float], x: Numbers) -> Numbers:
    name, by = function
    if name == "thresholded":
        return _thresholded(x, by)
    if name == "rounded":
        return _rounded(x, int(by))
    if name == "halved":
        return _halved(x, by)
    return x


def fewest_bins(sizes: list[tuple[float, float, bool]], room: tuple[float, float]) -> int:
    """A lower bound on the bins that some rectangles need.

    Args:
        sizes: And whether each may be turned by a quarter. [any unit]
        room: Of each bin; every piece fits it. [the same]
    """
    if not sizes:
        return 0
    rows = np.array([(a, b) for a, b, _t in sizes], dtype=float)
    turns = np.array([t for _a, _b, t in sizes])
    ways = []
    for x, y, may in (
        (rows[:, 0] / room[0], rows[:, 1] / room[1], np.ones(len(rows), dtype=bool)),
        (rows[:, 1] / room[0], rows[:, 0] / room[1], turns),
    ):
        fits = may & (x <= 1 + EXACT) & (y <= 1 + EXACT)
        ways.append((np.minimum(x, 1.0), np.minimum(y, 1.0), fits))
    f_rows = _functions(np.concatenate([x[fits] for x, _y, fits in ways]))
    g_rows = _functions(np.concatenate([y[fits] for _x, y, fits in ways]))
    heights = [np.array([_value(g, y) for g in g_rows]) for _x, y, _fits in ways]
    best = 0.0
    for f in f_rows:
        both = [
            np.where(fits, _value(f, x) * g, np.inf)
            for (x, _y, fits), g in zip(ways, heights, strict=True)
        ]
        best = max(best, float(np.minimum(*both).sum(axis=1).max()))
    return math.ceil(best - 1e-6)


def together(
    a: tuple[float, float, bool], b: tuple[float, float, bool], room: tuple[float, float]
) -> bool:
    """Whether two rectangles lie in one bin side by side or above one another, in whichever turns they may have."""
    wide, high = room[0] * (1 + EXACT), room[1] * (1 + EXACT)
    for w0, h0 in {a[:2], a[1::-1]} if a[2] else {a[:2]}:
        for w1, h1 in {b[:2], b[1::-1]} if b[2] else {b[:2]}:
            beside = w0 + w1 <= wide and max(h0, h1) <= high
            if beside or (h0 + h1 <= high and max(w0, w1) <= wide):
                return True
    return False


def apart(sizes: list[tuple[float, float, bool]], room: tuple[float, float]) -> list[int]:
    """Rectangles of which no two lie in one bin: each needs one of its own.

    Args:
        sizes: And whether each may be turned. [any unit]
        room: Of each bin. [the same]
    Returns: The largest such group found by taking the largest first, from each as a start.
    """
    # What is small shares a bin with anything.
    order = sorted(range(len(sizes)), key=lambda n: -sizes[n][0] * sizes[n][1])
    order = [n for n in order if max(sizes[n][:2]) * 2 > min(room)][:LARGEST]
    alone = {
        (n, m) for i, n in enumerate(order) for m in order[i + 1 :]
        if not together(sizes[n], sizes[m], room)
    }  # fmt: skip
    best: list[int] = []
    for start in order:
        found = [start]
        for n in order:
            if n != start and all((n, m) in alone or (m, n) in alone for m in found):
                found.append(n)
        best = max(best, found, key=len)
    return best


LARGEST = 60
"""So many of the largest are held against one another."""
