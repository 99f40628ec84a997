import math
import random

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.errors import EditError, InputError
from roomy_hull.core.tables.read import measures
from roomy_hull.job.model import Job
from roomy_hull.job.survey import Reading, Survey
from roomy_hull.planning.survey import adjust, taken_over

DIAGONAL = math.hypot(2140, 900)
TRUE = {
    "wheelbase_left": 3240.0, "wheelbase_right": 3240.0, "axle_cab": 1580.0, "axle_end": 560.0,
    "cab_end": 2140.0, "frame_front": 900.0, "frame_rear": 900.0, "frame_left": 2140.0,
    "frame_right": 2140.0, "frame_diagonal_1": DIAGONAL, "frame_diagonal_2": DIAGONAL,
    "track_front": 1580.0,
}  # fmt: skip


def survey(values: dict[str, float], repeat: int = 1, noise: float = 0.0, seed: int = 1) -> Survey:
    chance = random.Random(seed)
    return Survey(
        readings=tuple(
            Reading(measure=k, value=v + chance.gauss(0, noise))
            for _ in range(repeat)
            for k, v in values.items()
        )
    )


def test_perfect_readings_give_the_true_figures_and_no_residuals() -> None:
    found = adjust(survey(TRUE), "cab-chassis")
    for name, value in (("wheelbase", 3240), ("axle_cab", 1580), ("axle_end", 560), ("front", 900),
                        ("right", 2140), ("diagonal 1", DIAGONAL)):  # fmt: skip
        assert found.sizes[name].value == pytest.approx(value, abs=1e-4)
    assert max(abs(r.residual) for r in found.residuals) < 1e-4
    assert found.suspects == ()
    assert found.plan is not None
    assert found.plan.square == pytest.approx(0, abs=1e-3)
    assert found.redundancy == 3


def test_a_linear_network_agrees_with_a_reference_solution() -> None:
    # The classic closed line a, b and a + b, and a repeat: NumPy's lstsq on the weighted equations.
    readings = [
        ("axle_cab", 1579.0),
        ("axle_end", 562.0),
        ("cab_end", 2144.0),
        ("axle_cab", 1581.0),
    ]
    found = adjust(
        Survey(readings=tuple(Reading(measure=k, value=v) for k, v in readings)), "cab-chassis"
    )
    a = np.array([[1, 0], [0, 1], [1, 1], [1, 0]]) / 2.0
    x = np.linalg.lstsq(a, np.array([v for _, v in readings]) / 2.0, rcond=None)[0]
    cofactor = np.linalg.inv(a.T @ a)
    assert found.sizes["axle_cab"].value == pytest.approx(x[0])
    assert found.sizes["axle_end"].value == pytest.approx(x[1])
    assert found.sizes["axle_cab"].sigma == pytest.approx(cofactor[0, 0] ** 0.5)
    assert sum(r.checked for r in found.residuals) == pytest.approx(found.redundancy)


def test_a_closed_line_shares_its_misclosure_equally() -> None:
    # Textbook rule of levelling: with equal weights, a misclosure of 9 over three parts is 3 each.
    found = adjust(survey({"axle_cab": 1580, "axle_end": 560, "cab_end": 2149}), "cab-chassis")
    assert [round(r.residual, 4) for r in found.residuals] == [-3, -3, 3]


def test_the_mean_of_repeats_is_surer_than_one() -> None:
    one = adjust(survey({"track_front": 1580.0}), "cab-chassis").sizes["track_front"]
    four = adjust(survey({"track_front": 1580.0}, repeat=4), "cab-chassis").sizes["track_front"]
    assert one.sigma == pytest.approx(3.0)
    assert four.sigma == pytest.approx(1.5)


@pytest.mark.parametrize("key", ["frame_diagonal_1", "wheelbase_left", "cab_end", "frame_rear"])
def test_a_slip_of_the_tape_is_named_where_repeats_tell_it_apart(key: str) -> None:
    good = survey(TRUE, repeat=3, noise=1.0)
    rows = list(good.readings)
    at = next(n for n, r in enumerate(rows) if r.measure == key)
    rows[at] = Reading(measure=key, value=rows[at].value + 30)
    found = adjust(Survey(readings=tuple(rows)), "cab-chassis")
    assert found.suspects == (at,)
    assert adjust(good, "cab-chassis").suspects == ()


def test_where_nothing_tells_them_apart_all_are_named() -> None:
    values = dict(TRUE) | {"frame_diagonal_1": DIAGONAL + 25}
    found = adjust(survey(values), "cab-chassis")
    names = {
        found.residuals[i].measure
        for i in range(len(found.residuals))
        if found.residuals[i].number in found.suspects
    }
    assert "frame_diagonal_1" in names
    assert len(names) == 6


def test_out_of_square_is_measured() -> None:
    # The right rail is 12 mm further aft: left and right as long, the diagonals differ.
    values = dict(TRUE)
    values["frame_rear"] = math.hypot(12, 900)
    values["frame_diagonal_1"] = math.hypot(2152, 900)
    values["frame_diagonal_2"] = math.hypot(2140, 900)
    values["frame_right"] = 2152.0
    plan = adjust(survey(values), "cab-chassis").plan
    assert plan is not None
    assert plan.square == pytest.approx(12, abs=0.1)
    assert 1 < plan.square_sigma < 6
    assert plan.skew == pytest.approx(0, abs=0.1)


