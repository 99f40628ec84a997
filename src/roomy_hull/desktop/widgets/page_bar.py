"""The bar over a stage: which of its pages is shown."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QButtonGroup, QHBoxLayout, QPushButton, QSizePolicy, QWidget

from roomy_hull.desktop.following import follow
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.table import Stage, page
from roomy_hull.session.session import Session

WAITING = "being worked out …"
"""Stands over a page that still shows what was so before the last step."""


class PageBar(QWidget):
    """One button a page of a stage; the keys do the same."""

    def __init__(self, session: Session, theme: Theme, stage: Stage) -> None:
        super().__init__()
        self._session, self._stage = session, stage
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 3, 8, 3)
        row.setSpacing(4)
        self._group = QButtonGroup(self)
        self.buttons: dict[str, QPushButton] = {}
        for one in stage.pages:
            button = QPushButton(one.title)
            button.setCheckable(True)
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.setToolTip(f"{one.tip} ({one.key})")
            button.clicked.connect(
                lambda _on, title=one.title: session.view.turn_to(stage.title, title)
            )
            self._group.addButton(button)
            self.buttons[one.title] = button
            row.addWidget(button)
        # It has the room that the buttons leave, and pushes none of them.
        self.waiting = Label(WAITING)
        self.waiting.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.waiting.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        row.addWidget(self.waiting, 1)
        follow(self, self._follow, session.view.changed, session.changed)
        self.theme = theme
        self._follow()

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = theme
        self.waiting.setFont(font(12))
        self.waiting.setStyleSheet(f"color: {theme.look}")
        for button in self.buttons.values():
            button.setFont(font(12))
            button.setStyleSheet(
                f"QPushButton {{ padding: 2px 9px; }} QPushButton:checked {{ background: {theme.accent}; "
                f"color: {theme.accent_ink}; border-color: {theme.accent}; }}"
            )

    def _follow(self) -> None:
        title = page(self._stage.title, self._session.look).title
        self.buttons[title].setChecked(True)
        self.waiting.setText(WAITING if self._stage.rest(title) in self._session.sight.held else "")
