"""Services judged: cables and fuses, what is reached, what is near gas or under water, and whether the trip holds."""

import itertools

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.study import Case, Study
from roomy_hull.assembly.things import Thing
from roomy_hull.core.findings import GEOMETRY, PRACTICE, Finding, Severity
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.refs import Ref
from roomy_hull.core.services import cables
from roomy_hull.job.services import Services
from roomy_hull.kinds.device import Device
from roomy_hull.kinds.fridge import Fridge
from roomy_hull.kinds.gas_locker import GasLocker
from roomy_hull.kinds.tank import Tank
from roomy_hull.studies.services.circuits import Circuit, circuits
from roomy_hull.studies.services.fluids import Fluids, fluids
from roomy_hull.studies.services.trip import TripResult, trip

KEY = "services"
STAGE = "Services"
IN_OUT = "in and out"
SPARKS = frozenset({"battery", "charger", "inverter", "fuse board", "switch panel", "outlet", "pump", "compressor",
                    "water heater"})  # fmt: skip
"""Devices that can ignite gas: contacts, relays, motors, flames."""
FROM_GAS = 300.0
"""They keep so far from a gas locker's opening or vents (common practice; the local gas code decides). [mm]"""
ELECTRIC = SPARKS - {"pump", "water heater"}
REST, FUSE_AT = 1.1, 200.0
"""A full battery at rest has so many times its nominal voltage; its fuse stands so near to it (common practice). [mm]"""
FAULTS = frozenset({"battery", "charger", "inverter", "fuse board"})
"""Where one looks when something fails."""
FEW_OUT = 3
"""So many things may have to come out before a place of faults (common practice)."""
LICENSED = {
    "mains": "mains voltage wants a licensed electrician's signature",
    "gas": "gas wants a licensed gas fitter's certificate",
}


class ServicesResult(msgspec.Struct, frozen=True):
    """Everything that is computed of the services; nothing where none are entered."""

    circuits: tuple[Circuit, ...] = ()
    trip: TripResult | None = None
    fluids: Fluids | None = None


def study(case: Case) -> ServicesResult:
    """Lay out circuits, live the trip, and see to water, gas and air.

    Parameters
    ----------
    case : Case
        The job in vehicle axes; what depends on nothing that changed is taken from before.

    Returns
    -------
    ServicesResult
        Empty where no services are entered.
    """
    assembly = case.assembly
    services = assembly.job.services
    if not services.begun:
        return ServicesResult()
    old: ServicesResult | None = case.old(KEY)
    before = case.before
    if before is None or old is None:
        return ServicesResult(circuits(assembly), trip(services), fluids(assembly))
    known = before.assembly.job.services
    served = {key for one in old.circuits for key in one.ends}
    wires = _same_places(before.assembly, assembly, served) and _same_wires(known, services)
    wet = {t.id for a in (before.assembly, assembly) for t in a.things if isinstance(t.value, Tank)}
    tanks = None
    if (
        old.fluids is not None
        and known.uses is services.uses
        and _same_places(before.assembly, assembly, wet)
    ):
        tanks = old.fluids.tanks
    return ServicesResult(
        old.circuits if wires else circuits(assembly),
        old.trip if known is services else trip(services),
        fluids(assembly, tanks),
    )


def _same_wires(a: Services, b: Services) -> bool:
    """Say whether two differ at most in what circuits do not depend on: trip, uses, signatures."""
    fields = ("volts", "board", "batteries", "inverter", "consumers", "sources")
    return all(getattr(a, f) is getattr(b, f) or getattr(a, f) == getattr(b, f) for f in fields)


def _same_places(a: Assembly, b: Assembly, keys: set[str]) -> bool:
    """Say whether the body and some units are the very same; one that is in neither counts as the same."""
    return a.ground is b.ground and all(a.thing(key) is b.thing(key) for key in keys if key)


def judge(case: Case) -> list[Finding]:
    """Judge the services.

    Parameters
    ----------
    case : Case
        With the study's result.

    Returns
    -------
    list of Finding
        Circuits, places, trip, signatures.
    """
    result: ServicesResult = case.results[KEY]
    services = case.assembly.job.services
    if not services.begun:
        return []
    found = _unknown(case.assembly)
    for one in result.circuits:
        found += _circuit(one, services, case.assembly)
    found += _mains(case.assembly)
    found += _gas(case.assembly, result)
    found += _under_water(case.assembly)
    found += _reached(case)
    found += _trip(result, services)
    return found + _signatures(case.assembly)


def _ref(assembly: Assembly, key: str) -> tuple[Ref, ...]:
    """The reference of a unit, where there is one."""
    thing = assembly.thing(key) if key else None
    return (thing.ref,) if thing is not None else ()


Figures = tuple[float | None, float | None, str]


