"""Axle loads, sides, payload and stance, with doubt, for every scenario.

Every figure is a sum over masses, so each thing's share of it is summed once and kept for as long
as the thing does not change; a scenario then scales and adds the shares.
"""

import math

import msgspec

from roomy_hull.assembly.assemble import Assembly, Mass
from roomy_hull.core.units import G
from roomy_hull.job.model import Job, Scenario
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.studies.loads.governing import governing


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


class Share(msgspec.Struct, frozen=True):
    """What one owner's masses of one fill and mount add to every figure at full scale.

    `sums` are front, rear, gross, left, right, roof [kg] and the moments about the axes [kg·mm];
    `variances` belong to the first six. [kg²]
    """

    owner: str
    fill: str
    mount: str
    sums: tuple[float, ...]
    variances: tuple[float, ...]


class LoadResult(msgspec.Struct, frozen=True):
    """All scenarios, the kerb axle masses they are compared with [kg], and each thing's shares."""

    scenarios: tuple[ScenarioLoads, ...]
    kerb_front: float
    kerb_rear: float
    shares: dict[str, tuple[Share, ...]]

    def scenario(self, key: str) -> ScenarioLoads:
        """Find a scenario by id; the first one where there is none such."""
        return next((s for s in self.scenarios if s.id == key), self.scenarios[0])

    def owners(self, scenario: Scenario) -> dict[str, tuple[float, float, float]]:
        """Give what each owner weighs in a scenario.

        Parameters
        ----------
        scenario : Scenario
            Any scenario of the job.

        Returns
        -------
        dict of str to (float, float, float)
            Mass, rear-axle load, and right less left. [kg]
        """
        found: dict[str, tuple[float, float, float]] = {}
        for group in self.shares.values():
            for share in group:
                f, sums = factor(scenario, share), share.sums
                kg, rear, side = found.get(share.owner, (0.0, 0.0, 0.0))
                found[share.owner] = (
                    kg + f * sums[2], rear + f * sums[1], side + f * (sums[4] - sums[3])
                )  # fmt: skip
        return found


def reactions(kg: float, x: float, wheelbase: float) -> tuple[float, float]:
    """Give front and rear axle load of a mass, or of a whole at its centre of mass.

    Parameters
    ----------
    kg : float
        Mass. [kg]
    x : float
        How far it is aft of the front axle. [mm]
    wheelbase : float
        Distance of the axles, above 0. [mm]

    Returns
    -------
    (float, float)
        rear = m·x / L, front = m - rear. [kg]

    Notes
    -----
    Statics of a beam on two supports; a mass behind the rear axle lifts the front.
    """
    rear = kg * x / wheelbase
    return kg - rear, rear


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
    return reactions(kg, (start + end) / 2, wheelbase)


def to_right(x: float, y: float, vehicle: Vehicle) -> float:
    """Give the share of a mass that the right wheels carry.

    Parameters
    ----------
    x, y : float
        Where the mass is, in vehicle axes. [mm]
    vehicle : Vehicle
        For wheelbase and tracks. [mm]

    Returns
    -------
    float
        1/2 + y/track at each axle, the axles weighed by the mass's place between them: a stiff
        chassis on axles that do not roll against each other.
    """
    at_rear = x / vehicle.wheelbase
    return 0.5 + y * ((1 - at_rear) / vehicle.track_front + at_rear / vehicle.track_rear)


def shares_of(masses: tuple[Mass, ...], vehicle: Vehicle, on_roof: bool) -> tuple[Share, ...]:
    """Sum masses by owner, fill and mount.

    Parameters
    ----------
    masses : tuple of Mass
        Masses in vehicle axes. [kg, mm]
    vehicle : Vehicle
        Whose axles carry them.
    on_roof : bool
        Whether they count as roof load.

    Returns
    -------
    tuple of Share
        One for each owner, fill and mount that occurs.
    """
    sums: dict[tuple[str, str, str], list[float]] = {}
    variances: dict[tuple[str, str, str], list[float]] = {}
    for m in masses:
        key = (m.owner, m.fill, m.mount)
        right = to_right(m.x, m.y, vehicle)
        front, rear = reactions(1.0, m.x, vehicle.wheelbase)
        parts = (front, rear, 1.0, 1 - right, right, 1.0 if on_roof else 0.0)
        row = sums.setdefault(key, [0.0] * 9)
        spread = variances.setdefault(key, [0.0] * 6)
        for i, part in enumerate(parts):
            row[i] += m.kg * part
            spread[i] += (m.sigma * part) ** 2
        row[6] += m.kg * m.x
        row[7] += m.kg * m.y
        row[8] += m.kg * m.z
    return tuple(Share(*key, tuple(sums[key]), tuple(variances[key])) for key in sums)


