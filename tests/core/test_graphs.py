"""Circles and orders, against SciPy's graph routines."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from scipy.sparse import csr_array
from scipy.sparse.csgraph import connected_components

from roomy_hull.core.graphs import circles, in_order

NAMES = "abcdefg"
edges = st.sets(st.tuples(st.sampled_from(NAMES), st.sampled_from(NAMES)), max_size=16)


def after_of(some: set[tuple[str, str]]) -> dict[str, list[str]]:
    found: dict[str, list[str]] = {}
    for a, b in sorted(some):
        found.setdefault(a, []).append(b)
    return found


@given(edges)
def test_groups_are_the_strongly_connected_components(some: set[tuple[str, str]]) -> None:
    matrix = np.zeros((len(NAMES), len(NAMES)))
    for a, b in some:
        matrix[NAMES.index(a), NAMES.index(b)] = 1
    _count, labels = connected_components(csr_array(matrix), connection="strong")
    wanted = {
        tuple(n for n, label in zip(NAMES, labels, strict=True) if label == one)
        for one in set(labels)
    }
    wanted = {g for g in wanted if len(g) > 1 or (g[0], g[0]) in some}
    found = circles(after_of(some))
    assert len(found) == len(set(found))
    assert set(found) == wanted


@given(edges, st.permutations(NAMES))
def test_an_order_leads_forward_and_there_is_none_where_there_is_a_circle(
    some: set[tuple[str, str]], wished: list[str]
) -> None:
    order = in_order(wished, after_of(some))
    if circles(after_of(some)):
        assert order is None
        return
    assert order is not None
    assert sorted(order) == sorted(wished)
    assert all(order.index(a) < order.index(b) for a, b in some)
    # The first that may come first in the order wished for does.
    led = {b for _a, b in some}
    assert order[0] == next(n for n in wished if n not in led)


def test_what_is_not_among_the_nodes_is_passed_over() -> None:
    assert in_order("ab", {"a": ["x"], "x": ["b"], "b": ["a"]}) == ["b", "a"]
    assert in_order("ab", {"a": ["a"]}) is None
    assert in_order("", {}) == []
