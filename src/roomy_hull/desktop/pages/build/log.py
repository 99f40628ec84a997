"""The page Log: every entry, and a strip of photos."""

from pathlib import Path

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import (
    QColor,
    QDragEnterEvent,
    QDragMoveEvent,
    QDropEvent,
    QImage,
    QMouseEvent,
    QPainter,
    QPaintEvent,
)
from PyQt6.QtWidgets import QWidget

from roomy_hull.desktop.book import scaled
from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.pages.build.parts import asked, row, words
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import building
from roomy_hull.session.doing import registry
from roomy_hull.session.pages.build.log import LogModel
from roomy_hull.session.pages.build.words import SHOP_CAUTION
from roomy_hull.session.session import Session

HIGH = 118
"""Of the strip of photos. [px]"""


class Strip(QWidget):
    """Photos beside one another, the newest first; files dropped on it are logged."""

    def __init__(self, session: Session, theme: Theme, model: LogModel) -> None:
        super().__init__()
        self._session, self.theme, self._model = session, theme, model
        self._known: dict[Path, QImage] = {}
        self.setFixedHeight(HIGH)
        self.setAcceptDrops(True)
        self.setAccessibleName("Photos of the build")
        self.setToolTip("Drop picture files here to log them")

    def sizeHint(self) -> QSize:
        """As wide as there is room."""
        return QSize(400, HIGH)

    def _picture(self, path: Path) -> QImage:
        if path not in self._known:
            if len(self._known) > 60:
                self._known.clear()
            self._known[path] = scaled(str(path), 2 * HIGH, 2 * HIGH)
        return self._known[path]

    def boxes(self) -> list[tuple[QRectF, str]]:
        """Where each photo stands, with its entry."""
        wide = HIGH * 1.25
        return [
            (QRectF(8 + n * (wide + 6), 4, wide, HIGH - 8), e.id)
            for n, (e, _path) in enumerate(self._model.photos()[: max(1, int(self.width() / wide))])
        ]

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Choose the entry of the photo under the hand."""
        if event is not None:
            for box, key in self.boxes():
                if box.contains(event.position()):
                    self._session.view.set(build={"entry": key})

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paint the photos, each with the day it was taken; one that is missing is named."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        p.fillRect(self.rect(), QColor(self.theme.sunk))
        p.setFont(font(10))
        rows = self._model.photos()
        p.setPen(QColor(self.theme.faint))
        if not rows:
            p.drawText(
                self.rect(),
                Qt.AlignmentFlag.AlignCenter,
                "No photos yet: drop picture files here, or press the button.",
            )
            return
        for (box, key), (entry, path) in zip(self.boxes(), rows, strict=False):
            image = self._picture(path) if path is not None else QImage()
            room = box.adjusted(0, 0, 0, -16)
            p.fillRect(room, QColor(self.theme.panel))
            if image.isNull():
                p.setPen(QColor(self.theme.look))
                told = "missing" if path is None else "cannot be shown"
                p.drawText(room, Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap, told)
            else:
                size = (
                    image.size().toSizeF().scaled(room.size(), Qt.AspectRatioMode.KeepAspectRatio)
                )
                x, y = room.center().x() - size.width() / 2, room.center().y() - size.height() / 2
                p.drawImage(QRectF(x, y, size.width(), size.height()), image)
            p.setPen(
                QColor(
                    self.theme.accent if key == self._session.look.build.entry else self.theme.ink
                )
            )
            said = f"{entry.taken or entry.at[:10]} {entry.words}"
            under = QRectF(box.left(), box.bottom() - 15, box.width(), 15)
            p.drawText(
                under,
                Qt.AlignmentFlag.AlignLeft,
                p.fontMetrics().elidedText(said, Qt.TextElideMode.ElideRight, int(box.width())),
            )

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        """Take files."""
        data = event.mimeData() if event is not None else None
        if event is not None and data is not None and data.hasUrls():
            event.acceptProposedAction()

    def dragMoveEvent(self, event: QDragMoveEvent | None) -> None:
        """Take them anywhere on the strip."""
        if event is not None:
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        """Log every file that was dropped."""
        data = event.mimeData() if event is not None else None
        for url in data.urls() if data is not None else []:
            if url.isLocalFile():
                building.add_photo(self._session, path=Path(url.toLocalFile()))


class LogPage(SessionPage):
    """Buttons, words, the strip of photos, the entries."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = LogModel(session)
        self.words = words()
        self.strip = Strip(session, theme, self.model)
        self.table = Grid("The log, the newest first", rows_chosen=True)
        self.table.cell_clicked.connect(self._chose)
        buttons = asked(self, (("Photo…", "build.photo"), ("Size as built…", "build.deviation"), ("Number…", "build.number"),
                               ("Note…", "build.note"), ("Lesson…", "build.lesson"), ("Sign…", "build.sign"),
                               ("Correct it…", "build.correct")))  # fmt: skip
        self.correct = buttons[-1]
        self.stack(
            SHOP_CAUTION, (row(*buttons), 0), (self.words, 0), (self.strip, 0), (self.table, 1)
        )

    def _chose(self, at: int, _column: int) -> None:
        keys = self.model.keys()
        if 0 <= at < len(keys):
            entry = next(e for e in self.session.job.log if e.id == keys[at])
            self.session.view.set(build={"entry": keys[at], "op": entry.op})

    def fill(self) -> None:
        """Bring words, photos and entries up to date."""
        self.words.setText(self.model.words())
        self.strip.theme = self._theme
        self.strip.update()
        self.table.work_on(self._theme, self.model)
        self.correct.setEnabled(registry().get("build.correct").enabled(self.session))
