"""Standing: a cut part folded up and stood in its place, as boxes.

A part has directions of its own: x along its length, y along its width, z to where its flanges go; its corner
is the outside corner of its base. A stand says where that corner lies and along which of the owner's
directions u, v, w each of its own points. What fit judges is made from these boxes, so it is what is cut.
"""

import math
from collections.abc import Iterable
from typing import NamedTuple

from roomy_hull.core.folded import Vector, prisms
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import BarPart, Pose, SheetPart

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
FORTH = Turned("-u", "w", "v")
"""Upright across, its flanges inward; its corner is the right lower front one."""
REAR = Turned("-v", "w", "-u")
"""Upright inward, its flanges to the left; its corner is the right lower back one."""
ACROSS = Turned("v", "-u", "w")
"""A bar lying inward; its corner is the right lower front one."""
UPRIGHT = Turned("w", "u", "v")
"""A bar standing; its corner is the left lower front one."""
OTHER_WALL = Turned("v", "-w", "-u")
"""Upright inward, its flanges to the left; its corner is the right upper front one."""


def at(u: float, v: float, w: float, way: Turned = FLAT, tilt: float = 0.0) -> Pose:
    """A stand with a part's corner at a point. [mm, degrees]"""
    return Pose((u, v, w), *way, tilt)


def folded(part: SheetPart | BarPart) -> tuple[Box, ...]:
    """A part as boxes in its own directions.

    Args:
        part: A folded sheet, by outside sizes, or a bar. [mm]
    Returns:
        Base and flanges of a pan, each as thick as the sheet, by a short way; every other folded part's faces,
        each in the box around it; a bar's box, its section's first side along z. [mm]
    """
    if isinstance(part, BarPart):
        high, wide = (float(p) for p in part.section.split("x")[:2])
        return (Box(0.0, 0.0, 0.0, part.length, wide, high),)
    if part.shape is not None:
        return tuple(around(face) for face in prisms(part.shape, part.thickness))
    a, b, t = part.length, part.width, part.thickness
    found = [Box(0.0, 0.0, 0.0, a, b, t)]
    for high, face in (
        (part.left, Box(0, 0, 0, t, b, part.left)), (part.right, Box(a - t, 0, 0, a, b, part.right)),
        (part.front, Box(0, 0, 0, a, t, part.front)), (part.back, Box(0, b - t, 0, a, b, part.back)),
    ):  # fmt: skip
        if high > t:
            found.append(face)
    return tuple(found)


def around(points: Iterable[Vector]) -> Box:
    """The box around some points. [mm]"""
    x, y, z = zip(*points, strict=True)
    return Box(min(x), min(y), min(z), max(x), max(y), max(z))


def corners(part: SheetPart | BarPart, pose: Pose) -> list[list[Vector]]:
    """A part folded up and stood in a place: the corners of each of its faces, or of a bar.

    Args:
        part: The part. [mm]
    Returns: In the owner's directions. [mm]
    """
    if isinstance(part, SheetPart):
        faces = prisms(part.faces(), part.thickness)
    else:
        a, b, c = folded(part)[0][3:]
        (low, high), (one, other) = part.lost(), part.ends
        faces = [[
            (x0 + x1, y, z)
            for y in (0.0, b) for z in (0.0, c)
            for x0, x1 in (
                (0.0, low * (z / c if one.across == "high" else y / b)),
                (a, -high * (z / c if other.across == "high" else y / b)),
            )
        ]]  # fmt: skip
    return [[carried(p, pose) for p in face] for face in faces]


def carried(p: Vector, pose: Pose) -> Vector:
    """Carry a point of a part into its owner's directions. [mm]"""
    x, y, z = p
    if pose.tilt:
        c, s = math.cos(math.radians(pose.tilt)), math.sin(math.radians(pose.tilt))
        y, z = y * c - z * s, y * s + z * c
    found = list(pose.at)
    for value, way in zip((x, y, z), (pose.x, pose.y, pose.z), strict=True):
        axis, sense = WAYS[way]
        found[axis] += sense * value
    return tuple(found)  # type: ignore[return-value]  # three of them


def stood(box: Box, pose: Pose) -> Box:
    """A box of a part's own directions in its owner's. [mm]"""
    ends = [0.0] * 6
    corner, ways = pose.at, (pose.x, pose.y, pose.z)
    for n in range(3):
        axis, sense = WAYS[ways[n]]
        if sense > 0:
            ends[axis], ends[axis + 3] = corner[axis] + box[n], corner[axis] + box[n + 3]
        else:
            ends[axis], ends[axis + 3] = corner[axis] - box[n + 3], corner[axis] - box[n]
    return Box(*ends)


def standing(part: SheetPart | BarPart) -> tuple[tuple[Box, ...], ...]:
    """A part folded and stood in each of its places.

    Args:
        part: With its stands. [mm]
    Returns: One for each stand, in the owner's directions. [mm]
    """
    boxes = folded(part)
    return tuple(
        tuple(around(face) for face in corners(part, s)) if s.tilt else tuple(stood(b, s) for b in boxes)
        for s in part.poses
    )  # fmt: skip


def composed(pose: Pose, base: Pose) -> Pose:
    """A stand given in directions that themselves stand somewhere.

    Args:
        pose: In the directions of `base`, which is not tilted. [mm]
    """
    ways = {"u": base.x, "v": base.y, "w": base.z}

    def turned(way: str) -> str:
        found = ways[way[-1]]
        if not way.startswith("-"):
            return found
        return found[1:] if found.startswith("-") else f"-{found}"

    return Pose(carried(pose.at, base), turned(pose.x), turned(pose.y), turned(pose.z), pose.tilt)
