"""Odd outlines on sheets: every piece once, checked, never more sheets; turning about is turning."""

import math
import random

import msgspec
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import affinity
from tests.builders import SHOP

from roomy_hull.core.errors import InputError
from roomy_hull.core.folded import Face
from roomy_hull.core.parts import SheetPart
from roomy_hull.core.refs import Ref
from roomy_hull.core.shapes import gusset
from roomy_hull.making.checked_layout import Lying, flaw, shape_of
from roomy_hull.making.cutlist import cut_list, shaped
from roomy_hull.making.flats import Blank, blank
from roomy_hull.making.nesting import nest
from roomy_hull.making.sheets import PlacedBlank
from roomy_hull.making.true_shape import Clump, area_bound, by_shape, hopeful, quarters
from roomy_hull.shop.shop import Stock

STOCK = Stock(((2440, 1220),), 6500, 3, 10, "test")
METAL, OWNER = SHOP.material("5052-H32"), Ref("unit", "x")


def part(shape: Face, name: str = "p", count: int = 1) -> SheetPart:
    return SheetPart(name, OWNER, 100, 100, 2.0, METAL, shape=shape, count=count)


def elbow(a: float, b: float, thick: float) -> Face:
    return Face(((0, 0), (a, 0), (a, thick), (thick, thick), (thick, b), (0, b)))


def test_triangles_go_two_on_the_place_of_one() -> None:
    # 12 right triangles of 1,150 × 560: a rectangle holds one, a sheet four rectangles; two of them make one rectangle.
    flats = [blank(part(gusset(1150, 560, 0.5), f"p{n}")) for n in range(12)]
    plain = nest(flats, STOCK)
    assert len(plain.sheets) == 3
    assert hopeful(plain, STOCK)
    fewer = by_shape(plain, STOCK)
    assert len(fewer.sheets) == 2 == area_bound(list(plain.sheets), STOCK)
    assert fewer.price == pytest.approx(plain.price * 2 / 3)
    assert sorted(p.number for s in fewer.sheets for p in s.placed) == list(range(12))
    for sheet in fewer.sheets:
        rows = [Lying(p.blank, p.x, p.y, p.turned, p.inside, p.about) for p in sheet.placed]
        assert flaw(rows, (2440, 1220), 10, 3) == ""
    assert any(p.about for s in fewer.sheets for p in s.placed)


@settings(max_examples=3)
@given(st.integers(0, 10_000))
def test_any_odd_outlines_are_all_there_and_checked(seed: int) -> None:
    chance = random.Random(seed)
    flats = []
    for n in range(12):
        a, b = chance.uniform(300, 1000), chance.uniform(300, 1000)
        shape = gusset(a, b, 1) if n % 2 else elbow(a, b, min(a, b) * chance.uniform(0.15, 0.4))
        flats.append(blank(part(shape, f"p{n}")))
    plain = nest(flats, STOCK)
    found = by_shape(plain, STOCK)
    assert area_bound(list(plain.sheets), STOCK) <= len(found.sheets) <= len(plain.sheets)
    assert sorted(p.number for s in found.sheets for p in s.placed) == list(range(12))
    for sheet in found.sheets:
        shapes = [shape_of(Lying(p.blank, p.x, p.y, p.turned, -1, p.about)) for p in sheet.placed]
        for n, one in enumerate(shapes):
            assert one.bounds[0] > 9.99
            assert one.bounds[2] < 2430.01
            assert all(one.distance(other) > 2.999 for other in shapes[:n])


@given(st.integers(0, 3), st.booleans(), st.booleans(), st.floats(-50, 500), st.floats(-50, 500))
def test_quarters_are_turns_about_the_origin(n: int, turned: bool, about: bool, x: float, y: float) -> None:  # fmt: skip
    one = blank(part(elbow(300, 200, 40)))
    long, wide = (one.width, one.length) if turned else (one.length, one.width)
    lies = PlacedBlank(one, 0, x, y, long, wide, turned, -1, about)
    was = shapely.Polygon([lies.at(p) for p in one.outline])
    (after,) = quarters(Clump((lies,)), n)
    now = shapely.Polygon([after.at(p) for p in one.outline])
    want = affinity.rotate(was, 90 * n, origin=(0, 0))
    assert now.symmetric_difference(want).area < 1e-3
    box = (after.x, after.y, after.x + after.length, after.y + after.width)
    assert now.bounds == pytest.approx(box, abs=1e-6)


def test_rectangles_and_what_is_stopped_stay_as_they_are() -> None:
    flats = [blank(SheetPart(f"p{n}", OWNER, 900, 700, 2.0, METAL)) for n in range(7)]
    plain = nest(flats, STOCK)
    assert not hopeful(plain, STOCK)
    assert by_shape(plain, STOCK) == plain
    odd: list[Blank] = [blank(part(gusset(1150, 560, 0.5), f"p{n}")) for n in range(12)]
    before = nest(odd, STOCK)
    assert by_shape(before, STOCK, lambda _share: False).sheets == before.sheets


def test_a_shear_cuts_no_shapes() -> None:
    shop = SHOP
    cut = cut_list([part(gusset(500, 300, 1), count=4)], STOCK)
    assert math.isclose(cut.nest.price, shaped(cut, shop).nest.price)
    cutter = shop.tools.cutter.__class__("shear", 0.1, 6.0, 0.5)
    sheared = msgspec.structs.replace(
        shop, tools=msgspec.structs.replace(shop.tools, cutter=cutter)
    )
    with pytest.raises(InputError, match="edge to edge"):
        shaped(cut, sheared)
