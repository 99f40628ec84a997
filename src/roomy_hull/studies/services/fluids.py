"""Water, gas and air of a job: what of the water can be used on a slope, how it runs, how long gas burns."""

from __future__ import annotations

import math

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.things import Thing
from roomy_hull.core.errors import InputError
from roomy_hull.core.geometry.clipped import above, tilted
from roomy_hull.core.geometry.motion import Piece, prism
from roomy_hull.core.services import flows
from roomy_hull.core.tyres import overall_diameter, parts_of
from roomy_hull.job.services import Services
from roomy_hull.kinds.gas_locker import BOTTLES, VENT, GasLocker
from roomy_hull.kinds.tank import Tank, inside, litres

SLOPES = ((0.0, 0.0), (-5.0, 0.0), (5.0, 0.0), (0.0, 5.0), (0.0, -5.0))
"""Front and left so much higher: level, nose down, nose up, left up, right up. [°]"""
SLOPE_WORDS = ("level", "nose down", "nose up", "left up", "right up")
OUTLET_UP = 12.0
"""An outlet's middle lies so far over the tank's bottom: half of a usual thread (common practice). [mm]"""
VENT_SHARE, VENT_LEAST = 0.02, 100.0
"""A locker's vents low to the outside: of its floor, and at least (EN 1949, from memory). [cm²]"""


class Water(msgspec.Struct, frozen=True):
    """One tank: what it holds, what of it runs out on each of `SLOPES`, and how it runs to the tap. [l, m, l/s, s]

    `head` is the level of the half full tank over the tap; negative where it is below.
    """

    id: str
    name: str
    holds: float
    usable: tuple[float, ...]
    head: float
    rate: float
    ten_litres: float


class Fluids(msgspec.Struct, frozen=True):
    """Water, gas and air of a job and its trip.

    Attributes
    ----------
    tanks : tuple of Water
        In the job's order.
    day_litres : tuple of float
        What each day of the trip takes. [l]
    dry_at : float or None
        The day, counted from 0, in which the water ends; nothing where it lasts.
    gas_kg, gas_hours, gas_days : float
        Aboard, how long one burner runs on it, and how many days of the trip.
    gas_out : float or None
        As `dry_at`.
    vents : tuple of (str, float, float)
        Each locker, the area of its vents, and the least that they need. [cm²]
    tyres_minutes : float
        Four tyres from low to high; 0 without a compressor. [min]
    """

    tanks: tuple[Water, ...]
    day_litres: tuple[float, ...]
    dry_at: float | None
    gas_kg: float
    gas_hours: float
    gas_out: float | None
    vents: tuple[tuple[str, float, float], ...]
    tyres_minutes: float

    @property
    def usable(self) -> float:
        """What runs out standing level. [l]"""
        return sum(t.usable[0] for t in self.tanks)


def inner(thing: Thing, unit: Tank) -> Piece | None:
    """The room inside a welded tank, in vehicle axes; nothing for bladder and cans. [mm]"""
    if thing.place is None or unit.style not in ("box", "wedge"):
        return None
    a, b, c = inside(unit)
    t, frame = unit.sheet, thing.place.frame
    low = c if unit.style == "box" else max(unit.low - 2 * t, 1.0)
    corners = [
        frame.point(unit.u + t, unit.v + t + v, unit.w + t + w)
        for v, w in ((0, 0), (b, 0), (b, c), (0, low))
    ]
    axis = 1 if frame.side == "rear" else 0
    flat = tuple((p[1 - axis], p[2]) for p in corners)
    if sum(p[0] * q[1] - q[0] * p[1] for p, q in zip(flat, (*flat[1:], flat[0]), strict=True)) < 0:
        flat = flat[::-1]
    start = corners[0][axis]
    return prism(axis, flat, start, start + a)


