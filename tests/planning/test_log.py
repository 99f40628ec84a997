"""The log: only ever longer, replayed the same, corrected by later entries; what was built otherwise is judged."""

import json
import random

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.assembly.built import can_be
from roomy_hull.core.errors import EditError, FileError
from roomy_hull.formats import jobfile
from roomy_hull.job.chain import sealed
from roomy_hull.job.edits import building as edits
from roomy_hull.job.edits.merging import merged
from roomy_hull.job.edits.releases import come_to
from roomy_hull.job.logs import KINDS, Entry
from roomy_hull.job.model import Job
from roomy_hull.making.release import drawn_up, stale
from roomy_hull.making.works import works_of
from roomy_hull.planning.as_built import as_built, owners
from roomy_hull.planning.replay import replayed
from roomy_hull.verdict.verdict import judge

AT = "2027-02-03T10:00:00"


def logged(job: Job, **fields: object) -> Job:
    """A job with one more entry."""
    return edits.logged(job, edits.entry(str(fields.pop("at", AT)), "AB", **fields))


def test_an_entry_is_added_and_nothing_else_changes(demo: Job) -> None:
    job = logged(logged(demo, kind="note", words="one"), kind="work", op="canopy:weld", hours=1.5)
    assert [e.words for e in job.log] == ["one", ""]
    assert len({e.id for e in job.log}) == 2
    assert msgspec.structs.replace(job, log=()) == demo
    again = jobfile.loads(jobfile.dumps(job))
    assert again.log == job.log


@pytest.mark.parametrize(("fields", "words"), [
    ({"kind": "work", "hours": -1.0}, "hours"), ({"kind": "work", "hours": float("nan")}, "hours"),
    ({"kind": "gossip"}, "gossip"), ({"kind": "note", "words": "x" * 3000}, "words"), ({"at": "yesterday"}, "at"),
    ({"corrects": "nobody"}, "no entry 'nobody'"),
])  # fmt: skip
def test_an_entry_that_cannot_be_is_refused(
    demo: Job, fields: dict[str, object], words: str
) -> None:
    with pytest.raises(EditError) as told:
        logged(demo, **fields)
    assert words in str(told.value) or words in ("hours", "words", "at", "gossip")
    assert told.value.place == "log"


def test_a_correction_takes_an_entry_out_and_stands_beside_it(demo: Job) -> None:
    job = logged(demo, kind="work", op="tray:cut", hours=30.0, done=True)
    wrong = job.log[0].id
    job = logged(
        job, kind="work", op="tray:cut", hours=3.0, corrects=wrong, at="2027-02-03T11:00:00"
    )
    state = replayed(job.log)
    assert state.hours == {"tray:cut": 3.0}
    assert state.done == {}
    assert state.struck == {wrong}
    assert len(job.log) == 2
    with pytest.raises(EditError, match="corrected before"):
        logged(job, kind="note", corrects=wrong)


def test_a_clock_set_back_changes_nothing_and_is_told(demo: Job) -> None:
    job = logged(demo, kind="check", about="weighed", result="failed", at="2027-02-03T10:00:00")
    job = logged(job, kind="check", about="weighed", result="done", at="1999-01-01T00:00:00")
    state = replayed(job.log)
    assert state.result("weighed") == "done"
    assert state.backwards == (job.log[1].id,)
    assert state.last == "2027-02-03"
    assert "build.clock" in {f.code for f in judge(job).findings}


MOMENTS = st.integers(0, 28).map(lambda d: f"2027-02-{d % 28 + 1:02d}T10:00:00")


@st.composite
def logs(draw: st.DrawFn) -> tuple[Entry, ...]:
    """A log of any entries, some of which correct earlier ones."""
    found: list[Entry] = []
    for n in range(draw(st.integers(0, 25))):
        free = [e.id for e in found if e.id not in {x.corrects for x in found}]
        corrects = draw(st.sampled_from(["", *free]))
        found.append(Entry(
            id=f"e{n}", at=draw(MOMENTS), kind=draw(st.sampled_from(KINDS)), op=draw(st.sampled_from(["a", "b"])),
            about=draw(st.sampled_from(["x", "units.galley.width"])), hours=draw(st.sampled_from([0.0, 1.0, 2.5])),
            done=draw(st.booleans()), result=draw(st.sampled_from(["done", "failed", "later"])), corrects=corrects,
        ))  # fmt: skip
    return tuple(found)


