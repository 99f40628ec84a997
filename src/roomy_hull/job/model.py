"""The Job itself, its scenarios and what was accepted."""

from typing import Annotated, Final, Literal

from msgspec import Meta

from roomy_hull.core.card import shown
from roomy_hull.core.value import Fraction, Id, Kg, Mm, Name, Value
from roomy_hull.job.arranging import Arranging
from roomy_hull.job.body import Body
from roomy_hull.job.brief import Brief, Offer
from roomy_hull.job.carried import Carried
from roomy_hull.job.goods import MOST_GOODS, Good, Party
from roomy_hull.job.logs import MOST_ENTRIES, Entry
from roomy_hull.job.plans import Plan
from roomy_hull.job.releases import Release
from roomy_hull.job.services import Services
from roomy_hull.job.setups import SetUp
from roomy_hull.job.survey import Survey
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kinds.registry import Unit

OpeningId = Annotated[str, Meta(min_length=1, max_length=120)]
"""A thing's id, with `:` and the name of the motion where it has several, or `door:` and a door's id."""
FORMAT = "roomy-hull-job"
VERSION: Final = 3
WRITTEN_BY = "written_by"
"""The field that says which version of the program wrote a file; it is no part of the job."""
MOST_ACCEPTED = 500


class Scenario(Value, frozen=True, kw_only=True):
    """Which things are aboard and how full. `people` are the masses on the seats, in order.

    `setup` names what is on the vehicle then; with none everything is. `canopy`, `sides` and `left_behind` take
    more off.
    """

    id: Id
    name: Annotated[Name, shown("Scenario", "What the workshop calls it")]
    people: Annotated[tuple[Kg, ...], Meta(max_length=9)] = ()
    fuel: Annotated[Fraction, shown("Fuel, %", "Of every tank")] = 1.0
    water: Annotated[Fraction, shown("Water, %", "Of every tank")] = 1.0
    contents: Annotated[Fraction, shown("Contents, %", "Of what units and boxes hold when full")] = 1.0  # fmt: skip
    setup: Annotated[
        str, Meta(max_length=60), shown("Set-up", "What is on the vehicle; empty for everything", quantity="set-up")
    ] = ""  # fmt: skip
    canopy: Annotated[bool, shown("Canopy on", "Off, all that is on it stays at home")] = True
    sides: Annotated[bool, shown("Drop sides on")] = True
    left_behind: tuple[Id, ...] = ()
    ball: Annotated[Kg, shown("On the ball", "Usually a tenth of the trailer")] = 0.0
    trailer: Annotated[
        Kg, shown("Trailer", "Its whole mass, what stands on the ball included; 0 for none")
    ] = 0.0


class Weighing(Value, frozen=True, kw_only=True):
    """What scales said, in one scenario. A zero was not read. [kg]

    Either the wheels were read or the axles. `scale` is the one-sigma doubt of one reading. Where one
    axle was raised by `raised_by` [mm], `raised_kg` is what the other axle then carried: it gives the
    height of the centre of mass. `counts` says whether the predictions follow it.
    """

    id: Id
    scenario: Id
    date: Annotated[str, Meta(max_length=20)] = ""
    place: Name = ""
    front: Kg = 0.0
    rear: Kg = 0.0
    front_left: Kg = 0.0
    front_right: Kg = 0.0
    rear_left: Kg = 0.0
    rear_right: Kg = 0.0
    scale: Annotated[float, Meta(ge=0.01, le=200, description="kg")] = 5.0
    raised: Literal["front", "rear"] = "front"
    raised_by: Mm = 0.0
    raised_kg: Kg = 0.0
    counts: bool = True
    note: Name = ""

    def wheels(self) -> dict[str, float]:
        """The wheels' readings, by end and side; empty unless all four were read. [kg]"""
        found = {"front left": self.front_left, "front right": self.front_right,
                 "rear left": self.rear_left, "rear right": self.rear_right}  # fmt: skip
        return found if all(v > 0 for v in found.values()) else {}

    def axles(self) -> dict[str, float]:
        """The axles' readings, those of the wheels where these were read. [kg]"""
        wheels = self.wheels()
        if wheels:
            return {
                "front": self.front_left + self.front_right,
                "rear": self.rear_left + self.rear_right,
            }
        return {k: v for k, v in (("front", self.front), ("rear", self.rear)) if v > 0}


