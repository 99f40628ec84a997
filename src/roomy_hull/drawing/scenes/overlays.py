"""What lies over the drawing: free places, live gaps, findings, numbers of the order of fitting."""

import math

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.things import Thing
from roomy_hull.core.findings import Finding
from roomy_hull.core.geometry.regions import union
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.primitives import Disc, Scene, Size, Stroke, Words, line, rectangle
from roomy_hull.drawing.view import View
from roomy_hull.job.carried import Carried
from roomy_hull.studies.fit.free_space import FreeSpace
from roomy_hull.studies.fit.in_out import InOut


def free_places(space: FreeSpace, thing: Thing, assembly: Assembly, view: View) -> Scene:
    """Draw where a unit may stand: the area that it could cover, and where not at all.

    Args:
        space: Its free places in one bay. [mm]
        view: The elevation in which the bay is seen from its access face.
    Returns: The area that the unit can cover, free places widened by its size, with its edge. [mm]
    """
    place = assembly.ground.bays[space.bay]
    e = thing.expansion.envelope
    covered = [
        view.rect(place.frame.box(Box(u0 + e.x0, 0, w0 + e.z0, u1 + e.x1, 1, w1 + e.z1)))
        for u0, w0, u1, w1 in space.cells()
    ]
    areas, edges = union(covered)
    found: list[Stroke] = [rectangle("free", *area) for area in areas]
    found += [line("free edge", *edge) for edge in edges]
    if not found:
        rect = view.rect(place.frame.box(place.size))
        found.append(rectangle("not free", *rect))
        words = shortfall(space)
        at = ((rect[0] + rect[2]) / 2, rect[3] - 90)
        found.append(Words("not free words", at, words, 11))
    return tuple(found)


def shortfall(space: FreeSpace) -> str:
    """Say by how much a unit is too large for a bay, and in which direction."""
    names = ("along the wall", "deep", "high")
    over = [f"{s:.0f} mm too {n}" if n != "along the wall" else f"{s:.0f} mm too long {n}"
            for s, n in zip(space.short, names, strict=True) if s > 0.05]  # fmt: skip
    return ", ".join(over) if over else "no room left at this depth"


def gaps(assembly: Assembly, thing: Thing, view: View) -> Scene:  # ruff: ignore[too-many-locals]  # the sizes on six sides of one box
    """Draw the gaps from a unit to its neighbours and bay walls, as sizes with arrows.

    Returns: A size to the left, right, below and above, where there is a gap. [mm]
    """
    place, unit = thing.place, thing.value
    if place is None or isinstance(unit, Carried):
        return ()
    h0, k0, h1, k1 = view.rect(thing.envelope)
    b0, c0, b1, c1 = view.rect(place.frame.box(place.size))
    left, right, low, high = b0, b1, c0, c1
    for other in assembly.things:
        if other.place is None or other.place.bay.id != place.bay.id or other.id == unit.id:
            continue
        o0, p0, o1, p1 = view.rect(other.envelope)
        if p0 < k1 - 1 and p1 > k0 + 1:
            left = max(left, o1) if o1 <= h0 + 0.05 else left
            right = min(right, o0) if o0 >= h1 - 0.05 else right
        if o0 < h1 - 1 and o1 > h0 + 1:
            low = max(low, p1) if p1 <= k0 + 0.05 else low
            high = min(high, p0) if p0 >= k1 - 0.05 else high
    mid_h, mid_k = (h0 + h1) / 2, (k0 + k1) / 2
    found: list[Stroke] = []
    for a, b in (
        ((left, mid_k), (h0, mid_k)), ((h1, mid_k), (right, mid_k)),
        ((mid_h, low), (mid_h, k0)), ((mid_h, k1), (mid_h, high)),
    ):  # fmt: skip
        if math.dist(a, b) > 0.5:
            found.append(Size("gap", a, b))
    return tuple(found)


def order_badges(assembly: Assembly, found: InOut, view: View, station: str) -> Scene:
    """Draw a number on each unit of a side: the order in which they go in.

    Args:
        found: What has to come out before what.
    Returns: A disc with a number on each unit; none in a bay where units block each other in a circle. [mm]
    """
    primitives: list[Stroke] = []
    for bay, order in found.order.items():
        if assembly.ground.bays[bay].bay.side != station:
            continue
        for n, key in enumerate(order, 1):
            thing = assembly.thing(key)
            if thing is not None:
                h0, k0, h1, k1 = view.rect(thing.envelope)
                at = ((h0 + h1) / 2, (k0 + k1) / 2)
                primitives += [
                    Disc("badge", at, 42, key),
                    Words("badge words", at, str(n), 12, tag=key),
                ]
    return tuple(primitives)


def marks(findings: tuple[Finding, ...], view: View) -> Scene:
    """Draw where findings are, by severity. [mm]"""
    found: list[Stroke] = []
    for finding in findings:
        for box in finding.where:
            h0, k0, h1, k1 = view.rect(box)
            found.append(rectangle(f"mark {finding.severity}", h0 - 4, k0 - 4, h1 + 4, k1 + 4, 6))
    return tuple(found)
