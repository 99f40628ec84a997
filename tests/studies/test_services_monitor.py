"""A battery monitor's readings against the trip, and the uses recalibrated by them."""

import numpy as np
import pytest

from roomy_hull.core.errors import InputError
from roomy_hull.job.model import Job
from roomy_hull.job.services import Measured, Services
from roomy_hull.studies.services import monitor, weather
from roomy_hull.studies.services import trip as trips


def read(services: Services, factors: dict[str, float], hours: range) -> Services:
    """The services with the readings that a monitor takes where each use takes so many times what is entered."""
    sky = weather.weather(services)
    taken = trips.uses(services, sky.air)
    drawn = sum(watts * factors.get(key, 1.0) for key, watts in taken.items())
    given = weather.driving(services) + sky.panels
    rows = tuple(
        Measured(hour=h + 0.5, volts=13.0, amps=float((given[h] - drawn[h]) / 13.0), charge=0.8)  # type: ignore[index]
        for h in hours
    )
    return services.but(measured=rows)


def test_what_each_use_takes_is_found_again(demo: Job) -> None:
    true = {"sample-fridge": 1.3, "lab-outlet": 0.6, "camera-charge": 1.2}
    services = read(demo.services, true, range(144))
    found = {u.id: u for u in monitor.recalibrated(services)}
    for key, factor in true.items():
        assert found[key].factor == pytest.approx(factor, abs=0.12), key
        assert found[key].uncertainty < 0.2
        assert abs(found[key].factor - factor) < 3 * found[key].uncertainty
    new = monitor.applied(services, tuple(found.values()))
    hours = [
        h
        for h in range(144)
        if (weather.driving(services) + weather.weather(services).panels)[h] < monitor.DARK
    ]
    sky = weather.weather(services)
    seen = sum(trips.uses(new, sky.air).values())[hours]  # type: ignore[index]
    drawn = np.array([-services.measured[h].amps * 13.0 for h in hours])
    assert seen == pytest.approx(drawn, abs=0.06 * drawn.max())
    # Nothing else is altered, and what was right stays.
    right = monitor.recalibrated(read(demo.services, {}, range(144)))
    assert [u.factor for u in right] == pytest.approx([1.0] * len(right), abs=1e-6)


def test_few_readings_leave_what_was_entered_and_say_so_by_their_uncertainty(demo: Job) -> None:
    found = {
        u.id: u
        for u in monitor.recalibrated(read(demo.services, {"sample-fridge": 2.0}, range(1, 4)))
    }
    assert found["sample-fridge"].factor > 1.2
    # What did not run then keeps its doubt.
    assert "bench-pump" not in found or found["bench-pump"].uncertainty == pytest.approx(
        monitor.BEFORE, rel=0.01
    )
    with pytest.raises(InputError, match="0 readings"):
        monitor.recalibrated(read(demo.services, {}, range(9, 14)))


def test_the_hour_of_the_trip_is_the_sun_s_and_none_outside(demo: Job) -> None:
    trip = demo.services.trip
    first = float(weather.hours_of(trip)[0]) - 1800
    assert weather.hour_now(trip, first) == pytest.approx(0.0)
    assert weather.hour_now(trip, first + 36 * 3600) == pytest.approx(36.0)
    for away in (-3600.0, 24 * 3600.0 * len(trip.days) + 1):
        with pytest.raises(InputError, match="no day of the trip"):
            weather.hour_now(trip, first + away)
