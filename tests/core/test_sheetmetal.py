import math

import pytest
from tests.builders import SHOP

from roomy_hull.core.errors import InputError
from roomy_hull.core.folded import Cutout, Hole
from roomy_hull.core.mechanics.bends import bend_allowance
from roomy_hull.core.parts import BarPart, SheetPart, section_area  # type: ignore[attr-defined]
from roomy_hull.core.refs import Ref


def plate(**changes: object) -> SheetPart:
    fields: dict[str, object] = {
        "name": "plate", "owner": Ref("unit", "x"), "length": 600.0, "width": 400.0, "thickness": 2.0,
        "material": SHOP.material("5052-H32"),
    }  # fmt: skip
    return SheetPart(**(fields | changes))  # type: ignore[arg-type]


def test_a_flat_plate_has_its_own_area_and_mass() -> None:
    part = plate()
    assert part.developed() == (600, 400)
    assert part.mass() == pytest.approx(0.6 * 0.4 * 0.002 * 2680)


def test_a_flange_adds_its_height_and_allowance_less_two_setbacks() -> None:
    part = plate(left=100.0)
    k, r, t = SHOP.material("5052-H32").k_factor, 3.0, 2.0
    expected = 600 + 100 + bend_allowance(90, r, t, k) - 2 * (r + t)
    assert part.developed()[0] == pytest.approx(expected)
    assert part.developed()[1] == 400


def test_a_box_loses_one_square_relief_at_each_corner() -> None:
    box = plate(left=100.0, right=100.0, front=100.0, back=100.0)
    flat = box.flange_flat(100.0)
    s = box.setback()
    corner = (flat + s) ** 2
    whole = (600 + 2 * flat) * (400 + 2 * flat)
    assert box.area() == pytest.approx(whole - 4 * corner)


def test_openings_and_holes_take_their_area_off() -> None:
    hole = plate(holes=(Hole(50, 50, 20),))
    assert plate().area() - hole.area() == pytest.approx(math.pi * 100)
    slot = plate(cutouts=(Cutout(100, 100, 200, 100, 10),))
    assert plate().area() - slot.area() == pytest.approx(200 * 100 - (4 - math.pi) * 100)


@pytest.mark.parametrize(
    ("section", "area"),
    [("40x40x3", 40**2 - 34**2), ("100x50x4", 100 * 50 - 92 * 42), ("25x3", 75)],
)
def test_section_areas_are_those_of_sharp_rectangles(section: str, area: float) -> None:
    assert section_area(section) == pytest.approx(area)


@pytest.mark.parametrize("section", ["", "40", "40x", "40x40x20", "0x3", "-4x4", "axb", "nanx3"])
def test_unreadable_sections_are_refused(section: str) -> None:
    with pytest.raises(InputError, match="cannot be read"):
        section_area(section)


def test_a_bar_weighs_its_section_times_its_length() -> None:
    bar = BarPart("post", Ref("unit", "x"), "40x40x3", 1000.0, SHOP.material("6060-T5"))
    assert bar.mass() == pytest.approx(444e-6 * 1.0 * 2700)


def test_an_unknown_material_lists_those_there_are() -> None:
    with pytest.raises(InputError, match="5052-H32"):
        SHOP.material("unobtainium")
