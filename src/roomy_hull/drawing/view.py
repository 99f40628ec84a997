"""Places to stand around the vehicle, and how each sees the vehicle's axes."""

from typing import Literal

import msgspec

from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Disc, Outline, Point, Scene, Size, Stroke, Words

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
        """Give how near to the eye a box's nearest face is; larger is nearer. [mm]"""
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


def carried_over(scene: Scene, scale_h: float, dh: float, dk: float, tag: str = "") -> Scene:
    """Shift a scene, mirroring it along h where `scale_h` is -1.

    Parameters
    ----------
    scene : Scene
        Strokes. [mm]
    scale_h : float
        1, or -1 to mirror.
    dh, dk : float
        Shift after mirroring. [mm]
    tag : str
        Tag to give every stroke.

    Returns
    -------
    Scene
        The shifted strokes.
    """

    def at(p: Point) -> Point:
        return (p[0] * scale_h + dh, p[1] + dk)

    found: list[Stroke] = []
    for s in scene:
        if isinstance(s, Outline):
            found.append(
                Outline(s.role, tuple(at(p) for p in s.points), s.closed, s.radius, s.radii, tag)
            )
        elif isinstance(s, Disc):
            found.append(Disc(s.role, at(s.centre), s.radius, tag))
        elif isinstance(s, Words):
            found.append(Words(s.role, at(s.at), s.text, s.size, s.fixed, s.anchor, s.fit, tag))
        else:
            found.append(Size(s.role, at(s.a), at(s.b), s.offset, s.text, tag))
    return tuple(found)
