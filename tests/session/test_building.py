"""Actions of the brief and of Build: what is logged, planned, offered, checked and handed over, and what is refused."""

from pathlib import Path

import msgspec
import pytest
from tests.formats.test_photos import png

from roomy_hull.core.parts import SheetPart
from roomy_hull.formats import jobfile, shopfile, unitfile
from roomy_hull.formats.settings import Settings
from roomy_hull.job.edits import building as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds.placed import Placed
from roomy_hull.making.release import drawn_up
from roomy_hull.making.works import works_of
from roomy_hull.session.actions import as_built, editing, handing
from roomy_hull.session.actions import building as building_actions
from roomy_hull.session.actions.as_built import HOLE, PART, WHOLE
from roomy_hull.session.asking import Nobody
from roomy_hull.session.doing import do
from roomy_hull.session.files import open_job, save_job
from roomy_hull.session.pages.build.buying import BuyingModel
from roomy_hull.session.pages.build.finishing import ChecksModel, PackModel
from roomy_hull.session.pages.build.log import LogModel
from roomy_hull.session.pages.build.plan import PlanModel
from roomy_hull.session.pages.build.progress import ProgressModel
from roomy_hull.session.pages.build.words import built
from roomy_hull.session.session import Session
from roomy_hull.shop.shop import shipped_shop


class Told(Nobody):
    """Answers one question after another as it was told, and remembers what it was asked."""

    def __init__(self, *answers: str, path: Path | None = None, agrees: bool = False) -> None:
        self.answers, self.asked, self.path, self.agrees = list(answers), list[str](), path, agrees
        self.written: list[tuple[str, Path]] = []

    def name(self, words: str, _wish: str) -> str:
        self.asked.append(words)
        return self.answers.pop(0) if self.answers else ""

    def choose(self, words: str, options: tuple[str, ...]) -> str:
        self.asked.append(words)
        found = self.answers.pop(0) if self.answers else ""
        assert not found or found in options
        return found

    def agree(self, words: str) -> bool:
        self.asked.append(words)
        return self.agrees

    def folder(self, words: str) -> Path | None:
        self.asked.append(words)
        return self.path

    def file(self, words: str, _kinds: str, _wish: str, *, to_save: bool) -> Path | None:
        assert not to_save
        self.asked.append(words)
        return self.path

    def write_build(self, kind: str, folder: Path) -> None:
        self.written.append((kind, folder))

    def write_cut(self, folder: Path, *, solids: bool = False) -> None:
        self.written.append(("solids" if solids else "cut", folder))


@pytest.fixture
def begun(demo: Job, keeping: Settings) -> Session:
    """A session whose plan begins on the first of February 2027, logging as AB."""
    keeping.keep_preferences(initials="AB")
    return Session(edits.planned(demo, begin="2027-02-01", due="2027-04-01"), keeping)


def does(session: Session, action: str, *answers: str, **more: object) -> Told:
    """Do an action of the menu, answering what it asks."""
    session.asker = told = Told(*answers, **more)  # type: ignore[arg-type]
    do(session, action)
    return told


def test_a_plan_is_begun_on_a_day(session: Session) -> None:
    told = does(session, "build.begin", "next week")
    assert session.job.plan.begin == ""
    assert "is no day" in session.messages.text
    does(session, "build.begin", "2027-02-01")
    assert session.job.plan.begin == "2027-02-01"
    assert (session.look.stage, session.look.page("Build")) == ("Build", "Plan")
    assert told.asked
    session.undo()
    assert session.job.plan.begin == ""


def test_initials_are_asked_once_and_nothing_is_logged_without(
    demo: Job, keeping: Settings
) -> None:
    session = Session(demo, keeping)
    session.view.turn_to("Build", "Log")
    does(session, "build.note", "a word")
    assert session.job.log == ()
    told = does(session, "build.note", "a word", "KR")
    assert told.asked == ["What is to be noted?", "Your initials, for the log"]
    told = does(session, "build.note", "another")
    assert told.asked == ["What is to be noted?"]
    assert [(e.by, e.words) for e in session.job.log] == [("KR", "a word"), ("KR", "another")]  # type: ignore[var-annotated]


