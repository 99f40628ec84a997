"""Edits of goods and of the party: added, stowed, changed, taken off the list, many at once."""

from collections.abc import Iterable
from typing import Any

import msgspec

from roomy_hull.core.errors import EditError
from roomy_hull.core.value import refusal
from roomy_hull.job.edits.layouts import slug
from roomy_hull.job.goods import CAB, MOST_GOODS, Berth, Dog, Good, Party, Person
from roomy_hull.job.model import Job


def _with(job: Job, goods: tuple[Good, ...]) -> Job:
    return msgspec.structs.replace(job, goods=goods)


def with_goods(job: Job, new: Iterable[Good]) -> Job:
    """Add goods; an id that is taken gets a number.

    Raises:
        EditError: They are more than a job holds.
    """
    rows = list(new)
    if len(job.goods) + len(rows) > MOST_GOODS:
        raise EditError(
            f"{len(job.goods) + len(rows)} goods are more than the {MOST_GOODS} that a job holds", "goods",
            "Put small things together as one, such as 'cutlery'.",
        )  # fmt: skip
    taken, made = {g.id for g in job.goods}, []
    for good in rows:
        key = slug(good.id or good.name, taken)
        taken.add(key)
        made.append(msgspec.structs.replace(good, id=key))
    return _with(job, (*job.goods, *made))


def with_good(job: Job, name: str, place: str = "") -> Job:
    """Add one good by its name, in a place or not stowed yet."""
    return with_goods(job, [Good(id=slug(name, set()), name=name, mass=1.0, place=place)])


def _index(job: Job, key: str) -> int:
    """Where a good is in the list.

    Raises:
        EditError: There is no such good.
    """
    n = next((n for n, g in enumerate(job.goods) if g.id == key), -1)
    if n < 0:
        raise EditError(f"there is no good '{key}'", "goods", "Choose one first.")
    return n


def changed(job: Job, key: str, **changes: Any) -> Job:
    """Change a good.

    Raises:
        EditError: There is no such good, or a value is not allowed.
    """
    n = _index(job, key)
    try:
        new = job.goods[n].but(**changes)
    except (msgspec.ValidationError, ValueError) as trouble:
        raise EditError(refusal(trouble), job.goods[n].name, "The old value is kept.") from None
    return _with(job, (*job.goods[:n], new, *job.goods[n + 1 :]))


def stowed(job: Job, key: str, place: str, part: str = "") -> Job:
    """Put a good into a unit, a carried thing, a box under the tray, the cab, or nowhere.

    Raises:
        EditError: There is no such good or place.
    """
    if place not in ("", CAB) and place not in job.holders():
        raise EditError(
            f"there is no '{place}' to stow it in",
            "goods",
            "Choose a unit of the job, or a box under its tray.",
        )
    return changed(job, key, place=place, part=part)


def without(job: Job, key: str) -> Job:
    """Take a good off the list.

    Raises:
        EditError: There is no such good.
    """
    n = _index(job, key)
    return _with(job, (*job.goods[:n], *job.goods[n + 1 :]))


def with_person(job: Job) -> Job:
    """Add somebody to the party, of a middle stature."""
    taken = {p.id for p in job.party.people}
    new = Person(id=slug(f"person-{len(taken) + 1}", taken), name=f"Person {len(taken) + 1}")
    return _party(job, people=(*job.party.people, new))


def with_dog(job: Job) -> Job:
    """Add a dog of a middle size."""
    taken = {d.id for d in job.party.dogs}
    new = Dog(id=slug(f"dog-{len(taken) + 1}", taken), name=f"Dog {len(taken) + 1}")
    return _party(job, dogs=(*job.party.dogs, new))


def with_berth(job: Job, thing: str = "") -> Job:
    """Add a berth, of a thing of the job or for itself."""
    taken = {b.id for b in job.party.berths}
    known = job.thing(thing) if thing else None
    new = Berth(
        id=slug("berth", taken), name=known.name if known is not None else "Berth", thing=thing
    )
    return _party(job, berths=(*job.party.berths, new))


def without_of_party(job: Job, key: str) -> Job:
    """Take somebody, a dog or a berth out of the party: ``people.ID``, ``dogs.ID`` or ``berths.ID``.

    Raises:
        EditError: There is no such one.
    """
    group, _, name = key.partition(".")
    rows = getattr(job.party, group, ()) if group in ("people", "dogs", "berths") else ()
    left = tuple(x for x in rows if x.id != name)
    if len(left) == len(rows):
        raise EditError(f"there is no '{key}' in the party", "party", "Choose one first.")
    return _party(job, **{group: left})


def _party(job: Job, **changes: Any) -> Job:
    try:
        party: Party = job.party.but(**changes)
    except (msgspec.ValidationError, ValueError) as trouble:
        raise EditError(refusal(trouble), "party", "The old value is kept.") from None
    return msgspec.structs.replace(job, party=party)
