"""The page Board: instruments dragged on the panel, the depth behind it, the table."""

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QKeyEvent, QMouseEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout

from roomy_hull.core.errors import UserError
from roomy_hull.desktop.ground.scene_painter import Window, fit
from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.widgets.chooser import Chooser
from roomy_hull.drawing.style import Theme
from roomy_hull.kinds.board import CUTS, PITCH
from roomy_hull.session.actions import editing, servicing
from roomy_hull.session.doing import do
from roomy_hull.session.pages.services.board import BoardModel
from roomy_hull.session.pages.services.words import LICENSED
from roomy_hull.session.session import Session

STEPS = {
    Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, 1), Qt.Key.Key_Down: (0, -1),
}  # fmt: skip


class BoardPicture(Picture):
    """The panel; an instrument is chosen by a click and dragged on the grid, or moved by the arrow keys."""

    def __init__(self, session: Session, theme: Theme, model: BoardModel) -> None:
        super().__init__(
            session, theme, "The board from the front, and the depth behind it", model.drawn
        )
        self._model = model
        self._held = ""
        self._off = (0.0, 0.0)
        self._moved = False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def window(self) -> Window | None:  # type: ignore[override]  # how the picture lies, not Qt's window
        """How the picture lies on the widget; none where there is nothing to draw."""
        area = QRectF(8, 28, self.width() - 16, max(self.height() - 34, 10))
        _title, drawn = self._model.drawn(area.width() / area.height())
        return fit(drawn[1], area) if drawn is not None else None

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Choose and take an instrument."""
        lies = self.window()
        if event is None or lies is None or event.button() != Qt.MouseButton.LeftButton:
            return
        h, k = lies.mm(event.position().x(), event.position().y())
        self._held = self._model.at(h, k)
        x, z = self._model.middle(self._held)
        self._off, self._moved = (x - h, z - k), False
        servicing.choose(self._session, key=self._model.key(self._held))

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Have the instrument follow the hand."""
        lies = self.window()
        if event is None or lies is None or not self._held:
            return
        h, k = lies.mm(event.position().x(), event.position().y())
        try:
            new = self._model.moved(
                self._session.history.settled, self._held, h + self._off[0], k + self._off[1]
            )
        except UserError as trouble:
            self._session.say(str(trouble), trouble=True)
            return
        self._moved = True
        self._session.preview(new)

    def mouseReleaseEvent(self, _event: QMouseEvent | None) -> None:
        """Let go: what was dragged is one step."""
        if self._held and self._moved:
            editing.end_gesture(self._session, words="move an instrument")
        self._held = ""

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Move the chosen one by the grid, with Shift by a millimetre; Delete takes it off."""
        if event is None:
            return
        key = Qt.Key(event.key())
        if key in STEPS and self._model.chosen():
            by = 1.0 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else PITCH
            right, up = STEPS[key]
            servicing.nudge(self._session, right=right * by, up=up * by)
        elif key == Qt.Key.Key_Delete and self._model.chosen():
            do(self._session, "services.remove")
        else:
            super().keyPressEvent(event)


class BoardPage(SessionPage):
    """The panel, and beside it the table and what can be added."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = BoardModel(session)
        self.picture = BoardPicture(session, theme, self.model)
        self.table = Grid("Instruments on the board", rows_chosen=True)
        self.table.cell_clicked.connect(self._choose)
        self.what = Chooser()
        self.what.addItems(list(CUTS))
        self.what.setFont(font(11))
        self.what.setAccessibleName("Which instrument to add")
        self.add = self.ask("Add it", "", "In the first free place")
        self.add.clicked.disconnect()
        self.add.clicked.connect(
            lambda _on: servicing.add_instrument(session, what=self.what.currentText())
        )
        self.remove = self.ask("Take off the chosen", "services.remove")
        row = QHBoxLayout()
        row.setContentsMargins(8, 2, 8, 2)
        for widget in (self.what, self.add, self.remove):
            row.addWidget(widget)
        row.addStretch(1)
        right = QVBoxLayout()
        right.setSpacing(2)
        right.addWidget(self.table, 1)
        right.addLayout(row)
        across = QHBoxLayout()
        across.setSpacing(2)
        across.addWidget(self.picture, 6)
        across.addLayout(right, 5)
        self.stack(LICENSED, (across, 1))

    def _choose(self, row: int, _column: int) -> None:
        board = self.model.board()
        if board is not None and row < len(board.instruments):
            servicing.choose(self._session, key=self.model.key(board.instruments[row].id))

    def fill(self) -> None:
        """Bring the table up to date."""
        self.table.show_rows(self._theme, self.model)
        there = self.model.board() is not None
        self.add.setEnabled(there)
        self.remove.setEnabled(bool(self.model.chosen()))
