import json
from typing import Any

import msgspec
import pytest

from roomy_hull.core.findings import Finding
from roomy_hull.formats.jobfile import dumps, loads
from roomy_hull.job.edits import layouts
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Acceptance, Job
from roomy_hull.planning.plan import build_of
from roomy_hull.verdict.acceptance import with_figures, worse_than
from roomy_hull.verdict.verdict import Verdict, judge


def test_the_weightiest_findings_come_first(demo: Job) -> None:
    job = edits.changed(demo, "sample-fridge", u=80.0)
    weights = [f.severity for f in judge(job).findings]
    assert weights == sorted(weights, key=["stop", "look", "note"].index)
    assert {"stop", "look"} <= set(weights)


def test_the_demo_has_four_looks_and_no_stop(demo_verdict: Verdict) -> None:
    assert demo_verdict.count("stop") == 0
    assert [f.title for f in demo_verdict.findings if f.severity == "look"] == [
        "Tool drawer: its slides are short of strength on rough roads",
        "Worst rear: tail low; compare springs on the page Springs",
        "Lifting Light punt, 38 kg, is a strain for most: have two lift it, or keep it lower and nearer",
        "Lifting Recovery boards, 8 kg, is a strain for most: have two lift it, or keep it lower and nearer",
    ]
    assert demo_verdict.count("look", "Fit-out") == 1
    assert demo_verdict.count("look", "Loads") == 1


def test_a_look_can_be_accepted_and_a_stop_cannot(demo: Job) -> None:
    job = edits.changed(demo, "sample-fridge", u=80.0)
    for finding in judge(job).findings:
        job = edits.accepted(
            job,
            Acceptance(code=finding.code, subjects=finding.words, scenario=finding.scenario,
                       reason="known", initials="KB"),
        )  # fmt: skip
    verdict = judge(job)
    assert all(f.accepted == "known (KB)" for f in verdict.findings if f.severity == "look")
    assert all(not f.accepted for f in verdict.findings if f.severity == "stop")
    assert verdict.count("look") == 0
    assert verdict.count("stop") == 4


def test_an_acceptance_of_something_else_is_none(demo: Job) -> None:
    record = Acceptance(code="loads.slide", subjects=("camp",), reason="r", initials="i")
    assert judge(edits.accepted(demo, record)).count("look") == judge(demo).count("look")


def test_unknown_fields_are_noted(demo: Job) -> None:
    raw = json.loads(dumps(demo))
    raw["units"][0]["felt"] = "grey"
    raw["later"] = 1
    found = judge(loads(json.dumps(raw).encode())).findings
    notes = [f for f in found if f.code == "file.unknown"]
    assert len(notes) == 2
    assert all(f.severity == "note" for f in notes)
    assert any("felt" in f.title for f in notes)


def test_a_scenario_that_leaves_behind_what_there_is_not_is_looked_at(demo: Job) -> None:
    def found(job: Job) -> list[tuple[str, str]]:
        return [(f.title, f.scenario) for f in judge(job).findings if f.code == "file.absent"]

    assert not found(demo)
    one = demo.scenarios[0]
    slip = msgspec.structs.replace(
        demo, scenarios=(one.but(left_behind=("punt", "pnut")), *demo.scenarios[1:])
    )
    ((title, scenario),) = found(slip)
    assert "'pnut'" in title
    assert "left_behind" in title
    assert scenario == one.id
    # What a kept layout has may be named: the scenario serves both.
    kept = edits.removed(layouts.kept(demo, "With punt"), "punt")
    named = (one.but(left_behind=("punt",)), *demo.scenarios[1:])
    assert not found(msgspec.structs.replace(kept, scenarios=named))


def test_a_judgement_equals_only_itself(demo: Job, demo_verdict: Verdict) -> None:
    # Views keep what they drew by the verdict: two of one job hold arrays, that have no one truth.
    again = judge(demo)
    assert again != demo_verdict
    assert (again, 1) != (demo_verdict, 1)
    assert len({again, demo_verdict, again}) == 2
    assert build_of(again.context()) != build_of(again.context())


