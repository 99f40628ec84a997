"""A hand that does anything in the real window: menus, keys, clicks, drags, typed figures, jobs put out of place.

``python bench/hands.py [SECONDS] [SEED]``: prints every fault, every step that took more than two seconds, whether
undo at last led back to the beginning, and for how long the window did not answer, what is long being worked out beside
it. ``python bench/hands.py --jobs COUNT SEED`` puts damaged jobs into one window and turns to every page with each. Short
forms are in ``tests/ui/test_any_hand.py``.
"""

import contextlib
import copy
import json
import os
import random
import sys
import tempfile
import time
from pathlib import Path
from typing import Any

import msgspec
import psutil
from PyQt6.QtCore import QEvent, QPoint, QPointF, Qt, QTimer, qInstallMessageHandler
from PyQt6.QtGui import QMouseEvent, QWheelEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import (
    QApplication,
    QComboBox,
    QDialog,
    QLineEdit,
    QMenu,
    QWidget,
)

from anybody import Anybody, Faults
from mutations import mutated
from roomy_hull.core.errors import UserError
from roomy_hull.desktop.application import window_for
from roomy_hull.desktop.window import MainWindow
from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.settings import Settings
from roomy_hull.job.chain import united
from roomy_hull.session.actions.standard import standard
from roomy_hull.session.beside import Beside
from roomy_hull.session.doing import do
from roomy_hull.session.pages.table import STAGES
from roomy_hull.session.session import Session

PUSH: Any = QTest
"""Its written types know no mouse and no key."""
LEFT = Qt.MouseButton.LeftButton
TYPED = (
    "0",
    "-1",
    "1e999",
    "1986-2*38",
    "12,5",
    "1.234,5",
    "32400",
    "",
    "x",
    "40 kg",
    "3/8",
    "\ud800",
    "∞",
    "1/0",
    "9" * 60,
)
KEYS = (
    Qt.Key.Key_Tab, Qt.Key.Key_Return, Qt.Key.Key_Escape, Qt.Key.Key_Space, Qt.Key.Key_Left, Qt.Key.Key_Right,
    Qt.Key.Key_Up, Qt.Key.Key_Down, Qt.Key.Key_Delete, Qt.Key.Key_O, Qt.Key.Key_M, Qt.Key.Key_D, Qt.Key.Key_BracketLeft,
    Qt.Key.Key_BracketRight, Qt.Key.Key_Home, Qt.Key.Key_End, Qt.Key.Key_Plus, Qt.Key.Key_Minus,
)  # fmt: skip
"""What is typed, and pressed."""


