"""The vehicle: its sizes, kerb masses with what they include, ratings, springs, seats and fuel."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.errors import InputError
from roomy_hull.core.tyres import load_of_index, overall_diameter
from roomy_hull.core.uncertainty import Source
from roomy_hull.core.value import Gap, Kg, Litres, Mm, Name, PositiveKg, PositiveMm, Value


class Kerb(Value, frozen=True, kw_only=True):
    """Axle masses as weighed or published, and what was aboard, so that nothing counts twice."""

    front: PositiveKg
    rear: PositiveKg
    height: PositiveMm = 650.0
    driver: Kg = 0.0
    fuel: Litres = 0.0
    tools: Kg = 0.0
    tools_x: Mm = 0.0
    source: Source = "data sheet"


class Ratings(Value, frozen=True, kw_only=True):
    """What the vehicle may carry and tow. A zero means: not given, not checked.

    `wheel` is one wheel's rating, `front_spring` and `rear_spring` those of an axle's springs.
    Upgraded ratings name their certificate and who signed it.
    """

    gross: PositiveKg
    front_axle: PositiveKg
    rear_axle: PositiveKg
    combination: Kg = 0.0
    towed: Kg = 0.0
    ball: Kg = 0.0
    roof: Kg = 0.0
    standard: Literal["standard", "upgraded"] = "standard"
    certificate: Name = ""
    signed: Name = ""
    wheel: Kg = 0.0
    front_spring: Kg = 0.0
    rear_spring: Kg = 0.0


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

    front: Rate
    rear: Rate
    school: SpringOption = "standard"
    constant: Kg = 300.0
    constant_rate: ExtraRate = 0.0
    leaf_rate: ExtraRate = 0.0
    leaf_lift: Gap = 15.0
    air_area: Annotated[float, Meta(ge=1, le=1000, description="cm²")] = 60.0
    air_height: PositiveMm = 140.0
    air_x: Mm = 0.0
    air_pressure: Pressure = 0.0
    air_least: Pressure = 35.0
    air_most: Pressure = 700.0
    leaf_span: Gap = 0.0
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
    x: Mm
    y: Mm
    z: Mm = 900.0
    mass: Kg = 0.0
    fitted: bool = True


class FuelTank(Value, frozen=True, kw_only=True):
    """A fuel tank about its middle; diesel at 0.84 kg/l unless said otherwise.

    `length` (along the vehicle), `width` and `height` are 0 where nobody measured them: its shape is then
    guessed from its volume. [mm]
    """

    litres: Litres
    x: Mm
    y: Mm
    z: Mm = 550.0
    density: Annotated[float, Meta(gt=0.5, lt=1.2, description="kg/l")] = 0.84
    length: Gap = 0.0
    width: Gap = 0.0
    height: Gap = 0.0


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

    start: PositiveMm
    floor: PositiveMm
    length: PositiveMm
    width: PositiveMm
    height: PositiveMm
    opening_width: PositiveMm
    opening_height: PositiveMm
    arch_start: Gap = 0.0
    arch_length: Gap = 0.0
    arch_width: Gap = 0.0
    arch_height: Gap = 0.0

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

    offset: Mm = 0.0
    offset_standard: Mm = 0.0
    tyre_standard: Name = ""


class Vehicle(Value, frozen=True, kw_only=True):
    """A vehicle. x is aft of the front axle, z above level ground at kerb attitude. [mm]

    `tyre_load_index` is 0 where it was not read. A pickup and a wagon have a `hold`; a
    cab-chassis has none.
    """

    name: Name
    kind: Literal["cab-chassis", "pickup", "wagon"] = "cab-chassis"
    drive: Literal["left", "right"] = "right"
    wheelbase: PositiveMm
    track_front: PositiveMm
    track_rear: PositiveMm
    tyre: Name
    tyre_load_index: Annotated[int, Meta(ge=0, le=150)] = 0
    kerb: Kerb
    ratings: Ratings
    springs: Springs
    seats: Annotated[tuple[Seat, ...], Meta(min_length=1, max_length=9)]
    fuel: FuelTank
    long_range: FuelTank | None = None
    tow: Tow
    low: LowPoints | None = None
    hold: Hold | None = None
    cab_back: PositiveMm
    chassis_end: PositiveMm
    rail_top: PositiveMm
    rail_depth: PositiveMm = 140.0
    rail_width: PositiveMm = 60.0
    rail_spread: PositiveMm = 800.0
    level_target: Mm = 0.0
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
