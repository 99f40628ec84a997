"""What many tests begin from: the shop, a unit written out, canopies with bays, studies run by themselves."""

import functools
from typing import Any

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.study import Before, Context, Study
from roomy_hull.formats.vehiclefile import library
from roomy_hull.job.canopy import Bay, Canopy
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job
from roomy_hull.kinds import registry
from roomy_hull.kinds.expansion import Expansion
from roomy_hull.kinds.kind import Site
from roomy_hull.kinds.placed import Placed
from roomy_hull.kit import catalogue
from roomy_hull.kit.body import fitting, outfitting
from roomy_hull.session.placing import carried_place
from roomy_hull.shop.shop import shipped_shop
from roomy_hull.verdict.verdict import Verdict, judge

SHOP = shipped_shop()
SITE = Site(25.0, SHOP)


def expand(unit: Placed, pitch: float = 25.0, side: str = "left") -> Expansion:
    """Write a unit out as the shipped shop makes it, on rails of a pitch."""
    return registry.expand(unit, Site(pitch, SHOP), side)


def other_handed(unit: Any) -> Any:
    """Change left and right of a unit."""
    return msgspec.structs.replace(unit, **registry.handed_changes(unit))


def context(assembly: Assembly, **results: Any) -> Context:
    """A study what it reads: an assembly, and results of other studies by key."""
    return Context(assembly, dict(results))


def again(study: Study, assembly: Assembly, before: Context) -> Context:
    """Run a study with the memory of an earlier case in which it was run; its result is in the case given."""
    made = Context(assembly, {}, Before(before.assembly, before.results))
    made.results[study.key] = study.run(made)
    return made


def once(study: Study, assembly: Assembly) -> Context:
    """Run a study from nothing; its result is in the case given."""
    made = Context(assembly, {}, None)
    made.results[study.key] = study.run(made)
    return made


def canopy_of(job: Job) -> Canopy:
    """The canopy of a job that has one."""
    assert job.body.canopy is not None
    return job.body.canopy


def with_canopy(job: Job, **changes: Any) -> Job:
    """Change a job's canopy."""
    canopy = canopy_of(job).but(**changes)
    return msgspec.structs.replace(job, body=job.body.but(canopy=canopy))


def bay_of(job: Job, key: str) -> Bay:
    """One bay of a job."""
    return next(b for b in canopy_of(job).bays if b.id == key)


def with_bay(job: Job, key: str, **changes: Any) -> Job:
    """Change one bay of a job."""
    bays = tuple(b.but(**changes) if b.id == key else b for b in canopy_of(job).bays)
    return with_canopy(job, bays=bays)


def bare(job: Job, *units: Placed, **changes: Any) -> Job:
    """Leave nothing in a job but some units: no sets, no runs, nothing carried."""
    empty = msgspec.structs.replace(
        job, units=tuple(units), carried=(), sets=(), runs=(), variants=()
    )
    return msgspec.structs.replace(empty, **changes)


def begun(vehicle: str, choice: str, *parts: str) -> Job:
    """Begin a job on a vehicle of the library, a word of its name given, and add rooms and racks to its body."""
    found = next(v.vehicle for v in library() if vehicle in v.vehicle.name)  # type: ignore[union-attr]
    job = fitting.begun("Trial", found, choice)  # type: ignore[arg-type]
    return functools.reduce(outfitting.added, parts, job)


def hung(job: Job, *keys: str, station: str = "rear") -> Job:
    """Take carried things from the stores, each where such things go."""
    for key in keys:
        made = carried_place(judge(job), catalogue.entry(key).make, station)
        job = edits.added(job, made)
    return job


def codes(verdict: Verdict, *beginnings: str) -> list[str]:
    """Codes of the findings that begin in some way, stops first."""
    return [f.code for f in verdict.findings if f.code.startswith(beginnings)]