def factor(scenario: Scenario, share: Share) -> float:
    """Give what a scenario makes of a share.

    Parameters
    ----------
    scenario : Scenario
        What is aboard and how full.
    share : Share
        An owner's masses of one fill and mount.

    Returns
    -------
    float
        0 where it stays behind, else 1, the fill, or for people and ball their mass. [1 or kg]
    """
    if (share.mount == "canopy" and not scenario.canopy) or share.owner in scenario.left_behind:
        return 0.0
    fill = share.fill
    if fill == "fixed":
        return 1.0
    if fill == "ball":
        return scenario.ball
    if fill.startswith("person "):
        seat = int(fill.split()[1])
        return scenario.people[seat] if seat < len(scenario.people) else 0.0
    return {"fuel": scenario.fuel, "water": scenario.water, "contents": scenario.contents}[fill]


def study(
    assembly: Assembly, previous: tuple[Assembly, LoadResult] | None = None
) -> LoadResult:  # fmt: skip
    """Weigh every scenario.

    Parameters
    ----------
    assembly : Assembly
        The job in vehicle axes.
    previous : (Assembly, LoadResult) or None
        An earlier study; shares of things that did not change are taken from it. Only a memory,
        it never alters the result.

    Returns
    -------
    LoadResult
        Loads with doubt and limit for each scenario. [kg, mm]
    """
    job, vehicle = assembly.job, assembly.job.vehicle
    known: dict[str, object] = {}
    kept: dict[str, tuple[Share, ...]] = {}
    if previous is not None and previous[0].ground is assembly.ground:
        known = {t.id: t for t in previous[0].things}
        kept = previous[1].shares
    shares = {GROUND: kept[GROUND] if kept else shares_of(assembly.ground.masses, vehicle, False)}
    for thing in assembly.things:
        if known.get(thing.id) is thing:
            shares[thing.id] = kept[thing.id]
        else:
            roof = getattr(thing.value, "on_roof", False)
            shares[thing.id] = shares_of(thing.masses, vehicle, roof)
    totals = _totals(job, shares)
    loads = tuple(_weigh(job, s, totals) for s in job.scenarios)
    return LoadResult(loads, vehicle.kerb.front, vehicle.kerb.rear, shares)


GROUND = ""
"""Under this key stand the shares of vehicle and body."""


def _totals(job: Job, shares: dict[str, tuple[Share, ...]]) -> list[Share]:
    """Add up what every scenario scales alike: the shares of one fill and mount.

    What some scenario leaves behind stays by itself.
    """
    apart = {owner for scenario in job.scenarios for owner in scenario.left_behind}
    groups: dict[tuple[str, str, str], list[Share]] = {}
    for rows in shares.values():
        for share in rows:
            owner = share.owner if share.owner in apart else GROUND
            groups.setdefault((owner, share.fill, share.mount), []).append(share)
    return [
        Share(
            *key,
            tuple(map(sum, zip(*(s.sums for s in rows), strict=True))),
            tuple(map(sum, zip(*(s.variances for s in rows), strict=True))),
        )
        for key, rows in groups.items()
    ]


def _weigh(job: Job, scenario: Scenario, totals: list[Share]) -> ScenarioLoads:
    """Scale and add the totals in one scenario."""
    total, spread = [0.0] * 9, [0.0] * 6
    for share in totals:
        f = factor(scenario, share)
        if f:
            total = [t + f * s for t, s in zip(total, share.sums, strict=True)]
            spread = [t + f * f * v for t, v in zip(spread, share.variances, strict=True)]
    front, rear, gross, left, right, roof = total[:6]
    doubts = [math.sqrt(v) for v in spread]
    ratings = job.vehicle.ratings
    combination = None
    if scenario.trailer > 0:
        behind = scenario.trailer - scenario.ball
        combination = Figure(
            gross + behind,
            math.hypot(doubts[2], TRAILER_DOUBT * behind),
            ratings.combination or None,
        )
    x, y, z = (m / gross if gross > 0 else 0.0 for m in total[6:])
    return ScenarioLoads(
        scenario.id,
        scenario.name,
        Figure(front, doubts[0], governing(job.vehicle, "front").kg),
        Figure(rear, doubts[1], governing(job.vehicle, "rear").kg),
        Figure(gross, doubts[2], ratings.gross),
        Figure(left, doubts[3]),
        Figure(right, doubts[4]),
        Figure(ratings.gross - gross, doubts[2], 0.0),
        combination,
        Figure(roof, doubts[5], ratings.roof or None),
        _stance(job, front, rear),
        (x, y, z),
    )


TRAILER_DOUBT = 0.03
"""A trailer's mass counts as known from its data sheet."""


def _stance(job: Job, front: float, rear: float) -> Stance:
    """Settle both axles on their springs: sag = ΔF / (2k) from the kerb masses."""
    vehicle = job.vehicle
    front_sag = (front - vehicle.kerb.front) * G / (2 * vehicle.springs.front)
    rear_sag = (rear - vehicle.kerb.rear) * G / (2 * vehicle.springs.rear)
    return Stance(front_sag, rear_sag, rear_sag - front_sag - vehicle.level_target)
