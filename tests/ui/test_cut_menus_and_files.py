"""Cut, menus, dialogs and files in the real window."""

from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication, QMessageBox
from pytestqt.qtbot import QtBot

from roomy_hull.desktop import application
from roomy_hull.desktop.widgets.dialogs import ActionSearch, KeySheet
from roomy_hull.desktop.window import MainWindow
from roomy_hull.formats import jobfile
from roomy_hull.job.edits import units as edits
from roomy_hull.session.session import Session

CTRL = Qt.KeyboardModifier.ControlModifier
ALT = Qt.KeyboardModifier.AltModifier


# Cut


def test_the_cut_stage_nests_draws_and_writes(
    window: MainWindow, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(window.session.asker, "folder", lambda _words: tmp_path / "out")
    window.session.view.set(stage="Cut")
    stage = window.stage("Cut")
    qtbot.waitUntil(lambda: stage.cut is not None and stage.idle, timeout=20000)
    assert stage.cut is not None
    assert "sheets (no nesting needs fewer than" in stage.summary.text()
    for row in range(stage.list.count()):
        stage.list.setCurrentRow(row)
        stage.drawing.grab()
    window.session.selection.select("camp")
    assert "Camp drawer" in stage.list.currentItem().text()  # type: ignore[union-attr]
    with qtbot.waitSignal(stage.written, timeout=30000):
        qtbot.mouseClick(stage.write_button, Qt.MouseButton.LeftButton)
    assert (tmp_path / "out" / "parts.csv").is_file()
    assert "cut files are written" in window.message.text()


def test_long_work_can_be_given_up(window: MainWindow, qtbot: QtBot, tmp_path: Path) -> None:
    window.session.view.set(stage="Cut")
    stage = window.stage("Cut")
    qtbot.waitUntil(lambda: stage.cut is not None and stage.idle, timeout=20000)
    stage.write(tmp_path / "out")
    assert not stage.idle
    assert stage.cancel_button.isVisible()
    qtbot.mouseClick(stage.cancel_button, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: stage.idle, timeout=20000)
    assert not (tmp_path / "out" / "bars.csv").exists()
    stage.write(tmp_path / "out")
    stage.write(tmp_path / "out")
    assert "still at work" in window.message.text()
    qtbot.waitUntil(lambda: stage.idle, timeout=30000)


# Menus, dialogs, files


def test_menus_are_the_registrys_and_name_what_undo_does(window: MainWindow) -> None:
    session = window.session
    session.edit("move tools", edits.changed(session.job, "tools", u=500.0))
    window.menus._show()
    assert window.menus.actions["edit.undo"].text() == "Undo move tools"
    assert not window.menus.actions["edit.redo"].isEnabled()
    window.menus._hide()
    assert window.menus.actions["edit.redo"].isEnabled()
    assert set(window.menus.actions) == {a.id for a in window.session.registry.all()}


def test_the_key_sheet_and_the_search_of_actions(window: MainWindow, qtbot: QtBot) -> None:
    sheet = KeySheet(window.session.registry, window)
    qtbot.addWidget(sheet)
    sheet.show()
    search = ActionSearch(window.session.registry, window.session, window)
    qtbot.addWidget(search)
    search.show()
    qtbot.keyClicks(search.field, "light dark")
    assert search.chosen() == "look.theme"
    qtbot.keyClick(search.field, Qt.Key.Key_Down)
    qtbot.keyClick(search.field, Qt.Key.Key_Return)
    assert search.result() == 1
    search.field.setText("nothing like this")
    assert search.chosen() == ""


def test_unsaved_work_is_asked_about(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    session = window.session
    assert session.asker.may_lose()
    session.edit("move", edits.changed(session.job, "tools", u=500.0))
    assert window.isWindowModified()
    buttons = QMessageBox.StandardButton
    for answer, goes_on in ((buttons.Cancel, False), (buttons.Discard, True)):
        monkeypatch.setattr(QMessageBox, "question", lambda *_a, a=answer: a)
        assert session.asker.may_lose() == goes_on
    monkeypatch.setattr(QMessageBox, "question", lambda *_a: buttons.Save)
    monkeypatch.setattr(session.asker, "save_path", lambda: tmp_path / "kept.hull.json")
    assert session.asker.may_lose()
    assert jobfile.load(tmp_path / "kept.hull.json") == session.job
    assert "kept.hull.json" in window.windowTitle()
    window.menus._fill_recent()
    assert [a.text() for a in window.menus.recent.actions()] == ["kept.hull.json"]


def test_work_of_a_run_that_died_is_offered(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    from tests.formats.test_keeping import left_by_a_dead_process

    session = window.session
    job = edits.changed(session.job, "tools", u=500.0)
    left_by_a_dead_process(session.keeping, job, tmp_path / "j.hull.json")
    buttons = QMessageBox.StandardButton
    monkeypatch.setattr(QMessageBox, "question", lambda *_a: buttons.Cancel)
    application.offer_recovery(session, window)
    assert len(session.keeping.left_behind()) == 1
    monkeypatch.setattr(QMessageBox, "question", lambda *_a: buttons.Yes)
    application.offer_recovery(session, window)
    assert session.job == job
    assert session.history.dirty
    assert session.keeping.left_behind() == []
    left_by_a_dead_process(session.keeping, job, None)
    monkeypatch.setattr(QMessageBox, "question", lambda *_a: buttons.No)
    application.offer_recovery(session, window)
    assert session.keeping.left_behind() == []


def test_a_fault_of_ours_is_told_and_the_work_kept(
    session: Session, window: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    import sys

    monkeypatch.setattr(sys, "excepthook", sys.excepthook)
    application.catch_faults(session, window)
    session.edit("move", edits.changed(session.job, "tools", u=500.0))
    try:
        raise RuntimeError("oops")
    except RuntimeError as fault:
        sys.excepthook(RuntimeError, fault, fault.__traceback__)
    assert "Your work is kept" in window.message.text()
    assert "Traceback" not in window.message.text()
    assert "oops" in (session.keeping.state / "roomy-hull.log").read_text()
    assert list(session.keeping.state.glob("autosave-*.json"))


def test_nothing_is_drawn_in_empty_squares(window: MainWindow) -> None:
    from PyQt6.QtGui import QFontInfo

    from roomy_hull.desktop.theme import font

    assert QFontInfo(font(13)).family() == "B612"
    assert QFontInfo(font(13, bold=True)).bold()
    assert QFontInfo(QApplication.font()).family() == "B612"


def test_an_empty_canopy_says_what_to_do(window: MainWindow) -> None:
    job = window.session.job
    for unit in job.units:
        job = edits.removed(job, unit.id)
    window.session.edit("clear", job)
    assert not window.grab().isNull()
    assert window.session.job.units == ()
