"""The attitude: a side view let down on its springs, wheels and ground left where they are."""

import msgspec

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
from roomy_hull.job.vehicle import Vehicle

STILL = frozenset({"ground", "ground hatch", "person", "person mark", "person words"})


def settled(scene: Scene, vehicle: Vehicle, front: float, rear: float, sign: int = 1) -> Scene:  # ruff: ignore[complex-structure]  # one branch for each kind of stroke
    """Let a side view down at both ends.

    Args:
        scene: The vehicle seen from a side, at kerb attitude. [mm]
        vehicle: Its wheelbase; wheels at the axles stay.
        front, rear: How far each end settles. [mm]
        sign: 1 seen from the left (h aft), -1 from the right.
    Returns:
        Every point lower by what its place settles: for the small pitch of a vehicle the same as a turn, to less
        than a tenth of a millimetre in a metre of height at one degree.
    """
    base = vehicle.wheelbase
    slope = (rear - front) / base

    def at(p: Point) -> Point:
        # A turn by a small angle: down by the sag, and aft at the top where the tail is low.
        return (p[0] + sign * slope * (p[1] - 400.0), p[1] - front - slope * p[0] * sign)

    def of_wheel(stroke: Stroke) -> bool:
        if stroke.role not in ("tyre", "rim", "rim dark") or stroke.tag:
            return False
        if isinstance(stroke, Disc):
            h = stroke.centre[0]
        elif isinstance(stroke, Outline):
            h = sum(p[0] for p in stroke.points) / len(stroke.points)
        else:
            return False
        return min(abs(h * sign), abs(h * sign - base)) < 420

    found: list[Stroke] = []
    for s in scene:
        if s.role in STILL or of_wheel(s):
            found.append(s)
        elif isinstance(s, Panel):
            ring = ((s.h0, s.k0), (s.h1, s.k0), (s.h1, s.k1), (s.h0, s.k1))
            radius = min(s.radius, (s.h1 - s.h0) / 2, (s.k1 - s.k0) / 2)
            found.append(Outline(s.role, tuple(at(p) for p in ring), True, radius, (), s.tag))
        elif isinstance(s, Outline):
            found.append(
                Outline(s.role, tuple(at(p) for p in s.points), s.closed, s.radius, s.radii, s.tag)
            )
        elif isinstance(s, Lines):
            found.append(Lines(s.role, tuple((at(a), at(b)) for a, b in s.pieces), s.tag))
        elif isinstance(s, Disc):
            found.append(Disc(s.role, at(s.centre), s.radius, s.tag))
        elif isinstance(s, Words):
            found.append(msgspec.structs.replace(s, at=at(s.at), tag=s.tag))
        else:
            found.append(Size(s.role, at(s.a), at(s.b), s.text, s.tag))
    return tuple(found)


def settled_point(vehicle: Vehicle, front: float, rear: float, x: float, z: float) -> float:
    """The height of a point over level ground once the ends have settled. [mm]"""
    return z - front - (rear - front) * x / vehicle.wheelbase
