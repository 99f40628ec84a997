"""Shared by all tests: the demo job, a session and a window that keep nothing of the machine's."""

import os
import sys
from pathlib import Path
from typing import TYPE_CHECKING

import msgspec
import numpy as np  # ruff: ignore[unused-import]  # read before the program makes it lazy: tests read Shapely at once, which is built on it
import pytest
from hypothesis import HealthCheck, settings

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
sys.path.insert(0, str(Path(__file__).parent.parent / "bench"))

from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.settings import Settings
from roomy_hull.job.goods import Party
from roomy_hull.job.model import Job
from roomy_hull.job.plans import Plan
from roomy_hull.session.session import Session
from roomy_hull.verdict.verdict import Verdict, judge
from tests.sweeping import examples

if TYPE_CHECKING:
    from PyQt6.QtWidgets import QApplication

settings.register_profile(
    "project",
    deadline=None,
    max_examples=examples(60, 20),
    derandomize=True,
    database=None,
    suppress_health_check=[HealthCheck.function_scoped_fixture, HealthCheck.too_slow],
)
settings.load_profile("project")


@pytest.fixture(scope="session")
def qapp() -> "QApplication":
    """Our own application, with its fonts: the one of the whole run, whichever test comes first."""
    from roomy_hull.desktop.application import application

    return application()


@pytest.fixture(scope="session")
def stocked() -> Job:
    """The shipped demo job, with its goods and its party."""
    return demo_job()


@pytest.fixture(scope="session")
def demo() -> Job:
    """The shipped demo job before goods, party, offers, plan and log: every unit holds what its own figure says."""
    return msgspec.structs.replace(
        demo_job(), goods=(), party=Party(), offers=(), plan=Plan(), log=()
    )


@pytest.fixture(scope="session")
def stocked_verdict(stocked: Job) -> Verdict:
    """The shipped demo job, judged."""
    return judge(stocked)


@pytest.fixture(scope="session")
def demo_verdict(demo: Job) -> Verdict:
    """The demo job, judged."""
    return judge(demo)


@pytest.fixture
def keeping(tmp_path: Path) -> Settings:
    """Preferences and autosaves in a folder of the test's own."""
    return Settings(tmp_path / "config", tmp_path / "state")


@pytest.fixture
def session(demo: Job, demo_verdict: Verdict, keeping: Settings) -> Session:
    """A session with the demo job."""
    return Session(demo, keeping, known=demo_verdict)
