"""Rooms and racks against all that stands there, and things against the rack or the rear wall that holds them."""

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.motions import FixedPiece
from roomy_hull.assembly.study import Context, Study, StudyKey
from roomy_hull.assembly.things import Thing
from roomy_hull.core.findings import GEOMETRY, PRACTICE, Finding, Fix
from roomy_hull.core.geometry.gaps import apart, clash
from roomy_hull.core.geometry.motion import block
from roomy_hull.core.geometry.solids import TOUCH, Box, hull
from roomy_hull.core.refs import BODY, CANOPY, Ref
from roomy_hull.core.tyres import overall_diameter
from roomy_hull.job.carried import Carried
from roomy_hull.kit.body.racks import RackPlace
from roomy_hull.kit.vehicle_pieces import contains

KEY = StudyKey["Bodies"]("bodies")
OFF_PITCH = 1.0
"""A thing within this of a hole's place is at it. [mm]"""
NEAR = 3.0
"""A thing within this of a deck or a wall lies on it. [mm]"""
SPARE = 0.02
"""A spare whose tyre differs by more from the others is not of their size (common practice)."""


class Meeting(msgspec.Struct, frozen=True):
    """A room or a rack that shares room with something: what, with what, how far, where. [mm]"""

    ref: Ref
    name: str
    other: Ref
    words: str
    amount: float
    where: Box


class Held(msgspec.Struct, frozen=True):
    """A thing at its rack: how far off it lies, how far out of it, how far off its pitch. [mm]"""

    thing: Ref
    name: str
    rack: Ref
    rack_name: str
    off: float
    out: float
    pitch: float
    where: Box


class Seated(msgspec.Struct, frozen=True):
    """A thing in the room of a seat that is in, and whether somebody sits there while the thing is aboard. [mm]"""

    thing: Ref
    name: str
    seat: str
    taken: bool
    amount: float
    where: Box


SITTER = Box(-250.0, -200.0, -200.0, 200.0, 200.0, 500.0)
"""The room of somebody who sits, about the middle of their mass (common practice). [mm]"""


class Bodies(msgspec.Struct, frozen=True):
    """What is wrong with rooms and racks: meetings, things at their racks, things whose rack is not there, spares."""

    meetings: tuple[Meeting, ...]
    held: tuple[Held, ...]
    lost: tuple[Thing, ...]
    spares: tuple[tuple[Thing, float, float], ...]
    standing_out: tuple[tuple[Ref, str, float, Box], ...]
    seated: tuple[Seated, ...] = ()


def study(context: Context) -> Bodies:
    """Hold rooms and racks against what stands there, and things against their racks.

    Args:
        context: The job in vehicle axes. [mm]
    Returns: Empty where there are neither.
    """
    assembly = context.assembly
    ground = assembly.ground
    found: list[Meeting] = []
    rooms = [r for r in ground.rooms_there if not r.room.vehicles_own]
    fixed = [p for p in ground.fixed if p.role not in ("ground", "floor", "rack")]
    fixed += list(ground.rooms)
    for n, one in enumerate(rooms):
        own = one.room.name
        boxes = [one.box, *([one.alcove] if one.alcove is not None else [])]
        others: list[tuple[Ref, str, Box]] = [
            (r.room.ref, r.room.name, b) for r in rooms[n + 1 :]
            for b in (r.box, *([r.alcove] if r.alcove is not None else []))
        ]  # fmt: skip
        if ground.canopy is not None and assembly.job.body.canopy is not None:
            others.append((CANOPY, assembly.job.body.canopy.name, ground.canopy))
        others += [(r.rack.ref, r.rack.name, b) for r in ground.racks for b in r.boxes]
        found += _meet(one.room.ref, own, boxes, others)
        found += _against(one.room.ref, own, boxes, [p for p in fixed if p.ref.kind != "canopy piece"])  # fmt: skip
    # Against rooms they were held above.
    names = {r.room.name for r in rooms} | {f"{r.room.name}'s alcove" for r in rooms}
    for rack in ground.racks:
        wall = rack.rack.kind == "rear wall"
        still = [
            p for p in fixed
            if p.ref.id not in names and not (wall and p.role in ("hinge", "jack", "wall"))
        ]  # fmt: skip
        found += _against(rack.rack.ref, rack.rack.name, list(rack.boxes), still)
    held, lost = _held(assembly)
    tyre = overall_diameter(assembly.job.vehicle.tyre)
    spares = tuple(
        (t, _round(t), tyre) for t in assembly.things
        if "wheel" in t.capabilities.roles and abs(_round(t) - tyre) > SPARE * tyre
    )  # fmt: skip
    return Bodies(
        tuple(found),
        tuple(held),
        tuple(lost),
        spares,
        tuple(_standing_out(assembly)),
        tuple(_seated(assembly)),
    )


