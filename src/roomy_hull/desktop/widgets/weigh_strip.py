"""The weigh strip: axles, gross, payload, sides and stance of the chosen scenario, always there."""

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPolygonF
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from roomy_hull.core.units import show, unit_word
from roomy_hull.desktop.following import follow
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import colour, font
from roomy_hull.desktop.widgets.chooser import Chooser
from roomy_hull.drawing.style import Theme
from roomy_hull.session.session import Session
from roomy_hull.studies.loads.axles import Figure, ScenarioLoads
from roomy_hull.studies.loads.board import severity_of


class WeighStrip(QWidget):
    """Scenario chooser and six drawn figures."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        self.setFixedHeight(104)
        row = QHBoxLayout(self)
        row.setContentsMargins(10, 6, 10, 8)
        row.setSpacing(10)
        left = QVBoxLayout()
        left.setSpacing(4)
        self._title = Label("Scenario")
        self.chooser = Chooser()
        self.chooser.setAccessibleName("Scenario")
        self.chooser.setToolTip("Which things are aboard, and how full (F6)")
        self.chooser.setFixedWidth(196)
        left.addStretch(1)
        left.addWidget(self._title)
        left.addWidget(self.chooser)
        left.addStretch(1)
        row.addLayout(left)
        self.scale = WeighScale(session, theme)
        row.addWidget(self.scale, 1)
        self.chooser.activated.connect(self._chosen)
        follow(self, self._refresh, session.changed, session.view.changed)
        self._refresh()

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self.scale.theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self.scale.theme = theme
        self._title.setFont(font(12))

    def _chosen(self, index: int) -> None:
        self._session.view.set(scenario=self._session.job.scenarios[index].id)

    def _refresh(self) -> None:
        names = [s.name for s in self._session.job.scenarios]
        if [self.chooser.itemText(i) for i in range(self.chooser.count())] != names:
            self.chooser.clear()
            self.chooser.addItems(names)
        ids = [s.id for s in self._session.job.scenarios]
        if self._session.look.scenario in ids:
            self.chooser.setCurrentIndex(ids.index(self._session.look.scenario))
        self.scale.update()

    def reading(self) -> ScenarioLoads:
        """The figures that are shown."""
        return self._session.sight.loads.scenario(self._session.look.scenario)


class WeighScale(QWidget):
    """The six figures, each a number and a bar with its limit and its doubt."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self.theme = session, theme
        self.setAccessibleName("Weigh strip")
        self.setToolTip(
            "Planning figures from the masses entered, ± one standard deviation.\n"
            "The rating plate, a weighbridge and road law decide."
        )

    def cells(self) -> list[tuple[str, str, str]]:
        """(title, figure, remark) of each cell, as shown."""
        loads = self._session.sight.loads.scenario(self._session.look.scenario)
        system = self._session.look.system
        word = unit_word("mass", system)

        def kg(value: float) -> str:
            return show(round(value) if system == "metric" else value, "mass", system, unit=False)

        def plain(figure: Figure) -> str:
            return f"± {kg(figure.uncertainty)} {word}" + (
                f", limit {kg(figure.limit)}" if figure.limit else ""
            )

        lean = loads.right.value - loads.left.value
        share = abs(lean) / max(loads.gross.value, 1e-9) * 100
        heavy = "right" if lean > 0 else "left"
        low = loads.stance.tail_low
        end = "tail low" if low >= 0 else "nose low"
        return [
            ("Front axle", kg(loads.front.value), plain(loads.front)),
            ("Rear axle", kg(loads.rear.value), plain(loads.rear)),
            ("Gross", kg(loads.gross.value), plain(loads.gross)),
            ("Payload left", kg(loads.payload_left.value), f"± {kg(loads.payload_left.uncertainty)} {word}"),
            ("Left / right", f"{kg(loads.left.value)} / {kg(loads.right.value)}",
             f"{heavy} heavier by {share:.1f} %"),
            ("Level", show(abs(low), "length", system, unit=False),
             f"{unit_word('length', system)} {end}"),
        ]  # fmt: skip

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Draw all cells."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        loads = self._session.sight.loads.scenario(self._session.look.scenario)
        shares = (0.155, 0.155, 0.155, 0.155, 0.22, 0.16)
        x = 0.0
        for n, (title, figure, remark) in enumerate(self.cells()):
            width = self.width() * shares[n]
            cell = QRectF(x + 4, 2, width - 8, self.height() - 4)
            x += width
            self._text(p, cell, title, figure, remark, self._state(n, loads))
            bar = QRectF(cell.left() + 9, cell.bottom() - 31, cell.width() - 18, 9)
            if n in (0, 1, 2):
                self._load_bar(p, bar, (loads.front, loads.rear, loads.gross)[n])
            elif n == 3:
                self._payload_bar(p, bar, loads)
            elif n == 4:
                span = max(loads.gross.value * 0.1, 1.0)
                self._middle_bar(p, bar, (loads.right.value - loads.left.value) / span)
            else:
                self._middle_bar(p, bar, loads.stance.tail_low / 80.0)

    def _state(self, n: int, loads: ScenarioLoads) -> str:
        """The severity of a cell's finding, or nothing."""
        codes = ("front", "rear", "gross", "gross", "sides", "-")
        found = [
            f.severity
            for f in self._session.sight.open_findings()
            if f.scenario == loads.id and f.code == f"loads.{codes[n]}"
        ]
        return "stop" if "stop" in found else found[0] if found else ""

    def _text(
        self, p: QPainter, cell: QRectF, title: str, figure: str, remark: str, state: str
    ) -> None:
        t = self.theme
        p.setPen(Qt.PenStyle.NoPen)
        p.setBrush(QColor(t.panel))
        p.drawRect(cell)
        if state:
            p.setBrush(QColor(t.severity(state)))
            p.drawRect(QRectF(cell.left(), cell.top(), 4, cell.height()))
        p.setPen(QColor(t.faint))
        p.setFont(font(12))
        p.drawText(QRectF(cell.left() + 9, cell.top() + 4, cell.width(), 16), title)
        p.setPen(QColor(t.severity(state) if state else t.ink))
        p.setFont(font(25, bold=True))
        p.drawText(QRectF(cell.left() + 8, cell.top() + 18, cell.width() - 10, 32),
                   Qt.AlignmentFlag.AlignVCenter, figure)  # fmt: skip
        p.setPen(QColor(t.faint))
        p.setFont(font(11))
        p.drawText(QRectF(cell.left() + 9, cell.bottom() - 20, cell.width() - 10, 17),
                   Qt.AlignmentFlag.AlignVCenter, remark)  # fmt: skip

    def _load_bar(self, p: QPainter, bar: QRectF, figure: Figure) -> None:
        """Draw a bar to its limit, a band of two doubts about its end."""
        t = self.theme
        limit = figure.limit or figure.value or 1.0
        full = max(limit * 1.12, figure.value * 1.05)
        end = bar.left() + bar.width() * min(1.0, max(0.0, figure.value / full))
        at = bar.left() + bar.width() * limit / full
        p.setPen(Qt.PenStyle.NoPen)
        p.setBrush(colour(t.rule))
        p.drawRect(bar)
        severity = severity_of(figure)
        p.setBrush(QColor(t.severity(severity) if severity else t.faint))
        p.drawRect(QRectF(bar.left(), bar.top(), end - bar.left(), bar.height()))
        band = bar.width() * 2 * figure.uncertainty / full
        p.setBrush(colour(t.ink, 120))
        p.drawRect(QRectF(end - band, bar.top() + 2, 2 * band, bar.height() - 4))
        p.setBrush(QColor(t.ink))
        p.drawRect(QRectF(at - 1, bar.top() - 4, 2, bar.height() + 8))

    def _payload_bar(self, p: QPainter, bar: QRectF, loads: ScenarioLoads) -> None:
        """Draw what is left of the gross rating, from the right."""
        t = self.theme
        limit = loads.gross.limit or 1.0
        share = min(1.0, max(0.0, loads.payload_left.value / limit))
        p.setPen(Qt.PenStyle.NoPen)
        p.setBrush(colour(t.faint))
        p.drawRect(bar)
        p.setBrush(QColor(t.good if loads.payload_left.value >= 0 else t.stop))
        width = bar.width() * share
        p.drawRect(QRectF(bar.right() - width, bar.top(), width, bar.height()))

    def _middle_bar(self, p: QPainter, bar: QRectF, share: float) -> None:
        """Draw a pointer about the middle; ±1 is the bar's end."""
        t = self.theme
        p.setPen(Qt.PenStyle.NoPen)
        p.setBrush(colour(t.rule))
        p.drawRect(bar)
        p.setBrush(QColor(t.ink))
        p.drawRect(QRectF(bar.center().x() - 1, bar.top() - 4, 2, bar.height() + 8))
        x = bar.center().x() + bar.width() / 2 * min(1.0, max(-1.0, share))
        p.setBrush(QColor(t.accent))
        y = bar.center().y()
        p.drawPolygon(QPolygonF([QPointF(x, y - 7), QPointF(x + 6, y), QPointF(x, y + 7),
                                 QPointF(x - 6, y)]))  # fmt: skip
