"""The page Moves: the moves to what is chosen, played on the drawing, and the table of all."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QPushButton

from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import accessing
from roomy_hull.session.pages.access.moves import MovesModel
from roomy_hull.session.pages.access.words import CAUTION
from roomy_hull.session.session import Session


class MovesPage(SessionPage):
    """The drawing above with its steps, the table below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = MovesModel(session)
        self.picture = Picture(session, theme, "The moves on the drawing", self.model.picture)
        self.words = Label()
        self.words.setWordWrap(True)
        self.words.setFont(font(13))
        self.words.setContentsMargins(10, 2, 10, 2)
        self.table = Grid("In how many moves a thing is in the hand", rows_chosen=True)
        self.table.cell_clicked.connect(
            lambda row, _c: accessing.choose(session, key=self.model.keys()[row])
        )
        self.back, self.on = QPushButton("One move back"), QPushButton("One move on")
        self.begin = QPushButton("From the beginning")
        for button in (self.begin, self.back, self.on):
            button.setFont(font(11))
        self.begin.clicked.connect(lambda _on: accessing.play(session, to=0))
        self.back.clicked.connect(lambda _on: accessing.play(session, to=self.model.step() - 1))
        self.on.clicked.connect(lambda _on: accessing.play(session, to=self.model.step() + 1))
        row = QHBoxLayout()
        row.setContentsMargins(8, 2, 8, 2)
        for button in (self.begin, self.back, self.on):
            row.addWidget(button)
        row.addWidget(self.words, 1, Qt.AlignmentFlag.AlignVCenter)
        self.stack(CAUTION, (self.picture, 7), (row, 0), (self.table, 5))

    def fill(self) -> None:
        """Bring words and table up to date."""
        self.words.setText(self.model.words())
        self.table.show_rows(self._theme, self.model)
        step, steps = self.model.step(), self.model.steps()
        self.back.setEnabled(step > 0)
        self.begin.setEnabled(step > 0)
        self.on.setEnabled(step < steps)
