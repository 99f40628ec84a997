"""The stores: what can be placed, by use, each with its elevation, size and mass."""

from PyQt6.QtCore import QModelIndex, QPoint, QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter
from PyQt6.QtWidgets import (
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.primitives import Scene
from roomy_hull.core.units import MM_PER_INCH, System, show
from roomy_hull.desktop.following import follow
from roomy_hull.desktop.ground.scene_painter import fit, painter_for
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.scenes import body as body_scene
from roomy_hull.drawing.style import Theme
from roomy_hull.drawing.view import ELEVATION
from roomy_hull.job.carried import Carried
from roomy_hull.kinds.kind import Offer
from roomy_hull.kit.catalogue import Samples
from roomy_hull.session.session import Session

KEY = Qt.ItemDataRole.UserRole


def picture(offer: Offer, samples: Samples) -> tuple[Scene, tuple[float, float]]:
    """An entry's elevation and its width and height. [mm]"""
    made, expansion = offer.make, samples.expansion(offer)
    if expansion is not None:
        return expansion.elevation, (expansion.envelope.x1, expansion.envelope.z1)
    assert isinstance(made, Carried)  # ruff: ignore[assert]  # the stores hold nothing else
    view = ELEVATION["rear" if made.kind in ("spare wheel", "jerry") else "left"]
    h = made.width if made.kind in ("spare wheel", "jerry") else made.length
    box = Box(-made.length / 2, -made.width / 2, 0, made.length / 2, made.width / 2, made.height)
    return body_scene.carried(body_scene.lone(made, box), view, "265/75R16"), (h, made.height)


class StoreDelegate(QStyledItemDelegate):
    """Paints one entry."""

    def __init__(self, session: Session, theme: Theme, view: QListWidget) -> None:
        super().__init__()
        self._session, self.theme, self._view = session, theme, view
        self._samples = Samples(session.shop)

    def sizeHint(self, _o: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        """An entry's size; a heading is lower."""
        return QSize(150, 64 if index.data(KEY) else 27)

    def paint(
        self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex
    ) -> None:
        """Paint elevation, name, size and mass; or a heading."""
        if painter is None:
            return
        t, rect = self.theme, QRectF(option.rect)
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        key = index.data(KEY)
        if not key:
            painter.setPen(QColor(t.faint))
            painter.setFont(font(12, bold=True))
            painter.drawText(rect.adjusted(8, 0, 0, -3), Qt.AlignmentFlag.AlignBottom, index.data())
            painter.restore()
            return
        chosen = index == self._view.currentIndex()
        if chosen:
            painter.fillRect(rect, QColor(t.accent))
        offer = self._session.catalogue.entry(key)
        made = offer.make
        scene, (wide, high) = picture(offer, self._samples)
        area = QRectF(rect.left() + 6, rect.top() + 5, 54, rect.height() - 10)
        painter.fillRect(area, QColor(t.paper))
        from_zero = not isinstance(made, Carried)
        window = fit((0 if from_zero else -wide / 2, 0,
                      wide if from_zero else wide / 2, high), area.adjusted(3, 3, -3, -3))  # fmt: skip
        painter_for(t, "metric").paint(painter, scene, window)
        system = self._session.look.system
        sizes = (made.width, made.depth, made.height) if not isinstance(made, Carried) else (
            made.length, made.width, made.height)  # fmt: skip
        painter.setPen(QColor(t.accent_ink if chosen else t.ink))
        painter.setFont(font(12, bold=True))
        x = area.right() + 7
        name = painter.fontMetrics().elidedText(
            made.name, Qt.TextElideMode.ElideRight, int(rect.right() - x - 2)
        )
        painter.drawText(QPointF(x, rect.top() + 20), name)
        painter.setFont(font(11))
        painter.setPen(QColor(t.accent_ink if chosen else t.faint))
        words = "×".join(_short(v, system) for v in sizes)
        painter.drawText(QPointF(x, rect.top() + 37), words)
        painter.drawText(
            QPointF(x, rect.top() + 53), show(self._samples.mass(offer), "mass", system) + " full"
        )
        painter.restore()


def _short(mm: float, system: System) -> str:
    """Write a size as shortly as it can be: whole millimetres, or inches to a tenth."""
    return f"{mm / MM_PER_INCH:.1f}" if system == "us" else f"{mm:.0f}"


class StoresList(QListWidget):
    """The list; a press and a move carries an entry out of it."""

    carried = pyqtSignal(str, QPoint)
    dropped = pyqtSignal(str, QPoint)
    abandoned = pyqtSignal()
    chosen = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        self._from: QPointF | None = None
        self._carries = ""
        self.setMouseTracking(False)
        self.setAccessibleName("Stores")
        self.setVerticalScrollMode(QListWidget.ScrollMode.ScrollPerPixel)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Remember where the hand took hold."""
        super().mousePressEvent(event)
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            item = self.itemAt(event.position().toPoint())
            self._from = event.position() if item is not None and item.data(KEY) else None

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Carry the entry once the hand has moved."""
        if event is None or self._from is None:
            return
        if not self._carries:
            if (event.position() - self._from).manhattanLength() < 8:
                return
            item = self.itemAt(self._from.toPoint())
            self._carries = item.data(KEY) if item is not None else ""
            self.setCursor(Qt.CursorShape.ClosedHandCursor)
        if self._carries:
            self.carried.emit(self._carries, event.globalPosition().toPoint())

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        """Put the entry down."""
        super().mouseReleaseEvent(event)
        key, self._carries, self._from = self._carries, "", None
        self.unsetCursor()
        if key and event is not None:
            self.dropped.emit(key, event.globalPosition().toPoint())

    def chosen_key(self) -> str:
        """The key of the chosen entry; empty for none."""
        item = self.currentItem()
        return str(item.data(KEY) or "") if item is not None else ""

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """Place the entry in the first free place."""
        item = self.itemAt(event.position().toPoint()) if event is not None else None
        if item is not None and item.data(KEY):
            self.chosen.emit(item.data(KEY))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Place with Enter; give a carried entry up with Escape."""
        if event is None:
            return
        if event.key() == Qt.Key.Key_Escape and self._carries:
            self._carries, self._from = "", None
            self.unsetCursor()
            self.abandoned.emit()
            return
        item = self.currentItem()
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and item and item.data(KEY):
            self.chosen.emit(item.data(KEY))
            return
        super().keyPressEvent(event)


class SearchField(QLineEdit):
    """Where one types what one looks for: Down goes into the list, Enter places what is offered."""

    down = pyqtSignal()
    enter = pyqtSignal()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Hand Down, Enter and Escape on."""
        if event is None:
            return
        if event.key() == Qt.Key.Key_Down:
            self.down.emit()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.enter.emit()
        elif event.key() == Qt.Key.Key_Escape and self.text():
            self.clear()
        else:
            super().keyPressEvent(event)


class StoresPanel(QWidget):
    """Search field and list."""

    placed = pyqtSignal(str)
    """What the search field places: the hands stay there, to place another."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        self.setFixedWidth(208)
        box = QVBoxLayout(self)
        box.setContentsMargins(6, 8, 6, 6)
        box.setSpacing(5)
        self._title = Label("Stores")
        self.search = SearchField()
        self.search.down.connect(self._into_the_list)
        self.search.enter.connect(self._place_offered)
        self.search.setPlaceholderText("Search, e.g. drawer")
        self.search.setAccessibleName("Search the stores")
        # Only seen beside words, and Qt looks at all its plugins before it reads the button's picture.
        self.search.textChanged.connect(lambda _text: self.search.setClearButtonEnabled(True))
        self.list = StoresList()
        self._delegate = StoreDelegate(session, theme, self.list)
        self.list.setItemDelegate(self._delegate)
        self._hint = Label("Drag onto the side, or press Enter for the first free place.")
        self._hint.setWordWrap(True)
        for widget in (self._title, self.search, self.list, self._hint):
            box.addWidget(widget)
        self.search.textChanged.connect(self._fill)
        follow(self, self._repaint, session.view.changed)
        follow(self, self._refill, session.catalogue.changed)
        self._fill("")
        self.theme = theme

    def _into_the_list(self) -> None:
        """Go on from the search field in the list: on what is offered, or on the first thing there is."""
        if self.list.chosen_key() == "":
            self._offer()
        self.list.setFocus()

    def _place_offered(self) -> None:
        """Place what is offered; nothing where nothing was found."""
        if self.list.chosen_key():
            self.placed.emit(self.list.chosen_key())

    def _offer(self) -> None:
        """Choose what is meant: whose name begins so, else whose name holds it, else the first of the list."""
        text = self.search.text().lower().strip()
        words = text.split()
        best: tuple[int, int] | None = None
        for row in range(self.list.count()):
            item = self.list.item(row)
            if item is None or not item.data(KEY):
                continue
            name = item.text().lower()
            rank = 0 if name.startswith(text) else 1 if all(w in name for w in words) else 2
            best = min(best, (rank, row)) if best is not None else (rank, row)
        if best is not None:
            self.list.setCurrentRow(best[1])

    def _repaint(self) -> None:
        """Write masses and lengths in the units chosen now."""
        if (seen := self.list.viewport()) is not None:
            seen.update()

    def _refill(self) -> None:
        """List what there is by now."""
        self._fill(self.search.text())

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._delegate.theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._delegate.theme = theme
        self._title.setFont(font(14, bold=True))
        self._hint.setFont(font(11))
        self._hint.setStyleSheet(f"color: {theme.faint}")

    def _fill(self, text: str) -> None:
        words = text.lower().split()
        self.list.clear()
        use = ""
        for entry in self._session.catalogue.entries():
            haystack = f"{entry.use} {entry.make.name} {entry.tip}".lower()
            if not all(w in haystack for w in words):
                continue
            if entry.use != use:
                head = QListWidgetItem(entry.use)
                head.setFlags(Qt.ItemFlag.NoItemFlags)
                self.list.addItem(head)
                use = entry.use
            item = QListWidgetItem(entry.make.name)
            item.setData(KEY, entry.key)
            item.setToolTip(f"{entry.make.name}: {entry.tip}")
            self.list.addItem(item)
        if self.list.count() == 0:
            none = QListWidgetItem("Nothing by that name: try a shorter word")
            none.setFlags(Qt.ItemFlag.NoItemFlags)
            self.list.addItem(none)
        elif words:
            self._offer()

    def row_of(self, key: str) -> int:
        """The row of an entry, or -1."""
        for i in range(self.list.count()):
            item = self.list.item(i)
            if item is not None and item.data(KEY) == key:
                return i
        return -1
