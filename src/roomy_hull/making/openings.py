"""Openings of parts where they stand: what stands in which."""

import math
from typing import NamedTuple

import numpy as np

from roomy_hull.core.folded import places
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import SheetPart
from roomy_hull.making.contacts import GAP, Frame, Item, Points, box_corners, carry, frame_of


class Opening(NamedTuple):
    """A hole or a cut-out of a sheet where it stands: its face's directions, its middle, its size. [mm]

    A round one is as high as it is wide, and `circle` says so.
    """

    frame: Frame
    out: Points
    middle: tuple[float, float]
    size: tuple[float, float]
    circle: bool
    thickness: float

    @property
    def around(self) -> float:
        """The length of its edge. [mm]"""
        return math.pi * self.size[0] if self.circle else 2 * sum(self.size)

    def takes(self, box: Box) -> bool:
        """Whether a box stands in it: through the sheet, and nowhere over its edge."""
        d = box_corners(box) - self.frame.origin
        deep = d @ self.out
        if deep.min() > self.thickness + GAP or deep.max() < -GAP:
            return False
        x, y = d @ self.frame.x - self.middle[0], d @ self.frame.y - self.middle[1]
        reach_x, reach_y = float(np.abs(x).max()), float(np.abs(y).max())
        return reach_x <= self.size[0] / 2 + GAP and reach_y <= self.size[1] / 2 + GAP


def openings_of(item: Item) -> list[Opening]:
    """Every opening of a sheet where it stands; none of a bar or a box. [mm]"""
    part = item.what
    if not isinstance(part, SheetPart) or item.at is None:
        return []
    found = []
    for face, place, _before in places(part.faces(), part.thickness):
        if not face.holes and not face.cutouts:
            continue
        frame = frame_of(place.origin, place.x, place.y, item.at)
        up = tuple(o + d for o, d in zip(place.origin, place.z, strict=True))
        out = carry([up], item.at)[0] - frame.origin  # type: ignore[list-item]
        found += [
            Opening(frame, out, (h.x, h.y), (h.diameter, h.diameter), True, part.thickness) for h in face.holes
        ]  # fmt: skip
        found += [
            Opening(frame, out, (c.x + c.length / 2, c.y + c.width / 2), (c.length, c.width), False, part.thickness)
            for c in face.cutouts
        ]  # fmt: skip
    return found
