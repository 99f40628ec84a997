"""The stage Loads in the real window: its pages by key and mouse, what they say, and what they change."""

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor
from PyQt6.QtWidgets import QLineEdit, QPushButton
from pytestqt.qtbot import QtBot

from roomy_hull.core.refs import Ref
from roomy_hull.desktop.pages.loads.board import BoardPage
from roomy_hull.desktop.pages.loads.budget import BudgetPage
from roomy_hull.desktop.pages.loads.chassis import ChassisPage
from roomy_hull.desktop.pages.loads.levers import LeversPage
from roomy_hull.desktop.pages.loads.scenarios import ScenariosPage
from roomy_hull.desktop.pages.loads.springs import SpringsPage
from roomy_hull.desktop.pages.loads.stability import StabilityPage
from roomy_hull.desktop.pages.loads.strength import StrengthPage
from roomy_hull.desktop.window import MainWindow
from roomy_hull.job.edits import scenarios
from roomy_hull.job.edits import units as edits
from roomy_hull.session.actions import editing
from roomy_hull.session.marks import bare
from roomy_hull.session.pages.table import stage
from roomy_hull.session.showing import show_finding
from roomy_hull.studies.loads import board
from tests.ui.loads import click, page, row_of, text, typed

LEFT, CTRL = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ControlModifier


def test_pages_by_key_each_painted_in_both_themes_and_systems(
    window: MainWindow, qtbot: QtBot
) -> None:
    for system, dark in (("metric", False), ("us", True)):
        window.session.view.set(system=system, dark=dark)
        for n, name in enumerate((p.title for p in stage("Loads").pages), 1):
            qtbot.keyClick(
                window, getattr(Qt.Key, f"Key_{n}"), CTRL | Qt.KeyboardModifier.AltModifier
            )
            assert window.session.look.page("Loads") == name
            assert window.stage("Loads").bar.buttons[name].isChecked()
            picture = window.grab().toImage()
            assert (
                len({picture.pixel(x, y) for x in range(120, 960, 24) for y in range(70, 640, 24)})
                > 5
            )
            assert window.size().width() == 1280


def test_a_click_on_a_figure_answers_why(window: MainWindow, qtbot: QtBot) -> None:
    found = page(window, "Board")
    assert isinstance(found, BoardPage)
    table = found.table
    assert text(table, row_of("gross"), 0) == "3,500"
    assert text(table, row_of("gross"), 3) == "3,275 ± 20"
    click(qtbot, table, row_of("rear left"), 4)
    assert window.session.look.scenario == "dry"
    assert window.strip.chooser.currentText() == "Coming home dry"
    assert "Wheel rear left: Coming home dry" in found.rule.text()
    figure = board.cell(window.session.verdict.loads.scenario("dry"), "rear left")
    assert figure is not None
    assert text(found.why, 0, 3) == f"{figure.value:,.0f} kg"
    amounts = [
        float(text(found.why, r, 3).replace(",", "")) for r in range(1, found.why.rowCount())
    ]
    assert sum(amounts) == pytest.approx(figure.value, abs=0.5 * len(amounts))
    click(qtbot, table, row_of("level"), 2)
    assert "N/mm" in found.rule.text()
    assert text(found.why, 0, 3).endswith("mm")
    window.session.view.set(system="us")
    assert text(table, row_of("gross"), 0) == "7,716"


def test_sweeps_and_the_worst_cell(window: MainWindow, qtbot: QtBot) -> None:
    found = page(window, "Board")
    assert isinstance(found, BoardPage)
    assert (
        found.verdict.text() == "The worst cell governs: gross in 'Worst rear', 97% of its limit."
    )
    qtbot.mouseClick(found.tabs["water"], LEFT)
    assert found.beside.currentIndex() == 1
    title, drawn = found.model.sweep(1.8)
    assert "water" in title
    assert drawn[0]
    qtbot.mouseClick(found.tabs["why"], LEFT)
    assert found.beside.currentIndex() == 0


def test_an_overload_is_seen_on_the_board(window: MainWindow) -> None:
    found = page(window, "Board")
    assert isinstance(found, BoardPage)
    window.session.edit("load", edits.changed(window.session.job, "camp", contents=900.0))
    index = found.table.index_of(row_of("rear"), 3)
    assert "· 100%" in index.data()
    assert index.data(Qt.ItemDataRole.ForegroundRole) == QColor(found.theme.stop)
    assert window.session.verdict.count("stop", "Loads") >= 2


