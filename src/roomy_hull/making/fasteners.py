"""Fasteners: where they stand on what two parts share, and the holes that they need in both."""

import math
from typing import NamedTuple

import msgspec

from roomy_hull.core.folded import Hole
from roomy_hull.core.parts import BarHole, BarPart, Hardware, Part, SheetPart
from roomy_hull.making.contacts import BAR_SIDES, Patch


class Drill(NamedTuple):
    """A hole to be put into a piece: which face, where in it, how wide; of a bar which side."""

    piece: tuple[int, int]
    face: int
    x: float
    y: float
    diameter: float


def spots_on(patch: Patch, edge: float, pitch: float) -> list[tuple[float, float]]:
    """Where fasteners stand on what two parts share.

    Parameters
    ----------
    patch : Patch
        What they share. [mm]
    edge, pitch : float
        The least distance from its edge, and the greatest between two. [mm]

    Returns
    -------
    list of (x, y)
        A row along the middle of what is narrow; else around it, that far inside its edge. At least two where there
        is room for two. [mm]
    """
    x0, y0, x1, y1 = patch.bounds
    wide, high = x1 - x0, y1 - y0
    narrow = min(wide, high) < 4 * edge + 1e-6
    rows: list[tuple[float, float]] = []
    if narrow:
        along, across = (wide, (y0 + y1) / 2) if wide >= high else (high, (x0 + x1) / 2)
        start = x0 if wide >= high else y0
        steps = [start + s for s in _steps(along, edge, pitch)]
        rows = [(s, across) if wide >= high else (across, s) for s in steps]
    else:
        xs, ys = ([o + s for s in _steps(n, edge, pitch)] for o, n in ((x0, wide), (y0, high)))
        rows = [(x, y) for x in xs for y in (ys[0], ys[-1])]
        rows += [(x, y) for x in (xs[0], xs[-1]) for y in ys[1:-1]]
    if patch.ring is None:
        return rows
    room = min(edge, min(wide, high) / 2)
    inner = patch.ring.buffer(-room * 0.98)
    import shapely  # ruff: ignore[import-outside-top-level]  # heavy: read when first needed

    inside = shapely.intersects_xy(inner, [r[0] for r in rows], [r[1] for r in rows])
    return [r for r, fine in zip(rows, inside, strict=True) if fine]


def _steps(long: float, edge: float, pitch: float) -> list[float]:
    """Where a row's fasteners stand along it: evenly, at both ends and at most a pitch apart."""
    if long <= 2 * edge + 1e-9:
        return [long / 2]
    count = max(1, math.ceil((long - 2 * edge) / pitch - 1e-9))
    return [edge + n * (long - 2 * edge) / count for n in range(count + 1)]


CLOSE = 0.3
"""Two holes nearer than this are one. [mm]"""


def drilled(
    parts: tuple[Part, ...], drills: list[Drill]
) -> tuple[tuple[Part, ...], tuple[int, ...]]:
    """Put holes into parts; pieces of one part that get other holes become parts of their own.

    Parameters
    ----------
    parts : tuple of Part
        An owner's parts.
    drills : list of Drill
        The holes; one that is there already is not made twice.

    Returns
    -------
    (tuple of Part, tuple of int)
        The parts with their holes, and of each which of the given ones it is.
    """
    by_piece: dict[tuple[int, int], list[Drill]] = {}
    for d in drills:
        rows = by_piece.setdefault(d.piece, [])
        if all(d.face != r.face or math.dist((d.x, d.y), (r.x, r.y)) > CLOSE for r in rows):
            rows.append(d)
    made: list[Part] = []
    of: list[int] = []
    for n, part in enumerate(parts):
        if isinstance(part, Hardware) or not part.stands:
            made.append(part)
            of.append(n)
            continue
        groups: dict[tuple[object, ...], list[int]] = {}
        for m in range(len(part.stands)):
            holes = _holes(part, by_piece.get((n, m), []))
            groups.setdefault(holes, []).append(m)
        spare = part.count - len(part.stands)
        for number, (holes, which) in enumerate(groups.items()):
            name = (
                part.name
                if len(groups) == 1
                else f"{part.name} {chr(65 + number % 26)}{number // 26 or ''}"
            )
            made.append(
                msgspec.structs.replace(
                    part, name=name, count=len(which) + (spare if number == 0 else 0),
                    stands=tuple(part.stands[m] for m in which), drilled=holes,
                )
            )  # fmt: skip
            of.append(n)
    return tuple(made), tuple(of)


def _holes(part: SheetPart | BarPart, rows: list[Drill]) -> tuple[object, ...]:
    """A piece's holes in an order that does not depend on how they were found, to the hundredth. [mm]"""
    if isinstance(part, BarPart):
        return tuple(sorted(
            BarHole(BAR_SIDES[r.face], round(r.x, 2), round(r.y, 2), r.diameter) for r in rows  # type: ignore[arg-type]
        ))  # fmt: skip
    found = sorted((r.face, round(r.x, 2), round(r.y, 2), r.diameter) for r in rows)
    return tuple((f, Hole(x, y, d)) for f, x, y, d in found)
