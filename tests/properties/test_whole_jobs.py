"""Properties of whole jobs under any sequence of edits."""

import msgspec
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.sweeping import examples

from roomy_hull.core.errors import EditError
from roomy_hull.core.refs import Ref
from roomy_hull.core.value import LEAST
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.jobfile import dumps, loads
from roomy_hull.job.edits import units as edits
from roomy_hull.job.history import History
from roomy_hull.job.model import Job, Scenario
from roomy_hull.kit import catalogue as stores
from roomy_hull.verdict.verdict import judge

DEMO = demo_job()
BEFORE = judge(DEMO)
KEYS = [u.id for u in DEMO.units] + [c.id for c in DEMO.carried]


def meant(value: float) -> float:
    """What is next to nothing is nothing, in a file too."""
    return value if abs(value) >= LEAST else 0.0


step = st.one_of(
    st.tuples(
        st.just("move"),
        st.sampled_from(KEYS),
        st.floats(-200, 1600).map(meant),
        st.floats(-50, 900).map(meant),
    ),
    st.tuples(st.just("mirror"), st.sampled_from(KEYS)),
    st.tuples(st.just("remove"), st.sampled_from(KEYS)),
    st.tuples(st.just("fill"), st.sampled_from(KEYS), st.floats(0, 300).map(meant)),
    st.tuples(
        st.just("add"), st.sampled_from([e.key for e in stores.entries()]), st.sampled_from("LRB")
    ),
    st.tuples(st.just("size"), st.sampled_from(KEYS), st.floats(30, 900)),
)


def apply(job: Job, action: tuple[object, ...]) -> Job:
    """Do one edit; one that is refused changes nothing."""
    kind, key, *rest = action
    try:
        if kind == "move":
            thing = job.thing(key)  # type: ignore[arg-type]
            fields = ("u", "w") if hasattr(thing, "u") else ("x", "z")
            return edits.changed(job, key, **dict(zip(fields, rest, strict=True)))  # type: ignore[arg-type]
        if kind == "mirror":
            return edits.mirrored(job, key)  # type: ignore[arg-type]
        if kind == "remove":
            return edits.removed(job, key)  # type: ignore[arg-type]
        if kind == "fill":
            return edits.changed(job, key, contents=rest[0])  # type: ignore[arg-type]
        if kind == "size":
            return edits.changed(job, key, width=rest[0])  # type: ignore[arg-type]
        made = stores.entry(key).make  # type: ignore[arg-type]
        return edits.added(job, made.but(bay=rest[0]) if hasattr(made, "bay") else made)
    except EditError:
        return job


def after(steps: list[tuple[object, ...]]) -> Job:
    job = DEMO
    for action in steps:
        job = apply(job, action)
    return job


@given(st.lists(step, max_size=12))
def test_saving_and_opening_is_the_identity(steps: list[tuple[object, ...]]) -> None:
    job = after(steps)
    again = loads(dumps(job))
    assert again == job
    assert dumps(again) == dumps(job)


@given(st.lists(step, max_size=12))
def test_undoing_everything_returns_the_very_same_job(steps: list[tuple[object, ...]]) -> None:
    history, seen = History(DEMO), [DEMO]
    for action in steps:
        if history.push(str(action[0]), apply(history.job, action)):
            seen.append(history.job)
    for job in seen[::-1]:
        assert history.job is job
        history.undo()
    for job in seen[1:]:
        assert history.redo()
        assert history.job is job


@given(st.lists(step, max_size=10))
@settings(max_examples=examples(40, 10))
def test_axles_and_sides_carry_the_whole_mass(steps: list[tuple[object, ...]]) -> None:
    for s in judge(after(steps)).loads.scenarios:
        assert s.front.value + s.rear.value == pytest.approx(s.gross.value)
        assert s.left.value + s.right.value == pytest.approx(s.gross.value)
        assert (
            min(
                s.front.uncertainty,
                s.rear.uncertainty,
                s.gross.uncertainty,
                s.left.uncertainty,
                s.right.uncertainty,
            )
            >= 0
        )


@given(st.lists(st.tuples(step, st.sampled_from(("settled", "moving", "beside"))), max_size=10))
@settings(max_examples=examples(60, 10))
def test_a_verdict_from_memory_is_the_verdict_from_nothing(
    steps: list[tuple[tuple[object, ...], str]],
) -> None:
    # What rests while a hand moves, or is worked out elsewhere, is brought up to date by the verdict that follows.
    job, verdict = DEMO, BEFORE
    for action, how in steps:
        job = apply(job, action)
        verdict = judge(job, verdict, moving=how == "moving", beside=how == "beside")
        assert bool(verdict.held) == (how != "settled")
    verdict = judge(job, verdict)
    fresh = judge(job)
    assert verdict.held == {}
    assert verdict.findings == fresh.findings  # and in the same order
    assert verdict.loads.scenarios == fresh.loads.scenarios
    assert verdict.access.seen == fresh.access.seen
    assert verdict.access.moves == fresh.access.moves
    assert verdict.gaps == fresh.gaps
    ours, theirs = verdict.results["build"], fresh.results["build"]
    assert (ours.tasks, ours.levelled, ours.path) == (theirs.tasks, theirs.levelled, theirs.path)


@given(st.sampled_from([u.id for u in DEMO.units if u.bay != "B"]), st.floats(1, 600))
def test_moving_a_unit_aft_never_lightens_the_rear_axle(key: str, by: float) -> None:
    before = BEFORE
    unit = DEMO.thing(key)
    after_move = judge(edits.changed(DEMO, key, u=unit.u + by), before)  # type: ignore[union-attr]
    for a, b in zip(before.loads.scenarios, after_move.loads.scenarios, strict=True):
        assert b.rear.value >= a.rear.value - 1e-9
        assert b.gross.value == pytest.approx(a.gross.value)


@given(st.sampled_from([u.id for u in DEMO.units if u.bay != "B"]))
def test_mirroring_keeps_front_and_rear_and_turns_the_sides(key: str) -> None:
    before, mirrored = BEFORE, judge(edits.mirrored(DEMO, key), BEFORE)
    for scenario, a, b in zip(
        DEMO.scenarios, before.loads.scenarios, mirrored.loads.scenarios, strict=True
    ):
        assert b.front.value == pytest.approx(a.front.value)
        assert b.rear.value == pytest.approx(a.rear.value)
        side = before.loads.owners(scenario)[Ref("unit", key)][2]
        assert mirrored.loads.owners(scenario)[Ref("unit", key)][2] == pytest.approx(-side)


@given(st.floats(0, 1), st.floats(0, 1))
def test_more_water_is_more_mass_and_no_more_payload(one: float, other: float) -> None:
    low, high = sorted((one, other))
    job = msgspec.structs.replace(
        DEMO,
        scenarios=tuple(Scenario(id=f"s{n}", name="S", water=w) for n, w in enumerate((low, high))),
    )
    a, b = judge(job).loads.scenarios
    assert b.gross.value >= a.gross.value - 1e-9
    assert b.payload_left.value <= a.payload_left.value + 1e-9


@given(st.floats(0, 300), st.floats(0, 300))
def test_a_clash_is_symmetric(u: float, w: float) -> None:
    job = edits.changed(DEMO, "sample-fridge", u=u, w=w)
    forth = judge(job)
    back = judge(msgspec.structs.replace(job, units=job.units[::-1]))

    def pairs(verdict: object) -> set[frozenset[str]]:
        return {frozenset(f.words) for f in verdict.findings if f.code == "fit.overlap"}  # type: ignore[attr-defined]

    assert pairs(forth) == pairs(back)
