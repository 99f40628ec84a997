"""Charts, the attitude on its springs, levers, diagrams of the chassis, the picture from behind."""

import math

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.primitives import (
    Disc,
    Lines,
    Outline,
    Panel,
    Point,
    Scene,
    Size,
    Words,
    line,
    rectangle,
)
from roomy_hull.core.refs import VEHICLE, Ref
from roomy_hull.drawing.scenes import chart
from roomy_hull.drawing.scenes import loads as loads_scene
from roomy_hull.drawing.scenes.attitude import settled, settled_point
from roomy_hull.drawing.scenes.ground import elevation
from roomy_hull.drawing.scenes.survey import towing_scene
from roomy_hull.formats.demo import DEMOS, demo_job
from roomy_hull.job.model import Job
from roomy_hull.studies.loads import ranking
from roomy_hull.verdict.verdict import Verdict, judge


def of(scene: Scene, role: str) -> list[object]:
    return [s for s in scene if s.role == role]


def words(scene: Scene) -> str:
    return " | ".join(s.text for s in scene if isinstance(s, Words))


def points(scene: Scene) -> list[Point]:
    found: list[Point] = []
    for s in scene:
        if isinstance(s, Outline):
            found += s.points
        elif isinstance(s, Panel):
            found += [(s.h0, s.k0), (s.h1, s.k1)]
        elif isinstance(s, Disc):
            found.append(s.centre)
    return found


# Charts


@given(st.floats(-1e5, 1e5), st.floats(1e-3, 1e5), st.integers(2, 9))
def test_ticks_are_round_within_the_range_and_about_as_many(
    low: float, span: float, about: int
) -> None:
    found = chart.ticks(low, low + span, about)
    assert all(low - span * 1e-6 <= t <= low + span * (1 + 1e-6) for t in found)
    assert len(found) <= about + 2
    if len(found) > 1:
        step = found[1] - found[0]
        lead = step / 10 ** math.floor(math.log10(step) + 1e-9)
        assert min(abs(lead - m) for m in (1, 2, 5, 10)) < 0.02


def test_a_curve_lies_where_its_figures_are() -> None:
    drawn, frame = chart.scene(
        chart.Chart(
            "x",
            "y",
            (chart.Curve("curve 1", ((0, 0), (5, 10), (10, 20)), "it", dots=True),),
            aspect=2.0,
        )
    )
    curve = next(s for s in drawn if isinstance(s, Outline) and s.role == "curve 1")
    (a, b, c) = curve.points
    assert (a[0], c[0]) == (0, chart.WIDE)
    assert b == pytest.approx(((a[0] + c[0]) / 2, (a[1] + c[1]) / 2))
    assert 0 < a[1] < c[1] < chart.WIDE / 2
    assert len(of(drawn, "curve 1 dot")) == 3
    assert "it" in words(drawn)
    assert frame[0] < 0 < chart.WIDE < frame[2]
    assert "20" in words(drawn)


def test_limits_bands_marks_and_names_on_the_axis() -> None:
    drawn, _ = chart.scene(
        chart.Chart(
            "scenario", "mm", (chart.Curve("curve 2", ((0, -5), (1, 9))),), (chart.Level(12, "limit 12"),),
            across=((0.0, "one"), (1.0, "two")), band=((0, -2), (1, -2), (1, 2), (0, 2)), mark=1.0,
        )
    )  # fmt: skip
    assert of(drawn, "chart band")
    assert of(drawn, "chart mark")
    assert of(drawn, "chart zero")
    assert "limit 12" in words(drawn)
    assert "one" in words(drawn)
    limit = next(s for s in drawn if s.role == "curve limit")
    assert isinstance(limit, Outline)
    assert all(limit.points[0][1] > p[1] for s in of(drawn, "curve 2") for p in s.points)  # type: ignore[attr-defined]


def test_an_empty_chart_is_an_empty_field_and_one_value_does_no_harm() -> None:
    drawn, _ = chart.scene(chart.Chart("x", "y", ()))
    assert of(drawn, "chart field")
    drawn, _ = chart.scene(chart.Chart("x", "y", (chart.Curve("curve 1", ((3, 7),), "alone"),)))
    assert all(math.isfinite(v) for p in points(drawn) for v in p)
    assert chart.figure(0.0) == "0"
    assert chart.figure(1500) == "1,500"
    assert chart.figure(0.25) == "0.25"


