"""In and out: which units have to come out before another, and in which order they go in.

A unit goes straight out at its access face, after being shifted sideways and lifted as far as the opening
asks; where that helps it is lifted over what it stands around first. What is in the way of its solids, and what
stands on the unit, has to come out first.
"""

from collections.abc import Sequence
from typing import NamedTuple

import msgspec

from roomy_hull.assembly.study import Context, Study, StudyKey
from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.near import Boxes
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.graphs import circles, in_order
from roomy_hull.job.carried import Carried
from roomy_hull.kit.body.canopy import BayPlace

KEY = StudyKey["InOut"]("in and out")
RESTS = 8.0
"""What begins no higher than this above a unit's top rests on it. [mm]"""


class Ways(NamedTuple):
    """The way of a unit out of its bay: what its solids sweep on it, and the box around all of it. [mm]"""

    swept: tuple[Box, ...]
    around: Box


class InBay(msgspec.Struct, frozen=True):
    """What blocks what in one bay: its units, their blockers, order of fitting, circles, and ways out. [mm]

    `straight` is what blocks a unit that is not lifted first. `crowded` says that so much stands in one place that
    not every pair was asked.
    """

    members: tuple[Thing, ...]
    straight: dict[str, tuple[str, ...]]
    blockers: dict[str, tuple[str, ...]]
    order: tuple[str, ...]
    circles: tuple[tuple[str, ...], ...]
    ways: dict[str, Ways]
    crowded: bool = False


MOST_PAIRS = 40_000
"""More pairs than this are in one another's way in no real bay: the rest is not asked, and that is said."""


class InOut(msgspec.Struct, frozen=True):
    """What blocks what, bay by bay.

    `blockers` of a bay map a unit to those that have to come out right before it, in the job's order; its
    `order` is that in which its units go in, empty where there is a circle; `circles` are units of which
    each has to come out before the other.
    """

    bays: dict[str, InBay]

    @property
    def crowded(self) -> bool:
        """Whether so much stands in one place that not every pair was asked."""
        return any(bay.crowded for bay in self.bays.values())

    @property
    def order(self) -> dict[str, tuple[str, ...]]:
        """The order of fitting of each bay."""
        return {key: bay.order for key, bay in self.bays.items()}

    @property
    def circles(self) -> tuple[tuple[str, ...], ...]:
        """All circles."""
        return tuple(c for bay in self.bays.values() for c in bay.circles)

    def blockers(self, key: str) -> tuple[str, ...]:
        """What has to come out right before a unit."""
        return next((b.blockers[key] for b in self.bays.values() if key in b.blockers), ())

    def before(self, key: str) -> tuple[str, ...]:
        """Everything that has to come out before a unit, the first to come out first."""
        found: list[str] = []
        seen = {key}

        def visit(one: str) -> None:
            for other in self.blockers(one):
                if other not in seen:
                    seen.add(other)
                    visit(other)
                    found.append(other)

        visit(key)
        return tuple(found)


def study(context: Context) -> InOut:
    """Find what blocks what in every bay.

    Args:
        context: The job in vehicle axes [mm]; bays and pairs of units that did not change are taken from before.
    """
    previous: InOut | None = context.old(KEY)
    members: dict[str, list[Thing]] = {}
    for t in context.assembly.things:
        if t.place is not None:
            members.setdefault(t.place.bay.id, []).append(t)
    bays = {}
    for key, units in members.items():
        old = previous.bays.get(key) if previous is not None else None
        if old is not None and len(old.members) == len(units) and all(map(_is, old.members, units)):
            bays[key] = old
        else:
            bays[key] = _in_bay(units, old)
    return InOut(bays)


def _is(a: Thing, b: Thing) -> bool:
    """Say whether two are one."""
    return a is b


def _in_bay(units: list[Thing], old: InBay | None) -> InBay:
    """Find what blocks what in one bay; pairs of which neither changed keep their answer."""
    if old is not None and old.crowded:
        old = None  # what was left unasked then is not known now
    before = {t.id: t for t in old.members} if old is not None else {}
    same = {t.id for t in units if before.get(t.id) is t}
    local = {t.id: t.in_bay for t in units}
    rooms = {t.id: _room(t) for t in units}
    kept = old.ways if old is not None else {}
    ways = {t.id: kept[t.id] if t.id in same else _way(t, local[t.id], rooms[t.id]) for t in units}
    everything = Boxes([local[t.id] for t in units])
    fresh = [n for n, t in enumerate(units) if t.id not in same]
    changes = Boxes([local[units[n].id] for n in fresh])
    straight: dict[str, tuple[str, ...]] = {}
    pairs = 0
    for n, t in enumerate(units):
        if pairs > MOST_PAIRS:
            break
        around = ways[t.id].around
        if t.id in same and old is not None:
            known = set(old.straight.get(t.id, ()))
            places = (
                [m for m, other in enumerate(units) if other.id in known & same] if known else []
            )
            asked = [fresh[m] for m in changes.near(around, RESTS)]
        else:
            places, asked = [], everything.near(around, RESTS)
        pairs += len(asked)
        places += [
            m
            for m in asked
            if m != n and _blocks(rooms[t.id], ways[t.id], local[t.id], rooms[units[m].id])
        ]
        if places:
            straight[t.id] = tuple(units[m].id for m in sorted(places))
    blockers = {
        t.id: found
        for t in units
        if t.id in straight and (found := _over(t, units, straight[t.id], local, rooms, everything))
    }
    place = units[0].place
    if place is not None and place.also:
        blockers = _by_easiest(units, local, rooms, place, blockers)
    # What blocks a unit goes in after it.
    order = in_order([t.id for t in units], blockers)
    locked = () if order is not None else tuple(circles(blockers))
    return InBay(
        tuple(units), straight, blockers, tuple(order or ()), locked, ways, pairs > MOST_PAIRS
    )


