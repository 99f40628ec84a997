"""The pages of Access in the real window: goods dragged, pasted, found; moves played; people, dogs, the canopy off."""

from pathlib import Path

import pytest
from PyQt6.QtCore import QMimeData, QPointF, Qt
from PyQt6.QtGui import QDrag, QDragEnterEvent, QDragMoveEvent, QDropEvent, QGuiApplication
from PyQt6.QtWidgets import QApplication, QComboBox, QLineEdit, QWidget
from pytestqt.qtbot import QtBot

from roomy_hull.core.primitives import Words
from roomy_hull.desktop.pages.access.goods import MIME, GoodsPage
from roomy_hull.desktop.pages.access.lifting import LiftingPage
from roomy_hull.desktop.pages.access.living import LivingPage
from roomy_hull.desktop.pages.access.moves import MovesPage
from roomy_hull.desktop.pages.access.off_on import OffOnPage
from roomy_hull.desktop.pages.access.reach import ReachPage
from roomy_hull.desktop.table_view import Grid
from roomy_hull.desktop.window import MainWindow
from roomy_hull.drawing.view import ELEVATION
from roomy_hull.formats.settings import Settings
from roomy_hull.job.goods import Good
from roomy_hull.job.model import Job
from roomy_hull.session.doing import do
from roomy_hull.session.pages.table import facing
from roomy_hull.session.session import Session
from roomy_hull.verdict.verdict import Verdict
from tests.ui.loads import text, typed

from .conftest import Hand

LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def session(stocked: Job, stocked_verdict: Verdict, keeping: Settings) -> Session:
    """Here the window has the demo job with its goods."""
    return Session(stocked, keeping, known=stocked_verdict)


def goods_page(window: MainWindow) -> GoodsPage:
    window.session.view.turn_to("Access", "Gear", access={"chosen": ""}, station="left")
    found = window.page("Access", "Gear")
    assert isinstance(found, GoodsPage)
    return found


def good(window: MainWindow, key: str) -> Good:
    return next(g for g in window.session.job.goods if g.id == key)


def click(qtbot: QtBot, table: Grid, row: int, column: int = 0) -> None:
    port = table.viewport()
    assert port is not None
    qtbot.mouseClick(port, LEFT, pos=table.rect_of(row, column).center())


def drop(page: GoodsPage, at: QPointF, data: QMimeData, on: QWidget | None = None) -> None:
    """Carry something over the drawing, or over another widget, and let go there, as the window system tells it."""
    target = on or page.picture
    move, none = Qt.DropAction.MoveAction, Qt.KeyboardModifier.NoModifier
    QApplication.sendEvent(target, QDragEnterEvent(at.toPoint(), move, data, LEFT, none))
    QApplication.sendEvent(target, QDragMoveEvent(at.toPoint(), move, data, LEFT, none))
    QApplication.sendEvent(target, QDropEvent(at, move, data, LEFT, none))


def test_a_good_dropped_on_a_drawer_is_stowed_there(window: MainWindow) -> None:
    page, session = goods_page(window), window.session
    found = session.verdict.access
    n = next(n for n, s in enumerate(found.spaces) if s.owner == "galley" and s.part == "2")
    h0, k0, h1, k1 = ELEVATION["left"].rect(found.spaces[n].rest)
    lies = page.picture.window()
    assert lies is not None
    at = lies.px(((h0 + h1) / 2, (k0 + k1) / 2))
    data = QMimeData()
    data.setData(MIME, b"mist-nets")
    before = session.verdict.loads.scenario("full").gross.value
    drop(page, at, data)
    now = good(window, "mist-nets")
    assert (now.place, now.part) == ("galley", "2")
    assert session.history.undo_words() == "stow Mist nets"
    assert session.verdict.loads.scenario("full").gross.value == pytest.approx(before)
    thing = session.verdict.assembly.thing("galley")
    assert thing is not None
    assert thing.contents == pytest.approx(42.0)
    # Dropped beside everything it stays where it is.
    drop(page, QPointF(3, 30), data)
    assert good(window, "mist-nets").place == "galley"


