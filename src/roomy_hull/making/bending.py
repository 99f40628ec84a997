"""Bending: in which order a part is bent on the shop's brake, with which die and force, or why it cannot be.

The part lies on the die with one bend's middle under the punch, its far side towards the back. What is bent already
stands up beside the punch, or hangs down beside the die. A bend is possible where neither of them, nor the beam
above and the bed below, is in the way of what swings up; an order is one in which every bend is.
"""

import functools
import math
from typing import NamedTuple

import msgspec
import numpy as np
from numpy.typing import NDArray

from roomy_hull.core.folded import Face, Place, ends_of, to_corners
from roomy_hull.core.mechanics.bends import bend_allowance, bending_force
from roomy_hull.core.parts import SheetPart
from roomy_hull.making.brake import (
    DIES,
    LEG,
    TOUCH,
    Tool,
    die_for,
    meets,
    put_together,
    tools_around,
)
from roomy_hull.making.part_bent import Spot, bent, spots_of
from roomy_hull.shop.tools import Brake

Points = NDArray[np.float64]
ACUTE = 150.0
"""A hem is bent so far before it is pressed flat (common practice). [degree]"""
BARE = 5.0
"""A bend may run on so many sheet thicknesses beyond the punch at either end (common practice)."""
SHORT = 2.0
"""A punch that has to leave both ends bare may be so much shorter still. [mm]"""
SWING = (0.0, 0.5, 1.0)
"""At which shares of its swing a part is held against the tools."""
STATES = 3000
"""So many part-bent shapes are tried at most."""


class Step(msgspec.Struct, frozen=True):
    """One bend in its turn.

    Attributes:
        bend: Which of the flat's bend lines.
        angle, radius, length: Of the bend; up on the flat where the angle is positive. [degree, mm]
        flipped: Whether the part lies with its other face up.
        die: Opening of the die. [mm]
        force: What it takes. [kN]
        punch: Lengths of punch put together, where one that is longer would hit what is bent; else empty. [mm]
    """

    bend: int
    angle: float
    radius: float
    length: float
    flipped: bool
    die: float
    force: float
    punch: tuple[float, ...] = ()


class BendPlan(msgspec.Struct, frozen=True):
    """How a part is bent: its steps, or what is in the way with figures and what to change.

    `fault` is empty where it can be bent; `measured` and `limit` are those of the fault. [mm or kN]
    """

    steps: tuple[Step, ...] = ()
    fault: str = ""
    measured: float = 0.0
    limit: float = 0.0
    unit: str = "mm"
    remedy: str = ""


class _Job(NamedTuple):
    """What is bent on what."""

    root: Face
    thickness: float
    k: float
    tensile: float
    brake: Brake
    spots: list[Spot]
    shapes: dict[frozenset[int], "_Shape"]


class _Shape(NamedTuple):
    """A part with some bends made: its corners in one array, where each face's begin, its bends, and their places."""

    points: Points
    starts: NDArray[np.int64]
    numbers: list[int]
    where: dict[int, Place]


def _shape(job: _Job, done: frozenset[int]) -> _Shape:
    """The part with some bends made, remembered."""
    found = job.shapes.get(done)
    if found is None:
        faces, where = bent(job.root, job.thickness, job.k, done)
        starts = np.cumsum([0, *(len(f) for _n, f in faces)])
        found = _Shape(np.vstack([f for _n, f in faces]), starts, [n for n, _f in faces], where)
        job.shapes[done] = found
    return found


def _on_the_die(job: _Job, spot: Spot, shape: _Shape) -> Points:
    """A part's corners as it lies for a bend: along it, out across it, up; the bend's middle at the origin. [mm]"""
    t, up = job.thickness, spot.bend.angle > 0
    place = shape.where[spot.number]
    p, q = ends_of(spot.face, spot.bend)
    long = math.dist(p, q)
    along = ((q[0] - p[0]) / long, (q[1] - p[1]) / long)
    out = (along[1], -along[0])
    allowance = bend_allowance(abs(spot.bend.angle), spot.bend.radius, t, job.k)
    middle = tuple((p[n] + q[n]) / 2 + out[n] * allowance / 2 for n in range(2))
    origin = np.array(place.at((middle[0], middle[1]), 0.0 if up else t))
    x_, y_, z_ = (np.array(v) for v in place[1:])
    axes = np.vstack([
        x_ * along[0] + y_ * along[1], x_ * out[0] + y_ * out[1], z_ if up else -z_,
    ])  # fmt: skip
    turned: Points = (shape.points - origin) @ axes.T
    return turned


