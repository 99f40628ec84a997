"""What a circuit has to carry."""

from typing import Any

import msgspec
import pytest

from roomy_hull.job.model import Job
from roomy_hull.job.services import Services
from roomy_hull.verdict.verdict import judge


def test_the_main_cable_carries_the_greatest_hour_and_the_largest_alone(demo: Job) -> None:
    s = demo.services
    direct = [c for c in s.consumers if not c.mains]

    def drawn(services: Services) -> float:
        circuits = judge(msgspec.structs.replace(demo, services=services)).services.circuits
        return next(c for c in circuits if c.id == "main").amps

    def at(hour: int, of: tuple[Any, ...]) -> float:
        rows = [
            (max(c.watts, c.idle) if c.runs(hour) or c.day_wh else c.idle) / s.volts for c in of
        ]
        return sum(rows)

    # With none that draws more by itself than all of an hour.
    assert drawn(s) == pytest.approx(max(at(h, tuple(direct)) for h in range(24)))
    # One that runs in no hour of a usual day, and draws more than all others in any.
    (first, *rest) = direct
    seldom = first.but(watts=60.0 * s.volts, day_wh=0.0, hours=0.0, mains=False, idle=0.0)
    if seldom.runs(0) or any(seldom.runs(h) for h in range(24)):
        pytest.fail("it is to run in no hour")
    mains = [c for c in s.consumers if c.mains]
    assert drawn(s.but(consumers=(seldom, *rest, *mains))) == pytest.approx(60.0)
