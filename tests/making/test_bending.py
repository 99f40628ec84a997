"""In which order a part is bent, on which die, and what cannot be."""

import msgspec
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests import bent_shapes
from tests.builders import SHOP

from roomy_hull.core import shapes
from roomy_hull.core.folded import Face
from roomy_hull.core.parts import SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.making.bending import plan_bends
from roomy_hull.making.brake import die_for, put_together
from roomy_hull.making.flats import blank
from roomy_hull.making.judge import flaws
from roomy_hull.making.part_bent import bent, spots_of
from roomy_hull.shop.tools import Brake

BRAKE: Brake = SHOP.tools.brake
METAL, OWNER = SHOP.material("5052-H32"), Ref("unit", "x")


def pan(a: float, b: float, *flanges: float, t: float = 2.0, **more: object) -> SheetPart:
    left, right, front, back = flanges
    return SheetPart("p", OWNER, a, b, t, METAL, left, right, front, back, **more)  # type: ignore[arg-type]


def shaped(face: Face, t: float = 2.0) -> SheetPart:
    return SheetPart("p", OWNER, 100, 100, t, METAL, shape=face)


@given(st.floats(120, 900), st.floats(120, 900), st.floats(20, 400))
def test_a_closed_box_is_bent_so_deep_as_the_beam_leaves_room(a: float, b: float, h: float) -> None:
    deep = BRAKE.box_depth(2.0)
    plan = plan_bends(pan(a, b, h, h, h, h), BRAKE)
    channel = min(BRAKE.channel_depth(2.0, a), BRAKE.channel_depth(2.0, b))
    if h < min(deep, channel) - 1:
        assert plan.fault == ""
        assert sorted(s.bend for s in plan.steps) == [0, 1, 2, 3]
    elif h > deep + 12 and (min(a, b) + h) / np.sqrt(2) > BRAKE.punch_height + 2.0 + 12:
        # A base shorter than that ends before its flange comes under the beam.
        assert "hits the" in plan.fault
        assert plan.measured >= h - 5


@given(st.floats(60, 900), st.floats(15, 900))
def test_a_channel_is_bent_so_deep_as_its_base_lets_it(base: float, h: float) -> None:
    plan = plan_bends(pan(base, 500, h, h, 0, 0), BRAKE)
    limit = BRAKE.channel_depth(2.0, base)
    if h < limit - 1 and base > 40:
        assert plan.fault == ""
    elif limit + 12 < h and h + base > (BRAKE.punch_height + 20) * 1.5:
        assert plan.fault


def test_the_outer_bends_of_a_returned_edge_come_first() -> None:
    skin = shaped(bent_shapes.door_skin(shapes.Sheet(2.0, 3.0), 600, 400, 40, 15))
    plan = plan_bends(skin, BRAKE)
    assert plan.fault == ""
    spots = {s.number: s for s in spots_of(skin.faces())}
    turn = {s.bend: n for n, s in enumerate(plan.steps)}
    for number, spot in spots.items():
        if spot.before >= 0:
            assert turn[number] < turn[spot.before]


def test_a_z_is_turned_over_and_a_hem_is_bent() -> None:
    zed = plan_bends(shaped(bent_shapes.zed(shapes.Sheet(2.0, 3.0), 300, 40, 60, 40)), BRAKE)
    assert sorted(s.flipped for s in zed.steps) == [False, True]
    hem = plan_bends(shaped(bent_shapes.hemmed(shapes.Sheet(1.6, 0.5), 300, 200, 20), 1.6), BRAKE)
    assert [s.angle for s in hem.steps] == [180.0]


def test_force_die_and_punch_are_the_brakes() -> None:
    # V 16 is eight times 2 mm; 1.33 · 228 MPa · 500 · 2² / 16 = 37.9 kN.
    (step,) = plan_bends(pan(300, 500, 50, 0, 0, 0), BRAKE).steps
    assert (step.die, step.length) == (16, 500)
    assert step.force == pytest.approx(1.33 * 228 * 500 * 4 / 16 / 1000)
    closed = plan_bends(pan(400, 500, 60, 60, 60, 60), BRAKE)
    for s in closed.steps[2:]:
        # Between two flanges stands a punch no longer than the bend, and bare by five sheets at most.
        assert s.length - 2 * 5 * 2 <= sum(s.punch) <= s.length
    weak = msgspec.structs.replace(BRAKE, force=20.0)
    assert "more force" in plan_bends(pan(300, 500, 50, 0, 0, 0), weak).fault


@pytest.mark.parametrize(
    ("part", "brake", "says"),
    [
        (pan(300, 3200, 50, 0, 0, 0), BRAKE, "longer than the brake's bed"),
        (pan(300, 500, 6.5, 0, 0, 0), BRAKE, "shorter than the tool"),
        (pan(300, 500, 60, 0, 0, 0, t=12.0), BRAKE, "no die bends"),
        (pan(400, 500, 60, 60, 60, 60), msgspec.structs.replace(BRAKE, segments=(900.0,)), "lengths of punch"),
        (SheetPart("p", OWNER, 300, 200, 12, SHOP.material("birch ply"), left=50), BRAKE, "not bent"),
    ],
)  # fmt: skip
def test_what_cannot_be_bent_says_why_and_what_to_change(
    part: SheetPart, brake: Brake, says: str
) -> None:
    plan = plan_bends(part, brake)
    assert says in plan.fault
    assert plan.remedy.endswith(".")
    assert plan.steps == ()
    codes = {f.code for f in flaws((part,), SHOP.stock, brake)}
    assert codes & {"making.bend", "making.flange", "making.sheet_stock"}


def test_dies_that_the_brake_cannot_press_are_left_out() -> None:
    load = 1.33 * 228 * 3000 * 4
    assert die_for(BRAKE, 2.0, 100, load) == 16
    weak = msgspec.structs.replace(BRAKE, force=load / 20 / 1000)
    assert die_for(weak, 2.0, 100, load) == 20
    assert die_for(BRAKE, 2.0, 15, load) == 16
    assert die_for(BRAKE, 2.0, 7.5, load) == 10


@given(st.integers(20, 1500), st.integers(0, 30))
def test_lengths_of_punch_add_up_to_what_is_wanted(high: int, less: int) -> None:
    found = put_together(BRAKE.segments, high - less, high)
    reachable = {0}
    for one in BRAKE.segments:
        reachable |= {t + round(one) for t in reachable}
    fine = [t for t in reachable if max(high - less, 1) <= t <= high]
    assert (found is None) == (not fine)
    if found is not None:
        assert sum(found) == max(t for t in reachable if t <= high)
        assert all(found.count(s) <= BRAKE.segments.count(s) for s in found)


@given(st.floats(100, 400), st.floats(100, 400), st.floats(15, 80), st.integers(0, 15))
def test_a_part_bent_in_part_is_flat_where_it_is_not(
    a: float, b: float, h: float, which: int
) -> None:
    part = pan(a, b, h, h, h, h)
    done = frozenset(n for n in range(4) if which >> n & 1)
    faces, _where = bent(part.faces(), 2.0, 0.44, done)
    for number, points in faces:
        flat = float(np.ptp(points[:, 2])) < 2.0 + 1e-6
        assert flat == (number not in done)
    if not done:
        xy = np.vstack([points[:, :2] for _n, points in faces])
        size = xy.max(axis=0) - xy.min(axis=0)
        # Faces run on to where their outsides would meet: longer than the flat by what the bends save.
        flat_ = blank(part)
        assert size[0] >= flat_.length - 1e-6
        assert size[0] <= flat_.length + 4 * part.setback()
