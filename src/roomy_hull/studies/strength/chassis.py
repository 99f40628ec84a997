"""The chassis as a beam on its springs: shear and bending in every scenario, against an even load.

The bare vehicle is spread so that it weighs what its axles were weighed at. Everything else stands
where it stands, spread over its own length. The springs push up: at the axle for coils, at both ends
of a leaf spring, at one point for an air spring.
"""

from typing import Any

import msgspec

from roomy_hull.assembly import springs
from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.body import Ground
from roomy_hull.assembly.scaling import Weighed, scale
from roomy_hull.assembly.things import Mass
from roomy_hull.core import lazily
from roomy_hull.core.fill import Fill
from roomy_hull.core.mechanics.beams import left_of
from roomy_hull.core.refs import CANOPY, TRAY, VEHICLE, Ref
from roomy_hull.core.units import G
from roomy_hull.job.carried import Mount
from roomy_hull.job.model import Scenario
from roomy_hull.studies.strength.supports import Push, kerb_spread, points, pushes

np = lazily.module("numpy")


class Diagram(msgspec.Struct, frozen=True):
    """One scenario's diagram, the dynamic factor in it.

    Attributes
    ----------
    scenario, name : str
        Its id and name.
    shear : tuple of float
        Just right of each point. [N]
    moment : tuple of float
        Positive where the chassis sags, negative where it hogs. [N·m]
    peak, peak_x : float
        The greatest moment behind the cab, with its sign, and where. [N·m, mm]
    ratio : float
        Its size over that of the rated payload spread evenly over the tray.
    axle : float
        The moment over the rear axle, where it matters how the springs bear. [N·m]
    pushes : tuple of Push
        What the springs push up with.
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


class Block(msgspec.Struct, frozen=True):
    """What masses that scale alike do to the left of every point, at full scale.

    `left` holds force [kg] and moment [kg·mm] in two rows; `sums` are Σm [kg] and Σm·x [kg·mm].
    """

    fill: Fill
    mount: Mount
    left: Any
    sums: tuple[float, float]


class Blocks(msgspec.Struct, frozen=True):
    """The blocks of one judgement by owner, put aside for the next: they hold for `ground` and `xs`.

    `of` is what each owner's blocks were made of.
    """

    ground: Ground
    xs: Any
    by_owner: dict[Ref, tuple[Block, ...]]
    of: dict[Ref, object]


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


def blocks_of(xs: Any, rows: dict[Ref, list[Row]]) -> dict[Ref, tuple[Block, ...]]:
    """Add up masses with their lengths by owner, by what scales them and what they come off with.

    Parameters
    ----------
    xs : array
        The points. [mm]
    rows : dict of Ref to list of (Mass, start, end)
        By owner. [kg, mm]

    Returns
    -------
    dict of Ref to tuple of Block
        By owner; all computed in one pass.
    """
    groups: dict[tuple[Ref, Fill, Mount], list[tuple[float, float, float, float]]] = {}
    for owner, listed in rows.items():
        for m, start, end in listed:
            groups.setdefault((owner, m.fill, m.mount), []).append((m.kg, start, end, m.x))
    found: dict[Ref, tuple[Block, ...]] = dict.fromkeys(rows, ())
    if not groups:
        return found
    table = np.array([row for listed in groups.values() for row in listed])
    starts = np.cumsum([0, *(len(listed) for listed in groups.values())])[:-1]
    force, moment = left_of(xs, table[:, 0], table[:, 1], table[:, 2])
    left = np.stack([np.add.reduceat(force, starts), np.add.reduceat(moment, starts)], axis=1)
    kg = np.add.reduceat(table[:, 0], starts).tolist()
    kgx = np.add.reduceat(table[:, 0] * table[:, 3], starts).tolist()
    for n, (owner, fill, mount) in enumerate(groups):
        found[owner] += (Block(fill, mount, left[n], (kg[n], kgx[n])),)
    return found


def _ground_rows(assembly: Assembly, loads: Weighed) -> dict[Ref, list[Row]]:
    """List the masses of vehicle and body, but for the bare vehicle's, by owner with their lengths."""
    floor, canopy = assembly.ground.floor, assembly.ground.canopy
    spans = {
        TRAY: (floor.x0, floor.x1),
        CANOPY: (canopy.x0, canopy.x1) if canopy else (floor.x0, floor.x1),
    }
    found: dict[Ref, list[Row]] = {}
    for one in assembly.ground.masses:
        if one.bare:
            continue
        m = _weighed(one, loads)
        if m.owner == VEHICLE:
            half = 200.0 if m.fill.by == "person" else 300.0
            row = (m, m.x - half, m.x + half)
        elif m.owner in spans and m.fill.by == "fixed":
            row = (m, *extent(m, spans[m.owner]))
        else:
            row = (m, m.x, m.x)
        found.setdefault(m.owner, []).append(row)
    return found


