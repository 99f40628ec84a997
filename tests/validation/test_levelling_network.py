"""The survey's adjustment against a published levelling network.

Ghilani and Wolf, Adjustment Computations, examples 12.1 and 12.2 (figures from memory, and solved
once more here by normal equations): seven height differences in metres between the session marks
X = 100.000 and Y = 107.500 and the stations A, B and C, of lines 4, 3, 2, 3, 2, 2 and 2 miles long.
"""

import math

import numpy as np
import pytest

from roomy_hull.core.tables.read import Measure
from roomy_hull.job.survey import Reading, Survey
from roomy_hull.planning import survey as planning

X, Y = 100.0, 107.5
# What is seen on each line, as a sum of station heights. [m]
LINES: tuple[tuple[str, dict[str, float], float, float], ...] = (
    ("x-a", {"A": 1}, X + 5.10, 4),
    ("a-y", {"A": 1}, Y - 2.34, 3),
    ("y-c", {"C": 1}, Y - 1.25, 2),
    ("c-x", {"C": 1}, X + 6.13, 3),
    ("b-a", {"A": 1, "B": -1}, 0.68, 2),
    ("y-b", {"B": 1}, Y - 3.00, 2),
    ("b-c", {"C": 1, "B": -1}, 1.70, 2),
)


@pytest.fixture
def network(monkeypatch: pytest.MonkeyPatch) -> None:
    """Put the lines in the place of a vehicle's measures."""
    table = tuple(
        Measure(key=key, words=key, how="levelled", sigma=1.0, sum=dict(total))
        for key, total, _seen, _miles in LINES
    )
    monkeypatch.setattr(planning, "measures", lambda: {"cab-chassis": table})


def levelled(*, weighted: bool) -> Survey:
    """The readings in millimetres; where weighted, 100 mm is the doubt of twelve miles."""
    return Survey(
        readings=tuple(
            Reading(
                measure=key,
                value=seen * 1000,
                sigma=100.0 * (math.sqrt(miles / 12) if weighted else 1),
            )
            for key, _sum, seen, miles in LINES
        )
    )


@pytest.mark.usefixtures("network")
@pytest.mark.parametrize(
    ("weighted", "heights", "unit_weight"),
    [
        (False, {"A": 105.141, "B": 104.483, "C": 106.188}, 0.050),
        (True, {"A": 105.150, "B": 104.489, "C": 106.197}, 0.107),
    ],
)
def test_the_published_heights_and_standard_deviation(
    weighted: bool, heights: dict[str, float], unit_weight: float
) -> None:
    found = planning.adjust(levelled(weighted=weighted), "cab-chassis")
    assert {k: round(s.value / 1000, 3) for k, s in found.sizes.items()} == heights
    assert found.redundancy == 4
    assert found.spread * 100 / 1000 == pytest.approx(unit_weight, abs=0.0005)
    assert not found.suspects


@pytest.mark.usefixtures("network")
def test_uncertainties_and_standardised_residuals_by_normal_equations() -> None:
    found = planning.adjust(levelled(weighted=True), "cab-chassis")
    matrix = np.array([[row.get(k, 0.0) for k in "ABC"] for _key, row, _seen, _miles in LINES])
    seen = np.array([1000 * line[2] for line in LINES])
    sigma = np.array([100.0 * math.sqrt(line[3] / 12) for line in LINES])
    weight = np.diag(1 / sigma**2)
    cofactor = np.linalg.inv(matrix.T @ weight @ matrix)
    height = cofactor @ matrix.T @ weight @ seen
    residual = seen - matrix @ height
    own = np.diag(np.diag(sigma**2) - matrix @ cofactor @ matrix.T)
    for n, key in enumerate("ABC"):
        assert found.sizes[key].value == pytest.approx(height[n], abs=1e-3)
        assert found.sizes[key].sigma == pytest.approx(math.sqrt(cofactor[n, n]), rel=1e-5)
    for n, row in enumerate(found.residuals):
        assert row.residual == pytest.approx(residual[n], abs=1e-3)
        assert row.standardised == pytest.approx(residual[n] / math.sqrt(own[n]), abs=1e-4)
    # The redundancy numbers add up to the readings that are more than needed.
    assert sum(r.checked for r in found.residuals) == pytest.approx(4, abs=1e-6)


@pytest.mark.usefixtures("network")
@pytest.mark.parametrize("line", range(7))
def test_a_blunder_on_any_line_is_named(line: int) -> None:
    good = levelled(weighted=True)
    rows = list(good.readings)
    bad = rows[line]
    rows[line] = Reading(measure=bad.measure, value=bad.value + 1500, sigma=bad.sigma)
    found = planning.adjust(Survey(readings=tuple(rows)), "cab-chassis")
    assert found.suspects == (line,)
