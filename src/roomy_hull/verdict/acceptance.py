"""Acceptances: a *look* that somebody took upon themselves, held against what is measured now."""

import msgspec

from roomy_hull.core.findings import Finding
from roomy_hull.job.model import Acceptance, Job

SHOWN = 0.05
"""Figures are shown to a tenth: what changes by less is no worse."""


def with_acceptance(job: Job, finding: Finding) -> Finding:
    """Mark a *look* as accepted where the job records it and it is no worse by now; a stop cannot be."""
    if finding.accepted or finding.reopened:
        finding = msgspec.structs.replace(finding, accepted="", reopened="")
    if finding.severity != "look":
        return finding
    for record in reversed(job.accepted):
        if (record.code, record.subjects, record.scenario) == (
            finding.code, finding.words, finding.scenario,
        ):  # fmt: skip
            why = worse_than(record, finding)
            if why:
                told = f"{said(record)}; open again: {why}"
                return msgspec.structs.replace(finding, reopened=told)
            return msgspec.structs.replace(finding, accepted=said(record))
    return finding


def said(record: Acceptance) -> str:
    """An acceptance in words: why, by whom, when, at what figure."""
    words = [record.initials, *([record.day] if record.day else [])]
    if record.measured is not None:
        of = f" of {record.limit:,.1f}" if record.limit is not None else ""
        words.append(f"at {record.measured:,.1f}{of} {record.unit}".rstrip())
    return f"{record.reason} ({', '.join(words)})"


def worse_than(record: Acceptance, finding: Finding) -> str:
    """Why an acceptance does not hold for a finding as it is now; empty where it does.

    Returns:
        That the figure is worse than it was then by more than its own uncertainty, or its limit another. A record
        without a day and with a figure is one of an older file: any other figure opens it again.
    """
    if record.measured is None or finding.measured is None:
        return ""
    if record.unit != finding.unit or (record.limit is None) != (finding.limit is None):
        return "it is measured otherwise now"
    if finding.limit is not None and abs(finding.limit - (record.limit or 0.0)) > SHOWN:
        return f"the limit is {finding.limit:,.1f} {finding.unit} now"
    change = finding.measured - record.measured
    rising = finding.rising
    if rising is None and finding.limit is not None:
        rising = finding.measured >= finding.limit
    by = abs(change) if rising is None or not record.day else change if rising else -change
    if by > max(SHOWN, finding.uncertainty if record.day else 0.0):
        return f"{finding.measured:,.1f} {finding.unit} by now"
    return ""


def with_figures(findings: tuple[Finding, ...], job: Job) -> Job:
    """A job whose acceptances of older files have the figures that were measured: then it is seen when these change.

    Args:
        findings: On the job as it was before a step.
        job: As it is after it.
    Returns: The same where there are none.
    """
    known = {(f.code, f.words, f.scenario): f for f in findings if f.measured is not None}

    def measured(a: Acceptance) -> Acceptance:
        found = known.get((a.code, a.subjects, a.scenario))
        if a.day or a.measured is not None or found is None:
            return a
        return msgspec.structs.replace(
            a, measured=found.measured, limit=found.limit, unit=found.unit
        )

    rows = tuple(map(measured, job.accepted))
    same = all(a is b for a, b in zip(rows, job.accepted, strict=True))
    return job if same else msgspec.structs.replace(job, accepted=rows)
