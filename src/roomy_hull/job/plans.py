"""The plan of a build: when it begins and is due, when the vehicle is here, what was fixed by hand."""

from typing import Annotated

from msgspec import Meta

from roomy_hull.core.card import shown
from roomy_hull.core.days import day_of
from roomy_hull.core.value import Id, Name, Value
from roomy_hull.job.brief import Day

OpKey = Annotated[str, Meta(max_length=160)]
"""What an operation belongs to and what it is, such as ``unit:galley:weld``."""
Hours = Annotated[float, Meta(ge=0, le=2000, description="h")]


def _checked(**days: str) -> None:
    for name, day in days.items():
        if day and day_of(day) is None:
            raise ValueError(f"{name.replace('_', ' ')}: the calendar has no {day}")


class Held(Value, frozen=True, kw_only=True):
    """What was fixed by hand of one operation: not before a day and an hour of it, by whom, how long. [h]

    An `hours` of 0 leaves it as the rates say, an empty `person` to whoever is free.
    """

    op: OpKey
    day: Day = ""
    hour: Annotated[float, Meta(ge=0, le=24, description="h of the working day")] = 0.0
    person: Annotated[str, Meta(max_length=40)] = ""
    hours: Hours = 0.0

    def __post_init__(self) -> None:
        """Refuse a day that no calendar has.

        Raises:
            ValueError: Names the day.
        """
        _checked(day=self.day)


class Extra(Value, frozen=True, kw_only=True):
    """An operation that no drawing shows: fetching, a trip to the registry, upholstery outside. [h, working days]

    `after` and `before` are keys of operations; `days` it waits for others without a hand of the shop.
    """

    id: Id
    name: Name
    hours: Hours = 1.0
    trade: Annotated[str, Meta(max_length=20)] = "bench"
    station: Annotated[str, Meta(max_length=40)] = ""
    days: Annotated[float, Meta(ge=0, le=200)] = 0.0
    after: Annotated[tuple[OpKey, ...], Meta(max_length=40)] = ()
    before: Annotated[tuple[OpKey, ...], Meta(max_length=40)] = ()


class Plan(Value, frozen=True, kw_only=True):
    """When a build begins and is due, when the vehicle is in the shop, whether it is coated.

    `own` are operations that no drawing shows; `order` is the best order that was found for all of them so far.

    `begin` empty: nothing is planned yet. `recheck` is the day of the next visit after handing over.
    `rank` says which of several jobs goes first: 1 before 9.
    """

    begin: Annotated[Day, shown("Begins", "YYYY-MM-DD; empty: nothing is planned")] = ""
    due: Annotated[Day, shown("Due", "YYYY-MM-DD")] = ""
    vehicle_from: Annotated[Day, shown("Vehicle comes", "YYYY-MM-DD")] = ""
    vehicle_to: Annotated[Day, shown("Vehicle leaves", "YYYY-MM-DD")] = ""
    recheck: Annotated[Day, shown("Re-check visit", "YYYY-MM-DD; after the first 500 km and at 5,000 km")] = ""  # fmt: skip
    coated: Annotated[bool, shown("Powder coated", "Everything made goes out for it")] = False
    rank: Annotated[int, Meta(ge=1, le=9), shown("Rank", "Among the workshop's jobs: 1 goes before 9")] = 5  # fmt: skip
    held: Annotated[tuple[Held, ...], Meta(max_length=400)] = ()
    order: Annotated[tuple[OpKey, ...], Meta(max_length=4000)] = ()
    own: Annotated[tuple[Extra, ...], Meta(max_length=100)] = ()

    def __post_init__(self) -> None:
        """Refuse extras of one id, and days that no calendar has.

        Raises:
            ValueError: Names the id or the day.
        """
        _checked(begin=self.begin, due=self.due, vehicle_from=self.vehicle_from, vehicle_to=self.vehicle_to,
                 recheck=self.recheck)  # fmt: skip
        ids = [x.id for x in self.own]
        for one in ids:
            if ids.count(one) > 1:
                raise ValueError(f"the id '{one}' stands twice among the plan's own operations")
