"""A job in a folder of its own, and sessions that have it open."""

from pathlib import Path

import pytest

from roomy_hull.formats import jobfile
from roomy_hull.formats.settings import Settings
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.session.files import open_job
from roomy_hull.session.session import Session
from roomy_hull.verdict.verdict import Verdict


@pytest.fixture
def path(tmp_path: Path, demo: Job) -> Path:
    found = tmp_path / "job" / "ute.hull.json"
    jobfile.save(demo, found)
    return found


def opened(path: Path, demo: Job, known: Verdict, name: str) -> Session:
    where = path.parent.parent
    session = Session(demo, Settings(where / f"c-{name}", where / f"s-{name}"), known=known)
    open_job(session, path)
    return session


def renamed(session: Session, key: str, name: str) -> None:
    assert session.edit("rename", edits.changed(session.job, key, name=name))
