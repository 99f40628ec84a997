"""What runs through the furniture: batteries, what uses power and gives it, a trip to live through, signatures."""

import datetime
from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.value import Fraction, Id, Name, Value

Ref = Annotated[str, Meta(max_length=60)]
"""The id of a unit or carried thing; empty for none."""
Watts = Annotated[float, Meta(ge=0, le=20000, description="W")]
Amps = Annotated[float, Meta(ge=0, le=1000, description="A")]
Hours = Annotated[float, Meta(ge=0, le=24, description="h")]
Celsius = Annotated[float, Meta(ge=-50, le=60, description="°C")]
Metres = Annotated[float, Meta(ge=0, le=60, description="m; 0 for computed")]
Area = Annotated[float, Meta(ge=0, le=120, description="mm²; 0 for chosen by the program")]
At = Annotated[float, Meta(ge=-20000, le=20000, description="mm")]
Chemistry = Literal["lithium iron", "AGM", "lead-acid"]


class Battery(Value, frozen=True, kw_only=True):
    """A house battery: the unit that it is, and its data sheet. `usable` is the part one wants to draw. [Ah, mΩ, °C]"""

    thing: Id
    chemistry: Chemistry = "lithium iron"
    ah: Annotated[float, Meta(ge=1, le=2000, description="Ah, 1 or more")] = 100.0
    usable: Annotated[float, Meta(ge=0.05, le=1, description="0.05 to 1")] = 0.9
    resistance: Annotated[float, Meta(ge=0.1, le=100, description="mΩ")] = 4.0
    coldest: Celsius = 0.0


class Wire(Value, frozen=True, kw_only=True):
    """What may be given by hand of a circuit; zeros are computed or chosen. [m, mm², A]"""

    metres: Metres = 0.0
    area: Area = 0.0
    fuse: Amps = 0.0
    careful: bool = True
    engine_bay: bool = False


class Consumer(Value, frozen=True, kw_only=True):
    """Something that uses power: a unit, or a thing at a place of its own.

    It runs from `begin` for `hours` with a `share` of its watts, and draws `idle` always. A fridge says in `day_wh` what
    its data sheet takes a day at `rated_air`, its `box` temperature, and in `warm_kg` what is put in warm every day.
    `mains` goes through the inverter. [W, h, Wh, °C, kg, mm]
    """

    id: Id
    name: Name
    thing: Ref = ""
    x: At = 0.0
    y: At = 0.0
    z: At = 0.0
    watts: Watts = 0.0
    share: Fraction = 1.0
    begin: Hours = 18.0
    hours: Hours = 4.0
    idle: Watts = 0.0
    mains: bool = False
    day_wh: Annotated[float, Meta(ge=0, le=20000, description="Wh a day")] = 0.0
    rated_air: Celsius = 25.0
    box: Celsius = 4.0
    warm_kg: Annotated[float, Meta(ge=0, le=100, description="kg a day")] = 0.0
    ignites: bool = False
    wire: Wire = Wire()

    def __post_init__(self) -> None:
        """Refuse a fridge that is rated at its own temperature.

        Raises
        ------
        ValueError
            Names the figures.
        """
        if self.day_wh and self.rated_air <= self.box + 1:
            raise ValueError(
                f"consumer {self.id}: rated_air {self.rated_air:g} has to be warmer than its box at {self.box:g}"
            )

    def runs(self, hour: int) -> bool:
        """Whether it runs as an hour of the day begins."""
        return (hour - self.begin) % 24 < self.hours


class Source(Value, frozen=True, kw_only=True):
    """What gives power, through a charger: the alternator while driving, or panels in the sun.

    `amps` is the charger's limit; `watts`, `tilt` and `facing` (azimuth) are the panel's. [A, W, °]
    """

    id: Id
    name: Name
    kind: Literal["alternator", "sun"] = "alternator"
    charger: Ref = ""
    thing: Ref = ""
    amps: Amps = 30.0
    watts: Watts = 0.0
    tilt: Annotated[float, Meta(ge=0, le=90, description="degrees")] = 0.0
    facing: Annotated[float, Meta(ge=0, le=360, description="degrees")] = 0.0
    wire: Wire = Wire()


class Inverter(Value, frozen=True, kw_only=True):
    """Makes mains voltage: the unit that it is, and its data sheet. [W]"""

    thing: Ref = ""
    watts: Watts = 2000.0
    efficiency: Annotated[float, Meta(ge=0.3, le=1, description="0.3 to 1")] = 0.9
    idle: Watts = 12.0
    leakage: bool = True
    wire: Wire = Wire()


class Day(Value, frozen=True, kw_only=True):
    """One day of a trip. [h, 0 to 1, °C]"""

    drive_from: Hours = 9.0
    drive: Hours = 0.0
    cloud: Fraction = 0.3
    warm: Celsius = 26.0
    cool: Celsius = 14.0
    showers: Annotated[int, Meta(ge=0, le=20)] = 0
    meals: Annotated[int, Meta(ge=0, le=12)] = 2


