"""Boxes near to one, found by halving, against asking each."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.geometry.gaps import apart, nearest
from roomy_hull.core.geometry.motion import Piece, block
from roomy_hull.core.geometry.near import MANY, Boxes, beside
from roomy_hull.core.geometry.solids import Box

# A coarse grid, so that boxes touch, stand exactly a gap apart and coincide often; some long, some flat.
at = st.integers(-12, 12).map(lambda n: n * 25.0)
size = st.sampled_from((0.0, 25.0, 25.0, 50.0, 1500.0))


@st.composite
def boxes(draw: st.DrawFn) -> Box:
    x, y, z = draw(at), draw(at), draw(at)
    return Box(x, y, z, x + draw(size), y + draw(size), z + draw(size))


@given(
    st.lists(boxes(), max_size=40) | st.lists(boxes(), min_size=MANY + 20, max_size=160),
    boxes(),
    st.sampled_from((-0.5, 0.0, 2.0, 25.0, 100.0)),
)
def test_none_is_missed_and_none_invented(some: list[Box], one: Box, by: float) -> None:
    assert Boxes(some).near(one, by) == [n for n, b in enumerate(some) if not beside(one, b, by)]


def test_a_gap_of_just_the_limit_is_near_and_a_hair_more_is_not() -> None:
    one = Box(0.0, 0.0, 0.0, 10.0, 10.0, 10.0)
    others = [Box(12.0, 0.0, 0.0, 20.0, 10.0, 10.0), Box(12.1, 0.0, 0.0, 20.0, 10.0, 10.0)]
    assert Boxes(others).near(one, 2.0) == [0]


def blocks(some: list[Box]) -> tuple[Piece, ...]:
    return tuple(block(b) for b in some)


@given(
    st.lists(boxes(), max_size=9),
    st.lists(boxes(), max_size=9),
    st.sampled_from((0.0, 2.0, 25.0, 100.0)),
)
def test_the_nearest_of_two_sets_is_the_least_of_all_pairs(
    one: list[Box], other: list[Box], wanted: float
) -> None:
    # With many pieces only those near to the others as a whole are paired: none may be lost by it.
    gap, i, j = nearest(blocks(one), blocks(other), wanted)
    pairs = [apart(block(a), block(b), 1e9) for a in one for b in other]
    least = min(pairs, default=1e9)
    if least > wanted:
        assert (i, j) == (-1, -1)
    else:
        assert gap == pytest.approx(least)
        assert apart(block(one[i]), block(other[j]), 1e9) == pytest.approx(least)
