"""What lies over the drawing, and the elevation of what hangs outside."""

import pytest
from tests.builders import context

from roomy_hull.assembly.assemble import Assembly, assemble
from roomy_hull.core.findings import Finding
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.primitives import Disc, Panel, Size, Words
from roomy_hull.drawing import style
from roomy_hull.drawing.scenes import body as body_scene
from roomy_hull.drawing.scenes import ground as ground_scene
from roomy_hull.drawing.scenes import overlays
from roomy_hull.drawing.scenes.ground import Looks
from roomy_hull.drawing.scenes.opened import opened_things, shown
from roomy_hull.drawing.view import ELEVATION, SLICE, STATIONS
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.kit import catalogue as stores
from roomy_hull.studies.fit import in_out

OUTSIDE = [e.make for e in stores.entries() if isinstance(e.make, Carried)]


@pytest.fixture(scope="module")
def assembly(demo: Job) -> Assembly:
    return assemble(demo)


@pytest.mark.parametrize("item", OUTSIDE, ids=lambda i: i.name)
def test_what_hangs_outside_is_drawn_in_its_place_from_everywhere(item: Carried, demo: Job) -> None:
    for view in (*ELEVATION.values(), *SLICE.values()):
        box = Box(
            -item.length / 2, -item.width / 2, 0, item.length / 2, item.width / 2, item.height
        )
        scene = body_scene.carried(body_scene.lone(item, box), view, demo.vehicle.tyre)
        assert scene
        h0, k0, h1, k1 = view.rect(box)
        for stroke in scene:
            assert stroke.role in style.LIGHT.roles
            assert stroke.role in style.DARK.roles
            assert stroke.tag == item.id
            if isinstance(stroke, Panel) and stroke.role != "trim":
                assert h0 - 1 <= stroke.h0 <= stroke.h1 <= h1 + 1
                assert k0 - 1 <= stroke.k0 <= stroke.k1 <= k1 + 40


def test_each_unit_of_a_side_gets_its_number_once(assembly: Assembly) -> None:
    found = in_out.study(context(assembly))
    for station, bay in (("left", "L"), ("right", "R"), ("rear", "B")):
        scene = overlays.order_badges(assembly, found, ELEVATION[station], station)
        numbers = [s.text for s in scene if isinstance(s, Words)]
        assert numbers == [str(n) for n in range(1, len(found.order[bay]) + 1)]
        discs = [s for s in scene if isinstance(s, Disc)]
        for disc, key in zip(discs, found.order[bay], strict=True):
            thing = assembly.thing(key)
            assert thing is not None
            h0, k0, h1, k1 = ELEVATION[station].rect(thing.envelope)
            assert disc.centre == ((h0 + h1) / 2, (k0 + k1) / 2)
    assert overlays.order_badges(assembly, found, ELEVATION["front"], "front") == ()


def test_a_mark_lies_around_its_place(assembly: Assembly) -> None:
    box = Box(2000, -900, 900, 2100, -800, 1000)
    (mark,) = overlays.marks((Finding("x", "look", "X", where=(box,)),), ELEVATION["left"])
    assert isinstance(mark, Panel)
    assert (mark.role, mark.h0, mark.h1) == ("mark look", 1996, 2104)


def test_gaps_reach_to_neighbours_and_walls(assembly: Assembly) -> None:
    thing = assembly.thing("net-drawer")
    assert thing is not None
    gaps = overlays.gaps(assembly, thing, ELEVATION["left"])
    lengths = sorted(
        round(abs(g.b[0] - g.a[0]) + abs(g.b[1] - g.a[1]), 1) for g in gaps if isinstance(g, Size)
    )
    # To the extinguisher 15, to the galley and to the session and the field lab 3 each.
    assert lengths == [3, 3, 3, 15]


@pytest.mark.parametrize("station", STATIONS)
def test_whatever_stands_open_is_drawn_in_known_roles_and_finite(
    assembly: Assembly, station: str
) -> None:
    everything = frozenset(o.id for o in assembly.openings())
    for plan, views in ((False, ELEVATION), (True, SLICE)):
        scene = opened_things(assembly, views[station], station, everything, plan=plan)
        assert {s.tag for s in scene} >= {o.owner or o.id for o in assembly.openings()}
        assert {s.role for s in scene} <= set(style.LIGHT.roles)
    upper, lower = ground_scene.frame(assembly, station, whole=True, opened=everything)  # type: ignore[arg-type]
    shut = ground_scene.frame(assembly, station, whole=True)[0]  # type: ignore[arg-type]
    assert upper[2] - upper[0] >= shut[2] - shut[0]
    assert lower[0] == upper[0]


def test_what_is_let_down_leaves_an_empty_place(assembly: Assembly) -> None:
    shut = ground_scene.things(assembly, "right", Looks())
    wide = ground_scene.things(assembly, "right", Looks(frozenset({"sample-fridge"})))
    roles = [s.role for s in wide if s.tag == "sample-fridge"]
    assert "space" in roles
    assert "space" not in [s.role for s in shut if s.tag == "sample-fridge"]
    assert [o.id for o in shown(assembly, frozenset({"sample-fridge", "moon"}))] == [
        "sample-fridge"
    ]


def test_a_drawer_that_is_out_leaves_its_place_dashed_in_the_slice(demo: Job) -> None:
    there = assemble(edits.changed(demo, "tools", v=0.0))
    scene = ground_scene.slice_things(there, "right", Looks(frozenset({"tools"})))
    mine = [s.role for s in scene if s.tag == "tools"]
    assert "unit plan" not in mine
    assert mine.count("space") >= 1
    # A name is written only where nothing lies above.
    names = {s.tag for s in scene if isinstance(s, Words)}
    assert "tools" not in names
    assert "bird-bags" in names
