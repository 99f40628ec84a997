"""Axle loads, sides, payload and stance, with doubt, for every scenario."""

import math

import msgspec
import numpy as np
import numpy.typing as npt

from roomy_hull.assembly.assemble import Assembly, Mass
from roomy_hull.core.units import G
from roomy_hull.job.model import Job, Scenario

Array = npt.NDArray[np.float64]


class Figure(msgspec.Struct, frozen=True):
    """A figure with its one-sigma doubt and its limit (none where there is no limit). [kg]"""

    value: float
    doubt: float
    limit: float | None = None


class Stance(msgspec.Struct, frozen=True):
    """How far each end settles from kerb, and how much lower the tail is than wished. [mm]"""

    front_sag: float
    rear_sag: float
    tail_low: float


class ScenarioLoads(msgspec.Struct, frozen=True):
    """What one scenario weighs. Masses in kg, the centre of mass in vehicle axes. [mm]"""

    id: str
    name: str
    front: Figure
    rear: Figure
    gross: Figure
    left: Figure
    right: Figure
    payload_left: Figure
    combination: Figure | None
    roof: Figure
    stance: Stance
    centre: tuple[float, float, float]
    owners: dict[str, tuple[float, float, float]]


class LoadResult(msgspec.Struct, frozen=True):
    """All scenarios, and the kerb axle masses they are compared with. [kg]"""

    scenarios: tuple[ScenarioLoads, ...]
    kerb_front: float
    kerb_rear: float

    def scenario(self, key: str) -> ScenarioLoads:
        """Find a scenario by id; the first one where there is none such."""
        return next((s for s in self.scenarios if s.id == key), self.scenarios[0])


def reactions(kg: Array, x: Array, wheelbase: float) -> tuple[float, float]:
    """Give front and rear axle load of some masses.

    Parameters
    ----------
    kg, x : array, shape (n,)
        Masses and how far each is aft of the front axle. [kg, mm]
    wheelbase : float
        Distance of the axles, above 0. [mm]

    Returns
    -------
    (float, float)
        rear = Σ m·x / L, front = Σ m - rear. [kg]

    Notes
    -----
    Statics of a beam on two supports; a mass behind the rear axle lifts the front.
    """
    rear = float(np.sum(kg * x)) / wheelbase
    return float(np.sum(kg)) - rear, rear


def spread_load(kg: float, start: float, end: float, wheelbase: float) -> tuple[float, float]:
    """Give front and rear axle load of a mass spread evenly from start to end.

    Parameters
    ----------
    kg : float
        The whole mass. [kg]
    start, end : float
        Where it begins and ends, aft of the front axle. [mm]
    wheelbase : float
        Distance of the axles, above 0. [mm]

    Returns
    -------
    (float, float)
        Front and rear. [kg]
    """
    return reactions(np.array([kg]), np.array([(start + end) / 2]), wheelbase)


def factors(masses: list[Mass], scenarios: tuple[Scenario, ...]) -> Array:
    """Give what each scenario makes of each mass.

    Parameters
    ----------
    masses : list of Mass, length n
        All masses of the assembly.
    scenarios : tuple of Scenario, length s
        The scenarios.

    Returns
    -------
    array, shape (s, n)
        Factor on each mass; for people and the ball, the scenario's mass. [1 or kg]
    """
    fills = sorted({m.fill for m in masses})
    column = {fill: i for i, fill in enumerate(fills)}
    table = np.array([[_factor(s, fill) for fill in fills] for s in scenarios])
    codes = np.array([column[m.fill] for m in masses])
    on_canopy = np.array([m.mount == "canopy" for m in masses])
    result: Array = table[:, codes]
    for i, scenario in enumerate(scenarios):
        if not scenario.canopy:
            result[i, on_canopy] = 0.0
        if scenario.left_behind:
            away = set(scenario.left_behind)
            result[i, np.array([m.owner in away for m in masses])] = 0.0
    return result


def _factor(scenario: Scenario, fill: str) -> float:
    """Give one scenario's factor on one kind of mass."""
    if fill == "fixed":
        return 1.0
    if fill == "ball":
        return scenario.ball
    if fill.startswith("person "):
        seat = int(fill.split()[1])
        return scenario.people[seat] if seat < len(scenario.people) else 0.0
    return {"fuel": scenario.fuel, "water": scenario.water, "contents": scenario.contents}[fill]


