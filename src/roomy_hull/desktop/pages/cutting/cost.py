"""The page Cost: what it costs to make."""

from roomy_hull.desktop.page import Picture
from roomy_hull.desktop.pages.cutting.base import NestedPage, words_label
from roomy_hull.desktop.table_view import Grid
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.cut.cost import CostModel
from roomy_hull.session.pages.cut.words import CAUTION
from roomy_hull.session.session import Session


class CostPage(NestedPage):
    """The waterfall, and what each thing costs."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = CostModel(session)
        self.words = words_label()
        self.picture = Picture(session, theme, "What it costs to make", self.model.picture)
        self.table = Grid("Cost by what it is for")
        self.stack(CAUTION, (self.picture, 5), (self._bar((self.words, 1)), 0), (self.table, 5))

    def fill(self) -> None:
        """Bring words and table up to date."""
        self.words.setText(self.model.words())
        self.table.show_rows(self._theme, self.model)
