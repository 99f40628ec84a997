"""Actions of the services: begin them, add what uses or gives power, add a day, take something out."""

import time
from collections.abc import Callable

import msgspec

from roomy_hull.core.errors import UserError
from roomy_hull.formats.weatherfile import read_weather
from roomy_hull.job.edits import boards
from roomy_hull.job.edits import services as edits
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.model import Job
from roomy_hull.job.services import Crossing, Measured, Signed
from roomy_hull.job.trips import Skies
from roomy_hull.kinds.board import CUTS, Board
from roomy_hull.session.actions.looking import pages
from roomy_hull.session.actions.registry import Action
from roomy_hull.session.session import Session
from roomy_hull.studies.services.monitor import applied, recalibrated
from roomy_hull.studies.services.weather import hour_now


def _step(
    words: str, make: Callable[[Session], Job], *, said: str = ""
) -> Callable[[Session], None]:
    """One step of the history that shows the stage."""

    def run(session: Session) -> None:
        if session.attempt(words, lambda: make(session)):
            session.selection.clear()
            session.view.set(stage="Services")
            if said:
                session.say(said)

    return run


def _day(session: Session) -> int:
    """The chosen day; -1 for none."""
    group, _, n = session.look.services.chosen.rpartition(".")
    return int(n) if group == "trip.days" and n.isdecimal() else -1


def _sign(what: Signed) -> Callable[[Session], None]:
    """Enter who has signed for something, today."""

    def run(session: Session) -> None:
        name = session.asker.name(
            f"Who has signed for the {what}, with licence or certificate number", ""
        )
        if name:
            session.attempt(
                f"sign for the {what}", lambda: edits.signed(session.job, what, name, _today())
            )

    return run


def _today() -> str:
    """The day as it is written."""
    return time.strftime("%Y-%m-%d")


def read_monitor(
    session: Session, *, volts: float, amps: float, charge: float, hour: float | None = None
) -> bool:
    """Take one reading of a battery monitor as one step; now, where no hour of the trip is given. [V, A, 0 to 1, h]"""

    def make() -> Job:
        s = session.job.services
        at = hour_now(s.trip, time.time()) if hour is None else hour
        new = Measured(hour=at, volts=volts, amps=amps, charge=charge)
        rows = tuple(sorted((*s.measured, new), key=lambda m: m.hour))
        return msgspec.structs.replace(session.job, services=s.but(measured=rows))

    return session.attempt("read the battery monitor", make)


def _recalibrate(session: Session) -> None:
    """Have every use take what the monitor's readings say."""
    try:
        found = recalibrated(session.job.services)
    except UserError as trouble:
        session.say(str(trouble), trouble=True)
        return
    new = msgspec.structs.replace(session.job, services=applied(session.job.services, found))
    if session.edit("recalibrate by the monitor", new):
        rows = ", ".join(f"{u.name} × {u.factor:.2f} ± {u.uncertainty:.2f}" for u in found)
        session.say(f"By the monitor: {rows}.")


def _forget(session: Session) -> Job:
    """The job without the monitor's readings."""
    return msgspec.structs.replace(session.job, services=session.job.services.but(measured=()))


def _has_readings(session: Session) -> bool:
    return bool(session.job.services.measured)


def _weather(session: Session) -> None:
    """Take the trip's hours out of a weather file."""
    path = session.asker.file(
        "Weather by the hour", "Tables (*.csv *.txt *.tsv)", "", to_save=False
    )
    if path is None:
        return
    try:
        found = read_weather(path, session.job.services.trip)
    except UserError as trouble:
        session.say(str(trouble), trouble=True)
        return
    if session.attempt("take a weather file", lambda: edits.with_weather(session.job, found)):
        session.say(f"The trip lives through the hours of {found.name}.")


def _plug(session: Session) -> None:
    """Add a plug at a crossing that is chosen."""
    crossings: tuple[Crossing, ...] = Crossing.__args__  # type: ignore[attr-defined]  # a Literal
    where = session.asker.choose("At which crossing?", crossings)
    one = next((c for c in crossings if c == where), None)
    if one is not None:
        _step("add a plug", lambda s: edits.with_plug(s.job, one))(session)


def _board_of(session: Session) -> str:
    """The board in hand: the selected one, that of the chosen instrument, else the first."""
    named = session.look.services.chosen.split(".")
    keys = [session.selection.key, named[1] if named[0] == "instruments" and len(named) > 1 else ""]
    keys += [u.id for u in session.job.units if isinstance(u, Board)]
    return next((k for k in keys if k and isinstance(session.job.thing(k), Board)), "")


