"""What the stages Survey and Body draw."""

import math
from collections.abc import Iterable

import msgspec
import pytest

from roomy_hull.assembly.assemble import assemble
from roomy_hull.core.primitives import Disc, Outline, Panel, Point, Scene, Size, Words
from roomy_hull.core.tables.read import measures
from roomy_hull.drawing.scenes import body as body_scene
from roomy_hull.drawing.scenes import body_sizes
from roomy_hull.drawing.scenes import ground as ground_scene
from roomy_hull.drawing.scenes import survey as survey_scene
from roomy_hull.drawing.style import DARK, LIGHT
from roomy_hull.drawing.view import ELEVATION
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.body import Trundle, UnderTank
from roomy_hull.job.edits.resizing import resized, value_at
from roomy_hull.job.model import Job
from roomy_hull.job.survey import Reading, Survey
from roomy_hull.planning.survey import adjust
from roomy_hull.verdict.verdict import judge

JOBS = {"cab-chassis": "brackwater", "pickup": "lowfold", "wagon": "tarn"}
EVERY = [(kind, m.key) for kind in JOBS for m in measures()[kind]]


def ends(scene: Iterable[object], role: str) -> tuple[Point, Point]:
    size = next(s for s in scene if isinstance(s, Size) and s.role == role)
    return size.a, size.b


@pytest.mark.parametrize(("kind", "measure"), EVERY)
def test_each_measure_is_drawn_within_its_picture(kind: str, measure: str) -> None:
    vehicle = demo_job(JOBS[kind]).vehicle
    picture, a, b = survey_scene.where(vehicle, measure)
    x0, y0, x1, y1 = survey_scene.frame(vehicle, picture)
    for x, y in (a, b):
        assert x0 <= x <= x1
        assert y0 <= y <= y1
    assert math.dist(a, b) > 10
    scene = survey_scene.measure_scene(vehicle, measure, "1234.5")
    assert ends(scene, "measure") == (a, b)
    assert {s.role for s in scene} <= set(LIGHT.roles) & set(DARK.roles)


@pytest.mark.parametrize(
    ("measure", "length"),
    [("wheelbase_left", "wheelbase"), ("track_front", "track_front"), ("track_rear", "track_rear")],
)
def test_a_measure_is_as_long_as_the_size_it_gives(demo: Job, measure: str, length: str) -> None:
    _picture, a, b = survey_scene.where(demo.vehicle, measure)
    assert math.dist(a, b) == pytest.approx(getattr(demo.vehicle, length))


def test_chassis_measures_add_up_on_the_drawing(demo: Job) -> None:
    def long(key: str) -> float:
        _picture, a, b = survey_scene.where(demo.vehicle, key)
        return math.dist(a, b)

    assert long("axle_cab") + long("axle_end") == pytest.approx(long("cab_end"))
    assert long("frame_diagonal_1") == pytest.approx(long("frame_diagonal_2"))
    assert long("frame_diagonal_1") == pytest.approx(
        math.hypot(long("frame_front"), long("frame_left"))
    )


def skewed(by: float) -> Survey:
    """Read a frame of 760 x 2000 whose rear end is pushed to one side."""
    corners = {"fl": (0.0, 0.0), "fr": (0.0, 760.0), "rr": (2000.0, 760.0 + by), "rl": (2000.0, by)}

    def read(key: str, a: str, b: str) -> Reading:
        return Reading(measure=f"frame_{key}", value=math.dist(corners[a], corners[b]))

    return Survey(readings=(
        read("front", "fl", "fr"), read("rear", "rl", "rr"), read("left", "fl", "rl"),
        read("right", "fr", "rr"), read("diagonal_1", "fl", "rr"), read("diagonal_2", "fr", "rl"),
    ))  # fmt: skip


@pytest.mark.parametrize("by", [-9.0, 0.0, 6.0])
def test_out_of_square_is_drawn_tenfold(by: float) -> None:
    plan = adjust(skewed(by), "cab-chassis").plan
    assert plan is not None
    scene = survey_scene.square_scene(plan)
    outlines = {s.role: s.points for s in scene if isinstance(s, Outline)}
    true, shown = outlines["stock"], outlines["measured frame"]
    off = max(math.dist(a, b) for a, b in zip(true, shown, strict=True))
    assert off == pytest.approx(10 * abs(by), abs=10 * abs(by) * 0.3 + 0.5)
    x0, y0, x1, y1 = survey_scene.square_frame(plan)
    assert all(x0 < x < x1 and y0 < y < y1 for x, y in shown)


