"""What the tests of the stage Loads share: turning to a page, and a grid's cells by mouse and text."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.pages.loads.parts import Grid, LoadsPage
from roomy_hull.desktop.window import MainWindow
from roomy_hull.studies.loads import board

LEFT = Qt.MouseButton.LeftButton


def page(window: MainWindow, name: str) -> LoadsPage:
    window.session.view.turn_to("Loads", name)
    QApplication.processEvents()
    found = window.page("Loads", name)
    assert window.stage("Loads").stack.current() is found
    return found


def click(qtbot: QtBot, table: Grid, row: int, column: int) -> None:
    item = table.item(row, column)
    assert item is not None
    table.scrollToItem(item)
    qtbot.mouseClick(table.viewport(), LEFT, pos=table.visualItemRect(item).center())


def text(table: Grid, row: int, column: int) -> str:
    item = table.item(row, column)
    assert item is not None
    return item.text()


def row_of(key: str) -> int:
    return [k for k, _ in board.ROWS].index(key)