def look_of(verdict: Verdict, code: str) -> Finding:
    return next(f for f in verdict.findings if f.code == code and f.severity == "look")


def accepting(job: Job, finding: Finding, **more: Any) -> Job:
    record = Acceptance(code=finding.code, subjects=finding.words, scenario=finding.scenario, reason="known", initials="KB",
                        day="2026-03-01", measured=finding.measured, limit=finding.limit, unit=finding.unit)  # fmt: skip
    return edits.accepted(job, msgspec.structs.replace(record, **more))


def test_an_accepted_look_opens_again_when_it_is_worse(demo: Job, demo_verdict: Verdict) -> None:
    slide = look_of(demo_verdict, "loads.slide")
    assert slide.measured is not None
    job = accepting(demo, slide)
    kept = look_of(judge(job), "loads.slide")
    assert (
        kept.accepted
        == f"known (KB, 2026-03-01, at {slide.measured:,.1f} of {slide.limit:,.1f} kg)"
    )
    tools = next(u for u in job.units if u.id == slide.subjects[0].id)
    contents = tools.contents
    lighter = look_of(judge(edits.changed(job, tools.id, contents=contents - 0.5)), "loads.slide")
    assert lighter.accepted
    heavier = look_of(judge(edits.changed(job, tools.id, contents=contents + 0.5)), "loads.slide")
    assert not heavier.accepted
    assert "known (KB, 2026-03-01" in heavier.reopened
    assert f"{heavier.measured:,.1f} kg by now" in heavier.reopened
    # Accepted anew it is so again, and what was said before can still be read.
    again = accepting(edits.changed(job, tools.id, contents=contents + 0.5), heavier, reason="seen")
    assert look_of(judge(again), "loads.slide").accepted.startswith("seen")
    assert [a.reason for a in again.accepted] == ["known", "seen"]


@pytest.mark.parametrize(
    ("uncertainty", "rising", "limit", "now", "open_again"),
    [
        (0.0, None, 100.0, 110.04, False), (0.0, None, 100.0, 110.2, True), (0.0, None, 100.0, 105.0, False),
        (5.0, True, 120.0, 114.0, False), (5.0, True, 120.0, 116.0, True), (5.0, True, 120.0, 90.0, False),
        (0.0, None, 120.0, 111.0, False), (0.0, None, 120.0, 109.0, True),  # below its limit: less is worse
        (0.0, None, 101.0, 110.0, "limit"), (0.0, None, None, 111.0, "otherwise"),
    ],
)  # fmt: skip
def test_what_is_worse_is_worse_by_more_than_its_uncertainty(
    uncertainty: float, rising: bool | None, limit: float | None, now: float, open_again: bool | str
) -> None:
    was = 100.0 if open_again == "limit" else 120.0 if limit in (120.0, None) else limit
    record = Acceptance(
        code="c", reason="r", initials="i", day="2026-01-01", measured=110.0, limit=was, unit="kg"
    )
    finding = Finding(
        "c",
        "look",
        "t",
        measured=now,
        limit=limit,
        unit="kg",
        uncertainty=uncertainty,
        rising=rising,
    )
    words = worse_than(record, finding)
    assert bool(words) is bool(open_again)
    if isinstance(open_again, str):
        assert open_again in words


def test_an_acceptance_of_an_older_file_opens_at_the_next_other_figure(
    demo: Job, demo_verdict: Verdict
) -> None:
    slide = look_of(demo_verdict, "loads.slide")
    old = accepting(demo, slide, day="", measured=None, limit=None, unit="")
    verdict = judge(old)
    assert look_of(verdict, "loads.slide").accepted == "known (KB)"
    moved = edits.changed(old, "tools", contents=old.thing("tools").contents - 1.0)  # type: ignore[union-attr]
    job = with_figures(verdict.findings, moved)
    assert job.accepted[0].measured == slide.measured
    assert look_of(judge(job), "loads.slide").reopened
    assert with_figures(verdict.findings, job) is job
