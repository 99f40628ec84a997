"""Nests and bars: valid, no better than their bounds, and as good as exhaustive search where that can be done."""

import itertools
import math
import random

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import SHOP

from roomy_hull.core.errors import InputError
from roomy_hull.core.folded import Cutout
from roomy_hull.core.parts import SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.making.bars import plan
from roomy_hull.making.bounds import apart, fewest_bins, together
from roomy_hull.making.cutting_stock import fewest, knapsack
from roomy_hull.making.flats import Blank, blank
from roomy_hull.making.nesting import Nesting, nest
from roomy_hull.making.packing import Piece, Search, guillotine, skyline
from roomy_hull.making.room_left import largest_free, whole_cuts
from roomy_hull.making.sheets import Way
from roomy_hull.shop.shop import Offcut, SheetPrice, Stock

STOCK = Stock(((2440, 1220), (3000, 1500)), 6500, 3, 10, "test")
METAL, OWNER = SHOP.material("5052-H32"), Ref("unit", "x")


def flat(a: float, b: float, name: str = "p", **more: object) -> Blank:
    return blank(SheetPart(name, OWNER, a, b, 2.0, METAL, **more))  # type: ignore[arg-type]


sizes = st.lists(
    st.tuples(st.integers(40, 1100), st.integers(40, 900), st.booleans()), min_size=1, max_size=30
)


@given(sizes, st.booleans())
def test_any_nesting_is_whole_and_no_better_than_its_bound(
    rows: list[tuple[int, int, bool]], shear: bool
) -> None:
    blanks = [flat(a, b, f"p{n}", grain=g) for n, (a, b, g) in enumerate(rows)]
    found = nest(blanks, STOCK, way=Way(1.0, shear), rounds=4)
    ((used, bound),) = found.bounds.values()
    assert used == sum(s.bought for s in found.sheets) >= bound >= 1
    placed = [p for s in found.sheets for p in s.placed]
    assert sorted(p.number for p in placed) == list(range(len(rows)))
    assert not any(p.turned and p.blank.part.grain for p in placed)
    for sheet in found.sheets:
        for x, y, a, b in sheet.left:
            # What is kept is free of everything, by a kerf.
            assert min(a, b) >= STOCK.least_offcut
            for p in sheet.placed:
                apart_ = max(p.x - x - a, x - p.x - p.length, p.y - y - b, y - p.y - p.width)
                assert apart_ >= 3 - 0.11
        if shear:
            assert whole_cuts([(p.x, p.y, p.x + p.length, p.y + p.width) for p in sheet.placed])


@given(
    st.lists(
        st.tuples(st.integers(1, 10), st.integers(1, 10), st.booleans()), min_size=1, max_size=9
    )
)
def test_no_packing_beats_the_bound_and_steps_never_make_it_worse(
    rows: list[tuple[int, int, bool]],
) -> None:
    pieces = [Piece(n, a, b, t) for n, (a, b, t) in enumerate(rows)]
    bound = fewest_bins([(float(a), float(b), t) for a, b, t in rows], (10.0, 10.0))
    assert bound >= math.ceil(sum(a * b for a, b, _t in rows) / 100 - 1e-9)
    for decode in (skyline, guillotine):
        search = Search(pieces, (10, 10), decode, bound)
        before = len(search.bins)
        for _ in range(6):
            search.step()
            assert bound <= len(search.bins) <= before
            before = len(search.bins)
        for one in search.bins:
            boxes = [(p.x, p.y, p.x + (q.high if p.turned else q.wide), p.y + (q.wide if p.turned else q.high))
                     for p in one for q in [pieces[p.number]]]  # fmt: skip
            assert all(x0 >= 0 and y0 >= 0 and x1 <= 10 and y1 <= 10 for x0, y0, x1, y1 in boxes)
            for a, b in itertools.combinations(boxes, 2):
                assert a[2] <= b[0] or b[2] <= a[0] or a[3] <= b[1] or b[3] <= a[1]
            if decode is guillotine:
                assert whole_cuts(boxes)


def test_bounds_by_hand() -> None:
    # Three of 6 × 6 in bins of 10: no two beside one another, where area says two.
    assert fewest_bins([(6, 6, True)] * 3, (10, 10)) == 3
    assert apart([(6, 6, True)] * 3, (10, 10)) == [0, 1, 2]
    # Four of 5 × 5 fill one bin.
    assert fewest_bins([(5, 5, False)] * 4, (10, 10)) == 1
    # 6 × 2 that may be turned go five into a bin; five of 6 × 4 stand two and two.
    assert fewest_bins([(6, 2, True)] * 5, (10, 10)) == 1
    assert together((6, 4, False), (6, 4, False), (10, 10))
    assert not together((6, 4, False), (6, 7, False), (10, 10))
    assert together((6, 4, True), (7, 6, True), (10, 10))


@given(st.lists(st.tuples(st.floats(30, 1000), st.integers(1, 4)), min_size=1, max_size=4))
def test_few_bars_are_as_few_as_any_search_finds(kinds: list[tuple[float, int]]) -> None:
    lengths = [x for x, n in kinds for _ in range(n)][:8]
    found = fewest(lengths, 1000.0, 3.0)
    assert found.bound <= len(found.rows) == _exhaustive(tuple(sorted(lengths, reverse=True)))
    for row in found.rows:
        assert sum(lengths[i] + 3 for i in row.pieces) <= 1003 + 1e-6


