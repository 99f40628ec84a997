"""Standing: a cut part folded up and stood in its place, as boxes.

A part has directions of its own: x along its length, y along its width, z to where its flanges go; its corner
is the outside corner of its base. A stand says where that corner lies and along which of the owner's
directions u, v, w each of its own points. What fit judges is made from these boxes, so it is what is cut.
"""

from typing import NamedTuple

from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import BarPart, SheetPart, Stand

WAYS = {
    "u": (0, 1), "-u": (0, -1), "v": (1, 1), "-v": (1, -1), "w": (2, 1), "-w": (2, -1),
}  # fmt: skip
"""The axis and the sense of a direction's word."""


class Turned(NamedTuple):
    """Three directions of a part: x, y, z."""

    x: str
    y: str
    z: str


FLAT = Turned("u", "v", "w")
"""Lying, its flanges up."""
LID = Turned("u", "-v", "-w")
"""Lying on top, its flanges down; its corner is the left back upper one."""
FACE = Turned("u", "-w", "v")
"""Upright across, its flanges inward; its corner is the left upper front one."""
BACK = Turned("u", "w", "-v")
"""Upright across, its flanges towards the front; its corner is the left lower back one."""
WALL = Turned("v", "w", "u")
"""Upright inward, its flanges to the right; its corner is the left lower front one."""
OTHER_WALL = Turned("v", "-w", "-u")
"""Upright inward, its flanges to the left; its corner is the right upper front one."""


def at(u: float, v: float, w: float, way: Turned = FLAT) -> Stand:
    """A stand with a part's corner at a point. [mm]"""
    return Stand((u, v, w), *way)


def folded(part: SheetPart | BarPart) -> tuple[Box, ...]:
    """A part as boxes in its own directions.

    Parameters
    ----------
    part : SheetPart or BarPart
        A folded sheet, by outside sizes, or a bar. [mm]

    Returns
    -------
    tuple of Box
        Base and flanges, each as thick as the sheet; a bar's box, its section's first side along z. [mm]
    """
    if isinstance(part, BarPart):
        high, wide = (float(p) for p in part.section.split("x")[:2])
        return (Box(0.0, 0.0, 0.0, part.length, wide, high),)
    a, b, t = part.length, part.width, part.thickness
    found = [Box(0.0, 0.0, 0.0, a, b, t)]
    for high, face in (
        (part.left, Box(0, 0, 0, t, b, part.left)), (part.right, Box(a - t, 0, 0, a, b, part.right)),
        (part.front, Box(0, 0, 0, a, t, part.front)), (part.back, Box(0, b - t, 0, a, b, part.back)),
    ):  # fmt: skip
        if high > t:
            found.append(face)
    return tuple(found)


def stood(box: Box, stand: Stand) -> Box:
    """A box of a part's own directions in its owner's. [mm]"""
    ends = [0.0] * 6
    corner, ways = stand.at, (stand.x, stand.y, stand.z)
    for n in range(3):
        axis, sense = WAYS[ways[n]]
        if sense > 0:
            ends[axis], ends[axis + 3] = corner[axis] + box[n], corner[axis] + box[n + 3]
        else:
            ends[axis], ends[axis + 3] = corner[axis] - box[n + 3], corner[axis] - box[n]
    return Box(*ends)


def standing(part: SheetPart | BarPart) -> tuple[tuple[Box, ...], ...]:
    """A part folded and stood in each of its places.

    Parameters
    ----------
    part : SheetPart or BarPart
        With its stands. [mm]

    Returns
    -------
    tuple of tuple of Box
        One for each stand, in the owner's directions. [mm]
    """
    boxes = folded(part)
    return tuple(tuple(stood(b, s) for b in boxes) for s in part.stands)


def right_handed(stand: Stand) -> bool:
    """Say whether a real part can stand so: a folded sheet has no mirror image."""
    (a, p), (b, q), (c, r) = (WAYS[w] for w in (stand.x, stand.y, stand.z))
    even = (a, b, c) in ((0, 1, 2), (1, 2, 0), (2, 0, 1))
    return (p * q * r > 0) == even
