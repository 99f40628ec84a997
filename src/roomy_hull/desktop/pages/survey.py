"""The stage Survey: the guided measure list, each drawn where it is taken; the adjustment; towing."""

from collections.abc import Callable
from pathlib import Path
from typing import Any

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.core.errors import UserError
from roomy_hull.core.tables.read import Measure
from roomy_hull.core.units import System, parse, show
from roomy_hull.desktop.following import follow
from roomy_hull.desktop.ground.scene_painter import fit, painter_for
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.widgets.chooser import Chooser
from roomy_hull.desktop.work import Step, Work
from roomy_hull.drawing.scenes import survey as survey_scene
from roomy_hull.drawing.style import Theme
from roomy_hull.planning.devices import FileChannel, Reader
from roomy_hull.planning.survey import Adjusted, Plan
from roomy_hull.session.actions import surveying
from roomy_hull.session.pages.measures import MeasuresModel
from roomy_hull.session.session import Session

SERIAL = ("ttyUSB*", "ttyACM*", "rfcomm*")
"""Under these names a Linux kernel offers serial devices by cable and radio."""


class SurveyPicture(QWidget):
    """The vehicle with the chosen measure on it."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self.theme = session, theme
        self.measure = ""
        self.words = ""
        self.setMinimumSize(320, 220)
        self.setAccessibleName("Where the measure is taken")

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paint the measure where it is taken."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        p.fillRect(self.rect(), QColor(self.theme.paper))
        if not self.measure:
            return
        vehicle = self._session.job.vehicle
        picture = survey_scene.where(vehicle, self.measure)[0]
        area = QRectF(10, 14, self.width() - 20, self.height() - 28)
        window = fit(survey_scene.frame(vehicle, picture), area)
        scene = survey_scene.measure_scene(vehicle, self.measure, self.words)
        painter_for(self.theme, self._session.look.system).paint(p, scene, window)


def _sideways(plan: Plan, system: System) -> str:
    """Say how far the rear end stands to one side of square."""
    way = "right" if plan.skew > 0 else "left"
    return (
        f"Rear end {show(abs(plan.skew), 'length', system)} ± "
        f"{show(plan.skew_sigma, 'length', system, unit=False)} to the {way}"
    )


class Below(QWidget):
    """The frame out of square, and the towing trade-off, side by side."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session, self.theme = session, theme
        self.adjusted: Adjusted | None = None
        self.setMinimumHeight(190)
        self.setAccessibleName("Out of square, and towing")

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paint both."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        t, session = self.theme, self._session
        p.fillRect(self.rect(), QColor(t.panel))
        half = self.width() * 0.42
        system = session.look.system
        painter = painter_for(t, system)
        p.setPen(QColor(t.ink))
        p.setFont(font(12, bold=True))
        plan = self.adjusted.plan if self.adjusted is not None else None
        title = "Out of square" if plan is None else _sideways(plan, system)
        p.drawText(QRectF(12, 6, half - 16, 18), Qt.AlignmentFlag.AlignVCenter, title)
        if plan is not None:
            area = QRectF(12, 26, half - 24, self.height() - 46)
            painter.paint(
                p, survey_scene.square_scene(plan), fit(survey_scene.square_frame(plan), area)
            )
        p.setPen(QColor(t.faint))
        p.setFont(font(11))
        words = "wants widths, lengths and diagonals"
        if plan is not None:
            longer = "right" if plan.square > 0 else "left"
            words = (
                f"{longer} rail {show(abs(plan.square), 'length', system)} ± "
                f"{show(plan.square_sigma, 'length', system, unit=False)} longer; drawn × 10"
            )
        p.drawText(QRectF(12, self.height() - 20, half, 16), Qt.AlignmentFlag.AlignVCenter, words)
        found = session.known.towing
        shown = next((x for x in found.points if x.id == session.look.scenario), found.points[0])
        p.setPen(QColor(t.ink))
        p.setFont(font(12, bold=True))
        most = show(shown.most, "mass", system)
        p.drawText(QRectF(half + 12, 6, self.width() - half - 20, 18), Qt.AlignmentFlag.AlignVCenter,
                   f"Trailer up to {most}, set by the {shown.by}")  # fmt: skip
        scene, frame = survey_scene.towing_scene(found, system, shown.id)
        area = QRectF(half + 12, 26, self.width() - half - 24, self.height() - 46)
        painter.paint(p, scene, fit(frame, area))
        p.setPen(QColor(t.faint))
        p.setFont(font(11))
        p.drawText(QRectF(half + 12, self.height() - 20, self.width() - half - 20, 16),
                   Qt.AlignmentFlag.AlignVCenter,
                   f"trailer over vehicle; {found.ball_share:.0%} on the ball")  # fmt: skip