def test_the_card_edits_the_chosen_scenario(window: MainWindow, qtbot: QtBot) -> None:
    page(window, "Board")
    edit = window.card.edit_of("scenarios.full.people.2")
    assert isinstance(edit, QLineEdit)
    edit.setFocus()
    edit.selectAll()
    qtbot.keyClicks(edit, "30+25")
    qtbot.keyClick(edit, Qt.Key.Key_Return)
    assert window.session.scenario().people == (82, 74, 55)
    water = window.card.edit_of("scenarios.full.water")
    assert isinstance(water, QLineEdit)
    water.setFocus()
    water.selectAll()
    qtbot.keyClicks(water, "150")
    qtbot.keyClick(water, Qt.Key.Key_Return)
    assert window.session.scenario().water == 1
    assert window.session.messages.trouble
    qtbot.keyClick(window, Qt.Key.Key_Z, CTRL)
    assert window.session.scenario().people == (82, 74)


def test_levers_rank_answer_and_improve(window: MainWindow, qtbot: QtBot) -> None:
    found = page(window, "Levers")
    assert isinstance(found, LeversPage)
    names = [text(found.table, r, 0) for r in range(found.table.rowCount())]
    assert names[0] == "Vehicle, fuel, people"
    click(qtbot, found.table, names.index("Sample fridge"), 0)
    assert window.session.selection.key == "sample-fridge"
    found.by.selectAll()
    qtbot.keyClicks(found.by, "2*150")
    qtbot.mouseClick(found.ways["aft"], LEFT)
    assert found.answer.text().startswith("300 mm aft: front -6.9 kg")
    assert "Came off: front -27.9" in found.answer.text()
    found.by.setText("x")
    assert "figure" in found.answer.text()
    found.by.setText("300")
    qtbot.mouseClick(found.buttons["side"], LEFT)
    assert found.model.measure == "side"
    qtbot.mouseClick(found.finder, LEFT)
    qtbot.waitUntil(lambda: found.work is None, timeout=20_000)
    assert found.list.count() >= 3
    before = window.session.verdict.loads.scenario("full")
    item = found.list.item(0)
    assert item is not None
    gain = float(item.text().split()[0].strip("−"))
    found.list.setCurrentItem(item)
    qtbot.keyClick(found.list, Qt.Key.Key_Return)
    after = window.session.verdict.loads.scenario("full")
    lean = [abs(s.right.value - s.left.value) for s in (before, after)]
    assert lean[0] - lean[1] == pytest.approx(gain, abs=0.7)
    assert window.session.verdict.count("stop") == 0


def test_springs_are_fitted_and_the_drawing_sits_so(window: MainWindow, qtbot: QtBot) -> None:
    found = page(window, "Springs")
    assert isinstance(found, SpringsPage)
    before = found.picture.grab().toImage()
    assert "44 mm tail low on standard springs" in found.model.vehicle(1.5)[0]
    qtbot.mouseClick(found.buttons["air"], LEFT)
    assert window.session.job.vehicle.springs.school == "air"
    assert found.buttons["air"].isChecked()
    assert found.picture.grab().toImage() != before
    assert not [f for f in window.session.verdict.findings if f.code == "loads.level"]
    assert window.card.edit_of("vehicle.springs.air_x") is not None
    assert "never run them below" in found.words.text()
    rows = {text(found.table, r, 0): r for r in range(found.table.rowCount())}
    assert text(found.table, rows["6  Worst rear"], 13) == "634"
    window.session.view.set(system="us")
    assert text(found.table, rows["6  Worst rear"], 13) == "92"


def test_the_chassis_page_names_peaks_and_effects(window: MainWindow, qtbot: QtBot) -> None:
    found = page(window, "Chassis")
    assert isinstance(found, ChassisPage)
    c = window.session.verdict.carrying
    assert c is not None
    assert text(found.table, 2, 1) == f"{c.chassis.diagrams[2].peak / 1e3:,.1f}"
    click(qtbot, found.table, 5, 0)
    assert window.session.look.scenario == "rear"
    words = [text(found.effects, r, 0) for r in range(found.effects.rowCount())]
    assert words[:2] == ["As it is", "Without the ball mass"]
    assert found.model.variations() is found.model.variations()


