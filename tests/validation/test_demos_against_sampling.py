"""The demo jobs' whole together tables against fine sampling with FCL (see bench/sampling.py)."""

import pytest
from tests.builders import context

from roomy_hull.assembly.assemble import assemble
from roomy_hull.core.geometry.motion import MARGIN
from roomy_hull.formats.demo import demo_job
from roomy_hull.job.edits import units as edits
from roomy_hull.job.edits.resizing import resized
from roomy_hull.job.model import Job
from roomy_hull.studies.fit import together
from sampling import clashes


def changed(name: str) -> Job:
    """A demo job, or one of its odd sisters."""
    if name == "hinged":
        job = resized(demo_job(), "body.canopy.doors.right.hinge", "start")
        job = resized(job, "body.canopy.doors.left.split", 330.0)
        return edits.changed(
            edits.mirrored(job, "shower"), "sample-fridge", hinge="right", slide_style="plain"
        )
    return demo_job(name)


@pytest.mark.parametrize("name", ["brackwater", "lowfold", "tarn", "hinged"])
def test_no_clash_is_missed_and_none_invented(name: str) -> None:
    assembly = assemble(changed(name))
    found = together.study(context(assembly))
    closed, opened = clashes(assembly, 36)
    for theirs, ours in ((closed, found.shut), (opened, found.opened)):
        mine = {p for p, m in ours.items() if m.clashes}
        assert theirs <= mine, theirs - mine
        for pair in mine - theirs:
            # Seen by us alone: no deeper than the margin and what lies between two samples.
            assert -ours[pair].gap < MARGIN + 12, (pair, ours[pair].gap)
