"""What carries the load: chassis, mounts, members, struts, and how stable the whole stands."""

from typing import Protocol

import msgspec

from roomy_hull.assembly.scaling import Weighed
from roomy_hull.assembly.study import Context, StudyKey
from roomy_hull.studies.strength import chassis, members, mounts, racks, struts
from roomy_hull.studies.strength.chassis import ChassisResult
from roomy_hull.studies.strength.members import MemberCheck
from roomy_hull.studies.strength.mounts import MountCheck
from roomy_hull.studies.strength.racks import RackCheck
from roomy_hull.studies.strength.stability import Settled, Stability, stability
from roomy_hull.studies.strength.struts import StrutCheck

KEY = StudyKey["Carrying"]("strength")
LOADS = "loads"
NEEDS = (LOADS,)


class Loads(Weighed, Protocol):
    """What this study reads of the loads."""

    @property
    def scenarios(self) -> tuple[Settled, ...]:
        """Every scenario on its springs."""

    @property
    def evidence(self) -> object | None:
        """What scales said; none where no weighing counts."""


class Carrying(msgspec.Struct, frozen=True):
    """The results beside the axle loads; see each module for what they hold."""

    chassis: ChassisResult
    mounts: tuple[MountCheck, ...]
    members: dict[str, tuple[MemberCheck, ...]]
    struts: tuple[StrutCheck, ...]
    stability: tuple[Stability, ...]
    racks: tuple[RackCheck, ...] = ()

    def all_members(self) -> tuple[MemberCheck, ...]:
        """List every member's check, the body's first."""
        return tuple(c for rows in self.members.values() for c in rows)


def study(context: Context) -> Carrying:
    """Study what carries the load.

    Args:
        context: The job in vehicle axes, with what its scenarios weigh; what did not change is taken from before.
    """
    assembly, before = context.assembly, context.before
    loads: Loads = context.results[LOADS]
    known: Carrying | None = context.old(KEY)
    same_body = before is not None and before.assembly.job.body is assembly.job.body
    # What scales say moves every mass, so that nothing can be taken from before.
    plain = loads.evidence is None and known is not None and before is not None
    if plain and before is not None:
        earlier = before.results.get(LOADS)
        plain = earlier is not None and earlier.evidence is None
    doors = known.struts if known is not None and same_body else struts.study(assembly)
    old = before.assembly if plain and before is not None else None
    return Carrying(
        chassis.study(assembly, loads),
        mounts.study(assembly, loads, (old, known.mounts) if old is not None and known else None),
        members.study(assembly, loads, (old, known.members) if old is not None and known else None),
        doors,
        tuple(stability(assembly.job.vehicle, s) for s in loads.scenarios),
        racks.study(assembly, loads),
    )
