from pathlib import Path

import msgspec
import pytest

from roomy_hull.actions.fields import Field, fields_of, shown, typed
from roomy_hull.actions.registry import Registry
from roomy_hull.actions.snapping import snapped
from roomy_hull.actions.standard import standard
from roomy_hull.actions.workbench import Workbench
from roomy_hull.core.errors import InputError, JobFileError
from roomy_hull.formats import jobfile
from roomy_hull.job import edits
from roomy_hull.job.model import Job


class Answers:
    """Somebody to ask who has made up their mind."""

    def __init__(self, path: Path | None = None, *, agrees: bool = True) -> None:
        self.path, self.agrees, self.asked = path, agrees, list[str]()

    def open_path(self) -> Path | None:
        return self.path

    def save_path(self) -> Path | None:
        return self.path

    def folder(self, words: str) -> Path | None:
        self.asked.append(words)
        return self.path

    def may_lose(self) -> bool:
        return self.agrees

    def new_job(self) -> Job | None:
        return None

    def vehicle_path(self, *, to_save: bool) -> Path | None:
        return self.path

    def agree(self, words: str) -> bool:
        self.asked.append(words)
        return self.agrees

    def show_keys(self) -> None:
        self.asked.append("keys")

    def find_action(self) -> None:
        self.asked.append("find")

    def quit(self) -> None:
        self.asked.append("quit")

    def write_cut(self, folder: Path) -> None:
        self.asked.append(f"cut {folder.name}")


@pytest.fixture(scope="module")
def registry() -> Registry:
    return standard()


def run(registry: Registry, bench: Workbench, key: str, answers: Answers | None = None) -> Answers:
    answers = answers or Answers()
    registry.get(key).run(bench, answers)
    return answers


def test_actions_are_declared_once_with_words_tip_and_keys(registry: Registry) -> None:
    ids = [a.id for a in registry.all()]
    assert len(set(ids)) == len(ids)
    keys = [k for a in registry.all() for k in a.keys]
    assert len(set(keys)) == len(keys), "a key does two things"
    for action in registry.all():
        assert action.words
        assert action.tip
        assert action.menu in {"Job", "Edit", "Look", "Body", "Unit", "Loads", "Stage", "Help"}
    assert len(registry.key_sheet()) == sum(bool(a.keys) for a in registry.all())


def test_a_thing_from_the_stores_goes_to_the_first_free_place(bench: Workbench) -> None:
    for key in ("bedding", "camp"):
        bench.edit("clear", edits.removed(bench.job, key))
    made = bench.place("drawer")
    unit = bench.job.thing(made)
    assert unit is not None
    assert (unit.bay, unit.w) == ("R", 0)  # type: ignore[union-attr]
    assert unit.u % 25 == 0  # type: ignore[union-attr]
    assert bench.selection == made
    assert not [f for f in bench.verdict.findings if made in f.subjects]
    bench.undo()
    assert bench.job.thing(made) is None


def test_what_fits_nowhere_says_so_and_is_not_placed(bench: Workbench) -> None:
    before = bench.job
    assert bench.place("fridge-60") == ""
    assert bench.job is before
    assert bench.trouble
    assert "no free place left" in bench.message
    bench.set_look(station="rear")
    assert bench.place("fridge-60") == ""
    assert "410 mm too deep" in bench.message or "deep" in bench.message


@pytest.mark.parametrize("key", ["spare", "jerry", "tent", "load"])
def test_carried_things_go_where_such_things_go(bench: Workbench, key: str) -> None:
    made = bench.place(key)
    item = bench.verdict.assembly.thing(made)
    assert item is not None
    if item.value.on_roof:  # type: ignore[union-attr]
        assert item.envelope.z0 > bench.verdict.assembly.ground.canopy.z1  # type: ignore[union-attr]
    else:
        assert item.envelope.x0 >= bench.verdict.assembly.ground.tray["floor"].x1


