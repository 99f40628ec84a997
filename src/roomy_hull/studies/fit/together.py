"""Together: what meets what when it opens, and what can be open at the same time.

For an opening X and another Y two questions are asked: does X on its way meet Y closed, and does it meet
Y open? From the answers follow all relations: X has to wait for Y to be opened, or for Y to be closed, or
they exclude each other. Sweeps are convex prisms, exact for slides and up to `motion.MARGIN` too large for
swings; where that would decide, it is followed closely, so that a clash is neither missed nor invented.
"""

import itertools

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.motions import FixedPiece, Opening, closely
from roomy_hull.assembly.study import Before, Context, StudyKey
from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.gaps import apart, clash, nearest, shared
from roomy_hull.core.geometry.motion import MARGIN, Piece, block
from roomy_hull.core.geometry.near import Boxes, beside
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.graphs import circles
from roomy_hull.core.refs import Ref
from roomy_hull.kit.body.pieces import UNDER

KEY = StudyKey["Togetherness"]("together")
ALLOWANCE = 1.4 * MARGIN
"""By how much a swing's sweep may exceed the true space. [mm]"""
Pair = tuple[str, str]


class Meeting(msgspec.Struct, frozen=True):
    """How near an opening comes to something: the gap (negative: so deep into it), and where. [mm]

    `late` says that it slides out clear, and only its lid or leaf meets something at the end.
    """

    gap: float
    where: Box
    late: bool = False

    @property
    def clashes(self) -> bool:
        """Whether they share room."""
        return clash(self.gap)


class Togetherness(msgspec.Struct, frozen=True):
    """All meetings of a job.

    Attributes:
        openings: Everything that opens.
        shut, opened: (x, y) to what x meets of y closed, and of y open, where nearer than wanted.
        still: x to (what, meeting) of what stays where it is.
        needs: x to those that have to be open before it.
        circles: Openings that each wait for the other.
    """

    openings: tuple[Opening, ...]
    shut: dict[Pair, Meeting]
    opened: dict[Pair, Meeting]
    still: dict[str, tuple[tuple[Ref, Meeting], ...]]
    needs: dict[str, frozenset[str]]
    circles: tuple[tuple[str, ...], ...]
    pairs_tested: int = 0
    crowded: bool = False
    """So much opens in one place that not every pair was held against each other."""

    def relation(self, x: str, y: str) -> str:
        """Say how two openings stand to each other.

        Returns:
            ``clear``, ``near`` (below the wanted gap), ``x first``, ``y first`` (only opened in that order are
            both open), or ``never``.
        """
        if any(self._hits(self.shut, p) and self._hits(self.opened, p) for p in ((x, y), (y, x))):
            return "never"
        # y has to be open already where x meets it closed, or where y on its way would meet x open.
        y_first = self._hits(self.shut, (x, y)) or self._hits(self.opened, (y, x))
        x_first = self._hits(self.shut, (y, x)) or self._hits(self.opened, (x, y))
        if x_first and y_first:
            return "never"
        if x_first or y_first:
            return "x first" if x_first else "y first"
        pairs = ((x, y), (y, x))
        return "near" if any(p in self.shut or p in self.opened for p in pairs) else "clear"

    @staticmethod
    def _hits(found: dict[Pair, Meeting], pair: Pair) -> bool:
        meeting = found.get(pair)
        return meeting is not None and meeting.clashes

    def meeting(self, x: str, y: str) -> Meeting | None:
        """Where two openings meet at their worst, or nothing."""
        found = [
            m
            for d in (self.opened, self.shut)
            for p in ((x, y), (y, x))
            if (m := d.get(p)) is not None
        ]
        return min(found, key=lambda m: m.gap) if found else None


MOST_PAIRS, MOST_NEAR = 10_000, 200
"""More pairs than this come near one another in no real vehicle, nor does one opening come near more things."""


