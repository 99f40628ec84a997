"""The balance of the batteries: what comes in is used, charged or spilled; what is wanted comes in, is drawn or missing."""

from __future__ import annotations

from typing import TYPE_CHECKING

import msgspec

from roomy_hull.core import lazily
from roomy_hull.job.services import Services

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
else:
    np = lazily.module("numpy")

STORED = {"lithium iron": 0.97, "AGM": 0.85, "lead-acid": 0.80}
"""What of the charge can be drawn again (common practice)."""
PEUKERT = {"lithium iron": 1.0, "AGM": 1.1, "lead-acid": 1.2}
"""Peukert's exponent of each kind (common practice)."""
RATED_HOURS = 20.0
"""Over so many hours a battery's Ah are rated. [h]"""
FULL_AT = 0.8
"""Above this lead-acid takes less and less. Below it a fifth of its Ah in amperes (common practice)."""
MOST = {"lithium iron": 0.5, "AGM": 0.2, "lead-acid": 0.15}
"""What a battery may be charged with, of its Ah in amperes (common practice; its data sheet decides)."""


class Lived(msgspec.Struct, frozen=True):
    """A trip, hour by hour: arrays of as many hours. [W; Wh at the end of each hour]

    Attributes:
        load, drive, panels: What is wanted, and what driving (with mains where it is plugged in) and sun offer after
            their chargers.
        charged, spilled, unserved: What went in, what found no room, what was wanted and not there.
        given: What the batteries gave up, which for lead is more than came out the faster it is drawn (Peukert).
        left: In the batteries at the end of each hour, of what one wants to draw.
    """

    load: Array
    drive: Array
    panels: Array
    charged: Array
    spilled: Array
    unserved: Array
    given: Array
    left: Array


def live(
    services: Services, load: Array, drive: Array, panels: Array, air: Array, start: float
) -> Lived:
    """Go through the hours.

    Args:
        load, drive, panels, air: Hours last; trips may stand before them. [W, °C]
        start: What is there at first, of what one wants to draw, 0 to 1.
    Returns: In every hour what comes in is used, charged or spilled, and what is used comes in, is drawn or is missing.
    """
    shape = np.broadcast(load, drive, panels, air).shape
    load, drive, panels, air = (np.broadcast_to(v, shape) for v in (load, drive, panels, air))
    surplus = drive + panels - load
    most = accepted(services, air)
    left = np.full(shape[:-1], services.usable * start)
    rows: list[tuple[Array, ...]] = []
    for h in range(shape[-1]):
        more, need = np.maximum(surplus[..., h], 0.0), np.maximum(-surplus[..., h], 0.0)
        take = np.minimum(more, takes(services, left, most[..., h]))
        paid = cost(services, need)
        given = np.minimum(need * paid, left)
        left = np.clip(left + good(services) * take - given, 0.0, services.usable)
        rows.append((take, more - take, need - given / paid, given, left))
    columns = (np.stack(c, axis=-1) for c in zip(*rows, strict=True))
    return Lived(load, drive, panels, *columns)


def cost(services: Services, watts: Array) -> Array:
    """What the batteries give up for each watt-hour that comes out, at so many watts.

    By Peukert: at I they last H·(C/(I·H))^k, so an hour of it takes (I·H/C)^(k - 1) times as much; slower than rated
    counts as rated.
    """
    k = PEUKERT[services.batteries[0].chemistry] if services.batteries else 1.0
    if k <= 1.0:
        return np.ones_like(watts)
    rated = services.capacity / RATED_HOURS
    found: Array = np.maximum(watts / rated, 1.0) ** (k - 1)
    return found


def good(services: Services) -> float:
    """What of the charge can be drawn again."""
    return STORED[services.batteries[0].chemistry] if services.batteries else 1.0


def accepted(services: Services, air: Array) -> Array:
    """What the batteries take at most in air of so many degrees: each within its own bounds. [°C to W]"""
    found = np.zeros(np.shape(air))
    for b in services.batteries:
        amps = b.takes or MOST[b.chemistry] * b.ah
        found += np.where((air >= b.coldest) & (air <= b.hottest), amps * services.volts, 0.0)
    return found


def takes(services: Services, left: Array, most: Array | float) -> Array:
    """What the batteries take now, of what they take at most. [Wh, W to W]"""
    room = services.usable
    if not services.batteries:
        return np.zeros_like(left)
    kind, share = services.batteries[0].chemistry, np.ones_like(left)
    if kind != "lithium iron":
        # Of the whole battery: what one does not want to draw is full in any case.
        filled = 1 - (room - left) / services.capacity
        share = np.clip((1 - filled) / (1 - FULL_AT), 0.0, 1.0)
    found: Array = np.minimum(most * share, (room - left) / STORED[kind])
    return found
