"""Gaps with doubt: how likely each binds once it is built, and which measure is worth taking again."""

import math
from collections.abc import Mapping

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.study import Context, Study, StudyKey
from roomy_hull.assembly.things import Thing
from roomy_hull.core.findings import PRACTICE, Finding
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.parts import SheetPart
from roomy_hull.core.refs import CANOPY
from roomy_hull.core.stack import Chain, Link
from roomy_hull.kit.body import sides
from roomy_hull.making.gap import NEAR, TAPE, Gap, level, made_size, part_uncertainty
from roomy_hull.making.gaps_across import across, between_arches, over_arches

KEY, SIGMAS = StudyKey["tuple[Gap, ...]"]("gaps"), "measured"
SLIDE_PLAY = 2.0
"""The play of a pair of slides in its slotted holes (common practice). [mm]"""
AGAIN = 0.7
"""One sigma of a measure taken again with care (common practice). [mm]"""


class Worth(msgspec.Struct, frozen=True):
    """A measure worth taking again: its words, its doubt, and how many fewer gaps would bind."""

    measure: str
    words: str
    sigma: float
    saves: float


def gaps_of(assembly: Assembly, measured: Mapping[str, float] | None = None) -> tuple[Gap, ...]:
    """Every narrow gap of a job with its chain.

    Args:
        measured: One sigma of each size that the survey determines. [mm]
    Returns:
        Between neighbours, at a bay's ends, between and over wheel arches, in drawers and around doors; the
        likeliest to bind first.
    """
    known = measured or {}
    found = [
        *_in_bays(assembly, known), *across(assembly), *between_arches(assembly, known), *over_arches(assembly, known),
        *_in_drawers(assembly), *_doors(assembly),
    ]  # fmt: skip
    return tuple(sorted(found, key=lambda g: (-g.chain.chance, g.chain.nominal, g.title)))


def _in_bays(assembly: Assembly, known: Mapping[str, float]) -> list[Gap]:
    """Between things of a bay, and from them to its ends."""
    found: list[Gap] = []
    by_bay: dict[str, list[Thing]] = {}
    for thing in assembly.things:
        if thing.place is not None and not thing.trouble:
            by_bay.setdefault(thing.place.bay.id, []).append(thing)
    for things in by_bay.values():
        boxes = [t.in_bay for t in things]
        found += [g for n in range(len(things)) for g in _beside(assembly, n, things, boxes, known)]
    return found


def _beside(
    assembly: Assembly, number: int, things: list[Thing], boxes: list[Box], known: Mapping[str, float]
) -> list[Gap]:  # fmt: skip
    """What is next to a thing further along the wall or above it, or before the bay's end."""
    thing, own, shop = things[number], boxes[number], assembly.shop
    place = thing.place
    if place is None:
        return []
    found = []
    fixing = Link("where it is bolted", shop.tools.uncertainties.assembly)
    for axis in (0, 2):
        gaps = [
            (apart, n) for n, box in enumerate(boxes)
            if 0 <= (apart := box[axis] - own[axis + 3]) <= NEAR and n != number and level(own, box, axis)
        ]  # fmt: skip
        size = made_size(thing, axis, shop)
        if gaps:
            apart, n = min(gaps, key=lambda g: g[0])
            other, box = things[n], boxes[n]
            links = (size, fixing, Link(f"where {other.name} is bolted", fixing.sigma))
            if axis == 2 and apart < 0.05:
                continue  # one stands on the other
            title = f"{thing.name} to {other.name}"
            where = _between(place.frame.box, own, box, axis)
            found.append(Gap(title, (thing.ref, other.ref), Chain(apart, links), where))
            continue
        apart = place.size[axis + 3] - own[axis + 3]
        if 0 <= apart <= NEAR:
            links = (size, fixing, _end(assembly, place.bay.side, axis, known))
            end = "the bay's end" if axis == 0 else "the bay's top"
            found.append(Gap(f"{thing.name} to {end}", (thing.ref,), Chain(apart, links),
                             _between(place.frame.box, own, place.size, axis)))  # fmt: skip
    return found


def _between(frame, own: Box, other: Box, axis: int) -> Box:  # type: ignore[no-untyped-def]  # a bay's frame
    """The room between two boxes along an axis, in vehicle axes."""
    low, high = list(own[:3]), list(own[3:])
    low[axis] = own[axis + 3]
    high[axis] = max(
        other[axis] if other[axis] >= own[axis + 3] else other[axis + 3], low[axis] + 0.5
    )
    found: Box = frame(Box(*low, *high))
    return found