class SurveyStage(QWidget):
    """List of measures, drawing, entry, adjustment, towing."""

    def __init__(self, session: Session, theme: Theme) -> None:  # ruff: ignore[too-many-statements]  # laying out a page is one list of statements
        super().__init__()
        self._session, self._theme = session, theme
        self.model = MeasuresModel(session)
        self._of: object = None
        self._work: Work | None = None
        self._at = 0
        self.list = Grid("Measures", rows_chosen=True, sortable=False)
        self.list.setFixedWidth(318)
        self.picture = SurveyPicture(session, theme)
        self.below = Below(session, theme)
        self.how = Label()
        self.entry = QLineEdit()
        self.entry.setPlaceholderText("Reading, then Enter")
        self.entry.setAccessibleName("Reading")
        self.entry.setFixedWidth(150)
        self.device = Chooser()
        self.device.setEditable(True)
        self.device.setAccessibleName("Path of the measuring device")
        self.device.setToolTip("Path of a laser meter, such as /dev/ttyUSB0; see docs/formats.md")
        self.device.setFixedWidth(130)
        if (typed := self.device.lineEdit()) is not None:
            typed.setPlaceholderText("Device path")
        self.read_button = QPushButton("Read device")
        self.weigh_button = QPushButton("Weigh")
        self.weigh_button.setToolTip("Read four wheel scales into the kerb masses")
        self.undo_button = QPushButton("Delete")
        self.undo_button.setToolTip("All readings of this measure")
        self.take_button = QPushButton("Put into the vehicle")
        self.take_button.setToolTip("Every size that the readings determine becomes the vehicle's")
        self.result = Label()
        self.result.setWordWrap(True)
        row = QHBoxLayout()
        row.setContentsMargins(10, 2, 10, 2)
        for widget in (
            self.entry, self.device, self.read_button, self.weigh_button
        ):  # fmt: skip
            row.addWidget(widget)
        row.addStretch(1)
        row.addWidget(self.undo_button)
        last = QHBoxLayout()
        last.setContentsMargins(10, 0, 10, 6)
        last.addWidget(self.result, 1)
        last.addWidget(self.take_button)
        right = QVBoxLayout()
        right.setSpacing(3)
        self.how.setContentsMargins(12, 6, 8, 0)
        right.addWidget(self.how)
        right.addWidget(self.picture, 3)
        right.addLayout(row)
        right.addWidget(self.below, 2)
        right.addLayout(last)
        box = QHBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.list)
        box.addLayout(right, 1)
        self.list.cell_clicked.connect(lambda row, _c: self._chosen(row))
        self.list.cell_taken.connect(lambda row, _c, _r0, _c0: self._chosen(row))
        self.entry.returnPressed.connect(self._typed)
        self.read_button.clicked.connect(lambda _on: self._read(Reader.distance, self._got))
        self.weigh_button.clicked.connect(lambda _on: self._read(Reader.wheels, self._weighed))
        self.undo_button.clicked.connect(
            lambda _on: surveying.drop_readings(self._session, measure=self.measure().key)
        )
        self.take_button.clicked.connect(lambda _on: self._take())
        follow(self, self.refresh, session.changed, session.view.changed)
        self.theme = theme

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = self.picture.theme = self.below.theme = theme
        self.how.setFont(font(13, bold=True))
        self.result.setFont(font(12))
        self._of = None
        self.refresh()

    def showEvent(self, _event: object) -> None:
        """Adjust on being shown; nothing is computed for a hidden stage."""
        self._list_devices()
        self.refresh()

    def _list_devices(self) -> None:
        """Offer the serial devices that are plugged in, and keep what was typed."""
        kept = self.device.currentText()
        self.device.clear()
        self.device.addItems(sorted(str(p) for name in SERIAL for p in Path("/dev").glob(name)))
        self.device.setEditText(
            kept or (self.device.itemText(0) if self.device.count() == 1 else "")
        )

    def measure(self) -> Measure:
        """The chosen measure."""
        rows = self.model.entries()
        return rows[min(self._at, len(rows) - 1)]

    def refresh(self) -> None:
        """Bring list, drawing and adjustment up to date where they are seen."""
        if not self.isVisible():
            return
        session = self._session
        state = (session.job.survey, session.job.vehicle.kind, session.look.system)
        if state != self._of:
            self._of = state
            self.model.adjust()
            self._fill()
        self.below.adjusted = self.model.adjusted
        self.below.update()
        self._chosen(self._at)

    def _fill(self) -> None:
        """List every measure with its readings, and say how they stand to each other."""
        self.list.work_on(self._theme, self.model)
        self.list.selectRow(self._at)
        self.result.setText(self.model.words())
        adjusted = self.model.adjusted
        self.take_button.setEnabled(bool(adjusted is not None and adjusted.sizes))

    def choose(self, row: int) -> None:
        """Choose a measure by its row."""
        self.list.selectRow(row)
        self._chosen(row)

    def _chosen(self, row: int) -> None:
        self._at = min(max(row, 0), len(self.model.entries()) - 1)
        measure = self.measure()
        self.how.setText(f"{measure.words}: {measure.how.lower()}")
        self.picture.measure = measure.key
        self.picture.words = self.model.mean(measure.key) or "?"
        self.picture.update()

    def _typed(self) -> None:
        """Take the typed reading and go to the next measure."""
        try:
            value = parse(self.entry.text(), "length", self._session.look.system)
        except UserError as trouble:
            self._session.say(str(trouble), trouble=True)
            return
        self._add(value, "tape")

    def _add(self, value: float, by: str) -> None:
        row = self._at
        if surveying.add_reading(self._session, measure=self.measure().key, value=value, by=by):
            self.entry.clear()
            self.choose(min(row + 1, len(self.model.entries()) - 1))

    def _read(self, what: Callable[[Reader], Any], done: Callable[[Any], None]) -> None:
        """Ask the device beside the window, so that a silent one holds nothing up."""
        path = self.device.currentText().strip()
        if not path:
            self._session.say("Name the device first, such as /dev/ttyUSB0.", trouble=True)
            return
        if self._work is not None:
            return

        def ask(_step: Step) -> Any:
            reader = Reader(lambda: FileChannel(path))
            try:
                return what(reader)
            finally:
                reader.close()

        self._work = Work(ask, self)
        self._work.done.connect(done)
        self._work.failed.connect(self._failed)
        self._enable(False)
        self._work.start()

    def _enable(self, on: bool) -> None:
        for button in (self.read_button, self.weigh_button):
            button.setEnabled(on)

    def _weighed(self, wheels: dict[str, float]) -> None:
        self._end()
        surveying.weigh(self._session, wheels=wheels)

    def _got(self, value: float) -> None:
        self._end()
        self._add(value, "laser")

    def _failed(self, words: str) -> None:
        self._end()
        self._session.say(words, trouble=True)

    def _end(self) -> None:
        self._work = None
        self._enable(True)

    def _take(self) -> None:
        surveying.take_survey(self._session)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Give a half-typed reading up on Escape."""
        if event is not None and event.key() == Qt.Key.Key_Escape:
            self.entry.clear()
            return
        super().keyPressEvent(event)