def test_finishing_an_operation_is_one_step_and_brings_its_parts_on(begun: Session) -> None:
    works = works_of(begun.verdict.assembly)
    release = drawn_up((), works, "AB", day="2027-01-20")
    assert begun.attempt("release", lambda: msgspec.structs.replace(begun.job, releases=(release,)))
    begun.view.turn_to("Build", "Plan", build={"op": "unit:galley:cut"})
    does(begun, "build.done", "not a figure")
    assert begun.job.log == ()
    does(begun, "build.done", "1,5")
    assert [(e.kind, e.op, e.hours, e.done) for e in begun.job.log] == [  # type: ignore[var-annotated]
        ("work", "unit:galley:cut", 1.5, True)
    ]
    states = {
        p.state
        for p in begun.job.releases[-1].parts
        if p.key.startswith("unit:galley/") and p.sort != "bought"
    }
    assert states == {"cut"}
    assert {p.state for p in begun.job.releases[-1].parts if p.key.startswith("unit:tools/")} == {
        "to cut"
    }
    model = ProgressModel(begun)
    assert {s for (ref, _n), s in model.states().items() if ref.id == "galley"} == {"cut"}
    assert model.counted()["cut"] > 0
    # Once is enough.
    does(begun, "build.done", "1")
    assert len(begun.job.log) == 1
    assert "done already" in begun.messages.text
    begun.undo()
    assert begun.job.log == ()


def test_hours_are_logged_and_said(begun: Session) -> None:
    begun.view.turn_to("Build", "Plan", build={"op": "unit:galley:weld"})
    does(begun, "build.work", "0.25")
    does(begun, "build.hours", "6")
    assert begun.building.of(begun.verdict).hours["unit:galley:weld"] == 6
    assert begun.building.of(begun.verdict).tasks["unit:galley:weld"].minutes == round(5.75 * 60)
    assert "unit:galley:weld" in {h.op for h in begun.job.plan.held}
    does(begun, "build.let_go")
    assert begun.job.plan.held == ()
    does(begun, "build.own", "Fetch the slides")
    assert "extra:fetch-the-slides" in begun.building.of(begun.verdict).ops


def test_a_size_as_built_is_asked_for_and_fit_follows(begun: Session) -> None:
    does(begun, "build.deviation")
    assert "Select the unit" in begun.messages.text
    begun.selection.select("galley")
    galley = begun.job.thing("galley")
    assert galley is not None
    assert begun.verdict.count("stop") == 0
    does(begun, "build.deviation", WHOLE, "width", f"{galley.width + 60:g}", "the bar was long")
    assert begun.verdict.count("stop") > 0
    assert begun.job.thing("galley") == galley
    entry = begun.job.log[-1]
    assert (entry.about, entry.value, entry.was, entry.words) == (
        "units.galley.width", galley.width + 60, galley.width, "the bar was long",
    )  # fmt: skip
    # It is corrected by a new entry, and the vehicle is as drawn again.
    begun.view.set(build={"entry": entry.id})
    does(begun, "build.correct", "measured over the rivets")
    assert begun.verdict.count("stop") == 0
    assert len(begun.job.log) == 2
    assert not as_built.build_otherwise(begun, about="units.galley.colour", value=1.0)
    assert not as_built.build_otherwise(begun, about="the galley", value=1.0)
    assert len(begun.job.log) == 2


