"""Mending what cannot open: the cheapest changes tried, those kept that leave fewer troubles."""

import functools
import math
from typing import Any

import msgspec

from roomy_hull.assembly.assemble import Assembly, assemble
from roomy_hull.assembly.study import Before, Context
from roomy_hull.assembly.things import Thing
from roomy_hull.core.errors import UserError
from roomy_hull.core.findings import Finding, Fix
from roomy_hull.core.refs import BODY, Ref
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import units as edits
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.model import Job, TogetherSet
from roomy_hull.kinds.placed import Placed
from roomy_hull.kinds.registry import kind_of
from roomy_hull.studies.fit.judge import along_the_wall
from roomy_hull.studies.fit.plans import plan
from roomy_hull.studies.fit.together import KEY, Togetherness, study

MOST_STEPS = 12
"""How many rail pitches a unit is tried to be moved either way."""


class Change(msgspec.Struct, frozen=True):
    """A change that could mend a set: how dear it is in the workshop, and the fix."""

    price: float
    fix: Fix


def fixes(context: Context, finding: Finding) -> tuple[Fix, ...]:
    """Find the cheapest changes by which a set would hold, or by which something could open.

    Args:
        context: The job as it was judged, with all meetings.
        finding: Any finding; those of other studies have no fixes here.
    Returns:
        At most three that were tried and hold, the cheapest first: a bracket of the other hand or a mirrored lid,
        then a move up or down, a hinge moved, a move along rail or wall, then the other side.
    """
    if finding.code not in ("move.set", "move.blocked", "move.near"):
        return ()
    assembly = context.assembly
    found = context.of(KEY)
    wanted = next((s for s in assembly.job.sets if Ref("set", s.id) in finding.subjects), None)
    if wanted is None and finding.code == "move.set":
        return ()
    bad = _badness(assembly.job, assembly, found, wanted)
    good: list[Change] = []
    for change in sorted(_changes(assembly, finding), key=lambda c: c.price):
        try:
            job = applied(assembly.job, change.fix)
        except UserError:
            continue
        if job is assembly.job:
            continue
        there = assemble(job, assembly)
        known = Before(assembly, {KEY: found})
        again = study(Context(there, {}, known))
        if _mended(finding, wanted, there, again, bad):
            good.append(change)
            if len(good) == 3:
                break
    return tuple(c.fix for c in good)


def applied(job: Job, fix: Fix) -> Job:
    """Apply a fix to a job.

    Args:
        fix: On a unit, a carried thing, or the body by the paths of its sizes.
    Raises:
        UserError: A value is not allowed there.
    """
    if fix.subject != BODY:
        return edits.changed(job, fix.subject.id, **fix.changes)
    return functools.reduce(lambda j, item: resized(j, item[0], item[1]), fix.changes.items(), job)


def _badness(job: Job, assembly: Assembly, found: Togetherness, wanted: TogetherSet | None) -> int:
    """Count what is wrong: clashes with what stays, clashes at rest, and sets that do not hold."""
    clashes = sum(m.clashes for rows in found.still.values() for _n, m in rows)
    broken = sum(not plan(found, s.members).holds for s in job.sets if s is not wanted)
    overlaps = sum(
        a.envelope.common(b.envelope) is not None
        for i, a in enumerate(assembly.things) for b in assembly.things[i + 1 :]
    )  # fmt: skip
    outside = sum(
        t.place is not None and t.envelope.common(t.place.frame.box(t.place.size)) != t.envelope
        for t in assembly.things
    )
    return clashes + broken + overlaps + outside


def _mended(
    finding: Finding, wanted: TogetherSet | None, there: Assembly, again: Togetherness, bad: int
) -> bool:
    """Say whether a change mends the finding and makes nothing else worse."""
    now = next((s for s in there.job.sets if wanted is not None and s.id == wanted.id), None)
    if now is not None and not plan(again, now.members).holds:
        return False
    if wanted is None:
        # The last of them are what it meets, a place for each; the one before is what opens.
        met = finding.subjects[-len(finding.where) :]
        x = finding.subjects[-len(finding.where) - 1].word
        still = [(n, m) for n, m in again.still.get(x, ()) if n in met]
        if any(m.clashes for _n, m in still) or (still and finding.code == "move.near"):
            return False
        words = {ref.word for ref in met}
        refused = ("never", "near") if finding.code == "move.near" else ("never",)
        if any(
            again.relation(x, o.id) in refused
            for o in again.openings
            if o.id != x and not words.isdisjoint((o.id, o.owner))
        ):
            return False
    return _badness(there.job, there, again, wanted) <= bad


