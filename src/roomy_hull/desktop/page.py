"""What pages are built from: a page that follows the session, and pictures of scenes."""

from collections.abc import Callable, Sequence

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent
from PyQt6.QtWidgets import (
    QButtonGroup,
    QHBoxLayout,
    QLayout,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.core.primitives import Rect, Scene
from roomy_hull.desktop.following import follow
from roomy_hull.desktop.ground.scene_painter import fit, painter_for
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.paper import Paper
from roomy_hull.drawing.style import Theme
from roomy_hull.session.doing import do
from roomy_hull.session.session import Session


class SessionPage(QWidget):
    """A page that follows the session while it is seen, and nothing while it is not."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self._filled_for: object = None
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        follow(self, self._follow, session.changed, session.view.changed, session.selection.changed)

    @property
    def session(self) -> Session:
        """The job in hand."""
        return self._session

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = theme
        for picture in self.findChildren(Picture):
            picture.theme = theme
        self.refresh()

    def refresh(self) -> None:
        """Bring the page up to date where it is seen."""
        if self.isVisible():
            self._filled_for = self._state()
            self.fill()
            for picture in self.findChildren(Picture):
                picture.update()

    def _state(self) -> tuple[object, ...]:
        """Say what the page is filled from."""
        session = self._session
        return (session.sight, session.look, session.selection.ids(), session.selection.finding)

    def _follow(self) -> None:
        """Bring the page up to date, unless it is: being turned to tells it twice."""
        now, then = self._state(), self._filled_for
        if not isinstance(then, tuple) or now[0] is not then[0] or now[1:] != then[1:]:
            self.refresh()

    def fill(self) -> None:
        """Bring tables and words up to date."""

    def ask(self, words: str, action: str, tip: str = "") -> QPushButton:
        """Make a button that does an action of the registry."""
        button = QPushButton(words)
        button.setFont(font(11))
        button.setToolTip(tip)
        button.clicked.connect(lambda _on: do(self._session, action))
        return button

    def stack(self, words: str, *rows: tuple[QWidget | QLayout, int]) -> None:
        """Lay the page out: rows one under another, each with its share of the height, then the caution."""
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(2)
        for row, share in rows:
            if isinstance(row, QLayout):
                box.addLayout(row, share)
            else:
                box.addWidget(row, share)
        box.addWidget(caution(words))

    def showEvent(self, _event: object) -> None:
        """Fill on being shown."""
        self._follow()


Drawn = tuple[Scene, Rect]


class Picture(QWidget):
    """A scene in its frame, under a title."""

    def __init__(
        self,
        session: Session,
        theme: Theme,
        words: str,
        draw: Callable[[float], tuple[str, Drawn | None]],
    ) -> None:
        super().__init__()
        self._session, self.theme, self._draw = session, theme, draw
        self.setMinimumSize(180, 120)
        self.setAccessibleName(words)

    def papers(self) -> tuple[Paper, ...]:
        """Draw the picture for paper."""
        title, drawn = self._draw(max(self.width() - 16, 10) / max(self.height() - 34, 10))
        return () if drawn is None else (Paper(title, *drawn),)

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paint title and scene."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        p.fillRect(self.rect(), QColor(self.theme.paper))
        area = QRectF(8, 28, self.width() - 16, max(self.height() - 34, 10))
        title, drawn = self._draw(area.width() / area.height())
        if drawn is not None:
            scene, frame = drawn
            painter_for(self.theme, self._session.look.system).paint(p, scene, fit(frame, area))
            # A close-up reaches beyond its frame: the title stays free of it.
            p.fillRect(QRectF(0, 0, self.width(), 27), QColor(self.theme.paper))
        p.setPen(QColor(self.theme.ink))
        p.setFont(font(13, bold=True))
        p.drawText(QRectF(12, 6, self.width() - 20, 20), Qt.AlignmentFlag.AlignLeft, title)


def choice_row(
    items: Sequence[tuple[str, str]], chosen: str, pick: Callable[[str], None], parent: QWidget
) -> tuple[QHBoxLayout, dict[str, QPushButton]]:
    """A row of buttons of which one is down.

    Args:
        chosen: The one that is down at first.
        pick: Takes the key of the one that was clicked.
    """
    row, buttons = QHBoxLayout(), {}
    row.setContentsMargins(6, 2, 6, 2)
    row.setSpacing(4)
    group = QButtonGroup(parent)
    for key, words in items:
        button = QPushButton(words)
        button.setCheckable(True)
        button.setChecked(key == chosen)
        button.setFont(font(11))
        button.clicked.connect(lambda _on, k=key: pick(k))
        group.addButton(button)
        buttons[key] = button
        row.addWidget(button)
    row.addStretch(1)
    return row, buttons


def caution(text: str) -> Label:
    """A line that says once what the figures are not."""
    label = Label(text)
    label.setWordWrap(True)
    label.setFont(font(11))
    label.setContentsMargins(10, 2, 10, 4)
    return label
