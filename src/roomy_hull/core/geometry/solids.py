"""Boxes: the prisms that everything in a job is made of."""

from collections.abc import Iterable
from typing import NamedTuple

TOUCH = 0.05
"""Two solids that share less than this are touching, not overlapping. [mm]"""


class Box(NamedTuple):
    """A box along the axes, from the lower to the upper corner. [mm]"""

    x0: float
    y0: float
    z0: float
    x1: float
    y1: float
    z1: float

    def size(self) -> tuple[float, float, float]:
        """The edge lengths along the three axes. [mm]"""
        return (self.x1 - self.x0, self.y1 - self.y0, self.z1 - self.z0)

    def centre(self) -> tuple[float, float, float]:
        """The centre point. [mm]"""
        return ((self.x0 + self.x1) / 2, (self.y0 + self.y1) / 2, (self.z0 + self.z1) / 2)

    def volume(self) -> float:
        """The volume. [mm³]"""
        a, b, c = self.size()
        return a * b * c

    def moved(self, dx: float, dy: float = 0.0, dz: float = 0.0) -> "Box":
        """The same box shifted. [mm]"""
        return Box(
            self.x0 + dx, self.y0 + dy, self.z0 + dz, self.x1 + dx, self.y1 + dy, self.z1 + dz
        )

    def shares(self, other: "Box") -> bool:
        """Whether two boxes share room, beyond touching."""
        return (
            self[0] < other[3] - TOUCH and other[0] < self[3] - TOUCH
            and self[1] < other[4] - TOUCH and other[1] < self[4] - TOUCH
            and self[2] < other[5] - TOUCH and other[2] < self[5] - TOUCH
        )  # fmt: skip

    def common(self, other: "Box") -> "Box | None":
        """The box that two boxes share, or nothing where they only touch."""
        x0, y0, z0 = max(self.x0, other.x0), max(self.y0, other.y0), max(self.z0, other.z0)
        x1, y1, z1 = min(self.x1, other.x1), min(self.y1, other.y1), min(self.z1, other.z1)
        if x1 - x0 > TOUCH and y1 - y0 > TOUCH and z1 - z0 > TOUCH:
            return Box(x0, y0, z0, x1, y1, z1)
        return None


def hull(boxes: Iterable[Box]) -> Box:
    """The smallest box around some boxes.

    Args:
        boxes: At least one box. [mm]
    Returns: Their common envelope. [mm]
    """
    lows_highs = list(zip(*boxes, strict=True))
    return Box(*(min(c) for c in lows_highs[:3]), *(max(c) for c in lows_highs[3:]))


def without(box: Box, holes: Iterable[Box]) -> list[Box]:
    """What some boxes leave of another.

    Args:
        box: The whole. [mm]
        holes: What is taken away; they may overlap and reach beyond it. [mm]
    Returns: Boxes that do not overlap; the box itself where nothing is taken away. [mm]
    """
    left = [box]
    for hole in holes:
        rest: list[Box] = []
        for one in left:
            met = one.common(hole)
            if met is None:
                rest.append(one)
                continue
            at = one
            for axis in range(3):
                for end, low in ((axis, True), (axis + 3, False)):
                    if abs(met[end] - at[end]) > TOUCH:
                        name = Box._fields[axis if not low else axis + 3]
                        rest.append(at._replace(**{name: met[end]}))
                        at = at._replace(**{Box._fields[end]: met[end]})
        left = rest
    return left
