"""Sweeps and clashes against the Flexible Collision Library (FCL), an independent program.

FCL is Pan, Chitta & Manocha, "FCL: A general purpose library for collision and proximity queries", ICRA
2012, here through its Python binding. Every pose of a finely sampled motion is asked of it; ours has to
find every clash that it finds, and may see one at most where FCL measures less than the stated margin.
"""

import math
import random

import fcl
import numpy as np
import pytest

from roomy_hull.core.geometry.gaps import apart, clash, nearest
from roomy_hull.core.geometry.motion import MARGIN, Piece, block, shifted, slid, swung, turned
from roomy_hull.core.geometry.solids import Box

SAMPLES = 240


def solid(
    box: Box, axis: int = 2, pivot: tuple[float, float] = (0.0, 0.0), degrees: float = 0.0
) -> fcl.CollisionObject:
    """A box, turned about a line along an axis, as FCL's own."""
    a, b = {0: (1, 2), 1: (0, 2), 2: (0, 1)}[axis]
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    rotation = np.eye(3)
    rotation[a, a], rotation[a, b], rotation[b, a], rotation[b, b] = c, -s, s, c
    about = np.zeros(3)
    about[a], about[b] = pivot
    centre = rotation @ (np.array(box.centre()) - about) + about
    return fcl.CollisionObject(fcl.Box(*box.size()), fcl.Transform(rotation, centre))


def distance(one: fcl.CollisionObject, other: fcl.CollisionObject) -> float:
    """FCL's distance, 0 where they meet."""
    if fcl.collide(one, other, fcl.CollisionRequest(), fcl.CollisionResult()):
        return 0.0
    result = fcl.DistanceResult()
    fcl.distance(one, other, fcl.DistanceRequest(), result)
    return max(0.0, float(result.min_distance))


def chance_box(rnd: random.Random, most: float = 700.0) -> Box:
    x, y, z = (rnd.uniform(-600, 600) for _ in range(3))
    return Box(
        x, y, z, x + rnd.uniform(10, most), y + rnd.uniform(10, most), z + rnd.uniform(10, most)
    )


@pytest.mark.parametrize("seed", range(4))
def test_swings_miss_no_clash_and_err_by_no_more_than_the_margin(seed: int) -> None:
    rnd = random.Random(seed)
    hits = alarms = 0
    for _ in range(60):
        box, other = chance_box(rnd), chance_box(rnd)
        axis = rnd.randrange(3)
        pivot = (rnd.uniform(-600, 600), rnd.uniform(-600, 600))
        degrees = rnd.choice((-1, 1)) * rnd.uniform(20, 200)
        ours = nearest(tuple(swung(block(box), axis, pivot, degrees)), (block(other),), 0.0)[0]
        still = solid(other)
        least = min(
            distance(solid(box, axis, pivot, degrees * n / SAMPLES), still)
            for n in range(SAMPLES + 1)
        )
        if least == 0.0:
            hits += 1
            assert ours < 0, (seed, box, other, axis, pivot, degrees)
        elif clash(ours):
            alarms += 1
            far = max(math.dist(p, pivot) for p in turned(block(box), axis, pivot, 0).ring)
            sampling = math.radians(abs(degrees)) / SAMPLES * far / 2
            assert least <= MARGIN + sampling
    assert hits > 8


@pytest.mark.parametrize("seed", range(3))
def test_prisms_along_different_axes_agree(seed: int) -> None:
    rnd = random.Random(100 + seed)
    meets = 0
    for _ in range(400):
        one, other = chance_box(rnd, 500), chance_box(rnd, 500)
        axis_a, axis_b = rnd.sample((0, 1, 2), 2)
        angle_a, angle_b = rnd.uniform(1, 89), rnd.uniform(1, 89)
        a = turned(block(one), axis_a, (50.0, -40.0), angle_a)
        b = turned(block(other), axis_b, (-30.0, 20.0), angle_b)
        gap = apart(a, b, 1e9)
        theirs = distance(
            solid(one, axis_a, (50.0, -40.0), angle_a), solid(other, axis_b, (-30.0, 20.0), angle_b)
        )
        if theirs == 0.0:
            meets += 1
            assert gap <= 1e-6
        else:
            # A separating axis gives at most the true distance: never on the unsafe side.
            assert 0 < gap <= theirs + 1e-4
    assert meets > 8


def test_slides_agree_with_the_hull_of_both_ends() -> None:
    rnd = random.Random(7)
    for _ in range(300):
        box, other = chance_box(rnd), chance_box(rnd)
        axis, by = rnd.randrange(3), rnd.uniform(-900, 900)
        far: Piece = shifted(block(box), axis, by)
        low = [min(p, q) for p, q in zip(box[:3], far.box[:3], strict=True)]
        high = [max(p, q) for p, q in zip(box[3:], far.box[3:], strict=True)]
        theirs = distance(solid(Box(*low, *high)), solid(other))
        ours = apart(slid(block(box), axis, by), block(other), 1e9)
        assert (ours < 0) == (theirs == 0.0) or abs(ours) < 1e-9
