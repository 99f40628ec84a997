"""The stage Build and the brief in the real window: bars dragged, checks by keys, photos dropped, sheets turned, "
"the board."""

from pathlib import Path

from PyQt6.QtCore import QMimeData, QPoint, QPointF, QRectF, Qt, QUrl
from PyQt6.QtGui import QDragEnterEvent, QDragMoveEvent, QDropEvent
from PyQt6.QtWidgets import QApplication
from pytestqt.qtbot import QtBot

from roomy_hull.desktop import build_files
from roomy_hull.desktop.book import pdf, preview
from roomy_hull.desktop.ground.scene_painter import fit
from roomy_hull.desktop.pages.build.board import BoardPage
from roomy_hull.desktop.pages.build.brief import BriefPage
from roomy_hull.desktop.pages.build.buying import BuyingPage
from roomy_hull.desktop.pages.build.checks import ChecksPage
from roomy_hull.desktop.pages.build.log import LogPage
from roomy_hull.desktop.pages.build.offer import OfferPage
from roomy_hull.desktop.pages.build.pack import PackPage
from roomy_hull.desktop.pages.build.plan import PlanPage
from roomy_hull.desktop.pages.build.progress import ProgressPage
from roomy_hull.desktop.window import MainWindow
from roomy_hull.formats import jobfile
from roomy_hull.formats.pack import pack
from roomy_hull.job.edits import building as edits
from roomy_hull.session.pages.build.words import built
from roomy_hull.session.pages.table import stage
from tests.formats.test_photos import png
from tests.session.test_building import Told
from tests.ui.conftest import Hand, turn
from tests.ui.loads import click, typed

LEFT = Qt.MouseButton.LeftButton
CTRL, ALT, SHIFT = (
    Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.AltModifier, Qt.KeyboardModifier.ShiftModifier,
)  # fmt: skip


def test_every_page_by_key_in_both_themes_and_systems(shop: MainWindow, qtbot: QtBot) -> None:
    for system, dark in (("metric", False), ("us", True)):
        shop.session.view.set(system=system, dark=dark)
        for n, title in enumerate((p.title for p in stage("Build").pages), 1):
            qtbot.keyClick(shop, getattr(Qt.Key, f"Key_{n}"), ALT | SHIFT)
            assert shop.session.look.page("Build") == title
            assert shop.stage("Build").bar.buttons[title].isChecked()
            picture = shop.grab().toImage()
            assert (
                len({picture.pixel(x, y) for x in range(120, 960, 24) for y in range(70, 640, 24)})
                > 3
            )
            assert shop.size().width() == 1280


def test_a_bar_is_dragged_and_what_follows_moves(shop: MainWindow, qtbot: QtBot) -> None:
    page = turn(shop, "Plan")
    assert isinstance(page, PlanPage)
    session, model = shop.session, page.model
    qtbot.mouseClick(page.by["station"], LEFT)
    assert session.look.build.bars == "station"
    qtbot.mouseClick(page.by["person"], LEFT)
    model.days = 2.0
    page.picture.repaint()
    lies = page.picture.window()
    assert lies is not None
    key = next(
        k
        for k, p in model.placed().items()
        if k.endswith(":weld") and p.finish - p.start > 120 and p.start < 900
    )
    one = model.placed()[key]
    sheet = model.lies(model.aspect)
    row = [k for k, _n in model.rows()].index(one.people[0])
    at = lies.px(((one.start + one.finish) / 2, sheet.top(row) - sheet.high / 2))
    assert model.bar_at(*lies.mm(at.x(), at.y())) == key
    hand = Hand(page.picture)
    hand.press(QPointF(at))
    assert session.look.build.op == key
    to = at + QPointF(300 * lies.s, 0)
    hand.move(QPointF(to))
    assert session.job.plan.held == ()
    moved = model.placed()
    assert moved[key].start >= one.start + 290
    hand.release(QPointF(to))
    held = session.job.plan.held
    assert [h.op for h in held] == [key]  # type: ignore[var-annotated]
    start = built(session).levelled.placed
    assert start[key].start >= one.start + 285
    for later, task in built(session).tasks.items():
        if key in task.after:
            assert start[later].start >= start[key].finish
    # One gesture is one step.
    session.undo()
    assert session.job.plan.held == ()
    assert built(session).levelled.placed[key] == one
    # Escape puts it back where it was.
    hand.press(QPointF(at))
    hand.move(QPointF(to))
    qtbot.keyClick(page.picture, Qt.Key.Key_Escape)
    hand.release(QPointF(to))
    assert session.job.plan.held == ()
    # By keys, an hour at a time.
    qtbot.keyClick(page.picture, Qt.Key.Key_Right)
    assert [h.op for h in session.job.plan.held] == [key]  # type: ignore[var-annotated]