def study(context: Context) -> Togetherness:
    """Hold every opening against every other, and against what stays.

    Args:
        context: The job in vehicle axes [mm]; what neither side of a pair changed is taken from before.
    """
    assembly, before = context.assembly, context.before
    openings = tuple(assembly.openings())
    previous: Togetherness | None = context.old(KEY)
    if previous is not None and previous.crowded:
        previous = before = None  # what was left unasked then is not known now
    old_openings = {o.id: o for o in previous.openings} if previous else {}
    fresh = {o.id for o in openings if old_openings.get(o.id) is not o}
    old_things = {t.id: t for t in before.assembly.things} if before is not None else {}
    fresh_things = [t for t in assembly.things if old_things.get(t.id) is not t]
    shut, opened = _kept(previous, fresh, openings)
    tested = 0
    moving = assembly.shop.rules.moving_gap
    # What is closed or open lies within what is swept.
    passing = Boxes([o.swept_box for o in openings])
    for i, x in enumerate(openings):
        if x.id not in fresh or tested > MOST_PAIRS:
            continue
        for j in passing.near(x.swept_box, moving):
            y = openings[j]
            if i == j or (j < i and y.id in fresh):
                continue  # that pair was met from the other side
            tested += 1
            if tested > MOST_PAIRS:
                break
            _meet(x, y, moving, shut, opened)
            _meet(y, x, moving, shut, opened)
    if previous is not None:
        shut, opened = _in_order(shut, openings), _in_order(opened, openings)
    still, all_asked = _against_still(assembly, openings, fresh, fresh_things, before, moving)
    crowded = tested > MOST_PAIRS or not all_asked
    needs: dict[str, frozenset[str]] = {}
    for (a, b), meeting in shut.items():
        if meeting.clashes:
            needs[a] = needs.get(a, frozenset()) | {b}
    same = previous is not None and previous.needs == needs
    locked = previous.circles if previous is not None and same else tuple(circles(needs))
    return Togetherness(openings, shut, opened, still, needs, locked, tested, crowded)


def _kept(
    previous: Togetherness | None, fresh: set[str], openings: tuple[Opening, ...]
) -> tuple[dict[Pair, Meeting], dict[Pair, Meeting]]:
    """What was met before, closed and open, by pairs of which neither is fresh or gone."""
    if previous is None:
        return {}, {}
    stay = {o.id for o in openings} - fresh
    shut, opened = (
        {p: m for p, m in found.items() if p[0] in stay and p[1] in stay}
        for found in (previous.shut, previous.opened)
    )
    return shut, opened


def _in_order(found: dict[Pair, Meeting], openings: tuple[Opening, ...]) -> dict[Pair, Meeting]:
    """Put meetings in the order of the openings, whatever was known before."""
    at = {o.id: n for n, o in enumerate(openings)}

    def place(row: tuple[Pair, Meeting]) -> tuple[int, int, bool]:
        x, y = at[row[0][0]], at[row[0][1]]
        return min(x, y), max(x, y), x > y

    return dict(sorted(found.items(), key=place))


def _meet(
    x: Opening, y: Opening, wanted: float, shut: dict[Pair, Meeting], opened: dict[Pair, Meeting]
) -> None:
    """Hold x on its way against y closed and y open."""
    for pieces, box, found in ((y.rest, y.rest_box, shut), (y.opened, y.opened_box, opened)):
        if beside(x.swept_box, box, wanted):
            continue
        # A unit behind a closed door cannot move at all; how near it would pass says nothing.
        gap = 0.0 if found is shut and y.kind == "door" and x.kind == "unit" else wanted
        meeting = _meeting(x, pieces, gap)
        if meeting is not None:
            found[x.id, y.id] = meeting


def _closest(
    x: Opening, pieces: tuple[Piece, ...], wanted: float, *, turning: bool = False
) -> tuple[float, Piece, Piece] | None:
    """How near x comes to some pieces, or what of it turns, and which two; nothing beyond the wanted gap."""
    swept = tuple(p for p in x.swept if not p.square) if turning else x.swept
    gap, i, j = nearest(swept, pieces, wanted)
    if (
        i >= 0
        and not swept[i].square
        and (-ALLOWANCE < gap < 0 or (gap >= 0 and _matters(x, pieces, wanted, gap)))
    ):
        # So little may be the sweep's own allowance: followed more closely, it is a meeting or none.
        swept = closely(x.motion, x.where)
        if turning:
            swept = tuple(p for p in swept if not p.square)
        gap, i, j = nearest(swept, pieces, wanted)
    return (gap, swept[i], pieces[j]) if i >= 0 else None


def _limit(x: Opening, pieces: tuple[Piece, ...], wanted: float) -> float:
    """How near x has to come to be told: nearer than wanted, and than when it is closed. [mm]"""
    at_rest = min((apart(p, q, wanted) for p in x.rest for q in pieces), default=wanted)
    return min(wanted, at_rest - 0.5)


def _matters(x: Opening, pieces: tuple[Piece, ...], wanted: float, gap: float) -> bool:
    """Say whether the sweep's allowance decides if a gap is told."""
    if wanted <= 0:
        return False
    limit = _limit(x, pieces, wanted)
    return limit - ALLOWANCE < gap < limit


