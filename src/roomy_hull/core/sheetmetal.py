"""Folded sheet: bend allowance, developed sizes, and the parts to cut."""

import math

import msgspec

from roomy_hull.core.errors import InputError
from roomy_hull.core.tables import material


def bend_allowance(angle: float, radius: float, thickness: float, k: float) -> float:
    """Give the length of the neutral line through a bend.

    Parameters
    ----------
    angle : float
        Angle through which the sheet is bent; 90 for a right angle. [degree]
    radius : float
        Inside bend radius. [mm]
    thickness : float
        Sheet thickness. [mm]
    k : float
        Neutral line's place as a fraction of the thickness.

    Returns
    -------
    float
        BA = A·π/180·(R + K·T). [mm]

    Notes
    -----
    Source: Machinery's Handbook, sheet-metal bend allowance.
    """
    return math.radians(angle) * (radius + k * thickness)


def din_correction(thickness: float, radius: float, opening: float = 90.0) -> float:
    """Give the flat-length difference of a bend after DIN 6935.

    Parameters
    ----------
    thickness, radius : float
        Sheet thickness and inside bend radius, above 0. [mm]
    opening : float
        Opening angle β between the legs, at most 90. [degree]

    Returns
    -------
    float
        v = π·(180-β)/180·(R + T·k/2) - 2(R+T), k = 0.65 + 0.5·log10(R/T) at most 1. Added to
        the sum of the outside legs it gives the flat length. [mm]

    Raises
    ------
    InputError
        The opening angle is beyond 90 degrees, where DIN 6935 uses another formula.
    """
    if not 0 <= opening <= 90:
        raise InputError(
            "this form of DIN 6935 holds for opening angles up to 90 degrees",
            remedy="Give an angle between 0 and 90.",
        )
    k = min(1.0, 0.65 + 0.5 * math.log10(radius / thickness))
    return math.radians(180 - opening) * (radius + thickness * k / 2) - 2 * (radius + thickness)


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
    name, owner : str
        What it is, and the id of what it belongs to.
    length, width : float
        Base, along x and y.
    thickness : float
        Sheet thickness.
    material : str
        Key of the material table.
    left, right, front, back : float
        Flange heights at x = 0, x = length, y = 0, y = width; 0 for none.
    holes, cutouts
        Openings in the base.
    count : int
        How many are needed.
    grain : bool
        Whether the length must lie along the sheet's rolling direction.
    """

    name: str
    owner: str
    length: float
    width: float
    thickness: float
    material: str
    left: float = 0.0
    right: float = 0.0
    front: float = 0.0
    back: float = 0.0
    holes: tuple[Hole, ...] = ()
    cutouts: tuple[Cutout, ...] = ()
    count: int = 1
    grain: bool = False

    def radius(self) -> float:
        """Give the inside bend radius used. [mm]"""
        return material(self.material).bend_radius_per_t * self.thickness

    def setback(self) -> float:
        """Give how far a bend's start lies from the outside corner: R + T. [mm]"""
        return self.radius() + self.thickness

    def flange_flat(self, height: float) -> float:
        """Give what a flange adds to the flat beyond the base's outside edge.

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
        k = material(self.material).k_factor
        allowance = bend_allowance(90.0, self.radius(), self.thickness, k)
        return height + allowance - 2 * self.setback()

    def developed(self) -> tuple[float, float]:
        """Give the flat blank's overall length and width. [mm]"""
        return (
            self.length + self.flange_flat(self.left) + self.flange_flat(self.right),
            self.width + self.flange_flat(self.front) + self.flange_flat(self.back),
        )

    def area(self) -> float:
        """Give the flat blank's area without notches and openings. [mm²]"""
        x0, x1 = self.flange_flat(self.left), self.flange_flat(self.right)
        y0, y1 = self.flange_flat(self.front), self.flange_flat(self.back)
        across, along = (
            _inner(self.width, self.front, self.back, self.setback()),
            _inner(self.length, self.left, self.right, self.setback()),
        )
        area = self.length * self.width + (x0 + x1) * across + (y0 + y1) * along
        area -= sum(math.pi / 4 * h.diameter**2 for h in self.holes)
        area -= sum(c.length * c.width - (4 - math.pi) * c.radius**2 for c in self.cutouts)
        return area - self._base_reliefs()

    def _base_reliefs(self) -> float:
        """Give the base's area lost to square corner reliefs, one where two flanges meet."""
        corners = sum(
            a > 0 and b > 0 for a in (self.left, self.right) for b in (self.front, self.back)
        )
        return corners * self.setback() ** 2

    def mass(self) -> float:
        """Give the mass of one piece from its blank. [kg]"""
        return self.area() * self.thickness * material(self.material).density * 1e-9


def _inner(span: float, one: float, other: float, setback: float) -> float:
    """Give a flange's length along the base, shortened at each corner that has a neighbour."""
    return span - (setback if one > 0 else 0.0) - (setback if other > 0 else 0.0)


class BarPart(msgspec.Struct, frozen=True):
    """A length of bar or tube with square ends. Section as ``40x40x3``. [mm]"""

    name: str
    owner: str
    section: str
    length: float
    material: str
    count: int = 1

    def mass(self) -> float:
        """Give the mass of one piece: section area times length times density. [kg]"""
        return section_area(self.section) * self.length * material(self.material).density * 1e-9


class Hardware(msgspec.Struct, frozen=True):
    """Something bought by the piece."""

    name: str
    owner: str
    count: int = 1


Part = SheetPart | BarPart | Hardware


def section_area(section: str) -> float:
    """Give the cross-section area of a rectangular tube or flat bar with sharp corners.

    Parameters
    ----------
    section : str
        ``bxhxt`` for a tube, ``bxh`` for a flat or solid bar. [mm]

    Returns
    -------
    float
        b·h - (b-2t)(h-2t), or b·h. [mm²]

    Raises
    ------
    InputError
        The section cannot be read, or its wall is thicker than half its side.
    """
    try:
        sizes = [float(p) for p in section.split("x")]
    except ValueError:
        sizes = []
    if len(sizes) == 2 and min(sizes) > 0:
        return sizes[0] * sizes[1]
    if len(sizes) == 3 and min(sizes) > 0 and 2 * sizes[2] < min(sizes[:2]):
        b, h, t = sizes
        return b * h - (b - 2 * t) * (h - 2 * t)
    raise InputError(
        f"the section '{section}' cannot be read", remedy="Write it as 40x40x3 or 25x3."
    )
