"""Springs by option, struts over the swing, tipping of mounts: behaviour that a workshop knows."""

import math

import msgspec
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from tests.builders import SHOP

from roomy_hull.assembly import springs
from roomy_hull.core.findings import Finding
from roomy_hull.core.uncertainty import RELATIVE_UNCERTAINTY, source_of, uncertainty_of
from roomy_hull.core.units import G
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.canopy import Strut
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.job.vehicle import SPRING_OPTIONS, Springs
from roomy_hull.session.pages.table import facing
from roomy_hull.session.view_state import ViewState
from roomy_hull.studies.strength import members, mounts, struts
from roomy_hull.verdict.verdict import Verdict, judge

VEHICLE = demo_job().vehicle
masses = st.floats(700, 3000)


# Springs


@given(st.sampled_from(SPRING_OPTIONS), masses, masses)
def test_more_load_never_stands_higher(option: str, one: float, other: float) -> None:
    low, high = sorted((one, other))
    a, b = (springs.rear_spring(VEHICLE, option, kg, 10.0) for kg in (low, high))
    assert b.sag >= a.sag - 1e-9
    assert b.pressure >= a.pressure
    assert min(a.rate, b.rate) > 0


@given(masses, st.floats(-20, 60))
def test_forces_of_springs_and_air_hold_the_axle(rear: float, front: float) -> None:
    s = VEHICLE.springs
    found = springs.rear_spring(VEHICLE, "air", rear, front)
    lift = 2 * found.pressure * 1e3 * s.air_area * 1e-4
    assert 2 * s.rear * found.sag + lift == pytest.approx((rear - VEHICLE.kerb.rear) * G, abs=1e-6)
    assert s.air_least <= found.pressure <= s.air_most
    if s.air_least < found.pressure < s.air_most:
        assert found.sag == pytest.approx(front + VEHICLE.level_target)


def test_a_fixed_pressure_is_not_adjusted() -> None:
    fixed = VEHICLE.but(springs=VEHICLE.springs.but(school="air", air_pressure=200.0))
    light, heavy = (springs.stance(fixed, 1400.0, kg) for kg in (1200.0, 1900.0))
    assert light.pressure == heavy.pressure == 200
    assert heavy.tail_low > light.tail_low + 20
    assert springs.level_rates(fixed, 200.0)[1] == pytest.approx(G / (2 * fixed.springs.rear))
    follows = VEHICLE.but(springs=VEHICLE.springs.but(school="air"))
    assert springs.level_rates(follows, 300.0) == (0, 0)
    assert springs.level_rates(follows, follows.springs.air_most)[1] > 0


@given(st.sampled_from(["standard", "constant load", "extra leaf"]), masses, masses)
def test_the_tail_sinks_by_its_rates(option: str, front: float, rear: float) -> None:
    v = VEHICLE.but(springs=VEHICLE.springs.but(school=option))
    a, b = springs.stance(v, front, rear), springs.stance(v, front + 7, rear + 11)
    per_front, per_rear = springs.level_rates(v, 0.0)
    assert b.tail_low - a.tail_low == pytest.approx(7 * per_front + 11 * per_rear)


def test_the_wished_tail_counts() -> None:
    level = springs.stance(VEHICLE, 1300.0, 1500.0)
    raked = springs.stance(VEHICLE.but(level_target=15.0), 1300.0, 1500.0)
    assert raked.tail_low == pytest.approx(level.tail_low - 15)
    air = VEHICLE.but(level_target=15.0, springs=VEHICLE.springs.but(school="air"))
    assert springs.stance(air, 1300.0, 1500.0).tail_low == pytest.approx(0)


def test_a_stiffer_school_bounces_faster_and_loaded_slower() -> None:
    study = springs.compare(VEHICLE, (("empty", 1200.0, 900.0), ("full", 1450.0, 1900.0)))
    for option in SPRING_OPTIONS:
        empty, full = study.row(option, "empty"), study.row(option, "full")
        assert full.rear_hz < empty.rear_hz <= study.kerb_hz[option] * 1.05
        assert empty.rear_hz >= study.row("standard", "empty").rear_hz
        assert set(springs.CAUTIONS) == set(SPRING_OPTIONS)
    assert "one point of the chassis" in springs.CAUTIONS["air"]


def test_air_springs_need_a_range() -> None:
    with pytest.raises(ValueError, match="air_least 700 kPa is not below air_most 700 kPa"):
        Springs(front=100, rear=100, air_least=700, air_most=700)


# Struts


@given(st.floats(150, 600), st.floats(60, 300), st.floats(0, 60), st.floats(1, 99))
def test_a_struts_moment_is_its_work(body: float, leaf: float, inset: float, angle: float) -> None:
    assume(body > leaf + 20)
    strut = Strut(force=300.0, body=body, leaf=leaf, inset=inset, growth=0.0, count=1)
    step = 1e-3
    longer = struts.strut_length(strut, angle + step) - struts.strut_length(strut, angle - step)
    work = 300.0 * longer / math.radians(2 * step)
    assert struts.strut_moment(strut, angle, 100.0) == pytest.approx(work, rel=1e-4, abs=1)