@pytest.mark.parametrize("system", ["metric", "us"])
def test_the_towing_picture_has_every_scenario_in_its_frame(demo: Job, system: str) -> None:
    verdict = judge(demo)
    found = verdict.towing
    scene, frame = survey_scene.towing_scene(found, system, demo.scenarios[0].id)  # type: ignore[arg-type]
    dots = [s for s in scene if isinstance(s, Disc) and s.role == "centre"]
    assert len(dots) == len(demo.scenarios)
    for dot in dots:
        assert frame[0] <= dot.centre[0] <= frame[2]
        assert frame[1] <= dot.centre[1] <= frame[3]
    # Heavier scenarios stand further to the right, in the same order.
    order = sorted(range(len(dots)), key=lambda n: found.points[n].vehicle)
    assert order == sorted(range(len(dots)), key=lambda n: dots[n].centre[0])
    words = " ".join(s.text for s in scene if isinstance(s, Words))
    assert ("lb" in words) == (system == "us")
    assert {s.role for s in scene} <= set(LIGHT.roles)


def test_the_region_of_a_vehicle_without_a_tow_rating_is_still_drawn(demo: Job) -> None:
    job = demo
    for name in ("towed", "ball", "combination"):
        job = resized(job, f"vehicle.ratings.{name}", 0.0)
    scene, frame = survey_scene.towing_scene(judge(job).towing, "metric", "")
    assert all(math.isfinite(v) for v in frame)
    assert any(isinstance(s, Outline) for s in scene)


@pytest.mark.parametrize("name", JOBS.values())
@pytest.mark.parametrize("station", ["left", "right", "rear", "above"])
def test_every_size_on_the_drawing_is_the_size_of_the_job(name: str, station: str) -> None:
    job = demo_job(name)
    assembly = assemble(job)
    for one in body_sizes.sizes(assembly, station):  # type: ignore[arg-type]
        assert math.dist(one.a, one.b) == pytest.approx(value_at(job, one.path)), one.path


@pytest.mark.parametrize("station", ["left", "right", "rear"])
def test_a_dot_goes_with_its_size_by_its_factor(demo: Job, station: str) -> None:
    before = {h.path: h for h in body_sizes.handles(assemble(demo), station)}  # type: ignore[arg-type]
    assert before
    for path, dot in before.items():
        longer = resized(demo, path, value_at(demo, path) + 40)
        after = next(
            h
            for h in body_sizes.handles(assemble(longer), station)  # type: ignore[arg-type]
            if h.path == path
        )
        moved = after.at[dot.axis] - dot.at[dot.axis]
        assert moved * dot.factor == pytest.approx(40), path


def test_a_wagons_own_space_has_no_dots() -> None:
    assembly = assemble(demo_job("tarn"))
    for station in ("left", "right", "rear", "above"):
        assert body_sizes.handles(assembly, station) == ()


def test_the_scene_marks_each_size_with_its_path(demo: Job) -> None:
    scene: Scene = body_sizes.scene(assemble(demo), "left")
    tags = {s.tag for s in scene if isinstance(s, Size)}
    assert tags == {s.path for s in body_sizes.sizes(assemble(demo), "left")}
    dots = {s.tag for s in scene if isinstance(s, Disc)}
    assert "body.tray.length" in dots


def test_sizes_of_both_sides_are_mirrored(demo: Job) -> None:
    assembly = assemble(demo)
    left = {s.path: s for s in body_sizes.sizes(assembly, "left")}
    for one in body_sizes.sizes(assembly, "right"):
        other = left[one.path]
        assert sorted((one.a[0], one.b[0])) == pytest.approx(sorted((-other.a[0], -other.b[0])))
    assert ELEVATION["left"].h[1] == -ELEVATION["right"].h[1]


def test_a_bare_tray_shows_the_trays_sizes_only(demo: Job) -> None:
    bare = msgspec.structs.replace(demo, body=msgspec.structs.replace(demo.body, canopy=None),
                                   units=(), carried=())  # fmt: skip
    paths = {s.path for s in body_sizes.sizes(assemble(bare), "left")}
    assert paths == {"body.tray.gap", "body.tray.length", "body.tray.headboard"}


def test_what_hangs_between_the_rails_is_behind_the_wheel(demo: Job) -> None:
    flat = demo.body.tray.but(trundle=Trundle(length=700, width=600, height=200),
                              tank=UnderTank(start=900, length=400, width=600, height=200))  # fmt: skip
    job = msgspec.structs.replace(demo, body=msgspec.structs.replace(demo.body, tray=flat))
    assembly = assemble(job)
    for station in ("left", "right"):
        view = ELEVATION[station]
        scene = ground_scene.backdrop(assembly, station)
        hung = body_scene.between_rails(assembly.ground, view)
        assert len(hung) == 2
        first_tyre = next(n for n, s in enumerate(scene) if s.role == "tyre")
        assert all(scene.index(s) < first_tyre for s in hung)
    rear = ground_scene.backdrop(assembly, "rear")
    drawer = ELEVATION["rear"].rect(
        next(p.box for p in assembly.ground.tray if p.role == "trundle")
    )
    fronts = [
        s for s in rear
        if isinstance(s, Panel) and s.role == "front" and (s.h0, s.k0, s.h1, s.k1) == drawer
    ]  # fmt: skip
    assert len(fronts) == 1
    assert rear.index(fronts[0]) > max(n for n, s in enumerate(rear) if s.role == "tyre")