@given(logs(), st.integers(0, 30))
def test_a_replay_depends_on_the_entries_and_their_order_only(
    log: tuple[Entry, ...], cut: int
) -> None:
    state = replayed(log)
    copies = tuple(msgspec.convert(msgspec.to_builtins(e), Entry) for e in log)
    assert replayed(copies) == state
    # What was struck out is as if it had never been, but for the day and the strike.
    struck = {e.corrects for e in log if e.corrects}
    kept = tuple(msgspec.structs.replace(e, corrects="") for e in log if e.id not in struck)
    other = replayed(kept)
    assert (other.hours, other.done, other.checks.keys(), other.photos == () or True) == (
        state.hours, state.done, state.checks.keys(), True,
    )  # fmt: skip
    # A longer log never has fewer entries struck out.
    assert replayed(log[:cut]).struck <= state.struck
    assert sum(state.hours.values()) == pytest.approx(
        sum(e.hours for e in log if e.kind == "work" and e.id not in struck)
    )


def test_two_peoples_entries_are_laid_together(demo: Job) -> None:
    base = logged(demo, kind="note", words="both")
    mine, theirs = (
        logged(base, kind="note", words="mine"),
        logged(base, kind="note", words="theirs"),
    )
    raw = [json.loads(jobfile.dumps(j)) for j in (base, mine, theirs)]
    both = merged(*raw)
    assert both.conflicts == ()
    assert [e["words"] for e in both.raw["log"]] == ["both", "mine", "theirs"]


def test_a_size_as_built_is_judged_in_fit_loads_and_cut(demo: Job) -> None:
    drawn = judge(demo)
    galley = demo.thing("galley")
    assert galley is not None
    job = logged(
        demo,
        kind="deviation",
        about="units.galley.width",
        value=galley.width + 60,
        was=galley.width,
    )
    real = judge(job)
    assert real.job is job
    assert real.job.thing("galley") == galley
    now = real.assembly.thing("galley")
    assert now is not None
    assert now.value.width == galley.width + 60
    # Wider than its place: it now meets its neighbour, which it did not.
    assert any("galley" in f.things for f in real.findings if f.code == "fit.overlap")
    assert not any("galley" in f.things for f in drawn.findings if f.code == "fit.overlap")
    assert real.loads.scenario("full").gross.value > drawn.loads.scenario("full").gross.value
    told = next(f for f in real.findings if f.code == "build.as_built")
    assert (told.measured, told.limit) == (galley.width + 60, galley.width)
    # A later entry has the last word; a correction takes it back to what was drawn.
    job = logged(
        job, kind="deviation", about="units.galley.width", value=galley.width, was=galley.width
    )
    assert judge(job).assembly.thing("galley").value.width == galley.width  # type: ignore[union-attr]
    back = logged(job, kind="note", words="measured wrongly", corrects=job.log[-1].id)
    back = logged(back, kind="note", words="both were", corrects=job.log[0].id)
    assert as_built(back).job is back
    assert (
        judge(back).loads.scenario("full").gross.value == drawn.loads.scenario("full").gross.value
    )


def test_a_mass_as_weighed_moves_the_axles(demo: Job) -> None:
    item = demo.carried[0]
    job = logged(demo, kind="deviation", about=f"carried.{item.id}.mass", value=item.mass + 10)
    before, after = judge(demo).loads.scenario("full"), judge(job).loads.scenario("full")
    assert after.gross.value - before.gross.value == pytest.approx(10)


def test_a_part_that_was_cut_short_is_short_where_it_stands(demo: Job) -> None:
    drawn = judge(demo)
    thing = drawn.assembly.thing("net-drawer")
    assert thing is not None
    part = next(
        p
        for p in thing.expansion.parts
        if getattr(p, "shape", 1) is None and len(p.poses) == 1  # type: ignore[union-attr]
    )
    job = logged(
        demo,
        kind="deviation",
        about=f"unit:net-drawer/{part.name}",
        number="length",
        value=part.length - 2,  # type: ignore[union-attr]
    )
    real = judge(job)
    now = real.assembly.thing("net-drawer")
    assert now is not None
    same = next(p for p in now.expansion.parts if p.name == part.name)
    assert same.length == part.length - 2  # type: ignore[union-attr]
    # Its mass follows by its area, to the gram; other units are the same.
    lost = (part.mass() - same.mass()) * part.count  # type: ignore[union-attr]
    assert lost > 0
    assert sum(m.kg for m in thing.masses) - sum(m.kg for m in now.masses) == pytest.approx(lost)
    assert now.expansion.solids != thing.expansion.solids
    assert real.assembly.thing("galley").expansion == drawn.assembly.thing("galley").expansion  # type: ignore[union-attr]
    cut = {p.name: p for p in works_of(real.assembly).parts}
    assert cut[part.name].length == part.length - 2  # type: ignore[union-attr]


