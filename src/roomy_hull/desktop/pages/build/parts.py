"""What the pages of Build share: rows of buttons, words that wrap."""

from collections.abc import Sequence

from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QWidget

from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.session.doing import registry


def words(size: int = 13) -> Label:
    """A label whose words wrap."""
    label = Label()
    label.setWordWrap(True)
    label.setFont(font(size))
    label.setContentsMargins(10, 4, 10, 4)
    return label


def row(*widgets: QWidget, stretch: bool = True) -> QHBoxLayout:
    """Widgets beside one another."""
    box = QHBoxLayout()
    box.setContentsMargins(8, 4, 8, 2)
    for widget in widgets:
        box.addWidget(widget)
    if stretch:
        box.addStretch(1)
    return box


def asked(page: SessionPage, rows: Sequence[tuple[str, str]]) -> list[QPushButton]:
    """A button for each action, its words and its id; its tip is the action's."""
    return [page.ask(said, action, registry().get(action).tip) for said, action in rows]