def study(assembly: Assembly) -> LoadResult:
    """Weigh every scenario.

    Parameters
    ----------
    assembly : Assembly
        The job in vehicle axes.

    Returns
    -------
    LoadResult
        Loads with doubt and limit for each scenario. Left and right come from
        Σ m·(1/2 ± y/track), each mass on both axles by its place along the wheelbase
        (a stiff chassis; sharing by roll stiffness is not yet modelled). [kg, mm]
    """
    job = assembly.job
    masses = assembly.masses()
    scale = factors(masses, job.scenarios)
    table = np.array([(m.kg, m.sigma, m.x, m.y, m.z) for m in masses])
    on_roof = {c.id for c in job.carried if c.on_roof}
    roof_mask = np.array([m.owner in on_roof for m in masses])
    owners = [m.owner for m in masses]
    loads = tuple(
        _weigh(job, s, scale[i], table, roof_mask, owners) for i, s in enumerate(job.scenarios)
    )
    return LoadResult(loads, job.vehicle.kerb.front, job.vehicle.kerb.rear)


def _rss(sigma: Array, share: Array) -> float:
    """Give the root of the sum of squared, shared doubts."""
    return float(math.sqrt(float(np.sum((sigma * share) ** 2))))


def _weigh(
    job: Job, scenario: Scenario, scale: Array, table: Array, roof: npt.NDArray[np.bool_],
    owners: list[str],
) -> ScenarioLoads:  # fmt: skip
    """Weigh one scenario from the table of masses (kg, sigma, x, y, z)."""
    vehicle = job.vehicle
    kg, sigma = table[:, 0] * scale, table[:, 1] * scale
    x, y, z = table[:, 2], table[:, 3], table[:, 4]
    at_rear = x / vehicle.wheelbase
    front, rear = reactions(kg, x, vehicle.wheelbase)
    gross = front + rear
    to_right = 0.5 + y * ((1 - at_rear) / vehicle.track_front + at_rear / vehicle.track_rear)
    right = float(np.sum(kg * to_right))
    ones = np.ones_like(kg)
    doubt = _rss(sigma, ones)
    ratings = vehicle.ratings
    centre = tuple(float(np.sum(kg * c)) / gross if gross > 0 else 0.0 for c in (x, y, z))
    combination = None
    if scenario.trailer > 0:
        train = gross + scenario.trailer - scenario.ball
        spread = math.hypot(doubt, 0.03 * (scenario.trailer - scenario.ball))
        combination = Figure(train, spread, ratings.combination or None)
    totals: dict[str, tuple[float, float, float]] = {}
    for owner, m, r, side in zip(
        owners, kg.tolist(), (kg * at_rear).tolist(), (kg * (2 * to_right - 1)).tolist(),
        strict=True,
    ):  # fmt: skip
        a, b, c = totals.get(owner, (0.0, 0.0, 0.0))
        totals[owner] = (a + m, b + r, c + side)
    return ScenarioLoads(
        scenario.id,
        scenario.name,
        Figure(front, _rss(sigma, 1 - at_rear), ratings.front_axle),
        Figure(rear, _rss(sigma, at_rear), ratings.rear_axle),
        Figure(gross, doubt, ratings.gross),
        Figure(gross - right, _rss(sigma, 1 - to_right)),
        Figure(right, _rss(sigma, to_right)),
        Figure(ratings.gross - gross, doubt, 0.0),
        combination,
        Figure(float(np.sum(kg[roof])), _rss(sigma[roof], ones[roof]), ratings.roof or None),
        _stance(job, front, rear),
        (centre[0], centre[1], centre[2]),
        totals,
    )


def _stance(job: Job, front: float, rear: float) -> Stance:
    """Settle both axles on their springs: sag = ΔF / (2k) from the kerb masses."""
    vehicle = job.vehicle
    front_sag = (front - vehicle.kerb.front) * G / (2 * vehicle.springs.front)
    rear_sag = (rear - vehicle.kerb.rear) * G / (2 * vehicle.springs.rear)
    return Stance(front_sag, rear_sag, rear_sag - front_sag - vehicle.level_target)
