"""Edits of releases: one is added, parts come further, the last is taken back."""

import msgspec

from roomy_hull.core.errors import EditError
from roomy_hull.job.model import Job
from roomy_hull.job.releases import STATES, PartState, Release


def released(job: Job, release: Release) -> Job:
    """Add a release; parts that did not change keep how far they have come.

    Returns: With it as the last.
    Raises:
        EditError: Its revision is there already, or it releases nothing.
    """
    if any(r.revision == release.revision for r in job.releases):
        raise EditError(
            f"the revision {release.revision} is there already", "releases", "Take the next letter."
        )
    if not release.parts:
        raise EditError("there is nothing to release", "releases", "Place something that is made.")
    if job.releases:
        old = {p.key: p for p in job.releases[-1].parts}
        parts = tuple(
            p.but(state=old[p.key].state)
            if p.key in old and old[p.key].content == p.content and old[p.key].count >= p.count
            else p
            for p in release.parts
        )
        release = msgspec.structs.replace(release, parts=parts)
    return msgspec.structs.replace(job, releases=(*job.releases, release))


def come_to(job: Job, keys: tuple[str, ...], state: PartState) -> Job:
    """Say how far some parts of the last release have come.

    Returns: With the last release's parts so.
    Raises:
        EditError: Nothing is released, there is no such part, or no such state.
    """
    if not job.releases:
        raise EditError("nothing is released yet", "releases", "Release the job first.")
    if state not in STATES:
        raise EditError(f"there is no state '{state}'", "releases", f"Use {', '.join(STATES)}.")
    last = job.releases[-1]
    missing = set(keys) - {p.key for p in last.parts}
    if missing:
        raise EditError(
            f"revision {last.revision} has no part '{min(missing)}'",
            "releases",
            "Choose one of its parts.",
        )
    parts = tuple(p.but(state=state) if p.key in keys else p for p in last.parts)
    return msgspec.structs.replace(
        job, releases=(*job.releases[:-1], msgspec.structs.replace(last, parts=parts))
    )


def taken_back(job: Job) -> Job:
    """Take the last release back.

    Raises:
        EditError: Nothing is released, or parts of it are cut already.
    """
    if not job.releases:
        raise EditError("nothing is released yet", "releases", "There is nothing to take back.")
    last = job.releases[-1]
    if any(p.state != "to cut" for p in last.parts):
        raise EditError(
            f"parts of revision {last.revision} are cut already",
            "releases",
            "Release the change as the next revision.",
        )
    return msgspec.structs.replace(job, releases=job.releases[:-1])
