"""The window while something long is worked out: it answers at once, marks what is of a moment ago, and then tells."""

from collections.abc import Iterator

import pytest
from PyQt6.QtCore import Qt
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.widgets.page_bar import WAITING
from roomy_hull.desktop.window import MainWindow
from roomy_hull.formats.settings import Settings
from roomy_hull.job.model import Job
from roomy_hull.session.beside import Beside
from roomy_hull.session.pages.table import STAGES
from roomy_hull.session.session import Session
from roomy_hull.verdict.verdict import judge

from .conftest import opened


@pytest.fixture
def window(qtbot: QtBot, stocked: Job, keeping: Settings) -> Iterator[MainWindow]:
    """A window as the program opens it: nothing long is known yet."""
    session = Session(stocked, keeping, whole=False)
    session.settle_beside(Beside())
    yield from opened(qtbot, session)


def settle(window: MainWindow) -> None:
    session = window.session
    assert session.beside is not None
    while session.beside.working or session.known.held:
        session.beside.wait()
        session.pump()


def waiting(window: MainWindow) -> str:
    bar = window.stages.stage("Access").bar
    return str(bar.waiting.text())


def test_every_page_stands_before_anything_long_is_known(window: MainWindow) -> None:
    session = window.session
    assert session.known.held
    for stage in STAGES:
        for page in stage.pages:
            session.view.turn_to(stage.title, page.title)
            assert window.shown().isVisible()
    session.view.turn_to("Access", "Reach and sight")
    assert waiting(window) == WAITING
    settle(window)
    assert waiting(window) == ""
    assert session.known.findings == judge(session.job).findings


def test_a_key_moves_a_unit_at_once_and_access_follows(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    settle(window)
    session.view.turn_to("Access", "Moves")
    session.view.turn_to("Fit-out", "Drawing")
    session.selection.select("net-drawer")
    was, u = session.known, session.job.thing("net-drawer").u  # type: ignore[union-attr]
    window.ground.setFocus()
    qtbot.keyClick(window.ground, Qt.Key.Key_Left)
    assert session.job.thing("net-drawer").u != u  # type: ignore[union-attr]
    assert session.known.fit is not was.fit
    assert session.known.access is was.access
    assert waiting(window) == WAITING
    settle(window)
    assert waiting(window) == ""
    assert session.known.access is not was.access