class AnyHand:
    """One hand, in one window."""

    def __init__(self, window: MainWindow, rng: random.Random, folder: Path) -> None:
        self.window, self.rng, self.folder = window, rng, folder
        self.faults = Faults()
        self.blocked: list[tuple[float, str]] = []
        window.session.asker = Anybody(window.session, rng, folder)
        self.session = window.session
        # A dialog that waits for an answer is shut, wherever it was opened from.
        self._timer = QTimer(window)
        self._timer.timeout.connect(shut_dialogs)
        self._timer.start(50)
        self.actions = [a for a in standard().all() if a.id != "job.quit"]
        self._begun()

    def _begun(self) -> None:
        """Remember with what the history in hand began."""
        self.history, self.first = self.session.history, jobfile.dumps(self.session.job)

    def _shown(self, kind: type[QWidget]) -> list[Any]:
        return [w for w in self.window.findChildren(kind) if w.isVisible() and w.isEnabled()]

    def _point(self, widget: QWidget) -> QPoint:
        return QPoint(
            self.rng.randrange(max(1, widget.width())), self.rng.randrange(max(1, widget.height()))
        )

    def act(self) -> str:
        """Do any action of a menu."""
        action = self.rng.choice(self.actions)
        if action.enabled(self.session):
            do(self.session, action.id)
        return action.id

    def turn(self) -> str:
        """Turn to any page."""
        stage = self.rng.choice(STAGES)
        if stage.pages:
            self.session.view.turn_to(stage.title, self.rng.choice(stage.pages).title)
        else:
            self.session.view.set(stage=stage.title)
        return stage.title

    def select(self) -> str:
        """Choose any thing."""
        things: list[Any] = [*self.session.job.units, *self.session.job.carried]
        if things:
            self.session.selection.select(self.rng.choice(things).id)
        return "select"

    def type(self) -> str:
        """Type into any field."""
        fields = [f for f in self._shown(QLineEdit) if not f.isReadOnly()]
        if not fields:
            return "type"
        field = self.rng.choice(fields)
        words = self.rng.choice((*TYPED, str(self.rng.randrange(3000))))
        field.setFocus()
        field.selectAll()
        field.insert(words)
        PUSH.keyClick(
            field, self.rng.choice((Qt.Key.Key_Return, Qt.Key.Key_Tab, Qt.Key.Key_Escape))
        )
        return f"type {words!r} into {field.accessibleName() or field.objectName()}"

    def pick(self) -> str:
        """Pick anything of a list to choose from."""
        boxes = [b for b in self._shown(QComboBox) if b.count()]
        if boxes:
            box = self.rng.choice(boxes)
            n = self.rng.randrange(box.count())
            words = box.itemText(n)
            box.setFocus()
            box.activated.emit(n)
            return f"pick {words}"
        return "pick"

    def click(self) -> str:
        """Click anywhere."""
        shown = [w for w in self._shown(QWidget) if not w.children() or self.rng.random() < 0.2]
        widget = self.rng.choice(shown)
        at = self._point(widget)
        again = self.rng.random() < 0.2
        (PUSH.mouseDClick if again else PUSH.mouseClick)(
            widget, LEFT, Qt.KeyboardModifier.NoModifier, at
        )
        return f"click {type(widget).__name__} {at.x()},{at.y()}"

    def press(self) -> str:
        """Press any key."""
        key = self.rng.choice(KEYS)
        keys = self.rng.choice((Qt.KeyboardModifier.NoModifier, Qt.KeyboardModifier.ShiftModifier))
        PUSH.keyClick(QApplication.focusWidget() or self.window, key, keys)
        return f"press {key.name}"

    def wheel(self) -> str:
        """Turn the wheel anywhere."""
        widget = self.rng.choice(self._shown(QWidget))
        at = QPointF(self._point(widget))
        event = QWheelEvent(
            at, widget.mapToGlobal(at), QPoint(), QPoint(0, self.rng.choice((-120, 120))), Qt.MouseButton.NoButton,
            Qt.KeyboardModifier.NoModifier, Qt.ScrollPhase.NoScrollPhase, False,
        )  # fmt: skip
        QApplication.sendEvent(widget, event)
        return "wheel"

    def drag(self) -> str:
        """Drag anywhere on the drawing, letting go or giving it up."""
        ground = self.window.ground
        if not ground.isVisible():
            self.session.view.set(stage="Fit-out")
        points = [QPointF(self._point(ground)) for _ in range(self.rng.randrange(2, 12))]
        none = Qt.KeyboardModifier.NoModifier

        def send(
            kind: QEvent.Type, at: QPointF, button: Qt.MouseButton, held: Qt.MouseButton
        ) -> None:
            QApplication.sendEvent(
                ground, QMouseEvent(kind, at, ground.mapToGlobal(at), button, held, none)
            )

        send(QEvent.Type.MouseButtonPress, points[0], LEFT, LEFT)
        for at in points[1:]:
            send(QEvent.Type.MouseMove, at, Qt.MouseButton.NoButton, LEFT)
        if self.rng.random() < 0.2:
            PUSH.keyClick(ground, Qt.Key.Key_Escape)
        send(QEvent.Type.MouseButtonRelease, points[-1], LEFT, Qt.MouseButton.NoButton)
        return "drag"

    def damage(self) -> str:
        """Put two or three figures of the job out of place, as one edit."""
        frame = json.loads(jobfile.dumps(self.session.job))
        what = mutated(frame, self.rng)
        with contextlib.suppress(UserError):
            self.session.edit("damage", jobfile.loads(json.dumps(frame).encode()))
        return f"damage {what}"

    def undo(self) -> str:
        """Undo and redo some steps."""
        for _ in range(self.rng.randrange(6)):
            (self.session.undo if self.rng.random() < 0.7 else self.session.redo)()
        return "undo"

    def anything(self) -> None:
        """Do one thing of any kind."""
        ways = (
            [self.act] * 6 + [self.turn] * 2 + [self.select] * 3 + [self.type] * 4 + [self.pick] * 2
        )
        ways += (
            [self.click] * 6 + [self.press] * 5 + [self.wheel] + [self.drag] * 3 + [self.undo] * 2
        )
        ways += [self.damage]
        way = self.rng.choice(ways)
        with self.faults.step(way.__name__):
            began = time.thread_time()
            self.faults.doing = way()
            answered = time.thread_time()
            QApplication.processEvents()
            longest = max(answered - began, time.thread_time() - answered)
            self.blocked.append((longest * 1e3, f"{way.__name__}: {self.faults.doing}"))
        shut_dialogs()
        if self.session.history is not self.history:
            self._begun()

    def back(self) -> None:
        """Undo everything: that leads to the beginning, unless so much was done that it is forgotten."""
        forgotten = len(self.history._steps) >= self.history.LIMIT
        with self.faults.step("undo everything"):
            while self.history.undo_words():
                self.session.undo()
            # What was saved of the log stays, whatever is undone.
            first = jobfile.loads(self.first, "the first")
            kept, _wrong = united(self.history.logged, first.log)
            expected = jobfile.dumps(msgspec.structs.replace(first, log=kept))
            if not forgotten and jobfile.dumps(self.session.job) != expected:
                self.faults.note("undone, the job is not as it was")
        self.session.history.mark_saved()


