"""Choosing: of many good layouts the few that differ in something that a person sees."""

from collections import Counter
from collections.abc import Iterable

from roomy_hull.arrange.instance import Instance, Layout

MOVED = 3
"""Layouts differ where so many units changed bay or stand with others."""


Partners = list[tuple[int, int, tuple[int, ...]]]


def partners(instance: Instance, layout: Layout) -> Partners:
    """For each unit its bay, and the units that it shares cells with; units that are alike are one.

    Returns: Unit, bay, and what stands with it, sorted.
    """
    alike = _alike(instance)
    found = []
    for n, at in enumerate(layout):
        end = at.cell + instance.items[n].cells
        near = tuple(sorted(
            alike[m] for m, b in enumerate(layout)
            if m != n and b.bay == at.bay and b.cell < end and at.cell < b.cell + instance.items[m].cells
        ))  # fmt: skip
        found.append((alike[n], at.bay, near))
    return sorted(found)


def _alike(instance: Instance) -> list[int]:
    """For each unit the first one that is like it in size and mass: which of them is where makes no difference."""
    first: dict[tuple[float, ...], int] = {}
    keys = [
        (i.width, i.height, i.depth, round(i.kg, 1), i.use)
        for i in instance.items[: instance.count]
    ]
    return [first.setdefault(key, n) for n, key in enumerate(keys)]


def differ(instance: Instance, one: Layout, other: Layout) -> int:
    """How many units changed bay, or what they stand with."""
    return _changed(partners(instance, one), partners(instance, other))


def _changed(one: Partners, other: Partners) -> int:
    """How many rows of one are not in the other."""
    return sum((Counter(one) - Counter(other)).values())


def chosen(
    instance: Instance, rows: Iterable[tuple[float, Layout]], most: int, have: Iterable[Layout] = ()
) -> list[tuple[float, Layout]]:
    """Walk a list and keep what differs from everything kept.

    Args:
        rows: Points and layouts, the best first.
    Returns: Each differs in at least `MOVED` units from every other one.
    """
    kept = [partners(instance, h) for h in have]
    found: list[tuple[float, Layout]] = []
    need = min(MOVED, instance.count)
    for points, layout in rows:
        mine = partners(instance, layout)
        if all(_changed(mine, k) >= need for k in kept):
            kept.append(mine)
            found.append((points, layout))
            if len(found) >= most:
                break
    return found
