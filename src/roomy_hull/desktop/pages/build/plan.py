"""The page Plan: bars that are dragged, what is late, today's list."""

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QWheelEvent
from PyQt6.QtWidgets import QHBoxLayout, QProgressBar, QPushButton, QVBoxLayout

from roomy_hull.desktop.ground.scene_painter import Window, fit
from roomy_hull.desktop.page import Picture, SessionPage, choice_row
from roomy_hull.desktop.pages.build.parts import asked, row, words
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.work import Step, Work
from roomy_hull.drawing.style import Theme
from roomy_hull.planning.levelling import Levelled, Problem
from roomy_hull.planning.plan import means_of
from roomy_hull.session.actions import building
from roomy_hull.session.doing import registry
from roomy_hull.session.pages.build.plan import ROWS, TODAY_HEADS, PlanModel
from roomy_hull.session.pages.build.words import CAUTION, built
from roomy_hull.session.session import Session

ROUNDS, SECONDS = 4000, 5.0
"""How long the plan is improved at a time. [s]"""


class PlanPicture(Picture):
    """Bars on a calendar: a click chooses one, a drag moves it and what follows; the wheel scrolls, with Ctrl it zooms."""

    def __init__(self, session: Session, theme: Theme, model: PlanModel) -> None:
        super().__init__(session, theme, "The plan: bars on a calendar", model.drawn)
        self._model = model
        self._from: tuple[str, float, float] | None = None
        self.setMinimumHeight(240)
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def window(self) -> Window | None:  # type: ignore[override]  # how the picture lies, not Qt's window
        """How the picture lies on the widget; none where there is nothing to draw."""
        area = QRectF(8, 28, self.width() - 16, max(self.height() - 34, 10))
        _title, drawn = self._model.drawn(area.width() / area.height())
        return fit(drawn[1], area) if drawn is not None else None

    def _at(self, event: QMouseEvent | QWheelEvent) -> tuple[float, float] | None:
        lies = self.window()
        return lies.mm(event.position().x(), event.position().y()) if lies is not None else None

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        """Choose a bar, and take hold of it."""
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        at = self._at(event)
        if at is None:
            return
        key = self._model.bar_at(*at)
        placed = self._model.placed()
        self._from = (key, at[0], float(placed[key].start)) if key else None
        self._session.view.set(build={"op": key})

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """Have the bar follow the hand, and what follows it move along."""
        at = self._at(event) if event is not None else None
        if at is None:
            return
        if self._from is None:
            self.setToolTip(self._tip(self._model.bar_at(*at)))
            return
        key, h, start = self._from
        self._model.hold(key, start + at[0] - h, at[1])
        self.update()

    def mouseReleaseEvent(self, _event: QMouseEvent | None) -> None:
        """Put it down: that is one step."""
        self._from = None
        if self._model.dragged:
            put = self._model.let_go()
            if put is not None:
                op, day, hour, person = put
                building.hold(self._session, op=op, day=day, hour=hour, person=person)
            self.update()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """Look at later or earlier days; with Ctrl at more or fewer."""
        at = self._at(event) if event is not None else None
        if event is None or at is None:
            return
        turns = event.angleDelta().y() / 120
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self._model.zoom(0.8**turns, at[0])
        else:
            self._model.scroll(-turns * max(0.5, self._model.days / 8))
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Escape puts a dragged bar back; Left and Right move the chosen one by an hour, with Shift by a quarter."""
        if event is None:
            return
        if event.key() == Qt.Key.Key_Escape and self._model.dragged:
            self._model.cancel()
            self._from = None
            self.update()
            return
        steps = {Qt.Key.Key_Left: -60.0, Qt.Key.Key_Right: 60.0}
        op, placed = self._session.look.build.op, self._model.placed()
        if event.key() in steps and op in placed:
            by = steps[Qt.Key(event.key())] / (
                4 if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1
            )
            self._model.hold(op, placed[op].start + by, 0.0)
            put = self._model.let_go()
            if put is not None:
                building.hold(self._session, op=put[0], day=put[1], hour=put[2], person="")
            return
        super().keyPressEvent(event)

    def _tip(self, key: str) -> str:
        build = built(self._session)
        return (
            f"{build.ops[key].words}: {build.hours[key]:.1f} h. {build.ops[key].much}"
            if key in build.ops
            else ""
        )


class PlanPage(SessionPage):
    """Buttons and bars above, words and today's list below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = PlanModel(session)
        self.picture = PlanPicture(session, theme, self.model)
        self.words = words()
        self.today = Grid("What everybody does on the plan's day", rows_chosen=True)
        self.today.setMaximumWidth(470)
        self.today.cell_clicked.connect(self._chose)
        choice, self.by = choice_row(
            ROWS, session.look.build.bars, lambda k: session.view.set(build={"bars": k}), self
        )
        self.whole = QPushButton("All of it")
        self.improve = QPushButton("Look for a shorter plan")
        self.stop = QPushButton("Enough")
        for button, run in (
            (self.whole, self._whole),
            (self.improve, self._improve),
            (self.stop, self._enough),
        ):
            button.setFont(font(11))
            button.clicked.connect(lambda _on, r=run: r())
            choice.insertWidget(choice.count() - 1, button)
        self.progress = QProgressBar()
        self.progress.setMaximumWidth(160)
        self.progress.setFormat("%p %")
        choice.insertWidget(choice.count() - 1, self.progress)
        self._work: Work | None = None
        self._busy(on=False)
        buttons = asked(self, (("Begin the plan…", "build.begin"), ("From today", "build.today"),
                               ("Finish it…", "build.done"),
                               ("Log hours…", "build.work"), ("How long…", "build.hours"), ("Unlock", "build.let_go"),
                               ("Something else…", "build.own"), ("Today's lists…", "build.lists")))  # fmt: skip
        self.begin = buttons[0]
        self.acts = dict(
            zip(("begin", "today", "done", "work", "hours", "let_go"), buttons, strict=False)
        )
        left = QVBoxLayout()
        left.addWidget(self.words)
        left.addStretch(1)
        below = QHBoxLayout()
        below.setSpacing(2)
        below.addLayout(left, 1)
        below.addWidget(self.today, 1)
        self.stack(CAUTION, (choice, 0), (self.picture, 8), (row(*buttons), 0), (below, 4))

    @property
    def idle(self) -> bool:
        """Whether no search goes on."""
        return self._work is None

    def _chose(self, at: int, _column: int) -> None:
        keys = self.model.today_keys()
        if 0 <= at < len(keys):
            self.session.view.set(build={"op": keys[at]})

    def _whole(self) -> None:
        self.model.whole()
        self.picture.update()

    def _busy(self, *, on: bool) -> None:
        self.progress.setVisible(on)
        self.stop.setVisible(on)
        self.improve.setEnabled(not on)

    def _improve(self) -> None:
        """Search for a shorter plan beside the window; what is found is one step."""
        if self._work is not None:
            return
        build, session = built(self.session), self.session
        due = {"": build.due} if build.due is not None else None
        tasks, means = dict(build.tasks), means_of(session.shop.workshop, build.calendar)
        start = build.levelled.order

        def search(step: Step) -> Levelled:
            return Problem(tasks, means, due).level(ROUNDS, step, SECONDS, start)

        self._searched = build
        self._work = Work(search, self)
        self._work.progressed.connect(self._progressed)
        self._work.done.connect(self._found)
        self._work.failed.connect(self._failed)
        self._work.given_up.connect(self._failed)
        self._busy(on=True)
        self._work.start()

    def _enough(self) -> None:
        if self._work is not None:
            self._work.cancel()

    def _progressed(self, share: float) -> None:
        self.progress.setValue(round(100 * share))

    def _found(self, found: Levelled) -> None:
        self._work = None
        self._busy(on=False)
        build = built(self.session)
        if build is not self._searched:
            self.session.say("The job has changed meanwhile; look again.")
            return
        if (found.late, found.end) >= (build.levelled.late, build.levelled.end):
            self.session.say(
                f"Nothing shorter was found; no plan can be shorter than {100 * found.gap:.1f} % less."
            )
            return
        saved = (build.levelled.end - found.end) / 60
        if building.take_order(self.session, order=tuple(found.order)):
            self.session.say(f"{saved:.1f} h shorter.")

    def _failed(self, trouble: object) -> None:
        self._work = None
        self._busy(on=False)
        self.session.say(
            str(trouble) if trouble else "Given up; the plan is as it was.", trouble=bool(trouble)
        )

    def fill(self) -> None:
        """Bring words and today's list up to date."""
        session = self.session
        for key, button in self.by.items():
            button.setChecked(key == session.look.build.bars)
        self.words.setText(self.model.words())
        self.today.fill(self._theme, TODAY_HEADS, self.model.today())
        self.begin.setText("Begin the plan…" if not session.job.plan.begin else "Begins on…")
        for key in ("done", "work", "hours", "let_go"):
            self.acts[key].setEnabled(registry().get(f"build.{key}").enabled(session))
