"""Wiring judged: each circuit's cable and fuse, the inverter, plugs at the crossings, lights and their switches."""

from collections import Counter

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.findings import GEOMETRY, PRACTICE, Finding
from roomy_hull.core.refs import Ref
from roomy_hull.core.services import cables
from roomy_hull.core.wording import counted
from roomy_hull.job.services import Services
from roomy_hull.studies.services.circuits import Circuit
from roomy_hull.studies.services.routes import END_SLACK
from roomy_hull.studies.services.told import finding, ref

REST, FUSE_AT = 1.1, 200.0
"""A full battery at rest has so many times its nominal voltage; its fuse stands so near to it (common practice). [mm]"""


def circuit_found(one: Circuit, s: Services, assembly: Assembly) -> list[Finding]:
    """A circuit's cable and fuse."""
    subjects = ref(assembly, one.ends[1]) or ref(assembly, one.ends[0])
    name = one.name
    if one.trouble:
        return [
            finding(
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
            finding("fuse", "stop", f"{name}: the fuse does not protect its cable of {one.section}", subjects,
                     (one.fuse, one.ampacity, "A"), "ISO 10133 (from memory)")
        )  # fmt: skip
    if one.fuse < cables.CONTINUOUS * one.amps - 1e-9:
        found.append(
            finding("fuse_small", "look", f"{name}: the fuse will blow under its continuous load", subjects,
                     (one.fuse, cables.CONTINUOUS * one.amps, "A"))
        )  # fmt: skip
    if one.lost(s.volts) > one.share + 1e-9:
        found.append(
            finding("drop", "look", f"{name}: {one.section} loses too much voltage over {one.metres:.1f} m", subjects,
                     (100 * one.lost(s.volts), 100 * one.share, "%"), f"{PRACTICE}, ABYC E-11 from memory")
        )  # fmt: skip
    if not one.fused:
        found.append(
            finding("unfused", "stop", f"{name}: there is no fuse in it", subjects, (0, 1, "fuses"))
        )
    elif one.fuse_at > FUSE_AT:
        found.append(
            finding("fuse_far", "look", f"{name}: the fuse is too far from where the power comes from", subjects,
                    (one.fuse_at, FUSE_AT, "mm"), f"{PRACTICE}, ABYC E-11 from memory")
        )  # fmt: skip
    if one.way is not None and one.metres < one.way.metres - 2 * END_SLACK / 1000 - 1e-6:
        found.append(
            finding("short_lead", "look", f"{name}: the cable as given does not reach with what moves fully out",
                    subjects, (one.metres, one.way.metres, "m"), GEOMETRY)
        )  # fmt: skip
    most = short_circuit(one, s)
    if most and not breaker(most):
        found.append(
            finding("short", "look", f"{name}: no usual fuse breaks the battery's short circuit", subjects,
                     (most, max(cables.BREAKS.values()), "A"))
        )  # fmt: skip
    return found


def short_circuit(one: Circuit, s: Services) -> float:
    """The current into a dead short just behind the fuse of a circuit at the batteries; 0 for another circuit.

    Returns: Out of all of them at rest, 1.1 times the system's voltage, over 200 mm of its cable. [A]
    """
    if not any(b.thing in one.ends for b in s.batteries):
        return 0.0
    inside = 1.0 / sum(1.0 / b.resistance for b in s.batteries)
    return cables.short_circuit(REST * s.volts, inside, FUSE_AT / 1000.0, one.area)


def breaker(amps: float) -> str:
    """The sort of fuse that can break a short circuit of so many amperes; empty for none."""
    return next((kind for kind, most in cables.BREAKS.items() if amps <= most), "")


def mains(assembly: Assembly) -> list[Finding]:
    """The inverter against what runs through it, and its leakage protection."""
    s = assembly.job.services
    some = [c for c in s.consumers if c.mains]
    if not some and not s.inverter.thing:
        return []
    found = []
    subjects = ref(assembly, s.inverter.thing)
    most = max(sum(c.watts if c.runs(hour) else c.idle for c in some) for hour in range(24))
    if most > s.inverter.watts:
        found.append(
            finding("inverter", "look", "More runs through the inverter at one time than it gives", subjects,
                     (most, s.inverter.watts, "W"), "its data sheet")
        )  # fmt: skip
    if not s.inverter.leakage:
        found.append(
            finding("leakage", "look", "The inverter has no leakage protection of its own", subjects,
                     source="the local wiring code decides")
        )  # fmt: skip
    return found


PINS = 2
"""Each circuit takes so many pins of a plug."""


def plugs(circuits: tuple[Circuit, ...], s: Services) -> list[Finding]:
    """What has to come apart at each crossing against the plugs that there are."""
    wanted = Counter(plug for c in circuits if c.way is not None for plug in set(c.way.plugs))
    found = []
    for crossing, count in sorted(wanted.items()):
        own = [p for p in s.plugs if p.crossing == crossing]
        pins = sum(p.pins for p in own)
        where = (Ref("field", f"services plugs {crossing}"),)
        if pins < PINS * count:
            words = "have too few pins" if own else "are missing"
            cross = counted(count, "circuit") + (" crosses" if count == 1 else " cross")
            found.append(
                finding("plug", "look", f"Plugs {words} where {cross} {crossing}", where,
                        (pins, PINS * count, "pins"), GEOMETRY)
            )  # fmt: skip
            continue
        most = max(
            (c for c in circuits if c.way is not None and crossing in c.way.plugs),
            key=lambda c: c.amps,
        )
        if most.amps > max(p.amps for p in own):
            found.append(
                finding("plug_amps", "look", f"{most.name} draws more than a plug at {crossing} carries", where,
                        (most.amps, max(p.amps for p in own), "A"), "its data sheet")
            )  # fmt: skip
    return found


def lights(assembly: Assembly) -> list[Finding]:
    """Lights that are not switched from both ends of the space they light."""
    return [
        finding("switch", "look", f"{c.name} is not switched from both ends", ref(assembly, c.thing)
                or (Ref("field", f"services consumer {c.id}"),), (len(set(c.switches)), 2, "switches"))
        for c in assembly.job.services.consumers
        if c.light and len(set(c.switches)) < 2
    ]  # fmt: skip
