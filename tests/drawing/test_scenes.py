import math

import msgspec
import pytest
from tests.builders import SHOP

from roomy_hull.assembly.assemble import Assembly, assemble
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.primitives import Disc, Lines, Outline, Panel, Scene, Size, Words
from roomy_hull.core.tyres import overall_diameter
from roomy_hull.drawing.scenes import cut as cut_scene
from roomy_hull.drawing.scenes import ground as ground_scene
from roomy_hull.drawing.scenes import loads as loads_scene
from roomy_hull.drawing.scenes import overlays
from roomy_hull.drawing.scenes.around import overall_sizes
from roomy_hull.drawing.scenes.ground import Looks
from roomy_hull.drawing.style import DARK, LIGHT
from roomy_hull.drawing.view import ELEVATION, SLICE, STATIONS, carried_over
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.making.cutlist import CutList, cut_list
from roomy_hull.verdict.verdict import Verdict, judge


@pytest.fixture(scope="module")
def assembly(demo_verdict: Verdict) -> Assembly:
    return demo_verdict.assembly


@pytest.fixture(scope="module")
def cut(assembly: Assembly) -> CutList:
    return cut_list(assembly.parts(), SHOP.stock)


def points(scene: Scene) -> list[tuple[float, float]]:
    """All points of a scene."""
    found: list[tuple[float, float]] = []
    for s in scene:
        if isinstance(s, Panel):
            found += [(s.h0, s.k0), (s.h1, s.k1)]
        elif isinstance(s, Outline):
            found += s.points
        elif isinstance(s, Lines):
            found += [p for piece in s.pieces for p in piece]
        elif isinstance(s, Disc):
            found.append(s.centre)
        elif isinstance(s, Size):
            found += [s.a, s.b]
        else:
            found.append(s.at)
    return found


@pytest.mark.parametrize("station", STATIONS)
@pytest.mark.parametrize("whole", [True, False])
def test_every_scene_is_finite_and_its_roles_are_known(
    assembly: Assembly, station: str, whole: bool
) -> None:
    looks = Looks(frozenset({"tools", "wet-bench"}), 1700.0)
    scene = (
        *ground_scene.elevation(assembly, station, looks),  # type: ignore[arg-type]
        *ground_scene.slice_scene(assembly, station, looks),  # type: ignore[arg-type]
        *overall_sizes(assembly, station, whole=whole),  # type: ignore[arg-type]
    )
    assert len(scene) > 40
    assert all(math.isfinite(v) for p in points(scene) for v in p)
    for stroke in scene:
        assert stroke.role in LIGHT.roles, stroke.role
        assert stroke.role in DARK.roles


@pytest.mark.parametrize("station", ["left", "right"])
def test_the_wheels_stand_on_the_ground_a_wheelbase_apart(assembly: Assembly, station: str) -> None:
    radius = overall_diameter(assembly.job.vehicle.tyre) / 2
    tyres = [s for s in ground_scene.elevation(assembly, station)  # type: ignore[arg-type]
             if isinstance(s, Disc) and s.role == "tyre" and s.radius == radius]  # fmt: skip
    assert len(tyres) == 2
    assert all(t.centre[1] == radius for t in tyres)
    assert abs(tyres[0].centre[0] - tyres[1].centre[0]) == assembly.job.vehicle.wheelbase


@pytest.mark.parametrize("station", ["left", "right", "rear"])
def test_one_sees_the_units_of_the_side_where_one_stands(assembly: Assembly, station: str) -> None:
    tags = {s.tag for s in ground_scene.elevation(assembly, station)}  # type: ignore[arg-type]
    for thing in assembly.things:
        if thing.place is not None:
            assert (thing.id in tags) == (thing.place.bay.side == station)


def test_a_unit_is_drawn_where_it_stands(assembly: Assembly) -> None:
    thing = assembly.thing("sample-fridge")
    assert thing is not None
    primitives = [s for s in ground_scene.elevation(assembly, "right") if s.tag == "sample-fridge"]
    hs, ks = zip(*points(tuple(primitives)), strict=True)
    h0, k0, h1, k1 = ELEVATION["right"].rect(thing.envelope)
    assert (min(hs), max(hs)) == (h0, h1)
    assert min(ks) == k0
    assert max(ks) == k1


def test_slice_and_elevation_share_their_h(assembly: Assembly) -> None:
    for station in STATIONS:
        for whole in (True, False):
            upper, lower = ground_scene.frame(assembly, station, whole=whole)
            assert (upper[0], upper[2]) == (lower[0], lower[2])
            assert upper[0] < upper[2]
            assert upper[1] < upper[3]
            assert lower[1] < lower[3]


def test_the_close_up_makes_room_for_what_stands_open(assembly: Assembly) -> None:
    shut = ground_scene.frame(assembly, "left", whole=False)[1]
    wide = ground_scene.frame(assembly, "left", whole=False, opened=frozenset({"wet-bench"}))[1]
    reach = assembly.ground.canopy.y0 - assembly.opening("wet-bench").opened_box.y0  # type: ignore[union-attr]
    assert shut[1] - wide[1] == pytest.approx(reach + 60 - 90)


def test_an_open_drawer_stands_out_by_its_travel(assembly: Assembly) -> None:
    looks = Looks(frozenset({"tools"}))
    moving = [s for s in ground_scene.slice_scene(assembly, "right", looks) if s.role == "opened"]
    assert {s.tag for s in moving} == {"tools"}
    thing = assembly.thing("tools")
    assert thing is not None
    rect = SLICE["right"].rect(thing.envelope)
    lowest = min(p[1] for s in moving for p in s.points)  # type: ignore[union-attr]
    assert rect[1] - lowest == pytest.approx(thing.expansion.travel)


