"""Card fields: the few real parameters of a thing as data, with their words and what they mean."""

from typing import Literal

import msgspec

from roomy_hull.core.uncertainty import RELATIVE_UNCERTAINTY

FieldKind = Literal[
    "length", "mass", "volume", "number", "share", "text", "choice", "yes", "lengths", "boxes", "groups",
    "material", "rule", "words",
]  # fmt: skip


class Field(msgspec.Struct, frozen=True):
    """One parameter.

    Attributes:
        name, words, tip: Field of the value (or its path in the job), its words on the card, what it means in the
            trade.
        quantity: ``length``, ``mass``, ``volume`` or ``number``; ``share`` for a part shown in per cent; ``text``,
            ``choice`` or ``yes``; ``lengths`` for several with spaces between, ``boxes`` for those of an own unit;
            ``material`` and ``rule`` for a choice of what the shop has; ``words`` for several words.
        choices: What a ``choice`` may be.
        whole: Whether a ``number`` has to be a whole one.
    """

    name: str
    words: str
    quantity: FieldKind
    tip: str = ""
    choices: tuple[str, ...] = ()
    whole: bool = True


def length(name: str, words: str, tip: str = "") -> Field:
    """Describe a length. [mm]"""
    return Field(name, words, "length", tip)


def mass(name: str, words: str, tip: str = "") -> Field:
    """Describe a mass. [kg]"""
    return Field(name, words, "mass", tip)


def volume(name: str, words: str, tip: str = "") -> Field:
    """Describe a volume. [l]"""
    return Field(name, words, "volume", tip)


def number(name: str, words: str, tip: str = "", *, whole: bool = True) -> Field:
    """Describe a plain number."""
    return Field(name, words, "number", tip, whole=whole)


def choice(name: str, words: str, tip: str, *choices: str) -> Field:
    """Describe a choice of a few words."""
    return Field(name, words, "choice", tip, choices)


def yes(name: str, words: str, tip: str = "") -> Field:
    """Describe a yes or no."""
    return Field(name, words, "yes", tip)


def source(name: str, words: str = "Mass known by", tip: str = "Decides its uncertainty") -> Field:
    """Describe where a mass is known from."""
    return choice(name, words, tip, *RELATIVE_UNCERTAINTY)


MATERIAL = Field("material", "Sheet material", "material", "Decides mass and bends")
LOCKS = yes("locks", "Slides lock out", "A drawer without a lock rolls back on a slope")
HINGE = choice("hinge", "Hinge", "As one faces it", "left", "right")
SHEET = length("sheet", "Sheet")
SLIDE_RATING = mass("slide_rating", "Slide rating", "Of the pair, from its data sheet")
SLIDE_MASS = mass("slide_mass", "Slides' mass", "Of the pair; 0 takes it from length and rating")
BOXED = (
    length("slide", "Slide thickness", "Each of the pair; common are 12.7 to 19 mm"), SLIDE_RATING,
    SLIDE_MASS, length("carcass", "Carcass sheet"), length("sheet", "Box sheet"),
    length("front", "Front sheet"), MATERIAL, LOCKS, yes("lockable", "Lock with a key"),
)  # fmt: skip
"""What a drawer and a stack of drawers have in common."""
