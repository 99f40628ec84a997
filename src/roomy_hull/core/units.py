"""Typed and displayed figures: sums, metric and US customary. Inside, always mm, kg and litres."""

import math
import re
from typing import Literal

from roomy_hull.core.errors import InputError

System = Literal["metric", "us"]
Quantity = Literal["length", "mass", "volume", "number"]

MM_PER_INCH = 25.4
KG_PER_POUND = 0.45359237
LITRE_PER_US_GALLON = 3.785411784
G = 9.80665
"""Standard gravity. [m/s²]"""

LEAST = 1e-6
"""No typed figure but 0 is smaller than this."""

_FACTOR: dict[str, dict[str, float]] = {
    "length": {
        "mm": 1.0, "cm": 10.0, "m": 1000.0, "in": MM_PER_INCH, '"': MM_PER_INCH,
        "ft": 12 * MM_PER_INCH, "'": 12 * MM_PER_INCH,
    },
    "mass": {"kg": 1.0, "g": 0.001, "t": 1000.0, "lb": KG_PER_POUND, "lbs": KG_PER_POUND},
    "volume": {"l": 1.0, "ml": 0.001, "gal": LITRE_PER_US_GALLON},
    "number": {},
}  # fmt: skip
_OWN_UNIT = {
    "metric": {"length": "mm", "mass": "kg", "volume": "l", "number": ""},
    "us": {"length": "in", "mass": "lb", "volume": "gal", "number": ""},
}
_TERM = (
    r"(?P<whole>\d+)\s+(?P<num>\d+)/(?P<den>\d+)(?P<unit1>\s*(?:[a-zA-Z]+|\"|'))?"
    r"|(?P<num2>\d+)/(?P<den2>\d+)(?P<unit3>\s*(?:in\b|\"))"
    r"|(?P<value>\d+\.?\d*|\.\d+)(?P<unit2>\s*(?:[a-zA-Z]+|\"|'))?"
)


def unit_word(quantity: Quantity, system: System) -> str:
    """The unit in which a quantity is shown and typed when none is written."""
    return _OWN_UNIT[system][quantity]


_GROUPED = r"[1-9]\d{0,2}(?:,\d{3})+(?:\.\d+)?"
_LARGE = frozenset({"m", "t", "ft", "'"})
"""Units in which a figure with a thousand's comma is hardly meant."""


def _pointed(text: str) -> str:
    """Write every figure with a decimal point and no other sign: ``12,5`` and ``1.234,5`` too.

    A comma before groups of three, as the program itself writes them, parts thousands; any other comma is a decimal
    one, where it can be only that.

    Raises:
        InputError: A figure could mean two things.
    """

    def plain(match: re.Match[str]) -> str:
        figure, unit = match["figure"], match["unit"] or ""
        if "," not in figure:
            if figure.count(".") > 1:
                raise _unclear(figure)
            return match[0]
        if re.fullmatch(_GROUPED, figure):
            if "." not in figure and figure.count(",") == 1 and unit.strip().lower() in _LARGE:
                raise _unclear(figure)
            return figure.replace(",", "") + unit
        if figure.count(",") == 1 and re.fullmatch(r"\d*(?:\.\d{3})*,\d+", figure):
            whole, _comma, part = figure.partition(",")
            if "." in whole and not re.fullmatch(r"[1-9]\d{0,2}(?:\.\d{3})+", whole):
                raise _unclear(figure)
            return f"{whole.replace('.', '') or '0'}.{part}{unit}"
        raise _unclear(figure)

    return re.sub(r"(?P<figure>[\d.,]*\d[\d.,]*)(?P<unit>\s*(?:[a-zA-Z]+|'))?", plain, text)


def _unclear(figure: str) -> InputError:
    """Refuse a figure whose points and commas could mean two things."""
    return InputError(
        "it is not clear what its points and commas mean",
        f"'{figure}'",
        "Write 1234.5, or 1,234.5.",
    )


