"""Circuits: each with its way, current, cable, drop and fuse."""

import math
from typing import NamedTuple

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.errors import InputError
from roomy_hull.core.services import cables
from roomy_hull.job.services import Consumer, Services, Wire
from roomy_hull.studies.services.routes import Network, Way, moving_slack
from roomy_hull.studies.services.runs import Run, runs
from roomy_hull.studies.services.shade import panel

CAREFUL, USUAL = 0.03, 0.10
"""What of the voltage may be lost: by what minds it, and by the rest (common practice, ABYC E-11 from memory)."""
START = "starter battery"
PANEL_VOLTS = 1.4
"""A panel works at so many times the system's voltage (common practice)."""


class Circuit(msgspec.Struct, frozen=True):
    """One circuit.

    Attributes:
        id, name: Its id, and what it serves.
        ends: The units it joins, or words where it is none.
        amps: Continuous. [A]
        way: Nothing where an end is nowhere in the job.
        metres: One way, computed or by hand. [m]
        section: Name of the cable.
        area: [mm²]
        ampacity, fuse: [A]
        drop, share: What is lost, and what of it may be. [V, of the voltage]
        trouble: Why there is no cable or fuse.
        fused: Whether it has a fuse at all.
        fuse_at: How far that is from where the power comes from. [mm]
    """

    id: str
    name: str
    ends: tuple[str, str]
    amps: float
    way: Way | None
    metres: float
    section: str
    area: float
    ampacity: float
    fuse: float
    drop: float
    share: float
    trouble: str = ""
    fused: bool = True
    fuse_at: float = 0.0

    def lost(self, volts: float) -> float:
        """The part of the voltage that is lost."""
        return self.drop / volts


def amps_of(consumer: Consumer, services: Services) -> float:
    """The continuous current of what uses power. [A]"""
    watts = max(consumer.watts, consumer.idle)
    return watts / (services.inverter.efficiency if consumer.mains else 1.0) / services.volts


class _Maker:
    """Makes circuits of one job."""

    def __init__(self, assembly: Assembly) -> None:
        self.assembly, self.services = assembly, assembly.job.services
        self.network = Network(assembly)
        self._nodes: dict[str, int] = {START: self.network.engine}

    def node(self, key: str) -> int | None:
        """The node of a unit; none where there is no such."""
        if key not in self._nodes:
            thing = self.assembly.thing(key) if key else None
            if thing is None:
                return None
            self._nodes[key] = self.network.of(thing)
        return self._nodes[key]

    def place(self, key: str, consumer: Consumer) -> int | None:
        """The node of a consumer: its unit's, or where it is said to be."""
        if consumer.thing:
            return self.node(consumer.thing)
        name = f"at {key}"
        if name not in self._nodes:
            self._nodes[name] = self.network.port((consumer.x, consumer.y, consumer.z))
        return self._nodes[name]

    def slack(self, *keys: str) -> float:
        """For what moves at either end. [mm]"""
        things = [self.assembly.thing(k) for k in keys if k and k != START]
        return sum(moving_slack(t) for t in things if t is not None)


class Need(NamedTuple):
    """What a circuit is for: its id, its name, the units at its ends, its continuous current. [A]"""

    id: str
    name: str
    ends: tuple[str, str]
    amps: float


class _Plan(NamedTuple):
    """A circuit before its way is sought."""

    need: Need
    wire: Wire
    nodes: tuple[int | None, int | None]


def sized(
    need: Need, wire: Wire, way: Way | None, volts: float, *, american: bool = False
) -> Circuit:
    """Choose cable and fuse of one circuit, or take those that are given.

    Args:
        volts: Of the system. [V]
        american: Whether cables are chosen among AWG sizes.
    Returns: With its trouble where no cable or fuse does.
    """
    where: cables.Where = "engine bay" if wire.engine_bay else "cabin"
    metres = wire.metres or (way.metres if way is not None else 0.0)
    share = CAREFUL if wire.careful else USUAL
    amps = need.amps
    fuse = wire.fuse or cables.fuse(amps, math.inf)
    trouble = "" if fuse else f"no fuse that is sold carries {cables.CONTINUOUS * amps:.0f} A"
    area, section = wire.area, f"{wire.area:g} mm²"
    if not area:
        try:
            one = cables.smallest(max(fuse, amps), metres, volts, share, where, american=american)
        except InputError as found:
            one, trouble = (cables.GAUGES if american else cables.METRIC)[-1], found.what
        area, section = one.area, one.name
    return Circuit(
        *need, way, metres, section, area, cables.ampacity(area, where), fuse,
        cables.drop(area, amps, metres), share, trouble, wire.fused, wire.fuse_at,
    )  # fmt: skip


