import msgspec
import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtWidgets import QLineEdit
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.widgets.figure_edit import FigureEdit
from roomy_hull.desktop.widgets.findings_panel import AcceptDialog
from roomy_hull.desktop.window import MainWindow
from roomy_hull.job.edits import units as edits
from roomy_hull.job.services import Services
from roomy_hull.session.actions import editing
from roomy_hull.session.pages.table import STAGES

from .conftest import Hand, middle

CTRL = Qt.KeyboardModifier.ControlModifier
ALT = Qt.KeyboardModifier.AltModifier


def type_into(qtbot: QtBot, edit: object, text: str) -> None:
    """Replace what a field holds, as a person does."""
    assert isinstance(edit, QLineEdit)
    edit.setFocus()
    edit.selectAll()
    qtbot.keyClicks(edit, text)
    qtbot.keyClick(edit, Qt.Key.Key_Return)


# Places to stand


def test_brackets_walk_round_and_the_walkabout_is_clicked(window: MainWindow, qtbot: QtBot) -> None:
    seen = []
    for _ in range(4):
        qtbot.keyClick(window.ground, Qt.Key.Key_BracketRight)
        seen.append(window.session.look.station)
    assert seen == ["front", "left", "rear", "right"]
    walkabout = window.ground.walkabout
    for station, place in walkabout.places().items():
        qtbot.mouseClick(walkabout, Qt.MouseButton.LeftButton, pos=place.toPoint())
        assert window.session.look.station == station
        assert not window.grab().isNull()


def test_the_walkabout_keeps_off_the_picture(window: MainWindow) -> None:
    box = window.ground.walkabout
    window.session.view.set(station="left")
    assert box.x() < 100
    window.session.view.set(station="right")
    assert box.x() > window.ground.width() / 2
    window.session.view.set(station="above")
    assert box.y() > window.ground.height() / 3


def test_the_turn_is_short_and_ends(window: MainWindow, qtbot: QtBot) -> None:
    window.ground.turn_ms = 60
    window.session.view.set(station="rear")
    qtbot.waitUntil(lambda: window.ground._turn == 1.0, timeout=2000)


# Keys


def test_arrows_nudge_the_selection_by_a_pitch(window: MainWindow, qtbot: QtBot) -> None:
    window.session.selection.select("sample-fridge")
    qtbot.keyClick(window.ground, Qt.Key.Key_Left)
    assert window.session.job.thing("sample-fridge").u == 50  # type: ignore[union-attr]
    qtbot.keyClick(window.ground, Qt.Key.Key_Right, Qt.KeyboardModifier.ShiftModifier)
    assert window.session.job.thing("sample-fridge").u == 49  # type: ignore[union-attr]


