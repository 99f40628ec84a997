"""The page Stability: from behind and towing above, all scenarios below."""

from PyQt6.QtWidgets import QHBoxLayout

from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.stability import StabilityModel
from roomy_hull.session.session import Session
from roomy_hull.studies.strength.stability import WORDS


class StabilityPage(SessionPage):
    """From behind and towing above, all scenarios below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = StabilityModel(session)
        self.picture = Picture(session, theme, "Centre of mass from behind", self.model.behind)
        self.towing = Picture(session, theme, "Towing", self.model.towing)
        self.table = Grid("Stability and clearances in every scenario", rows_chosen=True)
        self.table.cell_clicked.connect(lambda row, _c: self.model.choose(row))
        above = QHBoxLayout()
        above.setSpacing(2)
        above.addWidget(self.picture, 5)
        above.addWidget(self.towing, 6)
        self.stack(
            WORDS + " Ratings and road law decide what may be towed.", (above, 7), (self.table, 5)
        )

    def fill(self) -> None:
        """Bring the table up to date."""
        self.table.show_rows(self._theme, self.model)
