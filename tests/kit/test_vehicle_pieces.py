"""A vehicle's own solids and rooms, against geometry done otherwise: shapely, and a wheel turned by trigonometry."""

import math

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.sweeping import examples

from roomy_hull.core.geometry.gaps import apart
from roomy_hull.core.geometry.motion import block
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.tyres import overall_diameter, parts_of
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.vehicle import FuelTank
from roomy_hull.kit import vehicle_pieces as pieces

MARL = demo_job().vehicle
RADIUS, SECTION = overall_diameter(MARL.tyre) / 2, parts_of(MARL.tyre)[0]

spot = st.tuples(st.integers(-1500, 2200), st.integers(-1200, 900), st.integers(0, 1900))
size = st.tuples(*[st.integers(20, 500)] * 3)


@given(spot, size)
def test_what_stands_in_the_cab_or_under_the_bonnet_is_what_shapely_says(
    at: tuple[int, ...], by: tuple[int, ...]
) -> None:
    box = Box(*at, *(a + b for a, b in zip(at, by, strict=True)))
    side = shapely.box(box.x0, box.z0, box.x1, box.z1)
    for name, room in pieces.insides(MARL):
        face = shapely.Polygon(room.ring)
        inside = face.buffer(1e-6).contains(side) and room.lo <= box.y0 and box.y1 <= room.hi
        assert (pieces.contains(room, box) <= 0) == inside, name


@given(spot, size, st.floats(0, 140))
@settings(max_examples=examples(60, 12))
def test_a_wheels_room_misses_no_turn_and_no_rise_of_it(
    at: tuple[int, ...], by: tuple[int, ...], travel: float
) -> None:
    # A thousand points of the tyre, turned and raised anyhow: where one is in a box, the box meets the room.
    box = Box(*at, *(a + b for a, b in zip(at, by, strict=True)))
    rng = np.random.default_rng(5)
    n = 1000
    angle, r = rng.uniform(0, math.tau, n), RADIUS * np.sqrt(rng.uniform(0, 1, n))
    along, up, across = (
        r * np.cos(angle),
        RADIUS + r * np.sin(angle),
        rng.uniform(-SECTION / 2, SECTION / 2, n),
    )
    turn = np.radians(
        rng.choice([-pieces.LOCK, -pieces.LOCK / 2, 0.0, pieces.LOCK / 2, pieces.LOCK], n)
    )
    y = -MARL.track_front / 2 + along * np.sin(turn) + across * np.cos(turn)
    x = along * np.cos(turn) - across * np.sin(turn)
    z = up + rng.uniform(0, travel, n)
    hit = (
        (box.x0 < x) & (x < box.x1) & (box.y0 < y) & (y < box.y1) & (box.z0 < z) & (z < box.z1)
    ).any()
    room = [p.piece for p in pieces.wheel_rooms(MARL, travel) if p.words == "left front wheel"]
    gap = min(apart(block(box), p) for p in room)
    if hit:
        assert gap < 0.01
    if gap < -60:  # deep in it: then the tyre itself can be there
        reach = math.hypot(RADIUS, SECTION / 2)
        assert box.x0 < reach
        assert box.z0 < 2 * RADIUS + travel


def test_a_rear_wheel_rises_straight_and_does_not_turn() -> None:
    (room,) = [p.piece for p in pieces.wheel_rooms(MARL, 90.0) if p.words == "right rear wheel"]
    b = room.box
    # Half its travel further fore and aft, 20 mm to each side.
    reach, half, middle = RADIUS + 45.0, SECTION / 2 + 20.0, MARL.track_rear / 2
    assert (b.x0, b.x1) == pytest.approx((MARL.wheelbase - reach, MARL.wheelbase + reach))
    assert (b.z0, b.z1) == pytest.approx((0.0, 2 * RADIUS + 90.0))
    assert (b.y0, b.y1) == (middle - half, middle + half)


def test_a_measured_tank_is_where_it_was_measured_and_a_guessed_one_holds_its_litres() -> None:
    box, guessed = pieces.tank_box(FuelTank(litres=80, x=1750, y=-330, z=550))
    assert guessed
    assert box.volume() == pytest.approx(80e6)
    box, guessed = pieces.tank_box(
        FuelTank(litres=80, x=1750, y=-330, z=550, length=900, width=300, height=330)
    )
    assert not guessed
    assert box == (1300, -480, 385, 2200, -180, 715)
