"""Openings follow from doors, and what does not move of a canopy is in the way: cases worked by hand."""

import shutil
from pathlib import Path

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import bare, canopy_of, once, with_bay, with_canopy

from roomy_hull.assembly.assemble import assemble
from roomy_hull.cli.paths import job_of
from roomy_hull.core.findings import Finding
from roomy_hull.core.geometry.solids import TOUCH, Box
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.jobfile import load, read
from roomy_hull.job.canopy import Canopy
from roomy_hull.job.model import Job
from roomy_hull.kinds.device import Device
from roomy_hull.kinds.drawer import Drawer
from roomy_hull.kinds.false_floor import FalseFloor
from roomy_hull.kinds.own import Block, Own
from roomy_hull.session.files import open_job
from roomy_hull.session.session import Session
from roomy_hull.studies.fit.closed import parting
from roomy_hull.studies.fit.free_space import free_space
from roomy_hull.studies.fit.mending import applied
from roomy_hull.studies.outline import sides
from roomy_hull.verdict.verdict import fixes, judge

DEMO = demo_job()
SAMPLES = Path(__file__).parent.parent / "samples"


def job_with(*units: object, **door: float) -> Job:
    """A job with bays as long as the walls, and one door on the left from 300 to 1,300, 100 above the floor."""
    first = canopy_of(DEMO).doors[0]
    left = first.but(start=300, length=1000, sill=100, height=600, strut=None).but(**door)
    job = with_canopy(bare(DEMO, *units), doors=(left,))  # type: ignore[arg-type]
    return with_bay(with_bay(job, "L", sill=0, height=930), "R", pitch=0)


def told(job: Job, *codes: str) -> list[Finding]:
    return [f for f in judge(job).findings if f.code in codes]


# The bay begins 35 + 15 behind the canopy's front, so the clear opening spans 250 to 1250 in it.
@pytest.mark.parametrize(
    ("u", "w", "how", "amount"),
    [(200.0, 120.0, "front post", 50), (800.0, 120.0, "rear post", 50), (400.0, 70.0, "sill", 30),
     (400.0, 420.0, "head", 20)],
)  # fmt: skip
def test_a_drawer_behind_post_sill_or_head_cannot_slide_out(
    u: float, w: float, how: str, amount: float
) -> None:
    unit = Drawer(id="d", name="Drawer", bay="L", u=u, w=w, width=500, depth=700, height=300)
    (hit,) = told(job_with(unit), "fit.opening")
    assert (hit.severity, hit.measured) == ("stop", pytest.approx(amount))
    assert hit.title == f"Drawer stands behind the {how} and cannot slide out"
    clear = msgspec.structs.replace(unit, u=400.0, w=120.0)
    assert told(job_with(clear), "fit.opening", "move.blocked") == []


def test_two_doors_before_one_bay_make_two_openings_and_a_post_between() -> None:
    first = canopy_of(DEMO).doors[0].but(strut=None)
    doors = (first.but(start=60, length=600), first.but(id="second", start=720, length=800))
    job = with_canopy(bare(DEMO), doors=doors)
    place = assemble(job).ground.bays["L"]
    assert place.openings == ((10.0, 0.0, 610.0, 880.0), (670.0, 0.0, 1470.0, 880.0))
    unit = Drawer(id="d", name="Drawer", bay="L", u=500, width=300, depth=700, height=300)
    (hit,) = told(bare(job, unit), "fit.opening")
    # It stands behind the second by 130 to 300, behind the first by 110: the second is nearer its own.
    assert hit.measured == pytest.approx(170)
    there = assemble(bare(job, unit))
    space = free_space(there, there.things[0], place)
    # With 3 beside each post.
    assert [space.allows(u, 0.0) for u in (0, 12, 13, 307, 308, 500, 672, 673, 1167, 1168)] == [
        False, False, True, True, False, False, False, True, True, False,
    ]  # fmt: skip
    assert space.nearest(500.0, 0.0, 25.0) == 675.0


def test_a_bay_without_a_door_is_told_and_its_units_are_not_each() -> None:
    unit = Drawer(id="d", name="Drawer", bay="R", u=0, width=500, depth=700, height=300)
    hits = told(job_with(unit), "side.bay")
    assert [(h.severity, h.title) for h in hits] == [
        ("stop", "No door opens into the bay Driver side"),
        ("stop", "No door opens into the bay Rear"),
    ]
    assert told(job_with(unit), "fit.opening") == []


