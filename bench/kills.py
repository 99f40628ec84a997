"""Processes killed while they save: the file is always the old or the new one, the previous one kept, nothing left over.

``python bench/kills.py [COUNT] [SEED]``: by hand. A short form is in ``tests/formats/test_whole_files.py``.
"""

import os
import random
import signal
import sys
import tempfile
import time
from pathlib import Path
from typing import NoReturn

import msgspec

from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.model import Job

LONGEST = 0.02
"""The latest instant of a kill, some four saves after the first. [s]"""
EVERY = 500
"""So often it is looked whether the next save clears what was left."""


def write(job: Job, path: Path, n: int, ready: int) -> NoReturn:
    """Save again and again until killed."""
    os.write(ready, b".")
    while True:
        n += 1
        jobfile.save(msgspec.structs.replace(job, note=str(n)), path)


def killed(job: Job, path: Path, last: int, after: float) -> None:
    """Kill a process of its own while it saves."""
    heard, ready = os.pipe()
    child = os.fork()
    if child == 0:
        write(job, path, last, ready)
    os.read(heard, 1)
    time.sleep(after)
    os.kill(child, signal.SIGKILL)
    os.waitpid(child, 0)
    os.close(heard)
    os.close(ready)


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
    for n in range(count):
        killed(job, path, last, rng.random() * LONGEST)
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
    print(
        f"{count} kills over {last} saves: {bad} bad; at most {left} left half written, {over} after the next save"
    )


if __name__ == "__main__":
    main()
