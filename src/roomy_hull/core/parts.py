"""Parts: what is cut, sawn or bought, each with its material and what it belongs to."""

import math
from typing import Literal, NamedTuple

import msgspec

from roomy_hull.core import shapes
from roomy_hull.core.folded import Cutout, Face, Hole, mirrored_openings, with_holes
from roomy_hull.core.folded import mirrored as mirrored_face
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.material import Material
from roomy_hull.core.mechanics.bends import bend_allowance
from roomy_hull.core.mechanics.sections import section_area, section_height, section_width
from roomy_hull.core.refs import Ref
from roomy_hull.core.unfolding import Flat, flat_area, unfolded

Join = Literal["", "bolts", "loose", "tight", "welded"]
"""How a part is joined to what it touches, where not as its material and the shop have it: bolted, so that it comes off
again; not at all; welded all round, so that it holds water; stitched with weld, so that nothing is drilled."""

PartRole = Literal[
    "", "floor", "headboard", "mudguard", "leaf", "jamb", "wall", "roof", "rail", "bow"
]
"""What a part is for, where somebody asks: the floor that carries a unit's contents, a piece of the
headboard, a mudguard, a door's leaf with its frame, the jambs around it, a wall's sheet, a roof's, a
rail of the subframe, a bow of the roof."""


class Pose(NamedTuple):
    """Where a part stands in what it belongs to: its corner, and which way its x, y and z lie. [mm]

    Directions are ``u``, ``v``, ``w``, or these with a minus before them. `tilt` turns it about its x, from y
    towards z. [degrees] See `core.standing`.
    """

    at: tuple[float, float, float]
    x: str
    y: str
    z: str
    tilt: float = 0.0


class SheetPart(msgspec.Struct, frozen=True):
    """A flat or folded sheet part: a pan, or any other tree of faces.

    All sizes are outside sizes of the folded part. A pan, a rectangular base with up to four flanges at right
    angles, is told by its sizes; every other `shape` by its faces. [mm]

    Attributes:
        name: What it is, behind the name of what it belongs to.
        owner: What it belongs to.
        length, width: Base, along x and y.
        thickness: Sheet thickness.
        material: Its density, its K-factor and its usual bend radius are used.
        left, right, front, back: Flange heights at x = 0, x = length, y = 0, y = width; 0 for none.
        holes, cutouts: Openings in a pan's base, from its lower left outside corner.
        corners: How a pan's flanges meet, see `shapes.Corners`.
        count: How many are needed.
        grain: Whether the length must lie along the sheet's rolling direction.
        role: What it is for.
        shape: Its faces where it is no pan; `length` and `width` are then those of its first face.
        poses: Where each of them stands; empty where nobody said.
        group: With what it moves; parts of different groups are not joined, empty for what stays.
        join: How it is joined to what it touches.
        drilled: Holes for fasteners: in which face, in the order of `folded.places`, and where in it.
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
    corners: shapes.Corners = "open"
    shape: Face | None = None
    poses: tuple[Pose, ...] = ()
    group: str = ""
    join: Join = ""
    drilled: tuple[tuple[int, Hole], ...] = ()

    def radius(self) -> float:
        """The inside bend radius used. [mm]"""
        return self.material.bend_radius_per_t * self.thickness

    def setback(self) -> float:
        """How far a bend's start lies from the outside corner: R + T. [mm]"""
        return self.radius() + self.thickness

    def flange_flat(self, height: float) -> float:
        """What a flange adds to the flat beyond the base's outside edge.

        Args:
            height: Outside flange height; 0 for none. [mm]
        Returns: height + BA - 2(R+T), so that legs and bend add up to the developed length. [mm]
        """
        if height <= 0:
            return 0.0
        k = self.material.k(self.thickness)
        allowance = bend_allowance(90.0, self.radius(), self.thickness, k)
        return height + allowance - 2 * self.setback()

    def faces(self) -> Face:
        """The part as a tree of faces, its origin the outside corner of its base. [mm]"""
        found = self.shape
        if found is None:
            sheet = shapes.Sheet(self.thickness, self.radius())
            flanges = (self.left, self.right, self.front, self.back)
            found = shapes.pan(sheet, self.length, self.width, flanges, corners=self.corners,
                               holes=self.holes, cutouts=self.cutouts)  # fmt: skip
        return with_holes(found, self.drilled) if self.drilled else found

    def flat(self) -> Flat:
        """The part laid flat, in the directions of its base. [mm]"""
        return unfolded(self.faces(), self.thickness, self.material.k(self.thickness))

    def developed(self) -> tuple[float, float]:
        """The flat blank's overall length and width. [mm]"""
        if self.shape is not None:
            xs, ys = zip(*self.flat().outline, strict=True)
            return max(xs) - min(xs), max(ys) - min(ys)
        return (
            self.length + self.flange_flat(self.left) + self.flange_flat(self.right),
            self.width + self.flange_flat(self.front) + self.flange_flat(self.back),
        )

    def area(self) -> float:
        """The flat blank's area, less its openings. [mm²]

        A pan's by a closed form, which is quicker; all others' face by face.
        """
        if self.shape is not None or self.corners != "open":
            return flat_area(self.faces(), self.thickness, self.material.k(self.thickness))
        x0, x1 = self.flange_flat(self.left), self.flange_flat(self.right)
        y0, y1 = self.flange_flat(self.front), self.flange_flat(self.back)
        across, along = (
            _inner(self.width, self.front, self.back, self.setback()),
            _inner(self.length, self.left, self.right, self.setback()),
        )
        area = self.length * self.width + (x0 + x1) * across + (y0 + y1) * along
        area -= sum(math.pi / 4 * h.diameter**2 for h in self.holes)
        area -= sum(math.pi / 4 * h.diameter**2 for _face, h in self.drilled)
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


