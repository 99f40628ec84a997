"""The pages of Services in the real window: a trip dragged, circuits chosen, services begun by a newcomer."""

import msgspec
import pytest
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtWidgets import QLineEdit
from pytestqt.qtbot import QtBot

from roomy_hull.desktop.pages.services.circuits import CircuitsPage
from roomy_hull.desktop.pages.services.fluids import GasPage, WaterPage
from roomy_hull.desktop.pages.services.trip import TripPage, TripPicture
from roomy_hull.desktop.window import MainWindow
from roomy_hull.drawing.scenes import trip as trip_scene
from roomy_hull.job.services import Services
from roomy_hull.planning.simulator import Simulator, monitor
from roomy_hull.session.actions import editing, servicing
from roomy_hull.session.doing import do
from roomy_hull.studies.services import weather
from tests.ui.conftest import Hand
from tests.ui.loads import text, typed

LEFT = Qt.MouseButton.LeftButton


def trip_page(window: MainWindow) -> TripPage:
    window.session.view.turn_to("Services", "Trip", services={"chosen": ""})
    found = window.page("Services", "Trip")
    assert isinstance(found, TripPage)
    return found


def end_of(picture: TripPicture, window: MainWindow, day: int, more: float = 0.0) -> QPointF:
    """Where the end of a day's driving is, or so many hours further. [px]"""
    days = window.session.job.services.trip.days
    lies = picture.window()
    assert lies is not None
    width = trip_scene.wide(len(days), picture._model.aspect)
    _a, low, end, high = trip_scene.drive_box(days, day, width)
    return lies.px((end + more * width / (24 * len(days)), (low + high) / 2))


def test_a_day_s_driving_is_dragged_and_the_charge_follows(window: MainWindow) -> None:
    page, session = trip_page(window), window.session
    before = session.verdict.services.trip
    assert before is not None
    hand = Hand(page.picture)
    start = end_of(page.picture, window, 0)
    hour = end_of(page.picture, window, 1, 1.0) - end_of(page.picture, window, 1)
    hand.press(start)
    assert session.look.services.chosen == "trip.days.0"
    seen = []
    for more in (0.5, 1.0, 1.5, 2.0):
        hand.move(start + hour * more)
        seen.append(session.job.services.trip.days[0].drive)
    # By the pixel, to the nearest quarter of an hour.
    assert seen == pytest.approx([4.5, 5.0, 5.5, 6.0], abs=0.26)
    assert all(hours % 0.25 == 0 for hours in seen)
    hand.release(start)
    assert session.history.undo_words() == "drive on day 1"
    after = session.verdict.services.trip
    assert after is not None
    assert float(after.lived.drive[:24].sum()) > float(before.lived.drive[:24].sum())
    session.undo()
    assert session.job.services.trip.days[0].drive == 4.0
    assert not session.history.undo_words()


def test_a_day_is_chosen_and_its_figures_typed_on_the_card(
    window: MainWindow, qtbot: QtBot
) -> None:
    page, session = trip_page(window), window.session
    lies = page.picture.window()
    assert lies is not None
    days = session.job.services.trip.days
    width = trip_scene.wide(len(days), page.model.aspect)
    qtbot.mouseClick(
        page.picture,
        LEFT,
        pos=lies.px((trip_scene.LEFT + 2.5 / len(days) * width, 500.0)).toPoint(),
    )
    assert session.look.services.chosen == "trip.days.2"
    edit = window.card.edit_of("services.trip.days.2.cloud")
    assert isinstance(edit, QLineEdit)
    edit.setFocus()
    edit.selectAll()
    qtbot.keyClicks(edit, "95")
    qtbot.keyClick(edit, Qt.Key.Key_Return)
    assert session.job.services.trip.days[2].cloud == pytest.approx(0.95)
    qtbot.mouseClick(page.add_day, LEFT)
    assert len(session.job.services.trip.days) == len(days) + 1
    qtbot.mouseClick(page.remove, LEFT)
    assert len(session.job.services.trip.days) == len(days)


