"""Of several things with one name it is said which: by side, by bay, else by number."""

import msgspec
from tests.builders import bare

from roomy_hull.assembly.assemble import assemble
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job


def named(job: Job) -> dict[str, str]:
    return {t.id: t.name for t in assemble(job).things}


def step(key: str, y: float) -> Carried:
    return Carried(
        id=key,
        name="Step",
        kind="steps",
        x=500,
        y=y,
        z=400,
        length=1000,
        width=150,
        height=100,
        mass=10,
    )


def test_twins_are_told_apart_by_side_and_a_third_makes_numbers_of_them(demo: Job) -> None:
    two = bare(demo, carried=(step("a", -1000), step("b", 850)))
    assert named(two) == {"a": "Step (left)", "b": "Step (right)"}
    middle = bare(demo, carried=(step("a", -1000), step("b", 0)))
    assert named(middle) == {"a": "Step (left)", "b": "Step (middle)"}
    three = bare(demo, carried=(step("a", -1000), step("b", 850), step("c", 700)))
    assert named(three) == {"a": "Step (1)", "b": "Step (2)", "c": "Step (3)"}
    other = bare(
        demo, carried=(step("a", -1000), msgspec.structs.replace(step("b", 850), name="Tread"))
    )
    assert named(other) == {"a": "Step", "b": "Tread"}


def test_units_are_told_apart_by_their_bays_and_follow_as_they_move(demo: Job) -> None:
    first = next(u for u in demo.units if u.id == "tools")
    twin = first.but(id="tools-2", bay="L")
    job = bare(demo, first.but(bay="R"), twin)
    before = assemble(job)
    assert {t.id: t.name for t in before.things} == {
        "tools": "Tool drawer (bay R)",
        "tools-2": "Tool drawer (bay L)",
    }
    moved = edits.changed(job, "tools-2", bay="R")
    after = assemble(moved, before)
    assert {t.id: t.name for t in after.things} == named(moved)
    assert [t.name for t in after.things] == ["Tool drawer (1)", "Tool drawer (2)"]
    alone = assemble(bare(demo, first.but(bay="R")), after)
    assert [t.name for t in alone.things] == ["Tool drawer"]
    again = assemble(job, before)
    assert [a is b for a, b in zip(again.things, before.things, strict=True)] == [True, True]