def shut_dialogs() -> None:
    """Close what stands over the window."""
    for widget in QApplication.topLevelWidgets():
        if isinstance(widget, QDialog | QMenu) and widget.isVisible():
            widget.close()


def opened(folder: Path) -> MainWindow:
    """A window with the demo job."""
    qInstallMessageHandler(lambda *_said: None)
    session = Session(demo_job(), Settings(folder / "config", folder / "state"))
    window = window_for(session)
    window.ground.turn_ms = 0
    window.show()
    window.settle()
    return window


LONGEST = 50.0
"""Longer than this the window keeps nobody waiting. [ms]"""


def watched(blocked: list[tuple[float, str]]) -> str:
    """How long the window did not answer, of its own processor time: the middle, the worst, and what kept it longest."""
    times = sorted(ms for ms, _what in blocked)
    part = sum(ms > LONGEST for ms in times) / len(times)
    said = [
        f"not answering: median {times[len(times) // 2]:.1f} ms, 95th percentile {times[int(len(times) * 0.95)]:.0f} ms, "
        f"{part:.1%} over {LONGEST:.0f} ms"
    ]
    return "\n".join(
        said + [f"  {ms:5.0f} ms  {what[:100]}" for ms, what in sorted(blocked)[:-13:-1]]
    )


def soak(seconds: float, seed: int) -> None:
    """Do anything for a time."""
    rng = random.Random(seed)
    with tempfile.TemporaryDirectory() as where:
        os.environ["XDG_DATA_HOME"] = where
        window = opened(Path(where))
        beside = Beside()
        window.session.settle_beside(beside)
        hand = AnyHand(window, rng, Path(where))
        sys.excepthook = hand.faults.caught
        process = psutil.Process()
        steps, end, told = 0, time.time() + seconds, time.time()
        while time.time() < end:
            hand.anything()
            steps += 1
            if steps % 1000 == 0:
                hand.back()
            if time.time() - told > 60:
                told = time.time()
                print(f"{steps} steps, {process.memory_info().rss / 1e6:.0f} MB", flush=True)
        most = process.memory_info().rss / 1e6
        hand.back()
        print(f"{steps} steps in {seconds:.0f} s: {len(hand.faults.rows)} faults, {most:.0f} MB")
        print(watched(hand.blocked))
        hand.window.close()
        beside.close()


def damaged_jobs(count: int, seed: int) -> None:
    """Put damaged jobs into the window, and turn to every page with each."""
    rng = random.Random(seed)
    frames = [json.loads(jobfile.dumps(demo_job(n))) for n in ("brackwater", "lowfold", "tarn")]
    pages = [(s.title, p.title) for s in STAGES for p in s.pages or ()]
    with tempfile.TemporaryDirectory() as where:
        hand = AnyHand(opened(Path(where)), rng, Path(where))
        sys.excepthook = hand.faults.caught
        shown = n = 0
        while shown < count:
            n += 1
            frame = copy.deepcopy(rng.choice(frames))
            what = mutated(frame, rng)
            try:
                job = jobfile.loads(json.dumps(frame).encode())
            except UserError:
                continue
            shown += 1
            with hand.faults.step(f"take {what}"):
                with contextlib.suppress(UserError):
                    hand.session.take(job, None)
                QApplication.processEvents()
            hand.select()
            for stage, page in rng.sample(pages, 3):
                with hand.faults.step(f"{stage} {page} {what}"):
                    hand.session.view.turn_to(stage, page)
                    QApplication.processEvents()
            if shown % 200 == 0:
                print(f"{shown} shown of {n}", flush=True)
        most = psutil.Process().memory_info().rss / 1e6
        print(
            f"{shown} damaged jobs shown, {n - shown} refused: {len(hand.faults.rows)} faults, {most:.0f} MB"
        )
        hand.session.history.mark_saved()
        hand.window.close()


if __name__ == "__main__":
    if sys.argv[1:2] == ["--jobs"]:
        damaged_jobs(int(sys.argv[2]), int(sys.argv[3]))
    else:
        soak(float([*sys.argv, "60"][1]), int((*sys.argv, "1", "1")[2]))
