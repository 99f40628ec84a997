"""The first hour of a build, with real events: a new job, measured, rated, its body sized."""

from pathlib import Path

import pytest
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtWidgets import QDialog, QFileDialog
from pytestqt.qtbot import QtBot

from roomy_hull.core.errors import InputError
from roomy_hull.core.tables.read import measures
from roomy_hull.desktop.pages.body import BodyStage
from roomy_hull.desktop.pages.survey import SurveyStage
from roomy_hull.desktop.widgets.new_job import NewJob
from roomy_hull.desktop.window import MainWindow
from roomy_hull.drawing.scenes import body_sizes
from roomy_hull.drawing.scenes import survey as survey_scene
from roomy_hull.drawing.style import LIGHT
from roomy_hull.formats import vehiclefile
from roomy_hull.formats.demo import DEMOS, demo_job
from roomy_hull.job.edits import units as edits
from roomy_hull.kit.body import fitting
from roomy_hull.planning.simulator import Simulator, laser, scales
from roomy_hull.session.actions import editing
from roomy_hull.session.doing import do
from roomy_hull.session.session import Session
from roomy_hull.session.showing import show_finding
from roomy_hull.verdict.verdict import judge

from .conftest import Hand
from .loads import click, typed


@pytest.fixture
def survey(window: MainWindow) -> SurveyStage:
    window.session.view.turn_to("Survey", "Measures")
    return window.page("Survey", "Measures")


@pytest.fixture
def body(window: MainWindow) -> BodyStage:
    window.session.view.set(stage="Body", station="left")
    return window.stage("Body")


def key_row(survey: SurveyStage, key: str) -> int:
    return [m.key for m in measures()["cab-chassis"]].index(key)


def test_a_reading_is_typed_and_the_next_measure_comes(
    survey: SurveyStage, window: MainWindow, qtbot: QtBot
) -> None:
    row = key_row(survey, "track_rear")
    survey.choose(row)
    assert survey.picture.words == "?"
    qtbot.keyClicks(survey.entry, "1571")
    qtbot.keyClick(survey.entry, Qt.Key.Key_Return)
    assert [r.value for r in window.session.job.survey.of("track_rear")] == [1571]
    assert survey.list.currentRow() == row + 1
    assert survey.list.text_at(row, 1) == "1,571"
    window.session.undo()
    assert not survey.list.text_at(row, 1)


def test_a_reading_is_typed_in_the_list_and_deleted(
    survey: SurveyStage, window: MainWindow, qtbot: QtBot
) -> None:
    row = key_row(survey, "track_rear")
    typed(qtbot, survey.list, row, 1, "1571")
    typed(qtbot, survey.list, row, 1, "1572")
    assert [r.value for r in window.session.job.survey.of("track_rear")] == [1571, 1572]
    assert survey.list.text_at(row, 1) in ("1,572 (2)", "1,571 (2)")
    assert survey.list.rowCount() == len(measures()["cab-chassis"]), "no measure is added by hand"
    click(qtbot, survey.list, row, 0)
    qtbot.keyClick(survey.list, Qt.Key.Key_Delete)
    assert not window.session.job.survey.of("track_rear")


def test_rubbish_and_nothing_are_refused_in_words(
    survey: SurveyStage, window: MainWindow, qtbot: QtBot
) -> None:
    before = window.session.job
    for text, says in (("abc", "not a figure"), ("0", "above 0"), ("-5", "above 0")):
        survey.entry.setText(text)
        qtbot.keyClick(survey.entry, Qt.Key.Key_Return)
        assert says in window.message.text()
    assert window.session.job is before


def test_a_contradiction_names_what_to_measure_again(
    survey: SurveyStage, window: MainWindow, qtbot: QtBot
) -> None:
    row = key_row(survey, "cab_end")
    survey.choose(row)
    for _ in range(2):
        survey.choose(row)
        qtbot.keyClicks(survey.entry, "2141")
        qtbot.keyClick(survey.entry, Qt.Key.Key_Return)
    survey.choose(row)
    qtbot.keyClicks(survey.entry, "2191")
    qtbot.keyClick(survey.entry, Qt.Key.Key_Return)
    assert "measure again Cab back to chassis end" in survey.result.text()
    assert survey.list.text_at(row, 1).endswith(" again")
    survey.choose(row)
    qtbot.mouseClick(survey.undo_button, Qt.MouseButton.LeftButton)
    assert "they agree" in survey.result.text()


