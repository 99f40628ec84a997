"""Finding room: where a unit from the stores, or a second one of the job, can stand."""

from roomy_hull.assembly.assemble import Assembly, Thing, trial_thing
from roomy_hull.job.unit import Carried, Unit
from roomy_hull.studies.fit.free_space import FreeSpace, free_space

TRIAL = "stores-trial"
"""Id of a unit that is only tried, never kept."""
SIDES = ("left", "right", "rear")


def side_of(station: str) -> str:
    """Give the side whose bays are meant by a place to stand; empty for all."""
    return station if station in SIDES else ""


def spaces(assembly: Assembly, made: Unit | Carried, side: str = "") -> list[FreeSpace]:
    """Give the free space of a unit in every bay of a side.

    Parameters
    ----------
    assembly : Assembly
        What is there already.
    made : Unit or Carried
        What comes; a carried thing goes into no bay.
    side : str
        ``left``, ``right`` or ``rear``; empty for all bays.

    Returns
    -------
    list of FreeSpace
        One for each bay. [mm]
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


def first_place(
    assembly: Assembly, made: Unit | Carried, side: str
) -> tuple[str, float, float] | None:
    """Find the first free place of a unit on a side: lowest, then furthest forward, as (bay, u, w). [mm]"""
    best: tuple[float, float, str] | None = None
    for space in spaces(assembly, made, side):
        pitch = assembly.ground.bays[space.bay].bay.pitch
        for cell in space.cells():
            u = space.nearest(cell[0], cell[1], pitch)
            if u is not None and (best is None or (cell[1], u) < best[:2]):
                best = (cell[1], u, space.bay)
    return None if best is None else (best[2], best[1], best[0])


def why_not(assembly: Assembly, made: Unit | Carried, side: str) -> str:
    """Say by how much a unit is too large for the bays of a side, and which other bay would take it.

    Parameters
    ----------
    assembly : Assembly
        What is there already.
    made : Unit or Carried
        What was to come.
    side : str
        Where it was to go; empty for all bays.

    Returns
    -------
    str
        Bay by bay the excess and its direction, or that no place is left.
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
