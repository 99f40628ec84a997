"""Axle and wheel loads, sides, payload and stance, with doubt, for every scenario.

Every figure is linear in three sums over the masses: Σm, Σm·x and Σm·y. Each thing's sums and their
covariance are added up once and kept for as long as the thing does not change; a scenario scales and
adds them, and reads every figure from the three.
"""

import math
from collections.abc import Sequence

import msgspec

from roomy_hull.assembly.assemble import Assembly, Mass
from roomy_hull.core.tyres import load_of_index
from roomy_hull.job.model import Job, Scenario
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.studies.loads.governing import governing
from roomy_hull.studies.loads.springs import Stance, level_rates, roll_front, stance
from roomy_hull.studies.loads.weighing import Evidence, evidence

WHEELS = ("front left", "front right", "rear left", "rear right")


class Figure(msgspec.Struct, frozen=True):
    """A figure with its one-sigma doubt and its limit (none where there is no limit). [kg]"""

    value: float
    doubt: float
    limit: float | None = None


class ScenarioLoads(msgspec.Struct, frozen=True):
    """What one scenario weighs. Masses in kg, the centre of mass in vehicle axes. [mm]

    `wheels` are in the order of `WHEELS`. `trailer` is the trailer's mass, `ball` what of it stands on
    the vehicle. `found` are the sums Σm, Σm·x and Σm·y by which weighings correct what was predicted.
    """

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
    wheels: tuple[Figure, Figure, Figure, Figure]
    ball: Figure | None
    trailer: Figure | None
    found: tuple[float, float, float] = (0.0, 0.0, 0.0)


Triple = tuple[float, float, float]


class Share(msgspec.Struct, frozen=True):
    """What one owner's masses of one fill and mount add up to at full scale.

    `sums` are Σm [kg], Σm·x, Σm·y and Σm·z [kg·mm], and what counts as roof load [kg]. `spread` is the
    covariance of the first three, as 11, 12, 13, 22, 23, 33, and the variance of the last.
    """

    owner: str
    fill: str
    mount: str
    sums: tuple[float, ...]
    spread: tuple[float, ...]


class Readings(msgspec.Struct, frozen=True):
    """How every figure of a vehicle is read from Σm, Σm·x and Σm·y: three factors each. [1, 1/mm]"""

    front: Triple
    rear: Triple
    gross: Triple
    left: Triple
    right: Triple
    wheels: tuple[Triple, Triple, Triple, Triple]

    def of(self, key: str) -> Triple:
        """Give the factors of ``front``, ``rear``, ``gross``, ``left``, ``right`` or a wheel."""
        if key in WHEELS:
            return self.wheels[WHEELS.index(key)]
        found: Triple = getattr(self, key)
        return found


def readings(vehicle: Vehicle) -> Readings:
    """Give how every figure is read from the three sums.

    Parameters
    ----------
    vehicle : Vehicle
        Wheelbase, tracks and roll stiffness.

    Returns
    -------
    Readings
        front = Σm - Σm·x/L, rear = Σm·x/L. What leans to one side, Σm·y, is carried by both axles in
        the proportion of their roll stiffness: a front wheel has half its axle ± φ·Σm·y/T_f, a rear
        wheel ± (1-φ)·Σm·y/T_r, for a chassis that does not twist.
    """
    base, phi = vehicle.wheelbase, roll_front(vehicle)
    ahead, behind = phi / vehicle.track_front, (1 - phi) / vehicle.track_rear
    lean = ahead + behind
    return Readings(
        (1.0, -1 / base, 0.0),
        (0.0, 1 / base, 0.0),
        (1.0, 0.0, 0.0),
        (0.5, 0.0, -lean),
        (0.5, 0.0, lean),
        (
            (0.5, -0.5 / base, -ahead),
            (0.5, -0.5 / base, ahead),
            (0.0, 0.5 / base, -behind),
            (0.0, 0.5 / base, behind),
        ),
    )