def test_space_delete_mirror_duplicate_and_undo(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    start = session.job
    session.selection.select("bird-bags")
    qtbot.keyClick(window.ground, Qt.Key.Key_Space)
    assert session.look.opened == {"bird-bags"}
    qtbot.keyClick(window.ground, Qt.Key.Key_Space)
    assert not session.look.opened
    session.selection.select("first-aid")
    qtbot.keyClick(window.ground, Qt.Key.Key_D, CTRL)
    assert session.selection.key == "first-aid-2"
    qtbot.keyClick(window.ground, Qt.Key.Key_M)
    assert session.look.station == "left"
    qtbot.keyClick(window.ground, Qt.Key.Key_Delete)
    assert session.job.thing("first-aid-2") is None
    for _ in range(3):
        qtbot.keyClick(window.ground, Qt.Key.Key_Z, CTRL)
    assert session.job is start


def test_letters_typed_in_the_search_move_nothing(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    start = session.job
    session.selection.select("tools")
    window.stores.search.setFocus()
    qtbot.keyClicks(window.stores.search, "mop[]")
    qtbot.keyClick(window.stores.search, Qt.Key.Key_Delete)
    assert session.job is start
    assert session.look.station == "right"
    assert window.stores.search.text() == "mop[]"
    assert window.stores.list.count() == 1


def test_stages_by_key_and_click(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    qtbot.keyClick(window, Qt.Key.Key_5, ALT)
    assert session.look.stage == "Loads"
    assert window.stages.current() is window.stage("Loads")
    for n, about in enumerate(STAGES):
        row = window.job_line._row(n).center().toPoint()
        qtbot.mouseClick(window.job_line, Qt.MouseButton.LeftButton, pos=row)
        assert session.look.stage == about.title
        assert window.stages.current() is window.stage(about.title)
    window.job_line.setFocus()
    qtbot.keyClick(window.job_line, Qt.Key.Key_Up)
    assert session.look.stage == "Cut"
    qtbot.keyClick(window.job_line, Qt.Key.Key_Down)
    assert session.look.stage == "Build"


def test_units_and_theme_change_the_whole_window(window: MainWindow, qtbot: QtBot) -> None:
    window.session.view.set(stage="Loads")
    window.session.view.set(stage="Fit-out")
    light = window.grab().toImage().pixelColor(900, 650)
    qtbot.keyClick(window, Qt.Key.Key_F9)
    qtbot.keyClick(window, Qt.Key.Key_F10)
    assert window.session.look.system == "us"
    assert window.stage("Loads").theme.name == "dark"
    dark = window.grab().toImage().pixelColor(900, 650)
    assert light.lightness() > 200 > 60 > dark.lightness()
    window.session.selection.select("tools")
    assert window.card.edit_of("width").text() == "19 9/16"  # type: ignore[attr-defined]
    qtbot.keyClick(window, Qt.Key.Key_F10)


# Card


def test_a_sum_typed_in_the_card_is_taken(window: MainWindow, qtbot: QtBot) -> None:
    window.session.selection.select("tools")
    type_into(qtbot, window.card.edit_of("width"), "2*240+2")
    assert window.session.job.thing("tools").width == 482  # type: ignore[union-attr]
    assert window.card.edit_of("width").text() == "482"  # type: ignore[attr-defined]
    type_into(qtbot, window.card.edit_of("contents"), "20 lb")
    assert window.session.job.thing("tools").contents == pytest.approx(9.07, abs=0.01)  # type: ignore[union-attr]
    type_into(qtbot, window.card.edit_of("name"), "Spanners")
    assert window.session.job.thing("tools").name == "Spanners"  # type: ignore[union-attr]
    assert window.card._title.text() == "Spanners"


def test_what_cannot_be_read_stays_to_be_mended(window: MainWindow, qtbot: QtBot) -> None:
    window.session.selection.select("tools")
    start = window.session.job
    edit = window.card.edit_of("width")
    assert isinstance(edit, FigureEdit)
    type_into(qtbot, edit, "12 bananas")
    assert window.session.job is start
    assert edit.text() == "12 bananas"
    assert edit.property("wrong")
    assert "no unit" in window.message.text()
    qtbot.keyClick(edit, Qt.Key.Key_Escape)
    assert edit.text() == "497"
    assert not edit.property("wrong")
    type_into(qtbot, edit, "-5")
    assert window.session.job is start
    assert "Tool drawer" in window.message.text()


def test_choices_and_ticks_of_the_card(window: MainWindow, qtbot: QtBot) -> None:
    window.session.selection.select("sample-fridge")
    box = window.card.edit_of("vent_side")
    box.setCurrentText("left")  # type: ignore[attr-defined]
    box.activated.emit(1)  # type: ignore[attr-defined]
    assert window.session.job.thing("sample-fridge").vent_side == "left"  # type: ignore[union-attr]
    tick = window.card.edit_of("locks")
    qtbot.mouseClick(tick, Qt.MouseButton.LeftButton, pos=QPoint(8, tick.height() // 2))
    assert window.session.job.thing("sample-fridge").locks is False  # type: ignore[union-attr]


def test_every_kind_has_a_card(window: MainWindow) -> None:
    for key in ("water", "tools", "bedding", "sample-fridge", "spare", "punt", "jerry-1"):
        window.session.selection.select(key)
        assert window.card._title.text() == window.session.job.thing(key).name  # type: ignore[union-attr]
        assert "kg" in window.card._mass.text()
    window.session.edit("shrink", edits.changed(window.session.job, "galley", width=50.0))
    window.session.selection.select("galley")
    assert "Cannot be made like this" in window.card._made.text()
    window.session.selection.select("")
    assert window.card._title.text() == "Brackwater Bird Survey"


# Stores


def test_a_thing_is_dragged_out_of_the_stores(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    session.edit("clear", edits.removed(edits.removed(session.job, "bedding"), "camp"))
    where = middle_of_gap(window)
    shelf = window.stores.list
    port = shelf.viewport()
    assert port is not None
    row = shelf.visualItemRect(shelf.item(window.stores.row_of("drawer"))).center()
    hand = Hand(port)
    hand.press(QPointF(row))
    to = QPointF(port.mapFromGlobal(window.ground.mapToGlobal(where.toPoint())))
    hand.move(QPointF(row) + QPointF(20, 0))
    hand.move(to)
    assert session.job.thing("stores-trial") is not None
    window.grab()
    hand.release(to)
    made = session.job.thing("drawer")
    assert made is not None
    assert made.bay == "R"  # type: ignore[union-attr]
    assert made.u % 25 == 0  # type: ignore[union-attr]
    assert session.selection.key == "drawer"
    assert session.history.undo_words() == "place Drawer"
    assert session.job.thing("stores-trial") is None


def middle_of_gap(window: MainWindow) -> QPointF:
    """The middle of where the camp drawer stood."""
    frame = window.session.verdict.assembly.ground.bays["R"].frame
    x, _y, z = frame.point(1225, 0, 115)
    return window.ground.layout_now().elevation.px((-x, z))


def test_letting_go_beside_the_vehicle_places_nothing(window: MainWindow) -> None:
    start = window.session.job
    port = window.stores.list.viewport()
    assert port is not None
    row = window.stores.list.visualItemRect(window.stores.list.item(1)).center()
    hand = Hand(port)
    hand.press(QPointF(row))
    to = QPointF(port.mapFromGlobal(window.ground.mapToGlobal(QPoint(600, 60))))
    hand.move(to)
    hand.release(to)
    assert window.session.job is start
    assert "nothing was placed" in window.message.text()


def test_carrying_is_given_up_with_escape(window: MainWindow, qtbot: QtBot) -> None:
    start = window.session.job
    shelf = window.stores.list
    port = shelf.viewport()
    assert port is not None
    row = shelf.visualItemRect(shelf.item(window.stores.row_of("drawer"))).center()
    hand = Hand(port)
    hand.press(QPointF(row))
    to = QPointF(port.mapFromGlobal(window.ground.mapToGlobal(middle(window, "tools").toPoint())))
    hand.move(to)
    assert window.session.job is not start
    qtbot.keyClick(shelf, Qt.Key.Key_Escape)
    assert window.session.job is start
    hand.release(to)
    assert window.session.job is start


def test_what_is_too_large_says_so_on_the_drawing(window: MainWindow) -> None:
    window.session.view.set(station="rear")
    port = window.stores.list.viewport()
    assert port is not None
    row = window.stores.list.visualItemRect(
        window.stores.list.item(window.stores.row_of("fridge-60"))
    ).center()
    hand = Hand(port)
    hand.press(QPointF(row))
    hand.move(
        QPointF(port.mapFromGlobal(window.ground.mapToGlobal(middle(window, "poles").toPoint())))
    )
    from roomy_hull.drawing.view import ELEVATION

    words = [
        s.text  # type: ignore[union-attr]
        for s in window.ground.drag.free_scene(ELEVATION["rear"])
        if s.role == "not free words"
    ]
    assert words == ["390 mm too deep"]
    window.grab()
    hand.release(QPointF(row))


def test_enter_and_double_click_place_at_the_first_free_place(
    window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    session.edit("clear", edits.removed(edits.removed(session.job, "bedding"), "camp"))
    shelf = window.stores.list
    shelf.setCurrentRow(window.stores.row_of("drawer-small"))
    qtbot.keyClick(shelf, Qt.Key.Key_Return)
    assert session.job.thing("drawer-small") is not None
    rect = shelf.visualItemRect(shelf.item(window.stores.row_of("shelf")))
    port = shelf.viewport()
    qtbot.mouseDClick(port, Qt.MouseButton.LeftButton, pos=rect.center())
    assert session.job.thing("shelf") is None
    assert "Shelf fits no bay on this side" in session.messages.text


def test_searching_the_stores(window: MainWindow, qtbot: QtBot) -> None:
    qtbot.keyClicks(window.stores.search, "wat")
    assert window.stores.row_of("tank-90") >= 0
    assert window.stores.row_of("drawer") == -1


# Findings


def test_a_finding_is_chosen_shown_and_mended(window: MainWindow, qtbot: QtBot) -> None:
    session, panel = window.session, window.findings
    session.edit("clash", edits.changed(session.job, "sample-fridge", u=75.0))
    session.view.set(station="left")
    rect = panel.list.visualItemRect(panel.list.item(1))
    qtbot.mouseClick(panel.list.viewport(), Qt.MouseButton.LeftButton, pos=rect.center())
    assert session.selection.finding is not None
    assert session.look.station == "right"
    assert "Measured 47 mm" in panel.detail.text()
    assert not panel.accept_button.isVisible()
    button = next(b for b in panel.buttons if b.isVisible() and "forward" in b.text())
    qtbot.mouseClick(button, Qt.MouseButton.LeftButton)
    assert session.verdict.count("stop") == 0
    assert panel.title.text() == "Findings · 0 stop, 4 look"


def test_a_look_is_accepted_with_reason_and_initials(
    window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    qtbot.keyClick(window, Qt.Key.Key_F8)
    assert window.findings.accept_button.isVisible()

    def fill(dialog: AcceptDialog) -> int:
        dialog.reason.setText("sealed roads only")
        dialog.initials.setText("KB")
        return 1

    monkeypatch.setattr(AcceptDialog, "exec", fill)
    qtbot.mouseClick(window.findings.accept_button, Qt.MouseButton.LeftButton)
    assert window.session.verdict.count("look") == 3
    assert "Accepted: sealed roads only (KB, " in window.findings.detail.text()
    assert not window.findings.accept_button.isVisible()


def test_an_empty_list_says_that_nothing_is_wrong(window: MainWindow) -> None:
    session = window.session
    session.edit("mend", edits.changed(session.job, "tools", contents=5.0))
    editing.set_size(session, path="vehicle.springs.school", value="constant load")
    # Without a canopy there is nothing to lift, to reach for or to meet with the head.
    bare = msgspec.structs.replace(
        session.job,
        units=(),
        carried=(),
        services=Services(),
        sets=(),
        runs=(),
        body=session.job.body.but(canopy=None),
        scenarios=tuple(msgspec.structs.replace(s, left_behind=()) for s in session.job.scenarios),
    )
    session.edit("bare", bare)
    assert window.findings.list.item(0).text() == "Nothing is found wrong, in any scenario."  # type: ignore[union-attr]
