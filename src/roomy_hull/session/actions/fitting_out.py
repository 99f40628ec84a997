"""Actions of the stage Fit-out: opening together, several units at once, the other side, variants, runs."""

import functools
from typing import TYPE_CHECKING

from roomy_hull.core.errors import UserError
from roomy_hull.core.refs import Ref
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import layouts
from roomy_hull.job.model import Move
from roomy_hull.session.actions.editing import pitch_of_selection
from roomy_hull.session.actions.looking import pages
from roomy_hull.session.actions.registry import Action
from roomy_hull.session.session import Session
from roomy_hull.session.worn import in_setup
from roomy_hull.studies.fit.plans import most_open, plan
from roomy_hull.studies.fit.run_through import RunResult, play

if TYPE_CHECKING:
    from roomy_hull.verdict.compare import Exchange


def has_unit(session: Session) -> bool:
    """Enable only where a unit is selected."""
    thing = session.job.thing(session.selection.key)
    return thing is not None and not isinstance(thing, Carried)


def several(session: Session) -> bool:
    """Enable only where more than one thing is selected."""
    return len(session.selection.ids()) > 1


# What stands open


def open_most(session: Session) -> None:
    """Open everything seen from here that can be open together; else close everything."""
    if session.look.opened:
        session.view.set(opened=frozenset())
        return
    found = in_setup(session).together
    side = session.look.station
    here = [o for o in found.openings if o.side == side or side in ("above", "front", "underneath")]
    # Doors and carriers first, then units from the floor up: the order in which one would open them.
    order = {"outside": 1, "door": 0, "tray": 0, "unit": 2}
    here.sort(key=lambda o: (order[o.kind], o.rest_box.z0))
    chosen = most_open(found, tuple(o.id for o in here))
    session.view.set(opened=frozenset(chosen))
    left = [o.name for o in here if o.id not in chosen]
    if left:
        session.say(f"Stays closed, because it cannot be open with the others: {', '.join(left)}")


def keep_set(session: Session) -> None:
    """Declare that what stands open now has to be open together."""
    if not session.look.opened:
        session.say("Open what has to be open together first, then keep it as a set.", trouble=True)
        return
    name = session.asker.name("Name of the set", "Camp kitchen")
    if name:
        members = tuple(
            o.id for o in in_setup(session).assembly.openings() if o.id in session.look.opened
        )
        if session.attempt(
            f"keep the set {name}", lambda: layouts.with_set(session.job, name, members)
        ):
            found = plan(in_setup(session).together, members)
            session.say(f"'{name}' holds" if found.holds else f"'{name}' does not hold; see the findings",
                      trouble=not found.holds)  # fmt: skip


def keep_run(session: Session) -> None:
    """Keep a run-through of opening what stands open now, in an order in which it goes."""
    if not session.look.opened:
        session.say("Open what the run-through ends with first, then keep it.", trouble=True)
        return
    name = session.asker.name("Name of the run-through", "Make camp")
    if not name:
        return
    members = tuple(
        o.id for o in in_setup(session).assembly.openings() if o.id in session.look.opened
    )
    order = plan(in_setup(session).together, members).order or members
    moves = tuple(Move(do="open", what=key) for key in order)
    if session.attempt(
        f"keep the run-through {name}", lambda: layouts.with_run(session.job, name, moves)
    ):
        session.view.turn_to(
            "Fit-out", "Run-through", play={"run": session.job.runs[-1].id, "step": 0}
        )


def played(session: Session) -> RunResult | None:
    """Play the chosen run-through from the start; none where there is none."""
    runs = {r.id: r for r in session.job.runs}
    run = runs.get(session.look.play.run) or next(iter(runs.values()), None)
    verdict = in_setup(session)
    return None if run is None else play(verdict.assembly, verdict.together, verdict.in_out, run)


def go_to_step(session: Session, step: int) -> None:
    """Show the drawing after so many moves of the chosen run-through, and where it fails."""
    result = played(session)
    if result is None:
        session.say("There is no run-through yet: open things, then keep them as one.")
        return
    step = min(max(step, 0), len(result.played))
    done = result.played[step - 1] if step else None
    changes: dict[str, object] = {
        "play": {"step": step},
        "opened": done.opened if done else frozenset(),
    }
    if done is not None:
        opening = in_setup(session).assembly.opening(done.move.what)
        if opening is not None:
            changes["station"] = opening.side
    session.view.set(**changes)
    if done is not None and not done.fine:
        run = session.look.play.run or session.job.runs[0].id
        finding = next(
            (
                f
                for f in session.known.findings
                if f.code == "move.run" and Ref("run", run) in f.subjects
            ),
            None,
        )
        session.selection.finding = finding
        session.selection.changed.emit()
        session.say(done.words, trouble=True)


# Several units at once


def _align(edge: str, session: Session) -> None:
    session.attempt(
        f"align {len(session.selection.ids())} units",
        lambda: layouts.aligned(session.job, session.selection.ids(), edge),
    )


def _distribute(session: Session) -> None:
    pitch = pitch_of_selection(session)
    session.attempt(
        "space units evenly",
        lambda: layouts.distributed(session.job, session.selection.ids(), pitch),
    )


def _copy_across(session: Session) -> None:
    made: list[tuple[str, ...]] = []

    def make() -> object:
        job, keys = layouts.copied_across(session.job, session.selection.ids())
        made.append(keys)
        return job

    if session.attempt("copy to the other side", make) and made and made[0]:  # type: ignore[arg-type]  # a Job
        session.selection.select(made[0][0])
        thing = session.known.assembly.thing(made[0][0])
        if thing is not None and thing.place is not None:
            session.view.set(station=thing.place.bay.side)


