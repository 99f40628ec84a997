"""Long work beside the window: it reports its progress and can be given up."""

import sys
import threading
from collections.abc import Callable
from typing import Any

from PyQt6 import sip
from PyQt6.QtCore import QObject, QRunnable, QThreadPool, pyqtSignal

from roomy_hull.core.errors import GivenUp, UserError

Step = Callable[[float], bool]


class Work(QObject):
    """One piece of work in a thread of its own; its signals arrive in the window's thread."""

    progressed = pyqtSignal(float)
    done = pyqtSignal(object)
    failed = pyqtSignal(str)
    given_up = pyqtSignal(object)

    def __init__(self, job: Callable[[Step], Any], parent: QObject) -> None:
        super().__init__(parent)
        self._job = job
        self._stop = threading.Event()

    def start(self) -> None:
        """Begin."""
        pool = QThreadPool.globalInstance()
        if pool is not None:
            pool.start(_Runner(self))

    def cancel(self) -> None:
        """The work up at its next step; it then ends without trouble."""
        self._stop.set()

    def run(self) -> None:
        """Do the work; called in the other thread."""
        try:
            found = self._job(self._step)
        except UserError as trouble:
            self._tell("failed", str(trouble))
        except GivenUp:
            self._tell("given_up", None)
        except Exception:
            sys.excepthook(*sys.exc_info())
            self._tell(
                "failed", "Something went wrong inside the program; it is noted in its log file."
            )
        else:
            self._tell("done", found)

    def _step(self, share: float) -> bool:
        return self._tell("progressed", share) and not self._stop.is_set()

    def _tell(self, signal: str, what: object) -> bool:
        """Send a signal; False where the window that waited for it is gone, and nobody listens."""
        if sip.isdeleted(self):
            return False
        try:
            getattr(self, signal).emit(what)
        except RuntimeError:  # it went between the question and the signal
            return False
        return True


class _Runner(QRunnable):
    """Runs a `Work` in the pool."""

    def __init__(self, work: Work) -> None:
        super().__init__()
        self._work = work

    def run(self) -> None:
        """Do the work."""
        self._work.run()
