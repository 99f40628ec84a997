"""The vehicle: its sizes, kerb masses with what they include, ratings, springs, seats and fuel."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.card import shown
from roomy_hull.core.errors import InputError
from roomy_hull.core.tyres import load_of_index, overall_diameter
from roomy_hull.core.uncertainty import Source
from roomy_hull.core.value import Gap, Kg, Litres, Mm, Name, PositiveKg, PositiveMm, Value


class Kerb(Value, frozen=True, kw_only=True):
    """Axle masses as weighed or published, and what was aboard, so that nothing counts twice."""

    front: Annotated[PositiveKg, shown("Kerb, front axle", "As weighed or published")]
    rear: Annotated[PositiveKg, shown("Kerb, rear axle", "As weighed or published")]
    height: PositiveMm = 650.0
    driver: Annotated[Kg, shown("… with driver of", "Was a driver aboard? Then it is not counted twice")] = 0.0  # fmt: skip
    fuel: Annotated[Litres, shown("… with fuel of", "How much fuel was in it")] = 0.0
    tools: Annotated[Kg, shown("… with tools of", "What else was aboard")] = 0.0
    tools_x: Mm = 0.0
    source: Annotated[Source, shown("Kerb known by", "Decides its uncertainty")] = "data sheet"


class Ratings(Value, frozen=True, kw_only=True):
    """What the vehicle may carry and tow. A zero means: not given, not checked.

    `wheel` is one wheel's rating, `front_spring` and `rear_spring` those of an axle's springs.
    Upgraded ratings name their certificate and who signed it.
    """

    gross: Annotated[PositiveKg, shown("Gross rating", "From the plate")]
    front_axle: Annotated[
        PositiveKg, shown("Front axle rating", "The lowest of axle, tyres, wheels, springs governs")
    ]
    rear_axle: Annotated[
        PositiveKg, shown("Rear axle rating", "The lowest of axle, tyres, wheels, springs governs")
    ]
    wheel: Annotated[Kg, shown("One wheel", "0 if not given")] = 0.0
    front_spring: Annotated[Kg, shown("Front springs", "0 if not given")] = 0.0
    rear_spring: Annotated[Kg, shown("Rear springs", "0 if not given")] = 0.0
    combination: Annotated[Kg, shown("Combination", "0 if not given")] = 0.0
    towed: Annotated[Kg, shown("Towed", "0 if not given")] = 0.0
    ball: Annotated[Kg, shown("Ball", "0 if not given")] = 0.0
    roof: Annotated[Kg, shown("Roof", "0 if not given")] = 0.0
    standard: Annotated[
        Literal["standard", "upgraded"], shown("Ratings are", "Upgraded ones want a certificate")
    ] = "standard"
    certificate: Annotated[Name, shown("Certificate", "Its number")] = ""
    signed: Annotated[Name, shown("Signed by", "The certifying engineer")] = ""


Rate = Annotated[float, Meta(ge=1, le=2000, description="N/mm at the wheel")]
ExtraRate = Annotated[float, Meta(ge=0, le=2000, description="N/mm at the wheel, 0 for the usual")]
Pressure = Annotated[float, Meta(ge=0, le=1500, description="kPa over the air's")]
SpringOption = Literal["standard", "constant load", "extra leaf", "air"]
SPRING_OPTIONS: tuple[SpringOption, ...] = ("standard", "constant load", "extra leaf", "air")


class Springs(Value, frozen=True, kw_only=True):
    """Springs: the standard rates of one wheel, and what may be done at the rear. [N/mm at the wheel]

    `school` is what is fitted. Springs for a constant load stand at kerb height under `constant` more
    on the axle. An extra leaf adds `leaf_rate` and lifts the empty tail by `leaf_lift`. Air springs
    have an effective area [cm²] and height [mm], bear on the chassis `air_x` behind the rear axle
    (ahead is negative), and hold between `air_least` and `air_most`; `air_pressure` 0 means: set for
    level. `leaf_span` is from eye to eye of a leaf spring, 0 for coils. The unsprung masses are those
    of an axle with its wheels; `roll_front` is the front's part of the roll stiffness, 0 to take it
    from the rates.
    """

    front: Annotated[Rate, shown("Spring, front", "N/mm at one wheel")]
    rear: Annotated[Rate, shown("Spring, rear", "N/mm at one wheel, standard")]
    school: Annotated[SpringOption, shown("Rear springs", "What is fitted")] = "standard"
    constant: Annotated[
        Kg, shown("Constant load", "At which they stand at kerb height", when=lambda s: s.school == "constant load")
    ] = 300.0  # fmt: skip
    constant_rate: Annotated[
        ExtraRate,
        shown(
            "Their rate",
            "N/mm at one wheel; 0 for the usual 1.25 times",
            when=lambda s: s.school == "constant load",
        ),
    ] = 0.0
    leaf_rate: Annotated[
        ExtraRate,
        shown(
            "Leaf adds",
            "N/mm at one wheel; 0 for the usual 0.3 times",
            when=lambda s: s.school == "extra leaf",
        ),
    ] = 0.0
    leaf_lift: Annotated[
        Gap, shown("Leaf lifts", "The empty tail", when=lambda s: s.school == "extra leaf")
    ] = 15.0
    air_area: Annotated[
        float,
        Meta(ge=1, le=1000, description="cm²"),
        shown(
            "Effective area, cm²",
            "From the air springs' data sheet",
            when=lambda s: s.school == "air",
        ),
    ] = 60.0
    air_height: Annotated[
        PositiveMm, shown("Effective height", "Volume over area", when=lambda s: s.school == "air")
    ] = 140.0
    air_x: Annotated[
        Mm, shown("Behind the axle", "Where they bear on the chassis; ahead is negative", when=lambda s: s.school == "air")
    ] = 0.0  # fmt: skip
    air_pressure: Annotated[
        Pressure, shown("Pressure, kPa", "0: set for level in each scenario", when=lambda s: s.school == "air")
    ] = 0.0  # fmt: skip
    air_least: Annotated[
        Pressure, shown("Least, kPa", "Never run them below it", when=lambda s: s.school == "air")
    ] = 35.0
    air_most: Annotated[
        Pressure, shown("Most, kPa", "From their data sheet", when=lambda s: s.school == "air")
    ] = 700.0
    leaf_span: Annotated[Gap, shown("Leaf, eye to eye", "0 for coils")] = 0.0
    unsprung_front: Kg = 95.0
    unsprung_rear: Kg = 150.0
    roll_front: Annotated[float, Meta(ge=0, lt=1, description="0 to below 1")] = 0.0

    def __post_init__(self) -> None:
        """Refuse air springs whose least pressure is above their most.

        Raises:
            ValueError: Names both.
        """
        if self.air_least >= self.air_most:
            raise ValueError(
                f"springs: air_least {self.air_least:g} kPa is not below air_most {self.air_most:g} kPa"
            )


class Seat(Value, frozen=True, kw_only=True):
    """A place to sit, at the occupant's centre of mass.

    One that is not `fitted` was taken out: its own `mass` is then taken off the kerb mass there.
    """

    name: Name
    x: Annotated[Mm, shown("Aft", "Of the front axle")]
    y: Annotated[Mm, shown("Right", "Left is negative")]
    z: Mm = 900.0
    mass: Annotated[Kg, shown("Weighs", "With its belts and bolts")] = 0.0
    fitted: Annotated[bool, shown("Is in", "Out: its mass comes off; the road authority decides")] = True  # fmt: skip


class FuelTank(Value, frozen=True, kw_only=True):
    """A fuel tank about its middle; diesel at 0.84 kg/l unless said otherwise.

    `length` (along the vehicle), `width` and `height` are 0 where nobody measured them: its shape is then
    guessed from its volume. [mm]
    """

    litres: Annotated[Litres, shown("Fuel tank", "Full")]
    x: Annotated[Mm, shown("… behind front axle", "Its middle")]
    y: Annotated[Mm, shown("… to the right", "Its middle, from the centre plane")]
    z: Annotated[Mm, shown("… above ground", "Its middle")] = 550.0
    density: Annotated[float, Meta(gt=0.5, lt=1.2, description="kg/l")] = 0.84
    length: Annotated[
        Gap, shown("… length", "Along the vehicle; 0 where nobody measured it: guessed from its volume")
    ] = 0.0  # fmt: skip
    width: Annotated[Gap, shown("… width", "Across; 0 where nobody measured it")] = 0.0
    height: Annotated[Gap, shown("… height", "0 where nobody measured it")] = 0.0


class LowPoints(Value, frozen=True, kw_only=True):
    """The vehicle's own lowest hard points above level ground at kerb attitude. [mm]"""

    front: PositiveMm
    belly: PositiveMm
    belly_x: PositiveMm
    rear: PositiveMm