def laid_out(assembly: Assembly) -> tuple[tuple[Circuit, ...], tuple[Run, ...]]:
    """Lay out every circuit and every hose of a job, over one network.

    Returns: Battery to board, battery to inverter, chargers, then what uses power, in the job's order; water, gas, air.
    """
    maker = _Maker(assembly)
    return _circuits(maker), runs(assembly, maker.network)


def _circuits(maker: _Maker) -> tuple[Circuit, ...]:
    """Every circuit, in the job's order."""
    # Every place first: the ways from one of them are then found all at once.
    american = maker.services.gauges == "AWG"
    plans = [*_trunk(maker), *_charging(maker), *_branches(maker)]
    found = []
    for need, wire, (a, b) in plans:
        way = (
            maker.network.way(a, b, maker.slack(*need.ends))
            if a is not None and b is not None
            else None
        )
        found.append(sized(need, wire, way, float(maker.services.volts), american=american))
    return tuple(found)


def _trunk(maker: _Maker) -> list[_Plan]:
    """From the battery to board and inverter."""
    s = maker.services
    battery = s.batteries[0].thing if s.batteries else ""
    direct = [c for c in s.consumers if not c.mains]
    found = []
    if battery and s.board and direct:
        # Not all run at once: the greatest hour of the day, and what is largest in any case.
        most = max([hour_amps(s, direct, h) for h in range(24)] + [amps_of(c, s) for c in direct])
        need = Need("main", "Battery to fuse board", (battery, s.board), most)
        found.append(_Plan(need, Wire(), (maker.node(battery), maker.node(s.board))))
    if battery and s.inverter.thing and s.inverter.thing != battery:  # a power station is both
        amps = s.inverter.watts / s.inverter.efficiency / s.volts
        need = Need("inverter", "Battery to inverter", (battery, s.inverter.thing), amps)
        found.append(
            _Plan(need, s.inverter.wire, (maker.node(battery), maker.node(s.inverter.thing)))
        )
    return found


def _charging(maker: _Maker) -> list[_Plan]:
    """From what gives power to its charger, and from there to the battery."""
    s = maker.services
    battery = s.batteries[0].thing if s.batteries else ""
    found = []
    chargers: dict[str, float] = {}
    for one in s.sources:
        if one.kind == "mains":
            unit = one.charger or one.thing
            if unit and battery and unit != battery:
                chargers[unit] = max(chargers.get(unit, 0.0), one.amps)
            continue
        origin = START if one.kind == "alternator" else one.thing
        to = one.charger or battery
        amps = one.amps if one.kind == "alternator" else one.watts / (PANEL_VOLTS * s.volts)
        start = maker.node(origin)
        if start is None and one.kind == "sun":
            at = panel(maker.assembly, one)
            start = maker.network.port((at.x, at.y, at.z))
        need = Need(one.id, one.name, (origin or "roof", to), amps)
        found.append(_Plan(need, one.wire, (start, maker.node(to))))
        if one.charger and battery:
            chargers[one.charger] = max(chargers.get(one.charger, 0.0), one.amps)
    for key, amps in chargers.items():
        thing = maker.assembly.thing(key)
        name = thing.name if thing is not None else key
        need = Need(f"{key}-out", f"{name} to battery", (key, battery), amps)
        found.append(_Plan(need, Wire(), (maker.node(key), maker.node(battery))))
    return found


def _branches(maker: _Maker) -> list[_Plan]:
    """From the board to everything that uses power without the inverter."""
    s = maker.services
    board = s.board or (s.batteries[0].thing if s.batteries else "")
    return [
        _Plan(
            Need(c.id, c.name, (board, c.thing), amps_of(c, s)),
            c.wire,
            (maker.node(board), maker.place(c.id, c)),
        )
        for c in s.consumers
        if not c.mains
    ]


def hour_amps(s: Services, some: list[Consumer], hour: int) -> float:
    """What some consumers draw together in one hour of the day. [A]"""
    total = 0.0
    for c in some:
        on = c.runs(hour) or c.day_wh > 0
        total += amps_of(c, s) if on else c.idle / s.volts
    return total
