"""The page Circuits: the single-line plan, and the schedule."""

from PyQt6.QtWidgets import QHBoxLayout, QPushButton

from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import servicing
from roomy_hull.session.pages.services.circuits import CircuitsModel
from roomy_hull.session.pages.services.words import LICENSED
from roomy_hull.session.session import Session


class CircuitsPage(SessionPage):
    """Plan above, schedule below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = CircuitsModel(session)
        self.plan = Picture(session, theme, "Single-line plan of all circuits", self.model.plan)
        self.table = Grid("Schedule of circuits", rows_chosen=True)
        self.table.cell_clicked.connect(
            lambda row, _c: servicing.choose(session, key=self.model.keys()[row])
        )
        self.add = self.ask(
            "Add what uses power", "services.consumer", "The chosen unit, or a light"
        )
        self.remove = self.ask("Take out the chosen", "services.remove")
        row = QHBoxLayout()
        row.setContentsMargins(8, 2, 8, 2)
        row.addWidget(self.add)
        row.addWidget(self.remove)
        inverter = QPushButton("The inverter's figures")
        inverter.setFont(font(11))
        inverter.clicked.connect(lambda _on: servicing.choose(session, key="inverter"))
        row.addWidget(inverter)
        row.addStretch(1)
        self.stack(LICENSED, (self.plan, 6), (self.table, 5), (row, 0))

    def fill(self) -> None:
        """Bring the schedule up to date."""
        self.table.show_rows(self._theme, self.model)
        self.remove.setEnabled(bool(self._session.look.services.chosen))
