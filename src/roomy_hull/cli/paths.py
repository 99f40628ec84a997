"""The files that words of the command line name."""

import sys
from pathlib import Path

from roomy_hull.cli.codes import DEMO
from roomy_hull.core.shipped import FOLDER
from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.model import Job


def job_path(word: str) -> Path | None:
    """The file that a word names; none for the demo job (a file so called is ./demo)."""
    return None if word == DEMO else shipped_path(word) or Path(word)


def shipped_path(word: str) -> Path | None:
    """The file of a demo job that is named as ``demo:lowfold``; none for other words."""
    if not word.startswith(f"{DEMO}:"):
        return None
    name = word.partition(":")[2]
    demo_job(name)
    return FOLDER / "demo" / f"{name}.hull.json"


def job_of(word: str) -> Job:
    """Read the job that a word names."""
    path = job_path(word)
    if path is None:
        return demo_job()
    job, news = jobfile.opened(path)
    for words in news:
        print(f"{path.name}: {words}", file=sys.stderr)
    return job
