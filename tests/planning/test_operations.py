"""Operations, hours, buying and check sheets derived from a job, and what is found of its plan."""

from datetime import date

import msgspec
import pytest

from roomy_hull.core.days import spoken
from roomy_hull.core.parts import Hardware, SheetPart
from roomy_hull.job.edits import building as edits
from roomy_hull.job.model import Job
from roomy_hull.job.plans import Extra, Held
from roomy_hull.making.flats import blank
from roomy_hull.making.works import welded, works_of
from roomy_hull.planning.checklist import Check, checks_of, held_against
from roomy_hull.planning.judge import names_of
from roomy_hull.planning.lateness import in_days, late, told, why
from roomy_hull.planning.plan import Build, build_of, chances_of
from roomy_hull.planning.rates import SCATTER, tuned
from roomy_hull.verdict.verdict import Verdict, judge

AT = "2027-02-03T10:00:00"


def planned(job: Job, **changes: object) -> Job:
    """A job whose plan is begun on the first of February 2027, a Monday, its vehicle there from the start."""
    return edits.planned(job, **({"begin": "2027-02-01"} | changes))


def logged(job: Job, **fields: object) -> Job:
    """A job with one more entry."""
    return edits.logged(job, edits.entry(str(fields.pop("at", AT)), "AB", **fields))


def built(job: Job) -> tuple[Verdict, Build]:
    """A job judged, and its plan."""
    verdict = judge(job)
    found = verdict.results["build"]
    return verdict, found if found is not None else build_of(verdict.context())


@pytest.fixture(scope="module")
def begun(demo: Job) -> tuple[Verdict, Build]:
    """The demo with its plan begun and nothing done."""
    return built(planned(demo))


def test_amounts_are_those_of_the_parts_and_joints(begun: tuple[Verdict, Build]) -> None:
    verdict, build = begun
    works = works_of(verdict.assembly)
    for work in works.works:
        own = {k: op for k, op in build.ops.items() if op.owner == work.owner}
        sheets = [p for p in work.parts if isinstance(p, SheetPart)]
        bends = sum(len(blank(p).bends) * p.count for p in sheets)
        found = {k: a for op in own.values() for k, a in op.amounts}
        assert found.get("bend", 0) == bends
        assert found.get("weld_m", 0.0) == pytest.approx(welded(work.joints) / 1000)
        made = sum(p.count for p in work.parts if not isinstance(p, Hardware))
        assert found.get("piece", 0) == made
    rates = verdict.assembly.shop.workshop.rates
    weld = build.ops["unit:water:weld"]
    assert weld.hours == pytest.approx(dict(weld.amounts)["weld_m"] * rates.weld_m)
    assert "m of weld" in weld.much


def test_what_comes_first_comes_first(begun: tuple[Verdict, Build]) -> None:
    verdict, build = begun
    start, end = (
        {k: getattr(p, f) for k, p in build.levelled.placed.items()} for f in ("start", "finish")
    )
    assert set(start) == set(build.ops)
    assert end["unit:water:pressure test"] <= start["unit:water:fit"]
    assert end["tray:mount"] <= start["canopy:mount"] <= start["unit:galley:fit"]
    # Units go in in the order that In and out found.
    for bay in verdict.in_out.bays.values():
        for key, blockers in bay.blockers.items():
            for other in blockers:
                assert end[f"unit:{key}:fit"] <= start[f"unit:{other}:fit"]
    for circuit in verdict.services.circuits:
        for thing in circuit.ends:
            if f"unit:{thing}:fit" in end:
                assert end[f"unit:{thing}:fit"] <= start[f"circuit:{circuit.id}:wire"]
    assert end["job:weigh"] <= start["job:engineer"] <= start["job:hand over"]
    assert start["job:hand over"] == max(start.values())
    # Only somebody with a licence lays a gas line.
    gas = next(k for k, op in build.ops.items() if op.kind == "gas")
    assert build.levelled.placed[gas].people == ("gasfitter",)
    assert build.ops[gas].licensed


def test_what_is_last_comes_after_the_body_even_where_nothing_is_fitted(demo: Job) -> None:
    assert demo.body.canopy is not None
    body = demo.body.but(canopy=None)
    bare = msgspec.structs.replace(
        demo, body=body, units=(), carried=(), variants=(), sets=(), runs=(), services=type(demo.services)(),
        scenarios=(demo.scenarios[0].but(left_behind=()),), weighings=(),
    )  # fmt: skip
    _v, build = built(planned(bare))
    placed = build.levelled.placed
    assert placed["tray:mount"].finish <= placed["job:finish"].start
    assert placed["job:hand over"].start == max(p.start for p in placed.values())


