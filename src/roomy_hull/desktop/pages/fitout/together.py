"""The page Together: which openings exclude each other, in which order they go, and the owner's sets."""

from PyQt6.QtCore import QEvent, QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QHelpEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPolygonF
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QScrollArea,
    QToolTip,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.assembly.motions import Opening
from roomy_hull.core.findings import Finding
from roomy_hull.core.refs import Ref
from roomy_hull.core.units import show
from roomy_hull.desktop.following import follow
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import colour, font
from roomy_hull.desktop.widgets.chooser import Chooser
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import editing
from roomy_hull.session.session import Session
from roomy_hull.session.showing import show_finding
from roomy_hull.session.worn import in_setup
from roomy_hull.studies.fit.plans import plan

CELL, NAMES, HEAD = 18, 158, 128
SIDES: dict[str, str] = {
    "all": "Everything that opens",
    "left": "Left side",
    "right": "Right side",
    "rear": "Rear",
}


class Grid(QWidget):
    """One row and one column for each opening; a cell says how the two stand to each other."""

    chosen = pyqtSignal(str, str)
    wanted = pyqtSignal(str, str)

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self.theme = session, theme
        self.side = "all"
        self.at: tuple[int, int] | None = None
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Together table")

    def rows(self) -> list[Opening]:
        """The openings shown."""
        found = in_setup(self._session).together.openings
        return [o for o in found if self.side in ("all", o.side)]

    def refresh(self) -> None:
        """Take a new size for as many rows as there are."""
        n = len(self.rows())
        self.setMinimumSize(NAMES + n * CELL + 12, HEAD + n * CELL + 12)
        if self.at is not None and max(self.at) >= n:
            self.at = None
        self.update()

    def sizeHint(self) -> QSize:
        """The size for all rows."""
        return self.minimumSize()

    def cell(self, pos: QPointF) -> tuple[int, int] | None:
        """Row and column under a point; none on the diagonal or outside."""
        n = len(self.rows())
        column, row = int((pos.x() - NAMES) // CELL), int((pos.y() - HEAD) // CELL)
        inside = 0 <= row < n and 0 <= column < n and row != column
        return (row, column) if inside else None

    def words(self, row: int, column: int) -> str:
        """Say how two openings stand to each other."""
        rows, found = self.rows(), in_setup(self._session).together
        x, y = rows[row], rows[column]
        relation = found.relation(x.id, y.id)
        meeting = found.meeting(x.id, y.id)
        if relation == "clear" or meeting is None:
            return f"{x.name} and {y.name} stay clear of each other"
        system = self._session.look.system
        deep = show(abs(meeting.gap), "length", system)
        if relation == "near":
            return f"{x.name} and {y.name} pass at {deep}"
        if relation == "never":
            return f"{x.name} and {y.name} cannot be open together; they share {deep}"
        first, second = (x, y) if relation == "x first" else (y, x)
        return f"{first.name} has to be opened before {second.name}"

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paint names and cells."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        t, rows, found = self.theme, self.rows(), in_setup(self._session).together
        p.fillRect(self.rect(), QColor(t.paper))
        if not rows:
            p.setFont(font(13))
            p.setPen(QColor(t.faint))
            words = "Nothing opens yet: fit a canopy on the stage Body, and place drawers, a fridge or a table."
            p.drawText(QRectF(12, 12, self.width() - 24, 60), Qt.TextFlag.TextWordWrap, words)
            return
        p.setFont(font(11))
        metrics = p.fontMetrics()
        for n, opening in enumerate(rows):
            lit = self.at is not None and n in self.at
            p.setPen(QColor(t.accent if lit else t.ink))
            name = metrics.elidedText(opening.name, Qt.TextElideMode.ElideRight, NAMES - 14)
            y = HEAD + n * CELL
            p.drawText(
                QRectF(6, y, NAMES - 12, CELL),
                Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignRight,
                name,
            )
            p.save()
            p.translate(NAMES + n * CELL + CELL / 2, HEAD - 6)
            p.rotate(-90)
            name = metrics.elidedText(opening.name, Qt.TextElideMode.ElideRight, HEAD - 12)
            p.drawText(QRectF(0, -CELL / 2, HEAD - 10, CELL), Qt.AlignmentFlag.AlignVCenter, name)
            p.restore()
        for row, x in enumerate(rows):
            for column, y_opening in enumerate(rows):
                area = QRectF(NAMES + column * CELL, HEAD + row * CELL, CELL, CELL)
                p.setPen(QColor(t.rule))
                if row == column:
                    p.setBrush(colour(t.rule, 150))
                    p.drawRect(area)
                    continue
                p.setBrush(Qt.BrushStyle.NoBrush)
                p.drawRect(area)
                self._mark(p, area, found.relation(x.id, y_opening.id))
        if self.at is not None:
            p.setPen(QColor(t.accent))
            p.setBrush(Qt.BrushStyle.NoBrush)
            p.drawRect(
                QRectF(NAMES + self.at[1] * CELL, HEAD + self.at[0] * CELL, CELL, CELL).adjusted(
                    1, 1, -1, -1
                )
            )

    def _mark(self, p: QPainter, area: QRectF, relation: str) -> None:
        """Paint a cell's sign: a cross, a pointer to the one that goes first, or a wave."""
        t, c = self.theme, area.center()
        if relation == "never":
            p.fillRect(area.adjusted(1, 1, -1, -1), colour(t.stop, 60))
            p.setPen(QColor(t.stop))
            for sign in (1, -1):
                p.drawLine(
                    QPointF(c.x() - 4, c.y() - 4 * sign), QPointF(c.x() + 4, c.y() + 4 * sign)
                )
        elif relation in ("x first", "y first"):
            p.setPen(Qt.PenStyle.NoPen)
            p.setBrush(QColor(t.note))
            # It points to the name of the one that is opened first: the row's at the left, the column's above.
            tip = QPolygonF([QPointF(-5, 0), QPointF(4, -5), QPointF(4, 5)])
            if relation == "y first":
                tip = QPolygonF([QPointF(0, -5), QPointF(5, 4), QPointF(-5, 4)])
            p.drawPolygon(tip.translated(c))
        elif relation == "near":
            p.setPen(QColor(t.look))
            for dy in (-2.5, 2.5):
                p.drawLine(QPointF(c.x() - 5, c.y() + dy), QPointF(c.x() + 5, c.y() + dy))

    def event(self, event: QEvent | None) -> bool:
        """Tell what a cell means where the pointer rests."""
        if isinstance(event, QHelpEvent):
            at = self.cell(QPointF(event.pos()))
            QToolTip.showText(event.globalPos(), self.words(*at) if at else "", self)
            return True
        return super().event(event)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Choose a pair."""
        if event is not None:
            self._choose(self.cell(event.position()))

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """Show a pair on the drawing."""
        if event is not None and self.at is not None:
            rows = self.rows()
            self.wanted.emit(rows[self.at[0]].id, rows[self.at[1]].id)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Walk over the cells with the arrows; Enter shows the pair on the drawing."""
        if event is None:
            return
        step = {Qt.Key.Key_Left: (0, -1), Qt.Key.Key_Right: (0, 1), Qt.Key.Key_Up: (-1, 0),
                Qt.Key.Key_Down: (1, 0)}.get(Qt.Key(event.key()))  # fmt: skip
        n = len(self.rows())
        if step is not None and n > 1:
            row, column = self.at or (0, 0)
            row, column = min(max(row + step[0], 0), n - 1), min(max(column + step[1], 0), n - 1)
            self._choose((row, column))
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.at is not None:
            rows = self.rows()
            self.wanted.emit(rows[self.at[0]].id, rows[self.at[1]].id)
        else:
            super().keyPressEvent(event)

    def _choose(self, at: tuple[int, int] | None) -> None:
        self.at = at
        self.update()
        if at is not None and at[0] != at[1]:
            rows = self.rows()
            self.chosen.emit(rows[at[0]].id, rows[at[1]].id)


class TogetherPage(QWidget):
    """The table at the left, the chosen pair and the owner's sets at the right."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        self.grid = Grid(session, theme)
        self.setFocusProxy(self.grid)
        scroll = QScrollArea()
        scroll.setWidget(self.grid)
        scroll.setWidgetResizable(True)
        self.side = Chooser()
        self.side.addItems(list(SIDES.values()))
        self.side.setAccessibleName("Which side")
        self.legend = Label(
            "×  never together     ◀ ▲  points to the one opened first     ═  nearer than wanted"
        )
        self.pair = Label()
        self.pair.setWordWrap(True)
        self.show_pair = QPushButton("Show on the drawing")
        self._sets_title = Label("Sets that have to hold")
        self.sets = QListWidget()
        self.sets.setWordWrap(True)
        self.sets.setAccessibleName("Sets")
        self._hint = Label("Open things on the drawing, then press Ctrl+T to keep them as a set.")
        self._hint.setWordWrap(True)
        self.show_set = QPushButton("Open this set")
        self.drop_set = QPushButton("Drop this set")
        left = QVBoxLayout()
        left.addWidget(self.side)
        left.addWidget(scroll, 1)
        left.addWidget(self.legend)
        right = QVBoxLayout()
        for widget in (self.pair, self.show_pair, self._sets_title):
            right.addWidget(widget)
        right.addWidget(self.sets, 1)
        for widget in (self._hint, self.show_set, self.drop_set):
            right.addWidget(widget)
        side = QWidget()
        side.setFixedWidth(250)
        side.setLayout(right)
        box = QHBoxLayout(self)
        box.setContentsMargins(8, 4, 8, 6)
        box.addLayout(left, 1)
        box.addWidget(side)
        self.side.currentIndexChanged.connect(self._side_chosen)
        self.grid.chosen.connect(lambda _x, _y: self._tell_pair())
        self.grid.wanted.connect(self.show_on_drawing)
        self.show_pair.clicked.connect(self._show_chosen)
        self.show_set.clicked.connect(self._open_set)
        self.drop_set.clicked.connect(self._drop_set)
        follow(self, self.refresh, session.changed)
        self.theme = theme

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self.grid.theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self.grid.theme = theme
        self._sets_title.setFont(font(14, bold=True))
        self.pair.setFont(font(13))
        for label in (self.legend, self._hint):
            label.setFont(font(11))
            label.setStyleSheet(f"color: {theme.faint}")
        self.refresh()

    def refresh(self) -> None:
        """Bring table and sets up to date where they are seen."""
        if not self.isVisible():
            return
        self.grid.refresh()
        self._tell_pair()
        row = self.sets.currentRow()
        self.sets.clear()
        found, names = in_setup(self._session).together, self._names()
        for wanted in self._session.job.sets:
            made = plan(found, wanted.members)
            order = ", ".join(names.get(o, o) for o in made.order)
            if made.holds:
                text = f"✓ {wanted.name}\nIn this order: {order}"
            elif made.missing:
                text = f"✕ {wanted.name}\n{made.missing[0]} does not open"
            else:
                x, y, meeting = made.conflicts[0]
                deep = show(max(0.0, -meeting.gap), "length", self._session.look.system)
                text = f"✕ {wanted.name}\n{names.get(x, x)} meets {self._met(y, names)} by {deep}"
            item = QListWidgetItem(text)
            item.setFont(font(12))
            item.setForeground(QColor(self.theme.good if made.holds else self.theme.stop))
            self.sets.addItem(item)
        self.sets.setCurrentRow(max(0, row) if self.sets.count() else -1)
        for button in (self.show_set, self.drop_set):
            button.setEnabled(self.sets.count() > 0)

    def _names(self) -> dict[str, str]:
        """Name every opening by its id, one that is all of a thing by the thing."""
        verdict = in_setup(self._session)
        return {o.id: o.name for o in verdict.together.openings} | verdict.assembly.names

    def _met(self, what: str | Ref, names: dict[str, str]) -> str:
        """Name what an opening meets: another opening, a thing, or what never moves."""
        if isinstance(what, str):
            return names.get(what, what)
        thing = in_setup(self._session).assembly.thing(what)
        return thing.name if thing is not None else what.word

    def showEvent(self, _event: object) -> None:
        """Fill on being shown."""
        self.refresh()

    def _side_chosen(self, index: int) -> None:
        self.grid.side, self.grid.at = list(SIDES)[index], None
        self.grid.refresh()
        self._tell_pair()

    def _tell_pair(self) -> None:
        at = self.grid.at
        fine = at is not None and at[0] != at[1]
        self.pair.setText(self.grid.words(*at) if fine and at is not None else
                          "Choose a cell: it says how two openings stand to each other.")  # fmt: skip
        self.show_pair.setEnabled(fine)

    def _show_chosen(self) -> None:
        rows, at = self.grid.rows(), self.grid.at
        if at is not None:
            self.show_on_drawing(rows[at[0]].id, rows[at[1]].id)

    def show_on_drawing(self, x: str, y: str) -> None:
        """Open both on the drawing and mark the stretch where they touch."""
        session = self._session
        opening = in_setup(session).assembly.opening(x)
        meeting = in_setup(session).together.meeting(x, y)
        side = opening.side if opening is not None else session.look.station
        session.view.turn_to("Fit-out", "Drawing", station=side, opened=frozenset({x, y}))
        if meeting is not None:
            severity = "stop" if meeting.clashes else "look"
            show_finding(session, Finding("move.pair", severity, "", where=(meeting.where,)))  # type: ignore[arg-type]  # one of both

    def _open_set(self) -> None:
        sets = self._session.job.sets
        if 0 <= self.sets.currentRow() < len(sets):
            wanted = sets[self.sets.currentRow()]
            made = plan(in_setup(self._session).together, wanted.members)
            self._session.view.turn_to(
                "Fit-out", "Drawing", opened=frozenset((*wanted.members, *made.order))
            )

    def _drop_set(self) -> None:
        sets = self._session.job.sets
        if 0 <= self.sets.currentRow() < len(sets):
            wanted = sets[self.sets.currentRow()]
            editing.drop_set(self._session, key=wanted.id)
