"""Living with it: worktops against elbows, heads under doors, sleeping, dogs, standing level."""

from __future__ import annotations

import math

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.ergonomics.dogs import room
from roomy_hull.core.ergonomics.figure import Figure
from roomy_hull.core.geometry.motion import TURNS
from roomy_hull.job.carried import Carried
from roomy_hull.job.goods import Berth, Person, people
from roomy_hull.studies.access.standing import Settled

BELOW = (50.0, 100.0)
"""A worktop for light work lies so far below the elbow (Grandjean, from memory). [mm]"""
STOOPS = 250.0
"""More than this below the elbow one stoops (common practice). [mm]"""
LOW = 1200.0
"""Edges lower than this are seen before they are met (common practice). [mm]"""
HAIR = 30.0
"""Over a head so much has to be clear (common practice). [mm]"""
LONGER, WIDER = 100.0, 150.0
"""A bed is so much longer than who sleeps on it, and wider than their shoulders (common practice). [mm]"""
SITTING, OVER_SITTING = 0.52, 50.0
"""Sitting height of stature (Bodyspace, from memory), and what is to be clear over it. [mm]"""
LEVEL = 1.5
"""One sleeps well on less than this (common practice). [°]"""


class Worktop(msgspec.Struct, frozen=True):
    """A worktop before one who cooks: its height over the ground, and how far below the elbow it is. [mm]"""

    thing: str
    name: str
    person: str
    height: float
    below: float

    @property
    def fine(self) -> bool:
        """Whether it is neither over the elbow nor far below it."""
        return 0.0 <= self.below <= STOOPS


class Edge(msgspec.Struct, frozen=True):
    """An edge that heads can meet: how high it hangs over the ground. [mm]"""

    opening: str
    name: str
    height: float


class Bed(msgspec.Struct, frozen=True):
    """A berth against who sleeps in it: what it has and what they want, length, width, height. [mm]"""

    id: str
    name: str
    has: tuple[float, float, float]
    wants: tuple[float, float, float]

    @property
    def short(self) -> tuple[float, float, float]:
        """By how much it is too short, too narrow, too low. [mm]"""
        a, b, c = (max(0.0, w - h) for h, w in zip(self.has, self.wants, strict=True))
        return (a, b, c)


class Kennel(msgspec.Struct, frozen=True):
    """A dog against its compartment: what it has and what it wants, length, width, height. [mm]"""

    dog: str
    name: str
    place: str
    has: tuple[float, float, float]
    wants: tuple[float, float, float]


class Tilt(msgspec.Struct, frozen=True):
    """How the vehicle stands in camp: front and left so much higher [°], and what to put under the lower wheels [mm].

    `wheels` are front left, front right, rear left, rear right.
    """

    ahead: float
    left: float
    wheels: tuple[float, float, float, float]


class Living(msgspec.Struct, frozen=True):
    """All of it."""

    worktops: tuple[Worktop, ...] = ()
    edges: tuple[Edge, ...] = ()
    beds: tuple[Bed, ...] = ()
    kennels: tuple[Kennel, ...] = ()
    tilt: Tilt | None = None


def living(assembly: Assembly, settled: Settled) -> Living:
    """How one lives with it.

    Args:
        settled: How the vehicle stands. [mm]
    Returns: Worktops for all who cook, edges at head height, beds, dogs, standing level.
    """
    party = people(assembly.job.party)
    return Living(
        _worktops(assembly, party, settled), _edges(assembly, settled), _beds(assembly, party), _kennels(assembly),
        tilt(assembly, settled),
    )  # fmt: skip


def _worktops(
    assembly: Assembly, party: tuple[Person, ...], settled: Settled
) -> tuple[Worktop, ...]:
    found = []
    for thing in assembly.things:
        if "kitchen" not in thing.capabilities.roles:
            continue
        tops = [o.opened_box.z1 for o in thing.openings] or [thing.envelope.z1]
        x = (thing.envelope.x0 + thing.envelope.x1) / 2
        height = max(tops) - settled.ground(x)
        for one in party:
            if one.cooks:
                below = Figure(one.stature).elbow - height
                found.append(Worktop(thing.id, thing.name, one.id, height, below))
    return tuple(found)


