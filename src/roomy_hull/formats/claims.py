"""Claims: who has a file in hand. Each is a small file that its holder keeps locked for as long as it runs.

A lock ends with its process, however that ends, so that a claim whose lock can be had is stale. Nothing is kept from
anybody by a claim: it names its holder, and what is done about that is the person's to say.
"""

import contextlib
import fcntl
import json
import math
import os
import time
from pathlib import Path
from typing import NamedTuple

from roomy_hull.formats.whole import host


class Holder(NamedTuple):
    """Who has a file in hand: on which machine, since when (seconds since 1970)."""

    user: str
    machine: str
    since: float

    def words(self) -> str:
        """Say who, where and since when."""
        when = time.strftime("%H:%M", time.localtime(self.since)) if 0 < self.since < 4e9 else "?"
        return f"{self.user} on {self.machine}, since {when}"


class Claim:
    """A claim to one file.

    Parameters
    ----------
    path : Path
        Of the claim's own file.
    """

    def __init__(self, path: Path) -> None:
        self.path = path
        self._handle: int | None = None
        self.left: Holder | None = None
        """Whose claim was found left behind by a process that is gone, when this one was taken."""

    @classmethod
    def to(cls, target: Path) -> "Claim":
        """The claim to a job file, hidden beside it."""
        real = Path(os.path.realpath(target))
        return cls(real.with_name(f".{real.name}.open"))

    @property
    def held(self) -> bool:
        """Whether it is ours."""
        return self._handle is not None

    def take(self) -> Holder | None:
        """Take the file in hand.

        Returns
        -------
        Holder or None
            Who has it already; none where it is ours now, or the place allows no claims.
        """
        if self._handle is not None:
            return None
        try:
            handle = os.open(self.path, os.O_RDWR | os.O_CREAT, 0o666)
        except OSError:
            return None  # a read-only place: nobody can write there
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            holder = _read(handle)
            os.close(handle)
            return holder
        before = _read(handle) if os.fstat(handle).st_size else None
        self.left = before if before is not None and before.since > 0 else None
        with contextlib.suppress(OSError):
            os.ftruncate(handle, 0)
            os.write(
                handle,
                json.dumps({"user": _user(), "machine": host(), "since": time.time()}).encode(),
            )
        self._handle = handle
        return None

    def holder(self) -> Holder | None:
        """Who else has the file in hand; none where nobody has, or it is ours."""
        if self._handle is not None:
            return None
        try:
            handle = os.open(self.path, os.O_RDWR)
        except OSError:
            return None
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            return _read(handle)
        else:
            return None
        finally:
            os.close(handle)

    def give_up(self) -> None:
        """Leave the file to others."""
        if self._handle is None:
            return
        with contextlib.suppress(OSError):
            os.unlink(self.path)
        with contextlib.suppress(OSError):
            os.close(self._handle)
        self._handle = None


def _user() -> str:
    """The person's name on this machine."""
    return os.environ.get("LOGNAME") or os.environ.get("USER") or f"user {os.getuid()}"


def _read(handle: int) -> Holder:
    """Read who holds a claim; somebody where it does not say."""
    try:
        raw = json.loads(os.pread(handle, 2000, 0).decode("utf-8"))
        since = float(raw["since"])
        return Holder(
            str(raw["user"])[:60], str(raw["machine"])[:60], since if math.isfinite(since) else 0.0
        )
    except (OSError, ValueError, KeyError, TypeError, RecursionError):
        return Holder("somebody", "some machine", 0.0)
