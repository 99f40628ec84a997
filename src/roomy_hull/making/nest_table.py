"""What is nested: the blanks of one sheet as rectangles with their kerf, what they may be cut from, what it costs."""

import math
from typing import NamedTuple

from roomy_hull.core.errors import InputError
from roomy_hull.making.flats import Blank, fits
from roomy_hull.making.packing import ORDERS, Bin, Decoder, Piece, Put, guillotine, skyline
from roomy_hull.making.sheets import Way
from roomy_hull.shop.shop import Stock

Size = tuple[float, float]
Room = tuple[int, int]
LEAST_HOLE = 120.0
"""A smaller opening of a blank is not cut up. [mm]"""
CORNER = 0.3
"""What a rounded opening's corners take of it, as a part of their radius: 1 - 1/√2. """


class FilledBin(NamedTuple):
    """A filled sheet, offcut or opening: its size, what lies in it, whether it is bought, in which blank it is. [mm]"""

    size: Size
    puts: Bin
    bought: bool
    host: int = -1
    hole: int = -1


class FreePlace(NamedTuple):
    """A place that costs nothing: its size, and of an opening the blank and which of its openings. [mm]"""

    size: Size
    host: int = -1
    hole: int = -1


class Table:
    """The blanks of one material and thickness, and what they are cut from.

    Args:
        blanks: Each once for every piece. [mm]
        stock: What there is to cut them from. [mm]
    Raises:
        InputError: One is larger than every stock sheet.
    """

    def __init__(self, blanks: list[Blank], stock: Stock, way: Way) -> None:
        self.blanks, self.stock, self.way = blanks, stock, way
        self.metal, self.thick = blanks[0].part.material, blanks[0].part.thickness
        self.decode: Decoder = guillotine if way.shear else skyline
        k = stock.kerf
        # In tenths of a millimetre, rounded up.
        self.pieces = [
            Piece(n, math.ceil((b.length + k) * 10 - 1e-6), math.ceil((b.width + k) * 10 - 1e-6), not b.part.grain)
            for n, b in enumerate(blanks)
        ]  # fmt: skip
        for one in blanks:
            if not any(fits(one, size, stock.trim) for size in stock.sheets):
                raise InputError(
                    f"the blank of {one.length:.0f} × {one.width:.0f} mm is larger than every stock sheet",
                    place=one.part.name,
                    remedy="Split the part, or order a larger sheet.",
                )
        self.free = sorted(
            [*self._openings(), *self._offcuts()], key=lambda f: f.size[0] * f.size[1]
        )

    def room(self, size: Size, *, trimmed: bool = True) -> Room:
        """What a sheet holds within its trim, with a kerf beyond it. [0.1 mm]"""
        off = self.stock.kerf - (2 * self.stock.trim if trimmed else 0.0)
        a, b = (math.floor((x + off) * 10 + 1e-6) for x in size)
        return a, b

    def place_room(self, place: FreePlace) -> Room:
        """What a free place holds: an opening has no trim. [0.1 mm]"""
        return self.room(place.size, trimmed=place.host < 0)

    def price(self, size: Size) -> float:
        """What a sheet of a size costs: as the stock says, else by its mass."""
        for p in self.stock.prices:
            same = p.material == self.metal.key and abs(p.thickness - self.thick) < 1e-6
            if same and sorted((p.length, p.width)) == sorted(size):
                return p.price
        return size[0] * size[1] * self.thick * self.metal.density * 1e-9 * self.way.per_kg

    def area(self, puts: Bin) -> int:
        """What pieces take, kerf included. [0.01 mm²]"""
        return sum(self.pieces[p.number].wide * self.pieces[p.number].high for p in puts)

    def boxes(self, puts: Bin) -> list[tuple[int, int, int, int]]:
        """Where pieces lie in their bin, kerf included. [0.1 mm]"""
        found = []
        for p in puts:
            piece = self.pieces[p.number]
            w, h = (piece.high, piece.wide) if p.turned else (piece.wide, piece.high)
            found.append((p.x, p.y, p.x + w, p.y + h))
        return found

    def packed(self, puts: Bin, size: Size) -> FilledBin | None:
        """Some pieces on one bought sheet, if some order gets them on it."""
        pieces = [self.pieces[p.number] for p in puts]
        room = self.room(size)
        if self.area(puts) > math.prod(room) or not all(fits_room(p, room) for p in pieces):
            return None
        for key in ORDERS:
            got, left = self.decode(sorted(pieces, key=key), *room, 0)
            if not left:
                return FilledBin(size, got, bought=True)
        return None

    def _openings(self) -> list[FreePlace]:
        """What is cut out of blanks and large enough to be cut up; a shear cannot."""
        if self.way.shear:
            return []
        found = []
        for n, one in enumerate(self.blanks):
            for m, c in enumerate(one.cutouts):
                less = 2 * (self.stock.kerf + CORNER * c.radius)
                size = (c.length - less, c.width - less)
                if min(size) >= LEAST_HOLE:
                    found.append(FreePlace(size, n, m))
        return found

    def _offcuts(self) -> list[FreePlace]:
        """What the shop has of this sheet."""
        found: list[FreePlace] = []
        for o in self.stock.offcuts:
            thick = sheet_thickness(o.section)
            if o.material == self.metal.key and abs(thick - self.thick) < 1e-6 and o.width > 0:
                found += [FreePlace((o.length, o.width))] * o.count
        return found


def sheet_thickness(section: str) -> float:
    """A sheet's thickness in words such as ``2`` or ``2 mm``; 0 for a bar's section. [mm]"""
    try:
        return float(section.split(maxsplit=1)[0])
    except (ValueError, IndexError):
        return 0.0


def fits_room(p: Piece, room: Room) -> bool:
    """Whether a piece lies in a room at all."""
    straight = p.wide <= room[0] and p.high <= room[1]
    return straight or (p.turns and p.high <= room[0] and p.wide <= room[1])


def turned_about(puts: list[Put]) -> list[Put]:
    """Pieces of a bin seen with its axes changed: what lay along lies across."""
    return [Put(p.number, p.y, p.x, p.turned) for p in puts]
