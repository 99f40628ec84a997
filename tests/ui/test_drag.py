"""The main gesture: a hand moves the fridge, the weigh strip moves, a clash is raised and cleared."""

import pytest
from PyQt6.QtCore import QPointF, Qt
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.window import MainWindow

from .conftest import Hand, middle, millimetres


def test_dragging_the_fridge_moves_the_strip_and_raises_and_clears_a_clash(
    window: MainWindow, hand: Hand
) -> None:
    session = window.session
    start = session.job
    rear = window.strip.reading().rear.value
    at = middle(window, "sample-fridge")
    hand.press(at)
    assert session.selection.key == "sample-fridge"
    # From the right one sees the front of the vehicle at the right: aft is to the left.
    rears, stops = [], []
    for n in range(1, 7):
        hand.move(at - QPointF(millimetres(window, 25.0 * n), 0))
        rears.append(window.strip.reading().rear.value)
        stops.append(session.verdict.count("stop"))
    assert rears == sorted(rears)
    assert rears[-1] > rear + 2
    assert stops[-1] == 4
    assert session.job.thing("sample-fridge").u == 175  # type: ignore[union-attr]
    assert "4 stop" in window.findings.title.text()
    assert session.history.settled is start, "nothing is settled while the hand holds it"
    hand.move(at)
    assert session.verdict.count("stop") == 0
    assert window.strip.reading().rear.value == pytest.approx(rear)
    hand.move(at - QPointF(millimetres(window, 50), 0))
    hand.release(at - QPointF(millimetres(window, 50), 0))
    assert session.job.thing("sample-fridge").u == 75  # type: ignore[union-attr]
    assert session.history.undo_words() == "move Sample fridge"


def test_one_gesture_is_undone_at_once(window: MainWindow, hand: Hand, qtbot: QtBot) -> None:
    start = window.session.job
    at = middle(window, "tools")
    hand.press(at)
    for n in range(30):
        hand.move(at + QPointF(0, -3.0 * n))
    hand.release(at + QPointF(0, -90))
    assert window.session.job is not start
    qtbot.keyClick(window.ground, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert window.session.job is start
    qtbot.keyClick(
        window.ground,
        Qt.Key.Key_Z,
        Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier,
    )
    assert window.session.job is not start


def test_escape_lets_go_without_a_trace(window: MainWindow, hand: Hand, qtbot: QtBot) -> None:
    start = window.session.job
    at = middle(window, "tools")
    hand.press(at)
    hand.move(at + QPointF(0, -60))
    assert window.session.job is not start
    qtbot.keyClick(window.ground, Qt.Key.Key_Escape)
    assert window.session.job is start
    assert window.session.history.undo_words() == ""
    hand.release(at)
    assert window.session.job is start


def test_a_click_only_selects(window: MainWindow, hand: Hand) -> None:
    start = window.session.job
    at = middle(window, "optics")
    hand.press(at)
    hand.move(at + QPointF(1, 1))
    hand.release(at + QPointF(1, 1))
    assert window.session.selection.key == "optics"
    assert window.session.job is start


def test_shift_goes_by_the_millimetre(window: MainWindow, hand: Hand) -> None:
    at = middle(window, "tools")
    shift = Qt.KeyboardModifier.ShiftModifier
    hand.press(at)
    hand.move(at - QPointF(millimetres(window, 37), 0), shift)
    hand.release(at - QPointF(millimetres(window, 37), 0))
    assert window.session.job.thing("tools").u == pytest.approx(512, abs=1)  # type: ignore[union-attr]


def test_free_places_and_gaps_are_shown_while_holding(window: MainWindow, hand: Hand) -> None:
    at = middle(window, "sample-fridge")
    hand.press(at)
    hand.move(at - QPointF(30, 0))
    from roomy_hull.drawing.view import ELEVATION

    roles = [s.role for s in window.ground._overlay(ELEVATION["right"], True)]
    assert "free" in roles
    assert "gap" in roles
    assert "mark stop" in roles
    assert "selected" in roles
    window.grab()
    hand.release(at)


def test_depth_is_moved_in_the_slice(window: MainWindow, hand: Hand) -> None:
    window.session.selection.select("camp")
    thing = window.session.verdict.assembly.thing("bedding")
    assert thing is not None
    from roomy_hull.drawing.view import SLICE

    h0, k0, h1, k1 = SLICE["right"].rect(thing.envelope)
    cut = window.ground.layout_now().cut
    at = cut.px(((h0 + h1) / 2, (k0 + k1) / 2))
    hand.press(at)
    assert window.session.selection.key == "bedding"
    hand.move(at - QPointF(0, 100 * cut.s))
    hand.release(at - QPointF(0, 100 * cut.s))
    assert window.session.job.thing("bedding").v == pytest.approx(100, abs=5)  # type: ignore[union-attr]


def test_a_carried_item_is_dragged_along_the_vehicle(window: MainWindow, hand: Hand) -> None:
    at = middle(window, "punt")
    hand.press(at)
    assert window.session.selection.key == "punt"
    hand.move(at + QPointF(millimetres(window, 300), 0))
    hand.release(at + QPointF(millimetres(window, 300), 0))
    assert window.session.job.thing("punt").x == pytest.approx(2420 - 300, abs=10)  # type: ignore[union-attr]


def test_the_wheel_zooms_about_the_pointer_and_an_empty_place_pans(
    window: MainWindow, hand: Hand, qtbot: QtBot
) -> None:
    from PyQt6.QtCore import QPoint
    from PyQt6.QtGui import QWheelEvent
    from PyQt6.QtWidgets import QApplication

    ground = window.ground
    at = middle(window, "tools")
    before = ground.layout_now().elevation

    def turn(steps: int) -> None:
        event = QWheelEvent(at, QPointF(ground.mapToGlobal(at.toPoint())), QPoint(), QPoint(0, steps),
                            Qt.MouseButton.NoButton, Qt.KeyboardModifier.NoModifier,
                            Qt.ScrollPhase.NoScrollPhase, False)  # fmt: skip
        QApplication.sendEvent(ground, event)

    turn(480)
    closer = ground.layout_now().elevation
    assert closer.s > 1.5 * before.s
    assert closer.mm(at.x(), at.y()) == pytest.approx(before.mm(at.x(), at.y()), abs=2)
    turn(-4000)
    assert ground.layout_now().elevation.s == pytest.approx(before.s)
    assert ground.layout_now().elevation.mm(0, 0) == pytest.approx(before.mm(0, 0))
    window.session.selection.select("tools")
    hand.press(QPointF(10, 60))
    hand.move(QPointF(40, 80))
    hand.release(QPointF(40, 80))
    assert ground.layout_now().elevation.ox == pytest.approx(before.ox + 30)
    assert window.session.selection.key == ""
