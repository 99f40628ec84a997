"""Progress: how far every part has come, by what was released and by the work that is logged."""

from collections.abc import Mapping

from roomy_hull.core.refs import Ref
from roomy_hull.job.model import Job
from roomy_hull.job.releases import STATES, PartState
from roomy_hull.making.release import part_keys
from roomy_hull.making.works import Works
from roomy_hull.planning.op import owner_key
from roomy_hull.planning.plan import Build

DONE_AS: dict[str, PartState] = {
    "cut": "cut", "saw": "cut", "deburr": "cut", "drill": "cut", "bend": "bent", "weld": "welded", "dress": "welded",
    "coat": "coated", "assemble": "welded", "fit": "fitted", "mount": "fitted",
}  # fmt: skip
"""What a part is once a kind of work is done to its owner; what is put together counts as joined."""
States = Mapping[tuple[Ref, str], PartState]


def further(one: PartState, other: PartState) -> PartState:
    """The state that is further on."""
    return STATES[max(STATES.index(one), STATES.index(other))]


def part_states(job: Job, works: Works, build: Build) -> dict[tuple[Ref, str], PartState]:
    """How far each part has come.

    Args:
        job: Its last release says how far its parts have come.
    Returns: By owner and name: the release's word or the log's, whichever is further; of parts of one name the least.
    """
    known = {p.key: p.state for p in job.releases[-1].parts} if job.releases else {}
    found: dict[tuple[Ref, str], PartState] = {}
    keys = iter(part_keys(works))
    for work in works.works:
        mark = owner_key(work.owner) + ":"
        least: PartState = "to cut"
        for key in build.state.done:
            op = build.ops.get(key)
            if op is not None and key.startswith(mark) and op.kind in DONE_AS:
                least = further(least, DONE_AS[op.kind])
        for part in work.parts:
            state = further(known.get(next(keys), "to cut"), least)
            before = found.get((work.owner, part.name), state)
            found[work.owner, part.name] = STATES[min(STATES.index(before), STATES.index(state))]
    return found


def fitted(build: Build) -> frozenset[str]:
    """Ids of the things that are in their places."""
    return frozenset(k.split(":")[1] for k in build.state.done if k.endswith(":fit"))
