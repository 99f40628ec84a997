"""What carries the load: chassis, mounts, members, struts, and how stable the whole stands."""

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.studies.loads import chassis, members, mounts, struts
from roomy_hull.studies.loads.axles import LoadResult
from roomy_hull.studies.loads.chassis import ChassisResult
from roomy_hull.studies.loads.members import MemberCheck
from roomy_hull.studies.loads.mounts import MountCheck
from roomy_hull.studies.loads.stability import Stability, stability
from roomy_hull.studies.loads.struts import StrutCheck


class Carrying(msgspec.Struct, frozen=True):
    """The results beside the axle loads; see each module for what they hold."""

    chassis: ChassisResult
    mounts: tuple[MountCheck, ...]
    members: dict[str, tuple[MemberCheck, ...]]
    struts: tuple[StrutCheck, ...]
    stability: tuple[Stability, ...]

    def all_members(self) -> tuple[MemberCheck, ...]:
        """Give every member's check, the body's first."""
        return tuple(c for rows in self.members.values() for c in rows)


def study(
    assembly: Assembly, loads: LoadResult, previous: tuple[Assembly, Carrying] | None = None
) -> Carrying:
    """Study what carries the load.

    Parameters
    ----------
    assembly : Assembly
        The job in vehicle axes.
    loads : LoadResult
        What the scenarios weigh.
    previous : (Assembly, Carrying) or None
        An earlier study; what did not change is taken from it. Only a memory.

    Returns
    -------
    Carrying
        Typed and complete.
    """
    before, known = previous if previous is not None else (None, None)
    same_body = before is not None and before.job.body is assembly.job.body
    doors = known.struts if known is not None and same_body else struts.study(assembly)
    return Carrying(
        chassis.study(assembly, memory=known.chassis.memory if known is not None else None),
        mounts.study(assembly, (before, known.mounts) if before is not None and known else None),
        members.study(assembly, (before, known.members) if before is not None and known else None),
        doors,
        tuple(stability(assembly.job.vehicle, s) for s in loads.scenarios),
    )
