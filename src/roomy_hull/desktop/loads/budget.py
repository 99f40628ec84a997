"""The page Budget: the brief with its masses, held against what the gross rating leaves."""

import functools

from PyQt6.QtWidgets import QComboBox, QHBoxLayout, QLabel, QLineEdit, QPushButton, QVBoxLayout

from roomy_hull.actions.workbench import Workbench
from roomy_hull.core.errors import UserError
from roomy_hull.core.units import parse, show
from roomy_hull.desktop.loads.parts import Cell, Grid, LoadsPage, kg_of, mass_word
from roomy_hull.desktop.theme import Theme, font
from roomy_hull.job import scenarios
from roomy_hull.job.model import NEEDS, Wish
from roomy_hull.studies.loads import budget

NOTHING = "not decided"


class BudgetPage(LoadsPage):
    """Purpose and sums above, the wishes below, a line to edit the chosen one."""

    def __init__(self, bench: Workbench, theme: Theme) -> None:
        super().__init__(bench, theme)
        self.at = ""
        self.title, self.sums = QLabel(), QLabel()
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
        self.need, self.thing = QComboBox(), QComboBox()
        self.need.addItems(NEEDS)
        self.thing.setFixedWidth(190)
        self.thing.setToolTip("The unit or carried thing that was decided for it")
        self.add_button, self.drop_button = QPushButton("Add"), QPushButton("Delete")
        self.add_button.clicked.connect(self._add)
        self.drop_button.clicked.connect(self._drop)
        for field, edit in (("name", self.name), ("mass", self.mass), ("x", self.place)):
            edit.setAccessibleName(f"Wish: {field}")
            edit.returnPressed.connect(functools.partial(self._typed, field))
        self.need.activated.connect(lambda _i: self._set("need", self.need.currentText()))
        self.thing.activated.connect(lambda _i: self._set("thing", str(self.thing.currentData())))
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
        self.hint = QLabel("Enter changes the chosen wish; Add makes a new one of what is typed.")
        self.hint.setContentsMargins(12, 0, 12, 4)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addWidget(self.title)
        box.addWidget(self.sums)
        box.addWidget(self.table, 1)
        box.addLayout(row)
        box.addWidget(self.hint)

    def wish(self) -> Wish | None:
        """Give the chosen wish."""
        return next((w for w in self._bench.job.brief.wishes if w.id == self.at), None)

    def _picked(self, row: int, _c: int, _r: int, _k: int) -> None:
        wishes = self._bench.job.brief.wishes
        if 0 <= row < len(wishes):
            self.at = wishes[row].id
            self._show()

    def _show(self) -> None:
        """Show the chosen wish in the line of fields."""
        one, system = self.wish(), self._bench.look.system
        things = [(NOTHING, "")] + [
            (t.value.name, t.id) for t in self._bench.verdict.assembly.things
        ]
        self.thing.clear()
        for words, key in things:
            self.thing.addItem(words, key)
        if one is None:
            return
        self.name.setText(one.name)
        self.mass.setText(show(one.mass, "mass", system, unit=False).replace(",", ""))
        self.place.setText(show(one.x, "length", system, unit=False).replace(",", ""))
        self.need.setCurrentText(one.need)
        self.thing.setCurrentIndex(max(0, self.thing.findData(one.thing)))

    def _value(self, field: str) -> object:
        system = self._bench.look.system
        if field == "mass":
            return parse(self.mass.text() or "0", "mass", system)
        if field == "x":
            return parse(self.place.text() or "0", "length", system)
        return self.name.text().strip()

    def _typed(self, field: str) -> None:
        if self.wish() is None:
            self._add()
            return
        try:
            self._set(field, self._value(field))
        except UserError as trouble:
            self._bench.say(str(trouble), trouble=True)

    def _set(self, field: str, value: object) -> None:
        if self.wish() is not None:
            self._bench.set_path(f"brief.wishes.{self.at}.{field}", value)

    def _add(self) -> None:
        bench = self._bench
        name = self.name.text().strip()
        if not name:
            bench.say("Type what is wished for first.", trouble=True)
            return

        def make() -> object:
            new = Wish(id="new", name=name, need=self.need.currentText(), thing="").but(  # type: ignore[arg-type]  # of NEEDS
                mass=self._value("mass"), x=self._value("x")
            )
            return scenarios.wished(bench.job, new)

        if bench.attempt(f"wish for {name}", make):  # type: ignore[arg-type]  # a Job
            self.at = bench.job.brief.wishes[-1].id
            self.refresh()

    def _drop(self) -> None:
        one = self.wish()
        if one is not None:
            self._bench.attempt(
                f"delete the wish {one.name}", lambda: scenarios.unwished(self._bench.job, one.id)
            )

    def fill(self) -> None:
        """Bring sums and table up to date."""
        bench, system = self._bench, self._bench.look.system
        found = budget.study(bench.verdict.assembly, bench.verdict.loads)
        brief = bench.job.brief

        def kg(value: float) -> str:
            return show(round(value), "mass", system)

        self.title.setFont(font(13, bold=True))
        away = f" {brief.travellers} travel, {brief.days:g} days out." if brief.travellers else ""
        self.title.setText(
            (brief.purpose or "No brief yet: say what the vehicle is for, and what is wished for.")
            + away
        )
        left = found.left_wanted
        state = (
            f"<span style='color:{self._theme.stop}'><b>{kg(left)}</b></span>"
            if left < 0
            else f"<b>{kg(left)}</b>"
        )
        self.sums.setFont(font(13))
        self.sums.setText(
            f"As drawn, '{found.scenario}' leaves <b>{kg(found.left)}</b> of the gross rating. Still needed "
            f"{kg(found.open['needed'])}, leaves {kg(found.left_needed)}. Wanted {kg(found.open['wanted'])}, leaves "
            f"{state} ± {kg(found.doubt)}. For later {kg(found.open['later'])}, would leave {kg(found.left_all)}. "
            f"Decided things came to {kg(found.over['needed'] + found.over['wanted'])} more than was allowed for. "
            f"The rear axle then has {kg(found.rear_wanted)} left."
        )
        rows: list[list[Cell]] = []
        names = {t.id: t.value.name for t in bench.verdict.assembly.things}
        for r in found.rows:
            more = "" if r.decided is None else kg_of(bench, r.decided - r.allowed)
            weight = "look" if r.decided is not None and r.decided > r.allowed * 1.1 else ""
            rows.append([
                (r.wish.name, "bold" if r.wish.id == self.at else ""), (r.wish.need, ""),
                (f"{kg_of(bench, r.allowed)} ± {kg_of(bench, r.doubt)}", ""),
                (names.get(r.wish.thing, NOTHING), "" if r.decided is not None else "note"),
                (kg_of(bench, r.decided) if r.decided is not None else "", ""), (more, weight),
                (f"{kg_of(bench, r.front)} / {kg_of(bench, r.rear)}" if r.wish.x else "", ""),
            ])  # fmt: skip
        word = mass_word(bench)
        blocked = self.table.blockSignals(True)
        self.table.fill(
            self._theme,
            ("Wish", "", f"Allowed, {word}", "Decided", f"Came to, {word}", "More by", "Front / rear"),
            rows, (), widths=(0, 72, 96, 0, 92, 66, 96),
        )  # fmt: skip
        ids = [w.id for w in brief.wishes]
        if self.at not in ids:
            self.at = ids[0] if ids else ""
        if self.at in ids:
            self.table.selectRow(ids.index(self.at))
        self.table.blockSignals(blocked)
        if not any(w.hasFocus() for w in (self.name, self.mass, self.place)):
            self._show()
