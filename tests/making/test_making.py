import math

import msgspec
import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import SHOP

from roomy_hull.core.errors import GivenUp, InputError
from roomy_hull.core.folded import Cutout, Hole
from roomy_hull.core.parts import BarPart, Hardware, SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.making import bars, nesting
from roomy_hull.making.checked_layout import Lying, flaw
from roomy_hull.making.cost import cost
from roomy_hull.making.cutlist import cut_list
from roomy_hull.making.flats import Blank, blank, fits, hole_to_bend, least_flange
from roomy_hull.making.judge import flaws
from roomy_hull.shop.shop import Prices, Stock
from roomy_hull.verdict.verdict import Verdict

OWNER, METAL = Ref("unit", "x"), SHOP.material("6061-T6")
STOCK = Stock(((2440, 1220), (3000, 1500)), 6500, 3, 10, "test")


def part(length: float = 600, width: float = 400, **changes: object) -> SheetPart:
    fields: dict[str, object] = {
        "name": "part", "owner": OWNER, "length": length, "width": width, "thickness": 2.0,
        "material": SHOP.material("5052-H32"),
    }  # fmt: skip
    return SheetPart(**(fields | changes))  # type: ignore[arg-type]


def polygon_area(points: tuple[tuple[float, float], ...]) -> float:
    pairs = zip(points, points[1:] + points[:1], strict=True)
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in pairs) / 2


flange = st.sampled_from([0.0, 20.0, 60.0, 150.0])


@given(st.floats(200, 900), st.floats(200, 900), flange, flange, flange, flange)
def test_a_blanks_outline_has_its_parts_area_and_runs_counter_clockwise(
    a: float, b: float, left: float, right: float, front: float, back: float
) -> None:
    one = part(a, b, left=left, right=right, front=front, back=back)
    flat = blank(one)
    assert polygon_area(flat.outline) == pytest.approx(one.area())
    assert (flat.length, flat.width) == pytest.approx(one.developed())
    assert all(
        -1e-9 <= x <= flat.length + 1e-9 and -1e-9 <= y <= flat.width + 1e-9
        for x, y in flat.outline
    )
    assert len(flat.bends) == sum(f > 0 for f in (left, right, front, back))


@given(st.floats(200, 900), st.floats(200, 900), flange, flange, flange, flange)
def test_a_bend_runs_from_one_edge_of_its_blank_to_the_other(
    a: float, b: float, left: float, right: float, front: float, back: float
) -> None:
    flat = blank(part(a, b, left=left, right=right, front=front, back=back))
    outline = shapely.Polygon(flat.outline)
    assert len(flat.bends) == sum(f > 0 for f in (left, right, front, back))
    for bend in flat.bends:
        line = shapely.LineString([bend.a, bend.b])
        assert line.difference(outline.buffer(1e-6)).is_empty
        assert all(outline.exterior.distance(shapely.Point(p)) < 1e-6 for p in (bend.a, bend.b))
        assert outline.exterior.distance(line.centroid) > 1


def test_a_bend_lies_half_its_allowance_inside_the_bend_start() -> None:
    one = part(left=100.0)
    flat = blank(one)
    bend = flat.bends[0]
    allowance = math.pi / 2 * (3 + 0.44 * 2)
    # From the blank's left edge: the straight leg 100 - (R + T), then half the allowance.
    assert bend.a[0] == pytest.approx(100 - 5 + allowance / 2)
    assert bend.a[0] == bend.b[0]
    assert sorted((bend.a[1], bend.b[1])) == [0, 400]


def test_openings_move_with_the_base() -> None:
    one = part(left=100.0, holes=(Hole(50, 60, 8),), cutouts=(Cutout(200, 100, 50, 40),))
    flat = blank(one)
    shift = one.flange_flat(100.0)
    assert (flat.holes[0].x, flat.holes[0].y) == pytest.approx((50 + shift, 60))
    assert flat.cutouts[0].x == pytest.approx(200 + shift)


def test_the_nearest_hole_to_a_bend_counts() -> None:
    assert hole_to_bend(part(holes=(Hole(9, 9, 8),))) is None
    one = part(left=50.0, holes=(Hole(20, 200, 8), Hole(40, 200, 8)))
    assert hole_to_bend(one) == pytest.approx(20 - 5 - 4)