def test_a_part_and_a_hole_as_built_are_asked_for(begun: Session) -> None:
    begun.selection.select("net-drawer")
    thing = begun.verdict.assembly.thing("net-drawer")
    assert thing is not None
    part = next(p for p in thing.expansion.parts if isinstance(p, SheetPart) and p.shape is None)
    does(begun, "build.deviation", PART, part.name, "length", f"{part.length - 2:g}")
    assert begun.job.log[-1].value == part.length - 2
    assert begun.job.log[-1].was == part.length
    now = begun.verdict.assembly.thing("net-drawer")
    assert now is not None
    assert next(p for p in now.expansion.parts if p.name == part.name).length == part.length - 2  # type: ignore[union-attr]
    does(begun, "build.deviation", HOLE, part.name, "3", "4")
    assert begun.job.log[-1].figures == (0.0, 0.0, 3.0, 4.0)
    count = len(begun.job.log)
    does(begun, "build.deviation", PART, part.name, "length", "short")
    does(begun, "build.deviation", HOLE, part.name, "3")
    assert len(begun.job.log) == count


def test_what_is_logged_is_never_changed_nor_saved_away(begun: Session, tmp_path: Path) -> None:
    path = tmp_path / "ute.hull.json"
    does(begun, "build.note", "first")
    save_job(begun, path)
    assert not editing.set_size(begun, path=f"log.{begun.job.log[0].id}.words", value="never said")
    assert begun.job.log[0].words == "first"
    does(begun, "build.note", "second")
    begun.undo()
    assert [e.words for e in begun.job.log] == ["first"]
    # What a file holds stays, wherever one steps to.
    begun.undo()
    assert [e.words for e in begun.job.log] == ["first"]
    assert "correct it by a later entry" in begun.messages.text
    save_job(begun, path)
    assert [e.words for e in jobfile.load(path).log] == ["first"]
    save_job(begun, tmp_path / "another.hull.json")
    begun.undo()
    save_job(begun, path)
    assert [e.words for e in jobfile.load(path).log] == ["first"]


def test_the_workshops_folder_brings_its_shop_and_its_stores(
    begun: Session, tmp_path: Path
) -> None:
    own = msgspec.structs.replace(shipped_shop(), name="Ours")
    shopfile.save(own, tmp_path / "ours.shop.json")
    (tmp_path / "units").mkdir()
    galley = begun.job.thing("galley")
    assert isinstance(galley, Placed)
    unitfile.save(galley, tmp_path / "units" / f"shared{unitfile.SUFFIX}")
    does(begun, "build.folder", path=tmp_path)
    assert begun.shop.name == "Ours"
    assert begun.settings.shop().name == "Ours"
    assert begun.look.page("Build") == "Workshop"
    assert [e.use for e in begun.catalogue.entries()].count(unitfile.USE) == 1


def test_a_photo_wants_a_saved_job_and_moves_with_it(begun: Session, tmp_path: Path) -> None:
    source = tmp_path / "front.png"
    source.write_bytes(png())
    does(begun, "build.photo", path=source)
    assert "Save the job first" in begun.messages.text
    path = tmp_path / "here" / "ute.hull.json"
    path.parent.mkdir()
    save_job(begun, path)
    does(begun, "build.photo", path=source)
    assert len(begun.job.log) == 1
    assert LogModel(begun).photos()[0][1] is not None
    other = tmp_path / "there" / "copy.hull.json"
    other.parent.mkdir()
    save_job(begun, other)
    assert LogModel(begun).photos()[0][1] == other.parent / "copy.photos" / begun.job.log[0].file
    (other.parent / "copy.photos" / begun.job.log[0].file).unlink()
    assert LogModel(begun).photos()[0][1] is None
    assert "1 photo missing" in LogModel(begun).words()
    (tmp_path / "x.png").write_text("no picture")
    assert not building_actions.add_photo(begun, path=tmp_path / "x.png")
    assert "no picture" in begun.messages.text


def test_what_is_ordered_and_received(begun: Session) -> None:
    model = BuyingModel(begun)
    assert not handing.bought(begun, keys=(), kind="ordered")
    assert not handing.bought(begun, keys=("sheet:5052-H32:2",), kind="ordered", day="soon")
    assert handing.bought(
        begun, keys=("sheet:5052-H32:2", "thing:battery"), kind="ordered", day="2027-02-09"
    )
    rows = dict(zip(model.keys(), model.cells(), strict=True))
    assert rows["thing:battery"][2][0] == "ordered"
    assert rows["thing:battery"][5][0] == "Tue 9 February"
    assert handing.bought(begun, keys=("thing:battery",), kind="received")
    assert dict(zip(model.keys(), model.cells(), strict=True))["thing:battery"][2][0] == "here"
    assert "1 here, 1 on their way" in model.words()


