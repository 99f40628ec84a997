"""Fill: what scales a mass in a scenario."""

from typing import Final, Literal, NamedTuple

FillKind = Literal["fixed", "contents", "water", "fuel", "ball", "person"]


class Fill(NamedTuple):
    """What scales a mass: nothing, how full things are, the ball, or who sits on a seat.

    `seat` is the seat's number for a person. For people and the ball a mass is 1 and the scenario holds
    the kilograms. `only` are the scenarios in which it is aboard; all where empty.
    """

    by: FillKind
    seat: int = -1
    only: tuple[str, ...] = ()

    @property
    def entered(self) -> bool:
        """Whether the scenario itself holds the kilograms."""
        return self.by in ("ball", "person")


FIXED: Final = Fill("fixed")
CONTENTS: Final = Fill("contents")
WATER: Final = Fill("water")
FUEL: Final = Fill("fuel")
BALL: Final = Fill("ball")
