"""The page Lifting: every lift of every person, the worst first."""

from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import accessing
from roomy_hull.session.pages.access.lifting import LiftingModel
from roomy_hull.session.pages.access.words import CAUTION
from roomy_hull.session.session import Session

SAID = (
    "The revised NIOSH equation (94-110, from memory): above 1 a lift is a strain for some, above 3 for most. Hands are "
    "where somebody stands who reaches it; it is lifted to the front of the body at 75 cm."
)


class LiftingPage(SessionPage):
    """A sentence above the table."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = LiftingModel(session)
        words = Label(SAID)
        words.setWordWrap(True)
        words.setFont(font(13))
        words.setContentsMargins(12, 8, 12, 4)
        self.table = Grid("What is lifted", rows_chosen=True)
        self.table.cell_clicked.connect(
            lambda row, _c: accessing.choose(session, key=self.model.keys()[row])
        )
        self.stack(CAUTION, (words, 0), (self.table, 1))

    def fill(self) -> None:
        """Bring the table up to date."""
        self.table.show_rows(self._theme, self.model)
