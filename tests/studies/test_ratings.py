import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.formats.demo import demo_job
from roomy_hull.job.model import Job
from roomy_hull.studies.loads import towing
from roomy_hull.studies.loads.governing import governing
from roomy_hull.verdict.verdict import judge


def rated(demo: Job, **changes: object) -> Job:
    vehicle = demo.vehicle.but(ratings=demo.vehicle.ratings.but(**changes))
    return msgspec.structs.replace(demo, vehicle=vehicle)


@pytest.mark.parametrize(
    ("ratings", "index", "by", "kg"),
    [
        ({}, 0, "axle", 2150),
        ({}, 105, "two tyres of load index 105", 1850),
        ({"wheel": 1000.0}, 0, "two wheels", 2000),
        ({"rear_spring": 1900.0}, 0, "springs", 1900),
        ({"rear_spring": 1900.0, "wheel": 900.0}, 105, "two wheels", 1800),
    ],
)
def test_the_lowest_rating_governs_and_is_named(
    demo: Job, ratings: dict[str, float], index: int, by: str, kg: float
) -> None:
    vehicle = rated(demo, **ratings).vehicle.but(tyre_load_index=index)
    found = governing(vehicle, "rear")
    assert (found.by, found.kg) == (by, kg)
    assert ("axle", 2150) in found.given


def test_the_governing_rating_is_the_limit_and_its_source(demo: Job) -> None:
    job = msgspec.structs.replace(demo, vehicle=demo.vehicle.but(tyre_load_index=95))
    verdict = judge(job)
    assert verdict.loads.scenario("full").rear.limit == 2 * 690
    hit = next(f for f in verdict.findings if f.code == "loads.rear" and f.scenario == "full")
    assert "load index 95" in hit.source


def test_each_kilogram_on_the_vehicle_takes_one_from_behind(demo: Job) -> None:
    # Common practice, no source: 7,995 kg combined: at 3,995 alone 4,000 behind, at 4,495 only 3,500.
    vehicle = rated(demo, combination=7995.0, gross=4495.0, towed=4000.0, ball=0.0, front_axle=2000.0,
                    rear_axle=4000.0).vehicle.but(tyre_load_index=0)  # fmt: skip
    for alone, most in ((3995, 4000), (4495, 3500)):
        assert towing.most_trailer(vehicle, alone, 1500, alone - 1500, share=0.0)[
            0
        ] == pytest.approx(most)
    assert towing.most_trailer(vehicle, 4495, 1500, 2995, 0.0)[1] == "combination mass"


@pytest.mark.parametrize(
    ("ratings", "by"),
    [
        ({"towed": 500.0}, "towed mass"),
        ({"ball": 30.0}, "ball mass"),
        ({"combination": 3600.0}, "combination mass"),
        ({"gross": 3280.0}, "gross mass"),
        ({"rear_axle": 1800.0}, "rear axle"),
    ],
)
def test_the_limit_that_binds_is_named(demo: Job, ratings: dict[str, float], by: str) -> None:
    job = rated(demo, **ratings)
    point = next(p for p in judge(job).towing.points if p.id == "full")
    assert point.by == by
    # At that trailer the limit is just kept: a little more breaks it.
    s = next(s for s in job.scenarios if s.id == "full")
    for factor, stops in ((0.999, 0), (1.002, 1)):
        trailer = point.most * factor
        heavy = s.but(trailer=trailer, ball=trailer * 0.1)
        tried = judge(msgspec.structs.replace(job, scenarios=(heavy,)))
        code = {"towed mass": "towed", "ball mass": "ball", "combination mass": "combination",
                "gross mass": "gross", "rear axle": "rear"}[by]  # fmt: skip
        found = [f for f in tried.findings if f.code == f"loads.{code}" and f.severity == "stop"]
        assert len(found) == stops, factor


def test_the_region_keeps_every_limit(demo: Job) -> None:
    found = judge(demo).towing
    r = demo.vehicle.ratings
    for point in found.points:
        assert len(point.region) >= 4
        for vehicle, trailer in point.region:
            assert vehicle + trailer * 0.1 <= r.gross + 1e-6
            assert trailer <= min(r.towed, r.ball / 0.1) + 1e-6
            assert vehicle + trailer <= r.combination + 1e-6
    assert {p.id for p in found.points} == {s.id for s in demo.scenarios}


def top_at(region: tuple[tuple[float, float], ...], x: float) -> float:
    """The highest point of a polygon at some x; below 0 where it does not reach there."""
    best = -1.0
    for (x0, y0), (x1, y1) in zip(region, region[1:] + region[:1], strict=True):
        if min(x0, x1) - 1e-6 <= x <= max(x0, x1) + 1e-6:
            t = 0.5 if abs(x1 - x0) < 1e-9 else (x - x0) / (x1 - x0)
            best = max(best, y0 + t * (y1 - y0), *((y0, y1) if abs(x1 - x0) < 1e-9 else ()))
    return best


@given(
    st.floats(2000, 3490), st.floats(0.35, 0.6), st.floats(0.02, 0.15),
    st.sampled_from([0.0, 1200.0, 3500.0]), st.sampled_from([0.0, 5200.0, 6500.0]),
    st.sampled_from([0.0, 90.0, 350.0]),
)  # fmt: skip
def test_the_regions_edge_at_a_vehicle_is_the_most_it_may_tow(
    solo: float, behind: float, share: float, towed: float, combination: float, ball: float
) -> None:
    vehicle = rated(demo_job(), towed=towed, combination=combination, ball=ball).vehicle
    front, rear = solo * (1 - behind), solo * behind
    most, _by = towing.most_trailer(vehicle, solo, front, rear, share)
    edge = top_at(towing.region(vehicle, solo, front, rear, share), solo)
    if most == 0:
        assert edge < 1e-3
    else:
        # Without ratings for what is behind, the picture ends at twice the gross rating.
        assert edge == pytest.approx(min(most, 2 * vehicle.ratings.gross), abs=1e-3)


def test_a_vehicle_that_is_over_its_axle_may_tow_nothing(demo: Job) -> None:
    job = rated(demo, rear_axle=1500.0)
    point = next(p for p in judge(job).towing.points if p.id == "full")
    assert point.most == 0
    assert point.by == "rear axle"
    assert all(x < point.vehicle for x, _y in point.region)


def test_a_ball_over_the_front_axle_loads_no_rear_axle(demo: Job) -> None:
    vehicle = demo.vehicle.but(tow=demo.vehicle.tow.but(x=0.0))
    most, by = towing.most_trailer(vehicle, 3000, 1400, 1600)
    assert most > 0
    assert by != "rear axle"
    over = towing.most_trailer(vehicle, 3000, 500, 2500)
    assert over == (0.0, "rear axle")