def test_the_survey_goes_into_the_vehicle_as_one_step(
    survey: SurveyStage, window: MainWindow, qtbot: QtBot
) -> None:
    before = window.session.job.vehicle
    qtbot.mouseClick(survey.take_button, Qt.MouseButton.LeftButton)
    after = window.session.job.vehicle
    assert after.rail_spread != before.rail_spread
    assert "sizes are put into the vehicle" in window.message.text()
    window.session.undo()
    assert window.session.job.vehicle is before


@pytest.mark.parametrize("kind", ["cab-chassis", "pickup", "wagon"])
def test_every_measure_is_drawn_on_its_vehicle(kind: str) -> None:
    vehicle = next(
        e.vehicle for e in vehiclefile.library() if e.vehicle is not None and e.vehicle.kind == kind
    )
    for measure in measures()[kind]:
        picture, a, b = survey_scene.where(vehicle, measure.key)
        h0, k0, h1, k1 = survey_scene.frame(vehicle, picture)
        for h, k in (a, b):
            assert h0 <= h <= h1, measure.key
            assert k0 <= k <= k1, measure.key
        assert a != b
        roles = {s.role for s in survey_scene.measure_scene(vehicle, measure.key)}
        assert {"measure", "measure end"} <= roles
        assert roles <= set(LIGHT.roles)


def test_a_laser_is_read_beside_the_window(
    survey: SurveyStage, window: MainWindow, qtbot: QtBot
) -> None:
    device = Simulator(laser(lambda: 1570.0), garbage=0.2, seed=2)
    survey.choose(key_row(survey, "track_rear"))
    survey.device.setEditText(device.path)
    qtbot.mouseClick(survey.read_button, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: bool(window.session.job.survey.of("track_rear")), timeout=8000)
    device.close()
    reading = window.session.job.survey.of("track_rear")[0]
    assert reading.by == "laser"
    assert reading.value == pytest.approx(1570, abs=5)


def test_scales_give_the_kerb_masses_and_ask_what_was_aboard(
    survey: SurveyStage, window: MainWindow, qtbot: QtBot
) -> None:
    true = {"FL": 600.0, "FR": 590.0, "RL": 410.0, "RR": 400.0}
    device = Simulator(scales(lambda: true))
    survey.device.setEditText(device.path)
    qtbot.mouseClick(survey.weigh_button, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: abs(window.session.job.vehicle.kerb.front - 1190) < 8, timeout=8000)
    device.close()
    assert window.session.job.vehicle.kerb.source == "weighed"
    assert "nothing counts twice" in window.message.text()


def test_a_device_that_is_not_there_says_so(
    survey: SurveyStage, window: MainWindow, qtbot: QtBot
) -> None:
    survey.device.setEditText("")
    qtbot.mouseClick(survey.read_button, Qt.MouseButton.LeftButton)
    assert "Name the device first" in window.message.text()
    survey.device.setEditText("/no/such/device")
    qtbot.mouseClick(survey.read_button, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: "cannot be reached" in window.message.text(), timeout=8000)
    assert survey.read_button.isEnabled()


def test_ratings_are_typed_in_the_card_and_the_lowest_governs(
    survey: SurveyStage, window: MainWindow, qtbot: QtBot
) -> None:
    edit = window.card.edit_of("vehicle.ratings.rear_spring")
    edit.setFocus()
    edit.selectAll()  # type: ignore[attr-defined]
    qtbot.keyClicks(edit, "1600")
    qtbot.keyClick(edit, Qt.Key.Key_Return)
    assert "Rear axle may carry 1,600 kg, by its springs" in window.card._sum.text()
    over = [
        f.scenario
        for f in window.session.verdict.findings
        if f.code == "loads.rear" and f.severity == "stop"
    ]
    assert over == ["full", "dry", "towing", "rear"]
    window.session.undo()
    assert window.session.verdict.count("stop", "Loads") == 0


