"""Actions of the stage Loads: its pages, scenarios, springs, the brief, weighings and the load sheet."""

from roomy_hull.job.brief import Wish
from roomy_hull.job.edits import scenarios
from roomy_hull.job.model import Scenario
from roomy_hull.session.actions import editing
from roomy_hull.session.actions.looking import pages
from roomy_hull.session.actions.registry import Action
from roomy_hull.session.session import Session


def missing(session: Session) -> tuple[Scenario, ...]:
    """The usual scenarios that the job does not have by name."""
    have = {s.name for s in session.job.scenarios}
    return tuple(s for s in scenarios.usual(session.job) if s.name not in have)


def add_usual(session: Session) -> None:
    """Add every usual scenario that is not there yet, as one step."""
    new = missing(session)

    def make() -> object:
        job = session.job
        for scenario in new:
            job = scenarios.added(job, scenario)
        return job

    if session.attempt("add the usual scenarios", make):  # type: ignore[arg-type]  # a Job
        session.say(f"Added: {', '.join(s.name for s in new)}. Change them on the card.")


def copy_scenario(session: Session) -> None:
    """Add a copy of the chosen scenario and choose it."""
    name = session.asker.name("Name of the scenario", f"{session.scenario().name}, another way")
    key = session.scenario().id
    if name and session.attempt(
        f"add scenario {name}", lambda: scenarios.copied(session.job, key, name)
    ):
        session.view.set(scenario=session.job.scenarios[-1].id)


def drop_scenario(session: Session) -> None:
    """Delete the chosen scenario."""
    one = session.scenario()
    if session.attempt(
        f"delete scenario {one.name}", lambda: scenarios.dropped(session.job, one.id)
    ):
        session.view.set(scenario=session.job.scenarios[0].id)


def leave(session: Session) -> None:
    """Leave the selection at home in the chosen scenario, or take it along again."""
    key = session.scenario().id
    one = next(s for s in session.job.scenarios if s.id == key)
    keys = session.selection.ids()
    behind = set(one.left_behind)
    back = behind.issuperset(keys)
    new = behind - set(keys) if back else behind | set(keys)
    order = tuple(sorted(new))
    words = "take along" if back else "leave at home"
    editing.set_size(session, path=f"scenarios.{one.id}.left_behind", value=order)
    session.say(f"{words.capitalize()} in '{one.name}': {', '.join(keys)}")


def add_wish(session: Session) -> None:
    """Add something to the brief."""
    name = session.asker.name("What is wished for?", "Second spare wheel")
    if name:
        session.attempt(
            f"wish for {name}", lambda: scenarios.wished(session.job, Wish(id="w", name=name))
        )
        session.view.turn_to("Loads", "Budget")


def write_sheet(session: Session) -> None:
    """Write the load sheet as PDF and CSV."""
    folder = session.asker.folder("Write the load sheet to")
    if folder is not None:
        session.asker.write_sheet(folder)


def _has_selection(session: Session) -> bool:
    return bool(session.selection.key)


def actions() -> list[Action]:
    """The actions of this area, in the order of its menu."""
    found = pages("Loads", "Loads", "loads")
    found += [
        Action("loads.usual", "Add the usual scenarios", "Those of the trade that are not there yet", "Loads",
               add_usual, (), lambda s: bool(missing(s))),
        Action("loads.copy", "Copy the scenario…", "Then change the copy on the card", "Loads", copy_scenario,
               ("Ctrl+Shift+D",)),
        Action("loads.drop", "Delete the scenario", "The chosen one", "Loads", drop_scenario, (),
               lambda s: len(s.job.scenarios) > 1),
        Action("loads.leave", "Leave the selection at home", "In the chosen scenario; again to take it along", "Loads",
               leave, ("Ctrl+H",), _has_selection),
        Action("loads.wish", "Wish for something…", "Into the brief, with its mass", "Loads", add_wish, ()),
        Action("loads.write", "Write the load sheet…", "PDF and CSV, for customer and certifying engineer", "Loads",
               write_sheet, ("Ctrl+Shift+L",)),
    ]  # fmt: skip
    return found
