"""Places to stand around the vehicle, and how each sees the vehicle's axes."""

from typing import Literal

import msgspec

from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.primitives import (
    Disc,
    Lines,
    Outline,
    Panel,
    Point,
    Scene,
    Size,
    Stroke,
    Words,
)

Station = Literal["left", "rear", "right", "front", "above", "underneath"]

STATIONS: tuple[Station, ...] = ("left", "rear", "right", "front", "above", "underneath")


class View(msgspec.Struct, frozen=True):
    """One way to look: which axis runs to the right (h) and up (k), and which towards the eye.

    Each is an axis number (0 x, 1 y, 2 z) and a sign.
    """

    h: tuple[int, int]
    k: tuple[int, int]
    near: tuple[int, int]

    def point(self, x: float, y: float, z: float) -> Point:
        """Project a point of the vehicle onto the picture. [mm]"""
        p = (x, y, z)
        return (p[self.h[0]] * self.h[1], p[self.k[0]] * self.k[1])

    def rect(self, box: Box) -> tuple[float, float, float, float]:
        """Project a box: (h0, k0, h1, k1) with h0 < h1 and k0 < k1. [mm]"""
        a, b = self.point(box.x0, box.y0, box.z0), self.point(box.x1, box.y1, box.z1)
        return (min(a[0], b[0]), min(a[1], b[1]), max(a[0], b[0]), max(a[1], b[1]))

    def nearness(self, box: Box) -> float:
        """How near to the eye a box's nearest face is; larger is nearer. [mm]"""
        axis, sign = self.near
        return box[axis + 3] if sign > 0 else -box[axis]


ELEVATION: dict[str, View] = {
    "left": View((0, 1), (2, 1), (1, -1)),
    "right": View((0, -1), (2, 1), (1, 1)),
    "rear": View((1, 1), (2, 1), (0, 1)),
    "front": View((1, -1), (2, 1), (0, -1)),
    "above": View((0, 1), (1, 1), (2, 1)),
    "underneath": View((0, 1), (1, -1), (2, -1)),
}
"""What one sees standing at each place."""

SLICE: dict[str, View] = {
    "left": View((0, 1), (1, 1), (2, 1)),
    "right": View((0, -1), (1, -1), (2, 1)),
    "rear": View((1, 1), (0, -1), (2, 1)),
    "front": View((1, -1), (0, 1), (2, 1)),
    "above": View((0, 1), (2, 1), (1, -1)),
    "underneath": View((0, 1), (2, 1), (1, -1)),
}
"""The same stretch seen from above (or from the side), the viewer at the lower edge."""


def carried_over(
    scene: Scene, sign: int, dh: float, dk: float, tag: str = "", sign_k: int = 1, *, swap: bool = False
) -> Scene:  # fmt: skip
    """Shift a scene, mirroring it along h where `sign` is -1 and along k where `sign_k` is.

    Args:
        scene: Strokes. [mm]
        sign, sign_k: 1, or -1 to mirror.
        dh, dk: Shift after mirroring. [mm]
        tag: Tag to give every stroke; their own tags stay where it is empty.
        swap: Whether h and k change places first.
    """

    def at(p: Point) -> Point:
        h, k = (p[1], p[0]) if swap else p
        return (h * sign + dh, k * sign_k + dk)

    found: list[Stroke] = []
    for s in scene:
        name = tag or s.tag
        if isinstance(s, Panel):
            a, b = at((s.h0, s.k0)), at((s.h1, s.k1))
            found.append(
                Panel(s.role, min(a[0], b[0]), min(a[1], b[1]), max(a[0], b[0]), max(a[1], b[1]),
                      s.radius, name)
            )  # fmt: skip
        elif isinstance(s, Outline):
            points = tuple(at(p) for p in s.points)
            found.append(Outline(s.role, points, s.closed, s.radius, s.radii, name))
        elif isinstance(s, Lines):
            found.append(Lines(s.role, tuple((at(a), at(b)) for a, b in s.pieces), name))
        elif isinstance(s, Disc):
            found.append(Disc(s.role, at(s.centre), s.radius, name))
        elif isinstance(s, Words):
            found.append(msgspec.structs.replace(s, at=at(s.at), tag=name))
        else:
            found.append(Size(s.role, at(s.a), at(s.b), s.text, name))
    return tuple(found)
