"""Motions: chains of slides and swings, the space that they sweep, and how far such spaces are apart.

Everything that moves is cut into convex prisms (`Piece`). A slide sweeps exactly. A swing is cut at the
feet of the pivot on each edge, so that within a cell every edge runs steadily away from the pivot or
towards it; then the hull of two successive poses and of the point where the tangents of the outermost
corner meet holds the true sweep, and exceeds it by at most r (sec(d/2) - cos(d/2)) for a step d at the
radius r. The step is chosen so that this is never more than `MARGIN`: a swing may seem up to a
millimetre too large, never too small.
"""

import functools
import math
from typing import Literal, NamedTuple

import msgspec

from roomy_hull.core.errors import InputError
from roomy_hull.core.geometry.frames import Frame
from roomy_hull.core.geometry.hull import Ring, convex_hull
from roomy_hull.core.geometry.solids import Box, hull

MARGIN = 1.0
"""By how much a swept space is let exceed the true one, at first; `FINE` where it decides. [mm]"""
FINE = 0.03  # 1.4 times this is less than touching is
PLANE: dict[int, tuple[int, int]] = {0: (1, 2), 1: (0, 2), 2: (0, 1)}
"""The two other axes of each axis, in order: the plane of a prism's ring."""

Verb = Literal["slide", "lower", "lift", "swing", "fold"]
TURNS = frozenset({"swing", "fold"})
MOST_STEPS = 8


class Piece(NamedTuple):
    """A convex prism: a counter-clockwise ring in the plane across `axis`, from `lo` to `hi` along it. [mm]

    `square` says that it is its own bounding `box`.
    """

    axis: int
    ring: Ring
    lo: float
    hi: float
    box: Box
    square: bool


class Step(msgspec.Struct, frozen=True):
    """One part of a motion, for the boxes of the named groups.

    `slide`, `lower` and `lift` go `by` millimetres along `axis`; `swing` and `fold` turn `by` degrees
    about a line along `axis` through `pivot`, from the first to the second of the other two axes.
    """

    verb: Verb
    axis: int
    by: float
    groups: tuple[str, ...] = ("",)
    pivot: tuple[float, float] = (0.0, 0.0)


class Moved(msgspec.Struct, frozen=True):
    """A box that moves with its group. [mm]"""

    box: Box
    group: str = ""


class Motion(msgspec.Struct, frozen=True):
    """What opens, in the owner's own directions.

    Attributes:
        id, name: ``""`` for a thing's only motion; what the workshop calls it.
        moved: What moves, closed. [mm]
        steps: One after another.
        locks: Whether it stays open by itself on a slope.
        spread: Groups that cover all they swept once open, as an awning's cloth does.
        added, props: What stands there only when open: legs, a ladder, a curtain; what holds it open: gas struts. [mm]
    """

    id: str
    name: str
    moved: tuple[Moved, ...]
    steps: tuple[Step, ...]
    locks: bool = True
    spread: tuple[str, ...] = ()
    added: tuple[Box, ...] = ()
    props: tuple[Piece, ...] = ()


class Sweep(msgspec.Struct, frozen=True):
    """A motion's space: closed, all that it passes through, and open."""

    rest: tuple[Piece, ...]
    swept: tuple[Piece, ...]
    opened: tuple[Piece, ...]


def prism(axis: int, ring: Ring, lo: float, hi: float) -> Piece:
    """Make a piece from a convex ring, counter-clockwise in its plane. [mm]"""
    a, b = PLANE[axis]
    low, high = [0.0, 0.0, 0.0], [0.0, 0.0, 0.0]
    low[axis], high[axis] = lo, hi
    low[a], high[a] = min(p[0] for p in ring), max(p[0] for p in ring)
    low[b], high[b] = min(p[1] for p in ring), max(p[1] for p in ring)
    box = Box(*low, *high)
    square = len(ring) == 4 and all(
        p[0] in (low[a], high[a]) and p[1] in (low[b], high[b]) for p in ring
    )
    return Piece(axis, ring, lo, hi, box, square)


def block(box: Box, axis: int = 2) -> Piece:
    """Make a piece from a box, its ring across the given axis."""
    a, b = PLANE[axis]
    ring = (
        (box[a], box[b]), (box[a + 3], box[b]), (box[a + 3], box[b + 3]), (box[a], box[b + 3])
    )  # fmt: skip
    return Piece(axis, ring, box[axis], box[axis + 3], box, True)


def round_piece(
    axis: int, centre: tuple[float, float], radius: float, lo: float, hi: float
) -> Piece:
    """Make a cylinder along an axis as a prism of 24 sides around it (at most 0.9 % larger). [mm]"""
    far = radius / math.cos(math.pi / 24)
    turns = [math.tau * n / 24 for n in range(24)]
    ring = tuple((centre[0] + far * math.cos(t), centre[1] + far * math.sin(t)) for t in turns)
    return prism(axis, ring, lo, hi)


