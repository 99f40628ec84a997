"""Showing a finding: one stands where it is seen, and what it concerns is selected."""

from roomy_hull.core.findings import Finding
from roomy_hull.session.pages.table import facing
from roomy_hull.session.session import Session


def show_finding(session: Session, finding: Finding | None) -> None:
    """Turn to where a finding is and select its first subject."""
    key = ""
    if finding is not None and finding.subjects:
        first = finding.subjects[0]
        key = first.id if first.is_thing and session.job.thing(first.id) is not None else ""
    session.selection.finding = finding
    if finding is not None:
        session.view.set(**facing(finding, session.known.assembly, session.look))
    session.selection.show(finding, key)
