"""The page Strength: the list of checks, and the chosen one's sum."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout

from roomy_hull.desktop.page import Picture, SessionPage, choice_row
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.strength import StrengthModel
from roomy_hull.session.session import Session


class StrengthPage(SessionPage):
    """List of checks at the left, the chosen one's sum at the right."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = StrengthModel(session)
        self.table = Grid("Everything that carries, the most used first", rows_chosen=True)
        self.table.cell_taken.connect(self._picked)
        self.words = Label()
        self.words.setWordWrap(True)
        self.words.setContentsMargins(12, 10, 12, 6)
        self.words.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.picture = Picture(session, theme, "The door over its swing", self.model.swing)
        self.put = QPushButton("Put these struts into the job")
        self.put.clicked.connect(lambda _on: self.model.fit_proposal())
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setWidget(self.words)
        right = QVBoxLayout()
        right.setSpacing(2)
        right.addWidget(scroll, 3)
        right.addWidget(self.picture, 5)
        right.addWidget(self.put)
        kinds = [
            ("", "All"),
            *((k, f"{k}s") for k in ("Mount", "Slide", "Member", "Strut", "Rack")),
        ]
        bar, self.buttons = choice_row(kinds, "", self.only, self)
        left = QVBoxLayout()
        left.setSpacing(0)
        left.addLayout(bar)
        left.addWidget(self.table, 1)
        middle = QHBoxLayout()
        middle.setSpacing(2)
        middle.addLayout(left, 6)
        middle.addLayout(right, 5)
        self.stack(
            "Only bolts, straps and tie-downs are computed: rail, rivet nut and sheet around them may give way first. "
            "Barriers, seats and anything people rely on in a crash belong to the certifying engineer.",
            (middle, 1),
        )

    def only(self, kind: str) -> None:
        """List one kind of check, or all."""
        self.model.only(kind)
        self.refresh()

    def _picked(self, row: int, _c: int, _r: int, _k: int) -> None:
        self.model.choose(row)
        self._tell()

    def fill(self) -> None:
        """Bring the list and the sum up to date."""
        for kind, button in self.buttons.items():
            button.setChecked(kind == self.model.kind)
        cells, chosen = self.model.cells(), self.model.chosen()
        blocked = self.table.blockSignals(True)
        self.table.fill(self._theme, ("", "What", "", "Used"), cells)
        if chosen is not None:
            self.table.selectRow(self.model.at)
        self.table.blockSignals(blocked)
        self._tell()

    def _tell(self) -> None:
        """Write the chosen check's sum."""
        row = self.model.chosen()
        self.picture.setVisible(row is not None and row.kind == "Strut")
        self.put.setVisible(self.model.proposal() is not None)
        self.words.setFont(font(12))
        self.words.show_marked(self.model.words())
        self.picture.update()
