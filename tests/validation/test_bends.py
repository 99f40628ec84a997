"""Bend allowance after Machinery's Handbook, and DIN 6935's flat-length difference.

BA = A·π/180·(R + K·T). The DIN formula is quoted from memory.
"""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import SHOP
from tests.handbooks import din_correction

from roomy_hull.core.mechanics.bends import bend_allowance
from roomy_hull.core.parts import SheetPart
from roomy_hull.core.refs import TRAY


@pytest.mark.parametrize(("k", "ba"), [(0.44, 6.095), (0.33, 5.749)])
def test_machinerys_handbook_right_angle_in_two_millimetres(k: float, ba: float) -> None:
    assert bend_allowance(90, 3, 2, k) == pytest.approx(ba, abs=5e-4)


def test_din_6935_right_angle_in_two_millimetres() -> None:
    assert din_correction(2, 3, 90) == pytest.approx(-4.128, abs=5e-4)


def test_the_two_agree_where_their_neutral_lines_do() -> None:
    # DIN's k/2 is the handbook's K; k = 0.65 + 0.5·log10(3/2) = 0.738, so K = 0.369.
    k = (0.65 + 0.5 * math.log10(3 / 2)) / 2
    by_allowance = bend_allowance(90, 3, 2, k) - 2 * (3 + 2)
    assert by_allowance == pytest.approx(din_correction(2, 3, 90))


@given(st.floats(0.5, 6), st.floats(30, 400), st.floats(30, 400))
def test_an_angle_unfolds_to_legs_plus_allowance(t: float, leg: float, base: float) -> None:
    part = SheetPart("angle", TRAY, base + 60, 100, t, SHOP.material("5052-H32"), left=leg + 60)
    r = part.radius()
    straight = (base + 60 - r - t) + (leg + 60 - r - t)
    assert part.developed()[0] == pytest.approx(straight + bend_allowance(90, r, t, 0.44))