def test_a_further_face_without_a_door_is_told() -> None:
    canopy = canopy_of(DEMO)
    bays = tuple(b.but(also=("rear",)) if b.id == "R" else b for b in canopy.bays)
    (hit,) = told(
        with_canopy(
            bare(DEMO), bays=bays, doors=tuple(d for d in canopy.doors if d.side != "rear")
        ),
        "side.also",
    )
    assert (hit.severity, hit.subjects[0].id) == ("look", "R")
    assert "at the rear" in hit.title
    assert told(with_canopy(bare(DEMO), bays=bays), "side.also") == []


@pytest.mark.parametrize(("post", "code"), [(20, "side.leaves"), (35, "side.post"), (40, "")])
def test_two_doors_want_a_post_that_both_leaves_can_lap_on(post: float, code: str) -> None:
    # Each leaf laps 15 over the post and wants 5 around it: 40 between the clear openings, 30 for the leaves.
    first = canopy_of(DEMO).doors[0].but(strut=None)
    doors = (first.but(start=60, length=600), first.but(id="second", start=660 + post, length=600))
    job = with_canopy(bare(DEMO), doors=doors)
    hits = told(job, "side.leaves", "side.post")
    assert [h.code for h in hits] == ([code] if code else [])
    for hit in hits:
        assert (hit.measured, hit.limit) == (post, 40)
        offered = fixes(judge(job), hit)
        assert len(offered) == 2
        for fix in offered:
            assert told(applied(job, fix), "side.leaves", "side.post") == []


def test_doors_about_a_corner_and_into_the_roof_are_told() -> None:
    first = canopy_of(DEMO).doors[0].but(strut=None)
    rear = next(d for d in canopy_of(DEMO).doors if d.side == "rear").but(strut=None, start=10)
    corner = with_canopy(bare(DEMO), doors=(first.but(length=1930), rear))
    assert {f.code for f in judge(corner).findings} >= {"side.leaves", "side.corner"}
    high = with_canopy(bare(DEMO), doors=(first.but(height=920),))
    (hit,) = told(high, "side.roof")
    assert hit.measured == pytest.approx(20)
    assert told(applied(high, fixes(judge(high), hit)[0]), "side.roof") == []


def test_a_door_from_the_very_floor_is_near_to_nothing() -> None:
    job = job_with(sill=0, height=880)
    assert told(job, "move.near", "move.blocked", "side.leaves") == []
    rest = next(o for o in assemble(job).ground.openings).rest_box
    assert rest.z0 - assemble(job).ground.floor.z1 == pytest.approx(5)


def test_units_under_their_sill_are_mended_at_once_by_the_bays_floor() -> None:
    # As an older file has it: the bays on the floor, the doors' sills 30 above it.
    old = DEMO
    for key in ("L", "R", "B"):
        old = with_bay(old, key, sill=0, height=925)
    hits = told(old, "fit.opening")
    assert len(hits) == 7
    assert {h.measured for h in hits} == {30.0}
    job = old
    while hits:
        offered = fixes(judge(job), hits[0])
        raised = next(f for f in offered if f.words.startswith("Raise the floor of bay"))
        job = applied(job, raised)
        hits = told(job, "fit.opening")
    assert job.units == old.units
    assert judge(job).count("stop") == 0


def test_old_files_open_unchanged_and_what_means_something_else_is_told() -> None:
    path = SAMPLES / "version-1.hull.json"
    news = read(path.read_bytes()).news
    assert len(news) == 1
    assert "Openings of bays now follow from the doors" in news[0]
    assert read((SAMPLES / "version-2.hull.json").read_bytes()).news == ()
    assert load(path) == load(SAMPLES / "version-2.hull.json")


def test_a_unit_through_the_divider_the_roof_or_its_insulation_stops() -> None:
    # The divider stands in the middle: 915 from the outside, 880 from the wall's inside.
    unit = Drawer(id="d", name="Drawer", bay="L", u=400, w=120, width=500, depth=894, height=300)
    deep = with_bay(job_with(unit), "L", depth=900)
    (hit,) = told(deep, "fit.body")
    assert hit.title == "Drawer stands in the divider"
    assert hit.measured == pytest.approx(894 - (880 - 1))
    one_sided = with_canopy(deep, bays=tuple(b for b in canopy_of(deep).bays if b.side != "right"))
    assert told(one_sided, "fit.body") == []
    tall = Device(
        what="battery",
        mass=10,
        id="d",
        name="Box",
        bay="L",
        u=400,
        w=0,
        width=300,
        depth=300,
        height=900,
    )
    lined = with_canopy(job_with(tall), insulation=78.0)
    (hit,) = told(lined, "fit.body")
    assert (hit.title, hit.measured) == (
        "Box stands in the canopy roof",
        pytest.approx(900 - (960 - 80)),
    )


