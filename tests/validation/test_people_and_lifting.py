"""People and lifting against published tables: Bodyspace, the NIOSH manual's examples, the live-animal rule."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.ergonomics.dogs import room
from roomy_hull.core.ergonomics.figure import Figure
from roomy_hull.core.ergonomics.lifting import COUPLING, Lift, index, limit, multipliers

LB, IN = 0.45359237, 2.54


@pytest.mark.parametrize(
    ("stature", "eye", "elbow", "knuckle", "grip"),
    [
        (1625, 1515, 1005, 690, 1925), (1740, 1630, 1090, 755, 2060), (1855, 1745, 1180, 825, 2190),
        (1505, 1405, 930, 660, 1790), (1610, 1505, 1005, 720, 1905), (1710, 1610, 1085, 780, 2020),
    ],
)  # fmt: skip
def test_segments_against_bodyspace(
    stature: float, eye: float, elbow: float, knuckle: float, grip: float
) -> None:
    # Pheasant & Haslegrave, Bodyspace, British adults, 5th, 50th and 95th (from memory).
    one = Figure(stature)
    assert one.eye == pytest.approx(eye, rel=0.03)
    assert one.elbow == pytest.approx(elbow, rel=0.03)
    assert one.shoulder + one.arm == pytest.approx(grip, rel=0.03)
    assert one.knuckle == pytest.approx(knuckle, rel=0.05)


def test_segments_of_drillis_and_contini() -> None:
    # Drillis & Contini (1966), as in Winter, figure 4.1 (from memory).
    one = Figure(1000.0)
    assert (one.eye, one.shoulder, one.elbow, one.hip, one.breadth) == pytest.approx((
        936,
        818,
        630,
        530,
        259,
    ))
    assert one.arm == pytest.approx(186 + 146 + 54)
    assert one.leaning(one.shoulder, 0.0) == pytest.approx((0.0, 818.0))
    forward, up = one.leaning(one.shoulder, 45.0)
    assert forward == pytest.approx(288 * math.sqrt(0.5))
    assert up == pytest.approx(530 + 288 * math.sqrt(0.5))


@pytest.mark.parametrize(
    ("out", "height", "travel", "twist", "coupling", "pounds"),
    [
        # Applications Manual, DHHS (NIOSH) 94-110 (from memory): punch-press stock, origin and destination; supply rolls;
        # bags into a hopper. The manual rounds multipliers to two places and works in inches: H from 10 in, V about 30 in.
        (23, 15, 48, 0, "fair", 16.3), (23, 63, 48, 0, "fair", 14.5), (15, 27, 17, 0, "poor", 28.0),
        (20, 10, 17, 0, "poor", 18.1), (18, 15, 21, 45, "fair", 18.9),
    ],
)  # fmt: skip
def test_the_manual_s_examples(
    out: float, height: float, travel: float, twist: float, coupling: str, pounds: float
) -> None:
    found = limit(Lift(out * IN, height * IN, travel * IN, twist, coupling))  # type: ignore[arg-type]
    assert found / LB == pytest.approx(pounds, rel=0.05)


def test_each_multiplier_by_the_formula() -> None:
    h, v, d, a, f, c = multipliers(Lift(50.0, 30.0, 60.0, 30.0, "poor", 0.8))
    assert (h, v, d, a, f, c) == pytest.approx((
        0.5,
        1 - 0.003 * 45,
        0.82 + 4.5 / 60,
        1 - 0.0032 * 30,
        0.8,
        0.9,
    ))
    # Table 7: the coupling's part depends on the height of the hands.
    assert COUPLING["fair"] == (0.95, 1.0)
    assert limit(Lift(25.0, 75.0, 25.0, 0.0, "good")) == pytest.approx(23.0)


@pytest.mark.parametrize(
    "one", [Lift(63.1, 75, 30), Lift(30, 175.1, 30), Lift(30, 75, 175.1), Lift(30, 75, 30, 135.1)]
)
def test_beyond_its_bounds_nothing_may_be_lifted(one: Lift) -> None:
    assert limit(one) == 0.0
    assert index(1.0, (one,)) == math.inf


@given(
    out=st.floats(10, 63), height=st.floats(0, 175), travel=st.floats(0, 175), more=st.floats(0, 30)
)
def test_further_out_never_allows_more(
    out: float, height: float, travel: float, more: float
) -> None:
    assert (
        limit(Lift(min(out + more, 63), height, travel)) <= limit(Lift(out, height, travel)) + 1e-9
    )


def test_a_dog_s_room() -> None:
    # IATA container requirement 1 (from memory): length A + ½B, width 2C, height D and bedding.
    assert room(700, 300, 200, 600, 30) == (850, 400, 630)
