"""Swaps: from one set-up to another, what is taken off and put on, in which order, with minutes, tools and plugs."""

import math
from collections.abc import Callable, Iterable, Mapping
from typing import Literal

import msgspec

from roomy_hull.core.errors import InputError
from roomy_hull.core.fill import CONTENTS
from roomy_hull.core.graphs import circles, in_order
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits.setups import absent
from roomy_hull.job.model import Job
from roomy_hull.job.setups import SetUp
from roomy_hull.kinds.placed import Placed
from roomy_hull.verdict.verdict import Verdict

Doing = Literal["take off", "set aside", "put back", "put on", "change"]

SPANNERS = {"M6": 10, "M8": 13, "M10": 16, "M12": 18, "M16": 24}
"""Width across flats (ISO 272). [mm]"""
HANDLING, BOLT, PLUG, TWO = 2.0, 0.75, 0.5, 1.5
"""Minutes to carry a thing away or up, a bolt, a plug; times more where it takes two (common practice)."""
CANOPY_MINUTES, LEAF_MINUTES, SIDES_MINUTES, CAMPER_MINUTES, RACK_BOLT = 15.0, 15.0, 6.0, 30.0, 1.0
"""A canopy on its legs, a door's leaf, drop sides and tailboard, a camper on its jacks, a rack's foot (common practice)."""
ALONE = 25.0
"""Nobody carries more than this alone (common practice; the load constant of the NIOSH equation is 23). [kg]"""


class Step(msgspec.Struct, frozen=True):
    """One thing that is done.

    Attributes:
        do: What is done with it; what is set aside only makes room and comes back.
        what, name: Its id and its name; for canopy and sides the set-up's own words.
        minutes: For those who do it.
        people: How many it takes.
        kg: What is lifted, empty. [kg]
        tool: What it takes besides hands.
        plugs: What is unplugged or uncoupled, or plugged in again.
        caution: What has to be said with it.
    """

    do: Doing
    what: str
    name: str
    minutes: float
    people: int = 1
    kg: float = 0.0
    tool: str = ""
    plugs: tuple[str, ...] = ()
    caution: str = ""


class Swap(msgspec.Struct, frozen=True):
    """From one set-up to another; `circle` are things of which each is in the other's way, so that no order is told."""

    start: SetUp
    end: SetUp
    steps: tuple[Step, ...]
    circle: tuple[str, ...] = ()

    @property
    def minutes(self) -> float:
        """All together."""
        return sum(s.minutes for s in self.steps)

    @property
    def tools(self) -> tuple[str, ...]:
        """Every tool, once, in the order of use."""
        return tuple(dict.fromkeys(s.tool for s in self.steps if s.tool))


def order_of(
    gone: Iterable[str], come: Iterable[str], stay: Iterable[str],
    leaving: Mapping[str, tuple[str, ...]], entering: Mapping[str, tuple[str, ...]],
) -> tuple[tuple[str, ...], tuple[str, ...], tuple[str, ...]]:  # fmt: skip
    """In which order things leave and enter, and which of those that stay have to make room.

    Args:
        gone, come, stay: What is taken off, what is put on, what is on before and afterwards.
        leaving, entering: What has to be out before a thing can leave, or enter: as things stand before, and
            afterwards.
    Returns:
        Ids in the order in which they leave and in which they enter, those that only make room among both; things
        of which each blocks another, so that there is no order: then the first two are empty. The fewest things
        possible make room: each of them is in the way of something that moves.
    """
    gone, come, stay = tuple(gone), tuple(come), tuple(stay)
    aside: dict[str, None] = {}
    todo = [(k, leaving) for k in gone] + [(k, entering) for k in come]
    while todo:
        one, way = todo.pop()
        for other in way.get(one, ()):
            if other in stay and other not in aside:
                # It leaves and comes back.
                aside[other] = None
                todo += [(other, leaving), (other, entering)]
    moved_out, moved_in = (
        [*gone, *(s for s in stay if s in aside)],
        [*come, *(s for s in stay if s in aside)],
    )
    # In the way going out: out first. In the way coming in: in last.
    before: dict[str, list[str]] = {}
    for k in moved_out:
        for b in leaving.get(k, ()):
            before.setdefault(b, []).append(k)
    out, back = in_order(moved_out, before), in_order(moved_in, entering)
    if out is None or back is None:
        inside = {k: tuple(v) for k, v in (before if out is None else entering).items()}
        moved = set(moved_out if out is None else moved_in)
        groups = circles({k: [x for x in v if x in moved] for k, v in inside.items() if k in moved})
        return (), (), tuple(dict.fromkeys(k for group in groups for k in group))
    return tuple(out), tuple(back), ()