def _round(thing: Thing) -> float:
    """A wheel's diameter, however it lies: the larger of its two equal sizes. [mm]"""
    return sorted(thing.envelope.size())[1]


def _meet(
    ref: Ref, name: str, boxes: list[Box], others: list[tuple[Ref, str, Box]]
) -> list[Meeting]:
    """Boxes against boxes."""
    found: dict[Ref, Meeting] = {}
    for box in boxes:
        for other, words, b in others:
            gap = apart(block(box), block(b))
            if clash(gap) and -gap > found.get(other, _none(ref)).amount:
                found[other] = Meeting(ref, name, other, words, -gap, _shared(box, b))
    return list(found.values())


def _none(ref: Ref) -> Meeting:
    return Meeting(ref, "", ref, "", 0.0, Box(0, 0, 0, 0, 0, 0))


def _shared(a: Box, b: Box) -> Box:
    """What two boxes share. [mm]"""
    return Box(
        max(a.x0, b.x0), max(a.y0, b.y0), max(a.z0, b.z0), min(a.x1, b.x1), min(a.y1, b.y1), min(a.z1, b.z1)
    )  # fmt: skip


def _against(ref: Ref, name: str, boxes: list[Box], pieces: list[FixedPiece]) -> list[Meeting]:
    """Boxes against what never moves."""
    found: dict[str, Meeting] = {}
    for box in boxes:
        shape = block(box)
        for p in pieces:
            if not box.shares(p.piece.box):
                continue
            gap = apart(shape, p.piece)
            if clash(gap) and (p.ref.id not in found or -gap > found[p.ref.id].amount):
                other = Ref("body part", p.ref.id)
                found[p.ref.id] = Meeting(
                    ref, name, other, p.ref.id, -gap, _shared(box, p.piece.box)
                )
    return list(found.values())


def _held(assembly: Assembly) -> tuple[list[Held], list[Thing]]:
    """Every thing that is fixed to a rack, where that is there; those whose rack is not."""
    found: list[Held] = []
    lost: list[Thing] = []
    for thing in assembly.things:
        item = thing.value
        if not isinstance(item, Carried) or not item.on:
            continue
        rack = assembly.ground.rack(item.on)
        if rack is None:
            lost.append(thing)
            continue
        found.append(_at(thing, item, rack))
    return found, lost


def _at(thing: Thing, item: Carried, rack: RackPlace) -> Held:
    """How a thing lies at its rack."""
    box, deck, pitch = thing.envelope, rack.deck, rack.rack.pitch
    name = rack.rack.name
    if rack.upright:
        out = max(deck.y0 - box.y1, box.y0 - deck.y1, deck.z0 - box.z1, box.z0 - deck.z1, 0.0)
        along = _off(item.y - deck.y0, pitch)
        return Held(
            thing.ref, item.name, rack.rack.ref, name, abs(box.x0 - deck.x0), out, along, box
        )
    along = _off(item.x - deck.x0, pitch)
    beside = _panel(box, rack)
    if beside is not None:
        return Held(thing.ref, item.name, rack.rack.ref, name, beside, 0.0, along, box)
    out = max(deck.x0 - box.x1, box.x0 - deck.x1, deck.y0 - box.y1, box.y0 - deck.y1, 0.0)
    return Held(thing.ref, item.name, rack.rack.ref, name, abs(box.z0 - deck.z1), out, along, box)


def _panel(box: Box, rack: RackPlace) -> float | None:
    """How far a thing lies off a side panel; nothing where it is not beside one."""
    r, deck = rack.rack, rack.deck
    low = deck.z0 - r.panel_height
    if box.z1 < low or box.z0 > deck.z0:
        return None
    if r.panels in ("left", "both") and box.y1 <= deck.y0 + NEAR:
        return abs(deck.y0 - r.panel_sheet - box.y1)
    if r.panels in ("right", "both") and box.y0 >= deck.y1 - NEAR:
        return abs(box.y0 - deck.y1 - r.panel_sheet)
    return None


def _off(at: float, pitch: float) -> float:
    """How far a place is off the nearest whole pitch. [mm]"""
    return at - round(at / pitch) * pitch


def _standing_out(assembly: Assembly) -> list[tuple[Ref, str, float, Box]]:
    """Bays of a cab room that stand out of the cab, and rooms that hang over the tray's tail. [mm]"""
    found: list[tuple[Ref, str, float, Box]] = []
    ground = assembly.ground
    inside = dict(ground.insides).get("cab")
    for one in ground.rooms_there:
        if one.room.kind == "cab" and inside is not None:
            for bay in one.room.shell.bays:
                there = ground.bays[bay.id]
                box = there.frame.box(there.size)
                out = contains(inside, box)
                if out > TOUCH:
                    found.append((Ref("bay", bay.id), f"{bay.name} of {one.room.name}", out, box))
    return found


