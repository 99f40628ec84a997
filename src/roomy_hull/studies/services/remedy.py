"""What keeps the batteries from being flat: changes tried one by one, the lightest and cheapest first."""

import math
from collections.abc import Callable, Iterator
from functools import partial
from typing import Any, NamedTuple

from roomy_hull.assembly.study import Context
from roomy_hull.core.findings import Finding, Fix
from roomy_hull.core.refs import BODY
from roomy_hull.job.services import Services, Source
from roomy_hull.studies.services.shade import Shade
from roomy_hull.studies.services.trip import TripResult, trip

MAY = 0.10
"""A trip holds where no more than so many of those by chance go flat."""
MOST = 12
"""Each change is tried in so many steps."""
OFFERED = 3


Changes = dict[str, float | str]


class WayOut(NamedTuple):
    """A change that keeps the trip from going flat: words, what is set, what it weighs and costs (common practice)."""

    words: str
    changes: Changes
    kg: float
    money: float


class _Knob(NamedTuple):
    """What can be changed, by how much a step, and what a step weighs and costs."""

    words: str
    step: float
    kg: float
    money: float
    sets: Callable[[float], Changes]


def _knobs(s: Services) -> Iterator[_Knob]:
    """Everything worth trying: panel, charger, battery, driving, a warmer fridge."""
    for one in s.sources:
        if one.kind == "sun":
            yield _Knob(
                f"{one.name}: {{by:g}} W more panel", 50.0, 3.2, 60.0, partial(_panel, one, s.volts)
            )
        elif one.kind == "alternator":
            path = f"services.sources.{one.id}.amps"
            yield _Knob(
                f"{one.name}: {{by:g}} A more charger",
                5.0,
                0.3,
                60.0,
                partial(_more, path, one.amps),
            )
    for battery in s.batteries[:1]:
        kg, money = LEAD if battery.chemistry != "lithium iron" else LITHIUM
        yield _Knob(
            "{by:g} Ah more battery",
            25.0,
            kg,
            money,
            partial(_more, "services.batteries.0.ah", battery.ah),
        )
    if any(x.kind == "alternator" for x in s.sources):
        yield _Knob(
            "Drive {by:g} h more every day", 0.25, 0.0, 3.0 * len(s.trip.days), partial(_drive, s)
        )
    for c in s.consumers:
        if c.day_wh:
            path = f"services.consumers.{c.id}.box"
            yield _Knob(f"{c.name}: {{by:g}} °C warmer", 0.5, 0.0, 1.0, partial(_more, path, c.box))


LEAD, LITHIUM = (7.5, 70.0), (3.1, 160.0)
"""What 25 Ah of 12 V weigh and cost (common practice). [kg, money]"""


def _more(path: str, now: float, by: float) -> Changes:
    return {path: now + by}


def _panel(one: Source, volts: float, by: float) -> Changes:
    """More panel, and the charger that goes with it."""
    path, need = f"services.sources.{one.id}.", (one.watts + by) / volts
    found: Changes = {path + "watts": one.watts + by}
    if 0 < one.amps < need:
        found[path + "amps"] = float(math.ceil(need))
    return found


def _drive(s: Services, by: float) -> Changes:
    return {
        f"services.trip.days.{n}.drive": min(24.0, d.drive + by) for n, d in enumerate(s.trip.days)
    }


def _holds(found: TripResult | None) -> bool:
    return found is not None and found.flat_at is None and found.flat_chance <= MAY


def _set(s: Services, changes: Changes) -> Services:
    """Services with some of their figures changed, by their paths in the job."""

    def rows(value: Any, group: str) -> tuple[Any, ...]:
        out = []
        for n, item in enumerate(value):
            key = f"services.{group}.{getattr(item, 'id', n)}."
            own = {p.removeprefix(key): v for p, v in changes.items() if p.startswith(key)}
            out.append(item.but(**own) if own else item)
        return tuple(out)

    return s.but(
        sources=rows(s.sources, "sources"), batteries=rows(s.batteries, "batteries"),
        consumers=rows(s.consumers, "consumers"), trip=s.trip.but(days=rows(s.trip.days, "trip.days")),
    )  # fmt: skip


def ways_out(s: Services, shade: tuple[Shade, ...] = ()) -> tuple[WayOut, ...]:
    """Find what would keep a trip from going flat.

    Returns: For each thing that can be changed the least step that does, found by halving; by money, then by mass.
    """
    found = []
    for knob in _knobs(s):

        def does(steps: int, knob: _Knob = knob) -> bool:
            try:
                return _holds(trip(_set(s, knob.sets(steps * knob.step)), shade))
            except ValueError:  # beyond what the field allows
                return False

        low, high = 0, MOST
        if not does(high):
            continue
        while high - low > 1:
            middle = (low + high) // 2
            low, high = (low, middle) if does(middle) else (middle, high)
        by = high * knob.step
        found.append(
            WayOut(knob.words.format(by=by), knob.sets(by), high * knob.kg, high * knob.money)
        )
    return tuple(sorted(found, key=lambda w: (w.money, w.kg)))


def fixes(context: Context, found: Finding) -> tuple[Fix, ...]:
    """Offer what keeps the trip from going flat.

    Args:
        found: Any finding; others than a flat battery have no fixes here.
    Returns: At most three, the cheapest first, each with what it weighs and costs about.
    """
    if found.code not in ("services.flat", "services.flat_chance"):
        return ()
    ways = ways_out(context.assembly.job.services, context.results["services"].shades)
    return tuple(
        Fix(f"{w.words} (about {w.kg:.1f} kg, {w.money:.0f} in money)", BODY, w.changes)
        for w in ways[:OFFERED]
    )
