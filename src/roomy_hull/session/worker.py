"""A process of our own beside the window: it is sent values, and sends values back."""

from __future__ import annotations

import contextlib
import fcntl
import os
import pickle  # ruff: ignore[suspicious-pickle-import]  # between this program's own processes only
import select
import subprocess  # ruff: ignore[suspicious-subprocess-import]  # starts this program's own interpreter only
import sys
from typing import IO, Any

HEAD = 8
"""Before each value stands its length, in so many bytes."""
ROOM = 1 << 20
"""A job of this size is put down without waiting until the other side reads it. [bytes]"""
F_SETPIPE_SZ = 1031
"""Linux, fcntl.h: how much a pipe holds."""


class Pipe:
    """Values between two processes of this program.

    Args:
        reads, writes: The files' numbers.
    """

    def __init__(self, reads: int, writes: int) -> None:
        self._reads, self._writes = reads, writes

    def send(self, value: Any) -> None:
        """Send a value; OSError where nobody is there."""
        body = pickle.dumps(value, pickle.HIGHEST_PROTOCOL)
        rest = memoryview(len(body).to_bytes(HEAD, "big") + body)
        while rest:
            rest = rest[os.write(self._writes, rest) :]

    def recv(self) -> Any:
        """Wait for a value; EOFError where none will come."""
        size = int.from_bytes(self._exactly(HEAD), "big")
        return pickle.loads(self._exactly(size))  # ruff: ignore[suspicious-pickle-usage]  # from our own process

    def poll(self, seconds: float | None = 0.0) -> bool:
        """Whether a value or the end has come; waited for so long, or for ever."""
        return bool(select.select([self._reads], [], [], seconds)[0])

    def _exactly(self, size: int) -> bytes:
        found = bytearray()
        while len(found) < size:
            some = os.read(self._reads, size - len(found))
            if not some:
                raise EOFError
            found += some
        return bytes(found)


class Worker:
    """A process that runs one function, which is given the pipe to us; it ends with us.

    Args:
        module: Where its `work(pipe)` is.
    """

    def __init__(self, module: str) -> None:
        code = f"from roomy_hull.session import worker; worker.serve({module!r})"
        # -P: a file of the folder one is in is never taken for a module.
        self._process = subprocess.Popen(  # ruff: ignore[subprocess-without-shell-equals-true]  # of ourselves
            [sys.executable, "-P", "-c", code], stdin=subprocess.PIPE, stdout=subprocess.PIPE, bufsize=0,
            start_new_session=True,
        )  # fmt: skip
        reads, writes = (end.fileno() for end in self._ends())
        self.pipe = Pipe(reads, writes)
        _widen(writes)

    @property
    def pid(self) -> int:
        """The process's number."""
        return self._process.pid

    @property
    def alive(self) -> bool:
        """Whether it runs."""
        return self._process.poll() is None

    def close(self) -> None:
        """Let it go."""
        self._process.kill()
        self._process.wait()
        for end in self._ends():
            end.close()

    def _ends(self) -> list[IO[bytes]]:
        """What is read from and written to."""
        return [end for end in (self._process.stdout, self._process.stdin) if end is not None]


def _widen(pipe: int) -> None:
    """Let a pipe hold a whole job, where the system allows it."""
    # Where it does not, a sender waits a little.
    with contextlib.suppress(OSError):
        fcntl.fcntl(pipe, F_SETPIPE_SZ, ROOM)


def serve(module: str) -> None:
    """Run a module's `work`, in the process itself; what is printed there goes to the messages."""
    import importlib  # ruff: ignore[import-outside-top-level]  # in this process only

    pipe = Pipe(0, os.dup(1))
    os.dup2(2, 1)
    importlib.import_module(module).work(pipe)
