import math

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.geometry.solids import hull
from roomy_hull.job.body import Body, Trundle, UnderBox, UnderTank
from roomy_hull.job.canopy import Canopy
from roomy_hull.job.edits import units as edits
from roomy_hull.job.edits.resizing import resized, set_at, value_at
from roomy_hull.job.model import Job
from roomy_hull.job.rooms import Room
from roomy_hull.studies.outline.outline import tangent_angle
from roomy_hull.verdict.verdict import Verdict, fixes, judge


def codes(verdict: Verdict) -> dict[str, str]:
    return {
        f.code: f.severity for f in verdict.findings if f.code.startswith(("outline", "survey"))
    }


@given(st.floats(300, 2000), st.floats(50, 900))
def test_the_tangent_touches_the_tyre_and_passes_the_point(distance: float, height: float) -> None:
    radius = 390.0
    if math.hypot(distance, height - radius) <= radius + 1:
        return
    slope = math.radians(tangent_angle(distance, height, radius))
    # Distance of the tyre's centre (0, R) from the line through (d, h) with that slope is R.
    gap = abs(math.sin(slope) * (0 - distance) - math.cos(slope) * (radius - height))
    assert gap == pytest.approx(radius, rel=1e-6)


def test_known_angles() -> None:
    assert tangent_angle(1000, 0, 390) == pytest.approx(0, abs=1e-9)
    # A point as high as the wheel's centre: sin = R/d.
    assert tangent_angle(780, 390, 390) == pytest.approx(30)
    assert tangent_angle(100, 390, 390) == 90


def test_the_demo_has_no_outline_findings(demo_verdict: Verdict) -> None:
    assert codes(demo_verdict) == {}
    found = demo_verdict.outline
    assert found.overhang_limit == pytest.approx(0.6 * 3240)
    assert found.width == 2 * 1050  # the awning hangs furthest out
    assert found.angles[0].departs_at == "tow bar"
    # Loaded, the tail sinks and the angle shrinks.
    assert found.angles[2].departure < found.angles[0].departure


@pytest.mark.parametrize(
    ("path", "value", "code"),
    [
        ("body.tray.length", 3900.0, "outline.overhang"),
        ("body.tray.width", 2600.0, "outline.width"),
        ("body.canopy.height", 3600.0, "outline.height"),
        ("body.tray.gap", 40.0, "outline.cab"),
        ("vehicle.ratings.signed", "", "survey.certificate"),
        ("vehicle.ratings.front_axle", 900.0, "survey.axles"),
        ("vehicle.low.rear", 60.0, "outline.departure"),
    ],
)
def test_each_limit_is_found(demo: Job, path: str, value: object, code: str) -> None:
    assert code in codes(judge(resized(demo, path, value)))


@pytest.mark.parametrize(
    ("change", "code", "amount"),
    [
        ({"start": 1800.0}, "outline.tail", 300.0), ({"across": 200.0}, "outline.edge", 150.0),
        ({"across": -200.0}, "outline.edge", 150.0), ({"up": 40.0}, "outline.floats", 40.0),
    ],
)  # fmt: skip
def test_a_box_stands_on_its_tray_or_is_brought_back(
    demo: Job, change: dict[str, float], code: str, amount: float
) -> None:
    # A box of 600 by 1,750 on a tray of 2,100 by 1,850.
    shell = Canopy(name="Cross box", length=600.0, width=1750.0, height=700.0)
    room = Room(id="cross", start=300.0, shell=shell)
    tray = demo.body.tray.but(length=2100.0)

    def with_room(one: Room) -> Job:
        return msgspec.structs.replace(
            demo, units=(), sets=(), runs=(), setups=(), body=Body(tray=tray, rooms=(one,))
        )

    own = {"outline.tail", "outline.edge", "outline.floats"}
    assert not codes(judge(with_room(room))).keys() & own
    verdict = judge(with_room(room.but(**change)))
    (finding,) = [f for f in verdict.findings if f.code in own]
    assert (finding.code, finding.severity, finding.measured) == (
        code,
        "stop",
        pytest.approx(amount),
    )
    ((path, value),) = fixes(verdict, finding)[0].changes.items()
    assert not codes(judge(resized(with_room(room.but(**change)), path, value))).keys() & own


def test_what_stands_far_out_of_the_cabs_outline_is_a_look(demo: Job) -> None:
    cab = demo.vehicle.shape
    wide = judge(resized(demo, "body.tray.width", cab.width + 2 * 80.0))
    assert [f.measured for f in wide.findings if f.code == "outline.proud"] == [pytest.approx(80.0)]
    assert "outline.proud" not in codes(
        judge(resized(demo, "body.tray.width", cab.width + 2 * 70.0))
    )
    floor = wide.assembly.ground.floor.z1
    tall = judge(resized(demo, "body.canopy.height", cab.height + 450.0 - floor))
    (finding,) = [f for f in tall.findings if f.code == "outline.proud"]
    assert finding.measured == pytest.approx(450.0)
    assert "higher than the cab" in finding.title


def test_a_canopy_past_the_tray_is_a_stop_with_a_fix(demo: Job) -> None:
    job = set_at(demo, "body.canopy.length", 2100.0)
    verdict = judge(job)
    finding = next(f for f in verdict.findings if f.code == "outline.tail")
    assert finding.measured == pytest.approx(60)
    path, value = next(iter(fixes(verdict, finding)[0].changes.items()))
    assert "outline.tail" not in codes(judge(resized(job, path, value)))


