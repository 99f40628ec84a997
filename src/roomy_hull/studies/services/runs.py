"""Runs of hose and pipe: water from tank over pump to taps, gas from its locker to what burns, air to the corners."""

from collections.abc import Iterable
from typing import Literal, NamedTuple

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.things import AnyThing
from roomy_hull.studies.services.routes import Network, Way, moving_slack

Sort = Literal["water", "gas", "air"]
BORE = {"gas": 8.0, "air": 8.0}
"""Of a gas pipe and of an air line (common practice; the gas fitter decides). [mm]"""


class Run(msgspec.Struct, frozen=True):
    """One hose or pipe.

    Attributes:
        sort: ``water``, ``gas`` or ``air``.
        id, name: Its id, and from where to where.
        ends: The units it joins; a corner of the body is none.
        way: Through the body, with its length. [mm, m]
        bore: [mm]
    """

    sort: Sort
    id: str
    name: str
    ends: tuple[str, str]
    way: Way
    bore: float


class _Ends(NamedTuple):
    """Everything that hoses join."""

    tanks: list[AnyThing]
    pumps: list[AnyThing]
    taps: list[AnyThing]
    gas: list[AnyThing]
    burners: list[AnyThing]
    compressors: list[AnyThing]
    air_tanks: list[AnyThing]


def _ends(assembly: Assembly) -> _Ends:
    """Sort out what hoses join."""
    doing, heaters = assembly.doing, assembly.doing("water heater")
    by_gas = heaters if assembly.job.services.uses.hot_by == "gas" else []
    return _Ends(
        doing("water"), doing("pump"), doing("tap") + heaters, doing("gas"), doing("burner") + by_gas,
        doing("compressor"), doing("air tank"),
    )  # fmt: skip


def runs(assembly: Assembly, network: Network) -> tuple[Run, ...]:
    """Lay out every hose and pipe of a job.

    Returns:
        Each tank to the nearest pump, or to the nearest tap where there is none; pumps to taps; each locker to
        what burns; the compressor to its tank, and from there to the corners of the body.
    """
    found: list[Run] = []
    bore = assembly.job.services.uses.hose
    e = _ends(assembly)
    for tank in e.tanks:
        found += _nearest(network, "water", bore, tank, e.pumps or e.taps)
    if e.tanks:
        for tap in e.taps:
            found += _nearest(network, "water", bore, tap, e.pumps, turned=True)
    for burner in e.burners:
        found += _nearest(network, "gas", BORE["gas"], burner, e.gas, turned=True)
    for tank in e.air_tanks:
        found += _nearest(network, "air", BORE["air"], tank, e.compressors, turned=True)
        found += _corners(assembly, network, tank)
    return tuple(found)


def _nearest(
    network: Network, sort: Sort, bore: float, one: AnyThing, others: Iterable[AnyThing], *, turned: bool = False
) -> list[Run]:  # fmt: skip
    """The run between a thing and the nearest of some others; none where there are none."""
    start = network.of(one)
    ways = []
    for other in others:
        slack = moving_slack(one) + moving_slack(other)
        ways.append((network.way(start, network.of(other), slack), other))
    if not ways:
        return []
    way, other = min(ways, key=lambda row: row[0].metres)
    a, b = (other, one) if turned else (one, other)
    if turned:
        way = Way(way.points[::-1], way.metres, way.plugs[::-1])
    name = f"{a.name} to {b.name}"
    return [Run(sort, f"{sort}.{a.id}.{b.id}", name, (a.id, b.id), way, bore)]


def _corners(assembly: Assembly, network: Network, tank: AnyThing) -> list[Run]:
    """Air to the four corners of the body."""
    v = assembly.job.vehicle
    bays = [p.frame.box(p.size) for p in assembly.ground.bays.values()]
    ends = (
        min((b.x0 for b in bays), default=v.cab_back),
        max((b.x1 for b in bays), default=v.chassis_end),
    )
    wide = max((max(abs(b.y0), abs(b.y1)) for b in bays), default=v.rail_spread / 2)
    start = network.of(tank)
    found = []
    for x, where in zip(ends, ("front", "rear"), strict=True):
        for y, side in ((-wide, "left"), (wide, "right")):
            way = network.way(start, network.port((x, y, v.rail_top)), moving_slack(tank))
            name = f"{tank.name} to the {side} {where} corner"
            found.append(Run("air", f"air.{tank.id}.{side}-{where}", name, (tank.id, ""), way, BORE["air"]))  # fmt: skip
    return found


def hose_metres(assembly: Assembly, laid: tuple[Run, ...], tank: str) -> float:
    """How long the hose from a tank to its tap is: as typed, or along its ways.

    Returns: From the tank over the pump to the first tap; `UNLAID` where no way is known. [m]
    """
    typed = assembly.job.services.uses.hose_metres
    if typed:
        return typed
    water = [r for r in laid if r.sort == "water"]
    first = next((r for r in water if r.ends[0] == tank), None)
    if first is None:
        return UNLAID
    after = next((r for r in water if r.ends[0] == first.ends[1]), None)
    return first.way.metres + (after.way.metres if after is not None else 0.0)


UNLAID = 2.0
"""A hose that leads to no tap of the job (common practice). [m]"""
