"""The search for a nesting: one group of blanks after another, packed and improved."""

import math

from roomy_hull.core.errors import GivenUp, InputError
from roomy_hull.making.bounds import apart, fewest_bins
from roomy_hull.making.flats import Blank
from roomy_hull.making.nest_finish import finished, sheets_of
from roomy_hull.making.nest_table import FilledBin, Room, Size, Table, fits_room
from roomy_hull.making.packing import ORDERS, Bin, Piece, Search
from roomy_hull.making.sheets import USUAL, Nest, Progress, Sheet, Way
from roomy_hull.shop.shop import Stock

ROUNDS = 12
"""So often a group is taken apart and packed again where it is not at its bound, when there is no time for more."""


def nest(
    blanks: list[Blank], stock: Stock, progress: Progress = lambda _share: True, way: Way = USUAL,
    rounds: int = ROUNDS,
) -> Nest:  # fmt: skip
    """Nest blanks on sheets, material by material.

    Args:
        blanks: Every blank once for each piece wanted. [mm]
        stock: Sheet sizes, offcuts, kerf and edge trim. [mm]
        progress: Called with the share done; returning False gives up.
        rounds: How often each group is improved at most.
    Returns: The sheets, and for each group the count bought beside its lower bound.
    Raises:
        InputError: A blank is larger than every stock sheet.
        GivenUp: The work was given up.
    """
    work = Nesting(blanks, stock, way)
    for n in range(rounds):
        if work.done:
            break
        if not progress(n / rounds):
            raise GivenUp("the nesting was given up")
        work.step()
    if not progress(1.0):
        raise GivenUp("the nesting was given up")
    return work.nest()


class Nesting:
    """A nesting that is improved step by step, and can be taken as it is at any time.

    Args:
        blanks: Every blank once for each piece wanted. [mm]
        stock: What there is to cut them from. [mm]
    Raises:
        InputError: A blank has no size, or is larger than every stock sheet.
    """

    def __init__(self, blanks: list[Blank], stock: Stock, way: Way = USUAL) -> None:
        none = next((b for b in blanks if min(b.length, b.width) <= 0), None)
        if none is not None:
            raise InputError(
                f"the blank has no size left ({none.length:.1f} × {none.width:.1f} mm)",
                place=none.part.name,
                remedy="Make what it belongs to larger.",
            )
        groups: dict[tuple[str, float], list[Blank]] = {}
        for one in blanks:
            groups.setdefault((one.part.material.key, one.part.thickness), []).append(one)
        self.groups = [Group(groups[key], stock, way) for key in sorted(groups)]

    @property
    def done(self) -> bool:
        """Whether no group can need fewer sheets."""
        return all(g.done for g in self.groups)

    def step(self) -> bool:
        """Improve every group once that can be better; say whether one became so."""
        better = [g.step() for g in self.groups if not g.done]
        return any(better)

    def nest(self) -> Nest:
        """The nesting as it is now, checked.

        Returns: The sheets, and for each group the count bought beside its lower bound.
        Raises:
            InputError: It failed its check; nothing is cut by it.
        """
        sheets = [s for g in self.groups for s in g.sheets()]
        return Nest(tuple(sheets), {g.words(): (g.bought(), g.bound()) for g in self.groups})


