"""Wishes that follow from what things are: what a cable or hose joins, and what is kept away from gas."""

from collections.abc import Sequence

from roomy_hull.core.capabilities import Role
from roomy_hull.job.model import Job
from roomy_hull.kinds.registry import Unit, kind_of
from roomy_hull.studies.services.places import FROM_GAS

HEAVY, HOSE, LIGHT = 3.0, 2.0, 1.0
"""What a metre counts: of a battery's own cable, of a hose or a fridge's cable, of a light circuit. Set by judgement."""
STORES_POWER = ("battery", "power station")


def _roles(unit: Unit) -> frozenset[Role]:
    """What a unit is in water, gas and power."""
    return kind_of(unit).says(unit, "").roles


def runs_of(job: Job, units: Sequence[Unit]) -> list[tuple[str, str, float]]:
    """What is joined by cables and hoses.

    Returns: Ids of two things, and how much a metre counts. [points]
    """
    every = {u.id: u for u in (*job.units, *units)}
    first: dict[str, str] = {}
    for u in every.values():
        for role in _roles(u):
            first.setdefault(role, u.id)
    found = [
        (first[a], first[b], weight)
        for a, b, weight in (("water", "kitchen", HOSE), ("gas", "kitchen", HOSE), ("water", "pump", HOSE),
                             ("gas", "water heater", LIGHT))
        if a in first and b in first
    ]  # fmt: skip
    found += _circuits(job, every) if job.services.begun else _usual(first, every)
    return found


def _circuits(job: Job, every: dict[str, Unit]) -> list[tuple[str, str, float]]:
    """What the job's circuits join: the board to the battery, and everything else to the board."""
    s = job.services
    battery = next((b.thing for b in s.batteries if b.thing in every), "")
    hub = s.board if s.board in every else battery
    if not hub:
        return []
    found = [(battery, hub, HEAVY)] if battery and battery != hub else []
    found += [
        (b.thing, battery, HEAVY) for b in s.batteries if b.thing in every and b.thing != battery
    ]
    for u in every.values():
        if battery and not _roles(u).isdisjoint(("charger", "inverter")):
            found.append((u.id, battery, HEAVY))
    for c in s.consumers:
        if c.thing in every and c.thing not in (hub, battery):
            found.append((c.thing, hub, min(HOSE, LIGHT + c.watts / 200)))
    return found


def _usual(first: dict[str, str], every: dict[str, Unit]) -> list[tuple[str, str, float]]:
    """What is usually joined, where no circuits are entered."""
    power = next((first[k] for k in STORES_POWER if k in first), "")
    if not power:
        return []
    found = []
    for u in every.values():
        roles = _roles(u)
        if not roles.isdisjoint(("fuse board", "charger", "inverter")):
            found.append((u.id, power, HEAVY))
        elif not roles.isdisjoint(("fridge", "pump", "compressor", "water heater")):
            found.append((u.id, power, HOSE))
    return found


def sparks_apart(units: Sequence[Unit]) -> list[tuple[str, str, float]]:
    """What is kept away from gas: the pairs, and the wall between them. [mm]"""
    known = [(u, kind_of(u).says(u, "")) for u in units]
    gas = [u for u, what in known if "gas" in what.roles]
    lit = [u for u, what in known if what.ignites]
    return [(g.id, s.id, FROM_GAS) for g in gas for s in lit]
