"""What runs through the furniture: batteries, what uses power and gives it, a trip to live through, signatures."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.value import Fraction, Id, Name, Value
from roomy_hull.job.trips import Celsius, Degrees, Hours, Trip

Ref = Annotated[str, Meta(max_length=60)]
"""The id of a unit or carried thing; empty for none."""
Watts = Annotated[float, Meta(ge=0, le=20000, description="W")]
Amps = Annotated[float, Meta(ge=0, le=1000, description="A")]
Metres = Annotated[float, Meta(ge=0, le=60, description="m; 0 for computed")]
Area = Annotated[float, Meta(ge=0, le=120, description="mm²; 0 for chosen by the program")]
At = Annotated[float, Meta(ge=-20000, le=20000, description="mm")]
Side = Literal["", "left", "right", "rear"]
Signed = Literal["mains", "gas", "low voltage", "water"]
Crossing = Literal["tray | canopy", "vehicle | tray", "vehicle | canopy"]
Chemistry = Literal["lithium iron", "AGM", "lead-acid"]


class Battery(Value, frozen=True, kw_only=True):
    """A house battery: the unit that it is, and its data sheet. `usable` is the part one wants to draw.

    It is charged from `coldest` to `hottest`, with `takes` at most (0: what its kind usually takes). A power station is
    a battery whose unit is also the inverter's. [Ah, mΩ, °C, A]
    """

    thing: Id
    chemistry: Chemistry = "lithium iron"
    ah: Annotated[float, Meta(ge=1, le=2000, description="Ah, 1 or more")] = 100.0
    usable: Annotated[float, Meta(ge=0.05, le=1, description="0.05 to 1")] = 0.9
    resistance: Annotated[float, Meta(ge=0.1, le=100, description="mΩ")] = 4.0
    coldest: Celsius = 0.0
    hottest: Celsius = 50.0
    takes: Amps = 0.0


class Wire(Value, frozen=True, kw_only=True):
    """What may be given by hand of a circuit; zeros are computed or chosen. [m, mm², A]

    `fused` says that there is a fuse at all, `fuse_at` how far from where the power comes from. [mm]
    """

    metres: Metres = 0.0
    area: Area = 0.0
    fuse: Amps = 0.0
    careful: bool = True
    engine_bay: bool = False
    fused: bool = True
    fuse_at: Annotated[float, Meta(ge=0, le=20000, description="mm")] = 150.0


class Consumer(Value, frozen=True, kw_only=True):
    """Something that uses power: a unit, or a thing at a place of its own.

    It runs from `begin` for `hours` with a `share` of its watts, and draws `idle` always. A fridge says in `day_wh` what
    its data sheet takes a day at `rated_air`, its `box` temperature, and in `warm_kg` what is put in warm every day.
    `mains` goes through the inverter. A `light` names the units that switch it; what `serves` a side belongs there.
    [W, h, Wh, °C, kg, mm]
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
    light: bool = False
    switches: Annotated[tuple[Id, ...], Meta(max_length=6)] = ()
    serves: Side = ""
    wire: Wire = Wire()

    def __post_init__(self) -> None:
        """Refuse a fridge that is rated at its own temperature.

        Raises:
            ValueError: Names the figures.
        """
        if self.day_wh and self.rated_air <= self.box + 1:
            raise ValueError(
                f"consumer {self.id}: rated_air {self.rated_air:g} has to be warmer than its box at {self.box:g}"
            )

    def runs(self, hour: int) -> bool:
        """Whether it runs as an hour of the day begins."""
        return (hour - self.begin) % 24 < self.hours


class Source(Value, frozen=True, kw_only=True):
    """What gives power, through a charger: the alternator while driving, panels in the sun, or mains where plugged in.

    `amps` is the charger's limit; `watts`, `tilt` and `facing` (azimuth) are the panel's. It lies in the middle of the
    roof, or with its middle at `x` and `y`, `long` and `wide`; 0 is by its watts. `shaded` counts the shade of what
    stands beside it. [A, W, °, mm]
    """

    id: Id
    name: Name
    kind: Literal["alternator", "sun", "mains"] = "alternator"
    charger: Ref = ""
    thing: Ref = ""
    amps: Amps = 30.0
    watts: Watts = 0.0
    tilt: Annotated[float, Meta(ge=0, le=90, description="degrees")] = 0.0
    facing: Degrees = 0.0
    x: At = 0.0
    y: At = 0.0
    long: Annotated[float, Meta(ge=0, le=6000, description="mm")] = 0.0
    wide: Annotated[float, Meta(ge=0, le=3000, description="mm")] = 0.0
    shaded: bool = True
    wire: Wire = Wire()


class Inverter(Value, frozen=True, kw_only=True):
    """Makes mains voltage: the unit that it is, and its data sheet. [W]"""

    thing: Ref = ""
    watts: Watts = 2000.0
    efficiency: Annotated[float, Meta(ge=0.3, le=1, description="0.3 to 1")] = 0.9
    idle: Watts = 12.0
    leakage: bool = True
    wire: Wire = Wire()


