"""Fill: what scales a mass in a scenario."""

from typing import Final, Literal, NamedTuple

FillKind = Literal["fixed", "contents", "water", "fuel", "ball", "person", "hung"]


class Fill(NamedTuple):
    """What scales a mass: nothing, how full things are, the ball, who sits on a seat, or which leaf hangs.

    `seat` is the seat's number for a person. For people and the ball a mass is 1 and the scenario holds
    the kilograms. What is ``hung`` is what another leaf of a door weighs more than the drawn one, or less; it is there
    in the scenarios of `only` alone. `only` are the scenarios in which it is aboard; all where empty.
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
