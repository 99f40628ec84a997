"""The page Variants: layouts side by side, in two pictures and in figures."""

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QHBoxLayout,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.core.units import show
from roomy_hull.desktop.following import follow
from roomy_hull.desktop.ground.scene_painter import fit, painter_for
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.scenes import ground as ground_scene
from roomy_hull.drawing.scenes.ground import Looks
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import editing
from roomy_hull.session.session import Session
from roomy_hull.verdict.compare import Column, columns
from roomy_hull.verdict.verdict import Verdict

ROWS = ("Units", "Fittings, empty", "Gross", "Front axle", "Rear axle", "Payload left", "Right less left",
        "Room for gear", "Parts at starting prices", "Stops", "Looks")  # fmt: skip


class LayoutPicture(QWidget):
    """One side of one layout."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self.theme = session, theme
        self.column: Column | None = None
        self.setMinimumHeight(180)

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paint the layout as seen from where one stands."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        t, look = self.theme, self._session.look
        p.fillRect(self.rect(), QColor(t.paper))
        p.setPen(QColor(t.ink))
        p.setFont(font(14, bold=True))
        if self.column is None:
            p.setPen(QColor(t.faint))
            p.drawText(QRectF(self.rect()), Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap,
                       "Keep this layout as a variant (Ctrl+Shift+V) to see two side by side.")  # fmt: skip
            return
        words = self.column.name if self.column.id else f"{self.column.name} (in hand)"
        p.drawText(QRectF(10, 4, self.width() - 20, 20), Qt.AlignmentFlag.AlignLeft, words)
        assembly = self.column.verdict.assembly
        station = look.station if look.station in ("left", "right", "rear") else "right"
        upper, _lower = ground_scene.frame(assembly, station, whole=False)
        window = fit(upper, QRectF(6, 26, self.width() - 12, self.height() - 30))
        p.setClipRect(QRectF(0, 24, self.width(), self.height() - 24))
        painter_for(t, look.system).paint(
            p, ground_scene.elevation(assembly, station, Looks()), window
        )


class VariantsPage(QWidget):
    """Two pictures above, the table of figures below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        self._known: dict[str, Verdict] = {}
        self.columns: list[Column] = []
        self.left, self.right = LayoutPicture(session, theme), LayoutPicture(session, theme)
        self.table = Grid("Layouts in figures", sortable=False)
        self.setFocusProxy(self.table)
        self.table.row_height(24)
        self.table.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectColumns)
        self.take, self.drop = QPushButton("Take the chosen layout in hand"), QPushButton("Drop it")
        self.note = Label("Loads in the scenario chosen below; F6 changes it.")
        pictures = QHBoxLayout()
        pictures.setSpacing(4)
        pictures.addWidget(self.left)
        pictures.addWidget(self.right)
        buttons = QHBoxLayout()
        buttons.setContentsMargins(8, 0, 8, 4)
        buttons.addWidget(self.note, 1)
        buttons.addWidget(self.take)
        buttons.addWidget(self.drop)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(4)
        box.addLayout(pictures, 4)
        box.addWidget(self.table, 5)
        box.addLayout(buttons)
        self.table.cell_taken.connect(lambda _r, c, _r0, _c0: self._choose(c))
        self.take.clicked.connect(self._take)
        self.drop.clicked.connect(self._drop)
        follow(self, self.refresh, session.changed, session.view.changed)
        self.theme = theme

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = self.left.theme = self.right.theme = theme
        self.note.setFont(font(11))
        self.refresh()

    def showEvent(self, _event: object) -> None:
        """Fill on being shown."""
        self.refresh()

    def refresh(self) -> None:
        """Judge what changed, and bring pictures and table up to date where they are seen."""
        if not self.isVisible():
            return
        session = self._session
        self.columns = columns(session.known, session.look.scenario, self._known)
        table = self.table
        at = table.currentIndex().column()
        table.blockSignals(True)
        heads = [c.name if c.id else f"{c.name} (in hand)" for c in self.columns]
        rows = list(zip(*(self.cells(c) for c in self.columns), strict=True))
        table.fill(self._theme, heads, rows, ROWS, shaded=lambda _r, c: c == 0)
        table.blockSignals(False)
        self._choose(at if 0 < at < len(self.columns) else min(1, len(self.columns) - 1))

    def cells(self, c: Column) -> list[tuple[str, str]]:
        """One layout's words, row by row, each with its severity if any."""
        system = self._session.look.system

        def kg(pair: tuple[float, float]) -> str:
            return f"{show(pair[0], 'mass', system)} ± {show(pair[1], 'mass', system)}"

        return [
            (str(c.units), ""), (show(c.fitted, "mass", system), ""), (kg(c.gross), ""), (kg(c.front), ""),
            (kg(c.rear), ""), (show(c.payload, "mass", system), "stop" if c.payload < 0 else ""),
            (show(c.balance, "mass", system), ""), (show(c.litres, "volume", system), ""), (f"{c.price:,.0f}", ""),
            (str(c.stops), "stop" if c.stops else ""), (str(c.looks), "look" if c.looks else ""),
        ]  # fmt: skip

    def _choose(self, at: int) -> None:
        """Show a layout beside the one in hand."""
        self.left.column = self.columns[0] if self.columns else None
        if not 0 < at < len(self.columns):  # the layout in hand is beside it already
            shown = self.right.column.id if self.right.column is not None else ""
            ids = [c.id for c in self.columns]
            at = ids.index(shown) if shown in ids[1:] else min(1, len(ids) - 1)
        self.right.column = self.columns[at] if at > 0 else None
        for button in (self.take, self.drop):
            button.setEnabled(self.right.column is not None)
        self.left.update()
        self.right.update()

    def _take(self) -> None:
        column = self.right.column
        if column is not None:
            editing.take_variant(self._session, key=column.id)

    def _drop(self) -> None:
        column = self.right.column
        if column is not None:
            editing.drop_variant(self._session, key=column.id)
