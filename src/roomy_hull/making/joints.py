"""Joints: how parts that touch are joined, and the holes that their fasteners need in both.

What touches is found where the parts stand; how it is joined follows from what the parts are of and from the shop:
ply is screwed and glued, a sheet that lies on another is riveted, on a frame it is stitched with weld, edges are
welded. A part that comes off again is bolted. Every fastener's hole is put into both parts where they stand, so that
the holes of two parts are in line because they were one.
"""

from __future__ import annotations

import itertools
import math
from typing import Any, Literal, NamedTuple

import msgspec

from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.graphs import components
from roomy_hull.core.parts import BarPart, Hardware, Part, SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.making.contacts import Contact, Item, Points, Side, touching
from roomy_hull.making.fasteners import Drill, clear_of_bends, drilled, spots_on
from roomy_hull.making.openings import openings_of
from roomy_hull.shop.tools import Joining

Method = Literal["weld", "stitch", "rivets", "bolts", "screws and glue", "clamped"]
Spot = tuple[float, float, float]


class Joint(msgspec.Struct, frozen=True):
    """How two parts, or a part and something bought, are joined; or the edges of one folded part.

    Attributes:
        owner: What they belong to.
        one, other: Their names; the same one where a part's own edges meet.
        pieces: For each of both: its number among the owner's parts, and which of its stands.
        method: How.
        length: Of the seam, or of what lies on each other. [mm]
        welded: Of it, what is welded. [mm]
        spots: Middles of its fasteners, or the ends of its seam, in the owner's directions. [mm]
        fastener: What they are, such as ``rivet 4.8``; empty for welds.
        hole: Diameter of the holes in both. [mm]
        throat: Of the weld: the thinner of both. [mm]
    """

    owner: Ref
    one: str
    other: str
    pieces: tuple[tuple[int, int], tuple[int, int]]
    method: Method
    length: float
    welded: float = 0.0
    spots: tuple[Spot, ...] = ()
    fastener: str = ""
    hole: float = 0.0
    throat: float = 0.0


class Joined(msgspec.Struct, frozen=True, eq=False):
    """An owner's parts with the holes of their fasteners, its joints, and which of the given ones nothing holds.

    `of` names for every part which of the given ones it is: pieces of one part that are drilled in different ways
    are different parts. `stands` of each are those pieces' own.
    """

    parts: tuple[Part, ...]
    of: tuple[int, ...]
    joints: tuple[Joint, ...]
    alone: tuple[int, ...]


def joined(parts: tuple[Part, ...], shop: Joining) -> Joined:
    """Join the parts of one owner.

    Args:
        parts: Its parts with their stands. [mm]
    Returns:
        Parts with holes, joints, and the numbers of the parts of which nothing holds a piece; each equals only
        itself.
    """
    items = [
        Item(n, m, part, pose)
        for n, part in enumerate(parts) if not isinstance(part, Hardware)
        for m, pose in enumerate(part.poses)
    ]  # fmt: skip
    items += [
        Item(n, m, box, None)
        for n, part in enumerate(parts) if isinstance(part, Hardware)
        for m, box in enumerate(part.places)
    ]  # fmt: skip
    sides, contacts = touching(items)
    joints, drills = _joints(parts, items, sides, contacts, shop)
    joints += _sunk(parts, items)
    made, of = drilled(parts, drills)
    return Joined(made, of, tuple(joints), _alone(parts, items, joints))


def _joints(
    parts: tuple[Part, ...], items: list[Item], sides: list[Side], contacts: list[Contact], shop: Joining
) -> tuple[list[Joint], list[Drill]]:  # fmt: skip
    """Decide how each pair that touches is joined, with its holes."""
    by_pair: dict[tuple[int, int], list[Contact]] = {}
    for c in contacts:
        a, b = sides[c.one].item, sides[c.other].item
        by_pair.setdefault((min(a, b), max(a, b)), []).append(c)
    joints: list[Joint] = []
    drills: list[Drill] = []
    for (a, b), rows in by_pair.items():
        one, other = items[a], items[b]
        for c in _leading(rows, sides):
            found, holes = _joint(
                _Pair(one, other, parts[one.part], parts[other.part], c, sides), shop
            )
            if found is not None:
                joints.append(found)
                drills += holes
    return joints, drills


def _leading(rows: list[Contact], sides: list[Side]) -> list[Contact]:
    """Of what touches in one plane, faces on faces before edges."""
    found: list[Contact] = []
    planes: dict[tuple[int, ...], list[Contact]] = {}
    for c in rows:
        n = sides[c.one].normal
        sense = 1 if tuple(n) >= tuple(-n) else -1
        key = (*(round(float(v) * sense * 1000) for v in n), round(float(n @ c.origin) * sense))
        planes.setdefault(key, []).append(c)
    for group in planes.values():
        lying = [c for c in group if _lies(sides[c.one]) and _lies(sides[c.other])]
        found += lying or group
    return found


