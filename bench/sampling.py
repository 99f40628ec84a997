"""Togetherness by brute force: every motion in fine steps, every pose asked of FCL, an independent library.

It shares the kit's motions and the frames with the studies, and nothing else: no sweeps, no prisms, no
separating axes. FCL is Pan, Chitta & Manocha (ICRA 2012), through its Python binding.
"""

import math

import fcl
import numpy as np

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.motions import Opening
from roomy_hull.core.geometry.frames import Frame
from roomy_hull.core.geometry.motion import TURNS, Motion
from roomy_hull.core.geometry.solids import Box
from roomy_hull.job.carried import Carried

Placed = list[tuple[np.ndarray, np.ndarray, np.ndarray]]
PENETRATION = 0.05
"""What shares less than this only touches, as in the studies. [mm]"""


def corners(box: Box) -> np.ndarray:
    """A box's lower corner and the three beside it."""
    low, size = np.array(box[:3]), np.array(box.size())
    return np.vstack([low, low + np.diag(size)])


def poses(motion: Motion, count: int) -> list[list[tuple[np.ndarray, bool]]]:
    """The four corners of every moved box at so many moments of every step, in the owner's directions.

    Args:
        motion: The motion. [mm, degrees]
        count: Moments a step.
    Returns: Moment by moment, box by box: its corners, and whether it moves in that step.
    """
    here = [corners(m.box) for m in motion.moved]
    found = [[(c, True) for c in here]]
    for step in motion.steps:
        for n in range(1, count + 1):
            share = n / count
            there = []
            for moved, start in zip(motion.moved, here, strict=True):
                if moved.group not in step.groups:
                    there.append((start, False))
                elif step.verb in TURNS:
                    there.append((_turned(start, step.axis, step.pivot, step.by * share), True))
                else:
                    by = np.zeros(3)
                    by[step.axis] = step.by * share
                    there.append((start + by, True))
            found.append(there)
        here = [c for c, _ in found[-1]]
    return found


def _turned(
    points: np.ndarray, axis: int, pivot: tuple[float, float], degrees: float
) -> np.ndarray:
    """Turn points about a line along an axis."""
    a, b = {0: (1, 2), 1: (0, 2), 2: (0, 1)}[axis]
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    made = points.copy()
    p, q = points[:, a] - pivot[0], points[:, b] - pivot[1]
    made[:, a], made[:, b] = pivot[0] + p * c - q * s, pivot[1] + p * s + q * c
    return made


def in_vehicle(assembly: Assembly, opening: Opening, points: np.ndarray) -> np.ndarray:
    """Carry points from the owner's directions into vehicle axes."""
    thing = assembly.thing(opening.owner)
    if thing is None:
        return points
    if isinstance(thing.value, Carried) or thing.place is None:
        moved: np.ndarray = points + np.array(thing.envelope[:3])
        return moved
    unit, place = thing.value, thing.place
    at = Frame(*place.frame.point(unit.u, unit.v, unit.w), place.frame.side)
    return np.array([at.point(*p) for p in points])


def solid(points: np.ndarray) -> fcl.CollisionObject:
    """A box by its four corners as FCL's own, a hair smaller so that touching is not meeting."""
    edges = points[1:] - points[0]
    sizes = np.linalg.norm(edges, axis=1)
    axes = (edges / sizes[:, None]).T
    if np.linalg.det(axes) < 0:
        axes[:, 2] *= -1  # a mirrored box is the same box
    centre = points[0] + edges.sum(axis=0) / 2
    return fcl.CollisionObject(fcl.Box(*(sizes - PENETRATION)), fcl.Transform(axes, centre))


def meets(one: list[fcl.CollisionObject], other: list[fcl.CollisionObject]) -> bool:
    """Say whether any two of some solids meet."""
    return any(
        fcl.collide(a, b, fcl.CollisionRequest(), fcl.CollisionResult()) for a in one for b in other
    )


def clashes(assembly: Assembly, count: int) -> tuple[set[tuple[str, str]], set[tuple[str, str]]]:
    """Find by sampling which openings on their way meet which others closed, and which open.

    Args:
        assembly: The job in vehicle axes.
        count: Moments a step.
    Returns: Pairs (x, y): x on its way meets y closed, x on its way meets y open.
    """
    openings = assembly.openings()
    ways, shut, wide = {}, {}, {}
    for o in openings:
        moments = poses(o.motion, count)
        whole = [
            [solid(in_vehicle(assembly, o, c)) for c, moves in moment if moves]
            for moment in moments
        ]
        added = [solid(in_vehicle(assembly, o, corners(b))) for b in o.motion.added]
        ways[o.id] = [s for moment in whole for s in moment] + added
        shut[o.id] = [solid(in_vehicle(assembly, o, c)) for c, _ in moments[0]]
        last = [solid(in_vehicle(assembly, o, c)) for c, _ in moments[-1]]
        wide[o.id] = (ways[o.id] if o.motion.spread else last) + added
    closed, opened = set(), set()
    for x in openings:
        for y in openings:
            if x is not y:
                if meets(ways[x.id], shut[y.id]):
                    closed.add((x.id, y.id))
                if meets(ways[x.id], wide[y.id]):
                    opened.add((x.id, y.id))
    return closed, opened
