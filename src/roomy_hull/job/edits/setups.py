"""Set-ups: made, changed and dropped; what a job is in one of them, and what stays at home with what."""

from typing import Any

import msgspec

from roomy_hull.core.errors import EditError
from roomy_hull.core.value import refusal
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits.layouts import slug
from roomy_hull.job.goods import Party
from roomy_hull.job.model import Job, Scenario
from roomy_hull.job.setups import SetUp


def absent(job: Job, setup: SetUp) -> frozenset[str]:
    """Everything that is not on the vehicle in a set-up, with what goes along.

    Args:
        setup: One of its set-ups, or one that is tried.
    Returns:
        Ids of units, carried things, rooms and racks: what the set-up names, what stands in a room or in a canopy
        that is off, and what is fixed to a rack that is off.
    """
    body, off = job.body, set(setup.off)
    bare = _bare(job, setup)
    if bare:
        off |= {r.id for r in body.racks if r.kind == "rear wall"}
    gone = bays_off(job, setup)
    off |= {u.id for u in job.units if u.bay in gone}
    off |= {
        c.id
        for c in job.carried
        if (c.on and c.on in off) or (bare and c.mount == "canopy" and not c.on)
    }
    there = {u.id for u in job.units} | {c.id for c in job.carried}
    there |= {r.id for r in body.rooms} | {r.id for r in body.racks}
    return frozenset(off & there)


def _bare(job: Job, setup: SetUp) -> bool:
    """Whether a canopy that comes off is off."""
    canopy = job.body.canopy
    return not setup.canopy and canopy is not None and canopy.kind == "canopy"


def bays_off(job: Job, setup: SetUp) -> frozenset[str]:
    """The bays that are not on the vehicle in a set-up: those of rooms, or of a canopy, that are off."""
    found = {b.id for r in job.body.rooms if r.id in setup.off for b in r.shell.bays}
    if _bare(job, setup) and job.body.canopy is not None:
        found |= {b.id for b in job.body.canopy.bays}
    return frozenset(found)


def setup_of(job: Job, scenario: Scenario) -> SetUp | None:
    """The set-up that a scenario names; none where everything is on."""
    return job.setup(scenario.setup)


def resolved(job: Job) -> Job:
    """A job whose scenarios leave at home what their set-ups leave off.

    Returns: The very same where no scenario names a set-up.
    """
    parted = bool(job.body.rooms or job.body.racks)
    if not parted and not any(s.setup for s in job.scenarios):
        return job
    rows = []
    for one in job.scenarios:
        setup = setup_of(job, one)
        if setup is None and not (parted and (one.left_behind or not one.canopy)):
            rows.append(one)
            continue
        setup = setup or SetUp(id="own", name="")
        # What a scenario itself leaves off takes along what stands in or on it, as in a set-up.
        both = msgspec.structs.replace(
            setup, off=(*setup.off, *one.left_behind), canopy=setup.canopy and one.canopy
        )
        behind = absent(job, both) | set(one.left_behind)
        rows.append(
            msgspec.structs.replace(
                one, left_behind=tuple(sorted(behind)), canopy=one.canopy and setup.canopy,
                sides=one.sides and setup.sides,
            )
        )  # fmt: skip
    return msgspec.structs.replace(job, scenarios=tuple(rows))


def worn(job: Job, setup: SetUp) -> Job:
    """A job as it stands in one set-up: what is off is not there.

    Returns: Without what is off; goods in it, sets and run-throughs that need it go along. Its scenarios stay.
    """
    off = absent(job, setup)
    body = job.body
    tray = (
        body.tray
        if setup.sides or not body.tray.sides
        else msgspec.structs.replace(body.tray, sides=0.0)
    )
    canopy = body.canopy
    if canopy is not None and canopy.kind == "canopy" and not setup.canopy:
        canopy = None
    elif canopy is not None and any(d.id in setup.second_doors for d in canopy.doors):
        doors = tuple(hung(d) if d.id in setup.second_doors else d for d in canopy.doors)
        canopy = msgspec.structs.replace(canopy, doors=doors)
    body = msgspec.structs.replace(
        body, tray=tray, canopy=canopy,
        rooms=tuple(r for r in body.rooms if r.id not in off),
        racks=tuple(r for r in body.racks if r.id not in off),
    )  # fmt: skip
    gone = set(off) | (
        {f"door:{d.id}" for d in job.body.doors()} - {f"door:{d.id}" for d in body.doors()}
    )

    def there(what: str) -> bool:
        return (
            what not in gone
            and what.split(":", maxsplit=1)[0] not in off
            and ":".join(what.split(":")[:2]) not in gone
        )

    return msgspec.structs.replace(
        job, body=body,
        units=tuple(u for u in job.units if u.id not in off),
        carried=tuple(c for c in job.carried if c.id not in off),
        goods=tuple(g for g in job.goods if g.place not in off),
        sets=tuple(s for s in job.sets if all(map(there, s.members))),
        runs=tuple(r for r in job.runs if all(not m.what or there(m.what) for m in r.moves)),
        variants=(),
        party=_along(job.party, off),
        # Its leaves hang already.
        setups=tuple(
            msgspec.structs.replace(s, second_doors=()) if s.second_doors else s for s in job.setups
        ),
    )  # fmt: skip


