"""Edits that take something: what a card, a list, a hand on the drawing or a button asks for."""

from collections.abc import Callable

from roomy_hull.core.days import today
from roomy_hull.core.findings import Finding, Fix
from roomy_hull.job.brief import Need, Wish
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import layouts, scenarios
from roomy_hull.job.edits import units as edits
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.model import Acceptance, Job
from roomy_hull.kinds.placed import Placed
from roomy_hull.session.finding_room import first_place, side_of, why_not
from roomy_hull.session.placing import carried_place
from roomy_hull.session.session import Session
from roomy_hull.studies.fit.mending import applied


def set_field(session: Session, *, thing: str, field: str, value: object) -> bool:
    """Change one field of a unit or carried item, as one step."""
    found = session.job.thing(thing)
    name = found.name if found else thing
    return session.attempt(
        f"change {field} of {name}", lambda: edits.changed(session.job, thing, **{field: value})
    )


def set_size(session: Session, *, path: str, value: object) -> bool:
    """Set a value of vehicle, body, scenario or brief by its path, as one step; what depends on it goes along."""
    name = path.rsplit(".", 1)[-1].replace("_", " ")
    return session.attempt(f"change {name}", lambda: resized(session.job, path, value))


def apply(session: Session, *, fix: Fix) -> bool:
    """Apply a computed fix, as one step."""
    return session.attempt(fix.words, lambda: applied(session.job, fix))


def accept(session: Session, *, finding: Finding, reason: str, initials: str) -> None:
    """Record that a *look* was accepted."""
    if finding.severity != "look":
        session.say("A stop cannot be accepted; it has to be mended.", trouble=True)
        return
    if not reason.strip() or not initials.strip():
        session.say("Accepting wants a reason and initials.", trouble=True)
        return
    record = Acceptance(
        code=finding.code, subjects=finding.words, scenario=finding.scenario,
        reason=reason.strip()[:400], initials=initials.strip()[:8], day=today().isoformat(),
        measured=finding.measured, limit=finding.limit, unit=finding.unit,
    )  # fmt: skip
    session.edit(f"accept: {finding.title}", edits.accepted(session.job, record))


def place(session: Session, *, entry: str, bay: str = "", u: float = 0.0, w: float = 0.0) -> str:
    """Place a thing from the stores as one step.

    Args:
        bay: Id of the bay; without one it goes to the first free place on the side where one stands.
        u, w: Where in the bay. [mm]
    Returns: Its id; empty where it was refused.
    """
    made = session.catalogue.entry(entry).make
    station = session.look.station
    if isinstance(made, Carried):
        thing: Placed | Carried = carried_place(session.known, made, station)
    else:
        at = (bay, u, w) if bay else first_place(session.known, made, side_of(station))
        if at is None:
            why = why_not(session.known.assembly, made, side_of(station))
            session.say(f"{made.name} fits no bay on this side: {why}", trouble=True)
            return ""
        thing = made.but(bay=at[0], u=at[1], w=at[2])
    wish = edits.free_id(session.job, thing.id)
    if not session.attempt(f"place {thing.name}", lambda: edits.added(session.job, thing)):
        return ""
    session.selection.select(wish)
    return wish


def put_down(session: Session, *, thing: Placed | Carried) -> str:
    """Put down what came from the stores in one's hand, as one step; the answer is its id."""
    settled = session.history.settled
    new = thing.but(id=edits.free_id(settled, thing.id))
    if session.edit(f"place {new.name}", edits.added(settled, new)):
        session.selection.select(new.id)
    return new.id


def end_gesture(session: Session, *, words: str) -> None:
    """End a gesture: what it shows becomes one step."""
    session.edit(words, session.history.job)


