"""A trip to live through: days away, where and when, the weather of one's own if there is any."""

import datetime
from typing import Annotated

from msgspec import Meta

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

    drive_from: Hours = 9.0
    drive: Hours = 0.0
    plugged: Hours = 0.0
    cloud: Fraction = 0.3
    warm: Celsius = 26.0
    cool: Celsius = 14.0
    showers: Annotated[int, Meta(ge=0, le=20)] = 0
    meals: Annotated[int, Meta(ge=0, le=12)] = 2


Days = Annotated[tuple[Day, ...], Meta(max_length=60)]


class Trip(Value, frozen=True, kw_only=True):
    """Days away from everything: when, where, with whom, how full one starts, where the nose points in camp."""

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
    nose: Degrees = 0.0
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