def test_what_cannot_be_made_is_found() -> None:
    short = part(left=8.0)
    assert least_flange(short) == 11
    near = part(left=50.0, holes=(Hole(12, 200, 8),))
    large = part(3200, 1000)
    wide = part(1600, 1550)
    long = BarPart("rail", OWNER, "40x40x3", 7000, SHOP.material("6061-T6"))
    codes = {
        name: [(f.code, f.severity) for f in flaws((p,), STOCK)]
        for name, p in (("short", short), ("near", near), ("large", large), ("wide", wide), ("long", long),
                        ("good", part(left=50.0)), ("bought", Hardware("slides", OWNER)))
    }  # fmt: skip
    assert codes == {
        "short": [("making.flange", "look")], "near": [("making.hole", "look")],
        "large": [("making.sheet_stock", "stop")], "wide": [("making.sheet_stock", "stop")],
        "long": [("making.bar_stock", "stop")], "good": [], "bought": [],
    }  # fmt: skip
    assert flaws((wide,), STOCK)[0].measured == pytest.approx(1550)
    assert flaws((large,), STOCK)[0].measured == pytest.approx(3200)


def test_grain_keeps_a_blank_from_turning() -> None:
    assert fits(blank(part(1400, 2900)), (3000, 1500), 10)
    assert not fits(blank(part(1400, 2900, grain=True)), (3000, 1500), 10)


sizes = st.lists(st.tuples(st.integers(60, 1100), st.integers(60, 900)), min_size=1, max_size=25)


@given(sizes)
def test_every_nesting_is_valid_and_no_better_than_its_bound(pieces: list[tuple[int, int]]) -> None:
    blanks = [blank(part(float(a), float(b), name=f"p{n}")) for n, (a, b) in enumerate(pieces)]
    nest = nesting.nest(blanks, STOCK)
    ((used, bound),) = nest.bounds.values()
    assert len(nest.sheets) == used >= bound >= 1
    placed = [p for s in nest.sheets for p in s.placed]
    assert len(placed) == len(pieces)
    for sheet in nest.sheets:
        assert 0 < sheet.used() <= 1
        for n, p in enumerate(sheet.placed):
            assert p.x >= 10 - 1e-6
            assert p.x + p.length <= sheet.length - 10 + 1e-6
            for q in sheet.placed[n + 1 :]:
                apart = max(q.x - p.x - p.length, p.x - q.x - q.length,
                            q.y - p.y - p.width, p.y - q.y - q.width)  # fmt: skip
                assert apart >= 3 - 1e-6


def test_exact_fits_fit() -> None:
    # Two blanks of 1208.5 × 1200 with a kerf of 3 and trims of 10 fill 2440 × 1220 exactly.
    blanks = [blank(part(1208.5, 1200.0)) for _ in range(2)]
    shop = Stock(((2440, 1220),), 6500, 3, 10, "test")
    assert len(nesting.nest(blanks, shop).sheets) == 1
    slightly = [blank(part(1208.6, 1200.0)) for _ in range(2)]
    assert len(nesting.nest(slightly, shop).sheets) == 2


def test_a_blank_that_no_sheet_takes_is_named() -> None:
    with pytest.raises(InputError, match="part: the blank of 3200 × 1000 mm is larger"):
        nesting.nest([blank(part(3200, 1000))], STOCK)


def test_a_packing_that_is_wrong_is_told() -> None:
    one = blank(part())

    def told(*places: tuple[float, float]) -> str:
        return flaw([Lying(one, x, y, turned=False) for x, y in places], (2440.0, 1220.0), 10, 3)

    assert told((10, 10), (613, 10)) == ""
    assert "too near" in told((10, 10), (612, 10))
    assert "edge trim" in told((9, 10), (700, 10))
    assert "edge trim" in told((10, 10), (1900, 10))


def test_nesting_can_be_given_up() -> None:
    with pytest.raises(GivenUp):
        nesting.nest([blank(part())], STOCK, lambda _share: False)


@given(st.lists(st.integers(50, 6500), min_size=1, max_size=40))
def test_bars_hold_their_pieces_and_no_better_than_the_bound(lengths: list[int]) -> None:
    parts = [BarPart(f"b{n}", OWNER, "40x40x3", float(v), METAL) for n, v in enumerate(lengths)]
    plan = bars.plan(parts, 6500, 3)  # type: ignore[arg-type]
    ((used, bound),) = plan.bounds.values()
    assert len(plan.bars) == used >= bound
    assert sorted(v for b in plan.bars for _n, v, _e in b.pieces) == sorted(map(float, lengths))
    for bar in plan.bars:
        need = sum(v for _n, v, _e in bar.pieces) + 3 * (len(bar.pieces) - 1)
        assert need <= 6500 + 1e-6
        assert bar.offcut == pytest.approx(max(0.0, 6500 - need - 3), abs=1e-6)


