"""Impossible: why some units cannot all go in, as the smallest set of them for which that is so."""

import math
from collections.abc import Callable, Sequence

import msgspec
import numpy as np

from roomy_hull.arrange import solver
from roomy_hull.arrange.instance import Instance
from roomy_hull.arrange.places import Places
from roomy_hull.arrange.strips import Strips, list_strips

LONGEST = 2.0
"""So long it is tried to settle one set by whole strips. [s]"""


class Reason(msgspec.Struct, frozen=True):
    """Why not.

    Attributes:
        kind: ``large`` (too large for every bay), ``area`` (more face than the bays have) or ``strips`` (no stacks of
            up to a few units fit beside one another).
        units: The smallest set found: without any one of them the same proof fails.
        bays: The bays that they may be in.
        most: Units a strip may have, where the proof is of strips.
    """

    kind: str
    units: tuple[int, ...]
    bays: tuple[int, ...]
    most: int = 0

    @property
    def certain(self) -> bool:
        """Whether it is so whichever way they are stacked."""
        return self.kind != "strips"


def too_large(instance: Instance) -> tuple[int, ...]:
    """Units that no bay takes, by size, depth or wish."""
    found = []
    for n in range(instance.count):
        item = instance.items[n]
        if not any(
            s is not None
            and s.free.room is not None
            and item.cells <= b.cells
            and item.height <= b.height + 0.05
            for s, b in zip(item.spots, instance.bays, strict=True)
        ):
            found.append(n)
    return tuple(found)


def _length(instance: Instance, bay: int) -> float:
    """How much wall of a bay any unit may use. [mm]"""
    ends = [
        s.free.room[2] + item.width
        for item in instance.items
        if (s := item.spots[bay]) is not None and s.free.room is not None
    ]
    return max(ends, default=0.0)


def _riders(instance: Instance) -> frozenset[int]:
    """Units that may stand behind another one, and so need no face of their own."""
    return frozenset(instance.unit(r) for f in instance.behind for r in f.riders)


def by_area(instance: Instance, units: Sequence[int]) -> tuple[int, ...] | None:
    """Find bays whose faces are smaller than those of the units that can only go there.

    Args:
        units: Which of its units are asked about.
    Returns:
        The bays, or none where the faces are no proof. A unit's face is what it takes of the bay: its own outside
        size.
    """
    riders = _riders(instance)
    for some in range(1, 1 << len(instance.bays)):
        bays = {b for b in range(len(instance.bays)) if some >> b & 1}
        room = sum(_length(instance, b) * instance.bays[b].height for b in bays)
        inside = [n for n in units if n not in riders and instance.bays_of(n) <= bays]
        if sum(instance.items[n].width * instance.items[n].height for n in inside) > room + 1e-6:
            return tuple(sorted(bays))
    return None


def reason(
    instance: Instance, most: int = 4, alive: Callable[[], bool] = lambda: True
) -> Reason | None:
    """Say why the units cannot all go in.

    Args:
        most: Units a strip may have, for the proof by strips.
        alive: False ends it with what is known.
    Returns: The simplest proof, on the smallest set that it holds for; none where there is no proof.
    """
    every = list(range(instance.count))
    large = too_large(instance)
    if large:
        return Reason("large", large[:1], tuple(range(len(instance.bays))))
    strips = list_strips(instance, Places(instance), most, alive=alive, named=frozenset(every))
    area = by_area(instance, every) is not None
    if strips.complete and not _strips_fit(instance, strips, every):
        few = _fewest(instance, every, lambda some: not _strips_fit(instance, strips, some), alive)
        bays = by_area(instance, few)
        if bays is not None:
            return Reason("area", tuple(few), bays)
        bays = tuple(sorted({b for n in few for b in instance.bays_of(n)}))
        return Reason("strips", tuple(few), bays, strips.most)
    if area:
        few = _fewest(instance, every, lambda some: by_area(instance, some) is not None, alive)
        return Reason("area", tuple(few), by_area(instance, few) or ())
    return None