def _exhaustive(lengths: tuple[float, ...]) -> int:
    best = len(lengths)

    def walk(n: int, rooms: list[float]) -> None:
        nonlocal best
        if len(rooms) >= best:
            return
        if n == len(lengths):
            best = len(rooms)
            return
        for i, room in enumerate(rooms):
            if lengths[n] <= room + 1e-9:
                walk(n + 1, [*rooms[:i], room - lengths[n] - 3, *rooms[i + 1 :]])
        walk(n + 1, [*rooms, 1000 - lengths[n] - 3])

    walk(0, [])
    return best


@given(st.lists(st.tuples(st.integers(1, 20), st.integers(1, 15), st.integers(1, 3)), min_size=1, max_size=5),
       st.integers(5, 60))  # fmt: skip
def test_a_knapsack_is_filled_as_well_as_can_be(
    rows: list[tuple[int, int, int]], room: int
) -> None:
    import numpy as np

    values, sizes_, most = (np.array([r[n] for r in rows]) for n in range(3))
    taken, value, sure = knapsack(values.astype(float), sizes_.astype(float), most, float(room))
    assert sure
    best = max(
        sum(c * r[0] for c, r in zip(counts, rows, strict=True))
        for counts in itertools.product(*(range(r[2] + 1) for r in rows))
        if sum(c * r[1] for c, r in zip(counts, rows, strict=True)) <= room
    )
    assert value == pytest.approx(best)
    assert sum(c * r[1] for c, r in zip(taken, rows, strict=True)) <= room
    assert all(c <= r[2] for c, r in zip(taken, rows, strict=True))


def test_openings_are_cut_up_and_a_shear_leaves_them() -> None:
    wall = flat(2000, 1000, "wall", cutouts=(Cutout(200, 200, 1500, 700, 40.0),))
    small = [flat(300, 200, f"s{n}") for n in range(6)]
    found = nest([wall, *small], STOCK)
    (sheet,) = found.sheets
    assert {p.inside for p in sheet.placed if p.blank.part.name != "wall"} == {0}
    sheared = nest([wall, *small], STOCK, way=Way(1.0, shear=True))
    assert all(p.inside < 0 for s in sheared.sheets for p in s.placed)


def test_the_shops_offcuts_come_first_and_cost_nothing() -> None:
    others = Offcut("5052-H32", "3", 3000, 1500), Offcut("304", "2", 3000, 1500)
    stock = msgspec.structs.replace(STOCK, offcuts=(Offcut("5052-H32", "2", 700, 500), *others))
    found = nest([flat(600, 400)], stock)
    assert [(s.length, s.bought, s.price) for s in found.sheets] == [(700, False, 0.0)]
    assert list(found.bounds.values()) == [(0, 0)]
    two = nest([flat(600, 400), flat(600, 400)], stock)
    assert [s.bought for s in two.sheets] == [False, True]


def test_money_decides_between_sizes() -> None:
    dear = msgspec.structs.replace(STOCK, prices=(SheetPrice("5052-H32", 2.0, 2440, 1220, 500.0),))
    usual = nest([flat(500, 400)], STOCK)
    assert usual.sheets[0].length == 2440
    assert nest([flat(500, 400)], dear).sheets[0].length == 3000
    # Two small sheets' pieces on one large one, where that is cheaper.
    joined = nest([flat(1450, 1190), flat(1450, 1190)], STOCK)
    assert [s.length for s in joined.sheets] == [3000] or len(joined.sheets) == 2


def test_a_search_can_be_taken_at_any_time_and_does_not_get_dearer() -> None:
    chance = random.Random(4)
    blanks = [flat(chance.uniform(100, 900), chance.uniform(60, 500), f"p{n}") for n in range(50)]
    work = Nesting(blanks, STOCK)
    before = work.nest().price
    for _ in range(12):
        work.step()
    assert work.nest().price <= before * 1.35
    assert work.nest() == work.nest()


@given(
    st.lists(
        st.tuples(st.integers(0, 8), st.integers(0, 8), st.integers(1, 4), st.integers(1, 4)),
        max_size=5,
    )
)
def test_the_largest_free_rectangle_is_the_largest(rows: list[tuple[int, int, int, int]]) -> None:
    boxes = [(x, y, min(x + a, 9), min(y + b, 9)) for x, y, a, b in rows]
    taken = {(x, y) for x0, y0, x1, y1 in boxes for x in range(x0, x1) for y in range(y0, y1)}
    best = 0
    for x0, x1 in itertools.combinations(range(10), 2):
        for y0, y1 in itertools.combinations(range(10), 2):
            if (x1 - x0) * (y1 - y0) > best and not any(
                (x, y) in taken for x in range(x0, x1) for y in range(y0, y1)
            ):
                best = (x1 - x0) * (y1 - y0)
    x, y, a, b = largest_free(boxes, (9, 9))
    assert a * b == best
    assert not any((u, v) in taken for u in range(x, x + a) for v in range(y, y + b))


def test_bars_use_offcuts_first() -> None:
    from roomy_hull.core.parts import BarPart

    parts = [BarPart("b", OWNER, "40x40x3", 900.0, SHOP.material("6060-T5"), 3)]
    found = plan(parts, 6500, 3, (Offcut("6060-T5", "40x40x3", 2000.0),))  # type: ignore[arg-type]
    assert [(b.length, b.bought, len(b.pieces)) for b in found.bars] == [
        (2000.0, False, 2),
        (6500, True, 1),
    ]
    assert found.bounds == {"40x40x3 6060-T5": (1, 1)}


def test_without_sheets_or_too_large_is_told() -> None:
    with pytest.raises(InputError, match="larger than every stock sheet"):
        Nesting([flat(3100, 500)], STOCK)
    with pytest.raises(InputError, match="no size left"):
        Nesting([msgspec.structs.replace(flat(100, 100), length=0.0)], STOCK)
