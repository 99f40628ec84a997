"""The chassis as a beam on its springs: shear and bending in every scenario, against an even load.

The bare vehicle is spread so that it weighs what its axles were weighed at. Everything else stands
where it stands, spread over its own length. The springs push up: at the axle for coils, at both ends
of a leaf spring, at one point for an air spring.
"""

import bisect
from collections.abc import Sequence
from typing import NamedTuple

import msgspec

from roomy_hull.assembly import springs
from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.scaling import Weighed, scale
from roomy_hull.assembly.things import Mass, MassMount
from roomy_hull.core.fill import Fill
from roomy_hull.core.mechanics.beams import Change, Load, carried, changes
from roomy_hull.core.refs import CANOPY, TRAY, VEHICLE, Ref
from roomy_hull.core.units import G
from roomy_hull.job.model import Scenario
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.studies.strength.supports import Push, kerb_spread, points, pushes

PERSON = 75.0
"""A usual person of the baseline (common practice). [kg]"""


class Diagram(msgspec.Struct, frozen=True):
    """One scenario's diagram, the dynamic factor in it.

    Attributes:
        scenario, name: Its id and name.
        shear: Just right of each point. [N]
        moment: Positive where the chassis sags, negative where it hogs. [N·m]
        peak, peak_x: The greatest moment behind the cab, with its sign, and where. [N·m, mm]
        ratio: Its size over that of the rated payload spread evenly over the tray.
        axle: The moment over the rear axle, where it matters how the springs bear. [N·m]
        pushes: What the springs push up with.
    """

    scenario: str
    name: str
    shear: tuple[float, ...]
    moment: tuple[float, ...]
    peak: float
    peak_x: float
    ratio: float
    axle: float
    pushes: tuple[Push, ...]


class ChassisResult(msgspec.Struct, frozen=True):
    """All scenarios over the same points [mm], and the evenly spread rated payload to compare with.

    `payload` is that payload [kg], `factor` the vertical dynamic factor, `start` and `end` the part of
    the chassis that is judged: from the cab's back to its end.
    """

    xs: tuple[float, ...]
    diagrams: tuple[Diagram, ...]
    baseline: Diagram
    payload: float
    factor: float
    start: float
    end: float

    def diagram(self, scenario: str) -> Diagram:
        """Find a scenario's diagram; the first one where there is none such."""
        return next((d for d in self.diagrams if d.scenario == scenario), self.diagrams[0])

    def worst(self) -> Diagram:
        """The diagram with the greatest ratio."""
        return max(self.diagrams, key=lambda d: d.ratio)


def extent(mass: Mass, span: tuple[float, float]) -> tuple[float, float]:
    """Spread a mass evenly about its own middle, as far as its thing reaches on the nearer side. [mm]"""
    half = max(0.0, min(mass.x - span[0], span[1] - mass.x))
    return mass.x - half, mass.x + half


Row = tuple[Mass, float, float]


def _ground_rows(assembly: Assembly, loads: Weighed) -> list[Row]:
    """List the masses of vehicle and body, but for the bare vehicle's, with their lengths."""
    floor, canopy = assembly.ground.floor, assembly.ground.canopy
    spans = {
        TRAY: (floor.x0, floor.x1),
        CANOPY: (canopy.x0, canopy.x1) if canopy else (floor.x0, floor.x1),
    }
    found: list[Row] = []
    for one in (*assembly.ground.masses, *assembly.in_cab()):
        if one.bare:
            continue
        m = _weighed(one, loads)
        if m.owner == VEHICLE:
            half = 200.0 if m.fill.by == "person" else 300.0
            found.append((m, m.x - half, m.x + half))
        elif m.owner in spans and m.fill.by == "fixed":
            found.append((m, *extent(m, spans[m.owner])))
        else:
            found.append((m, m.x, m.x))
    return found


def _weighed(mass: Mass, loads: Weighed) -> Mass:
    """A mass as scales say it is."""
    moved = loads.moved_by(mass)
    return msgspec.structs.replace(mass, kg=mass.kg + moved) if moved else mass


def _rows(assembly: Assembly, loads: Weighed) -> list[Row]:
    """List all masses but the bare vehicle's with their lengths."""
    rows = _ground_rows(assembly, loads)
    for thing in assembly.things:
        span = (thing.envelope.x0, thing.envelope.x1)
        for m in thing.masses:
            weighed = _weighed(m, loads)
            rows.append((weighed, *extent(weighed, span)))
    return rows