def swap(verdict: Verdict, start: str, end: str) -> Swap:
    """What has to be done to come from one set-up to another.

    Args:
        verdict: The job judged; its set-ups say what blocks what in each.
    Returns:
        The steps in their order: off what goes, aside what is in the way, the large things, on what comes, back
        what made room. Minutes are planning figures.
    Raises:
        InputError: There is no such set-up.
    """
    job = verdict.job
    here, there = _setup(job, start), _setup(job, end)
    off_now, off_then = absent(job, here), absent(job, there)
    large = {r.id for r in job.body.rooms} | {r.id for r in job.body.racks}
    bare = _bare(job)

    def travels(key: str, gone: frozenset[str], setup: SetUp) -> bool:
        """Whether a thing leaves within something larger, and needs no step of its own."""
        thing = job.thing(key)
        if isinstance(thing, Placed):
            room = job.body.room_of(thing.bay)
            return (room is not None and room.id in gone) or (
                room is None and bare and not setup.canopy
            )
        walls = {r.id for r in job.body.racks if r.kind == "rear wall"}
        return isinstance(thing, Carried) and bare and not setup.canopy and (
            (thing.mount == "canopy" and not thing.on) or thing.on in walls
        )  # fmt: skip

    things = [u.id for u in job.units] + [c.id for c in job.carried]
    gone = [k for k in things if k in off_then - off_now and not travels(k, off_then, there)]
    come = [k for k in things if k in off_now - off_then and not travels(k, off_now, here)]
    stay = [k for k in things if k not in off_now | off_then]
    leaving, entering = _blockers(verdict, start), _blockers(verdict, end)
    out, back, circle = order_of(gone, come, stay, leaving, entering)
    if circle:
        return Swap(here, there, (), circle)
    make = _maker(verdict)
    steps = [make("take off" if k in off_then else "set aside", k) for k in out]
    steps += [make("take off", r) for r in sorted(large & (off_then - off_now), reverse=True)]
    steps += _whole(verdict, here, there)
    steps += [make("put on", r) for r in sorted(large & (off_now - off_then))]
    steps += [make("put on" if k in off_now else "put back", k) for k in back]
    return Swap(here, there, tuple(steps))


def _bare(job: Job) -> bool:
    """Whether the canopy can come off at all."""
    return job.body.canopy is not None and job.body.canopy.kind == "canopy"


def _setup(job: Job, key: str) -> SetUp:
    """Find a set-up."""
    found = job.setup(key)
    if found is None:
        raise InputError(
            f"there is no set-up '{key}'",
            remedy=f"Use one of: {', '.join(s.id for s in job.setups) or 'none; make two first'}.",
        )
    return found


def _blockers(verdict: Verdict, setup: str) -> dict[str, tuple[str, ...]]:
    """What is in the way of every thing in a set-up: by its way out of its bay, and by what it carries."""
    there = verdict.within(setup)
    return {key: rows for bay in there.in_out.bays.values() for key, rows in bay.blockers.items()}


def _canopy(verdict: Verdict, setup: SetUp, do: Doing) -> Step:
    """The canopy off or on, as it stands in the set-up in which it is on: its mass with all that stays in it, its plugs."""
    off = verdict.within(setup.id).access.off_on
    gone = absent(verdict.job, setup)
    plugs = [words for words, ends, apart in _lines(verdict) if apart and gone.isdisjoint(ends)]
    kg = off.empty if off is not None else 0.0
    name = verdict.job.body.canopy.name if verdict.job.body.canopy is not None else "canopy"
    return Step(
        do, "canopy", name, round(CANOPY_MINUTES + PLUG * len(plugs), 2), 2, round(kg, 1), "jack legs, 18 mm spanner",
        tuple(sorted(plugs)), "Never work under a canopy on its legs; the page Off and on says how it comes off.",
    )  # fmt: skip


def _whole(verdict: Verdict, here: SetUp, there: SetUp) -> list[Step]:
    """Steps with the canopy, the drop sides and doors' leaves."""
    job = verdict.job
    found: list[Step] = []
    if _bare(job) and here.canopy != there.canopy:
        found.append(
            _canopy(verdict, here, "take off") if here.canopy else _canopy(verdict, there, "put on")
        )
    if job.body.tray.sides > 0 and here.sides != there.sides:
        found.append(
            Step(
                "take off" if here.sides else "put on",
                "sides",
                "drop sides and tailboard",
                SIDES_MINUTES,
                2,
            )
        )
    for door in job.body.doors():
        second = (door.id in here.second_doors, door.id in there.second_doors)
        if door.second and second[0] != second[1] and there.canopy:
            leaf = door.second if second[1] else door.leaf
            found.append(
                Step("change", f"door:{door.id}", f"door {door.id}: hang the leaf of {leaf}", LEAF_MINUTES, 2,
                     tool="drift for the hinge pins")
            )  # fmt: skip
    return found


