"""Spaces: every room out of which things are taken, as it stands when one takes them."""

from __future__ import annotations

from collections.abc import Iterable
from typing import TYPE_CHECKING, Any, Protocol

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.motions import Opening
from roomy_hull.assembly.things import Thing
from roomy_hull.core import lazily
from roomy_hull.core.geometry.frames import Frame
from roomy_hull.core.geometry.motion import TURNS, Motion
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.job.body import TRUNDLE
from roomy_hull.job.carried import Carried
from roomy_hull.job.goods import CAB
from roomy_hull.kinds.registry import kind_of
from roomy_hull.kit.body import undertray

if TYPE_CHECKING:
    import numpy as np
else:
    np = lazily.module("numpy")

SHEET = 2.0
"""Walls of a container are about so thick. [mm]"""
COLD = 45.0
"""Walls of a fridge, insulation in them (common practice). [mm]"""
NARROW = 150.0
"""What is narrower than this is no drawer to look into, but a tube or slot. [mm]"""
LEAST = 40.0
"""What moves and is lower than this is no container but a board or tray. [mm]"""
BEFORE = 0.3
"""What hides so much of a face stands before it."""


class Meetings(Protocol):
    """What Fit-out knows of openings; see `studies.fit.together.Togetherness`."""

    openings: tuple[Opening, ...]
    shut: dict[tuple[str, str], Any]
    opened: dict[tuple[str, str], Any]
    still: dict[str, tuple[tuple[Any, Any], ...]]
    needs: dict[str, frozenset[str]]


class Space(msgspec.Struct, frozen=True):
    """One room out of which things are taken, in vehicle axes. [mm]

    Attributes:
        owner, part, name: The thing, the compartment of it (a motion's name, or empty), and what it is called.
        side: From where one takes things out.
        box, rest: The room as it stands open, and shut.
        top: Whether one reaches in from above; else from its front.
        needs: Openings that have to be open.
        first: Things that stand before it and have to come out.
        walls: Its own walls as they stand open, and its lid.
        use: How quickly it has to be at hand, where the thing itself says so.
        roof: Whether it is on the roof.
        device: Whether it is a thing that is itself reached for.
    """

    owner: str
    part: str
    name: str
    side: str
    box: Box
    rest: Box
    top: bool
    needs: frozenset[str]
    first: tuple[str, ...]
    walls: tuple[Box, ...]
    use: str = ""
    roof: bool = False
    device: bool = False

    @property
    def key(self) -> tuple[str, str]:
        """The thing and the part of it."""
        return (self.owner, self.part)

    @property
    def litres(self) -> float:
        """What goes in, were it a liquid. [l]"""
        return self.rest.volume() / 1e6


def along(side: str) -> int:
    """The axis along a wall: x at the sides, y at the rear."""
    return 1 if side in ("rear", "front") else 0


def outward(side: str) -> tuple[int, int]:
    """The axis that leads out of a side, and its sign."""
    return {"left": (1, -1), "right": (1, 1), "rear": (0, 1), "front": (0, -1)}.get(side, (0, 1))


def spaces(assembly: Assembly, found: Meetings) -> tuple[Space, ...]:
    """Every space of a job.

    Args:
        found: What opens, and what has to be open before it.
    Returns: In the job's order; a stack has one for each of its drawers.
    """
    doors = [o for o in assembly.ground.openings if o.kind == "door"]
    near = _Neighbours(assembly)
    rows: list[Space] = []
    for thing in assembly.things:
        if isinstance(thing.value, Carried):
            # What is in the cab is taken by who sits there.
            if thing.value.place != CAB:
                rows.append(_outside(assembly, thing))
            continue
        if not (kind_of(thing.value).contents or thing.capabilities.whole):
            continue
        rows += _inside(assembly, thing, found, doors, near)
    return (*rows, *_under_tray(assembly, found))


def place_of(opening: str) -> str:
    """The place that goods name, of an opening of the tray."""
    return opening.replace(":", ".", 1)


def opening_of(place: str) -> str:
    """The opening of the tray, of a place that goods name."""
    return place.replace(".", ":", 1)


def _under_tray(assembly: Assembly, found: Meetings) -> list[Space]:
    """Toolboxes behind their doors, and the trundle drawer as it stands drawn out."""
    tray, rows = assembly.job.body.tray, []
    names, held = tray.holders(), undertray.holding(tray, assembly.ground.tray)
    sheets = {b.holder: b.sheet for b in tray.boxes}
    for one in assembly.ground.openings:
        key = place_of(one.id)
        if one.kind != "tray" or key not in names:
            continue
        name, body, needs = names[key], held[key][1], closure((one.id,), found.needs)
        if tray.trundle is not None and key == TRUNDLE:
            wall, group = tray.trundle.sheet, one.motion.moved[0].group
            by, inner = _moved_by(one.motion, group), _shrunk(body, wall)
            walls = _walls(one, body.moved(*by), wall, group)
            rows.append(
                Space(key, "", name, one.side, inner.moved(*by), inner, True, needs, (), walls)
            )
        else:
            inner, door = _shrunk(body, sheets[key]), tuple(p.box for p in one.opened)
            rows.append(Space(key, "", name, one.side, inner, inner, False, needs, (), door))
    return rows


