"""Set-ups: what is on the vehicle for which use, what goes along, and what every set-up is judged by."""

import msgspec
import pytest
from tests.builders import begun, codes, hung

from roomy_hull.core.errors import EditError
from roomy_hull.formats import jobfile
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import setups as edits
from roomy_hull.job.model import Job
from roomy_hull.job.setups import SetUp
from roomy_hull.verdict.verdict import judge


def setup(job: Job, name: str, **more: object) -> Job:
    """Add a set-up; scenarios stay in the one they were in."""
    new = edits.added(job, SetUp(id="x", name=name, **more))  # type: ignore[arg-type]
    return msgspec.structs.replace(new, scenarios=job.scenarios)


def test_the_first_set_up_takes_all_scenarios_and_one_is_moved_by_hand(demo: Job) -> None:
    job = edits.added(demo, SetUp(id="x", name="One"))
    assert {s.setup for s in job.scenarios} == {"one"}
    job = edits.added(job, SetUp(id="x", name="Two"))
    assert {s.setup for s in job.scenarios} == {"one"}
    moved = edits.used(job, "two", "full")
    assert [s.id for s in moved.scenarios if s.setup == "two"] == ["full"]
    with pytest.raises(EditError, match="no set-up"):
        edits.used(job, "three", "full")


def named(job: Job, **by: str) -> Job:
    """Scenarios by their ids given their set-ups; `rest` for all others."""
    rows = tuple(
        msgspec.structs.replace(s, setup=by.get(s.id, by.get("rest", ""))) for s in job.scenarios
    )
    return msgspec.structs.replace(job, scenarios=rows)


def test_a_job_without_set_ups_means_what_it_meant(demo: Job) -> None:
    assert edits.resolved(demo) is demo
    plain = judge(demo)
    assert plain.setups == ()
    assert all(not f.setups for f in plain.findings)
    one = named(setup(demo, "All"), rest="all")
    found = judge(one)
    assert [f.key for f in found.findings] == [f.key for f in plain.findings]
    assert [s.gross.value for s in found.loads.scenarios] == pytest.approx([
        s.gross.value for s in plain.loads.scenarios
    ])


def test_what_is_off_is_not_weighed_and_what_stands_in_it_goes_along() -> None:
    job = hung(begun("Fen", "bare tray", "box", "hoop"), "spare")
    box, hoop = job.body.rooms[0], job.body.racks[0]
    assert job.carried[0].on == hoop.id
    job = named(setup(job, "Bare", off=(box.id, hoop.id)), rest="bare")
    assert edits.absent(job, job.setups[0]) == {box.id, hoop.id, "spare"}
    whole, bare = judge(named(job, rest="")), judge(job)
    taken = sum(
        m.kg for m in whole.assembly.masses()
        if m.owner.id in (box.id, hoop.id, "spare")
    )  # fmt: skip
    assert taken > 60
    for a, b in zip(whole.loads.scenarios, bare.loads.scenarios, strict=True):
        assert a.gross.value - b.gross.value == pytest.approx(taken)
    there = bare.within("bare").assembly
    assert there.thing("spare") is None
    assert there.ground.racks == ()
    assert there.ground.rooms_there == ()


def test_two_things_in_one_place_clash_only_where_both_are_on(demo: Job) -> None:
    """A fridge and a drawer that take turns in a place."""
    drawer = demo.thing("net-drawer")
    assert drawer is not None
    assert not isinstance(drawer, Carried)
    other = msgspec.structs.replace(drawer, id="other", name="Other drawer")
    job = msgspec.structs.replace(demo, units=(*demo.units, other))
    assert "fit.overlap" in codes(judge(job), "fit.overlap")
    job = setup(setup(job, "A", off=("other",)), "B", off=("net-drawer",))
    job = named(job, rest="a")
    assert codes(judge(job), "fit.overlap") == []
    # Where a scenario has everything on, it is a clash after all.
    assert codes(judge(named(job, full="", rest="a")), "fit.overlap") == ["fit.overlap"]


