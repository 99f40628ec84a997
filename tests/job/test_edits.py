import msgspec
import pytest

from roomy_hull.assembly.assemble import assemble
from roomy_hull.core.errors import EditError
from roomy_hull.job.edits import units as edits
from roomy_hull.job.history import History
from roomy_hull.job.model import MOST_ACCEPTED, Acceptance, Job


def test_a_change_shares_everything_else(demo: Job) -> None:
    new = edits.changed(demo, "sample-fridge", u=100.0)
    assert new.thing("sample-fridge").u == 100  # type: ignore[union-attr]
    assert new.vehicle is demo.vehicle
    assert sum(a is b for a, b in zip(new.units, demo.units, strict=True)) == len(demo.units) - 1


def test_a_change_to_the_same_value_is_no_change(demo: Job) -> None:
    fridge = demo.thing("sample-fridge")
    assert edits.changed(demo, "sample-fridge", u=fridge.u) is demo  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("key", "changes", "says"),
    [
        ("nobody", {"u": 1.0}, "no unit"),
        ("sample-fridge", {"width": -5.0}, "Sample fridge"),
        ("sample-fridge", {"bay": "Z"}, "no bay"),
        ("sample-fridge", {"vent_side": "top"}, "Sample fridge"),
        ("water", {"baffles": 2.5}, "whole number"),
        ("spare", {"mass": "heavy"}, "figure"),
    ],
)
def test_an_impossible_change_is_refused_and_named(
    demo: Job, key: str, changes: dict[str, object], says: str
) -> None:
    with pytest.raises(EditError) as caught:
        edits.changed(demo, key, **changes)
    assert says in str(caught.value)


def test_added_things_get_an_id_of_their_own(demo: Job) -> None:
    twin = edits.added(demo, demo.units[2])
    assert twin.units[-1].id == "extinguisher-2"
    third = edits.added(twin, twin.units[-1])
    assert third.units[-1].id == "extinguisher-3"
    jerry = edits.added(demo, demo.carried[1])
    assert jerry.carried[-1].id == "jerry-2"
    with pytest.raises(EditError, match="no bay"):
        edits.added(demo, msgspec.structs.replace(demo.units[0], bay="Z"))


def test_removing_twice_removes_once(demo: Job) -> None:
    once = edits.removed(demo, "punt")
    assert len(once.carried) == len(demo.carried) - 1
    assert edits.removed(once, "punt") is once
    assert edits.removed(demo, "water").thing("water") is None


def test_mirroring_twice_is_where_it_was(demo: Job) -> None:
    there = edits.mirrored(demo, "sample-fridge")
    assert there.thing("sample-fridge").bay == "L"  # type: ignore[union-attr]
    assert edits.mirrored(there, "sample-fridge") == demo
    spare = edits.mirrored(demo, "spare")
    assert spare.carried[0].y == -330
    assert edits.mirrored(demo, "nothing") is demo


def test_what_is_bought_stays_itself_when_mirrored_and_what_is_made_becomes_its_image(
    demo: Job,
) -> None:
    job = edits.changed(demo, "sample-fridge", vent_side="left")
    there = edits.mirrored(job, "sample-fridge")
    # The same fridge: its vent is at the left of whoever faces it, so it now points the other way.
    assert there.thing("sample-fridge").vent_side == "left"  # type: ignore[union-attr]
    vents = [next(b for z, b in zip(t.expansion.zones, t.zones, strict=True) if z.kind == "vent").x0 - t.envelope.x0
             for j in (job, there) if (t := assemble(j).thing("sample-fridge")) is not None]  # fmt: skip
    assert vents[0] > 0 > vents[1]
    session = edits.mirrored(edits.changed(demo, "wet-bench", leaf_left=100.0), "wet-bench").thing(
        "wet-bench"
    )
    assert (session.leaf_left, session.leaf_right) == (250, 100)  # type: ignore[union-attr]
    assert edits.mirrored(demo, "gas").thing("gas").hinge == "right"  # type: ignore[union-attr]
    shower = edits.mirrored(demo, "shower").thing("shower")
    assert (shower.side, shower.hand) == ("left", "left")  # type: ignore[union-attr]


def test_a_unit_at_the_rear_is_mirrored_within_its_bay(demo: Job) -> None:
    assert edits.mirrored(demo, "waders").thing("waders").u == 1710 - 25 - 822  # type: ignore[union-attr]


def test_what_has_no_other_side_is_not_mirrored(demo: Job) -> None:
    canopy = demo.body.canopy
    assert canopy is not None
    lone = msgspec.structs.replace(canopy, bays=tuple(b for b in canopy.bays if b.id != "R"))
    body = msgspec.structs.replace(demo.body, canopy=lone)
    job = msgspec.structs.replace(
        demo, body=body, units=tuple(u for u in demo.units if u.bay != "R")
    )
    with pytest.raises(EditError, match="no counterpart"):
        edits.mirrored(job, "wet-bench")


def test_a_later_acceptance_stands_behind_the_earlier_one(demo: Job) -> None:
    first = Acceptance(code="fit.pitch", subjects=("tools",), reason="fits", initials="A")
    second = Acceptance(code="fit.pitch", subjects=("tools",), reason="still fits", initials="B")
    job = edits.accepted(edits.accepted(demo, first), second)
    assert job.accepted == (first, second)
    for _ in range(MOST_ACCEPTED):
        job = edits.accepted(job, second)
    # Where there is no more room, what a later record took the place of goes first.
    assert len(job.accepted) == MOST_ACCEPTED
    other = Acceptance(code="fit.pitch", subjects=("camp",), reason="once", initials="C")
    job = edits.accepted(edits.accepted(job, other), second)
    assert other in job.accepted


def test_history_steps_back_and_forth(demo: Job) -> None:
    history = History(demo)
    moved = edits.changed(demo, "tools", u=500.0)
    assert not history.undo()
    assert history.push("move tools", moved)
    assert not history.push("nothing", moved)
    assert history.undo_words() == "move tools"
    assert history.dirty
    assert history.undo()
    assert history.job is demo
    assert not history.dirty
    assert history.redo_words() == "move tools"
    assert history.redo()
    assert history.job is moved
    assert not history.redo()
    history.mark_saved()
    assert not history.dirty
    history.mark_unsaved()
    assert history.dirty


def test_a_preview_leaves_no_step_until_it_is_pushed(demo: Job) -> None:
    history = History(demo)
    for n in range(50):
        history.preview(edits.changed(demo, "tools", u=500.0 + 25 * n))
    assert history.settled is demo
    assert history.job is not demo
    history.push("move tools", history.job)
    assert history.undo()
    assert history.job is demo
    history.preview(edits.removed(demo, "tools"))
    history.cancel()
    assert history.job is demo


def test_a_new_step_forgets_what_could_be_redone_and_the_list_is_bounded(demo: Job) -> None:
    history = History(demo)
    history.push("a", edits.changed(demo, "tools", u=500.0))
    history.undo()
    history.push("b", edits.changed(demo, "tools", u=525.0))
    assert not history.redo_words()
    for n in range(History.LIMIT + 20):
        history.push(f"step {n}", edits.changed(demo, "tools", u=float(n)))
    count = 0
    while history.undo():
        count += 1
    assert count == History.LIMIT - 1
