"""Wishes that follow from what things are: what a cable or hose joins, and what is kept away from gas."""

from collections.abc import Sequence

from roomy_hull.job.model import Job
from roomy_hull.kinds.board import Board
from roomy_hull.kinds.device import Device
from roomy_hull.kinds.fridge import Fridge
from roomy_hull.kinds.gas_locker import GasLocker
from roomy_hull.kinds.kitchen import Kitchen
from roomy_hull.kinds.registry import Unit
from roomy_hull.kinds.tank import Tank
from roomy_hull.studies.services.places import FROM_GAS, SPARKS

HEAVY, HOSE, LIGHT = 3.0, 2.0, 1.0
"""What a metre counts: of a battery's own cable, of a hose or a fridge's cable, of a light circuit. Set by judgement."""
STORES_POWER = ("battery", "power station")


def _role(unit: Unit) -> str:
    """What a unit is in water, gas and power; empty for nothing."""
    if isinstance(unit, Device):
        return str(unit.what)
    for kind, role in (
        (Board, "fuse board"),
        (Fridge, "fridge"),
        (Kitchen, "kitchen"),
        (Tank, "tank"),
        (GasLocker, "gas"),
    ):
        if isinstance(unit, kind):
            return role
    return ""


def runs_of(job: Job, units: Sequence[Unit]) -> list[tuple[str, str, float]]:
    """What is joined by cables and hoses.

    Returns: Ids of two things, and how much a metre counts. [points]
    """
    every = {u.id: u for u in (*job.units, *units)}
    first: dict[str, str] = {}
    for u in every.values():
        first.setdefault(_role(u), u.id)
    found = [
        (first[a], first[b], weight)
        for a, b, weight in (("tank", "kitchen", HOSE), ("gas", "kitchen", HOSE), ("tank", "pump", HOSE),
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
        if _role(u) in ("charger", "inverter") and battery:
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
        role = _role(u)
        if role in ("fuse board", "charger", "inverter"):
            found.append((u.id, power, HEAVY))
        elif role in ("fridge", "pump", "compressor", "water heater"):
            found.append((u.id, power, HOSE))
    return found


def sparks_apart(units: Sequence[Unit]) -> list[tuple[str, str, float]]:
    """What is kept away from gas: the pairs, and the wall between them. [mm]"""
    gas = [u for u in units if isinstance(u, GasLocker)]
    lit = [
        u for u in units if (isinstance(u, Device) and u.what in SPARKS) or isinstance(u, Fridge)
    ]
    return [(g.id, s.id, FROM_GAS) for g in gas for s in lit]
