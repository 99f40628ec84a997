"""Layouts in figures, and what an exchange of sides would do."""

import msgspec
import pytest

from roomy_hull.core.errors import EditError
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.edits import layouts
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds.registry import kind_of
from roomy_hull.verdict.compare import columns, other_side
from roomy_hull.verdict.verdict import Verdict, judge


def test_each_variant_is_judged_like_a_job_of_its_own(demo: Job) -> None:
    job = edits.removed(layouts.kept(demo, "Without fridge"), "sample-fridge")
    verdict, known = judge(job), {}  # type: ignore[var-annotated]
    mine, kept = columns(verdict, "full", known)
    alone = judge(demo)
    assert kept.gross[0] == pytest.approx(alone.loads.scenario("full").gross.value)
    assert kept.litres - mine.litres == pytest.approx(60)
    assert kept.units == mine.units + 1
    assert kept.stops == alone.count("stop")
    # An edit of the layout in hand does not judge the others anew.
    before = known["a"]
    columns(judge(edits.changed(job, "tools", u=500.0), verdict), "full", known)
    assert known["a"] is before
    columns(judge(edits.changed(job, "tools", u=500.0), verdict), "dry", known)
    assert known["a"] is before


def test_both_sides_exchanged_turn_the_balance_round(demo_verdict: Verdict) -> None:
    found = other_side(demo_verdict, (), "full")
    loads = demo_verdict.loads.scenario("full")
    units = sum(
        m.kg * m.y for t in demo_verdict.assembly.things if t.place is not None for m in t.masses
    )
    assert found.works == (not any(f.severity == "stop" for f in found.new))
    # What the units pulled to one side they pull to the other.
    there = judge(found.job)
    after = sum(m.kg * m.y for t in there.assembly.things if t.place is not None and t.place.bay.side != "rear"
                for m in t.masses)  # fmt: skip
    before = sum(m.kg * m.y for t in demo_verdict.assembly.things if t.place is not None and t.place.bay.side != "rear"
                 for m in t.masses)  # fmt: skip
    assert after == pytest.approx(-before, abs=abs(units) * 0.02 + 2500)
    assert found.balance == pytest.approx(
        there.loads.scenario("full").right.value - there.loads.scenario("full").left.value
    )
    assert found.balance != pytest.approx(loads.right.value - loads.left.value)


def test_one_unit_on_the_other_side_meets_what_is_there(demo_verdict: Verdict) -> None:
    found = other_side(demo_verdict, ("sample-fridge",), "full")
    assert not found.works
    assert {f.code for f in found.new} >= {"fit.overlap"}
    assert found.gone == ()


def test_what_has_no_other_side_says_so() -> None:
    wagon = demo_job("tarn")
    canopy = wagon.body.canopy
    assert canopy is not None
    one_sided = msgspec.structs.replace(canopy, bays=(canopy.bays[0].but(side="left"),))
    body = msgspec.structs.replace(wagon.body, canopy=one_sided)
    job = msgspec.structs.replace(wagon, body=body, units=wagon.units[:1], sets=(), runs=())
    verdict = judge(job)
    with pytest.raises(EditError, match="no counterpart"):
        other_side(verdict, (job.units[0].id,), "full")


def test_room_for_goods_is_less_than_the_outside(demo: Job) -> None:
    for unit in demo.units:
        litres = kind_of(unit).stored(unit)
        assert 0 <= litres < unit.width * unit.depth * unit.height * 1e-6
    # A drawer of 497 × 820 × 260 on 19 mm slides, inside its sheets.
    tools = next(u for u in demo.units if u.id == "tools")
    assert kind_of(tools).stored(tools) == pytest.approx(
        (455 - 3.2) * (792 - 3.2) * (230 - 1.6) * 1e-6, rel=1e-6
    )