# Poses and sweeps


def shifted(piece: Piece, axis: int, by: float) -> Piece:
    """Shift a piece along an axis. [mm]"""
    step = [0.0, 0.0, 0.0]
    step[axis] = by
    box = piece.box.moved(*step)
    if axis == piece.axis:
        return Piece(axis, piece.ring, piece.lo + by, piece.hi + by, box, piece.square)
    a, b = PLANE[piece.axis]
    ring = tuple((p[0] + step[a], p[1] + step[b]) for p in piece.ring)
    return Piece(piece.axis, ring, piece.lo, piece.hi, box, piece.square)


def slid(piece: Piece, axis: int, by: float) -> Piece:
    """All that a piece passes through on a straight way along an axis; exact. [mm]"""
    end = shifted(piece, axis, by)
    if piece.square:
        return block(hull((piece.box, end.box)), piece.axis)
    if axis == piece.axis:
        return prism(axis, piece.ring, min(piece.lo, end.lo), max(piece.hi, end.hi))
    return prism(piece.axis, convex_hull([*piece.ring, *end.ring]), piece.lo, piece.hi)


def across(piece: Piece, axis: int) -> Piece:
    """A piece as a prism along another axis: exact for a box, else its bounding box."""
    return piece if piece.axis == axis else block(piece.box, axis)


def _turn(ring: Ring, pivot: tuple[float, float], angle: float) -> Ring:
    """Turn a ring about a pivot. [rad]"""
    c, s = math.cos(angle), math.sin(angle)
    p, q = pivot
    return tuple((p + (x - p) * c - (y - q) * s, q + (x - p) * s + (y - q) * c) for x, y in ring)


def turned(piece: Piece, axis: int, pivot: tuple[float, float], degrees: float) -> Piece:
    """Turn a piece about a line along an axis.

    Args:
        piece: A prism along that axis, or a box. [mm]
        pivot: Where the line crosses the plane of the other two axes. [mm]
        degrees: From the first to the second of those axes.
    Returns: The turned piece; by whole quarters a box stays a box to the last digit but one.
    """
    flat = across(piece, axis)
    ring = _turn(flat.ring, pivot, math.radians(degrees))
    if piece.square and abs(degrees / 90 - round(degrees / 90)) < 1e-9:
        xs, ys = [round(p[0], 9) for p in ring], [round(p[1], 9) for p in ring]
        a, b = PLANE[axis]
        low, high = [0.0] * 3, [0.0] * 3
        low[axis], high[axis] = flat.lo, flat.hi
        low[a], high[a], low[b], high[b] = min(xs), max(xs), min(ys), max(ys)
        return block(Box(*low, *high), axis)
    return prism(axis, ring, flat.lo, flat.hi)


def _cut(ring: Ring, pivot: tuple[float, float], normal: tuple[float, float], sign: int) -> Ring:
    """Keep the part of a convex ring on one side of a line through the pivot."""
    found: list[tuple[float, float]] = []
    heights = [sign * ((x - pivot[0]) * normal[0] + (y - pivot[1]) * normal[1]) for x, y in ring]
    for i, p in enumerate(ring):
        j = (i + 1) % len(ring)
        if heights[i] >= 0:
            found.append(p)
        if (heights[i] > 0 > heights[j]) or (heights[i] < 0 < heights[j]):
            t = heights[i] / (heights[i] - heights[j])
            q = ring[j]
            found.append((p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t))
    return convex_hull(found)


def _cells(ring: Ring, pivot: tuple[float, float]) -> list[Ring]:
    """Cut a ring at the feet of the pivot on its edges: within a cell each edge's radius is monotone."""
    cells = [ring]
    for i, p in enumerate(ring):
        q = ring[(i + 1) % len(ring)]
        dx, dy = q[0] - p[0], q[1] - p[1]
        long = math.hypot(dx, dy)
        if long < 1e-9:
            continue
        foot = ((pivot[0] - p[0]) * dx + (pivot[1] - p[1]) * dy) / long
        if not 1e-9 < foot < long - 1e-9:
            continue
        along = (dx / long, dy / long)
        cells = [
            c for cell in cells for sign in (1, -1) if len(c := _cut(cell, pivot, along, sign)) > 2
        ]
    return cells


