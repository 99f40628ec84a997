"""The page Reach and sight: somebody at what is chosen, in profile and from above, and the table of all."""

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout

from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import accessing
from roomy_hull.session.pages.access.reach import ReachModel
from roomy_hull.session.pages.access.words import CAUTION
from roomy_hull.session.session import Session


class ReachPage(SessionPage):
    """Both pictures beside the table."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = ReachModel(session)
        self.profile = Picture(session, theme, "Somebody reaching, in profile", self.model.profile)
        self.above = Picture(session, theme, "The same from above", self.model.above)
        self.table = Grid("Who reaches and sees what", rows_chosen=True)
        self.table.cell_clicked.connect(
            lambda row, _c: accessing.choose(session, key=self.model.keys()[row])
        )
        self.person = self.ask("Ask the next of the party", "access.person", "Whose reach is drawn")
        row = QHBoxLayout()
        row.setContentsMargins(8, 2, 8, 2)
        row.addWidget(self.person)
        row.addStretch(1)
        pictures = QVBoxLayout()
        pictures.setSpacing(2)
        pictures.addWidget(self.profile, 6)
        pictures.addWidget(self.above, 5)
        across = QHBoxLayout()
        across.setSpacing(2)
        across.addLayout(pictures, 9)
        across.addWidget(self.table, 10)
        self.stack(CAUTION, (across, 1), (row, 0))

    def fill(self) -> None:
        """Bring the table up to date."""
        heads = self.model.heads()
        self.table.fill(self._theme, heads, self.model.cells())
