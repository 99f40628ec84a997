"""The page Arrange in the real window: taken from the stores, weighed, begun, looked at, taken, undone."""

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.pages.fitout.arranging import ArrangePage
from roomy_hull.desktop.window import MainWindow
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.settings import Settings
from roomy_hull.session.doing import do
from roomy_hull.session.session import Session
from tests.builders import begun
from tests.ui.conftest import opened

LEFT = Qt.MouseButton.LeftButton
CTRL = Qt.KeyboardModifier.ControlModifier
ALT = Qt.KeyboardModifier.AltModifier


@pytest.fixture
def wagon(qtbot: QtBot, keeping: Settings):  # type: ignore[no-untyped-def]  # a generator of windows
    yield from opened(qtbot, Session(demo_job("tarn"), keeping))


@pytest.fixture
def empty(qtbot: QtBot, keeping: Settings):  # type: ignore[no-untyped-def]  # a generator of windows
    yield from opened(qtbot, Session(begun("Fen", "full canopy"), keeping))


def page(window: MainWindow, qtbot: QtBot) -> ArrangePage:
    """Turn to the page by its key."""
    qtbot.keyClick(window, Qt.Key.Key_F2, CTRL)
    QApplication.processEvents()
    found = window.findChild(ArrangePage)
    assert found is not None
    assert found.isVisible()
    return found


def cell(table: object, row: int, column: int) -> QPoint:
    return table.visualRect(table.model().index(row, column)).center()  # type: ignore[attr-defined]  # a QTableWidget


def finished(shown: ArrangePage, qtbot: QtBot) -> None:
    qtbot.waitUntil(lambda: not shown.run.asking, timeout=60_000)
    QApplication.processEvents()


def test_a_newcomer_takes_things_and_gets_a_layout(empty: MainWindow, qtbot: QtBot) -> None:
    """Ten things by search and Enter, one button, a layout that is taken as one step."""
    shown, session = page(empty, qtbot), empty.session
    assert empty.stores.isVisible()
    assert "Take what has to go in" in shown.words.text()
    for words in ("drawer 50", "locked drawer", "small drawer", "shelf", "tank", "battery", "charger", "fuse board",
                  "extinguisher", "first-aid"):  # fmt: skip
        empty.stores.search.clear()
        qtbot.keyClicks(empty.stores.search, words)
        qtbot.keyClick(empty.stores.search, Qt.Key.Key_Return)
    names = [u.name for u in session.job.arrange.wanted]
    assert len(names) == 10, names
    assert session.job.units == ()
    assert shown.list.rowCount() == 10
    shown.run.set(seconds=8.0)
    qtbot.mouseClick(shown.go, LEFT)
    assert shown.end.isEnabled()
    assert not shown.go.isEnabled()
    finished(shown, qtbot)
    assert "points" in shown.words.text()
    assert shown.table.rowCount() >= 1
    qtbot.mouseClick(shown.take, LEFT)
    assert len(session.job.units) == 10
    assert session.job.arrange.wanted == ()
    assert session.verdict.count("stop", "Fit-out") == 0
    qtbot.keyClick(empty, Qt.Key.Key_Z, CTRL)
    assert session.job.units == ()
    assert len(session.job.arrange.wanted) == 10


def test_another_of_the_layouts_is_looked_at_and_taken(wagon: MainWindow, qtbot: QtBot) -> None:
    shown, session = page(wagon, qtbot), wagon.session
    shown.run.set(seconds=6.0, pitch=25.0)
    qtbot.keyClick(wagon, Qt.Key.Key_A, CTRL | ALT)
    assert shown.run.working
    finished(shown, qtbot)
    assert shown.table.rowCount() >= 2
    first = shown.this.text()
    qtbot.mouseClick(shown.table.viewport(), LEFT, pos=cell(shown.table, 1, 0))
    assert shown.run.chosen == 1
    assert shown.this.text() != first
    other = shown.model.job()
    qtbot.keyClick(wagon, Qt.Key.Key_T, CTRL | ALT)
    assert session.job.units == other.units
    assert session.job.layout == "Arranged"
    assert {v.name for v in session.job.variants} >= {"Arranged otherwise"}


