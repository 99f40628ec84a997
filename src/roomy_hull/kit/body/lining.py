"""The lining of a hold: a false floor on bearers and side wings, as boards that are cut, in vehicle axes.

It ends before the tailgate's leaf, is cut round the arches, and comes in pieces that the stock and the door let in.
"""

import itertools
import math
from collections.abc import Iterator
from typing import Literal, NamedTuple

from roomy_hull.core.folded import Cutout, Face
from roomy_hull.core.geometry.solids import Box, hull, without
from roomy_hull.core.parts import Hardware, Part, Pose, SheetPart
from roomy_hull.core.poses import BACK, FLAT, WALL, Turned, at
from roomy_hull.core.refs import TRAY
from roomy_hull.core.shapes import rectangle, stepped
from roomy_hull.job.body import Body, Tray
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kit.body import rooms
from roomy_hull.kit.body.pieces import BodyPart, Hand
from roomy_hull.kit.body.subframe import front_x
from roomy_hull.shop.shop import Shop

PLY = 12.0
"""Thickness of false floor and wings (common practice). [mm]"""
WING_HEIGHT = 330.0
"""Height of a side wing over the floor (common practice). [mm]"""
BEARERS = 450.0
"""Bearers stand at most so far apart (common practice). [mm]"""
PLAY = 2.0
"""A board keeps so far from the walls that it is let down between (common practice). [mm]"""
CLEAR = 5.0
"""What is left free before a tailgate's leaf and around a wheel arch (common practice). [mm]"""
WEB = 20.0
"""A board that would be narrower over an arch than this is left out there (common practice). [mm]"""
EDGE, LEDGE, LEAST_LID = 60.0, 30.0, 150.0
"""What is left of the board beside a lid; how much of a ledge is under each; what is smaller is no lid (common
practice). [mm]"""


class Setting(NamedTuple):
    """What a lining has to heed of the body around it. [mm]

    Attributes:
        rear: So far before the hold's rear it ends.
        through: The widest board that goes in, rolled on its way.
        sheets: What is usable of each stock sheet, the longer side first; empty where nobody asks.
        below: What is used under the floor, in vehicle axes: there are lids above it.
    """

    rear: float = CLEAR
    through: float = math.inf
    sheets: tuple[tuple[float, float], ...] = ()
    below: tuple[Box, ...] = ()


class Board(NamedTuple):
    """One board: a box less what is cut out of it, in vehicle axes. [mm]

    Attributes:
        turn: How its sheet is turned; its two long axes follow from it.
        cuts: What is cut from its edges.
        windows: What is cut out within it.
    """

    name: str
    side: Hand | Literal[""]
    box: Box
    turn: Turned
    cuts: tuple[Box, ...] = ()
    windows: tuple[Box, ...] = ()

    def solids(self) -> list[Box]:
        """What is left of it. [mm]"""
        return without(self.box, [*self.cuts, *self.windows])

    def face(self) -> Face:
        """Its outline, from its corner. [mm]"""
        u, v = AXES[self.turn]
        long, wide = self.box.size()[u], self.box.size()[v]
        low, high = [], []
        for cut in self.cuts:
            met = self.box.common(cut)
            if met is None:
                continue
            start, end = met[u] - self.box[u], met[u + 3] - self.box[u]
            if met[v] <= self.box[v]:
                low.append((start, end, met[v + 3] - self.box[v]))
            else:
                high.append((start, end, self.box[v + 3] - met[v]))
        openings = tuple(
            Cutout(w[u] - self.box[u], w[v] - self.box[v], w.size()[u], w.size()[v])
            for w in self.windows
        )
        ring = stepped(long, wide, low, high) if low or high else rectangle(long, wide)
        return Face(ring, (), openings)


AXES: dict[Turned, tuple[int, int]] = {FLAT: (0, 1), WALL: (1, 2), BACK: (0, 2)}
"""Which axes of the vehicle a board's length and width lie along."""


