"""Gaps across the vehicle: between things of different bays, between wheel arches and over them."""

from collections.abc import Mapping

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.near import Boxes
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.stack import Chain, Link
from roomy_hull.making.gap import NEAR, TAPE, Gap, level, made_size


def across(assembly: Assembly) -> list[Gap]:
    """Between things of different bays, along the vehicle and across it."""
    shop = assembly.shop
    things = _placed(assembly)
    boxes = Boxes([t.envelope for t in things])
    fix = shop.tools.uncertainties.assembly
    found = []
    for n, one in enumerate(things):
        for m in boxes.near(one.envelope, NEAR):
            other = things[m]
            if m <= n or _bay(one) == _bay(other):
                continue
            for axis in (0, 1):
                low, high = sorted((one, other), key=lambda t: t.envelope[axis])
                apart = high.envelope[axis] - low.envelope[axis + 3]
                if 0 <= apart <= NEAR and level(low.envelope, high.envelope, axis):
                    links = (
                        made_size(low, _own(low, axis), shop), made_size(high, _own(high, axis), shop),
                        Link(f"where {low.name} is bolted", fix), Link(f"where {high.name} is bolted", fix),
                    )  # fmt: skip
                    title = f"{low.name} to {high.name}"
                    where = _room(low.envelope, high.envelope, axis)
                    found.append(Gap(title, (low.ref, high.ref), Chain(apart, links), where))
    return found


def between_arches(assembly: Assembly, known: Mapping[str, float]) -> list[Gap]:
    """What stands in a row between two wheel arches, and what room it leaves in all.

    Args:
        known: One sigma of each size that the survey determines. [mm]
    Returns: The width between the arches less every width in the row: it goes in or it does not, wherever it is bolted.
    """
    things = _placed(assembly)
    arches = [p for p in assembly.ground.tray if p.role == "arch"]
    found: dict[tuple[str, ...], Gap] = {}
    pairs = [
        (a, b)
        for a in arches
        for b in arches
        if (a.side, b.side) == ("left", "right") and a.id == b.id
    ]
    for left, right in pairs:
        for first in things:
            row = _row(left.box, right.box, first, things)
            if not row:
                continue
            room = right.box[1] - left.box[4] - sum(t.envelope[4] - t.envelope[1] for t in row)
            links = (
                *(made_size(t, _own(t, 1), assembly.shop) for t in row),
                _of_arches(assembly, known, "between", "width between the arches"),
            )
            names = ", ".join(t.name for t in row[:-1])
            title = f"{names}{' and ' if names else ''}{row[-1].name} between the arches"
            where = _room(row[-1].envelope, right.box, 1)
            key = tuple(t.value.id for t in row)
            found[key] = Gap(title, tuple(t.ref for t in row), Chain(room, links), where)
    return list(found.values())


def over_arches(assembly: Assembly, known: Mapping[str, float]) -> list[Gap]:
    """What is held above a wheel arch without standing on it.

    Args:
        known: One sigma of each size that the survey determines. [mm]
    """
    fix = Link("where it is bolted", assembly.shop.tools.uncertainties.assembly)
    found = []
    for arch in (p for p in assembly.ground.tray if p.role == "arch"):
        for t in _placed(assembly):
            apart = t.envelope[2] - arch.box[5]
            if 0.05 < apart <= NEAR and level(arch.box, t.envelope, 2):
                links = (fix, _of_arches(assembly, known, "arch_height", "height of the arches"))
                found.append(Gap(f"{t.name} over {arch.words}", (t.ref,), Chain(apart, links),
                                 _room(arch.box, t.envelope, 2)))  # fmt: skip
    return found


def _row(left: Box, right: Box, first: Thing, things: list[Thing]) -> list[Thing]:
    """From one arch to the other, a thing and whatever stands next to it; none where that does not get there."""

    def next_to(a: Box, b: Box) -> bool:
        return 0 <= b[1] - a[4] <= NEAR and level(a, b, 1)

    row: list[Thing] = []
    at, following = left, [first]
    while not row or not next_to(at, right):
        ahead = [t for t in following if next_to(at, t.envelope)]
        if not ahead:
            return []
        row.append(min(ahead, key=lambda t: t.envelope[1]))
        at, following = row[-1].envelope, things
    return row


def _placed(assembly: Assembly) -> list[Thing]:
    return [t for t in assembly.things if t.place is not None and not t.trouble]


def _bay(thing: Thing) -> str:
    return thing.place.bay.id if thing.place is not None else ""


def _own(thing: Thing, axis: int) -> int:
    """Which of a thing's own directions lies along the vehicle's x or y."""
    rear = thing.place is not None and thing.place.bay.side == "rear"
    return 1 - axis if rear else axis


def _room(low: Box, high: Box, axis: int) -> Box:
    """What lies between two boxes."""
    a = [max(low[n], high[n]) for n in range(3)]
    b = [min(low[n + 3], high[n + 3]) for n in range(3)]
    a[axis], b[axis] = low[axis + 3], max(high[axis], low[axis + 3] + 0.5)
    return Box(*a, *b)


def _of_arches(assembly: Assembly, known: Mapping[str, float], key: str, words: str) -> Link:
    """A size of the vehicle's arches as measured; a tray's own are built by the shop."""
    canopy = assembly.job.body.canopy
    if canopy is None or canopy.kind == "canopy":
        uncertainties = assembly.shop.tools.uncertainties
        return Link(f"the tray's {words}", uncertainties.weld + uncertainties.bend)
    return Link(f"the vehicle's {words}", known.get(key, TAPE), 1.0, key)
