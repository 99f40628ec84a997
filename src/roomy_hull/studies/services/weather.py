"""Air, sun and driving over a trip, hour by hour."""

from __future__ import annotations

import datetime
from typing import TYPE_CHECKING

import msgspec

from roomy_hull.core import lazily
from roomy_hull.core.errors import InputError
from roomy_hull.core.services import sun
from roomy_hull.job.services import Services, Source, Trip

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


def weather(services: Services, cover: Array | None = None) -> Weather:
    """Air and sun over a trip.

    Parameters
    ----------
    services : Services
        With its trip and sources.
    cover : array or None
        Cloud of each day, or of many trips at once (trips by days); that of the trip where it is not given.

    Returns
    -------
    Weather
        Hours last. [°C, W]
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
    if cover is None:
        cover = np.array([float(d.cloud) for d in trip.days])
    seen = sun.clouded(sky, zenith, np.repeat(cover, 24, axis=-1))
    panels = np.zeros(seen.level.shape)
    for one in services.sources:
        if one.kind == "sun":
            got = (
                sun.on_panel(seen, zenith, azimuth, one.tilt, one.facing)
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
    return Weather((warm + cool) / 2 - (warm - cool) / 2 * wave, panels)


def _limit(one: Source, services: Services) -> float:
    """What a source's charger gives at most. [W]"""
    return one.amps * services.volts if one.amps else float("inf")


def driving(services: Services) -> Array:
    """What the alternator's chargers give, hour by hour. [W]"""
    clock = np.arange(24)
    share = np.concatenate([
        np.clip(np.minimum(clock + 1, d.drive_from + d.drive) - np.maximum(clock, d.drive_from), 0.0, 1.0)
        for d in services.trip.days
    ])  # fmt: skip
    watts = sum(
        s.amps * services.volts * CHARGER for s in services.sources if s.kind == "alternator"
    )
    found: Array = share * watts
    return found


def hour_now(trip: Trip, unix: float) -> float:
    """Which hour of a trip it is.

    Parameters
    ----------
    trip : Trip
        With its first day.
    unix : float
        [s since 1970]

    Returns
    -------
    float
        From midnight of the first day, by the sun's own time. [h]

    Raises
    ------
    InputError
        It is no hour of the trip.
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
