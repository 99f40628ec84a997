"""The page Goods: the list with its search, and the drawing on which goods are dropped."""

from PyQt6.QtCore import QMimeData, QPoint, QRectF, Qt
from PyQt6.QtGui import QDrag, QDragEnterEvent, QDragMoveEvent, QDropEvent, QMouseEvent
from PyQt6.QtWidgets import QApplication, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from roomy_hull.desktop.ground.scene_painter import Window, fit
from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.table_view import HOW, Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.job.goods import Good
from roomy_hull.session.actions import accessing
from roomy_hull.session.pages.access.goods import GoodsModel
from roomy_hull.session.pages.access.words import CAUTION
from roomy_hull.session.session import Session

MIME = "application/x-roomy-hull-good"
"""What a dragged good is called on its way."""


def carry(source: QWidget, key: str) -> None:
    """Drag a good from a widget until it is let go."""
    drag = QDrag(source)
    data = QMimeData()
    data.setData(MIME, key.encode())
    drag.setMimeData(data)
    drag.exec(Qt.DropAction.MoveAction)


def carried(event: QDropEvent | None) -> str:
    """Id of the good that is dragged; empty for anything else."""
    data = event.mimeData() if event is not None else None
    return data.data(MIME).data().decode() if data is not None and data.hasFormat(MIME) else ""


def far(event: QMouseEvent | None, start: QPoint) -> bool:
    """Whether a hand that holds something has moved far enough to drag it."""
    return (
        event is not None
        and bool(event.buttons() & Qt.MouseButton.LeftButton)
        and (event.position().toPoint() - start).manhattanLength()
        >= QApplication.startDragDistance()
    )


class GoodsGrid(Grid):
    """The list; a row is dragged on to the drawing, and what is dropped here is not stowed any more."""

    def __init__(self, words: str, session: Session, model: GoodsModel) -> None:
        super().__init__(words, rows_chosen=True)
        self._session, self._model = session, model
        port = self.viewport()
        if port is not None:  # it is over this that things are dropped, and it hands them on
            port.setAcceptDrops(True)
        self._from = QPoint()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Remember where the hand took hold."""
        if event is not None:
            self._from = event.position().toPoint()
        super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Begin to drag once the hand has moved."""
        row = self.row_at(self._from)
        if far(event, self._from) and row >= 0:
            carry(self, self._model.keys()[row].removeprefix("goods."))

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        """Take goods, and nothing else."""
        if event is not None and carried(event):
            event.acceptProposedAction()

    def dragMoveEvent(self, event: QDragMoveEvent | None) -> None:
        """Take goods from the drawing; dropped from the list they stay."""
        if event is not None:
            event.ignore() if event.source() is self else event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        """Take it out of where it was stowed."""
        key = carried(event)
        if event is not None and key and event.source() is not self:
            accessing.stow(self._session, key=key, place="")
            event.acceptProposedAction()


class GoodsPicture(Picture):
    """Where is what; a good is dropped into what is under the hand."""

    def __init__(self, session: Session, theme: Theme, model: GoodsModel) -> None:
        super().__init__(session, theme, "Where all the gear is", model.picture)
        self._model = model
        self._from = QPoint()
        self.setAcceptDrops(True)

    def window(self) -> Window | None:  # type: ignore[override]  # how the picture lies, not Qt's window
        """How the picture lies on the widget; none where there is nothing to draw."""
        area = QRectF(8, 28, self.width() - 16, max(self.height() - 34, 10))
        _title, drawn = self._model.picture(1.0)
        return fit(drawn[1], area) if drawn is not None else None

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        """Take goods, and nothing else."""
        if event is not None and carried(event):
            event.acceptProposedAction()

    def dragMoveEvent(self, event: QDragMoveEvent | None) -> None:
        """Say whether there is something to stow it in."""
        if event is None:
            return
        lies = self.window()
        n = (
            self._model.space_at(*lies.mm(event.position().x(), event.position().y()))
            if lies is not None
            else -1
        )
        event.acceptProposedAction() if n >= 0 else event.ignore()

    def dropEvent(self, event: QDropEvent | None) -> None:
        """Stow it there."""
        key, lies = carried(event), self.window()
        if event is None or not key or lies is None:
            return
        n = self._model.space_at(*lies.mm(event.position().x(), event.position().y()))
        if n >= 0:
            space = self._session.known.access.spaces[n]
            accessing.stow(self._session, key=key, place=space.owner, part=space.part)
            event.acceptProposedAction()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Choose the good under the pointer, else the space."""
        lies = self.window()
        if event is None or lies is None:
            return
        self._from = event.position().toPoint()
        good = self._under(self._from)
        if good is not None:
            accessing.choose(self._session, key=f"goods.{good.id}")
            return
        n = self._model.space_at(*lies.mm(event.position().x(), event.position().y()))
        if n >= 0:
            space = self._session.known.access.spaces[n]
            accessing.choose(self._session, key=f"space.{space.owner}.{space.part}")

    def _under(self, at: QPoint) -> Good | None:
        """The good whose name is at a point of the widget."""
        lies = self.window()
        return self._model.good_at(*lies.mm(at.x(), at.y())) if lies is not None else None

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Carry a good by its name to another place, or back to the list."""
        good = self._under(self._from) if far(event, self._from) else None
        if good is not None:
            carry(self, good.id)


class GoodsPage(SessionPage):
    """The drawing beside the list."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = GoodsModel(session)
        self.picture = GoodsPicture(session, theme, self.model)
        self.table = GoodsGrid("All the gear", session, self.model)
        self.table.cell_clicked.connect(
            lambda row, _c: accessing.choose(session, key=self.model.keys()[row])
        )
        self.search = QLineEdit()
        self.search.setPlaceholderText("Where is …?")
        self.search.setAccessibleName("Search the gear")
        self.search.textChanged.connect(self._searched)
        self.words = Label()
        self.words.setFont(font(12))
        above = QHBoxLayout()
        above.setContentsMargins(8, 4, 8, 2)
        above.addWidget(self.search, 2)
        above.addWidget(self.words, 3)
        row = QHBoxLayout()
        row.setContentsMargins(8, 2, 8, 2)
        self.add = self.ask("Add item…", "access.add", "Into the selected unit")
        self.remove = self.ask("Take it off the list", "access.remove")
        buttons = [
            self.add, self.ask("Paste items", "access.paste", "A table on the clipboard"),
            self.ask("From a file…", "access.read"), self.remove,
            self.ask("What is wanted now", "access.urgent", "Then each stop, each camp, rarely"),
            self.ask("Papers…", "access.papers", "Packing lists, where is what, the canopy off and on"),
        ]  # fmt: skip
        for button in buttons:
            row.addWidget(button)
        row.addStretch(1)
        left = QVBoxLayout()
        left.setSpacing(2)
        left.addLayout(above)
        left.addWidget(self.table, 1)
        across = QHBoxLayout()
        across.setSpacing(2)
        across.addWidget(self.picture, 6)
        across.addLayout(left, 9)
        self.how = Label(HOW)
        self.how.setFont(font(11))
        self.how.setContentsMargins(8, 0, 8, 0)
        self.stack(CAUTION, (across, 1), (row, 0), (self.how, 0))

    def _searched(self, text: str) -> None:
        self.model.search = text
        self.fill()

    def fill(self) -> None:
        """Bring the list up to date."""
        self.table.work_on(self._theme, self.model)
        self.words.setText(self.model.mass_words())
        self.remove.setEnabled(self._session.look.access.chosen.startswith("goods."))
