"""Names are text: whatever a job's names hold, nothing of the window takes them for mark-up, opens a file or fetches."""

import contextlib
import sys
import threading
from collections.abc import Iterator

import msgspec
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QLabel,
    QMessageBox,
    QTableWidget,
    QTextBrowser,
    QWidget,
)
from pytestqt.qtbot import QtBot

from roomy_hull.desktop import application, dialogs
from roomy_hull.desktop.window import MainWindow
from roomy_hull.desktop.work import Work
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.settings import Settings
from roomy_hull.job.model import Job
from roomy_hull.session.pages.table import STAGES
from roomy_hull.session.session import Session

BAIT = "<img src='/dev/zero'>&amp;<b>x"


def baited() -> Job:
    """The demo with a name that looks like mark-up on everything that has one."""
    job = demo_job()
    assert job.body.canopy is not None
    canopy = job.body.canopy
    canopy = canopy.but(name=BAIT, bays=tuple(b.but(name=BAIT) for b in canopy.bays))
    return msgspec.structs.replace(
        job, name=BAIT, note=BAIT, vehicle=msgspec.structs.replace(job.vehicle, name=BAIT),
        body=job.body.but(canopy=canopy),
        units=tuple(u.but(name=BAIT) for u in job.units), carried=tuple(c.but(name=BAIT) for c in job.carried),
        scenarios=tuple(s.but(name=BAIT) for s in job.scenarios), sets=tuple(s.but(name=BAIT) for s in job.sets),
        runs=tuple(r.but(name=BAIT) for r in job.runs),
    )  # fmt: skip


def texts(widget: QWidget) -> Iterator[tuple[str, str]]:
    """Every text of a widget that Qt may take for mark-up, with where it stands."""
    yield "tooltip", widget.toolTip()
    yield "what's this", widget.whatsThis()
    if isinstance(widget, QLabel) and widget.textFormat() != Qt.TextFormat.PlainText:
        yield "label", widget.text()
    if isinstance(widget, QMessageBox) and widget.textFormat() != Qt.TextFormat.PlainText:
        yield "message", widget.text()
    if isinstance(widget, QTextBrowser):
        yield "browser", "<img" if "/dev/zero" in widget.toHtml() and "src=&quot;" not in widget.toHtml() and (
            'src="/dev/zero' in widget.toHtml()) else ""  # fmt: skip
    if isinstance(widget, QAbstractItemView):
        model = widget.model()
        for row in range(model.rowCount() if model is not None else 0):
            for column in range(widget.columnCount() if isinstance(widget, QTableWidget) else 1):
                tip = model.index(row, column).data(Qt.ItemDataRole.ToolTipRole)  # type: ignore[union-attr]
                yield "item's tooltip", str(tip or "")
    if isinstance(widget, QTableWidget):
        for column in range(widget.columnCount()):
            head = widget.horizontalHeaderItem(column)
            yield "head's tooltip", head.toolTip() if head is not None else ""


def taken_for_markup(text: str) -> bool:
    """Whether Qt would make a picture of some words."""
    return Qt.mightBeRichText(text) and "<img" in text  # type: ignore[attr-defined]


@pytest.fixture
def window(qtbot: QtBot, tmp_path) -> MainWindow:  # type: ignore[no-untyped-def]
    application.application()
    session = Session(baited(), Settings(tmp_path / "c", tmp_path / "s"))
    found = application.window_for(session)
    qtbot.addWidget(found)
    found.show()
    found.settle()
    return found


def test_no_widget_takes_a_name_for_markup(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    walked, seen = 0, 0
    for one in STAGES:
        session.view.set(stage=one.title)
        for page in one.pages or ():
            with contextlib.suppress(Exception):
                window.page(one.title, page.title)
        qtbot.wait(5)
        for key in (session.job.units[0].id, session.job.carried[0].id):
            session.selection.select(key)
            for widget in window.findChildren(QWidget):
                walked += 1
                for where, text in texts(widget):
                    seen += "img" in text
                    assert not taken_for_markup(text), (type(widget).__name__, where, text[:120])
    assert walked > 1000
    assert seen > 20


def test_a_fault_in_another_thread_is_told_in_the_windows_own(
    window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    session = window.session
    monkeypatch.setattr(sys, "excepthook", sys.excepthook)
    application.catch_faults(session, window)
    threads: list[object] = []
    say = session.say
    monkeypatch.setattr(
        session,
        "say",
        lambda *a, **k: (threads.append(threading.current_thread()), say(*a, **k)),  # type: ignore[func-returns-value]
    )

    def fails(_step: object) -> None:
        raise RuntimeError("boom")

    work = Work(fails, window)
    with qtbot.waitSignal(work.failed, timeout=5000):
        work.start()
    qtbot.waitUntil(lambda: bool(threads), timeout=5000)
    assert threads == [threading.main_thread()]
    assert "Your work is kept" in session.messages.text
    assert "boom" in (session.settings.state / "roomy-hull.log").read_text()


def test_a_save_that_fails_in_any_way_keeps_the_window_open(
    window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    session = window.session
    session.edit("note", msgspec.structs.replace(session.job, note="changed"))
    monkeypatch.setattr(QMessageBox, "question", lambda *_a, **_k: QMessageBox.StandardButton.Save)

    def broken(_session: object) -> None:
        raise RuntimeError("no such thing")

    with monkeypatch.context() as patch, qtbot.captureExceptions() as faults:
        patch.setattr(dialogs, "do", lambda *_a, **_k: broken(session))
        window.close()
    assert window.isVisible()
    assert session.history.dirty
    assert len(faults) == 1
    session.history.mark_saved()
