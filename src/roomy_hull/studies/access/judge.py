"""Access judged: moves and reach by class, sight, lifting, stowing, recovery, living, the canopy on its legs."""

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.study import Context, Study
from roomy_hull.core.findings import GEOMETRY, PRACTICE, Finding, Fix
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.refs import Ref
from roomy_hull.job.goods import Good
from roomy_hull.studies.access.at_home import living_found, off_found
from roomy_hull.studies.access.effort import Effort, efforts, lifts_found
from roomy_hull.studies.access.elsewhere import heavy_to_pull, places_for
from roomy_hull.studies.access.fumes import fumes
from roomy_hull.studies.access.living import Living, living
from roomy_hull.studies.access.looking import KEY, Looked, looks
from roomy_hull.studies.access.moves import Moves, Ways, walked
from roomy_hull.studies.access.off_on import OffOn, off_on
from roomy_hull.studies.access.reach import SEES, Seen
from roomy_hull.studies.access.spaces import Space, spaces
from roomy_hull.studies.access.standing import Settled
from roomy_hull.studies.access.stowing import (
    FILLED,
    HEAVY,
    MOST_ACTIONS,
    OVER_HEAD,
    Beside,
    Filled,
    Stowed,
    filled,
    goes_in,
    ill_stowed,
    stowed,
)
from roomy_hull.studies.access.told import Figures, finding, ref

TOGETHER, IN_OUT, LOADS, SERVICES, STRENGTH = (
    "together",
    "in and out",
    "loads",
    "services",
    "strength",
)
ROUND = 10.0
"""How far the vehicle has settled counts in such steps: no hand feels less. [mm]"""


class Round(msgspec.Struct, frozen=True):
    """A run-through of the job on foot: how many actions, how far one walks for them. [m]"""

    id: str
    name: str
    actions: int
    metres: float


class AccessResult(msgspec.Struct, frozen=True):
    """Everything that is computed of access; `looked` are rows of persons, in the order of the spaces."""

    spaces: tuple[Space, ...]
    moves: tuple[Moves, ...]
    looked: tuple[Looked, ...]
    stowed: tuple[Stowed, ...]
    filled: tuple[Filled, ...]
    beside: tuple[Beside, ...]
    efforts: tuple[Effort, ...]
    living: Living
    off_on: OffOn | None
    settled: Settled
    rounds: tuple[Round, ...] = ()

    @property
    def seen(self) -> tuple[tuple[Seen, ...], ...]:
        """What is reached and seen: rows of persons, in the order of the spaces."""
        return tuple(one.seen for one in self.looked)


def settled_of(context: Context) -> Settled:
    """How the vehicle stands in the first scenario that is as full as any. [mm]"""
    job = context.assembly.job
    full = max(
        job.scenarios, key=lambda s: (s.canopy, s.contents + s.water + s.fuel, len(s.people))
    )
    stance = context.results[LOADS].scenario(full.id).stance
    a, b = (round(v / ROUND) * ROUND for v in (stance.front_sag, stance.rear_sag))
    return Settled(a, b, job.vehicle.wheelbase)


def study(context: Context) -> AccessResult:
    """Find out who gets at what, and how.

    Args:
        context: The job in vehicle axes, all meetings, what comes out before what, how it stands, what its services join.
    Returns: Complete; reach of a space about which all was so a short while ago is remembered.
    """
    assembly = context.assembly
    settled = settled_of(context)
    rooms = spaces(assembly, context.results[TOGETHER])
    ways = Ways(assembly, context.results[TOGETHER], context.results[IN_OUT])
    views = looks(context, rooms, settled)
    seen = [one.seen for one in views]
    rows = stowed(assembly, rooms, found := tuple(ways.to(s) for s in rooms))
    return AccessResult(
        rooms, found, views, rows, filled(assembly.job.goods, rows, rooms), ill_stowed(assembly.job.goods, rows, rooms),
        efforts(assembly, rooms, seen, rows, settled), living(assembly, settled),
        off_on(assembly, context.results[SERVICES], settled), settled, _rounds(assembly),
    )  # fmt: skip


def _rounds(assembly: Assembly) -> tuple[Round, ...]:
    """Every run-through on foot, from the driver's door."""
    found = []
    for run in assembly.job.runs:
        sides = []
        for move in run.moves:
            opening, thing = assembly.opening(move.what), assembly.thing(move.what)
            if opening is not None:
                sides.append(opening.side)
            elif thing is not None and thing.place is not None:
                sides.append(thing.place.bay.side)
        found.append(Round(run.id, run.name, len(run.moves), walked(assembly, sides)))
    return tuple(found)


