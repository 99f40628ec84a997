"""The page Levers: picture and ranking, what moving a thing would do, and the changes that gain most."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QVBoxLayout,
)

from roomy_hull.desktop.page import Picture, SessionPage, choice_row
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label, plain
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.work import Work
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.levers import WAYS, WORDS, LeversModel
from roomy_hull.session.session import Session
from roomy_hull.verdict.improve import Better


class LeversPage(SessionPage):
    """Picture with levers, ranking, what-if, best changes."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = LeversModel(session)
        self.work: Work | None = None
        self.picture = Picture(session, theme, "Levers drawn on the vehicle", self.model.drawn)
        self.picture.setMinimumHeight(180)
        self.table = Grid("What weighs what", rows_chosen=True)
        self.table.cell_taken.connect(self._picked)
        bar, self.buttons = choice_row(tuple(WORDS.items()), "rear", self.rank_by, self)
        self.by = QLineEdit("300")
        self.by.setFixedWidth(84)
        self.by.setAccessibleName("How far it would move")
        self.by.setToolTip("A figure or a sum")
        self.by.textChanged.connect(lambda _t: self._answer())
        ways, self.ways = choice_row([(w, w) for w in WAYS], "forward", self._go, self)
        ways.insertWidget(0, self.by)
        self.question, self.answer = Label(), Label()
        for label in (self.question, self.answer):
            label.setWordWrap(True)
            label.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        self.finder = QPushButton("Find the best moves and swaps")
        self.finder.clicked.connect(self.search)
        self.list = QListWidget()
        self.list.setAccessibleName("Changes that gain most; Enter does one")
        self.list.setWordWrap(True)
        self.list.itemActivated.connect(self._do)
        right = QVBoxLayout()
        right.setContentsMargins(8, 2, 8, 4)
        right.setSpacing(4)
        for widget in (self.question,):
            right.addWidget(widget)
        right.addLayout(ways)
        right.addWidget(self.answer)
        self.home = self.ask(
            "Leave it at home in this scenario", "loads.leave", "Again to take it along"
        )
        right.addWidget(self.home)
        right.addWidget(self.finder)
        right.addWidget(self.list, 1)
        left = QVBoxLayout()
        left.setSpacing(0)
        left.addLayout(bar)
        left.addWidget(self.table, 1)
        below = QHBoxLayout()
        below.setSpacing(2)
        below.addLayout(left, 6)
        below.addLayout(right, 5)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addWidget(self.picture, 5)
        box.addLayout(below, 6)

    def rank_by(self, measure: str) -> None:
        """Rank by another measure."""
        self.model.measure = measure
        self.buttons[measure].setChecked(True)
        self.refresh()

    def _picked(self, row: int, _c: int, _r: int, _k: int) -> None:
        self.model.choose(row)
        self.picture.update()
        self._answer()

    def _go(self, way: str) -> None:
        self.model.way = way
        self._answer()

    def fill(self) -> None:
        """Bring the ranking and the answers up to date."""
        model = self.model
        model.follow_selection()
        blocked = self.table.blockSignals(True)
        self.table.fill(self._theme, model.heads(), model.cells())
        if model.at() >= 0:
            self.table.selectRow(model.at())
        self.table.blockSignals(blocked)
        if self.work is None:
            self.finder.setText(f"Best moves and swaps for: {WORDS[model.measure].lower()}")
        self.finder.setToolTip(plain(model.short()))
        if not model.fresh:
            self.list.clear()
        here, words = model.home()
        self.home.setEnabled(here)
        self.home.setText(words)
        self._answer()

    def _answer(self) -> None:
        """Say what moving or leaving the chosen thing would do."""
        question, answer = self.model.answer(self.by.text())
        self.question.setFont(font(13, bold=True))
        self.answer.setFont(font(12))
        self.question.setText(question)
        self.answer.setText(answer)

    def search(self) -> None:
        """Look for the best changes of the job as it is, beside the window; again to give it up."""
        if self.work is not None:
            self.work.cancel()
            return
        self.work = Work(self.model.search(), self)
        self.work.progressed.connect(self._progressed)
        self.work.done.connect(self._found)
        self.work.failed.connect(self._failed)
        self.work.given_up.connect(self._given_up)
        self.list.clear()
        self.work.start()

    def _progressed(self, share: float) -> None:
        self.finder.setText(f"Searching, {share:.0%}; click to give it up")

    def _failed(self, words: str) -> None:
        self.work = None
        self._session.say(words, trouble=True)
        self.refresh()

    def _given_up(self, _nothing: object) -> None:
        self.work = None
        self._session.say("The search was given up.")
        self.refresh()

    def _found(self, found: tuple[Better, ...]) -> None:
        """Show what was found, unless the job is another by now."""
        self.work = None
        self.model.better = found
        self.list.clear()
        self.refresh()
        if not self.model.fresh:
            return
        for line in self.model.lines():
            item = QListWidgetItem(line)
            item.setFont(font(12))
            if found:
                item.setToolTip("Double-click or Enter does it; undo takes it back")
            self.list.addItem(item)

    def _do(self, item: QListWidgetItem) -> None:
        if self.model.do(self.list.row(item)):
            self.search()
