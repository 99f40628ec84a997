"""The page Budget: purpose and sums above, the wishes below."""

from PyQt6.QtWidgets import QVBoxLayout

from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.table_view import HOW, Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.budget import BudgetModel
from roomy_hull.session.session import Session


class BudgetPage(SessionPage):
    """Purpose and sums above, the wishes below: changed where they stand, a new one in the last row."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = BudgetModel(session)
        self.title, self.sums = Label(), Label()
        for label in (self.title, self.sums):
            label.setWordWrap(True)
            label.setContentsMargins(12, 6, 12, 2)
        self.table = Grid("The brief: what is wished for", rows_chosen=True)
        self.hint = Label(HOW)
        self.hint.setContentsMargins(12, 0, 12, 4)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        for widget, share in ((self.title, 0), (self.sums, 0), (self.table, 1), (self.hint, 0)):
            box.addWidget(widget, share)

    def fill(self) -> None:
        """Bring sums and table up to date."""
        self.title.setFont(font(13, bold=True))
        self.title.setText(self.model.title())
        self.sums.setFont(font(13))
        self.sums.show_marked(self.model.sums(), self._theme.stop)
        self.table.work_on(self._theme, self.model)
