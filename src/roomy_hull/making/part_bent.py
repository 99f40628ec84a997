"""A part with some of its bends made and the others flat, as it lies on the brake."""

from collections.abc import Iterator
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from roomy_hull.core.folded import ROOT, Bend, Face, Place, beyond, to_corners

Points = NDArray[np.float64]


class Spot(NamedTuple):
    """A bend of the tree: its number, the face before it, its depth, and the numbers of those beyond it."""

    number: int
    bend: Bend
    face: Face
    deep: int
    inner: frozenset[int]
    before: int
    """The bend that leads to the face before it; -1 for the root."""


def in_turn(face: Face, first: int = 0) -> Iterator[Bend]:
    """A face's bends in the order in which the flat's bend lines stand.

    Args:
        first: The edge from which its ring is walked: the root's from its first, all others from their second.
    Yields: Each of its own bends.
    """
    by_edge = {b.edge: b for b in face.bends}
    count = len(face.ring)
    for step in range(count):
        found = by_edge.get((first + step) % count)
        if found is not None:
            yield found


def spots_of(root: Face) -> list[Spot]:
    """All bends of a part, numbered as its flat's lines are."""
    found: list[Spot] = []

    def walk(face: Face, first: int, deep: int, before: int) -> frozenset[int]:
        own: set[int] = set()
        for bend in in_turn(face, first):
            number = len(found)
            found.append(Spot(number, bend, face, deep, frozenset(), before))
            inner = walk(bend.face, 1, deep + 1, number)
            found[number] = found[number]._replace(inner=inner)
            own |= {number, *inner}
        return frozenset(own)

    walk(root, 0, 0, -1)
    return found


def bent(
    root: Face, thickness: float, k: float, done: frozenset[int]
) -> tuple[list[tuple[int, Points]], dict[int, Place]]:
    """A part with some of its bends made and the others flat.

    Args:
        thickness, k: Sheet and neutral line. [mm]
    Returns:
        The corners of every face, outer ring then inner, under the number of the bend that leads to it, -1 for the
        root; and where the face before each bend lies. [mm]
    """
    faces: list[tuple[int, Points]] = []
    where: dict[int, Place] = {}
    count = 0

    def walk(face: Face, place: Place, first: int, number: int, before: Bend | None) -> None:
        nonlocal count
        ring = to_corners(face, before, thickness)
        faces.append((number, np.array([place.at(p, z) for z in (0.0, thickness) for p in ring])))
        for bend in in_turn(face, first):
            own = count
            count += 1
            where[own] = place
            far = beyond(place, face, bend, thickness, None if own in done else k)
            walk(bend.face, far, 1, own, bend)

    walk(root, ROOT, 0, -1, None)
    return faces, where
