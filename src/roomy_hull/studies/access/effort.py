"""Effort: what is lifted from where it lives to where it is held, for each of the party."""

from __future__ import annotations

import math
from collections.abc import Sequence

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.ergonomics.lifting import Lift, held_out, index, limit
from roomy_hull.core.findings import Finding
from roomy_hull.core.refs import Ref
from roomy_hull.job.goods import Good
from roomy_hull.studies.access.moves import reach_from
from roomy_hull.studies.access.reach import Seen
from roomy_hull.studies.access.spaces import Space
from roomy_hull.studies.access.standing import Settled
from roomy_hull.studies.access.stowing import Stowed
from roomy_hull.studies.access.told import finding, ref

LIGHT = 3.0
"""Less than this is nobody's lift (common practice). [kg]"""
HELD = 75.0
"""What is lifted is at last held before the body so high: the equation's best height. [cm]"""


NIOSH = "NIOSH 94-110 (from memory)"
STRAIN, MOST_STRAIN = 1.0, 3.0
"""Above this index a lift is a strain for some, and for most (NIOSH)."""
NAMED = 3
"""So many are named where there are more."""


class Effort(msgspec.Struct, frozen=True):
    """One lift of one thing by one person.

    Attributes:
        what, name: Id of the good or carried thing, and its name.
        person: Whose id.
        kg: One piece. [kg]
        out, height: How far the hands are out and how high, where it lives. [cm]
        most: The recommended limit. [kg]
        index: Mass over limit; infinite where the hands are beyond the equation's bounds.
    """

    what: str
    name: str
    person: str
    kg: float
    out: float
    height: float
    most: float
    index: float


def _lift(
    what: str, name: str, kg: float, width: float, seen: Seen, settled: Settled, space: Space
) -> Effort:
    """One lift from where somebody stands for it; on a shelf it is first drawn to the edge. [kg, mm]"""
    hand, feet = list(seen.hand), seen.feet
    if not space.top and not space.device:
        axis, sign = reach_from(space.side)
        edge = space.box[axis + 3] if sign > 0 else space.box[axis]
        hand[axis] = edge - sign * min(width / 2, abs(edge - hand[axis]))
    if feet:
        out = max(math.dist(hand[:2], feet[:2]) / 10.0, held_out(width / 10.0, HELD))
        ground = settled.ground(feet[0])
    else:
        out, ground = math.inf, settled.ground(hand[0])
    height = (hand[2] - ground) / 10.0
    travel = abs(height - HELD)
    ends = (Lift(out, height, travel), Lift(held_out(width / 10.0, HELD), HELD, travel))
    return Effort(what, name, seen.person, kg, out, height, min(map(limit, ends)), index(kg, ends))


def efforts(
    assembly: Assembly, spaces: Sequence[Space], seen: Sequence[Sequence[Seen]], rows: Sequence[Stowed], settled: Settled
) -> tuple[Effort, ...]:  # fmt: skip
    """Every lift that is one.

    Returns: Goods of 3 kg and more apiece, and carried things that are lifted on and off, person by person.
    """
    found = []
    goods: tuple[Good, ...] = assembly.job.goods
    for good, row in zip(goods, rows, strict=True):
        if good.mass >= LIGHT and row.space >= 0:
            width = min(good.width, good.length) or 300.0
            found += [
                _lift(good.id, good.name, good.mass, width, s, settled, spaces[row.space])
                for s in seen[row.space]
            ]
    for n, space in enumerate(spaces):
        thing = assembly.thing(space.owner)
        if thing is not None and "lifted" in thing.capabilities.roles:
            kg = sum(m.kg for m in thing.masses)
            if kg >= LIGHT:
                width = min(thing.envelope.size()[:2])
                found += [
                    _lift(thing.id, thing.name, kg, width, s, settled, space) for s in seen[n]
                ]
    return tuple(found)


def lifts_found(assembly: Assembly, efforts: Sequence[Effort]) -> list[Finding]:
    """The worst lift of each thing, where it is a strain.

    Returns: One note of all that strain some, and one finding for each that strains most.
    """
    worst: dict[str, Effort] = {}
    for e in efforts:
        if e.what not in worst or e.index > worst[e.what].index:
            worst[e.what] = e
    found = []
    goods = {g.id: g for g in assembly.job.goods}
    some = sorted(
        (e for e in worst.values() if STRAIN < e.index <= MOST_STRAIN), key=lambda e: -e.index
    )
    if some:
        names = ", ".join(e.name for e in some[:NAMED]) + (
            f" and {len(some) - NAMED} more" if len(some) > NAMED else ""
        )
        found.append(
            finding("lift", "note", f"Lifting is a strain for some: {names}", _lifted(assembly, goods, some[0]),
                    (some[0].index, STRAIN, "times the limit"), NIOSH)
        )  # fmt: skip
    for e in worst.values():
        if e.index <= MOST_STRAIN:
            continue
        words = f"Lifting {e.name}, {e.kg:.0f} kg, is a strain for most: have two lift it, or keep it lower and nearer"
        measured = e.index if math.isfinite(e.index) else None
        found.append(
            finding(
                "lift",
                "look",
                words,
                _lifted(assembly, goods, e),
                (measured, MOST_STRAIN, "times the limit"),
                NIOSH,
            )
        )
    return found


def _lifted(assembly: Assembly, goods: dict[str, Good], one: Effort) -> tuple[Ref, ...]:
    """What a lift is of."""
    if one.what in goods:
        return (*ref(assembly, goods[one.what].place), Ref("good", one.what))
    return ref(assembly, one.what)
