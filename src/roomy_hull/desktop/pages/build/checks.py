"""The page Checks: one question at a time, large, with three buttons for gloved hands; the sheets below."""

from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QPushButton

from roomy_hull.core.errors import UserError
from roomy_hull.core.units import parse
from roomy_hull.desktop.page import SessionPage
from roomy_hull.desktop.pages.build.parts import asked, row, words
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.job.logs import Result
from roomy_hull.planning.checklist import held_against
from roomy_hull.session.actions import handing
from roomy_hull.session.pages.build.finishing import ChecksModel
from roomy_hull.session.pages.build.sheets import CheckSheets
from roomy_hull.session.pages.build.words import CAUTION
from roomy_hull.session.session import Session

BUTTONS: tuple[tuple[Result, str], ...] = (
    ("done", "Done"),
    ("failed", "Failed"),
    ("later", "Later"),
)


class ChecksPage(SessionPage):
    """The question and its buttons above, the sheets below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__(session, theme)
        self.model, self.sheets = ChecksModel(session), CheckSheets(session)
        self.question, self.words = words(20), words()
        self.question.setMinimumHeight(72)
        self.figures, self.note = QLineEdit(), QLineEdit()
        self.figures.setAccessibleName("What was measured")
        self.note.setAccessibleName("A word on it")
        self.note.setPlaceholderText("A word on it")
        self.verdict = words()
        self.buttons: dict[str, QPushButton] = {}
        keys = {"done": "Ctrl+Alt+D", "failed": "Ctrl+Alt+F", "later": "Ctrl+Alt+L"}
        big = QHBoxLayout()
        big.setContentsMargins(8, 2, 8, 2)
        for result, said in BUTTONS:
            button = QPushButton(said)
            button.setFont(font(20, bold=True))
            button.setMinimumHeight(64)
            button.setToolTip(keys[result])
            button.clicked.connect(lambda _on, r=result: self.answer(r))
            big.addWidget(button, 1)
            self.buttons[result] = button
        self.figures.setFont(font(18))
        self.note.setFont(font(14))
        self.figures.textEdited.connect(lambda _t: self._hold())
        self.figures.returnPressed.connect(self._entered)
        line = QHBoxLayout()
        line.setContentsMargins(8, 2, 8, 2)
        line.addWidget(self.figures, 3)
        line.addWidget(self.note, 3)
        line.addWidget(self.verdict, 3)
        self.table = Grid("The check sheets", rows_chosen=True)
        self.table.cell_clicked.connect(self._chose)
        buttons = asked(self, (("Check sheets on paper…", "build.sheets"), ("Sign…", "build.sign")))
        self.stack(
            CAUTION,
            (self.question, 0),
            (line, 0),
            (big, 0),
            (self.words, 0),
            (self.table, 1),
            (row(*buttons), 0),
        )

    def _typed(self) -> tuple[float, ...] | None:
        """The figures that were typed; none, and told, where one is no figure."""
        try:
            return tuple(
                float(parse(w, "number", "metric"))
                for w in self.figures.text().replace(";", " ").split()
            )
        except UserError as trouble:
            self.session.say(str(trouble), trouble=True)
            return None

    def _hold(self) -> None:
        """Say at once what the figures come to."""
        one = self.model.chosen()
        try:
            figures = tuple(float(w) for w in self.figures.text().replace(",", ".").split())
        except ValueError:
            figures = ()
        result, said = held_against(one, figures) if one is not None else ("", "")
        self.verdict.setText(f"{said}: {result}" if result else "")

    def _entered(self) -> None:
        """Enter takes what the figures say; where they say nothing, the buttons do."""
        one, figures = self.model.chosen(), self._typed()
        if one is not None and figures is not None:
            result, _said = held_against(one, figures)
            if result:
                self.answer(result)

    def answer(self, result: Result) -> None:
        """Log how the chosen check came out."""
        figures = self._typed()
        if figures is None:
            return
        one = self.model.chosen()
        judged, said = held_against(one, figures) if one is not None else ("", "")
        note = self.note.text().strip()
        told = "; ".join(w for w in (said if judged else "", note) if w)
        if result == "done" and judged == "failed":
            self.session.say(
                f"By its figures it failed ({said}). Say so, or measure again.", trouble=True
            )
            return
        if handing.check(self.session, result=result, figures=figures, words=told):
            self.figures.clear()
            self.note.clear()
            self.verdict.setText("")

    def _chose(self, at: int, _column: int) -> None:
        rows = self.model.checks()
        if 0 <= at < len(rows):
            self.session.view.set(build={"check": rows[at].key})

    def fill(self) -> None:
        """Bring question and sheets up to date."""
        model = self.model
        self.question.setText(model.question())
        asks = model.asked()
        self.figures.setPlaceholderText(asks or "nothing to measure")
        self.figures.setEnabled(bool(asks))
        self.words.setText(model.words())
        self.table.work_on(self._theme, self.sheets)
        one, rows = model.chosen(), model.checks()
        if one is not None:
            blocked = self.table.blockSignals(True)
            self.table.selectRow(rows.index(one))
            self.table.blockSignals(blocked)
        for button in self.buttons.values():
            button.setEnabled(one is not None)