@pytest.mark.parametrize(
    ("bay", "size", "by"),
    [("L", "length", 500.0), ("R", "depth", 1000.0), ("B", "depth", 3000.0), ("L", "height", 90.0)],
)
def test_a_bay_that_reaches_out_of_its_canopy_is_a_stop_with_a_fix(
    demo: Job, bay: str, size: str, by: float
) -> None:
    path = f"body.canopy.bays.{bay}.{size}"
    verdict = judge(set_at(demo, path, value_at(demo, path) + by))
    finding = next(f for f in verdict.findings if f.code == "outline.bay")
    assert finding.words == (bay,)
    assert 0 < (finding.measured or 0) <= by
    assert size in finding.title
    job = verdict.job
    for where, value in fixes(verdict, finding)[0].changes.items():
        job = resized(job, where, value)
    assert "outline.bay" not in codes(judge(job))
    inside = verdict.assembly.ground.inside
    place = judge(job).assembly.ground.bays[bay]
    assert inside is not None
    assert hull([inside, place.frame.box(place.size)]) == pytest.approx(tuple(inside))


@pytest.mark.parametrize("code", ["outline.cab", "outline.overhang"])
def test_fixes_of_the_body_mend(demo: Job, code: str) -> None:
    job = resized(demo, "body.tray.gap", 40.0)
    job = resized(job, "body.tray.length", 3950.0)
    verdict = judge(job)
    finding = next(f for f in verdict.findings if f.code == code)
    for path, value in fixes(verdict, finding)[0].changes.items():
        job = resized(job, path, value)
    assert code not in codes(judge(job))


def test_without_a_rule_there_is_no_limit(demo: Job) -> None:
    job = resized(resized(demo, "body.tray.length", 3900.0), "body.rule", "none")
    assert "outline.overhang" not in codes(judge(job))
    assert judge(job).outline.overhang_limit == 0


def under(demo: Job, **changes: object) -> Job:
    return msgspec.structs.replace(
        demo,
        body=msgspec.structs.replace(
            demo.body, tray=msgspec.structs.replace(demo.body.tray, **changes)
        ),
    )


def test_boxes_under_the_tray_keep_clear_of_wheel_tank_and_each_other(demo: Job) -> None:
    good = UnderBox(id="l", side="left", place="behind", gap=10, length=40, height=300, depth=400)
    assert judge(under(demo, boxes=(good,))).outline.conflicts == ()
    long = msgspec.structs.replace(good, length=400)
    found = judge(under(demo, boxes=(long,)))
    assert ("box l", "left rear wheel") in {(c.name, c.other) for c in found.outline.conflicts}
    assert codes(found)["outline.under"] == "stop"
    ahead = UnderBox(id="a", side="left", place="ahead", gap=0, length=700, height=300, depth=500)
    assert "fuel tank" in {c.other for c in judge(under(demo, boxes=(ahead,))).outline.conflicts}


def test_a_trundle_drawer_is_stopped_by_axle_and_rails(demo: Job) -> None:
    short = Trundle(length=350, width=600, height=200)
    assert judge(under(demo, trundle=short)).outline.conflicts == ()
    deep = Trundle(length=1500, width=600, height=420)
    assert "rear axle" in {c.other for c in judge(under(demo, trundle=deep)).outline.conflicts}
    wide = Trundle(length=350, width=900, height=300)
    assert {"left chassis rail", "right chassis rail"} <= {
        c.other for c in judge(under(demo, trundle=wide)).outline.conflicts
    }


def test_what_hangs_under_the_tray_is_made_and_weighed(demo: Job) -> None:
    plain = judge(demo)
    tank = UnderTank(start=600, length=600, width=500, height=250)
    box = UnderBox(
        id="l", side="left", place="behind", length=300, height=300, depth=400, contents=20
    )
    full = judge(
        under(
            demo,
            tank=tank,
            boxes=(box,),
            trundle=Trundle(length=350, width=600, height=200, contents=30),
        )
    )
    names = {p.name for p in full.assembly.parts()}
    assert {"Under-tray tank: shell", "Toolbox l: body", "Trundle drawer: box"} <= names
    extra = full.loads.scenario("full").gross.value - plain.loads.scenario("full").gross.value
    water = 0.6 * 0.5 * 0.25 * 1000 * 0.97
    assert water + 50 < extra < water + 50 + 60


def test_the_roof_line_names_the_leg_and_the_step_left(demo: Job) -> None:
    found = judge(resized(demo, "body.canopy.height", 1190.0)).outline
    assert found.rack_leg == 150
    names = {s.name: s.z for s in found.roof}
    assert names["canopy roof"] == 954 + 1190
    assert found.rack_step == pytest.approx(max(2025, 2144, 1819) - 1819)
    level = resized(demo, "body.canopy.height", 1071.0)
    level = resized(level, "body.tray.headboard", 1071.0)
    assert judge(level).outline.rack_step == pytest.approx(0, abs=1)


def test_a_low_carrier_sets_the_departure_angle(demo: Job) -> None:
    assert (
        judge(edits.changed(demo, "spare", z=300.0)).outline.angles[0].departs_at == "Spare wheel"
    )
