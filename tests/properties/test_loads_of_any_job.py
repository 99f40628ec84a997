"""Properties of the loads: equilibrium, superposition, mirrored jobs, doubts never negative."""

import math

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.units import G
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.edits import layouts
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job, Scenario
from roomy_hull.job.vehicle import SPRING_OPTIONS
from roomy_hull.studies.loads import axles, board
from roomy_hull.verdict.verdict import judge

DEMO = demo_job()
PLAIN = judge(DEMO)
fills = st.floats(0, 1)


@st.composite
def scenarios(draw: st.DrawFn) -> Scenario:
    trailer = draw(st.floats(0, 3500))
    return Scenario(
        id="any", name="Any", people=tuple(draw(st.lists(st.floats(0, 140), max_size=4))), fuel=draw(fills),
        water=draw(fills), contents=draw(fills), canopy=draw(st.booleans()),
        left_behind=tuple(draw(st.sets(st.sampled_from([u.id for u in DEMO.units] + ["punt", "spare"]), max_size=5))),
        trailer=trailer, ball=draw(st.floats(0, 1)) * trailer * 0.15,
    )  # fmt: skip


def one(scenario: Scenario) -> axles.ScenarioLoads:
    return axles.weigh(DEMO, scenario, PLAIN.loads.totals, PLAIN.loads.readings)


def with_scenario(scenario: Scenario) -> Job:
    return msgspec.structs.replace(DEMO, scenarios=(scenario,))


@given(scenarios())
def test_forces_and_moments_balance_in_every_scenario(scenario: Scenario) -> None:
    job = with_scenario(scenario)
    v = judge(job)
    s = v.loads.scenario("any")
    kg = moment = lean = 0.0
    for m in v.assembly.masses():
        f = axles.factor(scenario, axles.Share(m.owner, m.fill, m.mount, (), ()))
        kg, moment, lean = kg + f * m.kg, moment + f * m.kg * m.x, lean + f * m.kg * m.y
    base = job.vehicle.wheelbase
    assert s.front.value + s.rear.value == pytest.approx(kg)
    assert s.rear.value * base == pytest.approx(moment, rel=1e-9, abs=1e-3)
    half_front, half_rear = job.vehicle.track_front / 2, job.vehicle.track_rear / 2
    fl, fr, rl, rr = (w.value for w in s.wheels)
    assert (fr - fl) * half_front + (rr - rl) * half_rear == pytest.approx(lean, rel=1e-9, abs=1e-3)
    assert v.carrying is not None
    d = v.carrying.chassis.diagram("any")
    assert d.moment[-1] == pytest.approx(0, abs=1e-6)
    assert d.shear[-1] == pytest.approx(0, abs=1e-6)
    sprung = s.gross.value - job.vehicle.springs.unsprung_front - job.vehicle.springs.unsprung_rear
    assert sum(p.newton for p in d.pushes) == pytest.approx(sprung * G)


@given(scenarios())
def test_uncertainties_are_never_negative_and_every_figure_is_a_figure(scenario: Scenario) -> None:
    s = one(scenario)
    for key, _ in board.ROWS:
        figure = board.cell(s, key)
        if figure is not None:
            assert math.isfinite(figure.value)
            assert figure.uncertainty >= 0
            assert 0 <= board.chance(figure) <= 1


@given(scenarios(), fills, fills)
def test_fills_superpose(scenario: Scenario, water: float, contents: float) -> None:
    def at(**changes: float) -> axles.ScenarioLoads:
        return one(scenario.but(**changes))

    nothing = at(water=0.0, contents=0.0)
    wet, full, both = (
        at(water=water, contents=0.0),
        at(water=0.0, contents=contents),
        at(water=water, contents=contents),
    )
    for key in ("front", "rear", "left", "rear right", "roof"):
        a, b, c, d = (board.cell(x, key).value for x in (nothing, wet, full, both))  # type: ignore[union-attr]
        assert d - a == pytest.approx((b - a) + (c - a), abs=1e-7)


@given(st.sampled_from([u.id for u in DEMO.units]), st.floats(1, 200))
def test_a_mass_added_adds_its_own_reactions(key: str, kg: float) -> None:
    unit = DEMO.thing(key)
    assert unit is not None
    before, after = PLAIN, judge(edits.changed(DEMO, key, contents=unit.contents + kg), PLAIN)
    thing = after.assembly.thing(key)
    assert thing is not None
    held = [m for m in thing.masses if m.fill == "contents"]
    old = before.assembly.thing(key)
    assert old is not None
    grown = sum(m.kg for m in held) - sum(m.kg for m in old.masses if m.fill == "contents")  # type: ignore[misc]
    if not held or len(held) > 1 or grown == 0:
        return  # a tank or a device holds no contents; a stack shares them out
    a, b = before.loads.scenario("full"), after.loads.scenario("full")
    front, rear = axles.reactions(grown, held[0].x, DEMO.vehicle.wheelbase)  # type: ignore[attr-defined]
    assert b.front.value - a.front.value == pytest.approx(front, abs=1e-6)
    assert b.rear.value - a.rear.value == pytest.approx(rear, abs=1e-6)


def test_a_mirrored_job_mirrors_the_sides() -> None:
    vehicle = DEMO.vehicle
    seats = tuple(s.but(y=-s.y) for s in vehicle.seats)
    turned = vehicle.but(seats=seats, fuel=vehicle.fuel.but(y=-vehicle.fuel.y))
    job = layouts.exchanged(msgspec.structs.replace(DEMO, vehicle=turned))
    middle = {c.id: c.y for c in DEMO.carried}  # exchanging turns what is handed by itself
    carried = tuple(c.but(y=-middle[c.id]) for c in job.carried)
    units = tuple(u.but(u=1710 - u.u - u.width) if u.bay == "B" else u for u in job.units)
    job = msgspec.structs.replace(job, carried=carried, units=units)
    for a, b in zip(PLAIN.loads.scenarios, judge(job).loads.scenarios, strict=True):
        assert b.front.value == pytest.approx(a.front.value)
        assert b.rear.value == pytest.approx(a.rear.value)
        assert b.left.value == pytest.approx(a.right.value)
        assert b.right.value == pytest.approx(a.left.value)


@given(
    st.sampled_from(SPRING_OPTIONS),
    st.floats(30, 400),
    st.floats(0, 80),
    st.floats(0, 1400),
    st.floats(-300, 300),
)
def test_any_springs_stand_and_carry(
    option: str, rate: float, lift: float, span: float, shift: float
) -> None:
    springs = DEMO.vehicle.springs.but(
        school=option, rear=rate, leaf_lift=lift, leaf_span=span, air_x=shift
    )
    v = judge(msgspec.structs.replace(DEMO, vehicle=DEMO.vehicle.but(springs=springs)), PLAIN)
    assert v.carrying is not None
    for s, d in zip(v.loads.scenarios, v.carrying.chassis.diagrams, strict=True):
        assert math.isfinite(s.stance.tail_low)
        assert d.moment[-1] == pytest.approx(0, abs=1e-6)
        about = sum(p.newton * p.x for p in d.pushes)
        assert about == pytest.approx(
            (s.rear.value - springs.unsprung_rear) * G * DEMO.vehicle.wheelbase
        )
