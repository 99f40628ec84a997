"""Services judged: cables and fuses, what is reached, what is near gas or under water, and whether the trip holds."""

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.study import Context, Study, StudyKey
from roomy_hull.core.findings import Finding
from roomy_hull.core.refs import Ref
from roomy_hull.job.services import Services
from roomy_hull.studies.services import places, wiring
from roomy_hull.studies.services.circuits import Circuit, laid_out
from roomy_hull.studies.services.fluids import Fluids, fluids
from roomy_hull.studies.services.remedy import fixes
from roomy_hull.studies.services.shade import Shade, shades
from roomy_hull.studies.services.told import finding
from roomy_hull.studies.services.trip import TripResult, trip

KEY = StudyKey["ServicesResult"]("services")
LOADS = "loads"
LICENSED = {
    "mains": "mains voltage wants a licensed electrician's signature",
    "gas": "gas wants a licensed gas fitter's certificate",
}


class ServicesResult(msgspec.Struct, frozen=True):
    """Everything that is computed of the services; nothing where none are entered."""

    circuits: tuple[Circuit, ...] = ()
    trip: TripResult | None = None
    fluids: Fluids | None = None
    shades: tuple[Shade, ...] = ()


def study(context: Context) -> ServicesResult:
    """Lay out circuits, live the trip, and see to water, gas and air.

    Args:
        context: The job in vehicle axes; what depends on nothing that changed is taken from before.
    Returns: Empty where no services are entered and nothing holds or uses water, gas or air.
    """
    assembly = context.assembly
    services = assembly.job.services
    if not services.begun and not any(t.capabilities.plumbed for t in assembly.everything):
        return ServicesResult()
    old: ServicesResult | None = context.old(KEY)
    before = context.before
    shade = shades(assembly, old.shades if old is not None else ())
    loads = _loads(context)
    if before is None or old is None or old.fluids is None:
        wires, laid = laid_out(assembly)
        return ServicesResult(
            wires, trip(services, shade), fluids(assembly, laid, None, loads), shade
        )
    known = before.assembly.job.services
    both = (before.assembly, assembly)
    wet = {t.id for a in both for t in a.things if t.capabilities.plumbed}
    served = {key for one in old.circuits for key in one.ends} | wet
    stay = _same_places(*both, served)
    wires, laid = old.circuits, old.fluids.runs
    if not (stay and _same_wires(known, services)):
        wires, laid = laid_out(assembly)
    tanks = old.fluids.tanks if stay and known.uses is services.uses else None
    dark = len(shade) == len(old.shades) and all(
        a is b for a, b in zip(shade, old.shades, strict=True)
    )
    return ServicesResult(
        wires, old.trip if known is services and dark else trip(services, shade),
        fluids(assembly, laid, tanks, loads), shade,
    )  # fmt: skip


def _loads(context: Context) -> tuple[tuple[str, float, float], ...]:
    """Each scenario's rear axle, and how far the front settles, where there are air springs. [kg, mm]"""
    if context.assembly.job.vehicle.springs.school != "air":
        return ()
    rows = context.results[LOADS].scenarios
    return tuple((r.id, r.rear.value, r.stance.front_sag) for r in rows)


def _same_wires(a: Services, b: Services) -> bool:
    """Say whether two differ at most in what circuits and hoses do not depend on: trip, signatures, plugs."""
    fields = ("volts", "board", "batteries", "inverter", "consumers", "sources", "uses")
    return all(getattr(a, f) is getattr(b, f) or getattr(a, f) == getattr(b, f) for f in fields)


def _same_places(a: Assembly, b: Assembly, keys: set[str]) -> bool:
    """Say whether the body and some units are the very same; one that is in neither counts as the same."""
    return a.ground is b.ground and all(a.thing(key) is b.thing(key) for key in keys if key)


def judge(context: Context) -> list[Finding]:
    """Judge the services."""
    result = context.of(KEY)
    services = context.assembly.job.services
    found = places.boards(context.assembly)
    # What stands beside gas or under water does so whether or not anything is entered.
    found += places.gas(context.assembly, result.fluids)
    found += places.under_water(context.assembly)
    if result.fluids is not None:
        found += places.hoses_over(context.assembly, result.fluids.runs)
    if not services.begun:
        return found
    found += _unknown(context.assembly)
    for one in result.circuits:
        found += wiring.circuit_found(one, services, context.assembly)
    found += _nowhere(context.assembly)
    found += wiring.mains(context.assembly)
    found += wiring.plugs(result.circuits, services)
    found += wiring.lights(context.assembly)
    found += places.served(context.assembly)
    found += places.reached(context)
    found += places.faults(context.assembly)
    found += _trip(result, services)
    return found + _signatures(context.assembly)