def toggle_open(session: Session, *, key: str) -> None:
    """Open or close everything that opens on a thing, or one opening by its own id."""
    thing = session.known.assembly.thing(key)
    opening = session.known.assembly.opening(key)
    keys: set[str] = set()
    if thing is not None:
        keys = {o.id for o in thing.openings}
    elif opening is not None:
        keys = {opening.id}
    if not keys:
        session.say("This has nothing that opens.")
        return
    opened = session.look.opened
    session.view.set(opened=opened - keys if keys <= opened else opened | keys)


def drop_set(session: Session, *, key: str) -> None:
    """Drop one of the owner's sets."""
    name = next(s.name for s in session.job.sets if s.id == key)
    session.edit(f"drop the set {name}", layouts.without_set(session.job, key))


def drop_run(session: Session, *, key: str) -> None:
    """Drop a run-through."""
    name = next(r.name for r in session.job.runs if r.id == key)
    session.edit(f"drop the run-through {name}", layouts.without_run(session.job, key))


def take_variant(session: Session, *, key: str) -> None:
    """Take a variant in hand; the layout in hand takes its place."""
    name = next(v.name for v in session.job.variants if v.id == key)
    session.edit(f"take layout {name} in hand", layouts.taken(session.job, key))


def drop_variant(session: Session, *, key: str) -> None:
    """Drop a variant."""
    name = next(v.name for v in session.job.variants if v.id == key)
    session.edit(f"drop layout {name}", layouts.dropped(session.job, key))


def make_better(session: Session, *, words: str, job: Job) -> None:
    """Make one of the changes that were found to gain most."""
    session.edit(words, job)


def add_weighing(session: Session, *, make: Callable[[], Job]) -> bool:
    """Enter what scales said, as one step; what was typed may be refused."""
    return session.attempt("enter a weighing", make)


def drop_weighing(session: Session, *, key: str) -> bool:
    """Delete a weighing."""
    return session.attempt("delete a weighing", lambda: scenarios.unweighed(session.job, key))


def add_wish(session: Session, *, name: str, need: Need, mass: float, x: float) -> bool:
    """Add something to the brief, as one step. [kg, mm]"""

    def make() -> Job:
        wish = Wish(id="new", name=name, need=need).but(mass=mass, x=x)
        return scenarios.wished(session.job, wish)

    return session.attempt(f"wish for {name}", make)


def drop_wish(session: Session, *, key: str) -> bool:
    """Take a wish out of the brief."""
    name = next(w.name for w in session.job.brief.wishes if w.id == key)
    return session.attempt(
        f"delete the wish {name}", lambda: scenarios.without_wish(session.job, key)
    )


def nudge(session: Session, du: float, dw: float) -> None:
    """Move the selection along the wall and up, in the directions of the picture.

    Args:
        du, dw: To the right and up as one sees it; a carried item moves along x (or y from the ends) and z. [mm]
    """
    chosen = session.selection
    thing = session.job.thing(chosen.key)
    if thing is None:
        return
    station = session.look.station
    if isinstance(thing, Carried):
        field = "y" if station in ("rear", "front") else "x"
        sign = -1.0 if station in ("right", "front") else 1.0
        changes = {field: getattr(thing, field) + sign * du, "z": thing.z + dw}
        session.attempt(
            f"move {thing.name}", lambda: edits.changed(session.job, thing.id, **changes)
        )
        return
    placed = session.known.assembly.thing(thing.id)
    side = placed.place.bay.side if placed and placed.place else "left"
    sign = -1.0 if side == "right" else 1.0
    words = f"move {thing.name}" if not chosen.also else f"move {len(chosen.ids())} units"
    session.attempt(words, lambda: layouts.shifted(session.job, chosen.ids(), sign * du, 0.0, dw))


def pitch_of_selection(session: Session) -> float:
    """The rail pitch under the selection, or a handy step where there is none. [mm]"""
    thing = session.known.assembly.thing(session.selection.key)
    pitch = thing.place.bay.pitch if thing and thing.place else 0.0
    return pitch if pitch > 0 else 25.0
