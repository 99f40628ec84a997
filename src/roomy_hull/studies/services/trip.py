"""A trip lived through hour by hour: what is used, what sun and driving give, what is left in the batteries."""

from __future__ import annotations

from typing import TYPE_CHECKING, NamedTuple

import msgspec

from roomy_hull.core import lazily
from roomy_hull.core.services import flows
from roomy_hull.job.services import Consumer, Services
from roomy_hull.studies.services.balance import Lived, cost, live
from roomy_hull.studies.services.shade import Shade
from roomy_hull.studies.services.weather import driving, weather

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
else:
    np = lazily.module("numpy")

CARNOT = 0.35
"""What a small compressor fridge reaches of Carnot's limit (common practice)."""
LIFT = 20.0
"""By how much its cold side is colder than the box and its warm side warmer than the air, together. [K]"""
FOOD = 3.7
"""Heat of food and drink (common practice). [kJ/(kg·K)]"""
SPREAD = 0.25
"""One-sigma doubt of a day's cloud, as a part of the sky."""
DUTY = 0.15
"""One-sigma doubt of what all uses together take (estimated)."""
SAMPLES, SEED = 60, 7
HOT_FROM = 18.0
"""Water is heated for showers from this hour on. [h]"""
LONG = 240
"""What lasts so long without driving lasts. [h]"""


class Use(NamedTuple):
    """What something takes on a usual day: by its id, ``inverter`` or ``hot water``. [Wh]"""

    id: str
    name: str
    wh: float


class TripResult(msgspec.Struct, frozen=True):
    """What a trip comes to.

    Attributes:
        hours: Of the trip.
        lived: With the weather that is expected.
        low, high: What is left in nine and in one of ten trips with weather by chance, hour by hour. [Wh]
        lowest: The least that is left. [Wh]
        lowest_at: The hour.
        flat_at: The first hour in which something has to go without.
        flat_chance: Of being flat at any time.
        still: How long the full batteries last with the engine off and no sun, from the evening. [h]
        still_sun: The same with the sun; infinite where it lasts.
        day_wh: What each takes on a usual day, the largest first. [Wh]
    """

    hours: int
    lived: Lived
    air: Array
    low: Array
    high: Array
    lowest: float
    lowest_at: int
    flat_at: int | None
    flat_chance: float
    still: float
    still_sun: float
    day_wh: tuple[Use, ...]


def fridge(one: Consumer, air: Array) -> Array:
    """What a fridge takes, hour by hour.

    Args:
        one: With what it takes a day at one air temperature, its box, and what is put in warm.
        air: [°C]
    Returns:
        Heat that leaks in over a COP that falls as the air gets warmer, calibrated by the data sheet, and the heat
        of what is put in over the same COP. [W]
    """

    def cop(t: Array | float) -> Array:
        lift = np.maximum(np.asarray(t, dtype=float) - one.box, 0.0) + LIFT
        found: Array = CARNOT * (one.box - LIFT / 2 + 273.15) / lift
        return found

    rated = one.day_wh / 24.0
    leak = rated * cop(one.rated_air) / (one.rated_air - one.box)
    goods = one.warm_kg * FOOD * np.maximum(air - one.box, 0.0) / 3.6 / 24.0
    found: Array = (leak * np.maximum(air - one.box, 0.0) + goods) / cop(air)
    return found


def uses(services: Services, air: Array) -> dict[str, Array]:
    """What each takes from the batteries, hour by hour.

    Args:
        air: Hours last. [°C]
    Returns: By id; the inverter's own under ``inverter``. [W]
    """
    days = len(services.trip.days)
    clock = np.arange(24)
    found: dict[str, Array] = {}
    awake = np.zeros(24)
    for c in services.consumers:
        end = c.begin + c.hours
        on = sum(np.clip(np.minimum(clock + 1, end - turn) - np.maximum(clock, c.begin - turn), 0.0, 1.0)
                 for turn in (0.0, 24.0))  # fmt: skip
        day = c.watts * c.share * np.minimum(on, 1.0) + c.idle * (1 - np.minimum(on, 1.0))
        taken = np.tile(day, days) + (fridge(c, air) if c.day_wh else 0.0)
        if c.mains:
            taken /= services.inverter.efficiency
            awake = np.maximum(awake, np.minimum(on, 1.0) if c.idle <= 0 else 1.0)
        found[c.id] = taken + np.zeros_like(air)
    if services.uses.hot_by == "electricity" and any(d.showers for d in services.trip.days):
        found["hot water"] = hot_water(services) + np.zeros_like(air)
    if awake.any():
        found["inverter"] = np.tile(awake * services.inverter.idle, days) + np.zeros_like(air)
    return found


