"""Reasons: why a thing is where it is, by what the best layout with it elsewhere would lose."""

import time
from collections.abc import Callable

import msgspec

from roomy_hull.arrange.gather import Gathered, gather
from roomy_hull.arrange.instance import PARTS, Instance
from roomy_hull.arrange.judging import Rules, rule_watch
from roomy_hull.arrange.layouts import as_it_stands
from roomy_hull.arrange.objective import value
from roomy_hull.arrange.search import Progress, Search
from roomy_hull.core.errors import InputError
from roomy_hull.job.arranging import Arranging
from roomy_hull.verdict.verdict import Verdict

LONGEST = 6.0
"""So long it is looked elsewhere at most. [s]"""
UNITS: dict[str, str] = {
    "axle": "kg {word} on the {axle} axle", "balance": "kg {word} between the sides", "low": "kg·m {word} of height",
    "reach": "{word} out of reach (100 mm by use)", "runs": "m {word} of cable and hose, by weight",
    "room": "mm {word} of free wall",
}  # fmt: skip


class Reason(msgspec.Struct, frozen=True):
    """Why a thing is where it is.

    Attributes:
        thing: Its id.
        words: In words.
        loses: What the best layout found with it elsewhere is dearer; none where there is none. [points]
        sure: Whether nothing in strips with it elsewhere loses less.
        parts: How the parts differ, in their own units.
    """

    thing: str
    words: str
    loses: float | None
    sure: bool
    parts: dict[str, float]


def why_here(
    verdict: Verdict,
    wish: Arranging,
    thing: str,
    pitch: float = 50.0,
    alive: Callable[[], bool] = lambda: True,
) -> Reason:
    """Say why a thing is where it is.

    Args:
        verdict: The job with the layout that is asked about.
        wish: What was wanted; what it wants besides the layout is left out.
        pitch: About how wide a cell is. [mm]
    Returns: What would be lost with the thing in another bay, or, where it may be in no other, away from where it is.
    Raises:
        InputError: There is no such unit, or it is pinned.
    """
    wish = msgspec.structs.replace(wish, wanted=())
    if thing in wish.pinned:
        raise InputError(
            "it is pinned where it is", thing, "Unpin it to see what else there would be."
        )
    of = gather(verdict, wish, pitch)
    ids = [u.id for u in of.units]
    if thing not in ids:
        raise InputError(
            f"there is no unit '{thing}' in the layout", "arrange", "Choose a unit that is placed."
        )
    n = ids.index(thing)
    here = as_it_stands(of, verdict.job)
    if here is None:
        raise InputError("not everything is in its bay", "arrange", "Arrange it first.")
    bays = {b.id: k for k, b in enumerate(of.instance.bays)}
    bay = bays[of.units[n].bay]
    other = _elsewhere(of.instance, n, bay)
    name, there = of.units[n].name, "in another bay"
    if other is None:
        other, there = of.instance, "elsewhere in its bay"
    until = time.monotonic() + LONGEST

    def going(_p: Progress) -> bool:
        return alive() and time.monotonic() < until

    nowhere = [] if there == "in another bay" else _here(of, n, bay)
    watch, _ = rule_watch(of.instance, Rules())
    found = Search(other, 4, going).run(watch, nowhere=nowhere)
    if not found.layouts:
        words = (
            f"{name}: there is no layout with it {there}."
            if not found.fits
            else f"{name}: nothing was found with it {there}."
        )
        return Reason(thing, words, None, not found.fits and found.complete, {})
    best = value(other, found.layouts[0][1])
    loses = best.points - here.points
    parts = {k: getattr(best, k) - getattr(here, k) for k in PARTS}
    return Reason(
        thing,
        _worded(name, there, loses, found.bound - here.points, parts, of),
        loses,
        found.proved,
        parts,
    )


def _elsewhere(instance: Instance, n: int, bay: int) -> Instance | None:
    """The instance without a unit in a bay; none where it may be in no other."""
    items = list(instance.items)
    for i, item in enumerate(items):
        if instance.unit(i) == n:
            spots = tuple(None if b == bay else s for b, s in enumerate(item.spots))
            items[i] = msgspec.structs.replace(item, spots=spots)
    if not any(items[n].spots):
        return None
    return msgspec.structs.replace(instance, items=tuple(items))


def _here(of: Gathered, n: int, bay: int) -> list[tuple[int, int, int, int]]:
    """Every place of a unit that shares room with where it is now."""
    instance, unit = of.instance, of.units[n]
    found = []
    for i, item in enumerate(instance.items):
        if instance.unit(i) == n and item.spots[bay] is not None:
            for cell in range(instance.bays[bay].cells):
                u = instance.u(i, bay, cell)
                if u < unit.u + unit.width and unit.u < u + item.width:
                    low = max(0, int(unit.w - item.height) + 1)
                    found += [(i, bay, cell, w) for w in range(low, int(unit.w + unit.height))]
    return found


def _part(part: str, by: float, axle: str) -> str:
    """Say how one part differs."""
    return f"{abs(by):.1f} {UNITS[part].format(word='more' if by > 0 else 'less', axle=axle)}"


def _worded(
    name: str, there: str, loses: float, least: float, parts: dict[str, float], of: Gathered
) -> str:
    """Say what is lost, the parts that weigh most first."""
    points = of.instance.weights.points()
    rows = sorted(PARTS, key=lambda k: -abs(points[k] * parts[k]))
    said = [_part(k, parts[k], of.measure) for k in rows[:3] if abs(points[k] * parts[k]) >= 0.05]
    detail = f": {', '.join(said)}" if said else ""
    if loses < -0.05:
        return f"{name}: {there} the layout would be {-loses:.1f} points better{detail}. Arrange it anew."
    if loses < 0.05:
        return f"{name}: {there} it would do as well{detail}."
    sure = "" if least > loses - 0.05 else f" (at least {max(0.0, least):.1f})"
    return f"{name}: {there} the best layout would lose {loses:.1f} points{sure}{detail}."