class Group:
    """The blanks of one material and thickness, packed and improved step by step.

    Args:
        blanks: Each once for every piece. [mm]
        stock: What there is to cut them from. [mm]
    Raises:
        InputError: One is larger than every stock sheet.
    """

    def __init__(self, blanks: list[Blank], stock: Stock, way: Way) -> None:
        self._table = Table(blanks, stock, way)
        self._last: tuple[list[FilledBin], list[FilledBin]] | None = None
        self._given, self._rest = self._free_filled()
        self._main, self._large, self._search = self._begun(self._rest)

    def _free_filled(self) -> tuple[list[FilledBin], list[Piece]]:
        """Fill what costs nothing, the smallest first, each as full as some order fills it."""
        table = self._table
        # A blank with an opening that is cut up does not lie in another's.
        hosts = {f.host for f in table.free}
        rest, found = list(table.pieces), []
        for place in table.free:
            room = table.place_room(place)
            able = [p for p in rest if p.number not in hosts and fits_room(p, room)]
            best: Bin = []
            for key in ORDERS if able else ():
                got, _left = table.decode(sorted(able, key=key), *room, 0)
                best = max(best, got, key=table.area)
            if best:
                found.append(FilledBin(place.size, best, bought=False, host=place.host, hole=place.hole))  # fmt: skip
                gone = {p.number for p in best}
                rest = [p for p in rest if p.number not in gone]
        return found, rest

    def _begun(self, pieces: list[Piece]) -> tuple[Size, list[FilledBin], Search | None]:
        """Choose sizes: all on the one that costs least; what it does not take on the cheapest that does."""
        table = self._table
        best: tuple[float, Size, list[FilledBin], Search | None] | None = None
        for size in table.stock.sheets:
            room = table.room(size)
            large = [p for p in pieces if not fits_room(p, room)]
            bins, rest = self._on_larger(large, [p for p in pieces if fits_room(p, room)])
            search = None
            if rest:
                search = Search(rest, room, table.decode, _least(rest, room))
            money = sum(table.price(b.size) for b in bins)
            money += len(search.bins) * table.price(size) if search is not None else 0.0
            if best is None or money < best[0] - 1e-9:
                best = money, size, bins, search
        if best is None:
            raise InputError(
                "the shop has no sheets", remedy="Enter a size among the shop's sheets."
            )
        return best[1:]

    def _on_larger(
        self, large: list[Piece], small: list[Piece]
    ) -> tuple[list[FilledBin], list[Piece]]:
        """Sheets for what is too large for the others, filled up with what is not."""
        table = self._table
        bins: list[FilledBin] = []
        while large:
            able = [s for s in table.stock.sheets if fits_room(large[0], table.room(s))]
            size = min(able, key=table.price)
            order = [large[0], *sorted(large[1:], key=ORDERS[0]), *sorted(small, key=ORDERS[0])]
            got, _left = table.decode(order, *table.room(size), 0)
            bins.append(FilledBin(size, got, bought=True))
            gone = {p.number for p in got}
            large = [p for p in large if p.number not in gone]
            small = [p for p in small if p.number not in gone]
        return bins, small

    def bound(self) -> int:
        """How many sheets no nesting does without, of the largest size in use, whatever is cut from what is free.

        Returns: By what fits nothing that is free, by what lies beside nothing else, and by area.
        """
        table = self._table
        used = {b.size for b in self._final() if b.bought} or set(table.stock.sheets)
        room = max((table.room(s) for s in used), key=math.prod)
        free = [table.place_room(f) for f in table.free]
        only = [p for p in table.pieces if not any(fits_room(p, f) for f in free)]
        area = sum(p.wide * p.high for p in table.pieces) - sum(math.prod(f) for f in free)
        by_area = math.ceil(area / math.prod(room) - 1e-9)
        # Of pieces no two of which share a sheet, a free place takes one at most.
        rows = [(float(p.wide), float(p.high), p.turns) for p in table.pieces]
        group = [table.pieces[n] for n in apart(rows, (float(room[0]), float(room[1])))]
        taken = sum(any(fits_room(p, f) for p in group) for f in free)
        least = _least([p for p in only if fits_room(p, room)], room)
        return max(0, by_area, least, len(group) - taken)

    @property
    def done(self) -> bool:
        """Whether there are as few sheets of the chosen size as there can be."""
        return self._search is None or self._search.done

    def step(self) -> bool:
        """Improve the packing once; say whether it became better."""
        return self._search.step() if self._search is not None else False

    def _all(self) -> list[FilledBin]:
        """Every bin, what costs nothing first."""
        found = [*self._given, *self._large]
        if self._search is not None:
            found += [FilledBin(self._main, b, bought=True) for b in self._search.bins]
        return found

    def _final(self) -> list[FilledBin]:
        """The bins as they are cut, remembered until they change."""
        now = self._all()
        if self._last is None or self._last[0] != now:
            self._last = now, finished(self._table, now)
        return self._last[1]

    def bought(self) -> int:
        """How many sheets are bought."""
        return sum(b.bought for b in self._final())

    def words(self) -> str:
        """Material, thickness, and the size of its sheets where it is one only."""
        sizes = {b.size for b in self._final() if b.bought}
        end = ", sheet {:g} × {:g}".format(*next(iter(sizes))) if len(sizes) == 1 else ""
        return f"{self._table.metal.key} {self._table.thick:g} mm{end}"

    def sheets(self) -> list[Sheet]:
        """Write the packing out, checked.

        Returns: Offcuts first. [mm]
        Raises:
            InputError: The packing failed its check; nothing is cut by it.
        """
        return sheets_of(self._table, self._final())


def _least(pieces: list[Piece], room: Room) -> int:
    """How many of a room some pieces need at least."""
    rows = [(float(p.wide), float(p.high), p.turns) for p in pieces]
    return fewest_bins(rows, (float(room[0]), float(room[1])))
