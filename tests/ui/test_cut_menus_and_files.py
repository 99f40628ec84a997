"""Cut, menus, dialogs and files in the real window."""

from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtGui import QKeySequence
from PyQt6.QtWidgets import QApplication, QMessageBox
from pytestqt.qtbot import QtBot

from roomy_hull.cli.paths import shipped_path
from roomy_hull.core.parts import BarPart
from roomy_hull.desktop import application
from roomy_hull.desktop.widgets.dialogs import ActionSearch, KeySheet
from roomy_hull.desktop.window import MainWindow
from roomy_hull.formats import jobfile
from roomy_hull.job.edits import units as edits
from roomy_hull.session.doing import registry
from roomy_hull.session.pages.cut.words import parts
from roomy_hull.session.pages.table import STAGES
from roomy_hull.session.session import Session

DEMO_SMALL = shipped_path("demo:tarn")
assert DEMO_SMALL is not None

CTRL = Qt.KeyboardModifier.ControlModifier
ALT = Qt.KeyboardModifier.AltModifier


# Cut


def page(window: MainWindow, title: str):  # type: ignore[no-untyped-def]  # of the table's own class
    window.session.view.turn_to("Cut", title)
    return window.stage("Cut").page(title)


def nested(window: MainWindow, qtbot: QtBot, title: str = "Sheets"):  # type: ignore[no-untyped-def]
    found = page(window, title)
    qtbot.waitUntil(lambda: found.cut is not None and found.idle, timeout=30000)
    return found