class Acceptance(Value, frozen=True, kw_only=True):
    """A *look* that somebody accepted, with a reason and initials, the day, and what was measured then.

    Of a finding that was accepted more than once the last record holds; earlier ones stay to be read. Records of older
    files have no day and no figure.
    """

    code: Name
    subjects: tuple[str, ...] = ()
    scenario: str = ""
    reason: Annotated[str, Meta(min_length=1, max_length=400)]
    initials: Annotated[str, Meta(min_length=1, max_length=8)]
    day: Annotated[str, Meta(max_length=10, pattern=r"^(\d{4}-\d{2}-\d{2})?$")] = ""
    measured: float | None = None
    limit: float | None = None
    unit: Annotated[str, Meta(max_length=40)] = ""


class TogetherSet(Value, frozen=True, kw_only=True):
    """What the owner wants open at the same time; `members` are ids of openings."""

    id: Id
    name: Name
    members: Annotated[tuple[OpeningId, ...], Meta(min_length=1, max_length=40)]


class Move(Value, frozen=True, kw_only=True):
    """One action of a run-through: something opened, closed or taken out, or the canopy off or on."""

    do: Literal["open", "close", "take out", "canopy off", "canopy on"]
    what: Annotated[str, Meta(max_length=120)] = ""


class RunThrough(Value, frozen=True, kw_only=True):
    """A sequence that has to go through without a conflict, such as making camp."""

    id: Id
    name: Name
    moves: Annotated[tuple[Move, ...], Meta(min_length=1, max_length=100)]


class Variant(Value, frozen=True, kw_only=True):
    """Another layout of the same body, kept beside the one in hand."""

    id: Id
    name: Name
    units: Annotated[tuple[Unit, ...], Meta(max_length=1000)] = ()
    carried: Annotated[tuple[Carried, ...], Meta(max_length=200)] = ()


def _twice(ids: list[str]) -> str | None:
    """Find the first id that stands twice."""
    return None if len(set(ids)) == len(ids) else next(i for i in ids if ids.count(i) > 1)


