"""Actions of the stage Fit-out: opening together, several units at once, the other side, variants, runs."""

import functools
from typing import TYPE_CHECKING

from roomy_hull.actions.registry import Action, Asker
from roomy_hull.actions.workbench import Workbench
from roomy_hull.core.errors import UserError
from roomy_hull.job import layouts
from roomy_hull.job.model import Move
from roomy_hull.job.unit import Carried
from roomy_hull.studies.fit.run_through import RunResult, play
from roomy_hull.studies.fit.together import most_open, plan

if TYPE_CHECKING:
    from roomy_hull.verdict.compare import Exchange

PAGES = ("Drawing", "Together", "Run-through", "In and out", "Variants", "Solid")
"""The pages of the stage Fit-out, in the order of their keys."""
PAGE_KEYS = ("F2", "F3", "F4", "F5", "F7", "F12")


def has_unit(bench: Workbench) -> bool:
    """Enable only where a unit is selected."""
    thing = bench.job.thing(bench.selection)
    return thing is not None and not isinstance(thing, Carried)


def several(bench: Workbench) -> bool:
    """Enable only where more than one thing is selected."""
    return len(bench.chosen()) > 1


# What stands open


def open_most(bench: Workbench, _ask: Asker) -> None:
    """Open everything seen from here that can be open together; else close everything."""
    if bench.look.opened:
        bench.set_look(opened=frozenset())
        return
    found = bench.verdict.together
    side = bench.look.station
    here = [o for o in found.openings if o.side == side or side in ("above", "front", "underneath")]
    # Doors and carriers first, then units from the floor up: the order in which one would open them.
    order = {"outside": 1, "door": 0, "tray": 0, "unit": 2}
    here.sort(key=lambda o: (order[o.kind], o.rest_box.z0))
    chosen = most_open(found, tuple(o.id for o in here))
    bench.set_look(opened=frozenset(chosen))
    left = [o.name for o in here if o.id not in chosen]
    if left:
        bench.say(f"Stays closed, because it cannot be open with the others: {', '.join(left)}")


def keep_set(bench: Workbench, ask: Asker) -> None:
    """Declare that what stands open now has to be open together."""
    if not bench.look.opened:
        bench.say("Open what has to be open together first, then keep it as a set.", trouble=True)
        return
    name = ask.name("Name of the set", "Camp kitchen")
    if name:
        members = tuple(
            o.id for o in bench.verdict.assembly.openings() if o.id in bench.look.opened
        )
        if bench.attempt(
            f"keep the set {name}", lambda: layouts.with_set(bench.job, name, members)
        ):
            found = plan(bench.verdict.together, members)
            bench.say(f"'{name}' holds" if found.holds else f"'{name}' does not hold; see the findings",
                      trouble=not found.holds)  # fmt: skip


def keep_run(bench: Workbench, ask: Asker) -> None:
    """Keep a run-through of opening what stands open now, in an order in which it goes."""
    if not bench.look.opened:
        bench.say("Open what the run-through ends with first, then keep it.", trouble=True)
        return
    name = ask.name("Name of the run-through", "Make camp")
    if not name:
        return
    members = tuple(o.id for o in bench.verdict.assembly.openings() if o.id in bench.look.opened)
    order = plan(bench.verdict.together, members).order or members
    moves = tuple(Move(do="open", what=key) for key in order)
    if bench.attempt(
        f"keep the run-through {name}", lambda: layouts.with_run(bench.job, name, moves)
    ):
        bench.set_look(page="Run-through", run=bench.job.runs[-1].id, step=0)


def played(bench: Workbench) -> RunResult | None:
    """Play the chosen run-through from the start; none where there is none."""
    runs = {r.id: r for r in bench.job.runs}
    run = runs.get(bench.look.run) or next(iter(runs.values()), None)
    verdict = bench.verdict
    return None if run is None else play(verdict.assembly, verdict.together, verdict.in_out, run)


