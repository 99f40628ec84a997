"""The pile of pages: one is shown, fills it, and has the focus; the others cost nothing."""

from PyQt6.QtCore import QSize
from PyQt6.QtWidgets import QLineEdit, QVBoxLayout, QWidget
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.widgets.pile import LEAST, Pile


class Asked(QWidget):
    """A page that counts how often it is asked for its size."""

    def __init__(self) -> None:
        super().__init__()
        self.times = 0
        self.edit = QLineEdit()
        QVBoxLayout(self).addWidget(self.edit)

    def minimumSizeHint(self) -> QSize:
        self.times += 1
        return QSize(5000, 5000)


def in_a_window(qtbot: QtBot) -> tuple[QWidget, Pile, QLineEdit, Asked, Asked]:
    """A window with a pile of two pages, and a line beside it."""
    window, pile, beside = QWidget(), Pile(), QLineEdit()
    qtbot.addWidget(window)
    box = QVBoxLayout(window)
    box.addWidget(pile)
    box.addWidget(beside)
    first, second = Asked(), Asked()
    pile.add(first)
    pile.add(second)
    return window, pile, beside, first, second


def test_one_is_shown_and_fills_the_pile(qtbot: QtBot) -> None:
    pile, first, second = Pile(), Asked(), Asked()
    qtbot.addWidget(pile)
    pile.add(first)
    pile.add(second)
    pile.resize(800, 500)
    pile.show()
    assert first.isVisible()
    assert not second.isVisible()
    assert pile.current() is first
    first.edit.setFocus()
    pile.turn_to(second)
    assert second.isVisible()
    assert not first.isVisible()
    assert second.size() == pile.size()
    pile.resize(900, 600)
    assert second.size() == QSize(900, 600)
    pile.turn_to(first)
    assert first.size() == QSize(900, 600)
    assert pile.minimumSizeHint() == LEAST


def test_the_focus_goes_along_only_if_it_was_within(qtbot: QtBot) -> None:
    window, pile, beside, first, second = in_a_window(qtbot)
    with qtbot.waitActive(window):
        window.show()
        window.activateWindow()
    second.edit.setFocus()  # remembered as the page's own, while it is hidden
    first.edit.setFocus()
    pile.turn_to(second)
    assert second.isAncestorOf(window.focusWidget()) or window.focusWidget() is second
    beside.setFocus()
    pile.turn_to(first)
    assert window.focusWidget() is beside


def test_hidden_pages_are_not_asked_for_their_size(qtbot: QtBot) -> None:
    window, _pile, other, _first, second = in_a_window(qtbot)
    window.show()
    second.times = 0
    other.hide()
    other.show()
    qtbot.wait(10)
    assert second.times == 0
