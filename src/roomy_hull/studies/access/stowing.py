"""Stowing: where each good is, in how many moves it is in the hand, whether it goes in, and what it lies with."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.job.goods import CAB, Good
from roomy_hull.studies.access.moves import Moves
from roomy_hull.studies.access.spaces import Space

FILLED = 0.7
"""What of a compartment is filled when it is full of odd things (common practice)."""
MOST_ACTIONS: dict[str, int] = {"now": 1, "each stop": 2, "each camp": 4}
"""How many actions each class may take (common practice)."""
HEAVY = 10.0
"""What weighs more than this is not lifted over the head (common practice). [kg]"""
OVER_HEAD = 1530.0
"""The head of a short person. [mm]"""


class Stowed(msgspec.Struct, frozen=True):
    """One good in its place.

    Attributes:
        good: Its id.
        space: Which of the spaces; -1 where it is in none.
        moves: The fewest moves to it; nothing in the cab or where it is not stowed.
        where: ``space``, ``cab``, ``nowhere``, or ``lost`` where its place does not exist.
    """

    good: str
    space: int
    moves: Moves | None
    where: str

    def over(self, use: str) -> bool:
        """Whether it takes more than its class allows."""
        most = MOST_ACTIONS.get(use)
        if most is None or self.moves is None:
            return False
        if not self.moves.possible or self.moves.count > most:
            return True
        return use == "now" and (
            self.moves.lifted > 0 or any(a.do == "unlock" for a in self.moves.actions)
        )


class Filled(NamedTuple):
    """How full a space is: what its goods take and what it holds; nought where nothing of known size is in it. [l]"""

    space: int
    takes: float
    holds: float


def stowed(
    assembly: Assembly, spaces: Sequence[Space], moves: Sequence[Moves]
) -> tuple[Stowed, ...]:
    """Where every good is.

    Returns: In the job's order.
    """
    found, holders = [], assembly.job.holders()
    parts = {s.key: n for n, s in reversed(list(enumerate(spaces)))}
    things = {s.owner: n for n, s in reversed(list(enumerate(spaces)))}
    cab = {CAB} | {c.id for c in assembly.job.carried if c.place == CAB}
    for good in assembly.job.goods:
        # The compartment that it names, else the first of its thing.
        n = parts.get((good.place, good.part), things.get(good.place, -1))
        if n >= 0:
            found.append(Stowed(good.id, n, moves[n], "space"))
        elif good.place in cab:
            found.append(Stowed(good.id, -1, None, "cab"))
        elif not good.place:
            found.append(Stowed(good.id, -1, None, "nowhere"))
        else:
            found.append(Stowed(good.id, -1, None, "space" if good.place in holders else "lost"))
    return tuple(found)


def filled(
    goods: Sequence[Good], rows: Sequence[Stowed], spaces: Sequence[Space]
) -> tuple[Filled, ...]:
    """How full each space with goods of known size is."""
    takes: dict[int, float] = {}
    for good, row in zip(goods, rows, strict=True):
        if row.space >= 0 and good.volume > 0:
            takes[row.space] = takes.get(row.space, 0.0) + good.volume
    found = []
    for n, litres in takes.items():
        found.append(Filled(n, litres, spaces[n].litres))
    return tuple(found)


def goes_in(good: Good, space: Space) -> bool:
    """Whether one piece goes into an empty space, turned to any side; yes where its size is not known."""
    if not (good.length and good.width and good.height):
        return True
    own, room = sorted((good.length, good.width, good.height)), sorted(space.rest.size())
    return all(a <= b + 1e-6 for a, b in zip(own, room, strict=True))


class Beside(NamedTuple):
    """Two goods that should not lie so, and why."""

    good: str
    other: str
    why: str


SPOILS = frozenset({"wet", "dirty"})
SPOILT = frozenset({"clean", "food"})
BURNS = frozenset({"fuel", "gas"})


def ill_stowed(
    goods: Sequence[Good], rows: Sequence[Stowed], spaces: Sequence[Space]
) -> tuple[Beside, ...]:
    """Wet or dirty over or beside clean, fuel or gas with food; what rides in the cab is one place.

    Returns: Each pair of spaces once, by its first two goods.
    """
    placed = [
        (g, r.space) for g, r in zip(goods, rows, strict=True)
        if g.nature and (r.space >= 0 or r.where == "cab")
    ]  # fmt: skip
    found: dict[tuple[int, int, str], Beside] = {}
    for g, n in placed:
        nature = set(g.nature)
        for h, m in placed:
            if g is h:
                continue
            other = set(h.nature)
            why, inside = "", n >= 0 and m >= 0
            if (
                nature & BURNS
                and "food" in other
                and (n == m or (inside and _together(spaces[n], spaces[m], n == m)))
            ):
                why = "fuel or gas inside with food"
            elif nature & SPOILS and other & SPOILT and n == m:
                why = "wet or dirty with clean"
            elif nature & SPOILS and other & SPOILT and inside and _above(spaces[n], spaces[m]):
                why = "wet or dirty above clean"
            if why:
                found.setdefault((n, m, why), Beside(g.id, h.id, why))
    return tuple(found.values())


def _together(a: Space, b: Space, same: bool) -> bool:
    """Whether two share one room: the same compartment, or bays of one canopy that are not the outside."""
    return same or not (a.device or b.device or a.roof or b.roof)


def _above(a: Space, b: Space) -> bool:
    """Whether a space lies over another."""
    p, q = a.rest, b.rest
    return (
        p.z0 >= q.z1 - 20 and min(p.x1, q.x1) > max(p.x0, q.x0) + 20 and min(p.y1, q.y1) > max(p.y0, q.y0) + 20
    )  # fmt: skip
