"""Weighings against predictions, and predictions that follow them."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.sweeping import examples

from roomy_hull.core.errors import EditError
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.edits import scenarios
from roomy_hull.job.model import Job, Weighing
from roomy_hull.studies.loads import axles, board
from roomy_hull.studies.loads import weighing as scales
from roomy_hull.studies.loads.readings import WHEELS
from roomy_hull.studies.loads.scales import predicted
from roomy_hull.verdict.verdict import judge

DEMO = demo_job()
PLAIN = judge(DEMO)


def weighed(**changes: object) -> Job:
    one = Weighing(id="w", scenario="full").but(**changes)
    return scenarios.weighed(DEMO, one)


def test_a_reading_as_predicted_moves_nothing_and_takes_uncertainty_away() -> None:
    full = PLAIN.loads.scenario("full")
    after = judge(weighed(front=full.front.value, rear=full.rear.value)).loads
    for before, now in zip(PLAIN.loads.scenarios, after.scenarios, strict=True):
        for key in ("front", "rear", "gross", "left", "rear right"):
            a, b = board.cell(before, key), board.cell(now, key)
            assert a is not None
            assert b is not None
            assert b.value == pytest.approx(a.value, abs=1e-6)
            assert b.uncertainty <= a.uncertainty + 1e-9
    assert after.scenario("full").rear.uncertainty < 5


def test_a_sharp_scale_is_believed_and_a_blunt_one_hardly() -> None:
    sharp = judge(weighed(front=1440.0, rear=1830.0, scale=0.2)).loads.scenario("full")
    assert sharp.rear.value == pytest.approx(1830, abs=0.3)
    assert sharp.front.value == pytest.approx(1440, abs=0.3)
    assert sharp.rear.uncertainty < 0.25
    blunt = judge(weighed(front=1440.0, rear=1830.0, scale=200.0)).loads.scenario("full")
    assert blunt.rear.value == pytest.approx(PLAIN.loads.scenario("full").rear.value, abs=1)


def test_what_was_found_with_everything_aboard_is_mostly_not_found_on_the_bare_tray() -> None:
    full = PLAIN.loads.scenario("full")
    after = judge(weighed(front=full.front.value, rear=full.rear.value + 51.5, scale=1.0)).loads
    moved = {s.id: s.rear.value - PLAIN.loads.scenario(s.id).rear.value for s in after.scenarios}
    assert moved["full"] == pytest.approx(51.5, abs=1)
    assert moved["rear"] == pytest.approx(moved["full"], abs=1)
    # The contents were guessed, the kerb mass was weighed.
    assert 0 < moved["tray"] < 0.45 * moved["full"]
    assert moved["tray"] < moved["dry"] < moved["full"]


def test_it_is_the_estimate_of_least_squares() -> None:
    """Against every mass solved for at once with NumPy, an independent way to the same answer."""
    job = weighed(front_left=742.0, front_right=731.0, rear_left=910.0, rear_right=884.0, scale=4.0)
    found = judge(job)
    masses = [m for m in found.assembly.masses() if m.sigma > 0]

    def factors(key: str) -> np.ndarray:
        one = next(s for s in job.scenarios if s.id == key)
        return np.array([
            axles.factor(one, axles.Share(m.owner, m.fill, m.mount, (), ())) for m in masses
        ])

    def row(key: str, reading: str) -> np.ndarray:
        a, b, c = found.loads.readings.of(reading)
        return factors(key) * np.array([a + b * m.x + c * m.y for m in masses])

    mean = np.array([m.kg for m in masses])
    cov = np.diag([m.sigma**2 for m in masses])
    h = np.array([row("full", w) for w in WHEELS])
    read = np.array([742.0, 731.0, 910.0, 884.0])
    gain = cov @ h.T @ np.linalg.inv(h @ cov @ h.T + 16.0 * np.eye(4))
    best, left = mean + gain @ (read - h @ mean), cov - gain @ h @ cov
    for key in ("full", "dry", "tray"):
        for reading in ("front", "rear", "gross", "right"):
            figure = board.cell(found.loads.scenario(key), reading)
            assert figure is not None
            line = row(key, reading)
            assert figure.value == pytest.approx(line @ best, abs=1e-6)
            assert figure.uncertainty == pytest.approx(math.sqrt(line @ left @ line), rel=1e-6)


def test_a_weighing_that_does_not_count_changes_nothing() -> None:
    job = weighed(front=1400.0, rear=1900.0, counts=False)
    assert judge(job).loads.scenarios == PLAIN.loads.scenarios
    assert any(f.code == "loads.scales" for f in judge(job).findings)


def test_readings_are_set_against_what_was_predicted_without_them() -> None:
    job = weighed(front_left=742.0, front_right=731.0, rear_left=910.0, rear_right=884.0)
    v = judge(job)
    rows = scales.against(job.weighings[0], predicted(v.assembly, v.loads, "full"))
    assert [r.words for r in rows] == [*WHEELS, "front axle", "rear axle", "gross"]
    plain = PLAIN.loads.scenario("full")
    gross = rows[-1]
    assert gross.predicted == pytest.approx(plain.gross.value)
    assert gross.read == 742 + 731 + 910 + 884
    assert gross.scale == pytest.approx(10)
    assert gross.sigmas == pytest.approx(gross.difference / math.hypot(gross.uncertainty, 10))
    why = board.why(v.assembly, v.loads, v.job.scenarios[2], "rear")
    assert any(x.words == "Found at the scales" for x in why.lines)


def test_a_reading_far_off_is_a_look() -> None:
    found = [
        f for f in judge(weighed(rear=2050.0, front=1480.0)).findings if f.code == "loads.scales"
    ]
    assert [f.severity for f in found] == ["look"]
    assert found[0].measured == 2050
    assert not [
        f for f in judge(weighed(rear=1775.0, front=1480.0)).findings if f.code == "loads.scales"
    ]


def test_one_axle_alone_will_do_and_nothing_will_not() -> None:
    assert judge(weighed(rear=1800.0, scale=0.5)).loads.scenario(
        "full"
    ).rear.value == pytest.approx(1800, abs=0.5)
    with pytest.raises(EditError, match="nothing was read"):
        weighed()
    with pytest.raises(EditError, match="nothing was read"):
        weighed(front_left=700.0)  # three wheels are missing


@settings(max_examples=examples(25, 8), deadline=None)
@given(
    st.floats(900, 2000), st.floats(900, 2600), st.floats(0.1, 100),
    st.sampled_from(["tray", "empty", "full", "dry", "towing", "rear"]),
)  # fmt: skip
def test_uncertainties_are_never_negative_and_never_grow(
    front: float, rear: float, scale: float, where: str
) -> None:
    one = Weighing(id="w", scenario=where, front=front, rear=rear, scale=scale)
    after = judge(scenarios.weighed(DEMO, one)).loads
    for before, now in zip(PLAIN.loads.scenarios, after.scenarios, strict=True):
        for key, _ in board.ROWS:
            a, b = board.cell(before, key), board.cell(now, key)
            if a is not None and b is not None:
                assert 0 <= b.uncertainty <= a.uncertainty + 1e-6
                assert math.isfinite(b.value)
        assert now.front.value + now.rear.value == pytest.approx(now.gross.value)