def _changes(assembly: Assembly, finding: Finding) -> list[Change]:
    """List the changes worth trying on what a finding concerns."""
    found: list[Change] = []
    for key in finding.subjects:
        thing = assembly.thing(key)
        if thing is None:
            opening = assembly.opening(key.id) if key.kind == "opening" else None
            if opening is not None and opening.kind == "door":
                found += _hinges(assembly.job, key.id)
            continue
        value = thing.value
        if isinstance(value, Carried):
            found += _carried_changes(value)
            continue
        found += [
            Change(remedy.price, Fix(remedy.words, value.ref, remedy.changes))
            for remedy in kind_of(value).remedies(value)
        ]
        found += _up_or_down(thing, value, finding, assembly.shop.rules.moving_gap)
        step = (
            thing.place.bay.pitch if thing.place is not None and thing.place.bay.pitch > 0 else 25.0
        )
        for n in range(-MOST_STEPS, MOST_STEPS + 1):
            if n:
                found.append(Change(3.0 + abs(n) * step / 100, along_the_wall(thing, n * step)))
    return found


def _up_or_down(thing: Thing, unit: Placed, finding: Finding, gap: float) -> list[Change]:
    """Moves down and up by as much as it meets something, and by the wanted gap more. [mm]"""
    if finding.code != "move.blocked" or not finding.measured:
        return []
    found = []
    for by in (math.ceil(finding.measured + gap), math.ceil(finding.measured)):
        for way, words in ((-1, "down"), (1, "up")):
            w = unit.w + way * by
            if w >= 0:
                found.append(
                    Change(2.5, Fix(f"Move {thing.name} {by} mm {words}", unit.ref, {"w": w}))
                )
    return found


def _carried_changes(item: Carried) -> list[Change]:
    """List the changes worth trying on a carried thing."""
    found: list[Change] = []
    if item.kind in ("awning", "shower tent") or item.turn:
        hand = "right" if item.hand == "left" else "left"
        found.append(
            Change(1.0, Fix(f"Take the {hand}-handed {item.name}", item.ref, {"hand": hand}))
        )
    if item.kind in ("spare wheel", "jerry") and not item.turn:
        for hand in ("left", "right"):
            words = f"Hang {item.name} on a carrier that swings to the {hand}"
            found.append(
                Change(4.0, Fix(words, item.ref, {"turn": 110.0, "hand": hand, "reach": 150.0}))
            )
    if item.kind == "tent":
        for side in ("left", "right", "rear"):
            if side != item.side:
                found.append(
                    Change(
                        1.5, Fix(f"Let {item.name} open to the {side}", item.ref, {"side": side})
                    )
                )
    axis = "x" if item.side != "rear" else "y"
    for n in range(-MOST_STEPS, MOST_STEPS + 1):
        if n:
            way = (
                ("aft" if n > 0 else "forward")
                if axis == "x"
                else ("to the right" if n > 0 else "to the left")
            )
            changes: dict[str, Any] = {axis: getattr(item, axis) + n * 50.0}
            found.append(
                Change(
                    3.0 + abs(n) / 2,
                    Fix(f"Move {item.name} {abs(n) * 50} mm {way}", item.ref, changes),
                )
            )
            if n > 0:
                up: dict[str, Any] = {"z": item.z + n * 20.0}
                found.append(
                    Change(2.5 + n / 4, Fix(f"Move {item.name} {n * 20} mm up", item.ref, up))
                )
    return found


def _hinges(job: Job, key: str) -> list[Change]:
    """List the other hinges of a canopy door."""
    door = next((d for d in job.body.doors() if d.id == key.split(":")[1]), None)
    if door is None or door.split:
        return []
    words = {
        "top": "along its top",
        "bottom": "along its lower edge",
        "start": "at its front edge",
        "end": "at its rear edge",
    }
    if door.side == "rear":
        words |= {"start": "at its left edge", "end": "at its right edge"}
    path = f"{job.body.path_of_door(door.id)}."
    found = []
    for hinge in ("top", "bottom", "start", "end"):
        if hinge != door.hinge:
            found.append(
                Change(
                    2.0,
                    Fix(f"Hinge door {door.id} {words[hinge]}", BODY, {path + "hinge": hinge}),
                )
            )
    for swing in (80.0, 65.0, 50.0):
        if swing < door.swing:
            found.append(
                Change(
                    1.8,
                    Fix(
                        f"Stop door {door.id} at {swing:.0f} degrees",
                        BODY,
                        {path + "swing": swing},
                    ),
                )
            )
    return found
