"""The actions of this version, area by area."""

import functools
from collections.abc import Callable
from pathlib import Path

import msgspec

from roomy_hull.actions import fitting_out, loading
from roomy_hull.actions.finding_room import free_twin
from roomy_hull.actions.registry import Action, Asker, Registry
from roomy_hull.actions.workbench import STAGES, Workbench
from roomy_hull.core.errors import UserError
from roomy_hull.drawing.view import STATIONS, Station
from roomy_hull.formats import jobfile, vehiclefile
from roomy_hull.formats.demo import DEMOS, demo_job
from roomy_hull.job import edits
from roomy_hull.job.model import Job
from roomy_hull.kit import fitting

Run = Callable[[Workbench, Asker], None]


def _has_selection(bench: Workbench) -> bool:
    """Enable only where something is selected."""
    return bool(bench.selection)


def _slides(bench: Workbench) -> bool:
    """Enable only where something of the selection opens."""
    thing = bench.verdict.assembly.thing(bench.selection)
    return thing is not None and bool(thing.openings)


def _try(bench: Workbench, path: Path, what: str) -> None:
    """Open or save; trouble is told."""
    try:
        if what == "open":
            bench.open(path)
        else:
            bench.save(path)
    except UserError as trouble:
        bench.say(str(trouble), trouble=True)


def _open(bench: Workbench, ask: Asker) -> None:
    if ask.may_lose():
        path = ask.open_path()
        if path is not None:
            _try(bench, path, "open")


def _demo(name: str) -> Run:
    def run(bench: Workbench, ask: Asker) -> None:
        if ask.may_lose():
            bench.keeping.drop_autosave()
            bench.take(demo_job(name), None)

    return run


def _new(bench: Workbench, ask: Asker) -> None:
    if ask.may_lose():
        job = ask.new_job()
        if job is not None:
            bench.keeping.drop_autosave()
            bench.take(job, None, saved=False)
            bench.set_look(stage="Survey")


def _import_vehicle(bench: Workbench, ask: Asker) -> None:
    path = ask.vehicle_path(to_save=False)
    if path is not None:
        bench.attempt(
            "import a vehicle",
            lambda: msgspec.structs.replace(bench.job, vehicle=vehiclefile.load(path)),
        )


def _export_vehicle(bench: Workbench, ask: Asker) -> None:
    path = ask.vehicle_path(to_save=True)
    if path is None:
        return
    if not path.name.endswith(".json"):
        path = path.with_name(path.name + vehiclefile.SUFFIX)
    try:
        vehiclefile.save(bench.job.vehicle, path)
        bench.say(f"The vehicle is written to {path}")
    except UserError as trouble:
        bench.say(str(trouble), trouble=True)


def _under(what: str) -> Run:
    def run(bench: Workbench, _ask: Asker) -> None:
        bench.attempt(f"change {what}", lambda: fitting.toggled(bench.job, what))

    return run


def _long_range(bench: Workbench, _ask: Asker) -> None:
    def make() -> Job:
        vehicle = bench.job.vehicle
        tank = (
            None
            if vehicle.long_range
            else vehicle.fuel.but(litres=60.0, x=vehicle.wheelbase + 420, y=0.0)
        )
        new = msgspec.structs.replace(vehicle, long_range=tank)
        return msgspec.structs.replace(bench.job, vehicle=new)

    bench.attempt("change the long-range tank", make)


def _has_tray(bench: Workbench) -> bool:
    """Enable only on a tray."""
    return bench.job.body.tray.kind == "tray"


def _save(bench: Workbench, ask: Asker) -> None:
    if bench.path is None:
        _save_as(bench, ask)
    else:
        _try(bench, bench.path, "save")


def _save_as(bench: Workbench, ask: Asker) -> None:
    path = ask.save_path()
    if path is not None:
        if not path.name.endswith(".json"):
            path = path.with_name(path.name + jobfile.SUFFIX)
        _try(bench, path, "save")