def value_of(reading: Triple, sums: Sequence[float]) -> float:
    """Read a figure from the three sums. [kg]"""
    return reading[0] * sums[0] + reading[1] * sums[1] + reading[2] * sums[2]


def variance_of(reading: Sequence[float], spread: Sequence[float]) -> float:
    """Read a figure's variance from the covariance of the three sums; never negative. [kg²]"""
    a, b, c = reading
    s = spread
    found = a * a * s[0] + b * b * s[3] + c * c * s[5]
    return max(0.0, found + 2 * (a * b * s[1] + a * c * s[2] + b * c * s[4]))


class LoadResult(msgspec.Struct, frozen=True):
    """All scenarios, the kerb axle masses they are compared with [kg], and each thing's shares.

    `totals` are the shares added up by what scenarios scale alike.
    """

    scenarios: tuple[ScenarioLoads, ...]
    kerb_front: float
    kerb_rear: float
    shares: dict[str, tuple[Share, ...]]
    totals: tuple[Share, ...]
    readings: Readings
    evidence: Evidence | None = None

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
        r = self.readings
        for group in self.shares.values():
            for share in group:
                f, sums = factor(scenario, share), share.sums
                kg, rear, side = found.get(share.owner, (0.0, 0.0, 0.0))
                found[share.owner] = (
                    kg + f * sums[0],
                    rear + f * value_of(r.rear, sums),
                    side + f * (value_of(r.right, sums) - value_of(r.left, sums)),
                )
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


def shares_of(masses: tuple[Mass, ...], on_roof: bool) -> tuple[Share, ...]:
    """Sum masses by owner, fill and mount.

    Parameters
    ----------
    masses : tuple of Mass
        Masses in vehicle axes. [kg, mm]
    on_roof : bool
        Whether they count as roof load.

    Returns
    -------
    tuple of Share
        One for each owner, fill and mount that occurs.
    """
    sums: dict[tuple[str, str, str], list[float]] = {}
    spreads: dict[tuple[str, str, str], list[float]] = {}
    for m in masses:
        key = (m.owner, m.fill, m.mount)
        row = sums.setdefault(key, [0.0] * 5)
        spread = spreads.setdefault(key, [0.0] * 7)
        kg, x, y = m.kg, m.x, m.y
        row[0] += kg
        row[1] += kg * x
        row[2] += kg * y
        row[3] += kg * m.z
        var = m.sigma * m.sigma
        spread[0] += var
        spread[1] += var * x
        spread[2] += var * y
        spread[3] += var * x * x
        spread[4] += var * x * y
        spread[5] += var * y * y
        if on_roof:
            row[4] += kg
            spread[6] += var
    return tuple(Share(*key, tuple(sums[key]), tuple(spreads[key])) for key in sums)


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
    shares = {GROUND: kept[GROUND] if kept else shares_of(assembly.ground.masses, False)}
    for thing in assembly.things:
        if known.get(thing.id) is thing:
            shares[thing.id] = kept[thing.id]
        else:
            shares[thing.id] = shares_of(thing.masses, getattr(thing.value, "on_roof", False))
    totals, how = _totals(job, shares), readings(vehicle)
    proof = evidence(
        job, [(how.of(k), s, kg, sigma) for k, s, kg, sigma in _read(job)], totals, factor
    )
    loads = tuple(weigh(job, s, totals, how, proof) for s in job.scenarios)
    return LoadResult(
        loads, vehicle.kerb.front, vehicle.kerb.rear, shares, tuple(totals), how, proof
    )


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
            tuple(map(sum, zip(*(s.spread for s in rows), strict=True))),
        )
        for key, rows in groups.items()
    ]


