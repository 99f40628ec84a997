"""Air, sun and driving over a trip, hour by hour."""

from __future__ import annotations

import datetime
from collections.abc import Mapping
from typing import TYPE_CHECKING

import msgspec

from roomy_hull.core import lazily
from roomy_hull.core.errors import InputError
from roomy_hull.core.services import sun
from roomy_hull.job.services import Services, Source
from roomy_hull.job.trips import Trip

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
else:
    np = lazily.module("numpy")

PANEL = 0.80
"""What of a panel's rating is left by heat, dirt, wiring and charger (common practice)."""
CHARGER = 0.93
"""What of its input a DC charger gives (common practice)."""
PLUGGED_FROM = 18.0
"""Camp with mains is reached at this hour. [h]"""
COOLEST, WARMEST = 5.0, 15.0
"""The hours of the day at which it is coolest and warmest."""


class Weather(msgspec.Struct, frozen=True):
    """Air, and what the panels get of the sun, hour by hour. [°C, W]"""

    air: Array
    panels: Array


def hours_of(trip: Trip) -> Array:
    """The middle of every hour of a trip, UTC, its days by the sun's own time. [s since 1970]"""
    begin = datetime.datetime.fromisoformat(trip.begin).replace(tzinfo=datetime.UTC).timestamp()
    zone = round(trip.longitude / 15.0) * 3600.0
    found: Array = begin - zone + 1800.0 + 3600.0 * np.arange(24.0 * len(trip.days))
    return found


def weather(
    services: Services, cover: Array | None = None, lit: Mapping[str, Array] | None = None
) -> Weather:
    """Air and sun over a trip.

    Args:
        cover: Cloud of each day, or of many trips at once (trips by days); that of the trip where it is not given.
        lit: What of a panel is lit hour by hour, by its id; all of it where nothing is said.
    Returns: Hours last. [°C, W]
    """
    trip = services.trip
    unix = hours_of(trip)
    zenith, azimuth = sun.position(unix, trip.latitude, trip.longitude)
    begin = datetime.date.fromisoformat(trip.begin)
    day = np.repeat(
        [(begin + datetime.timedelta(days=n)).timetuple().tm_yday for n in range(len(trip.days))],
        24,
    )
    sky = sun.clear(zenith, day, trip.haze)
    said = np.array([float(d.cloud) for d in trip.days])
    cover = said if cover is None else cover
    seen = sun.clouded(sky, zenith, np.repeat(cover, 24, axis=-1))
    own = min(len(trip.weather.air), len(unix))
    if own:
        seen = _recorded(trip, seen, np.repeat(said - cover, 24, axis=-1), own)
    panels = np.zeros(seen.level.shape)
    for one in services.sources:
        if one.kind == "sun":
            got = (
                sun.on_panel(
                    seen, zenith, azimuth, one.tilt, one.facing, (lit or {}).get(one.id, 1.0)
                )
                / 1000.0
                * one.watts
                * PANEL
            )
            panels += np.minimum(got, _limit(one, services))
    clock = np.tile(np.arange(24) + 0.5, len(trip.days))
    warm, cool = (np.repeat([getattr(d, k) for d in trip.days], 24) for k in ("warm", "cool"))
    # Two half waves: up from the coolest to the warmest hour, and down again.
    up = (clock - COOLEST) % 24
    rise = WARMEST - COOLEST
    wave = np.where(
        up < rise, np.cos(np.pi * up / rise), -np.cos(np.pi * (up - rise) / (24 - rise))
    )
    air = (warm + cool) / 2 - (warm - cool) / 2 * wave
    air[:own] = trip.weather.air[:own]
    return Weather(air, panels)


def _recorded(trip: Trip, seen: sun.Sky, clearer: Array, own: int) -> sun.Sky:
    """The sky with the hours that a file of one's own has; by chance a day is so much clearer or duller. [W/m²]"""
    rows = []
    for known, name in zip(seen, ("level", "beam", "diffuse"), strict=True):
        row = known.copy()
        row[..., :own] = np.array(getattr(trip.weather, name)[:own]) * np.clip(
            1 + clearer[..., :own], 0.0, None
        )
        rows.append(row)
    return sun.Sky(*rows)


def _limit(one: Source, services: Services) -> float:
    """What a source's charger gives at most. [W]"""
    return one.amps * services.volts if one.amps else float("inf")


def driving(services: Services) -> Array:
    """What the alternator's chargers give while driving, and a mains charger while plugged in, hour by hour. [W]"""
    days = services.trip.days
    found = np.zeros(24 * len(days))
    for kind, spans in (
        ("alternator", [(d.drive_from, d.drive) for d in days]),
        ("mains", [(PLUGGED_FROM, d.plugged) for d in days]),
    ):
        amps = [s.amps for s in services.sources if s.kind == kind]
        good = (
            CHARGER if kind == "alternator" else 1.0
        )  # a mains charger's amperes are what it gives
        if amps:
            found += _share(spans) * sum(amps) * services.volts * good
    return found


def _share(spans: list[tuple[float, float]]) -> Array:
    """What of every hour lies within a span of each day, its end past midnight in the next one. [h]"""
    clock = np.arange(24.0 * len(spans))
    found = np.zeros(len(clock))
    for n, (begin, long) in enumerate(spans):
        a = 24 * n + begin
        found += np.clip(np.minimum(clock + 1, a + long) - np.maximum(clock, a), 0.0, 1.0)
    return np.minimum(found, 1.0)


def hour_now(trip: Trip, unix: float) -> float:
    """Which hour of a trip it is.

    Args:
        unix: [s since 1970]
    Returns: From midnight of the first day, by the sun's own time. [h]
    Raises:
        InputError: It is no hour of the trip.
    """
    first = hours_of(trip)
    hour = (unix - float(first[0]) + 1800.0) / 3600.0 if len(first) else -1.0
    if not 0 <= hour < len(first):
        raise InputError(
            "it is no day of the trip now",
            "the trip's first day",
            "Enter the day on which it begins.",
        )
    return hour