def _finding(
    code: str, severity: Severity, title: str, subjects: tuple[Ref, ...] = (), figures: Figures = (None, None, ""),
    source: str = PRACTICE, where: tuple[Box, ...] = (),
) -> Finding:  # fmt: skip
    """A finding of this stage; its figures are what was measured, the limit, the unit."""
    return Finding(f"services.{code}", severity, title, subjects, *figures, source, STAGE, where)


def _unknown(assembly: Assembly) -> list[Finding]:
    """Services that name a unit that there is not."""
    s = assembly.job.services
    named = [("battery", b.thing) for b in s.batteries] + [
        ("board", s.board),
        ("inverter", s.inverter.thing),
    ]
    named += [(f"consumer {c.id}", c.thing) for c in s.consumers]
    named += [(f"source {x.id}", key) for x in s.sources for key in (x.charger, x.thing)]
    return [
        _finding("unknown", "look", f"Services name '{key}' as {what}, but there is no such thing; correct the id, or "
                 "place it", (Ref("field", f"services {what} {key}"),), source="docs/formats.md")
        for what, key in named
        if key and assembly.thing(key) is None
    ]  # fmt: skip


def _circuit(one: Circuit, s: Services, assembly: Assembly) -> list[Finding]:
    """A circuit's cable and fuse."""
    subjects = _ref(assembly, one.ends[1]) or _ref(assembly, one.ends[0])
    name = one.name
    if one.trouble:
        return [
            _finding(
                "cable",
                "stop",
                f"{name}: {one.trouble}",
                subjects,
                source="ISO 10133 (from memory)",
            )
        ]
    found = []
    if one.fuse > one.ampacity + 1e-9:
        found.append(
            _finding("fuse", "stop", f"{name}: the fuse does not protect its cable of {one.section}", subjects,
                     (one.fuse, one.ampacity, "A"), "ISO 10133 (from memory)")
        )  # fmt: skip
    if one.fuse < cables.CONTINUOUS * one.amps - 1e-9:
        found.append(
            _finding("fuse_small", "look", f"{name}: the fuse will blow under its continuous load", subjects,
                     (one.fuse, cables.CONTINUOUS * one.amps, "A"))
        )  # fmt: skip
    if one.lost(s.volts) > one.share + 1e-9:
        found.append(
            _finding("drop", "look", f"{name}: {one.section} loses too much voltage over {one.metres:.1f} m", subjects,
                     (100 * one.lost(s.volts), 100 * one.share, "%"), f"{PRACTICE}, ABYC E-11 from memory")
        )  # fmt: skip
    most = short_circuit(one, s)
    if most and not breaker(most):
        found.append(
            _finding("short", "look", f"{name}: no usual fuse breaks the battery's short circuit", subjects,
                     (most, max(cables.BREAKS.values()), "A"))
        )  # fmt: skip
    return found


def short_circuit(one: Circuit, s: Services) -> float:
    """The current into a dead short just behind the fuse of a circuit at the batteries; 0 for another circuit.

    Parameters
    ----------
    one : Circuit
        A circuit.
    s : Services
        With the batteries, side by side.

    Returns
    -------
    float
        Out of all of them at rest, 1.1 times the system's voltage, over 200 mm of its cable. [A]
    """
    if not any(b.thing in one.ends for b in s.batteries):
        return 0.0
    inside = 1.0 / sum(1.0 / b.resistance for b in s.batteries)
    return cables.short_circuit(REST * s.volts, inside, FUSE_AT / 1000.0, one.area)


def breaker(amps: float) -> str:
    """The sort of fuse that can break a short circuit of so many amperes; empty for none."""
    return next((kind for kind, most in cables.BREAKS.items() if amps <= most), "")


def _mains(assembly: Assembly) -> list[Finding]:
    """The inverter against what runs through it, and its leakage protection."""
    s = assembly.job.services
    some = [c for c in s.consumers if c.mains]
    if not some and not s.inverter.thing:
        return []
    found = []
    subjects = _ref(assembly, s.inverter.thing)
    most = max(sum(c.watts if c.runs(hour) else c.idle for c in some) for hour in range(24))
    if most > s.inverter.watts:
        found.append(
            _finding("inverter", "look", "More runs through the inverter at one time than it gives", subjects,
                     (most, s.inverter.watts, "W"), "its data sheet")
        )  # fmt: skip
    if not s.inverter.leakage:
        found.append(
            _finding("leakage", "look", "The inverter has no leakage protection of its own", subjects,
                     source="the local wiring code decides")
        )  # fmt: skip
    return found


def _sparks(assembly: Assembly) -> list[Thing]:
    """What can ignite gas."""
    lit = {c.thing for c in assembly.job.services.consumers if c.ignites}
    return [
        t
        for t in assembly.things
        if (isinstance(t.value, Device) and t.value.what in SPARKS)
        or isinstance(t.value, Fridge)
        or t.id in lit
    ]


def gap(a: Box, b: Box) -> float:
    """How far two boxes are apart, straight. [mm]"""
    away = [max(a[i] - b[i + 3], b[i] - a[i + 3], 0.0) for i in range(3)]
    return float(sum(c * c for c in away) ** 0.5)


