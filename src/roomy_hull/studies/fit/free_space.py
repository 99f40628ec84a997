"""Where does it fit: the exact set of places of a unit in a bay at one depth."""

from collections.abc import Sequence

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.regions import Rect, free_cells, left_of
from roomy_hull.core.geometry.solids import TOUCH, Box
from roomy_hull.kinds.expansion import Expansion, Zone
from roomy_hull.kit.body.canopy import BayPlace
from roomy_hull.kit.body.pieces import parts_of


class FreeSpace(msgspec.Struct, frozen=True):
    """The places open to a unit's lower front corner, as (u, w) at one v. [mm]

    Attributes:
        bay: The bay.
        room: Bounds (u0, w0, u1, w1) that bay and opening leave; none where it is too large.
        blocked: Open rectangles inside which the corner may not lie.
        short: By how much the unit is too large along u, v and w; 0 where it is not.
    """

    bay: str
    room: Rect | None
    blocked: tuple[Rect, ...]
    short: tuple[float, float, float]

    def allows(self, u: float, w: float) -> bool:
        """Say whether the corner may lie at (u, w)."""
        if self.room is None:
            return False
        u0, w0, u1, w1 = self.room
        if not (u0 - TOUCH <= u <= u1 + TOUCH and w0 - TOUCH <= w <= w1 + TOUCH):
            return False
        return not any(
            b[0] + TOUCH < u < b[2] - TOUCH and b[1] + TOUCH < w < b[3] - TOUCH
            for b in self.blocked
        )

    def nearest(self, u: float, w: float, pitch: float) -> float | None:
        """Find the nearest free place along the wall at height w.

        Args:
            u, w: The wished place. [mm]
            pitch: Rail pitch; 0 for none (then 5 mm steps are tried). [mm]
        Returns: The nearest free u on the pitch, or none. [mm]
        """
        if self.room is None:
            return None
        step = pitch if pitch > 0 else 5.0
        low, high = -(-(self.room[0] - TOUCH) // step), (self.room[2] + TOUCH) // step
        if high < low or not self.room[1] - TOUCH <= w <= self.room[3] + TOUCH:
            return None
        bars = [b for b in self.blocked if b[1] + TOUCH < w < b[3] - TOUCH]
        for n in sorted(range(int(low), int(high) + 1), key=lambda n: abs(n * step - u)):
            place = n * step
            if not any(b[0] + TOUCH < place < b[2] - TOUCH for b in bars):
                return place
        return None

    def cells(self) -> list[Rect]:
        """Cut the free set into rectangles of corner places that do not overlap. [mm]"""
        return [] if self.room is None else free_cells(self.room, self.blocked, TOUCH)


def free_space(
    assembly: Assembly, thing: Thing, place: BayPlace, v: float = 0.0,
    leave_out: Sequence[str] = (),
) -> FreeSpace:  # fmt: skip
    """Find where a unit may stand in a bay.

    Args:
        thing: The unit, expanded anywhere; its own place is not used. [mm]
        v: Depth at which its front stands. [mm]
        leave_out: Ids not to be counted as obstacles, besides the unit itself.
    Returns:
        The exact set of conflict-free places on that depth: no overlap, no keep-clear zone broken either way,
        inside bay and, for what slides, its opening. [mm]
    """
    own = thing.expansion
    e, size = own.envelope, place.size
    pads = _pads(own.zones, e)
    # What slides goes into one of the openings; what stands may stand beside them too.
    faces = place.openings if thing.moves else ((0.0, 0.0, size.x1, size.z1),)
    if thing.moves:
        gaps = [frame_gaps(own, size, face) for face in faces]
        faces = tuple(
            (f[0] + g[0], f[1] + g[1], f[2] - g[2], f[3] - g[3])
            for f, g in zip(faces, gaps, strict=True)
        )
    shorts = [
        (
            max(0.0, e.x1 + pads[0] + pads[1] - (u1 - u0)),
            max(0.0, e.y1 + v + pads[2] - size.y1),
            max(0.0, e.z1 - (w1 - w0)),
        )
        for u0, w0, u1, w1 in faces
    ]
    rooms = [
        (u0 + pads[0], w0, u1 - e.x1 - pads[1], w1 - e.z1)
        for (u0, w0, u1, w1), short in zip(faces, shorts, strict=True)
        if max(short) <= TOUCH
    ]
    short = min(shorts, key=max)
    room = _around(rooms) if rooms else None
    blocked = _between(rooms)
    skip = {thing.id, *leave_out}
    obstacles: list[tuple[tuple[Box, ...], tuple[Box, ...]]] = [
        (t.bulk, t.zones) for t in assembly.things if t.id not in skip
    ]
    obstacles += [((p.box,), ()) for p in parts_of(assembly.ground.tray, "arch")]
    for solids, zones in obstacles:
        for solid in solids:
            there = _local(place, solid)
            for one in own.bulk:
                blocked += _block(one, there, v)
            for zone in own.zones:
                blocked += _block(zone.box, there, v)
        for box in zones:
            blocked += _block(e, _local(place, box), v)
    for piece in assembly.ground.shut:
        # Struts and locks of shut doors: to be clear of, at any gap.
        for one in own.bulk:
            blocked += _block(one, _local(place, piece.piece.box), v)
    if room is not None:
        blocked = [b for b in blocked if _meets(b, room)]
    return FreeSpace(place.bay.id, room, tuple(blocked), short)


def _around(rooms: Sequence[Rect]) -> Rect:
    """The rectangle around some. [mm]"""
    u0s, w0s, u1s, w1s = zip(*rooms, strict=True)
    return min(u0s), min(w0s), max(u1s), max(w1s)


def _between(rooms: Sequence[Rect]) -> list[Rect]:
    """What some rooms leave of a rectangle around them, as open rectangles without a seam between them. [mm]"""
    if len(rooms) < 2:
        return []
    # A room that is a mere line or point is free all the same: it is left out by a hair on either side.
    holes = [(u0 - HAIR, w0 - HAIR, u1 + HAIR, w1 + HAIR) for u0, w0, u1, w1 in rooms]
    u0, w0, u1, w1 = _around(holes)
    cells = left_of((u0 - 1.0, w0 - 1.0, u1 + 1.0, w1 + 1.0), holes)
    seams = []
    for i, a in enumerate(cells):
        for b in cells[i + 1 :]:
            u0, w0, u1, w1 = max(a[0], b[0]), max(a[1], b[1]), min(a[2], b[2]), min(a[3], b[3])
            if (abs(u1 - u0) < 1e-9 < w1 - w0) or (abs(w1 - w0) < 1e-9 < u1 - u0):
                seams.append((min(u0, u1) - 1.0 if u1 - u0 < 1e-9 else u0,
                              min(w0, w1) - 1.0 if w1 - w0 < 1e-9 else w0,
                              max(u0, u1) + 1.0 if u1 - u0 < 1e-9 else u1,
                              max(w0, w1) + 1.0 if w1 - w0 < 1e-9 else w1))  # fmt: skip
    return [*cells, *seams]


HAIR = 0.01
"""A place this far outside a room still counts as in it. [mm]"""


def _meets(b: Rect, room: Rect) -> bool:
    """Say whether a blocked rectangle matters to a room, its border included."""
    return b[0] <= room[2] and b[2] >= room[0] and b[1] <= room[3] and b[3] >= room[1]


def frame_gaps(own: Expansion, size: Box, opening: Rect) -> Rect:
    """How far what slides keeps from the post at the start, the sill, the post at the end and the head of its opening.

    Args:
        own: The unit.
        size: Of the bay: a sill that stands over its floor is one.
        opening: In (u, w). [mm]
    """
    e = own.envelope
    rows = [(0.0, 0.0, 0.0, 0.0)] + [
        (e.x0 - z.x0, e.z0 - z.z0 if opening[1] > size.z0 else 0.0, z.x1 - e.x1, z.z1 - e.z1)
        for z in (zone.box for zone in own.zones if zone.kind == "running")
    ]
    a, b, c, d = (max(column) for column in zip(*rows, strict=True))
    return a, b, c, d


def _pads(zones: Sequence[Zone], e: Box) -> tuple[float, float, float]:
    """What vents need before the bay's start, end and back wall. [mm]"""
    start = end = back = 0.0
    for zone in zones:
        if zone.kind == "vent":
            box = zone.box
            start, end = max(start, e.x0 - box.x0), max(end, box.x1 - e.x1)
            back = max(back, box.y1 - e.y1)
    return start, end, back


def _local(place: BayPlace, box: Box) -> Box:
    """Carry a vehicle box into the bay's directions."""
    a = place.frame.local(box.x0, box.y0, box.z0)
    b = place.frame.local(box.x1, box.y1, box.z1)
    return Box(*(min(p, q) for p, q in zip(a, b, strict=True)),
               *(max(p, q) for p, q in zip(a, b, strict=True)))  # fmt: skip


def _block(own: Box, there: Box, v: float) -> list[Rect]:
    """The corner places at which a box of the unit would share room with an obstacle."""
    if own.y0 + v >= there.y1 - TOUCH or own.y1 + v <= there.y0 + TOUCH:
        return []
    return [(there.x0 - own.x1, there.z0 - own.z1, there.x1 - own.x0, there.z1 - own.z0)]