class Hold(Value, frozen=True, kw_only=True):
    """A pickup's tub or a wagon's cargo area, as measured inside. [mm]

    `start` is its front wall aft of the front axle, `floor` the height of its floor. `height` is
    that of the tub's walls, or of the clear space under a wagon's roof. The opening is that of the
    tailgate. Arches stand on both sides, `arch_width` inward from the widest part.
    """

    start: Annotated[PositiveMm, shown("Start", "As measured")]
    floor: Annotated[PositiveMm, shown("Floor", "As measured")]
    length: Annotated[PositiveMm, shown("Length", "As measured")]
    width: Annotated[PositiveMm, shown("Width", "As measured")]
    height: Annotated[PositiveMm, shown("Height", "As measured")]
    opening_width: Annotated[PositiveMm, shown("Opening width", "As measured")]
    opening_height: Annotated[PositiveMm, shown("Opening height", "As measured")]
    arch_start: Annotated[Gap, shown("Arch start", "As measured")] = 0.0
    arch_length: Annotated[Gap, shown("Arch length", "As measured")] = 0.0
    arch_width: Annotated[Gap, shown("Arch width", "As measured")] = 0.0
    arch_height: Annotated[Gap, shown("Arch height", "As measured")] = 0.0

    def __post_init__(self) -> None:
        """Refuse a hold whose sizes contradict each other.

        Raises:
            ValueError: The arches leave no room between them, or reach past the tailgate.
        """
        if 2 * self.arch_width >= self.width:
            raise ValueError(
                f"hold: two arches of {self.arch_width:g} leave nothing of its width {self.width:g}; "
                "measure between the arches again"
            )
        if self.arch_start + self.arch_length > self.length:
            raise ValueError(
                "hold: the arch reaches past the tailgate; measure where it begins again"
            )
        if self.opening_width > self.width:
            raise ValueError(
                "hold: the tailgate's opening is wider than the hold; measure both again"
            )


