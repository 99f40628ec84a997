import json

import msgspec

from roomy_hull.formats.jobfile import dumps, loads
from roomy_hull.job.edits import layouts
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Acceptance, Job
from roomy_hull.planning.plan import build_of
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
    assert build_of(again.case()) != build_of(again.case())
