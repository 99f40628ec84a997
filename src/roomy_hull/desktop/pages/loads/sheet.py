"""The page Sheet: weighings at the left, the load sheet's text at the right."""

from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtWidgets import (
    QCheckBox,
    QGridLayout,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QPushButton,
    QTextBrowser,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.core.days import today
from roomy_hull.desktop.page import SessionPage, caution
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.drawing.style import Theme
from roomy_hull.session.pages.sheet import READ, SheetModel
from roomy_hull.session.session import Session

WORDS = {"front": "Front axle", "rear": "Rear axle"}
REST_MS = 150


class SheetPage(SessionPage):
    """Weighing at the left, the sheet's text at the right."""

    def __init__(self, session: Session, theme: Theme) -> None:  # ruff: ignore[too-many-statements]  # laying out a page is one list of statements
        super().__init__(session, theme)
        self.model = SheetModel(session)
        self._text_of: object = None
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(REST_MS)
        self._rest.timeout.connect(self._rested)
        self.edits: dict[str, QLineEdit] = {}
        form = QGridLayout()
        form.setContentsMargins(10, 4, 10, 4)
        form.setVerticalSpacing(3)
        form.setHorizontalSpacing(8)
        for n, key in enumerate(READ):
            edit = QLineEdit()
            edit.setFixedWidth(102)
            edit.setAccessibleName(f"Scale: {key}")
            edit.setAlignment(Qt.AlignmentFlag.AlignRight)
            self.edits[key] = edit
            form.addWidget(Label(WORDS.get(key, key.capitalize())), n // 2, 2 * (n % 2))
            form.addWidget(edit, n // 2, 2 * (n % 2) + 1)
        for n, (key, words, tip) in enumerate((
            ("date", "Date", "Of the weighing"), ("place", "Scale", "Which scale, and where"),
            ("scale", "± one reading", "One-sigma uncertainty of the scale"),
            ("raised_by", "Front up by", "Of a second weighing with the front wheels raised; 0 for none"),
            ("raised_kg", "… rear then", "What the rear axle carried with the front raised"),
        )):  # fmt: skip
            edit = QLineEdit()
            edit.setFixedWidth(102)
            edit.setToolTip(tip)
            edit.setAccessibleName(f"Scale: {key}")
            self.edits[key] = edit
            form.addWidget(Label(words), 3 + n // 2, 2 * (n % 2))
            form.addWidget(edit, 3 + n // 2, 2 * (n % 2) + 1)
        self.edits["date"].setText(today().isoformat())
        self.edits["scale"].setText("5")
        self.add_button = QPushButton("Enter the weighing")
        self.add_button.clicked.connect(self.enter)
        self.list = QListWidget()
        self.list.setAccessibleName("Weighings")
        self.list.setFixedHeight(66)
        self.list.currentRowChanged.connect(self._picked)
        self.counts = QCheckBox("Predictions follow it")
        self.counts.clicked.connect(lambda on: self.model.count(counts=on))
        self.drop_button = QPushButton("Delete")
        self.drop_button.clicked.connect(lambda _on: self.model.drop())
        self.table = Grid("Predicted against weighed")
        self.words = Label()
        self.words.setWordWrap(True)
        self.words.setContentsMargins(10, 2, 10, 2)
        self.head = Label()
        self.head.setContentsMargins(10, 6, 10, 0)
        left = QVBoxLayout()
        left.setSpacing(3)
        left.addWidget(self.head)
        left.addLayout(form)
        left.addWidget(self.add_button)
        left.addWidget(self.list)
        row = QHBoxLayout()
        row.addWidget(self.counts)
        row.addStretch(1)
        row.addWidget(self.drop_button)
        left.addLayout(row)
        left.addWidget(self.table, 1)
        left.addWidget(self.words)
        # A browser lays a long text out once; a label would do so at every change of its style.
        self.text = QTextBrowser()
        self.text.setAccessibleName("The load sheet")
        self.text.setOpenLinks(False)
        self.text.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        if (document := self.text.document()) is not None:
            document.setDocumentMargin(12)
        self.write_button = self.ask("Write the load sheet: PDF and CSV…", "loads.write")
        right = QVBoxLayout()
        right.setSpacing(3)
        right.addWidget(self.text, 1)
        right.addWidget(self.write_button)
        middle = QHBoxLayout()
        middle.setSpacing(4)
        holder = QWidget()
        holder.setLayout(left)
        holder.setFixedWidth(446)
        middle.addWidget(holder)
        middle.addLayout(right, 1)
        box = QVBoxLayout(self)
        box.setContentsMargins(0, 0, 0, 0)
        box.addLayout(middle, 1)
        box.addWidget(
            caution(
                "Weigh on a certified scale. The sheet is a planning document; it certifies nothing."
            )
        )

    def enter(self) -> None:
        """Enter what the scales said in the chosen scenario, as one step."""
        if self.model.enter({key: edit.text() for key, edit in self.edits.items()}):
            for key in (*READ, "raised_by", "raised_kg"):
                self.edits[key].clear()
            self.list.setCurrentRow(self.model.at)

    def _picked(self, row: int) -> None:
        self.model.at = row
        self._compare()

    def fill(self) -> None:
        """Bring list and comparison up to date; the sheet's text follows when the hands rest."""
        model = self.model
        self.head.setFont(font(13, bold=True))
        self.head.setText(model.head())
        blocked = self.list.blockSignals(True)
        self.list.clear()
        self.list.addItems(model.lines())
        model.at = min(max(model.at, 0), self.list.count() - 1)
        self.list.setCurrentRow(model.at)
        self.list.blockSignals(blocked)
        self._compare()
        if self._text_of is None:
            self._write_text()
        else:
            self._rest.start()

    def _rested(self) -> None:
        """Write the text if it is seen; left meanwhile, the page is filled when it is seen again."""
        if self.isVisible():
            self._write_text()
        else:
            self._filled_for = None

    def _write_text(self) -> None:
        """Write the sheet's text, where it is another: laying a long text out takes its time."""
        text = self.model.text(self._theme.rule)
        if text != self._text_of:
            self._text_of = text
            self.text.setFont(font(11))
            self.text.setHtml(text)

    def _compare(self) -> None:
        """Set the chosen weighing against the prediction without it."""
        one = self.model.weighing()
        self.counts.setEnabled(one is not None)
        self.drop_button.setEnabled(one is not None)
        self.counts.setChecked(one is not None and one.counts)
        self.table.show_rows(self._theme, self.model)
        self.words.setFont(font(12))
        self.words.setText(self.model.words())