def judge(context: Context) -> list[Finding]:
    """Judge access."""
    result: AccessResult = context.results[KEY]
    assembly = context.assembly
    return [
        *_spaces(assembly, result), *_goods(assembly, result), *_stowing(assembly, result),
        *_fumes(assembly), *_left_behind(assembly, result), *lifts_found(assembly, result.efforts),
        *heavy_to_pull(assembly, context.results[STRENGTH].mounts),
        *living_found(assembly, result.living), *off_found(assembly, result.off_on),
    ]  # fmt: skip


def _spaces(assembly: Assembly, result: AccessResult) -> list[Finding]:
    """Things with a class of use, drawers nobody sees into, spaces nobody reaches."""
    found = []
    for space, way, seen in zip(result.spaces, result.moves, result.seen, strict=True):
        subjects = ref(assembly, space.owner)
        thing = assembly.thing(space.owner)
        where = (space.box,)
        if space.use in MOST_ACTIONS:
            found += _class(space.name, space.use, Stowed("", 0, way, "space"), subjects, where)
            worst = [s for s in seen if s.how in ("by climbing", "not at all")]
            if worst and space.use in ("now", "each stop"):
                found.append(
                    finding("reach", "look", f"{space.name} is not in reach of everybody", subjects,
                             _short(worst[0].short), GEOMETRY, where)
                )  # fmt: skip
        kitchen = thing is not None and "kitchen" in thing.capabilities.roles
        if (
            space.top
            and not space.device
            and not kitchen
            and seen
            and max(s.seen for s in seen) < SEES
        ):
            found.append(
                finding("sight", "look", f"Nobody sees into {space.name}: make it an open pocket", subjects,
                         (100 * max(s.seen for s in seen), 100 * SEES, "%"), PRACTICE, where)
            )  # fmt: skip
        if not space.device and not kitchen and seen and all(s.how == "not at all" for s in seen):
            found.append(
                finding("out_of_reach", "note", f"Nobody reaches the middle of {space.name} from where one can stand",
                         subjects, _short(min(s.short for s in seen)), GEOMETRY, where)
            )  # fmt: skip
    return found


def _short(by: float) -> Figures:
    """By how much a hand falls short; nothing where something else is in its way."""
    return (by, 0.0, "mm") if by > 0 else (None, None, "")


def _class(
    name: str, use: str, row: Stowed, subjects: tuple[Ref, ...], where: tuple[Box, ...]
) -> list[Finding]:
    """Whether something takes more moves than its class allows."""
    if not row.over(use) or row.moves is None:
        return []
    if not row.moves.possible:
        return [finding("way", "look", f"There is no way to {name} without taking things apart", subjects, source=GEOMETRY,
                         where=where)]  # fmt: skip
    words = {
        "now": "is wanted now",
        "each stop": "is wanted at each stop",
        "each camp": "is wanted at each camp",
    }[use]
    lifted = f", {row.moves.lifted} lifted aside" if row.moves.lifted else ""
    return [finding("moves", "look", f"{name} {words} and takes {row.moves.said}{lifted}", subjects,
                     (row.moves.count, MOST_ACTIONS[use], "actions"), PRACTICE, where)]  # fmt: skip


def _goods(assembly: Assembly, result: AccessResult) -> list[Finding]:
    """Each good: its moves, its reach, whether it goes in, what is lost, recovery gear, what is heavy and high."""
    found = []
    for good, row in zip(assembly.job.goods, result.stowed, strict=True):
        own = Ref("good", good.id)
        if row.where == "lost":
            found.append(
                finding("lost", "look", f"{good.name}: '{good.place}', where it is stowed, is not there any more; it is "
                         "kept, and not weighed", (own,), source="docs/formats.md")
            )  # fmt: skip
        if row.space < 0:
            continue
        space, seen = result.spaces[row.space], result.seen[row.space]
        subjects, where = (*ref(assembly, good.place), own), (space.box,)
        found += _class(good.name, good.use, row, subjects, where)
        if good.use in ("now", "each stop") and any(
            s.how in ("by climbing", "not at all") for s in seen
        ):
            worst = max(seen, key=lambda s: s.short)
            found.append(
                finding("reach", "look", f"{good.name} is not in reach of everybody", subjects, _short(worst.short),
                         GEOMETRY, where)
            )  # fmt: skip
        if not goes_in(good, space):
            found.append(
                finding(
                    "size",
                    "look",
                    f"{good.name} does not go into {space.name}",
                    subjects,
                    source=GEOMETRY,
                    where=where,
                )
            )
        high = space.rest.z0 - result.settled.ground(space.rest.x0)
        if good.mass >= HEAVY and high > OVER_HEAD:
            found.append(
                finding("heavy_high", "look", f"{good.name} is lifted over the head", subjects, (high, OVER_HEAD, "mm"),
                         PRACTICE, where)
            )  # fmt: skip
        found += _recovery(good, space, subjects)
    return found


