"""The page Parts: the list, the flat and the folded part side by side, its bends played, its holes."""

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.scenes.folded import PITCH, YAW
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import making
from roomy_hull.session.pages.cut.parts import BEND_HEADS, HOLE_HEADS, LIST_HEADS, PartsModel
from roomy_hull.session.pages.cut.words import CAUTION
from roomy_hull.session.session import Session

TURN = 0.5
"""By how much a pixel of the hand's way turns the part. [degree]"""


class Turned(Picture):
    """A part in the round, turned by hand."""

    def __init__(self, session: Session, theme: Theme, model: PartsModel) -> None:
        super().__init__(session, theme, "The part folded", self._scene)
        self._model = model
        self.yaw, self.pitch = YAW, PITCH
        self._from: QPointF | None = None
        self._kept: tuple[object, tuple[str, tuple[Scene, Rect] | None]] | None = None
        self.setToolTip("Drag to turn it")

    def _scene(self, _ratio: float) -> tuple[str, tuple[Scene, Rect] | None]:
        session = self._session
        key = (session.known, session.look, session.selection.key, self.yaw, self.pitch)
        if self._kept is None or self._kept[0] != key:
            self._kept = key, self._model.folded(self.yaw, self.pitch)
        return self._kept[1]

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take hold of the part."""
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            self._from = event.position()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Turn it with the hand."""
        if event is None or self._from is None:
            return
        way = event.position() - self._from
        self._from = event.position()
        self.yaw = (self.yaw - way.x() * TURN) % 360
        self.pitch = min(89.0, max(-89.0, self.pitch + way.y() * TURN))
        self.update()

    def mouseReleaseEvent(self, _event: QMouseEvent | None) -> None:
        """Let it go."""
        self._from = None


class PartsPage(SessionPage):
    """List at the left, pictures above their tables."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = PartsModel(session)
        self.list = Grid("Parts that are cut and sawn", rows_chosen=True)
        self.list.setFixedWidth(300)
        self.list.cell_clicked.connect(self._chose)
        self.flat = Picture(session, theme, "The part flat", self.model.picture)
        self.folded = Turned(session, theme, self.model)
        self.words = Label()
        self.words.setWordWrap(True)
        self.words.setFont(font(13))
        self.words.setContentsMargins(10, 2, 10, 2)
        self.begin, self.back = QPushButton("Flat"), QPushButton("One bend back")
        self.on, self.all = QPushButton("One bend on"), QPushButton("All bends")
        buttons = QHBoxLayout()
        buttons.setContentsMargins(8, 2, 8, 2)
        for button, to in (
            (self.begin, lambda: 0), (self.back, lambda: self.model.step() - 1),
            (self.on, lambda: self.model.step() + 1), (self.all, lambda: -1),
        ):  # fmt: skip
            button.setFont(font(11))
            button.clicked.connect(lambda _on, to=to: session.view.set(cut={"bent": to()}))
            buttons.addWidget(button)
        buttons.addStretch(1)
        self.bends = Grid("Bends in their order")
        self.holes = Grid("Holes and openings")
        pictures = QHBoxLayout()
        pictures.setSpacing(0)
        pictures.addWidget(self.flat, 13)
        pictures.addWidget(self.folded, 10)
        tables = QHBoxLayout()
        tables.setSpacing(0)
        tables.addWidget(self.bends, 6)
        tables.addWidget(self.holes, 4)
        right = QVBoxLayout()
        right.setSpacing(2)
        right.addWidget(self.words)
        right.addLayout(pictures, 6)
        right.addLayout(buttons)
        right.addLayout(tables, 3)
        row = QHBoxLayout()
        row.setSpacing(0)
        row.addWidget(self.list)
        row.addLayout(right, 1)
        self.stack(CAUTION, (row, 1))

    def _chose(self, row: int, _column: int) -> None:
        numbers = self.model.numbers()
        if 0 <= row < len(numbers):
            making.show(self._session, part=numbers[row])

    def fill(self) -> None:
        """Bring list, words and tables up to date."""
        self.words.setText(self.model.words())
        self.list.fill(self._theme, LIST_HEADS, self.model.rows())
        chosen = self.model.chosen()
        if chosen is not None and chosen[0] in (numbers := self.model.numbers()):
            row = numbers.index(chosen[0])
            self.list.selectRow(row)
            self.list.scrollTo(self.list.index_of(row, 0))
        self.bends.fill(self._theme, BEND_HEADS, self.model.bends())
        self.holes.fill(self._theme, HOLE_HEADS, self.model.holes())
        step, steps = self.model.step(), self.model.steps()
        for button in (self.begin, self.back):
            button.setEnabled(step > 0)
        for button in (self.on, self.all):
            button.setEnabled(step < steps)
