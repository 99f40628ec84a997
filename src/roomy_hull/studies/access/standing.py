"""Where people stand, and what is then in the way of their arms and eyes."""

from __future__ import annotations

from typing import TYPE_CHECKING, NamedTuple

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core import lazily
from roomy_hull.core.ergonomics.figure import DEPTH, TOES, Figure
from roomy_hull.core.geometry.solids import Box
from roomy_hull.studies.access.moves import reach_from
from roomy_hull.studies.access.spaces import Space, place_of

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
    Flags = npt.NDArray[np.bool_]
else:
    np = lazily.module("numpy")

BESIDE, APART = 600.0, 200.0
"""Places to stand are tried so far to both sides, and so far from one another. [mm]"""
OUT = 1000.0
"""And so far out from the body. [mm]"""
GROUND = {"ground"}


class Surroundings(NamedTuple):
    """What stands about a space as one takes something out of it: boxes, (boxes, 6). [mm]

    `solid` is in the way of people, arms and eyes; `own` are the walls and lid of the space itself, in the way of eyes.
    """

    solid: Array
    own: Array


class Settled(NamedTuple):
    """How the vehicle stands: how far it has settled at its front axle and at its rear one. [mm]"""

    front: float
    rear: float
    wheelbase: float

    def ground(self, x: float) -> float:
        """How high the ground is at a place, in vehicle axes. [mm]"""
        return self.front + (self.rear - self.front) * x / self.wheelbase


def surroundings(assembly: Assembly, space: Space) -> Surroundings:
    """What stands about a space, with open what has to be open for it.

    Parameters
    ----------
    assembly : Assembly
        The job in vehicle axes.
    space : Space
        Which.

    Returns
    -------
    Surroundings
        Units and carried things, what never moves, and doors as they then stand.
    """
    region = _region(space)
    boxes: list[Box] = []
    for thing in assembly.things:
        if thing.id == space.owner or thing.id in space.first or not thing.reach.shares(region):
            continue
        moving = {o.id for o in thing.openings} & space.needs
        if not moving:
            boxes += [b for b in thing.solids if b.shares(region)]
            continue
        boxes += [b for b in thing.still if b.shares(region)]
        parts = [p.box for o in thing.openings for p in (o.opened if o.id in moving else o.rest)]
        boxes += [b for b in parts if b.shares(region)]
    for opening in assembly.ground.openings:
        if space.top and place_of(opening.id) == space.owner:
            continue  # the drawer itself, whose walls are its own
        pieces = opening.opened if opening.id in space.needs else opening.rest
        boxes += [p.box for p in pieces if p.box.shares(region)]
    boxes += [
        f.piece.box
        for f in assembly.ground.fixed
        if f.role not in GROUND and f.piece.box.shares(region)
    ]
    return around(space, _array(boxes))


def around(space: Space, solid: Array) -> Surroundings:
    """A space's surroundings from what is solid about it, (boxes, 6). [mm]"""
    return Surroundings(solid, _array(list(space.walls)))


def outsides(assembly: Assembly) -> tuple[Box, ...]:
    """What of the body people stand before: the tray's floor, and the canopy where there is one. [mm]"""
    canopy = assembly.ground.canopy
    return (assembly.ground.floor, *([canopy] if canopy is not None else []))


def _region(space: Space) -> Box:
    """Where anything could be in the way: outward from the room's inner face, and so far to both sides. [mm]"""
    axis, sign = reach_from(space.side)
    low, high = list(space.box[:3]), list(space.box[3:])
    wall = 1 - axis
    low[wall] -= BESIDE + SHOULDERS
    high[wall] += BESIDE + SHOULDERS
    if sign > 0:
        high[axis] = FAR
    else:
        low[axis] = -FAR
    low[2], high[2] = -FAR, FAR
    return Box(low[0], low[1], low[2], high[0], high[1], high[2])


FAR = 20000.0
SHOULDERS = 300.0
"""Half of the widest shoulders, and some air. [mm]"""


def _array(boxes: list[Box]) -> Array:
    return np.array([tuple(b) for b in boxes]).reshape(-1, 6)


def places(
    space: Space, figure: Figure, about: Surroundings, settled: Settled, body: tuple[Box, ...]
) -> Array:
    """Where somebody can stand to take something out of a space.

    Parameters
    ----------
    space : Space
        As it stands open.
    figure : Figure
        Who.
    about : Surroundings
        What stands there.
    settled : Settled
        How the vehicle stands.
    body : tuple of Box
        The body's outsides, from `outsides`. [mm]

    Returns
    -------
    array
        (places, 3): the middle between the feet, in vehicle axes; the trunk is clear of all that is lower than the
        shoulders and higher than the knees. [mm]
    """
    axis, sign = reach_from(space.side)
    wall = 1 - axis
    face = max(sign * (b[axis + 3] if sign > 0 else b[axis]) for b in body)
    end = max(face, sign * (space.box[axis + 3] if sign > 0 else space.box[axis]))
    low, high = space.box[wall], space.box[wall + 3]
    keep = TOES + DEPTH / 2
    outs = np.arange(face + keep, end + OUT, APART)
    outs = np.append(outs, end + keep)
    sides = np.append(
        np.arange(low - BESIDE, high + BESIDE + 1, APART),
        [(low + high) / 2, low - keep, high + keep],
    )
    feet = np.zeros((len(outs) * len(sides), 3))
    feet[:, wall], feet[:, axis] = np.repeat(sides, len(outs)), sign * np.tile(outs, len(sides))
    feet[:, 2] = settled.front + (settled.rear - settled.front) * feet[:, 0] / settled.wheelbase
    # A round of the trunk's depth: one turns to what one reaches for.
    down, up = feet - DEPTH / 2, feet + DEPTH / 2
    down[:, 2] = feet[:, 2] + KNEES * figure.stature
    up[:, 2] = feet[:, 2] + figure.shoulder
    # One ducks under a door or a shelf; nobody has the head in what is being looked into.
    head = up.copy()
    head[:, 2] = feet[:, 2] + figure.stature
    own = np.vstack([about.own, np.array([tuple(space.box)])])
    stopped = _hit(down, up, about.solid) | _hit(down, head, own)
    found: Array = feet[~stopped]
    return found


def _hit(low: Array, high: Array, boxes: Array) -> Flags:
    """Which of some bodies share room with any box. [mm]"""
    meets = (low[:, None] < boxes[None, :, 3:] - 1) & (high[:, None] > boxes[None, :, :3] + 1)
    found: Flags = np.any(np.all(meets, axis=2), axis=1)
    return found


KNEES = 0.285
"""Feet and shins go under things; the knee is so high, of stature (Winter, from memory)."""
