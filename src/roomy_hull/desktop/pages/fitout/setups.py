"""The page Set-ups: a table of what is on when, and the steps from one to another."""

from PyQt6.QtWidgets import QHBoxLayout

from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.widgets.chooser import Chooser
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.setups import CAUTION, STEP_HEADS, SetupsModel
from roomy_hull.session.session import Session


class SetupsPage(SessionPage):
    """What is on when above, the swap below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model = SetupsModel(session)
        self.words = Label()
        self.words.setWordWrap(True)
        self.words.setContentsMargins(12, 8, 12, 4)
        self.table = Grid("What is on in which set-up")
        self.table.cell_clicked.connect(self.model.press)
        self.start, self.end = Chooser(), Chooser()
        self.start.setAccessibleName("Swap from")
        self.end.setAccessibleName("Swap to")
        for box in (self.start, self.end):
            box.activated.connect(lambda _i: self._choose())
        top = QHBoxLayout()
        top.setContentsMargins(8, 2, 8, 2)
        for button in (
            self.ask("Add a set-up", "setup.add"), self.ask("Copy", "setup.copy", "The chosen one"),
            self.ask("Rename", "setup.rename", "The chosen one"), self.ask("Delete", "setup.drop", "The chosen one"),
        ):  # fmt: skip
            top.addWidget(button)
        top.addStretch(1)
        top.addWidget(
            self.ask(
                "Weigh the chosen scenario in it", "setup.use", "The scenario that is chosen below"
            )
        )
        between = QHBoxLayout()
        between.setContentsMargins(12, 4, 8, 2)
        for widget in (Label("From"), self.start, Label("to"), self.end):
            between.addWidget(widget)
        between.addStretch(1)
        between.addWidget(self.ask("Write the list…", "setup.write"))
        self.sum = Label()
        self.sum.setWordWrap(True)
        self.sum.setContentsMargins(12, 2, 12, 2)
        self.steps = Grid("Steps of the swap")
        self.stack(
            CAUTION, (self.words, 0), (top, 0), (self.table, 3), (between, 0), (self.sum, 0), (self.steps, 2)
        )  # fmt: skip

    def _choose(self) -> None:
        self.model.choose(str(self.start.currentData()), str(self.end.currentData()))

    def fill(self) -> None:
        """Bring both tables up to date."""
        model, setups = self.model, self._session.job.setups
        self.words.setFont(font(13))
        self.words.setText(
            model.empty()
            if not setups
            else "Click a cell to take a thing off in a set-up, or put it on again."
        )
        self.table.setVisible(bool(setups))
        rows = [model.uses(), *model.cells()] if setups else []
        # The row of scenarios stands last, so that rows and things are numbered alike.
        self.table.fill(self._theme, model.heads(), [*rows[1:], *rows[:1]], (), model.shaded)
        keys = model.between()
        for box, key in zip((self.start, self.end), keys, strict=True):
            box.clear()
            for s in setups:
                box.addItem(s.name, s.id)
            box.setCurrentIndex(max(0, box.findData(key)))
            box.setEnabled(len(setups) > 1)
        found = model.swap()
        self.sum.setFont(font(14, bold=True))
        self.sum.setText(model.swap_words(found))
        self.steps.setVisible(found is not None and bool(found.steps))
        self.steps.fill(self._theme, STEP_HEADS, model.steps(found))
