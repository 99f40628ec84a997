"""What somebody does in the first ten minutes, in the real window: search and place, type and leave, turn the wheel."""

import msgspec
import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtGui import QWheelEvent
from PyQt6.QtWidgets import QApplication, QPushButton
from pytestqt.qtbot import QtBot

from roomy_hull.desktop import application
from roomy_hull.desktop.widgets.chooser import Chooser
from roomy_hull.desktop.widgets.figure_edit import FigureEdit
from roomy_hull.desktop.widgets.welcome import NOTES, Tour, Welcome
from roomy_hull.desktop.window import MainWindow
from roomy_hull.session.finding_room import TRIAL


def turn_wheel(widget: Chooser) -> None:
    at = QPointF(5, 5)
    event = QWheelEvent(at, widget.mapToGlobal(at), QPoint(0, -120), QPoint(0, -120), Qt.MouseButton.NoButton,
                        Qt.KeyboardModifier.NoModifier, Qt.ScrollPhase.NoScrollPhase, False)  # fmt: skip
    QApplication.sendEvent(widget, event)


def test_what_is_searched_is_offered_and_enter_places_it_again_and_again(
    window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    session.view.set(station="left")
    session.edit("clear", msgspec.structs.replace(
        session.job, units=(), sets=(), runs=(), scenarios=tuple(s.but(left_behind=()) for s in session.job.scenarios),
    ))  # fmt: skip
    search = window.stores.search
    search.setFocus()
    qtbot.keyClicks(search, "open pocket")
    assert window.stores.list.chosen_key() == "pocket"
    qtbot.keyClick(search, Qt.Key.Key_Return)
    qtbot.keyClick(search, Qt.Key.Key_Return)
    assert [u.id for u in session.job.units] == ["pocket", "pocket-2"]
    assert search.hasFocus()
    qtbot.keyClick(search, Qt.Key.Key_Escape)
    assert search.text() == ""
    # What is called so comes before what is only said to be like it.
    for words, key in (
        ("fuse", "fuse-board"),
        ("drawer with", "drawer-table"),
        ("battery", "battery"),
    ):
        search.selectAll()
        qtbot.keyClicks(search, words)
        assert window.stores.list.chosen_key() == key
    search.clear()
    qtbot.keyClicks(search, "fridge")
    first = window.stores.list.currentRow()
    qtbot.keyClick(search, Qt.Key.Key_Down)
    assert window.stores.list.hasFocus()
    assert window.stores.list.currentRow() == first
    qtbot.keyClick(window.stores.list, Qt.Key.Key_Down)
    assert window.stores.list.currentRow() > first
    search.setFocus()
    search.selectAll()
    qtbot.keyClicks(search, "no such thing")
    before = session.job
    qtbot.keyClick(search, Qt.Key.Key_Return)
    assert session.job is before


def test_what_is_carried_over_a_bay_comes_to_rest_on_what_is_below(window: MainWindow) -> None:
    session, ground = window.session, window.ground
    session.view.set(station="left")
    where = ground.layout_now()
    view = ground.views()[0]
    place = session.verdict.assembly.ground.bays["L"]
    session.edit("clear", msgspec.structs.replace(
        session.job, units=(session.job.thing("net-drawer").but(w=0.0),), sets=(), runs=(),  # type: ignore[union-attr]
        scenarios=tuple(s.but(left_behind=()) for s in session.job.scenarios),
    ))  # fmt: skip

    def over(u: float, w: float) -> QPointF:
        box = place.frame.point(u, 0.0, w)
        return where.elevation.px((box[view.h[0]] * view.h[1], box[2]))

    rests = []
    for u, w in ((1300.0, 500.0), (600.0, 700.0), (100.0, 880.0), (-60.0, 300.0)):
        ground.carry("pocket", over(u, w))
        trial = session.history.job.thing(TRIAL)
        rests.append((trial.w, 0 <= trial.u <= 1525 - trial.width))  # type: ignore[union-attr]
    ground.drag.cancel()
    # On the floor; on the drawer, 260 high with its running gap, which it reaches from the front too.
    assert rests == [(0, True), (263, True), (263, True), (0, True)]


def test_the_wheel_changes_nothing_by_accident(window: MainWindow, qtbot: QtBot) -> None:
    chooser = window.strip.chooser
    window.ground.setFocus()
    before = chooser.currentIndex()
    turn_wheel(chooser)
    assert chooser.currentIndex() == before
    chooser.setFocus()
    turn_wheel(chooser)
    assert chooser.currentIndex() != before
    assert window.findChildren(Chooser)


def test_a_figure_and_tab_goes_to_the_next_figure_and_escape_gives_it_back(
    window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    session.selection.select("tools")
    width, depth = window.card.edit_of("width"), window.card.edit_of("depth")
    assert isinstance(width, FigureEdit)
    width.setFocus()
    width.selectAll()
    qtbot.keyClicks(width, "475")
    qtbot.keyClick(width, Qt.Key.Key_Tab)
    assert session.job.thing("tools").width == 475  # type: ignore[union-attr]
    assert window.card.edit_of("depth") is depth
    assert depth.hasFocus()
    assert isinstance(depth, FigureEdit)
    depth.selectAll()
    qtbot.keyClicks(depth, "12")
    qtbot.keyClick(depth, Qt.Key.Key_Escape)
    assert depth.text() == "820"
    assert session.job.thing("tools").depth == 820  # type: ignore[union-attr]


def test_card_and_findings_share_their_column_by_what_they_need(
    window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    window.resize(1280, 680)
    session.selection.select("galley")
    qtbot.wait(250)
    card, below = window.side.sizes()
    assert card > below
    session.selection.clear()
    qtbot.wait(250)
    assert window.side.sizes()[1] >= below
    # Where the person puts the split, it stays.
    window.side.setSizes([200, card + below - 200])
    window.side.splitterMoved.emit(200, 1)
    session.selection.select("galley")
    qtbot.wait(250)
    assert window.side.sizes()[0] == pytest.approx(200, abs=3)


def test_a_long_name_does_not_widen_the_card(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    long = msgspec.structs.replace(session.job.vehicle, name="M" * 110)
    session.edit("name", msgspec.structs.replace(session.job, vehicle=long))
    session.selection.clear()
    qtbot.wait(20)
    inner = window.card.widget()
    assert inner is not None
    viewport = window.card.viewport()
    assert viewport is not None
    assert inner.width() <= viewport.width()
    assert window.width() == 1280


def test_everything_is_there_in_1280_by_680(window: MainWindow, qtbot: QtBot) -> None:
    window.resize(1280, 680)
    qtbot.wait(20)
    assert (window.width(), window.height()) == (1280, 680)
    strip = window.strip
    lower = strip.mapTo(window, QPoint(0, strip.height())).y()
    assert lower <= 680
    assert strip.height() > 60


def test_a_first_start_offers_what_to_begin_with_and_shows_round_once(
    window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    session = window.session
    seen: list[Welcome] = []

    def choose(dialog: Welcome) -> int:
        seen.append(dialog)
        button = dialog.findChild(QPushButton, "job.demo_tarn")
        assert button is not None
        qtbot.mouseClick(button, Qt.MouseButton.LeftButton)
        return 1

    monkeypatch.setattr(Welcome, "exec", choose)
    application.welcome(session, window)
    assert session.job.name == "Tarn Seed Bank"
    assert session.settings.preferences()["welcomed"] is True
    assert {b.objectName() for b in seen[0].findChildren(QPushButton)} >= {
        "job.new",
        "job.open",
        "job.demo_lowfold",
    }
    tour = window.findChild(Tour)
    assert tour is not None
    said = []
    for _ in NOTES:
        said.append(tour.words.text())
        assert window.rect().contains(tour.geometry())
        qtbot.mouseClick(tour.next, Qt.MouseButton.LeftButton)
    assert [s[:6] for s in said] == [f"{n} of 5" for n in range(1, 6)]
    qtbot.waitUntil(lambda: window.findChild(Tour) is None, timeout=2000)
