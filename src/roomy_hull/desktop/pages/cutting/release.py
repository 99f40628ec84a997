"""The page Release: revisions, what is stale, how far every part has come."""

from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QPushButton

from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.pages.cutting.base import words_label
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.job.releases import STATES, PartState
from roomy_hull.session.actions import making
from roomy_hull.session.pages.cut.release import ReleaseModel
from roomy_hull.session.pages.cut.words import CAUTION
from roomy_hull.session.session import Session


class ReleasePage(SessionPage):
    """The revisions, what is stale, and how far every part has come."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = ReleaseModel(session)
        self.words = words_label()
        self.table = Grid("Released parts", rows_chosen=True)
        self.table.setSelectionMode(self.table.SelectionMode.ExtendedSelection)
        self.release = self.ask(
            "Release…", "making.release", "Freeze every part as it is now, with date and initials"
        )
        self.back = self.ask("Take it back", "making.take_back", "While nothing of it is cut")
        self.book = self.ask(
            "The book…", "making.book", "Everything to build by, and labels, as PDF"
        )
        self.solids = self.ask(
            "Solids…", "making.solids", "Every part and the whole job as STEP and GLB"
        )
        self.compare = QComboBox()
        self.compare.setFont(font(11))
        self.compare.setAccessibleName("Compared with")
        self.compare.activated.connect(self._compare)
        top = QHBoxLayout()
        top.setContentsMargins(8, 4, 8, 0)
        for widget in (self.release, self.back, self.book, self.solids, self.compare):
            top.addWidget(widget)
        top.addStretch(1)
        states = QHBoxLayout()
        states.setContentsMargins(8, 0, 8, 2)
        said = Label("The chosen parts are now")
        said.setFont(font(11))
        states.addWidget(said)
        self.states: dict[str, QPushButton] = {}
        for state in STATES:
            button = QPushButton(state)
            button.setFont(font(11))
            button.clicked.connect(lambda _on, s=state: self._come_to(s))
            states.addWidget(button)
            self.states[state] = button
        states.addStretch(1)
        self.stack(CAUTION, (top, 0), (self.words, 0), (self.table, 1), (states, 0))

    def _compare(self, row: int) -> None:
        self._session.view.set(cut={"against": str(self.compare.itemData(row) or "")})

    def _come_to(self, state: PartState) -> None:
        keys = self.model.keys()
        chosen = self.table.chosen_rows()
        making.come_to(
            self._session, keys=tuple(keys[n] for n in chosen if n < len(keys)), state=state
        )

    def fill(self) -> None:
        """Bring words, choice and table up to date."""
        self.words.setText(self.model.words())
        self.table.show_rows(self._theme, self.model)
        releases = self._session.job.releases
        rows = [("Against the last", "")] + [
            (f"Between {r.revision} and the last", r.revision) for r in releases[:-1]
        ]
        self.compare.blockSignals(True)
        self.compare.clear()
        for words, key in rows:
            self.compare.addItem(words, key)
        self.compare.setCurrentIndex(
            next((n for n, r in enumerate(rows) if r[1] == self._session.look.cut.against), 0)
        )
        self.compare.blockSignals(False)
        self.compare.setVisible(len(releases) > 1)
        self.back.setEnabled(bool(releases))
        for button in self.states.values():
            button.setEnabled(bool(releases))