def test_cold_and_growth_change_the_force_as_gas_does() -> None:
    strut = Strut(force=400.0, body=490.0, leaf=150.0, growth=0.25)
    warm, cold = (struts.strut_moment(strut, 60.0, 100.0, cold=c) for c in (None, SHOP.rules.cold))
    assert cold / warm == pytest.approx((SHOP.rules.cold + 273.15) / 293.15)
    plain = strut.but(growth=0.0)
    closed = [struts.strut_moment(s, 1e-9, 100.0) for s in (strut, plain)]
    assert closed[0] / closed[1] == pytest.approx(1.25, rel=1e-6)
    opened = [struts.strut_moment(s, 100.0, 100.0) for s in (strut, plain)]
    assert opened[0] == pytest.approx(opened[1])


def test_only_doors_that_hang_from_their_top_have_struts(demo: Job) -> None:
    canopy = demo.body.canopy
    assert canopy is not None
    turned = tuple(d.but(hinge="start", strut=None) if d.id == "rear" else d for d in canopy.doors)
    job = msgspec.structs.replace(demo, body=demo.body.but(canopy=canopy.but(doors=turned)))
    carrying = judge(job).carrying
    assert carrying is not None
    assert [s.door for s in carrying.struts] == ["left", "right"]
    with pytest.raises(ValueError, match="beyond the leaf"):
        canopy.doors[0].but(strut=Strut(force=100.0, body=300.0, leaf=1200.0))


# Mounts and members


@given(st.floats(50, 900), st.floats(80, 900), st.floats(5, 40))
def test_a_low_box_does_not_tip_and_a_higher_one_tips_more(
    height: float, base: float, inset: float
) -> None:
    low, _ = mounts.tipping(0.8 * 1000, height, 1000, base / 2, base, inset)
    high, row = mounts.tipping(0.8 * 1000, height * 2, 1000, base / 2, base, inset)
    assert high >= low >= 0
    assert (low > 0) == (0.8 * height > base / 2)
    assert row * base >= high * (1 - 1e-9)  # the lever is less than the base


def test_more_or_larger_bolts_are_used_less(demo: Job) -> None:
    def use(**changes: object) -> float:
        carrying = judge(edits.changed(demo, "sample-fridge", **changes)).carrying
        assert carrying is not None
        return next(c for c in carrying.mounts if c.id == "sample-fridge").worst().use

    assert use(bolts=8) < use(bolts=4) < use(bolts=2)
    assert use(bolt="M12") < use(bolt="M8") < use(bolt="M6")


def test_a_drop_slide_and_a_plain_one_reach_out(demo_verdict: Verdict) -> None:
    assert demo_verdict.carrying is not None
    fridge = next(c for c in demo_verdict.carrying.mounts if c.id == "sample-fridge")
    assert fridge.slide is not None
    assert fridge.slide.overhang > 300
    assert fridge.slide.moment > 0
    still = {c.id for c in demo_verdict.carrying.mounts if c.slide is None}
    assert {"water", "battery", "spare", "field-lab"} <= still


@given(st.floats(100, 800), st.floats(200, 1500), st.integers(0, 6))
def test_water_presses_more_where_it_is_high_or_runs_far(
    height: float, length: float, baffles: int
) -> None:
    moving, rest = members.head(height, length, baffles, SHOP.rules)
    assert rest == pytest.approx(1e-6 * G * height / 2)
    assert moving > rest
    assert members.head(height, length, baffles + 1, SHOP.rules)[0] < moving
    assert members.head(height * 1.1, length, baffles, SHOP.rules)[0] > moving


def test_the_bodys_own_members_grow_with_what_stands_on_them(demo: Job) -> None:
    def cross(job: Job) -> float:
        carrying = judge(job).carrying
        assert carrying is not None
        return next(c for c in carrying.members[""] if c.what == "cross-member").stress

    assert cross(edits.changed(demo, "tools", contents=400.0)) > cross(demo) * 1.2
    tray = demo.body.tray
    wide = msgspec.structs.replace(demo, body=demo.body.but(tray=tray.but(cross="80x50x3")))
    assert cross(wide) < cross(demo)
    named = {c.what for c in judge(demo).carrying.members[""]}
    assert named == {"floor between cross-members", "cross-member", "roof bow"}


# Words


@pytest.mark.parametrize("source", list(RELATIVE_UNCERTAINTY))
def test_a_uncertainty_tells_its_source(source: str) -> None:
    assert source_of(37.5, uncertainty_of(37.5, source)) == source
    assert source_of(0.0, 0.0) == "estimate"


@pytest.mark.parametrize(
    ("code", "page", "row"),
    [("loads.level", "Springs", None), ("loads.chassis", "Chassis", None), ("loads.strut_falls", "Strength", None),
     ("loads.rear", "Board", "rear"), ("loads.combination", "Board", "combination"), ("loads.scales", "Sheet", None),
     ("loads.wheel", "Board", None), ("loads.sides", "Levers", None)],
)  # fmt: skip
def test_findings_know_their_page(
    code: str, page: str, row: str | None, demo_verdict: Verdict
) -> None:
    finding = Finding(code, "look", "")
    found = facing(finding, demo_verdict.assembly, ViewState(pages={"Fit-out": "Solid"}))
    assert found["pages"] == {"Fit-out": "Solid", "Loads": page}
    assert found.get("loads") == ({"row": row} if row else None)
