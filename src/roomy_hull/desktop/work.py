"""Long work beside the window: it reports its progress and can be given up."""

import sys
import threading
from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import QObject, QRunnable, QThreadPool, pyqtSignal

from roomy_hull.core.errors import GivenUp, UserError

Step = Callable[[float], bool]
_LIVE: list["Work"] = []
"""Work that may still send a signal: it outlives its window, else a signal could be sent by what is just being deleted."""


class Work(QObject):
    """One piece of work in a thread of its own; its signals arrive in the window's thread."""

    progressed = pyqtSignal(float)
    done = pyqtSignal(object)
    failed = pyqtSignal(str)
    given_up = pyqtSignal(object)

    def __init__(self, job: Callable[[Step], Any], parent: QObject) -> None:
        super().__init__()
        self._job = job
        self._stop, self._over = threading.Event(), False
        # Where the window that waits for it goes, it is given up.
        parent.destroyed.connect(self._stop.set)

    def start(self) -> None:
        """Begin."""
        # What is over is let go here, in the window's thread.
        _LIVE[:] = [w for w in _LIVE if not w._over] + [self]
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
        finally:
            self._over = True

    def _step(self, share: float) -> bool:
        self._tell("progressed", share)
        return not self._stop.is_set()

    def _tell(self, signal: str, what: object) -> None:
        """Send a signal; Qt drops it where the window that waited for it is gone."""
        getattr(self, signal).emit(what)


class _Runner(QRunnable):
    """Runs a `Work` in the pool."""

    def __init__(self, work: Work) -> None:
        super().__init__()
        self._work = work

    def run(self) -> None:
        """Do the work."""
        self._work.run()
