"""Reach and sight: what of a space a hand gets to, and what of its floor the eyes see, from where one can stand."""

from __future__ import annotations

from typing import TYPE_CHECKING, Literal

import msgspec

from roomy_hull.core import lazily
from roomy_hull.core.ergonomics.figure import CROUCH, LEAN, STEP, TIPTOE, Figure
from roomy_hull.studies.access.moves import reach_from
from roomy_hull.studies.access.spaces import Space
from roomy_hull.studies.access.standing import Surroundings

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
    Flags = npt.NDArray[np.bool_]
else:
    np = lazily.module("numpy")

How = Literal["in reach", "crouching", "on tiptoe", "by climbing", "not at all"]
HOWS: tuple[How, ...] = ("in reach", "crouching", "on tiptoe", "by climbing", "not at all")
LEANS = (0.0, 15.0, 30.0, LEAN)
"""How far one leans, in steps. [°]"""
GRID = (6, 4)
"""A floor is asked in so many fields, along it and into it."""
HAND = 40.0
"""A hand grips so high over what it stands on. [mm]"""
SEES = 1.0 / 3.0
"""Who sees less than this of a floor does not see what is there (common practice)."""


class Seen(msgspec.Struct, frozen=True):
    """One person before one space.

    Attributes
    ----------
    person : str
        Id.
    how : str
        How the middle of it is reached.
    short : float
        By how much the hand falls short of the middle, standing; 0 where it does not. [mm]
    reached : float
        Part of the floor that is reached standing, leaning or not.
    seen : float
        Part of the floor that is seen from the best place.
    feet, shoulder : tuple of float
        Where one stands for it, and the shoulder then; nothing where there is no place. [mm]
    hand : tuple of float
        What is gripped. [mm]
    """

    person: str
    how: How
    short: float
    reached: float
    seen: float
    feet: tuple[float, ...] = ()
    shoulder: tuple[float, ...] = ()
    hand: tuple[float, ...] = ()