def test_a_finding_says_in_which_set_ups_it_is_so(demo: Job) -> None:
    drawer = demo.thing("net-drawer")
    assert drawer is not None
    assert not isinstance(drawer, Carried)
    other = msgspec.structs.replace(drawer, id="other", name="Other drawer")
    job = msgspec.structs.replace(demo, units=(*demo.units, other))
    job = named(setup(setup(job, "Both"), "One", off=("other",)), rest="both")
    found = [f for f in judge(job).findings if f.code == "fit.overlap"]
    assert [f.setups for f in found] == [("both",)]
    assert found[0].title.endswith("(Both)")


def test_while_a_hand_moves_only_what_can_meet_is_told(demo: Job) -> None:
    drawer = demo.thing("net-drawer")
    assert drawer is not None
    assert not isinstance(drawer, Carried)
    other = msgspec.structs.replace(drawer, id="other", name="Other drawer")
    job = msgspec.structs.replace(demo, units=(*demo.units, other))
    job = named(setup(setup(job, "A", off=("other",)), "B", off=("net-drawer",)), rest="a")
    settled = judge(job)
    moved = msgspec.structs.replace(
        job, units=tuple(msgspec.structs.replace(u, name="Moved") if u.id == "other" else u for u in job.units)
    )  # fmt: skip
    assert codes(judge(moved, settled, moving=True), "fit.overlap") == []


def test_drop_sides_stay_at_home() -> None:
    job = begun("Fen", "bare tray")
    job = msgspec.structs.replace(job, body=job.body.but(tray=job.body.tray.but(sides=300.0)))
    off = named(setup(job, "Open", sides=False), rest="open")
    a, b = judge(job), judge(off)
    sides = sum(m.kg for m in a.assembly.ground.masses if m.mount == "sides")
    assert sides > 10
    assert a.loads.scenarios[0].gross.value - b.loads.scenarios[0].gross.value == pytest.approx(
        sides
    )
    assert b.within("open").assembly.opening("tray:side-left") is None


def test_a_second_leaf_hangs_in_its_set_up(demo: Job) -> None:
    canopy = demo.body.canopy
    assert canopy is not None
    doors = (canopy.doors[0].but(second="mesh"), *canopy.doors[1:])
    job = msgspec.structs.replace(demo, body=demo.body.but(canopy=canopy.but(doors=doors)))
    job = setup(job, "Summer", second_doors=(doors[0].id,))
    hung_on = edits.worn(job, job.setups[0]).body.canopy
    assert hung_on is not None
    assert hung_on.doors[0].leaf == "mesh"
    plain = judge(job).assembly
    parts = [p.name for p in plain.parts() if "second leaf" in p.name]
    assert any("second leaf of mesh" in p for p in parts)
    # What hangs at home is cut, and not aboard.
    bare = judge(demo).assembly
    assert sum(m.kg for m in plain.ground.masses) == pytest.approx(
        sum(m.kg for m in bare.ground.masses)
    )


def test_edits_refuse_what_makes_no_sense(demo: Job) -> None:
    job = setup(demo, "One")
    with pytest.raises(EditError, match="no 'moon'"):
        edits.switched(job, "one", "moon")
    with pytest.raises(EditError, match="no set-up"):
        edits.changed(job, "two", name="x")
    for n in range(7):
        job = setup(job, f"More {n}")
    with pytest.raises(EditError, match="at most 8"):
        setup(job, "Ninth")
    with pytest.raises(ValueError, match="does not exist"):
        msgspec.structs.replace(
            demo, scenarios=(demo.scenarios[0].but(setup="nowhere"), *demo.scenarios[1:])
        )
    dropped = edits.dropped(named(job, rest="one"), "one")
    assert all(s.setup == "" for s in dropped.scenarios)


def test_set_ups_rooms_and_racks_are_in_the_file() -> None:
    job = hung(begun("Fen", "bare tray", "camper", "side box", "cab rack"), "bull-bar")
    job = setup(job, "Work", off=(job.body.rooms[0].id,))
    again = jobfile.loads(jobfile.dumps(job), "x")
    assert again == job
