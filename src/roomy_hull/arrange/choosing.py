"""Choosing: of many good layouts the few that differ in something that a person sees."""

from collections.abc import Iterable

from roomy_hull.arrange.instance import Instance, Layout

MOVED = 3
"""Layouts differ where so many units changed bay or stand with others."""


def partners(instance: Instance, layout: Layout) -> list[tuple[int, frozenset[int]]]:
    """For each unit its bay, and the units that it shares cells with.

    Parameters
    ----------
    instance : Instance
        Of which the layout is.
    layout : tuple of At
        The layout.

    Returns
    -------
    list of (int, frozenset of int)
        In the order of the units.
    """
    found = []
    for n, at in enumerate(layout):
        end = at.cell + instance.items[n].cells
        near = frozenset(
            m for m, b in enumerate(layout)
            if m != n and b.bay == at.bay and b.cell < end and at.cell < b.cell + instance.items[m].cells
        )  # fmt: skip
        found.append((at.bay, near))
    return found


def differ(instance: Instance, one: Layout, other: Layout) -> int:
    """How many units changed bay, or what they stand with."""
    pairs = zip(partners(instance, one), partners(instance, other), strict=True)
    return sum(a != b for a, b in pairs)


def chosen(
    instance: Instance, rows: Iterable[tuple[float, Layout]], most: int, have: Iterable[Layout] = ()
) -> list[tuple[float, Layout]]:
    """Walk a list and keep what differs from everything kept.

    Parameters
    ----------
    instance : Instance
        Of which the layouts are.
    rows : iterable of (float, Layout)
        Points and layouts, the best first.
    most : int
        How many are wanted.
    have : iterable of Layout
        Layouts that are kept already.

    Returns
    -------
    list of (float, Layout)
        Each differs in at least `MOVED` units from every other one.
    """
    kept = [partners(instance, h) for h in have]
    found: list[tuple[float, Layout]] = []
    need = min(MOVED, instance.count)
    for points, layout in rows:
        mine = partners(instance, layout)
        if all(sum(a != b for a, b in zip(mine, k, strict=True)) >= need for k in kept):
            kept.append(mine)
            found.append((points, layout))
            if len(found) >= most:
                break
    return found