def test_a_plan_is_improved_beside_the_window_or_said_to_be_as_short_as_can_be(
    shop: MainWindow, qtbot: QtBot
) -> None:
    page = turn(shop, "Plan")
    assert isinstance(page, PlanPage)
    before = built(shop.session).levelled
    qtbot.mouseClick(page.improve, LEFT)
    assert not page.idle
    qtbot.mouseClick(page.stop, LEFT)
    qtbot.waitUntil(lambda: page.idle, timeout=20_000)
    after = built(shop.session).levelled
    assert after.end <= before.end
    assert shop.session.messages.text


def test_an_operation_is_finished_from_the_drawing(shop: MainWindow, qtbot: QtBot) -> None:
    page = turn(shop, "Progress")
    assert isinstance(page, ProgressPage)
    session = shop.session
    qtbot.mouseClick(page.sides["left"], LEFT)
    box = session.verdict.assembly.thing("galley")
    assert box is not None
    area = QRectF(8, 28, page.picture.width() - 16, page.picture.height() - 34)
    _title, drawn = page.model.picture(area.width() / area.height())
    assert drawn is not None
    b = box.envelope
    at = fit(drawn[1], area).px(((b.x0 + b.x1) / 2, (b.z0 + b.z1) / 2))
    qtbot.mouseClick(page.picture, LEFT, pos=QPoint(round(at.x()), round(at.y())))
    assert session.selection.key == "galley"
    assert session.look.build.op == "unit:galley:cut"
    session.asker = Told("1.5")
    qtbot.mouseClick(page.done, LEFT)
    assert session.job.log[-1].op == "unit:galley:cut"
    assert {s for (ref, _n), s in page.model.states().items() if ref.id == "galley"} == {"cut"}
    click(qtbot, page.table, 1, 0)
    assert session.look.build.op == page.model.keys()[1]


def test_checks_are_filled_by_keys_alone(shop: MainWindow, qtbot: QtBot) -> None:
    page = turn(shop, "Checks")
    assert isinstance(page, ChecksPage)
    session = shop.session
    assert "Gaps of the door" in page.question.text()
    page.figures.setFocus()
    qtbot.keyClicks(page.figures, "4 4.5 5 4.2")
    assert "spread 1.0: done" in page.verdict.text()
    qtbot.keyClick(page.figures, Qt.Key.Key_Return)
    assert [(e.result, e.figures, e.words) for e in session.job.log if e.kind == "check"] == [
        ("done", (4.0, 4.5, 5.0, 4.2), "spread 1.0")
    ]
    assert page.figures.text() == ""
    assert "Gaps of the door right" in page.question.text()
    # Figures that fail are not called done.
    qtbot.keyClicks(page.figures, "4 9 5 4")
    qtbot.mouseClick(page.buttons["done"], LEFT)
    assert "By its figures it failed" in session.messages.text
    qtbot.mouseClick(page.buttons["failed"], LEFT)
    qtbot.mouseClick(page.buttons["later"], LEFT)
    assert [e.result for e in session.job.log if e.kind == "check"] == [
        "done",
        "failed",
        "later",
    ]
    qtbot.keyClicks(page.figures, "many") if page.figures.isEnabled() else None
    assert any(f.code == "build.failed" for f in session.verdict.findings)
    click(qtbot, page.table, 0, 1)
    assert session.look.build.check == page.model.checks()[0].key


