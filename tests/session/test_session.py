from pathlib import Path

import msgspec
import pytest

from roomy_hull.core.card import Field
from roomy_hull.core.days import today
from roomy_hull.core.errors import InputError, JobFileError
from roomy_hull.core.refs import Ref
from roomy_hull.formats import jobfile
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.session.actions import editing
from roomy_hull.session.actions.registry import Registry
from roomy_hull.session.actions.standard import standard
from roomy_hull.session.card_fields import thing_fields
from roomy_hull.session.files import autosave
from roomy_hull.session.session import Session
from roomy_hull.session.snapping import snapped
from roomy_hull.session.typed import shown, typed


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

    def write_cut(self, folder: Path, *, solids: bool = False) -> None:
        assert not solids
        self.asked.append(f"cut {folder.name}")


@pytest.fixture(scope="module")
def registry() -> Registry:
    return standard()


def run(registry: Registry, session: Session, key: str, answers: Answers | None = None) -> Answers:
    answers = answers or Answers()
    session.asker = answers  # type: ignore[assignment]
    registry.get(key).run(session)
    return answers


def test_actions_are_declared_once_with_words_tip_and_keys(registry: Registry) -> None:
    ids = [a.id for a in registry.all()]
    assert len(set(ids)) == len(ids)
    keys = [k for a in registry.all() for k in a.keys]
    assert len(set(keys)) == len(keys), "a key does two things"
    menus = [
        "Job", "Edit", "View", "Survey", "Body", "Unit", "Services", "Access", "Loads", "Cut", "Build", "Stage", "Help",
    ]  # fmt: skip
    for action in registry.all():
        assert action.words
        assert action.tip
        assert action.menu in menus
    assert len(registry.key_sheet()) == sum(bool(a.keys) for a in registry.all())


def test_a_thing_from_the_stores_goes_to_the_first_free_place(session: Session) -> None:
    for key in ("bedding", "camp"):
        session.edit("clear", edits.removed(session.job, key))
    made = editing.place(session, entry="drawer")
    unit = session.job.thing(made)
    assert unit is not None
    assert (unit.bay, unit.w) == ("R", 0)  # type: ignore[union-attr]
    assert unit.u % 25 == 0  # type: ignore[union-attr]
    assert session.selection.key == made
    assert not [f for f in session.verdict.findings if made in f.words]
    session.undo()
    assert session.job.thing(made) is None


def test_what_fits_nowhere_says_so_and_is_not_placed(session: Session) -> None:
    before = session.job
    assert editing.place(session, entry="fridge-60") == ""
    assert session.job is before
    assert session.messages.trouble
    assert "no free place left" in session.messages.text
    session.view.set(station="rear")
    assert editing.place(session, entry="fridge-60") == ""
    assert "mm too deep" in session.messages.text


@pytest.mark.parametrize("key", ["spare", "jerry", "tent", "load"])
def test_carried_things_go_where_such_things_go(session: Session, key: str) -> None:
    made = editing.place(session, entry=key)
    item = session.verdict.assembly.thing(made)
    assert item is not None
    if item.value.on_roof:  # type: ignore[union-attr]
        assert item.envelope.z0 > session.verdict.assembly.ground.canopy.z1  # type: ignore[union-attr]
    else:
        assert item.envelope.x0 >= session.verdict.assembly.ground.floor.x1


def test_duplicate_mirror_delete_and_undo(registry: Registry, session: Session) -> None:
    session.selection.select("camp")
    run(registry, session, "edit.duplicate")
    assert "no free place for a second Camp drawer" in session.messages.text
    session.edit("clear", edits.removed(session.job, "bedding"))
    session.selection.select("bird-bags")
    run(registry, session, "edit.duplicate")
    assert session.selection.key == "bird-bags-2"
    assert not [f for f in session.verdict.findings if "bird-bags-2" in f.words]
    run(registry, session, "edit.mirror")
    assert session.job.thing("bird-bags-2").bay == "L"  # type: ignore[union-attr]
    assert session.look.station == "left"
    run(registry, session, "edit.delete")
    assert session.job.thing("bird-bags-2") is None
    assert session.selection.key == ""
    for _ in range(3):
        run(registry, session, "edit.undo")
    assert session.job.thing("bedding") is None
    run(registry, session, "edit.redo")
    assert session.job.thing("bird-bags-2") is not None
    session.selection.select("spare")
    run(registry, session, "edit.duplicate")
    assert session.selection.key == "spare-2"


