"""Water, gas and air of a job: what of the water can be used on a slope, how it runs, how long gas burns."""

from __future__ import annotations

import math

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.errors import InputError
from roomy_hull.core.services import flows
from roomy_hull.core.tyres import overall_diameter, parts_of
from roomy_hull.job.services import Services
from roomy_hull.studies.services.levelling import Level, level
from roomy_hull.studies.services.runs import Run
from roomy_hull.studies.services.water import Water, water

VENT_SHARE, VENT_LEAST = 0.02, 100.0
"""A locker's vents low to the outside: of its floor, and at least (EN 1949, from memory). [cm²]"""


class Hot(msgspec.Struct, frozen=True):
    """Water heated once: its heat, what that takes of batteries or gas, how long. [l, kJ, Wh, kg, min]"""

    litres: float
    heat: float
    wh: float
    gas: float
    minutes: float


class Fluids(msgspec.Struct, frozen=True):
    """Water, gas and air of a job and its trip.

    Attributes:
        tanks: In the job's order.
        day_litres: What each day of the trip takes. [l]
        dry_at: The day, counted from 0, in which the water ends; nothing where it lasts.
        gas_kg, gas_hours, gas_days: Aboard, how long one burner runs on it, and how many days of the trip.
        gas_out: As `dry_at`.
        vents: Each locker, the area of its vents, and the least that they need. [cm²]
        tyres_minutes, tyres_ah: Four tyres from low to high, the air tank first; 0 without a compressor. [min, Ah]
        hot: Water heated once; nothing where none is.
        levels: Air springs set for the slope of the camp in each scenario; none without air springs.
        runs: Every hose and pipe.
        burnt: What each day of the trip burns. [kg]
        charge_litres: What the pump gives on one charge of the batteries; 0 where it is no consumer. [l]
    """

    tanks: tuple[Water, ...]
    day_litres: tuple[float, ...]
    dry_at: float | None
    gas_kg: float
    gas_hours: float
    gas_out: float | None
    vents: tuple[tuple[str, float, float], ...]
    tyres_minutes: float
    tyres_ah: float = 0.0
    hot: Hot | None = None
    levels: tuple[Level, ...] = ()
    runs: tuple[Run, ...] = ()
    burnt: tuple[float, ...] = ()
    charge_litres: float = 0.0

    @property
    def usable(self) -> float:
        """What runs out standing level. [l]"""
        return sum(t.usable[0] for t in self.tanks)


def _ends(stock: float, days: list[float]) -> float | None:
    """The day in which something ends, a part of it counted by its use; nothing where it lasts."""
    for n, need in enumerate(days):
        if need > stock + 1e-9:
            return n + stock / need
        stock -= need
    return None


def hot(services: Services) -> Hot | None:
    """Heat the water that is heated at a time.

    Returns: m·c·ΔT over what gets there; by gas with the burner's power.
    """
    u = services.uses
    if not u.hot_by:
        return None
    heat = flows.warming(u.hot_litres, max(0.0, u.hot_to - u.hot_from))
    into = heat / u.hot_efficiency
    watts = u.hot_watts if u.hot_by == "electricity" else u.burner * 1000.0
    minutes = into * 1000.0 / watts / 60.0 if watts > 0 else math.inf
    if u.hot_by == "gas":
        return Hot(u.hot_litres, heat, 0.0, flows.heated_by_gas(heat, u.hot_efficiency), minutes)
    return Hot(u.hot_litres, heat, into / 3.6, 0.0, minutes)


def fluids(
    assembly: Assembly, laid: tuple[Run, ...], tanks: tuple[Water, ...] | None = None,
    loads: tuple[tuple[str, float, float], ...] = (),
) -> Fluids:  # fmt: skip
    """Water, gas and air of a job.

    Args:
        tanks: Those of before, where neither they nor hose and tap have changed.
        loads: Each scenario's rear axle and how far the front settles. [kg, mm]
    """
    services = assembly.job.services
    u, trip = services.uses, services.trip
    if tanks is None:
        tanks = water(assembly, laid)
    days = [trip.people * u.drink + d.showers * u.shower + d.meals * u.meal for d in trip.days]
    bottles = [(t, b) for t in assembly.everything if (b := t.capabilities.bottle) is not None]
    gas = sum(b.gas for _t, b in bottles) * trip.gas
    per_kg = flows.burning_hours(1.0, u.burner)
    heater = hot(services)
    once = heater.gas if heater is not None else 0.0
    burnt = [
        (d.meals * u.meal_burns / per_kg if u.burner > 0 else 0.0) + d.showers * once
        for d in trip.days
    ]
    vents = []
    for t, _bottle in bottles:
        box = t.envelope
        floor = (box.x1 - box.x0) * (box.y1 - box.y0) / 100.0
        vents.append((t.id, t.capabilities.vents, max(VENT_SHARE * floor, VENT_LEAST)))
    return Fluids(
        tanks, tuple(days), _ends(sum(t.usable[0] for t in tanks) * trip.water, days) if tanks else None, gas,
        flows.burning_hours(gas, u.burner), _ends(gas, burnt) if bottles else None, tuple(vents), *_tyres(assembly), heater,
        tuple(level(assembly.job.vehicle, key, rear, sag, (u.slope_ahead, u.slope_left)) for key, rear, sag in loads),
        laid, tuple(burnt), _by_charge(services, assembly, tanks),
    )  # fmt: skip


def _by_charge(services: Services, assembly: Assembly, tanks: tuple[Water, ...]) -> float:
    """What the pump gives on what one wants to draw of the batteries; 0 where it is no consumer. [l]"""
    pumps = {t.id for t in assembly.doing("pump")}
    watts = next((c.watts for c in services.consumers if c.thing in pumps), 0.0)
    flow = max((t.pumped for t in tanks), default=0.0)
    return services.usable / watts * 60.0 * flow if watts > 0 else 0.0


TANK_WALL = 3.0
"""Of an air tank's steel (common practice). [mm]"""


def air_tank_litres(assembly: Assembly) -> float:
    """What the air tanks hold: cylinders as long as their longest side, by their shortest. [l]"""
    found = 0.0
    for t in assembly.doing("air tank"):
        long, wide = sorted(t.envelope.size())[::-2]
        inside = max(0.0, wide - 2 * TANK_WALL)
        found += math.pi / 4 * inside**2 * max(0.0, long - 2 * TANK_WALL) / 1e6
    return found


def _tyres(assembly: Assembly) -> tuple[float, float]:
    """Minutes and Ah for four tyres; 0 where there is no compressor or it delivers nothing."""
    services = assembly.job.services
    u, tyre = services.uses, assembly.job.vehicle.tyre
    pumps = {t.id for t in assembly.doing("compressor")}
    if not pumps:
        return 0.0, 0.0
    section, _aspect, rim = parts_of(tyre)
    air = 4 * flows.tyre_volume(overall_diameter(tyre), section, rim * 25.4)
    tank = air_tank_litres(assembly)
    try:
        minutes = flows.filling_time(
            air, u.tyres_low, u.tyres_high, u.free_air, tank, u.air_tank_kpa, u.air_duty
        )
    except InputError:
        return 0.0, 0.0
    watts = next((c.watts for c in services.consumers if c.thing in pumps), 0.0)
    return minutes, watts * minutes * u.air_duty / 60.0 / services.volts