def test_photos_are_dropped_and_shown_and_a_missing_one_is_named(
    shop: MainWindow, qtbot: QtBot, tmp_path: Path
) -> None:
    page = turn(shop, "Log")
    assert isinstance(page, LogPage)
    for name in ("one.png", "två två.png"):
        (tmp_path / name).write_bytes(png(60, 40))
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(tmp_path / n)) for n in ("one.png", "två två.png")])
    move, none = Qt.DropAction.CopyAction, Qt.KeyboardModifier.NoModifier
    QApplication.sendEvent(page.strip, QDragEnterEvent(QPoint(40, 40), move, data, LEFT, none))
    QApplication.sendEvent(page.strip, QDragMoveEvent(QPoint(40, 40), move, data, LEFT, none))
    QApplication.sendEvent(page.strip, QDropEvent(QPointF(40, 40), move, data, LEFT, none))
    session = shop.session
    photos = [e for e in session.job.log if e.kind == "photo"]
    assert [e.words for e in photos] == ["one", "två två"]
    # The same picture under two names is kept once, and each of its entries stands.
    assert len({e.file for e in photos}) == 2
    assert page.strip.grab().toImage().pixelColor(60, 40).name() == "#4080c0"
    box, key = page.strip.boxes()[1]
    qtbot.mouseClick(page.strip, LEFT, pos=box.center().toPoint())
    assert session.look.build.entry == key == photos[0].id
    assert session.path is not None
    (session.path.parent / "ute.photos" / photos[0].file).unlink()
    page.refresh()
    assert "1 photo missing" in page.words.text()
    book = pack(session.verdict, session.path)
    assert any(p.images for p in book.pages)
    assert any("Missing beside the job" in w for p in book.pages for w in p.words)
    assert pdf(book).startswith(b"%PDF")


def test_what_is_to_order_is_chosen_at_once_and_logged(shop: MainWindow, qtbot: QtBot) -> None:
    shop.session.undo()  # nothing is here yet
    page = turn(shop, "Buying")
    assert isinstance(page, BuyingPage)
    qtbot.mouseClick(page.open, LEFT)
    assert len(page.chosen()) == len(page.model.keys())
    qtbot.keyClicks(page.day, "2027-02-09")
    qtbot.mouseClick(page.ordered, LEFT)
    assert len(shop.session.job.log) == len(page.model.keys())
    assert {p.state for p in built(shop.session).buying} == {"ordered"}
    shop.session.undo()
    assert shop.session.job.log == ()


def test_the_pack_is_turned_sheet_by_sheet(shop: MainWindow, qtbot: QtBot) -> None:
    page = turn(shop, "Hand-over")
    assert isinstance(page, PackPage)
    assert page.count >= len(page.model.book().pages)
    seen = set()
    for n in range(page.count):
        assert page.number.text() == f"{n + 1} of {page.count}"
        image = page.leaf.image
        seen.add(bytes(image.constBits().asarray(image.sizeInBytes())))
        qtbot.keyClick(page, Qt.Key.Key_PageDown)
    assert len(seen) == page.count
    assert not page.on.isEnabled()
    qtbot.mouseClick(page.back, LEFT)
    assert page.model.page == page.count - 1
    image, count = preview(page.model.book(), 1)
    assert count == page.count
    assert image.width() == 1123


def test_the_offer_is_made_and_written(shop: MainWindow, qtbot: QtBot, tmp_path: Path) -> None:
    page = turn(shop, "Quote")
    assert isinstance(page, OfferPage)
    qtbot.waitUntil(lambda: page.idle and page.model.lines() is not None, timeout=30_000)
    assert page.make.isEnabled()
    qtbot.mouseClick(page.make, LEFT)
    assert len(shop.session.job.offers) == 1
    for kind in ("offer", "pack", "lists", "checks", "progress"):
        build_files.write_told(shop.session, kind, tmp_path / "out")
    names = sorted(p.name for p in (tmp_path / "out").iterdir())
    assert [n.split("-")[0] for n in names] == [
        "check",
        "hand",
        "lists",
        "offer",
        "offer",
        "progress.pdf",
    ]
    assert all(p.read_bytes().startswith(b"%PDF") for p in (tmp_path / "out").glob("*.pdf"))
    (tmp_path / "file").write_text("")
    build_files.write_told(shop.session, "pack", tmp_path / "file")
    assert shop.session.messages.trouble


