"""Fields as they are written and read: a figure or a sum in the person's units, a choice, several words."""

from roomy_hull.core.card import LISTED, Field
from roomy_hull.core.errors import InputError
from roomy_hull.core.units import Quantity, System, parse, show
from roomy_hull.kinds.own import Group
from roomy_hull.session.typed_boxes import (
    NONE,
    box_words,
    group_words,
    plain_length,
    typed_boxes,
    typed_groups,
)

_WORDS = ("text", "choice", *LISTED)
YES = {"yes": True, "on": True, "no": False, "off": False}


def shown(field: Field, value: object, system: System) -> str:  # ruff: ignore[too-many-return-statements]  # one for each quantity
    """Write a field's value as the card shows it, without its unit."""
    if field.quantity in ("words", *_WORDS):
        return " ".join(value) if isinstance(value, tuple) else str(value)
    if isinstance(value, tuple):
        if field.quantity == "lengths":
            return "  ".join(plain_length(float(v), system) for v in value)
        rows = [
            group_words(v, system) if isinstance(v, Group) else box_words(v, system) for v in value
        ]
        return "; ".join(rows) or NONE
    if field.quantity == "yes":
        return "yes" if value else "no"
    if field.quantity == "number":
        return f"{float(str(value)):g}"
    if field.quantity == "share":
        return f"{float(str(value)) * 100:g}"
    quantity: Quantity = field.quantity  # type: ignore[assignment]  # text, choice, yes are out
    return _figure(float(str(value)), quantity, system)


def _figure(number: float, quantity: Quantity, system: System) -> str:
    """Write a figure of the file in the person's units."""
    if system == "metric":
        return f"{number:.2f}".rstrip("0").rstrip(".") if number else "0"
    return show(number, quantity, system, unit=False)


def typed(field: Field, text: str, system: System) -> object:  # ruff: ignore[too-many-return-statements]  # one return for each quantity
    """Read what was typed into a field.

    Args:
        text: A figure or sum for quantities; otherwise the text itself.
        system: ``metric`` or ``us``, for figures without a unit.
    Returns: The new value. [mm, kg, l or none]
    Raises:
        InputError: The text is no figure; or no whole number where one is wanted.
    """
    if field.quantity in _WORDS:
        return text
    if field.quantity == "yes":
        if text.strip().lower() not in YES:
            raise InputError(
                f"'{text}' is neither yes nor no", place=field.words, remedy="Type yes or no."
            )
        return YES[text.strip().lower()]
    if field.quantity == "words":
        return tuple(text.replace(",", " ").split())
    if field.quantity == "lengths":
        rows = [word.strip(", ") for word in (text.split(";") if ";" in text else text.split())]
        return tuple(parse(word, "length", system) for word in rows if word.strip())
    if field.quantity == "groups":
        return typed_groups(text, system)
    if field.quantity == "boxes":
        return typed_boxes(text, system)
    if field.quantity == "share":
        return parse(text.replace("%", ""), "number", system) / 100
    quantity: Quantity = field.quantity  # type: ignore[assignment]  # text and choice are out
    value = parse(text, quantity, system)
    if field.quantity == "number":
        if not field.whole:
            return value
        if abs(value - round(value)) > 1e-9:
            raise InputError("a whole number is wanted", place=field.words, remedy="Type 0, 1, 2 …")
        return round(value)
    return value
