"""Set-ups judged: what stands where, opens and is reached, once for every set-up of a job."""

from typing import Any

import msgspec

from roomy_hull.assembly.assemble import Assembly, assemble
from roomy_hull.assembly.study import Before, Context, Study, StudyKey
from roomy_hull.core.findings import Finding
from roomy_hull.core.refs import Ref
from roomy_hull.job.edits.setups import absent, worn
from roomy_hull.job.model import Job
from roomy_hull.job.setups import SetUp
from roomy_hull.verdict import registry

KEY = StudyKey["tuple[Worn, ...]"]("set-ups")
PLACED = ("fit", "in and out", "together", "sides", "outline", "access", "bodies")
"""Studies of what stands where: they are run for every set-up; what is weighed is told by scenario already."""
NEEDS = (*PLACED, "loads", "services", "strength")


class Worn(msgspec.Struct, frozen=True, eq=False):
    """One set-up: the job in vehicle axes as it stands in it, and the results of the studies of what stands where."""

    setup: SetUp
    assembly: Assembly
    results: dict[str, Any]

    def context(self) -> Context:
        """What studies read."""
        return Context(self.assembly, self.results, None)


def study(context: Context) -> tuple[Worn, ...]:
    """Judge what stands where in every set-up.

    Args:
        context: The job in vehicle axes, with the results of all other studies.
    Returns: In the order of the job; empty where it has no set-ups.
    """
    job, old = context.assembly.job, {w.setup.id: w for w in context.old(KEY) or ()}
    return tuple(_worn(context, job, setup, old.get(setup.id)) for setup in job.setups)


def _worn(context: Context, job: Job, setup: SetUp, old: Worn | None) -> Worn:
    """Run the studies for one set-up, reusing an earlier judgement of the same."""
    there = worn(job, setup)
    if old is not None and old.assembly.shop is context.assembly.shop:
        there = _kept(there, old.assembly.job)
    assembly = assemble(
        there, old.assembly if old is not None else context.assembly, shop=context.assembly.shop,
        built=context.assembly.built
    )  # fmt: skip
    before = None
    if old is not None and old.assembly.shop is assembly.shop:
        before = Before(old.assembly, old.results)
    own = Context(assembly, dict(context.results), before)
    for one in registry.to_run():
        if one.key in PLACED:
            own.results[one.key] = one.run(own)
    return Worn(setup, assembly, own.results)


def _kept(new: Job, old: Job) -> Job:
    """A job whose body is the very same as before where it is equal, so that what rests on it is known again."""
    return msgspec.structs.replace(new, body=old.body) if new.body == old.body else new


def merged(context: Context, drawn: list[Finding]) -> list[Finding]:
    """What is found of what stands where, over all set-ups.

    Args:
        drawn: What is found where everything is on at once.
    Returns:
        Each once. One that is so in some set-ups only says in which; one that is so in none, as where two things
        of different set-ups share a place, is left out unless some scenario has everything on.
    """
    rows: tuple[Worn, ...] = context.results.get(KEY, ())
    job = context.assembly.job
    if not rows:
        return drawn
    found: dict[object, tuple[Finding, list[str]]] = {}
    whole = any(not s.setup for s in job.scenarios)
    if whole:
        found = {_key(f): (f, [""]) for f in drawn}
    for one in rows:
        own = one.context()
        for s in registry.studies():
            if s.key in PLACED:
                for f in s.judge(own):
                    found.setdefault(_key(f), (f, []))[1].append(one.setup.id)
    count = len(rows) + int(whole)
    names = {s.id: s.name for s in job.setups} | {"": "everything on"}
    told = []
    for f, ids in found.values():
        if len(ids) == count:
            told.append(f)
            continue
        words = ", ".join(names[i] for i in ids)
        told.append(
            msgspec.structs.replace(
                f, title=f"{f.title} ({words})", setups=tuple(i for i in ids if i)
            )
        )
    return told


def _key(f: Finding) -> object:
    """What makes two findings of different set-ups one: what is said, of what, in which figures."""
    return f.key, f.title, f.measured


def settling(context: Context, drawn: list[Finding]) -> list[Finding]:
    """What may be told while a hand moves: findings of things that some set-up has on together.

    Args:
        drawn: What is found where everything is on at once.
    """
    job = context.assembly.job
    if not job.setups or any(not s.setup for s in job.scenarios):
        return drawn
    off = [absent(job, s) for s in job.setups]
    return [
        f for f in drawn
        if any(not gone & {r.id for r in f.subjects if isinstance(r, Ref) and r.comes_off} for gone in off)
    ]  # fmt: skip


STUDY = Study(
    KEY,
    study,
    needs=NEEDS,
    settles=True,
    idle=lambda _case: (),
    shown_with=lambda job: (job.setups, job.scenarios),
)
