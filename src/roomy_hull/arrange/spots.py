"""Spots: where a unit's mass is in a bay, where it is free there, and what it can stand on."""

import math
from collections.abc import Iterable

from roomy_hull.arrange.instance import CARRIER, Spot
from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.scaling import scale
from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.solids import Box
from roomy_hull.job.carried import Carried
from roomy_hull.job.model import Scenario
from roomy_hull.kinds.registry import kind_of
from roomy_hull.kit.body.canopy import BayPlace
from roomy_hull.kit.body.pieces import parts_of
from roomy_hull.studies.fit.free_space import FreeSpace

PACKED = 150.0
"""So high above a bay's floor a unit still stands on packers, behind a sill. [mm]"""


def spot_of(thing: Thing, free: FreeSpace, scenario: Scenario, still: Assembly) -> Spot:
    """A unit's figures in one bay."""
    weighed = [(m.kg * scale(scenario, m.owner, m.fill, m.mount), m) for m in thing.masses]
    whole = sum(kg for kg, _ in weighed)
    box = thing.envelope.centre()
    at = box
    if whole > 0:
        at = tuple(sum(kg * getattr(m, axis) for kg, m in weighed) / whole for axis in "xyz")
    v = getattr(thing.value, "v", 0.0)
    return Spot(at[0], at[1], at[2], box[2], free, v, tuple(_feet(thing, free, still)))


def open_heights(free: FreeSpace) -> list[float]:
    """The heights at which the places open to a unit begin, the lowest first; a single point counts. [mm]"""
    if free.room is None:
        return []
    u0, w0, u1, _ = free.room
    along = {u0, u1, *(edge for b in free.blocked for edge in (b[0], b[2]))}
    heights = sorted({w0, *(b[3] for b in free.blocked)})
    return [h for h in heights if any(free.allows(u, h) for u in along)]


def _feet(
    thing: Thing, free: FreeSpace, still: Assembly
) -> Iterable[tuple[int, tuple[tuple[float, float], ...]]]:
    """Heights at which a unit needs no arranged unit below it: the floor, packers behind a sill, what stays."""
    heights = open_heights(free)
    if not heights or thing.place is None:
        return
    levels: dict[int, list[tuple[float, float]]] = {}
    if heights[0] <= PACKED:
        levels[math.ceil(heights[0] - 0.05)] = [(-1.0, 1e5)]
    e = thing.expansion.envelope
    for box in _carriers(still, thing.place):
        if box.y0 < e.y1 and box.y1 > e.y0 and box.x1 - box.x0 >= e.x1 - 0.1:
            tops = {math.ceil(h - 0.05) for h in heights if 0 <= h - box.z1 <= CARRIER}
            for top in tops:
                levels.setdefault(top, []).append((box.x0, box.x1 - e.x1))
    for level in sorted(levels):
        yield level, tuple(levels[level])


def _carriers(still: Assembly, place: BayPlace) -> list[Box]:
    """What stays and carries, in a bay's directions. [mm]"""
    boxes = [p.box for p in parts_of(still.ground.tray, "arch")]
    boxes += [
        t.envelope
        for t in still.things
        if not isinstance(t.value, Carried) and kind_of(t.value).carries
    ]
    found = []
    for b in boxes:
        p, q = place.frame.local(b.x0, b.y0, b.z0), place.frame.local(b.x1, b.y1, b.z1)
        low, high = (tuple(f(c) for c in zip(p, q, strict=True)) for f in (min, max))
        found.append(Box(*low, *high))
    return found