def floor_points(space: Space, height: float) -> Array:
    """Points over the floor of a space, or over the face of a device. [mm]"""
    b = space.box
    if space.device:
        return np.array([[(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2, (b.z0 + b.z1) / 2]])
    xs = b.x0 + (np.arange(GRID[0]) + 0.5) / GRID[0] * (b.x1 - b.x0)
    ys = b.y0 + (np.arange(GRID[1]) + 0.5) / GRID[1] * (b.y1 - b.y0)
    z = min(b.z0 + height, b.z1)
    return np.array([(x, y, z) for x in xs for y in ys])


def _trunk(feet: Array, figure: Figure, height: float, hand: Array, raised: float) -> Array:
    """Where a point of the trunk is from every place and at every lean towards a hand: (places, leans, 3). [mm]"""
    way = hand[:2] - feet[:, :2]
    way /= np.maximum(np.linalg.norm(way, axis=1), 1.0)[:, None]
    found = np.repeat(feet[:, None, :], len(LEANS), axis=1)
    for n, angle in enumerate(LEANS):
        forward, up = figure.leaning(height, angle)
        found[:, n, :2] += way * forward
        found[:, n, 2] += up + raised
    return found


def look(space: Space, person: str, figure: Figure, feet: Array, about: Surroundings) -> Seen:
    """What somebody reaches and sees of a space.

    Parameters
    ----------
    space : Space
        As it stands open.
    person : str
        Whose id.
    figure : Figure
        Whose segments.
    feet : array
        Where one can stand, from `standing.places`. [mm]
    about : Surroundings
        What is in the way.

    Returns
    -------
    Seen
        The arm goes straight from shoulder to hand, or bent over the rim, past all but the space's own walls; the trunk
        from hip to shoulder; the eye's way is not crossed by these walls either. [mm]
    """
    hand = _middle(space)
    grip = tuple(hand.tolist())
    if not len(feet):
        return Seen(person, "not at all", 0.0, 0.0, 0.0, (), (), grip)
    short = 0.0
    for how, part, step in WAYS:
        raised = part * figure.stature + step
        shoulders = _trunk(feet, figure, figure.shoulder, hand, raised)
        far = np.linalg.norm(shoulders - hand, axis=-1)
        found, missing = _first(space, feet, shoulders, far, hand, figure, raised, about)
        if how == "in reach":
            short = missing
        if found is not None:
            n, k = found
            best = (tuple(feet[n].tolist()), tuple(shoulders[n, k].tolist()))
            break
    else:
        how, best = "not at all", ((), ())
    tall = {"on tiptoe": TIPTOE, "crouching": -CROUCH}.get(how, 0.0) * figure.stature
    return Seen(
        person, how, short, _share(space, figure, feet, about, hand, tall),
        _sight(space, figure, feet, about, hand), *best, grip,
    )  # fmt: skip


WAYS: tuple[tuple[How, float, float], ...] = (
    ("in reach", 0.0, 0.0), ("crouching", -CROUCH, 0.0), ("on tiptoe", TIPTOE, 0.0), ("by climbing", 0.0, STEP),
)  # fmt: skip
"""The ways to reach, the easiest first, and how far one is raised: of stature, and at once. [mm]"""
BATCH, EYES = 8, 24
"""Places are asked in batches, the nearest first, until all is seen or so many are asked."""


def _middle(space: Space) -> Array:
    """What is gripped: over the middle of the floor, or a device's middle. [mm]"""
    b = space.box
    z = (b.z0 + b.z1) / 2 if space.device else min(b.z0 + HAND, b.z1)
    return np.array([(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2, z])


def _free(feet: Array, upper: Array, figure: Figure, raised: float, about: Surroundings) -> Flags:
    """Whether the trunk is clear from the hip up: one flag a place."""
    hips = feet.copy()
    hips[:, 2] += figure.hip + raised
    return ~about.stops(hips, upper, walls=True)


def _first(
    space: Space, feet: Array, shoulders: Array, far: Array, hand: Array, figure: Figure, raised: float, about: Surroundings
) -> tuple[tuple[int, int] | None, float]:  # fmt: skip
    """A place and a lean from which the arm gets there: leaning least, then nearest; by how much it else falls short."""
    for k in range(shoulders.shape[1]):
        rows = np.flatnonzero(far[:, k] <= figure.arm)
        if len(rows):
            rows = rows[_free(feet[rows], shoulders[rows, k], figure, raised, about)]
        if not len(rows):
            continue
        rows = rows[np.argsort(far[rows, k], kind="stable")]
        ends = np.repeat(hand[None], len(rows), axis=0)
        clear = _arms(space, shoulders[rows, k], ends, figure, about)
        if clear.any():
            return (int(rows[clear.argmax()]), k), 0.0
    short = float("inf")
    for k in range(shoulders.shape[1]):
        free = _free(feet, shoulders[:, k], figure, raised, about)
        if free.any():
            short = min(short, max(0.0, float(far[free, k].min()) - figure.arm))
    return None, short if np.isfinite(short) else 0.0


def _arms(
    space: Space, shoulders: Array, hands: Array, figure: Figure, about: Surroundings
) -> Flags:
    """Which arms get there: straight, or bent over the rim of the space where the bent way is not too long."""
    clear = ~about.stops(shoulders, hands)
    over = hands.copy()
    if space.top:
        over[:, 2] = np.maximum(space.box.z1 + OVER_RIM, hands[:, 2])
    else:
        axis, sign = reach_from(space.side)
        over[:, axis] = (space.box[axis + 3] if sign > 0 else space.box[axis]) + sign * OVER_RIM
    long = np.linalg.norm(over - shoulders, axis=1) + np.linalg.norm(hands - over, axis=1)
    bent = np.flatnonzero(~clear & (long <= figure.arm))
    if len(bent):
        a, b, c = shoulders[bent], over[bent], hands[bent]
        clear[bent] = ~about.stops(a, b) & ~about.stops(b, c)
    return clear


OVER_RIM = 30.0
"""A bent arm keeps so far from the rim that it reaches over. [mm]"""


def _near(feet: Array, hand: Array) -> Array:
    """Places, the nearest to a hand first. [mm]"""
    order = np.argsort(np.linalg.norm(feet[:, :2] - hand[:2], axis=1), kind="stable")
    found: Array = feet[order]
    return found


def _trunks(
    feet: Array, figure: Figure, height: float, hand: Array, raised: float, about: Surroundings
) -> Array:
    """Where a point of the trunk is, from every place and at every lean that is clear: (trunks, 3). [mm]"""
    upper = _trunk(feet, figure, height, hand, raised).reshape(-1, 3)
    found: Array = upper[_free(np.repeat(feet, len(LEANS), axis=0), upper, figure, raised, about)]
    return found


def _share(
    space: Space, figure: Figure, feet: Array, about: Surroundings, hand: Array, raised: float
) -> float:
    """What part of the floor is reached standing."""
    left = floor_points(space, HAND)
    whole = len(left)
    near = _near(feet, hand)
    for n in range(0, min(len(near), EYES), BATCH):
        if not len(left):
            return 1.0
        from_ = _trunks(near[n : n + BATCH], figure, figure.shoulder, hand, raised, about)
        if not len(from_):
            continue
        far = np.linalg.norm(from_[:, None] - left[None], axis=-1)
        # The nearest shoulders to each point, a few of them: what these do not reach, those further off hardly do.
        order = np.argsort(far, axis=0, kind="stable")[:TRIED]
        j = np.repeat(np.arange(len(left))[None], len(order), axis=0).ravel()
        i = order.ravel()
        keep = far[i, j] <= figure.arm
        i, j = i[keep], j[keep]
        if len(i):
            clear = _arms(space, from_[i], left[j], figure, about)
            left = np.delete(left, j[clear], axis=0)
    return 1.0 - len(left) / whole


TRIED = 10
"""From so many shoulders of a batch each point is tried to be reached."""


FIRST = 8
"""So many eyes are asked before the rest of a batch."""


def _sight(space: Space, figure: Figure, feet: Array, about: Surroundings, hand: Array) -> float:
    """What part of the floor is seen from the best place."""
    points = floor_points(space, 1.0)
    near, best = _near(feet, hand), 0.0
    # Over a rim one stands; under a shelf or a door one stoops.
    stances = (0.0,) if space.top else (0.0, -CROUCH * figure.stature)
    for n in range(0, min(len(near), EYES), BATCH):
        for raised in stances:
            eyes = _trunks(near[n : n + BATCH], figure, figure.eye, hand, raised, about)
            if not len(eyes):
                continue
            # Most often one of the first few sees all.
            for some in (eyes[:FIRST], eyes[FIRST:]):
                if len(some):
                    a, b = np.repeat(some, len(points), axis=0), np.tile(points, (len(some), 1))
                    hidden = about.stops(a, b, walls=True).reshape(len(some), len(points))
                    best = max(best, (len(points) - int(hidden.sum(axis=1).min())) / len(points))
                if best >= 1.0:
                    return 1.0
    return best
