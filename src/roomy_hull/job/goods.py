"""Goods: what is carried in things and at places, who reaches for it, and where one sleeps."""

from typing import Annotated, Final, Literal

from msgspec import Meta

from roomy_hull.core.capabilities import Wanted
from roomy_hull.core.card import shown
from roomy_hull.core.uncertainty import MassSource
from roomy_hull.core.value import Gap, Id, Kg, Litres, Name, Value

Ref = Annotated[str, Meta(max_length=60)]
Nature = Literal[
    "clean", "food", "wet", "dirty", "fuel", "gas", "sharp", "fragile", "heavy", "recovery"
]
NATURES: tuple[Nature, ...] = Nature.__args__  # type: ignore[attr-defined]  # a Literal
When = Wanted
WHENS: tuple[When, ...] = When.__args__  # type: ignore[attr-defined]  # as above
CAB: Final = "cab"
"""The place of goods that ride with the people."""
MOST_GOODS = 2000
Side = Annotated[float, Meta(ge=0, le=6000, description="mm; 0 where nobody measured")]


class Good(Value, frozen=True, kw_only=True):
    """Something carried: its mass and size are those of one piece. [kg, mm, l]

    `place` is the id of a unit or carried thing, ``tray.box-`` with a toolbox's id, ``tray.trundle``, or ``cab``; empty
    for not stowed yet. `part` is the compartment of it,
    by the name of its motion (``1`` of a stack). `only` are the scenarios in which it is aboard; all where empty.
    """

    id: Id
    name: Annotated[Name, shown("Description")]
    mass: Annotated[Kg, shown("One piece")] = 0.0
    mass_source: MassSource = "estimate"
    count: Annotated[int, Meta(ge=1, le=1000, description="1 or more"), shown("Pieces", "How many")] = 1  # fmt: skip
    length: Annotated[Side, shown("Long", "0 where nobody measured")] = 0.0
    width: Annotated[Side, shown("Wide", "0 where nobody measured")] = 0.0
    height: Annotated[Side, shown("High", "0 where nobody measured")] = 0.0
    litres: Annotated[Litres, shown("Volume", "Where it has no size of its own")] = 0.0
    place: Annotated[Ref, shown("Stowed in", "Or drag it onto the drawing", quantity="holder")] = ""
    part: Annotated[Ref, shown("Compartment", "Of a stack: 1, 2 …")] = ""
    use: Annotated[When, shown("Wanted", "now: one action, nothing lifted")] = "rarely"
    nature: Annotated[
        tuple[Nature, ...], Meta(max_length=6), shown("Nature", "clean food wet dirty fuel gas sharp fragile heavy recovery")
    ] = ()  # fmt: skip
    only: Annotated[
        tuple[Id, ...], Meta(max_length=24), shown("Aboard only in", "Ids of scenarios; all where empty")
    ] = ()  # fmt: skip
    note: Annotated[Name, shown("Note")] = ""

    @property
    def kg(self) -> float:
        """All pieces together. [kg]"""
        return self.mass * self.count

    @property
    def volume(self) -> float:
        """Of all pieces: by their size, else as said; 0 where neither is known. [l]"""
        one = self.length * self.width * self.height / 1e6 or self.litres
        return one * self.count


class Named(Value, frozen=True, kw_only=True):
    """One of the party, or a berth: its id, and its name where it has one."""

    id: Id
    name: Annotated[Name, shown("Name")] = ""

    @property
    def called(self) -> str:
        """Its name, else its id."""
        return self.name or self.id


class Person(Named, frozen=True, kw_only=True):
    """Somebody of the party. [mm, N]"""

    stature: Annotated[float, Meta(ge=900, le=2300, description="mm, 900 to 2300"), shown("Stature")] = 1700.0  # fmt: skip
    pull: Annotated[float, Meta(ge=20, le=800, description="N"), shown("Pulls, N", "With one hand")] = 150.0  # fmt: skip
    cooks: Annotated[bool, shown("Cooks")] = True


class Dog(Named, frozen=True, kw_only=True):
    """A dog by the live-animal rule: A from nose to root of tail, B ground to elbow, C broadest, D height. [mm]"""

    a: Annotated[
        float, Meta(ge=100, le=2000, description="mm"), shown("Nose to tail, A", "To the root of the tail")
    ] = 700.0  # fmt: skip
    b: Annotated[float, Meta(ge=50, le=1000, description="mm"), shown("Elbow, B", "Over the ground")] = 300.0  # fmt: skip
    c: Annotated[
        float, Meta(ge=50, le=800, description="mm"), shown("Breadth, C", "Of the broadest part")
    ] = 200.0
    d: Annotated[
        float, Meta(ge=100, le=1500, description="mm"), shown("Height, D", "Standing, to the ears")
    ] = 600.0
    place: Annotated[Ref, shown("Travels in", quantity="unit")] = ""


class Berth(Named, frozen=True, kw_only=True):
    """Where some sleep: its clear length and width, and the height over the mattress. [mm]

    `thing` is the tent, platform or unit it belongs to; its sleepers are persons of the party.
    """

    thing: Annotated[Ref, shown("Belongs to", quantity="thing")] = ""
    length: Annotated[Gap, shown("Long", "Clear")] = 2000.0
    width: Annotated[Gap, shown("Wide", "Clear")] = 1200.0
    height: Annotated[Gap, shown("High", "Over the mattress")] = 1100.0
    sleepers: Annotated[
        tuple[Id, ...], Meta(max_length=6), shown("Sleep there", "Ids of the party; all where empty")
    ] = ()  # fmt: skip


class Party(Value, frozen=True, kw_only=True):
    """Who travels, and where they and their dogs sleep; two of 1.53 and 1.87 m where nobody is named."""

    people: Annotated[tuple[Person, ...], Meta(max_length=12)] = ()
    dogs: Annotated[tuple[Dog, ...], Meta(max_length=6)] = ()
    berths: Annotated[tuple[Berth, ...], Meta(max_length=8)] = ()

    def __post_init__(self) -> None:
        """Refuse ids that stand twice.

        Raises:
            ValueError: Names the id.
        """
        for words, rows in (("people", self.people), ("dogs", self.dogs), ("berths", self.berths)):
            ids = [x.id for x in rows]
            for one in ids:
                if ids.count(one) > 1:
                    raise ValueError(f"the id '{one}' stands twice among the {words} of the party")


BAND = (
    Person(id="short", name="Short, 1.53 m", stature=1530.0, pull=120.0),
    Person(id="tall", name="Tall, 1.87 m", stature=1870.0, pull=180.0),
)
"""About a 5th-percentile woman and a 95th-percentile man (from memory); what they pull with one hand: common practice."""


def people(party: Party) -> tuple[Person, ...]:
    """Who is asked whether they reach: the party, else the usual band."""
    return party.people or BAND