Days = Annotated[tuple[Day, ...], Meta(max_length=60)]


class Trip(Value, frozen=True, kw_only=True):
    """Days away from everything: when, where, with whom, and how full one starts."""

    name: Name = ""
    begin: Annotated[str, Meta(max_length=10)] = "2026-03-01"
    latitude: Annotated[float, Meta(ge=-90, le=90, description="degrees north")] = 0.0
    longitude: Annotated[float, Meta(ge=-180, le=180, description="degrees east")] = 0.0
    haze: Annotated[float, Meta(ge=1, le=10, description="Linke turbidity")] = 3.0
    people: Annotated[int, Meta(ge=0, le=20)] = 2
    charge: Fraction = 1.0
    water: Fraction = 1.0
    gas: Fraction = 1.0
    days: Days = ()

    def __post_init__(self) -> None:
        """Refuse a day that there is not.

        Raises
        ------
        ValueError
            Says how to write it.
        """
        try:
            year = datetime.date.fromisoformat(self.begin).year
        except ValueError:
            year = 0
        if not 1950 <= year <= 2050:
            raise ValueError(
                f"the trip's begin '{self.begin}' is no day from 1950 to 2050; write 2026-03-01"
            )


class Uses(Value, frozen=True, kw_only=True):
    """What is used, and through what it runs: water a head and a day, a shower, a meal; hose, tap, burner, air.

    `tap` is the height of the tap over the ground. [l, mm, m, kW, h, l/min]
    """

    drink: Annotated[float, Meta(ge=0, le=100, description="l")] = 6.0
    shower: Annotated[float, Meta(ge=0, le=100, description="l")] = 8.0
    meal: Annotated[float, Meta(ge=0, le=100, description="l")] = 2.5
    tap: At = 900.0
    hose: Annotated[float, Meta(ge=4, le=60, description="mm")] = 12.0
    hose_metres: Annotated[float, Meta(ge=0, le=30, description="m")] = 2.0
    burner: Annotated[float, Meta(ge=0, le=30, description="kW")] = 2.5
    meal_burns: Annotated[float, Meta(ge=0, le=12, description="h")] = 0.4
    free_air: Annotated[float, Meta(ge=0, le=1000, description="l/min")] = 70.0
    tyres_low: Annotated[float, Meta(ge=0, le=900, description="kPa")] = 120.0
    tyres_high: Annotated[float, Meta(ge=0, le=900, description="kPa")] = 250.0


class Measured(Value, frozen=True, kw_only=True):
    """What a battery monitor said in one hour of the trip: amperes out are below 0, charge is 0 to 1. [h, V, A]"""

    hour: Annotated[float, Meta(ge=0, le=1440, description="h")]
    volts: Annotated[float, Meta(ge=4, le=80, description="V")]
    amps: Annotated[float, Meta(ge=-2000, le=2000, description="A")]
    charge: Fraction = 1.0


class Signature(Value, frozen=True, kw_only=True):
    """Who signed for what, and when."""

    what: Literal["mains", "gas", "low voltage", "water"]
    name: Name
    date: Annotated[str, Meta(max_length=20)] = ""
    number: Name = ""


class Services(Value, frozen=True, kw_only=True):
    """Everything that runs through the furniture. `board` is the unit that holds the fuses."""

    volts: Literal[12, 24] = 12
    board: Ref = ""
    batteries: Annotated[tuple[Battery, ...], Meta(max_length=12)] = ()
    inverter: Inverter = Inverter()
    consumers: Annotated[tuple[Consumer, ...], Meta(max_length=80)] = ()
    sources: Annotated[tuple[Source, ...], Meta(max_length=12)] = ()
    uses: Uses = Uses()
    trip: Trip = Trip()
    measured: Annotated[tuple[Measured, ...], Meta(max_length=2000)] = ()
    signatures: Annotated[tuple[Signature, ...], Meta(max_length=12)] = ()

    def __post_init__(self) -> None:
        """Refuse ids that stand twice.

        Raises
        ------
        ValueError
            Names the id.
        """
        ids = [c.id for c in self.consumers] + [s.id for s in self.sources]
        for one in ids:
            if ids.count(one) > 1:
                raise ValueError(
                    f"the id '{one}' stands twice among what uses power and what gives it"
                )

    @property
    def begun(self) -> bool:
        """Whether anything of it is entered."""
        return bool(self.batteries or self.consumers or self.sources or self.trip.days)

    @property
    def capacity(self) -> float:
        """What the batteries hold. [Wh]"""
        return sum(b.ah for b in self.batteries) * self.volts

    @property
    def usable(self) -> float:
        """What one wants to draw of it. [Wh]"""
        return sum(b.ah * b.usable for b in self.batteries) * self.volts
