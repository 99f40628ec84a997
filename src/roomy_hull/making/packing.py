"""Packing: rectangles into bins, by a skyline or by cuts from edge to edge, improved by taking bins apart.

A skyline is filled at its lowest place with the piece that fits there best, in the order of a sequence (Burke,
Kendall & Whitwell 2004; Wei, Oon, Zhu & Lim 2011). From edge to edge, each piece goes to the free rectangle that it
fills best, which is then split in two. Better packings come from taking two or three bins apart and packing their
pieces again in another order, while the fullest become fuller (common practice of large neighbourhood search).
Everything is in whole numbers: tenths of a millimetre.
"""

import random
from collections.abc import Callable
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

Ints = NDArray[np.int64]


class Piece(NamedTuple):
    """A rectangle to be packed: its number, its two sides, whether it may be turned."""

    number: int
    wide: int
    high: int
    turns: bool


class Put(NamedTuple):
    """A piece in its bin: its number, its lower left corner, and whether it is turned."""

    number: int
    x: int
    y: int
    turned: bool


Bin = list[Put]
Decoder = Callable[[list[Piece], int, int, int], tuple[Bin, list[Piece]]]


def skyline(pieces: list[Piece], wide: int, high: int, near: int = 0) -> tuple[Bin, list[Piece]]:
    """Fill one bin along its skyline.

    Args:
        pieces: In the order in which they are preferred.
        near: By how much a piece may miss a width or a wall and still count as fitting it.
    Returns: What lies in it, and what is left over, in the same order.
    """
    count = len(pieces)
    # Every piece twice: as it is, and turned.
    turned_w = [p.high if p.turns else wide + 1 for p in pieces]
    turned_h = [p.wide if p.turns else high + 1 for p in pieces]
    sides = np.array([*(p.wide for p in pieces), *turned_w], dtype=np.int64)
    tops = np.array([*(p.high for p in pieces), *turned_h], dtype=np.int64)
    free = np.ones(2 * count, dtype=bool)
    line = [[0, 0, wide]]  # from where, how high, how wide
    found: Bin = []
    while len(found) < count:
        at = min(range(len(line)), key=lambda n: (line[n][1], line[n][0]))
        x, y, room = line[at]
        walls = _walls(line, at, high)
        rows = np.flatnonzero(free & (sides <= room) & (tops <= high - y))
        if not len(rows):
            if len(line) == 1:
                break
            # What is under its lower neighbour is lost.
            line[at][1] = y + min(walls)
            _merge(line, at)
            continue
        best = int(rows[int(np.argmax(_scores(room - sides[rows], tops[rows], walls, near)))])
        a, b = int(sides[best]), int(tops[best])
        spot = x + room - a if _to_the_right(b, walls) else x
        found.append(Put(pieces[best % count].number, spot, y, best >= count))
        free[best % count] = free[best % count + count] = False
        _add(line, at, (spot, y + b, a), (x, y, room))
    return found, [p for n, p in enumerate(pieces) if free[n]]


def _walls(line: list[list[int]], at: int, high: int) -> tuple[int, int]:
    """How high the walls left and right of a place stand above it."""
    y = line[at][1]
    left = line[at - 1][1] if at else high
    right = line[at + 1][1] if at + 1 < len(line) else high
    return left - y, right - y


def _to_the_right(top: int, walls: tuple[int, int]) -> bool:
    """A piece goes beside the wall that it is level with, else beside the higher one."""
    left, right = walls
    return (top == right != left) or (top != left and right > left)


def _scores(gaps: Ints, tops: Ints, walls: tuple[int, int], near: int) -> Ints:
    """How well pieces fit the lowest place: as wide as it, as high as a wall; the first of the best is taken."""
    off_l, off_r = np.abs(tops - walls[0]), np.abs(tops - walls[1])
    level = (off_l <= near) | (off_r <= near)
    tall = off_l <= near if walls[0] >= walls[1] else off_r <= near
    score: Ints = 4 * (gaps <= near) + 2 * level + tall
    return score


def _add(
    line: list[list[int]], at: int, top: tuple[int, int, int], old: tuple[int, int, int]
) -> None:
    """Put a piece on the skyline at one end of its lowest place."""
    x, y, a = top
    x0, y0, room = old
    new = [[x, y, a]]
    if x > x0:
        new.insert(0, [x0, y0, x - x0])
    elif a < room:
        new.append([x0 + a, y0, room - a])
    line[at : at + 1] = new
    spot = at if x == x0 else at + 1
    _merge(line, spot)


def _merge(line: list[list[int]], at: int) -> None:
    """Join a place with neighbours as high as itself."""
    if at + 1 < len(line) and line[at + 1][1] == line[at][1]:
        line[at][2] += line[at + 1][2]
        del line[at + 1]
    if at and line[at - 1][1] == line[at][1]:
        line[at - 1][2] += line[at][2]
        del line[at]