def test_backdrops_are_the_same_tuple_until_the_body_changes(demo: Job, assembly: Assembly) -> None:
    kept = ground_scene.Backdrops()
    first = kept.of(assembly, "left", upper=True)
    assert first == ground_scene.backdrop(assembly, "left")
    moved = assemble(edits.changed(demo, "tools", u=500.0), assembly)
    assert kept.of(moved, "left", upper=True) is first
    assert kept.of(moved, "left", upper=False) != first
    taller = msgspec.structs.replace(demo.body.canopy, height=980.0)  # type: ignore[type-var]
    changed = msgspec.structs.replace(demo, body=msgspec.structs.replace(demo.body, canopy=taller))
    assert kept.of(assemble(changed, moved), "left", upper=True) != first


def test_a_persons_marks_are_at_the_published_fractions(assembly: Assembly) -> None:
    # Drillis & Contini (1966) after Winter: eye 0.936, shoulder 0.818, elbow 0.630 of stature.
    primitives = ground_scene.person(assembly, ELEVATION["left"], 1000.0)  # type: ignore[attr-defined]
    marks = sorted(p[1] for s in primitives if s.role == "person mark" for p in s.points[:1])  # type: ignore[union-attr]
    assert marks == pytest.approx([630, 936])
    trunk = next(s for s in primitives if isinstance(s, Outline) and s.closed)
    assert max(p[1] for p in trunk.points) == pytest.approx(818)
    assert primitives[0].centre[1] + primitives[0].radius == pytest.approx(1000)  # type: ignore[union-attr]


def test_gaps_are_the_distances_to_neighbours_and_walls(assembly: Assembly) -> None:
    thing = assembly.thing("optics")
    assert thing is not None
    sizes = overlays.gaps(assembly, thing, ELEVATION["right"])
    lengths = sorted(round(math.dist(s.a, s.b), 3) for s in sizes if isinstance(s, Size))
    assert lengths == [3, 3, 3, 3]
    assert overlays.gaps(assembly, assembly.thing("spare"), ELEVATION["right"]) == ()  # type: ignore[arg-type]


def test_mirroring_a_scene_twice_is_the_scene(assembly: Assembly) -> None:
    scene = (*ground_scene.elevation(assembly, "left"), Size("size", (0, 1), (2, 3)))
    twice = carried_over(carried_over(scene, -1, 7, 3), -1, 7, -3)
    assert [type(s) for s in twice] == [type(s) for s in scene]
    for a, b in zip(points(twice), points(scene), strict=True):
        assert a == pytest.approx(b, abs=1e-6)


@pytest.mark.parametrize("station", STATIONS)
def test_views_are_right_handed_pictures(station: str) -> None:
    # To the right, up and towards the eye form a right-handed system in the trade's axes (x aft,
    # y right, z up, which is left-handed as written), so the determinant is the same everywhere.
    for view in (ELEVATION[station], SLICE[station]):
        rows = []
        for axis, sign in (view.h, view.k, view.near):
            row = [0, 0, 0]
            row[axis] = sign
            rows.append(row)
        (a, b, c), (d, e, f), (g, h, i) = rows
        assert a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g) == 1


def test_projection_keeps_lower_before_upper() -> None:
    box = Box(1, 2, 3, 4, 6, 8)
    for view in (*ELEVATION.values(), *SLICE.values()):
        h0, k0, h1, k1 = view.rect(box)
        assert h0 < h1
        assert k0 < k1


def test_blanks_are_dimensioned_to_a_tenth(cut: CutList) -> None:
    for blank in cut.blanks:
        sizes = [s for s in cut_scene.blank_scene(blank) if isinstance(s, Size)]
        texts = [s.text for s in sizes]
        assert f"{blank.length:.1f}" in texts
        assert f"{blank.width:.1f}" in texts
        across = [s for s in sizes if s.a[1] == s.b[1]]
        chain = [math.dist(s.a, s.b) for s in across[:-1]]
        if chain:
            assert sum(chain) == pytest.approx(blank.length)
        h0, k0, h1, k1 = cut_scene.blank_frame(blank)
        for h, k in points(cut_scene.blank_scene(blank)):
            assert h0 <= h <= h1
            assert k0 <= k <= k1


def test_sheets_and_bars_are_drawn_whole(cut: CutList) -> None:
    for sheet in cut.nest.sheets:
        scene = cut_scene.sheet_scene(sheet)
        assert sum(s.role == "nested" for s in scene) == len(sheet.placed)
        for h, k in points(scene):
            assert -1e-6 <= h <= sheet.length + 1e-6
            assert -1e-6 <= k <= sheet.width + 1e-6
    bars = cut_scene.bars_scene(cut.bars.bars)
    assert sum(s.role == "nested" for s in bars) == sum(len(b.pieces) for b in cut.bars.bars)
    assert cut_scene.bars_frame(()) is not None


def test_the_loads_picture_names_both_axles(demo: Job, demo_verdict: Verdict) -> None:
    loads = demo_verdict.loads.scenario("full")
    words = [
        s.text
        for s in loads_scene.loads_scene(demo_verdict.assembly, loads, "metric")
        if isinstance(s, Words)
    ]
    assert f"{loads.front.value:,.0f} kg" in words
    assert f"{loads.rear.value:,.0f} kg" in words
    over = judge(msgspec.structs.replace(demo, vehicle=demo.vehicle.but(
        ratings=demo.vehicle.ratings.but(rear_axle=1000.0))))  # fmt: skip
    roles = [
        s.role for s in loads_scene.loads_scene(over.assembly, over.loads.scenario("full"), "us")
    ]
    assert roles.count("axle over") == 1
