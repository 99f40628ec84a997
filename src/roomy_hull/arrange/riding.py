"""Riding: small things that are seldom wanted may stand behind a shallow unit, in room that nothing else can use."""

import itertools
import math
from collections.abc import Sequence

import msgspec

from roomy_hull.arrange.instance import Form, Instance, Item, Spot
from roomy_hull.arrange.spots import spot_of
from roomy_hull.assembly.assemble import Assembly, trial_thing
from roomy_hull.job.model import Scenario
from roomy_hull.kinds.registry import Unit
from roomy_hull.studies.fit.free_space import free_space

SELDOM = 0.5
"""What has to be at hand more than this stands in front. [points per 100 mm]"""
MOST_FORMS = 60
"""So many units with others behind them are tried at most, the shallowest first."""


def with_riders(
    instance: Instance, units: Sequence[Unit], both: tuple[Assembly, Assembly], away: dict[str, tuple[str, ...]],
    step: float, scenario: Scenario,
) -> Instance:  # fmt: skip
    """Add the ways in which units can stand behind others.

    Args:
        both: The job as it is, and with only what stays.
        away: By bay, what is never on the vehicle together with it.
        step: In which steps a unit may begin. [mm]
    Returns: With items and forms for them. One or two stand behind a unit, side by side, at its height.
    """
    riders = [
        i
        for i, item in enumerate(instance.items)
        if item.stance == "hang" and item.use <= SELDOM and item.depth > 0
    ]
    items: list[Item] = list(instance.items)
    known: dict[tuple[int, float], int] = {}
    forms: list[tuple[float, Form]] = []
    for h, host in enumerate(instance.items[: len(units)]):
        if host.unit >= 0 or not any(host.spots):
            continue
        for many in (1, 2):
            for some in itertools.permutations(riders, many):
                starts = _starts(instance, h, some, step)
                if h in some or starts is None:
                    continue
                found = []
                for r, start in zip(some, starts, strict=True):
                    key = (r, start)
                    if key not in known:
                        twin = _twin(instance, units[r], r, start, both, away, scenario)
                        known[key] = len(items)
                        items.append(twin)
                    found.append(known[key])
                deep = _deep_enough(host, [items[k] for k in found])
                if deep:
                    forms.append((host.depth, Form(h, tuple(found), deep)))
    forms.sort(key=lambda f: (len(f[1].riders), f[0]))
    chosen = [f for _, f in forms[:MOST_FORMS]]
    used = sorted({k for f in chosen for k in f.riders})
    new = {k: len(units) + n for n, k in enumerate(used)}
    kept = (*instance.items, *(items[k] for k in used))
    return msgspec.structs.replace(
        instance,
        items=kept,
        behind=tuple(Form(f.item, tuple(new[k] for k in f.riders), f.bays) for f in chosen),
    )


def _starts(
    instance: Instance, host: int, riders: Sequence[int], step: float
) -> list[float] | None:
    """Where riders begin in the host's block, side by side; none where they do not stand within its width and height."""
    h = instance.items[host]
    at, found = 0.0, []
    for n, r in enumerate(riders):
        item = instance.items[r]
        if item.height > h.height or not any(
            a and b for a, b in zip(item.spots, h.spots, strict=True)
        ):
            return None
        gap = (
            0.0 if n == 0 else max(item.shift, step if instance.items[riders[n - 1]].shift else 0.0)
        )
        start = math.ceil((at + gap) / step - 1e-9) * step if n else (step if item.shift else 0.0)
        found.append(h.shift + start)
        at = start + item.width
    return found if at <= h.width + 1e-6 else None


def _twin(
    instance: Instance, unit: Unit, i: int, shift: float, both: tuple[Assembly, Assembly],
    away: dict[str, tuple[str, ...]], scenario: Scenario,
) -> Item:  # fmt: skip
    """A unit as it is at the back of every bay."""
    real, still = both
    own = instance.items[i]
    spots: list[Spot | None] = []
    for bay, here in zip(instance.bays, own.spots, strict=True):
        place = real.ground.bays[bay.id]
        v = math.floor(place.size.y1 - own.depth - own.back)
        if here is None or v <= here.v:
            spots.append(None)
            continue
        thing = trial_thing(unit.but(bay=bay.id, u=0.0, v=float(v), w=0.0), real)
        space = free_space(still, thing, place, float(v), away[bay.id])
        spots.append(spot_of(thing, space, scenario, still) if space.room is not None else None)
    return msgspec.structs.replace(
        own, spots=tuple(spots), unit=i, shift=shift, hooks=(), carries=False
    )


def _deep_enough(host: Item, riders: Sequence[Item]) -> tuple[int, ...]:
    """The bays in which all of them stand behind the host, with what has to stay clear between."""
    return tuple(
        b
        for b, here in enumerate(host.spots)
        if here is not None
        and all(
            (s := r.spots[b]) is not None
            and s.v + 1e-6 >= here.v + host.depth + max(host.back, r.front)
            for r in riders
        )
    )
