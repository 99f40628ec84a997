"""The page Circuits: the single-line plan, the ways on the vehicle, the schedule."""

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout

from roomy_hull.desktop.pages.loads.parts import Grid, LoadsPage, Picture, caution
from roomy_hull.drawing.manner import Theme
from roomy_hull.session.pages.services import CIRCUIT_HEADS, LICENSED, CircuitsModel
from roomy_hull.session.session import Session


class CircuitsPage(LoadsPage):
    """Plan above, ways and schedule below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = CircuitsModel(session)
        self.plan = Picture(session, theme, "Single-line plan of all circuits", self.model.plan)
        self.ways = Picture(session, theme, "Ways of the cables on the vehicle", self.model.ways)
        self.table = Grid("Schedule of circuits", rows_chosen=True)
        self.table.cellClicked.connect(
            lambda row, _c: session.do("services.choose", key=self.model.keys()[row])
        )
        self.add = self.ask(
            "Add what uses power", "services.consumer", "The chosen unit, or a light"
        )
        self.remove = self.ask("Take out the chosen", "services.remove")
        row = QHBoxLayout()
        row.setContentsMargins(8, 2, 8, 2)
        row.addWidget(self.add)
        row.addWidget(self.remove)
        row.addStretch(1)
        below = QHBoxLayout()
        below.setSpacing(2)
        below.addWidget(self.table, 9)
        below.addWidget(self.ways, 4)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addWidget(self.plan, 6)
        box.addLayout(below, 5)
        box.addLayout(row)
        box.addWidget(caution(LICENSED))

    def fill(self) -> None:
        """Bring the schedule up to date."""
        self.table.fill(
            self._theme,
            CIRCUIT_HEADS,
            self.model.cells(),
            (),
            widths=(150, 42, 44, 66, 54, 74, 56, 36),
        )
        self.remove.setEnabled(bool(self._session.look.service))
