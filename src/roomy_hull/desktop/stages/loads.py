"""The stage Loads: the vehicle on its axles, every scenario against every limit, what weighs what."""

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QHBoxLayout,
    QHeaderView,
    QLabel,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.actions.workbench import Workbench
from roomy_hull.core.doubt import chance_over
from roomy_hull.core.units import KG_PER_POUND, show
from roomy_hull.desktop.ground.scene_painter import fit, painter_for
from roomy_hull.desktop.theme import Theme, colour, font
from roomy_hull.drawing.loads_scene import loads_frame, loads_scene
from roomy_hull.studies.loads.axles import Figure, ScenarioLoads
from roomy_hull.studies.loads.board import LOOK_CHANCE

ROWS = ("Front axle", "Rear axle", "Gross", "Payload left", "Left side", "Right side", "On the roof",
        "With trailer", "Tail settles lower")  # fmt: skip


class LoadsPicture(QWidget):
    """The side view with its axle arrows."""

    def __init__(self, bench: Workbench, theme: Theme) -> None:
        super().__init__()
        self._bench, self.theme = bench, theme
        self.setMinimumSize(360, 240)
        self.setAccessibleName("Axle loads drawn on the vehicle")

    def paintEvent(self, _event: QPaintEvent | None) -> None:  # ruff: ignore[invalid-function-name]  # Qt's name
        """Paint the chosen scenario."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        p.fillRect(self.rect(), QColor(self.theme.paper))
        bench = self._bench
        loads = bench.verdict.loads.scenario(bench.look.scenario)
        p.setPen(QColor(self.theme.ink))
        p.setFont(font(14, bold=True))
        p.drawText(QRectF(12, 6, self.width() - 24, 20), Qt.AlignmentFlag.AlignLeft, loads.name)
        window = fit(
            loads_frame(bench.verdict.assembly),
            QRectF(8, 28, self.width() - 16, self.height() - 34),
        )
        scene = loads_scene(bench.verdict.assembly, loads, bench.look.system)
        painter_for(self.theme, bench.look.system).paint(p, scene, window)


class WeighRank(QWidget):
    """What weighs what: the heaviest on the rear axle first."""

    def __init__(self, bench: Workbench, theme: Theme) -> None:
        super().__init__()
        self._bench, self.theme = bench, theme
        self.setFixedWidth(286)
        self.setAccessibleName("What weighs what on the rear axle")

    def sizeHint(self) -> QSize:  # ruff: ignore[invalid-function-name]  # Qt's name
        """Give the usual size."""
        return QSize(286, 260)

    def rows(self) -> list[tuple[str, float, float]]:
        """Give (name, mass, on the rear axle) of what is aboard, the heaviest there first. [kg]"""
        verdict = self._bench.verdict
        names = {t.id: t.value.name for t in verdict.assembly.things}
        names |= {
            "tray": "Tray",
            "canopy": "Canopy",
            "vehicle": "Vehicle, fuel, people",
            "trailer": "Ball mass",
        }
        owners = verdict.loads.owners(self._bench.scenario())
        rows = [
            (names[o], kg, rear)
            for o, (kg, rear, _side) in owners.items()
            if kg > 0 and o != "vehicle"
        ]
        return sorted(rows, key=lambda r: -r[2])

    def paintEvent(self, _event: QPaintEvent | None) -> None:  # ruff: ignore[invalid-function-name]  # Qt's name
        """Paint the ranking as far as there is room."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        t, system = self.theme, self._bench.look.system
        p.fillRect(self.rect(), QColor(t.panel))
        p.setPen(QColor(t.ink))
        p.setFont(font(13, bold=True))
        p.drawText(
            QRectF(10, 6, self.width() - 20, 20), Qt.AlignmentFlag.AlignLeft, "On the rear axle"
        )
        rows = self.rows()
        step, top = 26.0, 32.0
        room = max(1, int((self.height() - top - 4) // step))
        shown = rows[:room] if len(rows) <= room else rows[: room - 1]
        most = max((abs(r[2]) for r in rows), default=1.0)
        for n, (name, kg, rear) in enumerate(shown):
            y = top + n * step
            p.setPen(Qt.PenStyle.NoPen)
            p.setBrush(colour(t.accent, 60))
            p.drawRect(QRectF(10, y, (self.width() - 20) * abs(rear) / most, step - 5))
            p.setPen(QColor(t.ink))
            p.setFont(font(12))
            p.drawText(QRectF(14, y, 150, step - 5), Qt.AlignmentFlag.AlignVCenter, name)
            p.setFont(font(12, bold=True))
            p.drawText(QRectF(150, y, self.width() - 164, step - 5),
                       Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight,
                       f"{show(rear, 'mass', system, unit=False)} of {show(kg, 'mass', system)}")  # fmt: skip
        if len(shown) < len(rows):
            rest = rows[len(shown) :]
            p.setFont(font(12))
            p.setPen(QColor(t.faint))
            total = show(sum(r[2] for r in rest), "mass", system)
            p.drawText(QRectF(14, top + len(shown) * step, self.width() - 28, step - 5),
                       Qt.AlignmentFlag.AlignVCenter, f"and {len(rest)} more: {total}")  # fmt: skip


class LoadsStage(QWidget):
    """Picture above, table and ranking below."""

    def __init__(self, bench: Workbench, theme: Theme) -> None:
        super().__init__()
        self._bench, self._theme = bench, theme
        self.picture = LoadsPicture(bench, theme)
        self.rank = WeighRank(bench, theme)
        self.table = QTableWidget()
        self.table.setAccessibleName("Scenarios against limits")
        self.table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.table.setSelectionMode(QAbstractItemView.SelectionMode.NoSelection)
        self.table.setVerticalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.caution = QLabel(
            "Planning figures: drawn and entered masses, each with its doubt (one sigma). Weigh the "
            "finished vehicle. Rating plates, the certifying engineer and road law decide."
        )
        self.caution.setWordWrap(True)
        self.caution.setContentsMargins(10, 0, 10, 4)
        below = QHBoxLayout()
        below.setSpacing(0)
        below.addWidget(self.table, 1)
        below.addWidget(self.rank)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(4)
        box.addWidget(self.picture, 5)
        box.addLayout(below, 4)
        box.addWidget(self.caution)
        self.table.cellClicked.connect(self._clicked)
        bench.job_changed.connect(self.refresh)
        bench.look_changed.connect(self.refresh)
        self.theme = theme
        self.refresh()

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = self.picture.theme = self.rank.theme = theme
        self.caution.setFont(font(11))
        self.refresh()

    def _clicked(self, _row: int, column: int) -> None:
        scenarios = self._bench.job.scenarios
        if 0 < column <= len(scenarios):
            self._bench.set_look(scenario=scenarios[column - 1].id)

    def refresh(self) -> None:
        """Bring picture, table and ranking up to date where they are seen."""
        if not self.isVisible():
            return
        self.picture.update()
        self.rank.update()
        self._fill()

    def showEvent(self, _event: object) -> None:  # ruff: ignore[invalid-function-name]  # Qt's name
        """Fill on being shown; nothing is computed for a hidden table."""
        self.refresh()

    def _fill(self) -> None:
        loads, table = self._bench.verdict.loads.scenarios, self.table
        table.setRowCount(len(ROWS))
        table.setColumnCount(len(loads) + 1)
        table.setVerticalHeaderLabels(list(ROWS))
        table.setHorizontalHeaderLabels(["Limit", *(s.name for s in loads)])
        across, down = table.horizontalHeader(), table.verticalHeader()
        if across is not None and down is not None:
            across.setSectionResizeMode(QHeaderView.ResizeMode.Stretch)
            across.setFixedHeight(42)
            across.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap)
            across.setSectionResizeMode(0, QHeaderView.ResizeMode.Fixed)
            across.resizeSection(0, 66)
            down.setSectionResizeMode(QHeaderView.ResizeMode.Fixed)
            down.setDefaultSectionSize(24)
        columns = [self.limits(loads[0]), *(self.cells(s) for s in loads)]
        for column, cells in enumerate(columns):
            for row, (text, weight) in enumerate(cells):
                item = QTableWidgetItem(text)
                item.setFont(font(13, bold=bool(weight)))
                if weight:
                    item.setForeground(QColor(self._theme.weight(weight)))
                if column and loads[column - 1].id == self._bench.look.scenario:
                    item.setBackground(colour(self._theme.accent, 34))
                table.setItem(row, column, item)

    def _kg(self, value: float) -> str:
        """Write a mass in whole kilograms or pounds."""
        system = self._bench.look.system
        return f"{value / KG_PER_POUND if system == 'us' else value:,.0f}"

    def limits(self, s: ScenarioLoads) -> list[tuple[str, str]]:
        """Give the column of limits, the same for every scenario."""
        ratings = self._bench.job.vehicle.ratings
        rows = [s.front.limit, s.rear.limit, s.gross.limit, None, None, None, s.roof.limit,
                ratings.combination or None, None]  # fmt: skip
        return [(self._kg(r) if r is not None else "", "") for r in rows]

    def cells(self, s: ScenarioLoads) -> list[tuple[str, str]]:
        """Give one scenario's column: the words of each cell and its weight, if any."""

        def against(figure: Figure | None) -> tuple[str, str]:
            if figure is None:
                return ("no trailer", "")
            text = f"{self._kg(figure.value)} ± {self._kg(figure.doubt)}"
            if figure.limit is None:
                return (text, "")
            chance = chance_over(figure.value, figure.doubt, figure.limit)
            weight = (
                "stop" if figure.value > figure.limit else "look" if chance >= LOOK_CHANCE else ""
            )
            odds = f" ({chance:.0%} over)" if chance >= 0.005 else ""
            return (f"{text}{odds}", weight)

        low = show(s.stance.tail_low, "length", self._bench.look.system)
        left = s.payload_left
        payload = (
            f"{self._kg(left.value)} ± {self._kg(left.doubt)}", "stop" if left.value < 0 else ""
        )  # fmt: skip
        return [
            against(s.front), against(s.rear), against(s.gross), payload, against(s.left),
            against(s.right), against(s.roof), against(s.combination), (low, ""),
        ]  # fmt: skip