def _fewest(
    instance: Instance,
    units: list[int],
    holds: Callable[[list[int]], bool],
    alive: Callable[[], bool],
) -> list[int]:
    """Leave units out one by one while the proof holds, the smallest first."""

    def size(n: int) -> float:
        return instance.items[n].width * instance.items[n].height

    left = list(units)
    for n in sorted(units, key=size):
        if not alive():
            break
        fewer = [m for m in left if m != n]
        if fewer and holds(fewer):
            left = fewer
    return sorted(left)


def _strips_fit(instance: Instance, strips: Strips, units: Sequence[int]) -> bool:
    """Whether the units can be cut into strips that fit side by side.

    A strip takes its width in one bay; how strips lie beside one another, rules and runs are left out: where even that
    does not go, no layout of strips does. First with parts of strips, which is quick and often proof enough, then whole.
    """
    want = np.zeros(instance.count, bool)
    want[list(units)] = True
    unit = np.array([instance.unit(i) for i in range(len(instance.items))])
    has = np.zeros((len(strips), instance.count))
    for i in range(len(instance.items)):
        has[:, unit[i]] += strips.has[:, i]
    ok = ~(has[:, ~want] > 0).any(axis=1)
    has, cells, fits = has[ok][:, want], strips.cells[ok], strips.fits[ok]
    # Of the same units in the same bays only the narrowest counts.
    lp = solver.silent()
    for _ in units:
        solver.row(lp, 1.0, 1.0)
    for bay in instance.bays:
        solver.row(lp, -math.inf, float(bay.cells))
    n = len(list(units))
    for k in range(n):
        solver.column(lp, 1.0, [k], [1.0])
    known: set[tuple[bytes, int]] = set()
    for k in np.argsort(cells, kind="stable"):
        for b in range(len(instance.bays)):
            key = (has[k].tobytes(), b)
            if fits[k, b] == 0 or key in known:
                continue
            known.add(key)
            rows = [*(int(r) for r in np.nonzero(has[k])[0]), n + b]
            solver.column(lp, 0.0, rows, [*has[k][has[k] > 0], float(cells[k])])
    lp.run()
    if lp.getInfo().objective_function_value > 1e-6:
        return False
    many = lp.getNumCol()
    lp.setOptionValue("time_limit", LONGEST)
    lp.changeColsIntegrality(
        many,
        np.arange(many, dtype=np.int32),
        np.array([solver.highspy.HighsVarType.kInteger] * many),
    )
    lp.run()
    # What is not settled in time is no proof.
    proved = lp.getInfo().mip_dual_bound
    return bool(proved <= 0.5)


def worded(instance: Instance, why: Reason) -> str:
    """Say a reason in words.

    Returns: What cannot be, and what to do about it.
    """
    names = [instance.items[n].name for n in why.units]
    bays = " and ".join(instance.bays[b].name for b in why.bays)
    if why.kind == "large":
        item = instance.items[why.units[0]]
        shorts = [s.free.short for s in item.spots if s is not None]
        over = "" if not shorts else f" by {max(min(shorts, key=max)):.0f} mm at least"
        return f"{names[0]} is too large for every bay that it may be in{over}. Make it smaller, or let it go elsewhere."
    if len(names) == 1:
        return (f"{names[0]} finds no place in {bays}, in steps of {instance.cell:.0f} mm, beside what stays. "
                "Try smaller steps, or unpin something.")  # fmt: skip
    listed = ", ".join(names[:-1]) + f" and {names[-1]}" if len(names) > 1 else names[0]
    if why.kind == "area":
        return (f"These {len(names)} cannot stand together in {bays}, whichever way they are stacked: {listed}. "
                "Their fronts are larger than the bays are. Take one of them out, or make one smaller.")  # fmt: skip
    return (f"These {len(names)} do not go together into {bays} in stacks of up to {why.most}: {listed}. "
            "Take one of them out, make one narrower, or pin some by hand.")  # fmt: skip
