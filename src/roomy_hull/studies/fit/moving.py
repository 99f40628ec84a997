"""Moving: from what meets what to findings, and the cheapest change by which a set would hold."""

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.motions import Opening
from roomy_hull.assembly.study import Context, Study
from roomy_hull.core.findings import GEOMETRY, PRACTICE, Finding, Severity
from roomy_hull.core.geometry.solids import TOUCH
from roomy_hull.core.refs import Ref
from roomy_hull.job.model import RunThrough, TogetherSet
from roomy_hull.studies.fit import closed, in_out
from roomy_hull.studies.fit.closed import FitResult
from roomy_hull.studies.fit.in_out import InOut
from roomy_hull.studies.fit.mending import fixes
from roomy_hull.studies.fit.plans import Plan, plan
from roomy_hull.studies.fit.run_through import Played, play
from roomy_hull.studies.fit.together import KEY, Meeting, Togetherness, study

GROUND = Ref("vehicle piece", "ground")
LOADS = "loads"
STANDS = 0.5
"""What comes to this above the ground at kerb attitude stands on it. [mm]"""


class Cause(msgspec.Struct, frozen=True):
    """One of those that an opening meets: what it is, its name, the meeting, and whether open and closed alike."""

    what: Ref
    name: str
    meeting: Meeting
    both: bool = False


def judge(context: Context) -> list[Finding]:
    """Turn meetings into findings: what can never open, what comes too near, sets that do not hold.

    Run-throughs that stop, and units that each have to come out before the other, are told too.

    Args:
        context: The job in vehicle axes, with all meetings, what has to come out before what, and the closed fit: what
            overlaps at rest is not told twice.
    Returns: In the order of the openings. [mm]
    """
    assembly = context.assembly
    found = context.of(KEY)
    blocked = context.of(in_out.KEY)
    fit = context.of(closed.KEY)
    names = {o.id: o.name for o in found.openings} | assembly.names
    return [
        *_meetings(assembly, found, fit, names),
        *_deadlocks(assembly, found, blocked, fit, names),
        *_circles(assembly, blocked),
        *_low(context, found),
    ]


def _meetings(
    assembly: Assembly, found: Togetherness, fit: FitResult, names: dict[str, str]
) -> list[Finding]:
    """Word what an opening meets, things and what never moves, then other openings: one finding for all of a sort."""
    by_id = {o.id: o for o in found.openings}
    sorts: dict[tuple[str, str], dict[Ref, Cause]] = {}
    seen: set[tuple[str, str]] = set()

    def add(x: str, sort: str, cause: Cause) -> None:
        # What stays of a thing and what opens on it are one cause: the worse of the two.
        causes = sorts.setdefault((x, sort), {})
        known = causes.get(cause.what)
        if known is None or cause.meeting.gap < known.meeting.gap:
            causes[cause.what] = cause

    for x, rows in found.still.items():
        for what, meeting in rows:
            thing = assembly.thing(what)
            name = thing.name if thing is not None else _fixed_name(assembly, what)
            if meeting.clashes and not _told(by_id[x].owner, what, fit):
                seen.add((x, what.id if what.is_thing else what.word))
                add(x, "late" if meeting.late else "blocked", Cause(what, name, meeting))
            elif not meeting.clashes:
                add(x, "near", Cause(what, name, meeting))
    for (x, y), meeting in found.shut.items():
        other = found.opened.get((x, y))
        owners = (by_id[x].owner, by_id[y].owner)
        if (x, owners[1]) in seen:
            continue
        # A thing's only motion goes by the thing's own id.
        ref = _thing_ref(assembly, y) or Ref("opening", y)
        if meeting.clashes and other is not None and other.clashes:
            if not _overlap(*owners, fit):
                # Whichever way the other stands: so much at least has to give way.
                least = other if other.late or other.gap > meeting.gap else meeting
                add(x, "late" if least.late else "blocked", Cause(ref, names[y], least, both=True))
        elif not meeting.clashes and (other is None or not other.clashes):
            add(x, "near", Cause(ref, names[y], meeting))
    return [
        (_near if sort == "near" else _blocked)(by_id[x], list(causes.values()), assembly)
        for (x, sort), causes in sorts.items()
    ]


def _fixed_name(assembly: Assembly, what: Ref) -> str:
    """What never moves, in words: a rack by its name."""
    rack = assembly.ground.rack(what.id) if what.kind == "rack" else None
    return rack.rack.name if rack is not None else what.word


