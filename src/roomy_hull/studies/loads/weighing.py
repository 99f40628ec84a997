"""Weighing: what scales said against what was predicted, and predictions that follow it.

Before the scales every mass has a mean and a doubt. A reading is a sum of them with a doubt of its own.
The best estimate afterwards moves every mass by its part of the doubt: a contents figure that was guessed
moves far, a kerb mass that was weighed hardly at all. All scenarios follow, each by what it shares with
the one on the scales.
"""

import math
from collections.abc import Callable, Sequence
from typing import Any

import msgspec

from roomy_hull.core import lazily
from roomy_hull.job.model import Job, Scenario, Weighing

np = lazily.module("numpy")

Triple = tuple[float, float, float]


class Evidence(msgspec.Struct, frozen=True):
    """Readings that count, and by how much the sums of the doubts have to move to meet them.

    `factors` are, for each reading, what its scenario makes of each total; `readings` how its figure is
    read; `weights` and `inverse` solve for the readings' differences (generalised least squares).
    """

    factors: tuple[tuple[float, ...], ...]
    readings: tuple[Triple, ...]
    weights: tuple[float, ...]
    inverse: tuple[tuple[float, ...], ...]

    def correction(
        self, here: Sequence[tuple[float, tuple[float, ...]]]
    ) -> tuple[Triple, tuple[float, ...]]:
        """By how much a scenario's sums move, and what its covariance loses.

        Args:
            here: The scenario's factor and the covariance of each total.
        Returns: Added to Σm, Σm·x, Σm·y [kg, kg·mm]; the covariance that is gone, as 11, 12, 13, 22, 23, 33.
        """
        cross = np.array([
            _matrix([f * o for (f, _), o in zip(here, one, strict=True)], [s for _, s in here])
            @ np.array(reading)
            for one, reading in zip(self.factors, self.readings, strict=True)
        ])
        move = cross.T @ np.array(self.weights)
        lost = cross.T @ np.array(self.inverse) @ cross
        pairs = ((0, 0), (0, 1), (0, 2), (1, 1), (1, 2), (2, 2))
        return (
            (float(move[0]), float(move[1]), float(move[2])),
            tuple(float(lost[i, j]) for i, j in pairs),
        )


def _matrix(factors: Sequence[float], spreads: Sequence[Sequence[float]]) -> Any:
    """Add up covariances of the three sums, each times its factor."""
    rows = np.array(factors) @ np.array([s[:6] for s in spreads])
    a, b, c, d, e, f = rows
    return np.array([[a, b, c], [b, d, e], [c, e, f]])


def evidence(
    job: Job,
    readings: Sequence[tuple[Triple, Scenario, float, float]],
    totals: Sequence[Any],
    factor: Callable[[Scenario, Any], float],
) -> Evidence | None:
    """Set readings against what the totals predict.

    Args:
        readings: How each figure is read, in which scenario, what was read and its one-sigma doubt. [kg]
        totals: The shares, added up by what scenarios scale alike.
    Returns: None where nothing was read.
    Generalised least squares with a prior (Gauss-Markov); the same as one step of a Kalman filter.
    """
    if not readings or not job.weighings:
        return None
    spreads = [t.spread for t in totals]
    factors = [tuple(factor(scenario, t) for t in totals) for _, scenario, _, _ in readings]
    how = [np.array(reading) for reading, _, _, _ in readings]
    size = len(readings)
    both = np.zeros((size, size))
    differ = np.zeros(size)
    sums = np.array([t.sums[:3] for t in totals])
    for i in range(size):
        differ[i] = readings[i][2] - how[i] @ (np.array(factors[i]) @ sums)
        for j in range(i, size):
            product = [a * b for a, b in zip(factors[i], factors[j], strict=True)]
            both[i, j] = both[j, i] = how[i] @ _matrix(product, spreads) @ how[j]
        both[i, i] += readings[i][3] ** 2
    inverse = np.linalg.inv(both)
    return Evidence(
        tuple(factors),
        tuple(r[0] for r in readings),
        tuple(float(w) for w in inverse @ differ),
        tuple(tuple(float(v) for v in row) for row in inverse),
    )


class Against(msgspec.Struct, frozen=True):
    """One reading against its prediction. [kg]

    `sigmas` is the difference over the doubt of both together.
    """

    words: str
    predicted: float
    uncertainty: float
    read: float
    scale: float

    @property
    def difference(self) -> float:
        """What was read more than predicted. [kg]"""
        return self.read - self.predicted

    @property
    def sigmas(self) -> float:
        """The difference over the doubt of prediction and scale together."""
        return self.difference / max(math.hypot(self.uncertainty, self.scale), 1e-9)


def against(weighing: Weighing, predicted: dict[str, tuple[float, float]]) -> tuple[Against, ...]:
    """Set a weighing against the figures predicted without it.

    Args:
        predicted: Value and doubt of ``front``, ``rear``, ``gross`` and each wheel, no weighing counted. [kg]
    Returns: Wheels where read, axles, and gross where both axles were read.
    """
    wheels, axles = weighing.wheels(), weighing.axles()
    rows = [Against(k, *predicted[k], kg, weighing.scale) for k, kg in wheels.items()]
    each = weighing.scale * (math.sqrt(2) if wheels else 1.0)
    rows += [Against(f"{k} axle", *predicted[k], kg, each) for k, kg in axles.items()]
    if len(axles) == 2:
        rows.append(Against("gross", *predicted["gross"], sum(axles.values()), each * math.sqrt(2)))
    return tuple(rows)


def raised_height(
    kg: float, lower: float, lower_raised: float, base: float, lift: float, hub: float
) -> float:
    """The height of the centre of mass from a weighing with one axle raised.

    Args:
        kg: Mass of the whole. [kg]
        lower, lower_raised: Load of the axle that stays down, level and with the other axle raised. [kg]
        base: Wheelbase. [mm]
        lift: How much higher the raised wheels stand, above 0 and below the wheelbase. [mm]
        hub: Height of the wheel centres over what they stand on. [mm]
    Returns: h = hub + L·(F' - F)/(m·tan θ), sin θ = lift/L. [mm]

    ISO 10392, from memory; the suspension is blocked and the brakes are off.
    """
    angle = math.asin(min(0.999, lift / base))
    return hub + base * (lower_raised - lower) / (kg * math.tan(angle))