def _by_easiest(
    units: list[Thing], local: dict[str, Box], rooms: dict[str, tuple[Box, ...]], place: BayPlace,
    blockers: dict[str, tuple[str, ...]],
) -> dict[str, tuple[str, ...]]:  # fmt: skip
    """What blocks each unit at the face of its bay where the fewest do; the access face where as few do."""
    found: dict[str, tuple[str, ...]] = {}
    for t in units:
        best = blockers.get(t.id, ())
        for way in place.also:
            if len(best) == 0 or not way.passes(t.expansion.envelope.size(), 0.01):
                continue
            out = [way.out(b, place.size) for b in rooms[t.id]]
            rows = tuple(
                u.id for u in units if u is not t and _in_way(rooms[t.id], out, local[t.id], rooms[u.id])
            )  # fmt: skip
            best = rows if len(rows) < len(best) else best
        if best:
            found[t.id] = best
    return found


def _way(thing: Thing, e: Box, own: tuple[Box, ...], lift: float = 0.0) -> Ways:
    """The way of a unit: lifted so far first, aside and up to the opening, then straight out. [mm]"""
    if thing.place is None:
        return Ways(own, e)
    u0, w0, u1, w1 = thing.place.opening_for(e)
    high = e.moved(0, 0, lift)
    du = max(0.0, u0 - e.x0) - max(0.0, e.x1 - u1)
    dw = max(0.0, w0 - high.z0) - max(0.0, high.z1 - w1)

    def parts(solid: Box) -> tuple[Box, ...]:
        up = solid.moved(0, 0, lift)
        there = up.moved(du, 0, dw)
        out = hull((there, there._replace(y0=min(0.0, there.y0))))
        return hull((solid, up)), hull((up, there)), out

    return Ways(tuple(part for solid in own for part in parts(solid)), hull(parts(e)))


MOST_TRIED = 8
"""A unit with more than so many in its way is lifted over none of them."""


def _over(
    thing: Thing, units: list[Thing], straight: tuple[str, ...], local: dict[str, Box],
    rooms: dict[str, tuple[Box, ...]], everything: Boxes,
) -> tuple[str, ...]:  # fmt: skip
    """What blocks a unit that is lifted first over what it stands around, where that leaves less in its way."""
    e, own, place = local[thing.id], rooms[thing.id], thing.place
    if place is None or len(straight) > MOST_TRIED:
        return straight
    head = place.opening_for(e)[3] - e.z1
    lifts = {
        b.z1 - o.z0
        for key in straight for b in rooms[key] for o in own
        if e.shares(b) and 0 < b.z1 - o.z0 <= head
    }  # fmt: skip
    best = straight
    for lift in sorted(lifts):
        way = _way(thing, e, own, lift)
        met = [
            n for n in everything.near(way.around, RESTS)
            if units[n] is not thing and _blocks(own, way, e, rooms[units[n].id])
        ]  # fmt: skip
        if len(met) < len(best):
            best = tuple(units[n].id for n in sorted(met))
    return best


def _room(thing: Thing) -> tuple[Box, ...]:
    """The room that is a thing's own, in its bay's directions. [mm]"""
    unit = thing.value
    if isinstance(unit, Carried):
        return thing.bulk
    return tuple(b.moved(unit.u, unit.v, unit.w) for b in thing.expansion.bulk)


def _blocks(own: tuple[Box, ...], way: Ways, e: Box, other: tuple[Box, ...]) -> bool:
    """Say whether another unit is in the way of one, or rests on it; not where they overlap anyhow."""
    swept = way.swept if any(way.around.shares(b) for b in other) else ()
    return _in_way(own, swept, e, other)


def _in_way(
    own: tuple[Box, ...], swept: Sequence[Box], e: Box, other: tuple[Box, ...]
) -> bool:  # fmt: skip
    """Whether another unit is in what one sweeps on its way, or rests on it; not where they overlap anyhow."""
    if any(a.shares(b) for a in own for b in other):
        return False
    return any(w.shares(b) for w in swept for b in other) or any(
        -0.5 <= b.z0 - e.z1 <= RESTS
        and min(e.x1, b.x1) - max(e.x0, b.x0) > 1
        and min(e.y1, b.y1) - max(e.y0, b.y0) > 1
        for b in other
    )


STUDY = Study(KEY, study)
