"""What stands around a bend on a brake: punch, die, beam and bed, and whether a face of the part is in their way."""

import functools
import math
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from roomy_hull.shop.tools import Brake

Points = NDArray[np.float64]
DIE = 8.0
"""A V die's usual opening, in sheet thicknesses (common practice)."""
DIES = (5.0, 14.0)
"""Between these openings a die still bends a sheet, in its thicknesses (common practice)."""
LEG = 0.7
"""The shortest leg outside, as a part of the die's opening: it has to lie on both of its edges (common practice)."""
TIP = 43.0
"""Half of a punch's tip: a little sharper than a right angle. [degree]"""
TOUCH = 0.05
"""What overlaps less does not collide. [mm]"""


class Tool(NamedTuple):
    """A tool: its words, its cross-section across the bend, the normals of its sides, how far it runs along it. [mm]"""

    name: str
    ring: Points
    axes: Points
    half: float


@functools.lru_cache(maxsize=512)
def tools_around(brake: Brake, thickness: float, die: float, half: float) -> tuple[Tool, ...]:
    """Punch, die, beam and bed around a bend.

    Args:
        brake: The shop's. [mm]
        thickness, die: Sheet, and the die's opening. [mm]
        half: Half the length of punch and die. [mm]
    Returns: The sheet's outer face lies at 0, the bend's middle at the origin; beam and bed stand last. [mm]
    """
    far, w, t = 1e5, brake.punch_width / 2, thickness
    rise = w / math.tan(math.radians(TIP))
    high = max(brake.punch_height, rise + 1)
    block, beam = die / 2 + brake.die_width / 2, brake.beam_width / 2
    punch = [(0.0, t), (w, t + rise), (w, t + high), (-w, t + high), (-w, t + rise)]
    return (
        _tool("punch", punch, half),
        _tool("die", _oblong(block, -brake.die_height, 0.0), half),
        _tool("beam", _oblong(beam, t + high, t + high + 3000), far),
        _tool("bed", _oblong(beam, -brake.die_height - 3000, -brake.die_height), far),
    )


def _tool(name: str, ring: list[tuple[float, float]], half: float) -> Tool:
    corners = np.array(ring)
    around = np.roll(corners, -1, axis=0) - corners
    return Tool(name, corners, np.column_stack([around[:, 1], -around[:, 0]]), half)


def _oblong(half: float, low: float, high: float) -> list[tuple[float, float]]:
    return [(-half, low), (half, low), (half, high), (-half, high)]


def meets(points: Points, tool: Tool) -> bool:
    """Whether the convex hull of a face's corners and a tool share room.

    A tool is the same all along the bend, so it is enough to look at the face's stretch beside it, seen along the bend,
    and to look for an axis that separates the two there.

    Args:
        points: The face's corners, outer ring then inner, along, across and above the bend. [mm]
    Returns: Whether they overlap by more than `TOUCH`.
    """
    n = len(points) // 2
    x = points[:, 0]
    flat = points[:, 1:]
    if x[x.argmin()] < -tool.half or x[x.argmax()] > tool.half:
        one = np.concatenate([np.arange(2 * n), np.arange(n)])
        other = np.concatenate([
            np.roll(np.arange(n), -1), np.roll(np.arange(n), -1) + n, np.arange(n, 2 * n)])  # fmt: skip
        rows = [flat[np.abs(x) <= tool.half]]
        for end in (-tool.half, tool.half):
            a, b = x[one] - end, x[other] - end
            cut = a * b < 0
            share = (a[cut] / (a[cut] - b[cut]))[:, None]
            rows.append(flat[one[cut]] * (1 - share) + flat[other[cut]] * share)
        flat = np.concatenate(rows)
        if not len(flat):
            return False
    edges = points[[*range(1, n), 0]] - points[:n]
    up = points[n] - points[0]
    axes = np.concatenate([
        tool.axes, np.column_stack([-edges[:, 2], edges[:, 1]]), [[-up[2], up[1]], up[1:]],
        np.column_stack([edges[:, 2] * up[0] - edges[:, 0] * up[2], edges[:, 0] * up[1] - edges[:, 1] * up[0]]),
    ])  # fmt: skip
    long = np.hypot(axes[:, 0], axes[:, 1])
    axes = axes[long > 1e-6] / long[long > 1e-6, None]
    a, b = flat @ axes.T, tool.ring @ axes.T
    return bool(
        np.all((a.max(axis=0) > b.min(axis=0) + TOUCH) & (b.max(axis=0) > a.min(axis=0) + TOUCH))
    )


def die_for(brake: Brake, thickness: float, leg: float, load: float) -> float | None:
    """The die that a bend is made in: the nearest to 8 sheet thicknesses that its legs lie on and the brake can press.

    Args:
        thickness, leg: Sheet, and the shorter leg outside. [mm]
        load: Force times opening: 1.33·TS·w·t². [N·mm]
    Returns: Its opening; none where there is none such. [mm]
    """
    fine = [
        v for v in brake.dies
        if DIES[0] * thickness <= v <= DIES[1] * thickness and LEG * v <= leg + 1e-9
        and load / v <= brake.force * 1000
    ]  # fmt: skip
    return min(fine, key=lambda v: (abs(v - DIE * thickness), v), default=None)


@functools.lru_cache(maxsize=2048)
def put_together(segments: tuple[float, ...], low: float, high: float) -> tuple[float, ...] | None:
    """Lengths of punch that add up to something between two lengths, as long as can be.

    Args:
        segments: What there is; each once, to the millimetre. [mm]
        low, high: The least and the greatest length. [mm]
    Returns: The lengths, the longest first; none where nothing adds up. [mm]
    """
    most = math.floor(high + 1e-9)
    ways: dict[int, tuple[float, ...]] = {0: ()}
    for one in sorted(segments, reverse=True):
        size = round(one)
        for total, row in list(ways.items()):
            if size > 0 and total + size <= most and total + size not in ways:
                ways[total + size] = (*row, one)
    best = max(ways)
    return ways[best] if best >= low - 1e-9 and best > 0 else None