def _cut(bench: Workbench, ask: Asker) -> None:
    stops = bench.verdict.count("stop")
    if stops and not ask.agree(
        f"{stops} stop findings are open. Metal cut by these files may not fit. Write them anyway?"
    ):
        return
    folder = ask.folder("Folder for the cut files")
    if folder is not None:
        ask.write_cut(folder)


def _delete(bench: Workbench, _ask: Asker) -> None:
    keys = bench.chosen()
    thing = bench.job.thing(bench.selection)
    if thing is not None:
        words = thing.name if len(keys) == 1 else f"{len(keys)} things"
        bench.edit(f"delete {words}", functools.reduce(edits.removed, keys, bench.job))


def _duplicate(bench: Workbench, _ask: Asker) -> None:
    thing = bench.verdict.assembly.thing(bench.selection)
    if thing is None:
        return
    value = thing.value
    new_id = edits.free_id(bench.job, value.id)
    if thing.place is not None:
        from_space = free_twin(bench.verdict.assembly, thing)
        if from_space is None:
            bench.say(
                f"There is no free place for a second {value.name} in this bay.", trouble=True
            )
            return
        copy = value.but(id=new_id, u=from_space[0], w=from_space[1])
    else:
        copy = value.but(id=new_id, y=thing.envelope.y1 + thing.envelope.size()[1] / 2 + 20)
    if bench.attempt(f"duplicate {value.name}", lambda: edits.added(bench.job, copy)):
        bench.select(new_id)


def _mirror(bench: Workbench, _ask: Asker) -> None:
    thing = bench.job.thing(bench.selection)
    if thing is None:
        return
    keys = bench.chosen()
    words = thing.name if len(keys) == 1 else f"{len(keys)} things"
    done = bench.attempt(
        f"mirror {words}", lambda: functools.reduce(edits.mirrored, keys, bench.job)
    )
    placed = bench.verdict.assembly.thing(thing.id)
    if done and placed is not None and placed.place is not None:
        bench.set_look(station=placed.place.bay.side)


def _nudge(du: int, dw: int, *, fine: bool = False) -> Run:
    def run(bench: Workbench, _ask: Asker) -> None:
        step = 1.0 if fine else bench.pitch_of_selection()
        up = 1.0 if fine else 5.0
        bench.nudge(du * step, dw * up)

    return run


def _turn(step: int) -> Run:
    def run(bench: Workbench, _ask: Asker) -> None:
        round_trip: tuple[Station, ...] = ("left", "rear", "right", "front")
        here = bench.look.station
        at = round_trip.index(here) if here in round_trip else 0
        bench.set_look(station=round_trip[(at + step) % 4])

    return run


def _stand(station: Station) -> Run:
    def run(bench: Workbench, _ask: Asker) -> None:
        bench.set_look(station=station)

    return run


def _stage(name: str) -> Run:
    def run(bench: Workbench, _ask: Asker) -> None:
        bench.set_look(stage=name)

    return run


def _select_step(step: int) -> Run:
    def run(bench: Workbench, _ask: Asker) -> None:
        station = bench.look.station
        keys = [
            t.id
            for t in bench.verdict.assembly.things
            if t.place is None or t.place.bay.side == station
            or station in ("above", "underneath", "front")
        ]  # fmt: skip
        if keys:
            at = keys.index(bench.selection) + step if bench.selection in keys else 0
            bench.select(keys[at % len(keys)])

    return run


def _next_finding(bench: Workbench, _ask: Asker) -> None:
    found = bench.verdict.open_findings()
    if not found:
        bench.say("Nothing is found wrong.")
        return
    keys = [f.key for f in found]
    at = keys.index(bench.finding.key) + 1 if bench.finding and bench.finding.key in keys else 0
    bench.show_finding(found[at % len(found)])


