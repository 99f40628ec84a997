"""The stage Loads: its pages, each built when it is first shown."""

from collections.abc import Callable

from PyQt6.QtWidgets import QStackedWidget, QVBoxLayout, QWidget

from roomy_hull.actions.workbench import Workbench
from roomy_hull.desktop.fitout.bar import PageBar
from roomy_hull.desktop.loads.board import BoardPage
from roomy_hull.desktop.loads.budget import BudgetPage
from roomy_hull.desktop.loads.chassis import ChassisPage
from roomy_hull.desktop.loads.levers import LeversPage
from roomy_hull.desktop.loads.parts import LoadsPage
from roomy_hull.desktop.loads.sheet import SheetPage
from roomy_hull.desktop.loads.springs import SpringsPage
from roomy_hull.desktop.loads.stability import StabilityPage
from roomy_hull.desktop.loads.strength import StrengthPage
from roomy_hull.desktop.theme import Theme

MADE: dict[str, Callable[[Workbench, Theme], LoadsPage]] = {
    "Board": BoardPage, "Levers": LeversPage, "Budget": BudgetPage, "Springs": SpringsPage, "Chassis": ChassisPage,
    "Strength": StrengthPage, "Stability": StabilityPage, "Sheet": SheetPage,
}  # fmt: skip


class LoadsStage(QWidget):
    """A bar of pages over the page that is shown; `do` does an action by its id."""

    def __init__(self, bench: Workbench, theme: Theme, do: Callable[[str], None]) -> None:
        super().__init__()
        self._bench, self._theme, self._do = bench, theme, do
        self._pages: dict[str, LoadsPage] = {}
        self.bar = PageBar(bench, theme, "loads_page")
        self.stack = QStackedWidget()
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self.bar)
        box.addWidget(self.stack, 1)
        bench.look_changed.connect(self._follow)
        self._follow()

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = self.bar.theme = theme
        for page in self._pages.values():
            page.theme = theme

    def page(self, name: str) -> LoadsPage:
        """Give a page, built on first use."""
        if name not in self._pages:
            made = MADE[name](self._bench, self._theme)
            for button, action in made.asks:
                button.clicked.connect(lambda _on, key=action: self._do(key))
            self._pages[name] = made
            self.stack.addWidget(made)
        return self._pages[name]

    def showEvent(self, _event: object) -> None:  # noqa: N802  # Qt's name
        """Take the focus, that Qt would else give to the first button of the bar."""
        page = self.stack.currentWidget()
        if page is not None:
            page.setFocus()

    def _follow(self) -> None:
        name = self._bench.look.loads_page
        if self._bench.look.stage == "Loads" or not self._pages:
            wanted = self.page(name if name in MADE else "Board")
            if self.stack.currentWidget() is not wanted or not wanted.isVisible():
                self.stack.setCurrentWidget(wanted)
                wanted.setFocus()  # else Qt gives it to the first button of the bar
