"""Moves: the fewest actions from all shut to a thing in the hand, and how far one walks for them."""

from __future__ import annotations

from collections import deque
from collections.abc import Mapping
from typing import Any, Literal, NamedTuple, Protocol

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.studies.access.spaces import Meetings, Space, outward

MOST = 12
"""More openings than this have to do with no one thing; beyond, those that it needs are opened in their order."""
ASIDE = 500.0
"""One walks so far beside the vehicle (common practice). [mm]"""


class Blocking(Protocol):
    """What has to come out before what; see `studies.fit.in_out.InOut`."""

    def before(self, key: str) -> tuple[str, ...]:
        """Everything that has to come out before a unit, the first one first."""


class Action(NamedTuple):
    """One thing done with the hands."""

    do: Literal["open", "close", "unlock", "lift aside", "climb"]
    what: str


class Moves(msgspec.Struct, frozen=True):
    """How one gets at a space.

    Attributes:
        actions: In their order; empty where it is at hand.
        possible: Whether there is a way at all.
        metres: Walked from the driver's door. [m]
    """

    actions: tuple[Action, ...]
    possible: bool
    metres: float

    @property
    def count(self) -> int:
        """How many actions."""
        return len(self.actions)

    @property
    def said(self) -> str:
        """How many actions, in words."""
        if not self.possible:
            return "no way"
        return "1 action" if self.count == 1 else f"{self.count} actions"

    @property
    def lifted(self) -> int:
        """How many things are lifted aside."""
        return sum(a.do == "lift aside" for a in self.actions)


class Opener:
    """What has to be opened for what, and what has to do with what, looked up once.

    Args:
        found: What meets what on its way.
    """

    def __init__(self, found: Meetings) -> None:
        self._found = found
        self._known = {o.id for o in found.openings}
        self._shut, self._opened = _clashing(found.shut), _clashing(found.opened)
        self._opens: dict[frozenset[str], tuple[Action, ...] | None] = {}

    def fewest(self, goal: frozenset[str]) -> tuple[Action, ...] | None:
        """The fewest openings and closings after which some openings stand open.

        Returns: By breadth-first search over what has to do with it; nothing where there is no way.
        """
        if goal not in self._opens:
            self._opens[goal] = self._searched(goal)
        return self._opens[goal]

    def _searched(self, goal: frozenset[str]) -> tuple[Action, ...] | None:
        if not goal <= self._known:
            return None
        relevant = self._relevant(goal)
        if len(relevant) > MOST:
            return _straight(self._found, goal)
        before: dict[frozenset[str], tuple[frozenset[str], Action] | None] = {frozenset(): None}
        queue: deque[frozenset[str]] = deque([frozenset()])
        while queue:
            state = queue.popleft()
            if goal <= state:
                chain: list[Action] = []
                step = before[state]
                while step is not None:
                    state, action = step
                    chain.append(action)
                    step = before[state]
                return tuple(reversed(chain))
            for one in relevant:
                new = state ^ {one}
                if new not in before and self._free(one, state):
                    before[new] = (state, Action("close" if one in state else "open", one))
                    queue.append(new)
        return None

    def _relevant(self, goal: frozenset[str]) -> list[str]:
        """What has to do with some openings: what they need, what they meet shut, and what these meet."""
        seen: list[str] = []
        left = deque(sorted(goal))
        while left:
            one = left.popleft()
            if one not in seen:
                seen.append(one)
                left += sorted(self._found.needs.get(one, frozenset()))
                left += self._shut.get(one, ())
        return seen

    def _free(self, one: str, state: frozenset[str]) -> bool:
        """Whether an opening can be moved as things stand; what stays of things is lifted aside and counted elsewhere."""
        if any(other in state for other in self._opened.get(one, ())):
            return False
        if any(other not in state for other in self._shut.get(one, ())):
            return False
        return all(
            what.is_thing or not meeting.clashes for what, meeting in self._found.still.get(one, ())
        )


