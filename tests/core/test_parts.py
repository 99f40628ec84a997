"""A sheet part's flat, area and mass, from its folded sizes by hand and by a union of rectangles."""

import math

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from tests.builders import SHOP

from roomy_hull.core.folded import Cutout, Hole
from roomy_hull.core.parts import SheetPart
from roomy_hull.core.refs import Ref

METAL = SHOP.material("5052-H32")
flange = st.one_of(st.just(0.0), st.floats(20, 120))


def part(**sizes: object) -> SheetPart:
    return SheetPart("pan", Ref("unit", "u"), thickness=2.0, material=METAL, **sizes)  # type: ignore[arg-type]


def test_the_flat_of_a_pan_is_its_legs_and_its_bends() -> None:
    # Machinery's Handbook: BA = A·π/180·(R + K·T); legs are measured to the tangent points.
    pan = part(length=400.0, width=300.0, left=40.0, right=60.0, front=30.0)
    inside, t = METAL.bend_radius_per_t * 2.0, 2.0
    allowance = math.pi / 2 * (inside + METAL.k_factor * t)
    back = inside + t
    length = (40 - back) + allowance + (400 - 2 * back) + allowance + (60 - back)
    width = (30 - back) + allowance + (300 - back)
    assert pan.developed() == pytest.approx((length, width))


@given(st.floats(250, 900), st.floats(250, 900), flange, flange, flange, flange)
def test_the_area_is_that_of_its_rectangles(
    length: float, width: float, left: float, right: float, front: float, back: float
) -> None:
    holes = (Hole(60.0, 60.0, 8.0), Hole(150.0, 150.0, 20.0))
    cut = Cutout(100.0, 80.0, 40.0, 30.0, 5.0)
    one = part(length=length, width=width, left=left, right=right, front=front, back=back,
               holes=holes, cutouts=(cut,))  # fmt: skip
    s = one.setback()
    x0, x1, y0, y1 = (one.flange_flat(h) for h in (left, right, front, back))
    flanges = [
        shapely.box(-x0, s if front else 0, 0, width - (s if back else 0)),
        shapely.box(length, s if front else 0, length + x1, width - (s if back else 0)),
        shapely.box(s if left else 0, -y0, length - (s if right else 0), 0),
        shapely.box(s if left else 0, width, length - (s if right else 0), width + y1),
    ]
    reliefs = [
        shapely.box(x, y, x + s, y + s)
        for x, a in ((0, left), (length - s, right))
        for y, b in ((0, front), (width - s, back))
        if a and b
    ]
    flat = shapely.union_all([shapely.box(0, 0, length, width), *flanges]) - shapely.union_all(
        reliefs
    )
    openings = sum(math.pi * h.diameter**2 / 4 for h in holes)
    openings += cut.length * cut.width - (4 - math.pi) * cut.radius**2
    assert one.area() == pytest.approx(flat.area - openings, rel=1e-9)
    assert one.mass() == pytest.approx(one.area() * 2.0 * METAL.density * 1e-9)