def test_duplicate_mirror_delete_and_undo(registry: Registry, bench: Workbench) -> None:
    bench.select("camp")
    run(registry, bench, "edit.duplicate")
    assert "no free place for a second Camp drawer" in bench.message
    bench.edit("clear", edits.removed(bench.job, "bedding"))
    bench.select("bird-bags")
    run(registry, bench, "edit.duplicate")
    assert bench.selection == "bird-bags-2"
    assert not [f for f in bench.verdict.findings if "bird-bags-2" in f.subjects]
    run(registry, bench, "edit.mirror")
    assert bench.job.thing("bird-bags-2").bay == "L"  # type: ignore[union-attr]
    assert bench.look.station == "left"
    run(registry, bench, "edit.delete")
    assert bench.job.thing("bird-bags-2") is None
    assert bench.selection == ""
    for _ in range(3):
        run(registry, bench, "edit.undo")
    assert bench.job.thing("bedding") is None
    run(registry, bench, "edit.redo")
    assert bench.job.thing("bird-bags-2") is not None
    bench.select("spare")
    run(registry, bench, "edit.duplicate")
    assert bench.selection == "spare-2"


def test_what_cannot_be_mirrored_is_told(registry: Registry, bench: Workbench) -> None:
    canopy = bench.job.body.canopy
    assert canopy is not None
    one_sided = msgspec.structs.replace(canopy, bays=tuple(b for b in canopy.bays if b.id != "L"))
    body = msgspec.structs.replace(bench.job.body, canopy=one_sided)
    units = tuple(u for u in bench.job.units if u.bay != "L")
    bench.edit("one side", msgspec.structs.replace(bench.job, body=body, units=units))
    bench.select("tools")
    run(registry, bench, "edit.mirror")
    assert "no counterpart" in bench.message


@pytest.mark.parametrize(
    ("key", "station", "action", "field", "by"),
    [
        ("sample-fridge", "right", "edit.left", "u", 25),
        ("sample-fridge", "right", "edit.right", "u", -25),
        ("wet-bench", "left", "edit.right", "u", 25),
        ("wet-bench", "left", "edit.left_fine", "u", -1),
        ("waders", "rear", "edit.right", "u", 25),
        ("wet-bench", "left", "edit.up", "w", 5),
        ("wet-bench", "left", "edit.down_fine", "w", -1),
        ("spare", "rear", "edit.right", "y", 25),
        ("spare", "left", "edit.right", "x", 25),
        ("spare", "right", "edit.right", "x", -25),
        ("spare", "front", "edit.right", "y", -25),
    ],
)
def test_arrows_move_the_way_they_point(
    registry: Registry, bench: Workbench, key: str, station: str, action: str, field: str, by: float
) -> None:
    bench.set_look(station=station)
    bench.select(key)
    before = getattr(bench.job.thing(key), field)
    run(registry, bench, action)
    assert getattr(bench.job.thing(key), field) - before == by


def test_a_gesture_of_fifty_moves_is_one_step(bench: Workbench) -> None:
    demo = bench.job
    seen: list[float] = []
    bench.job_changed.connect(lambda: seen.append(bench.verdict.loads.scenario("full").rear.value))
    for n in range(50):
        bench.preview(edits.changed(bench.history.settled, "camp", u=float(n)))
    bench.settle("move camp")
    assert len(set(seen)) == 50
    bench.undo()
    assert bench.job is demo


def test_notices_come_only_on_a_real_change(bench: Workbench) -> None:
    heard: list[str] = []
    bench.selection_changed.connect(lambda: heard.append("selection"))
    bench.look_changed.connect(lambda: heard.append("look"))
    bench.select("tools")
    bench.select("tools")
    bench.set_look(station="left")
    bench.set_look(station="left")
    assert heard == ["selection", "look"]


def test_a_finding_turns_one_to_where_it_is(registry: Registry, bench: Workbench) -> None:
    bench.set_look(station="rear", stage="Cut")
    run(registry, bench, "look.finding")
    assert bench.finding is not None
    assert bench.selection == "tools"
    assert bench.look.station == "right"
    assert bench.look.stage == "Fit-out"
    bench.edit("mend", edits.changed(bench.job, "tools", contents=10.0))
    assert bench.finding is None
    run(registry, bench, "look.finding")
    assert bench.finding is not None
    assert bench.finding.code == "loads.level"
    assert (bench.look.stage, bench.look.scenario) == ("Loads", "rear")