class Tow(Value, frozen=True, kw_only=True):
    """Where the ball is."""

    x: Mm
    z: Mm = 480.0


class Shape(Value, frozen=True, kw_only=True):
    """The outline from which the vehicle is drawn, x from the front axle, z from the ground.

    `rear` is where a pickup's tub or a wagon's body ends; unused for a cab-chassis.
    """

    front: PositiveMm
    width: PositiveMm
    height: PositiveMm
    bonnet: PositiveMm
    belt: PositiveMm
    sill: PositiveMm
    windscreen: Mm
    roof_front: Mm
    roof_rear: Mm
    doors: Annotated[tuple[Mm, ...], Meta(max_length=5)] = ()
    rear: Mm = 0.0


class Wheels(Value, frozen=True, kw_only=True):
    """The wheels as they are and as the maker delivered them. [mm]

    `offset` is that of the rim: how far its mounting face lies outward of its middle. A smaller one puts both
    wheels of an axle further out: the track grows by twice the difference.
    """

    offset: Annotated[
        Mm, shown("Rim offset", "Mounting face outward of the rim's middle; the tracks follow")
    ] = 0.0
    offset_standard: Annotated[Mm, shown("… as delivered", "For the sheet; changes nothing by itself")] = 0.0  # fmt: skip
    tyre_standard: Annotated[Name, shown("Tyre as delivered", "Empty where it is the one that is on")] = ""  # fmt: skip