def test_what_a_hollow_leaves_free_is_free() -> None:
    floor = FalseFloor(id="f", name="Floor", bay="L", u=0, width=1400, depth=800, height=150)
    battery = Device(
        what="battery",
        mass=10,
        id="b",
        name="Battery",
        bay="L",
        u=60,
        v=100,
        w=0,
        width=200,
        depth=300,
        height=120,
    )
    drawer = Drawer(id="d", name="Drawer", bay="L", u=400, w=150, width=500, depth=700, height=300)
    pairs = judge(job_with(floor, battery, drawer)).fit.pairs
    assert pairs == {}
    high = msgspec.structs.replace(battery, height=145.0)
    (flaw,) = judge(job_with(floor, high)).fit.pairs["f", "b"]
    assert (flaw.kind, flaw.amount) == ("overlap", pytest.approx(145 - (150 - floor.board)))
    notched = Own(
        id="o", name="Notched", bay="L", u=0, width=600, depth=700, height=500,
        blocks=(Block(u=0, v=0, w=0, width=300, depth=700, height=500),
                Block(u=300, v=0, w=300, width=300, depth=700, height=200)),
    )  # fmt: skip
    under = Device(
        what="battery",
        mass=10,
        id="b",
        name="Battery",
        bay="L",
        u=320,
        v=0,
        w=0,
        width=250,
        depth=300,
        height=280,
    )
    assert judge(job_with(notched, under)).fit.pairs == {}
    over = msgspec.structs.replace(under, u=290.0)
    (flaw,) = judge(job_with(notched, over)).fit.pairs["o", "b"]
    assert flaw.amount == pytest.approx(10)


@given(
    st.lists(st.tuples(*[st.integers(0, 8)] * 3, *[st.integers(1, 5)] * 3), min_size=1, max_size=4),
    st.lists(st.tuples(*[st.integers(0, 8)] * 3, *[st.integers(1, 5)] * 3), min_size=1, max_size=4),
)
def test_the_shortest_way_apart_is_that_of_trying_all(
    one: list[tuple[int, ...]], other: list[tuple[int, ...]]
) -> None:
    a, b = (
        [Box(x, y, z, x + p, y + q, z + r) for x, y, z, p, q, r in some] for some in (one, other)
    )

    def free(way: tuple[int, int, int]) -> bool:
        return all(p.moved(*way).common(q) is None for p in a for q in b)

    steps = [n for n in range(15) if any(
        free(tuple(sign * n if k == axis else 0 for k in range(3)))  # type: ignore[arg-type]
        for axis in range(3) for sign in (1, -1)
    )]  # fmt: skip
    assert parting(a, b) == pytest.approx(min(steps), abs=TOUCH)


def test_the_study_says_nothing_of_sound_bodies_and_of_bodies_without_a_canopy() -> None:
    for name in ("", "lowfold", "tarn"):
        job = demo_job(name) if name else DEMO
        assert once(sides.STUDY, assemble(job)).results[sides.KEY] == ()
    bodies = msgspec.structs.replace(DEMO.body, canopy=None)
    job = msgspec.structs.replace(bare(DEMO), body=bodies)
    assert once(sides.STUDY, assemble(job)).results[sides.KEY] == ()
    assert isinstance(canopy_of(DEMO), Canopy)


def test_opening_an_older_file_says_what_means_something_else(
    session: Session, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    # Copies: opening a job puts its claim beside it.
    old, new = (
        Path(shutil.copy(SAMPLES / name, tmp_path))
        for name in ("version-1.hull.json", "version-2.hull.json")
    )
    open_job(session, old)
    assert session.messages.text.startswith(
        "Opened version-1.hull.json. Openings of bays now follow"
    )
    open_job(session, new)
    assert session.messages.text == "Opened version-2.hull.json"
    assert job_of(str(old)) == job_of(str(new))
    told_there = capsys.readouterr().err
    assert told_there.startswith("version-1.hull.json: Openings of bays now follow")
    assert "version-2" not in told_there
