"""Layouts: several units at once, sides exchanged, a unit replaced, and variants of a whole layout."""

import re
from typing import Any

import msgspec

from roomy_hull.core.errors import EditError
from roomy_hull.core.geometry.frames import OTHER_SIDE
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job, RunThrough, TogetherSet, Variant
from roomy_hull.kinds.placed import Placed
from roomy_hull.kinds.registry import Unit


def _units(job: Job, keys: tuple[str, ...], least: int) -> list[Unit]:
    """The units among some ids, all in one bay."""
    found = [u for u in job.units if u.id in keys]
    if len(found) < least:
        raise EditError(
            f"choose at least {least} units", remedy="Click the others with Shift held."
        )
    bays = {u.bay for u in found}
    if len(bays) > 1:
        raise EditError("the units are in different bays", remedy="Choose units of one bay.")
    return found


def aligned(job: Job, keys: tuple[str, ...], edge: str) -> Job:
    """Put one edge of some units where the first one's is.

    Args:
        keys: Ids; the first says where.
        edge: ``start``, ``end``, ``floor``, ``top``, ``front`` or ``back`` of the bay's directions.
    Raises:
        EditError: Fewer than two units, or units of several bays.
    """
    units = {u.id: u for u in _units(job, keys, 2)}
    first = units[next(k for k in keys if k in units)]
    at, size = {
        "start": ("u", ""), "end": ("u", "width"), "floor": ("w", ""), "top": ("w", "height"),
        "front": ("v", ""), "back": ("v", "depth"),
    }[edge]  # fmt: skip
    wanted = getattr(first, at) + (getattr(first, size) if size else 0.0)
    for key, unit in units.items():
        here = getattr(unit, size) if size else 0.0
        job = edits.changed(job, key, **{at: wanted - here})
    return job


def distributed(job: Job, keys: tuple[str, ...], pitch: float) -> Job:
    """Make the gaps between some units along the wall equal; the outer two stay.

    Args:
        pitch: Rail pitch to keep to, 0 for none. [mm]
    Raises:
        EditError: Fewer than three units, units of several bays, or no room between them.
    """
    units = sorted(_units(job, keys, 3), key=lambda u: u.u)
    room = units[-1].u + units[-1].width - units[0].u - sum(u.width for u in units)
    if room < 0:
        raise EditError(
            f"{-room:.0f} mm are missing between the outer two", remedy="Move them apart first."
        )
    at = units[0].u + units[0].width
    for unit in units[1:-1]:
        at += room / (len(units) - 1)
        job = edits.changed(job, unit.id, u=round(at / pitch) * pitch if pitch > 0 else at)
        at += unit.width
    return job


def shifted(job: Job, keys: tuple[str, ...], du: float, dv: float, dw: float) -> Job:
    """Move some units together. [mm]"""
    for unit in [u for u in job.units if u.id in keys]:
        job = edits.changed(job, unit.id, u=unit.u + du, v=unit.v + dv, w=unit.w + dw)
    return job


def copied_across(job: Job, keys: tuple[str, ...]) -> tuple[Job, tuple[str, ...]]:
    """Copy things to the mirrored place on the other side.

    Raises:
        EditError: A unit's bay has no counterpart.
    """
    made = []
    for key in keys:
        thing = job.thing(key)
        if thing is None:
            continue
        new = edits.free_id(job, thing.id)
        job = edits.mirrored(edits.added(job, thing), new)
        made.append(new)
    return job, tuple(made)


def exchanged(job: Job) -> Job:
    """Exchange the left and the right side: every unit there, and what hangs on the walls.

    Raises:
        EditError: There is no bay on one of the sides.
    """
    sides = {b.id: b.side for b in job.body.bays()}
    keys = [u.id for u in job.units if sides.get(u.bay) in OTHER_SIDE]
    keys += [
        c.id for c in job.carried if c.kind in ("awning", "shower tent") and c.side in OTHER_SIDE
    ]
    for key in keys:
        job = edits.mirrored(job, key)
    return job


def replaced(job: Job, key: str, new: Unit) -> Job:
    """Put another unit in a unit's place; place, id and note stay.

    Raises:
        EditError: There is no such unit.
    """
    old = job.thing(key)
    if not isinstance(old, Placed):
        raise EditError(
            f"there is no unit '{key}'", remedy="Select the unit that is to be replaced."
        )
    there = msgspec.structs.replace(
        new, id=old.id, bay=old.bay, u=old.u, v=old.v, w=old.w, note=old.note
    )
    units = tuple(there if u.id == key else u for u in job.units)
    return msgspec.structs.replace(job, units=units)


