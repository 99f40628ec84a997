"""Stages that this version does not have yet, marked as such."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.manner import Theme
from roomy_hull.session.pages.table import Stage


class ToCome(QWidget):
    """Says that a stage is still to come, and what it will do."""

    def __init__(self, theme: Theme, stage: Stage) -> None:
        super().__init__()
        box = QVBoxLayout(self)
        box.addStretch(2)
        self.head = Label(f"{stage.title} is still to come")
        self.words = Label(
            f"{stage.plan}\n\nNothing is computed here yet. What you enter in Survey, Body, Fit-out and Loads "
            "stays with the job and will be used."
        )
        for label in (self.head, self.words):
            label.setAlignment(Qt.AlignmentFlag.AlignCenter)
            label.setWordWrap(True)
            box.addWidget(label)
        box.addStretch(3)
        self.theme = theme

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = theme
        self.head.setFont(font(20, bold=True))
        self.words.setFont(font(14))