def _deadlocks(
    assembly: Assembly, found: Togetherness, blocked: InOut, fit: FitResult, names: dict[str, str]
) -> list[Finding]:
    """Word what locks each other, sets that do not hold, and run-throughs that stop."""
    by_id = {o.id: o for o in found.openings}
    overlapping = {
        t for pair, flaws in fit.pairs.items() for t in pair if flaws[0].kind == "overlap"
    }
    result = [
        _deadlock(by_id, group, found, assembly)
        for group in found.circles
        if overlapping.isdisjoint(by_id[g].owner for g in group)
    ]
    for wanted in assembly.job.sets:
        plan_of = plan(found, wanted.members)
        # What overlaps at rest cannot be open together either; the overlap is told, and comes first.
        clear = [c for c in plan_of.conflicts if not _told_pair(c, by_id, overlapping)]
        if not plan_of.holds and (clear or not plan_of.conflicts):
            plan_of = msgspec.structs.replace(plan_of, conflicts=tuple(clear))
            result.append(_broken(wanted, plan_of, names, by_id, assembly))
    for run in assembly.job.runs:
        last = play(assembly, found, blocked, run).played[-1]
        opening = by_id.get(last.move.what)
        if not last.fine and (opening is None or opening.owner not in overlapping):
            result.append(_stopped(assembly, run, last))
    return result


def _low(context: Context, found: Togetherness) -> list[Finding]:
    """Word what reaches the ground once the vehicle has settled on its springs in its worst scenario.

    What is set on the ground when it is open, an awning's legs, stays on it.
    """
    loads = context.results.get(LOADS)
    if loads is None:
        return []
    base = context.assembly.job.vehicle.wheelbase
    result = []
    lowest = max((max(s.stance.front_sag, s.stance.rear_sag) for s in loads.scenarios), default=0.0)
    lowest += 0.5 * abs(lowest)  # beyond the axles an end settles further
    for x in found.openings:
        if x.swept_box.z0 > lowest:
            continue
        own = context.assembly.any_thing(x.owner)
        stands = own is not None and own.capabilities.stands
        hanging = [p for p in x.swept if not stands or p.box.z0 > STANDS]
        if not hanging or any(w.id == "ground" for w, _m in found.still.get(x.id, ())):
            continue
        worst, name = 0.0, ""
        for s in loads.scenarios:
            stance = s.stance
            for piece in hanging:
                box = piece.box
                down = max(
                    stance.front_sag + (stance.rear_sag - stance.front_sag) * at / base
                    for at in (box.x0, box.x1)
                ) - box.z0  # fmt: skip
                if down > worst:
                    worst, name = down, s.name
        if worst > TOUCH:
            refs = _distinct(_thing_ref(context.assembly, x.owner), Ref("opening", x.id))
            result.append(
                Finding("move.low", "stop", f"{x.name} reaches the ground when the vehicle has settled ({name})", refs,
                        worst, 0.0, "mm", f"{GEOMETRY}, on its springs as loaded", where=(x.swept_box,))
            )  # fmt: skip
    return result


def _circles(assembly: Assembly, blocked: InOut) -> list[Finding]:
    """Word units of which each has to come out before the other."""
    result = []
    for group in blocked.circles:
        things = [t for t in assembly.things if t.id in group]
        words = " and ".join(t.name for t in things)
        refs = {t.id: t.ref for t in things}
        result.append(
            Finding("out.circle", "stop", f"{words} each have to come out before the other",
                    tuple(refs[g] for g in group), source=GEOMETRY, where=tuple(t.envelope for t in things))
        )  # fmt: skip
    return result


def _stopped(assembly: Assembly, run: RunThrough, last: Played) -> Finding:
    """Word a run-through that does not go through."""
    what = last.move.what
    opening = assembly.opening(what)
    subjects = _distinct(
        _thing_ref(assembly, opening.owner) if opening else None,
        Ref("opening", what) if what else None,
        Ref("run", run.id),
    )
    return Finding("move.run", "look", f"Run-through '{run.name}' stops: {last.words}", subjects,
                   source="the owner's run-throughs", where=last.where)  # fmt: skip


def _overlap(one: str, other: str, fit: FitResult) -> bool:
    """Say whether two things overlap at rest: told already."""
    return any(
        f.kind == "overlap"
        for pair in ((one, other), (other, one))
        for f in fit.pairs.get(pair, ())
    )


def _told(one: str, what: Ref, fit: FitResult) -> bool:
    """Say whether a thing overlaps what it meets at rest, or cannot pass its opening: told already."""
    if what.is_thing:
        return _overlap(one, what.id, fit)
    flaws = fit.alone.get(one, ())
    return any(f.kind in ("opening", "outside", "arch", "body") for f in flaws)


def _told_pair(
    conflict: tuple[str, str | Ref, Meeting], by_id: dict[str, Opening], overlapping: set[str]
) -> bool:
    """Say whether one of two things that meet overlaps something at rest."""
    x, y, _meeting = conflict
    other = (y.id if y.is_thing else "") if isinstance(y, Ref) else by_id[y].owner
    return not overlapping.isdisjoint({by_id[x].owner, other})


def _distinct(*refs: Ref | None) -> tuple[Ref, ...]:
    """Keep the first reference of each word; none for what there is not."""
    found: dict[str, Ref] = {}
    for ref in refs:
        if ref is not None:
            found.setdefault(ref.word, ref)
    return tuple(found.values())


