"""Layouts: from places in cells to a job, and from a job's own places to cells where they can be had so."""

import math

import msgspec

from roomy_hull.arrange.gather import Gathered
from roomy_hull.arrange.instance import At, Instance, Layout, ceiling, which
from roomy_hull.arrange.objective import Place, Value, broken, valued
from roomy_hull.job.model import Job
from roomy_hull.kinds.registry import Unit

NEAR = 6.0
"""What overlaps along the wall by less than this still stands beside one another. [mm]"""


DEEP = 60.0
"""What begins further in than this stands behind something. [mm]"""


def placed(gathered: Gathered, job: Job, layout: Layout) -> Job:
    """Put a layout into the job.

    Args:
        job: What was asked for; what stays is taken from it.
    Returns: With every unit in its place: those of the job in their order, then what was wanted besides.
    """
    there = {gathered.units[n].id: standing(gathered, n, at) for n, at in enumerate(layout)}
    ids = {u.id for u in job.units}
    new = tuple(there[u.id] for u in gathered.units if u.id not in ids)
    return msgspec.structs.replace(job, units=(*(there.get(u.id, u) for u in job.units), *new))


def standing(gathered: Gathered, n: int, at: At) -> Unit:
    """A unit as the job has it where it stands."""
    instance, i = gathered.instance, which(n, at)
    return gathered.units[n].but(
        bay=instance.bays[at.bay].id,
        u=instance.u(i, at.bay, at.cell),
        v=instance.spot(i, at.bay).v,
        w=float(at.level),
    )


def as_it_stands(gathered: Gathered, job: Job) -> Value | None:
    """Value the job's own places, on whatever pitch.

    Returns: None where some of it is not in the layout yet, or in a bay where it may not be.
    """
    instance = gathered.instance
    bays = {b.id: n for n, b in enumerate(instance.bays)}
    units = {u.id: u for u in job.units}
    places = []
    for n, unit in enumerate(gathered.units):
        here = units.get(unit.id)
        if here is None or instance.items[n].spots[bays[here.bay]] is None:
            return None
        places.append(
            Place(_item_at(instance, n, bays[here.bay], here.v), bays[here.bay], here.u, here.w)
        )
    return valued(instance, places)


def _item_at(instance: Instance, n: int, bay: int, v: float) -> int:
    """Which item a unit is at a depth: the one whose own depth is nearest."""
    some = [
        i
        for i in range(len(instance.items))
        if instance.unit(i) == n and instance.items[i].spots[bay] is not None
    ]
    return min(some, key=lambda i: abs(instance.spot(i, bay).v - v))


def in_cells(gathered: Gathered, job: Job) -> Layout | None:
    """The job's own layout pushed together onto cells, every unit beside and above the same ones.

    Returns: None where it cannot be had so.
    """
    instance = gathered.instance
    bays = {b.id: n for n, b in enumerate(instance.bays)}
    units = {u.id: u for u in job.units}
    here = [units.get(u.id) for u in gathered.units]
    found: dict[int, At] = {}
    for bay, b in bays.items():
        rows = [(n, u) for n, u in enumerate(here) if u is not None and u.bay == bay]
        if any(instance.items[n].spots[b] is None for n, _ in rows):
            return None
        front = [(n, u) for n, u in rows if u.v < DEEP]
        _pushed(instance, front, b, found)
        for n, u in rows:
            if n not in found:
                host = _host(instance, n, u, front)
                if host is None:
                    return None
                at = found[host]
                twin = next(
                    (
                        r
                        for f in instance.behind
                        if f.item == host
                        for r in f.riders
                        if instance.unit(r) == n
                    ),
                    None,
                )
                if twin is None:
                    return None
                found[n] = At(b, at.cell, at.level, twin)
    if len(found) < len(gathered.units):
        return None
    layout = tuple(found[n] for n in range(len(gathered.units)))
    return None if broken(instance, layout) else layout


def _pushed(
    instance: Instance, rows: list[tuple[int, Unit]], bay: int, found: dict[int, At]
) -> None:
    """Put the units of a bay's front on cells: each beside what is on its left, and on what is below it."""
    levels: dict[int, int] = {}
    for n, u in sorted(rows, key=lambda r: r[1].w):
        under = [
            levels[m] + ceiling(instance.items[m]) for m, o in rows if m in levels and _over(u, o)
        ]
        feet = [f[0] for f in instance.spot(n, bay).feet]
        low = max([*under, min(feet, default=0)])
        stance = instance.items[n].stance
        levels[n] = low if stance != "hang" else max(low, math.ceil(u.w - 1e-6))
    for n, u in sorted(rows, key=lambda r: r[1].u):
        beside = [
            found[m].cell + instance.items[m].cells
            for m, o in rows
            if m in found
            and found[m].bay == bay
            and o.u + o.width <= u.u + NEAR
            and _level_with(instance, n, m, levels)
        ]
        free = instance.spot(n, bay).free
        own = int((u.u - instance.bays[bay].origin + NEAR) // instance.cell)
        tries = (max([own + d, *beside]) for d in (0, 1, -1))
        cell = next(
            (c for c in tries if free.allows(instance.u(n, bay, c), levels[n])), max([own, *beside])
        )
        found[n] = At(bay, cell, levels[n])


def _over(a: Unit, b: Unit) -> bool:
    """Whether a stands over b."""
    return (
        a.w >= b.w + b.height - NEAR and a.u < b.u + b.width - NEAR and b.u < a.u + a.width - NEAR
    )


def _level_with(instance: Instance, n: int, m: int, levels: dict[int, int]) -> bool:
    """Whether two units share height."""
    a, b = levels[n], levels[m]
    return a < b + ceiling(instance.items[m]) and b < a + ceiling(instance.items[n])


def _host(instance: Instance, n: int, unit: Unit, front: list[tuple[int, Unit]]) -> int | None:
    """What a unit stands behind."""
    for m, u in front:
        if any(
            f.item == m and any(instance.unit(r) == n for r in f.riders) for f in instance.behind
        ) and (
            u.u <= unit.u + NEAR
            and unit.u + unit.width <= u.u + u.width + NEAR
            and abs(u.w - unit.w) <= 60
        ):
            return m
    return None
