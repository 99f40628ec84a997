"""References: what a mass, a part, a finding or a fix belongs to, without words that could clash."""

from typing import Final, Literal, NamedTuple

RefKind = Literal[
    "vehicle", "body", "tray", "canopy", "trailer", "unit", "carried", "opening", "door", "bay",
    "box", "set", "run", "weighing", "vehicle piece", "tray piece", "canopy piece", "body part", "field", "good", "berth",
    "room", "rack", "setup",
]  # fmt: skip
PIECES: Final = frozenset({"vehicle piece", "tray piece", "canopy piece"})
"""Kinds of what never moves: its id is its words."""


class Ref(NamedTuple):
    """One thing of a job: its kind, and its id among things of that kind.

    Two references are equal only where kind and id are, so that a unit called ``vehicle`` is never taken
    for the vehicle. `word` is what files and the screen say.
    """

    kind: RefKind
    id: str = ""

    @property
    def word(self) -> str:
        """What stands for it in a file: its id, or its kind where it has none."""
        if self.kind in PIECES:
            return f"the {self.id}"
        return self.id or self.kind

    @property
    def is_thing(self) -> bool:
        """Whether it is a unit or a carried item, which can be selected, moved and left at home."""
        return self.kind in ("unit", "carried")

    @property
    def of_body(self) -> bool:
        """Whether it is a piece of the body: tray, canopy, a room or a rack."""
        return self.kind in ("tray", "canopy", "room", "rack")

    @property
    def comes_off(self) -> bool:
        """Whether it is something that a scenario or a set-up can leave at home."""
        return self.kind in ("unit", "carried", "room", "rack")


VEHICLE, BODY, TRAY = Ref("vehicle"), Ref("body"), Ref("tray")
CANOPY, TRAILER = Ref("canopy"), Ref("trailer")

RESERVED: Final = frozenset({"vehicle", "body", "tray", "canopy", "trailer"})
"""Words that stand for these in files; no unit or carried item may have one of them as its id."""
