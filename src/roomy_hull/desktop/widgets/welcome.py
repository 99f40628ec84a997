"""The first start: what one can begin with, and five notes that point at where things are. Neither comes back."""

from PyQt6.QtCore import QPoint, QRect, Qt
from PyQt6.QtWidgets import (
    QDialog,
    QFrame,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.widgets.new_job import Elevation
from roomy_hull.drawing.style import Theme
from roomy_hull.formats.demo import DEMOS, demo_job

SMALL = 260
"""Something lower or narrower than this would be covered by its own note. [px]"""
NOTES = (
    ("job_line", "The stages of the work, from Survey to Build. A mark beside one says what is wrong there."),
    ("ground", "The vehicle as you see it from where you stand. Drag a thing from the stores onto its side."),
    ("walkabout", "Walk round the vehicle here, or with [ and ]."),
    ("side", "What is selected, with its figures to type; below it what is found wrong, and what would mend it."),
    ("strip", "The axles, all the time: they move while you drag."),
)  # fmt: skip
"""What the notes point at, an attribute of the window, and what they say."""


class Welcome(QDialog):
    """What one can begin with: `chosen` is the id of an action, empty where the dialog was closed."""

    def __init__(self, theme: Theme, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setWindowTitle("Roomy Hull")
        self.resize(860, 380)
        self.chosen = ""
        title = Label("What would you like to begin with?")
        title.setFont(font(16, bold=True))
        grid = QGridLayout()
        for column, (key, words) in enumerate(DEMOS.items()):
            picture = Elevation(theme)
            picture.setMinimumHeight(150)
            picture.show_job(demo_job(key), "")
            name, _comma, what = words.partition(", ")
            button = self._button(name, f"job.demo_{key}")
            about = Label(f"A demo job: {what}. Invented.")
            about.setWordWrap(True)
            about.setFont(font(11))
            for line, widget in enumerate((picture, button, about)):
                grid.addWidget(widget, line, column)
        row = QHBoxLayout()
        row.addWidget(self._button("New job…", "job.new"))
        row.addWidget(self._button("Open a job…", "job.open"))
        row.addStretch(1)
        box = QVBoxLayout(self)
        box.addWidget(title)
        box.addLayout(grid, 1)
        box.addLayout(row)

    def _button(self, words: str, action: str) -> QPushButton:
        """Make a button that chooses an action."""
        button = QPushButton(words)
        button.setObjectName(action)
        button.clicked.connect(lambda _on: self._choose(action))
        return button

    def _choose(self, action: str) -> None:
        self.chosen = action
        self.accept()


class Tour(QFrame):
    """Five notes over the window, one after another; Escape or Enough ends them."""

    def __init__(self, window: QWidget, theme: Theme) -> None:
        super().__init__(window)
        self._window, self.at = window, -1
        self.setObjectName("tour")
        self.setStyleSheet(
            f"#tour {{ background: {theme.accent}; border-radius: 6px }} #tour QLabel {{ color: {theme.accent_ink} }}"
        )
        self.setFixedWidth(300)
        self.words = Label()
        self.words.setWordWrap(True)
        self.next, enough = QPushButton("Next"), QPushButton("Enough")
        self.next.clicked.connect(self.step)
        enough.clicked.connect(self.close)
        row = QHBoxLayout()
        row.addStretch(1)
        row.addWidget(enough)
        row.addWidget(self.next)
        box = QVBoxLayout(self)
        box.addWidget(self.words)
        box.addLayout(row)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.step()

    def step(self) -> None:
        """Point at the next thing; the last note ends the tour."""
        self.at += 1
        if self.at >= len(NOTES):
            self.close()
            return
        name, words = NOTES[self.at]
        last = self.at == len(NOTES) - 1
        self.words.setText(f"{self.at + 1} of {len(NOTES)}. {words}")
        self.next.setText("Begin" if last else "Next")
        self.adjustSize()
        self.move(self._beside(name))
        self.show()
        self.raise_()
        self.next.setFocus()

    def _beside(self, name: str) -> QPoint:
        """Where the note stands: on what it points at, beside that where it is small, and within the window. [px]"""
        holder = getattr(self._window, "ground", None) if name == "walkabout" else self._window
        target: QWidget = getattr(holder, name)
        area = QRect(target.mapTo(self._window, QPoint(0, 0)), target.size())
        spot = area.center()
        if area.height() < SMALL:
            below = area.bottom() + self.height() + 20 < self._window.height()
            spot.setY(
                area.bottom() + 10 + self.height() // 2
                if below
                else area.top() - 10 - self.height() // 2
            )
        elif area.width() < SMALL:
            spot.setX(area.right() + 10 + self.width() // 2)
        x = min(max(8, spot.x() - self.width() // 2), self._window.width() - self.width() - 8)
        y = min(max(8, spot.y() - self.height() // 2), self._window.height() - self.height() - 8)
        return QPoint(x, y)