def parse(text: str, quantity: Quantity = "length", system: System = "metric") -> float:
    """Read a typed figure, which may be a sum such as ``1986-2*38`` or ``12 3/8 in + 20 mm``.

    Args:
        text: What was typed. A figure without a unit has the unit of `system`; a factor of a product has none.
        quantity: ``length``, ``mass``, ``volume`` or ``number``.
        system: ``metric`` or ``us``.
    Returns: Finite value. [mm, kg, l or 1]
    Raises:
        InputError: The text is no figure or sum, names a foreign unit, divides by zero, or is not finite.
    """
    own = _OWN_UNIT[system][quantity]
    factors = _FACTOR[quantity]

    def plain(match: re.Match[str]) -> str:
        part = match.groupdict()
        unit = (part["unit1"] or part["unit2"] or part["unit3"] or "").strip().lower()
        if part["whole"]:
            den = float(part["den"])
            value = float(part["whole"]) + (float(part["num"]) / den if den else math.nan)
        elif part["num2"]:
            den = float(part["den2"])
            value = float(part["num2"]) / den if den else math.nan
        else:
            value = float(part["value"])
        if not unit:
            return repr(value) if math.isfinite(value) else "(1/0)"
        if unit not in factors:
            raise InputError(
                f"'{unit}' is no unit of {quantity}",
                place=f"'{text.strip()}'",
                remedy=f"Use {', '.join(k for k in factors if k.isalpha()) or 'a plain number'}.",
            )
        return f"({value * factors[unit]!r}j)" if math.isfinite(value) else "(1/0)"

    from roomy_hull.core.sums import evaluated  # ruff: ignore[import-outside-top-level]  # a parser, needed at the first typed figure

    if len(text) > 120:
        raise InputError("the sum is too long", remedy="Type at most 120 characters.")
    tidy = _pointed(text.strip().replace("×", "*").replace("\N{MINUS SIGN}", "-"))
    if not tidy:
        raise InputError("nothing was typed", remedy="Type a figure or a sum like 1986-2*38.")
    try:
        value, has_unit = evaluated(re.sub(_TERM, plain, tidy), factors.get(own, 1.0))
    except ZeroDivisionError:
        raise InputError(
            "the sum divides by zero", place=f"'{text.strip()}'", remedy="Mend the divisor."
        ) from None
    except (SyntaxError, ValueError, RecursionError, MemoryError, OverflowError):
        raise InputError(
            "this is not a figure or a sum",
            place=f"'{text.strip()}'",
            remedy="Type a figure or a sum like 1986-2*38.",
        ) from None
    if not has_unit:
        value *= factors.get(own, 1.0)
    return _meant(value, text.strip())


def _meant(value: float, text: str) -> float:
    """Refuse a figure that nobody can mean."""
    if 0 < abs(value) < LEAST:
        raise InputError("the figure is too small to mean anything", f"'{text}'", "Type 0.")
    if not math.isfinite(value):
        raise InputError("the figure is not finite", place=f"'{text}'", remedy="Mend it.")
    return value


def inches(mm: float) -> str:
    """A length in inches with a fraction to 1/16, as ``76 11/16``."""
    sixteenths = round(abs(mm) / MM_PER_INCH * 16)
    whole, rest = divmod(sixteenths, 16)
    sign = "-" if mm < 0 and sixteenths else ""
    if not rest:
        return f"{sign}{whole}"
    part = math.gcd(rest, 16)
    head = f"{whole} " if whole else ""
    return f"{sign}{head}{rest // part}/{16 // part}"


def exact(mm: float, system: System = "metric", *, unit: bool = False, places: int = 1) -> str:
    """A size to cut and bend by: to a tenth of a millimetre, or to a thousandth of an inch.

    Args:
        mm: The size. [mm]
        system: ``metric`` or ``us``.
        unit: Whether the unit is written behind it.
        places: Of millimetres; inches have two more.
    Returns: For example ``1108.8``, ``43.654``, ``1108.8 mm``.
    """
    text = f"{mm:.{places}f}" if system == "metric" else f"{mm / MM_PER_INCH:.{places + 2}f}"
    return f"{text} {unit_word('length', system)}" if unit else text


def show(value: float, quantity: Quantity, system: System = "metric", *, unit: bool = True) -> str:
    """Write a figure for people.

    Args:
        value: Value. [mm, kg, l or 1]
        quantity: ``length``, ``mass``, ``volume`` or ``number``.
        system: ``metric`` or ``us``.
        unit: Whether the unit is written behind it.
    Returns: For example ``1,986 mm``, ``76 11/16 in``, ``412 kg``.
    """
    word = _OWN_UNIT[system][quantity]
    if quantity == "length" and system == "us":
        text = inches(value)
    else:
        if word:
            value /= _FACTOR[quantity][word]
        places = 0 if abs(value) >= 100 or abs(value - round(value)) < 0.05 else 1
        text = f"{value:,.{places}f}"
        if text in ("-0", "-0.0"):
            text = text[1:]
    return f"{text} {word}" if unit and word else text


def rounded(value: float, places: int = 3) -> float:
    """Round for a file, so that files compare; never minus nought."""
    return round(value, places) + 0.0


def rounded_if_finite(value: float, places: int = 3) -> float | None:
    """Round for a file; nothing for what never ends."""
    return round(value, places) if math.isfinite(value) else None