def _thing_ref(assembly: Assembly, key: str) -> Ref | None:
    """The reference to a thing by its id; nothing for the body's own openings."""
    thing = assembly.thing(key) if key else None
    return thing.ref if thing is not None else None


def _subjects(assembly: Assembly, x: Opening, causes: list[Cause]) -> tuple[Ref, ...]:
    """A finding's subjects: the thing, the opening, and all that it meets."""
    own = _distinct(_thing_ref(assembly, x.owner), Ref("opening", x.id))
    return (*own, *(c.what for c in causes))


def _listed(causes: list[Cause]) -> str:
    """Name what is met: ``the roof, Tool drawer and Right door``."""
    names = [c.name for c in causes]
    return " and ".join(filter(None, (", ".join(names[:-1]), names[-1])))


def _blocked(x: Opening, causes: list[Cause], assembly: Assembly) -> Finding:
    """Word an opening that can never open."""
    late = causes[0].meeting.late
    severity: Severity = "look" if x.lifts or late else "stop"
    verb = "is" if len(causes) == 1 else "are"
    if late:
        title = f"{x.name} comes out, but does not open all the way: {_listed(causes)} {verb} in its way"
    elif [c.what for c in causes] == [GROUND]:
        title = f"{x.name} reaches the ground"
    else:
        title = f"{x.name} cannot open: {_listed(causes)} {verb} in its way"
        if all(c.both for c in causes):
            title += ", open or closed"
    depth = max(-c.meeting.gap for c in causes)
    return Finding(
        "move.blocked", severity, title, _subjects(assembly, x, causes), max(0.0, depth), 0.0, "mm", GEOMETRY,
        where=tuple(c.meeting.where for c in causes),
    )  # fmt: skip


def _near(x: Opening, causes: list[Cause], assembly: Assembly) -> Finding:
    """Word an opening that comes nearer than wanted."""
    return Finding(
        "move.near", "look", f"{x.name} passes very near to {_listed(causes)}", _subjects(assembly, x, causes),
        max(0.0, min(c.meeting.gap for c in causes)), assembly.shop.rules.moving_gap, "mm",
        f"{PRACTICE}, gap of moving parts", where=tuple(c.meeting.where for c in causes),
    )  # fmt: skip


def _deadlock(
    by_id: dict[str, Opening], group: tuple[str, ...], found: Togetherness, assembly: Assembly
) -> Finding:
    """Word openings that each wait for the other."""
    names = " and ".join(by_id[g].name for g in group)
    where = tuple(
        m.where for p, m in found.shut.items() if p[0] in group and p[1] in group and m.clashes
    )
    owners = _distinct(
        *(r for g in group for r in (_thing_ref(assembly, by_id[g].owner), Ref("opening", g)))
    )
    return Finding("move.deadlock", "stop", f"{names} each wait for the other to be opened first", owners,
                   source=GEOMETRY, where=where)  # fmt: skip


def _broken(
    wanted: TogetherSet, found: Plan, names: dict[str, str], by_id: dict[str, Opening],
    assembly: Assembly,
) -> Finding:  # fmt: skip
    """Word a set that does not hold."""
    own = Ref("set", wanted.id)
    if found.missing:
        return Finding("move.set", "look", f"Set '{wanted.name}' names '{found.missing[0]}', which does not open",
                       (own, *(Ref("opening", m) for m in found.missing)), source="the owner's sets")  # fmt: skip
    if not found.conflicts:
        members = tuple(
            _thing_ref(assembly, by_id[m].owner) or Ref("opening", m)
            for m in wanted.members
            if m in by_id
        )
        return Finding("move.set", "look", f"Set '{wanted.name}' does not hold: there is no order to open it in",
                       (*members, own), source="the owner's sets")  # fmt: skip
    x, y, meeting = found.conflicts[0]
    thing = assembly.thing(y) if isinstance(y, Ref) else None
    met = names[y] if isinstance(y, str) else thing.name if thing is not None else y.word
    more = len(found.conflicts) - 1
    tail = f", and {more} more" if more else ""
    other = y if isinstance(y, Ref) else _thing_ref(assembly, y) or Ref("opening", y)
    owners = _distinct(_thing_ref(assembly, by_id[x].owner), Ref("opening", x), other)
    return Finding(
        "move.set", "look",
        f"Set '{wanted.name}' does not hold: {names[x]} meets {met}{tail}",
        (*owners, own), max(0.0, -meeting.gap), 0.0, "mm", "the owner's sets",
        where=tuple(m.where for _x, _y, m in found.conflicts),
    )  # fmt: skip


# The cheapest change


STUDY = Study(
    KEY,
    study,
    needs=(closed.KEY, in_out.KEY, LOADS),
    judge=judge,
    codes=("move.", "out."),
    fixes=fixes,
)
