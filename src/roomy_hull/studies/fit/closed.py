"""Fit with everything closed: overlaps, clearances, bays, openings, arches and rail pitch."""

import math
from collections.abc import Iterable, Sequence

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.motions import FixedPiece
from roomy_hull.assembly.study import Context, StudyKey
from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.gaps import apart, clash, shared
from roomy_hull.core.geometry.motion import block
from roomy_hull.core.geometry.near import Boxes
from roomy_hull.core.geometry.solids import TOUCH, Box, hull
from roomy_hull.core.refs import Ref
from roomy_hull.job.carried import Carried
from roomy_hull.kinds.expansion import HOLE_EDGE, SLOT_PLAY, first_slot, phase_of, rail_slots
from roomy_hull.kinds.registry import kind_of
from roomy_hull.kit.body.canopy import BayPlace
from roomy_hull.kit.body.pieces import OPENS, parts_of
from roomy_hull.kit.vehicle_pieces import contains
from roomy_hull.studies.fit.free_space import frame_gaps

KEY = StudyKey["FitResult"]("fit")
NOT_ASKED = frozenset({"ground", "wheel"})
"""Roles that a carried thing is not held against: how deep in the ground is said apart, wheels have their rooms."""
BUILT = frozenset({"roof", "wall", "divider", "false floor", "wing"})
"""Roles of what is built around the bays and never moves."""


class Flaw(msgspec.Struct, frozen=True):
    """One thing that does not fit.

    `kind` is ``overlap``, ``running``, ``vent``, ``outside``, ``opening``, ``arch``, ``pitch``, ``slots``,
    ``body`` or ``unit``; `amount` and `limit` in mm; `other` what it meets, or whose zone it is; `how` the direction.
    """

    kind: str
    amount: float
    limit: float
    other: Ref | None = None
    how: str = ""
    where: tuple[Box, ...] = ()


class FitResult(msgspec.Struct, frozen=True):
    """All flaws: of each thing alone, and of each pair (ids in the job's order).

    `crowded` says that so much stands in one place that not every pair was judged.
    """

    alone: dict[str, tuple[Flaw, ...]]
    pairs: dict[tuple[str, str], tuple[Flaw, ...]]
    pairs_tested: int
    crowded: bool = False


def study(context: Context) -> FitResult:
    """Judge the closed fit of a whole assembly.

    Args:
        context: The job in vehicle axes [mm]; flaws between things that did not change are taken from before.
    """
    assembly = context.assembly
    things = assembly.things
    old_things: dict[str, Thing] = {}
    old: FitResult | None = context.old(KEY)
    before = context.before
    if (
        before is not None
        and old is not None
        and not old.crowded
        and before.assembly.ground is assembly.ground
        and before.assembly.job.party.dogs == assembly.job.party.dogs
    ):
        old_things = {t.id: t for t in before.assembly.things}
    else:
        old = None
    fresh = [i for i, t in enumerate(things) if old_things.get(t.id) is not t]
    alone: dict[str, tuple[Flaw, ...]] = {}
    is_fresh = set(fresh)
    for i, thing in enumerate(things):
        flaws = (
            old.alone.get(thing.id, ())
            if old is not None and i not in is_fresh
            else tuple(_alone(thing, assembly))
        )
        if flaws:
            alone[thing.id] = flaws
    pairs: dict[tuple[str, str], tuple[Flaw, ...]] = {}
    fresh_ids = {things[i].id for i in fresh}
    if old is not None:
        present = {t.id: i for i, t in enumerate(things)}
        for key, flaws in old.pairs.items():
            a, b = key
            if a in fresh_ids or b in fresh_ids or a not in present or b not in present:
                continue
            pairs[key if present[a] < present[b] else (b, a)] = flaws
    candidates = _near(assembly, fresh)
    crowded = len(candidates) > MOST_PAIRS
    for i, j in candidates[:MOST_PAIRS]:
        one, other = things[i], things[j]
        flaws = tuple(_pair(one, other))
        if flaws:
            pairs[one.id, other.id] = flaws
    if old is not None:
        # In the job's order, whatever was known before.
        order = {t.id: i for i, t in enumerate(things)}
        pairs = dict(sorted(pairs.items(), key=lambda row: (order[row[0][0]], order[row[0][1]])))
    return FitResult(alone, pairs, len(candidates), crowded)


MOST_PAIRS = 6_000
"""More pairs than this stand near one another in no real vehicle: the rest is not judged, and that is said."""


