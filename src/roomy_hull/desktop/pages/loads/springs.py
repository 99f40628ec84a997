"""The page Springs: how it stands on each kind of springs; one is fitted, and the drawing sits so."""

from PyQt6.QtWidgets import QHBoxLayout, QPushButton

from roomy_hull.assembly.springs import CAUTIONS
from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.job.vehicle import SPRING_OPTIONS
from roomy_hull.session.pages.springs import SpringsModel
from roomy_hull.session.session import Session


class SpringsPage(SessionPage):
    """Stance picture, chart of the tail, table of all options."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = SpringsModel(session)
        self.picture = Picture(session, theme, "How it sits", self.model.vehicle)
        self.chart = Picture(session, theme, "Tail low by springs", self.model.chart)
        self.table = Grid("Each kind of springs in every scenario")
        self.words = Label()
        self.words.setWordWrap(True)
        self.words.setContentsMargins(10, 2, 10, 2)
        self.buttons: dict[str, QPushButton] = {}
        bar = QHBoxLayout()
        bar.setContentsMargins(8, 2, 8, 2)
        bar.addWidget(Label("Fit:"))
        for option in SPRING_OPTIONS:
            button = QPushButton(option.capitalize())
            button.setCheckable(True)
            button.setToolTip(CAUTIONS[option])
            button.clicked.connect(lambda _on, s=option: self._fit(s))
            self.buttons[option] = button
            bar.addWidget(button)
        bar.addStretch(1)
        above = QHBoxLayout()
        above.setSpacing(2)
        above.addWidget(self.picture, 1)
        above.addWidget(self.chart, 1)
        self.stack(
            "Springs do not raise a rating. Lift, stiffer springs and air springs may want a certificate: the "
            "certifying engineer and the road authority decide.",
            (above, 6),
            (bar, 0),
            (self.words, 0),
            (self.table, 5),
        )

    def _fit(self, option: str) -> None:
        self.model.fit(option)
        self.refresh()

    def fill(self) -> None:
        """Bring table and words up to date."""
        model = self.model
        for option, button in self.buttons.items():
            button.setChecked(option == model.fitted)
            button.setFont(font(12, bold=option == model.fitted))
        self.words.setFont(font(12))
        self.words.setText(model.words())
        self.table.clearSpans()
        self.table.fill(self._theme, model.heads(), model.cells())
        for n in range(len(SPRING_OPTIONS)):
            self.table.setSpan(0, 1 + 3 * n, 1, 3)
