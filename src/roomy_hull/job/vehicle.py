"""The vehicle: its sizes, kerb masses with what they include, ratings, springs, seats and fuel."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.doubt import Source
from roomy_hull.core.errors import InputError
from roomy_hull.core.tyres import overall_diameter
from roomy_hull.job.value import Gap, Kg, Litres, Mm, Name, PositiveKg, PositiveMm, Value


class Kerb(Value, frozen=True, kw_only=True):
    """Axle masses as weighed or published, and what was aboard, so that nothing counts twice."""

    front: PositiveKg
    rear: PositiveKg
    height: PositiveMm = 650.0
    driver: Kg = 0.0
    fuel: Litres = 0.0
    source: Source = "data sheet"


class Ratings(Value, frozen=True, kw_only=True):
    """What the vehicle may carry and tow. A zero means: not given, not checked."""

    gross: PositiveKg
    front_axle: PositiveKg
    rear_axle: PositiveKg
    combination: Kg = 0.0
    towed: Kg = 0.0
    ball: Kg = 0.0
    roof: Kg = 0.0
    standard: Literal["standard", "upgraded"] = "standard"
    certificate: Name = ""


class Springs(Value, frozen=True, kw_only=True):
    """Spring rate of one wheel, at the wheel. [N/mm]"""

    front: Annotated[float, Meta(gt=0, le=2000, description="N/mm at the wheel")]
    rear: Annotated[float, Meta(gt=0, le=2000, description="N/mm at the wheel")]


class Seat(Value, frozen=True, kw_only=True):
    """A place to sit, at the occupant's centre of mass."""

    name: Name
    x: Mm
    y: Mm
    z: Mm = 900.0


class FuelTank(Value, frozen=True, kw_only=True):
    """A fuel tank; diesel at 0.84 kg/l unless said otherwise."""

    litres: Litres
    x: Mm
    y: Mm
    z: Mm = 550.0
    density: Annotated[float, Meta(gt=0.5, lt=1.2, description="kg/l")] = 0.84


class Tow(Value, frozen=True, kw_only=True):
    """Where the ball is."""

    x: Mm
    z: Mm = 480.0


class Shape(Value, frozen=True, kw_only=True):
    """The outline from which the vehicle is drawn, x from the front axle, z from the ground."""

    front: PositiveMm
    width: PositiveMm
    height: PositiveMm
    bonnet: PositiveMm
    belt: PositiveMm
    sill: PositiveMm
    windscreen: Mm
    roof_front: Mm
    roof_rear: Mm
    doors: Annotated[tuple[Mm, ...], Meta(max_length=4)] = ()


class Vehicle(Value, frozen=True, kw_only=True):
    """A cab-chassis. x is aft of the front axle, z above level ground at kerb attitude. [mm]"""

    name: Name
    kind: Literal["cab-chassis"] = "cab-chassis"
    drive: Literal["left", "right"] = "right"
    wheelbase: PositiveMm
    track_front: PositiveMm
    track_rear: PositiveMm
    tyre: Name
    kerb: Kerb
    ratings: Ratings
    springs: Springs
    seats: Annotated[tuple[Seat, ...], Meta(min_length=1, max_length=9)]
    fuel: FuelTank
    tow: Tow
    cab_back: PositiveMm
    chassis_end: PositiveMm
    rail_top: PositiveMm
    rail_depth: PositiveMm = 140.0
    rail_width: PositiveMm = 60.0
    rail_spread: PositiveMm = 800.0
    level_target: Mm = 0.0
    shape: Shape
    clearance_behind_cab: Gap = 20.0

    def __post_init__(self) -> None:
        """Refuse a vehicle whose sizes contradict each other.

        Raises
        ------
        ValueError
            Two sizes contradict each other, or the tyre size cannot be read.
        """
        try:
            overall_diameter(self.tyre)
        except InputError as trouble:
            raise ValueError(str(trouble)) from None
        if self.chassis_end <= self.cab_back:
            raise ValueError(
                f"chassis_end {self.chassis_end:g} lies ahead of cab_back {self.cab_back:g}; "
                "measure both aft of the front axle"
            )
        if not self.shape.windscreen < self.shape.roof_front < self.shape.roof_rear:
            raise ValueError("shape: windscreen, roof_front and roof_rear must follow each other")
        if self.shape.roof_rear > self.cab_back + 1:
            raise ValueError("shape.roof_rear lies behind cab_back; the roof ends with the cab")
        if self.kerb.fuel > self.fuel.litres:
            raise ValueError(
                f"kerb.fuel {self.kerb.fuel:g} l is more than the tank's {self.fuel.litres:g} l"
            )

    def axle_height(self) -> float:
        """Give the wheel centre's height: half the tyre's diameter, less 3 % for its squash. [mm]

        The 3 % is common practice for a loaded tyre.
        """
        return overall_diameter(self.tyre) / 2 * 0.97

    def kerb_side(self) -> Literal["left", "right"]:
        """Give the side away from the driver."""
        return "left" if self.drive == "right" else "right"
