"""Sets: which units a strip or a filling has, as one whole number, where units that are alike count only by how many."""

from collections.abc import Iterable
from typing import Any

import msgspec
import numpy as np

from roomy_hull.arrange.instance import Instance, Ints

MOST_BITS = 62


def alike(instance: Instance, named: Iterable[int] = ()) -> list[list[int]]:
    """Groups of units that may change places without anybody noticing.

    Args:
        named: Units that a rule names, besides those that a run, a wish or a form behind another names.
    Returns: Every unit in one group, most of them alone.
    """
    single = {*named}
    for r in instance.runs:
        single |= {r.a, r.b}
    single |= {t.a for t in instance.ties}
    for a in instance.aparts:
        single |= {a.a, a.b}
    for f in instance.behind:
        single |= {instance.unit(i) for i in (f.item, *f.riders)}
    groups: list[list[int]] = []
    known: list[tuple[Any, list[int]]] = []
    for n in range(instance.count):
        item = msgspec.structs.replace(instance.items[n], id="", name="")
        group = next((g for like, g in known if like == item), None) if n not in single else None
        if group is not None:
            group.append(n)
            continue
        groups.append([n])
        if n not in single:
            known.append((item, groups[-1]))
    return groups


class Sets:
    """Sets of units as whole numbers: a bit for what is alone, a count for what is alike.

    Args:
        groups: As of `alike`.
    """

    def __init__(self, instance: Instance, groups: list[list[int]]) -> None:
        self.groups = groups
        self.one = np.zeros(instance.count, np.int64)
        """What each unit adds to a set."""
        self.first = np.zeros(instance.count, np.int64)
        """The first of each unit's group."""
        bits = guards = bias = full = singles = 0
        for group in sorted(groups, key=len):
            many = len(group)
            if many == 1:
                singles |= 1 << bits
                wide = 1
            else:
                wide = many.bit_length() + 1
                guards |= 1 << (bits + wide - 1)
                bias |= ((1 << (wide - 1)) - 1 - many) << bits
            if bits + wide > MOST_BITS:
                raise ValueError(f"{instance.count} units are too many for one number")
            self.one[group], self.first[group] = 1 << bits, group[0]
            full |= many << bits
            bits += wide
        self.singles, self.guards = np.int64(singles), np.int64(guards)
        self.bias, self.full = np.int64(bias), np.int64(full)

    def together(self, a: Ints, b: Ints) -> Any:
        """Whether two sets can be in one layout: none alone is in both, none alike in more than there are."""
        return (a & b & self.singles == 0) & ((a + b + self.bias) & self.guards == 0)

    def within(self, a: Any) -> Any:
        """Whether a set has no more of anything than there is, and what is missing is a set."""
        left = self.full - a
        return (left >= 0) & (left & self.guards == 0)

    def whole(self, units: Iterable[int]) -> tuple[np.int64, np.int64]:
        """A mask and a value: a set has all of some units, and of their likes, where it is that value under the mask."""
        mask = value = 0
        for group in self.groups:
            if group[0] in units:
                one, many = int(self.one[group[0]]), len(group)
                wide = 1 if many == 1 else many.bit_length() + 1
                mask |= ((1 << wide) - 1) * one
                value |= many * one
        return np.int64(mask), np.int64(value)
