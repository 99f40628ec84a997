"""The page Arrange: a list and weights above, the best layout so far in pictures, the layouts to choose from below."""

from collections.abc import Callable

from PyQt6.QtCore import QPointF, QRectF, Qt, QTimer
from PyQt6.QtGui import QBrush, QColor, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QSlider,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.arrange.instance import PARTS
from roomy_hull.desktop.following import follow
from roomy_hull.desktop.ground.scene_painter import fit, painter_for
from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.widgets.chooser import Chooser
from roomy_hull.drawing.scenes import ground as ground_scene
from roomy_hull.drawing.scenes.ground import Looks
from roomy_hull.drawing.style import Theme
from roomy_hull.drawing.view import ELEVATION, Station
from roomy_hull.session.actions import arranging
from roomy_hull.session.pages.arranging import (
    CAUTION,
    HEADS,
    OFFER_HEADS,
    PITCHES,
    SECONDS,
    TIPS,
    TITLES,
    ArrangeModel,
)
from roomy_hull.session.session import Session

PUMP_MS = 40
"""So often the page asks what the search has found."""


class Layout(QWidget):
    """The layout that is looked at, from every side that has bays; what is pinned is hatched."""

    def __init__(self, model: ArrangeModel, session: Session, theme: Theme) -> None:
        super().__init__()
        self._model, self._session, self.theme = model, session, theme
        self.setMinimumHeight(130)
        self.setAccessibleName("The layout that is looked at")

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paint the sides beside one another, each as large as its bays ask."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        p.fillRect(self.rect(), QColor(self.theme.paper))
        sides = self._model.sides()
        if not sides:
            return
        assembly = self._model.assembly()
        pinned = self._model.pinned()
        frames = [ground_scene.frame(assembly, _station(s), whole=False)[0] for s in sides]
        whole = sum(f[2] - f[0] for f in frames)
        x, free = 4.0, self.width() - 8.0 - 6.0 * (len(sides) - 1)
        for side, frame in zip(sides, frames, strict=True):
            wide = free * (frame[2] - frame[0]) / whole
            area = QRectF(x, 20, wide, self.height() - 22)
            p.setClipRect(area)
            window = fit(frame, area)
            painter_for(self.theme, self._session.look.system).paint(
                p, ground_scene.elevation(assembly, _station(side), Looks()), window
            )
            for thing in assembly.things:
                if thing.id in pinned and thing.place is not None and thing.place.bay.side == side:
                    h0, k0, h1, k1 = ELEVATION[_station(side)].rect(thing.envelope)
                    a, b = window.px((h0, k1)), window.px((h1, k0))
                    p.fillRect(QRectF(a, b), _hatch(self.theme))
            p.setClipping(False)
            p.setPen(QColor(self.theme.ink))
            p.setFont(font(11, bold=True))
            p.drawText(QRectF(x, 2, wide, 16), Qt.AlignmentFlag.AlignCenter, side.capitalize())
            x += wide + 6.0


def _station(side: str) -> Station:
    return side  # type: ignore[return-value]  # bays are on the left, the right or at the rear


def _hatch(theme: Theme) -> QBrush:
    """What is pinned."""
    return QBrush(QColor(theme.accent), Qt.BrushStyle.BDiagPattern)


