"""Frames: from a bay's own directions (u along the wall, v inward, w up) to the vehicle's axes.

Vehicle axes are right-handed in the sense of the trade: x aft of the front axle, y to the right,
z up from level ground.
"""

from typing import Literal, NamedTuple

from roomy_hull.core.geometry.solids import Box

Side = Literal["left", "right", "rear"]

OTHER_SIDE: dict[str, str] = {"left": "right", "right": "left"}


class Frame(NamedTuple):
    """A bay's place: its origin in vehicle axes and the side from which it is reached."""

    x: float
    y: float
    z: float
    side: Side

    def box(self, b: Box) -> Box:
        """Carry a box from (u, v, w) of the bay into vehicle axes.

        Args:
            b: Box in the bay's directions. [mm]
        Returns: The same box in vehicle axes. [mm]
        """
        u0, v0, w0, u1, v1, w1 = b
        x, y, z = self.x, self.y, self.z
        if self.side == "left":
            return Box(x + u0, y + v0, z + w0, x + u1, y + v1, z + w1)
        if self.side == "right":
            return Box(x + u0, y - v1, z + w0, x + u1, y - v0, z + w1)
        return Box(x - v1, y + u0, z + w0, x - v0, y + u1, z + w1)

    def point(self, u: float, v: float, w: float) -> tuple[float, float, float]:
        """Carry a point from (u, v, w) into vehicle axes. [mm]"""
        if self.side == "left":
            return (self.x + u, self.y + v, self.z + w)
        if self.side == "right":
            return (self.x + u, self.y - v, self.z + w)
        return (self.x - v, self.y + u, self.z + w)

    def local(self, x: float, y: float, z: float) -> tuple[float, float, float]:
        """Carry a point from vehicle axes into (u, v, w). [mm]"""
        if self.side == "left":
            return (x - self.x, y - self.y, z - self.z)
        if self.side == "right":
            return (x - self.x, self.y - y, z - self.z)
        return (y - self.y, self.x - x, z - self.z)
