"""The page Sheet in the real window: weighings, and the load sheet."""

from pathlib import Path

import msgspec
import pytest
from PyQt6.QtCore import QPoint, Qt
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.pages.loads.sheet import REST_MS, SheetPage
from roomy_hull.desktop.window import MainWindow
from roomy_hull.studies.loads import board
from tests.ui.loads import page, text

LEFT, CTRL = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ControlModifier


def test_a_weighing_is_entered_compared_and_taken_back(window: MainWindow, qtbot: QtBot) -> None:
    found = page(window, "Sheet")
    assert isinstance(found, SheetPage)
    qtbot.mouseClick(found.add_button, LEFT)
    assert "nothing was read" in window.session.messages.text.lower()
    before = window.session.verdict.loads.scenario("full").rear.value
    for key, value in (("front left", "742"), ("front right", "731"), ("rear left", "910"), ("rear right", "884"),
                       ("raised_by", "400"), ("raised_kg", "1890")):  # fmt: skip
        found.edits[key].setFocus()
        qtbot.keyClicks(found.edits[key], value)
    qtbot.mouseClick(found.add_button, LEFT)
    assert len(window.session.job.weighings) == 1
    after = window.session.verdict.loads.scenario("full").rear.value
    assert before < after < 1794
    assert text(found.table, 6, 0) == "Gross"
    assert text(found.table, 6, 2) == "3,267"
    assert "Raised-axle weighing" in found.words.text()
    assert "Found at the scales" in [
        x.words
        for x in board.why(
            window.session.verdict.assembly,
            window.session.verdict.loads,
            window.session.scenario(),
            "rear",
        ).lines
    ]
    qtbot.mouseClick(found.counts, LEFT, pos=QPoint(8, found.counts.height() // 2))
    assert not window.session.job.weighings[0].counts
    assert window.session.verdict.loads.scenario("full").rear.value == pytest.approx(before)
    qtbot.mouseClick(found.drop_button, LEFT)
    assert window.session.job.weighings == ()


def test_the_sheet_is_written_where_one_says(
    window: MainWindow, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    found = page(window, "Sheet")
    assert isinstance(found, SheetPage)
    assert "Load sheet: Brackwater Bird Survey" in found.text.toPlainText()
    monkeypatch.setattr(window.session.asker, "folder", lambda words: tmp_path)
    qtbot.mouseClick(found.write_button, LEFT)
    assert (tmp_path / "load-sheet.pdf").exists()
    assert "load sheet is written" in window.session.messages.text
    monkeypatch.setattr(
        window.session.asker, "folder", lambda words: tmp_path / "load-sheet.csv" / "below"
    )
    qtbot.mouseClick(found.write_button, LEFT)
    assert window.session.messages.trouble


def test_a_sheet_that_is_left_before_its_text_is_written_has_it_on_coming_back(
    window: MainWindow, qtbot: QtBot
) -> None:
    found = page(window, "Sheet")
    assert isinstance(found, SheetPage)
    session = window.session
    session.edit("Rename", msgspec.structs.replace(session.job, name="Reed Bed Count"))
    session.view.set(stage="Survey")
    qtbot.wait(2 * REST_MS)
    assert "Reed Bed Count" not in found.text.toPlainText()  # nobody sees it: nothing was laid out
    session.view.turn_to("Loads", "Sheet")
    qtbot.waitUntil(lambda: "Load sheet: Reed Bed Count" in found.text.toPlainText())