class Ways:
    """How one gets at the spaces of a job.

    Args:
        found: What meets what on its way.
        blocked: What has to come out before what.
    """

    def __init__(self, assembly: Assembly, found: Meetings, blocked: Blocking) -> None:
        self._assembly, self._found, self._blocked = assembly, found, blocked
        self._opener = Opener(found)
        self._stations = stations(assembly)

    def to(self, space: Space) -> Moves:
        """The fewest actions to a space.

        Returns: Unlocking, opening, lifting aside, climbing; possible or not; how far one walks.
        """
        opens = self._opener.fewest(space.needs)
        if opens is None:
            return Moves((), False, 0.0)
        aside: list[str] = []
        for action in opens:
            for what, meeting in self._found.still.get(action.what, ()):
                if (
                    meeting.clashes
                    and what.is_thing
                    and what.id != space.owner
                    and what.id not in aside
                ):
                    aside.append(what.id)
        for one in space.first:
            for key in (*self._blocked.before(one), one):
                if key not in aside and key != space.owner:
                    aside.append(key)
        thing = self._assembly.thing(space.owner)
        locked = thing is not None and thing.capabilities.locks > 0
        actions = [Action("climb", space.owner)] if space.roof else []
        actions += opens[:-1] if locked and opens else opens
        if locked:
            actions += [Action("unlock", space.owner), *opens[-1:]]
        actions += [Action("lift aside", key) for key in aside]
        sides = [_side(self._assembly, a.what, space.side) for a in actions] + [space.side]
        return Moves(tuple(actions), True, walk(self._stations, sides))


def _clashing(rows: Mapping[tuple[str, str], Any]) -> dict[str, list[str]]:
    """Which others each opening clashes with, in the order of the meetings."""
    found: dict[str, list[str]] = {}
    for (one, other), meeting in rows.items():
        if meeting.clashes and one != other:
            found.setdefault(one, []).append(other)
    return found


def _straight(found: Meetings, goal: frozenset[str]) -> tuple[Action, ...] | None:
    """What is needed, opened in the order of the needs, where there is too much for a search."""
    order: list[str] = []

    def visit(one: str, way: tuple[str, ...]) -> bool:
        if one in way:
            return False
        for other in sorted(found.needs.get(one, frozenset())):
            if other not in order and not visit(other, (*way, one)):
                return False
        if one not in order:
            order.append(one)
        return True

    return (
        tuple(Action("open", k) for k in order) if all(visit(k, ()) for k in sorted(goal)) else None
    )


def _side(assembly: Assembly, key: str, usual: str) -> str:
    """Where one stands to do something."""
    opening = assembly.opening(key)
    if opening is not None:
        return opening.side
    thing = assembly.thing(key)
    return thing.place.bay.side if thing is not None and thing.place is not None else usual


def stations(assembly: Assembly) -> tuple[dict[str, float], float]:
    """Where one stands on a walk round the vehicle, and how long that is.

    Returns:
        How far along, from the front left corner over left, rear and right, the middles of the sides are and the
        driver's door, and all the way round. [mm]
    """
    v = assembly.job.vehicle
    boxes = [
        assembly.ground.cab,
        assembly.ground.floor,
        *([assembly.ground.canopy] if assembly.ground.canopy else []),
    ]
    x0, x1 = -v.shape.front - ASIDE, max(b.x1 for b in boxes) + ASIDE
    half = max(max(abs(b.y0), abs(b.y1)) for b in boxes) + ASIDE
    long, wide = x1 - x0, 2 * half
    middle = (assembly.ground.floor.x0 + assembly.ground.floor.x1) / 2
    door = v.seats[0].x if v.seats else v.cab_back / 2
    side = {
        "left": middle - x0,
        "rear": long + wide / 2,
        "right": long + wide + (x1 - middle),
        "front": 2 * long + wide * 1.5,
    }
    side["driver"] = door - x0 if v.drive == "left" else long + wide + (x1 - door)
    return side, 2 * (long + wide)


def walked(assembly: Assembly, sides: list[str]) -> float:
    """How far one walks from the driver's door to some sides in turn. [m]"""
    return walk(stations(assembly), sides)


def walk(places: tuple[dict[str, float], float], sides: list[str]) -> float:
    """How far one walks from the driver's door to some sides in turn, by their places from `stations`. [m]"""
    at, round_ = places
    here, total = at["driver"], 0.0
    for side in sides:
        there = at.get(side, at["rear"])
        way = abs(there - here)
        total += min(way, round_ - way)
        here = there
    return total / 1000.0


def reach_from(side: str) -> tuple[int, int]:
    """The axis that leads out of a side and its sign; from above and below one stands at the left."""
    return outward(side if side in ("left", "right", "rear", "front") else "left")


def words(assembly: Assembly, action: Action) -> str:
    """An action in words."""
    opening = assembly.opening(action.what)
    thing = assembly.thing(action.what)
    name = opening.name if opening is not None else thing.name if thing is not None else action.what
    return f"{action.do.capitalize()} {'to ' if action.do == 'climb' else ''}{name}"
