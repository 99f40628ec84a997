"""Long work whose window goes away: it is given up, sends nothing to what is gone, and the next begins as ever."""

import time

from PyQt6.QtCore import QEvent, QObject
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from roomy_hull.core.errors import GivenUp
from roomy_hull.desktop.work import _LIVE, Step, Work


class Waiting(QObject):
    """What waits for a piece of work."""

    def __init__(self) -> None:
        super().__init__()
        self.told: list[float] = []

    def progressed(self, share: float) -> None:
        """Take down how far it is."""
        self.told.append(share)


def test_work_outlives_what_waits_for_it_and_is_given_up(qtbot: QtBot, qapp: QApplication) -> None:
    ended: list[int] = []

    def job(step: Step) -> None:
        for n in range(20_000):
            if not step(n / 20_000):
                ended.append(n)
                raise GivenUp
            time.sleep(0.0002)
        ended.append(-1)

    for _ in range(12):
        waiting = Waiting()
        work = Work(job, waiting)
        work.progressed.connect(waiting.progressed)
        work.start()
        qtbot.waitUntil(lambda w=waiting: len(w.told) > 3, timeout=5000)  # type: ignore[misc]
        # Deleted in the midst of its signals.
        waiting.deleteLater()
        QApplication.sendPostedEvents(waiting, QEvent.Type.DeferredDelete.value)
    qtbot.waitUntil(lambda: len(ended) == 12, timeout=10_000)
    assert min(ended) >= 0


def test_what_is_over_is_let_go_when_the_next_begins(qtbot: QtBot, qapp: QApplication) -> None:
    waiting = Waiting()
    for n in range(3):
        found: list[object] = []
        work = Work(lambda _step, n=n: n, waiting)  # type: ignore[misc]
        work.done.connect(found.append)
        work.start()
        qtbot.waitUntil(lambda f=found: bool(f), timeout=5000)  # type: ignore[misc]
        assert found == [n]
        qtbot.waitUntil(lambda w=work: w._over, timeout=5000)  # type: ignore[misc]
    assert len([w for w in _LIVE if not w._over]) == 0
    assert len(_LIVE) == 1