def _edges(assembly: Assembly, settled: Settled) -> tuple[Edge, ...]:
    """Doors that hang open over where one stands, and what swings out at head height."""
    found = []
    for o in assembly.openings():
        if not any(s.verb in TURNS for s in o.motion.steps) or o.kind == "unit":
            continue
        leaves = [p.box for p in o.opened if min(p.box.size()) > 5.0]
        if not leaves:
            continue
        # The outermost piece is the leaf; struts beside it begin lower, but at the wall.
        leaf = max(leaves, key=lambda b: b.size()[0] * b.size()[1])
        height = leaf.z0 - settled.ground(leaf.x0)
        if height > LOW:
            found.append(Edge(o.id, o.name, height))
    return tuple(found)


def _beds(assembly: Assembly, party: tuple[Person, ...]) -> tuple[Bed, ...]:
    """Berths as entered; where there are none, every tent for all."""
    berths = assembly.job.party.berths
    if not berths:
        berths = tuple(
            Berth(
                id=t.id,
                name=t.name,
                thing=t.id,
                length=max(t.value.length, t.value.reach),
                width=t.value.width,
            )
            for t in assembly.things
            if isinstance(t.value, Carried) and "bed" in t.capabilities.roles
        )
    by_id = {p.id: p for p in party}
    found = []
    for b in berths:
        who = [by_id[k] for k in b.sleepers if k in by_id] or list(party)
        wants = (
            max(p.stature for p in who) + LONGER,
            sum(Figure(p.stature).breadth + WIDER for p in who),
            max(p.stature for p in who) * SITTING + OVER_SITTING,
        )
        found.append(Bed(b.id, b.called, (b.length, b.width, b.height), wants))
    return tuple(found)


def _kennels(assembly: Assembly) -> tuple[Kennel, ...]:
    """What each dog has and wants; dogs in one place lie beside or behind each other, whichever lacks less."""
    wants = {dog.id: room(dog.a, dog.b, dog.c, dog.d) for dog in assembly.job.party.dogs}
    found = []
    for dog in assembly.job.party.dogs:
        own = wants[dog.id]
        thing = assembly.thing(dog.place) if dog.place else None
        has = (0.0, 0.0, 0.0)
        if thing is not None:
            a, b, c = thing.envelope.size()
            wall = 2 * getattr(thing.value, "sheet", 0.0)
            door = thing.capabilities.door
            long, wide = max(a, b) - wall, min(a, b) - wall
            has = (long - (door if a < b else 0.0), wide - (door if a >= b else 0.0), c - wall)
            others = [
                wants[d.id]
                for d in assembly.job.party.dogs
                if d.place == dog.place and d.id != dog.id
            ]
            beside = (has[0], has[1] - sum(w[1] for w in others), has[2])
            behind = (has[0] - sum(w[0] for w in others), has[1], has[2])
            has = min(
                (beside, behind),
                key=lambda h: sum(max(0.0, w - x) for w, x in zip(own, h, strict=True)),
            )
        found.append(Kennel(dog.id, dog.called, dog.place, has, own))
    return tuple(found)


def tilt(assembly: Assembly, settled: Settled) -> Tilt:
    """How the vehicle stands on the ground of the camp, and what levels it.

    Args:
        assembly: With the slope of the camp among the services.
        settled: How far each axle has settled. [mm]
    Returns: The ground's slope and the vehicle's own pitch; blocks under wheels until all are as high as the highest.
    """
    v, uses = assembly.job.vehicle, assembly.job.services.uses
    pitch = math.degrees(math.atan((settled.rear - settled.front) / v.wheelbase))
    ahead, left = uses.slope_ahead + pitch, uses.slope_left
    wheels = []
    for x, track in ((0.0, v.track_front), (v.wheelbase, v.track_rear)):
        for y in (-track / 2, track / 2):
            wheels.append(-x * math.tan(math.radians(ahead)) - y * math.tan(math.radians(left)))
    top = max(wheels)
    a, b, c, d = (top - w for w in wheels)
    return Tilt(ahead, left, (a, b, c, d))