def setting(vehicle: Vehicle, body: Body, shop: Shop) -> Setting:
    """What of a body its lining has to heed."""
    canopy = body.canopy
    leaf = canopy.wall if canopy is not None else 0.0
    doors = [d for d in canopy.doors if d.side == "rear"] if canopy is not None else []
    # A board is rolled as it goes in: the opening's diagonal counts. An open tub is entered from above.
    through = max((math.hypot(d.length, d.height) for d in doors), default=math.inf)
    trim = shop.stock.trim
    sheets = tuple((max(s) - 2 * trim, min(s) - 2 * trim) for s in shop.stock.sheets)
    below = tuple(p.inside for p in rooms.places(vehicle, body) if p.room.kind == "hatch")
    return Setting(leaf + CLEAR, through, sheets, below)


def _arches(tray: Tray, x0: float, top: float) -> list[tuple[Hand, Box]]:
    """What is to be left free of the wheel arches, to beyond the hold's sides; those that run into one another are one.

    Returns: In vehicle axes. [mm]
    """
    half, found = tray.width / 2, []
    hands: tuple[Hand, Hand] = ("left", "right")
    for hand in hands:
        own: list[Box] = []
        for arch in sorted(tray.arches, key=lambda a: a.start):
            if arch.side not in (hand, "both"):
                continue
            inner = half - arch.width - CLEAR
            y0, y1 = (-half - CLEAR, -inner) if hand == "left" else (inner, half + CLEAR)
            a = x0 + arch.start - CLEAR
            box = Box(
                a, y0, top - CLEAR, a + arch.length + 2 * CLEAR, y1, top + arch.height + CLEAR
            )
            if own and own[-1].x1 > a:
                box = hull([own.pop(), box])
            own.append(box)
        found += [(hand, box) for box in own]
    return found


def _pieces(box: Box, cuts: tuple[Box, ...], turn: Turned) -> Iterator[Box]:
    """What cuts from its edges leave of a board along its length: where less than a web is left, it is parted. [mm]"""
    u, v = AXES[turn]
    met = [m for c in cuts if (m := box.common(c)) is not None]
    marks = sorted({box[u], box[u + 3], *(m[k] for m in met for k in (u, u + 3))})
    start = None
    for a, b in itertools.pairwise([*marks, math.inf]):
        gone = sum(m.size()[v] for m in met if m[u] < b and a < m[u + 3])
        if b < math.inf and box.size()[v] - gone >= WEB:
            start = a if start is None else start
        elif start is not None:
            if a - start >= WEB:
                yield Box(*(*box[:u], start, *box[u + 1 : u + 3], a, *box[u + 4 :]))
            start = None


def _fits(long: float, wide: float, given: Setting) -> bool:
    """Whether a board lies on a stock sheet."""
    a, b = max(long, wide), min(long, wide)
    return not given.sheets or any(a <= s[0] and b <= s[1] for s in given.sheets)


def _split(long: float, wide: float, given: Setting) -> tuple[int, int]:
    """Into how many rows along, and how many strips across, a board is split: the fewest pieces, at most 8 each."""
    ways = [
        (n, m)
        for n in range(1, 9)
        for m in range(1, 9)
        if wide / m <= given.through and _fits(long / n, wide / m, given)
    ]
    return min(ways, key=lambda way: (way[0] * way[1], way[1]), default=(8, 8))


def boards(tray: Tray, x0: float, given: Setting) -> tuple[Board, ...]:
    """The boards of a hold's lining.

    Args:
        tray: A hold. [mm]
        x0: Where its floor begins, in vehicle axes. [mm]
    Returns: The false floor's board, bearers, what lies along, lids and ledges; the wings' tops and sides. [mm]
    """
    found: list[Board] = []
    end = x0 + tray.length - given.rear
    if end - x0 < 2 * EDGE:
        return ()
    if tray.false_floor > 0:
        found += _floor(tray, x0 + PLAY, end, given)
    if tray.wings > 0:
        found += _wings(tray, x0 + PLAY, end, given)
    return tuple(found)


