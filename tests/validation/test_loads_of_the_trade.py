"""Weighing, stability, restraint, combination: against standards and worked sums, from memory unless said.

ISO 10392 (centre of mass by raising an axle), NHTSA (static stability factor), Load Restraint Guide and EN
12195-1 (0.8, 0.5, 0.5, 0.2), ETRTO (load index); combination sums are common practice, no source.
"""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import SHOP

from roomy_hull.assembly import springs
from roomy_hull.assembly.scaling import scale
from roomy_hull.core.uncertainty import chance_over
from roomy_hull.core.units import G
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.model import Job
from roomy_hull.studies.loads import board
from roomy_hull.studies.loads.weighing import raised_height
from roomy_hull.studies.strength import mounts, struts
from roomy_hull.studies.strength.stability import stability
from roomy_hull.verdict.verdict import Verdict, judge


@given(
    st.floats(1200, 4500), st.floats(0.25, 0.75), st.floats(400, 1300), st.floats(2300, 4200), st.floats(150, 900)
)  # fmt: skip
def test_a_raised_axle_weighing_gives_the_height_back(
    kg: float, aft: float, height: float, base: float, lift: float
) -> None:
    # The vehicle is turned about the rear hub by asin(lift/L), rigid, and the rear axle weighed again.
    hub, x = 390.0, aft * base
    angle = math.asin(lift / base)
    rear_level = kg * x / base
    # In the turned frame the centre of mass lies ahead of the rear hub by this much on the level.
    ahead = (base - x) * math.cos(angle) - (height - hub) * math.sin(angle)
    front_turned = kg * ahead / (base * math.cos(angle))
    found = raised_height(kg, rear_level, kg - front_turned, base, lift, hub)
    assert found == pytest.approx(height, rel=1e-6)


def test_the_static_stability_factor_is_half_the_track_over_the_height(
    demo_verdict: Verdict,
) -> None:
    for loads in demo_verdict.loads.scenarios:
        found = stability(demo_verdict.job.vehicle, loads)
        assert found.factor == pytest.approx(1575 / (2 * found.height))
        both = (found.tilt_left + found.tilt_right) / 2
        assert both == pytest.approx(math.degrees(math.atan(found.factor)), abs=0.2)
        heavy = found.tilt_right < found.tilt_left
        assert heavy == (found.y > 0)


def test_restraint_factors_are_those_of_the_guide(demo_verdict: Verdict) -> None:
    r = SHOP.rules
    assert (r.axis_forward, r.axis_rearward, r.axis_sideways, r.axis_up) == (0.8, 0.5, 0.5, 0.2)
    assert demo_verdict.carrying is not None
    for check in demo_verdict.carrying.mounts:
        ways = {w.way: w for w in check.ways}
        assert ways["forward"].force == pytest.approx(0.8 * check.kg * G)
        assert ways["up"].force == pytest.approx(0.2 * check.kg * G)
        for way in ("rearward", "left", "right"):
            assert ways[way].force == pytest.approx(0.5 * check.kg * G)


def test_a_tall_box_tips_and_its_far_bolts_hold_it() -> None:
    # 100 kg, 1,000 high with its middle at half, 400 wide: 0.8·981·500 - 981·200 = 196 N·m is left to hold.
    moment, row = mounts.tipping(0.8 * 100 * G, 500, 100 * G, 200, 400, 30)
    assert moment == pytest.approx(100 * G * (0.8 * 500 - 200))
    # Moments about the edge: far and near row stretched in proportion.
    near = row * 30 / 370
    assert row * 370 + near * 30 == pytest.approx(moment)
    assert mounts.tipping(0.5 * 100 * G, 300, 100 * G, 200, 400, 30) == (0, 0)


@given(st.floats(1, 120), st.floats(0, 25), st.floats(0, 0.2))
def test_pull_on_a_slope_is_a_block_on_a_plane(kg: float, degrees: float, rolling: float) -> None:
    up, down = mounts.slope_pull(kg, degrees, rolling)
    a = math.radians(degrees)
    assert (up + down) / 2 == pytest.approx(kg * G * math.sin(a), abs=1e-9)
    assert (up - down) / 2 == pytest.approx(kg * G * rolling * math.cos(a), abs=1e-9)


