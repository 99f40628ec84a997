import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import canopy_of, with_canopy

from roomy_hull.core.errors import EditError
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.edits.resizing import resized, set_at, value_at
from roomy_hull.job.model import Job
from roomy_hull.verdict.verdict import fixes, judge

DEMO = demo_job()


def test_a_path_sets_one_field_and_shares_the_rest(demo: Job) -> None:
    job = set_at(demo, "body.canopy.doors.left.length", 1400.0)
    assert value_at(job, "body.canopy.doors.left.length") == 1400
    assert value_at(job, "body.canopy.doors.1.length") == 1525
    assert job.units is demo.units
    bare = set_at(demo.body, "canopy", None)
    assert value_at(bare, "canopy.length") is None


@pytest.mark.parametrize(
    ("path", "value", "says"),
    [
        ("body.tray.sails", 1.0, "no field 'sails'"),
        ("body.canopy.doors.top.length", 1.0, "no 'top'"),
        ("body.tray.length", -5.0, "> 0"),
        ("body.tray.length", "long", "figure"),
        ("body.canopy.doors.left.length", 3000.0, "its wall"),
        ("vehicle.wheelbase", 1000.0, "not between the axles"),
        ("vehicle.tyre_load_index", 3, "not in the table"),
    ],
)
def test_what_cannot_be_is_refused_at_its_path(
    demo: Job, path: str, value: object, says: str
) -> None:
    with pytest.raises(EditError) as caught:
        resized(demo, path, value)
    assert says in str(caught.value)
    assert "Traceback" not in str(caught.value)


def test_a_longer_tray_takes_canopy_doors_and_bays_along(demo: Job) -> None:
    job = resized(demo, "body.tray.length", 2250.0)
    canopy, before = job.body.canopy, demo.body.canopy
    assert canopy is not None
    assert before is not None
    assert canopy.length == before.length + 200
    assert [d.length - b.length for d, b in zip(canopy.doors, before.doors, strict=True)] == [
        200,
        200,
        0,
    ]
    assert [d.length - b.length for d, b in zip(canopy.bays, before.bays, strict=True)] == [
        200,
        200,
        0,
    ]
    assert job.units is demo.units


def test_a_shorter_tray_makes_findings_and_moves_no_unit(demo: Job) -> None:
    job = resized(demo, "body.tray.length", 1850.0)
    assert job.units is demo.units
    verdict = judge(job)
    outside = [f for f in verdict.findings if f.code == "fit.outside.end"]
    assert {f.words[0] for f in outside} >= {"camp", "galley"}
    assert all(f.severity == "stop" for f in outside)
    assert any(fixes(verdict, f) for f in outside)


def test_width_and_height_flow_too(demo: Job) -> None:
    wide = resized(demo, "body.tray.width", 1950.0)
    canopy, before = wide.body.canopy, demo.body.canopy
    assert canopy is not None
    assert before is not None
    assert canopy.width == before.width + 100
    assert canopy.bays[0].depth == before.bays[0].depth + 50
    assert canopy.bays[2].length == before.bays[2].length + 100
    tall = resized(demo, "body.canopy.height", 1060.0).body.canopy
    assert tall is not None
    assert {b.height for b in tall.bays} == {before.bays[0].height + 100}


def test_what_would_vanish_is_refused(demo: Job) -> None:
    with pytest.raises(EditError, match="would become"):
        resized(demo, "body.canopy.height", 120.0)
    assert resized(demo, "body.canopy.height", demo.body.canopy.height) is demo  # type: ignore[union-attr]


@given(st.floats(1700, 2600), st.floats(1700, 2600))
def test_there_and_back_is_where_it_was(one: float, other: float) -> None:
    job = resized(resized(DEMO, "body.tray.length", one), "body.tray.length", other)
    back = resized(job, "body.tray.length", DEMO.body.tray.length)
    assert back.body.canopy.length == pytest.approx(DEMO.body.canopy.length)  # type: ignore[union-attr]
    for a, b in zip(back.body.canopy.doors, DEMO.body.canopy.doors, strict=True):  # type: ignore[union-attr]
        assert a.length == pytest.approx(b.length)


def test_ids_may_hold_dots_and_figures(demo: Job) -> None:
    ids = ("2.5t", "2", "0", "2.5t.length")
    doors = tuple(
        canopy_of(demo).doors[0].but(id=i, start=60.0 + 10 * n, length=300.0 + n)
        for n, i in enumerate(ids)
    )
    job = with_canopy(demo, doors=doors)
    for n, key in enumerate(ids):
        path = f"body.canopy.doors.{key}.length"
        assert value_at(job, path) == 300 + n
        changed = canopy_of(set_at(job, path, 700.0)).doors
        assert [d.length for d in changed] == [700.0 if m == n else 300.0 + m for m in range(4)]
    # By number where no id is meant: the last one has number 3.
    assert value_at(job, "body.canopy.doors.3.length") == 303
    assert value_at(job, "body.canopy.doors.9.length") is None
    with pytest.raises(EditError, match="there is no '9'"):
        set_at(job, "body.canopy.doors.9.length", 1.0)