def _in_the_way(job: _Job, spot: Spot, done: frozenset[int], tools: tuple[Tool, ...]) -> str:
    """Which tool is hit when a bend is made after some others; empty for none. Beam and bed stand last."""
    shape = _shape(job, done)
    local = _on_the_die(job, spot, shape)
    beyond_it = {spot.number, *spot.inner}
    sides = np.repeat(
        [1.0 if n in beyond_it else -1.0 for n in shape.numbers], np.diff(shape.starts)
    )
    low = np.array([(-g.half, *g.ring.min(axis=0)) for g in tools]) + TOUCH
    high = np.array([(g.half, *g.ring.max(axis=0)) for g in tools]) - TOUCH
    # What is beside the bend touches punch and die, as it has to.
    free = np.array([n in (spot.number, spot.before) for n in shape.numbers])
    turn = math.radians(min(abs(spot.bend.angle), ACUTE)) / 2
    for share in SWING:
        c, s = math.cos(turn * share), math.sin(turn * share) * sides
        y, z = local[:, 1], local[:, 2]
        swung = np.column_stack([local[:, 0], y * c - z * s, y * s + z * c])
        least = np.minimum.reduceat(swung, shape.starts[:-1])
        most = np.maximum.reduceat(swung, shape.starts[:-1])
        near = np.all((least[:, None] < high) & (most[:, None] > low), axis=2)
        near[:, :2] &= ~free[:, None]
        for face, tool in np.argwhere(near):
            if meets(swung[shape.starts[face] : shape.starts[face + 1]], tools[tool]):
                return str(tools[tool].name)
    return ""


def _across(job: _Job, spot: Spot) -> float:
    """How far the face before a bend reaches back from it, outside. [mm]"""
    leading = job.spots[spot.before].bend if spot.before >= 0 else None
    (px, py), (qx, qy) = ends_of(spot.face, spot.bend)
    long = math.dist((px, py), (qx, qy))
    rows = [
        ((x - px) * (qy - py) - (y - py) * (qx - px)) / long
        for x, y in to_corners(spot.face, leading, job.thickness)
    ]
    return max(rows) - min(rows)


def _legs(job: _Job, spot: Spot) -> float:
    """The shorter of the two legs beside a bend, outside. [mm]"""
    ys = [y for _x, y in to_corners(spot.bend.face, spot.bend, job.thickness)]
    return min(max(ys) - min(ys), _across(job, spot))


def plan_bends(part: SheetPart, brake: Brake) -> BendPlan:
    """Find an order in which a part can be bent.

    Args:
        part: The part. [mm]
    Returns: Its steps, or the fault with what to change; no steps for a flat part.
    """
    metal, t = part.material, part.thickness
    return _planned(part.faces(), t, metal.k(t), metal.tensile(), metal.wood, brake)


@functools.lru_cache(maxsize=4096)
def _planned(
    root: Face, thickness: float, k: float, tensile: float, wood: bool, brake: Brake
) -> BendPlan:
    """Plan the bends of a tree of faces."""
    spots = spots_of(root)
    if not spots:
        return BendPlan()
    if wood:
        return BendPlan((), "it is of a material that is not bent", len(spots), 0.0, "",
                        "Build it of panels, or choose a metal.")  # fmt: skip
    job = _Job(root, thickness, k, tensile, brake, spots, {})
    ready: dict[int, Step] = {}
    for spot in spots:
        found = _tooled(job, spot)
        if isinstance(found, BendPlan):
            return found
        ready[spot.number] = found
    return _search(job, ready)


