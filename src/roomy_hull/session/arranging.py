"""Arranging in hand: a process of its own that searches, what it told last, and what it came to."""

from __future__ import annotations

import sys
import time
from typing import TYPE_CHECKING, Any

import msgspec

from roomy_hull.core.errors import UserError
from roomy_hull.core.signal import Signal
from roomy_hull.session.worker import Worker

if TYPE_CHECKING:
    from roomy_hull.arrange.offers import Arranged, Told
    from roomy_hull.arrange.reasons import Reason
    from roomy_hull.job.model import Job
    from roomy_hull.session.worker import Pipe
    from roomy_hull.shop.shop import Shop

A_LOOK = 0.05
"""So often at most it is told how far a run is. [s]"""
MOST_TRACED = 600
"""So many points of the course of a run are kept."""


def work(pipe: Pipe) -> None:
    """Do what is asked for, one thing after another, until the pipe is closed; runs in a process of its own.

    Args:
        pipe: Takes (task, job, shop, more) and gives (kind, what): ``told``, ``done``, ``refused`` with words,
            ``failed``.
    """
    from roomy_hull.arrange.arranger import arrange  # read while nobody waits  # ruff: ignore[import-outside-top-level]
    from roomy_hull.arrange.reasons import why_here  # ruff: ignore[import-outside-top-level]  # as above
    from roomy_hull.verdict.verdict import judge  # ruff: ignore[import-outside-top-level]  # as above

    while True:
        try:
            task, job, shop, more = pipe.recv()
        except (EOFError, OSError):
            return

        tell = _Telling(pipe)
        try:
            verdict = judge(job, shop=shop)
            if task == "arrange":
                pipe.send(("done", arrange(verdict, job.arrange, progress=tell, **more)))
            else:
                pipe.send(("why", why_here(verdict, job.arrange, **more)))
        except UserError as trouble:
            pipe.send(("refused", str(trouble)))
        except (EOFError, OSError):
            return
        except Exception:  # whatever it is, the window lives on
            sys.excepthook(*sys.exc_info())
            pipe.send(("failed", "Something went wrong inside the program; the job is as it was."))


class _Telling:
    """Passes on what is told, not more often than anybody looks, and a layout only once."""

    def __init__(self, pipe: Pipe) -> None:
        self._pipe, self._last = pipe, 0.0
        self._best: float | None = None
        self._job: Job | None = None

    def __call__(self, told: Told) -> bool:
        """Tell it where it is better, or some time has gone by; the run always goes on."""
        now = time.monotonic()
        if told.best != self._best or now - self._last >= A_LOOK:
            job = told.job if told.job is not self._job else None
            self._pipe.send(("told", msgspec.structs.replace(told, job=job)))
            self._last, self._best, self._job = now, told.best, told.job
        return True


class ArrangeRun:
    """One run at a time, beside the job; the process is kept warm between runs.

    Attributes:
        changed: Fires when anything here is another.
        told: What was told last.
        result: What the last run came to.
        of: The job that it began with.
        trace: Seconds, points of the best, and bound, in their course.
        chosen: Which of the offers is looked at.
        reasons: Why a thing is where it is, by its id.
        trouble: What was refused or went wrong; empty for nothing.
        seconds, pitch: How long the next run may take, and about how wide its cells are. [s, mm]
    """

    def __init__(self) -> None:
        self.changed = Signal()
        self.told: Told | None = None
        self.result: Arranged | None = None
        self.of: Job | None = None
        self.trace: list[tuple[float, float | None, float | None]] = []
        self.chosen = 0
        self.reasons: dict[str, Reason] = {}
        self.trouble = ""
        self.seconds, self.pitch = 10.0, 50.0
        self._task = ""
        self._worker: Worker | None = None

    @property
    def working(self) -> bool:
        """Whether a run goes on."""
        return self._task == "arrange"

    @property
    def asking(self) -> bool:
        """Whether anything goes on, a question too."""
        return bool(self._task)

    def warm(self) -> None:
        """Have the process ready before it is needed."""
        if self._worker is None or not self._worker.alive:
            self._kill()
            self._worker = Worker(__name__)

    def start(self, job: Job, shop: Shop, seconds: float, pitch: float) -> None:
        """Begin a run on a job and its wishes; one that goes on is ended.

        Args:
            seconds, pitch: How long it may take, and about how wide a cell is. [s, mm]
        """
        if self.asking:
            self.stop()
        self._clear(job)
        self._ask("arrange", job, shop, {"seconds": seconds, "pitch": pitch})

    def ask_why(self, job: Job, shop: Shop, thing: str, pitch: float) -> None:
        """Ask why a thing is where it is; while something else goes on it is not asked."""
        if not self.asking:
            self._ask("why", job, shop, {"thing": thing, "pitch": pitch})

    def _ask(self, task: str, job: Job, shop: Shop, more: dict[str, Any]) -> None:
        self.warm()
        self._task = task
        if self._worker is not None:
            self._worker.pipe.send((task, job, shop, more))
        self.changed.emit()

    def pump(self) -> bool:
        """Take what the process said; whether it is still at work."""
        while self._task and self._worker is not None:
            try:
                if not self._worker.pipe.poll():
                    break
                kind, what = self._worker.pipe.recv()
            except (EOFError, OSError):
                self._end("The search ended by itself; start it again.")
                break
            self._take(kind, what)
        return self.asking

    def _take(self, kind: str, what: Any) -> None:
        """Take one thing that the process said."""
        if kind == "told":
            if what.job is None and self.told is not None:
                what = msgspec.structs.replace(what, job=self.told.job)
            self.told = what
            if len(self.trace) < MOST_TRACED:
                self.trace.append((what.seconds, what.best, what.bound))
        elif kind == "done":
            self.result, self._task = what, ""
        elif kind == "why":
            self.reasons[what.thing], self._task = what, ""
        else:
            self._end(what, keep=True)
            return
        self.changed.emit()

    def choose(self, index: int) -> None:
        """Look at another of the layouts."""
        self.chosen = index
        self.changed.emit()

    def set(self, *, seconds: float | None = None, pitch: float | None = None) -> None:
        """Say how long the next run may take, and about how wide its cells are. [s, mm]"""
        self.seconds = self.seconds if seconds is None else seconds
        self.pitch = self.pitch if pitch is None else pitch
        self.changed.emit()

    def taken(self, job: Job) -> None:
        """One of the layouts is the one in hand now: the run is of this job."""
        self.of, self.reasons = job, {}

    def forget(self) -> None:
        """Another job is in hand: what was found is of no use any more."""
        if self.asking:
            self.stop()
        self._clear(None)

    def _clear(self, job: Job | None) -> None:
        """Nothing is found yet, of this job."""
        self.told, self.result, self.of, self.trace, self.chosen = None, None, job, [], 0
        self.reasons, self.trouble = {}, ""

    def stop(self) -> None:
        """End the run at once; the best so far stays to be looked at."""
        if self.asking:
            self._end("")

    def _end(self, words: str, *, keep: bool = False) -> None:
        """Nothing goes on any more; the process goes too, unless it is kept."""
        self._task, self.trouble = "", words
        if not keep:
            self._kill()
        self.changed.emit()

    def _kill(self) -> None:
        """Let the process go."""
        if self._worker is not None:
            self._worker.close()
            self._worker = None

    def close(self) -> None:
        """Let the process go, as the window closes."""
        self._task = ""
        self._kill()