def _person(bench: Workbench, _ask: Asker) -> None:
    order = {0.0: 1530.0, 1530.0: 1870.0}
    bench.set_look(stature=order.get(bench.look.stature, 0.0))


def _units(bench: Workbench, _ask: Asker) -> None:
    system = "us" if bench.look.system == "metric" else "metric"
    bench.set_look(system=system)
    bench.keeping.keep_preferences(system=system)


def _theme(bench: Workbench, _ask: Asker) -> None:
    bench.set_look(dark=not bench.look.dark)
    bench.keeping.keep_preferences(dark=bench.look.dark)


def _scenario(bench: Workbench, _ask: Asker) -> None:
    ids = [s.id for s in bench.job.scenarios]
    at = ids.index(bench.look.scenario) if bench.look.scenario in ids else -1
    bench.set_look(scenario=ids[(at + 1) % len(ids)])


_WORDS: dict[str, str] = {
    "left": "Stand at the left", "rear": "Stand behind", "right": "Stand at the right",
    "front": "Stand in front", "above": "Look from above", "underneath": "Look from underneath",
}  # fmt: skip


_UNDER: dict[str, str] = {
    "box ahead left": "Toolbox ahead of the left wheel", "box ahead right": "Toolbox ahead of the right wheel",
    "box behind left": "Toolbox behind the left wheel", "box behind right": "Toolbox behind the right wheel",
    "trundle": "Trundle drawer under the tray", "tank": "Water tank under the tray",
}  # fmt: skip


