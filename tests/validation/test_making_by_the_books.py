"""Bending, cutting and cutting stock against published examples; figures from memory."""

import math
import random

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import SHOP
from tests.handbooks import din_correction

from roomy_hull.core.errors import InputError
from roomy_hull.core.mechanics.bends import (
    TestBend,
    bend_allowance,
    bending_force,
    fit_k,
    outside_setback,
)
from roomy_hull.core.parts import SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.making.checked_layout import Lying, flaw, shape_of
from roomy_hull.making.cutting_stock import fewest, first_fit
from roomy_hull.making.flats import blank
from roomy_hull.making.gap import part_uncertainty


def test_groovers_worked_example_of_bending() -> None:
    # Groover, Fundamentals of Modern Manufacturing, example on sheet-metal bending (from memory): sheet 3.2, radius
    # 4.75, bent through 60 degrees, K 0.33; legs of 38 and 25 to the tangent lines; V die of 25, width 44.5, 450 MPa.
    allowance = bend_allowance(60, 4.75, 3.2, 0.33)
    assert allowance == pytest.approx(6.08, abs=0.005)
    assert 38 + allowance + 25 == pytest.approx(69.08, abs=0.005)
    assert bending_force(3.2, 44.5, 450, 25) == pytest.approx(10_909, abs=1)


def test_a_force_wants_a_die() -> None:
    with pytest.raises(InputError, match="without an opening"):
        bending_force(2, 100, 200, 0)


def test_a_test_bend_gives_k_back() -> None:
    # Machinery's Handbook's allowance turned round: legs of 50 outside, sheet 2, radius 3, K 0.44 want a flat of
    # 2·50 - 2·5 + 6.095 = 96.095.
    flat = 100 - 2 * outside_setback(90, 3, 2) + bend_allowance(90, 3, 2, 0.44)
    assert flat == pytest.approx(96.095, abs=5e-4)
    found = fit_k([TestBend("5052-H32", 2, 3, 90, 50, 50, flat)])
    assert found.k == pytest.approx(0.44)
    # A calliper's tenth on three sizes, over A·T.
    assert found.uncertainty == pytest.approx(0.1 * math.sqrt(3) / (math.pi / 2 * 2))


@given(st.floats(0.25, 0.5), st.integers(2, 12), st.randoms(use_true_random=False))
def test_many_test_bends_give_k_within_their_uncertainty(
    k: float, count: int, chance: random.Random
) -> None:
    rows = []
    for _ in range(count):
        angle, radius = chance.uniform(30, 135), chance.uniform(1, 5)
        back = outside_setback(angle, radius, 2)
        one, other = chance.uniform(40, 90), chance.uniform(40, 90)
        flat = one + other - 2 * back + bend_allowance(angle, radius, 2, k)
        rows.append(TestBend("5052-H32", 2, radius, angle, one, other, flat))
    found = fit_k(rows)
    assert found.k == pytest.approx(k, abs=1e-9)
    assert found.uncertainty < fit_k(rows[:1]).uncertainty * 3
    assert found.count == count


def test_din_and_the_handbook_agree_where_their_k_does() -> None:
    # DIN 6935's factor is of half the sheet: K = k/2.
    for radius in (1.0, 2.0, 3.0):
        k = min(1.0, 0.65 + 0.5 * math.log10(radius / 2))
        by_k = bend_allowance(90, radius, 2, k / 2) - 2 * (radius + 2)
        assert din_correction(2, radius, 90) == pytest.approx(by_k)


@pytest.mark.parametrize(
    ("length", "medium"),
    # ISO 2768-1, class m, permissible deviations of linear sizes (from memory). [mm]
    [(25.0, 0.2), (100.0, 0.3), (350.0, 0.5), (900.0, 0.8)],
)
def test_a_cut_edge_keeps_the_medium_class_of_iso_2768(length: float, medium: float) -> None:
    flat = SheetPart("p", Ref("unit", "x"), length, 80, 2, SHOP.material("5052-H32"))
    assert 2 * part_uncertainty(flat, 0, SHOP) <= medium + 0.1
    # ISO 9013, range 1 for sheet up to 3.15 mm: ± 0.1 to ± 0.3 by length (from memory).
    assert SHOP.tools.cutter.uncertainty <= 0.3


def test_the_perfect_squared_square_of_order_21_is_a_layout_without_a_gap() -> None:
    # Duijvestijn 1978: 112 × 112, in Bouwkamp code.
    code = [
        [50, 35, 27],
        [8, 19],
        [15, 17, 11],
        [6, 24],
        [29, 25, 9, 2],
        [7, 18],
        [16],
        [42],
        [4, 37],
        [33],
    ]
    skyline = [0] * 112
    rows = []
    for group in code:
        low = min(skyline)
        x = skyline.index(low)
        for side in group:
            assert all(h == low for h in skyline[x : x + side])
            flat = blank(
                SheetPart(str(side), Ref("unit", "x"), side, side, 2, SHOP.material("5052-H32"))
            )
            rows.append(Lying(flat, float(x), float(low), turned=False))
            for n in range(x, x + side):
                skyline[n] = low + side
            x += side
    assert set(skyline) == {112}
    assert len({r.blank.part.length for r in rows}) == 21
    assert sum(shape_of(r).area for r in rows) == 112**2
    assert flaw(rows, (112.0, 112.0), 0.0, 0.0) == ""
    assert "edge trim" in flaw(rows, (111.9, 112.0), 0.0, 0.0)
    moved = [*rows[:-1], rows[-1]._replace(x=rows[-1].x + 0.5)]
    assert "too near" in flaw(moved, (112.0, 112.0), 0.0, 0.0)
    assert "too near" in flaw(rows, (112.0, 112.0), 0.0, 1.0)


def test_the_textbook_bars_want_seventy_three() -> None:
    # The cutting-stock example of the textbooks (from memory): stock 5600, thirteen lengths.
    wanted = {1380: 22, 1520: 25, 1560: 12, 1710: 14, 1820: 18, 1880: 18, 1930: 20, 2000: 10, 2050: 12, 2100: 14,
              2140: 16, 2150: 18, 2200: 20}  # fmt: skip
    lengths = [float(x) for x, n in wanted.items() for _ in range(n)]
    found = fewest(lengths, 5600.0, 0.0)
    assert (len(found.rows), found.bound) == (73, 73)
    assert len(first_fit(lengths, 5600.0, 0.0)) > 73
    assert sorted(i for r in found.rows for i in r.pieces) == list(range(len(lengths)))
    assert all(sum(lengths[i] for i in r.pieces) <= 5600 for r in found.rows)
