"""Processes killed while they save: the file is always the old or the new one, the previous one kept, nothing left over.

``python bench/kills.py [COUNT] [SEED]``: by hand, since each takes a fifth of a second. A short form is in
``tests/formats/test_whole_files.py``.
"""

import random
import signal
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import demo_job

WRITER = """
import sys
from pathlib import Path
from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import demo_job
import msgspec
path, n = Path(sys.argv[1]), int(sys.argv[2])
job = demo_job()
print("ready", flush=True)
while True:
    n += 1
    jobfile.save(msgspec.structs.replace(job, note=str(n)), path)
"""


def main() -> None:
    """Kill, look, and tell what is not as it should be."""
    count, seed = (int(a) for a in (sys.argv[1:] + ["100", "1"][len(sys.argv) - 1 :])[:2])
    rng = random.Random(seed)
    folder = Path(tempfile.mkdtemp())
    path = folder / "job.hull.json"
    for _ in range(2):
        jobfile.save(demo_job(), path)
    last, bad, left = 0, 0, 0
    for _ in range(count):
        writer = subprocess.Popen(
            [sys.executable, "-c", WRITER, str(path), str(last)], stdout=subprocess.PIPE, text=True
        )
        assert writer.stdout is not None
        writer.stdout.readline()
        time.sleep(rng.random() * 0.05)
        writer.send_signal(signal.SIGKILL)
        writer.wait()
        writer.stdout.close()
        notes = []
        for file in (path, path.with_name(path.name + ".previous")):
            try:
                notes.append(jobfile.load(file).note)
            except Exception as fault:  # every fault is a find
                print(f"{file.name}: {type(fault).__name__}: {fault}")
                bad += 1
        now = int(notes[0]) if notes and notes[0].isdigit() else last
        bad += now < last
        last = now
        left = max(left, len(list(folder.iterdir())) - 2)
    jobfile.save(demo_job(), path)
    over = sorted(p.name for p in folder.iterdir())
    print(
        f"{count} kills over {last} saves: {bad} bad; at most {left} left half written, after the next save {over}"
    )


if __name__ == "__main__":
    main()