def test_a_dot_is_dragged_and_everything_goes_along(
    body: BodyStage, window: MainWindow, qtbot: QtBot
) -> None:
    session, drawing = window.session, body.drawing
    start = session.job
    handle = next(
        h
        for h in body_sizes.handles(session.verdict.assembly, "left")
        if h.path == "body.tray.length"
    )
    before = drawing.window_now()
    at = before.px(handle.at)
    hand = Hand(drawing)
    hand.press(at)
    payloads = []
    for n in range(1, 9):
        hand.move(at + QPointF(25 * n * before.s, 0))
        payloads.append(session.verdict.loads.scenario("full").payload_left.value)
    assert payloads == sorted(payloads, reverse=True)
    hand.release(at + QPointF(200 * before.s, 0))
    assert session.job.body.tray.length == pytest.approx(2250, abs=5)
    assert session.job.body.canopy.length == pytest.approx(2200, abs=5)  # type: ignore[union-attr]
    assert session.history.undo_words() == "change tray length"
    qtbot.keyClick(drawing, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert session.job is start
    hand.press(drawing.window_now().px(handle.at))
    hand.move(at + QPointF(60, 0))
    qtbot.keyClick(drawing, Qt.Key.Key_Escape)
    assert session.job is start
    hand.release(at)


def test_a_size_is_typed_on_the_drawing(body: BodyStage, window: MainWindow, qtbot: QtBot) -> None:
    drawing, session = body.drawing, window.session
    size = next(
        s
        for s in body_sizes.sizes(session.verdict.assembly, "left")
        if s.path == "body.canopy.height"
    )
    qtbot.mouseClick(drawing, Qt.MouseButton.LeftButton, pos=drawing.spot(size).toPoint())
    assert drawing.edit.isVisible()
    assert drawing.edit.text() == "960"
    drawing.edit.selectAll()
    qtbot.keyClicks(drawing.edit, "960+2*25")
    qtbot.keyClick(drawing.edit, Qt.Key.Key_Return)
    assert session.job.body.canopy.height == 1010  # type: ignore[union-attr]
    assert not drawing.edit.isVisible()
    before = session.job
    drawing.type_size(size)
    drawing.edit.setText("90")
    qtbot.keyClick(drawing.edit, Qt.Key.Key_Return)
    assert session.job is before
    assert "would become" in window.message.text()
    assert drawing.edit.isVisible()


def test_a_shorter_canopy_leaves_units_outside_and_offers_to_mend(
    body: BodyStage, window: MainWindow
) -> None:
    session = window.session
    units = session.job.units
    assert editing.set_size(session, path="body.tray.length", value=1850.0)
    assert session.job.units is units
    finding = next(f for f in session.verdict.findings if f.code == "fit.outside.end")
    show_finding(session, finding)
    assert session.look.stage == "Fit-out"
    assert any(b.isVisible() and b.text() for b in window.findings.buttons)


@pytest.mark.parametrize("station", ["left", "right", "rear", "front", "above"])
def test_facts_and_sizes_from_every_place(
    body: BodyStage, window: MainWindow, station: str
) -> None:
    window.session.view.set(station=station)
    assert not window.grab().isNull()
    columns = dict(body.facts.columns())
    assert ("Height", "2,340 mm") in columns["Outside"]
    assert any("of 1,944 mm" in figure for _, figure in columns["Outside"])


@pytest.mark.parametrize("what", fitting.UNDER)
def test_what_is_hung_under_the_tray_fits_or_says_what_is_in_the_way(what: str) -> None:
    for entry in vehiclefile.library():
        if entry.vehicle is None or entry.vehicle.kind != "cab-chassis":
            continue
        job = fitting.begun("x", entry.vehicle, "full canopy")
        trouble = ""
        try:
            made = fitting.toggled(job, what)
        except InputError as error:
            trouble = str(error)
        if trouble:
            assert "no room" in trouble
            continue
        assert judge(made).outline.conflicts == ()
        assert fitting.toggled(made, what).body.tray == job.body.tray


def test_menu_hangs_a_toolbox_and_takes_it_away(body: BodyStage, window: MainWindow) -> None:
    session = window.session
    editing.set_size(session, path="body.tray.length", value=2500.0)
    do(window.session, "body.box_behind_left")
    assert [b.id for b in session.job.body.tray.boxes] == ["behind-left"]
    assert window.card.edit_of("body.tray.boxes.behind-left.length") is not None
    do(window.session, "body.box_behind_left")
    assert session.job.body.tray.boxes == ()
    do(window.session, "vehicle.long_range")
    assert session.job.vehicle.long_range is not None
    assert window.card is not None


def test_a_new_job_is_chosen_and_begun(
    window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    def choose(dialog: NewJob) -> int:
        dialog.show()
        for row in range(dialog.list.count()):
            dialog.list.setCurrentRow(row)
            for n in range(dialog.body.count()):
                dialog.body.setCurrentIndex(n)
                dialog.grab()
        row = next(i for i in range(dialog.list.count()) if "pickup" in dialog.list.item(i).text())  # type: ignore[union-attr]
        dialog.list.setCurrentRow(row)
        dialog.body.setCurrentIndex(0)
        dialog.name.setText("Marsh run")
        return int(QDialog.DialogCode.Accepted)

    monkeypatch.setattr(NewJob, "exec", choose)
    qtbot.keyClick(window, Qt.Key.Key_N, Qt.KeyboardModifier.ControlModifier)
    session = window.session
    assert session.job.name == "Marsh run"
    assert session.job.body.canopy.kind == "topper"  # type: ignore[union-attr]
    assert session.look.stage == "Survey"
    assert session.history.dirty
    session.view.set(stage="Body")
    editing.set_size(session, path="body.tray.false_floor", value=60.0)
    assert session.job.body.canopy.bays[0].sill == 60  # type: ignore[union-attr]
    editing.set_size(session, path="body.tray.wings", value=120.0)
    assert session.job.body.canopy.bays[0].start == 120  # type: ignore[union-attr]
    assert {"False floor: board", "Wing: top"} <= {p.name for p in session.verdict.assembly.parts()}
    session.view.set(stage="Fit-out", station="rear")
    assert editing.place(session, entry="drawer-small")
    session.history.mark_saved()


def test_a_vehicle_that_cannot_be_used_is_shown_with_its_trouble(
    qtbot: QtBot, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    folder = vehiclefile.own_folder()
    folder.mkdir(parents=True)
    (folder / "zz.vehicle.json").write_text("{")
    dialog = NewJob(LIGHT)
    qtbot.addWidget(dialog)
    dialog.show()
    dialog.list.setCurrentRow(dialog.list.count() - 1)
    assert dialog.job() is None
    assert "ends too early" in dialog.picture.words
    dialog.grab()


def test_vehicles_go_out_and_come_in(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    path = tmp_path / "mine"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a: (str(path), ""))
    do(window.session, "vehicle.export")
    file = tmp_path / "mine.vehicle.json"
    assert vehiclefile.load(file) == window.session.job.vehicle
    editing.set_size(window.session, path="vehicle.name", value="Changed")
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_a: (str(file), ""))
    do(window.session, "vehicle.import")
    assert window.session.job.vehicle.name == "Marl 2.8"
    file.write_text("{")
    do(window.session, "vehicle.import")
    assert "ends too early" in window.message.text()


@pytest.mark.parametrize("name", DEMOS)
def test_every_demo_job_opens_and_shows_every_stage(window: MainWindow, name: str) -> None:
    do(window.session, f"job.demo_{name}")
    session: Session = window.session
    assert session.job == demo_job(name)
    assert session.verdict.count("stop") == 0
    for stage in ("Survey", "Body", "Fit-out", "Loads"):
        for station in ("left", "rear"):
            session.view.set(stage=stage, station=station)
            assert not window.grab().isNull()


def test_a_carried_thing_shows_its_card_again_after_survey(window: MainWindow) -> None:
    window.session.selection.select("spare")
    window.session.view.turn_to("Survey", "Measures")
    assert window.card._title.text() == "Marl 2.8"
    window.session.view.set(stage="Fit-out")
    assert window.card._title.text() == "Spare wheel"
    window.session.edit("x", edits.removed(window.session.job, "spare"))
    assert window.card._title.text() == "Brackwater Bird Survey"
