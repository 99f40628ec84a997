"""The small pieces everything stands on: doubt, frames, boxes, tables, errors, lazy modules."""

import math
import subprocess
import sys

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core import lazily
from roomy_hull.core.errors import InputError, UserError
from roomy_hull.core.geometry.frames import Frame
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.mechanics.plates import bending_stiffness, box_plate, coefficients, plate
from roomy_hull.core.shipped import shipped
from roomy_hull.core.uncertainty import RELATIVE_UNCERTAINTY, chance_over, source_of, uncertainty_of
from roomy_hull.core.value import Fraction, Value, put_back, set_aside
from roomy_hull.shop.shop import shipped_shop

mm = st.floats(-3000, 3000)


def test_uncertainty_follows_where_a_mass_is_known_from() -> None:
    assert uncertainty_of(100, "weighed") == pytest.approx(0.5)
    assert uncertainty_of(100, "data sheet") == pytest.approx(3)
    assert uncertainty_of(100, "geometry") == pytest.approx(5)
    assert uncertainty_of(-100, "estimate") == pytest.approx(15)


@pytest.mark.parametrize(
    ("z", "chance"), [(0.0, 0.5), (1.0, 0.158655), (1.644854, 0.05), (-2.0, 0.977250)]
)
def test_the_chance_over_a_limit_is_the_normal_tail(z: float, chance: float) -> None:
    # Standard normal table, upper tail.
    assert chance_over(1000, 20, 1000 + 20 * z) == pytest.approx(chance, abs=1e-6)


def test_without_uncertainty_the_chance_is_yes_or_no() -> None:
    assert chance_over(10, 0, 9) == 1.0
    assert chance_over(9, 0, 9) == 0.0


@given(mm, mm, mm, st.sampled_from(["left", "right", "rear"]), mm, mm, mm)
def test_a_frame_carries_a_point_there_and_back(
    x: float, y: float, z: float, side: str, u: float, v: float, w: float
) -> None:
    frame = Frame(x, y, z, side)  # type: ignore[arg-type]
    back = frame.local(*frame.point(u, v, w))
    assert back == pytest.approx((u, v, w), abs=1e-6)


@given(st.sampled_from(["left", "right", "rear"]), mm, mm, st.floats(1, 900), st.floats(1, 900))
def test_a_frame_keeps_a_box_the_right_way_round(
    side: str, u: float, v: float, a: float, b: float
) -> None:
    box = Frame(100, 200, 300, side).box(Box(u, v, 0, u + a, v + b, 50))  # type: ignore[arg-type]
    assert box.x0 < box.x1
    assert box.y0 < box.y1
    assert box.volume() == pytest.approx(a * b * 50)


def test_in_left_is_to_the_right_and_in_right_is_to_the_left() -> None:
    inward = Box(0, 0, 0, 10, 30, 10)
    assert Frame(0, -900, 0, "left").box(inward).y1 == -870
    assert Frame(0, 900, 0, "right").box(inward).y0 == 870
    assert Frame(3700, 0, 0, "rear").box(inward).x0 == 3670


def test_boxes_that_only_touch_share_nothing() -> None:
    a, b = Box(0, 0, 0, 10, 10, 10), Box(10, 0, 0, 20, 10, 10)
    assert a.common(b) is None
    assert a.common(b.moved(-1)) == Box(9, 0, 0, 10, 10, 10)
    assert hull([a, b]) == Box(0, 0, 0, 20, 10, 10)


def test_every_table_names_its_source_and_is_plausible() -> None:
    for key, metal in shipped_shop().materials.items():
        assert metal.source, key
        assert 500 < metal.density < 9000
        assert metal.welded_mpa <= metal.yield_mpa
        assert 0.3 <= metal.k_factor <= 0.5
    assert shipped_shop().stock.source
    assert shipped_shop().rules.source
    assert all(a > b > 1000 for a, b in shipped_shop().stock.sheets)


def test_an_error_says_place_what_and_remedy_on_one_line() -> None:
    assert str(InputError("it is wrong", "field", "Mend it.")) == "field: it is wrong. Mend it."
    assert str(UserError("it is wrong.")) == "it is wrong."


