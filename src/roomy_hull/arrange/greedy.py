"""Rough: a first layout within the blink of an eye, one unit after the other where it costs least; nothing is proved."""

import random
from collections.abc import Callable, Iterator

from roomy_hull.arrange.instance import At, Instance, Layout, ceiling
from roomy_hull.arrange.judging import Rules
from roomy_hull.arrange.objective import broken, value

TRIES = 12
"""So many orders are tried at most."""


def rough(
    instance: Instance, rules: Rules | None = None, alive: Callable[[], bool] = lambda: True
) -> Layout | None:
    """Place units one after the other, those that must stand first, the large before the small.

    Args:
        alive: False ends it with the best there is.
    Returns: The cheapest of a few orders; none where in none of them everything found a place.
    """
    draw = random.Random(1)  # ruff: ignore[suspicious-non-cryptographic-random-usage]  # the same each time
    rank = {"floor": 0, "rest": 1, "hang": 2}
    units = sorted(
        range(instance.count),
        key=lambda n: (
            rank[instance.items[n].stance],
            -instance.items[n].width * instance.items[n].height,
        ),
    )
    best: tuple[float, Layout] | None = None
    for n in range(TRIES):
        if not alive():
            break
        order = list(units)
        for _ in range(n):
            a, b = draw.sample(range(len(order)), 2) if len(order) > 1 else (0, 0)
            order[a], order[b] = order[b], order[a]
        layout = _placed(instance, order)
        if (
            layout is None
            or broken(instance, layout)
            or (rules is not None and rules.forbid(layout))
        ):
            continue
        points = value(instance, layout).points
        if best is None or points < best[0]:
            best = (points, layout)
    return best[1] if best is not None else None


def _placed(instance: Instance, order: list[int]) -> Layout | None:
    """Everything in one order, each where it adds least; none where one finds no place."""
    there: dict[int, At] = {}
    lean = instance.lean
    for n in order:
        found = min(_places(instance, n, there, lean), default=None)
        if found is None:
            return None
        _, at = found
        there[n] = At(*at)
        spot, item = instance.spot(n, at[0]), instance.items[n]
        lean += (
            item.kg
            * instance.per_y
            * (spot.y + instance.bays[at[0]].along[1] * instance.u(n, at[0], at[1]))
        )
    return tuple(there[n] for n in range(instance.count))


def _places(
    instance: Instance, n: int, there: dict[int, At], lean: float
) -> Iterator[tuple[float, tuple[int, int, int]]]:
    """Every place of a unit on what is there, with what it adds. [points]"""
    item, points = instance.items[n], instance.weights.points()
    for b, bay in enumerate(instance.bays):
        spot = item.spots[b]
        if spot is None:
            continue
        mine = [(m, at) for m, at in there.items() if at.bay == b]
        for cell in range(bay.cells - item.cells + 1):
            under = [
                (m, at) for m, at in mine
                if at.cell < cell + item.cells and cell < at.cell + instance.items[m].cells
            ]  # fmt: skip
            u = instance.u(n, b, cell)
            x = spot.x + bay.along[0] * u
            y = spot.y + bay.along[1] * u
            along = points["axle"] * item.kg * instance.per_x * (x - instance.x_from)
            along += points["balance"] * (abs(lean + item.kg * instance.per_y * y) - abs(lean))
            for level in _levels(instance, n, b, cell, under):
                if spot.free.allows(u, float(level)):
                    yield along + float(instance.level_cost(n, b, level)), (b, cell, level)


def _levels(
    instance: Instance, n: int, bay: int, cell: int, under: list[tuple[int, At]]
) -> list[int]:
    """The heights at which a unit can be over what is in its cells: on all of it, or, if it hangs, above that."""
    item = instance.items[n]
    tops = [at.level + ceiling(instance.items[m]) for m, at in under]
    base = max(tops, default=0) + (round(item.below) if under else 0)
    if item.stance == "hang":
        return [base, *(h for h in item.hooks if h > base)]
    spot, u = instance.spot(n, bay), instance.u(n, bay, cell)
    found = [level for level, _ in spot.feet if level >= base and spot.stands(u, level)]
    if item.stance == "rest" and under:
        carriers = [
            (at.cell, at.cell + instance.items[m].cells) for m, at in under
            if instance.items[m].carries and at.level + ceiling(instance.items[m]) == base - round(item.below)
        ]  # fmt: skip
        if all(any(a <= end < b for a, b in carriers) for end in (cell, cell + item.cells - 1)):
            found.append(base)
    return found
