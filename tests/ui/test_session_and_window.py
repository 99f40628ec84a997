"""The session under the real window: what is told when, and what outlives a window."""

import gc
from pathlib import Path

import msgspec
import pytest
from PyQt6.QtCore import QCoreApplication, QEvent, QPointF
from PyQt6.QtWidgets import QMessageBox
from pytestqt.qtbot import QtBot

from roomy_hull import __version__
from roomy_hull.core.errors import JobFileError, PictureError
from roomy_hull.core.signal import Signal
from roomy_hull.desktop import shots
from roomy_hull.desktop.application import window_for
from roomy_hull.desktop.window import MainWindow
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.session import session as module
from roomy_hull.session.actions import editing
from roomy_hull.session.doing import do
from roomy_hull.session.files import save_job
from roomy_hull.session.session import Session
from roomy_hull.verdict.verdict import judge
from tests.ui.conftest import Hand, middle, millimetres


def gone(window: MainWindow) -> None:
    """Close a window, and let Qt take it down."""
    window.session.history.mark_saved()
    window.close()
    window.deleteLater()
    QCoreApplication.sendPostedEvents(window, QEvent.Type.DeferredDelete.value)


def test_a_session_outlives_its_window(qapp: object, session: Session) -> None:
    made = window_for(session)
    made.show()
    made.settle()
    for stage in ("Survey", "Body", "Loads", "Cut", "Fit-out"):
        session.view.set(stage=stage)
    for page in ("Together", "Run-through", "In and out", "Variants", "Solid", "Drawing"):
        session.view.turn_to("Fit-out", page)
    gone(made)
    editing.set_field(session, thing="tools", field="u", value=500.0)
    session.selection.select("tools")
    session.view.set(station="left", dark=True)
    session.say("Nobody is there.")
    session.undo()
    assert session.verdict.job is session.job
    del made
    gc.collect()
    editing.set_field(session, thing="tools", field="u", value=500.0)
    assert session.job.thing("tools").u == 500  # type: ignore[union-attr]


def test_a_window_that_is_left_to_itself_goes(qapp: object, session: Session) -> None:
    made = window_for(session)
    made.show()
    made.settle()
    made.close()
    del made
    gc.collect()
    editing.set_field(session, thing="tools", field="u", value=500.0)
    assert session.history.undo_words()


def test_saving_tells_that_it_is_saved_and_of_no_changed_job(
    session: Session, tmp_path: Path
) -> None:
    told: list[str] = []
    session.changed.connect(lambda: told.append("changed"))
    session.saved.connect(lambda: told.append("saved"))
    editing.set_field(session, thing="tools", field="u", value=500.0)
    assert told == ["changed", "saved"]
    told.clear()
    save_job(session, tmp_path / "a.hull.json")
    assert told == ["saved"]


def test_a_saved_job_is_titled_so(window: MainWindow, tmp_path: Path) -> None:
    editing.set_field(window.session, thing="tools", field="u", value=500.0)
    assert window.isWindowModified()
    save_job(window.session, tmp_path / "mine.hull.json")
    assert not window.isWindowModified()
    assert "mine.hull.json" in window.windowTitle()


def test_letting_go_judges_once_what_rested_meanwhile(
    window: MainWindow, hand: Hand, monkeypatch: pytest.MonkeyPatch
) -> None:
    judged: list[Job] = []

    def counted(job: Job, *rest: object, **more: object) -> object:
        judged.append(job)
        return judge(job, *rest, **more)  # type: ignore[arg-type]  # handed on

    monkeypatch.setattr(module, "judge", counted)
    at = middle(window, "tools")
    hand.press(at)
    for n in range(1, 5):
        hand.move(at + _right(window, 25 * n))
    moves = len(judged)
    assert 1 <= moves <= 4
    hand.release(at + _right(window, 100))
    # What is long rests while the hand moves: once it lets go, it is judged, and only then.
    assert len(judged) == moves + 1
    assert window.session.verdict.job is window.session.job
    assert window.session.history.undo_words().startswith("move Tool drawer")


