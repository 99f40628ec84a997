"""Every kind of the stores, placed in the real window: its card, its likeness, open and closed, both themes."""

import msgspec
import pytest
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtWidgets import QApplication, QCheckBox, QComboBox
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.card import FigureEdit
from roomy_hull.desktop.window import MainWindow
from roomy_hull.drawing.view import STATIONS
from roomy_hull.job.unit import Carried
from roomy_hull.kit import stores
from tests.ui.conftest import Hand

CTRL = Qt.KeyboardModifier.ControlModifier


@pytest.fixture
def bare(window: MainWindow) -> MainWindow:
    """The window with an empty canopy."""
    bench = window.bench
    bench.take(msgspec.structs.replace(bench.job, units=(), carried=(), sets=(), runs=()), None)
    bench.set_look(station="left", whole=False)
    QApplication.processEvents()
    return window


@pytest.mark.parametrize("key", [e.key for e in stores.entries()])
def test_it_is_placed_shown_opened_and_taken_back(bare: MainWindow, key: str) -> None:
    bench = bare.bench
    made = bench.place(key)
    assert made, bench.message
    thing = bench.verdict.assembly.thing(made)
    assert thing is not None
    assert bare.card._title.text() == thing.value.name
    assert (
        ("bought" in bare.card._kind.text())
        or ("made" in bare.card._kind.text())
        or ("carried" in bare.card._kind.text())
    )
    for name, widget in bare.card._edits.items():
        if isinstance(widget, FigureEdit):
            assert widget.text() != "" or name == "note", name
        else:
            assert isinstance(widget, QComboBox | QCheckBox)
    if thing.openings:
        bench.toggle_open(made)
        assert bench.look.opened
    closed = bare.ground.grab().toImage()
    for station in STATIONS:
        bench.set_look(station=station)
        assert not bare.ground.grab().isNull()
    bench.set_look(station="left", dark=True, system="us")
    assert bare.ground.grab().toImage() != closed
    bench.set_look(page="Solid")
    assert not bare.solid_page.view.grab().isNull()
    bench.set_look(page="Drawing", dark=False, system="metric")
    bench.undo()
    assert bench.job.thing(made) is None


def test_a_caution_stands_where_the_risk_is(bare: MainWindow) -> None:
    for key, words in (("kitchen", "licensed gas fitter"), ("gas-locker", "licensed gas"),
                       ("inverter", "licensed electrician"),
                       ("battery", "fuse"), ("water-heater", "licensed person")):  # fmt: skip
        bare.bench.place(key)
        assert words in bare.card._made.text(), key


def test_a_unit_of_boxes_is_typed_on_the_card(bare: MainWindow, qtbot: QtBot) -> None:
    bench = bare.bench
    made = bench.place("own")
    edit = bare.card.edit_of("blocks")
    assert isinstance(edit, FigureEdit)
    edit.setFocus()
    edit.selectAll()
    qtbot.keyClicks(edit, "0 0 0 400 500 150; 0 0 150 400 500 150 m")
    qtbot.keyClick(edit, Qt.Key.Key_Return)
    travel = bare.card.edit_of("travel")
    assert isinstance(travel, FigureEdit)
    travel.setFocus()
    travel.selectAll()
    qtbot.keyClicks(travel, "500-80")
    qtbot.keyClick(travel, Qt.Key.Key_Return)
    opening = bench.verdict.assembly.opening(made)
    assert opening is not None
    assert opening.rest_box.size()[2] == 150
    thing = bench.verdict.assembly.thing(made)
    assert thing is not None
    assert opening.opened_box.y0 == pytest.approx(thing.envelope.y0 - 420)
    edit.setFocus()
    edit.selectAll()
    qtbot.keyClicks(edit, "0 0 0 400")
    qtbot.keyClick(edit, Qt.Key.Key_Return)
    assert "box 1 has 4 figures" in bare.message.text()
    assert len(bench.job.thing(made).blocks) == 2  # type: ignore[union-attr]


def test_a_hinge_is_chosen_on_the_card_and_the_way_turns(bare: MainWindow) -> None:
    bench = bare.bench
    made = bench.place("fridge-upright")
    before = bench.verdict.assembly.opening(made)
    box = bare.card.edit_of("hinge")
    assert isinstance(box, QComboBox)
    box.setCurrentText("right")
    box.activated.emit(box.currentIndex())
    after = bench.verdict.assembly.opening(made)
    assert before is not None
    assert after is not None
    assert before.opened_box.x0 < before.rest_box.x0 + 60
    assert after.opened_box.x1 > after.rest_box.x1 - 60


def test_an_awning_is_dragged_along_its_wall(bare: MainWindow) -> None:
    bench = bare.bench
    bench.set_look(whole=True)
    QApplication.processEvents()
    bench.place("awning")
    item = bench.job.carried[0]
    thing = bench.verdict.assembly.thing("awning")
    assert thing is not None
    window = bare.ground.layout_now().elevation
    at = window.px((thing.envelope.centre()[0], thing.envelope.centre()[2]))
    hand = Hand(bare.ground)
    hand.press(at)
    for n in range(1, 6):
        hand.move(at + QPointF(n * 4, 0))
    hand.release(at + QPointF(20, 0))
    moved = bench.job.carried[0]
    assert isinstance(moved, Carried)
    assert moved.x == pytest.approx(item.x + 20 / window.s, abs=5)
    assert moved.y == item.y
