"""The page Signatures: a row for each that answers, what to see to first, and the button to sign."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QPushButton

from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import servicing
from roomy_hull.session.doing import do
from roomy_hull.session.pages.services.signing import SignaturesModel
from roomy_hull.session.pages.services.words import LICENSED
from roomy_hull.session.session import Session

ACTIONS = {"mains": "services.sign_mains", "gas": "services.sign_gas", "low voltage": "services.sign_low",
           "water": "services.sign_water"}  # fmt: skip


class SignaturesPage(SessionPage):
    """The table, sentences below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = SignaturesModel(session)
        self.table = Grid("Who signs for what", rows_chosen=True)
        self.table.row_height(30)
        self.table.cell_clicked.connect(
            lambda row, _c: servicing.choose(session, key=self.model.keys()[row])
        )
        self.words = Label()
        self.words.setWordWrap(True)
        self.words.setFont(font(14))
        self.words.setContentsMargins(12, 8, 12, 8)
        self.words.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.sign = QPushButton("Sign for the chosen…")
        self.sign.setFont(font(12))
        self.sign.clicked.connect(lambda _on: self._sign())
        self.remove = self.ask("Take the signature back", "services.remove")
        row = QHBoxLayout()
        row.setContentsMargins(8, 2, 8, 2)
        row.addWidget(self.sign)
        row.addWidget(self.remove)
        row.addStretch(1)
        self.stack(LICENSED, (self.table, 2), (row, 0), (self.words, 3))

    def _sign(self) -> None:
        what = self.model.chosen()
        if what is not None:
            do(self._session, ACTIONS[what])

    def fill(self) -> None:
        """Bring table and words up to date."""
        self.table.show_rows(self._theme, self.model)
        self.words.setText("\n\n".join(self.model.words()))
        signed = {x.what for x in self._session.job.services.signatures}
        what = self.model.chosen()
        self.sign.setEnabled(what is not None)
        self.remove.setEnabled(what in signed)
