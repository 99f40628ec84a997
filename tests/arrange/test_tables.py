"""Tables: first parts in portions and groups, against plain loops."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.arrange.tables import first_parts, grouped

counts = st.lists(st.integers(0, 9), max_size=12)


@given(counts, st.integers(1, 30))
def test_portions_together_are_every_pair_in_order(many: list[int], at_once: int) -> None:
    found, portions = [], []
    for a, b in first_parts(np.array(many, np.int64), at_once):
        found += list(zip(a.tolist(), b.tolist(), strict=True))
        portions.append((len(a), len(set(a.tolist()))))
    assert found == [(n, k) for n, few in enumerate(many) for k in range(few)]
    assert all(size < at_once or rows == 1 for size, rows in portions)


@given(st.lists(st.tuples(st.integers(0, 2), st.integers(0, 2), st.integers(0, 5)), max_size=20))
def test_rows_are_in_groups_the_smallest_first(rows: list[tuple[int, int, int]]) -> None:
    a, b, tie = (np.array([r[k] for r in rows], np.int64) for k in range(3))
    order, first = grouped([a, b], [tie])
    got = [rows[n] for n in order]
    assert got == sorted(rows, key=lambda r: (r[1], r[0], r[2]))
    keys = [r[:2] for r in got]
    assert first.tolist() == [keys.index(k) for k in keys]
