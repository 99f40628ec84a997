"""What is etched stands on metal, within its outline, whatever is cut out; turned, it is still read."""

import itertools

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import SHOP

from roomy_hull.core.folded import Cutout
from roomy_hull.core.parts import SheetPart
from roomy_hull.core.primitives import Words
from roomy_hull.core.refs import Ref
from roomy_hull.core.shapes import gusset
from roomy_hull.drawing.scenes.cut import placed_strokes
from roomy_hull.drawing.scenes.etching import LETTER, LINE, etched, metal_of
from roomy_hull.making.flats import Blank, blank
from roomy_hull.making.sheets import PlacedBlank

METAL, OWNER = SHOP.material("5052-H32"), Ref("unit", "x")


def block(words: list[Words]) -> shapely.Geometry:
    """Around all lines of what is etched. [mm]"""
    long = max(len(w.text) for w in words) * words[0].size * LETTER / 2
    high = words[0].size * LINE / 2
    if words[0].upright:
        long, high = high, long
    boxes = [shapely.box(x - long, y - high, x + long, y + high) for x, y in (w.at for w in words)]
    return shapely.unary_union(boxes).buffer(-0.01)


@given(st.floats(400, 1500), st.floats(400, 1200), st.floats(40, 150))
def test_a_frames_words_stand_on_its_rim(a: float, b: float, rim: float) -> None:
    hole = Cutout(rim, rim, a - 2 * rim, b - 2 * rim)
    one = blank(SheetPart("Canopy: wall", OWNER, a, b, 2.0, METAL, cutouts=(hole,)))
    words = etched(one)
    assert metal_of(one).contains(block(words))
    assert words[0].size >= 4 * 0.3


def test_a_gussets_words_stand_in_its_corner_and_a_plain_ones_in_the_middle() -> None:
    slim = blank(SheetPart("G", OWNER, 400, 400, 2.0, METAL, shape=gusset(400, 400, 0)))
    assert metal_of(slim).contains(block(etched(slim)))
    plain = blank(SheetPart("P", OWNER, 400, 300, 2.0, METAL))
    assert etched(plain)[0].at[0] == pytest.approx(200)
    assert sum(w.at[1] for w in etched(plain)) / len(etched(plain)) == pytest.approx(150)


@pytest.mark.parametrize(("turned", "about"), list(itertools.product((False, True), repeat=2)))
def test_words_are_read_in_their_order_however_a_blank_lies(turned: bool, about: bool) -> None:  # fmt: skip
    hole = Cutout(40, 40, 700, 420)
    flats: list[Blank] = [
        blank(SheetPart("Wall", OWNER, 780, 500, 2.0, METAL, cutouts=(hole,))),
        blank(SheetPart("Plate", OWNER, 500, 300, 2.0, METAL)),
    ]
    for one in flats:
        size = (one.width, one.length) if turned else (one.length, one.width)
        scene = placed_strokes(PlacedBlank(one, 0, 100, 50, *size, turned, -1, about))
        words = [s for s in scene if isinstance(s, Words)]
        first, last = words[0], words[-1]
        # From above down, or, upright, from the left to the right.
        assert first.at[0] < last.at[0] if first.upright else first.at[1] > last.at[1]
        inside = shapely.box(100, 50, 100 + size[0], 50 + size[1])
        assert inside.contains(block(words))
