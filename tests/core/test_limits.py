"""Rules at their very limits: which fuse, how far a bolt is used, what is remembered, worked by hand."""

import math
import random

import pytest

from roomy_hull.core.errors import InputError
from roomy_hull.core.folded import Place
from roomy_hull.core.mechanics.bolts import GRADES, PARTIAL, bolt_use, strength, stress_area
from roomy_hull.core.mechanics.frames import both_ways
from roomy_hull.core.memo import by_identity
from roomy_hull.core.services import flows
from roomy_hull.core.services.cables import CONTINUOUS, FUSES, fuse


@pytest.mark.parametrize("size", FUSES)
def test_a_fuse_fits_where_it_is_just_large_and_just_small_enough(size: float) -> None:
    # It carries 1.25 times the load, and is not above what the cable carries: both limits belong to it.
    assert fuse(size / CONTINUOUS, size) == size
    assert fuse(size / CONTINUOUS * 1.001, size) == 0
    larger = [f for f in FUSES if f > size]
    if larger:
        assert fuse(size / CONTINUOUS * 1.001, 1e6) == larger[0]
    assert fuse(size / CONTINUOUS, size - 0.5) == 0


def test_a_bolt_is_used_up_by_either_pull_or_shear_and_by_both_together() -> None:
    # EN 1993-1-8, table 3.4 (from memory), M8 8.8: F_v = 0.6·800·36.6/1.25, F_t = 0.9·800·36.6/1.25.
    shear, tension = strength("M8", "8.8")
    assert stress_area("M8") == pytest.approx(36.6, rel=2e-3)
    assert shear == pytest.approx(0.6 * 800 * 36.6 / PARTIAL, rel=2e-3)
    assert tension == pytest.approx(0.9 * 800 * 36.6 / PARTIAL, rel=2e-3)
    assert bolt_use("M8", "8.8", 0.0, tension) == pytest.approx(1.0)
    assert bolt_use("M8", "8.8", -shear, 0.0) == pytest.approx(1.0)
    assert bolt_use("M8", "8.8", shear / 2, tension / 2) == pytest.approx(0.5 + 0.5 / 1.4)
    assert bolt_use("M8", "8.8", shear / 2, -tension) == pytest.approx(
        0.5
    )  # a push counts as no pull
    assert set(GRADES) >= {"8.8", "10.9"}
    with pytest.raises(InputError, match="no grade"):
        strength("M8", "9.9")


def test_what_was_worked_out_of_the_very_same_is_not_worked_out_again() -> None:
    calls: list[object] = []

    @by_identity(2)
    def first(one: list[int]) -> int:
        calls.append(one)
        return sum(one)

    a, b, c = [1, 2], [1, 2], [3]
    assert [first(a), first(a), first(b), first(a)] == [3, 3, 3, 3]
    assert [x is y for x, y in zip(calls, (a, b), strict=True)] == [True, True]
    first(c)  # the oldest goes: what was asked for last stays
    first(a)
    assert len(calls) == 3
    first(b)
    assert len(calls) == 4


def test_some_arguments_are_told_by_their_value() -> None:
    calls: list[float] = []

    @by_identity(8, 1)
    def scaled(one: list[float], by: float) -> float:
        calls.append(by)
        return one[0] * by

    a = [2.0]
    assert [scaled(a, 1.5), scaled(a, 1.5), scaled(a, 3.0)] == [3.0, 3.0, 6.0]
    assert calls == [1.5, 3.0]
    assert scaled([2.0], 1.5) == 3.0
    assert len(calls) == 3


def test_a_place_carries_each_direction_by_its_own_figure() -> None:
    rng = random.Random(4)
    o, a, b, c = (tuple(rng.uniform(-9, 9) for _ in range(3)) for _ in range(4))
    x, y, z = 3.0, -5.0, 7.0
    found = Place(o, a, b, c).at((x, y), z)  # type: ignore[arg-type]
    for n in range(3):
        assert found[n] == pytest.approx(o[n] + a[n] * x + b[n] * y + c[n] * z)


@pytest.mark.parametrize(("rise", "gives"), [(9.0, True), (10.3, False), (-2.0, True)])
def test_a_pump_gives_nothing_over_the_head_that_stops_it(rise: float, gives: bool) -> None:
    # 100 kPa hold a column of 100 / (9.81 · 1.0) = 10.19 m.
    found = flows.pumped(rise, 0.012, 2.0, 10.0, 100.0)
    assert (found > 0) is gives
    assert found <= 10.0
    if rise > 0 and gives:
        # What it gives it gives against height, speed and friction together: the balance, written out anew.
        section, speed = math.pi / 4 * 0.012**2, found / 60000.0 / (math.pi / 4 * 0.012**2)
        assert section > 0
        loss = (
            1
            + 1.5
            + flows.friction(speed * 0.012 / flows.VISCOSITY, flows.HOSE / 0.012) * 2.0 / 0.012
        )
        taken = 1000.0 * (flows.G * rise + loss * speed**2 / 2)
        assert 100e3 * (1 - found / 10.0) == pytest.approx(taken, rel=1e-6)


def test_a_flat_bar_twists_the_same_on_edge_and_lying() -> None:
    # Roark, case 4 of solid sections (from memory): a·b³·(1/3 - 0.21·b/a·(1 - b⁴/(12·a⁴))) with b the short side.
    by_hand = 50 * 10**3 * (1 / 3 - 0.21 * 10 / 50 * (1 - 10**4 / (12 * 50**4)))
    for name in ("50x10", "10x50"):
        assert both_ways(name).torsion == pytest.approx(by_hand)