def standard() -> Registry:
    """Give the registry of this version's actions.

    Returns
    -------
    Registry
        Every action of window, menu and key sheet.
    """
    ground = functools.partial(Action, everywhere=False)
    actions = [
        Action("job.new", "New job…", "Choose a vehicle and a first body", "Job", _new, ("Ctrl+N",)),
        Action("job.open", "Open…", "Open a job file", "Job", _open, ("Ctrl+O",)),
        Action("job.save", "Save", "Write the job; the previous version is kept", "Job", _save, ("Ctrl+S",)),
        Action("job.save_as", "Save as…", "Write the job to another file", "Job", _save_as,
               ("Ctrl+Shift+S",)),
        Action("job.cut", "Write cut files…", "DXF blanks, nested sheets, part and saw lists", "Job",
               _cut, ("Ctrl+E",)),
        Action("job.quit", "Quit", "Close Roomy Hull", "Job", lambda _b, a: a.quit(), ("Ctrl+Q",)),
        Action("edit.undo", "Undo", "Take the last step back", "Edit", lambda b, _a: b.undo(),
               ("Ctrl+Z",), lambda b: bool(b.history.undo_words())),
        Action("edit.redo", "Redo", "Bring the step back", "Edit", lambda b, _a: b.redo(),
               ("Ctrl+Shift+Z", "Ctrl+Y"), lambda b: bool(b.history.redo_words())),
        Action("edit.duplicate", "Duplicate", "A second one in the nearest free place", "Edit",
               _duplicate, ("Ctrl+D",), _has_selection),
        ground("edit.mirror", "Mirror to the other side", "The same place on the other side", "Edit",
               _mirror, ("M",), _has_selection),
        ground("edit.delete", "Delete", "Take it out of the job", "Edit", _delete,
               ("Del", "Backspace"), _has_selection),
        ground("edit.left", "Nudge left one pitch", "One rail pitch", "Edit", _nudge(-1, 0),
               ("Left",), _has_selection),
        ground("edit.right", "Nudge right one pitch", "One rail pitch", "Edit", _nudge(1, 0),
               ("Right",), _has_selection),
        ground("edit.up", "Nudge up 5 mm", "Off the floor", "Edit", _nudge(0, 1), ("Up",),
               _has_selection),
        ground("edit.down", "Nudge down 5 mm", "Towards the floor", "Edit", _nudge(0, -1), ("Down",),
               _has_selection),
        ground("edit.left_fine", "Nudge left 1 mm", "Off the pitch, if need be", "Edit",
               _nudge(-1, 0, fine=True), ("Shift+Left",), _has_selection),
        ground("edit.right_fine", "Nudge right 1 mm", "Off the pitch, if need be", "Edit",
               _nudge(1, 0, fine=True), ("Shift+Right",), _has_selection),
        ground("edit.up_fine", "Nudge up 1 mm", "By the millimetre", "Edit",
               _nudge(0, 1, fine=True), ("Shift+Up",), _has_selection),
        ground("edit.down_fine", "Nudge down 1 mm", "By the millimetre", "Edit",
               _nudge(0, -1, fine=True), ("Shift+Down",), _has_selection),
        Action("look.back", "Step round to the left", "Walk round the vehicle", "Look", _turn(-1), ("[",)),
        Action("look.on", "Step round to the right", "Walk round the vehicle", "Look", _turn(1), ("]",)),
    ]  # fmt: skip
    actions += [
        Action(f"look.{s}", _WORDS[s], "Stand there", "Look", _stand(s), (f"Ctrl+{n}",))
        for n, s in enumerate(STATIONS, 1)
    ]
    actions += [
        ground("look.whole", "Whole vehicle or body", "Fit the picture to the vehicle or to the body",
               "Look", lambda b, _a: b.set_look(whole=not b.look.whole), ("B",)),
        ground("look.open", "Open or close the selection", "Slides it out, turns it, lets it down", "Look",
               lambda b, _a: b.toggle_open(b.selection), ("Space",), _slides),
        ground("look.person", "Person: none, small, tall", "153 cm or 187 cm beside the body", "Look",
               _person, ("P",)),
        ground("look.next", "Select the next unit", "On this side", "Look", _select_step(1),
               ("N",)),
        ground("look.previous", "Select the previous unit", "On this side", "Look", _select_step(-1),
               ("Shift+N",)),
        Action("look.finding", "Next finding", "Turn to where it is", "Look", _next_finding, ("F8",)),
        Action("look.scenario", "Next scenario", "What is aboard, and how full", "Look", _scenario,
               ("F6",)),
        Action("look.units", "Metric or US customary", "Millimetres or inches to 1/16", "Look",
               _units, ("F9",)),
        Action("look.theme", "Light or dark", "For the office or the shed", "Look", _theme, ("F10",)),
    ]  # fmt: skip
    actions += [
        Action(
            f"job.demo_{key}",
            f"Demo: {words.split(',')[0]}",
            f"{words}; invented",
            "Job",
            _demo(key),
        )
        for key, words in DEMOS.items()
    ]
    actions += [
        Action(f"body.{what.replace(' ', '_')}", _UNDER[what], "Add it where there is room, or take it away",
               "Body", _under(what), (), _has_tray)
        for what in fitting.UNDER
    ]  # fmt: skip
    actions += [
        Action("vehicle.long_range", "Long-range fuel tank", "Add one behind the axle, or take it away", "Body",
               _long_range),
        Action("vehicle.import", "Import a vehicle…", "Take the vehicle of a file into this job", "Body",
               _import_vehicle),
        Action("vehicle.export", "Export the vehicle…", "Write it to a file, for other jobs", "Body",
               _export_vehicle),
    ]  # fmt: skip
    actions += fitting_out.actions()
    actions += loading.actions()
    actions += [
        Action(f"stage.{name.lower()}", name, f"Go to {name}", "Stage", _stage(name), (f"Alt+{n}",))
        for n, name in enumerate(STAGES, 1)
    ]
    actions += [
        Action("help.keys", "Key sheet", "Every key at a glance", "Help",
               lambda _b, a: a.show_keys(), ("F1",)),
        Action("help.find", "Find an action…", "Search all actions by their words", "Help",
               lambda _b, a: a.find_action(), ("Ctrl+K",)),
    ]  # fmt: skip
    return Registry(tuple(actions))
