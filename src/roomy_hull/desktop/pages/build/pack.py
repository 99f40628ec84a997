"""The page Hand-over: the pack sheet by sheet, and what still stands in its way."""

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QColor, QImage, QKeyEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QPushButton, QWidget

from roomy_hull.desktop.book import preview
from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.pages.build.parts import asked, row, words
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.build.finishing import PackModel
from roomy_hull.session.pages.build.words import CAUTION
from roomy_hull.session.session import Session


class Leaf(QWidget):
    """One sheet of the pack."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self.theme = session, theme
        self.image = QImage()
        self.setMinimumSize(300, 200)
        self.setAccessibleName("A sheet of the hand-over pack")

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paint the sheet in the middle."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        p.fillRect(self.rect(), QColor(self.theme.sunk))
        if self.image.isNull():
            return
        size = (
            self.image
            .size()
            .toSizeF()
            .scaled(self.size().toSizeF() * 0.985, Qt.AspectRatioMode.KeepAspectRatio)
        )
        x, y = (self.width() - size.width()) / 2, (self.height() - size.height()) / 2
        box = QRectF(x, y, size.width(), size.height())
        p.drawImage(box, self.image)
        p.setPen(QColor(self.theme.rule))
        p.drawRect(box)


class PackPage(SessionPage):
    """Words and buttons above, the sheet below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = PackModel(session)
        self.words = words()
        self.leaf = Leaf(session, theme)
        self.back, self.on = QPushButton("Sheet back"), QPushButton("Sheet on")
        self.number = Label()
        self.number.setFont(font(12))
        self.count = 1
        self._shown: tuple[object, ...] = ()
        for button, by in ((self.back, -1), (self.on, 1)):
            button.setFont(font(11))
            button.clicked.connect(lambda _on, b=by: self.turn(b))
        buttons = asked(self, (("Write the pack…", "build.pack"), ("Sign…", "build.sign"), ("Hand it "
                                                                                            "over…", "build.hand_over"),
                               ("Plan a re-check…", "build.recheck"), ("Log a visit…", "build.visit")))  # fmt: skip
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.stack(
            CAUTION,
            (row(self.back, self.number, self.on, *buttons), 0),
            (self.words, 0),
            (self.leaf, 1),
        )

    def turn(self, by: int) -> None:
        """Show another sheet."""
        self.model.page = min(self.count, max(1, self.model.page + by))
        self.refresh()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Page up and down turn the sheets."""
        steps = {Qt.Key.Key_PageUp: -1, Qt.Key.Key_PageDown: 1}
        if event is not None and event.key() in steps:
            self.turn(steps[Qt.Key(event.key())])
        elif event is not None:
            super().keyPressEvent(event)

    def fill(self) -> None:
        """Bring words and sheet up to date."""
        session = self.session
        self.words.setText(self.model.words())
        book = self.model.book()
        state = (book, self.model.page, session.look.system)
        if not self._shown or self._shown[0] is not book or self._shown[1:] != state[1:]:
            self._shown = state
            self.leaf.image, self.count = preview(book, self.model.page, session.look.system)
            if self.model.page > self.count:
                self.model.page = self.count
                self.leaf.image, self.count = preview(book, self.model.page, session.look.system)
        self.leaf.theme = self._theme
        self.leaf.update()
        self.number.setText(f"{self.model.page} of {self.count}")
        self.back.setEnabled(self.model.page > 1)
        self.on.setEnabled(self.model.page < self.count)