def test_accepting_wants_a_look_a_reason_and_initials(bench: Workbench) -> None:
    look = bench.verdict.findings[0]
    bench.accept(look, " ", "KB")
    assert bench.trouble
    bench.accept(look, "sealed roads only", "KB")
    assert bench.verdict.findings[0].accepted == "sealed roads only (KB)"
    bench.undo()
    assert not bench.verdict.findings[0].accepted
    bench.edit("clash", edits.changed(bench.job, "sample-fridge", u=75.0))
    bench.accept(bench.verdict.findings[0], "no", "KB")
    assert "stop cannot be accepted" in bench.message


def test_a_fix_is_applied_as_one_step(bench: Workbench) -> None:
    bench.edit("clash", edits.changed(bench.job, "sample-fridge", u=75.0))
    finding = next(f for f in bench.verdict.findings if f.code == "fit.overlap")
    fix = next(f for f in bench.fixes(finding) if f.subject == "sample-fridge")
    bench.apply(fix)
    assert bench.verdict.count("stop") == 0
    assert bench.history.undo_words() == fix.words


def test_open_save_and_damage(
    registry: Registry, bench: Workbench, tmp_path: Path, demo: Job
) -> None:
    path = tmp_path / "mine"
    run(registry, bench, "job.save", Answers(path))
    saved = tmp_path / "mine.hull.json"
    assert bench.path == saved
    assert bench.keeping.recent() == [saved]
    bench.edit("move", edits.changed(bench.job, "tools", u=500.0))
    assert bench.history.dirty
    bench.autosave()
    assert list(bench.keeping.state.glob("autosave-*"))
    run(registry, bench, "job.save")
    assert not bench.history.dirty
    assert not list(bench.keeping.state.glob("autosave-*"))
    saved.write_bytes(saved.read_bytes()[:900])
    in_hand = bench.job
    run(registry, bench, "job.open", Answers(saved))
    assert bench.trouble
    assert "ends too early" in bench.message
    assert bench.job is in_hand
    with pytest.raises(JobFileError):
        jobfile.load(saved)
    run(registry, bench, "job.open", Answers(tmp_path / "mine.hull.json.previous"))
    assert bench.job == demo
    run(registry, bench, "job.demo_brackwater", Answers(agrees=False))
    assert bench.path is not None
    run(registry, bench, "job.demo_brackwater")
    assert bench.path is None


def test_cutting_with_stops_asks_first(
    registry: Registry, bench: Workbench, tmp_path: Path
) -> None:
    assert run(registry, bench, "job.cut", Answers(tmp_path)).asked[-1] == f"cut {tmp_path.name}"
    bench.edit("clash", edits.changed(bench.job, "sample-fridge", u=75.0))
    refused = run(registry, bench, "job.cut", Answers(tmp_path, agrees=False))
    assert refused.asked[0].startswith("4 stop findings are open")
    assert len(refused.asked) == 1


def test_looking_actions(registry: Registry, bench: Workbench) -> None:
    for key, field, values in (
        ("look.on", "station", ["front", "left", "rear", "right"]),
        ("look.back", "station", ["rear", "left", "front", "right"]),
        ("look.person", "stature", [1530.0, 1870.0, 0.0]),
        ("look.units", "system", ["us", "metric"]),
        ("look.theme", "dark", [True, False]),
        ("look.whole", "whole", [False, True]),
        ("look.scenario", "scenario", ["dry", "towing", "rear", "tray", "empty", "full"]),
    ):
        seen = []
        for _ in values:
            run(registry, bench, key)
            seen.append(getattr(bench.look, field))
        assert seen == values, key
    assert bench.keeping.preferences() == {"system": "metric", "dark": False}
    run(registry, bench, "look.open_all")
    assert "tools" in bench.look.opened
    assert "bedding" not in bench.look.opened
    run(registry, bench, "look.open_all")
    assert not bench.look.opened
    bench.select("bedding")
    assert not registry.get("look.open").enabled(bench)
    bench.toggle_open("bedding")
    assert "nothing that opens" in bench.message
    for _ in range(3):
        run(registry, bench, "look.next")
    assert bench.verdict.assembly.thing(bench.selection) is not None
    run(registry, bench, "look.previous")
    run(registry, bench, "stage.loads")
    assert bench.look.stage == "Loads"
    assert run(registry, bench, "help.keys").asked == ["keys"]
    assert run(registry, bench, "help.find").asked == ["find"]
    assert run(registry, bench, "job.quit").asked == ["quit"]


