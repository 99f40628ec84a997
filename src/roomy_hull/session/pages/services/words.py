"""What the card says of what is chosen among the services, and what all their pages say."""

import math
from collections.abc import Callable

from roomy_hull.job.services import Consumer, Services, Source
from roomy_hull.verdict.verdict import Verdict

NOTHING = "No services are entered yet. In the menu Services, begin from what is placed."
LICENSED = "Planning figures: mains wants a licensed electrician, gas a licensed gas fitter; the local code decides."


PAGES: dict[str, tuple[str, str, str, str]] = {
    "water": (
        "Water",
        "where it runs, what heats it",
        "",
        "Volumes are of the inside of the metal, less the baffles.",
    ),
    "gas": (
        "Gas and air",
        "what burns, tyres, the slope of the camp",
        "",
        "Figures from the plates of what is fitted.",
    ),
    "board": (
        "Board",
        "a panel of instruments",
        "",
        "Choose an instrument: drag it, use the arrow keys, or type its place.",
    ),
    "signatures": ("Signatures", "who answers for what", "", "Choose a row, then press Sign."),
}
"""What the card says on a page of which nothing is chosen."""


def circuit_key(s: Services, circuit: str) -> str:
    """What choosing a circuit chooses: what uses or gives the power, else the batteries."""
    if any(c.id == circuit for c in s.consumers):
        return f"consumers.{circuit}"
    return f"sources.{circuit}" if any(x.id == circuit for x in s.sources) else "batteries.0"


def lasting(hours: float) -> str:
    """A time in words."""
    if not math.isfinite(hours):
        return "for good"
    return f"{hours:.0f} hours" if hours < 72 else f"{hours / 24:.1f} days"


Words = tuple[str, str, str, str]
"""Title, kind, figure, sum."""


def _used(verdict: Verdict, group: str, name: str) -> Words | None:
    """Of what uses or gives power."""
    s = verdict.job.services
    all_of: tuple[Consumer | Source, ...] = s.consumers if group == "consumers" else s.sources
    row = next((x for x in all_of if x.id == name), None)
    if row is None:
        return None
    one = next((c for c in verdict.services.circuits if c.id == name), None)
    kind = "uses power" if group == "consumers" else "gives power"
    if one is None:
        return (row.name, kind, f"{getattr(row, 'watts', 0.0):g} W", "")
    words = (f"{one.metres:.2f} m of {one.section}, fuse {one.fuse:g} A; loses {one.drop:.2f} V of "
             f"{one.share * s.volts:.2f} V allowed.")  # fmt: skip
    return (row.name, kind, f"{one.amps:.1f} A", words)


def _battery(verdict: Verdict, _group: str, name: str) -> Words | None:
    """Of a battery."""
    s = verdict.job.services
    if not name.isdecimal() or int(name) >= len(s.batteries):
        return None
    b = s.batteries[int(name)]
    thing = verdict.assembly.thing(b.thing)
    title = thing.name if thing is not None else b.thing
    return (
        title,
        f"battery, {b.chemistry}",
        f"{b.ah:g} Ah",
        f"{b.ah * b.usable * s.volts:,.0f} Wh are to be drawn.",
    )


def _day(verdict: Verdict, _group: str, name: str) -> Words | None:
    """Of a day of the trip."""
    trip, t = verdict.job.services.trip, verdict.services.trip
    if t is None or not name.isdecimal() or int(name) >= len(trip.days):
        return None
    hours = slice(24 * int(name), 24 * int(name) + 24)
    sun, drive = t.lived.panels[hours].sum(), t.lived.drive[hours].sum()
    words = f"Sun offers {sun:,.0f} Wh, driving and mains {drive:,.0f} Wh. Drag the end of its driving in the picture."
    return (f"Day {int(name) + 1}", trip.name, f"{t.lived.load[hours].sum():,.0f} Wh used", words)