def _read(job: Job) -> list[tuple[str, Scenario, float, float]]:
    """List every reading that counts: its figure, its scenario, what was read and its doubt. [kg]"""
    scenarios = {s.id: s for s in job.scenarios}
    return [
        (key, scenarios[w.scenario], kg, w.scale)
        for w in job.weighings
        if w.counts
        for key, kg in (w.wheels() or w.axles()).items()
    ]


def weigh(
    job: Job, scenario: Scenario, totals: Sequence[Share], how: Readings, proof: Evidence | None = None
) -> ScenarioLoads:  # fmt: skip
    """Weigh one scenario, of the job or a trial one.

    Parameters
    ----------
    job : Job
        For the ratings.
    scenario : Scenario
        What is aboard and how full.
    totals : sequence of Share
        The shares, added up by what scenarios scale alike.
    how : Readings
        How the figures are read.
    proof : Evidence or None
        What scales said; predictions follow it.

    Returns
    -------
    ScenarioLoads
        Every figure with its doubt and limit. [kg, mm]
    """
    total, spread = [0.0] * 5, [0.0] * 7
    for share in totals:
        f = factor(scenario, share)
        if f:
            total = [t + f * s for t, s in zip(total, share.sums, strict=True)]
            spread = [t + f * f * v for t, v in zip(spread, share.spread, strict=True)]
    found = (0.0, 0.0, 0.0)
    if proof is not None:
        found, less = proof.correction([(factor(scenario, s), s.spread) for s in totals])
        total = [t + d for t, d in zip(total, (*found, 0.0, 0.0), strict=True)]
        spread = [v - d for v, d in zip(spread, (*less, 0.0), strict=True)]
    vehicle, ratings = job.vehicle, job.vehicle.ratings
    tyre = tyre_limit(vehicle)

    def figure(reading: Triple, limit: float | None = None) -> Figure:
        return Figure(value_of(reading, total), math.sqrt(variance_of(reading, spread)), limit)

    gross = figure(how.gross, ratings.gross)
    combination = ball = trailer = None
    if scenario.trailer > 0:
        behind = scenario.trailer - scenario.ball
        combination = Figure(
            gross.value + behind,
            math.hypot(gross.doubt, TRAILER_DOUBT * behind),
            ratings.combination or None,
        )
        # As entered: what is planned for, not what is known.
        ball = Figure(scenario.ball, 0.0, ratings.ball or None)
        trailer = Figure(scenario.trailer, 0.0, ratings.towed or None)
    front = figure(how.front, governing(vehicle, "front").kg)
    rear = figure(how.rear, governing(vehicle, "rear").kg)
    x, y, z = (m / gross.value if gross.value > 0 else 0.0 for m in total[1:4])
    fl, fr, rl, rr = (figure(r, tyre) for r in how.wheels)
    stands = stance(vehicle, front.value, rear.value)
    per_front, per_rear = level_rates(vehicle, stands.pressure)
    sinks = tuple(per_front * f + per_rear * r for f, r in zip(how.front, how.rear, strict=True))
    stands = msgspec.structs.replace(stands, doubt=math.sqrt(variance_of(sinks, spread)))
    return ScenarioLoads(
        scenario.id,
        scenario.name,
        front,
        rear,
        gross,
        figure(how.left),
        figure(how.right),
        Figure(ratings.gross - gross.value, gross.doubt, 0.0),
        combination,
        Figure(total[4], math.sqrt(max(0.0, spread[6])), ratings.roof or None),
        stands,
        (x, y, z),
        (fl, fr, rl, rr),
        ball,
        trailer,
        found,
    )


def tyre_limit(vehicle: Vehicle) -> float | None:
    """Give what one wheel may carry: the lower of its tyre's load index and its own rating. [kg]"""
    given = [vehicle.ratings.wheel] if vehicle.ratings.wheel else []
    if vehicle.tyre_load_index:
        given.append(load_of_index(vehicle.tyre_load_index))
    return min(given, default=None)


TRAILER_DOUBT = 0.03
"""A trailer's mass counts as known from its data sheet."""
