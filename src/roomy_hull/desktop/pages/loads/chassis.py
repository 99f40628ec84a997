"""The page Chassis: diagrams above, scenarios and variations below."""

from PyQt6.QtWidgets import QHBoxLayout

from roomy_hull.desktop.page import Picture, SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.chassis import ChassisModel
from roomy_hull.session.session import Session


class ChassisPage(SessionPage):
    """Diagrams above, scenarios and variations below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = ChassisModel(session)
        self.picture = Picture(session, theme, "Shear and bending of the chassis", self.model.drawn)
        self.words = Label()
        self.words.setWordWrap(True)
        self.words.setContentsMargins(10, 2, 10, 2)
        self.table = Grid("Peak bending by scenario", rows_chosen=True)
        self.table.cell_clicked.connect(lambda row, _c: self.model.choose(row))
        self.effects = Grid("What overhang, ball and air springs do to it")
        below = QHBoxLayout()
        below.setSpacing(2)
        below.addWidget(self.table, 9)
        below.addWidget(self.effects, 10)
        self.stack(
            "The rails' own strength is not judged: the dashed line is the rated payload spread evenly over the "
            "tray, and the ratio says how this build compares with it. Repairs, extensions and drilling of a "
            "chassis belong to the certifying engineer.",
            (self.picture, 13),
            (self.words, 0),
            (below, 6),
        )

    def fill(self) -> None:
        """Bring both tables up to date."""
        model = self.model
        self.table.fill(self._theme, ("Scenario", "Peak, kN·m", "Of rated", "Aft of axle"), model.cells())  # fmt: skip
        self.effects.fill(self._theme, ("In this scenario", "Peak", "Of rated", "Over axle", "One spring, kN"),
                          model.effects())  # fmt: skip
        self.words.setFont(font(12))
        self.words.setText(model.words())
