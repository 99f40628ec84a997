"""Runs, board, signatures and weather in the real window."""

from pathlib import Path

import pytest
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtWidgets import QComboBox, QLineEdit
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.pages.fitout.solid import SolidPage
from roomy_hull.desktop.pages.services.board import BoardPage
from roomy_hull.desktop.pages.services.runs import RunsPage
from roomy_hull.desktop.pages.services.signing import SignaturesPage
from roomy_hull.desktop.window import MainWindow
from roomy_hull.kinds.board import Board, Instrument
from roomy_hull.session.actions import editing
from roomy_hull.session.doing import do
from tests.ui.conftest import Hand
from tests.ui.loads import text

LEFT = Qt.MouseButton.LeftButton


def instrument(window: MainWindow, which: str) -> Instrument:
    board = window.session.job.thing("fuses")
    assert isinstance(board, Board)
    return next(i for i in board.instruments if i.id == which)


def board_page(window: MainWindow) -> BoardPage:
    window.session.view.turn_to("Services", "Board", services={"chosen": ""})
    found = window.page("Services", "Board")
    assert isinstance(found, BoardPage)
    return found


def test_an_instrument_is_dragged_on_the_grid_as_one_step(window: MainWindow) -> None:
    page, session = board_page(window), window.session
    lies = page.picture.window()
    assert lies is not None
    hand, before = Hand(page.picture), instrument(window, "pump")
    start = lies.px((before.x, before.z))
    hand.press(start)
    assert session.look.services.chosen == "instruments.fuses.pump"
    for n in range(1, 9):
        hand.move(start + QPointF(n * lies.s, -n * lies.s))
    hand.release(start)
    now = instrument(window, "pump")
    assert (now.x, now.z) == (before.x + 10, before.z + 10)  # 8 mm, to the nearest of 5
    assert session.history.undo_words() == "move an instrument"
    do(session, "edit.undo")
    assert instrument(window, "pump") == before
    # Over another it is told, and nothing is lost.
    hand.press(start)
    other = instrument(window, "lights")
    hand.move(lies.px((other.x + 5, other.z)))
    hand.release(start)
    assert "lie over each other" in page.model.drawn(1.0)[0]
    do(session, "edit.undo")


def test_keys_card_and_buttons_of_the_board(window: MainWindow, qtbot: QtBot) -> None:
    page, session = board_page(window), window.session
    lies = page.picture.window()
    assert lies is not None
    before = instrument(window, "volts")
    qtbot.mouseClick(page.picture, LEFT, pos=lies.px((before.x, before.z)).toPoint())
    assert session.history.undo_words() == ""  # a click moves nothing
    page.picture.setFocus()
    qtbot.keyClick(page.picture, Qt.Key.Key_Up, Qt.KeyboardModifier.ShiftModifier)
    qtbot.keyClick(page.picture, Qt.Key.Key_Left)
    now = instrument(window, "volts")
    assert (now.x, now.z) == (before.x - 5, before.z + 1)
    edit = window.card.edit_of("units.fuses.instruments.volts.behind")
    assert isinstance(edit, QLineEdit)
    edit.setFocus()
    edit.selectAll()
    qtbot.keyClicks(edit, "150")
    qtbot.keyClick(edit, Qt.Key.Key_Return)
    assert "services.board_deep" in [f.code for f in session.verdict.findings]
    do(session, "edit.undo")
    editing.set_field(session, thing="fuses", field="width", value=400.0)
    what = page.what
    assert isinstance(what, QComboBox)
    what.setCurrentText("switch")
    qtbot.mouseClick(page.add, LEFT)
    board = session.job.thing("fuses")
    assert isinstance(board, Board)
    added = board.instruments[-1]
    assert session.look.services.chosen == f"instruments.fuses.{added.id}"
    assert text(page.table, len(board.instruments) - 1, 1) == "switch"
    qtbot.keyClick(page.picture, Qt.Key.Key_Delete)
    assert added.id not in [i.id for i in session.job.thing("fuses").instruments]  # type: ignore[union-attr]


def test_a_run_is_chosen_and_drawn_in_elevation_slice_and_round(
    window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    session.view.turn_to("Services", "Runs")
    page = window.page("Services", "Runs")
    assert isinstance(page, RunsPage)
    row = page.model.keys().index("runs.water.water.wet-bench")
    port = page.table.viewport()
    assert port is not None
    qtbot.mouseClick(port, LEFT, pos=page.table.rect_of(row, 1).center())
    assert page.model.chosen() == "water.water.wet-bench"
    for draw in (page.model.elevation, page.model.slice):
        drawn = draw(1.0)[1]
        assert drawn is not None
        assert sum(s.role == "way chosen" for s in drawn[0]) == 1
        assert {s.role for s in drawn[0]} >= {"way gas", "way uses", "way main", "way gives"}
    assert "W: water" in page.legend.text()
    session.view.turn_to("Fit-out", "Solid")
    solid = window.page("Fit-out", "Solid")
    assert isinstance(solid, SolidPage)
    plain = solid.view.grab().toImage()
    qtbot.mouseClick(solid.runs, LEFT)
    assert solid.view.grab().toImage() != plain


def test_signatures_are_signed_and_taken_back(
    window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    session = window.session
    session.view.turn_to("Services", "Signatures", services={"chosen": ""})
    page = window.page("Services", "Signatures")
    assert isinstance(page, SignaturesPage)
    assert not page.sign.isEnabled()
    port = page.table.viewport()
    assert port is not None
    qtbot.mouseClick(port, LEFT, pos=page.table.rect_of(2, 0).center())
    assert text(page.table, 2, 3) == "open"
    monkeypatch.setattr(session.asker, "name", lambda _words, _wish: "C. Marsh")
    qtbot.mouseClick(page.sign, LEFT)
    assert text(page.table, 2, 3) == "C. Marsh"
    n = [x.what for x in session.job.services.signatures].index("low voltage")
    assert window.card.edit_of(f"services.signatures.{n}.number").isVisible()
    qtbot.mouseClick(page.remove, LEFT)
    assert text(page.table, 2, 3) == "open"


def test_weather_is_taken_from_a_file_and_a_bad_one_is_told(
    window: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    session = window.session
    file = tmp_path / "hours.csv"
    rows = [
        f"{m},{d},{h},{100 if 6 < h < 18 else 0},20"
        for m in (3,)
        for d in range(1, 32)
        for h in range(24)
    ]
    file.write_text("month,day,hour,ghi,temp_air\n" + "\n".join(rows))
    monkeypatch.setattr(session.asker, "file", lambda *_a, **_k: file)
    do(session, "services.weather")
    assert session.job.services.trip.weather.name == "hours.csv"
    session.view.turn_to("Services", "Trip", services={"chosen": ""})
    assert "Weather by hours.csv." in window.page("Services", "Trip").words.text()
    do(session, "services.clear_weather")
    assert not session.job.services.trip.weather.air
    file.write_text("nothing")
    do(session, "services.weather")
    assert "no line names the columns" in session.messages.text


def test_a_plug_is_laid_in_for_later(window: MainWindow, monkeypatch: pytest.MonkeyPatch) -> None:
    session = window.session
    monkeypatch.setattr(session.asker, "choose", lambda _w, _o: "vehicle | tray")
    do(session, "services.plug")
    session.view.turn_to("Services", "Runs", services={"chosen": "plugs.plug"})
    assert window.card.edit_of("services.plugs.plug.pins").isVisible()
    assert "nothing uses it yet" in window.card._sum.text()
    do(session, "services.remove")
    assert [p.id for p in session.job.services.plugs] == ["charge-plug"]
