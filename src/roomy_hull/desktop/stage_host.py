"""Stages and their pages on the screen: each is read and built when it is first shown."""

import importlib
from typing import TYPE_CHECKING, Any, cast

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from roomy_hull.desktop.widgets.pile import Pile, lay_out_now
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.table import STAGES, Stage, page, stage
from roomy_hull.session.session import Session

if TYPE_CHECKING:
    from roomy_hull.desktop.pages.cutting.sheets import SheetsPage
    from roomy_hull.desktop.widgets.page_bar import PageBar

PANEL = "+"
"""Begins the place of a widget that stands over the drawing and leaves it in view."""


def _built(place: str, session: Session, theme: Theme) -> Any:
    """Read a page's module and build its widget; every one has a `theme`."""
    module, _, name = place.removeprefix(PANEL).partition(":")
    made = getattr(importlib.import_module(f"roomy_hull.desktop.pages.{module}"), name)
    return made(session, theme)


class Paged(QWidget):
    """A stage of several pages: its bar, the panels over the drawing, and the page that is shown.

    Args:
        theme: The colours.
        about: Its row of the table.
        drawing: What stands for the pages without a widget of their own.
    """

    def __init__(
        self, session: Session, theme: Theme, about: Stage, drawing: QWidget | None = None
    ) -> None:
        super().__init__()
        self._session, self._theme, self._about, self._drawing = session, theme, about, drawing
        self._made: dict[str, Any] = {}
        self.bar: PageBar | None = None
        # The bar's room is kept from the start; it is built when the window stands.
        self._above = QWidget()
        if drawing is not None:
            self._above.setMinimumHeight(34)
        self._over = QVBoxLayout(self._above)
        self._over.setContentsMargins(0, 0, 0, 0)
        self._over.setSpacing(0)
        self.stack = Pile()
        if drawing is not None:
            self.stack.add(drawing)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.setSpacing(0)
        box.addWidget(self._above)
        box.addWidget(self.stack, 1)

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = theme
        for made in (self._drawing, self.bar, *self._made.values()):
            if made is not None:
                made.theme = theme

    def page(self, title: str) -> Any:
        """Find the widget of a page, built on first use."""
        about = next(p for p in self._about.pages if p.title == title)
        if not about.widget:
            return self._drawing
        if title not in self._made:
            made = self._made[title] = _built(about.widget, self._session, self._theme)
            if about.widget.startswith(PANEL):
                made.hide()
                self._over.addWidget(made)
            else:
                self.stack.add(made)
        return self._made[title]

    def below(self) -> QWidget:
        """Find the widget that the chosen page shows below the bar: its own, or the drawing under a panel."""
        about = page(self._about.title, self._session.look)
        if about.widget.startswith(PANEL) and self._drawing is not None:
            return self._drawing
        found: QWidget = self.page(about.title)
        return found

    def show_page(self) -> None:
        """Show the chosen page, and the panel that belongs to it."""
        if self.bar is None:
            from roomy_hull.desktop.widgets.page_bar import PageBar  # ruff: ignore[import-outside-top-level]  # not to slow the start

            self.bar = PageBar(self._session, self._theme, self._about)
            self._over.insertWidget(0, self.bar)
        about = page(self._about.title, self._session.look)
        self.page(about.title)
        for other in self._about.pages:
            if other.widget.startswith(PANEL) and other.title in self._made:
                self._made[other.title].setVisible(other.title == about.title)
        below = self.below()
        lay_out_now(self._above, self)
        if self.stack.current() is not below:
            self.stack.turn_to(below)
            below.setFocus()  # else Qt gives it to the first button of the bar

    def showEvent(self, _event: object) -> None:
        """Take the focus, that Qt would else give to the first button of the bar."""
        if (shown := self.stack.current()) is not None:
            shown.setFocus()


class StageHost(Pile):
    """The stage that is shown, out of those that were built so far.

    Args:
        theme: The colours.
        first: Stands for the stage Fit-out, whose drawing is there from the start.
    """

    def __init__(self, session: Session, theme: Theme, first: QWidget) -> None:
        super().__init__()
        self._session, self._theme = session, theme
        self._made: dict[str, Any] = {}
        self._first = first
        self.add(first)

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = theme
        for made in self._made.values():
            made.theme = theme

    def stage(self, title: str) -> Any:
        """Find the widget of a stage, built on first use."""
        if title == "Fit-out":
            return self._first
        if title not in self._made:
            about = stage(title)
            made: Any
            if about.widget:
                made = _built(about.widget, self._session, self._theme)
            else:
                made = Paged(self._session, self._theme, about)
            self._made[title] = made
            self.add(made)
        return self._made[title]

    def cut(self) -> "SheetsPage":
        """Find the page Sheets, that writes files beside the window."""
        return cast("SheetsPage", self.stage("Cut").page("Sheets"))

    def show_stage(self) -> None:
        """Show the chosen stage."""
        title = self._session.look.stage
        wanted = self.stage(title if title in {s.title for s in STAGES} else "Fit-out")
        if isinstance(wanted, Paged):
            wanted.show_page()
        self.turn_to(wanted)