def _gas(assembly: Assembly, result: ServicesResult) -> list[Finding]:
    """Gas lockers: their vents, and what stands near them."""
    found = []
    lockers = [t for t in assembly.things if isinstance(t.value, GasLocker)]
    for locker, spark in itertools.product(lockers, _sparks(assembly)):
        far = gap(locker.envelope, spark.envelope)
        if far < FROM_GAS:
            found.append(
                _finding("ignition", "look", f"{spark.value.name} can ignite gas beside {locker.value.name}",
                         (spark.ref, locker.ref), (far, FROM_GAS, "mm"), f"{PRACTICE}; the local gas code decides",
                         (spark.envelope, locker.envelope))
            )  # fmt: skip
    if result.fluids is not None:
        for key, area, least in result.fluids.vents:
            if area < least - 0.05:
                found.append(
                    _finding("vent", "stop", "The gas locker's vents low to the outside are too small",
                             _ref(assembly, key), (area, least, "cm²"), "EN 1949 (from memory)")
                )  # fmt: skip
    return found


def _under_water(assembly: Assembly) -> list[Finding]:
    """Electrics under a tank."""
    found = []
    tanks = [t for t in assembly.things if isinstance(t.value, Tank)]
    devices = [
        t for t in assembly.things if isinstance(t.value, Device) and t.value.what in ELECTRIC
    ]
    for tank, device in itertools.product(tanks, devices):
        a, b = tank.envelope, device.envelope
        if (
            min(a.x1, b.x1) > max(a.x0, b.x0)
            and min(a.y1, b.y1) > max(a.y0, b.y0)
            and b.z1 <= a.z0 + 1
        ):
            found.append(
                _finding("water_over", "look", f"{tank.value.name} leaks onto {device.value.name}",
                         (device.ref, tank.ref), source=GEOMETRY, where=(b, a))
            )  # fmt: skip
    return found


def _reached(case: Case) -> list[Finding]:
    """What has to come out before a place of faults is reached."""
    found = []
    for thing in case.assembly.things:
        if isinstance(thing.value, Device) and thing.value.what in FAULTS:
            out = case.results[IN_OUT].before(thing.id)
            if len(out) > FEW_OUT:
                found.append(
                    _finding("reach", "look", f"{len(out)} things come out before {thing.value.name} is reached",
                             (thing.ref,), (len(out), FEW_OUT, "things"), GEOMETRY)
                )  # fmt: skip
    return found


def _trip(result: ServicesResult, s: Services) -> list[Finding]:
    """Whether power, water and gas last the trip, and whether the batteries are charged in the cold."""
    found = []
    t, f, days = result.trip, result.fluids, len(s.trip.days)
    name = s.trip.name or "the trip"
    if t is not None and t.flat_at is not None:
        found.append(
            _finding("flat", "look", f"The batteries are flat on day {t.flat_at // 24 + 1} of {name}", (),
                     (t.flat_at / 24, days, "days"), "hourly balance")
        )  # fmt: skip
    elif t is not None and t.flat_chance > 0.1:
        found.append(
            _finding("flat_chance", "look", f"The batteries may be flat before the end of {name}", (),
                     (100 * t.flat_chance, 10, "%"), "hourly balance, weather by chance")
        )  # fmt: skip
    cold = min((b.coldest for b in s.batteries), default=-99.0)
    coolest = min((d.cool for d in s.trip.days), default=99.0)
    if t is not None and coolest < cold:
        found.append(
            _finding("cold", "look", "The batteries are not charged in the cold of some hours", (), (coolest, cold, "°C"),
                     "its data sheet")
        )  # fmt: skip
    if f is not None and f.dry_at is not None:
        found.append(
            _finding("dry", "look", f"The water ends on day {int(f.dry_at) + 1} of {name}", (), (f.dry_at, days, "days"),
                     "litres a head, a shower and a meal as entered")
        )  # fmt: skip
    if f is not None and f.gas_out is not None:
        found.append(
            _finding("gas_out", "look", f"The gas ends on day {int(f.gas_out) + 1} of {name}", (),
                     (f.gas_out, days, "days"), "propane, 46.35 MJ/kg")
        )  # fmt: skip
    return found


def _signatures(assembly: Assembly) -> list[Finding]:
    """What a licensed person has to sign and has not."""
    s = assembly.job.services
    signed = {x.what for x in s.signatures if x.name}
    wanted = []
    if s.inverter.thing or any(c.mains for c in s.consumers):
        wanted.append("mains")
    if any(isinstance(t.value, GasLocker) for t in assembly.things):
        wanted.append("gas")
    return [
        _finding("sign", "note", f"Not signed yet: {LICENSED[what]}", (Ref("field", f"services signature {what}"),),
                 source="the local code decides")
        for what in wanted
        if what not in signed
    ]  # fmt: skip


STUDY = Study(KEY, study, (IN_OUT,), judge, ("services.",))
