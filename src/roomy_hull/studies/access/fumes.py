"""Fumes: fuel and gas that are carried in something closed, and who breathes there."""

from typing import NamedTuple

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.refs import CANOPY, VEHICLE, Ref
from roomy_hull.job.goods import CAB
from roomy_hull.studies.access.stowing import BURNS

CLOSED = {CAB: VEHICLE, "cargo": CANOPY, "tub": CANOPY}
"""Where things are carried in a closed room: which one, by their place; a tub is closed where something stands on it."""


class Fumes(NamedTuple):
    """Fuel or gas in something closed.

    Attributes:
        name: Of the good or thing.
        subjects: It, and what it lies in.
        inside: In what.
        with_: Who is in the same room; empty for nobody.
        where: Around what it lies in. [mm]
    """

    name: str
    subjects: tuple[Ref, ...]
    inside: str
    with_: str
    where: tuple[Box, ...]


def fumes(assembly: Assembly) -> tuple[Fumes, ...]:
    """Find fuel and gas bottles in drawers, closed boxes, the cab and closed rooms.

    Returns: In the job's order: goods, then what is carried. What stands in a vented gas locker, or outside, is fine.
    """
    people = _people(assembly)
    found = []
    for good in assembly.job.goods:
        if BURNS.isdisjoint(good.nature) or not good.place:
            continue
        own = Ref("good", good.id)
        if good.place == CAB:
            found.append(Fumes(good.name, (own,), "the cab", people.get(VEHICLE, ""), ()))
            continue
        thing = assembly.any_thing(good.place)
        if thing is None or thing.capabilities.vents:
            continue
        room = _room(assembly, good.place)
        if room is not None or thing.capabilities.sealed:
            found.append(
                Fumes(good.name, (thing.ref, own), thing.name, people.get(room, "") if room else "", (thing.envelope,))
            )  # fmt: skip
    for thing in assembly.doing("fuel"):
        room = _room(assembly, thing.id)
        if room is not None:
            inside = "the cab" if room == VEHICLE else "a closed room"
            found.append(
                Fumes(thing.name, (thing.ref,), inside, people.get(room, ""), (thing.envelope,))
            )
    return tuple(found)


def _room(assembly: Assembly, key: str) -> Ref | None:
    """The closed room that a thing stands in; none outside."""
    thing = assembly.thing(key)
    if thing is None:
        return None
    if thing.place is not None:
        return assembly.ground.stands_in(thing.bay)
    room = CLOSED.get(getattr(thing.value, "place", ""))
    if room == CANOPY and not any(s.ref == CANOPY for s in assembly.ground.shells):
        return None
    return room


def _people(assembly: Assembly) -> dict[Ref, str]:
    """Who sleeps or travels in each closed room."""
    found: dict[Ref, str] = {}
    party = assembly.job.party
    rows = [(b.thing, "those who sleep there") for b in party.berths if b.thing]
    rows += [(d.place, d.called) for d in party.dogs if d.place]
    for key, who in rows:
        room = _room(assembly, key) or next(
            (t.ref for t in assembly.ground.things if t.id == key), None
        )
        if room is not None:
            found.setdefault(room, who)
    return found
