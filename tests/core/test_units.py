import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from roomy_hull.core.errors import InputError
from roomy_hull.core.units import exact, inches, parse, show, unit_word


@pytest.mark.parametrize(
    ("text", "mm"),
    [
        ("1986-2*38", 1910),
        ("1986 - 2 * 38", 1910),
        ("(1986-76)/2", 955),
        ("12", 12),
        ("1.5 m", 1500),
        ("3 cm + 4", 34),
        ("-40", -40),
        ("1 in", 25.4),
        ("3/4 in", 19.05),
        ('3/4"', 19.05),
        ("12 3/8 in", 314.325),
        ("12 3/8 in + 20 mm", 334.325),
        ("2 × 19", 38),
        ("1,986", 1986),
        ("2 ft", 609.6),
        ("900/2", 450),
    ],
)
def test_lengths_are_read_as_sums_in_millimetres(text: str, mm: float) -> None:
    assert parse(text) == pytest.approx(mm)


@pytest.mark.parametrize(
    ("text", "quantity", "system", "value"),
    [
        ("10", "length", "us", 254.0),
        ("3/4", "length", "us", 19.05),
        ("76 11/16", "length", "us", 1947.8625),
        ("10+20mm", "length", "us", 274.0),
        ("100", "mass", "us", 45.359237),
        ("100 lb", "mass", "metric", 45.359237),
        ("0.5 t", "mass", "metric", 500.0),
        ("10 gal", "volume", "metric", 37.85411784),
        ("90", "volume", "metric", 90.0),
        ("3", "number", "metric", 3.0),
    ],
)
def test_other_quantities_and_systems(text: str, quantity: str, system: str, value: float) -> None:
    assert parse(text, quantity, system) == pytest.approx(value)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "nothing was typed"),
        ("   ", "nothing was typed"),
        ("abc", "not a figure"),
        ("12 kg", "no unit of length"),
        ("1/0", "divides by zero"),
        ("5*", "not a figure"),
        ("2 mm * 3 mm", "not a figure"),
        ("1e999", "no unit of length"),
        ("nan", "not a figure"),
        ("__import__('os')", "not a figure"),
        ("9" * 121, "too long"),
        ("12 3/0 in", "divides by zero"),
    ],
)
def test_what_cannot_be_read_is_refused_in_words(text: str, words: str) -> None:
    with pytest.raises(InputError, match=words):
        parse(text)


@given(st.text(max_size=40))
def test_any_text_gives_a_finite_figure_or_an_input_error(text: str) -> None:
    try:
        value = parse(text)
    except InputError:
        return
    assert math.isfinite(value)


@given(st.floats(-20000, 20000))
def test_a_shown_length_reads_back_within_its_rounding(mm: float) -> None:
    assert parse(show(mm, "length")) == pytest.approx(mm, abs=0.51)
    assert parse(show(mm, "length", "us"), "length", "us") == pytest.approx(
        mm, abs=25.4 / 32 + 1e-6
    )


@pytest.mark.parametrize(
    ("mm", "text"),
    [(0, "0"), (25.4, "1"), (19.05, "3/4"), (1947.8625, "76 11/16"), (-12.7, "-1/2"), (0.1, "0")],
)
def test_inches_have_fractions_to_a_sixteenth(mm: float, text: str) -> None:
    assert inches(mm) == text


def test_figures_for_people() -> None:
    assert show(1986, "length") == "1,986 mm"
    assert show(12.34, "length") == "12.3 mm"
    assert show(-0.01, "length") == "0 mm"
    assert show(412, "mass", "us") == "908 lb"
    assert show(90, "volume", unit=False) == "90"
    assert unit_word("length", "us") == "in"


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("12,5", 12.5), ("0,125", 0.125), (",5", 0.5), ("1.234,5", 1234.5), ("1,234.5", 1234.5), ("1,986", 1986),
        ("1,986-2*38", 1910), ("12,345,678", 12345678), ("1234,567", 1234.567), ("3,5*2,25", 7.875), ("1,986mm", 1986),
        ("1,5 m", 1500),
    ],
)  # fmt: skip
def test_a_comma_is_understood_where_it_can_be_only_one_thing(text: str, value: float) -> None:
    assert parse(text) == pytest.approx(value)


@pytest.mark.parametrize(
    "text", ["1,2,3", "1.2.3", "1,23,456", "5,", "1.,5", "1,234 m", "1.23.456,7"]
)
def test_a_figure_that_could_mean_two_things_is_refused(text: str) -> None:
    with pytest.raises(InputError, match="not clear"):
        parse(text)


@given(
    st.floats(0.01, 99999).map(lambda x: round(x, 1)), st.sampled_from(("mass", "length", "volume"))
)
def test_what_the_program_writes_it_reads_again(value: float, quantity: str) -> None:
    shown = show(value, quantity)  # type: ignore[arg-type]
    assert parse(shown, quantity) == pytest.approx(value, abs=0.51)  # type: ignore[arg-type]
    # And as other hands write it: a decimal comma, points between thousands.
    there = shown.translate(str.maketrans(",.", ".,"))
    if "," in there:
        assert parse(there, quantity) == pytest.approx(value, abs=0.51)  # type: ignore[arg-type]


def test_next_to_nothing_is_no_figure() -> None:
    with pytest.raises(InputError, match="too small"):
        parse("0.0000001")
    assert parse("0") == 0


def test_sizes_to_cut_by_are_exact_in_either_system() -> None:
    assert exact(1108.84) == "1108.8"
    assert exact(1108.84, "us") == "43.655"
    assert exact(25.4, "us", unit=True) == "1.000 in"
    assert exact(2440, places=0, unit=True) == "2440 mm"
    assert exact(2440, "us", places=0) == "96.06"
