"""One verdict for the window, the command line and every file."""

from typing import TYPE_CHECKING

import msgspec

from roomy_hull.assembly.assemble import Assembly, assemble
from roomy_hull.core.findings import WEIGHT_ORDER, Finding, Fix
from roomy_hull.job.model import Job
from roomy_hull.job.value import unknown_fields
from roomy_hull.making import judge as making_judge
from roomy_hull.studies.fit import closed, in_out, together
from roomy_hull.studies.fit import judge as fit_judge
from roomy_hull.studies.fit import moving as moving_judge
from roomy_hull.studies.loads import axles
from roomy_hull.studies.loads import judge as loads_judge
from roomy_hull.studies.outline import judge as outline_judge
from roomy_hull.studies.outline import outline as outlines

if TYPE_CHECKING:
    from roomy_hull.studies.loads.carrying import Carrying

BODY = ""
"""Under this key stand the findings on the body's own parts."""


def _tally(findings: list[Finding]) -> dict[tuple[str, str], int]:
    """Count open findings by weight and stage, and by weight alone (under no stage)."""
    found: dict[tuple[str, str], int] = {}
    for f in findings:
        if not f.accepted:
            for key in ((f.weight, f.stage), (f.weight, "")):
                found[key] = found.get(key, 0) + 1
    return found


class Verdict(msgspec.Struct, frozen=True):
    """The findings of all studies on one job, and the results they rest on."""

    job: Job
    assembly: Assembly
    fit: closed.FitResult
    together: together.Togetherness
    in_out: in_out.InOut
    loads: axles.LoadResult
    carrying: "Carrying | None"
    outline: outlines.Outline
    making: dict[str, tuple[Finding, ...]]
    findings: tuple[Finding, ...]
    tally: dict[tuple[str, str], int]

    def open_findings(self) -> tuple[Finding, ...]:
        """Give the findings that nobody accepted."""
        return tuple(f for f in self.findings if not f.accepted)

    def count(self, weight: str, stage: str = "") -> int:
        """Count open findings of one weight, in one stage or in all."""
        return self.tally.get((weight, stage), 0)


def judge(job: Job, previous: Verdict | None = None, *, opens: bool = True) -> Verdict:
    """Judge a job.

    Parameters
    ----------
    job : Job
        The job.
    previous : Verdict or None
        A verdict on an earlier value of the same job, to reuse what did not change. Only a
        memory, it never alters the result.
    opens : bool
        Whether what opens and what carries is judged too; without, for a first quick look that is made
        whole at once.

    Returns
    -------
    Verdict
        Assembly, results and findings, the weightiest first.
    """
    assembly = assemble(job, previous.assembly if previous else None, opens=opens)
    memory = (previous.assembly, previous.fit) if previous else None
    fit = closed.study(assembly, memory)
    moving = together.study(assembly, previous.together if previous else None)
    loads = axles.study(assembly, (previous.assembly, previous.loads) if previous else None)
    sags = tuple((s.name, s.stance.front_sag, s.stance.rear_sag) for s in loads.scenarios)
    outline = outlines.study(assembly, sags)
    carries = None
    if opens:
        from roomy_hull.studies.loads import (
            carrying,
        )  # read when wanted: the window opens the sooner

        known = previous.carrying if previous is not None else None
        carries = carrying.study(
            assembly, loads, (previous.assembly, known) if previous is not None and known else None
        )
    blocked = in_out.study(assembly, previous.in_out if previous else None)
    found = fit_judge.judge(assembly, fit)
    if opens:
        found += moving_judge.judge(assembly, moving, blocked, fit)
    found += loads_judge.judge(assembly, loads)
    if carries is not None:
        from roomy_hull.studies.loads import carrying_judge  # as above

        found += carrying_judge.judge(assembly, loads, carries)
    found += outline_judge.judge(assembly, outline)
    making = _making(assembly, previous)
    for flaws in making.values():
        found += flaws
    found += _file_notes(job)
    if job.accepted:
        found = [_with_acceptance(job, f) for f in found]
    found.sort(key=lambda f: WEIGHT_ORDER[f.weight])
    return Verdict(
        job,
        assembly,
        fit,
        moving,
        blocked,
        loads,
        carries,
        outline,
        making,
        tuple(found),
        _tally(found),
    )


def fixes(verdict: Verdict, finding: Finding) -> tuple[Fix, ...]:
    """Compute the remedies of one finding; done when somebody asks, since a drag makes many.

    Parameters
    ----------
    verdict : Verdict
        The verdict that found it.
    finding : Finding
        One of its findings.

    Returns
    -------
    tuple of Fix
        What can be set; empty where nothing by itself would help.
    """
    from roomy_hull.studies.loads import carrying_judge  # as above

    return (
        fit_judge.fixes(verdict.assembly, finding)
        + moving_judge.fixes(verdict.assembly, verdict.together, finding)
        + outline_judge.fixes(verdict.assembly, finding)
        + carrying_judge.fixes(verdict.assembly, finding)
    )


def _making(assembly: Assembly, previous: Verdict | None) -> dict[str, tuple[Finding, ...]]:
    """Judge the making of body and things; what did not change is taken from before."""
    found: dict[str, tuple[Finding, ...]] = {}
    known = {t.id: t for t in previous.assembly.things} if previous else {}
    if previous is not None and previous.assembly.ground is assembly.ground:
        found[BODY] = previous.making[BODY]
    else:
        found[BODY] = making_judge.judge(assembly.ground.parts)
    for thing in assembly.things:
        before = known.get(thing.id)
        if previous is not None and before is not None and before.expansion is thing.expansion:
            found[thing.id] = previous.making[thing.id]
        else:
            found[thing.id] = making_judge.judge(thing.expansion.parts)
    return found


def _with_acceptance(job: Job, finding: Finding) -> Finding:
    """Mark a *look* as accepted where the job records it; a stop cannot be."""
    if finding.weight != "look":
        return finding
    for record in job.accepted:
        if (record.code, record.subjects, record.scenario) == finding.key:
            words = f"{record.reason} ({record.initials})"
            return msgspec.structs.replace(finding, accepted=words)
    return finding


_notes: dict[int, tuple[object, list[str]]] = {}


def _file_notes(job: Job) -> list[Finding]:
    """Note fields of the file that this version does not know; they are kept."""
    paths = list(job.extra)
    for part in (job.vehicle, job.body, *job.units, *job.carried, *job.scenarios):
        paths += [f"{type(part).__name__.lower()} {_name(part)}: {p}" for p in _unknown(part)]
    return [
        Finding("file.unknown", "note", f"The file's field '{path}' is not known; it is kept",
                (path,), source="docs/formats.md", stage="Survey")
        for path in paths
    ]  # fmt: skip


def _name(part: object) -> str:
    """Give a part's id, else its name, else nothing."""
    return str(getattr(part, "id", getattr(part, "name", "")))


def _unknown(part: object) -> list[str]:
    """List a part's unknown fields, remembered by identity since parts are shared and frozen."""
    known = _notes.get(id(part))
    if known is None or known[0] is not part:
        if len(_notes) > 4000:
            _notes.clear()
        known = (part, list(unknown_fields(part)))
        _notes[id(part)] = known
    return known[1]
