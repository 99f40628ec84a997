"""Faces: at which further sides a bay is open, each with its direction in the bay and its clear openings."""

from typing import NamedTuple

from roomy_hull.core.geometry.regions import Rect
from roomy_hull.core.geometry.solids import Box
from roomy_hull.job.canopy import Bay, Canopy, Face
from roomy_hull.kit.body import sides

DIRECTIONS: dict[str, dict[str, tuple[int, int]]] = {
    "left": {"left": (1, -1), "right": (1, 1), "rear": (0, 1), "inside": (0, -1), "top": (2, 1), "under": (2, -1)},
    "right": {"right": (1, -1), "left": (1, 1), "rear": (0, 1), "inside": (0, -1), "top": (2, 1), "under": (2, -1)},
    "rear": {"rear": (1, -1), "left": (0, -1), "right": (0, 1), "inside": (1, 1), "top": (2, 1), "under": (2, -1)},
}  # fmt: skip
"""Of a bay by its side: which axis of its own leads out of a face, and in which sense."""


class FaceWay(NamedTuple):
    """A further way into a bay.

    Attributes:
        face: ``left``, ``right``, ``rear``, ``top``, ``under`` or ``inside``.
        axis, sense: Which of u, v, w leads out there, and whether upward.
        openings: Clear openings in the two other axes, in their order. [mm]
    """

    face: Face
    axis: int
    sense: int
    openings: tuple[Rect, ...]

    def passes(self, size: tuple[float, float, float], slack: float) -> bool:
        """Whether a unit of a size passes one of the openings straight, as it stands. [mm]"""
        p, q = (s for n, s in enumerate(size) if n != self.axis)
        return any(p <= r[2] - r[0] + slack and q <= r[3] - r[1] + slack for r in self.openings)

    def seen(self, box: Box, size: Box) -> Box:
        """A box of a bay as one sees it who stands before this face: along it, inward, and up it. [mm]"""
        n, deep = self.axis, size[self.axis + 3]
        inward = (deep - box[n + 3], deep - box[n]) if self.sense > 0 else (box[n], box[n + 3])
        p, q = (m for m in range(3) if m != n)
        return Box(box[p], inward[0], box[q], box[p + 3], inward[1], box[q + 3])

    def out(self, box: Box, size: Box) -> Box:
        """The room a box passes through on its straight way out of the bay there. [mm]"""
        ends = list(box)
        if self.sense > 0:
            ends[self.axis + 3] = max(box[self.axis + 3], size[self.axis + 3])
        else:
            ends[self.axis] = min(box[self.axis], size[self.axis])
        return Box(*ends)


def ways_of(canopy: Canopy, bay: Bay, *, own: bool = False) -> tuple[FaceWay, ...]:
    """The further ways into a bay.

    Args:
        canopy: In whose walls its doors are. [mm]
        own: Whether the walls are the vehicle's own, whose doors nobody drew: then a face is open as a whole.
    Returns: In the order in which the bay names them; a wall without a door has no openings.
    """
    found = []
    for face in bay.also:
        axis, sense = DIRECTIONS[bay.side][face]
        sizes = (bay.length, bay.depth, bay.height)
        rest = [sizes[n] for n in range(3) if n != axis]
        whole = (0.0, 0.0, rest[0], rest[1])
        if face in ("top", "under", "inside") or own:
            found.append(FaceWay(face, axis, sense, (whole,)))
            continue
        along, back = _along(canopy, bay, face)
        rows = sides.clear_in(canopy, face, along, bay.sill, whole)
        if back:
            rows = tuple((rest[0] - r[2], r[1], rest[0] - r[0], r[3]) for r in rows)
        found.append(FaceWay(face, axis, sense, rows))
    return tuple(found)


def _along(canopy: Canopy, bay: Bay, face: str) -> tuple[float, bool]:
    """Where a bay begins along the wall of a face, and whether the bay counts the other way. [mm]"""
    wall = canopy.wall
    if bay.side in ("left", "right") and face in ("left", "right"):
        return wall + bay.start, False
    if bay.side == "left":
        return wall, False
    if bay.side == "right":
        return canopy.width - wall - bay.depth, True
    # A rear bay counts its depth from the rear, side walls from the front.
    return canopy.length - wall - bay.depth, True
