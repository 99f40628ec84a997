"""Progress: how far every part has come, by what was released and by the work that is logged."""

from collections.abc import Iterable, Mapping

import msgspec

from roomy_hull.core.refs import Ref
from roomy_hull.job.model import Job
from roomy_hull.job.releases import STATES, PartState, Release
from roomy_hull.making.release import part_keys
from roomy_hull.making.works import Works
from roomy_hull.planning.op import owner_key
from roomy_hull.planning.plan import Build
from roomy_hull.planning.replay import replayed

DONE_AS: dict[str, PartState] = {
    "cut": "cut", "saw": "cut", "deburr": "cut", "drill": "cut", "bend": "bent", "weld": "welded", "dress": "welded",
    "coat": "coated", "assemble": "welded", "fit": "fitted", "mount": "fitted",
}  # fmt: skip
"""What a part is once a kind of work is done to its owner; what is put together counts as joined."""
States = Mapping[tuple[Ref, str], PartState]


def further(one: PartState, other: PartState) -> PartState:
    """The state that is further on."""
    return STATES[max(STATES.index(one), STATES.index(other))]


def _logged(done: Iterable[str], owner: str) -> PartState:
    """How far the work that is finished brings all parts of an owner.

    Args:
        done: Keys of operations: what they belong to, and their kind of work.
        owner: As such keys begin.
    """
    least: PartState = "to cut"
    for key in done:
        of, _, kind = key.rpartition(":")
        if of == owner and kind in DONE_AS:
            least = further(least, DONE_AS[kind])
    return least


def last_release(job: Job) -> Release | None:
    """The last release, its parts as far as they have come: by its own word or by the log, whichever is further."""
    if not job.releases:
        return None
    last, done = job.releases[-1], replayed(job.log).done
    if not done:
        return last
    known: dict[str, PartState] = {}
    parts = []
    for part in last.parts:
        owner = part.key.partition("/")[0].removesuffix(":")
        if owner not in known:
            known[owner] = _logged(done, owner)
        state = further(part.state, known[owner]) if part.sort != "bought" else part.state
        parts.append(part if state == part.state else msgspec.structs.replace(part, state=state))
    return msgspec.structs.replace(last, parts=tuple(parts))


def part_states(job: Job, works: Works, build: Build) -> dict[tuple[Ref, str], PartState]:
    """How far each part has come.

    Args:
        job: Its last release says how far its parts have come.
    Returns: By owner and name: the release's word or the log's, whichever is further; of parts of one name the least.
    """
    last = last_release(job)
    known = {p.key: p.state for p in last.parts} if last is not None else {}
    found: dict[tuple[Ref, str], PartState] = {}
    keys = iter(part_keys(works))
    for work in works.works:
        least = _logged(build.state.done, owner_key(work.owner))
        for part in work.parts:
            state = further(known.get(next(keys), "to cut"), least)
            before = found.get((work.owner, part.name), state)
            found[work.owner, part.name] = STATES[min(STATES.index(before), STATES.index(state))]
    return found


def fitted(build: Build) -> frozenset[str]:
    """Ids of the things that are in their places."""
    return frozenset(k.split(":")[1] for k in build.state.done if k.endswith(":fit"))