def _recovery(good: Good, space: Space, subjects: tuple[Ref, ...]) -> list[Finding]:
    """Recovery gear bogged on either side."""
    if "recovery" not in good.nature:
        return []
    found = []
    if space.needs and space.side in ("left", "right"):
        found.append(
            finding("bogged", "look", f"{good.name} lies behind a door of the {space.side}: bogged on that side it cannot "
                     "be had", subjects, source=PRACTICE, where=(space.box,))
        )  # fmt: skip
    return found


def _fumes(assembly: Assembly) -> list[Finding]:
    """Fuel or gas in something closed: a stop where somebody breathes there."""
    return [
        finding("fumes", "stop" if f.with_ else "look",
                f"{f.name} lies in {f.inside}" + (f" with {f.with_}" if f.with_ else "")
                + ": fuel and gas travel outside, or in a vented locker", f.subjects,
                source=f"{PRACTICE}; the local code decides", where=f.where)
        for f in fumes(assembly)
    ]  # fmt: skip


def _left_behind(assembly: Assembly, result: AccessResult) -> list[Finding]:
    """Recovery gear that stays with the canopy."""
    canopy = assembly.job.body.canopy
    own = [
        g for g, r in zip(assembly.job.goods, result.stowed, strict=True)
        if "recovery" in g.nature and r.space >= 0 and _in_canopy(assembly, result.spaces[r.space])
    ]  # fmt: skip
    if canopy is None or canopy.kind != "canopy" or not own:
        return []
    return [
        finding("recovery_off", "note", f"With the canopy off these stay behind: {', '.join(g.name for g in own)}",
                tuple(Ref("good", g.id) for g in own))
    ]  # fmt: skip


def _in_canopy(assembly: Assembly, space: Space) -> bool:
    thing = assembly.thing(space.owner)
    return thing is not None and thing.place is not None


def _stowing(assembly: Assembly, result: AccessResult) -> list[Finding]:
    """Full compartments, and goods that should not lie so."""
    found = []
    names = {g.id: g for g in assembly.job.goods}
    for f in result.filled:
        space = result.spaces[f.space]
        if f.takes > FILLED * f.holds:
            found.append(
                finding("full", "look", f"{space.name} is fuller than odd goods fill it", ref(assembly, space.owner),
                         (f.takes, FILLED * f.holds, "l"), PRACTICE, (space.box,))
            )  # fmt: skip
    for b in result.beside:
        one, other = names[b.good], names[b.other]
        found.append(
            finding("nature", "look", f"{one.name} and {other.name}: {b.why}",
                     (*ref(assembly, one.place), Ref("good", one.id), Ref("good", other.id)))
        )  # fmt: skip
    return found


def fixes(context: Context, found: Finding) -> tuple[Fix, ...]:
    """Offer other places for a good that takes too many moves, is not reached, or does not go in."""
    return places_for(context.assembly, context.results[KEY], found)


def _idle(context: Context) -> AccessResult:
    """Nothing is known yet: no space, and no good in one."""
    rows = tuple(Stowed(g.id, -1, None, "nowhere") for g in context.assembly.job.goods)
    return AccessResult(
        (),
        (),
        (),
        rows,
        (),
        (),
        (),
        Living(),
        None,
        Settled(0.0, 0.0, context.assembly.job.vehicle.wheelbase),
    )


STUDY = Study(
    KEY,
    study,
    (TOGETHER, IN_OUT, LOADS, SERVICES, STRENGTH),
    judge,
    ("access.",),
    fixes,
    settles=True,
    idle=_idle,
    shown_with=lambda job: (job.goods, job.party),
)
