"""What is shown of a struct's fields: words, quantity, meaning and choices, written beside the field itself."""

import functools
from collections.abc import Callable
from typing import Annotated, Any, Literal, get_args, get_origin, get_type_hints

import msgspec
from msgspec import Meta

Listed = Literal["material", "rule", "holder", "unit", "thing", "board", "rack", "set-up"]
LISTED: tuple[Listed, ...] = get_args(Listed)
"""What is chosen from a list of the shop's or the job's own."""
FieldKind = Literal[
    "length", "mass", "volume", "number", "share", "text", "choice", "yes", "lengths", "boxes", "groups", "words", Listed,
]  # fmt: skip


class Field(msgspec.Struct, frozen=True):
    """One parameter as it is shown and edited.

    Attributes:
        name, words, tip: Field of the value (or its path in the job), its words, what it means in the trade.
        quantity: ``length``, ``mass``, ``volume`` or ``number``; ``share`` for a part shown in per cent; ``text``,
            ``choice`` or ``yes``; ``lengths`` for several with spaces between, ``boxes`` and ``groups`` of an own unit;
            ``words`` for several words; one of `LISTED` for a choice of what the shop or the job has.
        choices: What a ``choice`` may be.
        whole: Whether a ``number`` has to be a whole one.
        bounds: What it may be, in the unit of the file; empty where anything goes.
    """

    name: str
    words: str
    quantity: FieldKind
    tip: str = ""
    choices: tuple[str, ...] = ()
    whole: bool = False
    bounds: str = ""


class _Shown(msgspec.Struct, frozen=True):
    """What `shown` says beside the words."""

    tip: str
    quantity: FieldKind | None
    when: Callable[[Any], bool] | None
    said: Callable[[Any], str] | None


def shown(
    words: str, tip: str = "", *, quantity: FieldKind | None = None,
    when: Callable[[Any], bool] | None = None, said: Callable[[Any], str] | None = None,
) -> Meta:  # fmt: skip
    """Say in a field's annotation how it is shown.

    Args:
        words, tip: What stands before it, and what it means in the trade; its title and comment in the JSON Schema.
        quantity: Where its type and unit do not say it.
        when: Value → whether it matters at all.
    """
    comment = {"$comment": tip} if tip else None
    return Meta(
        title=words, extra_json_schema=comment, extra={"shown": _Shown(tip, quantity, when, said)}
    )


_BY_UNIT: dict[str, FieldKind] = {"mm": "length", "kg": "mass", "l": "volume"}


@functools.cache
def _described(kind: type) -> tuple[tuple[Field, _Shown], ...]:
    """The shown fields of a struct, in the order in which it declares them."""
    found = []
    for name, hint in get_type_hints(kind, include_extras=True).items():
        metas = (
            [m for m in get_args(hint)[1:] if isinstance(m, Meta)]
            if get_origin(hint) is Annotated
            else []
        )
        said = next((m for m in reversed(metas) if m.extra and "shown" in m.extra), None)
        if said is not None and said.extra is not None and said.title is not None:
            about: _Shown = said.extra["shown"]
            plain = get_args(hint)[0]
            unit = next((m.description for m in metas if m.description), "") or ""
            quantity = about.quantity or _quantity(plain, unit)
            choices = tuple(map(str, get_args(plain))) if quantity == "choice" else ()
            field = Field(
                name, said.title, quantity, about.tip, choices, plain is int, _bounds(metas, unit)
            )
            found.append((field, about))
    return tuple(found)


def _quantity(plain: Any, unit: str) -> FieldKind:
    """What a field is, by its type and the unit in which it is written."""
    if get_origin(plain) is Literal:
        return "choice"
    if get_origin(plain) is tuple:
        return "words"
    if plain in (bool, str, int):
        return {bool: "yes", str: "text", int: "number"}[plain]  # type: ignore[return-value]  # the three that there are
    return (
        "share"
        if unit == "0 to 1"
        else _BY_UNIT.get(unit.replace(",", " ").replace(";", " ").split(" ")[0], "number")
    )


def _bounds(metas: list[Meta], unit: str) -> str:
    """What may stand in a field, as the file's own figures."""
    least = next((v for m in metas for v in (m.ge, m.gt) if v is not None), None)
    most = next((v for m in metas for v in (m.le, m.lt) if v is not None), None)
    return range_words(least, most, unit) if least is not None and most is not None else unit


def range_words(least: float, most: float, unit: str) -> str:
    """A range with its unit, of what a field's description says of that."""
    word = "" if unit[:1].isdigit() else unit.replace(";", ",").split(",")[0]
    low, high = (f"{v:,.0f}" if float(v).is_integer() else f"{v:g}" for v in (least, most))
    return f"{low} to {high} {word}".strip()


def fields(
    of: Any, path: str = "", who: str = "", *, skip: tuple[str, ...] = (), only: tuple[str, ...] = ()
) -> tuple[Field, ...]:  # fmt: skip
    """List what is shown of a value.

    Args:
        of: A struct; or its type, for all that any one of it shows.
        path: What leads to it in the job, with a dot at its end.
        who: What its words begin with, where several of its kind are shown together.
        skip, only: Names of fields that are left out; the only ones that are shown, where it is said.
    Returns: In the order in which the struct declares them.
    """
    kind = of if isinstance(of, type) else type(of)
    found = []
    for field, about in _described(kind):
        if (
            field.name in skip
            or (only and field.name not in only)
            or (of is not kind and about.when is not None and not about.when(of))
        ):
            continue
        words = about.said(of) if about.said is not None and of is not kind else field.words
        if who:
            words = words if words.startswith("…") else f"{who} {words[0].lower()}{words[1:]}"
        found.append(msgspec.structs.replace(field, name=path + field.name, words=words))
    return tuple(found)
