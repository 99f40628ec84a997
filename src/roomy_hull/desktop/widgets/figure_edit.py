"""A field of the card: takes a figure or a sum, and gives it back where it cannot be used."""

from collections.abc import Callable

from PyQt6.QtCore import QSignalBlocker, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import (
    QLineEdit,
)

from roomy_hull.core.card import Field


class FigureEdit(QLineEdit):
    """A field for a figure or a sum. Enter or leaving it takes the value, Escape gives it up."""

    def __init__(self, field: Field, take: Callable[[str], bool], words: str) -> None:
        super().__init__()
        self._take = take
        self.kept = ""
        self.field = field
        self.setAccessibleName(words)
        self.editingFinished.connect(self._finished)

    def show_value(self, text: str) -> None:
        """Show a value from the job, unless the person is typing another."""
        if self.hasFocus() and self.text() != self.kept and self.isModified():
            return
        self.kept = text
        with QSignalBlocker(self):
            self.setText(text)
            if self.field.quantity == "text" and not self.hasFocus():
                self.setCursorPosition(0)  # a long name shows its beginning
        self._mark(wrong=False)

    def _finished(self) -> None:
        if self.text() == self.kept:
            self._mark(wrong=False)
            return
        before = self.kept
        self.kept = self.text()
        if self._take(self.text()):
            self.setModified(False)
            self._mark(wrong=False)
        else:
            self.kept = before
            self._mark(wrong=True)

    def _mark(self, *, wrong: bool) -> None:
        if bool(self.property("wrong")) != wrong:
            self.setProperty("wrong", wrong)
            style = self.style()
            if style is not None:
                style.unpolish(self)
                style.polish(self)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Give up what was typed on Escape."""
        if event is not None and event.key() == Qt.Key.Key_Escape:
            self.setModified(False)
            self.setText(self.kept)
            self._mark(wrong=False)
            return
        super().keyPressEvent(event)
