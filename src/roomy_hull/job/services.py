"""What runs through the furniture: batteries, what uses power and gives it, a trip to live through, signatures."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.card import shown
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
    chemistry: Annotated[Chemistry, shown("Kind", "Decides how it takes its charge")] = "lithium iron"  # fmt: skip
    ah: Annotated[
        float, Meta(ge=1, le=2000, description="Ah, 1 or more"), shown("Ah", "From its data sheet")
    ] = 100.0
    usable: Annotated[
        float,
        Meta(ge=0.05, le=1, description="0.05 to 1"),
        shown(
            "Wanted of it, %", "What one wants to draw: 50 of lead, 90 of lithium", quantity="share"
        ),
    ] = 0.9
    resistance: Annotated[
        float, Meta(ge=0.1, le=100, description="mΩ"), shown("Inside, mΩ", "Decides its short-circuit current")
    ] = 4.0  # fmt: skip
    coldest: Annotated[Celsius, shown("Charged from, °C", "Lithium takes no charge below freezing")] = 0.0  # fmt: skip
    hottest: Annotated[Celsius, shown("Charged to, °C", "From its data sheet")] = 50.0
    takes: Annotated[Amps, shown("Takes, A", "At most; 0 for what its kind usually takes")] = 0.0


class Wire(Value, frozen=True, kw_only=True):
    """What may be given by hand of a circuit; zeros are computed or chosen. [m, mm², A]

    `fused` says that there is a fuse at all, `fuse_at` how far from where the power comes from. [mm]
    """

    metres: Annotated[Metres, shown("Length, m", "0 for the way through the body")] = 0.0
    area: Annotated[Area, shown("Cable, mm²", "0 for the smallest that does")] = 0.0
    fuse: Annotated[Amps, shown("Fuse, A", "0 for the smallest that carries it")] = 0.0
    careful: Annotated[
        bool, shown("Voltage-drop sensitive", "3 % of the voltage may be lost; else 10 %")
    ] = True
    engine_bay: bool = False
    fused: Annotated[bool, shown("Has a fuse", "The fuse protects the cable")] = True
    fuse_at: Annotated[
        float, Meta(ge=0, le=20000, description="mm"), shown("Fuse from its source", "Within 200 mm (common practice)")
    ] = 150.0  # fmt: skip


class Consumer(Value, frozen=True, kw_only=True):
    """Something that uses power: a unit, or a thing at a place of its own.

    It runs from `begin` for `hours` with a `share` of its watts, and draws `idle` always. A fridge says in `day_wh` what
    its data sheet takes a day at `rated_air`, its `box` temperature, and in `warm_kg` what is put in warm every day.
    `mains` goes through the inverter. A `light` names the units that switch it; what `serves` a side belongs there.
    [W, h, Wh, °C, kg, mm]
    """

    id: Id
    name: Annotated[Name, shown("Description")]
    thing: Ref = ""
    x: Annotated[At, shown("Aft of front axle", "Where it is", when=lambda c: not c.thing)] = 0.0
    y: Annotated[At, shown("To the right", "Where it is", when=lambda c: not c.thing)] = 0.0
    z: Annotated[At, shown("Over the ground", "Where it is", when=lambda c: not c.thing)] = 0.0
    watts: Annotated[Watts, shown("Watts", "While it runs")] = 0.0
    share: Annotated[Fraction, shown("Runs, % of the time", "Within its hours")] = 1.0
    begin: Annotated[Hours, shown("From, h", "Of the day")] = 18.0
    hours: Annotated[Hours, shown("For, h", "A day")] = 4.0
    idle: Annotated[Watts, shown("Idle, W", "Always")] = 0.0
    mains: Annotated[
        bool, shown("Through the inverter", "Mains voltage is wired by a licensed electrician")
    ] = False
    day_wh: Annotated[
        float,
        Meta(ge=0, le=20000, description="Wh a day"),
        shown("A day, Wh", "From its data sheet, at the air below", when=lambda c: c.day_wh > 0),
    ] = 0.0
    rated_air: Annotated[
        Celsius, shown("... in air of, °C", "From its data sheet", when=lambda c: c.day_wh > 0)
    ] = 25.0
    box: Annotated[Celsius, shown("Box, °C", "What it is set to", when=lambda c: c.day_wh > 0)] = 4.0  # fmt: skip
    warm_kg: Annotated[
        float, Meta(ge=0, le=100, description="kg a day"), shown("Put in warm", "Every day", when=lambda c: c.day_wh > 0)
    ] = 0.0  # fmt: skip
    ignites: bool = False
    light: Annotated[bool, shown("A light", "Switched from both ends of what it lights")] = False
    switches: Annotated[
        tuple[Id, ...],
        Meta(max_length=6),
        shown("Switched by", "Ids of switch panels, boards or units", when=lambda c: c.light),
    ] = ()
    serves: Annotated[Side, shown("Serves the side", "Where it has to be")] = ""
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
    name: Annotated[Name, shown("Description")]
    kind: Literal["alternator", "sun", "mains"] = "alternator"
    charger: Ref = ""
    thing: Ref = ""
    amps: Annotated[Amps, shown("Charger, A", "Its limit; 0 for none")] = 30.0
    watts: Annotated[Watts, shown("Panel, W", "Its rating", when=lambda s: s.kind == "sun")] = 0.0
    tilt: Annotated[
        float, Meta(ge=0, le=90, description="degrees"), shown("Tilt, °", "From the level", when=lambda s: s.kind == "sun")
    ] = 0.0  # fmt: skip
    facing: Annotated[Degrees, shown("Facing, °", "From north over east", when=lambda s: s.kind == "sun")] = 0.0  # fmt: skip
    x: Annotated[
        At, shown("Middle aft of axle", "0 for the roof's middle", when=lambda s: s.kind == "sun")
    ] = 0.0
    y: Annotated[
        At, shown("Middle to the right", "0 for the roof's middle", when=lambda s: s.kind == "sun")
    ] = 0.0
    long: Annotated[
        float, Meta(ge=0, le=6000, description="mm"), shown("Long", "0 by its watts", when=lambda s: s.kind == "sun")
    ] = 0.0  # fmt: skip
    wide: Annotated[
        float, Meta(ge=0, le=3000, description="mm"), shown("Wide", "0 by its watts", when=lambda s: s.kind == "sun")
    ] = 0.0  # fmt: skip
    shaded: Annotated[
        bool, shown("Count the shade", "Of what stands beside it on the roof", when=lambda s: s.kind == "sun")
    ] = True  # fmt: skip
    wire: Wire = Wire()


class Inverter(Value, frozen=True, kw_only=True):
    """Makes mains voltage: the unit that it is, and its data sheet. [W]"""

    thing: Ref = ""
    watts: Annotated[Watts, shown("Watts", "That it gives")] = 2000.0
    efficiency: Annotated[
        float, Meta(ge=0.3, le=1, description="0.3 to 1"), shown("Gives, %", "Of what it takes", quantity="share")
    ] = 0.9  # fmt: skip
    idle: Annotated[Watts, shown("Idle, W", "While it is on")] = 12.0
    leakage: Annotated[bool, shown("Leakage protection", "Built in")] = True
    wire: Wire = Wire()


class Uses(Value, frozen=True, kw_only=True):
    """What is used, and through what it runs: water a head and a day, a shower, a meal; hose, tap, burner, air.

    `tap` is the height of the tap over the ground, `inlet` the bore that a bucket is emptied into; a hose of 0 m has the
    length of its way. A pump gives `pump_flow` into the open and nothing against `pump_kpa`. Hot water is heated by
    electricity or gas, `hot_litres` at a time. Air comes out of a tank at `air_tank_kpa` first; a compressor may run
    `air_duty` of the time. In camp the ground rises to the front by `slope_ahead` and to the left by `slope_left`.
    [l, mm, m, kW, h, l/min, kPa, °C, °]
    """

    drink: Annotated[
        float,
        Meta(ge=0, le=100, description="l"),
        shown("Drink a head", "A day; 7.5 to 15 l for all uses (Sphere, from memory)"),
    ] = 6.0
    shower: Annotated[float, Meta(ge=0, le=100, description="l"), shown("A shower", "Each")] = 8.0
    meal: Annotated[float, Meta(ge=0, le=100, description="l"), shown("A meal", "With its washing up")] = 2.5  # fmt: skip
    tap: Annotated[At, shown("Tap height", "Over the ground, where it runs by its own weight")] = 900.0  # fmt: skip
    hose: Annotated[float, Meta(ge=4, le=60, description="mm"), shown("Hose bore", "Inside")] = 12.0
    hose_metres: Annotated[
        float, Meta(ge=0, le=30, description="m"), shown("Hose length, m", "0 for its way through the body")
    ] = 0.0  # fmt: skip
    inlet: Annotated[
        float, Meta(ge=6, le=150, description="mm"), shown("Bucket inlet bore", "38 mm is usual")
    ] = 38.0
    pump_flow: Annotated[
        float, Meta(ge=0, le=100, description="l/min"), shown("Pump open, l/min", "From its data sheet", quantity="number")
    ] = 10.0  # fmt: skip
    pump_kpa: Annotated[
        float, Meta(ge=0, le=1000, description="kPa"), shown("Pump shuts off, kPa", "From its data sheet")
    ] = 240.0  # fmt: skip
    hot_by: Annotated[Literal["", "electricity", "gas"], shown("Hot water by")] = ""
    hot_litres: Annotated[float, Meta(ge=0, le=200, description="l"), shown("Heated at a time")] = 6.0  # fmt: skip
    hot_from: Annotated[float, Meta(ge=0, le=60, description="°C"), shown("From, °C", "As it comes")] = 15.0  # fmt: skip
    hot_to: Annotated[
        float, Meta(ge=0, le=95, description="°C"), shown("To, °C", "Above 60 °C it scalds")
    ] = 60.0
    hot_watts: Annotated[Watts, shown("Heater, W", "Where it is electric")] = 300.0
    hot_efficiency: Annotated[
        float, Meta(ge=0.2, le=1, description="0.2 to 1"), shown("Gets into it, %", "Of the heat", quantity="share")
    ] = 0.85  # fmt: skip
    burner: Annotated[float, Meta(ge=0, le=30, description="kW"), shown("Burner, kW", "From its plate")] = 2.5  # fmt: skip
    meal_burns: Annotated[float, Meta(ge=0, le=12, description="h"), shown("Burns a meal, h", "How long")] = 0.4  # fmt: skip
    free_air: Annotated[
        float,
        Meta(ge=0, le=1000, description="l/min"),
        shown("Free air, l/min", "Of the compressor, at pressure", quantity="number"),
    ] = 70.0
    tyres_low: Annotated[
        float, Meta(ge=0, le=900, description="kPa"), shown("Tyres from, kPa", "On sand or track")
    ] = 120.0
    tyres_high: Annotated[
        float, Meta(ge=0, le=900, description="kPa"), shown("Tyres to, kPa", "On the road")
    ] = 250.0
    air_tank_kpa: Annotated[
        float, Meta(ge=0, le=1500, description="kPa"), shown("Air tank, kPa", "Where it stops filling")
    ] = 800.0  # fmt: skip
    air_duty: Annotated[
        float,
        Meta(ge=0.05, le=1, description="0.05 to 1"),
        shown("May run, %", "Of the time, from its data sheet", quantity="share"),
    ] = 0.5
    slope_ahead: Annotated[
        float, Meta(ge=-20, le=20, description="degrees"), shown("Ground up ahead, °", "In camp; below 0 it falls")
    ] = 0.0  # fmt: skip
    slope_left: Annotated[
        float, Meta(ge=-20, le=20, description="degrees"), shown("Ground up left, °", "In camp; below 0 it falls")
    ] = 0.0  # fmt: skip


class Measured(Value, frozen=True, kw_only=True):
    """What a battery monitor said in one hour of the trip: amperes out are below 0, charge is 0 to 1. [h, V, A]"""

    hour: Annotated[float, Meta(ge=0, le=1440, description="h")]
    volts: Annotated[float, Meta(ge=4, le=80, description="V")]
    amps: Annotated[float, Meta(ge=-2000, le=2000, description="A")]
    charge: Fraction = 1.0


class Plug(Value, frozen=True, kw_only=True):
    """A plug at a crossing, wired or laid in for later: its pins, and what each of them carries. [A]"""

    id: Id
    name: Annotated[Name, shown("Description")] = ""
    crossing: Annotated[Crossing, shown("Where")] = "vehicle | canopy"
    pins: Annotated[int, Meta(ge=1, le=60), shown("Pins", "Two for each circuit")] = 2
    amps: Annotated[Amps, shown("Each carries, A", "From its data sheet")] = 50.0


class Signature(Value, frozen=True, kw_only=True):
    """Who signed for what, and when."""

    what: Signed
    name: Annotated[Name, shown("Signed by")]
    date: Annotated[str, Meta(max_length=20), shown("On")] = ""
    number: Annotated[Name, shown("Licence", "Or certificate")] = ""


class Services(Value, frozen=True, kw_only=True):
    """Everything that runs through the furniture. `board` is the unit that holds the fuses, `gauges` the cables sold."""

    volts: Literal[12, 24] = 12
    gauges: Annotated[
        Literal["metric", "AWG"], shown("Cables by", "Which sizes the schedule chooses among")
    ] = "metric"
    board: Annotated[Ref, shown("Fuse board", "The unit that holds the fuses", quantity="board")] = ""  # fmt: skip
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
