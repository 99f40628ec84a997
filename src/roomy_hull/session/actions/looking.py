"""Actions of looking: where one stands, what is shown, the next unit, finding or scenario, units and theme."""

import functools
from collections.abc import Callable

from roomy_hull.drawing.view import STATIONS, Station
from roomy_hull.session.actions import editing
from roomy_hull.session.actions.registry import Action
from roomy_hull.session.pages.table import STAGES
from roomy_hull.session.session import Session
from roomy_hull.session.showing import show_finding

Run = Callable[[Session], None]


def _slides(session: Session) -> bool:
    """Enable only where something of the selection opens."""
    thing = session.known.assembly.thing(session.selection.key)
    return thing is not None and bool(thing.openings)


def _turn(step: int) -> Run:
    def run(session: Session) -> None:
        round_trip: tuple[Station, ...] = ("left", "rear", "right", "front")
        here = session.look.station
        at = round_trip.index(here) if here in round_trip else 0
        session.view.set(station=round_trip[(at + step) % 4])

    return run


def _stand(station: Station) -> Run:
    def run(session: Session) -> None:
        session.view.set(station=station)

    return run


def _stage(name: str) -> Run:
    def run(session: Session) -> None:
        session.view.set(stage=name)

    return run


def _select_step(step: int) -> Run:
    def run(session: Session) -> None:
        station = session.look.station
        keys = [
            t.id
            for t in session.known.assembly.things
            if t.place is None or t.place.bay.side == station
            or station in ("above", "underneath", "front")
        ]  # fmt: skip
        if keys:
            at = keys.index(session.selection.key) + step if session.selection.key in keys else 0
            session.selection.select(keys[at % len(keys)])

    return run


def _next_finding(session: Session) -> None:
    found = session.known.open_findings()
    if not found:
        session.say("Nothing is found wrong.")
        return
    keys = [f.key for f in found]
    chosen = session.selection.finding
    at = keys.index(chosen.key) + 1 if chosen is not None and chosen.key in keys else 0
    show_finding(session, found[at % len(found)])


def _person(session: Session) -> None:
    order = {0.0: 1530.0, 1530.0: 1870.0}
    session.view.set(stature=order.get(session.look.stature, 0.0))


def _units(session: Session) -> None:
    system = "us" if session.look.system == "metric" else "metric"
    session.view.set(system=system)
    session.settings.keep_preferences(system=system)


def _theme(session: Session) -> None:
    session.view.set(dark=not session.look.dark)
    session.settings.keep_preferences(dark=session.look.dark)


def _scenario(session: Session) -> None:
    ids = [s.id for s in session.job.scenarios]
    at = ids.index(session.look.scenario) if session.look.scenario in ids else -1
    session.view.set(scenario=ids[(at + 1) % len(ids)])


_WORDS: dict[str, str] = {
    "left": "Stand at the left", "rear": "Stand behind", "right": "Stand at the right",
    "front": "Stand in front", "above": "Look from above", "underneath": "Look from underneath",
}  # fmt: skip


def actions() -> list[Action]:
    """Declare the actions of this area, in the order of the menu."""
    ground = functools.partial(Action, everywhere=False)
    found = [
        Action("look.back", "Step round to the left", "Walk round the vehicle", "View", _turn(-1), ("[",)),
        Action("look.on", "Step round to the right", "Walk round the vehicle", "View", _turn(1), ("]",)),
    ]  # fmt: skip
    found += [
        Action(f"look.{s}", _WORDS[s], "Stand there", "View", _stand(s), (f"Ctrl+{n}",))
        for n, s in enumerate(STATIONS, 1)
    ]
    found += [
        ground("look.whole", "Whole vehicle or body", "Fit the picture to the vehicle or to the body",
               "View", lambda s: s.view.set(whole=not s.look.whole), ("B",)),
        ground("look.open", "Open or close the selection", "Slides it out, turns it, lets it down", "View",
               lambda s: editing.toggle_open(s, key=s.selection.key), ("Space",), _slides),
        ground("look.person", "Person: none, small, tall", "153 cm or 187 cm beside the body", "View",
               _person, ("P",)),
        ground("look.next", "Select the next unit", "On this side", "View", _select_step(1),
               ("N",)),
        ground("look.previous", "Select the previous unit", "On this side", "View", _select_step(-1),
               ("Shift+N",)),
        Action("look.finding", "Next finding", "Turn to where it is", "View", _next_finding, ("F8",)),
        Action("look.scenario", "Next scenario", "What is aboard, and how full", "View", _scenario,
               ("F6",)),
        Action("look.units", "Metric or US customary", "Millimetres or inches to 1/16", "View",
               _units, ("F9",)),
        Action("look.theme", "Light or dark", "For the office or the shed", "View", _theme, ("F10",)),
    ]  # fmt: skip
    return found


def stages() -> list[Action]:
    """Declare the stages, and every page of each."""
    return [
        Action(f"stage.{s.title.lower()}", s.title, f"Go to {s.title}", "Stage", _stage(s.title), (f"Alt+{n}",))
        for n, s in enumerate(STAGES, 1)
    ]  # fmt: skip


def pages(stage: str, menu: str, begin: str) -> list[Action]:
    """Declare the pages of a stage, for its menu; their ids begin with a word."""
    rows = next(s.pages for s in STAGES if s.title == stage)
    return [
        Action(f"{begin}.{p.title.lower().replace(' ', '_').replace('-', '_')}", p.title,
               f"The page {p.title} of {stage}", menu, _page(stage, p.title), (p.key,))
        for p in rows
    ]  # fmt: skip


def _page(stage: str, title: str) -> Run:
    def run(session: Session) -> None:
        session.view.turn_to(stage, title)

    return run