# The attitude


@given(st.floats(-60, 120), st.floats(-60, 160))
def test_every_point_goes_down_by_what_its_place_settles(front: float, rear: float) -> None:
    vehicle = demo_job().vehicle
    scene: Scene = (
        rectangle("canopy", 1700, 800, 3700, 1700), line("detail", (0.0, 400.0), (3240.0, 400.0)),
        Lines("rail slot", (((0.0, 400.0), (3240.0, 400.0)),)), Words("unit name", (3240.0, 400.0), "w"),
        Size("size", (0.0, 400.0), (3240.0, 400.0)), Disc("centre", (3240.0, 400.0), 10),
    )  # fmt: skip
    box, low, slots, name, size, disc = settled(scene, vehicle, front, rear)
    assert isinstance(low, Outline)
    assert isinstance(disc, Disc)
    assert low.points[0] == pytest.approx((0.0, 400 - front))
    assert low.points[1] == pytest.approx((3240.0, 400 - rear))
    assert disc.centre[1] == pytest.approx(settled_point(vehicle, front, rear, 3240.0, 400.0))
    assert isinstance(box, Outline)
    assert len(box.points) == 4
    # The box keeps its sides: a small turn, no shear.
    sides = [math.dist(box.points[i], box.points[(i + 1) % 4]) for i in range(4)]
    assert sides[0] == pytest.approx(2000, rel=3e-3)
    assert sides[1] == pytest.approx(900, rel=3e-3)
    u = [b - a for a, b in zip(box.points[0], box.points[1], strict=True)]
    v = [b - a for a, b in zip(box.points[1], box.points[2], strict=True)]
    assert abs(u[0] * v[0] + u[1] * v[1]) < 1e-3 * 2000 * 900
    assert isinstance(slots, Lines)
    assert slots.pieces[0][1] == pytest.approx((3240.0, 400 - rear))
    assert isinstance(name, Words)
    assert isinstance(size, Size)


def test_seen_from_the_right_the_tail_goes_down_on_the_other_hand(demo: Job) -> None:
    (low,) = settled(
        (line("detail", (-3240.0, 400.0), (0.0, 400.0)),), demo.vehicle, 10, 50, sign=-1
    )
    assert isinstance(low, Outline)
    assert low.points[0] == pytest.approx((-3240.0, 350.0))
    assert low.points[1] == pytest.approx((0.0, 390.0))


def test_wheels_and_ground_stay_and_the_spare_goes_along(demo_verdict: Verdict) -> None:
    loads = demo_verdict.loads.scenario("full")
    plain = elevation(demo_verdict.assembly, "left")
    sat = loads_scene.standing(demo_verdict.assembly, loads.stance)
    tyres = [
        (a, b) for a, b in zip(plain, sat, strict=True) if a.role == "tyre" and isinstance(a, Disc)
    ]
    assert len(tyres) == 2
    assert all(a == b for a, b in tyres)
    assert all(a == b for a, b in zip(plain, sat, strict=True) if a.role == "ground")
    spare = [(a, b) for a, b in zip(plain, sat, strict=True) if a.tag == "spare"]
    assert spare
    assert all(a != b for a, b in spare)
    canopy = [(a, b) for a, b in zip(plain, sat, strict=True) if a.role == "canopy"]
    assert canopy
    assert isinstance(canopy[0][0], Panel)
    assert isinstance(canopy[0][1], Outline)
    rear_lower = min(canopy[0][1].points, key=lambda p: (p[1], -p[0]))
    assert canopy[0][0].k0 - rear_lower[1] > loads.stance.front_sag


# Pictures of the loads


