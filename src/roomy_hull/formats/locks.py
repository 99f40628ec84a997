"""Locks: who has a file in hand. Each is a small file that its holder keeps locked for as long as it runs.

A lock ends with its process, however that ends, so that a lock file that nobody holds is stale. Nothing is kept from
anybody by a lock: it names its holder, and what is done about that is the person's to say.
"""

import contextlib
import errno
import fcntl
import json
import math
import os
import time
from pathlib import Path
from typing import NamedTuple

from roomy_hull.formats.atomic import host, open_own


class Holder(NamedTuple):
    """Who has a file in hand: on which machine, since when (seconds since 1970)."""

    user: str
    machine: str
    since: float

    def words(self) -> str:
        """Say who, where and since when."""
        when = time.strftime("%H:%M", time.localtime(self.since)) if 0 < self.since < 4e9 else "?"
        return f"{self.user} on {self.machine}, since {when}"


class Lock:
    """A lock on one file: who has it in hand.

    Args:
        path: Of the lock's own file.
    """

    def __init__(self, path: Path) -> None:
        self.path = path
        self._handle: int | None = None
        self.trouble = ""
        """Why others cannot see that the file is in hand here, where they cannot; in words."""
        self.left: Holder | None = None
        """Whose lock was found left behind by a process that is gone, when this one was taken."""

    @classmethod
    def to(cls, target: Path) -> "Lock":
        """The lock of a job file, hidden beside it."""
        real = Path(os.path.realpath(target))
        return cls(real.with_name(f".{real.name}.open"))

    @property
    def held(self) -> bool:
        """Whether it is ours."""
        return self._handle is not None

    def take(self) -> Holder | None:
        """Take the file in hand.

        Returns: Who has it already; none where it is ours now, or the place allows no locks: `trouble` then says so.
        """
        self.trouble = ""
        if self._handle is not None:
            return None
        for _ in range(TRIES):
            found = self._locked()
            if not isinstance(found, int):
                return found
            if not _is(found, self.path):
                # Its holder gave it up between our opening it and our having the lock: it is nobody's any more.
                os.close(found)
                continue
            if os.fstat(found).st_size:
                before = _read(found)
                self.left = before if before.since > 0 else None
            if os.access(self.path, os.W_OK, follow_symlinks=False) or not _gone(self.path):
                self._handle = found
                self._write()
                return None
            # Somebody else's, left behind in a folder that we may write to: it is gone now, and ours is made.
            os.close(found)
        self.trouble = UNSEEN.format("it goes from hand to hand")
        return None

    def _locked(self) -> int | Holder | None:
        """The lock's file, open and locked; or who has it locked; or none, where `trouble` says why."""
        try:
            handle = open_own(self.path, os.O_RDWR | os.O_CREAT)
        except OSError as trouble:
            self.trouble = UNSEEN.format(trouble.strerror)
            return None
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError as trouble:
            holder = _read(handle)
            os.close(handle)
            if trouble.errno in HELD:
                return holder
            self.trouble = UNSEEN.format(trouble.strerror)
            return None
        return handle

    def _write(self) -> None:
        """Say whose it is."""
        said = json.dumps({"user": _user(), "machine": host(), "since": time.time()}).encode()
        if self._handle is not None:
            try:
                os.ftruncate(self._handle, 0)
                os.pwrite(self._handle, said, 0)
            except OSError as trouble:
                self.trouble = UNSEEN.format(trouble.strerror)

    def holder(self) -> Holder | None:
        """Who else has the file in hand; none where nobody has, or it is ours."""
        if self._handle is not None:
            return None
        try:
            handle = open_own(self.path, os.O_RDWR)
        except OSError:
            return None
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError as trouble:
            return _read(handle) if trouble.errno in HELD else None
        else:
            return None
        finally:
            os.close(handle)

    def give_up(self) -> None:
        """Leave the file to others."""
        if self._handle is None:
            return
        # While it is still locked: nobody takes it between.
        with contextlib.suppress(OSError):
            if _is(self._handle, self.path):
                os.unlink(self.path)
        with contextlib.suppress(OSError):
            os.close(self._handle)
        self._handle = None


HELD = (errno.EWOULDBLOCK, errno.EACCES)
"""What a system says of a lock that somebody has; all else says that there are no locks."""
TRIES = 100


def _is(handle: int, path: Path) -> bool:
    """Whether an open file is still the one of that name."""
    try:
        there = os.stat(path, follow_symlinks=False)
    except OSError:
        return False
    return os.path.samestat(os.fstat(handle), there)


def _gone(path: Path) -> bool:
    """Whether a file could be taken away."""
    try:
        os.unlink(path)
    except OSError:
        return False
    return True


UNSEEN = "Others cannot see that you have it open ({}); saving still asks where they changed it."


def _user() -> str:
    """The person's name on this machine."""
    return os.environ.get("LOGNAME") or os.environ.get("USER") or f"user {os.getuid()}"


def _read(handle: int) -> Holder:
    """Read who holds a lock; somebody where it does not say."""
    try:
        raw = json.loads(os.pread(handle, 2000, 0).decode("utf-8"))
        since = float(raw["since"])
        return Holder(
            str(raw["user"])[:60], str(raw["machine"])[:60], since if math.isfinite(since) else 0.0
        )
    except (OSError, ValueError, KeyError, TypeError, RecursionError):
        return Holder("somebody", "some machine", 0.0)
