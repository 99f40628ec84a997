"""The scenario board: cells, the worst one, and the sum behind each figure."""

import itertools
import math

import msgspec
import pytest

from roomy_hull.core.refs import Ref
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.studies.loads import axles, board, ranking
from roomy_hull.verdict.verdict import Verdict, judge


@pytest.fixture(scope="module")
def verdicts() -> list[Verdict]:
    from roomy_hull.formats.demo import DEMOS, demo_job

    found = [judge(demo_job(name)) for name in DEMOS]
    job = found[0].job
    air = job.vehicle.but(springs=job.vehicle.springs.but(school="air"), level_target=12.0)
    return [*found, judge(msgspec.structs.replace(job, vehicle=air))]


def test_every_figure_answers_why_with_a_sum_that_adds_up(verdicts: list[Verdict]) -> None:
    for v in verdicts:
        for scenario in v.assembly.job.scenarios:
            for key, words in board.ROWS:
                found = board.why(v.assembly, v.loads, scenario, key)
                figure = board.cell(v.loads.scenario(scenario.id), key)
                assert found.title.startswith(words)
                assert found.rule
                assert found.limit
                assert math.fsum(x.amount for x in found.lines) == pytest.approx(
                    found.total, abs=1e-6
                )
                if figure is None:
                    continue
                assert found.total == pytest.approx(figure.value, abs=1e-6), (scenario.id, key)
                assert found.uncertainty == pytest.approx(figure.uncertainty)
                if key not in ("level", "combination"):
                    spread = math.sqrt(sum(x.uncertainty**2 for x in found.lines))
                    assert spread == pytest.approx(figure.uncertainty, abs=1e-6), key


def test_each_line_is_its_mass_times_its_part(demo_verdict: Verdict) -> None:
    scenario = demo_verdict.job.scenarios[2]
    for key in ("front", "rear", "rear left", "right", "gross", "payload", "roof"):
        for line in board.why(demo_verdict.assembly, demo_verdict.loads, scenario, key).lines:
            if line.owner:
                assert line.kg * line.part == pytest.approx(line.amount)
    rear = board.why(demo_verdict.assembly, demo_verdict.loads, scenario, "rear")
    spare = next(x for x in rear.lines if x.owner == Ref("carried", "spare"))
    assert spare.part == pytest.approx(spare.at / demo_verdict.job.vehicle.wheelbase)
    assert spare.part > 1


def test_the_words_say_which_limit_governs(demo: Job) -> None:
    wheel = msgspec.structs.replace(
        demo, vehicle=demo.vehicle.but(ratings=demo.vehicle.ratings.but(wheel=900.0))
    )
    v = judge(wheel)
    one = v.job.scenarios[2]
    assert "by its two wheels" in board.why(v.assembly, v.loads, one, "rear").limit
    assert "by the wheel" in board.why(v.assembly, v.loads, one, "rear left").limit
    assert board.cell(v.loads.scenario("full"), "rear left").limit == 900  # type: ignore[union-attr]
    plain = judge(msgspec.structs.replace(demo, vehicle=demo.vehicle.but(tyre_load_index=0)))
    assert (
        "enter the tyre's load index"
        in board.why(plain.assembly, plain.loads, one, "front right").limit
    )
    assert board.cell(plain.loads.scenario("full"), "front right").limit is None  # type: ignore[union-attr]
    assert board.chance(board.cell(plain.loads.scenario("full"), "front right")) == 0


def test_the_worst_cell_governs(demo: Job) -> None:
    found = board.worst(judge(demo).loads)
    assert found is not None
    assert (found.scenario, found.key) == ("rear", "gross")
    heavy = judge(edits.changed(demo, "punt", mass=130.0))
    over = board.worst(heavy.loads)
    assert over is not None
    assert (over.key, over.chance > 0.9) == ("roof", True)
    assert board.severity_of(over.figure) == "stop"


def test_a_wheel_over_its_tyre_is_a_stop(demo: Job) -> None:
    poor = judge(msgspec.structs.replace(demo, vehicle=demo.vehicle.but(tyre_load_index=104)))
    found = [f for f in poor.findings if f.code == "loads.wheel" and f.scenario == "rear"]
    assert [f.severity for f in found] == ["stop"]
    assert "rear left wheel" in found[0].title
    assert found[0].limit == 900
    assert poor.loads.scenario("rear").rear.limit == 1800


