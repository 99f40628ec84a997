"""The page Water and gas: tanks on a slope and at the tap, what lasts, the locker, the tyres."""

from PyQt6.QtWidgets import QVBoxLayout

from roomy_hull.desktop.pages.loads.parts import Grid, LoadsPage, caution
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.manner import Theme
from roomy_hull.session.pages.services import LICENSED, TANK_HEADS, FluidsModel
from roomy_hull.session.session import Session


class FluidsPage(LoadsPage):
    """Tanks above, sentences below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = FluidsModel(session)
        self.table = Grid("What of each tank runs out, level and on slopes")
        self.words = Label()
        self.words.setWordWrap(True)
        self.words.setFont(font(14))
        self.words.setContentsMargins(12, 8, 12, 8)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addWidget(self.words)
        box.addWidget(self.table, 1)
        box.addWidget(caution(LICENSED))

    def fill(self) -> None:
        """Bring table and words up to date."""
        self.table.fill(
            self._theme,
            TANK_HEADS,
            self.model.cells(),
            (),
            widths=(0, 60, 60, 82, 72, 62, 66, 96, 96),
        )
        self.words.setText("\n\n".join(self.model.words()))
