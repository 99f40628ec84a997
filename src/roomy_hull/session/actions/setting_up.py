"""Actions of set-ups, of rooms and racks, and of the running gear."""

from roomy_hull.core.errors import InputError, UserError
from roomy_hull.formats.atomic import write_whole
from roomy_hull.formats.csv_tables import table
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import setups as edits
from roomy_hull.job.edits import units as unit_edits
from roomy_hull.job.model import Job
from roomy_hull.job.setups import SetUp
from roomy_hull.session.actions.registry import Action
from roomy_hull.session.session import Session
from roomy_hull.verdict.swaps import Swap, swap, swap_rows


def chosen(session: Session) -> SetUp | None:
    """The chosen set-up: that of the look, else the scenario's, else the first."""
    job = session.job
    for key in (session.look.setups.chosen, session.scenario().setup):
        found = job.setup(key)
        if found is not None:
            return found
    return job.setups[0] if job.setups else None


def _has(session: Session) -> bool:
    return chosen(session) is not None


def add(session: Session) -> None:
    """Add a set-up in which everything is on."""
    name = session.asker.name(
        "Name of the set-up", "Weekend" if session.job.setups else "Long trip"
    )
    if name and session.attempt(
        f"add the set-up {name}", lambda: edits.added(session.job, SetUp(id="x", name=name))
    ):
        session.view.turn_to("Fit-out", "Set-ups", setups={"chosen": session.job.setups[-1].id})


def copy(session: Session) -> None:
    """Add a copy of the chosen set-up."""
    one = chosen(session)
    name = session.asker.name("Name of the set-up", f"{one.name}, another way") if one else ""
    if (
        one
        and name
        and session.attempt(
            f"add the set-up {name}", lambda: edits.added(session.job, one.but(name=name))
        )
    ):
        session.view.set(setups={"chosen": session.job.setups[-1].id})


def rename(session: Session) -> None:
    """Give the chosen set-up another name."""
    one = chosen(session)
    name = session.asker.name("Name of the set-up", one.name) if one else ""
    if one and name:
        session.attempt("rename the set-up", lambda: edits.changed(session.job, one.id, name=name))


def drop(session: Session) -> None:
    """Delete the chosen set-up; its scenarios have everything on again."""
    one = chosen(session)
    if one is not None:
        session.attempt(f"delete the set-up {one.name}", lambda: edits.dropped(session.job, one.id))


def switch(session: Session, *, setup: str, what: str) -> bool:
    """Take something off in a set-up, or put it on again: a thing, room or rack, the canopy, the sides, a leaf."""
    one = session.job.setup(setup)
    if one is None:
        return False
    session.view.set(setups={"chosen": setup})
    if what in ("canopy", "sides"):
        return session.attempt(
            f"change the {what}", lambda: edits.changed(session.job, setup, **{what: not getattr(one, what)})
        )  # fmt: skip
    if what.startswith("door:"):
        doors = set(one.second_doors) ^ {what.removeprefix("door:")}
        return session.attempt(
            "change a leaf",
            lambda: edits.changed(session.job, setup, second_doors=tuple(sorted(doors))),
        )
    thing = session.job.thing(what)
    if not edits.can_be_off(thing):
        session.say("It is bolted to the vehicle for good: it is on in every set-up.", trouble=True)
        return False
    return session.attempt("change the set-up", lambda: edits.switched(session.job, setup, what))


def use(session: Session) -> None:
    """Weigh the chosen scenario in the chosen set-up."""
    one, scenario = chosen(session), session.scenario()
    if one is not None:
        session.attempt(
            f"weigh {scenario.name} in {one.name}",
            lambda: edits.used(session.job, one.id, scenario.id),
        )


def leave(session: Session) -> None:
    """Leave the selection off in the chosen set-up, or put it on again."""
    one = chosen(session)
    if one is not None:
        for key in session.selection.ids():
            switch(session, setup=one.id, what=key)


def between(session: Session) -> tuple[str, str]:
    """Between which set-ups the swap is told: as chosen, else the first two; empty where there are fewer."""
    keys = [s.id for s in session.job.setups]
    if len(keys) < 2:
        return "", ""
    a, b = session.look.setups.swap
    a = a if a in keys else keys[0]
    return a, b if b in keys and b != a else next(k for k in keys if k != a)


def told(session: Session) -> Swap | None:
    """The swap that is looked at; none where there are no two set-ups, or it cannot be told."""
    a, b = between(session)
    try:
        return swap(session.verdict, a, b) if a else None
    except InputError as trouble:
        session.say(str(trouble), trouble=True)
        return None


def write(session: Session) -> None:
    """Write the swap list as a table."""
    found = told(session)
    if found is None:
        return
    path = session.asker.file(
        "Swap list", "Tables (*.csv)", f"swap-{found.start.id}-to-{found.end.id}.csv", to_save=True
    )
    if path is None:
        return
    try:
        write_whole(path, table(swap_rows(found)).encode(), named=True)
    except UserError as trouble:
        session.say(str(trouble), trouble=True)
        return
    session.say(f"Written to {path}")


def _fix_to(session: Session) -> None:
    """Fix the selected carried things to a rack or rear wall, at the nearest place, or to nothing."""
    job = session.job
    names = {
        r.name if [x.name for x in job.body.racks].count(r.name) == 1 else r.id: r.id
        for r in job.body.racks
    }
    words = session.asker.choose("Fix it to", (*names, "nothing"))
    if not words:
        return
    key = names.get(words, "")
    ids = [k for k in session.selection.ids() if isinstance(job.thing(k), Carried)]

    def make() -> Job:
        found = session.job
        for one in ids:
            thing = found.thing(one)
            rack = session.verdict.assembly.ground.rack(key)
            changes: dict[str, object] = {"on": key}
            if rack is not None and isinstance(thing, Carried):
                changes |= rack.nearest(thing)
            found = unit_edits.changed(found, one, **changes)
        return found

    session.attempt(f"fix to {words}", make)


def _has_carried(session: Session) -> bool:
    return bool(session.job.body.racks) and any(
        isinstance(session.job.thing(k), Carried) for k in session.selection.ids()
    )


def actions() -> list[Action]:
    """Declare the actions of set-ups, in the order of the menu."""
    return [
        Action("setup.add", "Add a set-up…", "What is on the vehicle for one use", "Unit", add, ("Ctrl+Alt+U",)),
        Action("setup.copy", "Copy the set-up…", "The chosen one, under another name", "Unit", copy, (), _has),
        Action("setup.rename", "Rename the set-up…", "The chosen one", "Unit", rename, (), _has),
        Action("setup.drop", "Delete the set-up", "Its scenarios have everything on again", "Unit", drop, (), _has),
        Action("setup.use", "Weigh the scenario in the set-up", "That chosen below, in the chosen one", "Unit", use, (),
               _has),
        Action("setup.leave", "Off or on in the set-up", "The selection, in the chosen set-up", "Unit", leave,
               ("Ctrl+U",), lambda s: _has(s) and bool(s.selection.key)),
        Action("setup.write", "Write the swap list…", "From one set-up to the other, step by step", "Unit", write, (),
               lambda s: len(s.job.setups) > 1),
        Action("rack.fix", "Fix to a rack…", "At the nearest of its holes, or to nothing", "Unit", _fix_to, (),
               _has_carried),
    ]  # fmt: skip
