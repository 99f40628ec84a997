"""Where people stand, and what is then in the way of their arms and eyes."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import TYPE_CHECKING, NamedTuple

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.things import Thing
from roomy_hull.core import lazily
from roomy_hull.core.ergonomics.figure import DEPTH, TOES, Figure
from roomy_hull.core.geometry.rays import blocked, ends_of, hidden, in_fans, skinned
from roomy_hull.core.geometry.solids import TOUCH, Box
from roomy_hull.studies.access.moves import reach_from
from roomy_hull.studies.access.spaces import Space, place_of

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
    Flags = npt.NDArray[np.bool_]
    Rows = npt.NDArray[np.intp]
else:
    np = lazily.module("numpy")

BESIDE, APART = 600.0, 200.0
"""Places to stand are tried so far to both sides, and so far from one another. [mm]"""
OUT = 1000.0
"""And so far out from the body. [mm]"""
GROUND = {"ground"}


class Surroundings:
    """What stands about a space as one takes something out of it: boxes, (boxes, 6). [mm]

    Args:
        solid: What is in the way of people, arms and eyes.
        own: The walls and lid of the space itself, in the way of trunks and eyes.
    Attributes:
        watched: Of everything asked so far, (4, 3): the corners of the box around where ways begin and of that around
            where they end. What lies between none of these pairs has no part in any answer.
    """

    def __init__(self, solid: Array, own: Array) -> None:
        self.solid, self.own = solid, own
        around, walls = skinned(solid), skinned(own)
        self._low, self._high = (np.concatenate(rows) for rows in zip(around, walls, strict=True))
        self._around = len(around[0])
        self._ends = ends_of(self._low, self._high)
        self.watched: list[Array] = []

    def stops(self, a: Array, b: Array, *, walls: bool = False) -> Flags:
        """Which straight ways are stopped, (ways,); by the space's own walls too, if that is asked."""
        near = self._between(a, b)
        if not walls:
            near = near[near < self._around]
        return blocked(a, b, self._low[near], self._high[near])

    def hides(self, eyes: Array, points: Array) -> Flags:
        """Which points are hidden from which eyes, (eyes, points), by the space's own walls too."""
        near = self._between(eyes, points)
        return hidden(eyes, points, self._low[near], self._high[near])

    def _between(self, a: Array, b: Array) -> Rows:
        """Which boxes lie in what goes from the ones to the others; what was asked is watched."""
        fan = np.array([a.min(axis=0), a.max(axis=0), b.min(axis=0), b.max(axis=0)])
        self.watched.append(fan)
        return np.flatnonzero(in_fans(fan[None], self._ends))

    def takes(self, low: Array, high: Array) -> Flags:
        """Which bodies, by their lower and upper corners, share room with anything solid."""
        around = low.min(axis=0), high.max(axis=0)
        self.watched.append(np.array([*around, *around]))
        near = (around[0] < self.solid[:, 3:]) & (around[1] > self.solid[:, :3])
        return _hit(low, high, self.solid[near.all(axis=1)])

    def fans(self) -> Array:
        """What was watched, (questions, 4, 3): the corners around the ways' beginnings, and around their ends. [mm]"""
        return np.array(self.watched).reshape(-1, 4, 3)


class Settled(NamedTuple):
    """How the vehicle stands: how far it has settled at its front axle and at its rear one. [mm]"""

    front: float
    rear: float
    wheelbase: float

    def ground(self, x: float) -> float:
        """How high the ground is at a place, in vehicle axes. [mm]"""
        return self.front + (self.rear - self.front) * x / self.wheelbase


class Obstacles:
    """All that is solid in a job, with each thing's openings."""

    def __init__(self, assembly: Assembly) -> None:
        self._things = assembly.things
        self._reach = _array([t.reach for t in assembly.things])
        self._boxes = _array([b for t in assembly.things for b in t.solids])
        self._of = np.repeat(
            np.arange(len(assembly.things)), [len(t.solids) for t in assembly.things]
        )
        self._number = {t.id: n for n, t in enumerate(assembly.things)}
        self._moving = {o.id: n for n, t in enumerate(assembly.things) for o in t.openings}
        ground = assembly.ground
        self._openings = {o.id: o for o in ground.openings}
        self._rest = _array([p.box for o in ground.openings for p in o.rest])
        self._rest_of = [o.id for o in ground.openings for _p in o.rest]
        self._fixed = _array([f.piece.box for f in ground.fixed if f.role not in GROUND])

    def about(self, space: Space) -> Surroundings:
        """What stands about a space, with open what has to be open for it.

        Returns: Units and carried things, what never moves, and doors as they then stand.
        """
        region = _region(space)
        opens = {self._moving[key] for key in space.needs if key in self._moving}
        near = _shares(self._reach, region)
        for key in (space.owner, *space.first):
            if key in self._number:
                near[self._number[key]] = False
        still = near.copy()
        still[list(opens)] = False
        rows = [self._boxes[still[self._of] & _shares(self._boxes, region)]]
        for n in opens:
            if near[n]:
                thing = self._things[n]
                rows.append(_within(thing.still, region))
                for o in thing.openings:
                    pieces = o.opened if o.id in space.needs else o.rest
                    rows.append(_within([p.box for p in pieces], region))
        # A drawer of the tray has its walls as its own.
        skipped = {key for key in self._openings if space.top and place_of(key) == space.owner}
        apart = skipped | (space.needs & self._openings.keys())
        shut = np.array([key not in apart for key in self._rest_of], dtype=bool)
        rows.append(self._rest[shut & _shares(self._rest, region)])
        rows.append(
            _within(
                [p.box for key in sorted(apart - skipped) for p in self._openings[key].opened],
                region,
            )
        )
        rows.append(self._fixed[_shares(self._fixed, region)])
        return Surroundings(np.concatenate(rows), _array(space.walls))


def _shares(boxes: Array, region: Box) -> Flags:
    """Which boxes share room with one, beyond touching."""
    r = np.array(tuple(region))
    found: Flags = np.all((boxes[:, :3] < r[3:] - TOUCH) & (r[:3] < boxes[:, 3:] - TOUCH), axis=1)
    return found


def _within(boxes: Sequence[Box], region: Box) -> Array:
    return _array([b for b in boxes if b.shares(region)])


def solid_of(things: Iterable[Thing]) -> Array:
    """All that some things have in anybody's way while they are shut: (boxes, 6). [mm]"""
    return _array([
        b for t in things for b in (*t.solids, *(p.box for o in t.openings for p in o.rest))
    ])


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


def _array(boxes: Sequence[Box]) -> Array:
    return np.array(boxes, dtype=float).reshape(-1, 6)


def places(
    space: Space, figure: Figure, about: Surroundings, settled: Settled, body: tuple[Box, ...]
) -> Array:
    """Where somebody can stand to take something out of a space.

    Args:
        body: The body's outsides, from `outsides`. [mm]
    Returns:
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
    stopped = about.takes(down, up) | _hit(down, head, own)
    found: Array = feet[~stopped]
    return found


def _hit(low: Array, high: Array, boxes: Array) -> Flags:
    """Which of some bodies share room with any box. [mm]"""
    meets = (low[:, None] < boxes[None, :, 3:] - 1) & (high[:, None] > boxes[None, :, :3] + 1)
    found: Flags = np.any(np.all(meets, axis=2), axis=1)
    return found


KNEES = 0.285
"""Feet and shins go under things; the knee is so high, of stature (Winter, from memory)."""