def test_what_cannot_be_mirrored_is_told(registry: Registry, session: Session) -> None:
    canopy = session.job.body.canopy
    assert canopy is not None
    one_sided = msgspec.structs.replace(canopy, bays=tuple(b for b in canopy.bays if b.id != "L"))
    body = msgspec.structs.replace(session.job.body, canopy=one_sided)
    units = tuple(u for u in session.job.units if u.bay != "L")
    session.edit("one side", msgspec.structs.replace(session.job, body=body, units=units))
    session.selection.select("tools")
    run(registry, session, "edit.mirror")
    assert "no counterpart" in session.messages.text


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
    registry: Registry, session: Session, key: str, station: str, action: str, field: str, by: float
) -> None:
    session.view.set(station=station)
    session.selection.select(key)
    before = getattr(session.job.thing(key), field)
    run(registry, session, action)
    assert getattr(session.job.thing(key), field) - before == by


def test_a_gesture_of_fifty_moves_is_one_step(session: Session) -> None:
    demo = session.job
    seen: list[float] = []
    session.changed.connect(lambda: seen.append(session.verdict.loads.scenario("full").rear.value))
    for n in range(50):
        session.preview(edits.changed(session.history.settled, "camp", u=float(n)))
    editing.end_gesture(session, words="move camp")
    assert len(set(seen)) == 50
    session.undo()
    assert session.job is demo


def test_notices_come_only_on_a_real_change(session: Session) -> None:
    heard: list[str] = []
    session.selection.changed.connect(lambda: heard.append("selection"))
    session.view.changed.connect(lambda: heard.append("look"))
    session.selection.select("tools")
    session.selection.select("tools")
    session.view.set(station="left")
    session.view.set(station="left")
    assert heard == ["selection", "look"]


def test_a_finding_turns_one_to_where_it_is(registry: Registry, session: Session) -> None:
    session.view.set(station="rear", stage="Cut")
    run(registry, session, "look.finding")
    assert session.selection.finding is not None
    assert session.selection.key == "tools"
    assert session.look.station == "right"
    assert session.look.stage == "Fit-out"
    session.edit("mend", edits.changed(session.job, "tools", contents=10.0))
    assert session.selection.finding is None
    run(registry, session, "look.finding")
    assert session.selection.finding is not None
    assert session.selection.finding.code == "loads.level"
    assert (session.look.stage, session.look.scenario) == ("Loads", "rear")


def test_accepting_wants_a_look_a_reason_and_initials(session: Session) -> None:
    look = session.verdict.findings[0]
    editing.accept(session, finding=look, reason=" ", initials="KB")
    assert session.messages.trouble
    editing.accept(session, finding=look, reason="sealed roads only", initials="KB")
    said = session.verdict.findings[0].accepted
    assert said.startswith(f"sealed roads only (KB, {today().isoformat()}, at ")
    assert f"at {look.measured:,.1f} of {look.limit:,.1f} {look.unit})" in said
    session.undo()
    assert not session.verdict.findings[0].accepted
    session.edit("clash", edits.changed(session.job, "sample-fridge", u=75.0))
    editing.accept(session, finding=session.verdict.findings[0], reason="no", initials="KB")
    assert "stop cannot be accepted" in session.messages.text


def test_a_fix_is_applied_as_one_step(session: Session) -> None:
    session.edit("clash", edits.changed(session.job, "sample-fridge", u=75.0))
    finding = next(f for f in session.verdict.findings if f.code == "fit.overlap")
    fix = next(f for f in session.fixes(finding) if f.subject == Ref("unit", "sample-fridge"))
    editing.apply(session, fix=fix)
    assert session.verdict.count("stop") == 0
    assert session.history.undo_words() == fix.words


def test_open_save_and_damage(
    registry: Registry, session: Session, tmp_path: Path, demo: Job
) -> None:
    path = tmp_path / "mine"
    run(registry, session, "job.save", Answers(path))
    saved = tmp_path / "mine.hull.json"
    assert session.path == saved
    assert session.settings.recent() == [saved]
    session.edit("move", edits.changed(session.job, "tools", u=500.0))
    assert session.history.dirty
    autosave(session)
    assert list(session.settings.state.glob("autosave-*"))
    run(registry, session, "job.save")
    assert not session.history.dirty
    assert not list(session.settings.state.glob("autosave-*"))
    saved.write_bytes(saved.read_bytes()[:900])
    in_hand = session.job
    run(registry, session, "job.open", Answers(saved))
    assert session.messages.trouble
    assert "ends too early" in session.messages.text
    assert session.job is in_hand
    with pytest.raises(JobFileError):
        jobfile.load(saved)
    run(registry, session, "job.open", Answers(tmp_path / "mine.hull.json.previous"))
    assert session.job == demo
    run(registry, session, "job.demo_brackwater", Answers(agrees=False))
    assert session.path is not None
    run(registry, session, "job.demo_brackwater")
    assert session.path is None


def test_cutting_with_stops_asks_first(
    registry: Registry, session: Session, tmp_path: Path
) -> None:
    assert run(registry, session, "job.cut", Answers(tmp_path)).asked[-1] == f"cut {tmp_path.name}"
    session.edit("clash", edits.changed(session.job, "sample-fridge", u=75.0))
    refused = run(registry, session, "job.cut", Answers(tmp_path, agrees=False))
    assert refused.asked[0].startswith("4 stop findings are open")
    assert len(refused.asked) == 1


