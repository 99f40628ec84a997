"""The page Buying: what comes from outside."""

from PyQt6.QtWidgets import QLineEdit, QPushButton

from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.pages.build.parts import row, words
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import handing
from roomy_hull.session.pages.build.buying import BuyingModel
from roomy_hull.session.pages.build.words import CAUTION
from roomy_hull.session.session import Session


class BuyingPage(SessionPage):
    """The table, and what became of its chosen rows."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = BuyingModel(session)
        self.words = words()
        self.table = Grid("What comes from outside", rows_chosen=True)
        self.table.setSelectionMode(self.table.SelectionMode.ExtendedSelection)
        self.day = QLineEdit()
        self.day.setPlaceholderText("comes on YYYY-MM-DD")
        self.day.setAccessibleName("The day on which it comes")
        self.day.setFixedWidth(170)
        self.ordered, self.here = (
            QPushButton("The chosen are ordered"),
            QPushButton("The chosen are here"),
        )
        self.open = QPushButton("Choose all that is to order")
        for button, run in ((self.ordered, lambda: self._log("ordered")), (self.here, lambda: self._log("received")),
                            (self.open, self._open)):  # fmt: skip
            button.setFont(font(11))
            button.clicked.connect(lambda _on, r=run: r())
        self.stack(
            CAUTION,
            (self.words, 0),
            (self.table, 1),
            (row(self.open, self.ordered, self.day, self.here), 0),
        )

    def chosen(self) -> tuple[str, ...]:
        """The keys of the chosen rows."""
        keys = self.model.keys()
        return tuple(keys[n] for n in self.table.chosen_rows() if n < len(keys))

    def _open(self) -> None:
        self.table.clearSelection()
        mode = self.table.selectionMode()
        self.table.setSelectionMode(self.table.SelectionMode.MultiSelection)
        for n, cells in enumerate(self.model.cells()):
            if cells[2][0] == "to order":
                self.table.selectRow(n)
        self.table.setSelectionMode(mode)

    def _log(self, kind: str) -> None:
        day = self.day.text().strip() if kind == "ordered" else ""
        handing.bought(self.session, keys=self.chosen(), kind=kind, day=day)

    def fill(self) -> None:
        """Bring words and table up to date."""
        self.words.setText(self.model.words())
        self.table.show_rows(self._theme, self.model)
