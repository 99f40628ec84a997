"""The real window, driven with real mouse and key events."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtWidgets import QApplication, QWidget
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.application import window_for
from roomy_hull.desktop.window import MainWindow
from roomy_hull.drawing.view import ELEVATION
from roomy_hull.formats import jobfile
from roomy_hull.formats.settings import Settings
from roomy_hull.job.edits import building as edits
from roomy_hull.job.model import Job
from roomy_hull.session.files import open_job
from roomy_hull.session.pages.build.words import built
from roomy_hull.session.session import Session


def opened(qtbot: QtBot, session: Session) -> Iterator[MainWindow]:
    """The window of a session, shown; closed and gone when it is let go."""
    made = window_for(session)
    asker = session.asker
    made.ground.turn_ms = 0
    made.resize(1280, 800)
    made.show()
    made.settle()
    qtbot.waitExposed(made)
    yield made
    session.asker = (
        asker  # whoever was asked in a test: the window closes, and what goes on beside it ends
    )
    session.history.mark_saved()
    made.close()
    made.deleteLater()
    # Else every window of the session lives on, and each new one is styled together with all of them.
    QApplication.sendPostedEvents(made, QEvent.Type.DeferredDelete.value)


@pytest.fixture
def window(qtbot: QtBot, session: Session) -> Iterator[MainWindow]:
    """The window with the demo job, shown."""
    yield from opened(qtbot, session)


class Hand:
    """A hand with a mouse: presses, moves and lets go, as the window system would report it."""

    def __init__(self, widget: QWidget) -> None:
        self.widget = widget

    def _send(self, kind: QEvent.Type, at: QPointF, button: Qt.MouseButton, held: Qt.MouseButton,
              keys: Qt.KeyboardModifier) -> None:  # fmt: skip
        glob = QPointF(self.widget.mapToGlobal(QPoint(0, 0))) + at
        QApplication.sendEvent(self.widget, QMouseEvent(kind, at, glob, button, held, keys))
        QApplication.processEvents()

    def press(
        self, at: QPointF, keys: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier
    ) -> None:
        """Press the left button."""
        left = Qt.MouseButton.LeftButton
        self._send(QEvent.Type.MouseButtonPress, at, left, left, keys)

    def move(self, at: QPointF, keys: Qt.KeyboardModifier = Qt.KeyboardModifier.NoModifier) -> None:
        """Move with the left button held."""
        self._send(
            QEvent.Type.MouseMove, at, Qt.MouseButton.NoButton, Qt.MouseButton.LeftButton, keys
        )

    def release(self, at: QPointF) -> None:
        """Let the left button go."""
        self._send(QEvent.Type.MouseButtonRelease, at, Qt.MouseButton.LeftButton, Qt.MouseButton.NoButton,
                   Qt.KeyboardModifier.NoModifier)  # fmt: skip


@pytest.fixture
def shop(qtbot: QtBot, demo: Job, keeping: Settings, tmp_path: Path) -> Iterator[MainWindow]:
    """A window on a saved job whose plan is begun and whose things are here."""
    job = edits.planned(demo, begin="2027-02-01", due="2027-04-01")
    path = tmp_path / "jobs" / "ute.hull.json"
    path.parent.mkdir()
    jobfile.save(job, path)
    keeping.keep_preferences(initials="AB")
    session = Session(job, keeping)
    open_job(session, path)
    keys = tuple(p.key for p in built(session).buying)
    session.edit("all is here", edits.logged(job, *(
        edits.entry("2027-02-01T08:00:00", "AB", kind="received", about=k) for k in keys)))  # fmt: skip
    yield from opened(qtbot, session)


def turn(window: MainWindow, title: str, where: str = "Build") -> object:
    """Turn to a page and give its widget."""
    window.session.view.turn_to(where, title)
    QApplication.processEvents()
    return window.page(where, title)


@pytest.fixture
def hand(window: MainWindow) -> Hand:
    """A hand on the ground."""
    return Hand(window.ground)


def middle(window: MainWindow, key: str) -> QPointF:
    """Where the middle of a thing is in the elevation. [px]"""
    thing = window.session.verdict.assembly.thing(key)
    assert thing is not None
    h0, k0, h1, k1 = ELEVATION[window.session.look.station].rect(thing.envelope)
    return window.ground.layout_now().elevation.px(((h0 + h1) / 2, (k0 + k1) / 2))


def millimetres(window: MainWindow, mm: float) -> float:
    """How many pixels some millimetres are. [px]"""
    return mm * window.ground.layout_now().elevation.s
