"""The page Trip: one wide picture, the answer in words, what takes how much."""

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QPushButton, QVBoxLayout

from roomy_hull.desktop.ground.scene_painter import Window, fit
from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.work import Step, Work
from roomy_hull.drawing.style import Theme
from roomy_hull.job.edits.resizing import resized
from roomy_hull.planning.devices import FileChannel, Line, Reader
from roomy_hull.session.actions import editing, servicing
from roomy_hull.session.pages.services.trip import TripModel
from roomy_hull.session.pages.services.words import LICENSED
from roomy_hull.session.session import Session

REACH = 12.0
"""How near to the end of a bar the hand takes it. [px]"""


class TripPicture(Picture):
    """The trip's picture; a day is chosen by a click, the end of its driving is dragged."""

    def __init__(self, session: Session, theme: Theme, model: TripModel) -> None:
        super().__init__(
            session, theme, "The trip: charge, water and gas over its days", model.drawn
        )
        self._model = model
        self._day = -1
        self.setMouseTracking(True)
        self.setMinimumHeight(220)

    def window(self) -> Window | None:  # type: ignore[override]  # how the picture lies, not Qt's window
        """How the picture lies on the widget; none where there is nothing to draw."""
        area = QRectF(8, 28, self.width() - 16, max(self.height() - 34, 10))
        _title, drawn = self._model.drawn(area.width() / area.height())
        return fit(drawn[1], area) if drawn is not None else None

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Take the end of a bar, or choose a day."""
        lies = self.window()
        if event is None or lies is None or event.button() != Qt.MouseButton.LeftButton:
            return
        h, k = lies.mm(event.position().x(), event.position().y())
        self._day = self._model.end_near(h, k, REACH / lies.s)
        n = self._day if self._day >= 0 else self._model.day_at(h)
        servicing.choose(self._session, key=f"trip.days.{n}" if n >= 0 else "")

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Have the day's driving follow the hand."""
        lies = self.window()
        if event is None or lies is None:
            return
        h, k = lies.mm(event.position().x(), event.position().y())
        if self._day < 0:
            near = self._model.end_near(h, k, REACH / lies.s) >= 0
            self.setCursor(Qt.CursorShape.SizeHorCursor if near else Qt.CursorShape.ArrowCursor)
            return
        hours = self._model.hours_to(self._day, h)
        self._session.preview(
            resized(self._session.history.settled, f"services.trip.days.{self._day}.drive", hours)
        )

    def mouseReleaseEvent(self, _event: QMouseEvent | None) -> None:
        """Let go: what was dragged is one step."""
        if self._day >= 0:
            editing.end_gesture(self._session, words=f"drive on day {self._day + 1}")
        self._day = -1


class TripPage(SessionPage):
    """The picture above, words and what takes how much below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = TripModel(session)
        self.picture = TripPicture(session, theme, self.model)
        self.words = Label()
        self.words.setWordWrap(True)
        self.words.setFont(font(13))
        self.words.setContentsMargins(10, 4, 10, 4)
        self.table = Grid("What takes how much a day", rows_chosen=True)
        self.table.setMinimumWidth(430)
        self.begin = self.ask("Begin from what is placed", "services.begin")
        self.add_day: QPushButton = self.ask("Add a day", "services.day", "Like the chosen one")
        self.add_panel: QPushButton = self.ask("Add a panel on the roof", "services.panel")
        self.weather = self.ask(
            "Weather from a file…", "services.weather", "The hours of a table of your own"
        )
        self.remove: QPushButton = self.ask("Take out the chosen", "services.remove")
        self.whole = QPushButton("The trip's figures")
        self.whole.setFont(font(11))
        self.whole.clicked.connect(lambda _on: servicing.choose(session, key=""))
        self.device = QLineEdit()
        self.device.setPlaceholderText("Monitor's path, /dev/…")
        self.device.setAccessibleName("Path of the battery monitor")
        self.device.setFixedWidth(210)
        self.read = QPushButton("Read the monitor")
        self.read.setFont(font(11))
        self.read.clicked.connect(lambda _on: self._read())
        self.recalibrate: QPushButton = self.ask("Recalibrate by it", "services.recalibrate")
        self._work: Work | None = None
        monitor = QVBoxLayout()
        monitor.setContentsMargins(8, 4, 8, 4)
        for widget in (self.device, self.read, self.recalibrate):
            monitor.addWidget(widget)
        monitor.addStretch(1)
        buttons = QVBoxLayout()
        buttons.setContentsMargins(8, 4, 8, 4)
        for button in (
            self.begin,
            self.whole,
            self.add_day,
            self.add_panel,
            self.weather,
            self.remove,
        ):
            buttons.addWidget(button)
        buttons.addStretch(1)
        below = QHBoxLayout()
        below.setSpacing(2)
        below.addWidget(self.table, 1)
        below.addLayout(buttons)
        below.addLayout(monitor)
        self.stack(LICENSED, (self.picture, 7), (self.words, 0), (below, 3))

    def _read(self) -> None:
        """Ask the monitor beside the window, so that a silent one holds nothing up."""
        path = self.device.text().strip()
        if not path:
            self._session.say("Name the monitor first, such as /dev/ttyUSB0.", trouble=True)
            return
        if self._work is not None:
            return

        def ask(_step: Step) -> Line:
            reader = Reader(lambda: FileChannel(path))
            try:
                return reader.battery()
            finally:
                reader.close()

        self._work = Work(ask, self)
        self._work.done.connect(self._got)
        self._work.failed.connect(self._failed)
        self.read.setEnabled(False)
        self._work.start()

    def _got(self, found: Line) -> None:
        self._work = None
        self.read.setEnabled(True)
        if servicing.read_monitor(
            self._session, volts=found.value, amps=found.amps, charge=found.charge
        ):
            words = f"{found.value:.2f} V, {found.amps:+.1f} A, {100 * found.charge:.0f} %"
            self._session.say(f"{words} are taken down.")

    def _failed(self, words: str) -> None:
        self._work = None
        self.read.setEnabled(True)
        self._session.say(words, trouble=True)

    def fill(self) -> None:
        """Bring words and table up to date."""
        self.words.setText(self.model.words())
        self.table.work_on(self._theme, self.model)
        self.begin.setVisible(not self._session.job.services.begun)
        for button in (self.whole, self.add_day, self.add_panel, self.remove):
            button.setEnabled(self._session.job.services.begun)
        self.remove.setEnabled(bool(self._session.look.services.chosen))
        self.recalibrate.setEnabled(bool(self._session.job.services.measured))
