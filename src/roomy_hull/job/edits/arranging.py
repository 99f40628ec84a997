"""Edits of what is to be arranged: wanted, pinned, wished; and a layout taken in hand."""

from collections.abc import Sequence
from typing import Any

import msgspec

from roomy_hull.core.errors import EditError
from roomy_hull.job.arranging import ApartWish, Arranging, BayWish, NearWish, Weights
from roomy_hull.job.edits import layouts
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job, Variant
from roomy_hull.kinds.placed import Placed
from roomy_hull.kinds.registry import Unit

MOST_VARIANTS = 12


def _with(job: Job, **changes: Any) -> Job:
    """The job with other wishes."""
    try:
        return msgspec.structs.replace(job, arrange=job.arrange.but(**changes))
    except msgspec.ValidationError as trouble:
        raise EditError(str(trouble), "arrange", "The old wish is kept.") from None


def wanted(job: Job, unit: Unit) -> Job:
    """Want a unit that has no place yet; its id is made unique.

    Args:
        unit: From the stores; its place is not used.
    """
    key = edits.free_id(job, unit.id)
    new = msgspec.structs.replace(unit, id=key, bay="-", u=0.0, v=0.0, w=0.0)
    return _with(job, wanted=(*job.arrange.wanted, new))


def unwanted(job: Job, key: str) -> Job:
    """Want a unit no more; wishes about it go along. An id that is not wanted changes nothing."""
    here = job.arrange
    if key not in {u.id for u in here.wanted}:
        return job
    return _without(_with(job, wanted=tuple(u for u in here.wanted if u.id != key)), key)


def _without(job: Job, key: str) -> Job:
    """Drop the wishes about a thing that is not there any more."""
    here = job.arrange
    return _with(
        job,
        bays=tuple(w for w in here.bays if w.thing != key),
        apart=tuple(w for w in here.apart if key not in (w.a, w.b)),
        near=tuple(w for w in here.near if key not in (w.a, w.b)),
    )


def pinned(job: Job, keys: Sequence[str], *, on: bool) -> Job:
    """Pin units where they are, or let them be placed anew; ids of other things change nothing."""
    some = [k for k in keys if isinstance(job.thing(k), Placed)]
    had = job.arrange.pinned
    new = (
        (*had, *(k for k in some if k not in had)) if on else tuple(k for k in had if k not in some)
    )
    return _with(job, pinned=new) if new != had else job


def in_bays(job: Job, key: str, bays: Sequence[str]) -> Job:
    """Say in which bays a unit may go; in any where none is named.

    Args:
        key: Id of a unit, in the layout or wanted.
    Raises:
        EditError: There is no such bay.
    """
    known = {b.id for b in job.body.bays()}
    unknown = [b for b in bays if b not in known]
    if unknown:
        raise EditError(
            f"there is no bay '{unknown[0]}'", "arrange", f"Use one of: {', '.join(sorted(known))}."
        )
    rest = tuple(w for w in job.arrange.bays if w.thing != key)
    return _with(job, bays=(*rest, BayWish(thing=key, bays=tuple(bays))) if bays else rest)


def apart(job: Job, a: str, b: str, gap: float) -> Job:
    """Keep two units apart along the wall, or no longer where the gap is 0. [mm]"""
    rest = tuple(w for w in job.arrange.apart if {w.a, w.b} != {a, b})
    near = tuple(w for w in job.arrange.near if {w.a, w.b} != {a, b})
    return _with(job, apart=(*rest, ApartWish(a=a, b=b, gap=gap)) if gap > 0 else rest, near=near)


def near(job: Job, a: str, b: str, *, on: bool) -> Job:
    """Want two units near each other, or no longer."""
    rest = tuple(w for w in job.arrange.near if {w.a, w.b} != {a, b})
    away = tuple(w for w in job.arrange.apart if {w.a, w.b} != {a, b})
    return _with(job, near=(*rest, NearWish(a=a, b=b)) if on else rest, apart=away)


def weighed(job: Job, start: dict[str, float], **changes: float) -> Job:
    """Set weights by hand; the others stay as they count now.

    Args:
        **changes: Parts with their new weights, 0 to 4.
    Raises:
        EditError: A weight is below 0 or above 4.
    """
    try:
        new = Weights().but(**{**start, **changes})
    except msgspec.ValidationError as trouble:
        raise EditError(str(trouble), "arrange", "A weight is 0 to 4.") from None
    return _with(job, weights=new, own_weights=True)


def follow_findings(job: Job) -> Job:
    """Have the weights follow the job's findings again."""
    return _with(job, weights=Weights(), own_weights=False)


def axle(job: Job, which: str) -> Job:
    """Say which axle should have less: ``rear``, ``front``, or empty for the short one."""
    return _with(job, axle=which)


def gas(job: Job, *, on: bool) -> Job:
    """Keep gas away from what can ignite it, or not."""
    return _with(job, gas=on)


def wish_of(job: Job, new: Arranging) -> Job:
    """Take wishes whole, as from a file."""
    return msgspec.structs.replace(job, arrange=new)


def taken(job: Job, offers: Sequence[Job], index: int, *, others: bool = True) -> Job:
    """Take a layout in hand as one step; the one there was and the other offers stand beside it as variants.

    Args:
        others: Whether the other offers become variants too.
    Returns: With the layout; what was wanted and is placed is wanted no more. Variants beyond twelve are left out.
    Raises:
        EditError: There is no such offer.
    """
    if not 0 <= index < len(offers):
        raise EditError("there is no such layout", "arrange", "Choose one of those offered.")
    chosen = offers[index]
    names = {job.layout, *(v.name for v in job.variants)}
    variants = list(job.variants)

    def keep(name: str, units: tuple[Unit, ...]) -> None:
        same = any(v.units == units and v.carried == job.carried for v in variants)
        if len(variants) < MOST_VARIANTS and units and not same:
            key = layouts.slug(name, {v.id for v in variants})
            variants.append(Variant(id=key, name=name, units=units, carried=job.carried))

    keep(job.layout, job.units)
    mine = _free_name("Arranged", names)
    names.add(mine)
    for n, other in enumerate(offers):
        if others and n != index and other.units != job.units:
            name = _free_name("Arranged otherwise", names)
            names.add(name)
            keep(name, other.units)
    ids = {u.id for u in chosen.units}
    done = _with(job, wanted=tuple(u for u in job.arrange.wanted if u.id not in ids))
    return msgspec.structs.replace(done, units=chosen.units, layout=mine, variants=tuple(variants))


def _free_name(word: str, names: set[str]) -> str:
    """A name that is not taken: the word, or with a number."""
    name, n = word, 2
    while name in names:
        name, n = f"{word} {n}", n + 1
    return name
