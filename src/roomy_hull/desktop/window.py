"""The window: job line, stores, ground or stage, card and findings, weigh strip; menus and keys."""

import functools
from pathlib import Path
from typing import TYPE_CHECKING, TypeVar

from PyQt6.QtCore import QPointF, Qt, QTimer
from PyQt6.QtGui import QCloseEvent, QIcon, QPixmap
from PyQt6.QtWidgets import (
    QApplication,
    QHBoxLayout,
    QLabel,
    QSizePolicy,
    QSplitter,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.actions.registry import Registry
from roomy_hull.actions.workbench import Workbench
from roomy_hull.core.errors import UserError
from roomy_hull.core.shipped import shipped
from roomy_hull.desktop import theme as themes
from roomy_hull.desktop.asking import Asking
from roomy_hull.desktop.ground.ground import Ground
from roomy_hull.desktop.job_line import JobLine
from roomy_hull.desktop.menus import Menus
from roomy_hull.desktop.weigh_strip import WeighStrip

if TYPE_CHECKING:
    from roomy_hull.desktop.fitout.panels import InOutPanel, RunPanel
    from roomy_hull.desktop.fitout.solid import SolidPage
    from roomy_hull.desktop.fitout.together import TogetherPage
    from roomy_hull.desktop.fitout.variants import VariantsPage
    from roomy_hull.desktop.stages.body import BodyStage
    from roomy_hull.desktop.stages.cut import CutStage
    from roomy_hull.desktop.stages.loads import LoadsStage
    from roomy_hull.desktop.stages.survey import SurveyStage
    from roomy_hull.desktop.stages.to_come import ToCome

Page = TypeVar("Page", bound=QWidget)

FIT_OUT_PAGES = ("together_page", "variants_page", "solid_page", "run_panel", "in_out_panel")
AUTOSAVE_MS = 20_000


class MainWindow(Asking):
    """Puts the views together and asks the person what actions need to know.

    Parameters
    ----------
    bench : Workbench
        The model that every view listens to.
    registry : Registry
        The actions for menus and keys.
    """

    def __init__(self, bench: Workbench, registry: Registry) -> None:
        super().__init__()
        self.bench, self.registry = bench, registry
        self._dark = bench.look.dark
        self.settled = False
        self._page_shown = "Drawing"
        theme = self._theme()
        self.job_line = JobLine(bench, theme)
        self.ground = Ground(bench, theme)
        self.strip = WeighStrip(bench, theme)
        self._lay_out()
        self.menus = Menus(self, self.ground, registry, bench, self.do, self._open_recent)
        self._connect()
        self.resize(1280, 800)
        self._retitle()
        self._look_changed()
        self.ground.setFocus()

    # Stages, each read and built when it is first shown: the window opens the sooner

    @functools.cached_property
    def together_page(self) -> "TogetherPage":
        """The page Together of Fit-out."""
        from roomy_hull.desktop.fitout.together import TogetherPage

        return self._fit_out_page(TogetherPage(self.bench, self._theme()))

    @functools.cached_property
    def variants_page(self) -> "VariantsPage":
        """The page Variants of Fit-out."""
        from roomy_hull.desktop.fitout.variants import VariantsPage

        return self._fit_out_page(VariantsPage(self.bench, self._theme()))

    @functools.cached_property
    def solid_page(self) -> "SolidPage":
        """The page Solid of Fit-out."""
        from roomy_hull.desktop.fitout.solid import SolidPage

        return self._fit_out_page(SolidPage(self.bench, self._theme()))

    @functools.cached_property
    def run_panel(self) -> "RunPanel":
        """The panel over the drawing that plays run-throughs."""
        from roomy_hull.desktop.fitout.panels import RunPanel

        return self._panel(RunPanel(self.bench, self._theme()))

    @functools.cached_property
    def in_out_panel(self) -> "InOutPanel":
        """The panel over the drawing that says what goes in and out in which order."""
        from roomy_hull.desktop.fitout.panels import InOutPanel

        return self._panel(InOutPanel(self.bench, self._theme()))

    def _fit_out_page(self, page: Page) -> Page:
        """Put a page of Fit-out beside the drawing; it takes the room there is."""
        page.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Ignored)
        self.pages.addWidget(page)
        return page

    def _panel(self, panel: Page) -> Page:
        """Put a panel over the drawing."""
        self._over.addWidget(panel)
        return panel

    def _show_page(self) -> None:
        """Show the chosen page of Fit-out, and the panel that belongs to it."""
        name = self.bench.look.page
        if not self.settled or name == self._page_shown:
            return
        self._page_shown = name
        page: QWidget = self.ground
        if name == "Together":
            page = self.together_page
        elif name == "Variants":
            page = self.variants_page
        elif name == "Solid":
            page = self.solid_page
        for panel, its in (("run_panel", "Run-through"), ("in_out_panel", "In and out")):
            if name == its:
                getattr(self, panel).show()
            elif panel in self.__dict__:
                getattr(self, panel).hide()
        self._left.setVisible(page is self.ground)
        self.pages.setCurrentWidget(page)

    @functools.cached_property
    def loads_stage(self) -> "LoadsStage":
        """The stage Loads."""
        from roomy_hull.desktop.stages.loads import LoadsStage

        return self._page(LoadsStage(self.bench, self._theme(), self.do))

    @functools.cached_property
    def cut_stage(self) -> "CutStage":
        """The stage Cut."""
        from roomy_hull.desktop.stages.cut import CutStage

        page = self._page(CutStage(self.bench, self._theme()))
        page.write_button.clicked.connect(lambda _on: self.do("job.cut"))
        return page

    @functools.cached_property
    def survey_stage(self) -> "SurveyStage":
        """The stage Survey."""
        from roomy_hull.desktop.stages.survey import SurveyStage

        return self._page(SurveyStage(self.bench, self._theme()))

    @functools.cached_property
    def body_stage(self) -> "BodyStage":
        """The stage Body."""
        from roomy_hull.desktop.stages.body import BodyStage

        return self._page(BodyStage(self.bench, self._theme()))

    @functools.cached_property
    def to_come(self) -> "ToCome":
        """What stands for the stages that are not there yet."""
        from roomy_hull.desktop.stages.to_come import ToCome

        return self._page(ToCome(self._theme()))

    def _page(self, page: Page) -> Page:
        """Put a stage on the stack."""
        self.stack.addWidget(page)
        return page

    def _theme(self) -> themes.Theme:
        """Give the theme in use."""
        return themes.DARK if self._dark else themes.LIGHT

    # Building

    def _lay_out(self) -> None:
        self.fit_out = QWidget()
        row = QHBoxLayout(self.fit_out)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        self._left = QWidget()
        self._left.setFixedWidth(208)
        QVBoxLayout(self._left).setContentsMargins(0, 0, 0, 0)
        row.addWidget(self._left)
        # Bar and panels are built when the window stands; their room is kept from the start.
        self._above = QWidget()
        self._above.setMinimumHeight(34)
        self._over = QVBoxLayout(self._above)
        self._over.setContentsMargins(0, 0, 0, 0)
        self._over.setSpacing(0)
        self.pages = QStackedWidget()
        self.pages.addWidget(self.ground)
        middle_column = QVBoxLayout()
        middle_column.setSpacing(0)
        middle_column.addWidget(self._above)
        middle_column.addWidget(self.pages, 1)
        row.addLayout(middle_column, 1)
        self.stack = QStackedWidget()
        self.stack.addWidget(self.fit_out)
        self.side = QSplitter(Qt.Orientation.Vertical)
        self.side.setHandleWidth(3)
        self.side.setChildrenCollapsible(False)
        middle = QHBoxLayout()
        middle.setContentsMargins(0, 0, 0, 0)
        middle.setSpacing(0)
        middle.addWidget(self.job_line)
        middle.addWidget(self.stack, 1)
        # A splitter takes its limits from its children, so its width is held by what is around it.
        right = QWidget()
        right.setFixedWidth(306)
        around = QVBoxLayout(right)
        around.setContentsMargins(0, 0, 0, 0)
        around.addWidget(self.side)
        middle.addWidget(right)
        self.message = QLabel()
        self.message.setContentsMargins(12, 2, 12, 2)
        self.message.setFixedHeight(24)
        self.message.setAccessibleName("Message")
        central = QWidget()
        box = QVBoxLayout(central)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addLayout(middle, 1)
        box.addWidget(self.message)
        box.addWidget(self.strip)
        self.setCentralWidget(central)

    def do(self, key: str) -> None:
        """Do an action by its id, if it is enabled."""
        action = self.registry.get(key)
        if action.enabled(self.bench):
            action.run(self.bench, self)

    def _open_recent(self, path: Path) -> None:
        if self.may_lose():
            try:
                self.bench.open(path)
            except UserError as trouble:
                self.bench.say(str(trouble), trouble=True)

    def settle(self) -> None:
        """Build what can wait until drawing and scales are seen: panels, actions, keys and icon."""
        if self.settled:
            return
        from roomy_hull.desktop.card import Card  # read now, as the stages are
        from roomy_hull.desktop.findings_panel import FindingsPanel
        from roomy_hull.desktop.fitout.bar import PageBar
        from roomy_hull.desktop.stores_panel import StoresPanel

        bench, theme = self.bench, self._theme()
        bench.complete()
        self.stores, self.card = StoresPanel(bench, theme), Card(bench, theme)
        self.findings = FindingsPanel(bench, theme)
        left = self._left.layout()
        if left is not None:
            left.addWidget(self.stores)
        self.bar = PageBar(bench, theme)
        self._over.addWidget(self.bar)
        self.side.addWidget(self.card)
        self.side.addWidget(self.findings)
        self.side.setSizes([360, 280])
        self.stores.list.carried.connect(self._carry)
        self.stores.list.dropped.connect(self._drop)
        self.stores.list.abandoned.connect(self._abandon)
        self.stores.list.chosen.connect(self._place)
        self.settled = True
        self._show_page()
        self.menus.fill()
        icon = QPixmap()
        icon.loadFromData(shipped("icon.png"))
        self.setWindowIcon(QIcon(icon))

    def _connect(self) -> None:
        bench = self.bench
        bench.job_changed.connect(self._retitle)
        self.ground.painted.connect(lambda: QTimer.singleShot(0, self.settle))
        bench.look_changed.connect(self._look_changed)
        bench.told.connect(self._tell)
        self._message_timer = QTimer(self)
        self._message_timer.setSingleShot(True)
        self._message_timer.timeout.connect(self.hush)
        self._autosave_timer = QTimer(self)
        self._autosave_timer.timeout.connect(bench.autosave)
        self._autosave_timer.start(AUTOSAVE_MS)

    # Following the bench

    def _retitle(self) -> None:
        bench = self.bench
        where = bench.path.name if bench.path else "not saved yet"
        self.setWindowTitle(f"{bench.job.name} · {where}[*] · Roomy Hull")
        self.setWindowModified(bench.history.dirty)

    def _look_changed(self) -> None:
        look = self.bench.look
        if look.dark != self._dark:
            self._dark = look.dark
            self._retheme()
        self._show_page()
        page: QWidget
        if look.stage == "Fit-out":
            page = self.fit_out
        elif look.stage == "Survey":
            page = self.survey_stage
        elif look.stage == "Body":
            page = self.body_stage
        elif look.stage == "Loads":
            page = self.loads_stage
        elif look.stage == "Cut":
            page = self.cut_stage
        else:
            self.to_come.show_stage(look.stage)
            page = self.to_come
        if self.stack.currentWidget() is not page:
            self.stack.setCurrentWidget(page)

    def _retheme(self) -> None:
        theme = self._theme()
        app = QApplication.instance()
        if isinstance(app, QApplication):
            themes.apply(app, theme)
        panels = [self.stores, self.card, self.findings, self.bar] if self.settled else []
        panels += [self.__dict__[n] for n in FIT_OUT_PAGES if n in self.__dict__]
        for view in (self.job_line, self.ground, self.strip, *panels):
            view.theme = theme  # type: ignore[attr-defined]  # every one of them has one
            view.update()
        for n in range(1, self.stack.count()):
            stage = self.stack.widget(n)
            stage.theme = theme  # type: ignore[union-attr]  # every stage has one
        self._tell()

    def _tell(self) -> None:
        """Show what the bench says; trouble stays longer, and in the stop's colour."""
        bench, theme = self.bench, self._theme()
        self.message.setText(bench.message)
        self.message.setToolTip(bench.message)
        shade = theme.stop if bench.trouble else theme.ink
        weight = "bold" if bench.trouble else "normal"
        self.message.setStyleSheet(f"color: {shade}; font-weight: {weight}")
        self._message_timer.start(15_000 if bench.trouble else 6_000)

    def hush(self) -> None:
        """Take the message away."""
        self.message.setText("")
        self.message.setToolTip("")

    # From the stores

    def _carry(self, key: str, at: object) -> None:
        self.ground.carry(key, QPointF(self.ground.mapFromGlobal(at)))  # type: ignore[call-overload]

    def _drop(self, key: str, at: object) -> None:
        self._carry(key, at)
        self.ground.drop()

    def _abandon(self) -> None:
        self.ground.drag.cancel()
        self.ground.update()

    def _place(self, key: str) -> None:
        if self.bench.place(key):
            self.ground.setFocus()

    def quit(self) -> None:
        """Close the window."""
        self.close()

    def write_cut(self, folder: Path) -> None:
        """Write the cut files in the background."""
        self.bench.set_look(stage="Cut")
        self.cut_stage.write(folder)

    def write_sheet(self, folder: Path) -> None:
        """Write the load sheet as PDF and CSV."""
        from roomy_hull.desktop.loads import sheet_pdf  # read when wanted, as the stages are

        sheet_pdf.write_told(self.bench, folder)

    def closeEvent(self, event: QCloseEvent | None) -> None:  # ruff: ignore[invalid-function-name]  # Qt's name
        """Ask about unsaved work before closing."""
        if event is None:
            return
        if self.may_lose():
            self.bench.keeping.drop_autosave()
            event.accept()
        else:
            event.ignore()