def _lines(verdict: Verdict) -> list[tuple[str, tuple[str, str], bool]]:
    """Every circuit, hose and pipe: its words, what it joins, whether it comes apart where the canopy comes off."""
    fluids = verdict.services.fluids
    return [
        (c.name, c.ends, c.way is not None and bool(c.way.plugs)) for c in verdict.services.circuits
    ] + [
        (f"{r.sort}: {r.name}", r.ends, bool(r.way.plugs)) for r in (fluids.runs if fluids is not None else ())
    ]  # fmt: skip


def _joined(verdict: Verdict) -> dict[str, tuple[str, ...]]:
    """What is plugged or coupled to each thing: circuits, hoses, pipes."""
    found: dict[str, list[str]] = {}
    for words, ends, _apart in _lines(verdict):
        for end in set(ends):
            found.setdefault(end, []).append(words)
    return {k: tuple(sorted(v)) for k, v in found.items()}


def _empty(verdict: Verdict) -> dict[str, float]:
    """What each thing and rack weighs without contents, and each room with the units that are built into it. [kg]"""
    found: dict[str, float] = {}
    assembly = verdict.assembly
    inside = {t.ref: assembly.ground.stands_in(t.bay) for t in assembly.things}
    for m in assembly.masses():
        if m.fill.by in (CONTENTS.by, "water", "hung"):
            continue
        for owner in (m.owner, inside.get(m.owner)):
            if owner is not None and owner.comes_off:
                found[owner.id] = found.get(owner.id, 0.0) + m.kg
    return found


def _plain(verdict: Verdict, key: str, kg: float) -> tuple[str, float, int, str, str]:
    """A thing's name, minutes, how many it takes, tool, caution."""
    job = verdict.job
    people = 2 if kg > ALONE else 1
    heavy = f"{kg:.0f} kg empty: two people." if people > 1 else ""
    # What two cannot carry goes in parts, each carried by itself, or by a hoist.
    goes = max(1, math.ceil(kg / (2 * ALONE)))
    if goes > 1:
        heavy = f"{kg:.0f} kg empty: in parts, or by hoist."
    thing, room, rack = job.thing(key), job.body.room(key), job.body.rack(key)
    if isinstance(thing, Placed):
        tool = f"{SPANNERS[thing.bolt]} mm spanner" if thing.bolts else ""
        return thing.name, HANDLING * goes + BOLT * thing.bolts, people, tool, heavy
    if thing is not None:
        return thing.name, HANDLING * goes, people, "", heavy
    if room is not None:
        if room.kind == "camper":
            return (
                room.name,
                CAMPER_MINUTES / TWO,
                2,
                "jacks",
                "Nobody under a camper on its jacks.",
            )
        words = "Nobody under a box on its legs."
        return room.name, CANOPY_MINUTES / TWO, 2, "jack legs, 18 mm spanner", words
    there = verdict.assembly.ground.rack(key)
    feet = len(there.feet) if there is not None else 0
    return (
        rack.name if rack is not None else key,
        HANDLING * goes + RACK_BOLT * feet,
        2,
        "16 mm spanner",
        heavy,
    )


def _maker(verdict: Verdict) -> Callable[[Doing, str], Step]:
    """What makes a step of one thing."""
    ends, masses = _joined(verdict), _empty(verdict)

    def make(do: Doing, key: str) -> Step:
        kg, plugs = masses.get(key, 0.0), ends.get(key, ())
        name, minutes, people, tool, caution = _plain(verdict, key, kg)
        took = minutes * (TWO if people > 1 else 1.0) + PLUG * len(plugs)
        return Step(do, key, name, round(took, 2), people, round(kg, 1), tool, plugs, caution)

    return make


def swap_rows(found: Swap) -> list[list[object]]:
    """A swap as a table: a head, then a row a step, then the sum.

    Args:
        found: From `swap`.
    Returns: Number, what is done, with what, minutes, people, mass, tool, plugs, caution.
    """
    rows: list[list[object]] = [
        ["step", "do", "what", "minutes", "people", "kg empty", "tool", "plugs", "caution"]
    ]
    rows += [
        [str(n), s.do, s.name, f"{s.minutes:g}", str(s.people), f"{s.kg:g}" if s.kg else "", s.tool, "; ".join(s.plugs),
         s.caution]
        for n, s in enumerate(found.steps, 1)
    ]  # fmt: skip
    return [
        *rows,
        [
            "",
            "together",
            f"{found.start.name} to {found.end.name}",
            f"{found.minutes:g}",
            "",
            "",
            "",
            "",
            "",
        ],
    ]
