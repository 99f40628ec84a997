"""Releases: revisions of what is cut, each part as it was then, and how far it has come in the workshop."""

from typing import Annotated, Literal

from msgspec import Meta

from roomy_hull.core.value import Name, Value

PartState = Literal["to cut", "cut", "bent", "welded", "coated", "fitted"]
STATES: tuple[PartState, ...] = ("to cut", "cut", "bent", "welded", "coated", "fitted")
"""In the order in which a part comes through the workshop."""
Number = Annotated[float, Meta(ge=-20000, le=20000)]
Points = Annotated[tuple[tuple[Number, Number], ...], Meta(max_length=400)]


class ReleasedPart(Value, frozen=True, kw_only=True):
    """One part as it was released.

    Attributes:
        key: What it belongs to and its name: by it the part is found again.
        count: How many.
        sort: ``sheet``, ``bar`` or ``bought``.
        content: A hash of all that is cut, bent and drilled.
        state: How far it has come.
        stock: Material and thickness, or section.
        length: Of the flat, or of the bar. [mm]
        outline, holes, openings, bends: Of the flat: corners; x, y, diameter; x, y, length, width; from x, y to x, y
            and the angle. [mm, degree]
    """

    key: Annotated[str, Meta(max_length=300)]
    count: Annotated[int, Meta(ge=1, le=10000)] = 1
    sort: Literal["sheet", "bar", "bought"] = "sheet"
    content: Annotated[str, Meta(max_length=64)] = ""
    state: PartState = "to cut"
    stock: Name = ""
    length: Annotated[float, Meta(ge=0, le=20000)] = 0.0
    outline: Points = ()
    holes: Annotated[tuple[tuple[Number, Number, Number], ...], Meta(max_length=2000)] = ()
    openings: Annotated[
        tuple[tuple[Number, Number, Number, Number], ...], Meta(max_length=400)
    ] = ()
    bends: Annotated[
        tuple[tuple[Number, Number, Number, Number, Number], ...], Meta(max_length=200)
    ] = ()

    @property
    def name(self) -> str:
        """The part's name, without what it belongs to."""
        return self.key.partition("/")[2] or self.key


class Release(Value, frozen=True, kw_only=True):
    """One revision: its letter, its day as YYYY-MM-DD, who released it, and every part of it."""

    revision: Annotated[str, Meta(min_length=1, max_length=3, pattern="^[A-Z]+$")]
    day: Annotated[str, Meta(pattern=r"^\d{4}-\d{2}-\d{2}$")]
    by: Annotated[str, Meta(min_length=1, max_length=8)]
    note: Name = ""
    parts: Annotated[tuple[ReleasedPart, ...], Meta(max_length=5000)] = ()


def next_revision(releases: tuple[Release, ...]) -> str:
    """The letter after the last: A to Z, then AA.

    Args:
        releases: Those there are, in their order.
    Returns: ``A`` where there is none.
    """
    if not releases:
        return "A"
    number = 0
    for letter in releases[-1].revision:
        number = number * 26 + ord(letter) - 64
    number += 1
    found = ""
    while number:
        number, rest = divmod(number - 1, 26)
        found = chr(65 + rest) + found
    return found