def _meeting(x: Opening, pieces: tuple[Piece, ...], wanted: float) -> Meeting | None:
    """How near x comes to some pieces, where that is nearer than wanted and than when it is closed.

    What slides out of a bay is only asked whether it clashes: its running gaps are judged closed.
    """
    at = _closest(x, pieces, 0.0 if x.kind == "unit" else wanted)
    if at is not None and clash(at[0]):
        sliding = tuple(p for p in x.swept if p.square)
        late = bool(sliding) and x.turns and not clash(nearest(sliding, pieces, 0.0)[0])
        return Meeting(at[0], shared(at[1], at[2]), late)
    if wanted <= 0:
        return None
    if x.kind == "unit":
        at = _closest(x, pieces, wanted, turning=True)
    if at is None or at[0] >= wanted:
        return None
    return Meeting(at[0], shared(at[1], at[2])) if at[0] < _limit(x, pieces, wanted) else None


def _against_still(
    assembly: Assembly, openings: tuple[Opening, ...], fresh: set[str], fresh_things: list[Thing],
    before: Before | None, wanted: float,
) -> tuple[dict[str, tuple[tuple[Ref, Meeting], ...]], bool]:  # fmt: skip
    """Hold every opening against the body, and against those solids of other things that stay; says if all were."""
    changed = {t.ref for t in fresh_things}
    order = {t.ref: n for n, t in enumerate(assembly.things)}
    same_body = before is not None and before.assembly.ground is assembly.ground
    found: dict[str, tuple[tuple[Ref, Meeting], ...]] = {}
    old: dict[str, tuple[tuple[Ref, Meeting], ...]] = {}
    if before is not None:
        old = before.results[KEY].still
    fixed = assembly.ground.fixed
    # What lies on a rack touches it, and opens beside it.
    held = {c.id: Ref("rack", c.on) for c in assembly.job.carried if c.on}
    body = Boxes([p.piece.box for p in fixed] if fresh or not same_body else [])
    blocks: dict[str, tuple[Piece, ...]] = {}
    everything = Boxes([t.envelope for t in assembly.things] if fresh else [])
    changes = Boxes([t.envelope for t in fresh_things])
    asked, whole = 0, True
    for x in openings:
        rows: list[tuple[Ref, Meeting]] = []
        known = [] if x.id in fresh else list(old.get(x.id, ()))
        if same_body and x.id not in fresh:
            rows += [r for r in known if not r[0].is_thing]
        else:
            near_it = [
                fixed[n]
                for n in body.near(x.swept_box, wanted)
                if fixed[n].ref != held.get(x.owner)
            ]
            rows += _against_body(x, near_it, wanted)
        kept: list[tuple[Ref, Meeting]] = []
        limit = wanted if x.turns else 0.0
        if asked > MOST_PAIRS:
            near = []
        elif x.id in fresh:
            near = [assembly.things[n] for n in everything.near(x.swept_box, limit)]
        else:
            kept = [r for r in known if r[0] in order and r[0] not in changed]
            near = [fresh_things[n] for n in changes.near(x.swept_box, limit)]
        asked += len(near)
        whole = whole and asked <= MOST_PAIRS and len(near) <= MOST_NEAR
        for thing in near[:MOST_NEAR]:
            if thing.id != x.owner:
                if thing.id not in blocks:
                    blocks[thing.id] = tuple(block(s) for s in thing.still)
                meeting = _meeting(x, blocks[thing.id], limit) if blocks[thing.id] else None
                if meeting is not None:
                    kept.append((thing.ref, meeting))
        rows += sorted(kept, key=lambda row: order[row[0]])
        if rows:
            found[x.id] = tuple(rows)
    return found, whole


def _against_body(
    x: Opening, fixed: list[FixedPiece], wanted: float
) -> list[tuple[Ref, Meeting]]:  # fmt: skip
    """Hold one opening against what is fixed near it, all pieces of a name together."""
    rows = []
    for (ref, _role, _side), group in itertools.groupby(
        fixed, key=lambda p: (p.ref, p.role, p.side)
    ):
        pieces = list(group)
        still = pieces[0]
        own_box = still.role in UNDER and x.kind == "tray"
        # It turns about its own hinge.
        own_box |= still.role == "hinge" and x.kind == "door" and still.side == x.side
        # A door is near to its own wall's rebate all round and to the floor below, as it should be.
        own_wall = x.kind == "door" and (
            still.role == "floor" or (still.role, still.side) == ("wall", x.side)
        )
        limit = wanted if x.turns and still.role != "ground" and not own_wall else 0.0
        if own_box or all(beside(x.swept_box, p.piece.box, limit) for p in pieces):
            continue
        solids = tuple(p.piece for p in pieces)
        if own_wall and nearest(x.swept, solids, 0.0)[0] > -ALLOWANCE:
            continue  # it lies on its jamb
        meeting = _meeting(x, solids, limit)
        if meeting is not None:
            rows.append((ref, meeting))
    return rows
