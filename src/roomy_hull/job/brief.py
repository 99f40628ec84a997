"""The brief: what the vehicle is for, who decides what, what is wished for, and what has been offered."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.card import shown
from roomy_hull.core.uncertainty import Source
from roomy_hull.core.value import Fraction, Id, Kg, Litres, Mm, Name, Value

Need = Literal["needed", "wanted", "later"]
NEEDS: tuple[Need, ...] = ("needed", "wanted", "later")
Money = Annotated[float, Meta(ge=0, le=1e7, description="the shop's own money")]
Day = Annotated[
    str, Meta(max_length=10, pattern=r"^(\d{4}-\d{2}-\d{2})?$", description="YYYY-MM-DD, or empty")
]
Roads = Literal["sealed", "gravel", "corrugations", "tracks"]
ROADS: tuple[Roads, ...] = Roads.__args__  # type: ignore[attr-defined]  # a Literal


class Wish(Value, frozen=True, kw_only=True):
    """Something of the brief; `thing` is the id of what was decided for it. [kg, mm, l]

    `x` is where it would be, aft of the front axle, for its share of the axles. `option` names what of an offer it
    belongs to; empty for what is offered in any case. `price` is what it costs bought or as agreed, 0 where the parts
    of `thing` say.
    """

    id: Id
    name: Annotated[Name, shown("Wish")]
    need: Annotated[Need, shown("How", "Needed, wanted, or later")] = "wanted"
    mass: Annotated[Kg, shown("Allowed for it", "What it may weigh")] = 0.0
    mass_source: Annotated[Source, shown("Known by", "Decides its uncertainty")] = "estimate"
    x: Annotated[Mm, shown("Aft of front axle", "Where it would be")] = 0.0
    thing: Annotated[
        str, Meta(max_length=60), shown("Decided as", "The unit or carried thing that fulfils it", quantity="thing")
    ] = ""  # fmt: skip
    price: Annotated[Money, shown("Costs", "Bought or as agreed; 0 where its parts say")] = 0.0
    litres: Annotated[Litres, shown("Takes", "Room; 0 takes that of what was decided")] = 0.0
    place: Annotated[Name, shown("Where", "Before it is decided")] = ""
    reason: Annotated[str, Meta(max_length=400), shown("Why", "What it is for")] = ""
    option: Annotated[Name, shown("Quoted with", "Empty: in any case")] = ""


class Choice(Value, frozen=True, kw_only=True):
    """Which way was chosen where practitioners go different ones, and why."""

    question: Name
    way: Name
    reason: Annotated[str, Meta(max_length=400)] = ""


class Brief(Value, frozen=True, kw_only=True):
    """What the vehicle is for: who travels, how long away, on which roads, what is wished for.

    `work` is the share of days on which it works; `tow` what is towed. `budget_kg` and `budget_money` are the
    customer's; 0 where none is said. `wishes` stand in the order of their rank.
    """

    customer: Annotated[Name, shown("Customer", "For whom it is built")] = ""
    purpose: Annotated[
        str, Meta(max_length=400), shown("What it is for", "Work in the week, touring, how far from a town")
    ] = ""  # fmt: skip
    travellers: Annotated[int, Meta(ge=0, le=20), shown("Travellers", "People who live in it")] = 0
    days: Annotated[float, Meta(ge=0, le=365), shown("Days out", "Between towns")] = 0.0
    work: Annotated[Fraction, shown("At work, %", "Of its days; the others it tours")] = 0.0
    roads: Annotated[Roads, shown("Roads", "The roughest that it goes often")] = "gravel"
    tow: Annotated[Kg, shown("Tows", "0 for nothing")] = 0.0
    budget_kg: Annotated[Kg, shown("May weigh", "All that is wished for together; 0 where none is said")] = 0.0  # fmt: skip
    budget_money: Annotated[Money, shown("May cost", "With tax; 0 where none is said")] = 0.0
    wishes: Annotated[tuple[Wish, ...], Meta(max_length=200)] = ()
    choices: Annotated[tuple[Choice, ...], Meta(max_length=40)] = ()


class OfferLine(Value, frozen=True, kw_only=True):
    """One line of an offer: what, how much of what, for how much; `option` is empty for what is always in it."""

    words: Annotated[str, Meta(max_length=300)]
    option: Name = ""
    amount: Annotated[float, Meta(ge=0, le=1e6)] = 1.0
    unit: Annotated[str, Meta(max_length=12)] = ""
    price: Money = 0.0


class Offer(Value, frozen=True, kw_only=True):
    """What was offered: its number, its day, how long it stands, its lines before margin and tax.

    `content` is a hash of all that was counted, by which it is known whether the job has changed since. `taken` names
    the options that the customer took; `agreed` is the day on which they did.
    """

    number: Annotated[str, Meta(min_length=1, max_length=20)]
    day: Day
    until: Day = ""
    by: Annotated[str, Meta(max_length=40)] = ""
    margin: Annotated[float, Meta(ge=0, le=5)] = 0.0
    tax: Annotated[float, Meta(ge=0, le=1)] = 0.0
    lines: Annotated[tuple[OfferLine, ...], Meta(max_length=400)] = ()
    content: Annotated[str, Meta(max_length=64)] = ""
    taken: Annotated[tuple[Name, ...], Meta(max_length=40)] = ()
    agreed: Day = ""

    @property
    def options(self) -> tuple[str, ...]:
        """Its options, in the order of its lines."""
        return tuple(dict.fromkeys(x.option for x in self.lines if x.option))

    def net(self, option: str = "") -> float:
        """What one option, or the base, costs with its margin, before tax."""
        return sum(x.price for x in self.lines if x.option == option) * (1 + self.margin)

    def gross(self, taken: tuple[str, ...] = ()) -> float:
        """What the base and some options cost, tax included."""
        return sum(self.net(o) for o in ("", *taken)) * (1 + self.tax)
