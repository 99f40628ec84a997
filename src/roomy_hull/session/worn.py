"""What is seen of a job in the chosen scenario's set-up."""

import functools

from roomy_hull.job.edits.setups import absent, setup_of
from roomy_hull.session.session import Session
from roomy_hull.verdict.verdict import Verdict


@functools.lru_cache(maxsize=2)
def _within(verdict: Verdict, key: str) -> Verdict:
    """Kept, so that a page that is filled anew finds the very same."""
    return verdict.within(key)


def in_setup(session: Session) -> Verdict:
    """The verdict as the chosen scenario's set-up has it: what is off is not there."""
    key = session.scenario().setup
    return _within(session.known, key) if key else session.known


def off(session: Session) -> frozenset[str]:
    """Ids of what the chosen scenario's set-up leaves off."""
    setup = setup_of(session.job, session.scenario())
    return frozenset() if setup is None else absent(session.job, setup)
