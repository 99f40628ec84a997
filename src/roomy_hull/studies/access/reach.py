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
    Rows = npt.NDArray[np.intp]
else:
    np = lazily.module("numpy")

How = Literal["in reach", "crouching", "on tiptoe", "by climbing", "not at all"]
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

    Attributes:
        person: Id.
        how: How the middle of it is reached.
        short: By how much the hand falls short of the middle, standing; 0 where it does not. [mm]
        reached: Part of the floor that is reached standing, leaning or not.
        seen: Part of the floor that is seen from the best place.
        feet, shoulder: Where one stands for it, and the shoulder then; nothing where there is no place. [mm]
        hand: What is gripped. [mm]
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
    way /= np.maximum(np.hypot(*way.T), 1.0)[:, None]
    found = np.repeat(feet[:, None, :], len(LEANS), axis=1)
    forward, up = np.array([figure.leaning(height, angle) for angle in LEANS]).T
    found[:, :, :2] += way[:, None] * forward[:, None]
    found[:, :, 2] += up + raised
    return found


def look(space: Space, person: str, figure: Figure, feet: Array, about: Surroundings) -> Seen:
    """What somebody reaches and sees of a space.

    Args:
        feet: Where one can stand, from `standing.places`. [mm]
    Returns:
        The arm goes straight from shoulder to hand, or bent over the rim, past all but the space's own walls; the
        trunk from hip to shoulder; the eye's way is not crossed by these walls either. [mm]
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
        found = _first(space, feet, shoulders, far, hand, figure, raised, about)
        if found is None and how == "in reach":
            short = _short(feet, shoulders, far, figure, raised, about)
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
) -> tuple[int, int] | None:  # fmt: skip
    """A place and a lean from which the arm gets there: leaning least, then nearest."""
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
            return int(rows[clear.argmax()]), k
    return None


def _short(
    feet: Array, shoulders: Array, far: Array, figure: Figure, raised: float, about: Surroundings
) -> float:
    """By how much the hand falls short where the trunk is clear. [mm]"""
    short = float("inf")
    for k in range(shoulders.shape[1]):
        free = _free(feet, shoulders[:, k], figure, raised, about)
        if free.any():
            short = min(short, max(0.0, float(far[free, k].min()) - figure.arm))
    return short if np.isfinite(short) else 0.0


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
    near = _near(feet, hand)[:EYES]
    # Most often the nearest places do; if not, all others are asked in one.
    for some in (near[:BATCH], near[BATCH:]):
        if not len(left) or not len(some):
            break
        upper = _trunk(some, figure, figure.shoulder, hand, raised).reshape(-1, 3)
        free = _free(np.repeat(some, len(LEANS), axis=0), upper, figure, raised, about)
        pairs = [
            _tried(upper, free, n, left, figure) for n in range(0, len(upper), BATCH * len(LEANS))
        ]
        i, j = (np.concatenate(rows) for rows in zip(*pairs, strict=True))
        if len(i):
            clear = _arms(space, upper[i], left[j], figure, about)
            left = np.delete(left, j[clear], axis=0)
    return 1.0 - len(left) / whole


def _tried(upper: Array, free: Flags, n: int, points: Array, figure: Figure) -> tuple[Rows, Rows]:
    """Shoulders and points of a batch of places, from the nth shoulder on, that an arm is long enough for."""
    some = n + np.flatnonzero(free[n : n + BATCH * len(LEANS)])
    far = np.linalg.norm(upper[some, None] - points[None], axis=-1)
    # The nearest shoulders to each point, a few of them: what these do not reach, those further off hardly do.
    order = np.argsort(far, axis=0, kind="stable")[:TRIED]
    j = np.repeat(np.arange(len(points))[None], len(order), axis=0).ravel()
    i = order.ravel()
    keep = far[i, j] <= figure.arm
    return some[i[keep]], j[keep]


TRIED = 10
"""From so many shoulders of a batch each point is tried to be reached."""


FIRST = 2
"""From so many places one looks before all others are tried."""


def _sight(space: Space, figure: Figure, feet: Array, about: Surroundings, hand: Array) -> float:
    """What part of the floor is seen from the best place."""
    points = floor_points(space, 1.0)
    near = _near(feet, hand)[:EYES]
    # Over a rim one stands; under a shelf or a door one stoops.
    stances = (0.0,) if space.top else (0.0, -CROUCH * figure.stature)
    best = 0.0
    # Most often one of the first few sees all; if not, all others are asked in one.
    for places, some in ((near[:FIRST], stances[:1]), (near, stances)):
        eyes = np.concatenate([
            _trunks(places, figure, figure.eye, hand, raised, about) for raised in some
        ])
        if len(eyes):
            least = int(about.hides(eyes, points).sum(axis=1).min())
            best = max(best, (len(points) - least) / len(points))
        if best >= 1.0:
            break
    return best