def test_strength_writes_out_every_sum(window: MainWindow, qtbot: QtBot) -> None:
    found = page(window, "Strength")
    assert isinstance(found, StrengthPage)
    rows = found.model.rows()
    assert [r.use for r in rows] == sorted((r.use for r in rows), reverse=True)
    assert {r.kind for r in rows} == {"Mount", "Slide", "Member", "Strut"}
    assert (rows[0].kind, rows[0].owner) == ("Slide", Ref("unit", "tools"))
    assert "107%" in text(found.table, 0, 3)
    for n, row in enumerate(rows):
        found.model.at = n
        lines = bare(found.model.words()).splitlines()
        assert len(lines) >= 3
        assert row.name in lines[0]
    qtbot.mouseClick(found.buttons["Strut"], LEFT)
    assert {r.kind for r in found.model.rows()} == {"Strut"}
    click(qtbot, found.table, 1, 1)
    assert found.picture.isVisible()
    assert "Stays open" in found.words.text()
    assert not found.put.isVisible()


def test_proposed_struts_go_into_the_job(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    assert editing.set_size(session, path="body.canopy.doors.left.strut", value=None)
    found = page(window, "Strength")
    assert isinstance(found, StrengthPage)
    found.only("Strut")
    found.model.at = next(n for n, r in enumerate(found.model.rows()) if r.name == "Door left")
    found.refresh()
    assert found.put.isVisible()
    qtbot.mouseClick(found.put, LEFT)
    canopy = session.job.body.canopy
    assert canopy is not None
    assert canopy.doors[0].strut is not None
    assert not found.put.isVisible()


def test_stability_numbers_its_scenarios(window: MainWindow, qtbot: QtBot) -> None:
    found = page(window, "Stability")
    assert isinstance(found, StabilityPage)
    assert text(found.table, 2, 0) == "3  Leaving full, crew of two"
    assert text(found.table, 2, 4) == "0.96"
    click(qtbot, found.table, 0, 3)
    assert window.session.look.scenario == "tray"
    assert "1.19" in found.model.behind(1.0)[0]


def test_scenarios_are_changed_where_they_stand(window: MainWindow, qtbot: QtBot) -> None:
    found = page(window, "Scenarios")
    assert isinstance(found, ScenariosPage)
    session, rows = window.session, len(window.session.job.scenarios)
    gross = session.verdict.loads.scenario("full").gross.value
    at = next(n for n, s in enumerate(session.job.scenarios) if s.id == "full")
    heads = [c.header for c in found.model.columns()]
    typed(qtbot, found.table, at, heads.index("Driver"), "82+18")
    one = session.job.scenarios[at]
    assert one.people[0] == 100
    assert session.verdict.loads.scenario("full").gross.value == pytest.approx(gross + 18)
    assert text(found.table, at, heads.index("Gross")) == f"{gross + 18:,.0f}"
    typed(qtbot, found.table, at, heads.index("Fuel, %"), "50")
    typed(qtbot, found.table, at, heads.index("Canopy"), "n")
    assert (session.job.scenarios[at].fuel, session.job.scenarios[at].canopy) == (0.5, False)
    click(qtbot, found.table, at, 0)
    assert session.look.scenario == "full"
    typed(qtbot, found.table, rows, 0, "Half way")
    new = session.job.scenarios[-1]
    assert (new.name, new.fuel, new.canopy) == ("Half way", 0.5, False), (
        "it begins as the chosen one"
    )
    assert session.history.undo_words() == "add scenario Half way"
    click(qtbot, found.table, rows, 0)
    qtbot.keyClick(found.table, Qt.Key.Key_Delete)
    assert len(session.job.scenarios) == rows


def test_the_brief_is_edited_on_its_page(window: MainWindow, qtbot: QtBot) -> None:
    found = page(window, "Budget")
    assert isinstance(found, BudgetPage)
    session = window.session
    assert "leaves <b>0 kg</b>" in found.sums.text()
    last = found.table.rowCount()
    for column, words in ((0, "Anvil"), (3, "3900"), (1, "n"), (2, "20*2")):
        typed(qtbot, found.table, last, column, words)
    wish = session.job.brief.wishes[-1]
    assert (wish.name, wish.mass, wish.x, wish.need) == ("Anvil", 40, 3900, "needed")
    typed(qtbot, found.table, last, 2, "150")
    assert session.job.brief.wishes[-1].mass == 150
    assert "-150 kg" in found.sums.text()
    name = next(t.name for t in session.known.assembly.things if t.id == "tools")
    typed(qtbot, found.table, last, 4, name)
    assert session.job.brief.wishes[-1].thing == "tools"
    typed(qtbot, found.table, last, 2, "much")
    assert session.messages.trouble
    assert session.job.brief.wishes[-1].mass == 150
    click(qtbot, found.table, last, 0)
    qtbot.keyClick(found.table, Qt.Key.Key_Delete)
    assert session.job.brief.wishes[-1].name == "Compressor and air tank"


def test_a_finding_on_loads_turns_to_its_page(window: MainWindow) -> None:
    level = next(f for f in window.session.verdict.findings if f.code == "loads.level")
    show_finding(window.session, level)
    assert (window.session.look.stage, window.session.look.page("Loads")) == ("Loads", "Springs")
    assert window.session.look.scenario == "rear"


def test_a_thing_is_left_at_home_from_its_lever_and_taken_along(
    window: MainWindow, qtbot: QtBot
) -> None:
    found = page(window, "Levers")
    assert isinstance(found, LeversPage)

    def names() -> list[str]:
        return [text(found.table, r, 0) for r in range(found.table.rowCount())]

    click(qtbot, found.table, names().index("Light punt"), 0)
    before = window.session.verdict.loads.scenario("full").gross.value
    qtbot.mouseClick(found.home, LEFT)
    assert window.session.scenario().left_behind == ("punt",)
    assert window.session.verdict.loads.scenario("full").gross.value == pytest.approx(before - 38)
    assert names()[-1] == "Light punt (at home)"
    assert found.home.text().startswith("Take it along")
    qtbot.mouseClick(found.home, LEFT)
    assert window.session.scenario().left_behind == ()
    assert "Light punt" in names()


def test_scenarios_are_added_copied_and_deleted_from_the_board(
    window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    found = page(window, "Board")
    assert isinstance(found, BoardPage)
    monkeypatch.setattr(window.session.asker, "name", lambda words, wish: "Two dogs along")
    buttons = {b.text(): b for b in found.findChildren(QPushButton)}
    qtbot.mouseClick(buttons["Copy…"], LEFT)
    assert window.session.scenario().name == "Two dogs along"
    assert found.table.columnCount() == 8
    qtbot.mouseClick(buttons["Delete"], LEFT)
    assert found.table.columnCount() == 7
    qtbot.mouseClick(found.usual, LEFT)
    assert found.table.columnCount() > 7
    assert not found.usual.isVisible()
    window.grab()


def test_a_board_of_many_scenarios_scrolls(window: MainWindow) -> None:
    job = window.session.job
    for n in range(18):
        job = scenarios.copied(job, "full", f"Another trip {n}")
    window.session.edit("many", job)
    found = page(window, "Board")
    assert isinstance(found, BoardPage)
    bar = found.table.horizontalScrollBar()
    assert found.table.columnCount() == 25
    assert bar is not None
    assert bar.maximum() > 0
    assert window.grab().width() == 1280


def test_a_search_is_given_up_and_one_overtaken_by_an_edit_shows_nothing(
    window: MainWindow, qtbot: QtBot
) -> None:
    found = page(window, "Levers")
    assert isinstance(found, LeversPage)
    qtbot.mouseClick(found.finder, LEFT)
    qtbot.mouseClick(found.finder, LEFT)
    qtbot.waitUntil(lambda: found.work is None, timeout=20_000)
    assert found.finder.text().startswith("Best moves")
    if found.list.count() == 0:
        assert "given up" in window.session.messages.text
    qtbot.mouseClick(found.finder, LEFT)
    window.session.edit("meanwhile", edits.changed(window.session.job, "camp", contents=12.0))
    qtbot.waitUntil(lambda: found.work is None, timeout=20_000)
    assert found.list.count() == 0
