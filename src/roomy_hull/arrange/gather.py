"""Gather: from a job and what is wanted of it to an instance, all figures from the studies that judge them."""

import math
from collections.abc import Iterable, Sequence
from typing import NamedTuple

import msgspec
import numpy as np

from roomy_hull.arrange.clear import above, below, ends, sides
from roomy_hull.arrange.instance import (
    Apart,
    BayRoom,
    Instance,
    Item,
    Run,
    Tie,
)
from roomy_hull.arrange.places import MOST_CELLS
from roomy_hull.arrange.refusing import to_place
from roomy_hull.arrange.riding import with_riders
from roomy_hull.arrange.spots import open_heights, spot_of
from roomy_hull.arrange.weighing import weights_of
from roomy_hull.arrange.wishes import runs_of, sparks_apart
from roomy_hull.assembly.assemble import Assembly, assemble, by_place, trial_thing
from roomy_hull.assembly.scaling import scale
from roomy_hull.assembly.things import Thing
from roomy_hull.core.ergonomics.figure import Figure
from roomy_hull.job.arranging import Arranging
from roomy_hull.job.edits.setups import absent, bays_off
from roomy_hull.job.goods import people
from roomy_hull.job.model import Job, Scenario
from roomy_hull.kinds.registry import Unit, kind_of
from roomy_hull.kit.body.canopy import BayPlace
from roomy_hull.studies.fit.free_space import FreeSpace, free_space
from roomy_hull.studies.loads import ranking
from roomy_hull.studies.loads.readings import value_of
from roomy_hull.verdict.improve import short_of
from roomy_hull.verdict.verdict import Verdict

USE: dict[str, float] = {"now": 3.0, "each stop": 2.0, "each camp": 1.0, "rarely": 0.15}
"""How much 100 mm out of reach count by how quickly a thing has to be at hand. [points]"""
RUNNING = 5.0
"""What has to stay clear beside a unit and is no more than this is shared by two neighbours. [mm]"""
HIGHEST = 4000.0
"""Higher than this nothing is placed. [mm]"""
NEAR = 6.0
"""What a metre between two that belong near each other counts. [points]"""


class Gathered(msgspec.Struct, frozen=True, eq=False):
    """An instance, and the units and the scenario behind it.

    Attributes:
        instance: What the search is given.
        units: In the instance's order.
        base: The job with only what stays.
        measure, scenario: Which axle should have less, in which scenario.
    """

    instance: Instance
    units: tuple[Unit, ...]
    base: Job
    measure: str
    scenario: str


def gather(verdict: Verdict, wish: Arranging, pitch: float = 50.0) -> Gathered:
    """Put a job's wishes in figures.

    Args:
        pitch: About how wide a cell should be; it becomes a multiple of the rails' pitch. [mm]
    Raises:
        InputError: There is nothing to arrange, no bay, too many units, a wish that names nobody, or one that
            contradicts another.
    """
    job = verdict.assembly.job
    units = to_place(job, wish)
    base = msgspec.structs.replace(job, units=tuple(u for u in job.units if u.id in wish.pinned))
    short = short_of(verdict)
    measure = wish.axle or short.measure
    scenario = next((s for s in job.scenarios if s.id == short.scenario), job.scenarios[0])
    bays = tuple(verdict.assembly.ground.bays.values())
    about = _About(
        verdict,
        wish,
        assemble(base, verdict.assembly),
        scenario,
        {p.bay.id: _never_with(base, p.bay.id) for p in bays},
    )
    cell, step = cells_for(bays, pitch)
    trials = [_trials(u, about, bays) for u in units]
    things = [t[0] for rows in trials for t in rows if t is not None]
    shared = max((s for t in things if (s := max(sides(t, ("running",)))) <= RUNNING), default=0.0)
    sizes = _Sizes(
        cell,
        step,
        shared,
        max((below(t, ("running",)) for t in things), default=0.0),
        _band(verdict),
    )
    at = {u.id: n for n, u in enumerate(units)}
    x0, x1 = _ends(bays)
    readings = verdict.loads.readings
    instance = Instance(
        cell, tuple(_item(u, rows, about, sizes) for u, rows in zip(units, trials, strict=True)),
        tuple(_room(p, job, sizes) for p in bays), *_joined(job, units, wish, at, about.still), _aparts(wish, units, at),
        weights_of(verdict, wish), value_of(readings.of(measure), (0.0, 1.0, 0.0)), x1 if measure == "front" else x0,
        value_of(readings.right, (0.0, 0.0, 1.0)) - value_of(readings.left, (0.0, 0.0, 1.0)), _lean(about, set(at)),
        min(p.frame.z for p in bays),
    )  # fmt: skip
    instance = with_riders(
        _hooked(instance),
        units,
        (verdict.assembly, about.still),
        about.away,
        step,
        scenario,
    )
    return Gathered(instance, units, base, measure, scenario.id)