def _near(assembly: Assembly, fresh: list[int]) -> list[tuple[int, int]]:
    """The index pairs whose reaches share room and of which one is fresh, each once, ordered."""
    reaches = [t.reach for t in assembly.things]
    boxes = Boxes(reaches)
    found: set[tuple[int, int]] = set()
    for i in fresh:
        found.update((i, j) if i < j else (j, i) for j in boxes.near(reaches[i], -TOUCH) if i != j)
        if len(found) > MOST_PAIRS:
            break
    return sorted(found)


def _pair(a: Thing, b: Thing) -> Iterable[Flaw]:
    """Judge two things whose reaches meet: overlap first, else clearances."""
    if a.envelope.shares(b.envelope):
        # A box inside another overlaps it, unless that one's hollow is of use to others.
        met = [c for p in a.bulk for q in b.bulk if (c := p.common(q)) is not None]
        slanted = a.expansion.exact or b.expansion.exact
        if met and not (slanted and not a.meets(b.pieces)):
            shared = [c for sa in a.solids for sb in b.solids if (c := sa.common(sb)) is not None]
            yield Flaw("overlap", parting(a.bulk, b.bulk), 0.0, where=(hull(shared or met),))
            return
    yield from _zone_flaws(a, b.bulk, b)
    yield from _zone_flaws(b, a.bulk, a)


def parting(some: Sequence[Box], others: Sequence[Box]) -> float:
    """The shortest move along an axis by which some boxes come free of others.

    Args:
        some, others: Two sets. [mm]
    Returns: 0 where they share no room. [mm]
    """
    shortest = math.inf
    for axis in range(3):
        i, j = (axis + 1) % 3, (axis + 2) % 3
        # Moves that leave two of them sharing room, as open stretches.
        bars = sorted(
            (q[axis] - p[axis + 3], q[axis + 3] - p[axis])
            for p in some for q in others
            if p[i] < q[i + 3] - TOUCH and q[i] < p[i + 3] - TOUCH
            and p[j] < q[j + 3] - TOUCH and q[j] < p[j + 3] - TOUCH
        )  # fmt: skip
        up = down = 0.0
        for low, high in bars:
            if low < up < high:
                up = high
        for low, high in sorted(bars, key=lambda bar: -bar[1]):
            if low < down < high:
                down = low
        shortest = min(shortest, up, -down)
    return shortest


def _zone_flaws(
    owner: Thing, others: Sequence[Box], neighbour: Thing | None = None
) -> Iterable[Flaw]:
    """Judge whether a thing's keep-clear zones are free of another's room; one flaw of each kind."""
    kinds: set[str] = set()
    under = owner.envelope.z0 + TOUCH
    still = neighbour is not None and not any(s.moves for s in neighbour.expansion.solids)
    for zone, box in owner.zoned():
        if zone.kind in kinds:
            continue
        # What it stands on and does not move, a false floor, is as near as it should be.
        shared = [
            m for o in others
            if (m := box.common(o)) is not None
            and not (zone.kind == "running" and still and o.z1 <= under)
        ]  # fmt: skip
        if not shared:
            continue
        met = hull(shared)
        kinds.add(zone.kind)
        needed = _zone_width(box, owner.envelope)
        yield Flaw(
            zone.kind, max(0.0, needed - min(_shared_depth(box, met, owner.envelope))), needed,
            other=owner.ref, where=(met,),
        )  # fmt: skip


def _zone_width(zone: Box, envelope: Box) -> float:
    """By how much a zone stands out of its owner. [mm]"""
    outs = [envelope[i] - zone[i] for i in range(3)] + [zone[i] - envelope[i] for i in range(3, 6)]
    return max(outs)


def _shared_depth(zone: Box, met: Box, envelope: Box) -> list[float]:
    """How deep the met box reaches into the zone, along each axis the zone stands out on."""
    found = []
    for axis in range(3):
        if zone[axis] < envelope[axis] - 1e-9 and met[axis] < envelope[axis]:
            found.append(min(met[axis + 3], envelope[axis]) - zone[axis])
        if zone[axis + 3] > envelope[axis + 3] + 1e-9 and met[axis + 3] > envelope[axis + 3]:
            found.append(zone[axis + 3] - max(met[axis], envelope[axis + 3]))
    return found or [0.0]


