"""One verdict for the window, the command line and every file."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, ClassVar, Generic, TypeVar

import msgspec

from roomy_hull.assembly.assemble import Assembly, assemble
from roomy_hull.assembly.study import Before, Context
from roomy_hull.core.findings import SEVERITIES, Finding, Fix
from roomy_hull.core.refs import Ref
from roomy_hull.job.edits.setups import resolved
from roomy_hull.job.model import Job
from roomy_hull.planning.as_built import as_built
from roomy_hull.shop.shop import Shop
from roomy_hull.verdict import setups
from roomy_hull.verdict.acceptance import with_acceptance
from roomy_hull.verdict.registry import studies, to_run

if TYPE_CHECKING:
    from collections.abc import Callable, Mapping

    from roomy_hull.assembly.springs import SpringStudy
    from roomy_hull.making.gap import Gap
    from roomy_hull.studies.access import judge as access
    from roomy_hull.studies.fit import closed, in_out, together
    from roomy_hull.studies.loads import axles, budget, towing
    from roomy_hull.studies.loads.weighing import Against
    from roomy_hull.studies.outline import outline as outlines
    from roomy_hull.studies.services import judge as services
    from roomy_hull.studies.strength import carrying

T = TypeVar("T")


class Tally(msgspec.Struct, frozen=True):
    """Open findings counted by severity and stage, and by severity alone (under no stage)."""

    counts: dict[tuple[str, str], int]

    def count(self, severity: str, stage: str = "") -> int:
        """Count open findings of one severity, in one stage or in all."""
        return self.counts.get((severity, stage), 0)


class Result(Generic[T]):
    """What a study came to, as an attribute of every judgement that holds it."""

    def __init__(self, key: str) -> None:
        self._key = key

    def __get__(self, judged: Any, _kind: type | None = None) -> T:
        """The result.

        Raises:
            KeyError: The study was not run.
        """
        found: T = judged.results[self._key]
        return found


class Judged(msgspec.Struct, frozen=True, eq=False):
    """What every judgement has: the job in vehicle axes, what it weighs, and what is found wrong."""

    job: Job
    assembly: Assembly
    results: dict[str, Any]
    findings: tuple[Finding, ...]
    tally: Tally
    held: dict[str, Assembly | None] = {}
    """Studies whose results are of an earlier job, and what these are of; nothing where no result is known yet."""

    loads: ClassVar[Result[axles.LoadResult]] = Result("loads")
    """What every scenario weighs."""

    def open_findings(self) -> tuple[Finding, ...]:
        """List the findings that nobody accepted."""
        return tuple(f for f in self.findings if not f.accepted)

    def count(self, severity: str, stage: str = "") -> int:
        """Count open findings of one severity, in one stage or in all."""
        return self.tally.count(severity, stage)

    @property
    def complete(self) -> bool:
        """Whether every study has been run, now or before."""
        return True

    def context(self) -> Context:
        """What studies read: the assembly with every result."""
        return Context(self.assembly, self.results, None)


class Glance(Judged, frozen=True, eq=False):
    """A first quick look: what is seen before the window stands. It judges the loads only."""

    def count(self, severity: str, stage: str = "") -> int:  # ruff: ignore[unused-method-argument]  # as in `Judged`
        """None yet: a part of the findings would read as all of them."""
        return 0

    @property
    def complete(self) -> bool:
        """Not yet."""
        return False


class Verdict(Judged, frozen=True, eq=False):
    """The findings of all studies on one job, and every result they rest on; each judgement equals only itself."""

    fit: ClassVar[Result[closed.FitResult]] = Result("fit")
    """The closed fit."""
    together: ClassVar[Result[together.Togetherness]] = Result("together")
    """What meets what when it opens."""
    in_out: ClassVar[Result[in_out.InOut]] = Result("in and out")
    """What has to come out before what."""
    carrying: ClassVar[Result[carrying.Carrying]] = Result("strength")
    """Chassis, mounts, members, struts, stability."""
    springs: ClassVar[Result[SpringStudy]] = Result("springs")
    """Every way of carrying the load, in every scenario."""
    towing: ClassVar[Result[towing.Towing]] = Result("towing")
    """What may be towed."""
    budget: ClassVar[Result[budget.Budget]] = Result("budget")
    """The brief against what the rating leaves."""
    weighings: ClassVar[Result[tuple[tuple[Against, ...], ...]]] = Result("weighings")
    """Every weighing against what was predicted without it."""
    outline: ClassVar[Result[outlines.Outline]] = Result("outline")
    """Outside sizes and angles."""
    services: ClassVar[Result[services.ServicesResult]] = Result("services")
    """Circuits, trip, water, gas and air."""
    access: ClassVar[Result[access.AccessResult]] = Result("access")
    """Who reaches what, how, and in how many moves."""
    setups: ClassVar[Result[tuple[setups.Worn, ...]]] = Result("set-ups")
    """Every set-up as it stands, with what is found of it."""

    def within(self, key: str) -> Verdict:
        """The verdict as it stands in one set-up: what is off is not there.

        Args:
            key: The set-up's id; empty, or one that is not judged, for everything on.
        """
        one = next((w for w in self.setups if w.setup.id == key), None)
        if one is None:
            return self
        return Verdict(self.job, one.assembly, one.results, self.findings, self.tally, self.held)

    making: ClassVar[Result[dict[Ref | None, tuple[Finding, ...]]]] = Result("making")
    """What cannot be made, by thing."""
    gaps: ClassVar[Result[tuple[Gap, ...]]] = Result("gaps")
    """Every narrow gap with its doubt, the likeliest to bind first."""


def judge(
    job: Job, previous: Judged | None = None, *, shop: Shop | None = None, moving: bool = False, beside: bool = False,
    told: Callable[[str, float], None] | None = None,
) -> Verdict:  # fmt: skip
    """Judge a job.

    Args:
        previous: A verdict on an earlier value of the same job, to reuse what did not change. Only a memory, it never
            alters the result.
        shop: Who makes it; that of the earlier verdict, or the shipped values, where none is given.
        moving: Whether a gesture goes on: what is long then stays, with its findings, as the earlier verdict has it, or
            empty where there is none. The verdict names it as held.
        beside: Whether what is long is worked out elsewhere: it stays likewise, unless what its pages lay beside it is
            another.
        told: Is told the key of each study before it is run, and what part of them has been.
    Returns: Assembly, every result, and the findings, the most severe first.
    Raises:
        InputError: The shop lacks a material or rule that the body names.
    """
    known = previous if isinstance(previous, Verdict) else None
    if previous is not None and shop is None:
        shop = previous.assembly.shop
    # What was built otherwise than drawn is what stands there.
    real = as_built(resolved(job))
    old = previous.assembly if previous is not None else None
    assembly = assemble(real.job, old, shop=shop, built=real.parts)
    before = None
    if known is not None and known.assembly.shop is assembly.shop:
        before = Before(known.assembly, known.results, known.held)
    context = Context(assembly, {}, before)
    kept = known if before is not None else None
    held: dict[str, Assembly | None] = {}
    for study in studies() if moving or beside else ():
        of = kept.held.get(study.key, kept.assembly) if kept is not None else None
        same = moving or of is None or study.shown_with(of.job) == study.shown_with(assembly.job)
        if study.settles and same:
            held[study.key] = of
    return Verdict(*_judged(job, context, glance=False, kept=kept, held=held, told=told))


def completed(verdict: Verdict, results: Mapping[str, Any]) -> Verdict:
    """Put what was worked out elsewhere into a verdict that holds earlier results.

    Args:
        results: The results of the studies that it holds, of this job.
    """
    context = Context(verdict.assembly, {**verdict.results, **results})
    return Verdict(*_told(verdict.job, context, glance=False, kept=None, held={}))


def glance(job: Job, *, shop: Shop | None = None) -> Glance:
    """Take a first quick look at a job, so that a window can be painted.

    Returns: Loads only; `judge` looks at everything.
    """
    real = as_built(resolved(job))
    assembly = assemble(real.job, opens=False, shop=shop, built=real.parts)
    return Glance(*_judged(job, Context(assembly, {}, None), glance=True, kept=None, held={}))


def _judged(
    job: Job, context: Context, *, glance: bool, kept: Verdict | None, held: dict[str, Assembly | None],
    told: Callable[[str, float], None] | None = None,
) -> tuple[Job, Assembly, dict[str, Any], tuple[Finding, ...], Tally, dict[str, Assembly | None]]:  # fmt: skip
    """Run studies and gather what they find; what is held is kept from an earlier verdict."""
    turn = to_run(glance=glance)
    for n, study in enumerate(turn):
        if told is not None:
            told(study.key, n / len(turn))
        if study.key not in held:
            context.results[study.key] = study.run(context)
        else:
            context.results[study.key] = (
                kept.results[study.key] if kept is not None else study.idle(context)
            )
    return _told(job, context, glance=glance, kept=kept, held=held)


def _told(
    job: Job,
    context: Context,
    *,
    glance: bool,
    kept: Verdict | None,
    held: dict[str, Assembly | None],
) -> tuple[Job, Assembly, dict[str, Any], tuple[Finding, ...], Tally, dict[str, Assembly | None]]:
    """Gather what studies find; of what is held, what the earlier verdict found."""
    found: list[Finding] = []
    drawn: list[Finding] = []
    for study in studies(glance=glance):
        into = drawn if job.setups and study.key in setups.PLACED else found
        if study.key not in held:
            into += study.judge(context)
        elif kept is not None:
            into += [f for f in kept.findings if study.codes and f.code.startswith(study.codes)]
    if drawn:
        found += setups.settling(context, drawn) if held else setups.merged(context, drawn)
    if job.accepted or held:
        found = [with_acceptance(job, f) for f in found]
    found.sort(key=lambda f: SEVERITIES.index(f.severity))
    return job, context.assembly, context.results, tuple(found), _tally(found), held


def _tally(findings: list[Finding]) -> Tally:
    """Count open findings by severity and stage, and by severity alone."""
    found: dict[tuple[str, str], int] = {}
    for f in findings:
        if not f.accepted:
            for key in ((f.severity, f.stage), (f.severity, "")):
                found[key] = found.get(key, 0) + 1
    return Tally(found)


def fixes(verdict: Verdict, finding: Finding) -> tuple[Fix, ...]:
    """Compute the remedies of one finding; done when somebody asks, since a drag makes many.

    Returns: What can be set; empty where nothing by itself would help.
    """
    context = verdict.context()
    if finding.setups:
        context = verdict.within(finding.setups[0]).context()
    return tuple(
        fix
        for study in studies()
        if finding.code.startswith(study.codes)
        for fix in study.fixes(context, finding)
    )
