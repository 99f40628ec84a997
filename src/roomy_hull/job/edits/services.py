"""Edits of the services: begun from what is placed, things that use or give power, days of the trip."""

import msgspec

from roomy_hull.core.capabilities import Role
from roomy_hull.core.errors import EditError
from roomy_hull.job.edits.layouts import slug
from roomy_hull.job.model import Job
from roomy_hull.job.services import (
    Battery,
    Consumer,
    Crossing,
    Inverter,
    Plug,
    Services,
    Signature,
    Signed,
    Source,
    Wire,
)
from roomy_hull.job.trips import Day, Skies, Trip
from roomy_hull.kinds.registry import Unit, kind_of

FRIDGE_WH, LITRE_WH, HOT = 250.0, 4.0, 32.0
"""What a compressor fridge takes a day in air of so many °C, and for each litre more (common practice). [Wh, °C]"""
FIRST_DAYS = 3


def _with(job: Job, **changes: object) -> Job:
    """The job with other services."""
    return msgspec.structs.replace(job, services=job.services.but(**changes))


def begun(job: Job) -> Job:
    """Begin the services from what is placed.

    Returns:
        Batteries, board, inverter, chargers from the alternator, fridges and pumps as they stand, with usual
        figures, and a trip of three days; all to be corrected from the data sheets.
    Raises:
        EditError: Services are entered already.
    """
    if job.services.begun:
        raise EditError(
            "services are entered already", "services", "Change them, or delete what is there."
        )

    def of(role: Role) -> list[Unit]:
        return [u for u in job.units if role in kind_of(u).says(u, "").roles]

    consumers = [
        Consumer(id=u.id, name=u.name, thing=u.id, watts=60.0, share=0.0, hours=24.0, begin=0.0, rated_air=HOT, ignites=True,
                 day_wh=FRIDGE_WH + LITRE_WH * kind_of(u).stored(u))
        for u in of("fridge")
    ]  # fmt: skip
    consumers += [
        Consumer(
            id=u.id,
            name=u.name,
            thing=u.id,
            watts=60.0,
            share=0.05,
            begin=6.0,
            hours=16.0,
            wire=Wire(careful=False),
        )
        for u in of("pump")
    ]
    chargers = of("charger")
    stations = of("power station")
    battery = of("battery") + stations
    sources = [
        Source(
            id=f"{c.id}-alternator",
            name=f"Alternator to {c.name}",
            charger=c.id,
            amps=25.0,
            wire=Wire(engine_bay=True),
        )
        for c in chargers[:1]
    ]
    if battery and not sources:
        sources = [
            Source(
                id="alternator", name="Alternator to battery", amps=20.0, wire=Wire(engine_bay=True)
            )
        ]
    # A bought fuse board before a panel of one's own.
    boards = sorted(of("fuse board"), key=lambda u: kind_of(u).made)
    inverters = of("inverter") + stations
    made = Services(
        board=boards[0].id if boards else "", batteries=tuple(Battery(thing=b.id) for b in battery),
        inverter=Inverter(thing=inverters[0].id) if inverters else Inverter(),
        consumers=tuple(consumers), sources=tuple(sources),
        trip=Trip(name="A first trip", people=min(2, len(job.vehicle.seats)),
                  days=(Day(drive=2.0), *(Day(),) * (FIRST_DAYS - 1))),
    )  # fmt: skip
    return msgspec.structs.replace(job, services=made)


def with_consumer(job: Job, thing: str, name: str = "") -> Job:
    """Add something that uses power: a unit of the job, or a light at the middle of the body.

    Args:
        thing: Id of a unit; empty for a light of its own.
        name: What it is called; the unit's name, or "Light", where it is empty.
    """
    known = job.thing(thing) if thing else None
    taken = {c.id for c in job.services.consumers} | {s.id for s in job.services.sources}
    wish = known.id if known is not None else slug(name, set()) if name else "light"
    key = next(k for k in (wish, *(f"{wish}-{n}" for n in range(2, 200))) if k not in taken)
    x = job.vehicle.cab_back + 800.0
    new = (
        Consumer(id=key, name=name or known.name, thing=known.id, watts=24.0)
        if known is not None
        else Consumer(
            id=key,
            name=name or "Light",
            watts=12.0,
            light=not name,
            x=x,
            z=job.vehicle.rail_top + 900.0,
            wire=Wire(careful=False),
        )
    )
    return _with(job, consumers=(*job.services.consumers, new))