def guillotine(pieces: list[Piece], wide: int, high: int, near: int = 0) -> tuple[Bin, list[Piece]]:
    """Fill one bin so that cuts from edge to edge part every piece from the rest.

    Args:
        pieces: In the order in which they are placed.
        near: What is left beside a piece by no more than this counts as nothing.
    Returns: What lies in it, and what is left over.
    """
    rooms = [(0, 0, wide, high)]
    found: Bin = []
    rest: list[Piece] = []
    for p in pieces:
        best: tuple[int, int, int, bool] | None = None
        for n, (_x, _y, a, b) in enumerate(rooms):
            for turned in (False, True) if p.turns and p.wide != p.high else (False,):
                w, h = (p.high, p.wide) if turned else (p.wide, p.high)
                if w <= a and h <= b:
                    short = min(a - w, b - h)
                    row = (short if short > near else 0, a * b - w * h, n, turned)
                    if best is None or row < best:
                        best = row
        if best is None:
            rest.append(p)
            continue
        n, turned = best[2], best[3]
        x, y, a, b = rooms.pop(n)
        w, h = (p.high, p.wide) if turned else (p.wide, p.high)
        found.append(Put(p.number, x, y, turned))
        # The cut that leaves the larger rectangle whole.
        if (a - w) * b >= a * (b - h):
            rooms += [(x + w, y, a - w, b), (x, y + h, w, b - h)]
        else:
            rooms += [(x + w, y, a - w, h), (x, y + h, a, b - h)]
        rooms = [r for r in rooms if min(r[2:]) > 0]
    return found, rest


def fill(pieces: list[Piece], room: tuple[int, int], decode: Decoder, near: int = 0) -> list[Bin]:
    """Fill bins one after the other until nothing is left; pieces in their order. Every piece has to fit a bin."""
    bins: list[Bin] = []
    rest = pieces
    while rest:
        found, rest = decode(rest, *room, near)
        if not found:
            break
        bins.append(found)
    return bins


class Search:
    """A packing that is improved step by step; it can be stopped at any time.

    Args:
        pieces: What is packed; every one fits a bin.
        room: Of each bin.
        decode: Fills one bin.
        bound: No packing has fewer bins.
        seed: Of the chance by which orders are varied.
    """

    def __init__(
        self, pieces: list[Piece], room: tuple[int, int], decode: Decoder, bound: int, seed: int = 1
    ) -> None:
        self._by = {p.number: p for p in pieces}
        self._room, self._decode, self._bound = room, decode, bound
        self._chance = random.Random(seed)  # ruff: ignore[suspicious-non-cryptographic-random-usage]  # orders, no secrets
        self.bins: list[Bin] = []
        for key in ORDERS:
            found = fill(sorted(pieces, key=key), room, decode)
            if not self.bins or self._merit(found) > self._merit(self.bins):
                self.bins = found
            if self.done:
                break

    @property
    def done(self) -> bool:
        """Whether there are as few bins as there can be."""
        return len(self.bins) <= self._bound

    def _area(self, one: Bin) -> int:
        return sum(self._by[p.number].wide * self._by[p.number].high for p in one)

    def _merit(self, bins: list[Bin]) -> tuple[int, float]:
        """Fewer bins, then fuller ones: the emptiest is emptied."""
        whole = self._room[0] * self._room[1]
        return -len(bins), sum((self._area(b) / whole) ** 2 for b in bins)

    def step(self) -> bool:
        """Take some bins apart and pack them again; say whether it is better.

        Returns: Whether the packing changed for the better.
        """
        count = len(self.bins)
        if count < 2:
            return False
        order = sorted(range(count), key=lambda n: self._area(self.bins[n]))
        size = min(count, self._chance.choice((2, 2, 3, 3, 4)))
        chosen = {order[0]} if self._chance.random() < 0.7 else set()
        while len(chosen) < size:
            chosen.add(self._chance.randrange(count))
        old = [self.bins[n] for n in chosen]
        pieces = [self._by[p.number] for b in old for p in b]
        near = self._chance.choice(NEAR)
        new = self._filled(self._shuffled(pieces), near)
        if len(new) > len(old):
            return False
        before, after = self._merit(old), self._merit(new)
        if after < before:
            return False
        keep = [b for n, b in enumerate(self.bins) if n not in chosen]
        self.bins = keep + new
        return after > before

    def _filled(self, pieces: list[Piece], near: int) -> list[Bin]:
        """Fill bins along their length or across it, as chance will have it."""
        if self._chance.random() < 0.5:
            return fill(pieces, self._room, self._decode, near)
        across = [Piece(p.number, p.high, p.wide, p.turns) for p in pieces]
        found = fill(across, self._room[::-1], self._decode, near)
        return [[Put(p.number, p.y, p.x, p.turned) for p in one] for one in found]

    def _shuffled(self, pieces: list[Piece]) -> list[Piece]:
        """One of the orders, blurred by chance."""
        key = self._chance.choice(ORDERS)
        blur = self._chance.choice((0.1, 0.3, 0.8))
        rows = [(key(p) * (1 + self._chance.uniform(-blur, blur)), p) for p in pieces]
        return [p for _k, p in sorted(rows, key=lambda r: r[0])]


def _by_area(p: Piece) -> float:
    return -float(p.wide * p.high)


def _by_long_side(p: Piece) -> float:
    return -float(max(p.wide, p.high))


def _by_height(p: Piece) -> float:
    return -float(p.high)


def _by_width(p: Piece) -> float:
    return -float(p.wide)


def _by_round(p: Piece) -> float:
    return -float(p.wide + p.high)


NEAR = (0, 0, 30, 80, 200)
ORDERS = (_by_area, _by_long_side, _by_round, _by_height, _by_width)