def _right(window: MainWindow, mm: float) -> QPointF:
    """A way to the right on the screen. [mm]"""

    return QPointF(millimetres(window, mm), 0)


def test_putting_down_from_the_stores_judges_once(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch, qtbot: QtBot
) -> None:
    judged: list[Job] = []

    def counted(job: Job, *rest: object, **more: object) -> object:
        judged.append(job)
        return judge(job, *rest, **more)  # type: ignore[arg-type]  # handed on

    window.session.edit("room", edits.removed(window.session.job, "bedding"))
    where = middle(window, "camp")
    monkeypatch.setattr(module, "judge", counted)
    window.ground.carry("shelf", where)
    before = len(judged)
    assert window.ground.drop()
    assert len(judged) == before + 1


def test_signals_fire_on_a_real_change_only(session: Session) -> None:
    told: list[str] = []
    session.view.changed.connect(lambda: told.append("view"))
    session.selection.changed.connect(lambda: told.append("selection"))
    session.view.set(station=session.look.station)
    session.selection.select("")
    assert told == []
    session.view.set(station="left")
    session.selection.select("tools")
    session.selection.select("tools")
    assert told == ["view", "selection"]


def test_a_signal_lets_go_of_what_is_gone() -> None:
    class Ear:
        def __init__(self) -> None:
            self.heard = 0

        def hear(self) -> None:
            self.heard += 1

    signal, ear, other = Signal(), Ear(), Ear()
    signal.connect(ear.hear)
    ended = signal.connect(other.hear)
    signal.emit()
    assert (ear.heard, other.heard) == (1, 1)
    ended.end()
    ended.end("Qt sends the object along")
    del ear
    gc.collect()
    signal.emit()
    assert other.heard == 1
    assert not signal._connections


def test_fixes_are_computed_once_for_each_verdict(
    session: Session, monkeypatch: pytest.MonkeyPatch
) -> None:
    asked: list[str] = []
    real = module.fixes  # type: ignore[attr-defined]

    def counted(verdict: object, finding: object) -> object:
        asked.append("x")
        return real(verdict, finding)  # type: ignore[arg-type]  # handed on

    monkeypatch.setattr(module, "fixes", counted)
    finding = session.verdict.findings[0]
    assert session.fixes(finding) == session.fixes(finding)
    assert len(asked) == 1
    editing.set_field(session, thing="tools", field="u", value=500.0)
    session.fixes(next(iter(session.verdict.findings)))
    assert len(asked) == 2


def test_a_picture_that_cannot_be_written_is_no_job_file(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("in the way")
    with pytest.raises(PictureError) as caught:
        shots.write(None, tmp_path / "file" / "below")
    assert not isinstance(caught.value, JobFileError)
    assert caught.value.remedy


def test_findings_stand_in_one_order_whatever_came_before() -> None:
    job = demo_job()
    verdict = judge(job)
    for key, changes in (
        ("tools", {"u": 450.0}), ("sample-fridge", {"u": 75.0}), ("tools", {"contents": 130.0}),
        ("bedding", {"w": 500.0}), ("sample-fridge", {"u": 25.0}), ("camp", {"u": 1000.0}), ("water", {"w": -3.0}),
    ):  # fmt: skip
        job = edits.changed(job, key, **changes)
        verdict = judge(job, verdict)
        assert verdict.findings == judge(job).findings
    tray = msgspec.structs.replace(job.body.tray, length=2100.0)
    job = msgspec.structs.replace(job, body=msgspec.structs.replace(job.body, tray=tray))
    assert judge(job, verdict).findings == judge(job).findings


def test_about_says_the_version_and_what_it_never_does(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    told: list[str] = []
    monkeypatch.setattr(
        QMessageBox, "about", lambda _parent, title, text: told.append(f"{title}: {text}")
    )
    do(window.session, "help.about")
    assert len(told) == 1
    assert __version__ in told[0]
    assert "never certifies" in told[0]
    assert "General Public License" in told[0]