class Job(Value, frozen=True, kw_only=True):
    """One vehicle's build as one immutable value; an edit makes a new one."""

    format: Literal["roomy-hull-job"] = "roomy-hull-job"
    version: Literal[3] = VERSION
    name: Name
    note: Annotated[str, Meta(max_length=4000)] = ""
    vehicle: Vehicle
    body: Body
    units: Annotated[tuple[Unit, ...], Meta(max_length=1000)] = ()
    carried: Annotated[tuple[Carried, ...], Meta(max_length=200)] = ()
    scenarios: Annotated[tuple[Scenario, ...], Meta(min_length=1, max_length=24)]
    setups: Annotated[tuple[SetUp, ...], Meta(max_length=8)] = ()
    sets: Annotated[tuple[TogetherSet, ...], Meta(max_length=40)] = ()
    runs: Annotated[tuple[RunThrough, ...], Meta(max_length=40)] = ()
    layout: Name = "A"
    variants: Annotated[tuple[Variant, ...], Meta(max_length=12)] = ()
    arrange: Arranging = Arranging()
    survey: Survey = Survey()
    brief: Brief = Brief()
    services: Services = Services()
    goods: Annotated[tuple[Good, ...], Meta(max_length=MOST_GOODS)] = ()
    party: Party = Party()
    releases: Annotated[tuple[Release, ...], Meta(max_length=60)] = ()
    offers: Annotated[tuple[Offer, ...], Meta(max_length=40)] = ()
    plan: Plan = Plan()
    log: Annotated[tuple[Entry, ...], Meta(max_length=MOST_ENTRIES)] = ()
    weighings: Annotated[tuple[Weighing, ...], Meta(max_length=40)] = ()
    accepted: Annotated[tuple[Acceptance, ...], Meta(max_length=MOST_ACCEPTED)] = ()

    def __post_init__(self) -> None:
        """Refuse ids used twice, and units whose bay does not exist.

        Raises:
            ValueError: Names the unit or scenario and the remedy.
        """
        ids = [u.id for u in self.units] + [c.id for c in self.carried]
        ids += [r.id for r in self.body.rooms] + [r.id for r in self.body.racks]
        if (twice := _twice(ids)) is not None:
            raise ValueError(f"the id '{twice}' stands twice; give each unit its own")
        for plural, listed in (
            ("scenarios", self.scenarios), ("set-ups", self.setups), ("sets", self.sets), ("run-throughs", self.runs),
            ("variants", self.variants), ("weighings", self.weighings), ("wishes", self.brief.wishes),
            ("goods", self.goods), ("log entries", self.log),
        ):  # fmt: skip
            if _twice([x.id for x in listed]) is not None:
                raise ValueError(f"two {plural} share an id; give each its own")
        for variant in self.variants:
            if _twice([u.id for u in variant.units] + [c.id for c in variant.carried]) is not None:
                raise ValueError(f"variant '{variant.id}' has an id twice; give each unit its own")
        bays = {b.id for b in self.body.bays()}
        for unit in (*self.units, *(u for v in self.variants for u in v.units)):
            if unit.bay not in bays:
                raise ValueError(
                    f"unit '{unit.id}' is in bay '{unit.bay}', which does not exist; "
                    f"use one of: {', '.join(sorted(bays)) or 'none (the body has no bays)'}"
                )
        self._check_scenarios()

    def _check_scenarios(self) -> None:
        """Refuse scenarios that the vehicle or the others do not allow."""
        names = [s.id for s in self.scenarios]
        for scenario in self.scenarios:
            if len(scenario.people) > len(self.vehicle.seats):
                raise ValueError(
                    f"scenario '{scenario.id}' has {len(scenario.people)} people for "
                    f"{len(self.vehicle.seats)} seats"
                )
            if scenario.setup and scenario.setup not in {s.id for s in self.setups}:
                raise ValueError(
                    f"scenario '{scenario.id}' belongs to the set-up '{scenario.setup}', which does not exist; "
                    f"use one of: {', '.join(s.id for s in self.setups) or 'none (the job has no set-ups)'}"
                )
            if any(
                kg > 0 and not seat.fitted
                for kg, seat in zip(scenario.people, self.vehicle.seats, strict=False)
            ):
                raise ValueError(
                    f"scenario '{scenario.id}' has somebody on a seat that is taken out; make it 0 there"
                )
            if scenario.ball > scenario.trailer:
                raise ValueError(
                    f"scenario '{scenario.id}': ball mass {scenario.ball:g} kg is more than "
                    f"the trailer's {scenario.trailer:g} kg; the ball mass is part of the trailer"
                )
        for weighing in self.weighings:
            if weighing.scenario not in names:
                raise ValueError(
                    f"weighing '{weighing.id}' belongs to the scenario '{weighing.scenario}', which does "
                    f"not exist; use one of: {', '.join(names)}"
                )

    def holders(self) -> dict[str, str]:
        """Everything but the cab that goods can be in: the place they name, and what it is called."""
        things: tuple[Unit | Carried, ...] = (*self.units, *self.carried)
        found = {t.id: t.name for t in things}
        return found | {k: n for k, n in self.body.tray.holders().items() if k not in found}

    def setup(self, key: str) -> SetUp | None:
        """Find a set-up by id."""
        return next((s for s in self.setups if s.id == key), None)

    def thing(self, key: str) -> Unit | Carried | None:
        """Find a unit or carried item by id."""
        for unit in self.units:
            if unit.id == key:
                return unit
        for item in self.carried:
            if item.id == key:
                return item
        return None
