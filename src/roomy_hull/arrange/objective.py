"""Worth: what a layout is worth, and which rules it breaks, from nothing but where things are."""

import math
from collections.abc import Sequence
from typing import NamedTuple

from roomy_hull.arrange.instance import CARRIER, Apart, At, Instance, Layout, ceiling, which


class Value(NamedTuple):
    """What a layout is worth: its parts in their own units, and all of them in points; less is better.

    `axle` [kg], `balance` [kg], `low` [kg·m], `reach` [100 mm times use], `runs` [m times weight], `room` [mm].
    """

    axle: float
    balance: float
    low: float
    reach: float
    runs: float
    room: float
    points: float


class Place(NamedTuple):
    """An item in a bay, where it begins along the wall, and its height. [mm]"""

    item: int
    bay: int
    u: float
    level: float


def value(instance: Instance, layout: Layout) -> Value:
    """Value a layout, by itself and from nothing but where things are.

    Returns: Parts, and their sum in points; less is better. The free wall counts the other way.
    """
    places = [
        Place(which(n, at), at.bay, instance.u(which(n, at), at.bay, at.cell), at.level)
        for n, at in enumerate(layout)
    ]
    return valued(instance, places)


def valued(instance: Instance, places: Sequence[Place]) -> Value:
    """Value units where they are, on any pitch.

    Args:
        places: One for each unit, in order. [mm]
    Returns: As of `value`.
    """
    axle = low = reach = 0.0
    lean = instance.lean
    where = []
    for at in places:
        item, spot = instance.items[at.item], instance.spot(at.item, at.bay)
        ax, ay = instance.bays[at.bay].along
        x, y, z = spot.x + ax * at.u, spot.y + ay * at.u, spot.z + at.level
        where.append((x, y))
        axle += item.kg * instance.per_x * (x - instance.x_from)
        lean += item.kg * instance.per_y * y
        low += item.kg * (z - instance.z_from) / 1000
        middle = spot.middle + at.level
        reach += item.use * max(0.0, item.band[0] - middle, middle - item.band[1]) / 100
    runs = sum(
        r.weight * sum(abs(p - q) for p, q in zip(where[r.a], where[r.b], strict=True)) / 1000
        for r in instance.runs
    )
    runs += sum(
        t.weight * (abs(where[t.a][0] - t.x) + abs(where[t.a][1] - t.y)) / 1000
        for t in instance.ties
    )
    points, room = instance.weights.points(), _free_wall(instance, places)
    parts = {
        "axle": axle,
        "balance": abs(lean),
        "low": low,
        "reach": reach,
        "runs": runs,
        "room": -room,
    }
    return Value(
        axle, abs(lean), low, reach, runs, room, sum(points[k] * v for k, v in parts.items())
    )


def _free_wall(instance: Instance, places: Sequence[Place]) -> float:
    """The widest stretch of wall with nothing on it, in whole cells. [mm]"""
    widest = 0.0
    for b, bay in enumerate(instance.bays):
        rows = []
        for p in places:
            item = instance.items[p.item]
            if p.bay == b and item.unit < 0:
                start = p.u - item.shift
                rows.append((start, start + item.cells * instance.cell))
        at = bay.origin
        for start, end in [*sorted(rows), (bay.origin + bay.cells * instance.cell, 0.0)]:
            widest = max(widest, start - at)
            at = max(at, end)
    return (widest + 1e-6) // instance.cell * instance.cell


def broken(instance: Instance, layout: Layout) -> list[tuple[str, tuple[int, ...]]]:
    """Say which rules a layout breaks, by itself and from nothing but where things are.

    Returns: ``place``, ``overlap``, ``support`` or ``apart``, and the units concerned; empty where all is well.
    """
    found: list[tuple[str, tuple[int, ...]]] = []
    for n, at in enumerate(layout):
        i = which(n, at)
        item, spot = instance.items[i], instance.items[i].spots[at.bay]
        if (
            spot is None
            or at.cell < 0
            or not spot.free.allows(instance.u(i, at.bay, at.cell), float(at.level))
        ):
            found.append(("place", (n,)))
            continue
        if item.stance != "hang" and not _stands(instance, layout, n):
            found.append(("support", (n,)))
        for m in range(n):
            if layout[m].bay == at.bay and _too_near(
                instance, (i, at), (which(m, layout[m]), layout[m])
            ):
                found.append(("overlap", (m, n)))
    found += [("apart", (a.a, a.b)) for a in instance.aparts if too_close(instance, a, layout)]
    return found


def too_close(instance: Instance, apart: Apart, layout: Layout) -> bool:
    """Whether two units of one bay have less wall between them than is wished."""
    one, other = layout[apart.a], layout[apart.b]
    return (
        one.bay == other.bay
        and _gap(instance, apart.a, one.cell, apart.b, other.cell) < apart.gap - 1e-6
    )


def _gap(instance: Instance, i: int, cell: int, j: int, other: int) -> float:
    """The wall between two units of one bay; below 0 where they overlap along it. [mm]"""
    a, b = instance.u(i, 0, cell), instance.u(j, 0, other)
    return max(b - a - instance.items[i].width, a - b - instance.items[j].width)


def _too_near(instance: Instance, one: tuple[int, At], other: tuple[int, At]) -> bool:
    """Whether two units of one bay share room, what has to stay clear above the lower one and between them included."""
    (i, a), (j, b) = one, other
    p, q = instance.items[i], instance.items[j]
    if p.unit >= 0 or q.unit >= 0:
        return _behind(instance, one, other)
    if a.cell >= b.cell + q.cells or b.cell >= a.cell + p.cells:
        return False
    if a.level < b.level:
        return b.level < a.level + ceiling(p) + math.ceil(q.below - 1e-6)
    return a.level < b.level + ceiling(q) + math.ceil(p.below - 1e-6)


def _behind(instance: Instance, one: tuple[int, At], other: tuple[int, At]) -> bool:
    """Whether two units of which one stands behind others share room, with what has to stay clear before and behind."""
    (i, a), (j, b) = one, other
    p, q = instance.items[i], instance.items[j]
    u, t = instance.u(i, a.bay, a.cell), instance.u(j, b.bay, b.cell)
    v, w = instance.spot(i, a.bay).v, instance.spot(j, b.bay).v
    if u >= t + q.width or t >= u + p.width:
        return False
    if a.level >= b.level + q.height or b.level >= a.level + p.height:
        return False
    if v > w:
        return v < w + q.depth + max(q.back, p.front) - 1e-6
    return w < v + p.depth + max(p.back, q.front) - 1e-6


def _stands(instance: Instance, layout: Layout, i: int) -> bool:
    """Whether a unit stands on its feet, or rests on carriers under both its ends."""
    at, item = layout[i], instance.items[i]
    if instance.spot(i, at.bay).stands(instance.u(i, at.bay, at.cell), at.level):
        return True
    if item.stance == "floor":
        return False
    ends = (at.cell, at.cell + item.cells - 1)
    below = [
        (b.cell, b.cell + instance.items[j].cells)
        for j, b in enumerate(layout)
        if j != i and b.bay == at.bay and b.item < 0 and instance.items[j].carries
        and 0 <= at.level - b.level - ceiling(instance.items[j]) <= CARRIER + item.below
    ]  # fmt: skip
    return all(any(a <= end < b for a, b in below) for end in ends)