@pytest.mark.parametrize("by", [-20.0, 8.0, 70.0])
def test_a_frame_pushed_to_one_side_is_told_by_its_diagonals(by: float) -> None:
    # A parallelogram: d1² - d2² = 4 · width · shift, whatever its length.
    values = dict(TRUE)
    long = values["frame_left"]
    wide = values["frame_front"]
    values["frame_right"] = values["frame_left"] = math.hypot(long, by)
    values["frame_diagonal_1"] = math.hypot(long, wide + by)
    values["frame_diagonal_2"] = math.hypot(long, wide - by)
    plan = adjust(survey(values), "cab-chassis").plan
    assert plan is not None
    d1, d2 = values["frame_diagonal_1"], values["frame_diagonal_2"]
    assert plan.skew == pytest.approx((d1 * d1 - d2 * d2) / (4 * wide), abs=0.2)
    assert plan.square == pytest.approx(0, abs=0.1)
    assert 0.5 < plan.skew_sigma < 6


def test_what_only_occurs_in_one_sum_is_left_out_and_what_is_missing_is_listed() -> None:
    found = adjust(survey({"cab_end": 2140.0, "track_rear": 1570.0}), "cab-chassis")
    assert set(found.sizes) == {"track_rear"}
    assert "axle_cab" in found.missing
    assert "track_rear" not in found.missing
    assert adjust(Survey(), "wagon").sizes == {}


def test_readings_that_make_no_figure_say_what_to_measure_again() -> None:
    values = {k: v for k, v in TRUE.items() if k.startswith("frame")} | {"frame_front": 30.0}
    with pytest.raises(InputError, match="diagonals"):
        adjust(survey(values), "cab-chassis")
    with pytest.raises(InputError, match="no measure 'parcel_height'"):
        adjust(survey({"parcel_height": 400.0}), "pickup")


@given(st.integers(0, 50), st.floats(0.3, 3.0))
def test_residuals_are_normal_where_the_uncertainties_are_fair(seed: int, noise: float) -> None:
    rows = tuple(
        r.but(sigma=noise) for r in survey(TRUE, repeat=3, noise=noise, seed=seed).readings
    )
    found = adjust(Survey(readings=rows), "cab-chassis")
    assert 0.4 < found.spread < 1.8
    assert abs(found.sizes["wheelbase"].value - 3240) < 6 * found.sizes["wheelbase"].sigma


def test_adjusted_sizes_are_taken_over_into_the_vehicle(demo: Job) -> None:
    values = dict(TRUE) | {"rail_front_left": 722.0, "rail_rear_right": 730.0, "tail_clearance": 455.0,
                           "cab_height": 1841.0}  # fmt: skip
    vehicle = taken_over(demo.vehicle, adjust(survey(values), "cab-chassis"))
    assert vehicle.wheelbase == 3240
    assert vehicle.cab_back == 1660
    assert vehicle.chassis_end == 3800
    assert vehicle.rail_top == 726
    assert vehicle.rail_spread == 840
    assert vehicle.low.rear == 455  # type: ignore[union-attr]
    with pytest.raises(EditError, match="cab_back"):
        taken_over(
            demo.vehicle,
            adjust(survey({**TRUE, "axle_cab": 4000.0, "cab_end": 4560.0}), "cab-chassis"),
        )


def test_a_hold_takes_the_smaller_of_two() -> None:
    from roomy_hull.formats.vehiclefile import library

    tub = next(e.vehicle for e in library() if e.vehicle is not None and e.vehicle.kind == "pickup")
    values = {
        "floor_front": 1555.0, "floor_rear": 1560.0, "floor_left": 1550.0, "floor_right": 1550.0,
        "floor_diagonal_1": math.hypot(1550, 1557.5), "floor_diagonal_2": math.hypot(1550, 1557.5),
        "between": 1110.0, "arch_left": 224.0, "arch_right": 228.0, "floor_middle": 1562.0,
        "wall_height": 495.0, "tailgate_width": 1365.0,
    }  # fmt: skip
    hold = taken_over(tub, adjust(survey(values), "pickup")).hold
    assert hold is not None
    assert hold.width == pytest.approx(1555, abs=1)
    assert hold.arch_width == pytest.approx(228, abs=0.6)
    assert hold.height == 495
    assert hold.opening_width == 1365


@pytest.mark.parametrize("kind", ["cab-chassis", "pickup", "wagon"])
def test_every_list_can_be_wholly_measured(kind: str) -> None:
    rows = measures()[kind]
    assert len({m.key for m in rows}) == len(rows)
    assert all(bool(m.sum) != bool(m.quad) for m in rows)
    true = {m.key: 500.0 if m.sum else 1000.0 for m in rows}
    for m in rows:
        if m.sum:
            true[m.key] = sum(f * 500.0 for f in m.sum.values())
        if m.quad.startswith("diagonal"):
            true[m.key] = math.hypot(1000, 1000)
    found = adjust(survey(true), kind)
    assert found.missing == ()
    assert len(found.residuals) == len(rows)
    assert found.redundancy > 0
