"""Actions of the stage Loads: its pages, scenarios, springs, the brief, weighings and the load sheet."""

import functools

from roomy_hull.actions.registry import Action, Asker
from roomy_hull.actions.workbench import Workbench
from roomy_hull.job import scenarios
from roomy_hull.job.model import Scenario, Wish

LOADS_PAGES = ("Board", "Levers", "Budget", "Springs", "Chassis", "Strength", "Stability", "Sheet")
"""The pages of the stage Loads, in the order of their keys."""
LOADS_KEYS = tuple(f"Ctrl+Alt+{n}" for n in range(1, len(LOADS_PAGES) + 1))


def missing(bench: Workbench) -> tuple[Scenario, ...]:
    """Give the usual scenarios that the job does not have by name."""
    have = {s.name for s in bench.job.scenarios}
    return tuple(s for s in scenarios.usual(bench.job) if s.name not in have)


def add_usual(bench: Workbench, _ask: Asker) -> None:
    """Add every usual scenario that is not there yet, as one step."""
    new = missing(bench)

    def make() -> object:
        job = bench.job
        for scenario in new:
            job = scenarios.added(job, scenario)
        return job

    if bench.attempt("add the usual scenarios", make):  # type: ignore[arg-type]  # a Job
        bench.say(f"Added: {', '.join(s.name for s in new)}. Change them on the card.")


def copy_scenario(bench: Workbench, ask: Asker) -> None:
    """Add a copy of the chosen scenario and choose it."""
    name = ask.name("Name of the scenario", f"{bench.scenario().name}, another way")
    key = bench.scenario().id
    if name and bench.attempt(
        f"add scenario {name}", lambda: scenarios.copied(bench.job, key, name)
    ):
        bench.set_look(scenario=bench.job.scenarios[-1].id)


def drop_scenario(bench: Workbench, _ask: Asker) -> None:
    """Delete the chosen scenario."""
    one = bench.scenario()
    if bench.attempt(f"delete scenario {one.name}", lambda: scenarios.dropped(bench.job, one.id)):
        bench.set_look(scenario=bench.job.scenarios[0].id)


def leave(bench: Workbench, _ask: Asker) -> None:
    """Leave the selection at home in the chosen scenario, or take it along again."""
    one = bench.scenario()
    keys = bench.chosen()
    behind = set(one.left_behind)
    back = behind.issuperset(keys)
    new = behind - set(keys) if back else behind | set(keys)
    order = tuple(sorted(new))
    words = "take along" if back else "leave at home"
    bench.set_path(f"scenarios.{one.id}.left_behind", order)
    bench.say(f"{words.capitalize()} in '{one.name}': {', '.join(keys)}")


def add_wish(bench: Workbench, ask: Asker) -> None:
    """Add something to the brief."""
    name = ask.name("What is wished for?", "Second spare wheel")
    if name:
        bench.attempt(
            f"wish for {name}", lambda: scenarios.wished(bench.job, Wish(id="w", name=name))
        )
        bench.set_look(stage="Loads", loads_page="Budget")


def write_sheet(_bench: Workbench, ask: Asker) -> None:
    """Write the load sheet as PDF and CSV."""
    folder = ask.folder("Write the load sheet to")
    if folder is not None:
        ask.write_sheet(folder)


def _page(name: str, bench: Workbench, _ask: Asker) -> None:
    bench.set_look(stage="Loads", loads_page=name)


def _has_selection(bench: Workbench) -> bool:
    return bool(bench.selection)


def actions() -> list[Action]:
    """Give the actions of this area, in the order of its menu."""
    found = [
        Action(f"loads.{name.lower()}", name, f"The page {name} of Loads", "Loads",
               functools.partial(_page, name), (key,))
        for name, key in zip(LOADS_PAGES, LOADS_KEYS, strict=True)
    ]  # fmt: skip
    found += [
        Action("loads.usual", "Add the usual scenarios", "Those of the trade that are not there yet", "Loads",
               add_usual, (), lambda b: bool(missing(b))),
        Action("loads.copy", "Copy the scenario…", "Then change the copy on the card", "Loads", copy_scenario,
               ("Ctrl+Shift+D",)),
        Action("loads.drop", "Delete the scenario", "The chosen one", "Loads", drop_scenario, (),
               lambda b: len(b.job.scenarios) > 1),
        Action("loads.leave", "Leave the selection at home", "In the chosen scenario; again to take it along", "Loads",
               leave, ("Ctrl+H",), _has_selection),
        Action("loads.wish", "Wish for something…", "Into the brief, with its mass", "Loads", add_wish, ()),
        Action("loads.write", "Write the load sheet…", "PDF and CSV, for customer and certifying engineer", "Loads",
               write_sheet, ("Ctrl+Shift+L",)),
    ]  # fmt: skip
    return found