def hot_water(services: Services) -> Array:
    """What heating water by electricity takes, hour by hour: for each shower once, from six in the evening. [W]"""
    u = services.uses
    watts = u.hot_watts or np.inf
    once = flows.warming(u.hot_litres, max(0.0, u.hot_to - u.hot_from)) / 3.6 / u.hot_efficiency
    found = np.zeros(24 * len(services.trip.days))
    for n, day in enumerate(services.trip.days):
        left = once * day.showers
        for h in range(24 * n + int(HOT_FROM), len(found)):
            room = max(0.0, watts - found[h])
            found[h] += min(left, room)
            left -= min(left, room)
            if left <= 0:
                break
    return found


def by_chance(
    services: Services, count: int = SAMPLES, seed: int = SEED, shade: tuple[Shade, ...] = ()
) -> Lived:
    """Live many trips whose clouds and uses differ by chance."""
    every = _every(services, count, seed, shade)[0]
    return Lived(*(rows[1:] for rows in msgspec.structs.astuple(every)))


def _every(
    services: Services, count: int, seed: int, shade: tuple[Shade, ...] = ()
) -> tuple[Lived, dict[str, Array], Array]:
    """The trip that is expected, and after it some by chance, in one go; what each use takes, and the air. [W, °C]"""
    rng = np.random.default_rng(seed)
    known = np.array([float(d.cloud) for d in services.trip.days])
    cover = np.clip(known + SPREAD * rng.standard_normal((count, len(known))), 0.0, 1.0)
    factor = np.clip(1 + DUTY * rng.standard_normal((count, 1)), 0.3, None)
    sky = weather(services, np.vstack([known, cover]), {s.id: s.lit for s in shade})
    taken = uses(services, sky.air)
    load = sum(taken.values(), np.zeros_like(sky.air)) * np.vstack([[1.0], factor])
    lived = live(services, load, driving(services), sky.panels, sky.air, services.trip.charge)
    return lived, taken, sky.air


def trip(services: Services, shade: tuple[Shade, ...] = ()) -> TripResult | None:
    """Live a trip through.

    Returns: Nothing where there are no days or no batteries.
    """
    days = len(services.trip.days)
    if not days or not services.batteries:
        return None
    every, taken, air = _every(services, SAMPLES, SEED, shade)
    lived = Lived(*(rows[0] for rows in msgspec.structs.astuple(every)))
    many = Lived(*(rows[1:] for rows in msgspec.structs.astuple(every)))
    low, high = np.quantile(many.left, (0.1, 0.9), axis=0)
    missing = lived.unserved > 1e-6
    at = int(lived.left.argmin())
    nothing = np.zeros_like(air)
    evening = np.roll(lived.load, -18)
    names = {c.id: c.name for c in services.consumers} | {
        "inverter": "Inverter itself",
        "hot water": "Hot water",
    }
    a_day = sorted(
        (Use(k, names[k], float(v.sum()) / days) for k, v in taken.items()), key=lambda use: -use.wh
    )
    return TripResult(
        24 * days, lived, air, low, high, float(lived.left[at]), at,
        int(missing.argmax()) if missing.any() else None, float((many.unserved > 1e-6).any(axis=-1).mean()),
        lasts(services, evening, nothing), lasts(services, evening, np.roll(lived.panels, -18)), tuple(a_day),
    )  # fmt: skip


def lasts(services: Services, load: Array, panels: Array) -> float:
    """How long full batteries last without driving, over and over the same hours.

    Args:
        load, panels: Hour by hour from when one begins. [W]
    Returns: To a part of an hour; with sun infinite where they last for ten days. [h]
    """
    if not panels.any():
        paid = load * cost(services, load)
        # Nothing comes in: what is drawn adds up.
        total = float(paid.sum())
        if total <= 0:
            return float("inf")
        whole, rest = divmod(services.usable, total)
        drawn = np.concatenate([[0.0], np.cumsum(paid)])
        return whole * len(load) + float(np.interp(rest, drawn, np.arange(len(drawn))))
    times = max(1, -(-LONG // len(load)))
    again, more = np.tile(load, times)[:LONG], np.tile(panels, times)[:LONG]
    warm = np.full(again.shape, 20.0)
    lived = live(services, again, np.zeros_like(again), more, warm, 1.0)
    missing = lived.unserved > 1e-9
    if not missing.any():
        return float("inf")
    h = int(missing.argmax())
    need = again[h] - more[h]
    return h + float((need - lived.unserved[h]) / need)
