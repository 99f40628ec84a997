"""The page Board: scenarios against limits, the sweep of water and fuel, and the sum behind any figure."""

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QHeaderView,
    QLabel,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.actions.loading import missing
from roomy_hull.actions.workbench import Workbench
from roomy_hull.core.strokes import Rect, Scene
from roomy_hull.core.units import KG_PER_POUND, show
from roomy_hull.desktop.loads.parts import (
    Cell,
    Grid,
    LoadsPage,
    Picture,
    caution,
    choice_row,
    kg_of,
    mass_word,
)
from roomy_hull.desktop.theme import Theme, font
from roomy_hull.drawing import chart
from roomy_hull.drawing.loads_scene import centre_height, loads_frame, loads_scene
from roomy_hull.studies.loads import board
from roomy_hull.studies.loads.axles import Figure, ScenarioLoads

SWEPT = {"water": "Water", "fuel": "Fuel", "both": "Both"}


class BoardPage(LoadsPage):
    """Picture and sweep or sum above, the board below."""

    def __init__(self, bench: Workbench, theme: Theme) -> None:
        super().__init__(bench, theme)
        self.what = "both"
        self.picture = Picture(bench, theme, "Axle loads drawn on the vehicle", self._vehicle)
        self.sweep = Picture(bench, theme, "Sweep from full to empty", self._sweep)
        self.why = Grid("The sum behind the chosen figure")
        self.rule = QLabel()
        self.rule.setWordWrap(True)
        self.rule.setContentsMargins(8, 2, 8, 2)
        self.table = Grid("Scenarios against limits")
        self.table.row_height(20)
        self.why.row_height(19)
        self.table.cellClicked.connect(self._clicked)
        across = self.table.horizontalHeader()
        if across is not None:
            across.setSectionsClickable(True)
            across.sectionClicked.connect(lambda c: self._choose(c, bench.look.row))
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
        self.verdict = QLabel()
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
            self.what = key
        self.beside.setCurrentIndex(0 if key == "why" else 1)
        self.refresh()

    # Choosing

    def _clicked(self, row: int, column: int) -> None:
        self._choose(column, board.ROWS[row][0])

    def _choose(self, column: int, row: str) -> None:
        scenarios = self._bench.job.scenarios
        changes: dict[str, object] = {"row": row}
        if 0 < column <= len(scenarios):
            changes["scenario"] = scenarios[column - 1].id
        self._bench.select("")
        self._bench.set_look(**changes)
        self.turn("why")

    # Drawing

    def _vehicle(self, _aspect: float) -> tuple[str, tuple[Scene, Rect]]:
        bench = self._bench
        verdict = bench.verdict
        loads = verdict.loads.scenario(bench.look.scenario)
        aft, up = loads.centre[0], centre_height(verdict.assembly, loads)
        system = bench.look.system
        where = f"{show(round(aft), 'length', system)} aft, {show(round(up), 'length', system)} up"
        title = f"Centre of mass {where}"
        return title, (
            loads_scene(verdict.assembly, loads, bench.look.system),
            loads_frame(verdict.assembly),
        )

    def _sweep(self, aspect: float) -> tuple[str, tuple[Scene, Rect]]:
        bench = self._bench
        verdict, one = bench.verdict, bench.scenario()
        points = board.sweep(verdict.assembly, verdict.loads, one, self.what)
        per = KG_PER_POUND if bench.look.system == "us" else 1.0
        curves, levels, band = [], [], []
        for n, (key, words) in enumerate((("front", "front axle"), ("rear", "rear axle")), 1):
            figures: list[Figure] = [getattr(p, key) for p in points]
            at = [100 - p.fill * 100 for p in points]
            curves.append(
                chart.Curve(f"curve {n}", tuple((x, f.value / per) for x, f in zip(at, figures, strict=True)), words)
            )  # fmt: skip
            limit = figures[0].limit
            if limit:
                levels.append(chart.Level(limit / per, f"{words} limit {limit / per:,.0f}"))
            if key == "rear":
                band = [
                    (x, (f.value + 2 * f.doubt) / per) for x, f in zip(at, figures, strict=True)
                ]
                band += [
                    (x, (f.value - 2 * f.doubt) / per)
                    for x, f in reversed(list(zip(at, figures, strict=True)))
                ]
        names = {"water": "water", "fuel": "fuel", "both": "water and fuel"}
        drawn = chart.scene(
            chart.Chart(f"{names[self.what]} used, %", mass_word(bench), tuple(curves), tuple(levels), aspect * 0.92,
                        band=tuple(band), room=190)
        )  # fmt: skip
        return f"{one.name}: {names[self.what]} from full to empty", drawn

    # Tables

    def fill(self) -> None:
        """Bring the board and the sum up to date."""
        bench = self._bench
        loads = bench.verdict.loads.scenarios
        chosen = bench.look.scenario
        keys = [k for k, _ in board.ROWS]
        rows = [[self.limit(k), *(self.cell(s, k) for s in loads)] for k in keys]
        heads = ["Limit", *(s.name for s in loads)]
        ids = [s.id for s in loads]

        def shaded(r: int, c: int) -> bool:
            return c > 0 and (ids[c - 1] == chosen) and (keys[r] == bench.look.row or r < 0)

        self.table.fill(
            self._theme, heads, rows, [w for _, w in board.ROWS], shaded, (62,) if heads else ()
        )
        across = self.table.horizontalHeader()
        if across is not None:
            across.setFixedHeight(44)
            across.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap)
            if len(loads) > 6:
                across.setSectionResizeMode(QHeaderView.ResizeMode.Fixed)
                for c in range(1, len(heads)):
                    self.table.setColumnWidth(c, 118)
        worst = board.worst(bench.verdict.loads)
        self.verdict.setFont(font(12))
        if worst is not None:
            name = bench.verdict.loads.scenario(worst.scenario).name
            row = dict(board.ROWS)[worst.key].lower()
            odds = f", {worst.chance:.1%} chance of being over" if worst.chance >= 0.0005 else ""
            self.verdict.setText(
                f"The worst cell governs: {row} in '{name}', {worst.use:.0%} of its limit{odds}."
            )
        self.usual.setVisible(bool(missing(bench)))
        self._fill_why()

    def limit(self, key: str) -> Cell:
        """Give the cell of a row's limit, the same in every scenario."""
        for s in self._bench.verdict.loads.scenarios:
            figure = board.cell(s, key)
            if figure is not None and figure.limit:
                return kg_of(self._bench, figure.limit), ""
        return "", ""

    def cell(self, s: ScenarioLoads, key: str) -> Cell:
        """Give one cell: value ± doubt and the chance of being over, with its weight."""
        figure = board.cell(s, key)
        if figure is None:
            return "–", ""
        if key == "level":
            low = show(figure.value, "length", self._bench.look.system)
            doubt = show(figure.doubt, "length", self._bench.look.system, unit=False)
            return (low.replace(" mm", f" ± {doubt} mm") if doubt not in ("0", "0.0") else low), ""
        text = kg_of(self._bench, figure.value)
        if figure.doubt > 0.05:
            text += f" ± {kg_of(self._bench, figure.doubt)}"
        if key == "payload":
            return text, "stop" if figure.value < 0 else ""
        chance = board.chance(figure)
        odds = f" · {chance:.0%}" if chance >= 0.005 else ""
        return text + odds, board.weight_of(figure)

    def _fill_why(self) -> None:
        bench = self._bench
        verdict, theme = bench.verdict, self._theme
        key = bench.look.row if bench.look.row in dict(board.ROWS) else "rear"
        found = board.why(verdict.assembly, verdict.loads, bench.scenario(), key)
        per = KG_PER_POUND if bench.look.system == "us" and found.unit == "kg" else 1.0
        word = mass_word(bench) if found.unit == "kg" else found.unit
        place = 1 if found.unit == "mm" or abs(found.total) < 100 else 0

        def write(value: float) -> str:
            return f"{value / per:,.{place}f}"

        rows: list[list[Cell]] = [
            [(f"Sum: {found.title.split(':')[0].lower()}", "bold"), ("", ""), ("", ""),
             (f"{write(found.total)} {word}", "bold")]
        ]  # fmt: skip
        for line in found.lines:
            kg = kg_of(bench, line.kg) if line.kg else ""
            part = f"{line.part:,.3f}" if line.kg else ""
            rows.append([(line.words, ""), (kg, ""), (part, ""), (write(line.amount), "")])
        self.why.fill(
            theme, ("Adds up from", mass_word(bench), "×", word), rows, (), widths=(0, 52, 58, 78)
        )
        self.rule.setFont(font(11))
        doubt = f" ± {write(found.doubt)}" if found.doubt else ""
        self.rule.setText(
            f"<b>{found.title}: {write(found.total)}{doubt} {word}</b><br>{found.rule} Limit: {found.limit}."
        )
