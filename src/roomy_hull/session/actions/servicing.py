"""Actions of the services: begin them, add what uses or gives power, add a day, take something out."""

import time
from collections.abc import Callable
from typing import Literal

import msgspec

from roomy_hull.core.errors import UserError
from roomy_hull.job.edits import services as edits
from roomy_hull.job.model import Job
from roomy_hull.job.services import Measured
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
    group, _, n = session.look.service.rpartition(".")
    return int(n) if group == "trip.days" and n.isdecimal() else -1


def _sign(what: Literal["mains", "gas"]) -> Callable[[Session], None]:
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
        rows = ", ".join(f"{u.name} × {u.factor:.2f} ± {u.doubt:.2f}" for u in found)
        session.say(f"By the monitor: {rows}.")


def _forget(session: Session) -> Job:
    """The job without the monitor's readings."""
    return msgspec.structs.replace(session.job, services=session.job.services.but(measured=()))


def _has_readings(session: Session) -> bool:
    return bool(session.job.services.measured)


def choose(session: Session, *, key: str) -> None:
    """Choose something of the services: the card shows it."""
    session.selection.clear()
    session.view.set(service=key)


def actions() -> list[Action]:
    """Declare the actions of this area, in the order of the menu."""
    menu = "Services"
    return [
        Action("services.begin", "Begin from what is placed", "Batteries, chargers, fridges and pumps with usual figures",
               menu, _step("begin the services", lambda s: edits.begun(s.job),
                           said="Begun with usual figures: correct them from the data sheets."),
               (), lambda s: not s.job.services.begun),
        Action("services.consumer", "Add what uses power", "The chosen unit, or a light", menu,
               _step("add what uses power", lambda s: edits.with_consumer(s.job, s.selection.key))),
        Action("services.panel", "Add a panel on the roof", "200 W, to the first charger", menu,
               _step("add a panel", lambda s: edits.with_panel(s.job))),
        Action("services.day", "Add a day to the trip", "Like the chosen one, after it", menu,
               _step("add a day", lambda s: edits.with_day(s.job, _day(s)))),
        Action("services.remove", "Take it out of the services", "What is chosen: a circuit, a source, a day", menu,
               _step("take out of the services", lambda s: edits.without(s.job, s.look.service)), (),
               lambda s: bool(s.look.service)),
        Action("services.recalibrate", "Recalibrate by the monitor", "What each use takes, by its readings at night", menu,
               _recalibrate, (), _has_readings),
        Action("services.forget", "Forget the monitor's readings", "All of them", menu,
               _step("forget the readings", _forget), (), _has_readings),
        Action("services.sign_mains", "Mains is signed for…", "By a licensed electrician", menu, _sign("mains"), (),
               lambda s: s.job.services.begun),
        Action("services.sign_gas", "Gas is signed for…", "By a licensed gas fitter", menu, _sign("gas"), (),
               lambda s: s.job.services.begun),
    ]  # fmt: skip


def taking() -> list[Action]:
    """Declare those that take something."""
    return [
        Action(
            "services.choose", "Choose of the services", "Its figures stand on the card", "", choose
        ),
        Action(
            "services.read", "Read the battery monitor", "One reading of the hour", "", read_monitor
        ),
    ]