def test_a_lazy_module_is_the_module_itself() -> None:
    assert lazily.module("math") is math
    found = lazily.module("colorsys")
    assert found.rgb_to_hls(0, 0, 0) == (0, 0, 0)
    assert sys.modules["colorsys"] is found
    with pytest.raises(ModuleNotFoundError):
        lazily.module("no_such_module_here")


def test_shipped_files_are_there() -> None:
    assert shipped("fonts", "B612-Bold.otf")[:4] == b"OTTO"
    assert b"SIL OPEN FONT LICENSE" in shipped("fonts", "LICENCE-B612.txt")
    with pytest.raises(FileNotFoundError):
        shipped("nothing")


@given(
    st.floats(1, 900), st.sampled_from(sorted(RELATIVE_UNCERTAINTY)), st.sampled_from((1.0, -1.0))
)
def test_a_uncertainty_tells_where_the_mass_is_known_from(
    kg: float, source: str, sign: float
) -> None:
    assert source_of(sign * kg, uncertainty_of(kg, source)) == source
    assert source_of(0.0, 5.0) == "estimate"


@given(st.floats(1e-4, 0.05), st.floats(200, 900), st.floats(200, 2000), st.floats(0.8, 5))
def test_a_box_plates_sag_balances_bending_and_membrane(
    pressure: float, a: float, b: float, thickness: float
) -> None:
    # The root put back into Galerkin's cubic: q = w·D/(α·a⁴) + π⁶/256·(1 + r⁴)·E·t·w³/a⁴.
    young, short, long = 70_000.0, min(a, b), max(a, b)
    sag, stress = box_plate(pressure, a, b, thickness, young)
    alpha, beta = coefficients(round(long / short, 4))
    bends = sag * bending_stiffness(thickness, young) / (alpha * short**4)
    pulls = math.pi**6 / 256 * (1 + (short / long) ** 4) * young * thickness * sag**3 / short**4
    assert bends + pulls == pytest.approx(pressure, rel=1e-6)
    flat = plate(pressure, a, b, thickness, young)
    assert 0 < sag <= flat[0] * (1 + 1e-9)
    bent = 6 * beta * bends * short**2 / thickness**2
    assert stress == pytest.approx(bent + math.pi**2 / 8 * young * (sag / short) ** 2)


@pytest.mark.parametrize(
    ("ratio", "alpha"), [(1.0, 0.00406), (1.5, 0.00772), (2.0, 0.01013), (9.0, 0.01302)]
)
def test_plates_are_those_of_the_table(ratio: float, alpha: float) -> None:
    # Timoshenko and Woinowsky-Krieger, Theory of Plates and Shells, table 8 (from memory).
    assert coefficients(ratio)[0] == pytest.approx(alpha, abs=6e-6)


class Lid(Value, frozen=True):
    """Something with a share in it."""

    open: Fraction = 0.0
    parts: tuple[float, ...] = ()


def test_unknown_fields_are_set_aside_all_the_way_down_and_put_back() -> None:
    raw = {"open": 0.5, "colour": "red", "parts": [1.0, 2.5]}
    lid = msgspec.convert(set_aside(raw, Lid), Lid)
    assert (lid.open, lid.parts, lid.extra) == (0.5, (1.0, 2.5), {"colour": "red"})
    assert put_back(msgspec.to_builtins(lid)) == {"open": 0.5, "colour": "red", "parts": [1, 2.5]}
    assert put_back([{"extra": {"x": (1.0,)}, "y": (2.0, 2.5)}]) == [{"x": (1.0,), "y": [2, 2.5]}]


@pytest.mark.parametrize("share", [-0.01, 1.01, 1.5])
def test_a_share_is_between_nothing_and_all(share: float) -> None:
    with pytest.raises(msgspec.ValidationError):
        msgspec.convert({"open": share}, Lid)


def test_what_is_built_on_numpy_reads_it_first() -> None:
    # In a process of its own: read past its Python face, a lazy NumPy is left half made.
    code = (
        "from roomy_hull.core import lazily\n"
        "lazily.module('numpy')\n"
        "lazily.module('shapely').box(0, 0, 1, 1)\n"
        "import numpy, scipy.sparse\n"
        "print(numpy._core._multiarray_umath.__name__)\n"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=False)
    assert done.stdout.strip() == "numpy._core._multiarray_umath", done.stderr
