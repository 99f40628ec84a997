"""The page Runs: cables, hoses and pipes in the elevation and the slice, and the table to cut them by."""

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout

from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import servicing
from roomy_hull.session.pages.services.runs import RunsModel
from roomy_hull.session.pages.services.words import LICENSED
from roomy_hull.session.session import Session


class RunsPage(SessionPage):
    """Elevation above, slice below, the table beside them."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = RunsModel(session)
        self.above = Picture(session, theme, "Runs in the elevation", self.model.elevation)
        self.slice = Picture(session, theme, "Runs from above", self.model.slice)
        self.table = Grid("Every cable, hose and pipe", rows_chosen=True)
        self.table.cell_clicked.connect(
            lambda row, _c: servicing.choose(session, key=self.model.keys()[row])
        )
        self.plug = self.ask(
            "Add a plug…", "services.plug", "Where the canopy or the tray comes off"
        )
        row = QHBoxLayout()
        row.setContentsMargins(8, 2, 8, 2)
        self.legend = Label()
        self.legend.setFont(font(12))
        row.addWidget(self.legend)
        row.addStretch(1)
        row.addWidget(self.plug)
        pictures = QVBoxLayout()
        pictures.setSpacing(2)
        pictures.addWidget(self.above, 6)
        pictures.addWidget(self.slice, 5)
        across = QHBoxLayout()
        across.setSpacing(2)
        across.addLayout(pictures, 8)
        across.addWidget(self.table, 7)
        self.stack(LICENSED, (across, 1), (row, 0))

    def fill(self) -> None:
        """Bring the table up to date."""
        self.legend.setText(self.model.legend())
        self.table.show_rows(self._theme, self.model)
