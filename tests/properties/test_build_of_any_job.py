"""The build of any job: whatever is placed, logged, fixed by hand or built otherwise, the plan holds and nothing breaks."""

import math
from datetime import date

import msgspec
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.sweeping import examples

from roomy_hull.core.errors import EditError
from roomy_hull.formats.demo import DEMOS, demo_job
from roomy_hull.formats.jobfile import dumps, loads
from roomy_hull.formats.plan_json import plan_csv, plan_json
from roomy_hull.job.edits import building as edits
from roomy_hull.job.edits import units
from roomy_hull.job.logs import KINDS
from roomy_hull.job.model import Job
from roomy_hull.planning.as_built import as_built
from roomy_hull.planning.lateness import late, waited_for
from roomy_hull.planning.plan import Build, build_of, chances_of
from roomy_hull.verdict.verdict import Verdict, judge

DAYS = [f"2027-{m:02d}-{d:02d}" for m in (1, 2, 3) for d in (1, 9, 14, 20, 28)]
KNOWN: dict[str, tuple[Verdict, Build]] = {}


def first(name: str) -> tuple[Verdict, Build]:
    """A demo with its plan begun and its log empty, judged once."""
    if name not in KNOWN:
        job = edits.planned(
            msgspec.structs.replace(demo_job(name), log=(), offers=()), begin="2027-02-01"
        )
        verdict = judge(job)
        KNOWN[name] = verdict, verdict.results["build"]
    return KNOWN[name]


def holds(verdict: Verdict, build: Build) -> None:
    """What is true of every plan."""
    assert not build.trouble
    assert set(build.levelled.placed) == set(build.tasks) == set(build.ops) - set(build.state.done)
    shop = verdict.assembly.shop.workshop
    for key, one in build.levelled.placed.items():
        op = build.ops[key]
        assert one.start >= build.calendar.minute(build.now)
        for before in op.after:
            if before in build.levelled.placed:
                assert build.levelled.placed[before].finish <= one.start
        for person in one.people:
            worker = shop.worker(person)
            assert worker is not None
            assert op.trade in worker.trades
        assert math.isfinite(build.hours[key])
        assert build.hours[key] >= 0
    for key, op in build.ops.items():
        assert key == op.key
        assert all(a in build.ops for a in op.after)
    assert all(set(p.ops) <= set(build.ops) for p in build.buying)
    assert {n for op in build.ops.values() for n in op.needs} == {p.key for p in build.buying}
    assert len({c.key for c in build.checks}) == len(build.checks)
    if build.levelled.placed:
        assert build.levelled.bound <= build.levelled.end
        found = late(build)
        if found is not None:
            assert waited_for(build, found.chain, {})
        chance = chances_of(build, shop, 50)
        assert chance is not None
        assert chance.ready(0.9) >= chance.ready(0.5)
    told = plan_json(verdict, build)
    assert len(told["operations"]) == len(build.ops)
    assert len(plan_csv(build, shop).splitlines()) == len(build.ops) + 1


@pytest.mark.parametrize("name", list(DEMOS))
def test_the_demos_plans_hold(name: str) -> None:
    holds(*first(name))


def rounded(most: float) -> st.SearchStrategy[float]:
    """Figures as somebody types them: what is next to nothing is nothing in a file."""
    return st.floats(0, most).map(lambda x: round(x, 2))


steps = st.one_of(
    st.tuples(st.just("work"), st.integers(0, 400), rounded(30), st.booleans()),
    st.tuples(st.just("hold"), st.integers(0, 400), st.sampled_from(DAYS), rounded(24)),
    st.tuples(
        st.just("person"),
        st.integers(0, 400),
        st.sampled_from(["first", "second", "gasfitter", "nobody"]),
    ),
    st.tuples(
        st.just("plan"),
        st.sampled_from(["due", "vehicle_from", "vehicle_to"]),
        st.sampled_from(["", *DAYS]),
    ),
    st.tuples(st.just("coated"), st.booleans()),
    st.tuples(
        st.just("bought"),
        st.integers(0, 400),
        st.sampled_from(["ordered", "received"]),
        st.sampled_from(["", *DAYS]),
    ),
    st.tuples(st.just("check"), st.integers(0, 400), st.sampled_from(["done", "failed", "later"])),
    st.tuples(st.just("drop"), st.integers(0, 400)),
    st.tuples(st.just("own"), st.text(max_size=20), rounded(30), rounded(10)),
    st.tuples(st.just("any"), st.sampled_from(KINDS), st.text(max_size=20), st.text(max_size=20)),
)


