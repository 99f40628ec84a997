"""The end of a nesting: cheaper sheets where they do, the largest rest on the last, and every blank in its place."""

import math

import msgspec

from roomy_hull.core.errors import InputError
from roomy_hull.making.checked_layout import Lying, flaw
from roomy_hull.making.nest_table import CORNER, FilledBin, Room, Table, turned_about
from roomy_hull.making.packing import NEAR, ORDERS, Bin, Piece, Put
from roomy_hull.making.room_left import largest_free, whole_cuts
from roomy_hull.making.sheets import PlacedBlank, Sheet
from roomy_hull.shop.shop import Stock

MANY, MOST_KEPT, JOIN_TRIES = 80, 4, 60
"""More pieces on the last sheet than this are not tried for the largest rest; how many rests of a sheet are kept; so many
pairs are tried on a larger sheet."""


def finished(table: Table, now: list[FilledBin]) -> list[FilledBin]:
    """See to money and rests.

    Returns:
        Each on the cheapest sheet that takes it, two on a larger one where that is cheaper, the emptiest with the
        largest rest.
    """
    found = [_smaller(table, b) if b.bought else b for b in _joined(table, now)]
    bought = [n for n, b in enumerate(found) if b.bought]
    if bought:
        last = min(bought, key=lambda n: table.area(found[n].puts))
        found[last] = _with_rest(table, found[last])
    return found


def _joined(table: Table, bins: list[FilledBin]) -> list[FilledBin]:
    """Two sheets on one larger one, wherever that costs less."""
    left = sorted((b for b in bins if b.bought), key=lambda b: table.area(b.puts))
    found = [b for b in bins if not b.bought]
    tries = JOIN_TRIES
    while left:
        one = left.pop(0)
        for n, other in enumerate(left):
            money = table.price(one.size) + table.price(other.size)
            both, done = one.puts + other.puts, None
            for size in sorted(table.stock.sheets, key=table.price):
                cheaper = table.price(size) < money - 1e-9
                if cheaper and tries > 0 and table.area(both) <= math.prod(table.room(size)):
                    tries -= 1
                    done = done or table.packed(both, size)
            if done is not None:
                one = done
                del left[n]
                break
        found.append(one)
    return found


def _smaller(table: Table, one: FilledBin) -> FilledBin:
    """A bin on a cheaper sheet, if that takes all of it."""
    for size in sorted(table.stock.sheets, key=table.price):
        if table.price(size) >= table.price(one.size) - 1e-9:
            break
        found = table.packed(one.puts, size)
        if found is not None:
            return found
    return one


def _with_rest(table: Table, one: FilledBin) -> FilledBin:
    """The same pieces so that the largest rectangle is left over."""
    pieces = [table.pieces[p.number] for p in one.puts]
    if len(pieces) > MANY:
        return one
    room = table.room(one.size)
    best, most = one, _rest(table, one.puts, room)
    for key in ORDERS:
        for near in sorted(set(NEAR)):
            for across in (False, True):
                rows = (
                    [Piece(p.number, p.high, p.wide, p.turns) for p in pieces] if across else pieces
                )
                got, left = table.decode(
                    sorted(rows, key=key), *(room[::-1] if across else room), near
                )
                if left:
                    continue
                puts = turned_about(got) if across else got
                free = _rest(table, puts, room)
                if free > most:
                    best, most = one._replace(puts=puts), free
    return best


def _rest(table: Table, puts: Bin, room: Room) -> int:
    _x, _y, a, b = largest_free(table.boxes(puts), room)
    return a * b


