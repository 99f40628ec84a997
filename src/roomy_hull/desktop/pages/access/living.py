"""The page Living: worktops, heads, beds, dogs and standing level against the party."""

from PyQt6.QtWidgets import QHBoxLayout

from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import accessing
from roomy_hull.session.pages.access.living import LivingModel, PartyModel
from roomy_hull.session.pages.access.words import CAUTION
from roomy_hull.session.session import Session


class LivingPage(SessionPage):
    """The table of all, the party below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model, self.everybody = LivingModel(session), PartyModel(session)
        self.words = Label()
        self.words.setWordWrap(True)
        self.words.setFont(font(14))
        self.words.setContentsMargins(12, 8, 12, 4)
        self.table = Grid("Worktops, heads, beds, dogs")
        self.party = Grid("The party", rows_chosen=True)
        self.party.cell_clicked.connect(
            lambda row, _c: accessing.choose(session, key=self.everybody.keys()[row])
        )
        self.remove = self.ask("Take out of the party", "access.remove")
        row = QHBoxLayout()
        row.setContentsMargins(8, 2, 8, 2)
        for button in (
            self.ask("Add somebody", "access.add_person"), self.ask("Add a dog", "access.add_dog"),
            self.ask("Add a berth", "access.add_berth", "Of the selected thing"), self.remove,
        ):  # fmt: skip
            row.addWidget(button)
        row.addStretch(1)
        self.stack(CAUTION, (self.words, 0), (self.table, 3), (self.party, 2), (row, 0))

    def fill(self) -> None:
        """Bring words and tables up to date."""
        self.words.setText(self.model.words())
        self.table.show_rows(self._theme, self.model)
        self.party.work_on(self._theme, self.everybody)
        self.remove.setEnabled(
            self._session.look.access.chosen.partition(".")[0] in ("people", "dogs", "berths")
        )
