"""The page Goods: the list with its search, and the drawing on which goods are dropped."""

from PyQt6.QtCore import QMimeData, QPoint, QRectF, Qt
from PyQt6.QtGui import QDrag, QDragEnterEvent, QDragMoveEvent, QDropEvent, QMouseEvent
from PyQt6.QtWidgets import QApplication, QHBoxLayout, QLineEdit, QVBoxLayout

from roomy_hull.desktop.ground.scene_painter import Window, fit
from roomy_hull.desktop.pages.loads.parts import Grid, LoadsPage, Picture, caution
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.manner import Theme
from roomy_hull.session.pages.access.goods import GOOD_HEADS, GoodsModel
from roomy_hull.session.pages.access.words import CAUTION
from roomy_hull.session.session import Session

MIME = "application/x-roomy-hull-good"
"""What a dragged good is called on its way."""


class GoodsGrid(Grid):
    """The list; a row is dragged on to the drawing."""

    def __init__(self, words: str, model: GoodsModel) -> None:
        super().__init__(words, rows_chosen=True)
        self._model = model
        self._from = QPoint()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:  # ruff: ignore[invalid-function-name]  # Qt's name
        """Remember where the hand took hold."""
        if event is not None:
            self._from = event.position().toPoint()
        super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:  # ruff: ignore[invalid-function-name]  # Qt's name
        """Begin to drag once the hand has moved."""
        if event is None or not event.buttons() & Qt.MouseButton.LeftButton:
            return
        moved = (event.position().toPoint() - self._from).manhattanLength()
        item = self.itemAt(self._from)
        if moved < QApplication.startDragDistance() or item is None:
            return
        drag = QDrag(self)
        data = QMimeData()
        data.setData(MIME, self._model.keys()[item.row()].removeprefix("goods.").encode())
        drag.setMimeData(data)
        drag.exec(Qt.DropAction.MoveAction)


class GoodsPicture(Picture):
    """Where is what; a good is dropped into what is under the hand."""

    def __init__(self, session: Session, theme: Theme, model: GoodsModel) -> None:
        super().__init__(session, theme, "Where every good is", model.picture)
        self._model = model
        self.setAcceptDrops(True)

    def window(self) -> Window | None:  # type: ignore[override]  # how the picture lies, not Qt's window
        """How the picture lies on the widget; none where there is nothing to draw."""
        area = QRectF(8, 28, self.width() - 16, max(self.height() - 34, 10))
        _title, drawn = self._model.picture(1.0)
        return fit(drawn[1], area) if drawn is not None else None

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:  # ruff: ignore[invalid-function-name]  # Qt's name
        """Take goods, and nothing else."""
        data = event.mimeData() if event is not None else None
        if event is not None and data is not None and data.hasFormat(MIME):
            event.acceptProposedAction()

    def dragMoveEvent(self, event: QDragMoveEvent | None) -> None:  # ruff: ignore[invalid-function-name]  # Qt's name
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

    def dropEvent(self, event: QDropEvent | None) -> None:  # ruff: ignore[invalid-function-name]  # Qt's name
        """Stow it there."""
        data, lies = (event.mimeData() if event is not None else None), self.window()
        if event is None or data is None or lies is None:
            return
        n = self._model.space_at(*lies.mm(event.position().x(), event.position().y()))
        if n >= 0:
            space = self._session.verdict.access.spaces[n]
            key = data.data(MIME).data().decode()
            self._session.do("access.stow", key=key, place=space.owner, part=space.part)
            event.acceptProposedAction()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:  # ruff: ignore[invalid-function-name]  # Qt's name
        """Choose the space under the pointer."""
        lies = self.window()
        if event is None or lies is None:
            return
        n = self._model.space_at(*lies.mm(event.position().x(), event.position().y()))
        if n >= 0:
            space = self._session.verdict.access.spaces[n]
            self._session.do("access.choose", key=f"space.{space.owner}.{space.part}")


class GoodsPage(LoadsPage):
    """The drawing beside the list."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = GoodsModel(session)
        self.picture = GoodsPicture(session, theme, self.model)
        self.table = GoodsGrid("Every good", self.model)
        self.table.cellClicked.connect(
            lambda row, _c: session.do("access.choose", key=self.model.keys()[row])
        )
        self.search = QLineEdit()
        self.search.setPlaceholderText("Where is …?")
        self.search.setAccessibleName("Search the goods")
        self.search.textChanged.connect(self._searched)
        self.words = Label()
        self.words.setFont(font(12))
        above = QHBoxLayout()
        above.setContentsMargins(8, 4, 8, 2)
        above.addWidget(self.search, 2)
        above.addWidget(self.words, 3)
        row = QHBoxLayout()
        row.setContentsMargins(8, 2, 8, 2)
        self.add = self.ask("Add a good…", "access.add", "Into the selected unit")
        self.remove = self.ask("Take it off the list", "access.remove")
        buttons = [
            self.add, self.ask("Paste goods", "access.paste", "A table on the clipboard"),
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
        across.addWidget(self.picture, 8)
        across.addLayout(left, 9)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        box.addLayout(across, 1)
        box.addLayout(row)
        box.addWidget(caution(CAUTION))

    def _searched(self, text: str) -> None:
        self.model.search = text
        self.fill()

    def fill(self) -> None:
        """Bring the list up to date."""
        self.table.fill(
            self._theme, GOOD_HEADS, self.model.cells(), (), widths=(0, 34, 54, 66, 92, 44, 58)
        )
        self.words.setText(self.model.mass_words())
        self.remove.setEnabled(self._session.look.access.startswith("goods."))
