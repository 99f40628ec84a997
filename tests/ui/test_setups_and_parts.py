"""Set-ups, rooms and racks in the real window: clicked in the table, added from the menu, dragged by their dots."""

from pathlib import Path

import pytest
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtWidgets import QApplication, QLabel
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.pages.body import BodyStage
from roomy_hull.desktop.pages.fitout.setups import SetupsPage
from roomy_hull.desktop.pages.loads.strength import StrengthPage
from roomy_hull.desktop.window import MainWindow
from roomy_hull.drawing.scenes import body_sizes
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.settings import Settings
from roomy_hull.formats.verdict_json import verdict_json
from roomy_hull.job.edits.setups import absent
from roomy_hull.session.actions import editing
from roomy_hull.session.doing import do
from roomy_hull.session.session import Session
from roomy_hull.session.worn import in_setup
from tests.builders import begun
from tests.ui.conftest import Hand, opened

LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def flatbed(qtbot: QtBot, keeping: Settings):  # type: ignore[no-untyped-def]  # a generator of windows
    """The window with the flatbed demo."""
    yield from opened(qtbot, Session(demo_job("reedholm"), keeping))


@pytest.fixture
def bare(qtbot: QtBot, keeping: Settings):  # type: ignore[no-untyped-def]  # a generator of windows
    """The window with a bare tray."""
    yield from opened(qtbot, Session(begun("Fen", "bare tray"), keeping))


def page(window: MainWindow, qtbot: QtBot) -> SetupsPage:
    """Turn to the page Set-ups by its key."""
    qtbot.keyClick(window, Qt.Key.Key_F11)
    QApplication.processEvents()
    found = window.findChild(SetupsPage)
    assert found is not None
    assert found.isVisible()
    return found


def cell(table: object, row: int, column: int) -> QPointF:
    """The middle of a table's cell. [px]"""
    rect = table.visualRect(table.model().index(row, column))  # type: ignore[attr-defined]  # a QTableWidget
    return rect.center()