def go_to_step(bench: Workbench, step: int) -> None:
    """Show the drawing after so many moves of the chosen run-through, and where it fails."""
    result = played(bench)
    if result is None:
        bench.say("There is no run-through yet: open things, then keep them as one.")
        return
    step = min(max(step, 0), len(result.played))
    done = result.played[step - 1] if step else None
    changes: dict[str, object] = {"step": step, "opened": done.opened if done else frozenset()}
    if done is not None:
        opening = bench.verdict.assembly.opening(done.move.what)
        if opening is not None:
            changes["station"] = opening.side
    bench.set_look(**changes)
    if done is not None and not done.fine:
        run = bench.look.run or bench.job.runs[0].id
        finding = next(
            (f for f in bench.verdict.findings if f.code == "move.run" and run in f.subjects), None
        )
        bench.finding = finding
        bench.selection_changed.emit()
        bench.say(done.words, trouble=True)


# Several units at once


def _align(edge: str, bench: Workbench, _ask: Asker) -> None:
    bench.attempt(
        f"align {len(bench.chosen())} units",
        lambda: layouts.aligned(bench.job, bench.chosen(), edge),
    )


def _distribute(bench: Workbench, _ask: Asker) -> None:
    pitch = bench.pitch_of_selection()
    bench.attempt(
        "space units evenly", lambda: layouts.distributed(bench.job, bench.chosen(), pitch)
    )


def _copy_across(bench: Workbench, _ask: Asker) -> None:
    made: list[tuple[str, ...]] = []

    def make() -> object:
        job, keys = layouts.copied_across(bench.job, bench.chosen())
        made.append(keys)
        return job

    if bench.attempt("copy to the other side", make) and made and made[0]:  # type: ignore[arg-type]  # a Job
        bench.select(made[0][0])
        thing = bench.verdict.assembly.thing(made[0][0])
        if thing is not None and thing.place is not None:
            bench.set_look(station=thing.place.bay.side)


def _replace(bench: Workbench, ask: Asker) -> None:
    key = ask.chosen_entry()
    made = bench.entry(key).make if key else None
    if made is None or isinstance(made, Carried):
        bench.say(
            "Choose what is to come in the stores first, then replace the selected unit.",
            trouble=True,
        )
        return
    old = bench.job.thing(bench.selection)
    if old is not None:
        words = f"replace {old.name} by {made.name}"
        bench.attempt(words, lambda: layouts.replaced(bench.job, bench.selection, made))


# The other side


def exchange_words(found: "Exchange", what: str) -> str:
    """Say what would come of an exchange."""
    side = "right" if found.balance > 0 else "left"
    weigh = f"the {side} side would be {abs(found.balance):.0f} kg heavier"
    if found.works:
        more = f", {len(found.gone)} findings would go" if found.gone else ""
        return f"Yes: {what} would work on the other side{more}; {weigh}."
    stops = [f.title for f in found.new if f.weight == "stop"]
    return f"No: {what} would not work on the other side: {'; '.join(stops[:2])}{' …' if len(stops) > 2 else ''}"


def _would_it_work(bench: Workbench, _ask: Asker) -> None:
    from roomy_hull.verdict.compare import (
        other_side,  # read when wanted: the window opens the sooner
    )

    keys = bench.chosen()
    thing = bench.job.thing(bench.selection)
    what = (
        thing.name
        if thing is not None and len(keys) == 1
        else f"these {len(keys)}"
        if keys
        else "each side"
    )
    try:
        found = other_side(bench.verdict, keys, bench.look.scenario)
    except UserError as trouble:
        bench.say(str(trouble), trouble=True)
        return
    bench.say(exchange_words(found, what), trouble=not found.works)


def _exchange(bench: Workbench, _ask: Asker) -> None:
    bench.attempt("exchange left and right", lambda: layouts.exchanged(bench.job))