def test_looking_actions(registry: Registry, session: Session) -> None:
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
            run(registry, session, key)
            seen.append(getattr(session.look, field))
        assert seen == values, key
    assert session.settings.preferences() == {"system": "metric", "dark": False}
    run(registry, session, "look.open_all")
    assert "tools" in session.look.opened
    assert "bedding" not in session.look.opened
    run(registry, session, "look.open_all")
    assert not session.look.opened
    session.selection.select("bedding")
    assert not registry.get("look.open").enabled(session)
    editing.toggle_open(session, key="bedding")
    assert "nothing that opens" in session.messages.text
    for _ in range(3):
        run(registry, session, "look.next")
    assert session.verdict.assembly.thing(session.selection.key) is not None
    run(registry, session, "look.previous")
    run(registry, session, "stage.loads")
    assert session.look.stage == "Loads"
    assert run(registry, session, "help.keys").asked == ["keys"]
    assert run(registry, session, "help.find").asked == ["find"]
    assert run(registry, session, "job.quit").asked == ["quit"]


@pytest.mark.parametrize("key", ["tools", "sample-fridge", "bedding", "water", "spare"])
@pytest.mark.parametrize("system", ["metric", "us"])
def test_every_field_shows_what_it_reads(demo: Job, key: str, system: str) -> None:
    thing = demo.thing(key)
    assert thing is not None
    for field in thing_fields(demo, thing):
        value = getattr(thing, field.name)
        if field.quantity == "yes":
            continue
        back = typed(field, shown(field, value, system), system)  # type: ignore[arg-type]
        if isinstance(value, str):
            assert back == value
        else:
            assert back == pytest.approx(value, abs=0.8 if system == "us" else 0.005), field.name


def test_a_whole_number_is_a_whole_number() -> None:
    baffles = Field("baffles", "Baffles", "number", whole=True)
    assert typed(baffles, "1+1", "metric") == 2
    with pytest.raises(InputError, match="whole number"):
        typed(baffles, "2.5", "metric")


def test_a_refused_field_is_told_and_changes_nothing(session: Session) -> None:
    before = session.job
    assert not editing.set_field(session, thing="tools", field="width", value=-4.0)
    assert session.messages.trouble
    assert session.job is before
    assert editing.set_field(session, thing="tools", field="width", value=480.0)
    assert session.history.undo_words() == "change width of Tool drawer"


def test_snapping_to_pitch_floor_and_neighbours(session: Session) -> None:
    assembly = session.verdict.assembly
    thing = assembly.thing("optics")
    assert thing is not None
    assert thing.place is not None
    assert snapped(assembly, thing, thing.place, 466.0, 9.0) == (475, 0)
    # Above the tool drawer (260 high) with its running gap of 3.
    assert snapped(assembly, thing, thing.place, 481.0, 270.0) == (475, 263)
    # Held higher, it comes to rest on the same: on what stands below it.
    assert snapped(assembly, thing, thing.place, 481.0, 352.0) == (475, 263)
    assert snapped(assembly, thing, thing.place, -30.0, 0.0)[0] == 0
    flat = thing.place.bay.__class__(id="x", name="x", side="right", start=0, length=1500, depth=860,
                                     height=925, pitch=0)  # fmt: skip
    smooth = thing.place.__class__(flat, thing.place.frame, thing.place.size, thing.place.openings)
    assert snapped(assembly, thing, smooth, 8.0, 0.0)[0] == 0
    assert snapped(assembly, thing, smooth, 333.0, 0.0)[0] == 335


def test_every_store_entry_can_be_placed_somewhere(session: Session) -> None:
    job = session.job
    for thing in (*job.units, *job.carried):
        job = edits.removed(job, thing.id)  # type: ignore[attr-defined]
    session.edit("clear", msgspec.structs.replace(job, sets=(), runs=()))
    stops: dict[str, str] = {}
    for entry in session.catalogue.entries():
        made = editing.place(session, entry=entry.key)
        assert made, entry.key
        for f in session.verdict.findings:
            if made in f.words and f.severity == "stop":
                stops[entry.key] = f.title
        session.undo()
    # What hangs behind this canopy without swinging aside is in the way of its rear door, and said so.
    assert stops == {
        "spare": "Rear door cannot open: Spare wheel is in its way",
        "jerry": "Rear door cannot open: Jerry can 20 l is in its way",
        "ladder": "Rear door cannot open: Ladder is in its way",
        "wall-table": "Rear door cannot open: Table on the rear wall is in its way",
        "wall-bag": "Rear door cannot open: Bag on the rear wall is in its way",
    }
