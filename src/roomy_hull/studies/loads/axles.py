"""Axle and wheel loads, sides, payload and stance, with doubt, for every scenario.

Every figure is linear in three sums over the masses: Σm, Σm·x and Σm·y. Each thing's sums and their
covariance are added up once and kept for as long as the thing does not change; a scenario scales and
adds them, and reads every figure from the three.
"""

import math
from collections.abc import Sequence

import msgspec

from roomy_hull.assembly.scaling import scale
from roomy_hull.assembly.springs import Stance, level_rates, stance
from roomy_hull.assembly.study import Context, StudyKey
from roomy_hull.assembly.things import Mass, MassMount
from roomy_hull.core.fill import Fill
from roomy_hull.core.refs import Ref
from roomy_hull.core.tyres import load_of_index
from roomy_hull.job.model import Job, Scenario
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.studies.loads.governing import governing
from roomy_hull.studies.loads.readings import Readings, Triple, readings, value_of, variance_of
from roomy_hull.studies.loads.weighing import Evidence, evidence

KEY = StudyKey["LoadResult"]("loads")


class Figure(msgspec.Struct, frozen=True):
    """A figure with its one-sigma doubt and its limit (none where there is no limit). [kg]"""

    value: float
    uncertainty: float
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


class Share(msgspec.Struct, frozen=True):
    """What one owner's masses of one fill and mount add up to at full scale; no owner where several are added.

    `sums` are Σm [kg], Σm·x, Σm·y and Σm·z [kg·mm], and what counts as roof load [kg]. `spread` is the
    covariance of the first three, as 11, 12, 13, 22, 23, 33, and the variance of the last.
    """

    owner: Ref | None
    fill: Fill
    mount: MassMount
    sums: tuple[float, ...]
    spread: tuple[float, ...]


class LoadResult(msgspec.Struct, frozen=True):
    """All scenarios, the kerb axle masses they are compared with [kg], and each thing's shares.

    `totals` are the shares added up by what scenarios scale alike. `scenarios_read` are those in which
    each reading of the evidence was taken.
    """

    scenarios: tuple[ScenarioLoads, ...]
    kerb_front: float
    kerb_rear: float
    shares: dict[Ref | None, tuple[Share, ...]]
    totals: tuple[Share, ...]
    readings: Readings
    evidence: Evidence | None = None
    scenarios_read: tuple[Scenario, ...] = ()

    def moved_by(self, mass: Mass) -> float:
        """Compute by how much weighings correct one mass: by its part of the doubt. [kg]

        Args:
            mass: At full scale, in vehicle axes. [kg, mm]
        Returns:
            σ²·Σ f·(a + b·x + c·y)·w over all readings; summed over the masses aboard it is what the scenario's
            figures moved by. 0 without a weighing. [kg]
        """
        if self.evidence is None:
            return 0.0
        pull = 0.0
        for one, reading, weight in zip(
            self.scenarios_read, self.evidence.readings, self.evidence.weights, strict=True
        ):
            a, b, c = reading
            pull += (
                scale(one, mass.owner, mass.fill, mass.mount)
                * (a + b * mass.x + c * mass.y)
                * weight
            )
        return mass.sigma * mass.sigma * pull

    def sums_of(self, share: Share) -> tuple[float, ...]:
        """Add to a share's sums what weighings found of it: Σm, Σm·x, Σm·y. [kg, kg·mm]"""
        if self.evidence is None:
            return share.sums
        s = share.spread
        moved = [0.0, 0.0, 0.0]
        for one, reading, weight in zip(
            self.scenarios_read, self.evidence.readings, self.evidence.weights, strict=True
        ):
            f = factor(one, share) * weight
            a, b, c = reading
            moved[0] += f * (s[0] * a + s[1] * b + s[2] * c)
            moved[1] += f * (s[1] * a + s[3] * b + s[4] * c)
            moved[2] += f * (s[2] * a + s[4] * b + s[5] * c)
        return (*(v + d for v, d in zip(share.sums, moved, strict=False)), *share.sums[3:])

    def scenario(self, key: str) -> ScenarioLoads:
        """Find a scenario by id; the first one where there is none such."""
        return next((s for s in self.scenarios if s.id == key), self.scenarios[0])

    def owners(self, scenario: Scenario) -> dict[Ref, tuple[float, float, float]]:
        """What each owner weighs in a scenario.

        Returns: Mass, rear-axle load, and right less left. [kg]
        """
        found: dict[Ref, tuple[float, float, float]] = {}
        r = self.readings
        for group in self.shares.values():
            for share in group:
                f, sums = factor(scenario, share), self.sums_of(share)
                if share.owner is None:
                    continue
                kg, rear, side = found.get(share.owner, (0.0, 0.0, 0.0))
                found[share.owner] = (
                    kg + f * sums[0],
                    rear + f * value_of(r.rear, sums),
                    side + f * (value_of(r.right, sums) - value_of(r.left, sums)),
                )
        return found


