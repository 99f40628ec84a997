"""The single-line plan and the trip's picture, without a display."""

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.primitives import Outline, Panel
from roomy_hull.drawing.scenes import circuits as scenes
from roomy_hull.drawing.scenes import trip as trip_scene
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.services import Battery, Consumer, Inverter, Services, Source, Wire
from roomy_hull.studies.services import trip as trips
from roomy_hull.studies.services.circuits import START, Circuit, Need, sized

Leg = tuple[int, tuple[float, float], tuple[float, float]]


def made(sources: list[str], loads: int, *, inverter: bool) -> tuple[list[Circuit], Services]:
    """Circuits of so many loads, and of sources each into a charger or straight into the battery."""
    given_by = tuple(
        Source(id=f"s{n}", name=f"S{n}", kind="sun" if n % 2 else "alternator", charger=charger)
        for n, charger in enumerate(sources)
    )
    uses = tuple(Consumer(id=f"c{n}", name=f"C{n}", watts=20) for n in range(loads))
    services = Services(batteries=(Battery(thing="b"),), board="f", sources=given_by, consumers=uses,
                        inverter=Inverter(thing="i" if inverter else ""))  # fmt: skip
    needs = [Need("main", "Main", ("b", "f"), 20.0)] if loads else []
    needs += [Need("inverter", "Inverter", ("b", "i"), 90.0)] if inverter else []
    needs += [
        Need(s.id, s.name, (START if s.kind == "alternator" else "roof", s.charger or "b"), 20.0)
        for s in given_by
    ]
    needs += [
        Need(f"{key}-out", key, (key, "b"), 30.0)
        for key in dict.fromkeys(s.charger for s in given_by)
        if key
    ]
    needs += [Need(c.id, c.name, ("f", ""), 2.0) for c in uses]
    return [sized(n, Wire(metres=2.0), None, 12.0) for n in needs], services


def legs_of(circuits: list[Circuit], services: Services) -> list[Leg]:
    scene, _frame = scenes.plan(circuits, services, {}, "", 2.4)
    lines = [s for s in scene if isinstance(s, Outline) and s.role.startswith("plan")]
    return [
        (n, a, b) for n, s in enumerate(lines) for a, b in itertools.pairwise(s.points) if a != b
    ]


def cross(one: Leg, other: Leg) -> bool:
    """Whether an upright and a level piece cross inside both."""
    for (_n, a, b), (_m, c, d) in ((one, other), (other, one)):
        if a[0] == b[0] and c[1] == d[1] and min(c[0], d[0]) + 1e-6 < a[0] < max(c[0], d[0]) - 1e-6:
            return min(a[1], b[1]) + 1e-6 < c[1] < max(a[1], b[1]) - 1e-6
    return False


@given(
    sources=st.lists(st.sampled_from(("k1", "k2", "")), max_size=4), loads=st.integers(0, 20), inverter=st.booleans(),
)  # fmt: skip
def test_no_two_lines_of_the_plan_cross(sources: list[str], loads: int, inverter: bool) -> None:
    circuits, services = made(sources, loads, inverter=inverter)
    legs = legs_of(circuits, services)
    assert len(legs) >= len(circuits)
    assert [
        (a, b) for a, b in itertools.combinations(legs, 2) if a[0] != b[0] and cross(a, b)
    ] == []


def test_boxes_stand_apart_and_every_circuit_has_its_fuse() -> None:
    circuits, services = made(["k1", "k1", "k2", ""], 9, inverter=True)
    scene, frame = scenes.plan(circuits, services, {}, "c3", 2.0)
    panels = [s for s in scene if isinstance(s, Panel)]
    boxes = [s for s in panels if s.role == "plan box"]
    for a, b in itertools.combinations(boxes, 2):
        assert not (min(a.h1, b.h1) > max(a.h0, b.h0) and min(a.k1, b.k1) > max(a.k0, b.k0))
    assert sum(s.role == "plan fuse" for s in panels) == len(circuits)
    assert all(
        frame[0] <= s.h0 and s.h1 <= frame[2] and frame[1] <= s.k0 and s.k1 <= frame[3]
        for s in panels
    )
    assert sum(s.role == "plan chosen" for s in scene) == 1


def test_the_trip_s_curve_is_what_is_left_hour_by_hour() -> None:
    services = demo_job().services
    found = trips.trip(services)
    assert found is not None
    days = services.trip.days
    scene, frame = trip_scene.scene(
        found, days, services.usable, trip_scene.Stocks((1.0, 0.5), ()), 1, 2.0
    )
    (curve,) = (s for s in scene if s.role == "curve 1" and isinstance(s, Outline))
    shown = [k / trip_scene.HIGH * services.usable for _h, k in curve.points]
    assert shown == pytest.approx(found.lived.left.tolist())
    width = trip_scene.wide(len(days), 2.0)
    for n, day in enumerate(days):
        a, _low, b, _high = trip_scene.drive_box(days, n, width)
        at, hour = trip_scene.hour_at(days, b - 1e-6, width)
        assert (at, hour) == (
            n,
            pytest.approx(day.drive_from + day.drive, abs=1e-3),
        ) or day.drive == 0
        assert b - a == pytest.approx(day.drive * width / found.hours)
    assert frame[2] > trip_scene.LEFT + width
