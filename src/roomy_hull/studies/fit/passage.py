"""Passage: can a unit be got in through its opening: upright, turned in plan, or tilted?

A flat search: the unit's outline in the plane that the turn happens in, moved and turned on a grid from
outside to its place, past sill and head (or the posts), under the roof and before the back. The third size
has to pass the opening by itself. What is found on the grid is a way with at least `PLAY` all round; that
none is found may be wrong by about a grid step.
"""

from __future__ import annotations

import functools
import math
from typing import TYPE_CHECKING

import msgspec

from roomy_hull.core import lazily

if TYPE_CHECKING:
    import numpy as np
    import scipy
else:
    np = lazily.module("numpy")
    scipy = lazily.module("scipy")  # its parts are read when they are asked for

STEP = 10.0
"""Grid step. [mm]"""
TURN = 3.0
"""Angle step. [degrees]"""
PLAY = 3.0
"""Room kept all round on the way. [mm]"""
WALL = 35.0
"""Thickness of the wall around an opening. [mm]"""

Opening = tuple[float, float, float, float]


class Passage(msgspec.Struct, frozen=True):
    """How a unit goes in: ``upright``, ``turned``, ``tilted`` or ``not``; and by how much it is too large."""

    how: str
    short: float = 0.0


@functools.lru_cache(maxsize=512)
def passage(
    size: tuple[float, float, float], bay: tuple[float, float, float], opening: Opening
) -> Passage:
    """Find how a unit can be got into its bay.

    Parameters
    ----------
    size : (width, depth, height)
        Outside sizes of the unit as it stands. [mm]
    bay : (length, depth, height)
        Of the empty bay. [mm]
    opening : (u0, w0, u1, w1)
        Of the access face. [mm]

    Returns
    -------
    Passage
        The plainest way that there is.
    """
    a, b, c = size
    wide, high = opening[2] - opening[0], opening[3] - opening[1]
    short = max(a - wide, c - high)
    if short <= 0.05:
        return Passage("upright")
    if a <= wide and _way_in(b, c, (opening[1], opening[3]), (bay[1], bay[2])):
        return Passage("tilted")
    if c <= high and _way_in(b, a, (opening[0], opening[2]), (bay[1], bay[0])):
        return Passage("turned")
    return Passage("not", short)


def _way_in(deep: float, tall: float, gap: tuple[float, float], room: tuple[float, float]) -> bool:  # ruff: ignore[too-many-locals]  # a box through an opening in the letters of its geometry
    """Search a way for a rectangle `deep` × `tall` through a gap in a wall into a room.

    Inward is the first axis; the wall fills from minus `WALL` to 0 below and above the gap.
    """
    reach = math.hypot(deep, tall)
    if min(deep, tall) > gap[1] - gap[0] or deep + 2 * PLAY > room[0] or tall + 2 * PLAY > room[1]:
        return False
    x = np.arange(-reach - WALL, room[0] + STEP, STEP)
    y = np.arange(min(gap[0], 0.0) - reach * 0.6, room[1] + reach * 0.6, STEP)
    angles = np.arange(-90.0, 90.0 + TURN / 2, TURN)
    far = 4 * (reach + room[0] + room[1])
    walls = (
        (-WALL, 0.0, -far, gap[0]), (-WALL, 0.0, gap[1], far), (0.0, far, -far, 0.0), (0.0, far, room[1], far),
        (room[0], far, -far, far),
    )  # fmt: skip
    free = np.ones((len(angles), len(x), len(y)), dtype=bool)
    grid_x, grid_y = np.meshgrid(x, y, indexing="ij")
    for n, angle in enumerate(angles):
        c, s = math.cos(math.radians(angle)), math.sin(math.radians(angle))
        p, q = deep / 2 + PLAY, tall / 2 + PLAY
        reach_x, reach_y = p * abs(c) + q * abs(s), p * abs(s) + q * abs(c)
        for x0, x1, y0, y1 in walls:
            mx, my, hx, hy = (x0 + x1) / 2, (y0 + y1) / 2, (x1 - x0) / 2, (y1 - y0) / 2
            dx, dy = grid_x - mx, grid_y - my
            meets = (np.abs(dx) < reach_x + hx) & (np.abs(dy) < reach_y + hy)
            meets &= np.abs(dx * c + dy * s) < p + hx * abs(c) + hy * abs(s)
            meets &= np.abs(dy * c - dx * s) < q + hx * abs(s) + hy * abs(c)
            free[n] &= ~meets
    regions, _count = scipy.ndimage.label(free, structure=np.ones((3, 3, 3)))
    outside = set(np.unique(regions[:, x < -reach / 2 - WALL, :]).tolist()) - {0}
    upright = int(np.argmin(np.abs(angles)))
    # Once upright inside the empty bay it can be pushed to any place there, so any such pose will do.
    inside = (grid_x > deep / 2) & (grid_y > 0)
    goal = set(regions[upright][inside].tolist()) - {0}
    return bool(outside & goal)