def _along(party: Party, off: frozenset[str]) -> Party:
    """Who comes along: a dog whose place is off stays at home, and nobody sleeps in what is off."""
    dogs = tuple(d for d in party.dogs if d.place not in off)
    berths = tuple(b for b in party.berths if b.thing not in off)
    if len(dogs) == len(party.dogs) and len(berths) == len(party.berths):
        return party
    return msgspec.structs.replace(party, dogs=dogs, berths=berths)


def hung(door: Any) -> Any:
    """A door on which its second leaf hangs; itself where it has none. [Door]"""
    return (
        msgspec.structs.replace(door, leaf=door.second, second=door.leaf) if door.second else door
    )


def added(job: Job, setup: SetUp) -> Job:
    """Add a set-up; its id is made unique from its name.

    Returns: The new job, the set-up last; all scenarios are in it where it is the first.
    Raises:
        EditError: There are as many as a job may have.
    """
    if len(job.setups) >= 8:
        raise EditError("a job has at most 8 set-ups", remedy="Delete one first.")
    key = slug(setup.name, {s.id for s in job.setups})
    new = msgspec.structs.replace(job, setups=(*job.setups, msgspec.structs.replace(setup, id=key)))
    if job.setups:
        return new
    # The first one is what all scenarios meant so far.
    scenarios = tuple(msgspec.structs.replace(s, setup=key) for s in job.scenarios)
    return msgspec.structs.replace(new, scenarios=scenarios)


def _known(job: Job, key: str) -> SetUp:
    """Find a set-up that has to be there."""
    found = job.setup(key)
    if found is None:
        raise EditError(f"there is no set-up '{key}'", remedy="Choose one of the job's set-ups.")
    return found


def used(job: Job, key: str, scenario: str) -> Job:
    """Weigh a scenario in a set-up.

    Args:
        key, scenario: Ids of the set-up and of the scenario.
    Raises:
        EditError: There is no such set-up.
    """
    _known(job, key)
    rows = tuple(
        msgspec.structs.replace(s, setup=key) if s.id == scenario else s for s in job.scenarios
    )
    return msgspec.structs.replace(job, scenarios=rows)


def changed(job: Job, key: str, **changes: Any) -> Job:
    """Change fields of one set-up.

    Raises:
        EditError: There is no such set-up, or a value is not allowed.
    """
    _known(job, key)
    try:
        rows = tuple(s.but(**changes) if s.id == key else s for s in job.setups)
    except (msgspec.ValidationError, ValueError) as trouble:
        raise EditError(refusal(trouble), remedy="Type it again.") from None
    return msgspec.structs.replace(job, setups=rows)


def switched(job: Job, key: str, what: str) -> Job:
    """Take one thing off in a set-up, or put it on again.

    Args:
        what: A unit's, carried thing's, room's or rack's id.
    Raises:
        EditError: There is no such set-up or thing.
    """
    body = job.body
    if job.thing(what) is None and body.room(what) is None and body.rack(what) is None:
        raise EditError(f"there is no '{what}' in the job", remedy="Choose one of its things.")
    off = set(_known(job, key).off) ^ {what}
    return changed(job, key, off=tuple(sorted(off)))


def dropped(job: Job, key: str) -> Job:
    """Take a set-up away; scenarios that named it have everything on again."""
    scenarios = tuple(
        msgspec.structs.replace(s, setup="") if s.setup == key else s for s in job.scenarios
    )
    return msgspec.structs.replace(
        job, scenarios=scenarios, setups=tuple(s for s in job.setups if s.id != key)
    )


def can_be_off(thing: object) -> bool:
    """Whether a carried thing can be left at home: all but what is bolted to the vehicle for good."""
    return not (
        isinstance(thing, Carried) and thing.kind in ("bull bar", "winch", "battery", "snorkel")
    )
