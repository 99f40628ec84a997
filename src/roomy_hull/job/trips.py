"""A trip to live through: days away, where and when, the weather of one's own if there is any."""

import datetime
from typing import Annotated

from msgspec import Meta

from roomy_hull.core.card import shown
from roomy_hull.core.value import Fraction, Name, Value

Hours = Annotated[float, Meta(ge=0, le=24, description="h")]
Celsius = Annotated[float, Meta(ge=-50, le=60, description="°C")]
Degrees = Annotated[float, Meta(ge=0, le=360, description="degrees")]
Irradiance = Annotated[float, Meta(ge=0, le=1500, description="W/m²")]
Air = Annotated[float, Meta(ge=-60, le=60, description="°C")]


class Skies(Value, frozen=True, kw_only=True):
    """Weather by the hour from a file of one's own, from midnight of the trip's first day by the sun's own time.

    Irradiance on the level, straight from the sun, and from the sky; the air. What lies past its end is by the clear
    sky and the day's cloud. [W/m², °C]
    """

    name: Name = ""
    level: Annotated[tuple[Irradiance, ...], Meta(max_length=1440)] = ()
    beam: Annotated[tuple[Irradiance, ...], Meta(max_length=1440)] = ()
    diffuse: Annotated[tuple[Irradiance, ...], Meta(max_length=1440)] = ()
    air: Annotated[tuple[Air, ...], Meta(max_length=1440)] = ()

    def __post_init__(self) -> None:
        """Refuse columns of different lengths.

        Raises:
            ValueError: Names the lengths.
        """
        longs = [len(c) for c in (self.level, self.beam, self.diffuse, self.air)]
        if len(set(longs)) > 1:
            raise ValueError(
                f"the weather's columns level, beam, diffuse and air have {longs} hours; give each as many"
            )


class Day(Value, frozen=True, kw_only=True):
    """One day of a trip; `plugged` is how long a mains charger is plugged in from the evening's six. [h, 0 to 1, °C]"""

    drive_from: Annotated[Hours, shown("Drive from, h", "By the sun's own time")] = 9.0
    drive: Annotated[Hours, shown("Drive, h", "Or drag the bar's end in the picture")] = 0.0
    plugged: Annotated[
        Hours, shown("On mains, h", "From six in the evening, where there is a mains charger")
    ] = 0.0
    cloud: Annotated[Fraction, shown("Cloud, %", "Of the sky")] = 0.3
    warm: Annotated[Celsius, shown("Warmest, °C", "At three in the afternoon")] = 26.0
    cool: Annotated[Celsius, shown("Coolest, °C", "At five in the morning")] = 14.0
    showers: Annotated[int, Meta(ge=0, le=20), shown("Showers", "That day")] = 0
    meals: Annotated[int, Meta(ge=0, le=12), shown("Meals", "Cooked that day")] = 2


Days = Annotated[tuple[Day, ...], Meta(max_length=60)]


class Trip(Value, frozen=True, kw_only=True):
    """Days away from everything: when, where, with whom, how full one starts, where the nose points in camp."""

    name: Annotated[Name, shown("Trip", "What it is called")] = ""
    begin: Annotated[
        str, Meta(max_length=10), shown("First day", "Year, month, day: 2026-03-01")
    ] = "2026-03-01"
    latitude: Annotated[
        float, Meta(ge=-90, le=90, description="degrees north"), shown("Latitude, °", "North; south of the equator below 0")
    ] = 0.0  # fmt: skip
    longitude: Annotated[
        float, Meta(ge=-180, le=180, description="degrees east"), shown("Longitude, °", "East; west of Greenwich below 0")
    ] = 0.0  # fmt: skip
    haze: Annotated[float, Meta(ge=1, le=10, description="Linke turbidity")] = 3.0
    people: Annotated[int, Meta(ge=0, le=20), shown("People", "Who drink, wash and eat")] = 2
    charge: Annotated[Fraction, shown("Charge at first, %", "Of what one wants to draw")] = 1.0
    water: Annotated[Fraction, shown("Water at first, %", "Of the tanks")] = 1.0
    gas: Annotated[Fraction, shown("Gas at first, %", "Of the bottles")] = 1.0
    days: Days = ()
    nose: Annotated[
        Degrees, shown("Nose points to, °", "From north over east, in camp: decides what shades the panels")
    ] = 0.0  # fmt: skip
    weather: Skies = Skies()

    def __post_init__(self) -> None:
        """Refuse a day that there is not.

        Raises:
            ValueError: Says how to write it.
        """
        try:
            year = datetime.date.fromisoformat(self.begin).year
        except ValueError:
            year = 0
        if not 1950 <= year <= 2050:
            raise ValueError(
                f"the trip's begin '{self.begin}' is no day from 1950 to 2050; write 2026-03-01"
            )