class EndCut(NamedTuple):
    """How a bar's end is cut: square where its angle is 0.

    `angle` is how far the cut is turned from square; `across` says which side of the section it runs across:
    ``high``, so that the section's first side is cut on the slant, or ``wide``. [degrees]
    """

    angle: float = 0.0
    across: Literal["high", "wide"] = "high"


SQUARE = EndCut()


class BarHole(NamedTuple):
    """A hole in a bar: which of its sides, how far from its beginning, how far across that side, how wide. [mm]

    ``high`` are the sides along its section's first measure, ``wide`` those along its second; ``low`` those at 0.
    """

    side: Literal["low wide", "far wide", "low high", "far high"]
    along: float
    across: float
    diameter: float
    length: float = 0.0
    """Of a slot along the bar; 0 for a round hole. [mm]"""

    @property
    def words(self) -> str:
        """Which side that is of a bar that lies with its first measure upright, seen from its beginning."""
        return {"low wide": "bottom", "far wide": "top", "low high": "right", "far high": "left"}[
            self.side
        ]


class BarPart(msgspec.Struct, frozen=True):
    """A length of bar or tube. Section as ``40x40x3``; `length` from its one longest point to the other. [mm]

    `ends` are its cuts at its beginning and its end; a mitre leaves the edge at z = 0 (or y = 0) the longest.
    `drilled` are its holes, `group` and `join` as of a sheet.
    """

    name: str
    owner: Ref
    section: str
    length: float
    material: Material
    count: int = 1
    role: PartRole = ""
    poses: tuple[Pose, ...] = ()
    ends: tuple[EndCut, EndCut] = (SQUARE, SQUARE)
    group: str = ""
    join: Join = ""
    drilled: tuple[BarHole, ...] = ()

    def cuts(self) -> str:
        """How its ends are cut, in words; empty where both are square."""
        if self.ends == (SQUARE, SQUARE):
            return ""
        return " and ".join(
            f"{e.angle:g} degrees across the {'first' if e.across == 'high' else 'second'} side" if e.angle else "square"
            for e in self.ends
        )  # fmt: skip

    def lost(self) -> tuple[float, float]:
        """By how much each end is shorter on its short edge. [mm]"""
        high, wide = section_height(self.section), section_width(self.section)
        return tuple(
            math.tan(math.radians(e.angle)) * (high if e.across == "high" else wide)
            for e in self.ends
        )  # type: ignore[return-value]  # two of them

    def mass(self) -> float:
        """The mass of one piece: section area times the length of its middle line times density. [kg]"""
        middle = self.length
        if self.ends != (SQUARE, SQUARE):
            middle -= sum(self.lost()) / 2
        return section_area(self.section) * middle * self.material.density * 1e-9


