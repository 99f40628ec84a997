"""Who reaches and sees what of every space: kept from before where nothing that changed lies in anybody's way."""

from __future__ import annotations

import functools
from typing import TYPE_CHECKING

import msgspec

from roomy_hull.assembly.study import Context
from roomy_hull.core import lazily
from roomy_hull.core.ergonomics.figure import Figure
from roomy_hull.core.geometry.rays import ends_of, in_fans
from roomy_hull.core.geometry.solids import Box
from roomy_hull.job.goods import people
from roomy_hull.studies.access.reach import Seen, look
from roomy_hull.studies.access.spaces import Space
from roomy_hull.studies.access.standing import (
    Obstacles,
    Settled,
    Surroundings,
    outsides,
    places,
    solid_of,
)

if TYPE_CHECKING:
    import numpy as np
else:
    np = lazily.module("numpy")

KEY = "access"
REMEMBERED = 1024
"""Of so many spaces it is remembered who reaches and sees what, each with what then stood about it: a few megabytes."""


class Basis(msgspec.Struct, frozen=True):
    """What one space's reach is computed from; `people` are ids and statures. [mm]"""

    space: Space
    solid: bytes
    people: tuple[tuple[str, float], ...]
    settled: Settled
    body: tuple[Box, ...]


class Looked(msgspec.Struct, frozen=True, eq=False):
    """What each of the party reaches and sees of a space, and the fans of ways that were asked for it.

    A box that lies in none of the fans, (fans, 4, 3), has no part in what is seen. [mm]
    """

    seen: tuple[Seen, ...]
    fans: np.ndarray


def looks(context: Context, rooms: tuple[Space, ...], settled: Settled) -> tuple[Looked, ...]:
    """What of each space is reached and seen: anew only where what changed lies in somebody's way to it.

    Args:
        context: The job in vehicle axes, and what was seen before.
        settled: How the vehicle stands. [mm]
    Returns: In the order of the spaces.
    """
    assembly = context.assembly
    party = tuple((p.id, p.stature) for p in people(assembly.job.party))
    body = outsides(assembly)
    known = _kept(context, rooms, settled)
    obstacles: Obstacles | None = None
    found = []
    for room in rooms:
        one = known.get(room)
        if one is None:
            obstacles = obstacles or Obstacles(assembly)
            one = looked(Basis(room, obstacles.about(room).solid.tobytes(), party, settled, body))
        found.append(one)
    return tuple(found)


def _kept(context: Context, rooms: tuple[Space, ...], settled: Settled) -> dict[Space, Looked]:
    """What was looked at before of spaces that are the same, where nothing that changed lies in a way to them."""
    now, then, old = context.assembly, context.rests_on(KEY), context.old(KEY)
    if then is None or old is None or old.settled != settled or not old.looked:
        return {}
    if now.ground is not then.ground or people(now.job.party) != people(then.job.party):
        return {}
    both = {id(t) for t in now.things} & {id(t) for t in then.things}
    things = [t for t in (*now.things, *then.things) if id(t) not in both]
    changed = solid_of(things)
    opens = {o.id for t in things for o in t.openings}
    still = set(rooms)
    rows = [
        (s, one) for s, one in zip(old.spaces, old.looked, strict=True) if s in still and opens.isdisjoint(s.needs)
    ]  # fmt: skip
    if not len(changed) or not rows:
        return dict(rows)
    boxes = ends_of(changed[:, :3], changed[:, 3:])
    fans = np.concatenate([one.fans for _s, one in rows])
    # First the box around all that changed: few fans are near it.
    hit = in_fans(fans, boxes.max(axis=1, keepdims=True))[:, 0]
    hit[hit] = in_fans(fans[hit], boxes).any(axis=1)
    starts = np.cumsum([0, *(len(one.fans) for _s, one in rows[:-1])])
    return {
        s: one
        for (s, one), new in zip(rows, np.logical_or.reduceat(hit, starts), strict=True)
        if not new
    }


@functools.lru_cache(maxsize=REMEMBERED)
def looked(basis: Basis) -> Looked:
    """What each of the party reaches and sees of a space; remembered, so that taking a step back costs nothing."""
    about = Surroundings(
        np.frombuffer(basis.solid).reshape(-1, 6),
        np.array(basis.space.walls, dtype=float).reshape(-1, 6),
    )
    found = []
    for person, stature in basis.people:
        figure = Figure(stature)
        feet = places(basis.space, figure, about, basis.settled, basis.body)
        found.append(look(basis.space, person, figure, feet, about))
    return Looked(tuple(found), about.fans())
