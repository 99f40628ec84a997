"""The one table: sorted, filtered by typing, copied and pasted, its columns as wide as their words."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtGui import QGuiApplication
from pytestqt.qtbot import QtBot

from roomy_hull.core.findings import Finding
from roomy_hull.desktop.pages.build.brief import BriefPage
from roomy_hull.desktop.pages.loads.budget import BudgetPage
from roomy_hull.desktop.table_cells import order_of
from roomy_hull.desktop.table_view import LEAST, Grid, shared_out
from roomy_hull.desktop.window import MainWindow
from roomy_hull.drawing.style import LIGHT
from roomy_hull.job.edits import units as edits
from tests.ui.loads import page, typed

LEFT, CTRL = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ControlModifier
ROWS = [
    [("Rope", ""), ("12", "")],
    [("Anvil", "stop"), ("1,250.5", "")],
    [("=Saw", ""), ("3 of 4", "")],
    [("Box", ""), ("", "")],
]


@pytest.fixture
def grid(qtbot: QtBot) -> Grid:
    """A table of four rows."""
    made = Grid("Trial", rows_chosen=True)
    qtbot.addWidget(made)
    made.resize(420, 200)
    made.show()
    made.fill(LIGHT, ("What", "How much"), ROWS)
    return made


def names(grid: Grid) -> list[str]:
    return [str(grid.shown.index(n, 0).data()) for n in range(grid.shown.rowCount())]


def test_a_head_sorts_by_size_then_turns_round_then_lets_be(grid: Grid, qtbot: QtBot) -> None:
    across = grid.horizontalHeader()
    assert across is not None
    at = QPoint(across.sectionViewportPosition(1) + 20, 10)
    seen = []
    for _ in range(3):
        qtbot.mouseClick(across.viewport(), LEFT, pos=at)
        seen.append(names(grid))
    assert seen == [
        ["=Saw", "Rope", "Anvil", "Box"],
        ["Box", "Anvil", "Rope", "=Saw"],
        ["Rope", "Anvil", "=Saw", "Box"],
    ]


def test_sorted_rows_are_told_as_they_were_filled(grid: Grid, qtbot: QtBot) -> None:
    grid.sortByColumn(0, Qt.SortOrder.AscendingOrder)
    told: list[tuple[int, int]] = []
    grid.cell_clicked.connect(lambda r, c: told.append((r, c)))
    for row in range(4):
        qtbot.mouseClick(grid.viewport(), LEFT, pos=grid.rect_of(row, 0).center())
        assert grid.chosen_rows() == [row]
    assert told == [(n, 0) for n in range(4)]


def test_typing_shows_only_what_holds_it(grid: Grid, qtbot: QtBot) -> None:
    grid.setFocus()
    qtbot.keyClicks(grid, "AN")
    assert names(grid) == ["Anvil"]
    qtbot.keyClick(grid, Qt.Key.Key_Backspace)
    assert names(grid) == ["Anvil", "=Saw"]
    qtbot.keyClick(grid, Qt.Key.Key_Escape)
    assert len(names(grid)) == 4


def test_what_is_copied_is_taken_by_a_spreadsheet(grid: Grid, qtbot: QtBot) -> None:
    qtbot.keyClick(grid, Qt.Key.Key_C, CTRL)
    board = QGuiApplication.clipboard()
    assert board is not None
    assert board.text() == "What\tHow much\nRope\t12\nAnvil\t1250.5\n'=Saw\t3 of 4\nBox\t"


def test_rows_of_a_spreadsheet_are_pasted_and_copied_rows_come_back_the_same(
    window: MainWindow, qtbot: QtBot
) -> None:
    found = page(window, "Budget")
    assert isinstance(found, BudgetPage)
    wishes, board = window.session.job.brief.wishes, QGuiApplication.clipboard()
    assert board is not None
    last = found.table.rowCount()
    found.table.setCurrentIndex(found.table.shown.mapFromSource(found.table.cells.index(last, 0)))
    board.setText("Kite\twanted\t3\t2000\nDrum\tlater\t4.5\t\n")
    qtbot.keyClick(found.table, Qt.Key.Key_V, CTRL)
    added = window.session.job.brief.wishes[len(wishes) :]
    assert [(w.name, w.need, w.mass, w.x) for w in added] == [
        ("Kite", "wanted", 3, 2000),
        ("Drum", "later", 4.5, 0),
    ]
    assert window.session.history.undo_words().startswith("paste")
    qtbot.keyClick(found.table, Qt.Key.Key_C, CTRL)
    before = window.session.job
    found.table.setCurrentIndex(found.table.shown.index(0, 0))
    qtbot.keyClick(found.table, Qt.Key.Key_V, CTRL)
    after = window.session.job
    assert [w.name for w in after.brief.wishes] == [w.name for w in before.brief.wishes]
    assert all(
        abs(a.mass - b.mass) <= 0.5
        for a, b in zip(after.brief.wishes, before.brief.wishes, strict=True)
    )
    while window.session.history.undo_words().startswith("paste"):
        window.session.undo()
    assert window.session.job.brief.wishes == wishes


@given(
    st.lists(st.tuples(st.integers(LEAST, 400), st.booleans()), min_size=1, max_size=14),
    st.integers(100, 1500),
)
def test_columns_fill_their_room_and_cut_nothing_off_that_has_room(
    wants: list[tuple[int, bool]], room: int
) -> None:
    need = [w for w, _wordy in wants]
    found = shared_out(need, [wordy for _w, wordy in wants], room)
    if sum(need) <= room:
        assert sum(found) == room
        assert all(f >= w for f, w in zip(found, need, strict=True))
    else:
        assert sum(found) <= max(room, LEAST * len(need))
        assert all(LEAST <= f <= w for f, w in zip(found, need, strict=True))
        cut = [(f, wordy) for f, (w, wordy) in zip(found, wants, strict=True) if f < w]
        words = [f for f, (_w, wordy) in zip(found, wants, strict=True) if wordy]
        if cut and all(wordy for _f, wordy in cut):
            assert max(words) <= min(f for f, _wordy in cut), "of words the widest give way"
        elif cut:
            assert sum(w for w, wordy in wants if not wordy) + LEAST * len(words) > room, (
                "figures last of all"
            )


def test_a_width_that_a_hand_drew_stays(grid: Grid, qtbot: QtBot) -> None:
    across = grid.horizontalHeader()
    assert across is not None
    edge = QPoint(across.sectionViewportPosition(1) - 1, 10)
    port = across.viewport()
    qtbot.mousePress(port, LEFT, pos=edge)
    qtbot.mouseMove(port, edge + QPoint(-60, 0))
    was = grid.columnWidth(0)
    qtbot.mouseRelease(port, LEFT, pos=edge + QPoint(-60, 0))
    grid.fill(LIGHT, ("What", "How much"), ROWS[:2])
    assert grid.columnWidth(0) == was


@given(st.lists(st.floats(-1e6, 1e6, allow_nan=False).map(lambda v: round(v, 1)), max_size=8))
def test_figures_are_sorted_by_their_size(values: list[float]) -> None:
    texts = [f"{v:,.1f}" for v in values]
    assert [float(t.replace(",", "")) for t in sorted(texts, key=order_of)] == sorted(values)
    assert order_of("word") > order_of("9,999")
    assert order_of("") > order_of("word")


def test_a_wish_is_changed_and_added_on_the_page_brief(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    session.view.turn_to("Survey", "Brief")
    found = window.page("Survey", "Brief")
    assert isinstance(found, BriefPage)
    wishes = session.job.brief.wishes
    typed(qtbot, found.table, 1, 6, "120*2")
    typed(qtbot, found.table, 1, 3, "77")
    typed(qtbot, found.table, 1, 2, "later")
    one = session.job.brief.wishes[1]
    assert (one.price, one.mass, one.need) == (240, 77, "later")
    typed(qtbot, found.table, len(wishes), 5, "30")
    typed(qtbot, found.table, len(wishes), 1, "Kite")
    last = session.job.brief.wishes[-1]
    assert (last.name, last.litres) == ("Kite", 30)
    assert session.history.undo_words() == "add Kite"
    assert found.table.text_at(len(wishes), 1) == "Kite"


def test_findings_say_by_how_much_in_the_chosen_units(window: MainWindow, qtbot: QtBot) -> None:
    session, panel = window.session, window.findings
    fridge = next(u for u in session.job.units if u.id == "sample-fridge")
    session.edit("clash", edits.changed(session.job, "sample-fridge", u=fridge.u - 50.0))
    rows = [panel.list.item(n).text() for n in range(panel.list.count())]  # type: ignore[union-attr]
    assert "Sample fridge stands ahead of the bay's start · 25 mm" in rows
    session.view.set(system="us")
    rows = [panel.list.item(n).text() for n in range(panel.list.count())]  # type: ignore[union-attr]
    assert "Sample fridge stands ahead of the bay's start · 1 in" in rows


def test_what_is_pasted_below_a_filtered_table_is_new_and_one_step(
    window: MainWindow, qtbot: QtBot
) -> None:
    found, session = page(window, "Budget"), window.session
    assert isinstance(found, BudgetPage)
    wishes, board, told = session.job.brief.wishes, QGuiApplication.clipboard(), list[int]()
    assert board is not None
    found.table.setFocus()
    qtbot.keyClicks(found.table, "winch")
    assert found.table.shown.rowCount() == 2
    board.setText("\n".join(f"Thing {n}\tlater\t{n}\t1000" for n in range(1, 6)))
    found.table.setCurrentIndex(found.table.shown.index(1, 0))
    session.changed.connect(lambda: told.append(len(session.job.brief.wishes)))
    qtbot.keyClick(found.table, Qt.Key.Key_V, CTRL)
    assert session.job.brief.wishes[: len(wishes)] == wishes
    assert [(w.name, w.need, w.mass) for w in session.job.brief.wishes[len(wishes) :]] == [
        (f"Thing {n}", "later", float(n)) for n in range(1, 6)
    ]
    assert told == [len(wishes) + 5], "one step, judged and told once"
    session.undo()
    assert session.job.brief.wishes == wishes


def test_a_figure_in_a_finding_is_not_taken_for_a_part_of_a_name(window: MainWindow) -> None:
    title = "Drawer 40 l and Box 1.2.3 overlap"

    def row(measured: float | None = None, limit: float | None = None) -> str:
        finding = Finding("fit.overlap", "stop", title, (), measured, limit, "mm")
        return window.findings._row(finding)

    assert row() == title
    assert row(4.0) == f"{title} · 4 mm"
    assert row(4.0, 9.0) == f"{title} · 4 mm, limit 9 mm"