def _replace(session: Session) -> None:
    key = session.asker.chosen_entry()
    made = session.catalogue.entry(key).make if key else None
    if made is None or isinstance(made, Carried):
        session.say(
            "Choose what is to come in the stores first, then replace the selected unit.",
            trouble=True,
        )
        return
    old = session.job.thing(session.selection.key)
    if old is not None:
        words = f"replace {old.name} by {made.name}"
        session.attempt(words, lambda: layouts.replaced(session.job, session.selection.key, made))


# The other side


def exchange_words(found: "Exchange", what: str) -> str:
    """Say what would come of an exchange."""
    side = "right" if found.balance > 0 else "left"
    weigh = f"the {side} side would be {abs(found.balance):.0f} kg heavier"
    if found.works:
        more = f", {len(found.gone)} findings would go" if found.gone else ""
        return f"Yes: {what} would work on the other side{more}; {weigh}."
    stops = [f.title for f in found.new if f.severity == "stop"]
    return f"No: {what} would not work on the other side: {'; '.join(stops[:2])}{' …' if len(stops) > 2 else ''}"


def _would_it_work(session: Session) -> None:
    from roomy_hull.verdict.compare import (  # ruff: ignore[import-outside-top-level]  # rarely asked, and not to slow the start
        other_side,  # read when wanted: the window opens the sooner
    )

    keys = session.selection.ids()
    thing = session.job.thing(session.selection.key)
    what = (
        thing.name
        if thing is not None and len(keys) == 1
        else f"these {len(keys)}"
        if keys
        else "each side"
    )
    try:
        found = other_side(session.known, keys, session.look.scenario)
    except UserError as trouble:
        session.say(str(trouble), trouble=True)
        return
    session.say(exchange_words(found, what), trouble=not found.works)


def _exchange(session: Session) -> None:
    session.attempt("exchange left and right", lambda: layouts.exchanged(session.job))


def _keep_unit(session: Session) -> None:
    unit = session.job.thing(session.selection.key)
    if unit is not None and not isinstance(unit, Carried):
        session.catalogue.keep(unit)


# Variants


def keep_variant(session: Session) -> None:
    """Keep the layout as it is, and go on with a copy under another name."""
    taken = {session.job.layout, *(v.name for v in session.job.variants)}
    wish = next(c for c in "ABCDEFGHIJKLMNOPQRSTUVWXYZ" if c not in taken)
    name = session.asker.name(
        f"'{session.job.layout}' is kept. Name of the copy to go on with", wish
    )
    if name and session.attempt(
        f"keep variant {session.job.layout}", lambda: layouts.kept(session.job, name)
    ):
        session.say(f"Layout {session.job.variants[-1].name} is kept; you are working on {name}.")


def _step(by: int, session: Session) -> None:
    session.view.turn_to("Fit-out", "Run-through")
    go_to_step(session, session.look.play.step + by)


_ALIGN = {"start": "Align front edges", "end": "Align rear edges", "floor": "Align undersides", "top": "Align tops",
          "front": "Align faces", "back": "Align backs"}  # fmt: skip


def actions() -> list[Action]:
    """The actions of this area, in the order of its menu."""
    ground = functools.partial(Action, everywhere=False)
    found = pages("Fit-out", "Unit", "page")
    found += [
        ground("look.open_all", "Open what can be open together", "From here, as much as goes; again to close",
               "View", open_most, ("O",)),
        Action("unit.keep_set", "Keep what is open as a set…", "It then has to hold, or becomes a finding", "Unit",
               keep_set, ("Ctrl+T",), lambda s: bool(s.look.opened)),
        Action("unit.keep_run", "Keep what is open as a run-through…", "Played move by move", "Unit", keep_run, (),
               lambda s: bool(s.look.opened)),
        ground("unit.step_on", "Next move of the run-through", "Play one move", "Unit", functools.partial(_step, 1),
               (".",), lambda s: bool(s.job.runs)),
        ground("unit.step_back", "Move back in the run-through", "One move back", "Unit",
               functools.partial(_step, -1), (",",), lambda s: bool(s.job.runs)),
        Action("unit.would_it_work", "Would it work on the other side?", "The selection, or both whole sides", "Unit",
               _would_it_work, ("Ctrl+M",)),
        Action("unit.exchange", "Exchange left and right", "Every unit of both sides, handed things kept right",
               "Unit", _exchange),
        Action("unit.copy_across", "Copy to the other side", "Mirrored", "Unit", _copy_across, ("Ctrl+Shift+M",),
               lambda s: bool(s.selection.key)),
        Action("unit.replace", "Replace by the chosen of the stores", "Its place, id and note stay", "Unit", _replace,
               ("Ctrl+R",), has_unit),
        Action("unit.keep", "Keep the unit in my stores", "As an open file, for other jobs", "Unit",
               _keep_unit, (), has_unit),
        Action("unit.keep_variant", "Keep this layout as a variant…", "And go on with a copy", "Unit", keep_variant,
               ("Ctrl+Shift+V",)),
    ]  # fmt: skip
    found += [
        Action(f"unit.align_{edge}", words, "To the first one selected", "Unit", functools.partial(_align, edge), (),
               several)
        for edge, words in _ALIGN.items()
    ]  # fmt: skip
    found.append(Action("unit.space", "Space evenly along the wall", "The outer two stay", "Unit", _distribute, (),
                        lambda s: len(s.selection.ids()) > 2))  # fmt: skip
    return found
