"""The small pieces everything stands on: doubt, frames, boxes, tables, errors, lazy modules."""

import math
import sys

import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core import lazily
from roomy_hull.core.doubt import chance_over, doubt_of
from roomy_hull.core.errors import InputError, UserError
from roomy_hull.core.geometry.frames import Frame
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.shipped import shipped
from roomy_hull.shop.shop import shipped_shop

mm = st.floats(-3000, 3000)


def test_doubt_follows_where_a_mass_is_known_from() -> None:
    assert doubt_of(100, "weighed") == pytest.approx(0.5)
    assert doubt_of(100, "data sheet") == pytest.approx(3)
    assert doubt_of(100, "geometry") == pytest.approx(5)
    assert doubt_of(-100, "estimate") == pytest.approx(15)


@pytest.mark.parametrize(
    ("z", "chance"), [(0.0, 0.5), (1.0, 0.158655), (1.644854, 0.05), (-2.0, 0.977250)]
)
def test_the_chance_over_a_limit_is_the_normal_tail(z: float, chance: float) -> None:
    # Standard normal table, upper tail.
    assert chance_over(1000, 20, 1000 + 20 * z) == pytest.approx(chance, abs=1e-6)


def test_without_doubt_the_chance_is_yes_or_no() -> None:
    assert chance_over(10, 0, 9) == 1.0
    assert chance_over(9, 0, 9) == 0.0


@given(mm, mm, mm, st.sampled_from(["left", "right", "rear"]), mm, mm, mm)
def test_a_frame_carries_a_point_there_and_back(
    x: float, y: float, z: float, side: str, u: float, v: float, w: float
) -> None:
    frame = Frame(x, y, z, side)  # type: ignore[arg-type]
    back = frame.local(*frame.point(u, v, w))
    assert back == pytest.approx((u, v, w), abs=1e-6)


@given(st.sampled_from(["left", "right", "rear"]), mm, mm, st.floats(1, 900), st.floats(1, 900))
def test_a_frame_keeps_a_box_the_right_way_round(
    side: str, u: float, v: float, a: float, b: float
) -> None:
    box = Frame(100, 200, 300, side).box(Box(u, v, 0, u + a, v + b, 50))  # type: ignore[arg-type]
    assert box.x0 < box.x1
    assert box.y0 < box.y1
    assert box.volume() == pytest.approx(a * b * 50)


def test_in_left_is_to_the_right_and_in_right_is_to_the_left() -> None:
    inward = Box(0, 0, 0, 10, 30, 10)
    assert Frame(0, -900, 0, "left").box(inward).y1 == -870
    assert Frame(0, 900, 0, "right").box(inward).y0 == 870
    assert Frame(3700, 0, 0, "rear").box(inward).x0 == 3670


def test_boxes_that_only_touch_share_nothing() -> None:
    a, b = Box(0, 0, 0, 10, 10, 10), Box(10, 0, 0, 20, 10, 10)
    assert a.common(b) is None
    assert a.common(b.moved(-1)) == Box(9, 0, 0, 10, 10, 10)
    assert hull([a, b]) == Box(0, 0, 0, 20, 10, 10)


def test_every_table_names_its_source_and_is_plausible() -> None:
    for key, metal in shipped_shop().materials.items():
        assert metal.source, key
        assert 500 < metal.density < 9000
        assert metal.welded_mpa <= metal.yield_mpa
        assert 0.3 <= metal.k_factor <= 0.5
    assert shipped_shop().stock.source
    assert shipped_shop().rules.source
    assert all(a > b > 1000 for a, b in shipped_shop().stock.sheets)


def test_an_error_says_place_what_and_remedy_on_one_line() -> None:
    assert str(InputError("it is wrong", "field", "Mend it.")) == "field: it is wrong. Mend it."
    assert str(UserError("it is wrong.")) == "it is wrong."


def test_a_lazy_module_is_the_module_itself() -> None:
    assert lazily.module("math") is math
    found = lazily.module("colorsys")
    assert found.rgb_to_hls(0, 0, 0) == (0, 0, 0)
    assert sys.modules["colorsys"] is found
    with pytest.raises(ModuleNotFoundError):
        lazily.module("no_such_module_here")


def test_shipped_files_are_there() -> None:
    assert shipped("fonts", "B612-Bold.otf")[:4] == b"OTTO"
    assert b"SIL OPEN FONT LICENSE" in shipped("fonts", "LICENCE-B612.txt")
    with pytest.raises(FileNotFoundError):
        shipped("nothing")
