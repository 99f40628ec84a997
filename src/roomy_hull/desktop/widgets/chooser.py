"""A box to choose from that the wheel leaves alone until it has been taken in hand."""

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QWheelEvent
from PyQt6.QtWidgets import QComboBox


class Chooser(QComboBox):
    """A choice: the wheel turns what lies around it, and changes nothing by accident."""

    def __init__(self) -> None:
        super().__init__()
        # Not by the wheel: by a click, or by Tab.
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Leave the wheel to what lies around, unless the box has been taken in hand."""
        if event is None:
            return
        if self.hasFocus():
            super().wheelEvent(event)
        else:
            event.ignore()