class Course(QWidget):
    """How the best came down and the bound came up."""

    def __init__(self, model: ArrangeModel, theme: Theme) -> None:
        super().__init__()
        self._model, self.theme = model, theme
        self.setMinimumSize(150, 44)
        self.setAccessibleName("The course of the search")

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paint both lines over the seconds."""
        p = QPainter(self)
        p.setRenderHint(QPainter.RenderHint.Antialiasing)
        rows = self._model.course()
        _, bound = self._model.numbers()
        values = [v for r in rows for v in r[1:2] if v is not None]
        if not values:
            return
        high = max(values)
        low = min([*values, *([bound] if bound is not None else [])])
        span, last = max(high - low, 1e-6), max(rows[-1][0], 0.1)
        area = QRectF(2, 4, self.width() - 4, self.height() - 8)

        def at(seconds: float, value: float) -> QPointF:
            level = (min(max(value, low), high) - low) / span
            return QPointF(
                area.left() + area.width() * seconds / last, area.bottom() - area.height() * level
            )

        for k, shade in ((1, self.theme.accent), (2, self.theme.faint)):
            line = QPolygonF([at(r[0], v) for r in rows if (v := r[k]) is not None])
            p.setPen(QPen(QColor(shade), 2))
            p.drawPolyline(line)


class Weight(QWidget):
    """One part: a slider, how much it counts in words, and the figure of the layout that is looked at."""

    STEPS = 8

    def __init__(self, model: ArrangeModel, session: Session, part: str) -> None:
        super().__init__()
        self._model, self._session, self.part = model, session, part
        self.title, self.words, self.figure = Label(TITLES[part]), Label(), Label()
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.slider.setRange(0, self.STEPS)
        self.slider.setFixedWidth(74)
        self.slider.setPageStep(2)
        self.slider.setAccessibleName(TITLES[part])
        self.slider.setToolTip(TIPS[part])
        self.title.setToolTip(TIPS[part])
        self.slider.valueChanged.connect(self._moved)
        self.slider.sliderReleased.connect(self._set)
        self.figure.setAlignment(Qt.AlignmentFlag.AlignRight)

    def _moved(self) -> None:
        """A step by key or wheel counts at once; a drag when it is let go."""
        if not self.slider.isSliderDown() and not self.slider.signalsBlocked():
            self._set()

    def _set(self) -> None:
        arranging.weigh(self._session, part=self.part, weight=self.slider.value() / 2)

    def fill(self) -> None:
        """Bring slider, words and figure up to date."""
        self.slider.blockSignals(True)
        self.slider.setValue(round(self._model.weights()[self.part] * 2))
        self.slider.blockSignals(False)
        self.title.setFont(font(12))
        for label in (self.words, self.figure):
            label.setFont(font(11))
        self.words.setText(self._model.weight_words(self.part))
        self.figure.setText(self._model.figures(self.part))


class ArrangePage(SessionPage):
    """Everything about a run on one page."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = ArrangeModel(session)
        self.run = session.arranging
        self._job_seen: object = None
        self._drawn: tuple[object, ...] | None = None
        self.go, self.end = (
            self.ask("Arrange it for me", "arrange.go"),
            self.ask("Stop", "arrange.stop"),
        )
        self.take = self.ask(
            "Take this one", "arrange.take", "One step; the others stand beside it in Variants"
        )
        self.seconds, self.pitch, self.axle = Chooser(), Chooser(), Chooser()
        self.seconds.setAccessibleName("How long it may take")
        self.pitch.setAccessibleName("Steps along the wall")
        self.axle.setAccessibleName("Which axle should have less")
        for value, words in SECONDS:
            self.seconds.addItem(words, value)
        for value, words in PITCHES:
            self.pitch.addItem(words, value)
        for key, words in (
            ("", "the short axle"),
            ("rear", "the rear axle"),
            ("front", "the front axle"),
        ):
            self.axle.addItem(words, key)
        self.axle.setSizeAdjustPolicy(Chooser.SizeAdjustPolicy.AdjustToContents)
        self.seconds.activated.connect(
            lambda _i: self.run.set(seconds=float(self.seconds.currentData()))
        )
        self.pitch.activated.connect(lambda _i: self.run.set(pitch=float(self.pitch.currentData())))
        self.axle.activated.connect(
            lambda _i: arranging.axle(session, which=str(self.axle.currentData()))
        )
        self.words, self.this, self.least, self.pairs, self.why = (Label() for _ in range(5))
        for label in (self.words, self.pairs, self.why):
            label.setWordWrap(True)
        self.list = Grid("What has to go in", rows_chosen=True)
        self.list.cell_clicked.connect(self._pressed)
        self.list.row_height(20)
        self.list.setFixedWidth(292)
        self.list.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.weights = [Weight(self.model, session, part) for part in PARTS]
        self.layout_, self.course = Layout(self.model, session, theme), Course(self.model, theme)
        self.table = Grid("Layouts to choose from", rows_chosen=True)
        self.table.cell_clicked.connect(lambda row, _c: self.model.choose(row))
        self.table.cell_taken.connect(lambda row, _c, _r0, _c0: self.model.choose(row))
        self.two = (self._pair("Apart…", arranging.apart), self._pair("Near", arranging.near))
        self._lay_out()
        self._clock = QTimer(self)
        self._clock.setInterval(PUMP_MS)
        self._clock.timeout.connect(self._pump)
        follow(self, self._run_changed, self.run.changed)

    def _pair(self, words: str, make: Callable[..., object]) -> QPushButton:
        """A button for a wish about the two chosen rows."""
        button = QPushButton(words)
        button.setFont(font(11))
        button.setToolTip("Choose two rows, the second with Ctrl held")
        button.clicked.connect(lambda _on: self._of_two(make))
        return button

    def _lay_out(self) -> None:
        top = QHBoxLayout()
        top.setContentsMargins(8, 6, 8, 2)
        for widget in (self.go, self.end, self.seconds, self.pitch):
            top.addWidget(widget)
        top.addStretch(1)
        top.addWidget(self.take)
        numbers = QHBoxLayout()
        numbers.setContentsMargins(12, 0, 8, 0)
        told = QVBoxLayout()
        told.setSpacing(0)
        told.addWidget(self.this)
        told.addWidget(self.least)
        numbers.addLayout(told, 3)
        numbers.addWidget(self.course, 2)
        left = QVBoxLayout()
        left.setSpacing(2)
        left.addWidget(self.list, 1)
        under = QHBoxLayout()
        under.addWidget(Label("Two rows:"))
        for button in self.two:
            under.addWidget(button)
        under.addStretch(1)
        under.addWidget(self.ask("Pin all or none", "arrange.pin_all"))
        left.addLayout(under)
        right = QGridLayout()
        right.setVerticalSpacing(1)
        for n, w in enumerate(self.weights):
            right.addWidget(w.title, n, 0)
            right.addWidget(w.slider, n, 1)
            right.addWidget(w.words, n, 2)
            right.addWidget(w.figure, n, 3)
        right.setColumnStretch(3, 1)
        right.setColumnMinimumWidth(2, 62)
        right.setColumnMinimumWidth(3, 124)
        right.addWidget(Label("Less on"), len(PARTS), 0)
        right.addWidget(self.axle, len(PARTS), 1)
        right.addWidget(
            self.ask("By findings", "arrange.follow", "Instead of weights set by hand"),
            len(PARTS),
            2,
            1,
            2,
        )
        right.addWidget(self.pairs, len(PARTS) + 1, 0, 1, 4)
        right.setRowStretch(len(PARTS) + 1, 1)
        both = QHBoxLayout()
        both.setContentsMargins(8, 2, 8, 2)
        both.addLayout(left)
        both.addLayout(right, 1)
        for label in (self.words, self.why):
            label.setContentsMargins(12, 2, 12, 2)
        self.stack(
            CAUTION, (top, 0), (self.words, 0), (numbers, 0), (both, 3), (self.layout_, 5), (self.why, 0), (self.table, 3)
        )  # fmt: skip

    def _pressed(self, row: int, column: int) -> None:
        many = set(self.list.chosen_rows())
        if len(many) < 2:
            self.model.press(row, column)

    def _of_two(self, make: Callable[..., object]) -> None:
        """Make a wish about two rows."""
        rows = self.list.chosen_rows()
        things = self.model.things()
        if len(rows) != 2:
            self._session.say(
                "Choose two rows of the list first, the second with Ctrl held.", trouble=True
            )
            return
        make(self._session, a=things[rows[0]], b=things[rows[1]])

    def _run_changed(self) -> None:
        """Listen to the process while it is at work, and show what it said."""
        if self.run.asking and not self._clock.isActive():
            self._clock.start()
        self._filled_for = None
        self.refresh()

    def _pump(self) -> None:
        """Take what the process has said; nothing here waits for it."""
        if not self.run.pump():
            self._clock.stop()

    def showEvent(self, event: object) -> None:
        """Have the search ready, and fill."""
        self.run.warm()
        super().showEvent(event)

    def fill(self) -> None:
        """Bring everything up to date."""
        model, run, theme = self.model, self.run, self._theme
        self.layout_.theme = self.course.theme = theme
        self.go.setEnabled(not run.working)
        self.end.setEnabled(run.working)
        self.take.setEnabled(not run.working and bool(model.job() is not self._session.job))
        self.seconds.setCurrentIndex(max(0, self.seconds.findData(run.seconds)))
        self.pitch.setCurrentIndex(max(0, self.pitch.findData(run.pitch)))
        self.axle.setCurrentIndex(max(0, self.axle.findData(self._session.job.arrange.axle)))
        self.axle.setToolTip(model.axle_words())
        self.words.setFont(font(13, bold=True))
        self.words.setText(model.words())
        best, bound = model.numbers()
        for label, words, figure in (
            (self.this, "This one", best), (self.least, "Nothing in stacks is better than", bound),
        ):  # fmt: skip
            label.setFont(font(12))
            label.setText(f"{words}: {figure:.1f} points" if figure is not None else "")
        now = (self._session.job, self._theme)
        if self._job_seen is None or self._job_seen != now:
            self._job_seen = now
            self.list.fill(theme, HEADS, model.rows())
            for w in self.weights:
                w.fill()
            self.pairs.setFont(font(11))
            self.pairs.setText(model.wishes())
        else:
            for w in self.weights:
                w.figure.setText(model.figures(w.part))
        self.why.setFont(font(12))
        self.why.setText(model.why())
        self.why.setVisible(bool(model.why()))
        rows = model.offer_rows()
        self.table.setVisible(bool(rows))
        self.table.blockSignals(True)
        self.table.fill(
            theme,
            OFFER_HEADS,
            rows,
            shaded=lambda r, _c: r == run.chosen,
        )
        self.table.blockSignals(False)
        seen = (model.job(), model.pinned(), self._theme, self._session.look)
        if self._drawn is None or any(
            a is not b and a != b for a, b in zip(self._drawn, seen, strict=True)
        ):
            self._drawn = seen
            self.layout_.update()
        self.course.update()