def _weighed(mass: Mass, loads: Weighed) -> Mass:
    """A mass as scales say it is."""
    moved = loads.moved_by(mass)
    return msgspec.structs.replace(mass, kg=mass.kg + moved) if moved else mass


def _blocks(assembly: Assembly, loads: Weighed, xs: Any, known: Blocks | None) -> Blocks:
    """Compute every owner's blocks; those of things that did not change are taken from before."""
    ground = assembly.ground
    rows: dict[Ref, list[Row]] = {} if known is not None else _ground_rows(assembly, loads)
    of: dict[Ref, object] = dict.fromkeys(rows, ground)
    found: dict[Ref, tuple[Block, ...]] = {}
    if known is not None:
        body = [ref for ref, made in known.of.items() if made is ground]
        found = {ref: known.by_owner[ref] for ref in body}
        of = dict.fromkeys(body, ground)
    for thing in assembly.things:
        if known is not None and known.of.get(thing.ref) is thing:
            found[thing.ref] = known.by_owner[thing.ref]
        else:
            span = (thing.envelope.x0, thing.envelope.x1)
            rows[thing.ref] = [
                (m, *extent(m, span)) for m in (_weighed(m, loads) for m in thing.masses)
            ]
        of[thing.ref] = thing
    found |= blocks_of(xs, rows)
    # Always in one order, so that a memory does not alter even the last digit of a sum.
    order = sorted((r for r in found if not r.is_thing), key=lambda r: r.word)
    order += [t.ref for t in assembly.things]
    return Blocks(ground, xs, {ref: found[ref] for ref in order}, of)


