"""As built: the job with every size that the log says was built otherwise, which is what is then judged."""

from typing import NamedTuple

from roomy_hull.assembly.built import PartBuilt
from roomy_hull.core.errors import EditError
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.logs import Entry
from roomy_hull.job.model import Job
from roomy_hull.planning.replay import State, replayed

SIZES = ("vehicle.", "body.", "units.", "carried.")
"""Beginnings of the paths of sizes that can be built otherwise than they were drawn."""
PARTS = ("length", "width")


class AsBuilt(NamedTuple):
    """What was built otherwise.

    Attributes:
        job: The job with every such size; the very same job where there is none.
        parts: Parts that were cut to another size, by the id of the unit they belong to.
        lost: What can no longer be placed, and why.
    """

    job: Job
    parts: dict[str, tuple[PartBuilt, ...]]
    lost: tuple[tuple[Entry, str], ...]


def as_built(job: Job) -> AsBuilt:
    """Lay what was built over what was drawn.

    Returns: Sizes in the order in which they were logged; one whose thing is gone is lost.
    """
    if not job.log:
        return AsBuilt(job, {}, ())
    state: State = replayed(job.log)
    built = job
    parts: dict[str, list[PartBuilt]] = {}
    lost: list[tuple[Entry, str]] = []
    for (about, sort), entry in state.deviations.items():
        if entry.value is None:
            continue
        if not sort and about.startswith(SIZES):
            try:
                built = resized(built, about, entry.value)
            except (EditError, ValueError) as trouble:
                lost.append((entry, str(trouble)))
        elif sort in PARTS and about.startswith("unit:"):
            owner, _, name = about.removeprefix("unit:").partition("/")
            if job.thing(owner) is None:
                lost.append((entry, f"there is no unit '{owner}' any more"))
                continue
            parts.setdefault(owner, []).append(PartBuilt(name, sort, entry.value))
    return AsBuilt(built, {k: tuple(v) for k, v in parts.items()}, tuple(lost))


def owners(job: Job) -> frozenset[str]:
    """What was built otherwise than drawn, as releases name it: ``unit:ID``, ``tray:`` or ``canopy:``."""
    if not job.log:
        return frozenset()
    found = set()
    for about, sort in replayed(job.log).deviations:
        if sort in PARTS:
            found.add(about.partition("/")[0])
        elif not sort:
            group, _, rest = about.partition(".")
            head = rest.partition(".")[0]
            found.add(f"unit:{head}" if group == "units" else f"{head}:")
    return frozenset(found)