def test_coating_goes_out_before_anything_is_put_together(demo: Job) -> None:
    _v, build = built(planned(demo, coated=True))
    placed, day = build.levelled.placed, build.calendar.day_minutes
    coat = placed["canopy:coat"]
    assert coat.people == ()
    assert coat.finish - coat.start == 5 * day
    assert placed["canopy:dress"].finish <= coat.start
    assert coat.finish <= placed["canopy:assemble"].start
    assert "canopy:coat" not in built(planned(demo))[1].ops


def test_a_held_operation_keeps_off_and_goes_to_who_was_named(demo: Job) -> None:
    job = planned(demo)
    job = edits.held(job, "unit:galley:cut", day="2027-02-20", hour=2.0, person="second")
    _v, build = built(job)
    one = build.levelled.placed["unit:galley:cut"]
    # The twentieth is a Saturday: the next open day begins it.
    assert build.begins("unit:galley:cut").day == date(2027, 2, 22)
    assert one.people == ("second",)
    job = edits.held(job, "unit:galley:cut", hours=3.0)
    assert built(job)[1].hours["unit:galley:cut"] == 3.0
    assert edits.let_go(job, "unit:galley:cut").plan.held == ()
    assert edits.let_go(demo, "nothing") is demo
    # Nobody is named for what they may not do.
    gas = next(k for k, op in build.ops.items() if op.kind == "gas")
    _v, other = built(
        msgspec.structs.replace(job, plan=job.plan.but(held=(Held(op=gas, person="first"),)))
    )
    assert other.levelled.placed[gas].people == ("gasfitter",)


def test_an_operation_of_ones_own_comes_before_finishing_and_a_circle_is_told(demo: Job) -> None:
    job = edits.own_operation(planned(demo), "Fetch the plate lamp", 2.0)
    _v, build = built(job)
    assert (
        build.levelled.placed["extra:fetch-the-plate-lamp"].finish
        <= build.levelled.placed["job:finish"].start
    )
    bad = job.plan.but(
        own=(Extra(id="x", name="X", after=("job:hand over",), before=("job:weigh",)),)
    )
    verdict, build = built(msgspec.structs.replace(job, plan=bad))
    assert "wait for each other" in build.trouble
    assert [f.code for f in verdict.findings if f.stage == "Build"] == ["build.trouble"]


def test_own_operations_make_a_network_whatever_their_order_and_unknown_ones_are_told(
    demo: Job,
) -> None:
    own = (
        Extra(id="c", name="C", hours=3.0, after=("extra:b",)), Extra(id="a", name="A", hours=2.0),
        Extra(id="b", name="B", hours=1.0, days=2.0, after=("extra:a", "unit:nobody:cut")),
        Extra(id="d", name="D", hours=0.0, days=1.0, after=("extra:a",), before=("extra:c",)),
    )  # fmt: skip
    job = planned(demo)
    verdict, build = built(msgspec.structs.replace(job, plan=job.plan.but(own=own)))
    ops = build.ops
    assert ops["extra:c"].after == ("extra:b:wait", "extra:d")
    assert ops["extra:b"].after == ("extra:a",)
    assert (ops["extra:b"].hours, ops["extra:b:wait"].days, ops["extra:d"].trade) == (1.0, 2.0, "")
    placed, day = build.levelled.placed, build.calendar.day_minutes
    assert placed["extra:b:wait"].finish - placed["extra:b:wait"].start == 2 * day
    assert placed["extra:c"].start >= placed["extra:b:wait"].finish
    # A 2 h, B 1 h, then two days: C cannot begin before hour 19; D leaves 3 h + 2 days - 1 day of room.
    assert build.times["extra:c"].start == 180 + 2 * day
    assert build.times["extra:d"].slack - build.times["extra:c"].slack == 60 + day
    told = [f.title for f in verdict.findings if f.code == "build.unknown"]
    assert told == [
        "'B' is planned before or after 'unit:nobody:cut', which is not there: it stands without that"
    ]


def test_the_vehicle_is_worked_at_while_it_is_there(demo: Job) -> None:
    job = planned(demo, vehicle_from="2027-02-15", vehicle_to="2027-02-17")
    verdict, build = built(job)
    first = build.calendar.minute(date(2027, 2, 15))
    assert all(
        p.start >= first for k, p in build.levelled.placed.items() if build.ops[k].station == "bay"
    )
    assert build.levelled.placed["unit:water:cut"].start < first
    told = [f for f in verdict.findings if f.code == "build.vehicle"]
    assert len(told) == 1
    assert "leaves on Wed 17 February" in told[0].title