def _lies(side: Side) -> bool:
    return side.sort in ("big", "side", "box")


class _Pair(NamedTuple):
    """Two items that touch in one place, with their parts."""

    one: Item
    other: Item
    a: Part
    b: Part
    contact: Contact
    sides: list[Side]

    @property
    def bought(self) -> Hardware | None:
        """The one of them that is bought."""
        return next((p for p in (self.a, self.b) if isinstance(p, Hardware)), None)

    def faces(self) -> tuple[Side, Side]:
        """The two faces."""
        return self.sides[self.contact.one], self.sides[self.contact.other]

    def whose(self) -> list[tuple[Side, Item, Part]]:
        """The two faces, each with the item and the part that it is of."""
        first = min(s.item for s in self.faces())
        both = (self.one, self.a), (self.other, self.b)
        return [(s, *both[s.item != first]) for s in self.faces()]

    def made(self, method: Method, length: float, **more: Any) -> Joint:
        """Their joint."""
        own = (self.one.part, self.one.pose), (self.other.part, self.other.pose)
        return Joint(self.a.owner, self.a.name, self.b.name, own, method, length, **more)


def _joint(pair: _Pair, shop: Joining) -> tuple[Joint | None, list[Drill]]:
    """Join one contact."""
    bought, c = pair.bought, pair.contact
    method = _method(pair) if bought is None else METHODS.get("" if bought.opening else bought.fix)
    if bought is not None and method in ("rivets", "bolts") and _on_wood(pair):
        method = "screws and glue"
    if method is None:
        return None, []
    x0, y0, x1, y1 = c.patch.bounds
    long, middle = max(x1 - x0, y1 - y0), c.at((x0 + x1) / 2, (y0 + y1) / 2)
    if bought is not None and bought.bore:
        # One hole of its own, in the middle of where it touches.
        around = math.pi * bought.bore if method == "weld" else 0.0
        spots = (_spot(middle),)
        found = pair.made(
            method, around or bought.bore, welded=around, spots=spots, hole=bought.bore
        )
        return found, _both(pair, middle, bought.bore)
    if method == "clamped":
        return pair.made(method, long, spots=(_spot(middle),)), []
    if method in ("weld", "stitch"):
        seam, welded = _seam(pair, shop, method)
        thin = _thin(pair.a, pair.b)
        return pair.made(method, seam, welded=welded, spots=_ends(c), throat=thin), []
    return _fastened(pair, method, shop, long)


def _on_wood(pair: _Pair) -> bool:
    return any(p.material.wood for p in (pair.a, pair.b) if not isinstance(p, Hardware))


def _fastened(
    pair: _Pair, method: Method, shop: Joining, long: float
) -> tuple[Joint | None, list[Drill]]:  # fmt: skip
    """Join one contact by fasteners in a row, or around what is shared."""
    c = pair.contact
    size, hole, pitch, word = {
        "rivets": (shop.rivet, shop.rivet_hole, shop.rivet_pitch, "rivet "),
        "bolts": (shop.bolt, shop.bolt_hole, shop.bolt_pitch, "bolt M"),
        "screws and glue": (
            shop.screw,
            round(shop.screw * 0.7, 1),
            shop.screw_pitch,
            "wood screw ",
        ),
    }[method]
    drillable = [_drillable(s) or s.sort == "box" for s in pair.faces()]
    if method == "screws and glue" and not any(drillable):
        return pair.made(method, long, spots=_ends(c)), []  # edge on edge: glued
    # A screw goes through the face of one board into the other, whichever of its faces that is.
    fine = all(drillable) or method == "screws and glue"
    clear = clear_of_bends(c, [(side, part) for side, _item, part in pair.whose()], hole)
    points = (
        [c.at(x, y) for x, y in spots_on(c.patch, shop.edge * size, pitch, clear)] if fine else []
    )
    if not points:
        return None, []
    spots = tuple(_spot(p) for p in points)
    found = pair.made(method, long, spots=spots, fastener=f"{word}{size:g}", hole=hole)
    return found, [d for p in points for d in _both(pair, p, hole)]


def _drillable(side: Side) -> bool:
    return side.frame is not None and side.sort in ("big", "side")


def _spot(p: Points) -> Spot:
    return float(p[0]), float(p[1]), float(p[2])


def _both(pair: _Pair, at: Points, diameter: float) -> list[Drill]:
    """A hole through both of what touches, where both are sheets or bars."""
    found = []
    for side, item, _part in pair.whose():
        if side.frame is not None and _drillable(side):
            u, v = side.frame.local(at)
            found.append(Drill((item.part, item.pose), side.face, u, v, diameter))
    return found


