"""Blanks on sheets: as little money as can be, the shop's offcuts first, and what is cut out used too.

Every layout is checked by ourselves, outline by outline, before anybody cuts by it.
"""

from collections.abc import Callable
from typing import NamedTuple

import msgspec

from roomy_hull.core.material import Material
from roomy_hull.making.flats import Blank

Progress = Callable[[float], bool]


class PlacedBlank(msgspec.Struct, frozen=True):
    """A blank's place on its sheet; `turned` by a quarter, and `about` by half a turn more. Lower left corner. [mm]

    `inside` is the number of the blank in whose opening it lies; -1 for none.
    """

    blank: Blank
    number: int
    x: float
    y: float
    length: float
    width: float
    turned: bool
    inside: int = -1
    about: bool = False

    def at(self, p: tuple[float, float]) -> tuple[float, float]:
        """Where a point of the blank lies on the sheet. [mm]

        Args:
            p: As the blank is drawn. [mm]
        Returns: On the sheet. [mm]
        """
        x, y = (self.blank.width - p[1], p[0]) if self.turned else p
        if self.about:
            x, y = self.length - x, self.width - y
        return self.x + x, self.y + y


class Sheet(msgspec.Struct, frozen=True):
    """One sheet with what is cut from it. [mm]

    `bought` is false for an offcut of the shop's; `left` are the rectangles worth keeping: x, y, length, width;
    `price` is what it costs.
    """

    material: Material
    thickness: float
    length: float
    width: float
    placed: tuple[PlacedBlank, ...]
    bought: bool = True
    left: tuple[tuple[float, float, float, float], ...] = ()
    price: float = 0.0

    def used(self) -> float:
        """The share of the sheet's area that becomes blanks."""
        return sum(p.blank.part.area() for p in self.placed) / (self.length * self.width)

    def mass(self) -> float:
        """The whole sheet's mass. [kg]"""
        return self.length * self.width * self.thickness * self.material.density * 1e-9


class Nest(msgspec.Struct, frozen=True):
    """All sheets; for each (material, thickness) the sheets bought and how many no nesting can do without."""

    sheets: tuple[Sheet, ...]
    bounds: dict[str, tuple[int, int]]

    @property
    def price(self) -> float:
        """What the sheets cost."""
        return sum(s.price for s in self.sheets)

    @property
    def at_bound(self) -> bool:
        """Whether no nesting needs fewer sheets."""
        return all(used <= bound for used, bound in self.bounds.values())


class Way(NamedTuple):
    """How sheets are cut: by what metal costs by mass, and whether only from edge to edge."""

    per_kg: float = 1.0
    shear: bool = False


USUAL = Way()