def sheets_of(table: Table, bins: list[FilledBin]) -> list[Sheet]:
    """Write a packing out, checked.

    Returns: Offcuts first; what lies in a blank's opening on that blank's sheet. [mm]
    Raises:
        InputError: The packing failed its check; nothing is cut by it.
    """
    inner = [b for b in bins if b.host >= 0]
    found: list[Sheet] = []
    trim = table.stock.trim
    for one in sorted((b for b in bins if b.host < 0), key=lambda b: b.bought):
        placed = [_placed(table, p, trim, trim) for p in one.puts]
        numbers = {p.number: p for p in placed}
        for b in inner:
            if b.host in numbers:
                placed += _in_opening(table, numbers[b.host], b)
        price = table.price(one.size) if one.bought else 0.0
        kept = rests(table.boxes(one.puts), table.room(one.size), table.stock)
        found.append(Sheet(table.metal, table.thick, *one.size, tuple(placed), one.bought, kept, price))  # fmt: skip
    _check(table, found)
    return found


def _placed(table: Table, put: Put, x: float, y: float, inside: int = -1) -> PlacedBlank:
    one = table.blanks[put.number]
    long, wide = (one.width, one.length) if put.turned else (one.length, one.width)
    return PlacedBlank(one, put.number, x + put.x / 10, y + put.y / 10, long, wide, put.turned, inside)  # fmt: skip


def _in_opening(table: Table, host: PlacedBlank, one: FilledBin) -> list[PlacedBlank]:
    """What lies in an opening of a blank, carried to where that lies."""
    c = host.blank.cutouts[one.hole]
    off = table.stock.kerf + CORNER * c.radius
    found = []
    for put in one.puts:
        p = _placed(table, put, c.x + off, c.y + off, host.number)
        if host.turned:
            # The blank is turned by a quarter: what lies in it goes round with it.
            x, y = host.blank.width - p.y - p.width, p.x
            p = msgspec.structs.replace(p, x=x, y=y, length=p.width, width=p.length, turned=not p.turned)  # fmt: skip
        found.append(msgspec.structs.replace(p, x=p.x + host.x, y=p.y + host.y))
    return found


def rests(
    boxes: list[tuple[int, int, int, int]], room: Room, stock: Stock
) -> tuple[tuple[float, float, float, float], ...]:
    """The rectangles of a sheet worth keeping, the largest first.

    Args:
        boxes: What is taken, with the kerf, from the trim on. [0.1 mm]
        room: Of the whole within the trim. [0.1 mm]
        stock: Kerf, trim, and the least that is kept. [mm]
    Returns: On the sheet. [mm]
    """
    boxes, found = list(boxes), []
    k, trim = stock.kerf, stock.trim
    for _ in range(MOST_KEPT):
        x, y, a, b = largest_free(boxes, room)
        size = a / 10 - k, b / 10 - k
        if min(size) < stock.least_offcut:
            break
        found.append((trim + x / 10, trim + y / 10, *size))
        boxes.append((x, y, x + a, y + b))
    return tuple(found)


def lying(p: PlacedBlank) -> Lying:
    """A placed blank as the check of a layout takes it."""
    return Lying(p.blank, p.x, p.y, p.turned, p.inside, p.about)


def _check(table: Table, found: list[Sheet]) -> None:
    """Check the layout ourselves: every piece once, inside the trim, a kerf between any two outlines."""
    numbers = sorted(p.number for s in found for p in s.placed)
    fault = "a blank is missing" if numbers != list(range(len(table.blanks))) else ""
    for sheet in found:
        rows = [lying(p) for p in sheet.placed]
        size = (sheet.length, sheet.width)
        fault = fault or flaw(rows, size, table.stock.trim, table.stock.kerf)
        boxes = [(p.x, p.y, p.x + p.length, p.y + p.width) for p in sheet.placed]
        if table.way.shear and not whole_cuts(boxes):
            fault = fault or "a shear cannot part it"
        turned = next((p for p in sheet.placed if p.turned and p.blank.part.grain), None)
        if turned is not None:
            fault = fault or f"{turned.blank.part.name} lies across the rolling direction"
    if fault:
        raise InputError(f"the nesting failed its check: {fault}", remedy="Report this job.")
