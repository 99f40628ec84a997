"""Panels over the drawing: the run-through with its moves, and the order in which units go in and out."""

from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtGui import QColor
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QPushButton,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from roomy_hull.desktop.following import follow
from roomy_hull.desktop.text import Label
from roomy_hull.desktop.theme import font
from roomy_hull.desktop.widgets.chooser import Chooser
from roomy_hull.drawing.style import Theme
from roomy_hull.session.actions import editing
from roomy_hull.session.actions.fitting_out import go_to_step, played
from roomy_hull.session.session import Session
from roomy_hull.session.worn import in_setup

BEAT_MS = 900


class RunPanel(QWidget):
    """Chooses a run-through, lists its moves, and plays it on the drawing below."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        self.setFixedHeight(158)
        self.choice = Chooser()
        self.choice.setAccessibleName("Run-through")
        self.list = QListWidget()
        self.list.setAccessibleName("Moves")
        self.back, self.on = QPushButton("Back"), QPushButton("Next")
        self.run = QPushButton("Play all")
        self.drop = QPushButton("Drop")
        self.back.setToolTip("One move back (,)")
        self.on.setToolTip("Next move (.)")
        self.count = Label()
        self.count.setWordWrap(True)
        left = QVBoxLayout()
        left.setSpacing(4)
        left.addWidget(self.choice)
        row = QHBoxLayout()
        for button in (self.back, self.on, self.run, self.drop):
            row.addWidget(button)
        left.addLayout(row)
        left.addWidget(self.count, 1)
        box = QHBoxLayout(self)
        box.setContentsMargins(8, 2, 8, 4)
        box.addLayout(left, 4)
        box.addWidget(self.list, 5)
        # The panel takes the room there is; it never makes the window wider.
        for widget in (self.choice, self.list, self.back, self.on, self.run, self.drop):
            widget.setSizePolicy(QSizePolicy.Policy.Ignored, widget.sizePolicy().verticalPolicy())
        self._beat = QTimer(self)
        self._beat.setInterval(BEAT_MS)
        self._beat.timeout.connect(self._next_beat)
        self.choice.activated.connect(self._chosen)
        self.back.clicked.connect(lambda: go_to_step(session, session.look.play.step - 1))
        self.on.clicked.connect(lambda: go_to_step(session, session.look.play.step + 1))
        self.run.clicked.connect(self._play)
        self.drop.clicked.connect(self._drop)
        self.list.itemClicked.connect(lambda _i: go_to_step(session, self.list.currentRow() + 1))
        follow(self, self.refresh, session.changed, session.view.changed)
        self.theme = theme

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = theme
        self.count.setFont(font(12))
        for button in (self.back, self.on, self.run, self.drop):
            button.setStyleSheet("QPushButton { padding: 3px 2px; }")
        self.refresh()

    def refresh(self) -> None:
        """Bring moves and count up to date where they are seen."""
        if not self.isVisible():
            return
        session = self._session
        self.choice.clear()
        self.choice.addItems([r.name for r in session.job.runs])
        ids = [r.id for r in session.job.runs]
        at = ids.index(session.look.play.run) if session.look.play.run in ids else 0
        self.choice.setCurrentIndex(at if ids else -1)
        result = played(session)
        for button in (self.back, self.on, self.run, self.drop):
            button.setEnabled(result is not None)
        self.list.clear()
        if result is None:
            self.count.setText(
                "Open things on the drawing, then choose Unit, Keep what is open as a run-through."
            )
            return
        for n, one in enumerate(result.played, 1):
            item = QListWidgetItem(f"{'✓' if one.fine else '✕'} {n}  {one.words}")
            item.setFont(font(12, bold=n == session.look.play.step))
            item.setForeground(QColor(self._theme.ink if one.fine else self._theme.stop))
            self.list.addItem(item)
        self.list.setCurrentRow(min(session.look.play.step, len(result.played)) - 1)
        if result.through:
            self.count.setText(f"Goes through in {result.actions} actions.")
        else:
            self.count.setText(f"Stops after {result.actions} of {result.total} actions.")

    def showEvent(self, _event: object) -> None:
        """Fill on being shown."""
        self.refresh()

    def hideEvent(self, _event: object) -> None:
        """Stop playing when it is not seen."""
        self._beat.stop()

    def _chosen(self, index: int) -> None:
        runs = self._session.job.runs
        if 0 <= index < len(runs):
            self._session.view.set(play={"run": runs[index].id, "step": 0}, opened=frozenset())

    def _play(self) -> None:
        go_to_step(self._session, 0)
        self._beat.start()

    def _next_beat(self) -> None:
        result = played(self._session)
        step = self._session.look.play.step
        if result is None or step >= len(result.played):
            self._beat.stop()
            return
        go_to_step(self._session, step + 1)

    def _drop(self) -> None:
        runs = self._session.job.runs
        at = self.choice.currentIndex()
        if 0 <= at < len(runs):
            editing.drop_run(self._session, key=runs[at].id)


class InOutPanel(QWidget):
    """Says in which order the units of this side go in, and what comes out before the selected one."""

    def __init__(self, session: Session, theme: Theme) -> None:
        super().__init__()
        self._session = session
        self.setFixedHeight(96)
        self.order, self.out = Label(), Label()
        box = QVBoxLayout(self)
        box.setContentsMargins(12, 4, 12, 4)
        for label in (self.order, self.out):
            label.setWordWrap(True)
            label.setAlignment(Qt.AlignmentFlag.AlignTop)
            box.addWidget(label, 1)
        follow(self, self.refresh, session.changed, session.view.changed, session.selection.changed)
        self.theme = theme

    @property
    def theme(self) -> Theme:
        """The colours in use."""
        return self._theme

    @theme.setter
    def theme(self, theme: Theme) -> None:
        self._theme = theme
        self.order.setFont(font(12))
        self.out.setFont(font(13, bold=True))
        self.refresh()

    def refresh(self) -> None:
        """Bring both lines up to date where they are seen."""
        if not self.isVisible():
            return
        session = self._session
        found, assembly = in_setup(session).in_out, in_setup(session).assembly
        names = assembly.names
        rows = []
        for bay, order in found.order.items():
            place = assembly.ground.bays[bay]
            if place.bay.side == session.look.station:
                words = ", ".join(f"{n} {names[k]}" for n, k in enumerate(order, 1))
                rows.append(
                    f"{place.bay.name} is fitted in this order: {words or 'units block each other, see the findings'}."
                )
        self.order.setText(
            "\n".join(rows) or "Stand at the left, right or rear to see the order of fitting."
        )
        thing = assembly.thing(session.selection.key)
        if thing is None or thing.place is None:
            self.out.setText("Select a unit: what has to come out before it?")
            return
        before = found.before(thing.id)
        if before:
            self.out.setText(
                f"To take out {thing.name}, first take out {', '.join(names[b] for b in before)}."
            )
        else:
            self.out.setText(f"{thing.name} comes out by itself.")

    def showEvent(self, _event: object) -> None:
        """Fill on being shown."""
        self.refresh()