def closure(keys: Iterable[str], needs: dict[str, frozenset[str]]) -> frozenset[str]:
    """Some openings with all that has to be open before them."""
    found: set[str] = set()
    left = list(keys)
    while left:
        one = left.pop()
        if one not in found:
            found.add(one)
            left += needs.get(one, frozenset())
    return frozenset(found)


def _outside(assembly: Assembly, thing: Thing) -> Space:
    """A thing carried outside is taken as a whole, from the side where it is."""
    item, box = thing.value, thing.envelope
    behind = box.x0 >= assembly.ground.floor.x1 - BEHIND
    side = "rear" if behind else "left" if box.y0 + box.y1 <= 0 else "right"
    roof = isinstance(item, Carried) and item.on_roof
    return Space(thing.id, "", item.name, side, box, box, True, frozenset(), (), (), "", roof, True)


BEHIND = 100.0
"""What begins so near to the floor's end, or behind it, is taken from behind. [mm]"""


def _moved_by(motion: Motion, group: str) -> tuple[float, float, float]:
    """How far a group is slid, lowered or lifted in all, in the owner's own directions. [mm]"""
    by = [0.0, 0.0, 0.0]
    for step in motion.steps:
        if group in step.groups and step.verb not in TURNS:
            by[step.axis] += step.by
    return (by[0], by[1], by[2])


def _put(box: Box, where: object) -> Box:
    """A box of a unit in vehicle axes. [mm]"""
    return where.box(box) if isinstance(where, Frame) else box


def _inside(
    assembly: Assembly, thing: Thing, found: Meetings, doors: list[Opening], near: _Neighbours
) -> list[Space]:  # fmt: skip
    """The spaces of a unit: its containers, else the room in itself."""
    if thing.place is None:
        return []
    side: str = thing.place.bay.side
    first = near.before(thing)
    rows = [
        row
        for one in thing.openings
        if (row := _container(thing, one, side, found, first)) is not None
    ]
    if rows:
        return rows
    lids = [o for o in thing.openings if not _slides(o)]
    device = thing.capabilities.whole
    box = thing.envelope if device else _shrunk(thing.envelope, SHEET)
    side, first, above = _easiest(assembly, thing, first)
    door = _door(thing.envelope, side, doors)
    needs = closure([*(o.id for o in lids), *([door] if door else [])], found.needs)
    return [Space(
        thing.id, "", thing.name, side, box, box, above or any(_is_lid(o, thing) for o in lids), needs, first,
        (*(p.box for o in lids for p in o.opened), *_sheets(thing)), thing.capabilities.use, False, device,
    )]  # fmt: skip


def _easiest(
    assembly: Assembly, thing: Thing, first: tuple[str, ...]
) -> tuple[str, tuple[str, ...], bool]:
    """The face at which the fewest things stand before a unit: its side, those things, whether one reaches in from above."""
    place = thing.place
    if place is None:
        return "left", first, False
    side, best, above = str(place.bay.side), first, False
    own = thing.in_bay
    for way in place.also:
        if not best:
            break
        out = way.out(own, place.size)
        flat = [n for n in range(3) if n != way.axis]
        rows = []
        for other in assembly.things:
            if other is thing or other.place is None or other.place.bay.id != place.bay.id:
                continue
            b = other.in_bay
            beyond = (
                b[way.axis] >= own[way.axis + 3] - 1
                if way.sense > 0
                else b[way.axis + 3] <= own[way.axis] + 1
            )
            hides = [min(out[n + 3], b[n + 3]) - max(out[n], b[n]) for n in flat]
            face = max(1.0, (own[flat[0] + 3] - own[flat[0]]) * (own[flat[1] + 3] - own[flat[1]]))
            if beyond and min(hides) > 0 and hides[0] * hides[1] > BEFORE * face:
                rows.append(other.id)
        if len(rows) < len(best):
            best, above = tuple(rows), way.face == "top"
            side = way.face if way.face in ("left", "right", "rear") else str(place.bay.side)
    return side, best, above


def _sheets(thing: Thing) -> tuple[Box, ...]:
    """What a unit itself is made of and stays: thin solids, through which nobody sees. [mm]"""
    rows = zip(thing.expansion.solids, thing.solids, strict=True)
    return tuple(
        box
        for solid, box in rows
        if not solid.moves and solid.role != "contents" and min(box.size()) < THIN
    )


