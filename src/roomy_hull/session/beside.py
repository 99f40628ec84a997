"""Beside the window: a process of its own works out what is long, one verdict at a time, the newest job next."""

from __future__ import annotations

import gc
import sys
from typing import TYPE_CHECKING, Any, NamedTuple

import msgspec

from roomy_hull.core.errors import UserError
from roomy_hull.core.value import Value
from roomy_hull.session.worker import Worker

if TYPE_CHECKING:
    from roomy_hull.job.model import Job
    from roomy_hull.session.worker import Pipe
    from roomy_hull.shop.shop import Shop
    from roomy_hull.verdict.verdict import Verdict


class Done(NamedTuple):
    """What was worked out of a job: the results of the long studies by key, or the whole; none where it could not be."""

    job: Job
    shop: Shop
    results: dict[str, Any] | None
    whole: Verdict | None = None


def work(pipe: Pipe) -> None:
    """Judge whatever job is sent, until the pipe is closed; runs in a process of its own.

    Args:
        pipe: Takes (job, shop, whole), the shop none where it is the one before; gives the results of the long studies
            by key, or the whole verdict, none where the job cannot be judged.
    """
    # Until the first verdict there is no garbage worth looking for.
    gc.disable()
    # Read while nobody waits.
    from roomy_hull.verdict.registry import studies  # ruff: ignore[import-outside-top-level]
    from roomy_hull.verdict.verdict import judge  # ruff: ignore[import-outside-top-level]

    long = [s.key for s in studies() if s.settles]
    verdict: Verdict | None = None
    shop: Shop | None = None
    while True:
        try:
            job, other, whole = pipe.recv()
        except (EOFError, OSError):
            return
        shop = other or shop
        found: Any = None
        try:
            if verdict is not None:
                job = shared(job, verdict.job)
            verdict = judge(job, verdict, shop=shop)
            found = verdict if whole else {key: verdict.results[key] for key in long}
        except UserError:
            pass  # the window finds the same, and tells it
        except Exception:  # whatever it is, the window lives on
            sys.excepthook(*sys.exc_info())
        try:
            pipe.send(found)
        except (OSError, ValueError):
            return
        if not gc.isenabled():
            gc.freeze()
            gc.enable()


def shared(new: Any, old: Any) -> Any:
    """A value with every part that equals its counterpart in an earlier one replaced by that: known again by identity.

    Args:
        new, old: Values of one type: parts of a tuple are counterparts by their ids, or by their places where they have
            none.
    """
    if new == old:
        return old
    if isinstance(new, tuple) and isinstance(old, tuple):
        known = {getattr(o, "id", n): o for n, o in enumerate(old)}
        rows = [shared(one, known.get(getattr(one, "id", n))) for n, one in enumerate(new)]
        return type(new)(*rows) if hasattr(new, "_fields") else tuple(rows)
    if isinstance(new, Value) and type(new) is type(old):
        parts = {f: (getattr(new, f), getattr(old, f)) for f in new.__struct_fields__}
        return msgspec.structs.replace(new, **{f: shared(*pair) for f, pair in parts.items()})
    return new


class Beside:
    """The process, the job that it has, and the newest that waits for it."""

    def __init__(self) -> None:
        self._worker: Worker | None = None
        self._asked: Job | None = None
        self._next: tuple[Job, Shop, bool] | None = None
        self._shop: Shop | None = None

    @property
    def working(self) -> bool:
        """Whether anything is still to come."""
        return self._asked is not None

    def warm(self) -> None:
        """Have the process ready before it is needed."""
        if self._worker is None or not self._worker.alive:
            self.close()
            self._worker, self._shop = Worker(__name__), None

    def ask(self, job: Job, shop: Shop, *, whole: bool = False) -> None:
        """Have a job worked out: at once, or next where another is in hand; one that waited already is forgotten.

        Args:
            whole: Whether the whole verdict is wanted, as when a window opens; else the long studies' results only.
        """
        if self._asked is not None:
            same = job is self._asked and shop is self._shop
            self._next = None if same else (job, shop, whole)
            return
        self.warm()
        self._asked = job
        new, self._shop = shop is not self._shop, shop
        try:
            if self._worker is not None:
                self._worker.pipe.send((job, shop if new else None, whole))
        except OSError:
            self.close()

    def taken(self) -> Done | None:
        """What the process has sent, if anything; with it the next job goes on its way."""
        if self._asked is None or self._shop is None:
            return None
        job, shop, found = self._asked, self._shop, None
        if self._worker is None:
            found = Done(job, shop, None)
        else:
            try:
                if self._worker.pipe.poll():
                    said = self._worker.pipe.recv()
                    found = (
                        Done(job, shop, said)
                        if said is None or isinstance(said, dict)
                        else Done(job, shop, said.results, said)
                    )
            except (EOFError, OSError):
                self.close()
                found = Done(job, shop, None)
        if found is not None:
            self._asked = None
            if self._next is not None:
                waiting, self._next = self._next, None
                self.ask(waiting[0], waiting[1], whole=waiting[2])
        return found

    def wait(self) -> None:
        """Wait until the process has something to say, or is gone."""
        if self._asked is not None and self._worker is not None:
            self._worker.pipe.poll(None)

    def close(self) -> None:
        """Let the process go."""
        if self._worker is not None:
            self._worker.close()
            self._worker = None