def with_panel(job: Job) -> Job:
    """Add a panel on the roof, to the first charger there is."""
    sources = job.services.sources
    taken = {c.id for c in job.services.consumers} | {s.id for s in sources}
    key = next(k for k in ("panel", *(f"panel-{n}" for n in range(2, 99))) if k not in taken)
    charger = next((s.charger for s in sources if s.charger), "")
    new = Source(
        id=key, name="Panel on the roof", kind="sun", charger=charger, watts=200.0, amps=20.0
    )
    return _with(job, sources=(*sources, new))


def with_mains(job: Job) -> Job:
    """Add a mains charger, to the charger that there is or to the battery."""
    sources = job.services.sources
    taken = {c.id for c in job.services.consumers} | {s.id for s in sources}
    key = next(k for k in ("mains", *(f"mains-{n}" for n in range(2, 99))) if k not in taken)
    charger = next((s.charger for s in sources if s.charger), "")
    new = Source(id=key, name="Mains charger", kind="mains", charger=charger, amps=20.0)
    return _with(job, sources=(*sources, new))


def with_plug(job: Job, crossing: Crossing) -> Job:
    """Add a plug at a crossing, wired or laid in for later.

    Returns: With a plug of two pins and 50 A.
    """
    taken = {p.id for p in job.services.plugs}
    key = next(k for k in ("plug", *(f"plug-{n}" for n in range(2, 99))) if k not in taken)
    new = Plug(id=key, name=f"Plug at {crossing}", crossing=crossing)
    return _with(job, plugs=(*job.services.plugs, new))


def with_weather(job: Job, weather: Skies) -> Job:
    """Have the trip live through the hours of a weather file; an empty one is none."""
    return _with(job, trip=job.services.trip.but(weather=weather))


def with_day(job: Job, after: int) -> Job:
    """Add a day to the trip, like the one that it follows.

    Args:
        after: Which day, from 0; -1 for the last.
    """
    days = job.services.trip.days
    at = after if 0 <= after < len(days) else len(days) - 1
    new = days[at] if days else Day()
    trip = job.services.trip.but(days=(*days[: at + 1], new, *days[at + 1 :]))
    return _with(job, trip=trip)


def without(job: Job, key: str) -> Job:
    """Take something out of the services.

    Args:
        key: ``consumers.ID``, ``sources.ID``, ``plugs.ID``, ``batteries.N``, ``trip.days.N`` or ``signatures.WHAT``.
    Raises:
        EditError: There is no such thing.
    """
    s = job.services
    group, _, name = key.rpartition(".")
    if group in ("consumers", "sources", "plugs"):
        rows = getattr(s, group)
        left = tuple(x for x in rows if x.id != name)
        if len(left) < len(rows):
            return _with(job, **{group: left})
    elif group == "signatures" and any(x.what == name for x in s.signatures):
        return _with(job, signatures=tuple(x for x in s.signatures if x.what != name))
    elif group in ("batteries", "trip.days") and name.isdecimal():
        rows = s.batteries if group == "batteries" else s.trip.days
        if int(name) < len(rows):
            left = (*rows[: int(name)], *rows[int(name) + 1 :])
            return (
                _with(job, batteries=left)
                if group == "batteries"
                else _with(job, trip=s.trip.but(days=left))
            )
    raise EditError(f"there is no '{key}' among the services", "services", "Choose one first.")


def signed(job: Job, what: Signed, name: str, date: str) -> Job:
    """Record who signed for something; an earlier signature for it is replaced.

    Args:
        what: ``mains``, ``gas``, ``low voltage`` or ``water``.
    """
    left = tuple(x for x in job.services.signatures if x.what != what)
    return _with(job, signatures=(*left, Signature(what=what, name=name, date=date)))
