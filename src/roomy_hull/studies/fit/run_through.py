"""Run-through: a sequence of moves played one by one until something is in the way."""

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.refs import Ref
from roomy_hull.job.carried import Carried
from roomy_hull.job.model import Move, RunThrough
from roomy_hull.studies.fit.in_out import InOut
from roomy_hull.studies.fit.together import Meeting, Togetherness


class Played(msgspec.Struct, frozen=True):
    """One move as it was played.

    Attributes:
        move: What was to be done.
        words: It in words; where it fails, why.
        fine: Whether it went through.
        opened: What stands open after it.
        out: What is out of the vehicle after it.
        canopy: Whether the canopy is on after it.
        where: Where it failed, in vehicle axes. [mm]
    """

    move: Move
    words: str
    fine: bool
    opened: frozenset[str]
    out: frozenset[str]
    canopy: bool
    where: tuple[Box, ...] = ()


class RunResult(msgspec.Struct, frozen=True):
    """A run-through as far as it goes."""

    played: tuple[Played, ...]
    total: int

    @property
    def through(self) -> bool:
        """Whether every move went through."""
        return len(self.played) == self.total and all(p.fine for p in self.played)

    @property
    def actions(self) -> int:
        """How many actions were done."""
        return sum(p.fine for p in self.played)


class _State(msgspec.Struct):
    """What stands open, what is out, and whether the canopy is on."""

    opened: set[str]
    out: set[str]
    canopy: bool = True


def play(assembly: Assembly, found: Togetherness, blocked: InOut, run: RunThrough) -> RunResult:
    """Play a run-through from everything closed.

    Args:
        blocked: What has to come out before what.
    Returns: Every move up to the first that fails, that one included.
    """
    state = _State(set(), set())
    played = []
    for move in run.moves:
        trouble, where = _try(assembly, found, blocked, state, move)
        words = trouble or _words(assembly, move)
        played.append(
            Played(
                move,
                words,
                not trouble,
                frozenset(state.opened),
                frozenset(state.out),
                state.canopy,
                where,
            )
        )
        if trouble:
            break
    return RunResult(tuple(played), len(run.moves))


def _words(assembly: Assembly, move: Move) -> str:
    """Say a move in words."""
    if move.do in ("canopy off", "canopy on"):
        return "Lift the canopy off" if move.do == "canopy off" else "Put the canopy back on"
    return f"{move.do.capitalize()} {_name(assembly, move.what)}"


def _name(assembly: Assembly, key: str) -> str:
    """The name of an opening or thing."""
    opening = assembly.opening(key)
    if opening is not None:
        return opening.name
    thing = assembly.thing(key)
    return thing.name if thing is not None else key


def on_canopy(thing: Thing) -> bool:
    """Say whether a thing comes off with the canopy."""
    return thing.value.mount == "canopy" if isinstance(thing.value, Carried) else True


def _gone(assembly: Assembly, state: _State) -> set[str]:
    """The openings and things that are not there: out, or off with the canopy."""
    gone: set[str] = set()
    if state.canopy and not state.out:
        return gone
    for thing in assembly.things:
        if thing.id in state.out or (not state.canopy and on_canopy(thing)):
            gone |= {thing.id, *(o.id for o in thing.openings)}
    if not state.canopy:
        gone |= {o.id for o in assembly.ground.openings if o.kind == "door"}
    return gone


def _try(  # ruff: ignore[too-many-return-statements]  # one return for each way in which a move fails
    assembly: Assembly, found: Togetherness, blocked: InOut, state: _State, move: Move
) -> tuple[str, tuple[Box, ...]]:
    """Do a move, or say why it cannot be done, and where."""
    gone = _gone(assembly, state)
    if move.do in ("canopy off", "canopy on"):
        return _canopy(assembly, state, off=move.do == "canopy off"), ()
    if move.do == "take out":
        return _take_out(assembly, blocked, state, move.what, gone)
    opening = assembly.opening(move.what)
    if opening is None:
        return f"There is no '{move.what}' that opens; choose one of the job's openings", ()
    name = opening.name
    if opening.id in gone:
        return f"{name} is not there: it is out or off with the canopy", ()
    if (move.do == "open") == (opening.id in state.opened):
        return f"{name} is {'open' if move.do == 'open' else 'closed'} already", ()
    meeting = _in_the_way(assembly, found, state, opening.id, gone)
    if meeting is not None:
        what, words = meeting
        return f"{name} cannot {move.do}: {words}", (what.where,)
    (state.opened.add if move.do == "open" else state.opened.discard)(opening.id)
    return "", ()


def _in_the_way(
    assembly: Assembly, found: Togetherness, state: _State, key: str, gone: set[str]
) -> tuple[Meeting, str] | None:
    """What an opening meets on its way as things stand, with words for it."""
    for what, meeting in found.still.get(key, ()):
        there = (what.id not in gone) if what.is_thing else _stays(what, state)
        if meeting.clashes and there:
            thing = assembly.thing(what)
            return meeting, f"it meets {thing.name if thing is not None else what.word}"
    for other in found.openings:
        if other.id == key or other.id in gone:
            continue
        is_open = other.id in state.opened
        meeting_there = (found.opened if is_open else found.shut).get((key, other.id))
        if meeting_there is not None and meeting_there.clashes:
            return (
                meeting_there,
                f"{other.name} is in its way, and it is {'open' if is_open else 'closed'}",
            )
    return None


def _stays(what: Ref, state: _State) -> bool:
    """Say whether a fixed piece is there: all but the canopy's own while it is off."""
    return state.canopy or what.kind != "canopy piece"


def _canopy(assembly: Assembly, state: _State, *, off: bool) -> str:
    """Lift the canopy off or put it on."""
    canopy = assembly.job.body.canopy
    if canopy is None or canopy.kind != "canopy":
        return "There is no canopy that comes off"
    if off != state.canopy:
        return f"The canopy is {'off' if off else 'on'} already"
    doors = {o.id for o in assembly.ground.openings if o.kind == "door"}
    inside = {o.id for t in assembly.things if on_canopy(t) for o in t.openings}
    left_open = sorted((doors | inside) & state.opened)
    if left_open:
        return f"Close {_name(assembly, left_open[0])} before the canopy is lifted"
    state.canopy = not off
    return ""


def _take_out(
    assembly: Assembly, blocked: InOut, state: _State, key: str, gone: set[str]
) -> tuple[str, tuple[Box, ...]]:
    """Take a unit out of its bay or a carried thing off."""
    thing = assembly.thing(key)
    if thing is None:
        return f"There is no '{key}' to take out", ()
    name = thing.name
    if key in gone:
        return f"{name} is not there any more", ()
    first = [b for b in blocked.before(key) if b not in state.out]
    if first:
        other = assembly.thing(first[0])
        where = (other.envelope,) if other is not None else ()
        return f"{name} cannot come out before {_name(assembly, first[0])}", where
    if thing.place is not None and state.canopy:
        side = thing.place.bay.side
        doors = [o for o in assembly.ground.openings if o.kind == "door" and o.side == side]
        closed = [d for d in doors if d.id not in state.opened and d.rest_box.x0 < thing.envelope.x1
                  and d.rest_box.x1 > thing.envelope.x0]  # fmt: skip
        if side != "rear" and closed:
            return f"{closed[0].name} has to be open before {name} comes out", (closed[0].rest_box,)
        if side == "rear" and doors and all(d.id not in state.opened for d in doors):
            return f"{doors[0].name} has to be open before {name} comes out", (doors[0].rest_box,)
    state.out.add(key)
    return "", ()