def test_sheets_are_nested_drawn_and_written(
    window: MainWindow, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(window.session.asker, "folder", lambda _words: tmp_path / "out")
    sheets = nested(window, qtbot)
    assert "sheets bought (no nesting needs fewer" in sheets.summary.text()
    assert sheets.list.count() == len(window.session.cutting.cut.nest.sheets)  # type: ignore[union-attr]
    for row in range(sheets.list.count()):
        sheets.list.setCurrentRow(row)
        assert window.session.look.cut.piece == row
        sheets.drawing.grab()
    with qtbot.waitSignal(sheets.written, timeout=60000):
        qtbot.mouseClick(sheets.write_button, Qt.MouseButton.LeftButton)
    assert {"parts.csv", "bars.csv", "bends.csv", "joints.csv", "drill.csv", "buying.csv"} <= {
        p.name for p in (tmp_path / "out").iterdir()
    }
    assert "cut files are written" in window.message.text()


def test_a_nesting_is_improved_until_it_is_stopped(window: MainWindow, qtbot: QtBot) -> None:
    sheets = nested(window, qtbot)
    before = window.session.cutting.cut
    assert before is not None
    qtbot.mouseClick(sheets.better_button, Qt.MouseButton.LeftButton)
    assert sheets.cancel_button.text() == "Stop here"
    qtbot.wait(300)
    qtbot.mouseClick(sheets.cancel_button, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: sheets.idle, timeout=20000)
    after = window.session.cutting.cut
    assert after is not None
    assert after.nest.price <= before.nest.price + 1e-6
    assert "better" in window.message.text()


def test_long_work_can_be_given_up(window: MainWindow, qtbot: QtBot, tmp_path: Path) -> None:
    sheets = nested(window, qtbot)
    sheets.write(tmp_path / "out")
    assert not sheets.idle
    assert sheets.cancel_button.isVisible()
    qtbot.mouseClick(sheets.cancel_button, Qt.MouseButton.LeftButton)
    qtbot.waitUntil(lambda: sheets.idle, timeout=20000)
    assert not (tmp_path / "out" / "bars.csv").exists()
    sheets.write(tmp_path / "out")
    sheets.write(tmp_path / "out")
    assert "still at work" in window.message.text()
    qtbot.waitUntil(lambda: sheets.idle, timeout=60000)


def test_parts_are_chosen_turned_and_bent_step_by_step(window: MainWindow, qtbot: QtBot) -> None:
    shown = page(window, "Parts")
    window.session.selection.select("net-drawer")
    assert "carcass" in shown.words.text()
    assert "for Net drawer" in shown.words.text()
    steps = shown.model.steps()
    assert steps == shown.bends.rowCount() == 2
    whole = shown.folded.grab().toImage()
    qtbot.mouseClick(shown.begin, Qt.MouseButton.LeftButton)
    assert window.session.look.cut.bent == 0
    assert not shown.back.isEnabled()
    flat = shown.folded.grab().toImage()
    assert flat != whole
    qtbot.mouseClick(shown.on, Qt.MouseButton.LeftButton)
    assert shown.folded.grab().toImage() != flat
    qtbot.mouseClick(shown.all, Qt.MouseButton.LeftButton)
    assert shown.folded.grab().toImage() == whole
    qtbot.mousePress(shown.folded, Qt.MouseButton.LeftButton, pos=QPoint(60, 60))
    qtbot.mouseMove(shown.folded, QPoint(120, 90))
    qtbot.mouseRelease(shown.folded, Qt.MouseButton.LeftButton, pos=QPoint(120, 90))
    assert shown.folded.grab().toImage() != whole
    numbers = shown.model.numbers()
    bar = next(n for n, p, _w in parts(window.session) if isinstance(p, BarPart) and p.drilled)
    shown.list.cell_clicked.emit(numbers.index(bar), 0)
    assert window.session.look.cut.part == bar
    assert shown.holes.rowCount() > 0
    assert shown.flat.papers() == ()


def test_joints_gaps_bars_and_cost_tell_what_the_models_say(
    window: MainWindow, qtbot: QtBot
) -> None:
    joints = page(window, "Joints")
    window.session.selection.select("water")
    assert joints.choice.currentText() == "Drinking water"
    assert joints.table.rowCount() == len(joints.model.cells()) > 5
    assert "m of weld" in joints.words.text()
    joints.choice.setCurrentText("Canopy")
    joints.choice.activated.emit(joints.choice.currentIndex())
    assert joints.model.chosen() == "Canopy"
    joints.picture.grab()
    gaps = page(window, "Gaps")
    assert gaps.table.rowCount() == len(gaps.model.gaps()) > 20
    row = gaps.model.keys().index("galley")
    gaps.table.cell_clicked.emit(row, 0)
    assert window.session.selection.key == "galley"
    bars = nested(window, qtbot, "Bars")
    assert "no plan needs fewer than" in bars.summary.text()
    assert bars.table.rowCount() > 0
    cost = nested(window, qtbot, "Cost")
    rows = cost.model.cells()
    assert rows[-1][0][0] == "The whole"
    whole = float(rows[-1][-1][0].replace(",", ""))
    assert whole == pytest.approx(
        sum(float(r[-1][0].replace(",", "")) for r in rows[:-1]), abs=len(rows)
    )
    cost.picture.grab()


def test_a_release_is_made_gone_stale_and_followed_through_the_shop(
    window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    session = window.session
    shown = page(window, "Release")
    assert "Nothing is released yet" in shown.words.text()
    monkeypatch.setattr(session.asker, "name", lambda _words, _wish: "AB")
    qtbot.mouseClick(shown.release, Qt.MouseButton.LeftButton)
    assert session.job.releases[-1].revision == "A"
    assert "Nothing has changed since" in shown.words.text()
    keys = shown.model.keys()
    row = next(n for n, k in enumerate(keys) if k.endswith("Net drawer: front"))
    shown.table.selectRow(row)
    qtbot.mouseClick(shown.states["cut"], Qt.MouseButton.LeftButton)
    assert "1 cut" in shown.words.text()
    session.edit("lower", edits.changed(session.job, "net-drawer", height=240.0))
    assert "have changed since" in shown.words.text()
    assert "cut" in shown.table.text_at(0, 4)
    qtbot.mouseClick(shown.back, Qt.MouseButton.LeftButton)
    assert "are cut already" in window.message.text()
    qtbot.mouseClick(shown.release, Qt.MouseButton.LeftButton)
    assert session.job.releases[-1].revision == "B"
    shown.compare.setCurrentIndex(1)
    shown.compare.activated.emit(1)
    assert "Between A and B" in shown.words.text()
    session.undo()
    assert len(session.job.releases) == 1
    session.edit("clash", edits.changed(session.job, "tools", u=session.job.thing("net-drawer").u))  # type: ignore[union-attr]
    assert session.verdict.count("stop") > 0
    qtbot.mouseClick(shown.release, Qt.MouseButton.LeftButton)
    assert len(session.job.releases) == 1
    assert "Nothing is released: 1 stop finding is open" in window.message.text()


def test_the_book_and_its_labels_are_written(
    window: MainWindow, qtbot: QtBot, tmp_path: Path
) -> None:
    job = jobfile.loads(DEMO_SMALL.read_bytes())  # type: ignore[union-attr]
    window.session.take(job, None)
    sheets = nested(window, qtbot)
    qtbot.waitUntil(
        lambda: window.session.cutting.is_of(window.session.verdict) and sheets.idle, timeout=30000
    )
    with qtbot.waitSignal(sheets.written, timeout=120000):
        sheets.write_book(tmp_path)
    for name in ("book.pdf", "labels.pdf"):
        data = (tmp_path / name).read_bytes()
        assert data.startswith(b"%PDF")
        assert len(data) > 10_000


# Menus, dialogs, files


def test_menus_are_the_registrys_and_name_what_undo_does(window: MainWindow) -> None:
    session = window.session
    session.edit("move tools", edits.changed(session.job, "tools", u=500.0))
    window.menus._show()
    assert window.menus.actions["edit.undo"].text() == "Undo move tools"
    assert not window.menus.actions["edit.redo"].isEnabled()
    window.menus._hide()
    assert window.menus.actions["edit.redo"].isEnabled()
    assert set(window.menus.actions) == {a.id for a in registry().all()}


def test_every_page_is_turned_to_by_its_key(window: MainWindow, qtbot: QtBot) -> None:
    window.show()
    for stage, page in ((s.title, p) for s in STAGES for p in s.pages):
        window.session.view.turn_to("Fit-out", "Drawing")
        keys = QKeySequence(page.key)[0]
        qtbot.keyClick(window, keys.key(), keys.keyboardModifiers())
        look = window.session.look
        assert (look.stage, look.page(stage)) == (stage, page.title), page.key


def test_the_key_sheet_and_the_search_of_actions(window: MainWindow, qtbot: QtBot) -> None:
    sheet = KeySheet(registry(), window)
    qtbot.addWidget(sheet)
    sheet.show()
    search = ActionSearch(registry(), window.session, window)
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
    left_by_a_dead_process(session.settings, job, tmp_path / "j.hull.json")
    buttons = QMessageBox.StandardButton
    monkeypatch.setattr(QMessageBox, "question", lambda *_a: buttons.Cancel)
    application.offer_recovery(session, window)
    assert len(session.settings.left_behind()) == 1
    monkeypatch.setattr(QMessageBox, "question", lambda *_a: buttons.Yes)
    application.offer_recovery(session, window)
    assert session.job == job
    assert session.history.dirty
    assert session.settings.left_behind() == []
    left_by_a_dead_process(session.settings, job, None)
    monkeypatch.setattr(QMessageBox, "question", lambda *_a: buttons.No)
    application.offer_recovery(session, window)
    assert session.settings.left_behind() == []


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
    assert "oops" in (session.settings.state / "roomy-hull.log").read_text()
    assert list(session.settings.state.glob("autosave-*.json"))


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
