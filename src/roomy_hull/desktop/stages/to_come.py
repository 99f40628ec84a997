"""Stages that this version does not have yet, marked as such."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel, QVBoxLayout, QWidget

from roomy_hull.desktop.theme import Theme, font

PLANS = {
    "Services": "Energy, cable, water and gas for the trip, for a licensed person to sign.",
    "Access": "Heights, reach, sight into drawers, lifting, and what must move to get at a thing.",
    "Build": "Schedule, log, finishing list and sign-off.",
}


class ToCome(QWidget):
    """Says that a stage is still to come, and what it will do."""

    def __init__(self, theme: Theme) -> None:
        super().__init__()
        box = QVBoxLayout(self)
        box.addStretch(2)
        self.head, self.words = QLabel(), QLabel()
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

    def show_stage(self, name: str) -> None:
        """Name the stage."""
        self.head.setText(f"{name} is still to come")
        self.words.setText(
            f"{PLANS.get(name, '')}\n\nToday the job file holds these figures and can be edited by hand; "
            "Fit-out, Loads and Cut work with them."
        )