def test_late_is_named_with_its_cause(demo: Job) -> None:
    verdict, build = built(planned(demo, due="2027-02-10", vehicle_from="2027-02-01"))
    found = late(build)
    assert found is not None
    assert found.days == pytest.approx((build.levelled.end - build.due) / 480)  # type: ignore[operator]
    title = next(f.title for f in verdict.findings if f.code == "build.late")
    assert "working days late" in title
    # Nothing is ordered, and what is bought takes three weeks: that is the cause.
    assert "is here on Mon 22 February only" in title
    assert found.chain[0][0] == "job:hand over"
    assert late(built(planned(demo, due="2027-06-01"))[1]) is None
    assert why(build, "nothing of the kind") == ()


def test_what_is_to_order_is_told_until_it_is_ordered_and_until_it_is_here(demo: Job) -> None:
    verdict, build = built(planned(demo))
    titles = [f.title for f in verdict.findings if f.code == "build.order"]
    assert any(t.startswith("Metal to order now: ") for t in titles)
    sheet = next(p for p in build.buying if p.key == "sheet:5052-H32:2")
    area = sum(p.area() * p.count for p in works_of(verdict.assembly).parts
               if isinstance(p, SheetPart) and p.thickness == 2 and p.material.key == "5052-H32") / 1e6  # fmt: skip
    assert sheet.much == f"{area:.2f} m² net"
    assert sheet.state == "to order"
    job = planned(demo)
    for p in build.buying:
        job = logged(job, kind="ordered", about=p.key, taken="2027-02-12", at="2027-02-01T09:00:00")
    verdict, ordered = built(job)
    assert not [f for f in verdict.findings if f.code == "build.order"]
    begin = ordered.begins("unit:galley:cut").day
    assert begin >= date(2027, 2, 12)
    # The day is there, the sheet is not.
    verdict, _b = built(logged(job, kind="note", words="a word", at="2027-02-16T09:00:00"))
    missing = [f for f in verdict.findings if f.code == "build.missing"]
    assert len(missing) == 1
    for p in build.buying:
        job = logged(job, kind="received", about=p.key, at="2027-02-16T10:00:00")
    verdict, here = built(job)
    assert {p.state for p in here.buying} == {"here"}
    assert not [f for f in verdict.findings if f.code in ("build.missing", "build.order")]


def test_hours_worked_shorten_what_is_left_and_tune_the_rates(demo: Job) -> None:
    job = planned(demo)
    _v, before = built(job)
    hours = before.hours["canopy:weld"]
    job = logged(job, kind="work", op="canopy:weld", hours=2.0)
    _v, some = built(job)
    assert some.tasks["canopy:weld"].minutes == round((hours - 2) * 60)
    job = logged(job, kind="work", op="canopy:weld", hours=3 * hours - 2, done=True)
    _v, after = built(job)
    assert "canopy:weld" not in after.tasks
    assert after.state.hours["canopy:weld"] == pytest.approx(3 * hours)
    factor = after.rates["weld"].factor
    assert 1 < factor < 3
    # The other welds are expected to take longer by the same, those of other kinds are not.
    assert after.hours["tray:weld"] == pytest.approx(before.hours["tray:weld"] * factor)
    assert after.hours["tray:cut"] == before.hours["tray:cut"]
    assert after.rates["weld"].uncertainty < before.rates["weld"].uncertainty == 0.3


def test_hours_of_a_crew_are_those_of_all_hands_together(demo: Job) -> None:
    key = "canopy:mount"
    job = planned(demo)
    _v, before = built(job)
    hours = before.hours[key]
    assert before.ops[key].crew == 2
    assert before.worth(key) == pytest.approx(2 * hours)
    # Two people for half of it.
    _v, some = built(logged(job, kind="work", op=key, hours=hours))
    assert some.tasks[key].minutes == round(hours / 2 * 60)
    assert some.left == pytest.approx(before.left - hours)
    # It took what the rates say: nothing to learn but that they hold.
    _v, done = built(logged(job, kind="work", op=key, hours=2 * hours, done=True))
    assert done.rates["mount"].factor == pytest.approx(1)
    assert done.rates["mount"].seen == 1
    whole = sum(before.worth(k) for k in before.ops)
    assert done.finished == [key]
    assert done.share == pytest.approx(2 * hours / whole)


def test_rates_are_tuned_as_the_normal_textbook_case_has_it() -> None:
    one = tuned([(1.0, 2.0)] * 4, 0.3)
    precision = 1 / 0.3**2 + 4 / SCATTER**2
    assert one.uncertainty == pytest.approx(precision**-0.5)
    assert one.factor == pytest.approx(2 ** (4 / SCATTER**2 / precision))
    assert tuned([], 0.3).factor == 1
    assert tuned([(0.01, 5.0), (1.0, 0.0)], 0.3).seen == 0