THIN = 12.0
"""What is thicker than this is no sheet. [mm]"""


def _slides(one: Opening) -> bool:
    return any(s.verb == "slide" for s in one.motion.steps)


def _container(
    thing: Thing, one: Opening, side: str, found: Meetings, first: tuple[str, ...]
) -> Space | None:
    """What of an opening slides out and holds things; nothing where it is a board or a lid."""
    if not _slides(one):
        return None
    wall = COLD if thing.capabilities.cold else SHEET
    boxes = [
        m for m in one.motion.moved if m.box.z1 - m.box.z0 >= LEAST and m.box.y1 - m.box.y0 >= LEAST
    ]
    if boxes:
        best = max(boxes, key=lambda m: m.box.volume())
        body, group = best.box, best.group
    elif len(one.motion.moved) > 1:
        # A tray with low rims: what stands on it reaches up to the unit's top.
        group = one.motion.moved[0].group
        body = hull(m.box for m in one.motion.moved)
        body = body._replace(z1=max(body.z1, thing.expansion.envelope.z1))
    else:
        return None
    by = _moved_by(one.motion, group)
    inner = _shrunk(body, wall)
    return Space(
        thing.id, one.motion.id, one.name, side, _put(inner.moved(*by), one.where), _put(inner, one.where),
        min(inner.x1 - inner.x0, inner.y1 - inner.y0) >= NARROW and "kitchen" not in thing.capabilities.roles,
        closure((one.id,), found.needs), first, _walls(one, body.moved(*by), wall, group), thing.capabilities.use,
    )  # fmt: skip


def _shrunk(box: Box, by: float) -> Box:
    """The room inside walls and floor, open above. [mm]"""
    a, b, c = (min(by, s / 4) for s in box.size())
    return Box(box.x0 + a, box.y0 + b, box.z0 + c, box.x1 - a, box.y1 - b, box.z1)


def _walls(one: Opening, body: Box, wall: float, group: str) -> tuple[Box, ...]:
    """Walls and floor of a container as it stands open, its front, and what else of it moved. [mm]"""
    w = min(wall, (body.x1 - body.x0) / 4, (body.y1 - body.y0) / 4)
    sides = [
        body._replace(x1=body.x0 + w), body._replace(x0=body.x1 - w),
        body._replace(y1=body.y0 + w), body._replace(y0=body.y1 - w), body._replace(z1=body.z0 + w),
    ]  # fmt: skip
    by = _moved_by(one.motion, group)
    others = [
        m.box.moved(*by) for m in one.motion.moved if m.group == group and m.box.moved(*by) != body
    ]
    thin = [b for b in others if min(b.size()) < LEAST]
    return tuple(_put(b, one.where) for b in (*sides, *thin))


def _is_lid(one: Opening, thing: Thing) -> bool:
    """Whether an opening is a lid on top, rather than a door before it."""
    rest = one.rest_box
    return rest.z1 - rest.z0 < 0.5 * (thing.envelope.z1 - thing.envelope.z0) and any(
        s.verb in TURNS and s.axis != 2 for s in one.motion.steps
    )


def _door(box: Box, side: str, doors: list[Opening]) -> str:
    """The door that most of a unit's face lies behind; empty for none."""
    axis = along(side)
    best, most = "", 0.0
    for one in doors:
        if one.side != side:
            continue
        rest = one.rest_box
        a = min(box[axis + 3], rest[axis + 3]) - max(box[axis], rest[axis])
        b = min(box.z1, rest.z1) - max(box.z0, rest.z0)
        if a > 0 and b > 0 and a * b > most:
            best, most = one.id, a * b
    return best


class _Neighbours:
    """What shares a bay, each in its bay's directions."""

    def __init__(self, assembly: Assembly) -> None:
        rows: dict[str, list[Thing]] = {}
        for thing in assembly.things:
            if thing.place is not None:
                rows.setdefault(thing.place.bay.id, []).append(thing)
        self._rows = {
            bay: ([t.id for t in some], np.array([tuple(t.in_bay) for t in some])) for bay, some in rows.items()
        }  # fmt: skip

    def before(self, thing: Thing) -> tuple[str, ...]:
        """What stands between a unit and its access face and hides some of it."""
        if thing.place is None:
            return ()
        own = thing.in_bay
        face = max((own.x1 - own.x0) * (own.z1 - own.z0), 1.0)
        keys, b = self._rows[thing.place.bay.id]
        wide = np.minimum(own.x1, b[:, 3]) - np.maximum(own.x0, b[:, 0])
        high = np.minimum(own.z1, b[:, 5]) - np.maximum(own.z0, b[:, 2])
        hides = (b[:, 4] <= own.y0 + 1.0) & (wide > 0) & (high > 0) & (wide * high > BEFORE * face)
        return tuple(keys[n] for n in np.flatnonzero(hides) if keys[n] != thing.id)