def test_stop_answers_and_the_window_lives_on(wagon: MainWindow, qtbot: QtBot) -> None:
    shown = page(wagon, qtbot)
    shown.run.set(seconds=120.0, pitch=25.0)
    qtbot.mouseClick(shown.go, LEFT)
    qtbot.waitUntil(
        lambda: shown.run.told is not None and shown.run.told.job is not None, timeout=60_000
    )
    before = wagon.session.job
    qtbot.mouseClick(shown.end, LEFT)
    assert not shown.run.working
    assert "Stopped" in shown.words.text()
    assert wagon.session.job is before
    qtbot.mouseClick(shown.take, LEFT)
    assert wagon.session.job.layout == "Arranged"


def test_a_job_changed_while_it_runs_is_told(wagon: MainWindow, qtbot: QtBot) -> None:
    shown, session = page(wagon, qtbot), wagon.session
    shown.run.set(seconds=20.0, pitch=25.0)
    qtbot.mouseClick(shown.go, LEFT)
    session.selection.select("cold")
    do(session, "edit.delete")
    assert shown.run.working
    qtbot.waitUntil(
        lambda: "changed meanwhile" in shown.words.text() or not shown.run.working, timeout=30_000
    )
    shown.run.stop()
    assert session.job.thing("cold") is None


def test_sliders_weigh_by_key_and_are_undone(wagon: MainWindow, qtbot: QtBot) -> None:
    shown, session = page(wagon, qtbot), wagon.session
    low = next(w for w in shown.weights if w.part == "low")
    before = low.slider.value()
    low.slider.setFocus()
    qtbot.keyClick(low.slider, Qt.Key.Key_Right)
    assert session.job.arrange.weights.low == (before + 1) / 2
    assert session.job.arrange.own_weights
    qtbot.keyClick(wagon, Qt.Key.Key_Z, CTRL)
    assert low.slider.value() == before
    assert not session.job.arrange.own_weights


def test_cells_pin_and_choose_bays(wagon: MainWindow, qtbot: QtBot) -> None:
    shown, session = page(wagon, qtbot), wagon.session
    row = shown.model.things().index("cold")
    qtbot.mouseClick(shown.list.viewport(), LEFT, pos=cell(shown.list, row, 3))
    assert session.job.arrange.pinned == ("cold",)
    assert shown.list.text_at(row, 3) == "pinned"
    qtbot.mouseClick(shown.list.viewport(), LEFT, pos=cell(shown.list, row, 0))
    assert session.selection.key == "cold"


def test_two_rows_are_wished_near_each_other(wagon: MainWindow, qtbot: QtBot) -> None:
    shown, session = page(wagon, qtbot), wagon.session
    qtbot.mouseClick(shown.two[1], LEFT)
    assert "Choose two rows" in wagon.message.text()
    shown.list.selectRow(0)
    qtbot.mouseClick(shown.list.viewport(), LEFT, CTRL, cell(shown.list, 2, 0))
    qtbot.mouseClick(shown.two[1], LEFT)
    things = shown.model.things()
    assert {session.job.arrange.near[0].a, session.job.arrange.near[0].b} == {things[0], things[2]}


def test_why_here_is_answered_on_the_page(wagon: MainWindow, qtbot: QtBot) -> None:
    wagon.session.selection.select("cold")
    qtbot.keyClick(wagon, Qt.Key.Key_W, CTRL | ALT)
    shown = wagon.findChild(ArrangePage)
    assert shown is not None
    assert shown.isVisible()
    finished(shown, qtbot)
    assert shown.why.text().startswith("Cold drawer 40 l: elsewhere in its bay")


def test_what_cannot_be_begun_is_told_where_one_looks(wagon: MainWindow, qtbot: QtBot) -> None:
    shown = page(wagon, qtbot)
    do(wagon.session, "arrange.pin_all")
    qtbot.mouseClick(shown.go, LEFT)
    assert not shown.run.working
    assert "nothing to arrange" in wagon.message.text()


def test_the_page_is_painted_in_both_themes_and_systems(wagon: MainWindow, qtbot: QtBot) -> None:
    shown = page(wagon, qtbot)
    do(wagon.session, "arrange.pin_all")
    light = shown.grab().toImage()
    wagon.session.view.set(dark=True, system="us")
    QApplication.processEvents()
    dark = shown.grab().toImage()
    assert light != dark
    assert shown.layout_.theme is shown.theme
