"""Improve: the moves and swaps that take most off the axle that is short, each one held against the fit."""

import functools
import itertools
from collections.abc import Callable

import msgspec

from roomy_hull.core.errors import GivenUp
from roomy_hull.core.units import System, show
from roomy_hull.job.canopy import Bay
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds.registry import Unit
from roomy_hull.studies.fit.free_space import free_space
from roomy_hull.studies.loads import board, ranking
from roomy_hull.verdict.verdict import Verdict, judge

LEAST = 0.5
"""What gains less is not worth a bolt. [kg]"""
TRIED = 60
"""So many of the most promising changes are judged at most."""


class Better(msgspec.Struct, frozen=True):
    """One change that would help.

    Attributes:
        words: What to do.
        gain: What the axle (or the heavier side) has less of it. [kg]
        job: The job with it done.
        looks: How many *look* findings more it would bring; below 0 where some would go.
    """

    words: str
    gain: float
    job: Job
    looks: int


class Short(msgspec.Struct, frozen=True):
    """What is short: a measure of the ranking, in which scenario, and in words."""

    measure: str
    scenario: str
    words: str


def short_of(verdict: Verdict) -> Short:
    """Say which axle is short: the one of the board's worst cell, else the rear axle.

    Returns: ``rear`` or ``front`` and the scenario that uses it most.
    """
    found = board.worst(verdict.loads, ("rear", "front"))
    if found is None:
        first = verdict.loads.scenarios[0]
        return Short("rear", first.id, f"rear axle in '{first.name}'")
    name = verdict.loads.scenario(found.scenario).name
    return Short(found.key, found.scenario, f"{found.key} axle, {found.use:.0%} used in '{name}'")


def better(
    verdict: Verdict, measure: str, scenario: str, system: System = "metric", most: int = 6,
    progress: Callable[[float], bool] = lambda _share: True,
) -> tuple[Better, ...]:  # fmt: skip
    """Find the changes that gain most.

    Args:
        measure: ``rear``, ``front`` or ``side``: what should become less.
        system: ``metric`` or ``us``, for the words.
        progress: Takes the share that is done; False gives the search up.
    Returns:
        The greatest gain first; none brings a *stop*. A unit is tried in every free place of every bay, and pairs
        of units in each other's.
    Raises:
        GivenUp: The search was given up.
    """
    one = next(
        (s for s in verdict.assembly.job.scenarios if s.id == scenario),
        verdict.assembly.job.scenarios[0],
    )
    parts = ranking.contributions(verdict.assembly, verdict.loads, one)
    rows = {c.owner.id: c for c in parts if c.owner.is_thing}
    total = sum(c.side for c in parts)
    tries = [*_moves(verdict, rows, measure, total, system), *_swaps(verdict, rows, measure, total)]
    tries.sort(key=lambda t: -t[0])
    known = {f.key for f in verdict.findings if f.severity == "stop"}
    looks = verdict.count("look")
    found: list[Better] = []
    done: set[str] = set()
    for n, (gain, key, words, make) in enumerate(tries[:TRIED]):
        if not progress(n / TRIED):
            raise GivenUp("the search was given up")
        if key in done:
            continue
        job = make()
        trial = judge(job, verdict)
        if any(f.key not in known for f in trial.findings if f.severity == "stop"):
            continue
        done.add(key)
        found.append(Better(words, gain, job, trial.count("look") - looks))
        if len(found) == most:
            break
    return tuple(found)


Try = tuple[float, str, str, Callable[[], Job]]


def _gain(changes: tuple[ranking.Change, ...], measure: str, total: float) -> float:
    """What some changes together take off the measure. [kg]"""
    if measure == "side":
        return abs(total) - abs(total + sum(c.side for c in changes))
    return -sum(c.rear if measure == "rear" else c.front for c in changes)


def _moves(
    verdict: Verdict,
    rows: dict[str, ranking.Contribution],
    measure: str,
    total: float,
    system: System,
) -> list[Try]:
    """List every unit's best free place in every bay, with its gain."""
    found: list[Try] = []
    assembly = verdict.assembly
    for thing in assembly.things:  # ruff: ignore[too-many-nested-blocks]  # every unit in every place of every bay
        value, one = thing.value, rows.get(thing.id)
        if isinstance(value, Carried) or one is None or thing.place is None:
            continue
        here = thing.envelope.centre()
        for place in assembly.ground.bays.values():
            space = free_space(assembly, thing, place, value.v)
            if space.room is None:
                continue
            step = place.bay.pitch or 5.0
            best: Try | None = None
            for u0, w0, u1, _w1 in space.cells():
                low, high = -(-u0 // step) * step, u1 // step * step
                for u in {low, high} if low <= high else set():
                    if place is thing.place and abs(u - value.u) < 1 and abs(w0 - value.w) < 1:
                        continue
                    there = place.frame.point(u + value.width / 2, value.v + value.depth / 2, w0)
                    by = ranking.if_moved(
                        verdict.loads, one, there[0] - here[0], there[1] - here[1]
                    )
                    gain = _gain((by,), measure, total)
                    if gain >= LEAST and (best is None or gain > best[0]):
                        job = functools.partial(
                            edits.changed, verdict.job, thing.id, bay=place.bay.id, u=u, w=w0
                        )
                        words = f"{thing.name}: to the {place.bay.name} bay"
                        if place is thing.place:
                            words = _words(value, u - value.u, w0 - value.w, place.bay, system)
                        best = (gain, thing.id, words, job)
            if best is not None:
                found.append(best)
    return found


def _words(unit: Unit, du: float, dw: float, bay: Bay, system: System) -> str:
    """Say where a unit goes within its bay."""
    ways = ("to the right", "to the left") if bay.side == "rear" else ("aft", "forward")
    moves = [(du, ways), (dw, ("up", "down"))]
    parts = [
        f"{show(abs(by), 'length', system)} {way[0] if by > 0 else way[1]}"
        for by, way in moves
        if abs(by) >= 1
    ]
    return f"{unit.name}: {' and '.join(parts)}"


def _swaps(
    verdict: Verdict, rows: dict[str, ranking.Contribution], measure: str, total: float
) -> list[Try]:
    """List pairs of units that fit each other's place by size, with their gain."""
    found: list[Try] = []
    units = [
        t for t in verdict.assembly.things
        if not isinstance(t.value, Carried) and t.id in rows and t.place is not None
    ]  # fmt: skip
    for a, b in itertools.combinations(units, 2):
        va, vb = a.value, b.value
        if isinstance(va, Carried) or isinstance(vb, Carried):
            continue
        # Not worth judging where the larger would need much more room than the other leaves.
        if max(abs(va.width - vb.width), abs(va.height - vb.height)) > 120:
            continue
        ca, cb = a.envelope.centre(), b.envelope.centre()
        gain = _gain(
            (
                ranking.if_moved(verdict.loads, rows[a.id], cb[0] - ca[0], cb[1] - ca[1]),
                ranking.if_moved(verdict.loads, rows[b.id], ca[0] - cb[0], ca[1] - cb[1]),
            ),
            measure,
            total,
        )
        if gain < LEAST:
            continue
        job = functools.partial(_exchanged, verdict.job, va, vb)
        found.append((gain, f"{a.id} {b.id}", f"{va.name} and {vb.name} change places", job))
    return found


def _exchanged(job: Job, a: Unit, b: Unit) -> Job:
    """Put two units in each other's place."""
    job = edits.changed(job, a.id, bay=b.bay, u=b.u, v=b.v, w=b.w)
    return edits.changed(job, b.id, bay=a.bay, u=a.u, v=a.v, w=a.w)
