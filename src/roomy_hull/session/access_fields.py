"""The few parameters of goods and of the party, as the card shows them in the stage Access."""

from roomy_hull.core.uncertainty import RELATIVE_UNCERTAINTY
from roomy_hull.job.goods import CAB, WHENS
from roomy_hull.job.model import Job
from roomy_hull.kinds.card import Field, choice, number


def good_fields(job: Job, key: str) -> tuple[Field, ...]:
    """Of one good."""
    p = f"goods.{key}."
    places = ["", CAB, *job.holders()]
    return (
        Field(p + "name", "Description", "text"),
        Field(p + "mass", "One piece", "mass"),
        number(p + "count", "Pieces", "How many"),
        choice(
            p + "mass_source", "Mass known by", "Decides its uncertainty", *RELATIVE_UNCERTAINTY
        ),
        Field(p + "length", "Long", "length", "0 where nobody measured"),
        Field(p + "width", "Wide", "length", "0 where nobody measured"),
        Field(p + "height", "High", "length", "0 where nobody measured"),
        Field(p + "litres", "Volume", "volume", "Where it has no size of its own"),
        choice(p + "place", "Stowed in", "Or drag it onto the drawing", *places),
        Field(p + "part", "Compartment", "text", "Of a stack: 1, 2 …"),
        choice(p + "use", "Wanted", "now: one action, nothing lifted", *WHENS),
        Field(
            p + "nature",
            "Nature",
            "words",
            "clean food wet dirty fuel gas sharp fragile heavy recovery",
        ),
        Field(p + "only", "Aboard only in", "words", "Ids of scenarios; all where empty"),
        Field(p + "note", "Note", "text"),
    )


def person_fields(key: str) -> tuple[Field, ...]:
    """Of somebody of the party."""
    p = f"party.people.{key}."
    return (
        Field(p + "name", "Name", "text"),
        Field(p + "stature", "Stature", "length"),
        number(p + "pull", "Pulls, N", "With one hand", whole=False),
        Field(p + "cooks", "Cooks", "yes"),
    )


def dog_fields(job: Job, key: str) -> tuple[Field, ...]:
    """Of a dog, by the live-animal rule."""
    p = f"party.dogs.{key}."
    return (
        Field(p + "name", "Name", "text"),
        Field(p + "a", "Nose to tail, A", "length", "To the root of the tail"),
        Field(p + "b", "Elbow, B", "length", "Over the ground"),
        Field(p + "c", "Breadth, C", "length", "Of the broadest part"),
        Field(p + "d", "Height, D", "length", "Standing, to the ears"),
        choice(p + "place", "Travels in", "", "", *(u.id for u in job.units)),
    )


def berth_fields(job: Job, key: str) -> tuple[Field, ...]:
    """Of a berth."""
    p = f"party.berths.{key}."
    things = ["", *(u.id for u in job.units), *(c.id for c in job.carried)]
    return (
        Field(p + "name", "Name", "text"),
        choice(p + "thing", "Belongs to", "", *things),
        Field(p + "length", "Long", "length", "Clear"),
        Field(p + "width", "Wide", "length", "Clear"),
        Field(p + "height", "High", "length", "Over the mattress"),
        Field(p + "sleepers", "Sleep there", "words", "Ids of the party; all where empty"),
    )


def access_fields(job: Job, key: str) -> tuple[Field, ...]:
    """The parameters of what is chosen in Access.

    Args:
        key: ``goods.ID``, ``people.ID``, ``dogs.ID`` or ``berths.ID``; else nothing.
    Returns: By their paths in the job.
    """
    group, _, name = key.partition(".")
    if group == "goods" and any(g.id == name for g in job.goods):
        return good_fields(job, name)
    if group == "people" and any(p.id == name for p in job.party.people):
        return person_fields(name)
    if group == "dogs" and any(d.id == name for d in job.party.dogs):
        return dog_fields(job, name)
    if group == "berths" and any(b.id == name for b in job.party.berths):
        return berth_fields(job, name)
    return ()