def study(  # ruff: ignore[too-many-locals]  # shear and bending in the letters of their formulas
    assembly: Assembly, loads: Weighed, before: Blocks | None = None,
    scenarios: tuple[Scenario, ...] | None = None, leave_out: frozenset[Ref] = frozenset(),
) -> tuple[ChassisResult, Blocks]:  # fmt: skip
    """Compute shear and bending of the chassis.

    Parameters
    ----------
    assembly : Assembly
        The job in vehicle axes. [kg, mm]
    loads : Weighed
        What scales say of single masses.
    before : Blocks or None
        Those of an earlier study of the same job; only a memory, they never alter the result.
    scenarios : tuple of Scenario or None
        Others than the job's.
    leave_out : frozenset of Ref
        Owners that are thought away.

    Returns
    -------
    (ChassisResult, Blocks)
        Diagrams with the dynamic factor in them [N, N·m]; their peaks behind the cab against that of
        the rated payload spread evenly over the tray.

    Notes
    -----
    Statics of a straight beam; AISC table 3-23 holds its special cases. The rails' own strength is not
    judged: the ratio says how the build compares with what the maker rated it for.
    """
    job, vehicle = assembly.job, assembly.job.vehicle
    chosen = job.scenarios if scenarios is None else scenarios
    floor = assembly.ground.floor
    kept = before if before is not None and before.ground is assembly.ground else None
    xs = kept.xs if kept is not None else points(vehicle, (floor.x0, floor.x1))
    new = _blocks(assembly, loads, xs, kept)
    down, sums = _scaled(new, chosen, leave_out, len(xs))
    front_axle, rear_axle = (m.kg + loads.moved_by(m) for m in assembly.ground.masses if m.bare)
    bare = (front_axle, rear_axle)
    kerb = np.array(kerb_spread(vehicle, *bare))
    payload = max(0.0, vehicle.ratings.gross - sum(bare))
    left_v, left_m = left_of(xs, kerb[:, 0], kerb[:, 1], kerb[:, 2])
    even_v, even_m = left_of(xs, *(np.array([v]) for v in (payload, floor.x0, floor.x1)))
    # The last row is the baseline: the bare vehicle and the rated payload spread evenly.
    own = np.vstack([left_v.sum(axis=0), left_m.sum(axis=0)])
    down = np.concatenate([down, np.vstack([even_v, even_m])[None]]) + own[None]
    sums = np.vstack([sums, (payload, payload * (floor.x0 + floor.x1) / 2)])
    kg = sums[:, 0] + kerb[:, 0].sum()
    kgx = sums[:, 1] + (kerb[:, 0] * (kerb[:, 1] + kerb[:, 2]) / 2).sum()
    factor = assembly.shop.rules.vertical_dynamic
    start, end = vehicle.cab_back, max(vehicle.chassis_end, vehicle.cab_back + 100)
    judged = (xs >= start) & (xs <= end)
    over = int(np.searchsorted(xs, vehicle.wheelbase))
    made: list[tuple[Any, Any, float, float, float, tuple[Push, ...]]] = []
    for n in range(len(chosen) + 1):
        rear = float(kgx[n]) / vehicle.wheelbase
        front = float(kg[n]) - rear
        pressure = 0.0
        if n < len(chosen) and vehicle.springs.school == "air":
            unsprung = vehicle.springs
            whole = (front + unsprung.unsprung_front, rear + unsprung.unsprung_rear)
            pressure = springs.stance(vehicle, *whole).pressure
        up = pushes(vehicle, front * G, rear * G, pressure)
        v, m = -down[n, 0] * G, -down[n, 1] * G
        for push in up:
            v += push.newton * (xs >= push.x)
            m += push.newton * np.maximum(xs - push.x, 0.0)
        v, m = v * factor, m * factor * 1e-3
        at = int(np.argmax(np.where(judged, np.abs(m), -1.0)))
        made.append((v, m, float(m[at]), float(xs[at]), float(m[over]), up))
    even = made.pop()
    size = max(abs(even[2]), 1e-9)

    def diagram(
        key: str, name: str, row: tuple[Any, Any, float, float, float, tuple[Push, ...]]
    ) -> Diagram:
        v, m, peak, x, axle, up = row
        return Diagram(
            key, name, tuple(v.tolist()), tuple(m.tolist()), peak, x, abs(peak) / size, axle, up
        )

    base = diagram("", "Rated payload, spread evenly", even)
    diagrams = tuple(diagram(s.id, s.name, row) for s, row in zip(chosen, made, strict=True))
    return ChassisResult(tuple(xs.tolist()), diagrams, base, payload, factor, start, end), new


def _scaled(
    blocks: Blocks, chosen: tuple[Scenario, ...], leave_out: frozenset[Ref], points_count: int
) -> tuple[Any, Any]:
    """Add the blocks up in each scenario: what is left of every point, and both sums."""
    apart = {owner for s in chosen for owner in s.left_behind}
    groups: dict[tuple[Ref | None, Fill, Mount], list[Block]] = {}
    for owner, listed in blocks.by_owner.items():
        if owner in leave_out:
            continue
        one = owner if owner.is_thing and owner.id in apart else None
        for block in listed:
            groups.setdefault((one, block.fill, block.mount), []).append(block)
    down, sums = np.zeros((len(chosen), 2, points_count)), np.zeros((len(chosen), 2))
    if not groups:
        return down, sums
    factors = np.array([[scale(s, *key) for key in groups] for s in chosen])
    whole = np.array([sum(b.left for b in listed) for listed in groups.values()])
    totals = np.array([
        [sum(b.sums[i] for b in listed) for i in (0, 1)] for listed in groups.values()
    ])
    return np.einsum("sg,grp->srp", factors, whole), factors @ totals
