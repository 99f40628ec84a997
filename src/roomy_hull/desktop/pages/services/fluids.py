"""The pages Water, and Gas and air: a picture or a table, and what they come to in sentences."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QVBoxLayout

from roomy_hull.desktop.page import Picture, SessionPage, caution
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.services.fluids import LEVEL_HEADS, TANK_HEADS, GasModel, WaterModel
from roomy_hull.session.pages.services.words import LICENSED
from roomy_hull.session.session import Session


def _sentences() -> Label:
    """Room for a few sentences."""
    words = Label()
    words.setWordWrap(True)
    words.setFont(font(14))
    words.setContentsMargins(12, 8, 12, 8)
    words.setAlignment(Qt.AlignmentFlag.AlignTop)
    return words


class WaterPage(SessionPage):
    """Sentences, what stays in each tank on a slope, the table."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = WaterModel(session)
        self.words = _sentences()
        self.picture = Picture(session, theme, "Tanks on a slope", self.model.picture)
        self.table = Grid("What of each tank runs out, level and on slopes")
        self.stack(LICENSED, (self.words, 0), (self.picture, 3), (self.table, 2))

    def fill(self) -> None:
        """Bring table and words up to date."""
        self.table.fill(self._theme, TANK_HEADS, self.model.cells())
        self.words.setText("\n".join(self.model.words()))


class GasPage(SessionPage):
    """Sentences above, pressures for level below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = GasModel(session)
        self.words = _sentences()
        self.table = Grid("Air springs set for the slope of the camp")
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addWidget(self.words)
        box.addWidget(self.table, 1)
        box.addStretch(0)
        box.addWidget(caution(LICENSED))

    def fill(self) -> None:
        """Bring table and words up to date."""
        self.table.fill(self._theme, LEVEL_HEADS, self.model.cells())
        self.table.setVisible(bool(self.model.cells()))
        self.words.setText("\n\n".join(self.model.words()))