def done(job: Job, build: Build, step: tuple[object, ...]) -> Job:
    """Do something with a job's build; what is refused changes nothing."""
    kind, *rest = step
    ops, at = list(build.ops), "2027-02-03T10:00:00"
    try:
        if kind == "work":
            key = ops[rest[0] % len(ops)]  # type: ignore[operator]
            entry = edits.entry(at, "AB", kind="work", op=key, hours=rest[1], done=rest[2])
            return edits.logged(job, entry)
        if kind == "hold":
            return edits.held(job, ops[rest[0] % len(ops)], day=rest[1], hour=rest[2])  # type: ignore[operator]
        if kind == "person":
            return edits.held(job, ops[rest[0] % len(ops)], person=rest[1])  # type: ignore[operator]
        if kind == "plan":
            return edits.planned(job, **{str(rest[0]): rest[1]})
        if kind == "coated":
            return edits.planned(job, coated=rest[0])
        if kind == "bought":
            one = build.buying[rest[0] % len(build.buying)]  # type: ignore[operator]
            return edits.logged(
                job, edits.entry(at, "AB", kind=rest[1], about=one.key, taken=rest[2])
            )
        if kind == "check":
            check = build.checks[rest[0] % len(build.checks)]  # type: ignore[operator]
            return edits.logged(
                job, edits.entry(at, "AB", kind="check", about=check.key, result=rest[1])
            )
        if kind == "drop":
            return units.removed(job, job.units[rest[0] % len(job.units)].id) if job.units else job  # type: ignore[operator]
        if kind == "own":
            return edits.own_operation(job, str(rest[0]), rest[1], rest[2])  # type: ignore[arg-type]
        return edits.logged(job, edits.entry(at, "AB", kind=rest[0], about=rest[1], words=rest[2]))
    except EditError:
        return job


@settings(max_examples=examples(12, 4))
@given(st.sampled_from(["lowfold", "tarn"]), st.lists(steps, max_size=14))
def test_whatever_is_done_the_plan_holds(name: str, some: list[tuple[object, ...]]) -> None:
    verdict, build = first(name)
    job = verdict.job
    for step in some:
        job = done(job, build, step)
    now = judge(job, verdict)
    holds(now, now.results["build"])
    # Judged from nothing it is the same, and as a file it says the same.
    again = loads(dumps(job))
    assert again.log == job.log
    assert again.plan == job.plan
    fresh = build_of(judge(again).context())
    found = now.results["build"]
    assert fresh.levelled.end == found.levelled.end or fresh.tasks != found.tasks
    assert fresh.hours == found.hours


PATHS = [
    "units.{u}.width", "units.{u}.height", "units.{u}.u", "units.{u}.name", "carried.{c}.mass", "carried.{c}.x",
    "body.tray.length", "body.canopy.height", "vehicle.wheelbase", "vehicle.colour", "units.nobody.width",
    "scenarios.full.water", "log.x.words", "body.canopy.doors.left.length", "",
]  # fmt: skip


@settings(max_examples=examples(25, 4))
@given(
    st.lists(
        st.tuples(st.sampled_from(PATHS), st.floats(-500, 3000), st.integers(0, 50)), max_size=5
    )
)
def test_whatever_was_built_otherwise_is_judged_or_told(rows: list[tuple[str, float, int]]) -> None:
    verdict, _build = first("tarn")
    job = verdict.job
    for path, value, n in rows:
        carried = job.carried[n % len(job.carried)].id if job.carried else "x"
        about = path.format(u=job.units[n % len(job.units)].id, c=carried)
        job = edits.logged(
            job,
            edits.entry("2027-02-03T10:00:00", "AB", kind="deviation", about=about, value=value),
        )
    real = as_built(job)
    found = judge(job, verdict)
    assert found.job is job
    assert found.assembly.job == real.job
    # What was drawn stays, what cannot be is told.
    assert job.units == verdict.job.units
    lost = [f for f in found.findings if f.code == "build.deviation"]
    assert len(lost) == len(real.lost)
    assert all(math.isfinite(s.gross.value) for s in found.loads.scenarios)


def test_a_plan_begins_on_a_day_on_which_nobody_works() -> None:
    verdict, _build = first("tarn")
    job = edits.planned(verdict.job, begin="2027-02-06")  # a Saturday
    build = judge(job, verdict).results["build"]
    assert build.calendar.days[0] == date(2027, 2, 8)
    assert min(p.start for p in build.levelled.placed.values()) == 0


@pytest.mark.parametrize("day", ["9999-12-31", "0001-01-01"])
@pytest.mark.parametrize("field", ["begin", "due", "vehicle_from", "vehicle_to"])
def test_a_day_that_is_far_off_breaks_nothing(day: str, field: str) -> None:
    verdict, _build = first("tarn")
    found = judge(edits.planned(verdict.job, **{field: day}), verdict)
    assert found.loads.scenarios


def test_what_is_no_day_at_all_is_refused() -> None:
    with pytest.raises(EditError, match="YYYY-MM-DD"):
        edits.planned(first("tarn")[0].job, begin="soon")
    with pytest.raises(EditError, match="no 2027-13-01"):
        edits.planned(first("tarn")[0].job, begin="2027-13-01")