def test_a_newcomer_begins_from_what_is_placed(window: MainWindow, qtbot: QtBot) -> None:
    session = window.session
    session.edit("empty", msgspec.structs.replace(session.job, services=Services()))
    page = trip_page(window)
    assert page.begin.isVisible()
    assert "begin from what is placed" in page.model.drawn(2.0)[0]
    qtbot.mouseClick(page.begin, LEFT)
    services = session.job.services
    assert [b.thing for b in services.batteries] == ["battery"]
    assert services.board == "fuses"
    assert [c.id for c in services.consumers] == ["sample-fridge"]
    assert [s.charger for s in services.sources] == ["charger"]
    found = session.verdict.services.trip
    assert found is not None
    assert page.words.text().startswith(f"Engine off, no sun: {found.still / 24:.1f} days")
    assert not page.begin.isVisible()
    # A panel makes it last longer.
    qtbot.mouseClick(page.add_panel, LEFT)
    better = session.verdict.services.trip
    assert better is not None
    assert better.still_sun > found.still_sun
    assert not [f for f in session.verdict.findings if f.severity == "stop"]


def test_a_circuit_is_chosen_in_the_schedule_and_its_cable_given_by_hand(
    window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    session.view.turn_to("Services", "Circuits")
    page = window.page("Services", "Circuits")
    assert isinstance(page, CircuitsPage)
    row = page.model.keys().index("consumers.lab-outlet")
    port = page.table.viewport()
    assert port is not None
    qtbot.mouseClick(port, LEFT, pos=page.table.rect_of(row, 0).center())
    assert session.look.services.chosen == "consumers.lab-outlet"
    edit = window.card.edit_of("services.consumers.lab-outlet.wire.area")
    assert isinstance(edit, QLineEdit)
    edit.setFocus()
    edit.selectAll()
    qtbot.keyClicks(edit, "1,5")
    qtbot.keyClick(edit, Qt.Key.Key_Return)
    assert text(page.table, row, 3) == "1.5 mm²"
    assert [f.code for f in session.verdict.findings if f.code.startswith("services")] == [
        "services.drop"
    ]
    qtbot.mouseClick(page.add, LEFT)
    assert session.job.services.consumers[-1].name == "Light"


def test_water_and_gas_in_words_and_figures(window: MainWindow) -> None:
    session = window.session
    session.view.turn_to("Services", "Water")
    page = window.page("Services", "Water")
    assert isinstance(page, WaterPage)
    assert text(page.table, 0, 0) == "Drinking water"
    fluids = session.verdict.services.fluids
    assert fluids is not None
    assert text(page.table, 0, 2) == f"{fluids.tanks[0].usable[0]:.1f} l"
    assert page.picture._draw(2.0)[1] is not None
    # The card has the figures of water here.
    assert window.card.edit_of("services.uses.drink").isVisible()
    session.view.turn_to("Services", "Gas and air")
    gas = window.page("Services", "Gas and air")
    assert isinstance(gas, GasPage)
    assert "10.3 h in one burner" in gas.words.text()
    assert not gas.table.isVisible()
    editing.set_size(session, path="vehicle.springs.school", value="air")
    assert gas.table.isVisible()
    level = text(gas.table, 0, 4)
    editing.set_size(session, path="services.uses.slope_left", value=3.0)
    assert float(text(gas.table, 0, 2)) > float(text(gas.table, 0, 1)) + 20
    assert level.startswith(("+0.0°", "-0.0°"))


def test_a_signature_is_entered_once_and_takes_the_note_away(
    window: MainWindow, monkeypatch: pytest.MonkeyPatch
) -> None:
    session = window.session
    session.edit(
        "unsigned",
        msgspec.structs.replace(session.job, services=session.job.services.but(signatures=())),
    )

    def notes() -> list[str]:
        return [
            f.code
            for f in session.verdict.findings
            if f.severity == "note" and f.stage == "Services"
        ]

    assert notes() == ["services.sign"]
    monkeypatch.setattr(session.asker, "name", lambda _words, _wish: "B. Reed, 1234")
    for _ in range(2):
        do(session, "services.sign_gas")
    assert [(x.what, x.name) for x in session.job.services.signatures] == [("gas", "B. Reed, 1234")]
    assert notes() == []


def test_a_chosen_unit_shows_what_it_uses(window: MainWindow) -> None:
    session = window.session
    trip_page(window)
    session.selection.select("sample-fridge")
    assert window.card.edit_of("services.consumers.sample-fridge.day_wh").isVisible()
    session.selection.select("battery")
    assert window.card.edit_of("services.batteries.0.ah").isVisible()
    # One that is nothing of the services leaves what was chosen there.
    session.selection.select("bedding")
    assert window.card.edit_of("services.trip.people").isVisible()


def test_the_monitor_is_read_beside_the_window_and_its_reading_drawn(
    window: MainWindow, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch
) -> None:
    page, session = trip_page(window), window.session
    qtbot.mouseClick(page.read, LEFT)
    assert "Name the monitor first" in session.messages.text
    first = float(weather.hours_of(session.job.services.trip)[0]) - 1800
    monkeypatch.setattr(servicing.time, "time", lambda: first + 26.5 * 3600)  # type: ignore[attr-defined]
    device = Simulator(monitor(lambda: (13.1, -5.0, 0.9), sigma=0.0))
    try:
        page.device.setText(device.path)
        qtbot.mouseClick(page.read, LEFT)
        qtbot.waitUntil(lambda: bool(session.job.services.measured), timeout=5000)
    finally:
        device.close()
    (found,) = session.job.services.measured
    assert (found.hour, found.volts, found.amps) == (pytest.approx(26.5), 13.1, -5.0)
    assert page.model.measured() == ((pytest.approx(26.5), pytest.approx(1 - 0.1 / 0.9)),)
    assert page.recalibrate.isEnabled()
    qtbot.mouseClick(page.recalibrate, LEFT)
    assert "1 readings were taken in the dark" in session.messages.text
    for hour in (1.5, 2.5, 3.5):
        servicing.read_monitor(session, volts=13.0, amps=-3.0, charge=0.9, hour=hour)
    before = session.job.services.consumers[0].day_wh
    qtbot.mouseClick(page.recalibrate, LEFT)
    assert session.messages.text.startswith("By the monitor: Sample fridge")
    assert session.job.services.consumers[0].day_wh > before


def test_what_takes_power_is_changed_and_added_in_its_table(
    window: MainWindow, qtbot: QtBot
) -> None:
    session = window.session
    session.view.turn_to("Services", "Trip")
    page = window.page("Services", "Trip")
    assert isinstance(page, TripPage)
    uses = page.model.entries()
    row = next(
        n
        for n, u in enumerate(uses)
        if any(c.id == u.id and not c.day_wh for c in session.job.services.consumers)
    )
    before = uses[row].wh
    typed(qtbot, page.table, row, 1, "2*150")
    one = next(c for c in session.job.services.consumers if c.id == uses[row].id)
    assert one.watts == 300
    assert sum(u.wh for u in page.model.entries() if u.id == one.id) != before
    last = page.table.rowCount()
    typed(qtbot, page.table, last, 1, "40")
    typed(qtbot, page.table, last, 4, "3")
    typed(qtbot, page.table, last, 0, "Drying fan")
    new = session.job.services.consumers[-1]
    assert (new.name, new.watts, new.hours) == ("Drying fan", 40, 3)
    inverter = [n for n, u in enumerate(page.model.entries()) if u.id == "inverter"]
    for row in inverter:
        typed(qtbot, page.table, row, 1, "5")
        assert session.messages.trouble
