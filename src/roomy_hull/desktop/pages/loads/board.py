"""The page Board: the vehicle, a sweep or a sum above, scenarios against limits below."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QHeaderView, QStackedWidget, QVBoxLayout, QWidget

from roomy_hull.desktop.page import Picture, SessionPage, caution, choice_row
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions.loading import missing
from roomy_hull.session.pages.board import SWEPT, BoardModel
from roomy_hull.session.session import Session
from roomy_hull.studies.loads import board


class BoardPage(SessionPage):
    """Picture and sweep or sum above, the board below."""

    def __init__(self, session: Session, theme: Theme) -> None:  # ruff: ignore[too-many-statements]  # laying out a page is one list of statements
        super().__init__(session, theme)
        self.model = BoardModel(session)
        self.picture = Picture(
            session, theme, "Axle loads drawn on the vehicle", lambda _aspect: self.model.vehicle()
        )
        self.sweep = Picture(session, theme, "Sweep from full to empty", self.model.sweep)
        self.why = Grid("The sum behind the chosen figure")
        self.rule = Label()
        self.rule.setWordWrap(True)
        self.rule.setContentsMargins(8, 2, 8, 2)
        self.table = Grid("Scenarios against limits")
        self.table.row_height(20)
        self.why.row_height(19)
        self.table.cell_clicked.connect(self._clicked)
        across = self.table.horizontalHeader()
        if across is not None:
            across.setSectionsClickable(True)
            across.sectionClicked.connect(lambda c: self._choose(c, session.look.loads.row))
        self.beside = QStackedWidget()
        sums = QWidget()
        column = QVBoxLayout(sums)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.rule)
        column.addWidget(self.why, 1)
        swept = QWidget()
        column = QVBoxLayout(swept)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.sweep, 1)
        self.beside.addWidget(sums)
        self.beside.addWidget(swept)
        tabs = [("why", "Why this figure"), *((k, f"{v} run out") for k, v in SWEPT.items())]
        bar, self.tabs = choice_row(tabs, "why", self.turn, self)
        right = QVBoxLayout()
        right.setSpacing(0)
        right.addLayout(bar)
        right.addWidget(self.beside, 1)
        above = QHBoxLayout()
        above.setSpacing(2)
        above.addWidget(self.picture, 4)
        above.addLayout(right, 6)
        self.verdict = Label()
        self.verdict.setWordWrap(True)
        self.verdict.setContentsMargins(10, 2, 10, 2)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        top = QWidget()
        above.setContentsMargins(0, 0, 0, 0)
        top.setLayout(above)
        top.setFixedHeight(208)
        box.addWidget(top)
        middle = QHBoxLayout()
        middle.setContentsMargins(0, 0, 4, 0)
        middle.setSpacing(4)
        middle.addWidget(self.verdict, 1)
        self.usual = self.ask(
            "Add the usual", "loads.usual", "Scenarios of the trade that are not there yet"
        )
        middle.addWidget(self.usual)
        middle.addWidget(
            self.ask("Copy…", "loads.copy", "The chosen scenario, to be changed on the card")
        )
        middle.addWidget(self.ask("Delete", "loads.drop", "The chosen scenario"))
        box.addLayout(middle)
        box.addWidget(self.table, 1)
        box.addWidget(
            caution(
                "Planning figures, ± one sigma, with the chance of being over. Weigh the finished vehicle. "
                "Rating plates, the certifying engineer and road law decide."
            )
        )

    def turn(self, key: str) -> None:
        """Show the sum behind the figure, or a sweep."""
        self.tabs[key].setChecked(True)
        if key in SWEPT:
            self.model.what = key
        self.beside.setCurrentIndex(0 if key == "why" else 1)
        self.refresh()

    def _clicked(self, row: int, column: int) -> None:
        self._choose(column, board.ROWS[row][0])

    def _choose(self, column: int, row: str) -> None:
        self.model.choose(column, row)
        self.turn("why")

    def fill(self) -> None:
        """Bring the board, and the sum or the sweep, up to date."""
        session, model = self._session, self.model
        heads, keys = model.heads(), [k for k, _ in board.ROWS]
        ids = [s.id for s in session.job.scenarios]
        here = ids.index(session.scenario().id) + 1

        def shaded(r: int, c: int) -> bool:
            return c == here and keys[r] == session.look.loads.row

        names = [w for _, w in board.ROWS]
        self.table.fill(self._theme, heads, model.cells(), names, shaded)
        across = self.table.horizontalHeader()
        if across is not None:
            across.setFixedHeight(44)
            across.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap)
            if len(ids) > 6:
                across.setSectionResizeMode(QHeaderView.ResizeMode.Fixed)
                for c in range(1, len(heads)):
                    self.table.setColumnWidth(c, 118)
        self.verdict.setFont(font(12))
        self.verdict.setText(model.worst())
        self.usual.setVisible(bool(missing(session)))
        if self.beside.currentIndex():
            model.points()  # computed here, not while painting
            return
        titles, rows, rule = model.why()
        self.why.fill(self._theme, titles, rows)
        self.rule.setFont(font(11))
        self.rule.show_marked(rule)