def test_air_pressure_for_level_balances_forces(demo: Job) -> None:
    # 350 kg more on the rear axle and 60 cm²: kept at kerb height both bags carry it all, F = 2·p·A.
    v = demo.vehicle
    found = springs.rear_spring(v, "air", v.kerb.rear + 350, 0.0)
    assert found.sag == pytest.approx(0, abs=1e-9)
    assert 2 * found.pressure * 1e3 * 60e-4 == pytest.approx(350 * G)
    assert springs.rear_spring(v, "air", v.kerb.rear, 0.0).pressure == v.springs.air_least
    most = springs.rear_spring(v, "air", v.kerb.rear + 2500, 0.0)
    assert most.pressure == v.springs.air_most
    assert most.sag > 0
    assert most.wished > most.pressure


def test_schools_stand_as_they_are_made_to(demo: Job) -> None:
    v = demo.vehicle
    constant = springs.rear_spring(v, "constant load", v.kerb.rear + v.springs.constant, 0.0)
    assert constant.sag == pytest.approx(0)
    leaf = springs.rear_spring(v, "extra leaf", v.kerb.rear, 0.0)
    assert leaf.sag == -v.springs.leaf_lift
    assert leaf.rate == pytest.approx(1.3 * v.springs.rear)
    # f = √(k/m)/2π: 2 Hz at (2π·2)² = 157.9 N/mm for a tonne.
    assert springs.bounce(157.91, 1000) == pytest.approx(2, rel=1e-4)
    assert springs.bounce(100, 0) == 0


def test_a_door_on_its_struts_balances_moments_over_the_swing(demo: Job) -> None:
    canopy = demo.body.canopy
    assert canopy is not None
    door = canopy.doors[0]
    assert door.strut is not None
    check = struts.check(canopy, door, SHOP)
    for instant in check.swing:
        # Independent: work of the struts over a small angle equals their moment times the angle.
        step = 1e-3
        lengths = [struts.strut_length(door.strut, instant.angle + d) for d in (-step, step)]
        longest, stroke = check.opened, check.opened - check.closed
        length = struts.strut_length(door.strut, instant.angle)
        force = door.strut.force * (1 + door.strut.growth * (longest - length) / stroke)
        opens = 2 * force * (lengths[1] - lengths[0]) / math.radians(2 * step)
        falls = check.mass * G * check.height / 2 * math.sin(math.radians(instant.angle))
        assert instant.hold * check.height == pytest.approx(falls - opens, abs=40)
        assert instant.low <= instant.hold <= instant.high


def test_a_proposed_strut_holds_in_the_cold_on_a_slope_and_can_be_bought(demo: Job) -> None:
    for mass, height, swing in ((6, 500, 95), (10, 890, 100), (18, 1100, 110), (4, 300, 85)):
        s = struts.proposal(mass, height, swing, SHOP.rules)
        closed, opened = struts.strut_length(s, 0), struts.strut_length(s, swing)
        assert closed >= opened - closed + struts.DEAD
        worst = max(struts.leaf_moment(mass, height, swing, lean) for lean in (-10, 0, 10))
        assert struts.strut_moment(s, swing, swing, cold=SHOP.rules.cold) > worst
    assert demo.body.canopy is not None


def test_uncertainties_and_chances_agree_with_a_million_draws() -> None:
    job = demo_job()
    verdict = judge(job)
    chance = np.random.default_rng(11)
    draws = 1_000_000
    masses = verdict.assembly.masses()
    for key in ("full", "rear"):
        scenario = next(s for s in job.scenarios if s.id == key)
        loads = verdict.loads.scenario(key)
        sums = {row: np.zeros(draws) for row in ("front", "rear", "gross", "rear left", "right")}
        for m in masses:
            f = scale(scenario, m.owner, m.fill, m.mount)
            if f == 0:
                continue
            drawn = f * chance.normal(m.kg, m.sigma, draws)
            for row, total in sums.items():
                a, b, c = verdict.loads.readings.of(row)
                total += drawn * (a + b * m.x + c * m.y)
        springs_of = job.vehicle.springs
        low = G * (sums["rear"] / (2 * springs_of.rear) - sums["front"] / (2 * springs_of.front))
        assert low.std() == pytest.approx(loads.stance.uncertainty, rel=0.004)
        for row, total in sums.items():
            figure = board.cell(loads, row)
            assert figure is not None
            assert total.mean() == pytest.approx(
                figure.value, abs=5 * figure.uncertainty / math.sqrt(draws)
            )
            assert total.std() == pytest.approx(figure.uncertainty, rel=0.004)
            for sigmas in (-1.0, 0.0, 0.7, 1.6, 2.3):
                limit = figure.value + sigmas * figure.uncertainty
                p = chance_over(figure.value, figure.uncertainty, limit)
                error = 4.5 * math.sqrt(p * (1 - p) / draws)
                assert (total > limit).mean() == pytest.approx(p, abs=error)
