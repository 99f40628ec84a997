"""The pages of Fit-out in the real window: together, run-through, in and out, variants, solid."""

from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtWidgets import QFileDialog, QInputDialog
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.pages.fitout.together import CELL, HEAD, NAMES
from roomy_hull.desktop.window import MainWindow
from roomy_hull.drawing.view import ELEVATION
from roomy_hull.job.edits import units as edits
from roomy_hull.session.doing import do
from roomy_hull.session.pages.table import stage
from tests.ui.conftest import Hand

CTRL = Qt.KeyboardModifier.ControlModifier
LEFT = Qt.MouseButton.LeftButton


def middle(window: MainWindow, key: str) -> QPointF:
    """Where a thing is on the elevation. [px]"""
    thing = window.session.verdict.assembly.thing(key)
    assert thing is not None
    h0, k0, h1, k1 = ELEVATION[window.session.look.station].rect(thing.envelope)
    return window.ground.layout_now().elevation.px(((h0 + h1) / 2, (k0 + k1) / 2))


def test_every_page_has_a_key_and_a_button(window: MainWindow, qtbot: QtBot) -> None:
    assert window.fit_out.bar is not None
    for name, key in ((p.title, p.key) for p in stage("Fit-out").pages):
        held = CTRL if key.startswith("Ctrl+") else Qt.KeyboardModifier.NoModifier
        qtbot.keyClick(window, getattr(Qt.Key, f"Key_{key.removeprefix('Ctrl+')}"), held)
        assert window.session.look.page("Fit-out") == name
        assert window.fit_out.bar.buttons[name].isChecked()
        assert not window.grab().isNull()
    qtbot.mouseClick(window.fit_out.bar.buttons["Drawing"], LEFT)
    assert window.fit_out.stack.current() is window.ground
    assert window._left.isVisible()