def _end(assembly: Assembly, side: str, axis: int, known: Mapping[str, float]) -> Link:
    """The doubt of a bay's own end: measured on the vehicle, or as the shop builds it."""
    canopy, shop = assembly.job.body.canopy, assembly.shop
    if canopy is None or canopy.kind == "canopy":
        d = shop.tools.uncertainties
        return Link(
            "the canopy's frame, sawn and welded",
            math.hypot(shop.tools.saw.uncertainty, d.weld, d.weld),
        )
    keys = {
        (0, "left"): ("left",), (0, "right"): ("right",), (0, "rear"): ("rear", "between", "front"),
    }.get((axis, side), ("wall_height", "clear_height"))  # fmt: skip
    key = next((k for k in keys if k in known), keys[0])
    words = {"left": "length on the left", "right": "length on the right", "rear": "width at the rear",
             "between": "width between the arches", "front": "width in front", "wall_height": "height of the wall",
             "clear_height": "clear height"}[key]  # fmt: skip
    return Link(f"the vehicle's {words}", known.get(key, TAPE), 1.0, key)


def _in_drawers(assembly: Assembly) -> list[Gap]:
    """The room for slides between each drawer's carcass and box, beside the play they have."""
    found = []
    for thing in assembly.things:
        parts = [p for p in thing.expansion.parts if isinstance(p, SheetPart)]
        boxes = [p for p in parts if p.name.endswith("drawer box")]
        outer = next((p for p in parts if p.name.endswith(": carcass")), None)
        if outer is None:
            continue
        shop = assembly.shop
        for box in boxes:
            links = (
                Link("carcass, across", part_uncertainty(outer, 0, shop)),
                Link("drawer box, across", part_uncertainty(box, 0, shop), -1.0),
                Link("slides, by their data sheet", 0.2, -math.sqrt(2.0)),
                Link("where they are bolted", shop.tools.uncertainties.assembly),
            )
            found.append(
                Gap(f"{box.name.split(':')[0]}: slides between carcass and box", (thing.ref,), Chain(SLIDE_PLAY, links),
                    thing.envelope)
            )  # fmt: skip
    return found


def _doors(assembly: Assembly) -> list[Gap]:
    """The gap around every made leaf of a canopy's doors."""
    shop = assembly.shop
    found = []
    for shell, place in (
        (s, d) for s in assembly.ground.shells if not s.own for d in sides.doors(s.value)
    ):
        for leaf in place.made:
            word = "Canopy" if shell.ref == CANOPY else shell.value.name
            part = next((p for p in assembly.ground.parts if isinstance(p, SheetPart) and p.role == "leaf"
                         and p.owner == shell.ref and p.name.startswith(f"{word}: door {place.door.id}")), None)  # fmt: skip
            if part is None:
                continue
            gap = min(leaf.rect[0] - place.rebate[0], place.rebate[2] - leaf.rect[2])
            links = (
                Link("leaf, across", part_uncertainty(part, 0, shop), -0.5),
                Link(
                    "rebate, cut and welded",
                    math.hypot(shop.tools.cutter.uncertainty, shop.tools.uncertainties.weld),
                    0.5,
                ),
                Link("where it is hung", shop.tools.uncertainties.assembly),
            )
            found.append(
                Gap(f"door {place.door.id} in its rebate", (shell.ref,), Chain(gap, links))
            )
    return found


def worth(gaps: tuple[Gap, ...]) -> tuple[Worth, ...]:
    """Which measures are worth taking again before anything is cut.

    Args:
        gaps: From `gaps_of`.
    Returns: By how many fewer gaps would bind, the most first; none that saves nothing.
    """
    found = []
    links = {x.measure: x for g in gaps for x in g.chain.links if x.measure}
    for measure, link in links.items():
        saves = sum(g.chain.chance - g.chain.improved(measure, AGAIN).chance for g in gaps)
        if saves > 1e-4:
            found.append(Worth(measure, link.name, link.sigma, saves))
    return tuple(sorted(found, key=lambda w: -w.saves))


def run(context: Context) -> tuple[Gap, ...]:
    """Find every narrow gap, with the doubts of the survey.

    Returns: From `gaps_of`.
    """
    was, now, old = context.rests_on(KEY), context.assembly, context.old(KEY)
    if (
        was is not None
        and context.old(SIGMAS) == context.results[SIGMAS]
        and (
            old is not None
            and was.ground is now.ground
            and was.shop is now.shop
            and was.things == now.things
        )
    ):
        kept: tuple[Gap, ...] = old
        return kept
    return gaps_of(context.assembly, context.results[SIGMAS])


def judge(context: Context) -> list[Finding]:
    """List gaps that are clear as drawn and likely to bind as built."""
    return [
        Finding("making.gap", "look", f"{g.title}: likely to bind as built, {g.words()}", g.refs, g.chain.nominal,
                2 * g.chain.sigma, "mm", f"{PRACTICE}, uncertainties of cutting, bending and putting together",
                () if g.where is None else (g.where,))
        for g in context.results[KEY]
        if g.likely
    ]  # fmt: skip


STUDY = Study(
    KEY, run, (SIGMAS,), judge=judge, codes=("making.gap",), settles=True, idle=lambda _case: ()
)
"""Gaps with doubt."""
