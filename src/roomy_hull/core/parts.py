"""Parts: what is cut, sawn or bought, each with its material and what it belongs to."""

import math
from typing import Literal, NamedTuple

import msgspec

from roomy_hull.core.material import Material
from roomy_hull.core.mechanics.bends import bend_allowance
from roomy_hull.core.mechanics.sections import section_area
from roomy_hull.core.refs import Ref

PartRole = Literal["", "floor", "headboard", "mudguard", "leaf", "jamb"]
"""What a part is for, where somebody asks: the floor that carries a unit's contents, a piece of the
headboard, a mudguard, a door's leaf with its frame, the jambs around it."""


class Stand(NamedTuple):
    """Where a part stands in what it belongs to: its corner, and which way its x, y and z lie. [mm]

    Directions are ``u``, ``v``, ``w``, or these with a minus before them. See `core.standing`.
    """

    at: tuple[float, float, float]
    x: str
    y: str
    z: str


class Hole(msgspec.Struct, frozen=True):
    """A round hole in the base, from its lower left outside corner. [mm]"""

    x: float
    y: float
    diameter: float


class Cutout(msgspec.Struct, frozen=True):
    """A rectangular opening in the base, from its lower left outside corner. [mm]"""

    x: float
    y: float
    length: float
    width: float
    radius: float = 0.0


class SheetPart(msgspec.Struct, frozen=True):
    """A flat or folded sheet part: a rectangular base with up to four flanges at right angles.

    All sizes are outside sizes of the folded part. [mm]

    Attributes
    ----------
    name : str
        What it is, behind the name of what it belongs to.
    owner : Ref
        What it belongs to.
    length, width : float
        Base, along x and y.
    thickness : float
        Sheet thickness.
    material : Material
        Its density, its K-factor and its usual bend radius are used.
    left, right, front, back : float
        Flange heights at x = 0, x = length, y = 0, y = width; 0 for none.
    holes, cutouts
        Openings in the base.
    count : int
        How many are needed.
    grain : bool
        Whether the length must lie along the sheet's rolling direction.
    role : PartRole
        What it is for.
    slope : float
        By how much the base is narrower at x = 0 than at its other end; 0 for a rectangle.
    stands : tuple of Stand
        Where each of them stands; empty where nobody said.
    """

    name: str
    owner: Ref
    length: float
    width: float
    thickness: float
    material: Material
    left: float = 0.0
    right: float = 0.0
    front: float = 0.0
    back: float = 0.0
    holes: tuple[Hole, ...] = ()
    cutouts: tuple[Cutout, ...] = ()
    count: int = 1
    grain: bool = False
    role: PartRole = ""
    slope: float = 0.0
    stands: tuple[Stand, ...] = ()

    def radius(self) -> float:
        """The inside bend radius used. [mm]"""
        return self.material.bend_radius_per_t * self.thickness

    def setback(self) -> float:
        """How far a bend's start lies from the outside corner: R + T. [mm]"""
        return self.radius() + self.thickness

    def flange_flat(self, height: float) -> float:
        """What a flange adds to the flat beyond the base's outside edge.

        Parameters
        ----------
        height : float
            Outside flange height; 0 for none. [mm]

        Returns
        -------
        float
            height + BA - 2(R+T), so that legs and bend add up to the developed length. [mm]
        """
        if height <= 0:
            return 0.0
        k = self.material.k_factor
        allowance = bend_allowance(90.0, self.radius(), self.thickness, k)
        return height + allowance - 2 * self.setback()

    def developed(self) -> tuple[float, float]:
        """The flat blank's overall length and width. [mm]"""
        return (
            self.length + self.flange_flat(self.left) + self.flange_flat(self.right),
            self.width + self.flange_flat(self.front) + self.flange_flat(self.back),
        )

    def area(self) -> float:
        """The flat blank's area without notches and openings. [mm²]"""
        x0, x1 = self.flange_flat(self.left), self.flange_flat(self.right)
        y0, y1 = self.flange_flat(self.front), self.flange_flat(self.back)
        across, along = (
            _inner(self.width, self.front, self.back, self.setback()),
            _inner(self.length, self.left, self.right, self.setback()),
        )
        area = self.length * (self.width - self.slope / 2) + (x0 + x1) * across + (y0 + y1) * along
        area -= sum(math.pi / 4 * h.diameter**2 for h in self.holes)
        area -= sum(c.length * c.width - (4 - math.pi) * c.radius**2 for c in self.cutouts)
        return area - self._base_reliefs()

    def _base_reliefs(self) -> float:
        """The base's area lost to square corner reliefs, one where two flanges meet."""
        corners = sum(
            a > 0 and b > 0 for a in (self.left, self.right) for b in (self.front, self.back)
        )
        return corners * self.setback() ** 2

    def mass(self) -> float:
        """The mass of one piece from its blank. [kg]"""
        return self.area() * self.thickness * self.material.density * 1e-9


def _inner(span: float, one: float, other: float, setback: float) -> float:
    """A flange's length along the base, shortened at each corner that has a neighbour."""
    return span - (setback if one > 0 else 0.0) - (setback if other > 0 else 0.0)


class BarPart(msgspec.Struct, frozen=True):
    """A length of bar or tube with square ends. Section as ``40x40x3``. [mm]"""

    name: str
    owner: Ref
    section: str
    length: float
    material: Material
    count: int = 1
    role: PartRole = ""
    stands: tuple[Stand, ...] = ()

    def mass(self) -> float:
        """The mass of one piece: section area times length times density. [kg]"""
        return section_area(self.section) * self.length * self.material.density * 1e-9


class Hardware(msgspec.Struct, frozen=True):
    """Something bought by the piece."""

    name: str
    owner: Ref
    count: int = 1


Part = SheetPart | BarPart | Hardware


def short_name(part: Part) -> str:
    """A part's name without that of what it belongs to."""
    return part.name.split(": ")[-1]
