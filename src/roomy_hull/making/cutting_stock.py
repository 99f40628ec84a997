"""The cutting-stock problem in one dimension: fewest bars, by column generation and diving, with its bound.

Sources: Gilmore & Gomory 1961, A linear programming approach to the cutting-stock problem; Farley 1990, a bound from
duals that are not yet the best; diving as in common practice.
"""

import math
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

Numbers = NDArray[np.float64]
TINY = 1e-7
COLUMNS = 400
"""So many patterns are priced at most for one relaxation."""
NODES = 200_000
"""So many branches of a knapsack are looked at before its best so far is taken; the bound is then Farley's."""


class Pattern(NamedTuple):
    """One bar: the numbers of its pieces, its length, and whether it is bought. [mm]"""

    pieces: tuple[int, ...]
    length: float
    bought: bool


class Fewest(NamedTuple):
    """Bars as they are sawn, and how many bought ones no plan can do with less than."""

    rows: tuple[Pattern, ...]
    bound: int


def first_fit(lengths: list[float], stock_length: float, kerf: float) -> list[list[int]]:
    """Assign lengths to bars, longest first, each to the first bar with room.

    Args:
        lengths: Pieces, none longer than the bar. [mm]
        stock_length, kerf: Bar length and saw kerf; the last piece of a bar may use its end. [mm]
    """
    order = sorted(range(len(lengths)), key=lambda i: -lengths[i])
    rows: list[list[int]] = []
    rest: list[float] = []
    for i in order:
        for n, room in enumerate(rest):
            if lengths[i] <= room + 1e-9:
                rows[n].append(i)
                rest[n] = room - lengths[i] - kerf
                break
        else:
            rows.append([i])
            rest.append(stock_length - lengths[i] - kerf)
    return rows


def fewest(
    lengths: list[float], stock_length: float, kerf: float, offcuts: list[float] | None = None
) -> Fewest:
    """Saw pieces from as few bought bars as can be.

    Args:
        lengths: Pieces, none longer than the stock. [mm]
        stock_length, kerf: Stock bar and saw kerf. [mm]
        offcuts: Lengths that are there already, filled as full as can be, the shortest first. [mm]
    Returns: Bars, offcuts first; and the bound on those bought. With offcuts it holds for what they leave.
    """
    left = list(range(len(lengths)))
    rows: list[Pattern] = []
    for long in sorted(offcuts or []):
        taken = _fullest([lengths[i] for i in left], long, kerf)
        if taken:
            picked = tuple(left[n] for n in taken)
            rows.append(Pattern(picked, long, bought=False))
            left = [i for i in left if i not in set(picked)]
    if not left:
        return Fewest(tuple(rows), 0)
    own = [lengths[i] for i in left]
    plain = first_fit(own, stock_length, kerf)
    # Where a simple way needs no more than the metal itself does, nothing can be better.
    bound = math.ceil(sum(x + kerf for x in own) / (stock_length + kerf) - 1e-9)
    sizes, demand, members = _types(own)
    patterns: list[list[int]] | None = None
    if len(plain) > bound:
        plain = min(plain, _fullest_first(own, stock_length, kerf), key=len)
    if len(plain) > bound:
        patterns, bound = _solve(sizes, demand, stock_length, kerf)
    if patterns is None or len(plain) <= len(patterns):
        rows += [Pattern(tuple(left[i] for i in row), stock_length, bought=True) for row in plain]
        return Fewest(tuple(rows), bound)
    stacks = [list(m) for m in members]
    for pattern in patterns:
        picked = tuple(
            left[stacks[n].pop()]
            for n in sorted(range(len(sizes)), key=lambda n: -sizes[n])
            for _ in range(min(pattern[n], len(stacks[n])))
        )
        if picked:
            rows.append(Pattern(picked, stock_length, bought=True))
    return Fewest(tuple(rows), bound)


def _fullest_first(lengths: list[float], stock: float, kerf: float) -> list[list[int]]:
    """Fill one bar after another as full as can be, each with the longest piece that is left."""
    left = sorted(range(len(lengths)), key=lambda i: -lengths[i])
    rows = []
    while left:
        first, rest = left[0], left[1:]
        more = _fullest([lengths[i] for i in rest], stock - lengths[first] - kerf, kerf)
        row = [first, *(rest[n] for n in more)]
        rows.append(row)
        left = [i for i in left if i not in set(row)]
    return rows


def _types(lengths: list[float]) -> tuple[list[float], list[int], list[list[int]]]:
    """Different lengths, how often each is wanted, and which pieces these are."""
    found: dict[float, list[int]] = {}
    for i, long in enumerate(lengths):
        found.setdefault(round(long, 4), []).append(i)
    sizes = sorted(found, reverse=True)
    return sizes, [len(found[s]) for s in sizes], [found[s] for s in sizes]


