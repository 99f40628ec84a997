"""The page Gaps: how likely each gap binds as built."""

from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.pages.cutting.base import words_label
from roomy_hull.desktop.table_view import Grid
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.cut.gaps import GapsModel
from roomy_hull.session.pages.cut.words import CAUTION
from roomy_hull.session.session import Session


class GapsPage(SessionPage):
    """Every narrow gap with its doubt, and what to measure again."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = GapsModel(session)
        self.words = words_label()
        self.table = Grid("Gaps and how likely they bind", rows_chosen=True)
        self.table.cell_clicked.connect(self._chose)
        self.stack(CAUTION, (self.words, 0), (self.table, 1))

    def _chose(self, row: int, _column: int) -> None:
        keys = self.model.keys()
        if 0 <= row < len(keys) and keys[row]:
            self._session.selection.select(keys[row])

    def fill(self) -> None:
        """Bring words and table up to date."""
        self.words.setText(self.model.words())
        self.table.show_rows(self._theme, self.model)
