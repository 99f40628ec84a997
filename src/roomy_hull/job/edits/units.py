"""Edits: pure functions from one Job to the next. What did not change is shared."""

from typing import Any

import msgspec

from roomy_hull.core.errors import EditError
from roomy_hull.core.geometry.frames import OTHER_SIDE
from roomy_hull.core.refs import RESERVED
from roomy_hull.job.carried import Carried
from roomy_hull.job.model import MOST_ACCEPTED, Acceptance, Job
from roomy_hull.kinds.registry import Unit, handed_changes, kind_of


def changed(job: Job, key: str, **changes: Any) -> Job:
    """Change fields of one unit or carried item.

    Args:
        **changes: New field values. [mm, kg]
    Returns: The new job; the same job where nothing changes.
    Raises:
        EditError: No such thing, or a value that its field does not allow.
    """
    thing = job.thing(key)
    if thing is None:
        raise EditError(f"there is no unit '{key}'", remedy="Choose one of the job's units.")
    if all(getattr(thing, name) == value for name, value in changes.items()):
        return job
    bay = changes.get("bay")
    if bay is not None and bay not in _bay_ids(job):
        raise EditError(f"there is no bay '{bay}'", place=thing.name)
    try:
        new = thing.but(**changes)
    except msgspec.ValidationError as trouble:
        raise EditError(
            _plain(str(trouble)), place=thing.name, remedy="The old value is kept."
        ) from None
    return _with(job, key, (new,))


def added(job: Job, thing: Unit | Carried) -> Job:
    """Add a unit or carried item; its id is made unique.

    Returns: The new job, the thing last in its list.
    Raises:
        EditError: The unit's bay does not exist.
    """
    thing = msgspec.structs.replace(thing, id=free_id(job, thing.id))
    if isinstance(thing, Carried):
        return msgspec.structs.replace(job, carried=(*job.carried, thing))
    if thing.bay not in _bay_ids(job):
        raise EditError(f"there is no bay '{thing.bay}'", place=thing.name)
    return msgspec.structs.replace(job, units=(*job.units, thing))


def removed(job: Job, key: str) -> Job:
    """Take a unit or carried item out of the job; unknown ids change nothing."""
    return _with(job, key, ()) if job.thing(key) is not None else job


def mirrored(job: Job, key: str) -> Job:
    """Move a unit to the mirrored place, or a carried item across the centre.

    What is made is mirrored with all that is handed. What is bought stays the same article: its vent or
    door is where it was as one faces it. A carried thing becomes that of the other hand.

    Returns: The new job; doing it twice gives the first job again.
    Raises:
        EditError: The unit's bay has no counterpart on the other side.
    """
    thing = job.thing(key)
    if thing is None:
        return job
    if isinstance(thing, Carried):
        hand = OTHER_SIDE[thing.hand]
        return changed(job, key, y=-thing.y, hand=hand, side=OTHER_SIDE.get(thing.side, thing.side))
    # The counterpart is in the same room, or in the room across.
    shells = job.body.shells()
    own = next(s for s in shells if any(b.id == thing.bay for b in s.bays))
    bays = own.bays
    if not any(
        b.side == OTHER_SIDE.get(a.side) for a in own.bays if a.id == thing.bay for b in own.bays
    ):
        bays = tuple(b for s in shells if s.kind == own.kind for b in s.bays)
    here = next(b for b in bays if b.id == thing.bay)
    changes: dict[str, Any] = {}
    if here.side == "rear":
        changes["u"] = here.length - thing.u - thing.width
    else:
        there = [b for b in bays if b.side == OTHER_SIDE.get(here.side)]
        if not there:
            raise EditError(
                f"the {here.name.lower()} has no counterpart on the other side",
                place=thing.name,
                remedy="Only units in a side bay can be mirrored.",
            )
        nearest = min(there, key=lambda b: abs(b.start - here.start))
        changes |= {"bay": nearest.id, "u": thing.u + here.start - nearest.start}
    if not kind_of(thing).article:
        changes |= handed_changes(thing)
    return changed(job, key, **changes)


def accepted(job: Job, acceptance: Acceptance) -> Job:
    """Record that a *look* was accepted; earlier records of the same finding stay, as far as there is room."""
    same = (acceptance.code, acceptance.subjects, acceptance.scenario)
    earlier = list(job.accepted)
    while len(earlier) >= MOST_ACCEPTED:
        keys = [(a.code, a.subjects, a.scenario) for a in earlier]
        past = [n for n, key in enumerate(keys) if key == same or key in keys[n + 1 :]]
        del earlier[past[0] if past else 0]
    return msgspec.structs.replace(job, accepted=(*earlier, acceptance))


def free_id(job: Job, wish: str) -> str:
    """Find the wished id, or the first of wish-2, wish-3 … that is free in the job and not reserved."""
    taken = {u.id for u in job.units} | {c.id for c in job.carried} | RESERVED
    taken |= {u.id for u in job.arrange.wanted}
    if wish not in taken:
        return wish
    stem = wish.rsplit("-", 1)[0] if wish.rsplit("-", 1)[-1].isdigit() else wish
    number = 2
    while f"{stem}-{number}" in taken:
        number += 1
    return f"{stem}-{number}"


def _bay_ids(job: Job) -> set[str]:
    """The ids of the body's bays."""
    return {b.id for b in job.body.bays()}


def _with(job: Job, key: str, new: tuple[Any, ...]) -> Job:
    """Replace one unit or carried item by some others."""
    for i, unit in enumerate(job.units):
        if unit.id == key:
            return msgspec.structs.replace(job, units=job.units[:i] + new + job.units[i + 1 :])
    for i, item in enumerate(job.carried):
        if item.id == key:
            return msgspec.structs.replace(
                job, carried=job.carried[:i] + new + job.carried[i + 1 :]
            )
    return job


def _plain(trouble: str) -> str:
    """Turn a validator's words into a fabricator's."""
    return (
        trouble
        .replace("Expected `float`", "expected a figure")
        .replace("Expected `int`", "expected a whole number")
        .replace(" - at `$.", " at `")
        .replace("`", "")
    )