def study(
    assembly: Assembly, loads: Weighed, scenarios: tuple[Scenario, ...] | None = None,
    leave_out: frozenset[Ref] = frozenset(),
) -> ChassisResult:  # fmt: skip
    """Compute shear and bending of the chassis.

    Args:
        assembly: The job in vehicle axes. [kg, mm]
    Returns:
        Diagrams with the dynamic factor in them [N, N·m]; their peaks behind the cab against that of the rated
        payload: a person on every seat, the rest spread evenly over the tray.
    Statics of a straight beam; AISC table 3-23 holds its special cases. The rails' own strength is not
    judged: the ratio says how the build compares with what the maker rated it for.
    """
    job, vehicle = assembly.job, assembly.job.vehicle
    chosen = job.scenarios if scenarios is None else scenarios
    floor = assembly.ground.floor
    xs = points(vehicle, (floor.x0, floor.x1))
    front_axle, rear_axle = (m.kg + loads.moved_by(m) for m in assembly.ground.masses if m.bare)
    kerb = kerb_spread(vehicle, front_axle, rear_axle)
    payload = max(0.0, vehicle.ratings.gross - (front_axle + rear_axle))
    # The baseline: the bare vehicle under its rated payload.
    rows = [
        *_in_scenarios(_rows(assembly, loads), chosen, leave_out, kerb),
        _alone((*kerb, *_rated(vehicle, payload, (floor.x0, floor.x1)))),
    ]
    factor = assembly.shop.rules.vertical_dynamic
    start, end = vehicle.cab_back, max(vehicle.chassis_end, vehicle.cab_back + 100)
    made = [_bent(vehicle, xs, row, factor, air=row is not rows[-1]) for row in rows]
    judged = [n for n, x in enumerate(xs) if start <= x <= end]
    over = bisect.bisect_left(xs, vehicle.wheelbase)
    peaks = [max(judged, key=lambda n, m=m: abs(m[n])) for _v, m, _up in made]  # type: ignore[misc]
    size = max(abs(made[-1][1][peaks[-1]]), 1e-9)

    def diagram(key: str, name: str, n: int) -> Diagram:
        v, m, up = made[n]
        at = peaks[n]
        return Diagram(key, name, v, m, m[at], xs[at], abs(m[at]) / size, m[over], up)

    diagrams = tuple(diagram(s.id, s.name, n) for n, s in enumerate(chosen))
    base = diagram("", "Rated payload, spread evenly", -1)
    return ChassisResult(xs, diagrams, base, payload, factor, start, end)


def _rated(vehicle: Vehicle, payload: float, floor: tuple[float, float]) -> list[Load]:
    """The rated payload as its maker means it: people on the seats, the rest spread evenly over the floor. [kg, mm]"""
    people = [(PERSON, seat.x, seat.x) for seat in vehicle.seats]
    return [*people, (max(0.0, payload - PERSON * len(people)), *floor)]


class Laden(NamedTuple):
    """The sprung masses of a scenario: where they begin and end, what each group is taken times, their sums."""

    changes: list[Change]
    factors: list[float]
    kg: float
    kgx: float


def _sums(loads: Sequence[Load]) -> tuple[float, float]:
    """What loads come to: kg, and kg times their middles. [kg, kg·mm]"""
    kgx = sum(kg * (start + end) / 2 for kg, start, end in loads)
    return sum(kg for kg, _start, _end in loads), kgx


def _alone(loads: Sequence[Load]) -> Laden:
    """Loads that nothing scales. [kg, mm]"""
    return Laden(sorted(changes(loads)), [1.0], *_sums(loads))


def _in_scenarios(
    rows: list[Row], chosen: tuple[Scenario, ...], leave_out: frozenset[Ref],
    kerb: tuple[Load, ...],
) -> list[Laden]:  # fmt: skip
    """The masses of every scenario; those that all of them scale alike are one group."""
    apart = {owner for s in chosen for owner in s.left_behind}
    groups: dict[tuple[Ref | None, Fill, MassMount], dict[tuple[float, float], float]] = {}
    for m, start, end in rows:
        if m.owner not in leave_out:
            one = m.owner if m.owner.comes_off and m.owner.id in apart else None
            # What stands over the same stretch is one load: a unit's sheet, slides and fittings.
            over = groups.setdefault((one, m.fill, m.mount), {})
            over[start, end] = over.get((start, end), 0.0) + m.kg
    listed = [*([(kg, *at) for at, kg in over.items()] for over in groups.values()), kerb]
    sums = [_sums(some) for some in listed]
    every = sorted(change for n, some in enumerate(listed) for change in changes(some, n))
    found = []
    for scenario in chosen:
        factors = [*(scale(scenario, *key) for key in groups), 1.0]
        kg, kgx = (sum(f * s[n] for f, s in zip(factors, sums, strict=True)) for n in (0, 1))
        found.append(Laden(every, factors, kg, kgx))
    return found


def _bent(
    vehicle: Vehicle, xs: Sequence[float], row: Laden, factor: float, *, air: bool
) -> tuple[tuple[float, ...], tuple[float, ...], tuple[Push, ...]]:
    """Shear [N] and moment [N·m] at every point under sprung masses, and what the springs push with."""
    rear = row.kgx / vehicle.wheelbase
    front = row.kg - rear
    pressure = 0.0
    if air and vehicle.springs.school == "air":
        unsprung = vehicle.springs
        axles = (front + unsprung.unsprung_front, rear + unsprung.unsprung_rear)
        pressure = springs.stance(vehicle, *axles).pressure
    up = pushes(vehicle, front * G, rear * G, pressure)
    # What pushes up is a group of its own, taken times minus one.
    springs_group = len(row.factors)
    held = changes(((push.newton / G, push.x, push.x) for push in up), springs_group)
    force, moment = carried(xs, sorted([*row.changes, *held]), [*row.factors, -1.0])
    shear = tuple([-v * G * factor for v in force])
    return shear, tuple([-m * G * factor * 1e-3 for m in moment]), up
