"""The page Brief: the wishes in their rank, and both schools of a question in figures."""

from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout

from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.pages.build.parts import asked, row, words
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.widgets.chooser import Chooser
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import briefing
from roomy_hull.session.pages.build.brief import BriefModel
from roomy_hull.session.session import Session

CAUTION = "Planning figures. The rating plates, the certifying engineer and local road law decide."


class BriefPage(SessionPage):
    """Words above, wishes, then the question with its figures."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = BriefModel(session)
        self.words, self.note = words(), words()
        self.table = Grid("Wishes, the first in rank first", rows_chosen=True)
        self.table.cell_clicked.connect(self._chose)
        buttons = asked(self, (("Wish for something…", "brief.wish"), ("Up", "brief.up"), ("Down", "brief.down"),
                               ("Delete", "brief.drop")))  # fmt: skip
        self.whole = QPushButton("The brief's own figures")
        self.whole.setFont(font(11))
        self.whole.clicked.connect(lambda _on: session.view.set(brief={"wish": ""}))
        self.question = Chooser()
        self.question.setFont(font(12))
        self.question.setAccessibleName("Where practitioners go different ways")
        for key, name in self.model.questions():
            self.question.addItem(name, key)
        self.question.activated.connect(
            lambda n: session.view.set(brief={"question": str(self.question.itemData(n))})
        )
        self.facts = Grid("Both ways on this job")
        below = QVBoxLayout()
        below.setSpacing(2)
        line = QHBoxLayout()
        line.setContentsMargins(8, 2, 8, 2)
        line.addWidget(self.question)
        line.addWidget(self.note, 1)
        below.addLayout(line)
        below.addWidget(self.facts, 1)
        self.ways = QHBoxLayout()
        self.ways.setContentsMargins(8, 0, 8, 2)
        below.addLayout(self.ways)
        self._ways: list[QPushButton] = []
        self.stack(
            CAUTION, (row(*buttons, self.whole), 0), (self.words, 0), (self.table, 6), (below, 5)
        )

    def _chose(self, at: int, _column: int) -> None:
        keys = self.model.keys()
        if 0 <= at < len(keys):
            chosen = "" if keys[at] == self.session.look.brief.wish else keys[at]
            self.session.view.set(brief={"wish": chosen})

    def fill(self) -> None:
        """Bring words and both tables up to date."""
        model, session = self.model, self.session
        self.words.setText(model.words())
        self.table.work_on(self._theme, model)
        heads, rows = model.facts()
        self.facts.fill(self._theme, heads, rows)
        self.note.setText(model.note())
        one = model.question()
        for button in self._ways:
            self.ways.removeWidget(button)
            button.deleteLater()
        self._ways = []
        for way in one.ways if one is not None else ():
            taken = way == model.taken()
            button = QPushButton(f"Taken: {way}" if taken else f"Take: {way}")
            button.setFont(font(11))
            button.setCheckable(True)
            button.setChecked(taken)
            key = one.key if one is not None else ""
            button.clicked.connect(
                lambda _on, k=key, w=way: briefing.choose_way(session, question=k, way=w)
            )
            self.ways.addWidget(button)
            self._ways.append(button)
        at = self.question.findData(session.look.brief.question or self.question.itemData(0))
        self.question.setCurrentIndex(max(0, at))
