import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.geometry.regions import Rect, free_cells, union

ROOM: Rect = (0.0, 0.0, 100.0, 60.0)


@st.composite
def rects(draw: st.DrawFn) -> Rect:
    u0, w0 = draw(st.integers(-20, 110)), draw(st.integers(-20, 70))
    return (
        float(u0),
        float(w0),
        float(u0 + draw(st.integers(1, 60))),
        float(w0 + draw(st.integers(1, 40))),
    )


def inside(rect: Rect, u: float, w: float) -> bool:
    return rect[0] < u < rect[2] and rect[1] < w < rect[3]


@given(st.lists(rects(), max_size=6))
def test_free_cells_hold_exactly_the_points_that_nothing_blocks(blocked: list[Rect]) -> None:
    cells = free_cells(ROOM, blocked, 0.0)
    for u, w in itertools.product(range(1, 100, 7), range(1, 60, 7)):
        point = (u + 0.5, w + 0.5)
        free = not any(inside(b, *point) for b in blocked)
        assert sum(inside(c, *point) for c in cells) == int(free)


@given(st.lists(rects(), min_size=1, max_size=6))
def test_a_union_covers_what_its_rectangles_cover_and_each_point_once(
    given_rects: list[Rect],
) -> None:
    areas, edges = union(given_rects)
    for u, w in itertools.product(range(-20, 170, 11), range(-20, 110, 11)):
        point = (u + 0.5, w + 0.5)
        covered = any(inside(r, *point) for r in given_rects)
        assert sum(inside(a, *point) for a in areas) == int(covered)
    length = sum(abs(a[0] - b[0]) + abs(a[1] - b[1]) for a, b in edges)
    assert length >= 2 * max(r[2] - r[0] + r[3] - r[1] for r in given_rects) - 1e-6


def test_the_edge_of_one_rectangle_is_its_perimeter() -> None:
    areas, edges = union([(0, 0, 30, 20)])
    assert areas == [(0, 0, 30, 20)]
    assert sum(abs(a[0] - b[0]) + abs(a[1] - b[1]) for a, b in edges) == pytest.approx(100)


def test_a_room_without_width_is_still_a_place() -> None:
    assert free_cells((5, 0, 5, 40), [], 0.05) == [(5, 0, 5, 40)]
    assert free_cells((5, 0, 5, 40), [(0, -10, 10, 50)], 0.05) == []
    assert union([]) == ([], [])
