"""The page Budget: purpose and sums above, the wishes below, a line to edit the chosen one."""

import functools

from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QPushButton, QVBoxLayout

from roomy_hull.desktop.pages.loads.parts import Grid, LoadsPage
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.widgets.chooser import Chooser
from roomy_hull.drawing.manner import Theme
from roomy_hull.job.brief import NEEDS
from roomy_hull.session.pages.budget import BudgetModel
from roomy_hull.session.session import Session


class BudgetPage(LoadsPage):
    """Purpose and sums above, the wishes below, a line to edit the chosen one."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = BudgetModel(session)
        self.title, self.sums = Label(), Label()
        for label in (self.title, self.sums):
            label.setWordWrap(True)
            label.setContentsMargins(12, 6, 12, 2)
        self.table = Grid("The brief: what is wished for", rows_chosen=True)
        self.table.currentCellChanged.connect(self._picked)
        self.name, self.mass, self.place = QLineEdit(), QLineEdit(), QLineEdit()
        self.name.setPlaceholderText("What is wished for")
        self.mass.setPlaceholderText("Mass")
        self.place.setPlaceholderText("Aft of front axle")
        self.mass.setFixedWidth(80)
        self.place.setFixedWidth(120)
        self.need, self.thing = Chooser(), Chooser()
        self.need.addItems(NEEDS)
        self.thing.setFixedWidth(190)
        self.thing.setToolTip("The unit or carried thing that was decided for it")
        self.add_button, self.drop_button = QPushButton("Add"), QPushButton("Delete")
        self.add_button.clicked.connect(lambda _on: self._add())
        self.drop_button.clicked.connect(lambda _on: self.model.drop())
        for field, edit in (("name", self.name), ("mass", self.mass), ("x", self.place)):
            edit.setAccessibleName(f"Wish: {field}")
            edit.returnPressed.connect(functools.partial(self._typed, field))
        self.need.activated.connect(lambda _i: self.model.set("need", self.need.currentText()))
        self.thing.activated.connect(
            lambda _i: self.model.set("thing", str(self.thing.currentData()))
        )
        row = QHBoxLayout()
        row.setContentsMargins(10, 2, 10, 2)
        for widget in (
            self.name,
            self.mass,
            self.place,
            self.need,
            self.thing,
            self.add_button,
            self.drop_button,
        ):
            row.addWidget(widget)
        self.hint = Label("Enter changes the chosen wish; Add makes a new one of what is typed.")
        self.hint.setContentsMargins(12, 0, 12, 4)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addWidget(self.title)
        box.addWidget(self.sums)
        box.addWidget(self.table, 1)
        box.addLayout(row)
        box.addWidget(self.hint)

    def _edits(self) -> dict[str, QLineEdit]:
        return {"name": self.name, "mass": self.mass, "x": self.place}

    def _picked(self, row: int, _c: int, _r: int, _k: int) -> None:
        self.model.choose(row)
        self._show()

    def _show(self) -> None:
        """Show the chosen wish in the line of fields."""
        self.thing.clear()
        for words, key in self.model.things():
            self.thing.addItem(words, key)
        one = self.model.wish()
        if one is None:
            return
        for field, edit in self._edits().items():
            edit.setText(self.model.typed(field))
        self.need.setCurrentText(one.need)
        self.thing.setCurrentIndex(max(0, self.thing.findData(one.thing)))

    def _typed(self, field: str) -> None:
        if self.model.wish() is None:
            self._add()
        else:
            self.model.set(field, self._edits()[field].text())

    def _add(self) -> None:
        mass, place = self.mass.text(), self.place.text()
        if self.model.add(self.name.text(), mass, place, self.need.currentText()):
            self.refresh()

    def fill(self) -> None:
        """Bring sums and table up to date."""
        model = self.model
        self.title.setFont(font(13, bold=True))
        self.title.setText(model.title())
        self.sums.setFont(font(13))
        self.sums.show_marked(model.sums(), self._theme.stop)
        blocked = self.table.blockSignals(True)
        self.table.fill(
            self._theme, model.heads(), model.cells(), (), widths=(0, 72, 96, 0, 92, 66, 96)
        )
        if model.row() >= 0:
            self.table.selectRow(model.row())
        self.table.blockSignals(blocked)
        if not any(w.hasFocus() for w in self._edits().values()):
            self._show()