def test_a_sweep_runs_in_a_straight_line_from_full_to_empty(demo_verdict: Verdict) -> None:
    v = demo_verdict
    one = next(s for s in v.job.scenarios if s.id == "full")
    for what in board.SWEEPS:
        points = board.sweep(v.assembly, v.loads, one, what, 10)
        assert [p.fill for p in points] == pytest.approx([1 - n / 10 for n in range(11)])
        assert points[0].rear.value == pytest.approx(v.loads.scenario("full").rear.value)
        rear = [p.rear.value for p in points]
        steps = [a - b for a, b in itertools.pairwise(rear)]
        assert steps == pytest.approx([steps[0]] * 10)
        assert points[-1].rear.uncertainty < points[0].rear.uncertainty
    water = board.sweep(v.assembly, v.loads, one, "water", 1)
    assert water[0].gross.value - water[1].gross.value == pytest.approx(90, abs=0.6)


def test_contributions_add_up_and_levers_are_linear(demo_verdict: Verdict, demo: Job) -> None:
    one = next(s for s in demo.scenarios if s.id == "full")
    rows = ranking.contributions(demo_verdict.assembly, demo_verdict.loads, one)
    loads = demo_verdict.loads.scenario("full")
    assert sum(r.rear for r in rows) == pytest.approx(loads.rear.value)
    assert sum(r.front for r in rows) == pytest.approx(loads.front.value)
    assert sum(r.side for r in rows) == pytest.approx(loads.right.value - loads.left.value)
    ranked = ranking.ranked(rows, "side")
    assert [abs(r.side) for r in ranked] == sorted((abs(r.side) for r in rows), reverse=True)
    drawer = next(r for r in rows if r.owner == Ref("unit", "galley"))
    told = ranking.if_moved(demo_verdict.loads, drawer, -300.0)
    moved = judge(edits.changed(demo, "galley", u=1050.0 - 300.0)).loads.scenario("full")
    assert moved.rear.value - loads.rear.value == pytest.approx(told.rear)
    assert moved.front.value - loads.front.value == pytest.approx(told.front)
    assert told.rear == pytest.approx(-drawer.kg * 300 / demo.vehicle.wheelbase)
    off = judge(edits.removed(demo, "galley")).loads.scenario("full")
    gone = ranking.if_off(drawer)
    assert off.gross.value - loads.gross.value == pytest.approx(gone.gross)
    assert off.right.value - off.left.value - loads.right.value + loads.left.value == pytest.approx(
        gone.side
    )


def test_stiffer_rear_springs_take_more_of_the_lean(demo: Job) -> None:
    def rear_split(job: Job) -> float:
        wheels = judge(job).loads.scenario("full").wheels
        return abs(wheels[3].value - wheels[2].value)

    stiff = demo.vehicle.but(springs=demo.vehicle.springs.but(rear=400.0))
    given = demo.vehicle.but(springs=demo.vehicle.springs.but(roll_front=0.99))
    assert rear_split(msgspec.structs.replace(demo, vehicle=stiff)) > rear_split(demo)
    assert rear_split(msgspec.structs.replace(demo, vehicle=given)) < 1.0


def test_wheels_are_axles_and_sides(verdicts: list[Verdict]) -> None:
    for v in verdicts:
        for s in v.loads.scenarios:
            fl, fr, rl, rr = (w.value for w in s.wheels)
            assert fl + fr == pytest.approx(s.front.value)
            assert rl + rr == pytest.approx(s.rear.value)
            assert fl + rl == pytest.approx(s.left.value)
            assert fr + rr == pytest.approx(s.right.value)


def test_a_trial_scenario_is_weighed_like_one_of_the_job(demo: Job, demo_verdict: Verdict) -> None:
    trial = demo.scenarios[2].but(
        id="x", water=0.37, people=(90.0, 60.0, 55.0), left_behind=("punt", "camp")
    )
    job = msgspec.structs.replace(demo, scenarios=(trial,))
    loads = demo_verdict.loads
    ours = axles.weigh(demo, trial, judge(job).loads.totals, loads.readings)
    assert ours == judge(job).loads.scenario("x")