def _floor(tray: Tray, x0: float, x1: float, given: Setting) -> list[Board]:
    """Board and bearers between the wings, with what lies along under seams and beside arches. [mm]"""
    top, edge = tray.floor_z, tray.width / 2 - tray.wings - PLAY
    level = top + tray.false_floor
    under = max(top, level - PLY)
    arches = [a for _side, a in _arches(tray, x0 - PLAY, top)]
    through = tuple(a for a in arches if a.z1 > under)
    beside = tuple(a for a in arches if under - a.z1 < WEB)
    rows, strips = _split(x1 - x0, 2 * edge, given)
    long, wide = (x1 - x0) / rows, 2 * edge / strips
    found: list[Board] = []
    lids: list[Box] = []
    starts: list[float] = []
    for n in range(rows):
        count = max(2, math.ceil(long / BEARERS) + 1)
        own = [x0 + n * long + k * (long - PLY) / (count - 1) for k in range(count)]
        starts += own
        for m in range(strips):
            piece = Box(
                x0 + n * long,
                m * wide - edge,
                under,
                x0 + (n + 1) * long,
                (m + 1) * wide - edge,
                level,
            )
            windows = tuple(_windows(piece, own, beside, given)) if under - PLY > top else ()
            lids += windows
            found += [
                Board(
                    "False floor: board", "", p, FLAT, _touching(p, through), _touching(p, windows)
                )
                for p in _pieces(piece, through, FLAT)
            ]
    if under > top:
        found += _bearers(starts, Box(x0, -edge, top, x1, edge, under), arches)
        lines = [(-edge + m * wide - PLY * k, x0, x1) for m in range(1, strips) for k in (1, 0)]
        lines += [(a.y1 if a.y0 < -edge else a.y0 - PLY, a.x0, a.x1) for a in beside]
        found += _along(starts, lines, edge, (top, under), tuple(arches))
    for w in lids:
        lid = Box(w.x0 + PLAY, w.y0 + PLAY, w.z0, w.x1 - PLAY, w.y1 - PLAY, w.z1)
        found.append(Board("False floor: lid", "", lid, FLAT))
        found += [
            Board("False floor: ledge", "", Box(x - LEDGE, w.y0, w.z0 - PLY, x + LEDGE, w.y1, w.z0), FLAT)
            for x in (w.x0, w.x1)
        ]  # fmt: skip
    return found


def _touching(box: Box, others: tuple[Box, ...]) -> tuple[Box, ...]:
    return tuple(o for o in others if box.common(o) is not None)


def _windows(piece: Box, starts: list[float], arches: tuple[Box, ...], given: Setting) -> Iterator[Box]:  # fmt: skip
    """Where a lid goes in a piece of the floor: between two bearers, over what is used below. [mm]"""
    for below in given.below:
        for a, b in itertools.pairwise(starts):
            x0, x1 = max(a + PLY + LEDGE, below.x0), min(b - LEDGE, below.x1)
            beside = [g for g in arches if g.x0 < x1 and x0 < g.x1]
            y0 = max(piece.y0, below.y0, *(g.y1 + PLY for g in beside if g.y0 < piece.y0)) + EDGE
            y1 = min(piece.y1, below.y1, *(g.y0 - PLY for g in beside if g.y1 > piece.y1)) - EDGE
            if min(x1 - x0, y1 - y0) >= LEAST_LID:
                yield Box(x0, y0, piece.z0, x1, y1, piece.z1)


def _bearers(starts: list[float], room: Box, arches: list[Box]) -> list[Board]:
    """Upright boards across, notched over an arch where enough is left of them, else only as long as beside it. [mm]"""
    found = []
    for x in starts:
        box = room._replace(x0=x, x1=x + PLY)
        over = []
        for a in (a for a in arches if a.common(box) is not None):
            if room.z1 - a.z1 >= WEB:
                over.append(a)
            elif a.y0 < room.y0:
                box = box._replace(y0=max(box.y0, a.y1))
            else:
                box = box._replace(y1=min(box.y1, a.y0))
        if box.y1 - box.y0 >= EDGE:
            found.append(Board("False floor: bearer", "", box, WALL, _touching(box, tuple(over))))
    return found


