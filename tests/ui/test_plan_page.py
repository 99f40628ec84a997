"""The page Plan by hand: bars by person, station and thing, looked at nearer and later, held and let go."""

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtGui import QWheelEvent
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.pages.build import plan as plan_page
from roomy_hull.desktop.pages.build.plan import PlanPage
from roomy_hull.desktop.window import MainWindow
from roomy_hull.job.edits import building as edits
from roomy_hull.session.doing import do, registry
from roomy_hull.session.pages.build.words import built
from tests.ui.conftest import Hand, turn

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier
CTRL = Qt.KeyboardModifier.ControlModifier


@pytest.fixture
def page(shop: MainWindow) -> PlanPage:
    """The page Plan of a job in the shop."""
    found = turn(shop, "Plan")
    assert isinstance(found, PlanPage)
    found.picture.repaint()
    return found


def middle(page: PlanPage, key: str) -> QPointF:
    """Where the middle of an operation's first bar is on the picture. [px]"""
    lies, model = page.picture.window(), page.model
    assert lies is not None
    one, sheet = model.placed()[key], model.lies(model.aspect)
    owner = built(page.session).ops[key].owner
    row = {
        "person": one.people[0] if one.people else "",
        "station": f"{built(page.session).ops[key].station}/{one.lane}",
        "thing": (owner.id or owner.kind) if owner is not None else "job",
    }[page.session.look.build.bars]
    at = [k for k, _n in model.rows()].index(row)
    return lies.px(((one.start + one.finish) / 2, sheet.top(at) - sheet.high / 2))


def long(page: PlanPage) -> str:
    """The key of a bar that is long enough to be hit."""
    placed = page.model.placed()
    return next(
        k for k, p in placed.items() if p.people and p.finish - p.start > 120 and p.start < 900
    )


def wheel(page: PlanPage, at: QPointF, turns: int, keys: Qt.KeyboardModifier = NONE) -> None:
    """Turn the wheel over the picture."""
    glob = QPointF(page.picture.mapToGlobal(QPoint(0, 0))) + at
    QApplication.sendEvent(page.picture, QWheelEvent(
        at, glob, QPoint(0, 0), QPoint(0, 120 * turns), Qt.MouseButton.NoButton, keys,
        Qt.ScrollPhase.NoScrollPhase, False))  # fmt: skip
    QApplication.processEvents()


@pytest.mark.parametrize("rows", ["person", "station", "thing"])
def test_a_bar_is_chosen_in_whatever_rows_it_stands(
    page: PlanPage, qtbot: QtBot, rows: str
) -> None:
    qtbot.mouseClick(page.by[rows], LEFT)
    page.model.days = 2.0
    page.picture.repaint()
    key = long(page)
    at = middle(page, key)
    qtbot.mouseClick(page.picture, LEFT, pos=at.toPoint())
    assert page.session.look.build.op == key
    # A click, and a hand that trembles by a pixel, hold nothing.
    hand = Hand(page.picture)
    hand.press(at)
    hand.move(at + QPointF(1, 0))
    hand.release(at + QPointF(1, 0))
    assert page.session.job.plan.held == ()
    assert page.model.dragged is False


def test_every_operation_has_its_bar_with_everybody_who_does_it(page: PlanPage) -> None:
    model, build = page.model, built(page.session)
    assert f"of {len(build.ops)} operations done" in model.drawn(2.0)[0]
    hit = 0
    for key, one in model.placed().items():
        for rows, mine in (
            ("person", one.people),
            ("station", (f"{build.ops[key].station}/{one.lane}",)),
        ):
            page.session.view.set(build={"bars": rows})
            sheet, names = model.lies(model.aspect), [k for k, _name in model.rows()]
            assert len(set(names)) == len(names)
            for row in (names.index(m) for m in mine if m in names):
                # Nobody, and no place of a station, is at two things at once: what is hit is it.
                assert (
                    model.bar_at((one.start + one.finish) / 2, sheet.top(row) - sheet.high / 2)
                    == key
                )
                hit += 1
    assert hit > len(build.tasks)


def test_under_the_mouse_a_bar_says_what_it_is(page: PlanPage) -> None:
    page.model.days = 2.0
    page.picture.repaint()
    key = long(page)
    Hand(page.picture).move(middle(page, key))
    build = built(page.session)
    assert page.picture.toolTip().startswith(f"{build.ops[key].words}: {build.hours[key]:.1f} h.")
    Hand(page.picture).move(QPointF(3, page.picture.height() - 3))
    assert page.picture.toolTip() == ""