def shares_of(masses: tuple[Mass, ...], on_roof: bool) -> tuple[Share, ...]:
    """Sum masses by owner, fill and mount.

    Args:
        masses: Masses in vehicle axes. [kg, mm]
        on_roof: Whether they count as roof load.
    Returns: One for each owner, fill and mount that occurs.
    """
    sums: dict[tuple[Ref, Fill, MassMount], list[float]] = {}
    spreads: dict[tuple[Ref, Fill, MassMount], list[float]] = {}
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
    """Compute what a scenario makes of a share. [1 or kg]"""
    return scale(scenario, share.owner, share.fill, share.mount)


def study(context: Context) -> LoadResult:
    """Weigh every scenario.

    Args:
        context: The job in vehicle axes; shares of things that did not change are taken from before.
    Returns: Loads with doubt and limit for each scenario. [kg, mm]
    """
    assembly, before = context.assembly, context.before
    job, vehicle = assembly.job, assembly.job.vehicle
    old: LoadResult | None = context.old(KEY)
    known: dict[Ref, object] = {}
    kept: dict[Ref | None, tuple[Share, ...]] = {}
    same_ground = False
    if before is not None and old is not None:
        known = {t.ref: t for t in before.assembly.things}
        kept = old.shares
        same_ground = (
            before.assembly.ground is assembly.ground
            and before.assembly.job.goods is assembly.job.goods
        )
    shares: dict[Ref | None, tuple[Share, ...]] = {
        None: kept[None]
        if same_ground
        else shares_of((*assembly.ground.masses, *assembly.in_cab()), False)
    }
    for thing in assembly.things:
        if known.get(thing.ref) is thing:
            shares[thing.ref] = kept[thing.ref]
        else:
            shares[thing.ref] = shares_of(thing.masses, thing.on_roof)
    totals, how = _totals(job, shares), readings(vehicle)
    proof = evidence(
        job, [(how.of(k), s, kg, sigma) for k, s, kg, sigma in _read(job)], totals, factor
    )
    loads = tuple(weigh(job, s, totals, how, proof) for s in job.scenarios)
    return LoadResult(
        loads, vehicle.kerb.front, vehicle.kerb.rear, shares, tuple(totals), how, proof,
        tuple(s for _k, s, _kg, _sigma in _read(job)),
    )  # fmt: skip


def _totals(job: Job, shares: dict[Ref | None, tuple[Share, ...]]) -> list[Share]:
    """Add up what every scenario scales alike: the shares of one fill and mount.

    What some scenario leaves behind stays by itself.
    """
    apart = {owner for scenario in job.scenarios for owner in scenario.left_behind}
    groups: dict[tuple[Ref | None, Fill, MassMount], list[Share]] = {}
    for rows in shares.values():
        for share in rows:
            one = share.owner
            owner = one if one is not None and one.comes_off and one.id in apart else None
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


def weigh(  # ruff: ignore[too-many-locals]  # every figure of a scenario, read from the same sums
    job: Job, scenario: Scenario, totals: Sequence[Share], how: Readings, proof: Evidence | None = None
) -> ScenarioLoads:  # fmt: skip
    """Weigh one scenario, of the job or a trial one.

    Args:
        totals: The shares, added up by what scenarios scale alike.
        proof: What scales said; predictions follow it.
    Returns: Every figure with its doubt and limit. [kg, mm]
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
            math.hypot(gross.uncertainty, TRAILER_UNCERTAINTY * behind),
            ratings.combination or None,
        )
        # As entered: what is planned for, not what is known.
        ball = Figure(scenario.ball, 0.0, ratings.ball or None)
        trailer = Figure(scenario.trailer, 0.0, ratings.towed or None)
    front = figure(how.front, governing(vehicle, "front").kg)
    rear = figure(how.rear, governing(vehicle, "rear").kg)
    x, y, z = (m / gross.value if gross.value > 0 else 0.0 for m in total[1:4])
    fl, fr, rl, rr = (figure(r, tyre) for r in how.wheels)
    poses = stance(vehicle, front.value, rear.value)
    per_front, per_rear = level_rates(vehicle, poses.pressure)
    sinks = tuple(per_front * f + per_rear * r for f, r in zip(how.front, how.rear, strict=True))
    poses = msgspec.structs.replace(poses, uncertainty=math.sqrt(variance_of(sinks, spread)))
    return ScenarioLoads(
        scenario.id,
        scenario.name,
        front,
        rear,
        gross,
        figure(how.left),
        figure(how.right),
        Figure(ratings.gross - gross.value, gross.uncertainty, 0.0),
        combination,
        Figure(total[4], math.sqrt(max(0.0, spread[6])), ratings.roof or None),
        poses,
        (x, y, z),
        (fl, fr, rl, rr),
        ball,
        trailer,
        found,
    )


def tyre_limit(vehicle: Vehicle) -> float | None:
    """What one wheel may carry: the lower of its tyre's load index and its own rating. [kg]"""
    given = [vehicle.ratings.wheel] if vehicle.ratings.wheel else []
    if vehicle.tyre_load_index:
        given.append(load_of_index(vehicle.tyre_load_index))
    return min(given, default=None)


TRAILER_UNCERTAINTY = 0.03
"""A trailer's mass counts as known from its data sheet."""