def _seated(assembly: Assembly) -> list[Seated]:
    """What stands where somebody sits."""
    found, job = [], assembly.job
    for n, seat in enumerate(job.vehicle.seats):
        if not seat.fitted:
            continue
        room = SITTER.moved(seat.x, seat.y, seat.z)
        for t in assembly.things:
            shared = [c for b in t.bulk if (c := b.common(room)) is not None]
            if not shared:
                continue
            box = hull(shared)
            amount = min(box.size())
            if amount > TOUCH:
                taken = any(
                    n < len(s.people) and s.people[n] > 0 and t.id not in s.left_behind for s in job.scenarios
                )  # fmt: skip
                found.append(Seated(t.ref, t.name, seat.name, taken, amount, box))
    return found


def judge(context: Context) -> list[Finding]:
    """Rooms and racks that meet something, things that hang beside their rack."""
    found = context.of(KEY)
    rows = [
        Finding("body.meets", "stop", f"{m.name} and {m.words} share {m.amount:.0f} mm", (m.ref, m.other), m.amount,
                0.0, "mm", GEOMETRY, (m.where,))
        for m in found.meetings
    ]  # fmt: skip
    rows += [
        Finding("body.cab_bay", "look", f"{words} stands {out:.0f} mm out of the cab's inside as it is known",
                (ref,), out, 0.0, "mm", GEOMETRY, (box,))
        for ref, words, out, box in found.standing_out
    ]  # fmt: skip
    rows += [
        Finding("body.seat", "stop" if s.taken else "look",
                f"{s.name} stands where the {s.seat} sits" + ("" if s.taken else ", if anybody does"), (s.thing,),
                s.amount, 0.0, "mm", f"room of somebody who sits ({PRACTICE})", (s.where,))
        for s in found.seated
    ]  # fmt: skip
    for h in found.held:
        if h.off > NEAR or h.out > TOUCH:
            most = max(h.off, h.out)
            title = f"{h.name} does not lie on {h.rack_name}: it is {most:.0f} mm off"
            rows.append(
                Finding("body.on_rack", "stop", title, (h.thing, h.rack), most, 0.0, "mm", GEOMETRY, where=(h.where,))
            )  # fmt: skip
        elif abs(h.pitch) > OFF_PITCH:
            rows.append(
                Finding("body.rack_pitch", "look", f"{h.name} is {abs(h.pitch):.0f} mm off the holes of {h.rack_name}",
                        (h.thing, h.rack), abs(h.pitch), OFF_PITCH, "mm", PRACTICE, where=(h.where,))
            )  # fmt: skip
    rows += [
        Finding("body.on_rack", "stop", f"{t.name} is fixed to '{getattr(t.value, 'on', '')}', which is not there",
                (t.ref,), source=GEOMETRY, where=(t.envelope,))
        for t in found.lost
    ]  # fmt: skip
    rows += [
        Finding("body.spare", "note", f"{t.name} is {has:.0f} mm across, the tyres {tyre:.0f} mm: ledge and carrier "
                "have to hold one of these", (t.ref,), has, tyre, "mm", PRACTICE, where=(t.envelope,))
        for t, has, tyre in found.spares
    ]  # fmt: skip
    return rows


def fixes(context: Context, finding: Finding) -> tuple[Fix, ...]:
    """Put a thing to the nearest place of its rack, or let it hang on its own; a spare its tyre's size."""
    found = context.of(KEY)
    one = finding.subjects[0]
    if finding.code in ("body.on_rack", "body.rack_pitch"):
        held = next((h for h in found.held if h.thing == one), None)
        if held is None:
            return (Fix("Fix it to nothing: it stays where it is", one, {"on": ""}),)
        rack, item = context.assembly.ground.rack(held.rack.id), context.assembly.job.thing(one.id)
        if rack is None or not isinstance(item, Carried):
            return ()
        to: dict[str, float | str] = dict(rack.nearest(item))
        return (Fix(f"Put it to the nearest place of {held.rack_name}", one, to),)
    if finding.code == "body.spare" and finding.limit is not None:
        t = next((t for t, _h, _l in found.spares if t.ref == one), None)
        if t is not None:
            sizes = ("length", "width", "height")
            least = min(sizes, key=lambda n: float(getattr(t.value, n)))
            changes: dict[str, float | str] = {
                n: round(finding.limit, 1) for n in sizes if n != least
            }
            return (Fix("Make it as large as the tyres", one, changes),)
    if finding.code == "body.meets" and finding.measured is not None and one.kind == "room":
        room = context.assembly.ground.room(one.id)
        if room is not None:
            back = room.room.start + finding.measured
            return (
                Fix(
                    f"Move it {finding.measured:.0f} mm back",
                    BODY,
                    {f"body.rooms.{one.id}.start": back},
                ),
            )
    return ()


STUDY = Study(KEY, study, judge=judge, codes=("body.",),
              fixes=fixes)  # fmt: skip
