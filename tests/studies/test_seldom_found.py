"""Findings that few jobs have: each is raised by what it says, and not raised without."""

import msgspec
import pytest
from tests.builders import codes, context, with_canopy

from jobs import any_job
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.refs import Ref
from roomy_hull.job.model import Job
from roomy_hull.studies.access import at_home
from roomy_hull.studies.access.off_on import OffOn
from roomy_hull.studies.fit import bodies
from roomy_hull.studies.strength import judge as strength
from roomy_hull.studies.strength.racks import RackCheck
from roomy_hull.verdict.verdict import Verdict, judge


@pytest.fixture(scope="module")
def chanced() -> Verdict:
    """A job by chance with goods, people and a bench."""
    return judge(any_job(31))


def test_a_canopy_wider_than_its_tray_stands_past_its_edges(demo: Job) -> None:
    wide = demo.body.tray.width
    for by, told in ((40.0, True), (0.0, False)):
        found = judge(with_canopy(demo, width=wide + by)).findings
        assert ("outline.edge" in {f.code for f in found}) is told


def test_batteries_are_not_charged_in_the_heat(demo: Job) -> None:
    batteries = demo.services.batteries
    for hottest, told in ((20.0, True), (60.0, False)):
        cells = tuple(b.but(hottest=hottest) for b in batteries)
        days = tuple(d.but(warm=40.0) for d in demo.services.trip.days)
        services = demo.services.but(batteries=cells, trip=demo.services.trip.but(days=days))
        found = judge(msgspec.structs.replace(demo, services=services)).findings
        assert ("services.hot" in {f.code for f in found}) is told


def test_what_stands_in_the_way_of_serving_is_named() -> None:
    job = any_job(22)
    (one,) = [f for f in judge(job).findings if f.code == "fit.service"]
    owner, other = one.things
    assert owner != other
    assert one.measured is not None
    assert one.limit is not None
    assert one.measured < one.limit
    without = msgspec.structs.replace(
        job, carried=tuple(c for c in job.carried if c.id not in one.things)
    )
    assert "fit.service" not in codes(judge(without), "fit")


def test_recovery_gear_in_the_canopy_stays_behind_with_it(chanced: Verdict) -> None:
    (told,) = [f for f in chanced.findings if f.code == "access.recovery_off"]
    goods = tuple(
        g.but(nature=tuple(n for n in g.nature if n != "recovery")) for g in chanced.job.goods
    )
    assert any(g.name in told.title for g in chanced.job.goods if "recovery" in g.nature)
    assert not codes(
        judge(msgspec.structs.replace(chanced.job, goods=goods)), "access.recovery_off"
    )


def test_nobody_reaches_or_sees_what_is_told_out_of_reach_or_sight(chanced: Verdict) -> None:
    seen = {s.owner: row for s, row in zip(chanced.access.spaces, chanced.access.seen, strict=True)}
    far = [f for f in chanced.findings if f.code == "access.out_of_reach"]
    dark = [f for f in judge(any_job(51)).findings if f.code == "access.sight"]
    assert far
    assert dark
    for finding in far:
        (thing,) = finding.things
        assert all(s.how == "not at all" for s in seen[thing])
        assert finding.measured is None or finding.measured > 0
    assert all(
        f.measured is not None and f.limit is not None and f.measured < f.limit for f in dark
    )


def test_there_is_no_way_to_what_is_told_so(chanced: Verdict) -> None:
    assert codes(chanced, "access.way")
    assert any(not m.possible for m in chanced.access.moves)


def test_a_worktop_is_too_high_for_the_short_alone(chanced: Verdict) -> None:
    def told(stature: float) -> int:
        party = chanced.job.party
        people = tuple(p.but(stature=stature) for p in party.people)
        job = msgspec.structs.replace(chanced.job, party=party.but(people=people))
        return sum(
            "higher than" in f.title for f in judge(job).findings if f.code == "access.worktop"
        )

    assert told(1500.0) > 0
    assert told(2100.0) == 0


@pytest.mark.parametrize(
    ("tips", "leg", "told"), [(7.0, 60.0, True), (9.0, 60.0, False), (9.0, -1.0, True)]
)
def test_a_canopy_tips_on_its_legs(
    demo: Job, demo_verdict: Verdict, tips: float, leg: float, *, told: bool
) -> None:
    job = with_canopy(demo, jacks=True)
    assembly = msgspec.structs.replace(demo_verdict.assembly, job=job)
    off = OffOn(200.0, 300.0, (0.0, 0.0, 0.0), (("front left", leg),), tips, 900.0, 50.0, 100.0, ())
    assert ("access.tips" in {f.code for f in at_home.off_found(assembly, off)}) is told


def test_a_bay_that_stands_out_of_the_cab_is_told(demo_verdict: Verdict) -> None:
    out = ((Ref("bay", "x"), "Bench of Cab", 35.0, Box(0, 0, 0, 1, 1, 1)),)
    judged = context(demo_verdict.assembly, **{bodies.KEY: bodies.Bodies((), (), (), (), out)})
    (found,) = [f for f in bodies.judge(judged) if f.code == "body.cab_bay"]
    assert found.measured == 35.0
    assert found.severity == "look"
    assert "35 mm" in found.title


def test_what_holds_but_sags_is_a_look(demo_verdict: Verdict) -> None:
    rules, checks = demo_verdict.assembly.shop.rules, demo_verdict.carrying.members["water"]
    one = msgspec.structs.replace(
        checks[0], stress=0.5 * checks[0].allowed, sag=4.0, allowed_sag=3.0
    )
    (found,) = strength._member(one, rules)
    assert (found.code, found.measured, found.limit) == ("loads.sag", 4.0, 3.0)
    assert not strength._member(msgspec.structs.replace(one, sag=2.9), rules)


def test_a_rack_whose_frame_cannot_be_solved_says_so(demo_verdict: Verdict) -> None:
    rules = demo_verdict.assembly.shop.rules
    rack = RackCheck(
        Ref("body part", "rack"),
        "Rack",
        "frame",
        80.0,
        80.0,
        100.0,
        200.0,
        (),
        100.0,
        0.0,
        0.0,
        0.0,
        900.0,
        0.5,
    )
    lost = strength._rack(msgspec.structs.replace(rack, trouble="a foot stands on nothing"), rules)
    assert [f.code for f in lost] == ["loads.rack_frame"]
    assert lost[0].figures == ()
    assert not strength._rack(rack, rules)