# Variants


def keep_variant(bench: Workbench, ask: Asker) -> None:
    """Keep the layout as it is, and go on with a copy under another name."""
    taken = {bench.job.layout, *(v.name for v in bench.job.variants)}
    wish = next(c for c in "ABCDEFGHIJKLMNOPQRSTUVWXYZ" if c not in taken)
    name = ask.name(f"'{bench.job.layout}' is kept. Name of the copy to go on with", wish)
    if name and bench.attempt(
        f"keep variant {bench.job.layout}", lambda: layouts.kept(bench.job, name)
    ):
        bench.say(f"Layout {bench.job.variants[-1].name} is kept; you are working on {name}.")


def _page(name: str, bench: Workbench, _ask: Asker) -> None:
    bench.set_look(stage="Fit-out", page=name)


def _step(by: int, bench: Workbench, _ask: Asker) -> None:
    bench.set_look(stage="Fit-out", page="Run-through")
    go_to_step(bench, bench.look.step + by)


_ALIGN = {"start": "Align front edges", "end": "Align rear edges", "floor": "Align undersides", "top": "Align tops",
          "front": "Align faces", "back": "Align backs"}  # fmt: skip


def actions() -> list[Action]:
    """Give the actions of this area, in the order of its menu."""
    ground = functools.partial(Action, everywhere=False)
    found = [
        Action(f"page.{name.lower().replace(' ', '_').replace('-', '_')}", name, f"The page {name} of Fit-out", "Unit",
               functools.partial(_page, name), (key,))
        for name, key in zip(PAGES, PAGE_KEYS, strict=True)
    ]  # fmt: skip
    found += [
        ground("look.open_all", "Open what can be open together", "From here, as much as goes; again to close",
               "Look", open_most, ("O",)),
        Action("unit.keep_set", "Keep what is open as a set…", "It then has to hold, or becomes a finding", "Unit",
               keep_set, ("Ctrl+T",), lambda b: bool(b.look.opened)),
        Action("unit.keep_run", "Keep what is open as a run-through…", "Played move by move", "Unit", keep_run, (),
               lambda b: bool(b.look.opened)),
        ground("unit.step_on", "Next move of the run-through", "Play one move", "Unit", functools.partial(_step, 1),
               (".",), lambda b: bool(b.job.runs)),
        ground("unit.step_back", "Move back in the run-through", "One move back", "Unit",
               functools.partial(_step, -1), (",",), lambda b: bool(b.job.runs)),
        Action("unit.would_it_work", "Would it work on the other side?", "The selection, or both whole sides", "Unit",
               _would_it_work, ("Ctrl+M",)),
        Action("unit.exchange", "Exchange left and right", "Every unit of both sides, handed things kept right",
               "Unit", _exchange),
        Action("unit.copy_across", "Copy to the other side", "Mirrored", "Unit", _copy_across, ("Ctrl+Shift+M",),
               lambda b: bool(b.selection)),
        Action("unit.replace", "Replace by the chosen of the stores", "Its place, id and note stay", "Unit", _replace,
               ("Ctrl+R",), has_unit),
        Action("unit.keep", "Keep the unit in my stores", "As an open file, for other jobs", "Unit",
               lambda b, _a: b.keep_unit(b.selection), (), has_unit),
        Action("unit.keep_variant", "Keep this layout as a variant…", "And go on with a copy", "Unit", keep_variant,
               ("Ctrl+Shift+V",)),
    ]  # fmt: skip
    found += [
        Action(f"unit.align_{edge}", words, "To the first one selected", "Unit", functools.partial(_align, edge), (),
               several)
        for edge, words in _ALIGN.items()
    ]  # fmt: skip
    found.append(Action("unit.space", "Space evenly along the wall", "The outer two stay", "Unit", _distribute, (),
                        lambda b: len(b.chosen()) > 2))  # fmt: skip
    return found
