"""The page Scenarios: who and what is aboard in each, in a table that is worked in."""

from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.table_view import HOW, Grid
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.scenarios import ScenariosModel
from roomy_hull.session.pages.springs import SpringsModel
from roomy_hull.session.session import Session


class ScenariosPage(SessionPage):
    """Every scenario in a row, what it comes to at its end; the vehicle as it stands in the chosen one."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = ScenariosModel(session)
        self.table = Grid("Scenarios: who and what is aboard", rows_chosen=True)
        self.table.cell_clicked.connect(lambda row, _c: self.model.choose(row))
        self.picture = Picture(session, theme, "How it stands", SpringsModel(session).vehicle)
        self.stack(f"{HOW} A new one begins as the chosen one.", (self.table, 4), (self.picture, 5))

    def fill(self) -> None:
        """Bring the table up to date."""
        self.table.work_on(self._theme, self.model)