def _tooled(job: _Job, spot: Spot) -> Step | BendPlan:
    """Choose the die of one bend, or say why there is none."""
    brake, t = job.brake, job.thickness
    length = math.dist(*ends_of(spot.face, spot.bend))
    if length > brake.bed + 1e-9:
        return BendPlan((), "a bend is longer than the brake's bed", length, brake.bed, "mm",
                        "Split the part along it, or have it bent elsewhere.")  # fmt: skip
    load = bending_force(t, length, job.tensile, 1.0)
    leg = _legs(job, spot)
    die = die_for(brake, t, leg, load)
    if die is None:
        usable = [v for v in brake.dies if DIES[0] * t <= v <= DIES[1] * t]
        if not usable:
            return BendPlan((), f"no die bends a sheet of {t:g} mm", t,
                            max(brake.dies) / DIES[0], "mm", "Take another sheet, or add the die to the shop.")  # fmt: skip
        if LEG * min(usable) > leg:
            return BendPlan((), "a flange is shorter than the tool", leg, LEG * min(usable), "mm",
                            "Make the flange longer, or the sheet thinner.")  # fmt: skip
        force = load / max(v for v in usable if LEG * v <= leg) / 1000
        return BendPlan((), "a bend needs more force than the brake has", force, brake.force, "kN",
                        "Shorten the bend, take a thinner sheet, or have it bent elsewhere.")  # fmt: skip
    bend = spot.bend
    return Step(
        spot.number, bend.angle, bend.radius, length, bend.angle < 0, die, load / die / 1000
    )


def _search(job: _Job, ready: dict[int, Step]) -> BendPlan:
    """Try orders, outer bends first, and remember which part-bent shapes lead nowhere."""
    order = sorted(job.spots, key=lambda s: (-s.deep, s.bend.angle < 0, ready[s.number].length))
    whole = frozenset(ready)
    dead: set[frozenset[int]] = set()
    seen = 0
    # What stopped the order that came furthest.
    worst: tuple[int, str, int] = (-1, "", 0)

    def walk(done: frozenset[int]) -> tuple[Step, ...] | None:
        nonlocal seen, worst
        if done == whole:
            return ()
        if done in dead or seen > STATES:
            return None
        seen += 1
        for spot in order:
            if spot.number in done:
                continue
            step, hit = _tried(job, spot, ready[spot.number], done)
            if hit:
                if len(done) > worst[0]:
                    worst = (len(done), hit, spot.number)
                continue
            rest = walk(done | {spot.number})
            if rest is not None:
                return (step, *rest)
        dead.add(done)
        return None

    found = walk(frozenset())
    return BendPlan(found) if found is not None else _fault(job, worst)


def _tried(job: _Job, spot: Spot, step: Step, done: frozenset[int]) -> tuple[Step, str]:
    """Make one bend after some others: with the whole punch, else with one that is put together."""
    brake, t = job.brake, job.thickness
    if not _in_the_way(job, spot, done, tools_around(brake, t, step.die, brake.bed / 2)):
        return step, ""
    least = max(1.0, step.length - 2 * BARE * t)
    hit = ""
    for low, high in ((least, step.length), (least - SHORT, least)):
        hit = _in_the_way(job, spot, done, tools_around(brake, t, step.die, high / 2))
        if not hit:
            punch = put_together(brake.segments, low, high)
            if punch is None:
                return step, "segments"
            return msgspec.structs.replace(step, punch=punch), ""
    return step, hit


def _fault(job: _Job, worst: tuple[int, str, int]) -> BendPlan:
    """Say what stopped the order that came furthest."""
    _count, hit, number = worst
    spot, brake, t = job.spots[number], job.brake, job.thickness
    shape = _shape(job, frozenset(s.number for s in job.spots if s.number != number))
    place = shape.where[number]
    heights = (shape.points - np.array(place.origin)) @ np.array(place.z)
    up = spot.bend.angle > 0
    above = float(heights.max() if up else t - heights.min())
    below = float(-heights.min() if up else heights.max() - t)
    if hit == "segments":
        long = math.dist(*ends_of(spot.face, spot.bend))
        return BendPlan((), "no lengths of punch add up to a bend between two flanges", long,
                        sum(brake.segments), "mm", "Add a length of punch to the shop, or open the corner.")  # fmt: skip
    if hit in ("beam", "punch"):
        fine = brake.box_depth(t)
        if above <= fine:
            fine = brake.channel_depth(t, _across(job, spot))
        return BendPlan((), f"what is bent already hits the {hit}, in whatever order", above, fine, "mm",
                        "Weld one flange in, split the part, or make it lower.")  # fmt: skip
    return BendPlan((), f"what is bent already hits the {hit}, in whatever order", below, brake.die_height, "mm",
                    "Split the part, or bend that flange to the other side.")  # fmt: skip