class Hardware(msgspec.Struct, frozen=True):
    """Something bought: by the piece, or by the metre.

    Attributes:
        name: What it is.
        owner: What it belongs to.
        count: How many.
        metres: How much of each, where it is bought by the metre; else 0. [m]
        area: How much of each, where it is bought by the square metre; else 0. [m²]
        places: Where it lies in its owner's directions; a pair of slides in two places. [mm]
        fix: How it is fastened to what it touches there.
        opening: Whether it stands in an opening of a part.
        bore: The hole that is bored for it, in the middle of where it touches a part; 0 for none. [mm]
        sort: What sets its price, where it is not that of a piece or a metre of seal.
        holds: The thing that it holds down by bolts, by its place, the size of one, how many of them each has:
            ``("canopy", "M12", 1)``.
        links: Groups that it joins by its own holes, fitted and drilled as they stand: hinges, stays. Empty where
            `places` say.
    """

    name: str
    owner: Ref
    count: int = 1
    metres: float = 0.0
    area: float = 0.0
    places: tuple[Box, ...] = ()
    fix: "Fix" = ""
    opening: bool = False
    bore: float = 0.0
    links: tuple[str, ...] = ()
    sort: Literal["", "bolt", "hinge"] = ""
    holds: tuple[str, str, int] | None = None


Fix = Literal["", "rivets", "bolts", "screws", "clamped", "weld"]
"""How something bought is fastened: nobody said, or by rivets, bolts, screws; clamped in its opening; welded on."""


Part = SheetPart | BarPart | Hardware


def mirrored(part: Part) -> Part:
    """A part and its stands in a mirrored frame of its owner, so that the real one stands there.

    Where u, v and w are left-handed, as on the right side of a vehicle, a part that stands along them is its own
    mirror image. What is cut is then turned over along x, and stands from its other end: its room is the same.

    Args:
        part: As it would stand in a right-handed frame. [mm]
    Returns: The same one where it is its own mirror image, or has no stand.
    """
    if not isinstance(part, SheetPart) or not part.poses:
        return part
    # Fasteners are drilled later, where the part stands.
    if part.shape is None and not part.holes and not part.cutouts and part.left == part.right:
        return part
    poses = tuple(
        s._replace(at=_along(s.at, s.x, part.length), x=s.x.removeprefix("-") if s.x.startswith("-") else f"-{s.x}")
        for s in part.poses
    )  # fmt: skip
    if part.shape is not None:
        return msgspec.structs.replace(
            part, shape=mirrored_face(part.shape, part.length), poses=poses
        )
    holes, cutouts = mirrored_openings(part.holes, part.cutouts, part.length)
    return msgspec.structs.replace(
        part, left=part.right, right=part.left, poses=poses, holes=holes, cutouts=cutouts
    )


def _along(at: tuple[float, float, float], way: str, by: float) -> tuple[float, float, float]:
    """A point moved along one of its owner's directions. [mm]"""
    axis = "uvw".index(way[-1])
    moved = list(at)
    moved[axis] += -by if way.startswith("-") else by
    return tuple(moved)  # type: ignore[return-value]  # three of them


def short_name(part: Part) -> str:
    """A part's name without that of what it belongs to."""
    return part.name.split(": ")[-1]