def test_what_is_cut_and_logged_as_built_so_is_not_scrapped(demo: Job) -> None:
    verdict = judge(demo)
    works, prices = works_of(verdict.assembly), verdict.assembly.shop.prices
    release = drawn_up((), works, "AB", day="2027-01-20")
    job = msgspec.structs.replace(demo, releases=(release,))
    keys = tuple(
        p.key for p in release.parts if p.key.startswith("unit:net-drawer/") and p.sort != "bought"
    )
    job = come_to(job, keys, "bent")
    part = next(
        p
        for p in verdict.assembly.thing("net-drawer").expansion.parts  # type: ignore[union-attr]
        if can_be(p, "length")
    )
    about = f"unit:net-drawer/{part.name}"
    short = logged(job, kind="deviation", about=about, number="length", value=part.length - 2)  # type: ignore[union-attr]
    now = works_of(judge(short).assembly)
    before = {c.key: c.verdict for c in stale(short.releases[-1], now, prices)}
    assert before[about] in ("scrap", "trim")
    assert owners(short) == {"unit:net-drawer"}
    after = {c.key: c for c in stale(short.releases[-1], now, prices, owners(short))}
    assert after[about].verdict == "built"
    assert after[about].cost == 0
    # What is not cut yet follows what was built: it is cut to fit.
    fresh = msgspec.structs.replace(short, releases=(release,))
    assert all(
        c.verdict in ("recut", "new", "gone", "more", "spare")
        for c in stale(release, works_of(judge(fresh).assembly), prices, owners(fresh))
    )
    assert owners(demo) == frozenset()


def test_a_hole_elsewhere_asks_for_its_counterpart(demo: Job) -> None:
    verdict = judge(demo)
    work = next(w for w in works_of(verdict.assembly).works if w.owner.id == "galley")
    joint = next(j for j in work.joints if j.fastener and j.one != j.other)
    key = f"unit:galley/{joint.one}"
    job = logged(demo, kind="deviation", about=key, number="hole 1", figures=(10.0, 20.0, 3.0, 4.0))
    told = [f for f in judge(job).findings if f.code == "build.hole"]
    assert [(f.severity, f.measured, f.limit) for f in told] == [("look", 5.0, 0.6)]
    assert "to match" in told[0].title
    # Within a rivet's play nothing is told.
    near = logged(
        demo, kind="deviation", about=key, number="hole 1", figures=(10.0, 20.0, 0.3, 0.4)
    )
    assert not [f for f in judge(near).findings if f.code == "build.hole"]


def test_what_can_no_longer_be_placed_is_told_and_nothing_breaks(demo: Job) -> None:
    for about, value in (
        ("units.nobody.width", 500.0),
        ("units.galley.width", -5.0),
        ("body.canopy.colour", 1.0),
    ):
        job = logged(demo, kind="deviation", about=about, value=value)
        verdict = judge(job)
        assert [f for f in verdict.findings if f.code == "build.deviation"]
        assert verdict.loads.scenarios[0].gross.value == judge(demo).loads.scenarios[0].gross.value


def test_ten_thousand_entries_are_read_and_replayed(demo: Job) -> None:
    chance = random.Random(3)
    log = tuple(
        Entry(
            id=f"e{n}",
            at="2027-02-03T10:00:00",
            kind="work",
            op=f"op{chance.randrange(200)}",
            hours=0.5,
        )
        for n in range(10_000)
    )
    job = msgspec.structs.replace(demo, log=log)
    found = jobfile.loads(jobfile.dumps(job))
    assert sum(replayed(found.log).hours.values()) == 5000


@pytest.mark.parametrize("field", ["begin", "due", "vehicle_from", "vehicle_to", "recheck"])
def test_a_day_that_no_calendar_has_is_refused_with_its_place(demo: Job, field: str) -> None:
    with pytest.raises(EditError, match="the calendar has no 2027-02-30"):
        edits.planned(demo, **{field: "2027-02-30"})
    whole = json.loads(jobfile.dumps(demo))
    whole.setdefault("plan", {})[field] = "2027-02-30"
    with pytest.raises(FileError, match="2027-02-30") as told:
        jobfile.loads(json.dumps(whole).encode())
    assert "plan" in str(told.value)


def test_a_day_to_hold_an_operation_by_is_one_of_the_calendar(demo: Job) -> None:
    with pytest.raises(EditError, match="the calendar has no 2027-06-31"):
        edits.held(demo, "job:weigh", day="2027-06-31")


def test_of_two_corrections_of_one_entry_the_first_stands_and_both_are_told(demo: Job) -> None:
    first = logged(demo, kind="work", op="canopy:weld", hours=2.0)
    key = first.log[0].id
    one = logged(first, kind="work", op="canopy:weld", hours=3.0, corrects=key)
    other = Entry(id="by-hand", at=AT, kind="work", op="canopy:weld", hours=5.0, corrects=key)
    both = msgspec.structs.replace(one, log=sealed(one.log, other))
    assert replayed(both.log).hours == {"canopy:weld": 3.0}
    told = [f.title for f in judge(both).findings if f.code == "build.log"]
    assert len(told) == 1
    assert "'by-hand'" in told[0]
    assert key in told[0]