# Variants


def slug(name: str, taken: set[str], nameless: str = "layout") -> str:
    """An id for a name that is not taken; of `nameless` where the name has no letter that an id may have."""
    base = re.sub(r"[^A-Za-z0-9]+", "-", name).strip("-").lower()[:40] or nameless
    key, n = base, 2
    while key in taken:
        key, n = f"{base}-{n}", n + 1
    return key


def kept(job: Job, name: str) -> Job:
    """Keep the layout in hand as a variant, and go on with a copy under a new name.

    Args:
        name: Of the copy that is worked on from now.
    Raises:
        EditError: The name is empty or taken, or there are twelve variants already.
    """
    name = name.strip()
    if not name or name in {job.layout, *(v.name for v in job.variants)}:
        raise EditError(
            f"the name '{name}' is {'taken' if name else 'empty'}", remedy="Choose another name."
        )
    if len(job.variants) >= 12:
        raise EditError("there are twelve variants already", remedy="Drop one first.")
    key = slug(job.layout, {v.id for v in job.variants})
    now = Variant(id=key, name=job.layout, units=job.units, carried=job.carried)
    return msgspec.structs.replace(job, variants=(*job.variants, now), layout=name)


def taken(job: Job, key: str) -> Job:
    """Take a variant in hand; the layout in hand becomes a variant in its place.

    Raises:
        EditError: There is no such variant.
    """
    chosen = next((v for v in job.variants if v.id == key), None)
    if chosen is None:
        raise EditError(f"there is no variant '{key}'")
    taken_ids = {v.id for v in job.variants if v.id != key}
    now = Variant(
        id=slug(job.layout, taken_ids), name=job.layout, units=job.units, carried=job.carried
    )
    variants = tuple(now if v.id == key else v for v in job.variants)
    return msgspec.structs.replace(
        job, units=chosen.units, carried=chosen.carried, layout=chosen.name, variants=variants
    )


def dropped(job: Job, key: str) -> Job:
    """Drop a variant; an unknown id changes nothing."""
    return _without(job, "variants", key)


def _without(job: Job, field: str, key: str) -> Job:
    """Drop the one of an id from a field of the job; the same job where there is none."""
    here = getattr(job, field)
    left = tuple(x for x in here if x.id != key)
    return job if len(left) == len(here) else msgspec.structs.replace(job, **{field: left})


def as_job(job: Job, variant: Variant) -> Job:
    """The job as it would be with a variant in hand."""
    return msgspec.structs.replace(
        job, units=variant.units, carried=variant.carried, layout=variant.name, variants=()
    )


# The owner's sets and run-throughs


def with_set(job: Job, name: str, members: tuple[str, ...]) -> Job:
    """Declare that some openings have to be open together.

    Args:
        name: What the owner calls it; an earlier set of the same name is replaced.
    Raises:
        EditError: There is no name or no member.
    """
    if not name.strip() or not members:
        raise EditError(
            "a set wants a name and something that opens",
            remedy="Open what has to be open together.",
        )
    others = tuple(s for s in job.sets if s.name != name.strip())
    key = slug(name, {s.id for s in others} | {r.id for r in job.runs})
    new = TogetherSet(id=key, name=name.strip(), members=members)
    return msgspec.structs.replace(job, sets=(*others, new))


def without_set(job: Job, key: str) -> Job:
    """Drop a set; an unknown id changes nothing."""
    return _without(job, "sets", key)


def with_run(job: Job, name: str, moves: tuple[Any, ...]) -> Job:
    """Keep a run-through; an earlier one of the same name is replaced.

    Raises:
        EditError: There is no name or no move.
    """
    if not name.strip() or not moves:
        raise EditError(
            "a run-through wants a name and a move", remedy="Open or close something first."
        )
    others = tuple(r for r in job.runs if r.name != name.strip())
    key = slug(name, {r.id for r in others} | {s.id for s in job.sets})
    return msgspec.structs.replace(
        job, runs=(*others, RunThrough(id=key, name=name.strip(), moves=moves))
    )


def without_run(job: Job, key: str) -> Job:
    """Drop a run-through; an unknown id changes nothing."""
    return _without(job, "runs", key)