def _alone(thing: Thing, assembly: Assembly) -> Iterable[Flaw]:
    """Judge one thing against bay, opening, arches, rails and body."""
    if thing.trouble:
        yield Flaw("unit", 0.0, 0.0, how=thing.trouble, where=(thing.envelope,))
    if thing.place is None:
        yield from _against_body(thing, assembly)
        return
    value = thing.value
    air = None if isinstance(value, Carried) else kind_of(value).air(value)
    if air is not None:
        dogs = sum(d.place == thing.id for d in assembly.job.party.dogs)
        wanted = air[1] * max(1, dogs)
        if air[0] < wanted:
            yield Flaw("air", air[0], wanted, where=(thing.envelope,))
    flaws = list(_in_bay(thing))
    yield from flaws
    outside = any(f.kind == "outside" for f in flaws)
    for arch in parts_of(assembly.ground.tray, "arch"):
        met = [m for b in thing.bulk if (m := b.common(arch.box)) is not None]
        if met and not (thing.expansion.exact and not thing.meets((block(arch.box),))):
            yield Flaw("arch", parting(thing.bulk, (arch.box,)), 0.0,
                       Ref("body part", arch.words), where=(hull(met),))  # fmt: skip
        else:
            yield from _zone_flaws(thing, (arch.box,))
    if not outside:
        yield from _in_built(thing, assembly)


def _in_built(thing: Thing, assembly: Assembly) -> Iterable[Flaw]:
    """Judge a unit against what is built around the bays: one flaw for all pieces of a name."""
    met: dict[Ref, list[Box]] = {}
    for piece in assembly.ground.fixed:
        if piece.role in BUILT and thing.envelope.shares(piece.piece.box):
            met.setdefault(piece.ref, []).append(piece.piece.box)
    for ref, boxes in met.items():
        shared = [m for b in thing.bulk for box in boxes if (m := b.common(box)) is not None]
        slanted = thing.expansion.exact
        if shared and not (slanted and not thing.meets(tuple(block(b) for b in boxes))):
            depth = parting(thing.bulk, boxes)
            yield Flaw("body", depth, 0.0, Ref("body part", ref.id), where=(hull(shared),))
    for piece in assembly.ground.shut:
        if thing.envelope.shares(piece.piece.box) and thing.meets((piece.piece,)):
            depth = -min(apart(p, piece.piece) for p in thing.pieces)
            where = (piece.piece.box.common(thing.envelope) or piece.piece.box,)
            yield Flaw("body", depth, 0.0, Ref("body part", piece.ref.id), where=where)


def _in_bay(thing: Thing) -> Iterable[Flaw]:
    """Judge a unit against its bay's size, opening and rail pitch."""
    place, unit = thing.place, thing.value
    if place is None or isinstance(unit, Carried):
        return
    e = thing.in_bay
    size = place.size
    over = {
        "start": -e.x0, "end": e.x1 - size.x1, "front": -e.y0,
        "back": e.y1 - size.y1, "floor": -e.z0, "roof": e.z1 - size.z1,
    }  # fmt: skip
    for how, amount in over.items():
        if amount > TOUCH:
            yield Flaw("outside", amount, 0.0, how=how, where=(thing.envelope,))
    if max(over.values()) <= TOUCH:
        yield from _vent_in_bay(thing, size)
        yield from _through_opening(thing, e)
    pitch = place.bay.pitch
    if pitch > 0:
        phase = phase_of(unit.u, pitch)
        if phase:
            yield Flaw("pitch", min(phase, pitch - phase), SLOT_PLAY, where=(thing.envelope,))
        if kind_of(unit).railed and rail_slots(unit.width, pitch, phase) is None:
            least = first_slot(pitch, phase) + pitch + HOLE_EDGE
            yield Flaw("slots", unit.width, least, where=(thing.envelope,))


def _vent_in_bay(thing: Thing, size: Box) -> Iterable[Flaw]:
    """Judge whether a unit's vents have their room before the bay's walls."""
    unit = thing.value
    if isinstance(unit, Carried):
        return
    for zone in thing.expansion.zones:
        if zone.kind != "vent":
            continue
        z = zone.box.moved(unit.u, unit.v, unit.w)
        needed = _zone_width(zone.box, thing.expansion.envelope)
        lost = max(size.x0 - z.x0, z.x1 - size.x1, z.y1 - size.y1)
        if lost > TOUCH:
            yield Flaw("vent", needed - lost, needed, other=thing.ref, how="wall",
                       where=(thing.envelope,))  # fmt: skip


