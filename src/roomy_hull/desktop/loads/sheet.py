"""The page Sheet: what scales said against what was predicted, and the load sheet to write."""

from datetime import date

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QCheckBox,
    QGridLayout,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QListWidget,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.actions.workbench import Workbench
from roomy_hull.core.units import parse, show
from roomy_hull.desktop.loads.parts import Cell, Grid, LoadsPage, caution, kg_of, mass_word
from roomy_hull.desktop.theme import Theme, font
from roomy_hull.formats.load_sheet import build
from roomy_hull.job import scenarios
from roomy_hull.job.model import Weighing
from roomy_hull.studies.loads import weighing as scales
from roomy_hull.studies.loads.carrying_judge import predicted

READ = ("front left", "front right", "rear left", "rear right", "front", "rear")
WORDS = {"front": "Front axle", "rear": "Rear axle"}


class SheetPage(LoadsPage):
    """Weighing at the left, the sheet's text at the right."""

    def __init__(self, bench: Workbench, theme: Theme) -> None:
        super().__init__(bench, theme)
        self.edits: dict[str, QLineEdit] = {}
        form = QGridLayout()
        form.setContentsMargins(10, 4, 10, 4)
        form.setVerticalSpacing(3)
        form.setHorizontalSpacing(8)
        for n, key in enumerate(READ):
            edit = QLineEdit()
            edit.setFixedWidth(102)
            edit.setAccessibleName(f"Scale: {key}")
            edit.setAlignment(Qt.AlignmentFlag.AlignRight)
            self.edits[key] = edit
            form.addWidget(QLabel(WORDS.get(key, key.capitalize())), n // 2, 2 * (n % 2))
            form.addWidget(edit, n // 2, 2 * (n % 2) + 1)
        for n, (key, words, tip) in enumerate((
            ("date", "Date", "Of the weighing"), ("place", "Scale", "Which scale, and where"),
            ("scale", "± one reading", "One-sigma doubt of the scale"),
            ("raised_by", "Front up by", "Of a second weighing with the front wheels raised; 0 for none"),
            ("raised_kg", "… rear then", "What the rear axle carried with the front raised"),
        )):  # fmt: skip
            edit = QLineEdit()
            edit.setFixedWidth(102)
            edit.setToolTip(tip)
            edit.setAccessibleName(f"Scale: {key}")
            self.edits[key] = edit
            form.addWidget(QLabel(words), 3 + n // 2, 2 * (n % 2))
            form.addWidget(edit, 3 + n // 2, 2 * (n % 2) + 1)
        self.edits["date"].setText(date.today().isoformat())
        self.edits["scale"].setText("5")
        self.add_button = QPushButton("Enter the weighing")
        self.add_button.clicked.connect(self.enter)
        self.list = QListWidget()
        self.list.setAccessibleName("Weighings")
        self.list.setFixedHeight(66)
        self.list.currentRowChanged.connect(lambda _r: self._compare())
        self.counts = QCheckBox("Predictions follow it")
        self.counts.clicked.connect(self._count)
        self.drop_button = QPushButton("Delete")
        self.drop_button.clicked.connect(self._drop)
        self.table = Grid("Predicted against weighed")
        self.words = QLabel()
        self.words.setWordWrap(True)
        self.words.setContentsMargins(10, 2, 10, 2)
        self.head = QLabel()
        self.head.setContentsMargins(10, 6, 10, 0)
        left = QVBoxLayout()
        left.setSpacing(3)
        left.addWidget(self.head)
        left.addLayout(form)
        left.addWidget(self.add_button)
        left.addWidget(self.list)
        row = QHBoxLayout()
        row.addWidget(self.counts)
        row.addStretch(1)
        row.addWidget(self.drop_button)
        left.addLayout(row)
        left.addWidget(self.table, 1)
        left.addWidget(self.words)
        self.text = QLabel()
        self.text.setWordWrap(True)
        self.text.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.text.setContentsMargins(14, 10, 14, 10)
        self.text.setTextFormat(Qt.TextFormat.RichText)
        self.text.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        scroll = QScrollArea()
        scroll.setWidgetResizable(True)
        scroll.setWidget(self.text)
        scroll.setAccessibleName("The load sheet")
        self.write_button = self.ask("Write the load sheet: PDF and CSV…", "loads.write")
        right = QVBoxLayout()
        right.setSpacing(3)
        right.addWidget(scroll, 1)
        right.addWidget(self.write_button)
        middle = QHBoxLayout()
        middle.setSpacing(4)
        holder = QWidget()
        holder.setLayout(left)
        holder.setFixedWidth(446)
        middle.addWidget(holder)
        middle.addLayout(right, 1)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.addLayout(middle, 1)
        box.addWidget(
            caution(
                "Weigh on a certified scale. The sheet is a planning document; it certifies nothing."
            )
        )

    # Entering

    def _kg(self, key: str) -> float:
        text = self.edits[key].text().strip()
        return parse(text, "mass", self._bench.look.system) if text else 0.0

    def enter(self) -> None:
        """Enter what the scales said in the chosen scenario, as one step."""
        bench = self._bench

        def make() -> object:
            values = {key.replace(" ", "_"): self._kg(key) for key in READ}
            raised = self.edits["raised_by"].text().strip()
            by = parse(raised, "length", bench.look.system) if raised else 0.0
            new = Weighing(id="weighing", scenario=bench.scenario().id).but(
                **values, scale=self._kg("scale") or 5.0, date=self.edits["date"].text().strip()[:20],
                place=self.edits["place"].text().strip()[:120], raised="front", raised_by=by,
                raised_kg=self._kg("raised_kg"),
            )  # fmt: skip
            return scenarios.weighed(bench.job, new)

        if bench.attempt("enter a weighing", make):  # type: ignore[arg-type]  # a Job
            for key in (*READ, "raised_by", "raised_kg"):
                self.edits[key].clear()
            self.list.setCurrentRow(len(bench.job.weighings) - 1)

    def weighing(self) -> Weighing | None:
        """Give the chosen weighing."""
        found, row = self._bench.job.weighings, self.list.currentRow()
        return found[row] if 0 <= row < len(found) else None

    def _count(self) -> None:
        one = self.weighing()
        if one is not None:
            self._bench.set_path(f"weighings.{one.id}.counts", self.counts.isChecked())

    def _drop(self) -> None:
        one = self.weighing()
        if one is not None:
            bench = self._bench
            bench.attempt("delete a weighing", lambda: scenarios.unweighed(bench.job, one.id))

    # Showing

    def fill(self) -> None:
        """Bring list, comparison and the sheet's text up to date."""
        bench = self._bench
        self.head.setFont(font(13, bold=True))
        self.head.setText(f"Weighed in '{bench.scenario().name}', {mass_word(bench)}")
        kept = self.list.currentRow()
        blocked = self.list.blockSignals(True)
        self.list.clear()
        for w in bench.job.weighings:
            name = bench.verdict.loads.scenario(w.scenario).name
            self.list.addItem(f"{w.date or w.id}  {w.place}  {name}")
        count = len(bench.job.weighings)
        self.list.setCurrentRow(min(max(kept, 0), count - 1))
        self.list.blockSignals(blocked)
        self._compare()
        if bench.verdict.carrying is not None:
            self.text.setFont(font(11))
            self.text.setText(self.sheet_text())

    def _compare(self) -> None:
        """Set the chosen weighing against the prediction without it."""
        bench, one = self._bench, self.weighing()
        self.counts.setEnabled(one is not None)
        self.drop_button.setEnabled(one is not None)
        self.words.setFont(font(12))
        if one is None:
            self.table.fill(self._theme, ("", "Predicted", "Read", "More by", "Sigma"), [])
            self.words.setText(
                "Enter what scales say: four wheels, or the axles. Predictions then follow it."
            )
            return
        self.counts.setChecked(one.counts)
        verdict = bench.verdict
        found = scales.against(one, predicted(verdict.assembly, verdict.loads, one.scenario))
        rows: list[list[Cell]] = [
            [(r.words.capitalize(), ""), (f"{kg_of(bench, r.predicted)} ± {kg_of(bench, r.doubt)}", ""),
             (kg_of(bench, r.read), "bold"), (kg_of(bench, r.difference), ""),
             (f"{r.sigmas:+.1f}", "look" if abs(r.sigmas) > 3 else "")]
            for r in found
        ]  # fmt: skip
        self.table.fill(
            self._theme,
            ("", "Predicted", "Read", "More by", "Sigma"),
            rows,
            (),
            widths=(0, 92, 62, 66, 52),
        )
        words = "Predicted without any weighing. "
        words += "All pages follow it now." if one.counts else "It does not count now."
        height = self.raised_height(one)
        if height:
            words += (
                f" Raised-axle weighing: centre of mass {show(height, 'length', bench.look.system)} up, reckoned "
                f"{show(verdict.loads.scenario(one.scenario).centre[2], 'length', bench.look.system)}."
            )
        self.words.setText(words)

    def raised_height(self, one: Weighing) -> float:
        """Give the height of the centre of mass by a raised-axle weighing, 0 where there was none. [mm]"""
        axles = one.axles()
        if one.raised_by <= 0 or one.raised_kg <= 0 or len(axles) < 2:
            return 0.0
        vehicle = self._bench.job.vehicle
        lower = axles["rear" if one.raised == "front" else "front"]
        return scales.raised_height(
            sum(axles.values()),
            lower,
            one.raised_kg,
            vehicle.wheelbase,
            one.raised_by,
            vehicle.axle_height(),
        )

    def sheet_text(self) -> str:
        """Give the sheet as rich text, as it will be on paper but for its pictures."""
        sheet = build(self._bench.verdict, self._bench.look.system)
        rule = self._theme.rule
        parts = [f"<h2>{sheet.title}</h2><p>{sheet.subtitle}</p>"]
        for s in sheet.sections:
            if s.picture:
                parts.append(f"<p><i>Picture: {s.title.lower()}</i></p>")
                continue
            parts.append(f"<h3>{s.title}</h3>" + "".join(f"<p>{w}</p>" for w in s.words))
            if s.heads:
                heads = "".join(f"<th align='left'>{h}</th>" for h in s.heads)
                rows = "".join(
                    "<tr>" + "".join(f"<td>{c}</td>" for c in r) + "</tr>" for r in s.rows
                )
                style = f"border='1' style='border-color:{rule}' cellpadding='3' cellspacing='0'"
                parts.append(f"<table {style}><tr>{heads}</tr>{rows}</table>")
        return "".join(parts)
