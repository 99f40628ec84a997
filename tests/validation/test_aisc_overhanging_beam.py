"""AISC Steel Construction Manual, table 3-23: beam overhanging one support, uniform load over all.

R1 = w(l² - a²)/2l and R2 = w(l + a)²/2l, l between the supports and a the overhang. Formula from
memory. A vehicle is such a beam: the front axle is R1, the rear axle R2, the tail the overhang.
"""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.assembly.scaling import reactions


def test_the_manuals_case_of_2000_with_900_overhang() -> None:
    front, rear = reactions(1.0 * 2900, 2900 / 2, 2000)
    assert front == pytest.approx(797.5)
    assert rear == pytest.approx(2102.5)


@given(st.floats(0.01, 5), st.floats(2000, 5000), st.floats(0, 1800))
def test_any_span_and_overhang(w: float, span: float, a: float) -> None:
    front, rear = reactions(w * (span + a), (span + a) / 2, span)
    assert front == pytest.approx(w * (span**2 - a**2) / (2 * span), rel=1e-9, abs=1e-6)
    assert rear == pytest.approx(w * (span + a) ** 2 / (2 * span), rel=1e-9)


def test_a_load_on_the_overhang_alone() -> None:
    # Same table, uniform load on the overhang: R1 = -w a²/2l, R2 = w a (2l + a)/2l.
    front, rear = reactions(1.0 * 900, (2000 + 2900) / 2, 2000)
    assert front == pytest.approx(-(900**2) / (2 * 2000))
    assert rear == pytest.approx(900 * (2 * 2000 + 900) / (2 * 2000))