def usable(thing: Thing, unit: Tank) -> tuple[float, ...]:
    """What runs out of a tank on each slope.

    Parameters
    ----------
    thing : Thing
        Where it stands.
    unit : Tank
        Its value.

    Returns
    -------
    tuple of float
        Above the plane through the outlet, low in the middle of its front; all of a bladder or of cans. [l]
    """
    whole = litres(unit, thing.place.bay.side if thing.place is not None else "left")
    piece = inner(thing, unit)
    if piece is None or thing.place is None:
        return tuple(whole for _ in SLOPES)
    outlet = thing.place.frame.point(
        unit.u + unit.width / 2, unit.v + unit.sheet, unit.w + unit.sheet + OUTLET_UP
    )
    geometric = above(piece, (outlet[0], outlet[1], -1e5), tilted(0, 0))
    share = whole / geometric if geometric > 0 else 0.0
    return tuple(above(piece, outlet, tilted(*slope)) * share for slope in SLOPES)


def water(assembly: Assembly, services: Services) -> tuple[Water, ...]:
    """Every tank of a job.

    Parameters
    ----------
    assembly : Assembly
        The job in vehicle axes.
    services : Services
        With hose and tap.

    Returns
    -------
    tuple of Water
        In the job's order.
    """
    u = services.uses
    found = []
    for thing in assembly.things:
        unit = thing.value
        if not isinstance(unit, Tank):
            continue
        side = thing.place.bay.side if thing.place is not None else "left"
        box = thing.envelope
        head = ((box.z0 + box.z1) / 2 - u.tap) / 1000.0
        floor = (box.x1 - box.x0) * (box.y1 - box.y0) / 1e6
        holds = litres(unit, side)
        bore = u.hose / 1000.0
        rate = flows.outflow(head, bore, u.hose_metres)
        ten = (
            flows.draw_time(min(10.0, holds), floor, head, bore, u.hose_metres)
            if head > 0
            else math.inf
        )
        found.append(Water(thing.id, thing.value.name, holds, usable(thing, unit), head, rate, ten))
    return tuple(found)


def _ends(stock: float, days: list[float]) -> float | None:
    """The day in which something ends, a part of it counted by its use; nothing where it lasts."""
    for n, need in enumerate(days):
        if need > stock + 1e-9:
            return n + stock / need
        stock -= need
    return None


def fluids(assembly: Assembly, tanks: tuple[Water, ...] | None = None) -> Fluids:
    """Water, gas and air of a job.

    Parameters
    ----------
    assembly : Assembly
        The job in vehicle axes.
    tanks : tuple of Water or None
        Those of before, where neither they nor hose and tap have changed.

    Returns
    -------
    Fluids
        Everything at once.
    """
    services = assembly.job.services
    u, trip = services.uses, services.trip
    if tanks is None:
        tanks = water(assembly, services)
    days = [trip.people * u.drink + d.showers * u.shower + d.meals * u.meal for d in trip.days]
    lockers = [(t, t.value) for t in assembly.things if isinstance(t.value, GasLocker)]
    gas = sum(BOTTLES[locker.bottle][3] for _t, locker in lockers) * trip.gas
    per_kg = flows.burning_hours(1.0, u.burner)
    burnt = [d.meals * u.meal_burns / per_kg for d in trip.days] if u.burner > 0 else []
    vents = []
    for t, _locker in lockers:
        box = t.envelope
        floor = (box.x1 - box.x0) * (box.y1 - box.y0) / 100.0
        vents.append((t.id, 2 * math.pi / 4 * VENT**2 / 100.0, max(VENT_SHARE * floor, VENT_LEAST)))
    return Fluids(
        tanks, tuple(days), _ends(sum(t.usable[0] for t in tanks) * trip.water, days) if tanks else None, gas,
        flows.burning_hours(gas, u.burner), _ends(gas, burnt) if lockers else None, tuple(vents), _tyres(assembly),
    )  # fmt: skip


def _tyres(assembly: Assembly) -> float:
    """Minutes for four tyres; 0 where there is no compressor or it delivers nothing."""
    u, tyre = assembly.job.services.uses, assembly.job.vehicle.tyre
    if not any(getattr(t.value, "what", "") == "compressor" for t in assembly.things):
        return 0.0
    section, _aspect, rim = parts_of(tyre)
    air = flows.tyre_volume(overall_diameter(tyre), section, rim * 25.4)
    try:
        return flows.filling_time(4 * air, u.tyres_low, u.tyres_high, u.free_air)
    except InputError:
        return 0.0