def _fullest(lengths: list[float], room: float, kerf: float) -> list[int]:
    """The pieces that fill a bar the most; their indices."""
    sizes, demand, members = _types(lengths)
    taken, _value, _sure = knapsack(
        np.array(sizes), np.array(sizes) + kerf, np.array(demand), room + kerf
    )
    return [i for n, count in enumerate(taken) for i in members[n][:count]]


def knapsack(
    values: Numbers, sizes: Numbers, most: NDArray[np.int64], room: float
) -> tuple[list[int], float, bool]:
    """Fill a room with the most valuable pieces, by branch and bound.

    Args:
        values, sizes: Of one piece of each sort, sizes above 0.
    Returns: How many of each, their value, and whether it is surely the best: else the search was broken off.
    """
    order = sorted(range(len(values)), key=lambda n: -values[n] / sizes[n])
    order = [n for n in order if values[n] > TINY and most[n] > 0]
    v = [float(values[n]) for n in order]
    s = [float(sizes[n]) for n in order]
    m = [int(most[n]) for n in order]
    count = len(order)
    best, best_value, nodes = [0] * count, 0.0, 0
    now = [0] * count
    slack = room + 1e-9

    def walk(at: int, left: float, value: float) -> None:
        nonlocal best, best_value, nodes
        nodes += 1
        if value > best_value + 1e-12:
            best, best_value = now.copy(), value
        if nodes > NODES:
            return
        for n in range(at, count):
            if value + left * v[n] / s[n] <= best_value + 1e-12:
                return  # nothing from here on is worth more by its size
            top = min(m[n], int(left / s[n]))
            if top <= 0:
                continue
            for take in range(top, 0, -1):
                now[n] = take
                walk(n + 1, left - take * s[n], value + take * v[n])
            now[n] = 0

    walk(0, slack, 0.0)
    taken = [0] * len(values)
    for n, number in zip(order, best, strict=True):
        taken[n] = number
    return taken, best_value, nodes <= NODES


def _solve(
    sizes: list[float], demand: list[int], stock: float, kerf: float
) -> tuple[list[list[int]], int]:
    """Patterns for a demand, and the bound: diving from the relaxation, again and again for what is left."""
    wide = np.array(sizes) + kerf
    room = stock + kerf
    left = np.array(demand)
    columns: list[Numbers] = []
    chosen: list[list[int]] = []
    bound = 0
    first = True
    while left.any():
        columns = _useful(columns, left)
        weights, columns, low = _relaxed(wide, left, room, columns)
        if first:
            bound, first = low, False
        whole = np.floor(weights + TINY)
        if not whole.any():
            # The heaviest pattern is taken once.
            whole[int(np.argmax(weights))] = 1
        for n in np.argsort(-whole * 1000 - weights):
            for _ in range(int(whole[n])):
                pattern = np.minimum(columns[n], left).astype(int)
                if not pattern.any():
                    break
                pattern = _topped_up(pattern, wide, left, room)
                chosen.append([int(x) for x in pattern])
                left -= pattern
    return chosen, bound


def _useful(columns: list[Numbers], left: NDArray[np.int64]) -> list[Numbers]:
    """Patterns that are not more than is still wanted, each once."""
    found: dict[bytes, Numbers] = {}
    for column in columns:
        cut = np.minimum(column, left)
        if cut.any():
            found[cut.astype(np.int64).tobytes()] = cut
    return list(found.values())


def _topped_up(
    pattern: NDArray[np.int64], wide: Numbers, left: NDArray[np.int64], room: float
) -> NDArray[np.int64]:
    """Fill what a pattern leaves of its bar, with what is still wanted."""
    rest = room - float(pattern @ wide)
    more, _value, _sure = knapsack(wide, wide, left - pattern, rest)
    full: NDArray[np.int64] = pattern + np.array(more)
    return full


def _relaxed(
    wide: Numbers, demand: NDArray[np.int64], room: float, columns: list[Numbers]
) -> tuple[Numbers, list[Numbers], int]:
    """Solve the relaxation by column generation: the patterns' shares, the patterns, the bound."""
    from scipy.optimize import linprog  # ruff: ignore[import-outside-top-level]  # heavy: read when first needed

    for n in range(len(wide)):
        column = np.zeros(len(wide))
        column[n] = min(demand[n], max(1, math.floor((room + 1e-9) / wide[n])))
        if demand[n]:
            columns.append(column)
    best = 0.0
    for _turn in range(COLUMNS):
        table = np.column_stack(columns)
        found = linprog(
            np.ones(len(columns)), A_ub=-table, b_ub=-demand.astype(float), method="highs"
        )
        duals = -found.ineqlin.marginals
        taken, value, sure = knapsack(duals, wide, demand, room)
        if sure:
            # Farley: duals over the worth of the best pattern are feasible.
            best = max(best, float(duals @ demand) / max(1.0, value))
        if value <= 1 + TINY:
            break
        columns.append(np.array(taken, dtype=float))
    return np.asarray(found.x), columns, math.ceil(best - 1e-6)
