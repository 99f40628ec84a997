"""Actions on the body: rooms, racks, doors and bays; the running gear."""

import functools
import math
from collections.abc import Callable

import msgspec

from roomy_hull.core.errors import InputError
from roomy_hull.core.units import parse
from roomy_hull.job.canopy import Access
from roomy_hull.job.edits import running
from roomy_hull.job.model import Job
from roomy_hull.kit.body import doors_and_bays, outfitting
from roomy_hull.kit.body.first_racks import RACKS
from roomy_hull.session.actions.registry import Action, Check
from roomy_hull.session.session import Session


def _add_part(kind: str, session: Session) -> None:
    words = {**outfitting.ROOMS, **RACKS}[kind]
    if session.attempt(f"add: {words.lower()}", lambda: outfitting.added(session.job, kind)):
        body = session.job.body
        key = body.rooms[-1].id if kind in outfitting.ROOMS else body.racks[-1].id
        session.view.set(stage="Body", body={"chosen": key})
        session.say("Its sizes are a proposal: change them on the card, or drag its dots.")


def part(session: Session) -> str:
    """The chosen room or rack; empty for tray and canopy."""
    key, body = session.look.body.chosen, session.job.body
    return key if body.room(key) is not None or body.rack(key) is not None else ""


def _drop_part(session: Session) -> None:
    key = part(session)
    if session.attempt(f"take {key} away", lambda: outfitting.taken_away(session.job, key)):
        session.view.set(body={"chosen": ""})


def _close_rear(session: Session) -> None:
    """Take the rear door and its bay away, so that the canopy's rear carries rails."""

    def make() -> Job:
        canopy = session.job.body.canopy
        if canopy is None:
            raise InputError("there is no canopy")
        gone = {b.id for b in canopy.bays if b.side == "rear"}
        doors_and_bays.need_empty(session.job, gone, canopy.name, "its rear bay")
        new = canopy.but(
            doors=tuple(d for d in canopy.doors if d.side != "rear"),
            bays=tuple(b for b in canopy.bays if b.side != "rear"),
        )
        return msgspec.structs.replace(session.job, body=session.job.body.but(canopy=new))

    session.attempt("close the canopy's rear", make)


def _move_axle(end: str, session: Session) -> None:
    """Ask how far an axle is moved, and move it."""
    way = "forward" if end == "front" else "aft"
    text = session.asker.name(f"How far {way}, in mm", "25")
    if not text:
        return

    def make() -> Job:
        by = parse(text, "length", session.look.system)
        if not math.isfinite(by):
            raise InputError("expected a figure", remedy="Type the way in mm.")
        return running.axle_moved(session.job, end, by)  # type: ignore[arg-type]  # front or rear

    if session.attempt(f"move the {end} axle", make):
        v = session.job.vehicle
        session.say(
            f"The wheelbase is {v.wheelbase:,.0f} mm now; kerb masses are shared anew. Weigh it, and have it certified."
        )


SIDES: tuple[Access, ...] = ("left", "right", "rear")


def _added(what: str, make: Callable[[Job, str, Access], Job], session: Session) -> None:
    """Ask for a side, and add a door or a bay there: to the chosen room, else to the canopy."""
    side = session.asker.choose(f"On which side is the {what}", SIDES)
    if side in SIDES and session.attempt(
        f"add a {what}", lambda: make(session.job, part(session), side)
    ):
        session.say("Its place and sizes are a proposal: change them on the card.")


def _taken(what: str, make: Callable[[Job, str], Job], session: Session) -> None:
    """Ask which door or bay, and take it away."""
    body = session.job.body
    keys = tuple(x.id for x in (body.doors() if what == "door" else body.bays()))
    key = session.asker.choose(f"Which {what} goes", keys)
    if key:
        session.attempt(f"take the {what} {key} away", lambda: make(session.job, key))


def _has_shell(session: Session) -> bool:
    return bool(session.job.body.shells())


def _takes(kind: str) -> Check:
    return lambda s: outfitting.takes(s.job, kind)


def body() -> list[Action]:
    """Declare what else is built on and around the tray."""
    tip = "A first one to be changed: place, sizes, doors, bays"
    found = [
        Action(f"body.room_{kind.replace(' ', '_')}", words, tip, "Body", functools.partial(_add_part, kind), (),
               _takes(kind))
        for kind, words in outfitting.ROOMS.items()
    ]  # fmt: skip
    found += [
        Action(f"body.rack_{kind.replace(' ', '_')}", words, "A first one to be changed: place, sizes, bars, deck", "Body",
               functools.partial(_add_part, kind), (), _takes(kind))
        for kind, words in RACKS.items()
    ]  # fmt: skip
    found += [
        Action("body.drop_part", "Take the chosen room or rack away", "Once no unit stands in it", "Body", _drop_part, (),
               lambda s: bool(part(s))),
        Action("body.close_rear", "Close the canopy's rear", "Rear door and bay away, so that rails find room", "Body",
               _close_rear, (), lambda s: s.job.body.canopy is not None and s.job.body.canopy.kind == "canopy"
               and any(d.side == "rear" for d in s.job.body.canopy.doors)),
        Action("vehicle.front_axle", "Move the front axle…", "Forward, for larger tyres; the wheelbase follows", "Body",
               functools.partial(_move_axle, "front")),
        Action("vehicle.rear_axle", "Move the rear axle…", "Aft; the wheelbase follows", "Body",
               functools.partial(_move_axle, "rear")),
    ]  # fmt: skip
    found += [
        Action("body.door", "Add a door…", "To the chosen room, else to the canopy; over a tub it is a window",
               "Body", functools.partial(_added, "door", doors_and_bays.with_door), (), _has_shell),
        Action("body.no_door", "Take a door away…", "One of those there are", "Body",
               functools.partial(_taken, "door", doors_and_bays.without_door), (),
               lambda s: bool(s.job.body.doors())),
        Action("body.bay", "Add a bay…", "Where the inside is free, to the chosen room or to the canopy", "Body",
               functools.partial(_added, "bay", doors_and_bays.with_bay), (), _has_shell),
        Action("body.no_bay", "Take a bay away…", "Once no unit stands in it", "Body",
               functools.partial(_taken, "bay", doors_and_bays.without_bay), (),
               lambda s: bool(s.job.body.bays())),
    ]  # fmt: skip
    return found


def choose_part(session: Session, *, key: str) -> None:
    """Choose a part of the body: its card is shown."""
    session.view.set(body={"chosen": key})