class Vehicle(Value, frozen=True, kw_only=True):
    """A vehicle. x is aft of the front axle, z above level ground at kerb attitude. [mm]

    `tyre_load_index` is 0 where it was not read. A pickup and a wagon have a `hold`; a
    cab-chassis has none.
    """

    name: Annotated[Name, shown("Vehicle", "What the workshop calls it")]
    kind: Literal["cab-chassis", "pickup", "wagon"] = "cab-chassis"
    drive: Annotated[
        Literal["left", "right"], shown("Hand of drive", "The kerb side is the other one")
    ] = "right"
    wheelbase: Annotated[PositiveMm, shown("Wheelbase", "As measured")]
    track_front: Annotated[PositiveMm, shown("Track front", "As measured")]
    track_rear: Annotated[PositiveMm, shown("Track rear", "As measured")]
    tyre: Annotated[Name, shown("Tyre size", "From the side wall, such as 265/75R16")]
    tyre_load_index: Annotated[
        int, Meta(ge=0, le=150), shown("Load index", "From the side wall; 0 if not read")
    ] = 0
    kerb: Kerb
    ratings: Ratings
    springs: Springs
    seats: Annotated[tuple[Seat, ...], Meta(min_length=1, max_length=9)]
    fuel: FuelTank
    long_range: FuelTank | None = None
    tow: Tow
    low: LowPoints | None = None
    hold: Hold | None = None
    cab_back: Annotated[PositiveMm, shown("Cab back", "As measured", when=lambda v: v.hold is None)]
    chassis_end: Annotated[PositiveMm, shown("Chassis end", "As measured", when=lambda v: v.hold is None)]  # fmt: skip
    rail_top: Annotated[PositiveMm, shown("Rail top", "As measured", when=lambda v: v.hold is None)]
    rail_depth: PositiveMm = 140.0
    rail_width: PositiveMm = 60.0
    rail_spread: Annotated[
        PositiveMm, shown("Rail spread", "As measured", when=lambda v: v.hold is None)
    ] = 800.0
    level_target: Annotated[Mm, shown("Tail lower by", "What the owner wishes; 0 as at kerb")] = 0.0
    shape: Shape
    clearance_behind_cab: Gap = 20.0
    wheels: Wheels = Wheels()

    def __post_init__(self) -> None:
        """Refuse a vehicle whose sizes contradict each other.

        Raises:
            ValueError: Two sizes contradict each other, or the tyre size cannot be read.
        """
        try:
            overall_diameter(self.tyre)
            if self.wheels.tyre_standard:
                overall_diameter(self.wheels.tyre_standard)
        except InputError as trouble:
            raise ValueError(str(trouble)) from None
        try:
            if self.tyre_load_index:
                load_of_index(self.tyre_load_index)
        except InputError as trouble:
            raise ValueError(str(trouble)) from None
        if self.kind != "cab-chassis" and self.hold is None:
            raise ValueError(f"a {self.kind} has a hold; measure its cargo area")
        if self.kind == "cab-chassis" and self.hold is not None:
            raise ValueError("a cab-chassis has no hold; its load stands on a tray")
        if self.cab_back <= 0 or (self.kind == "cab-chassis" and self.cab_back >= self.wheelbase):
            raise ValueError(
                f"cab_back {self.cab_back:g} is not between the axles (wheelbase {self.wheelbase:g}); "
                "measure it aft of the front axle"
            )
        if self.chassis_end <= self.cab_back:
            raise ValueError(
                f"chassis_end {self.chassis_end:g} lies ahead of cab_back {self.cab_back:g}; "
                "measure both aft of the front axle"
            )
        if not self.shape.windscreen < self.shape.roof_front < self.shape.roof_rear:
            raise ValueError("shape: windscreen, roof_front and roof_rear must follow each other")
        if self.shape.roof_rear > self.cab_back + 1:
            raise ValueError("shape.roof_rear lies behind cab_back; the roof ends with the cab")
        self._check_kerb()
        if self.kerb.fuel > self.fuel.litres:
            raise ValueError(
                f"kerb.fuel {self.kerb.fuel:g} l is more than the tank's {self.fuel.litres:g} l"
            )

    def _check_kerb(self) -> None:
        """Refuse kerb masses of which what was aboard leaves nothing on an axle, and a driver without a seat."""
        if not self.seats[0].fitted:
            raise ValueError("the driver's seat cannot be taken out; it is the first of the seats")
        kerb, aboard = self.kerb, self.not_aboard()
        rear = sum(kg * x for kg, x in aboard) / self.wheelbase
        front = sum(kg for kg, _x in aboard) - rear
        for name, mass, taken in (("front", kerb.front, front), ("rear", kerb.rear, rear)):
            if taken >= mass:
                raise ValueError(
                    f"kerb.{name} {mass:,.0f} kg is less than what was aboard puts on that axle "
                    f"({taken:,.0f} kg); weigh again"
                )

    def not_aboard(self) -> tuple[tuple[float, float], ...]:
        """What the kerb masses hold and the vehicle does not: driver, fuel, tools, seats taken out. [kg, x in mm]"""
        kerb = self.kerb
        return (
            (kerb.driver, self.seats[0].x), (kerb.fuel * self.fuel.density, self.fuel.x), (kerb.tools, kerb.tools_x),
            *((s.mass, s.x) for s in self.seats if not s.fitted and s.mass > 0),
        )  # fmt: skip

    def axle_height(self) -> float:
        """The wheel centre's height: half the tyre's diameter, less 3 % for its squash. [mm]

        The 3 % is common practice for a loaded tyre.
        """
        return overall_diameter(self.tyre) / 2 * 0.97

    def kerb_side(self) -> Literal["left", "right"]:
        """The side away from the driver."""
        return "left" if self.drive == "right" else "right"
