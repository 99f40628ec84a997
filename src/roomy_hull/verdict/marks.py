"""What files of a judged job say of themselves."""

from roomy_hull.making.marking import Marking, marking_of
from roomy_hull.making.works import works_of
from roomy_hull.planning.as_built import owners
from roomy_hull.verdict.verdict import Verdict


def marking_now(verdict: Verdict) -> Marking:
    """What files of a job as it stands say of themselves: its release, what has changed since, how many stops are open."""
    assembly = verdict.assembly
    stops = sum(f.severity == "stop" for f in verdict.findings)
    return marking_of(
        verdict.job, works_of(assembly), assembly.shop.prices, owners(verdict.job), stops
    )