def test_a_good_is_taken_by_its_name_and_carried_back_to_the_list(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    page, session = goods_page(window), window.session
    held: list[bytes] = []

    def exec_(drag: QDrag, *_actions: object) -> Qt.DropAction:
        mime = drag.mimeData()
        assert mime is not None
        held.append(mime.data(MIME).data())
        return Qt.DropAction.MoveAction

    monkeypatch.setattr(QDrag, "exec", exec_)
    _title, drawn = page.model.picture(1.0)
    lies = page.picture.window()
    assert drawn is not None
    assert lies is not None
    names = {g.name: g.id for g in session.job.goods}
    rows = [w for w in drawn[0] if isinstance(w, Words) and w.text in names]
    assert len(rows) > 5
    for row in rows:
        at = lies.px(row.at)
        hand = Hand(page.picture)
        hand.press(at)
        assert session.look.access.chosen == f"goods.{names[row.text]}"
        hand.move(at + QPointF(2, 0))
        assert not held
        hand.move(at + QPointF(40, 0))
        hand.release(at + QPointF(40, 0))
        assert held.pop().decode() == names[row.text]
        assert not held
    key = names[rows[0].text]
    data = QMimeData()
    data.setData(MIME, key.encode())
    drop(page, QPointF(60, 60), data, page.table.viewport())
    assert good(window, key).place == ""
    assert "1 not stowed yet" in page.words.text()


def test_where_is_the_tin_opener(window: MainWindow, qtbot: QtBot) -> None:
    page, session = goods_page(window), window.session
    qtbot.keyClicks(page.search, "tin op")
    assert page.table.rowCount() == 1
    click(qtbot, page.table, 0)
    assert session.look.access.chosen == "goods.cutlery"
    assert "Galley drawers 2" in text(page.table, 0, 5)
    edit = window.card.edit_of("goods.cutlery.mass")
    assert isinstance(edit, QLineEdit)
    edit.setFocus()
    edit.selectAll()
    qtbot.keyClicks(edit, "2*1.5")
    qtbot.keyClick(edit, Qt.Key.Key_Return)
    assert good(window, "cutlery").mass == 3.0
    place = window.card.edit_of("goods.cutlery.place")
    assert isinstance(place, QComboBox)
    place.setCurrentText("pantry")
    place.activated.emit(place.currentIndex())
    assert good(window, "cutlery").place == "pantry"
    assert "Day pantry, left" in window.card._sum.text()


def test_goods_are_pasted_added_and_taken_off(
    window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    page, session = goods_page(window), window.session
    count = len(session.job.goods)
    board = QApplication.clipboard()
    assert board is not None
    board.setText("Name;kg;Place\nRope;3,5;camp\nLamp;0,4;\n")
    do(session, "access.paste")
    assert [g.name for g in session.job.goods[count:]] == ["Rope", "Lamp"]
    assert "1 not stowed yet" in page.words.text()
    board.setText("Rope;heavy")
    do(session, "access.paste")
    assert "line 1" in session.messages.text
    assert len(session.job.goods) == count + 2
    monkeypatch.setattr(session.asker, "name", lambda _w, _wish: "Kettle")
    session.selection.select("wet-bench")
    qtbot.mouseClick(page.add, LEFT)
    assert (session.job.goods[-1].name, session.job.goods[-1].place) == ("Kettle", "wet-bench")
    assert session.look.access.chosen == "goods.kettle"
    qtbot.mouseClick(page.remove, LEFT)
    assert "kettle" not in [g.id for g in session.job.goods]
    do(session, "edit.undo")
    assert session.job.goods[-1].name == "Kettle"


def test_what_is_wanted_stands_out(window: MainWindow) -> None:
    page, session = goods_page(window), window.session

    def marked() -> int:
        drawn = page.model.picture(1.0)[1]
        assert drawn is not None
        return sum(s.role == "goods chosen" for s in drawn[0])

    assert marked() == 0
    do(session, "access.urgent")
    assert session.look.access.urgent == "now"
    do(session, "access.urgent")
    assert session.look.access.urgent == "each stop"
    assert marked() > 0


def test_the_moves_to_a_thing_are_played(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    session.view.turn_to("Access", "Moves", access={"chosen": ""})
    page = window.page("Access", "Moves")
    assert isinstance(page, MovesPage)
    row = page.model.keys().index("goods.mist-nets")
    click(qtbot, page.table, row)
    assert session.look.station == "left"
    assert "1. Open Left door" in page.words.text()
    assert page.model.picture(1.0)[0] == "Net drawer: 2 of 2 actions"
    seen = []
    qtbot.mouseClick(page.begin, LEFT)
    for _ in range(3):
        seen.append((page.model.step(), page.picture.grab().toImage()))
        qtbot.mouseClick(page.on, LEFT)
    assert [n for n, _i in seen] == [0, 1, 2]
    assert seen[0][1] != seen[1][1] != seen[2][1]
    assert not page.on.isEnabled()
    qtbot.mouseClick(page.back, LEFT)
    assert page.model.step() == 1


def test_somebody_reaches_in_profile_and_from_above(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    session.view.turn_to("Access", "Reach and sight", access={"chosen": ""})
    page = window.page("Access", "Reach and sight")
    assert isinstance(page, ReachPage)
    row = page.model.keys().index("space.net-drawer.")
    click(qtbot, page.table, row)
    title, drawn = page.model.profile(1.0)
    assert title.startswith("Ida, 162 cm, Net drawer: in reach")
    assert drawn is not None
    assert sum(s.role == "figure" for s in drawn[0]) > 10
    qtbot.mouseClick(page.person, LEFT)
    assert page.model.profile(1.0)[0].startswith("Oskar")
    assert page.model.above(1.0)[1] is not None
    assert "taken from the left" in window.card._kind.text()


def test_people_dogs_and_berths(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    session.view.turn_to("Access", "Living", access={"chosen": ""})
    page = window.page("Access", "Living")
    assert isinstance(page, LivingPage)
    rows = page.table.rowCount()
    do(session, "access.add_dog")
    do(session, "access.add_berth")
    assert page.table.rowCount() == rows + 2
    assert session.look.access.chosen.startswith("berths.")
    edit = window.card.edit_of(f"party.{session.look.access.chosen}.length")
    assert isinstance(edit, QLineEdit)
    edit.setFocus()
    edit.selectAll()
    qtbot.keyClicks(edit, "1500")
    qtbot.keyClick(edit, Qt.Key.Key_Return)
    assert "access.berth" in [f.code for f in session.verdict.findings]
    qtbot.mouseClick(page.remove, LEFT)
    do(session, "access.add_person")
    assert len(session.verdict.access.seen[0]) == 3
    assert "Level with" in page.words.text()


def test_lifting_and_the_canopy_off_and_on(
    window: MainWindow, qtbot: QtBot, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    session = window.session
    session.view.turn_to("Access", "Lifting")
    page = window.page("Access", "Lifting")
    assert isinstance(page, LiftingPage)
    assert text(page.table, 0, 6) == "beyond bounds"
    click(qtbot, page.table, 0)
    assert session.look.access.chosen.startswith("space.")
    session.view.turn_to("Access", "Off and on")
    off = window.page("Access", "Off and on")
    assert isinstance(off, OffOnPage)
    assert "Unplug at vehicle | canopy" in off.words.text()
    drawn = off.model.picture(1.5)[1]
    assert drawn is not None
    said = [
        s.text
        for s in drawn[0]
        if hasattr(s, "text") and str(getattr(s, "text", "")).endswith(" kg")
    ]
    found = session.verdict.access.off_on
    assert found is not None
    assert sum(float(w.removesuffix(" kg")) for w in said) == pytest.approx(found.loaded, abs=3)
    monkeypatch.setattr(session.asker, "folder", lambda _w: tmp_path)
    do(session, "access.papers")
    assert (tmp_path / "canopy-off.txt").exists()
    monkeypatch.setattr(session.asker, "file", lambda *_a, **_k: tmp_path / "pack.csv")
    do(session, "access.pack")
    assert "Mist nets" in (tmp_path / "pack.csv").read_text()


def test_a_finding_turns_to_its_page(window: MainWindow) -> None:
    session = window.session
    finding = next(f for f in session.verdict.findings if f.code == "access.lift")
    session.view.set(**facing(finding, session.verdict.assembly, session.look))
    assert (session.look.stage, session.look.page("Access")) == ("Access", "Lifting")


def test_a_good_is_changed_added_and_taken_off_in_its_table(
    window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    session.view.turn_to("Access", "Gear")
    page = window.page("Access", "Gear")
    assert isinstance(page, GoodsPage)
    table, goods = page.table, session.job.goods
    typed(qtbot, table, 1, 1, "3")
    typed(qtbot, table, 1, 2, "2*0.75")
    typed(qtbot, table, 1, 4, "rarely")
    one = good(window, goods[1].id)
    assert (one.count, one.mass, one.use) == (3, 1.5, "rarely")
    typed(qtbot, table, 1, 5, session.job.holders()["tools"])
    assert good(window, goods[1].id).place == "tools"
    typed(qtbot, table, 1, 1, "2.5")
    assert session.messages.trouble
    assert good(window, goods[1].id).count == 3
    last = len(goods)
    typed(qtbot, table, last, 2, "4")
    assert len(session.job.goods) == last, "it has no name yet"
    typed(qtbot, table, last, 0, "Kite")
    assert (session.job.goods[-1].name, session.job.goods[-1].mass) == ("Kite", 4.0)
    assert session.history.undo_words() == "add Kite"
    click(qtbot, table, last)
    qtbot.keyClick(table, Qt.Key.Key_Delete)
    assert len(session.job.goods) == last


def test_goods_of_a_spreadsheet_are_pasted_into_the_table(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    session.view.turn_to("Access", "Gear")
    page = window.page("Access", "Gear")
    assert isinstance(page, GoodsPage)
    board, count = QGuiApplication.clipboard(), len(session.job.goods)
    assert board is not None
    board.setText("Kite\t2\t0.4\t\trarely\tin the cab\nDrum\t1\t3\t\teach stop\tnot stowed yet\n")
    page.table.setCurrentIndex(page.table.index_of(count, 0))
    page.table.setFocus()
    qtbot.keyClick(page.table, Qt.Key.Key_V, Qt.KeyboardModifier.ControlModifier)
    assert [(g.name, g.count, g.mass, g.use, g.place) for g in session.job.goods[count:]] == [
        ("Kite", 2, 0.4, "rarely", "cab"), ("Drum", 1, 3.0, "each stop", ""),
    ]  # fmt: skip
    session.undo()
    assert len(session.job.goods) == count


def test_looking_at_the_places_to_choose_from_moves_nothing(
    window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    session.view.turn_to("Access", "Gear")
    page = window.page("Access", "Gear")
    assert isinstance(page, GoodsPage)
    before, port = session.job, page.table.viewport()
    assert port is not None
    row = next(n for n, g in enumerate(session.job.goods) if g.part)
    at = page.table.rect_of(row, 5).center()
    qtbot.mouseClick(port, LEFT, pos=at)
    qtbot.mouseDClick(port, LEFT, pos=at)
    box = next(b for b in port.findChildren(QComboBox) if b.isVisible())
    assert box.currentText() == session.job.holders()[session.job.goods[row].place]
    box.hidePopup()
    page.search.setFocus()
    page.table.setCurrentIndex(page.table.index_of(0, 0))
    for _ in range(3):
        QApplication.processEvents()
    assert session.job is before


def test_the_party_is_changed_in_its_table(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    session.view.turn_to("Access", "Living")
    table = window.page("Access", "Living").party
    typed(qtbot, table, 0, 2, "1700")
    assert session.job.party.people[0].stature == 1700
    typed(qtbot, table, 0, 4, "900")
    assert session.messages.trouble, "a person is not high besides"
    last = len(session.job.party.people)
    typed(qtbot, table, last, 2, "1900")
    assert len(session.job.party.people) == last, "there is no name yet"
    typed(qtbot, table, last, 0, "Runa")
    assert (session.job.party.people[-1].name, session.job.party.people[-1].stature) == (
        "Runa",
        1900,
    )
    click(qtbot, table, last)
    qtbot.keyClick(table, Qt.Key.Key_Delete)
    assert [p.name for p in session.job.party.people] == ["Ida", "Oskar"]