@pytest.mark.parametrize("key", ["tools", "sample-fridge", "bedding", "water", "spare"])
@pytest.mark.parametrize("system", ["metric", "us"])
def test_every_field_shows_what_it_reads(demo: Job, key: str, system: str) -> None:
    thing = demo.thing(key)
    assert thing is not None
    for field in fields_of(thing):
        value = getattr(thing, field.name)
        if field.quantity == "yes":
            continue
        back = typed(field, shown(field, value, system), system)  # type: ignore[arg-type]
        if isinstance(value, str):
            assert back == value
        else:
            assert back == pytest.approx(value, abs=0.8 if system == "us" else 0.005), field.name


def test_a_whole_number_is_a_whole_number() -> None:
    baffles = Field("baffles", "Baffles", "number")
    assert typed(baffles, "1+1", "metric") == 2
    with pytest.raises(InputError, match="whole number"):
        typed(baffles, "2.5", "metric")


def test_a_refused_field_is_told_and_changes_nothing(bench: Workbench) -> None:
    before = bench.job
    assert not bench.set_field("tools", "width", -4.0)
    assert bench.trouble
    assert bench.job is before
    assert bench.set_field("tools", "width", 480.0)
    assert bench.history.undo_words() == "change width of Tool drawer"


def test_snapping_to_pitch_floor_and_neighbours(bench: Workbench) -> None:
    assembly = bench.verdict.assembly
    thing = assembly.thing("optics")
    assert thing is not None
    assert thing.place is not None
    assert snapped(assembly, thing, thing.place, 466.0, 9.0) == (475, 0)
    # Above the tool drawer (260 high) with its running gap of 3.
    assert snapped(assembly, thing, thing.place, 481.0, 270.0) == (475, 263)
    assert snapped(assembly, thing, thing.place, 481.0, 352.0) == (475, 350)
    assert snapped(assembly, thing, thing.place, -30.0, 0.0)[0] == 0
    flat = thing.place.bay.__class__(id="x", name="x", side="right", start=0, length=1500, depth=860,
                                     height=925, pitch=0)  # fmt: skip
    smooth = thing.place.__class__(flat, thing.place.frame, thing.place.size, thing.place.opening)
    assert snapped(assembly, thing, smooth, 8.0, 0.0)[0] == 0
    assert snapped(assembly, thing, smooth, 333.0, 0.0)[0] == 335


def test_every_store_entry_can_be_placed_somewhere(bench: Workbench) -> None:
    job = bench.job
    for thing in (*job.units, *job.carried):
        job = edits.removed(job, thing.id)
    bench.edit("clear", msgspec.structs.replace(job, sets=(), runs=()))
    stops: dict[str, str] = {}
    for entry in bench.entries():
        made = bench.place(entry.key)
        assert made, entry.key
        for f in bench.verdict.findings:
            if made in f.subjects and f.weight == "stop":
                stops[entry.key] = f.title
        bench.undo()
    # What hangs behind this canopy without swinging aside is in the way of its rear door, and said so.
    assert stops == {
        "spare": "Rear door cannot open: Spare wheel is in its way",
        "jerry": "Rear door cannot open: Jerry can 20 l is in its way",
        "ladder": "Rear door cannot open: Ladder is in its way",
    }
