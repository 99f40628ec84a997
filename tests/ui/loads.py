"""What the tests of the stage Loads share: turning to a page, and a grid's cells by mouse and text."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication, QComboBox, QLineEdit
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.window import MainWindow
from roomy_hull.studies.loads import board

LEFT = Qt.MouseButton.LeftButton


def page(window: MainWindow, name: str) -> SessionPage:
    window.session.view.turn_to("Loads", name)
    QApplication.processEvents()
    found = window.page("Loads", name)
    assert window.stage("Loads").stack.current() is found
    return found


def click(qtbot: QtBot, table: Grid, row: int, column: int) -> None:
    qtbot.mouseClick(table.viewport(), LEFT, pos=table.rect_of(row, column).center())


def text(table: Grid, row: int, column: int) -> str:
    return table.text_at(row, column)


def row_of(key: str) -> int:
    return [k for k, _ in board.ROWS].index(key)


def typed(qtbot: QtBot, table: Grid, row: int, column: int, words: str) -> None:
    """Double-click a cell, and type in it; of choices the one that begins so is taken."""
    port = table.viewport()
    assert port is not None
    at = table.visualRect(table.shown.mapFromSource(table.cells.index(row, column))).center()
    qtbot.mouseClick(port, LEFT, pos=at)
    qtbot.mouseDClick(port, LEFT, pos=at)
    box = next((b for b in port.findChildren(QComboBox) if b.isVisible()), None)
    if box is not None:
        n = next(n for n in range(box.count()) if box.itemText(n).startswith(words))
        view = box.view()
        assert view is not None
        view.setCurrentIndex(view.model().index(n, 0))  # type: ignore[union-attr]
        qtbot.keyClick(view, Qt.Key.Key_Return)
    else:
        line = next(e for e in port.findChildren(QLineEdit) if e.isVisible())
        qtbot.keyClicks(line, words)
        qtbot.keyClick(line, Qt.Key.Key_Return)
    for _ in range(3):  # the editor closes, then what was typed is taken, then the table is filled
        QApplication.processEvents()