def test_the_board_is_read_beside_the_window_and_opens_a_job(
    shop: MainWindow, qtbot: QtBot
) -> None:
    session = shop.session
    assert session.path is not None
    jobfile.save(
        edits.planned(session.job, due="2027-02-03"), session.path.with_name("other.hull.json")
    )
    page = turn(shop, "Workshop")
    assert isinstance(page, BoardPage)
    qtbot.waitUntil(lambda: page.idle and session.building.board is not None, timeout=60_000)
    cells = page.model.cells()
    assert len(cells) == 2
    assert any(row[5][0] for row in cells)
    assert page.picture.grab().toImage().width() > 300
    before = session.path
    page.table.selectRow([c.path.name for c in page.model.cards()].index("other.hull.json"))
    session.history.mark_saved()
    qtbot.mouseClick(page.open, LEFT)
    assert session.path == before.with_name("other.hull.json")


def test_the_brief_shows_both_schools_in_figures(window: MainWindow, qtbot: QtBot) -> None:
    page = turn(window, "Brief", "Survey")
    assert isinstance(page, BriefPage)
    session = window.session
    row = page.model.keys().index("winch")
    click(qtbot, page.table, row, 1)
    assert session.look.brief.wish == "winch"
    assert "winch" in window.card.edit_of("brief.wishes.winch.name").text().lower()  # type: ignore[attr-defined]
    click(qtbot, page.table, row, 1)
    assert session.look.brief.wish == ""
    for n in range(page.question.count()):
        page.question.setCurrentIndex(n)
        page.question.activated.emit(n)
        QApplication.processEvents()
        assert page.facts.rowCount() >= 2
        assert len(page._ways) >= 2  # the buttons that are there now
    session.view.set(brief={"question": "canopy"})
    QApplication.processEvents()
    qtbot.mouseClick(page._ways[1], LEFT)
    assert [c.way for c in session.job.brief.choices if c.question == "canopy"] == ["comes off"]


def test_an_entry_of_the_log_is_corrected_and_added_in_its_table(
    shop: MainWindow, qtbot: QtBot
) -> None:
    page, session = turn(shop, "Log"), shop.session
    assert isinstance(page, LogPage)
    session.settings.keep_preferences(initials="AB")
    logged, last = session.job.log, page.table.rowCount()
    typed(qtbot, page.table, last, 5, "1.5")
    assert session.job.log == logged, "it says nothing yet"
    typed(qtbot, page.table, last, 4, "Swept the shop")
    new = session.job.log[-1]
    assert (new.words, new.hours, new.by) == ("Swept the shop", 1.5, "AB")
    typed(qtbot, page.table, 0, 4, "Swept and mopped")
    assert len(session.job.log) == len(logged) + 2
    later = session.job.log[-1]
    assert (later.words, later.hours, later.corrects) == ("Swept and mopped", 1.5, new.id)
    assert new in session.job.log, "what was logged stays"
    assert "struck out" in page.table.text_at(1, 2)
    typed(qtbot, page.table, 1, 4, "Once more")
    assert session.messages.trouble
    assert len(session.job.log) == len(logged) + 2


def test_a_check_is_logged_in_its_sheet(shop: MainWindow, qtbot: QtBot) -> None:
    page, session = turn(shop, "Checks"), shop.session
    assert isinstance(page, ChecksPage)
    session.settings.keep_preferences(initials="AB")
    table, sheets = page.table, page.sheets.entries()
    assert table.rowCount() == len(sheets), "no check is added by hand"
    n = next(n for n, r in enumerate(sheets) if r.one.group == "Doors" and r.entry is None)
    typed(qtbot, table, n, 3, "3 4 4 3")
    entry = session.job.log[-1]
    assert (entry.about, entry.figures, entry.result, entry.by) == (
        sheets[n].one.key,
        (3, 4, 4, 3),
        "done",
        "AB",
    )
    assert table.text_at(n, 4) == "done"
    typed(qtbot, table, n, 3, "3 9 4 3")
    assert session.job.log[-1].result == "failed"
    logged = len(session.job.log)
    typed(qtbot, table, n, 4, "d")
    assert session.messages.trouble, "by its figures it failed"
    eye = next(k for k, r in enumerate(sheets) if not r.one.wants)
    typed(qtbot, table, eye, 3, "12")
    assert session.messages.trouble, "it is judged by eye"
    assert len(session.job.log) == logged
    typed(qtbot, table, eye, 4, "l")
    assert (session.job.log[-1].about, session.job.log[-1].result) == (sheets[eye].one.key, "later")