def _along(
    starts: list[float], lines: list[tuple[float, float, float]], edge: float, up: tuple[float, float],
    taken: tuple[Box, ...]
) -> list[Board]:  # fmt: skip
    """Upright boards from bearer to bearer, under a seam or beside an arch.

    Args:
        lines: The y of each, and from where to where it is wanted. [mm]
        edge, up: Half of the floor's width; from where to where they stand. [mm]
        taken: Where none may stand. [mm]
    """
    found: list[Board] = []
    for y, begin, stop in lines:
        if not -edge <= y <= edge - PLY:
            continue
        for a, b in itertools.pairwise(starts):
            if b - a - PLY >= EDGE and a + PLY < stop and begin < b:
                box = Box(a + PLY, y, up[0], b, y + PLY, up[1])
                if not _touching(box, (*taken, *(f.box for f in found))):
                    found.append(Board("False floor: bearer along", "", box, BACK))
    return found


def _wings(tray: Tray, x0: float, x1: float, given: Setting) -> list[Board]:
    """On each side a top and a side, left out where an arch leaves nothing of them. [mm]"""
    top, half, found = tray.floor_z, tray.width / 2, []
    lid = top + WING_HEIGHT
    rows, _strips = _split(x1 - x0, tray.wings, given._replace(through=math.inf))
    arches = _arches(tray, x0 - PLAY, top)
    hands: tuple[tuple[Hand, float, float, float], ...] = (
        ("left", PLAY - half, tray.wings - half, tray.wings - half - PLY),
        ("right", half - tray.wings, half - PLAY, half - tray.wings),
    )
    for side, y0, y1, inner in hands:
        whole = (
            ("Wing: top", Box(x0, y0, lid - PLY, x1, y1, lid), FLAT),
            ("Wing: side", Box(x0, inner, top, x1, inner + PLY, lid - PLY), BACK),
        )
        for name, box, turn in whole:
            near = tuple(a for hand, a in arches if hand == side)
            long = (x1 - x0) / rows
            for n in range(rows):
                row = box._replace(x0=x0 + n * long, x1=x0 + (n + 1) * long)
                found += [
                    Board(name, side, p, turn, _touching(p, near)) for p in _pieces(row, near, turn)
                ]
    return found


def parts(vehicle: Vehicle, tray: Tray, shop: Shop, given: Setting) -> tuple[Part, ...]:
    """What is cut for the lining, equal boards together, and the rings by which its lids are lifted. [mm]"""
    ply = shop.material(shop.ply)
    alike: dict[tuple[str, Face, Turned], list[Board]] = {}
    for one in boards(tray, front_x(vehicle, tray), given):
        alike.setdefault((one.name, one.face(), one.turn), []).append(one)
    made: list[Part] = []
    names: dict[str, int] = {}
    for (name, face, turn), rows in alike.items():
        names[name] = names.get(name, 0) + 1
        u, v = AXES[turn]
        size = rows[0].box.size()
        plain = len(face.ring) == 4 and not face.cutouts
        words = name + (f" {names[name]}" if names[name] > 1 else "")
        made.append(
            SheetPart(words, TRAY, size[u], size[v], PLY, ply, count=len(rows), shape=None if plain else face,
                      poses=tuple(_pose(r) for r in rows))
        )  # fmt: skip
    lids = sum(len(rows) for (name, _f, _t), rows in alike.items() if name.endswith("lid"))
    if lids:
        made.append(Hardware("flush lift ring for a lid", TRAY, lids))
    return tuple(made)


def _pose(board: Board) -> Pose:
    """Where its corner is."""
    b = board.box
    if board.turn is BACK:
        return at(b.x0, b.y1, b.z0, BACK)
    return at(b.x0, b.y0, b.z0, board.turn)


def solids(tray: Tray, x0: float, given: Setting) -> list[BodyPart]:
    """The boards as they stand about a hold, in the order of `boards`. [mm]"""
    return [
        BodyPart("wing" if one.name.startswith("Wing") else "false floor", b, one.side)
        for one in boards(tray, x0, given)
        for b in one.solids()
    ]