class _About(NamedTuple):
    """What every unit is held against: the verdict, the wishes, what stays, what is weighed, what is never beside a bay."""

    verdict: Verdict
    wish: Arranging
    still: Assembly
    scenario: Scenario
    away: dict[str, tuple[str, ...]]


class _Sizes(NamedTuple):
    """A cell, the steps of a beginning, the gap that neighbours share, what moves wants below it, heights at hand. [mm]"""

    cell: float
    step: float
    shared: float
    below: float
    band: tuple[float, float]


def _lean(about: _About, ids: set[str]) -> float:
    """Right less left of everything that is not arranged. [kg]"""
    rows = ranking.contributions(about.verdict.assembly, about.verdict.loads, about.scenario)
    return sum(c.side for c in rows if not (c.owner.kind == "unit" and c.owner.id in ids))


def cells_for(bays: Iterable[BayPlace], pitch: float) -> tuple[float, float]:
    """How wide a cell is, and in which steps a unit may begin within its cells. [mm]"""
    rails = sorted({p.bay.pitch for p in bays if p.bay.pitch > 0})
    longest = max(p.size.x1 for p in bays)
    step = rails[-1] if rails else 1.0
    if rails and all(abs(r - round(r)) < 1e-9 for r in rails):
        both = math.lcm(*(round(r) for r in rails))
        if both <= 120:
            step = float(both)
    cell = step * max(1, math.ceil(pitch / step - 1e-9))
    while longest / cell > MOST_CELLS:
        cell += step
    return cell, step


def _room(place: BayPlace, job: Job, sizes: _Sizes) -> BayRoom:
    """A bay in cells: the gap beside the last unit may be outside it. What stands there says where cells begin."""
    x0, y0, _ = place.frame.point(0.0, 0.0, 0.0)
    x1, y1, _ = place.frame.point(1.0, 0.0, 0.0)
    phases = [round(u.u % sizes.cell, 3) % sizes.cell for u in job.units if u.bay == place.bay.id]
    steps = (
        [n * sizes.step for n in range(round(sizes.cell / sizes.step))] if sizes.step > 1 else [0.0]
    )
    # The most of what stands there begins on a cell; of equals the first.
    origin = max(steps, key=lambda o: (sum(abs(p - o) < 0.5 for p in phases), -o))
    many = int((place.size.x1 - origin + sizes.shared) / sizes.cell + 1e-9)
    high = min(place.size.z1, HIGHEST)
    cells = max(1, min(MOST_CELLS, many))
    return BayRoom(place.bay.id, place.bay.name, cells, high, (x1 - x0, y1 - y0), origin)


def _ends(bays: Sequence[BayPlace]) -> tuple[float, float]:
    """The foremost and the rearmost x of all bays. [mm]"""
    boxes = [p.frame.box(p.size) for p in bays]
    return min(b.x0 for b in boxes), max(b.x1 for b in boxes)


def _never_with(job: Job, bay: str) -> tuple[str, ...]:
    """What is on the vehicle in no set-up that has a bay on it: it is not in the way there."""
    if not job.setups or any(not s.setup for s in job.scenarios):
        return ()
    off = [absent(job, s) for s in job.setups if bay not in bays_off(job, s)]
    return tuple(sorted(frozenset.intersection(*off))) if off else ()


def _trials(
    unit: Unit, about: _About, bays: Sequence[BayPlace]
) -> list[tuple[Thing, FreeSpace] | None]:
    """A unit at u = w = 0 of every bay that it may go into, and where it is free there."""
    wished = next((set(w.bays) for w in about.wish.bays if w.thing == unit.id), None)
    found: list[tuple[Thing, FreeSpace] | None] = []
    v = unit.v if 0 < unit.v <= RUNNING * 4 else 0.0
    for place in bays:
        if wished is not None and place.bay.id not in wished:
            found.append(None)
            continue
        thing = trial_thing(unit.but(bay=place.bay.id, u=0.0, v=v, w=0.0), about.verdict.assembly)
        space = free_space(about.still, thing, place, v, about.away[place.bay.id])
        found.append((thing, space) if space.room is not None and not thing.trouble else None)
    return found


