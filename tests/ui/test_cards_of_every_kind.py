"""Every kind of the stores, placed in the real window: its card, its elevation, open and closed, both themes."""

import msgspec
import pytest
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtWidgets import QApplication, QCheckBox, QComboBox
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.widgets.figure_edit import FigureEdit
from roomy_hull.desktop.window import MainWindow
from roomy_hull.drawing.view import STATIONS
from roomy_hull.job.carried import Carried
from roomy_hull.kit import catalogue as stores
from roomy_hull.session.actions import editing
from tests.sweeping import some
from tests.ui.conftest import Hand

CTRL = Qt.KeyboardModifier.ControlModifier


@pytest.fixture
def bare(window: MainWindow) -> MainWindow:
    """The window with an empty canopy."""
    session = window.session
    session.take(msgspec.structs.replace(session.job, units=(), carried=(), sets=(), runs=()), None)
    session.view.set(station="left", whole=False)
    QApplication.processEvents()
    return window


@pytest.mark.parametrize("key", some([e.key for e in stores.entries()], 16))
def test_it_is_placed_shown_opened_and_taken_back(bare: MainWindow, key: str) -> None:
    session = bare.session
    made = editing.place(session, entry=key)
    assert made, session.messages.text
    thing = session.verdict.assembly.thing(made)
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
        editing.toggle_open(session, key=made)
        assert session.look.opened
    closed = bare.ground.grab().toImage()
    for station in STATIONS:
        session.view.set(station=station)
        assert not bare.ground.grab().isNull()
    session.view.set(station="left", dark=True, system="us")
    assert bare.ground.grab().toImage() != closed
    session.view.turn_to("Fit-out", "Solid")
    assert not bare.page("Fit-out", "Solid").view.grab().isNull()
    session.view.turn_to("Fit-out", "Drawing", dark=False, system="metric")
    session.undo()
    assert session.job.thing(made) is None


def test_a_caution_stands_where_the_risk_is(bare: MainWindow) -> None:
    for key, words in (("kitchen", "licensed gas fitter"), ("gas-locker", "licensed gas"),
                       ("inverter", "licensed electrician"),
                       ("battery", "fuse"), ("water-heater", "licensed person")):  # fmt: skip
        editing.place(bare.session, entry=key)
        assert words in bare.card._made.text(), key


def test_a_unit_of_boxes_is_typed_on_the_card(bare: MainWindow, qtbot: QtBot) -> None:
    session = bare.session
    made = editing.place(session, entry="own")
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
    opening = session.verdict.assembly.opening(made)
    assert opening is not None
    assert opening.rest_box.size()[2] == 150
    thing = session.verdict.assembly.thing(made)
    assert thing is not None
    assert opening.opened_box.y0 == pytest.approx(thing.envelope.y0 - 420)
    edit.setFocus()
    edit.selectAll()
    qtbot.keyClicks(edit, "0 0 0 400")
    qtbot.keyClick(edit, Qt.Key.Key_Return)
    assert "box 1 has 4 figures" in bare.message.text()
    assert len(session.job.thing(made).blocks) == 2  # type: ignore[union-attr]


def test_a_hinge_is_chosen_on_the_card_and_the_way_turns(bare: MainWindow) -> None:
    session = bare.session
    made = editing.place(session, entry="fridge-upright")
    before = session.verdict.assembly.opening(made)
    box = bare.card.edit_of("hinge")
    assert isinstance(box, QComboBox)
    box.setCurrentText("right")
    box.activated.emit(box.currentIndex())
    after = session.verdict.assembly.opening(made)
    assert before is not None
    assert after is not None
    assert before.opened_box.x0 < before.rest_box.x0 + 60
    assert after.opened_box.x1 > after.rest_box.x1 - 60


def test_an_awning_is_dragged_along_its_wall(bare: MainWindow) -> None:
    session = bare.session
    session.view.set(whole=True)
    QApplication.processEvents()
    editing.place(session, entry="awning")
    item = session.job.carried[0]
    thing = session.verdict.assembly.thing("awning")
    assert thing is not None
    window = bare.ground.layout_now().elevation
    at = window.px((thing.envelope.centre()[0], thing.envelope.centre()[2]))
    hand = Hand(bare.ground)
    hand.press(at)
    for n in range(1, 6):
        hand.move(at + QPointF(n * 4, 0))
    hand.release(at + QPointF(20, 0))
    moved = session.job.carried[0]
    assert isinstance(moved, Carried)
    assert moved.x == pytest.approx(item.x + 20 / window.s, abs=5)
    assert moved.y == item.y
