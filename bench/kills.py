"""Processes killed while they save: the file is always the old or the new one, the previous one kept, nothing left over.

``python bench/kills.py [COUNT] [SEED]``: by hand. A short form is in ``tests/formats/test_whole_files.py``.
The writer is slowed down at every call that it makes of the system, before and after, and writes in pieces, so that
nearly every kill falls within a save; how many fell within which call is told.
"""

import collections
import mmap
import os
import random
import signal
import sys
import tempfile
import time
from pathlib import Path
from typing import Any, NoReturn

import msgspec

from roomy_hull.formats import atomic, jobfile
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.model import Job

PAUSE = 0.003
"""So long it rests before and after each call. [s]"""
LONGEST = 0.4
"""The latest instant of a kill: some three slowed saves after the first. [s]"""
EVERY = 500
"""So often it is looked whether the next save clears what was left."""
CALLS = ("open", "write", "fsync", "chmod", "replace", "link", "unlink", "close", "listdir")
PIECES = 6


class Slowed:
    """The system's calls as the writer makes them, each slowed down, with its number noted while it goes on."""

    def __init__(self, seen: mmap.mmap) -> None:
        self._seen = seen

    def __getattr__(self, name: str) -> Any:
        """The call of that name."""
        real = getattr(os, name)
        if name == "fdopen":
            return lambda handle, mode: _Piecewise(real(handle, mode), self)
        return self.slow(name, real) if name in CALLS else real

    def slow(self, name: str, real: Any) -> Any:
        """A call slowed down."""

        def call(*values: Any, **more: Any) -> Any:
            self._seen[1] = CALLS.index(name) + 1
            time.sleep(PAUSE)
            found = real(*values, **more)
            time.sleep(PAUSE)
            self._seen[1] = 0
            return found

        return call


class _Piecewise:
    """A file that is written in pieces."""

    def __init__(self, file: Any, slowed: Slowed) -> None:
        self._file, self._slowed = file, slowed

    def __enter__(self) -> "_Piecewise":
        return self

    def __exit__(self, *_fault: object) -> None:
        self._file.close()

    def __getattr__(self, name: str) -> Any:
        return getattr(self._file, name)

    def write(self, data: bytes) -> int:
        """Write in pieces, each on the disk before the next."""
        step = len(data) // PIECES + 1
        for n in range(0, len(data), step):
            self._slowed.slow("write", self._file.write)(data[n : n + step])
            self._file.flush()
        return len(data)


def write(job: Job, path: Path, n: int, ready: int, seen: mmap.mmap) -> NoReturn:
    """Save again and again until killed; the first byte of what is seen says whether a save goes on."""
    vars(atomic)["os"] = Slowed(seen)  # as it looks to the writer
    os.write(ready, b".")
    while True:
        n += 1
        seen[0] = 1
        jobfile.save(msgspec.structs.replace(job, note=str(n)), path)
        seen[0] = 0


def killed(job: Job, path: Path, last: int, after: float) -> tuple[bool, str]:
    """Kill a process of its own while it saves; whether it fell within a save, and within which call."""
    heard, ready = os.pipe()
    seen = mmap.mmap(-1, 2)
    child = os.fork()
    if child == 0:
        write(job, path, last, ready, seen)
    os.read(heard, 1)
    time.sleep(after)
    os.kill(child, signal.SIGKILL)
    os.waitpid(child, 0)
    os.close(heard)
    os.close(ready)
    return bool(seen[0]), ("between two calls", *CALLS)[seen[1]]


def main() -> None:
    """Kill, look, and tell what is not as it should be."""
    count, seed = (int(a) for a in (sys.argv[1:] + ["100", "1"][len(sys.argv) - 1 :])[:2])
    rng = random.Random(seed)
    folder = Path(tempfile.mkdtemp())
    path = folder / "job.hull.json"
    job = demo_job()
    for _ in range(2):
        jobfile.save(job, path)
    last, bad, left, over = 0, 0, 0, 0
    within: collections.Counter[str] = collections.Counter()
    for n in range(count):
        saving, call = killed(job, path, last, rng.random() * LONGEST)
        within[call if saving else "outside a save"] += 1
        notes = []
        for file in (path, path.with_name(path.name + ".previous")):
            try:
                notes.append(jobfile.load(file).note)
            except Exception as fault:  # every fault is a find
                print(f"{file.name}: {type(fault).__name__}: {fault}", flush=True)
                bad += 1
        now = int(notes[0]) if notes and notes[0].isdigit() else last
        bad += now < last
        last = now
        left = max(left, len(list(folder.iterdir())) - 2)
        if n % EVERY == EVERY - 1:
            last += 1
            jobfile.save(msgspec.structs.replace(job, note=str(last)), path)
            over = max(over, len(list(folder.iterdir())) - 2)
            print(f"{n + 1}: {last} saves, {bad} bad", flush=True)
    told = ", ".join(f"{number} {where}" for where, number in within.most_common())
    print(f"{count} kills ({told}) over {last} saves: {bad} bad; at most {left} left half written, "
          f"{over} after the next save")  # fmt: skip


if __name__ == "__main__":
    main()