def _unknown(assembly: Assembly) -> list[Finding]:
    """Services that name a unit that there is not."""
    s = assembly.job.services
    named = [("battery", b.thing) for b in s.batteries] + [
        ("board", s.board),
        ("inverter", s.inverter.thing),
    ]
    named += [(f"consumer {c.id}", c.thing) for c in s.consumers]
    named += [(f"source {x.id}", key) for x in s.sources for key in (x.charger, x.thing)]
    named += [(f"switch of {c.id}", key) for c in s.consumers for key in c.switches]
    return [
        finding("unknown", "look", f"Services name '{key}' as {what}, but there is no such thing; correct the id, or "
                 "place it", (Ref("field", f"services {what} {key}"),), source="docs/formats.md")
        for what, key in named
        if key and assembly.thing(key) is None
    ]  # fmt: skip


def _nowhere(assembly: Assembly) -> list[Finding]:
    """Consumers of which nobody said where they are: a point on the ground under the front axle is no place."""
    return [
        finding("nowhere", "look", f"{c.name} has no place: choose the thing it is in, or say where it is",
                (Ref("field", f"services consumer {c.id}"),), source="docs/formats.md")
        for c in assembly.job.services.consumers
        if not c.thing and not (c.x or c.y or c.z)
    ]  # fmt: skip


def _trip(result: ServicesResult, s: Services) -> list[Finding]:
    """Whether power, water and gas last the trip, and whether the batteries are charged in the cold."""
    found = []
    t, f, days = result.trip, result.fluids, len(s.trip.days)
    name = s.trip.name or "the trip"
    if t is not None and t.flat_at is not None:
        found.append(
            finding("flat", "look", f"The batteries are flat on day {t.flat_at // 24 + 1} of {name}", (),
                     (t.flat_at / 24, days, "days"), "hourly balance")
        )  # fmt: skip
    elif t is not None and t.flat_chance > 0.1:
        found.append(
            finding("flat_chance", "look", f"The batteries may be flat before the end of {name}", (),
                     (100 * t.flat_chance, 10, "%"), "hourly balance, weather by chance")
        )  # fmt: skip
    cold = max((b.coldest for b in s.batteries), default=-99.0)
    coolest = min((d.cool for d in s.trip.days), default=99.0)
    if t is not None and coolest < cold:
        found.append(
            finding("cold", "look", "The batteries are not charged in the cold of some hours", (), (coolest, cold, "°C"),
                     "its data sheet")
        )  # fmt: skip
    hot = min((b.hottest for b in s.batteries), default=99.0)
    warmest = max((d.warm for d in s.trip.days), default=-99.0)
    if t is not None and warmest > hot:
        found.append(
            finding("hot", "look", "The batteries are not charged in the heat of some hours", (), (warmest, hot, "°C"),
                    "its data sheet")
        )  # fmt: skip
    own = len(s.trip.weather.air)
    if t is not None and 0 < own < t.hours:
        found.append(
            finding("weather_ends", "note", "The weather file ends before the trip: from then on the clear sky and the "
                    "day's cloud count", (), (own, t.hours, "h"), "hourly balance")
        )  # fmt: skip
    if f is not None and days and s.trip.people and not f.tanks:
        found.append(
            finding("no_water", "look", f"There is no water tank aboard, and {name} takes {sum(f.day_litres):.0f} l: "
                    "place a tank, or take cans along", (),
                    (0.0, sum(f.day_litres), "l"), "litres a head, a shower and a meal as entered")
        )  # fmt: skip
    if f is not None and f.dry_at is not None:
        found.append(
            finding("dry", "look", f"The water ends on day {int(f.dry_at) + 1} of {name}", (), (f.dry_at, days, "days"),
                     "litres a head, a shower and a meal as entered")
        )  # fmt: skip
    if f is not None and f.gas_out is not None:
        found.append(
            finding("gas_out", "look", f"The gas ends on day {int(f.gas_out) + 1} of {name}", (),
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
    if assembly.doing("gas"):
        wanted.append("gas")
    return [
        finding("sign", "note", f"Not signed yet: {LICENSED[what]}", (Ref("field", f"services signature {what}"),),
                 source="the local code decides")
        for what in wanted
        if what not in signed
    ]  # fmt: skip


STUDY = Study(KEY, study, (places.IN_OUT, LOADS), judge, ("services.",), fixes)