class Uses(Value, frozen=True, kw_only=True):
    """What is used, and through what it runs: water a head and a day, a shower, a meal; hose, tap, burner, air.

    `tap` is the height of the tap over the ground, `inlet` the bore that a bucket is emptied into; a hose of 0 m has the
    length of its way. A pump gives `pump_flow` into the open and nothing against `pump_kpa`. Hot water is heated by
    electricity or gas, `hot_litres` at a time. Air comes out of a tank at `air_tank_kpa` first; a compressor may run
    `air_duty` of the time. In camp the ground rises to the front by `slope_ahead` and to the left by `slope_left`.
    [l, mm, m, kW, h, l/min, kPa, °C, °]
    """

    drink: Annotated[float, Meta(ge=0, le=100, description="l")] = 6.0
    shower: Annotated[float, Meta(ge=0, le=100, description="l")] = 8.0
    meal: Annotated[float, Meta(ge=0, le=100, description="l")] = 2.5
    tap: At = 900.0
    hose: Annotated[float, Meta(ge=4, le=60, description="mm")] = 12.0
    hose_metres: Annotated[float, Meta(ge=0, le=30, description="m")] = 0.0
    inlet: Annotated[float, Meta(ge=6, le=150, description="mm")] = 38.0
    pump_flow: Annotated[float, Meta(ge=0, le=100, description="l/min")] = 10.0
    pump_kpa: Annotated[float, Meta(ge=0, le=1000, description="kPa")] = 240.0
    hot_by: Literal["", "electricity", "gas"] = ""
    hot_litres: Annotated[float, Meta(ge=0, le=200, description="l")] = 6.0
    hot_from: Annotated[float, Meta(ge=0, le=60, description="°C")] = 15.0
    hot_to: Annotated[float, Meta(ge=0, le=95, description="°C")] = 60.0
    hot_watts: Watts = 300.0
    hot_efficiency: Annotated[float, Meta(ge=0.2, le=1, description="0.2 to 1")] = 0.85
    burner: Annotated[float, Meta(ge=0, le=30, description="kW")] = 2.5
    meal_burns: Annotated[float, Meta(ge=0, le=12, description="h")] = 0.4
    free_air: Annotated[float, Meta(ge=0, le=1000, description="l/min")] = 70.0
    tyres_low: Annotated[float, Meta(ge=0, le=900, description="kPa")] = 120.0
    tyres_high: Annotated[float, Meta(ge=0, le=900, description="kPa")] = 250.0
    air_tank_kpa: Annotated[float, Meta(ge=0, le=1500, description="kPa")] = 800.0
    air_duty: Annotated[float, Meta(ge=0.05, le=1, description="0.05 to 1")] = 0.5
    slope_ahead: Annotated[float, Meta(ge=-20, le=20, description="degrees")] = 0.0
    slope_left: Annotated[float, Meta(ge=-20, le=20, description="degrees")] = 0.0


class Measured(Value, frozen=True, kw_only=True):
    """What a battery monitor said in one hour of the trip: amperes out are below 0, charge is 0 to 1. [h, V, A]"""

    hour: Annotated[float, Meta(ge=0, le=1440, description="h")]
    volts: Annotated[float, Meta(ge=4, le=80, description="V")]
    amps: Annotated[float, Meta(ge=-2000, le=2000, description="A")]
    charge: Fraction = 1.0


class Plug(Value, frozen=True, kw_only=True):
    """A plug at a crossing, wired or laid in for later: its pins, and what each of them carries. [A]"""

    id: Id
    name: Name = ""
    crossing: Crossing = "vehicle | canopy"
    pins: Annotated[int, Meta(ge=1, le=60)] = 2
    amps: Amps = 50.0


class Signature(Value, frozen=True, kw_only=True):
    """Who signed for what, and when."""

    what: Signed
    name: Name
    date: Annotated[str, Meta(max_length=20)] = ""
    number: Name = ""


class Services(Value, frozen=True, kw_only=True):
    """Everything that runs through the furniture. `board` is the unit that holds the fuses, `gauges` the cables sold."""

    volts: Literal[12, 24] = 12
    gauges: Literal["metric", "AWG"] = "metric"
    board: Ref = ""
    batteries: Annotated[tuple[Battery, ...], Meta(max_length=12)] = ()
    inverter: Inverter = Inverter()
    consumers: Annotated[tuple[Consumer, ...], Meta(max_length=80)] = ()
    sources: Annotated[tuple[Source, ...], Meta(max_length=12)] = ()
    plugs: Annotated[tuple[Plug, ...], Meta(max_length=24)] = ()
    uses: Uses = Uses()
    trip: Trip = Trip()
    measured: Annotated[tuple[Measured, ...], Meta(max_length=2000)] = ()
    signatures: Annotated[tuple[Signature, ...], Meta(max_length=12)] = ()

    def __post_init__(self) -> None:
        """Refuse ids that stand twice.

        Raises:
            ValueError: Names the id.
        """
        ids = [c.id for c in self.consumers]
        ids += [x.id for x in self.sources] + [p.id for p in self.plugs]
        for one in ids:
            if ids.count(one) > 1:
                raise ValueError(
                    f"the id '{one}' stands twice among what uses power, what gives it and plugs"
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