METHODS: dict[str, Method] = {
    "rivets": "rivets", "bolts": "bolts", "screws": "screws and glue", "clamped": "clamped", "weld": "weld",
}  # fmt: skip
"""How something bought is held, by how it is fixed."""


def _method(pair: _Pair) -> Method | None:
    """How two parts that touch are joined."""
    a, b = pair.a, pair.b
    if (
        isinstance(a, Hardware)
        or isinstance(b, Hardware)
        or a.group != b.group
        or "loose" in (a.join, b.join)
    ):
        return None
    lap = all(_lies(s) for s in pair.faces())
    frames = isinstance(a, BarPart) + isinstance(b, BarPart)
    rows: tuple[tuple[bool, Method | None], ...] = (
        (a.material.wood or b.material.wood, "screws and glue"),
        ("welded" in (a.join, b.join), "stitch"),
        ("tight" in (a.join, b.join), "weld"),
        ("bolts" in (a.join, b.join), "bolts" if lap else None),
        (frames == 2, "weld"),
        (frames == 1 or not lap, "stitch"),
        (True, "rivets"),
    )
    return next(method for fits, method in rows if fits)


def _thin(a: Part, b: Part) -> float:
    """The thinner of two parts that are welded. [mm]"""
    found = []
    for p in (a, b):
        if isinstance(p, SheetPart):
            found.append(p.thickness)
        elif isinstance(p, BarPart):
            sizes = [float(x) for x in p.section.split("x")]
            found.append(sizes[2] if len(sizes) > 2 else min(sizes))
    return min(found, default=0.0)


def _seam(pair: _Pair, shop: Joining, method: Method) -> tuple[float, float]:
    """How long a seam is, and how much of it is welded. [mm]"""
    a, b, c = pair.a, pair.b, pair.contact
    x0, y0, x1, y1 = c.patch.bounds
    long = max(x1 - x0, y1 - y0)
    if "end" in [s.sort for s in pair.faces()]:
        # A bar's end is welded all round.
        return float(c.patch.length), float(c.patch.length)
    if isinstance(a, BarPart) and isinstance(b, BarPart):
        long *= 2  # along both of its edges
    if method == "weld" or long <= shop.full_to:
        return long, long
    count = max(2, math.ceil((long - shop.stitch) / shop.stitch_pitch) + 1)
    return long, min(long, count * shop.stitch)


def _ends(c: Contact) -> tuple[Spot, ...]:
    """The two ends of a seam: along the middle of what touches. [mm]"""
    x0, y0, x1, y1 = c.patch.bounds
    x, y = (x0 + x1) / 2, (y0 + y1) / 2
    pair = ((x0, y), (x1, y)) if x1 - x0 >= y1 - y0 else ((x, y0), (x, y1))
    return tuple(_spot(c.at(*q)) for q in pair)


def _sunk(parts: tuple[Part, ...], items: list[Item]) -> list[Joint]:
    """What stands in an opening of a part: held where the opening is there and large enough."""
    wanted = [(i, i.what) for i in items if isinstance(i.what, Box) and _opening(parts[i.part])]
    if not wanted:
        return []
    found = []
    holes = [(i, o) for i in items for o in openings_of(i)]
    for item, box in wanted:
        for host, hole in holes:
            if hole.takes(box):
                what = parts[item.part]
                c = box.centre()
                own = ((host.part, host.pose), (item.part, item.pose))
                method: Method = "weld" if getattr(what, "fix", "") == "weld" else "clamped"
                found.append(Joint(what.owner, parts[host.part].name, what.name, own, method, hole.around,
                                   hole.around if method == "weld" else 0.0, (c,)))  # fmt: skip
                break
    return found


def _opening(part: Part) -> bool:
    return isinstance(part, Hardware) and part.opening


def _alone(parts: tuple[Part, ...], items: list[Item], joints: list[Joint]) -> tuple[int, ...]:
    """The parts of which a piece is not joined to the largest of what is joined."""
    key = {(i.part, i.pose, isinstance(i.what, Box)): n for n, i in enumerate(items)}

    def node(piece: tuple[int, int]) -> int:
        return key[*piece, isinstance(parts[piece[0]], Hardware)]

    edges = [(node(j.pieces[0]), node(j.pieces[1])) for j in joints]
    by_group: dict[str, int] = {}
    for n, item in enumerate(items):
        if not isinstance(item.what, Box):
            by_group.setdefault(item.what.group, n)
    for number, part in enumerate(parts):
        if isinstance(part, Hardware):
            # Hinges are fitted and drilled as they stand; a pair of slides is one thing.
            row = [by_group[g] for g in part.links if g in by_group]
            row += [key[number, m, True] for m in range(len(part.places))]
            edges += list(itertools.pairwise(row))
    groups = components(len(items), edges)
    main = max(groups, key=len, default=[])
    return tuple(sorted({items[n].part for group in groups if group is not main for n in group}))