def add_instrument(session: Session, *, what: str) -> bool:
    """Put an instrument on the board in hand."""
    kind = next((k for k in CUTS if k == what), "switch")
    key = _board_of(session)
    done = session.attempt(f"add a {kind}", lambda: boards.with_instrument(session.job, key, kind))  # type: ignore[arg-type]  # a key of the table
    board = session.job.thing(key)
    if done and isinstance(board, Board):
        session.view.set(services={"chosen": f"instruments.{key}.{board.instruments[-1].id}"})
    return done


def _remove(session: Session) -> Job:
    """The job without what is chosen, of the services or of a board."""
    key = session.look.services.chosen
    if key.startswith("instruments."):
        _head, unit, which = key.split(".", 2)
        return boards.without_instrument(session.job, unit, which)
    return edits.without(session.job, key)


def nudge(session: Session, *, right: float, up: float) -> bool:
    """Move the chosen instrument by so much, within its board. [mm]"""
    key = session.look.services.chosen
    if not key.startswith("instruments."):
        return False
    _head, unit, which = key.split(".", 2)
    board = session.job.thing(unit)
    one = next((i for i in getattr(board, "instruments", ()) if i.id == which), None)
    if one is None or not isinstance(board, Board):
        return False
    path = f"units.{unit}.instruments.{which}."
    x, z = min(max(one.x + right, 0.0), board.width), min(max(one.z + up, 0.0), board.height)
    return session.attempt(
        "move an instrument", lambda: resized(resized(session.job, path + "x", x), path + "z", z)
    )


def choose(session: Session, *, key: str) -> None:
    """Choose something of the services: the card shows it."""
    session.selection.clear()
    session.view.set(services={"chosen": key})


def actions() -> list[Action]:
    """Declare the actions of this area, in the order of the menu."""
    menu = "Services"
    return [
        *pages("Services", menu, "services_page"),
        Action("services.begin", "Begin from what is placed", "Batteries, chargers, fridges and pumps with usual figures",
               menu, _step("begin the services", lambda s: edits.begun(s.job),
                           said="Begun with usual figures: correct them from the data sheets."),
               (), lambda s: not s.job.services.begun),
        Action("services.consumer", "Add what uses power", "The chosen unit, or a light", menu,
               _step("add what uses power", lambda s: edits.with_consumer(s.job, s.selection.key))),
        Action("services.panel", "Add a panel on the roof", "200 W, to the first charger", menu,
               _step("add a panel", lambda s: edits.with_panel(s.job))),
        Action("services.mains", "Add a mains charger", "Where one can plug in, in the evening", menu,
               _step("add a mains charger", lambda s: edits.with_mains(s.job))),
        Action("services.plug", "Add a plug…", "Where the canopy or the tray comes off; or laid in for later", menu, _plug),
        Action("services.weather", "Weather from a file…", "The trip's hours of irradiance and air", menu, _weather, (),
               lambda s: bool(s.job.services.trip.days)),
        Action("services.clear_weather", "Weather by the clear sky again", "Without the file", menu,
               _step("forget the weather file", lambda s: edits.with_weather(s.job, Skies())), (),
               lambda s: bool(s.job.services.trip.weather.air)),
        Action("services.day", "Add a day to the trip", "Like the chosen one, after it", menu,
               _step("add a day", lambda s: edits.with_day(s.job, _day(s)))),
        Action("services.remove", "Take it out of the services", "What is chosen: a circuit, a source, a day", menu,
               _step("take out of the services", _remove), (),
               lambda s: bool(s.look.services.chosen)),
        Action("services.recalibrate", "Recalibrate by the monitor", "What each use takes, by its readings at night", menu,
               _recalibrate, (), _has_readings),
        Action("services.forget", "Forget the monitor's readings", "All of them", menu,
               _step("forget the readings", _forget), (), _has_readings),
        Action("services.sign_mains", "Mains is signed for…", "By a licensed electrician", menu, _sign("mains"), (),
               lambda s: s.job.services.begun),
        Action("services.sign_gas", "Gas is signed for…", "By a licensed gas fitter", menu, _sign("gas"), (),
               lambda s: s.job.services.begun),
        Action("services.sign_low", "The low-voltage wiring is signed for…", "By whoever wired it", menu,
               _sign("low voltage"), (), lambda s: s.job.services.begun),
        Action("services.sign_water", "The plumbing is signed for…", "By whoever plumbed it", menu, _sign("water"), (),
               lambda s: s.job.services.begun),
    ]  # fmt: skip