def _through_opening(thing: Thing, e: Box) -> Iterable[Flaw]:
    """Judge the opening: what slides must lie within it, what stands must pass it upright."""
    place = thing.place
    if place is None:
        return
    if thing.moves:
        u0, w0, u1, w1 = place.opening_for(e)
        behind = {
            "start": u0 - e.x0, "end": e.x1 - u1, "floor": w0 - e.z0, "roof": e.z1 - w1,
        }  # fmt: skip
        how, amount = max(behind.items(), key=lambda item: item[1])
        if amount > TOUCH:
            yield Flaw("opening", amount, 0.0, how=how, where=(thing.envelope,))
        else:
            yield from _beside_frame(thing, e, place)
        return
    a, b, c = thing.expansion.envelope.size()
    # As it stands, through any opening of the face: inside it is pushed along.
    short = min(max(a - (o[2] - o[0]), c - (o[3] - o[1])) for o in place.openings)
    if short > TOUCH and not any(way.passes((a, b, c), TOUCH) for way in place.also):
        yield Flaw("opening", short, 0.0, how="pass", where=(thing.envelope,))


def _beside_frame(thing: Thing, e: Box, place: BayPlace) -> Iterable[Flaw]:
    """Judge the running gap of what slides from posts, sill and head of its opening, the least of them."""
    opening = place.opening_for(e)
    u0, w0, u1, w1 = opening
    needed = frame_gaps(thing.expansion, place.size, opening)
    gaps = (e.x0 - u0, e.z0 - w0, u1 - e.x1, w1 - e.z1)
    short = [
        (max(0.0, gap), need, how)
        for gap, need, how in zip(gaps, needed, ("start", "floor", "end", "roof"), strict=True)
        if gap < need - TOUCH
    ]
    if short:
        gap, need, how = min(short)
        yield Flaw("running", gap, need, how=how, where=(thing.envelope,))


def _against_body(thing: Thing, assembly: Assembly) -> Iterable[Flaw]:
    """Judge a carried item against vehicle, wheels, tray, canopy and ground, and against the room it is carried in."""
    ground, box = assembly.ground, thing.envelope
    inside = next((name for name, room in ground.insides if contains(room, box) <= TOUCH), "")
    wanted = thing.value.place if isinstance(thing.value, Carried) else ""
    if wanted and wanted != inside:
        out = _stands_out(wanted, box, assembly)
        if out > TOUCH:
            yield Flaw("place", out, 0.0, Ref("body part", wanted), where=(box,))
    shape = block(box)
    met: dict[str, list[tuple[float, FixedPiece]]] = {}
    opening = (
        FixedPiece(Ref("tray piece", p.words), p.role, block(p.box))
        for p in ground.tray
        if p.role in OPENS
    )
    still = (p for p in ground.fixed if p.role not in NOT_ASKED)
    for piece in (*still, *ground.rooms, *opening):
        if piece.role == "cab" and inside in ("bonnet", "cab"):
            continue
        if not box.shares(piece.piece.box):
            continue
        gap = apart(shape, piece.piece)
        if clash(gap):
            met.setdefault(piece.ref.id, []).append((gap, piece))
    for words, rows in met.items():
        pieces = [p.piece for _gap, p in rows]
        square = all(p.square for p in pieces)
        amount = parting((box,), [p.box for p in pieces]) if square else max(-g for g, _p in rows)
        guessed = "guessed" if rows[0][1].guessed else ""
        where = hull(shared(shape, p) for p in pieces)
        yield Flaw("body", amount, 0.0, Ref("body part", words), guessed, (where,))
    if box.z0 < -TOUCH:
        yield Flaw("body", -box.z0, 0.0, Ref("body part", "ground"), where=(box,))


def _stands_out(place: str, box: Box, assembly: Assembly) -> float:
    """By how much a carried thing stands out of the room that it is said to be carried in. [mm]"""
    ground = assembly.ground
    room = dict(ground.insides).get(place)  # type: ignore[call-overload]
    if room is not None:
        return contains(room, box)
    if place == "under":
        return box.z1 - ground.floor.z0
    if place == "roof":
        canopy = ground.canopy
        over = canopy is not None and box.x1 > canopy.x0 + 1
        top = canopy.z1 if canopy is not None and over else assembly.job.vehicle.shape.height
        return top - box.z0
    return math.inf