def test_the_wheel_looks_later_and_with_ctrl_nearer(page: PlanPage, qtbot: QtBot) -> None:
    model, key = page.model, long(page)
    model.days = 4.0
    page.picture.repaint()
    at = middle(page, key)
    lies = page.picture.window()
    assert lies is not None
    under = lies.mm(at.x(), at.y())[0]
    wheel(page, at, 2, CTRL)
    assert model.days == pytest.approx(4.0 * 0.64)
    lies = page.picture.window()
    assert lies is not None
    # What is under the mouse stays there.
    assert lies.mm(at.x(), at.y())[0] == pytest.approx(under, abs=2)
    first = model.first
    wheel(page, at, -1)
    assert model.first > first
    wheel(page, at, 400)
    assert model.first == 0
    qtbot.mouseClick(page.whole, LEFT)
    build = built(page.session)
    sheet = model.lies(model.aspect)
    assert sheet.first <= min(p.start for p in build.levelled.placed.values())
    assert sheet.last >= build.levelled.end


def test_a_bar_is_given_to_somebody_else_by_dragging_it_to_their_row(page: PlanPage) -> None:
    session, model = page.session, page.model
    model.days = 2.0
    page.picture.repaint()
    build = built(session)
    key = next(
        k for k, p in model.placed().items()
        if len(p.people) == 1 and len(build.tasks[k].people) > 1 and p.finish - p.start > 120 and p.start < 900
    )  # fmt: skip
    one = model.placed()[key]
    other = next(p for p in build.tasks[key].people if p != one.people[0])
    lies, sheet = page.picture.window(), model.lies(model.aspect)
    assert lies is not None
    row = [k for k, _n in model.rows()].index(other)
    at = middle(page, key)
    to = QPointF(at.x(), lies.px((0.0, sheet.top(row) - sheet.high / 2)).y())
    hand = Hand(page.picture)
    hand.press(at)
    hand.move(to)
    hand.release(to)
    assert [(h.op, h.person) for h in session.job.plan.held] == [(key, other)]
    assert built(session).levelled.placed[key].people == (other,)
    assert registry().get("build.let_go").enabled(session)
    do(session, "build.let_go")
    assert session.job.plan.held == ()


def test_an_arrow_moves_by_an_hour_and_with_shift_by_a_quarter(
    page: PlanPage, qtbot: QtBot
) -> None:
    session, key = page.session, long(page)
    session.view.set(build={"op": key})
    start = built(session).levelled.placed[key].start
    qtbot.keyClick(page.picture, Qt.Key.Key_Right)
    begins = built(session).tasks[key].begins
    assert begins == pytest.approx(start + 60, abs=8)
    qtbot.keyClick(page.picture, Qt.Key.Key_Right, Qt.KeyboardModifier.ShiftModifier)
    later = built(session).levelled.placed[key].start
    assert later == pytest.approx(max(begins, later - 15) + 15, abs=8)
    session.undo()
    session.undo()
    assert session.job.plan.held == ()


def test_todays_list_chooses_its_operation_and_the_other_way_round(page: PlanPage) -> None:
    keys = page.model.today_keys()
    assert len(keys) == page.today.rowCount() > 1
    page.today.cell_clicked.emit(1, 0)
    assert page.session.look.build.op == keys[1]
    assert built(page.session).ops[keys[1]].words == page.today.text_at(1, 1)


def test_a_day_without_work_says_what_comes_first(page: PlanPage) -> None:
    session = page.session
    assert "Nothing can be done" not in page.words.text()
    session.edit("far off", edits.planned(session.job, vehicle_from="2027-03-01"))
    build, job = built(session), session.job
    for key, task in build.tasks.items():
        if not task.after:
            job = edits.held(job, key, day="2027-02-15")
    session.edit("later", job)
    page.refresh()
    assert page.today.rowCount() == 0
    first = built(session).levelled.order[0]
    assert f"what comes first is '{built(session).ops[first].words}'" in page.words.text()


def test_a_search_that_runs_to_its_end_says_what_it_found(
    page: PlanPage, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(plan_page, "ROUNDS", 40)
    before = built(page.session).levelled
    qtbot.mouseClick(page.improve, LEFT)
    assert not page.improve.isEnabled()
    qtbot.waitUntil(lambda: page.idle, timeout=30_000)
    assert page.improve.isEnabled()
    after = built(page.session).levelled
    told = page.session.messages.text
    assert ("shorter." in told) == (after.end < before.end)
    assert after.end <= before.end


def test_what_is_found_for_a_job_that_changed_meanwhile_is_not_taken(
    page: PlanPage, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(plan_page, "ROUNDS", 40)
    qtbot.mouseClick(page.improve, LEFT)
    page.session.edit("due", edits.planned(page.session.job, due="2027-05-01"))
    qtbot.waitUntil(lambda: page.idle, timeout=30_000)
    assert page.session.job.plan.order == ()
    assert "changed meanwhile" in page.session.messages.text
