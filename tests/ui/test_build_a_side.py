"""A side built from an empty canopy with the mouse alone: out of the stores, placed, moved, opened, judged."""

import msgspec
import pytest
from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.window import MainWindow
from roomy_hull.drawing.view import ELEVATION
from tests.ui.conftest import Hand


def carry(window: MainWindow, key: str, to: QPointF) -> None:
    """Drag an entry out of the stores and let go over the ground, with true mouse events."""
    rows = window.stores.list
    item = rows.item(window.stores.row_of(key))
    assert item is not None
    rows.scrollToItem(item)
    QApplication.processEvents()
    view = rows.viewport()
    assert view is not None
    start = QPointF(rows.visualItemRect(item).center())
    goal = QPointF(view.mapFromGlobal(window.ground.mapToGlobal(to.toPoint())))
    left = Qt.MouseButton.LeftButton

    def send(kind: QEvent.Type, at: QPointF, button: Qt.MouseButton, held: Qt.MouseButton) -> None:
        glob = QPointF(view.mapToGlobal(QPoint(0, 0))) + at
        QApplication.sendEvent(
            view, QMouseEvent(kind, at, glob, button, held, Qt.KeyboardModifier.NoModifier)
        )
        QApplication.processEvents()

    send(QEvent.Type.MouseButtonPress, start, left, left)
    for n in range(1, 7):
        send(QEvent.Type.MouseMove, start + (goal - start) * (n / 6), Qt.MouseButton.NoButton, left)
    send(QEvent.Type.MouseButtonRelease, goal, left, Qt.MouseButton.NoButton)


def place_at(
    window: MainWindow, bay: str, u: float, w: float, size: tuple[float, float]
) -> QPointF:
    """Where the middle of a unit has to be held to stand at (u, w). [px]"""
    place = window.session.verdict.assembly.ground.bays[bay]
    x, y, z = place.frame.point(u + size[0] / 2, 0, w + size[1] / 2)
    return window.ground.layout_now().elevation.px(
        ELEVATION[window.session.look.station].point(x, y, z)
    )


def test_a_side_is_built_from_an_empty_canopy(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    session.take(msgspec.structs.replace(session.job, units=(), carried=(), sets=(), runs=()), None)
    session.view.set(station="left", whole=False)
    QApplication.processEvents()
    plan = (("fridge-drop", 25, 0), ("kitchen", 500, 0), ("drawer-low", 500, 303), ("pantry", 1125, 0),
            ("pocket", 500, 556), ("switch-panel", 925, 556))  # fmt: skip
    for key, u, w in plan:
        made = session.catalogue.entry(key).make
        carry(window, key, place_at(window, "L", u + 4, w + 6, (made.width, made.height)))
        assert session.selection.key == made.id, key
    units = {u.id: u for u in session.job.units}
    assert len(units) == len(plan)
    for key, u, w in plan:
        unit = units[session.catalogue.entry(key).make.id]
        assert (unit.bay, unit.u) == ("L", pytest.approx(u)), key
        assert unit.w == pytest.approx(w, abs=6), key
    stops = [f.title for f in session.verdict.findings if f.severity == "stop"]
    assert stops == []
    # The pantry is moved forward by the hand, and back again by undo.
    hand = Hand(window.ground)
    scale = window.ground.layout_now().elevation.s
    at = place_at(window, "L", 1125, 0, (250, 200))
    hand.press(at)
    for n in range(1, 9):
        hand.move(at + QPointF(-n * 25 * scale / 8, 0))
    hand.release(at + QPointF(-25 * scale, 0))
    assert session.job.thing("pantry").u == 1100  # type: ignore[union-attr]
    qtbot.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    # Doubled clicks open; the kitchen shows both leaves in the slice.
    session.view.set(opened=frozenset({"door:left"}))
    qtbot.mouseDClick(window.ground, Qt.MouseButton.LeftButton,
                      pos=place_at(window, "L", 500, 0, (600, 200)).toPoint())  # fmt: skip
    assert "kitchen" in session.look.opened
    # One step of the history for each thing done.
    for _ in plan:
        qtbot.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert session.job.units == ()