def _band(verdict: Verdict) -> tuple[float, float]:
    """Between the tallest one's knuckles and the shortest one's shoulders, in vehicle axes. [mm]"""
    figures = [Figure(p.stature) for p in people(verdict.job.party)]
    settled = verdict.access.settled
    ground = settled.ground(verdict.assembly.ground.floor.centre()[0])
    return max(f.knuckle for f in figures) + ground, min(f.shoulder for f in figures) + ground


def use_of(unit: Unit, job: Job) -> str:
    """How quickly a unit has to be at hand: as it says, as the most urgent of its goods, else as its kind usually is."""
    order = list(USE)
    goods = by_place(job.goods).get(unit.id, ())
    said = [g.use for g in goods] or ([own] if (own := kind_of(unit).says(unit, "").use) else [])
    return min(said, key=order.index) if said else kind_of(unit).use


def _item(
    unit: Unit, rows: list[tuple[Thing, FreeSpace] | None], about: _About, sizes: _Sizes
) -> Item:
    """One unit in cells and figures."""
    kind, scenario = kind_of(unit), about.scenario
    trial = next((t[0] for t in rows if t is not None), None)
    if trial is None:
        return Item(unit.id, unit.name, unit.width, unit.height, math.ceil(unit.width / sizes.cell), 0.0, 0.0, 0.0,
                    0.0, kind.stance, kind.carries, 0.0, sizes.band, tuple(None for _ in rows))  # fmt: skip
    e = trial.expansion.envelope
    start, end = sides(trial)
    shift = math.ceil(max(0.0, start - sizes.shared) / sizes.step - 1e-9) * sizes.step
    over = above(trial)
    if any(s.moves for s in trial.expansion.solids):
        over = max(over, sizes.below)
    cells = math.ceil((shift + e.x1 + max(sizes.shared, end)) / sizes.cell - 1e-9)
    kg = sum(m.kg * scale(scenario, m.owner, m.fill, m.mount) for m in trial.masses)
    spots = tuple(None if t is None else spot_of(t[0], t[1], scenario, about.still) for t in rows)
    front, back = ends(trial)
    return Item(
        unit.id, unit.name, e.x1, e.z1, cells, shift, over, below(trial, ("vent", "service")), kg, kind.stance,
        kind.carries, USE[use_of(unit, about.verdict.job)], sizes.band, spots, depth=e.y1, front=front, back=back,
    )  # fmt: skip


def _hooked(instance: Instance) -> Instance:
    """Give what hangs the heights worth hanging it at: its best in each bay, and the lowest of each free stretch."""
    items = []
    for i, item in enumerate(instance.items):
        hooks: set[int] = set()
        for b, spot in enumerate(item.spots):
            if item.stance != "hang" or spot is None or spot.free.room is None:
                continue
            _, w0, _, w1 = spot.free.room
            levels = np.arange(math.ceil(w0 - 0.05), int(w1 + 0.05) + 1)
            if len(levels):
                hooks.add(int(levels[int(instance.level_cost(i, b, levels).argmin())]))
            hooks |= {math.ceil(h - 0.05) for h in open_heights(spot.free)}
        items.append(msgspec.structs.replace(item, hooks=tuple(sorted(hooks))[:6]))
    return msgspec.structs.replace(instance, items=tuple(items))


def _joined(
    job: Job, units: Sequence[Unit], wish: Arranging, at: dict[str, int], still: Assembly
) -> tuple[tuple[Run, ...], tuple[Tie, ...]]:
    """Runs between units, and to things that stay."""
    rows = [*runs_of(job, units), *((w.a, w.b, NEAR) for w in wish.near)]
    runs: dict[tuple[int, int], float] = {}
    ties = []
    for a, b, weight in rows:
        if a in at and b in at:
            key = (min(at[a], at[b]), max(at[a], at[b]))
            runs[key] = max(weight, runs.get(key, 0.0))
        elif a in at or b in at:
            one, other = (a, b) if a in at else (b, a)
            there = still.thing(other)
            if there is not None:
                x, y, _ = there.envelope.centre()
                ties.append(Tie(at[one], x, y, weight))
    return tuple(Run(a, b, w) for (a, b), w in runs.items()), tuple(ties)


def _aparts(wish: Arranging, units: Sequence[Unit], at: dict[str, int]) -> tuple[Apart, ...]:
    """What is to be kept apart, by wish and by the rule of gas."""
    rows = {frozenset((w.a, w.b)): w.gap for w in wish.apart}
    if wish.gas:
        for a, b, gap in sparks_apart(units):
            rows[frozenset((a, b))] = max(gap, rows.get(frozenset((a, b)), 0.0))
    found = []
    for pair, gap in rows.items():
        a, b = sorted(pair)
        if a in at and b in at:
            found.append(Apart(at[a], at[b], gap))
    return tuple(found)