def test_a_cell_says_how_two_stand_and_shows_them_on_the_drawing(
    window: MainWindow, qtbot: QtBot
) -> None:
    qtbot.keyClick(window, Qt.Key.Key_F3)
    page = window.page("Fit-out", "Together")
    rows = [o.id for o in page.grid.rows()]
    bench, galley = rows.index("wet-bench"), rows.index("galley:1")
    at = QPoint(NAMES + galley * CELL + CELL // 2, HEAD + bench * CELL + CELL // 2)
    qtbot.mouseClick(page.grid, LEFT, pos=at)
    assert page.pair.text().startswith("Wet bench and Galley drawers 1 cannot be open together")
    qtbot.keyClick(page.grid, Qt.Key.Key_Left)
    assert "Net drawer" in page.pair.text()
    qtbot.keyClick(page.grid, Qt.Key.Key_Right)
    qtbot.keyClick(page.grid, Qt.Key.Key_Return)
    assert window.session.look.page("Fit-out") == "Drawing"
    assert window.session.look.opened == {"wet-bench", "galley:1"}
    assert window.session.look.station == "left"
    assert window.session.selection.finding is not None
    assert window.session.selection.finding.where
    page.side.setCurrentIndex(3)
    assert {o.side for o in page.grid.rows()} == {"rear"}


def test_sets_are_shown_kept_opened_and_dropped(
    window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    session = window.session
    session.view.set(opened=frozenset({"wet-bench", "galley:1", "door:left"}))
    monkeypatch.setattr(QInputDialog, "getText", lambda *_a, **_k: ("Both at once", True))
    qtbot.keyClick(window, Qt.Key.Key_T, CTRL)
    assert session.job.sets[-1].name == "Both at once"
    assert "does not hold" in window.message.text()
    assert any("Both at once" in f.title for f in session.verdict.findings)
    qtbot.keyClick(window, Qt.Key.Key_F3)
    page = window.page("Fit-out", "Together")
    texts = [page.sets.item(n).text() for n in range(page.sets.count())]
    assert [t[0] for t in texts] == ["✓", "✓", "✓", "✕"]
    page.sets.setCurrentRow(2)
    qtbot.mouseClick(page.show_set, LEFT)
    assert session.look.opened >= {"door:rear", "recovery", "spare", "jerry-1"}
    qtbot.keyClick(window, Qt.Key.Key_F3)
    page.sets.setCurrentRow(3)
    qtbot.mouseClick(page.drop_set, LEFT)
    assert [s.name for s in session.job.sets][-1] == "Bogged at night"
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert session.job.sets[-1].name == "Both at once"


def test_a_run_is_played_move_by_move_and_stops_where_it_fails(
    window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    qtbot.keyClick(window, Qt.Key.Key_F4)
    panel = window.page("Fit-out", "Run-through")
    assert panel.count.text() == "Goes through in 6 actions."
    qtbot.mouseClick(panel.on, LEFT)
    assert session.look.opened == {"awning"}
    window.ground.setFocus()
    qtbot.keyClick(window.ground, Qt.Key.Key_Period)
    assert session.look.opened == {"awning", "door:left"}
    assert session.look.station == "left"
    qtbot.keyClick(window.ground, Qt.Key.Key_Comma)
    assert session.look.opened == {"awning"}
    session.edit("fix the wheel", edits.changed(session.job, "spare", turn=0.0))
    panel.choice.setCurrentIndex(1)
    panel.choice.activated.emit(1)
    assert panel.count.text() == "Stops after 0 of 4 actions."
    qtbot.mouseClick(panel.on, LEFT)
    assert "no 'spare' that opens" in window.message.text()
    qtbot.mouseClick(panel.drop, LEFT)
    assert [r.id for r in session.job.runs] == ["camp", "work"]
    session.view.set(play={"run": "camp", "step": 0})
    qtbot.mouseClick(panel.run, LEFT)
    qtbot.waitUntil(lambda: session.look.play.step >= 1, timeout=4000)
    session.view.turn_to("Fit-out", "Drawing")
    assert not panel.isVisible()


def test_a_run_is_kept_from_what_stands_open(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(QInputDialog, "getText", lambda *_a, **_k: ("Recover", True))
    window.session.view.set(opened=frozenset({"recovery"}))
    do(window.session, "unit.keep_run")
    assert [m.what for m in window.session.job.runs[-1].moves][-1] == "recovery"
    assert len(window.session.job.runs[-1].moves) == 4
    assert window.page("Fit-out", "Run-through").count.text() == "Goes through in 4 actions."


def test_the_order_of_fitting_is_numbered_and_the_way_out_told(
    window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    qtbot.keyClick(window, Qt.Key.Key_F5)
    panel = window.page("Fit-out", "In and out")
    assert panel.order.text().startswith("Driver side is fitted in this order: 1 Sample fridge")
    session.selection.select("battery")
    assert (
        panel.out.text()
        == "To take out House battery, first take out Ringing kit, Fuse and switch board, First-aid kit."
    )
    session.selection.select("sample-fridge")
    assert panel.out.text() == "Sample fridge comes out by itself."
    session.view.set(station="above")
    assert "Stand at the left" in panel.order.text()


def test_two_layouts_are_weighed_against_each_other(
    window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    session = window.session
    monkeypatch.setattr(QInputDialog, "getText", lambda *_a, **_k: ("Upright", True))
    qtbot.keyClick(window, Qt.Key.Key_V, CTRL | Qt.KeyboardModifier.ShiftModifier)
    assert session.job.layout == "Upright"
    session.edit("lighter", edits.changed(session.job, "sample-fridge", slide_mass=0.0))
    qtbot.keyClick(window, Qt.Key.Key_F7)
    page = window.page("Fit-out", "Variants")
    assert [c.name for c in page.columns] == ["Upright", "A"]
    mine, theirs = page.columns
    assert theirs.gross[0] - mine.gross[0] == pytest.approx(24)
    assert theirs.fitted - mine.fitted == pytest.approx(24)
    assert (page.left.column, page.right.column) == (mine, theirs)
    assert page.table.text_at(2, 0) != page.table.text_at(2, 1)
    qtbot.mouseClick(page.take, LEFT)
    assert session.job.layout == "A"
    assert session.job.thing("sample-fridge").slide_mass == 24  # type: ignore[union-attr]
    qtbot.mouseClick(page.drop, LEFT)
    assert session.job.variants == ()
    assert page.right.column is None


def test_the_solid_is_turned_opened_and_written(
    window: MainWindow, qtbot: QtBot, tmp_path: Path
) -> None:
    session = window.session
    qtbot.keyClick(window, Qt.Key.Key_F12)
    view = window.page("Fit-out", "Solid").view
    before = view.grab().toImage()
    yaw = view.yaw
    hand = Hand(view)
    hand.press(QPointF(300, 300))
    hand.move(QPointF(240, 320))
    hand.release(QPointF(240, 320))
    assert view.yaw == pytest.approx(yaw + 24)
    assert view.grab().toImage() != before
    qtbot.keyClick(view, Qt.Key.Key_Up)
    assert view.pitch == pytest.approx(24 + 8 + 8)
    count = len(view._items)
    session.view.set(opened=frozenset({"door:left", "wet-bench"}))
    qtbot.waitUntil(lambda: len(view._items) != count, timeout=4000)
    tags = {tag for _shape, tag in view._hits}
    assert "wet-bench" in tags
    for name in ("job.png", "job.glb"):
        window.page("Fit-out", "Solid").save(tmp_path / name)
        assert (tmp_path / name).stat().st_size > 4000
        assert name in window.message.text()
    window.page("Fit-out", "Solid").save(tmp_path / "job.png" / "job.glb")
    assert "cannot be written" in window.message.text()


def test_save_asks_for_a_file(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    window.session.view.turn_to("Fit-out", "Solid")
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_a, **_k: (str(tmp_path / "x"), ""))
    window.page("Fit-out", "Solid").file.click()
    assert (tmp_path / "x.glb").is_file()


def test_several_are_chosen_moved_aligned_and_copied(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    hand = Hand(window.ground)
    session.view.set(station="left")
    for n, key in enumerate(("sample-shelf", "extinguisher")):
        at = middle(window, key)
        hand.press(at, CTRL if n else Qt.KeyboardModifier.NoModifier)
        hand.release(at)
    assert session.selection.ids() == ("sample-shelf", "extinguisher")
    qtbot.keyClick(window.ground, Qt.Key.Key_Right)
    assert [session.job.thing(k).u for k in session.selection.ids()] == [50, 250]  # type: ignore[union-attr]
    at = middle(window, "sample-shelf")
    hand.press(at)
    for step in range(1, 8):
        hand.move(at + QPointF(step * 3, 0))
    hand.release(at + QPointF(21, 0))
    us = [session.job.thing(k).u for k in session.selection.ids()]  # type: ignore[union-attr]
    assert us[0] > 50
    assert us[1] - us[0] == 200
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    do(window.session, "unit.align_floor")
    hand.press(middle(window, "extinguisher"), CTRL)
    assert session.selection.ids() == ("sample-shelf",)
    session.selection.select("galley")
    do(window.session, "unit.copy_across")
    assert session.selection.key == "galley-2"
    assert session.look.station == "right"


def test_would_it_work_on_the_other_side(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    session.selection.select("first-aid")
    qtbot.keyClick(window, Qt.Key.Key_M, CTRL)
    assert window.message.text().startswith("No: First-aid kit would not work on the other side")
    before = session.job
    session.selection.select("")
    qtbot.keyClick(window, Qt.Key.Key_M, CTRL)
    assert "each side would" in window.message.text()
    assert session.job is before
    do(window.session, "unit.exchange")
    assert session.job.thing("wet-bench").bay == "R"  # type: ignore[union-attr]


def test_a_unit_is_kept_in_my_stores_and_replaces_another(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    session.selection.select("optics")
    do(window.session, "unit.keep")
    assert "in your stores now" in window.message.text()
    row = window.stores.row_of("own:optics-drawer.unit.json")
    assert row > 0
    session.selection.select("bird-bags")
    window.stores.list.setCurrentRow(row)
    qtbot.keyClick(window, Qt.Key.Key_R, CTRL)
    there = session.job.thing("bird-bags")
    assert there is not None
    assert (there.name, there.height, there.w) == ("Optics drawer", 220, 486)  # type: ignore[union-attr]


def test_what_cannot_be_used_of_my_stores_is_told_and_nothing_lost(window: MainWindow) -> None:
    folder = window.session.settings.units_folder()
    folder.mkdir(parents=True, exist_ok=True)
    (folder / "odd.unit.json").write_text(
        '{"format": "roomy-hull-unit", "version": 1, "unit": {"kind": "own", "id": "o",'
        ' "name": "O", "bay": "-", "width": 1, "depth": 1, "height": 1, "blocks": []}}'
    )
    window.session.catalogue._own = None
    assert len(window.session.catalogue.entries()) > 50
    assert "odd.unit.json" in window.message.text()