def _run(verdict: Verdict, _group: str, name: str) -> Words | None:
    """Of a hose or pipe."""
    f = verdict.services.fluids
    run = next((r for r in (f.runs if f is not None else ()) if r.id == name), None)
    if run is None:
        return None
    words = (
        f"Cut {run.way.metres:.2f} m of {run.bore:g} mm bore, what moves and both ends included."
    )
    return (run.name, run.sort, f"{run.way.metres:.2f} m", words)


def _plug(verdict: Verdict, _group: str, name: str) -> Words | None:
    """Of a plug: what is dead without it."""
    plug = next((p for p in verdict.job.services.plugs if p.id == name), None)
    if plug is None:
        return None
    dead = [
        c.name
        for c in verdict.services.circuits
        if c.way is not None and plug.crossing in c.way.plugs
    ]
    words = (
        f"Unplugged, these are dead: {', '.join(dead)}."
        if dead
        else "Laid in for later: nothing uses it yet."
    )
    return (plug.name or plug.id, f"plug at {plug.crossing}", f"{plug.pins} pins", words)


def _instrument(verdict: Verdict, _group: str, name: str) -> Words | None:
    """Of an instrument on a board."""
    unit, _, which = name.partition(".")
    board = verdict.job.thing(unit)
    one = next((i for i in getattr(board, "instruments", ()) if i.id == which), None)
    if one is None or board is None:
        return None
    c = one.cut
    size = f"{c.wide:g} × {c.high:g} mm" if c.high else f"{c.wide:g} mm round"
    words = f"Hole {size}, {c.behind:g} mm deep behind the panel. Measure the one in hand before cutting."
    return (one.name or one.what, f"on {board.name}", f"{c.behind:g} mm deep", words)


def _signature(verdict: Verdict, _group: str, name: str) -> Words | None:
    """Of a signature."""
    signed = next((x for x in verdict.job.services.signatures if x.what == name), None)
    words = (
        f"{signed.name}, {signed.date} {signed.number}".strip()
        if signed is not None
        else "Nobody has signed yet."
    )
    return (name.capitalize(), "signature", "signed" if signed is not None else "open", words)


def _inverter(verdict: Verdict, _group: str, _name: str) -> Words | None:
    """Of the inverter."""
    s = verdict.job.services
    most = sum(c.watts for c in s.consumers if c.mains)
    return (
        "Inverter",
        "makes mains voltage",
        f"{s.inverter.watts:g} W",
        f"{most:g} W are wired to it.",
    )


SORTS: dict[str, Callable[[Verdict, str, str], Words | None]] = {
    "consumers": _used, "sources": _used, "batteries": _battery, "trip.days": _day, "runs": _run, "plugs": _plug,
    "instruments": _instrument, "signatures": _signature, "inverter": _inverter,
}  # fmt: skip
"""What is said of each sort of thing among the services."""


def service_words(verdict: Verdict, key: str) -> tuple[str, str, str, str, str]:
    """What the card says of what is chosen: title, kind, figure, sum, hint.

    Args:
        key: As `card_fields.service_fields` takes it.
    """
    if key in PAGES:
        return (*PAGES[key], LICENSED)
    group = next((g for g in SORTS if key == g or key.startswith(f"{g}.")), "")
    found = SORTS[group](verdict, group, key.removeprefix(group).lstrip(".")) if group else None
    if found is not None:
        return (*found, LICENSED)
    s, t = verdict.job.services, verdict.services.trip
    if not s.begun:
        return ("Services", "nothing entered yet", "", NOTHING, LICENSED)
    if t is None:
        words = "Enter a battery and a day of the trip to live it through."
        return (s.trip.name or "The trip", "trip and uses", "", words, LICENSED)
    words = f"Full, engine off, the batteries last {lasting(t.still)} without sun and {lasting(t.still_sun)} with it."
    return (
        s.trip.name or "The trip",
        "trip and uses",
        f"{t.lowest:,.0f} Wh lowest",
        words,
        LICENSED,
    )