def test_a_cell_takes_a_thing_off_and_undo_puts_it_on(flatbed: MainWindow, qtbot: QtBot) -> None:
    shown, session = page(flatbed, qtbot), flatbed.session
    keys = [k for k, _name in shown.model.rows()]
    row = keys.index("steps")
    qtbot.mouseClick(shown.table.viewport(), LEFT, pos=cell(shown.table, row, 1))
    assert "steps" in absent(session.job, session.job.setups[0])
    assert shown.table.text_at(row, 1) == "off"
    qtbot.keyClick(flatbed, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert "steps" not in absent(session.job, session.job.setups[0])


def test_what_is_off_with_something_else_stays_so(flatbed: MainWindow, qtbot: QtBot) -> None:
    shown, session = page(flatbed, qtbot), flatbed.session
    keys = [k for k, _name in shown.model.rows()]
    before = session.job
    qtbot.mouseClick(shown.table.viewport(), LEFT, pos=cell(shown.table, keys.index("fridge"), 2))
    assert session.job is before
    assert "put that on first" in flatbed.message.text()


def test_the_swap_is_told_both_ways(flatbed: MainWindow, qtbot: QtBot) -> None:
    shown = page(flatbed, qtbot)
    assert shown.steps.rowCount() == 5
    words = shown.sum.text()
    assert "5 steps" in words
    assert "for two" in words
    shown.start.setCurrentIndex(1)
    shown.end.setCurrentIndex(0)
    shown.start.activated.emit(1)
    assert flatbed.session.look.setups.swap == ("flatbed-work", "fen-camp")
    assert "Reed bundles" in shown.steps.text_at(0, 1)


def test_the_drawing_follows_the_scenarios_set_up(flatbed: MainWindow, qtbot: QtBot) -> None:
    session = flatbed.session
    session.view.set(scenario="work")
    assert in_setup(session).assembly.thing("fridge") is None
    session.view.set(scenario="full")
    assert in_setup(session).assembly.thing("fridge") is not None
    assert in_setup(session).assembly.thing("reed") is None


def test_set_ups_are_added_renamed_and_dropped(
    bare: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    session = bare.session
    names = iter(("Long trip", "Work", "Work bare"))
    monkeypatch.setattr(session.asker, "name", lambda _words, _wish: next(names))
    qtbot.keyClick(
        bare, Qt.Key.Key_U, Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.AltModifier
    )
    assert [s.name for s in session.job.setups] == ["Long trip"]
    do(session, "setup.copy")
    do(session, "setup.rename")
    assert [s.name for s in session.job.setups] == ["Long trip", "Work bare"]
    do(session, "setup.drop")
    assert [s.name for s in session.job.setups] == ["Long trip"]


def test_the_swap_list_is_written(
    flatbed: MainWindow, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    session, path = flatbed.session, tmp_path / "swap.csv"
    monkeypatch.setattr(session.asker, "file", lambda *_a, **_k: path)
    do(session, "setup.write")
    text = path.read_text()
    assert text.splitlines()[0].startswith("step")
    assert "Reed cabin" in text


def test_a_rack_is_added_from_the_menu_dragged_and_taken_away(
    bare: MainWindow, qtbot: QtBot
) -> None:
    session = bare.session
    session.view.set(stage="Body", station="left")
    QApplication.processEvents()
    stage = bare.findChild(BodyStage)
    assert stage is not None
    bar = stage.parts
    bar.menu.aboutToShow.emit()
    offers = {a.text(): a for a in bar.menu.actions()}
    assert "Hold under a lid" not in offers
    offers["Rack over the tub or the tray"].trigger()
    assert session.look.body.chosen == "tub-rack"
    assert list(bar.buttons) == ["", "tub-rack"]
    handles = body_sizes.handles(session.verdict.assembly, "left", "tub-rack")
    top = next(h for h in handles if h.path.endswith(".height"))
    drawing = stage.drawing
    at = drawing.window_now().px(top.at)
    high = session.job.body.racks[0].height
    hand = Hand(drawing)
    hand.press(at)
    hand.move(at + QPointF(0, -10))
    hand.move(at + QPointF(0, -30))
    hand.release(at + QPointF(0, -30))
    grown = session.job.body.racks[0].height
    assert grown > high + 50
    assert grown % 5 == pytest.approx(high % 5, abs=5)
    assert session.history.undo_words().startswith("change racks")
    qtbot.mouseClick(bar.drop, LEFT)
    assert session.job.body.racks == ()
    assert session.look.body.chosen == ""


def test_a_room_is_chosen_by_clicking_it(flatbed: MainWindow, qtbot: QtBot) -> None:
    session = flatbed.session
    session.view.set(stage="Body", station="left")
    QApplication.processEvents()
    stage = flatbed.findChild(BodyStage)
    assert stage is not None
    box = session.verdict.assembly.ground.rooms_there[0].box
    view_at = stage.drawing.window_now().px(((box.x0 + box.x1) / 2 + 150, box.z1 - 300))
    hand = Hand(stage.drawing)
    hand.press(view_at)
    hand.release(view_at)
    assert session.look.body.chosen == "camper"
    assert not stage.grab().isNull()


def test_card_of_a_room_changes_its_size_and_tells_a_wrong_one(
    flatbed: MainWindow, qtbot: QtBot
) -> None:
    session = flatbed.session
    session.view.set(stage="Body", body={"chosen": "camper"})
    QApplication.processEvents()
    field = flatbed.card.edit_of("body.rooms.camper.mass")
    field.setFocus()
    field.selectAll()  # type: ignore[attr-defined]  # a FigureEdit
    qtbot.keyClicks(field, "610")
    qtbot.keyClick(field, Qt.Key.Key_Return)
    assert session.job.body.rooms[0].mass == 610
    field = flatbed.card.edit_of("body.rooms.camper.over_up")
    field.setFocus()
    field.selectAll()  # type: ignore[attr-defined]  # a FigureEdit
    qtbot.keyClicks(field, "9000")
    qtbot.keyClick(field, Qt.Key.Key_Return)
    assert "alcove begins" in flatbed.message.text()


def test_an_axle_is_moved_by_an_answer(bare: MainWindow, monkeypatch: pytest.MonkeyPatch) -> None:
    session = bare.session
    base = session.job.vehicle.wheelbase
    monkeypatch.setattr(session.asker, "name", lambda _words, _wish: "25")
    do(session, "vehicle.front_axle")
    assert session.job.vehicle.wheelbase == base + 25
    monkeypatch.setattr(session.asker, "name", lambda _words, _wish: "far")
    do(session, "vehicle.rear_axle")
    assert session.job.vehicle.wheelbase == base + 25
    assert bare.message.text()


def test_the_rear_is_closed_and_rails_find_room(qtbot: QtBot, keeping: Settings) -> None:
    for window in opened(qtbot, Session(begun("Marl 2.8 dual", "full canopy"), keeping)):
        session = window.session
        do(session, "body.rack_rear_wall")
        assert "rear door" in window.message.text()
        do(session, "body.close_rear")
        do(session, "body.rack_rear_wall")
        assert [r.kind for r in session.job.body.racks] == ["rear wall"]
        session.view.set(station="rear", stage="Fit-out")
        made = editing.place(session, entry="jerry")
        assert session.job.thing(made).on == "rear-wall"  # type: ignore[union-attr]
        session.selection.select(made)
        session.asker.choose = lambda _words, options: options[-1]  # type: ignore[assignment, method-assign]
        do(session, "rack.fix")
        assert session.job.thing(made).on == ""  # type: ignore[union-attr]


def test_a_rack_stands_on_the_page_strength(flatbed: MainWindow, qtbot: QtBot) -> None:
    """Its row, the sum of every way it is loaded, and what its maker's rating says to that."""
    session = flatbed.session
    session.view.turn_to("Loads", "Strength")
    QApplication.processEvents()
    found = flatbed.findChild(StrengthPage)
    assert found is not None
    qtbot.mouseClick(found.buttons["Rack"], LEFT)
    (row,) = found.model.rows()
    (check,) = session.verdict.carrying.racks
    worst = check.worst()
    assert worst is not None
    assert (row.owner, row.words, row.use) == (check.rack, worst.words, worst.use)
    lines = found.words.text()
    for one in check.cases:
        assert f"{one.use:.1%}" in lines
    assert "Rated 120 kg on the road and 180 kg standing still." in lines
    path = f"body.racks.{check.rack.id}.rating"
    assert editing.set_size(session, path=path, value=round(check.kg / 2, 3))
    assert found.model.rows()[0].use == pytest.approx(2.0, rel=1e-3)


def test_the_jobs_card_weighs_rooms_and_racks_with_the_body(flatbed: MainWindow) -> None:
    session = flatbed.session
    found = verdict_json(session.verdict)["body"]["masses"]
    kg = sum(m["mass_kg"] for m in found)
    assert {"camper", "gap-rack"} <= {m["owner"] for m in found}
    assert f"Body as drawn {kg:,.0f} kg" in "\n".join(
        x.text() for x in flatbed.card.findChildren(QLabel)
    )