def test_checks_go_on_to_the_next_and_want_their_figures(begun: Session) -> None:
    begun.view.turn_to("Build", "Checks")
    model = ChecksModel(begun)
    first = model.chosen()
    assert first is not None
    assert first.wants == ("front", "rear", "top", "bottom")
    assert not handing.check(begun, result="done")
    assert "wants figures: front, rear, top, bottom [mm]" in begun.messages.text
    assert handing.check(begun, result="done", figures=(4.0, 4.5, 5.0, 4.2))
    assert model.chosen() != first
    do(begun, "build.check_failed")
    do(begun, "build.check_later")
    assert [e.result for e in begun.job.log] == ["done", "failed", "later"]
    assert "1 of" in model.words()
    assert "1 failed" in model.words()


def test_it_is_handed_over_only_when_nothing_stops_it(begun: Session) -> None:
    told = does(begun, "build.hand_over")
    assert begun.job.log == ()
    assert "operations not done" in told.asked[0]
    handing.check(begun, result="failed")
    does(begun, "build.hand_over", agrees=True)
    assert "not handed over" in begun.messages.text
    begun.undo()
    does(begun, "build.hand_over", agrees=True)
    assert begun.job.log[-1].kind == "handed over"  # type: ignore[misc]
    assert "job:hand over" in built(begun).finished
    assert "Handed over on" in PackModel(begun).words()
    does(begun, "build.recheck", "2027-13-40")
    assert "is no day" in begun.messages.text
    assert begun.job.plan.recheck == ""
    does(begun, "build.recheck", "2027-04-02")
    assert "Re-check planned for Fri 2 April" in PackModel(begun).words()
    does(begun, "build.visit", "500 km", "two bolts of the tray")
    assert "1 visit since." in PackModel(begun).words()
    assert begun.job.plan.recheck == ""
    galley = begun.job.thing("galley")
    assert galley is not None
    editing.set_field(begun, thing="galley", field="width", value=galley.width + 60)
    count = len(begun.job.log)
    does(begun, "build.hand_over", agrees=True)
    assert len(begun.job.log) == count


def test_the_plan_moves_with_the_hand_and_what_follows_moves_along(begun: Session) -> None:
    model = PlanModel(begun)
    before = model.placed()
    key = "unit:galley:cut"
    day = begun.building.of(begun.verdict).calendar.day_minutes
    model.drawn(2.0)
    model.hold(key, before[key].start + 3 * day + 4, 0.0)
    moved = model.placed()
    assert moved[key].start >= before[key].start + 3 * day
    for later in ("unit:galley:deburr", "unit:galley:bend", "unit:galley:assemble"):
        assert moved[later].start >= moved[key].finish
    assert begun.job.plan.held == ()
    put = model.let_go()
    assert put is not None
    assert building_actions.hold(begun, op=put[0], day=put[1], hour=put[2], person=put[3])
    assert (
        begun.building.of(begun.verdict).levelled.placed[key].start >= before[key].start + 3 * day
    )
    begun.undo()
    assert model.placed() == before
    assert not building_actions.hold(begun, op="nothing", day="2027-02-01", hour=1.0)


def test_a_job_with_its_build_is_saved_and_opened(
    begun: Session, tmp_path: Path, keeping: Settings
) -> None:
    does(begun, "build.lesson", "order the slides first")
    does(begun, "build.sign", "build", "A. Builder", "-")
    does(begun, "build.number", "A thing: its serial number", "0417", "House battery")
    path = tmp_path / "ute.hull.json"
    save_job(begun, path)
    other = Session(jobfile.load(path), keeping)
    open_job(other, path)
    assert other.job.log == begun.job.log
    assert other.job.plan == begun.job.plan
    assert [e.kind for e in other.job.log] == ["lesson", "sign", "serial"]
