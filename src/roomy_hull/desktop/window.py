"""The window: job line, stores, ground or stage, card and findings, weigh strip; menus and keys."""

from pathlib import Path
from typing import TYPE_CHECKING, Any

from PyQt6.QtCore import QPointF, Qt, QTimer
from PyQt6.QtGui import QCloseEvent
from PyQt6.QtWidgets import (
    QApplication,
    QHBoxLayout,
    QMainWindow,
    QSplitter,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.core import lazily
from roomy_hull.core.errors import UserError
from roomy_hull.desktop import theme as themes
from roomy_hull.desktop.following import follow
from roomy_hull.desktop.ground.ground import Ground
from roomy_hull.desktop.menus import Menus
from roomy_hull.desktop.stage_host import Paged, StageHost
from roomy_hull.desktop.text import Label, plain
from roomy_hull.desktop.widgets.job_line import JobLine
from roomy_hull.desktop.widgets.pile import lay_out_now
from roomy_hull.desktop.widgets.weigh_strip import WeighStrip
from roomy_hull.drawing import style
from roomy_hull.session.actions import editing
from roomy_hull.session.files import autosave, let_go, open_job
from roomy_hull.session.pages.table import stage
from roomy_hull.session.session import Session

if TYPE_CHECKING:
    from roomy_hull.desktop.widgets.card import Card
    from roomy_hull.desktop.widgets.findings_panel import FindingsPanel
    from roomy_hull.desktop.widgets.stores_panel import StoresPanel
    from roomy_hull.session.actions import arranging
else:
    # Not to slow the start: it is read where something is first wanted arranged.
    arranging = lazily.module("roomy_hull.session.actions.arranging")

AUTOSAVE_MS = 20_000
BESIDE_MS = 20
SHARE_MS = 120
LEAST_SHARE = 150
"""Neither card nor findings become lower than this. [px]"""


class MainWindow(QMainWindow):
    """Puts the views together.

    Args:
        session: The model that every view listens to.
    """

    stores: "StoresPanel"
    card: "Card"
    findings: "FindingsPanel"

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self._dark = session.look.dark
        self.settled = self._split_by_hand = False
        theme = self.theme
        self.job_line = JobLine(session, theme)
        self.ground = Ground(session, theme)
        self.strip = WeighStrip(session, theme)
        self._lay_out()
        self.menus = Menus(self, self.ground, session, self._open_recent)
        self._connect()
        self.resize(1280, 800)
        self._retitle()
        self._look_changed()
        self.ground.setFocus()

    @property
    def theme(self) -> style.Theme:
        """The colours in use."""
        return style.DARK if self._dark else style.LIGHT

    # Building

    def _lay_out(self) -> None:
        fit_out = QWidget()
        row = QHBoxLayout(fit_out)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        self._left = QWidget()
        self._left.setFixedWidth(208)
        QVBoxLayout(self._left).setContentsMargins(0, 0, 0, 0)
        row.addWidget(self._left)
        self.fit_out = Paged(self.session, self.theme, stage("Fit-out"), self.ground)
        row.addWidget(self.fit_out, 1)
        self.stages = StageHost(self.session, self.theme, fit_out)
        self.side = QSplitter(Qt.Orientation.Vertical)
        self.side.setHandleWidth(3)
        self.side.setChildrenCollapsible(False)
        middle = QHBoxLayout()
        middle.setContentsMargins(0, 0, 0, 0)
        middle.setSpacing(0)
        middle.addWidget(self.job_line)
        middle.addWidget(self.stages, 1)
        # A splitter takes its limits from its children, so its width is held by what is around it.
        right = QWidget()
        right.setFixedWidth(306)
        around = QVBoxLayout(right)
        around.setContentsMargins(0, 0, 0, 0)
        around.addWidget(self.side)
        middle.addWidget(right)
        self.message = Label()
        self.message.setContentsMargins(12, 2, 12, 2)
        self.message.setFixedHeight(24)
        self.message.setTextFormat(Qt.TextFormat.PlainText)
        self.message.setAccessibleName("Message")
        central = QWidget()
        box = QVBoxLayout(central)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addLayout(middle, 1)
        box.addWidget(self.message)
        box.addWidget(self.strip)
        self.setCentralWidget(central)

    def settle(self) -> None:
        """Build what can wait until drawing and scales are seen: panels, actions, keys and icon."""
        if self.settled:
            return
        # Read now, as the stages are: the window opens the sooner.
        from roomy_hull.desktop.widgets.card import Card  # ruff: ignore[import-outside-top-level]
        from roomy_hull.desktop.widgets.findings_panel import FindingsPanel  # ruff: ignore[import-outside-top-level]
        from roomy_hull.desktop.widgets.stores_panel import StoresPanel  # ruff: ignore[import-outside-top-level]

        session, theme = self.session, self.theme
        session.complete()
        self._await()
        self.stores, self.card = StoresPanel(session, theme), Card(session, theme)
        self.findings = FindingsPanel(session, theme)
        left = self._left.layout()
        if left is not None:
            left.addWidget(self.stores)
        self.side.addWidget(self.card)
        self.side.addWidget(self.findings)
        self.side.setSizes([360, 280])
        self.side.splitterMoved.connect(self._split)
        follow(
            self,
            self._share_later,
            session.changed,
            session.selection.changed,
            session.view.changed,
        )
        self._share_later()
        self.stores.list.carried.connect(self._carry)
        self.stores.list.dropped.connect(self._drop)
        self.stores.list.abandoned.connect(self._abandon)
        self.stores.list.chosen.connect(self._place)
        self.stores.placed.connect(self._place_on)
        self.settled = True
        self._show_fit_out()
        self.menus.fill()

    def _split(self) -> None:
        """Remember that the person has put the split where it is."""
        self._split_by_hand = True

    def _share_later(self) -> None:
        """Share the column once everything in it is laid out."""
        self._sharing.start(SHARE_MS)

    def _share(self) -> None:
        """Give card and findings what each needs of their column; who needs less leaves the rest to the other."""
        if self._split_by_hand or not self.settled:
            return
        whole = self.side.height() - self.side.handleWidth()
        card, list_ = self.card.wanted_height(), self.findings.wanted_height()
        least = min(LEAST_SHARE, whole // 2)
        if card + list_ <= whole:
            below = whole - card
        else:
            below = max(least, min(list_, whole - card), min(list_, int(whole * 0.42)))
        self.side.setSizes([whole - below, below])

    def _connect(self) -> None:
        session = self.session
        follow(self, self._retitle, session.saved)
        follow(self, self._look_changed, session.view.changed)
        follow(self, self._tell, session.messages.changed)
        self.ground.painted.connect(self._painted)
        self._message_timer = QTimer(self)
        self._message_timer.setSingleShot(True)
        self._message_timer.timeout.connect(self.hush)
        self._sharing = QTimer(self)
        self._sharing.setSingleShot(True)
        self._sharing.timeout.connect(self._share)
        self._beside_timer = QTimer(self)
        self._beside_timer.timeout.connect(self._pump)
        follow(self, self._await, session.changed)
        self._await()
        self._autosave_timer = QTimer(self)
        self._autosave_timer.timeout.connect(self._autosave)
        self._autosave_timer.start(AUTOSAVE_MS)

    def _await(self) -> None:
        """Look now and then what was worked out beside the window, as long as anything is."""
        if (
            self.session.beside is not None
            and self.session.beside.working
            and not self._beside_timer.isActive()
        ):
            self._beside_timer.start(BESIDE_MS)

    def _pump(self) -> None:
        if not self.session.pump():
            self._beside_timer.stop()

    def _autosave(self) -> None:
        autosave(self.session)

    def _painted(self) -> None:
        QTimer.singleShot(0, self.settle)

    # What is shown

    def page(self, stage_title: str, title: str) -> Any:
        """Find the widget of a page, built on first use."""
        paged = self.fit_out if stage_title == "Fit-out" else self.stages.stage(stage_title)
        return paged.page(title)

    def stage(self, title: str) -> Any:
        """Find the widget of a stage, built on first use."""
        return self.stages.stage(title)

    def shown(self) -> QWidget:
        """Find the page or stage that is seen."""
        paged = self.fit_out if self.session.look.stage == "Fit-out" else self.stages.current()
        found = paged.stack.current() if isinstance(paged, Paged) else paged
        return found if found is not None else self.ground

    def _retitle(self) -> None:
        session = self.session
        where = session.path.name if session.path else "not saved yet"
        self.setWindowTitle(f"{session.job.name} · {where}[*] · Roomy Hull")
        self.setWindowModified(session.history.dirty)

    def _look_changed(self) -> None:
        if self.session.look.dark != self._dark:
            self._dark = self.session.look.dark
            self._retheme()
        if self.session.look.stage == "Fit-out":
            self._show_fit_out()
        self.stages.show_stage()

    def _show_fit_out(self) -> None:
        """Show the chosen page of Fit-out; the stores stand beside the drawing, and beside what is to be arranged."""
        if self.settled:
            beside = self.fit_out.below() is self.ground or self._arranges
            if self._left.isHidden() == beside:
                # The room first.
                self._left.setVisible(beside)
                lay_out_now(self._left.parentWidget())
            self.fit_out.show_page()

    def _retheme(self) -> None:
        theme = self.theme
        app = QApplication.instance()
        if isinstance(app, QApplication):
            themes.apply(app, theme)
        self.job_line.theme = self.strip.theme = self.fit_out.theme = self.stages.theme = theme
        if self.settled:
            self.stores.theme = self.card.theme = self.findings.theme = theme
        for view in (self.job_line, self.ground, self.strip):
            view.update()
        self._tell()

    def _tell(self) -> None:
        """Show what the session says; trouble stays longer, and in the stop's colour."""
        messages, theme = self.session.messages, self.theme
        self.message.setText(messages.text)
        self.message.setToolTip(plain(messages.text))
        shade = theme.stop if messages.trouble else theme.ink
        weight = "bold" if messages.trouble else "normal"
        self.message.setStyleSheet(f"color: {shade}; font-weight: {weight}")
        self._message_timer.start(15_000 if messages.trouble else 6_000)

    def hush(self) -> None:
        """Take the message away."""
        self.message.setText("")
        self.message.setToolTip("")

    # From the stores

    def _carry(self, key: str, at: object) -> None:
        if self._arranges:
            return
        self.ground.carry(key, QPointF(self.ground.mapFromGlobal(at)))  # type: ignore[call-overload]  # a QPoint

    def _drop(self, key: str, at: object) -> None:
        if self._arranges:
            self._place(key)
            return
        self._carry(key, at)
        self.ground.drop()

    def _abandon(self) -> None:
        self.ground.drag.cancel()
        self.ground.update()

    @property
    def _arranges(self) -> bool:
        """Whether what is taken from the stores is to be arranged."""
        look = self.session.look
        return look.stage == "Fit-out" and look.page("Fit-out") == "Arrange"

    def _place(self, key: str) -> None:
        if self._arranges:
            arranging.want(self.session, entry=key)
        elif editing.place(self.session, entry=key):
            self.ground.setFocus()

    def _place_on(self, key: str) -> None:
        """Place what is offered, and stay in the search field."""
        (arranging.want if self._arranges else editing.place)(self.session, entry=key)

    def _open_recent(self, path: Path) -> None:
        if self.session.asker.may_lose():
            try:
                open_job(self.session, path)
            except UserError as trouble:
                self.session.say(str(trouble), trouble=True)

    def closeEvent(self, event: QCloseEvent | None) -> None:
        """Ask about unsaved work before closing."""
        if event is None:
            return
        event.ignore()  # whatever goes wrong in saving, the window stays
        if self.session.asker.may_lose():
            self.session.settings.drop_autosave()
            let_go(self.session)
            self.session.arranging.close()
            if self.session.beside is not None:
                self.session.beside.close()
            for timer in (
                self._beside_timer,
                self._autosave_timer,
                self._message_timer,
                self._sharing,
            ):
                timer.stop()
            event.accept()