def test_dates_have_uncertainty_and_the_same_seed_gives_the_same(
    begun: tuple[Verdict, Build],
) -> None:
    verdict, build = begun
    shop = verdict.assembly.shop.workshop
    one, two = chances_of(build, shop), chances_of(build, shop)
    assert one is not None
    assert two is not None
    assert one.ready(0.9) == two.ready(0.9) >= one.ready(0.5) > 0
    assert one.by(one.ready(0.9)) >= 0.9
    assert one.by(0) == 0


def test_check_sheets_ask_only_what_the_job_has(begun: tuple[Verdict, Build], demo: Job) -> None:
    verdict, build = begun
    keys = {c.key for c in build.checks}
    assert {
        "gaps:left",
        "hose:left",
        "pressure:water",
        "gas:gas",
        "slope:galley",
        "certified",
        "weighed",
    } <= keys
    assert {f"circuit:{c.id}" for c in verdict.services.circuits} <= keys
    bare = msgspec.structs.replace(
        demo, units=(), carried=(), goods=(), sets=(), runs=(), scenarios=demo.scenarios[:1]
    )
    bare = msgspec.structs.replace(
        bare, scenarios=(bare.scenarios[0].but(left_behind=()),), services=type(demo.services)()
    )
    alone = judge(bare)
    few = {c.key for c in checks_of(alone.context(), works_of(alone.assembly))}
    assert not any(k.startswith(("circuit", "pressure", "gas:", "slope")) for k in few)
    assert "gaps:left" in few


@pytest.mark.parametrize(("rule", "limit", "figures", "result", "words"), [
    ("spread", 2.0, (4.0, 5.5, 4.2, 5.9), "done", "spread 1.9"),
    ("spread", 2.0, (4.0, 6.5, 4.0, 4.0), "failed", "spread 2.5"),
    ("drop", 0.2, (12.8, 12.5), "done", "0.30 lost"), ("drop", 0.2, (12.8, 12.4), "failed", "0.40 lost"),
    ("holds", 0.98, (30.0, 29.5), "done", "98.3 % held"), ("holds", 1.0, (30.0, 29.9), "failed", "99.7 % held"),
    ("holds", 0.98, (0.0, 0.0), "failed", "no pressure"), ("least", 7.5, (7.6,), "done", "7.6 of 7.5"),
    ("least", 7.5, (7.4,), "failed", "7.4 of 7.5"), ("", None, (1.0,), "", ""), ("drop", 0.2, (12.8,), "", ""),
])  # fmt: skip
def test_figures_are_held_against_what_is_expected(
    rule: str, limit: float | None, figures: tuple[float, ...], result: str, words: str
) -> None:
    wants = tuple("abcd"[: max(2, len(figures)) if rule != "least" else 1])
    found = held_against(Check("k", "g", "w", wants, limit=limit, rule=rule), figures)
    assert found[0] == result
    assert words in found[1]


def test_a_failed_check_becomes_a_task_that_handing_over_waits_for(demo: Job) -> None:
    job = logged(
        planned(demo),
        kind="check",
        about="hose:left",
        result="failed",
        words="wet at the lower corner",
    )
    verdict, build = built(job)
    task = build.levelled.placed["rework:hose:left"]
    assert task.finish <= build.levelled.placed["job:hand over"].start
    told = [f for f in verdict.findings if f.code == "build.failed"]
    assert len(told) == 1
    assert "wet at the lower corner" in told[0].title
    job = logged(job, kind="check", about="hose:left", result="done", at="2027-02-04T10:00:00")
    verdict, build = built(job)
    assert "rework:hose:left" not in build.ops
    assert not [f for f in verdict.findings if f.code == "build.failed"]


@pytest.mark.parametrize(
    ("days", "words"),
    [
        (0.1, "1 working day"),
        (1.0, "1 working day"),
        (1.01, "2 working days"),
        (7.0, "7 working days"),
    ],
)
def test_a_day_that_is_begun_is_a_day_late(days: float, words: str) -> None:
    assert in_days(days) == words


def test_what_is_told_of_a_late_job_is_what_is_found(demo: Job) -> None:
    verdict, build = built(planned(demo, due="2027-02-10"))
    names = names_of(verdict.assembly.shop.workshop)
    title = next(f.title for f in verdict.findings if f.code == "build.late")
    assert title == f"Ready on {spoken(build.end)}, {told(build, names)}"
    assert told(built(planned(demo, due="2027-06-01"))[1], names) == ""
