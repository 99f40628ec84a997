"""What a shop's stock takes, counted by hand, and what a press can hold."""

import pytest
from tests.builders import SHOP

from roomy_hull.core.folded import Hole
from roomy_hull.core.parts import BarPart, SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.making import bars, nesting
from roomy_hull.making.bounds import fewest_bins
from roomy_hull.making.checked_layout import Lying, flaw
from roomy_hull.making.flats import blank, hole_to_bend, least_flange
from roomy_hull.making.judge import flaws
from roomy_hull.shop.shop import Stock

OWNER, METAL, SHEET = Ref("unit", "x"), SHOP.material("6061-T6"), SHOP.material("5052-H32")
STOCK = Stock(((2440, 1220), (3000, 1500)), 6500, 3, 10, "test")


def part(length: float = 600, width: float = 400, t: float = 3.0, **more: float) -> SheetPart:
    return SheetPart("part", OWNER, length, width, t, SHEET, **more)  # type: ignore[arg-type]  # sizes


def piece(length: float, count: int = 1) -> BarPart:
    return BarPart("rail", OWNER, "40x40x3", length, METAL, count)


@pytest.mark.parametrize(
    ("length", "count", "used", "bound"),
    # A kerf follows every piece but the last of a bar: (3250 + 3)·2 over 6500 + 3 is just more than one.
    [
        (3250.0, 2, 2, 2),
        (3248.5, 2, 1, 1),
        (1622.75, 4, 1, 1),
        (1622.8, 4, 2, 2),
        (6500.0, 3, 3, 3),
    ],
)
def test_bars_and_their_bound_by_hand(length: float, count: int, used: int, bound: int) -> None:
    plan = bars.plan([piece(length, count)], 6500, 3)
    assert plan.bounds == {"40x40x3 6061-T6": (used, bound)}
    assert sum(len(b.pieces) for b in plan.bars) == count


def test_long_pieces_are_sawn_first() -> None:
    assert bars.first_fit([2000, 2000, 4400, 4400], 6500, 0) == [[2, 0], [3, 1]]
    assert bars.first_fit([3000, 3500, 3000, 3500], 6500, 0) == [[1, 0], [3, 2]]


def test_the_offcut_is_what_no_kerf_and_no_piece_took() -> None:
    (bar,) = bars.plan([piece(1000.0, 2)], 6500, 3).bars
    assert bar.offcut == 6500 - 2 * 1000 - 2 * 3


@pytest.mark.parametrize(
    ("side", "hole", "gap"),
    [
        ("left", (30, 200), 30 - 5), ("right", (570, 200), 30 - 5), ("front", (300, 25), 25 - 5),
        ("back", (300, 360), 40 - 5),
    ],
)  # fmt: skip
def test_a_hole_is_measured_from_the_bend_on_its_side(
    side: str, hole: tuple[float, float], gap: float
) -> None:
    one = part(holes=(Hole(*hole, 10),), **{side: 60.0})  # type: ignore[arg-type]
    assert hole_to_bend(one) == pytest.approx(gap - one.setback())


def test_a_press_holds_four_thicknesses_and_the_radius() -> None:
    assert least_flange(part()) == 4 * 3 + 4.5
    just = flaws((part(left=16.5),), STOCK)
    assert just == ()
    (short,) = flaws((part(left=16.4),), STOCK)
    assert (short.code, short.measured, short.limit) == ("making.flange", 16.4, 16.5)


def test_a_hole_keeps_two_thicknesses_and_the_radius_from_a_bend() -> None:
    # The base begins to bend 7.5 from the outside: 3 of sheet and 4.5 of radius; wanted are 2·3 + 4.5 more.
    for x, found in ((7.5 + 5 + 10.5, False), (7.5 + 5 + 10.4, True)):
        codes = {f.code for f in flaws((part(left=60.0, holes=(Hole(x, 200, 10),)),), STOCK)}  # type: ignore[arg-type]
        assert ("making.hole" in codes) == found
    (near,) = flaws((part(left=60.0, holes=(Hole(20, 200, 10),)),), STOCK)  # type: ignore[arg-type]
    assert near.limit == 10.5
    assert near.measured == pytest.approx(20 - 7.5 - 5)


def test_the_largest_sheet_less_its_trim_is_the_limit() -> None:
    (long,) = flaws((part(2990, 700),), STOCK)
    assert (long.measured, long.limit) == (2990, 2980)
    (wide,) = flaws((part(1600, 1490),), STOCK)
    assert (wide.measured, wide.limit) == (1490, 1480)
    assert flaws((part(2980, 1480),), STOCK) == ()


def test_the_share_used_and_the_mass_of_a_sheet() -> None:
    nest = nesting.nest([blank(part(1000, 600)), blank(part(1000, 600))], STOCK)
    (sheet,) = nest.sheets
    assert (sheet.length, sheet.width) == (2440, 1220)
    assert sheet.used() == pytest.approx(2 * 1000 * 600 / (2440 * 1220))
    assert sheet.mass() == pytest.approx(2.44 * 1.22 * 0.003 * 2680)


def test_the_size_with_the_least_sheet_is_taken() -> None:
    # Two of 1400 × 1400 want two sheets either way, and only the large one takes them.
    large = nesting.nest([blank(part(1400, 1400)), blank(part(1400, 1400))], STOCK)
    assert {(s.length, s.width) for s in large.sheets} == {(3000, 1500)}
    # Four of 1190 × 590 fill one small sheet; on the large one more would be left over.
    small = nesting.nest([blank(part(1190, 590)) for _ in range(4)], STOCK)
    assert [(s.length, s.width) for s in small.sheets] == [(2440, 1220)]
    # Nine of 980 × 480 fit one large sheet, and would want two small ones.
    nine = nesting.nest([blank(part(980, 480)) for _ in range(9)], STOCK)
    assert [(s.length, s.width) for s in nine.sheets] == [(3000, 1500)]


@pytest.mark.parametrize(("count", "bound"), [(1, 1), (4, 1), (5, 2), (8, 2), (9, 3)])
def test_the_bound_by_hand(count: int, bound: int) -> None:
    # (2420 + 3)·(1200 + 3) over (1208.5 + 3)·(598.5 + 3) is four exactly.
    sizes = [(1211.5, 601.5, True)] * count
    assert fewest_bins(sizes, (2423.0, 1203.0)) == bound


def test_progress_goes_from_nothing_to_all() -> None:
    told: list[float] = []
    # Three of 1400 × 700 want more than one sheet, and two are enough by area only: it is tried for long.
    groups = [blank(part(1400, 700, t)) for t in (2.0, 3.0) for _ in range(3)]
    nesting.nest(groups, STOCK, lambda share: told.append(share) is None, rounds=4)  # type: ignore[func-returns-value]
    assert told == sorted(told)
    assert told[-1] == 1


def test_an_edge_trim_and_a_kerf_are_kept_to_the_last_digit() -> None:
    one = blank(part(600, 400))

    def told(x: float, y: float) -> str:
        rows = [Lying(one, 10, 10, turned=False), Lying(one, x, y, turned=False)]
        return flaw(rows, (2440.0, 1220.0), 10, 3)

    assert told(1830, 810) == ""
    for x, y in ((1830.2, 810), (1830, 810.2), (9.8, 810), (1830, 9.8)):
        assert "edge trim" in told(x, y)