@pytest.mark.parametrize("name", list(DEMOS))
def test_every_picture_of_every_demo_lies_in_its_frame_and_is_finite(name: str) -> None:
    v = judge(demo_job(name))
    assert v.carrying is not None
    for s, one in zip(v.loads.scenarios, v.carrying.stability, strict=True):
        scenario = next(x for x in v.job.scenarios if x.id == s.id)
        rows = ranking.contributions(v.assembly, v.loads, scenario)
        a, last = v.assembly, rows[-1].owner
        side, behind = loads_scene.loads_frame(a), loads_scene.stability_frame(a)
        for scene, frame in (
            (loads_scene.loads_scene(a, s, "us"), side),
            (loads_scene.lever_scene(a, rows, last, "metric", "front"), side),
            (loads_scene.lever_scene(a, rows, last, "us", "side"), behind),
            (
                loads_scene.chassis_scene(a, v.carrying.chassis, s.id, s.stance),
                loads_scene.chassis_frame(a),
            ),
            (loads_scene.stability_scene(a, one, s, "metric"), behind),
        ):
            assert all(math.isfinite(x) for p in points(scene) for x in p)
            texts = [t for t in scene if isinstance(t, Words)]
            assert texts
            for t in texts:
                assert frame[0] - 400 <= t.at[0] <= frame[2] + 400, t.text
                assert frame[1] - 10 <= t.at[1] <= frame[3] + 10, t.text


def test_the_lever_runs_from_the_other_axle_to_the_mass(demo: Job, demo_verdict: Verdict) -> None:
    rows = ranking.contributions(demo_verdict.assembly, demo_verdict.loads, demo.scenarios[2])
    water = next(r for r in rows if r.owner == Ref("unit", "water"))
    scene = loads_scene.lever_scene(
        demo_verdict.assembly, rows, Ref("unit", "water"), "metric", "rear"
    )
    assert f"{water.x:,.0f} mm from the front axle" in words(scene)
    assert "99.5 kg puts 59.5 kg on the rear axle" in words(scene)
    lever = [s for s in scene if s.role == "lever line"]
    assert isinstance(lever[1], Outline)
    assert {p[0] for p in lever[1].points} == {0.0, water.x}
    front = loads_scene.lever_scene(
        demo_verdict.assembly, rows, Ref("unit", "water"), "metric", "front"
    )
    assert f"{demo.vehicle.wheelbase - water.x:,.0f} mm from the rear axle" in words(front)
    discs = {s.radius for s in scene if isinstance(s, Disc) and s.role == "lever mass"}
    assert max(discs) == pytest.approx(
        9 * math.sqrt(max(r.kg for r in rows if r.owner not in (VEHICLE, Ref("unit", "water"))))
    )
    none = loads_scene.lever_scene(demo_verdict.assembly, rows, "nobody", "metric", "rear")  # type: ignore[arg-type]
    assert not of(none, "lever line")


def test_the_diagram_hangs_below_its_line_where_the_rails_sag(demo_verdict: Verdict) -> None:
    assert demo_verdict.carrying is not None
    c = demo_verdict.carrying.chassis
    s = demo_verdict.loads.scenario("full")
    scene = loads_scene.chassis_scene(demo_verdict.assembly, c, "full", s.stance)
    zero = next(x for x in scene if x.role == "chart zero" and isinstance(x, Outline)).points[0][1]
    traces = [x for x in scene if x.role == "curve 1" and isinstance(x, Outline)]
    assert len(traces) == 2
    at = c.xs.index(c.diagram("full").peak_x)
    assert traces[0].points[at][1] < zero
    assert min(p[1] for p in traces[0].points) == pytest.approx(traces[0].points[at][1])
    assert f"{c.diagram('full').peak / 1e3:,.1f} kN·m" in words(scene)
    assert len(of(scene, "curve thin")) == 2 * (len(c.diagrams) - 1)
    assert len(of(scene, "axle")) == len(c.diagram("full").pushes)


def test_the_towing_picture_numbers_the_scenarios(demo: Job, demo_verdict: Verdict) -> None:
    scene, _ = towing_scene(demo_verdict.towing, "metric", "towing")
    numbers = [s.text for s in scene if isinstance(s, Words) and s.role == "axle name"]
    assert numbers == [str(n) for n in range(1, len(demo.scenarios) + 1)]


def test_an_axle_over_its_limit_is_drawn_so(demo: Job) -> None:
    poor = demo.vehicle.but(ratings=demo.vehicle.ratings.but(rear_axle=1500.0))
    v = judge(msgspec.structs.replace(demo, vehicle=poor))
    scene = loads_scene.loads_scene(v.assembly, v.loads.scenario("full"), "metric")
    assert (len(of(scene, "axle over")), len(of(scene, "axle"))) == (1, 1)
    assert "limit 1,500 kg" in words(scene)
