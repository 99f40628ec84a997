import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import bare

from roomy_hull.assembly.assemble import Assembly, assemble, trial_thing
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds.drawer import Drawer
from roomy_hull.kinds.fridge import Fridge
from roomy_hull.kinds.registry import Unit
from roomy_hull.kit import catalogue as stores
from roomy_hull.studies.fit.free_space import FreeSpace, free_space
from roomy_hull.verdict.verdict import judge

DEMO = demo_job()
FEW = edits.removed(edits.removed(edits.removed(DEMO, "optics"), "bedding"), "bird-bags")


def space_of(assembly: Assembly, unit: Unit, v: float = 0.0) -> FreeSpace:
    return free_space(assembly, trial_thing(unit, assembly), assembly.ground.bays[unit.bay], v)


def conflicts_at(job: Job, unit: Unit, u: float, w: float) -> set[str]:
    """What the fit study says of a unit placed there."""
    key = "trial"
    placed = edits.added(job, unit.but(id=key, u=u, w=w))
    return {
        f.code for f in judge(placed).findings
        if key in f.words and f.code.startswith("fit") and f.code != "fit.pitch"
    }  # fmt: skip


@given(
    st.integers(0, 58), st.integers(0, 34), st.sampled_from(["drawer-small", "fridge-40", "shelf"])
)
def test_a_place_is_free_exactly_where_the_study_finds_nothing(
    column: int, row: int, key: str
) -> None:
    unit = stores.entry(key).make.but(bay="R")
    space = space_of(assemble(FEW), unit)
    u, w = 13.0 + 25 * column, 7.0 + 25 * row
    clean = not conflicts_at(FEW, unit, u, w)
    assert space.allows(u, w) == clean
    inside = any(c[0] <= u <= c[2] and c[1] <= w <= c[3] for c in space.cells())
    assert inside == clean


def test_what_is_too_large_says_by_how_much_in_each_direction() -> None:
    assembly = assemble(DEMO)
    unit = Drawer(id="big", name="Big", bay="R", width=1600, depth=900, height=1000)
    space = space_of(assembly, unit)
    assert space.room is None
    # With 3 beside each post, and 3 under the head.
    assert space.short == pytest.approx((75 + 6, 40, 120 + 3))
    assert space.cells() == []
    assert space.nearest(0, 0, 25) is None
    assert not space.allows(100, 0)


def test_nearest_gives_the_nearest_place_on_the_pitch() -> None:
    assembly = assemble(FEW)
    unit = stores.entry("drawer-small").make.but(bay="R")
    space = space_of(assembly, unit)
    u = space.nearest(700, 270, 25)
    assert u is not None
    assert u % 25 == 0
    places = [p for p in range(0, 1500, 25) if space.allows(p, 270)]
    assert abs(u - 700) == min(abs(p - 700) for p in places)
    assert space.nearest(700, 5000, 25) is None


def test_depth_counts(demo: Job) -> None:
    # Behind a shallow drawer there is room only where the depth leaves it.
    job = edits.changed(edits.removed(edits.removed(demo, "tools"), "optics"), "bird-bags", w=0.0)
    assembly = assemble(job)
    unit = Drawer(id="x", name="X", bay="R", width=300, depth=200, height=150)
    in_front = space_of(assembly, unit, 0.0)
    behind = space_of(assembly, unit, 640.0)
    assert not in_front.allows(600, 0)
    assert behind.allows(600, 0)


def test_a_vent_needs_its_room_before_the_back_wall() -> None:
    assembly = assemble(FEW)
    deep = Fridge(id="f", name="F", bay="R", width=400, depth=840, height=400)
    assert space_of(assembly, deep).short[1] == pytest.approx(20)
    turned = deep.but(vent_side="left")
    assert space_of(assembly, turned).room is not None


def test_an_empty_bay_is_free_as_far_as_the_opening_lets_it(demo: Job) -> None:
    job = demo
    for unit in demo.units:
        job = edits.removed(job, unit.id)
    assembly = assemble(job)
    drawer = Drawer(id="x", name="X", bay="L", width=500, depth=700, height=300)
    # The struts, 22 thick, at both ends of the opening, from 394 up: a drawer of 300 is free below them at 94.
    free = space_of(assembly, drawer)
    assert all(free.allows(u, w) for u, w in ((3, 93), (1022, 93), (22, 577), (1003, 577)))
    assert not any(
        free.allows(u, w)
        for u, w in ((2, 93), (1023, 93), (3, 96), (21, 96), (1004, 96), (22, 578))
    )
    assert all(v >= 0 for v in itertools.chain.from_iterable(free.cells()))
    box = stores.entry("tank-60").make.but(bay="L")
    free = space_of(assembly, box)
    # 345 high: 49 below the struts.
    assert free.allows(0, 48)
    assert not free.allows(0, 51)
    assert free.allows(22, 550)
    assert free.allows(1203, 550)
    assert not free.allows(1204, 550)


@pytest.mark.parametrize(("v", "over"), [(0.0, 0.0), (60.0, 0.0), (60.5, 0.5), (400.0, 340.0)])
def test_what_stands_deeper_in_the_bay_may_be_too_deep(v: float, over: float) -> None:
    assembly = assemble(bare(DEMO))
    depth = assembly.ground.bays["R"].size.y1
    unit = Drawer(id="x", name="X", bay="R", width=300, depth=depth - 60, height=150)
    space = space_of(assembly, unit, v)
    assert space.short == pytest.approx((0, over, 0))
    assert (space.room is None) == (over > 0)
