"""Finding room: where a unit from the stores, or a second one of the job, can stand."""

from roomy_hull.assembly.assemble import Assembly, trial_thing
from roomy_hull.assembly.things import Thing
from roomy_hull.job.carried import Carried
from roomy_hull.job.edits import units as edits
from roomy_hull.kinds.registry import Unit
from roomy_hull.studies.fit.free_space import FreeSpace, free_space
from roomy_hull.verdict.verdict import Verdict, judge

TRIAL = "stores-trial"
"""Id of a unit that is only tried, never kept."""
SIDES = ("left", "right", "rear")


def side_of(station: str) -> str:
    """The side whose bays are meant by a place to stand; empty for all."""
    return station if station in SIDES else ""


def spaces(assembly: Assembly, made: Unit | Carried, side: str = "") -> list[FreeSpace]:
    """The free space of a unit in every bay of a side.

    Args:
        made: What comes; a carried thing goes into no bay.
        side: ``left``, ``right`` or ``rear``; empty for all bays.
    Returns: One for each bay. [mm]
    """
    if isinstance(made, Carried):
        return []
    found = []
    for place in assembly.ground.bays.values():
        if side and place.bay.side != side:
            continue
        trial = trial_thing(made.but(id=TRIAL, bay=place.bay.id), assembly)
        found.append(free_space(assembly, trial, place))
    return found


TRIED = 14
"""So many free places are judged whole before the first of them is taken as it is."""


def free_starts(
    assembly: Assembly, made: Unit | Carried, side: str
) -> list[tuple[str, float, float]]:
    """List where a unit could stand on a side, as (bay, u, w): lowest first, then furthest forward. [mm]"""
    found: set[tuple[float, float, str]] = set()
    for space in spaces(assembly, made, side):
        pitch = assembly.ground.bays[space.bay].bay.pitch
        step = pitch if pitch > 0 else 25.0
        for cell in space.cells():
            for at in (cell[0], cell[0] + step, (cell[0] + cell[2]) / 2, cell[2]):
                u = space.nearest(at, cell[1], pitch)
                if u is not None:
                    found.add((cell[1], u, space.bay))
    return [(bay, u, w) for w, u, bay in sorted(found)]


def first_place(
    verdict: Verdict, made: Unit | Carried, side: str
) -> tuple[str, float, float] | None:
    """Find the first place of a unit on a side where nothing is wrong with it.

    Args:
        side: ``left``, ``right`` or ``rear``; empty for all bays.
    Returns:
        Bay, u and w: the first of a few in which it makes no *stop*, so that it can be opened and taken out as
        well; else the first free one; none where there is none. [mm]
    """
    starts = [] if isinstance(made, Carried) else free_starts(verdict.assembly, made, side)
    for bay, u, w in starts[:TRIED]:
        trial = edits.added(verdict.job, made.but(id=TRIAL, bay=bay, u=u, w=w))
        after = judge(trial, verdict)
        if not any(f.severity == "stop" and TRIAL in f.things for f in after.findings):
            return bay, u, w
    return starts[0] if starts else None


def why_not(assembly: Assembly, made: Unit | Carried, side: str) -> str:
    """Say by how much a unit is too large for the bays of a side, and which other bay would take it.

    Args:
        side: Where it was to go; empty for all bays.
    Returns: Bay by bay the excess and its direction, or that no place is left.
    """
    rows, others = [], []
    for space in spaces(assembly, made):
        bay = assembly.ground.bays[space.bay].bay
        if side and bay.side != side:
            if space.cells():
                others.append(bay.name)
            continue
        over = [
            f"{s:.0f} mm too {n}"
            for s, n in zip(space.short, ("long", "deep", "high"), strict=True)
            if s > 0.05
        ]
        rows.append(f"{bay.name} {' and '.join(over) if over else 'has no free place left'}")
    words = "; ".join(rows) or "there is no bay here"
    return f"{words}. It would fit into {' or '.join(others)}" if others else words


def free_twin(assembly: Assembly, thing: Thing) -> tuple[float, float] | None:
    """Find the free place in a unit's bay nearest to it, as (u, w); none if there is none. [mm]"""
    unit, place = thing.value, thing.place
    if place is None or isinstance(unit, Carried):
        return None
    twin = trial_thing(unit.but(id=TRIAL), assembly)
    space = free_space(assembly, twin, place, unit.v)
    heights = sorted({unit.w, *(c[1] for c in space.cells())}, key=lambda w: abs(w - unit.w))
    for w in heights:
        u = space.nearest(unit.u, w, place.bay.pitch)
        if u is not None:
            return (u, w)
    return None
