"""The few real parameters of each thing, as the card shows them: words, quantity, what they mean."""

import msgspec

from roomy_hull.core.doubt import RELATIVE_DOUBT
from roomy_hull.core.errors import InputError
from roomy_hull.core.tables import materials
from roomy_hull.core.units import Quantity, System, parse, show
from roomy_hull.job.unit import Carried, Drawer, Fridge, Shelf, Tank, Unit


class Field(msgspec.Struct, frozen=True):
    """One parameter.

    Attributes
    ----------
    name, words, tip : str
        Field of the value, its words on the card, what it means in the trade.
    quantity : str
        ``length``, ``mass``, ``volume`` or ``number``; ``text``, ``choice`` or ``yes``.
    choices : tuple of str
        What a ``choice`` may be.
    """

    name: str
    words: str
    quantity: str
    tip: str = ""
    choices: tuple[str, ...] = ()


def _length(name: str, words: str, tip: str = "") -> Field:
    return Field(name, words, "length", tip)


_NAME = Field("name", "Name", "text", "What the workshop calls it")
_PLACE = (
    _length("u", "Along the wall", "From the bay's front end (left end at the rear)"),
    _length("v", "Inward", "How far its face stands behind the access face"),
    _length("w", "Up", "Above the bay's floor"),
)
_SIZE = (
    _length("width", "Width", "Outside, along the wall"),
    _length("depth", "Depth", "Outside, inward from the access face"),
    _length("height", "Height", "Outside"),
)
_CONTENTS = (
    Field("contents", "Contents", "mass", "What goes in it, when full"),
    Field("contents_source", "Contents known by", "choice",
          "Weighed ±0.5 %, data sheet ±3 %, geometry ±5 %, estimate ±15 %",
          tuple(RELATIVE_DOUBT)),
)  # fmt: skip
_NOTE = Field("note", "Note", "text", "For the workshop")


def _material() -> Field:
    return Field(
        "material", "Sheet material", "choice", "Decides mass and bends", tuple(materials())
    )


def fields_of(thing: Unit | Carried) -> tuple[Field, ...]:
    """Give the parameters that the card shows for a thing.

    Parameters
    ----------
    thing : Unit or Carried
        What is selected.

    Returns
    -------
    tuple of Field
        In the order shown.
    """
    if isinstance(thing, Carried):
        return (
            _NAME,
            _length("x", "Aft of front axle", "Its middle"),
            _length("y", "Right of centre", "Its middle; left is negative"),
            _length("z", "Above ground", "Its underside"),
            _length("length", "Length", "Along the vehicle"),
            _length("width", "Width", "Across the vehicle"),
            _length("height", "Height"),
            Field("mass", "Mass", "mass", "Empty"),
            Field("mass_source", "Mass known by", "choice", "Decides its doubt", tuple(RELATIVE_DOUBT)),
            Field("contents", "Contents", "mass", "Scales with the scenario"),
            Field("mount", "Stays with", "choice", "With what it comes off",
                  ("vehicle", "tray", "canopy")),
            Field("on_roof", "On the roof", "yes", "Counts against the roof rating"),
        )  # fmt: skip
    own: tuple[Field, ...]
    if isinstance(thing, Drawer):
        own = (
            _length("slide", "Slide thickness", "Each of the pair; common are 12.7 to 19 mm"),
            Field("slide_rating", "Slide rating", "mass", "Of the pair, from its data sheet"),
            Field("slide_mass", "Slides' mass", "mass", "Of the pair"),
            _length("carcass", "Carcass sheet"),
            _length("sheet", "Box sheet"),
            _length("front", "Front sheet"),
            _material(),
            Field(
                "locks", "Slides lock out", "yes", "A drawer without a lock rolls back on a slope"
            ),
        )
    elif isinstance(thing, Fridge):
        own = (
            Field("litres", "Volume", "volume"),
            Field("mass", "Fridge, empty", "mass", "From its data sheet"),
            _length("slide_height", "Slide height", "The fridge stands on it"),
            Field("slide_mass", "Slide's mass", "mass"),
            Field("slide_rating", "Slide rating", "mass", "From its data sheet"),
            _length("vent", "Vent needs", "Free air in front of the vent"),
            Field("vent_side", "Vent is at the", "choice", "Seen from the access face",
                  ("back", "left", "right")),
            _length("lid_gap", "Above the lid", "Room kept clear"),
            Field("locks", "Slide locks out", "yes", "A slide without a lock rolls back on a slope"),
        )  # fmt: skip
    elif isinstance(thing, Shelf):
        own = (
            _length("sheet", "Sheet"),
            _length("lip", "Lip", "Keeps what lies on it from sliding out"),
            _length("flange", "Side flange"),
            _material(),
        )
    else:
        own = (
            _length("sheet", "Sheet"),
            Field("baffles", "Baffles", "number", "Against surge; they cost a little volume"),
            _length("inlet", "Filler", "38 mm takes a bucket"),
            _material(),
        )
    contents = () if isinstance(thing, Tank) else _CONTENTS
    return (_NAME, *_PLACE, *_SIZE, *contents, *own, _NOTE)


def shown(field: Field, value: object, system: System) -> str:
    """Write a field's value as the card shows it, without its unit."""
    if field.quantity in ("text", "choice"):
        return str(value)
    if field.quantity == "number":
        return f"{float(str(value)):g}"
    quantity: Quantity = field.quantity  # type: ignore[assignment]  # text, choice, yes are out
    number = float(str(value))
    if system == "metric":
        return f"{number:.2f}".rstrip("0").rstrip(".") if number else "0"
    return show(number, quantity, system, unit=False)


def typed(field: Field, text: str, system: System) -> object:
    """Read what was typed into a field.

    Parameters
    ----------
    field : Field
        The field.
    text : str
        A figure or sum for quantities; otherwise the text itself.
    system : str
        ``metric`` or ``us``, for figures without a unit.

    Returns
    -------
    object
        The new value. [mm, kg, l or none]

    Raises
    ------
    InputError
        The text is no figure; or no whole number where one is wanted.
    """
    if field.quantity in ("text", "choice"):
        return text
    quantity: Quantity = field.quantity  # type: ignore[assignment]  # text and choice are out
    value = parse(text, quantity, system)
    if field.quantity == "number":
        if abs(value - round(value)) > 1e-9:
            raise InputError("a whole number is wanted", place=field.words, remedy="Type 0, 1, 2 …")
        return round(value)
    return value