def swung(
    piece: Piece, axis: int, pivot: tuple[float, float], degrees: float, margin: float = MARGIN
) -> list[Piece]:
    """All that a piece passes through when it turns about a line along an axis.

    Args:
        piece: A prism along that axis, or a box. [mm]
        pivot: Where the line crosses the plane of the other two axes. [mm]
        degrees: From the first to the second of those axes.
        margin: How closely. [mm]
    Returns: Convex prisms that together hold the true sweep and exceed it by no more than 1.4 times the margin.
    """
    flat = across(piece, axis)
    found = []
    for cell in _cells(flat.ring, pivot):
        radii = [math.dist(p, pivot) for p in cell]
        far = max(radii)
        if far < 1e-6:
            continue
        widest = 2 * math.sqrt(margin / far) if far > margin else math.pi / 4
        count = max(1, math.ceil(math.radians(abs(degrees)) / min(widest, math.pi / 4)))
        step = math.radians(degrees) / count
        outer = cell[radii.index(far)]
        beyond = 1 / math.cos(step / 2)
        tip = (pivot[0] + (outer[0] - pivot[0]) * beyond, pivot[1] + (outer[1] - pivot[1]) * beyond)
        for n in range(count):
            here, there = _turn(cell, pivot, n * step), _turn(cell, pivot, (n + 1) * step)
            (crown,) = _turn((tip,), pivot, (n + 0.5) * step)
            found.append(prism(axis, convex_hull([*here, *there, crown]), flat.lo, flat.hi))
    return found


@functools.lru_cache(maxsize=4096)
def sweep_of(motion: Motion, margin: float = MARGIN) -> Sweep:
    """A motion's space, in its own directions.

    Args:
        motion: The motion. [mm, degrees]
        margin: How closely what turns is followed. [mm]
    Raises:
        InputError: It has no end: a step of no size or no finite size, beyond a full circle, or more than eight.
    """
    _check(motion)
    rest = tuple(block(m.box) for m in motion.moved)
    groups = [m.group for m in motion.moved]
    poses = list(rest)
    passed: list[list[Piece]] = [[p] for p in rest]
    for step in motion.steps:
        for i, group in enumerate(groups):
            if group not in step.groups:
                continue
            if step.verb in TURNS:
                passed[i] += swung(poses[i], step.axis, step.pivot, step.by, margin)
                poses[i] = turned(poses[i], step.axis, step.pivot, step.by)
            else:
                passed[i].append(slid(poses[i], step.axis, step.by))
                poses[i] = shifted(poses[i], step.axis, step.by)
    swept: list[Piece] = []
    opened: list[Piece] = []
    for i, group in enumerate(groups):
        mine = passed[i][1:] or passed[i]  # the first step's sweep holds the closed pose
        swept += mine
        opened += mine if group in motion.spread else [poses[i]]
    added = [block(b) for b in motion.added]
    return Sweep(rest, (*swept, *added), (*opened, *added, *motion.props))


def _check(motion: Motion) -> None:
    """Refuse a motion without end."""
    name = motion.name or motion.id or "a motion"
    if len(motion.steps) > MOST_STEPS:
        raise InputError(
            f"the motion has {len(motion.steps)} steps", name, f"Use at most {MOST_STEPS}."
        )
    for step in motion.steps:
        if not math.isfinite(step.by) or step.by == 0:
            raise InputError(
                f"the step '{step.verb}' never ends", name, "Give it a finite size above 0."
            )
        if step.verb in TURNS and abs(step.by) > 360:
            raise InputError(
                f"it turns by {step.by:g} degrees", name, "Turn by at most 360 degrees."
            )
        if step.verb not in TURNS and abs(step.by) > 20000:
            raise InputError(f"it slides by {step.by:g} mm", name, "Slide by at most 20000 mm.")


def carried(frame: Frame, piece: Piece) -> Piece:  # ruff: ignore[too-many-return-statements]  # one return for each kind of step
    """Carry a piece from a unit's directions (u, v, w) into vehicle axes. [mm]"""
    if piece.square:
        axis = {0: 1, 1: 0, 2: 2}[piece.axis] if frame.side == "rear" else piece.axis
        return block(frame.box(piece.box), axis)
    x, y, z = frame.x, frame.y, frame.z
    axis, ring = piece.axis, piece.ring
    if frame.side == "left":
        offset = (x, y, z)
        a, b = PLANE[axis]
        moved = tuple((p + offset[a], q + offset[b]) for p, q in ring)
        return prism(axis, moved, piece.lo + offset[axis], piece.hi + offset[axis])
    if frame.side == "right":
        if axis == 1:
            return prism(1, tuple((p + x, q + z) for p, q in ring), y - piece.hi, y - piece.lo)
        if axis == 0:
            flipped = tuple((y - p, q + z) for p, q in reversed(ring))
            return prism(0, flipped, piece.lo + x, piece.hi + x)
        flipped = tuple((p + x, y - q) for p, q in reversed(ring))
        return prism(2, flipped, piece.lo + z, piece.hi + z)
    if axis == 0:  # u runs along y: the ring (v, w) becomes (x, z)
        return prism(
            1, tuple((x - p, q + z) for p, q in reversed(ring)), piece.lo + y, piece.hi + y
        )
    if axis == 1:  # v runs against x: the ring (u, w) becomes (y, z)
        return prism(0, tuple((p + y, q + z) for p, q in ring), x - piece.hi, x - piece.lo)
    return prism(2, tuple((x - q, p + y) for p, q in ring), piece.lo + z, piece.hi + z)