def test_sections_and_metals_are_sawn_apart_and_counts_count() -> None:
    parts = [
        BarPart("a", OWNER, "40x40x3", 3000, METAL, 3),
        BarPart("b", OWNER, "40x40x3", 3000, SHOP.material("6060-T5"), 1),
        BarPart("c", OWNER, "30x30x3", 3000, SHOP.material("6060-T5"), 1),
    ]
    plan = bars.plan(parts, 6500, 3)  # type: ignore[arg-type]
    assert {k: v[0] for k, v in plan.bounds.items()} == {
        "40x40x3 6061-T6": 2, "40x40x3 6060-T5": 1, "30x30x3 6060-T5": 1,
    }  # fmt: skip
    with pytest.raises(InputError, match="longer than the stock bar"):
        bars.plan([BarPart("long", OWNER, "40x40x3", 6501, METAL)], 6500, 3)


def test_the_demos_cut_is_whole(demo_verdict: Verdict) -> None:
    parts = demo_verdict.assembly.parts()
    cut = cut_list(parts, SHOP.stock)
    wanted = sum(p.count for p in parts if isinstance(p, SheetPart))
    assert sum(len(s.placed) for s in cut.nest.sheets) == wanted
    assert sum(len(b.pieces) for b in cut.bars.bars) == sum(
        p.count for p in parts if isinstance(p, BarPart)
    )
    assert all(isinstance(b, Blank) for b in cut.blanks)
    assert all(used <= 2 * bound for used, bound in cut.nest.bounds.values())
    assert SHOP.stock.sheets


def test_a_blank_without_size_is_a_stop_and_not_nested() -> None:
    part = SheetPart("Box: floor", OWNER, 200.0, -12.0, 2.0, SHOP.material("5052-H32"))
    assert [(f.code, f.severity) for f in flaws((part,), STOCK)] == [("making.nothing", "stop")]
    with pytest.raises(InputError, match="no size left"):
        cut_list([part], STOCK)


@pytest.mark.parametrize("side", ["left", "right", "front", "back"])
def test_a_bend_lies_on_the_side_of_its_flange(side: str) -> None:
    flat = blank(part(**{side: 100.0}))
    allowance = math.pi / 2 * (3 + 0.44 * 2)
    near = 100 - 5 + allowance / 2
    bend = flat.bends[0]
    assert len(flat.bends) == 1
    at = {
        "left": (near, near), "right": (flat.length - near,) * 2, "front": (near, near),
        "back": (flat.width - near,) * 2,
    }[side]  # fmt: skip
    axis = 0 if side in ("left", "right") else 1
    assert (bend.a[axis], bend.b[axis]) == pytest.approx(at)
    assert {bend.a[1 - axis], bend.b[1 - axis]} == {0, (flat.width, flat.length)[axis]}


def test_every_figure_of_the_cost_counts_every_piece() -> None:
    one = part(
        left=100.0, right=50.0, holes=(Hole(30, 30, 10),), cutouts=(Cutout(200, 100, 50, 40),)
    )
    flat = blank(one)
    edge = sum(
        math.dist(a, b)
        for a, b in zip(flat.outline, flat.outline[1:] + flat.outline[:1], strict=True)
    )
    edge += math.pi * 10 + 2 * (50 + 40)
    prices = Prices(2.0, 3.0, 5.0, 7.0, 11.0, 0.0, "test", pierce=0.0)
    for count in (1, 3):
        rows = [msgspec.structs.replace(one, count=count), Hardware("slides", OWNER, count),
                BarPart("rail", OWNER, "40x40x3", 1000.0, METAL, count)]  # fmt: skip
        found = cost(rows, prices)  # type: ignore[arg-type]
        assert found.sheet == pytest.approx(2 * one.mass() * count)
        assert found.bar == pytest.approx(3 * 444e-6 * 2700 * count)
        assert found.hardware == 5 * count
        assert found.cutting == pytest.approx(7 * edge / 1000 * count)
        assert found.bending == 11 * 2 * count
        assert found.total == pytest.approx(
            found.sheet + found.bar + 5 * count + found.cutting + 22 * count
        )


def test_the_shop_judges_by_its_own_stock() -> None:
    just, over = part(2420.0, 1200.0), part(2420.2, 1200.2)
    assert not [f for f in flaws((just,), STOCK) if f.code == "making.sheet_stock"]
    small = Stock(((2440, 1220),), 6500, 3, 10, "test")
    assert [f.measured for f in flaws((over,), small)] == pytest.approx([2420.2])
    assert flaws((BarPart("b", OWNER, "40x40x3", 6500.0, METAL),), STOCK) == ()
    assert flaws((BarPart("b", OWNER, "40x40x3", 6500.1, METAL),), STOCK)[0].limit == 6500
