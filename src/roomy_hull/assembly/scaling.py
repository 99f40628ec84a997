"""Scaling: what a scenario makes of a mass, what scales found of it, and what it does to two axles."""

from typing import Protocol

from roomy_hull.assembly.things import Mass, MassMount, Thing
from roomy_hull.core.fill import Fill
from roomy_hull.core.refs import Ref
from roomy_hull.job.model import Scenario


def scale(scenario: Scenario, owner: Ref | None, fill: Fill, mount: MassMount) -> float:
    """Compute what a scenario makes of a mass.

    Returns: 0 where it stays behind, else 1, the fill, or for people and ball their mass. [1 or kg]
    """
    if (mount == "canopy" and not scenario.canopy) or (mount == "sides" and not scenario.sides):
        return 0.0
    if owner is not None and owner.comes_off and owner.id in scenario.left_behind:
        return 0.0
    if fill.only and scenario.id not in fill.only:
        return 0.0
    if fill.by in ("fixed", "hung"):
        return 1.0
    if fill.by == "person":
        return scenario.people[fill.seat] if fill.seat < len(scenario.people) else 0.0
    found: float = getattr(scenario, fill.by)
    return found


def reactions(kg: float, x: float, wheelbase: float) -> tuple[float, float]:
    """Front and rear axle load of a mass, or of a whole at its centre of mass.

    Args:
        kg: Mass. [kg]
        x: How far it is aft of the front axle. [mm]
        wheelbase: Distance of the axles, above 0. [mm]
    Returns: rear = m·x / L, front = m - rear. [kg]

    Statics of a beam on two supports; a mass behind the rear axle lifts the front.
    """
    rear = kg * x / wheelbase
    return kg - rear, rear


class Weighed(Protocol):
    """What scales say of single masses: see `studies.loads.axles.LoadResult`."""

    def moved_by(self, mass: Mass) -> float:
        """Compute by how much weighings correct one mass. [kg]"""


def slide_load(thing: Thing, loads: Weighed) -> float:
    """Compute what a thing's slides carry when full, weighings in it.

    Returns: Moving mass, 0 where nothing slides. [kg]
    """
    load = thing.expansion.slide_load
    return (
        load + sum(loads.moved_by(m) for m in thing.masses if m.fill.by == "contents")
        if load
        else 0.0
    )
