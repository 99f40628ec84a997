"""What a battery monitor said against what was predicted, and what each use then really takes."""

from __future__ import annotations

from typing import TYPE_CHECKING

import msgspec

from roomy_hull.core import lazily
from roomy_hull.core.errors import InputError
from roomy_hull.job.services import Consumer, Services
from roomy_hull.studies.services.trip import uses
from roomy_hull.studies.services.weather import driving, weather

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
else:
    np = lazily.module("numpy")

BEFORE = 0.3
"""One-sigma doubt of what a data sheet or a guess says a use takes, before anything is measured (estimated)."""
READING = 0.03
"""One-sigma doubt of one reading, of the largest (estimated)."""
DARK = 2.0
"""Readings count where driving and sun give less than this, so that what is drawn is what is used. [W]"""
FEWEST = 3


class Use(msgspec.Struct, frozen=True):
    """A use by the monitor: how many times what was entered it takes, and the doubt of that."""

    id: str
    name: str
    factor: float
    uncertainty: float


def recalibrated(services: Services) -> tuple[Use, ...]:
    """Find what each use takes by what was measured while nothing charged.

    Returns:
        Least squares over the readings, held near what was entered as far as that was known (a Gaussian prior of
        `BEFORE`), no factor below 0; doubts from the same normal equations.
    Raises:
        InputError: There are too few readings in the dark with the engine off.
    """
    from scipy.optimize import lsq_linear  # ruff: ignore[import-outside-top-level]  # only where one recalibrates

    days = len(services.trip.days)
    sky = weather(services)
    given = driving(services) + sky.panels if days else np.zeros(0)
    taken = uses(services, sky.air) if days else {}
    rows = [m for m in services.measured if int(m.hour) < 24 * days and given[int(m.hour)] < DARK]
    if len(rows) < FEWEST:
        raise InputError(
            f"{len(rows)} readings were taken in the dark with the engine off", "the battery monitor",
            f"Take {FEWEST} or more there, at different times of the night.",
        )  # fmt: skip
    hours = [int(m.hour) for m in rows]
    names = {c.id: c.name for c in services.consumers} | {"inverter": "Inverter itself"}
    keys = [k for k, watts in taken.items() if float(watts[hours].max()) > 0]
    # What little comes in meanwhile is used at once.
    drawn = np.array([max(given[int(m.hour)] - m.amps * m.volts, 0.0) for m in rows])
    loads = np.array([taken[k][hours] for k in keys]).T.reshape(len(rows), len(keys))
    sigma = max(READING * float(drawn.max()), 0.5)
    matrix = np.vstack([loads / sigma, np.eye(len(keys)) / BEFORE])
    wanted = np.concatenate([drawn / sigma, np.full(len(keys), 1.0 / BEFORE)])
    found = lsq_linear(matrix, wanted, bounds=(0.0, np.inf)).x
    uncertainties = np.sqrt(np.diag(np.linalg.inv(matrix.T @ matrix)))
    return tuple(
        Use(k, names[k], float(f), float(d))
        for k, f, d in zip(keys, found, uncertainties, strict=True)
    )


def applied(services: Services, found: tuple[Use, ...]) -> Services:
    """Have the uses take what the monitor says.

    Args:
        found: From `recalibrated`.
    Returns: A fridge's day, and every other's share of its hours or, beyond all of them, its watts are scaled.
    """
    factors = {u.id: u.factor for u in found}
    return services.but(
        consumers=tuple(_scaled(c, factors.get(c.id, 1.0)) for c in services.consumers)
    )


def _scaled(c: Consumer, factor: float) -> Consumer:
    """One use by its factor; what it draws idle goes along."""
    share = c.share * factor
    more = max(share, 1.0)
    return c.but(
        day_wh=min(c.day_wh * factor, 20000.0), share=min(share, 1.0), watts=min(c.watts * more, 20000.0),
        idle=min(c.idle * factor, 20000.0),
    )  # fmt: skip
