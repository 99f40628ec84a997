"""What a job refuses on one path, it refuses on the others: in its file, in the window's fields, by a command."""

import copy
import json
import random
from pathlib import Path

import pytest

from roomy_hull.cli.main import main
from roomy_hull.core.errors import UserError
from roomy_hull.formats import jobfile
from roomy_hull.formats.demo import DEMOS, demo_job
from roomy_hull.formats.settings import Settings
from roomy_hull.formats.workshop import built
from roomy_hull.job.edits import building, units
from roomy_hull.job.edits.resizing import set_at
from roomy_hull.job.model import Job
from roomy_hull.session.session import Session
from roomy_hull.verdict.gates import gate
from roomy_hull.verdict.verdict import judge
from tests.properties.test_damaged_jobs import WRONG, leaves, put
from tests.session.test_building import does
from tests.sweeping import examples
from tests.test_cli import Recorder, recorder

__all__ = ["recorder"]


@pytest.mark.parametrize("seed", range(4))
def test_a_file_and_a_field_take_and_refuse_the_same_values(seed: int) -> None:
    rng = random.Random(seed)
    jobs = {key: demo_job(key) for key in DEMOS}
    taken = refused = 0
    for _ in range(examples(100, 40)):
        job = rng.choice(list(jobs.values()))
        frame = json.loads(jobfile.dumps(job))
        at = rng.choice([
            p for p in leaves(frame) if p[0] not in ("format", "version", "written_by")
        ])
        was = frame
        for step in at:
            was = was[step]
        figures = isinstance(was, int | float) and not isinstance(was, bool)
        value = rng.choice([*WRONG, *((was * f for f in (-1, 0.5, 1.1, 100)) if figures else ())])
        changed = copy.deepcopy(frame)
        put(changed, at, value)
        found: list[Job | None] = []
        for path in ("file", "field"):
            try:
                found.append(
                    jobfile.loads(json.dumps(changed).encode())
                    if path == "file"
                    else set_at(job, ".".join(map(str, at)), value)
                )
            except UserError:
                found.append(None)
        assert (found[0] is None) == (found[1] is None), (at, value)
        assert found[0] == found[1], (at, value)
        taken += found[0] is not None
        refused += found[0] is None
    assert taken
    assert refused


def failed(job: Job) -> Job:
    """The job with its first check failed."""
    check = built(judge(job)).checks[0]
    wrong = building.entry(
        "2027-02-02T10:00:00", "AB", kind="check", about=check.key, result="failed"
    )
    return building.logged(job, wrong)


CASES = {
    "sound": lambda job: job,
    "stops": lambda job: units.changed(job, "sample-fridge", u=75.0),
    "failed": failed,
}


@pytest.mark.parametrize("case", CASES)
def test_window_and_command_write_release_and_hand_over_the_same_jobs(
    case: str, demo: Job, tmp_path: Path, keeping: Settings, recorder: Recorder,
    capsys: pytest.CaptureFixture[str],
) -> None:  # fmt: skip
    job = CASES[case](demo)
    verdict = judge(job)
    bars = {
        "cut": gate("cut", verdict).bars, "release": gate("release", verdict).bars,
        "pack": gate("pack", verdict, built(verdict)).bars,
    }  # fmt: skip
    assert bool(bars["cut"]) == bool(bars["release"]) == (case == "stops")
    assert bool(bars["pack"]) == (case != "sound")
    path = tmp_path / "job.hull.json"
    for act, args in (
        ("cut", ("--out", str(tmp_path / "cut"))), ("release", ("--by", "AB")), ("pack", ("--out", str(tmp_path))),
    ):  # fmt: skip
        jobfile.save(job, path)
        code = main([act, str(path), *args], recorder.desktop())
        said = capsys.readouterr().err
        assert code == (1 if bars[act] else 0), act
        assert all(b in said for b in bars[act])
    for act, key in (("cut", "job.cut"), ("cut", "making.solids"), ("pack", "build.pack")):
        session = Session(job, keeping)
        told = does(session, key, path=tmp_path / "never")
        # Without a yes nothing is written where something forbids it.
        assert bool(told.written) != bool(bars[act]), key
        assert all(any(b in a for a in told.asked) for b in bars[act])
    session = Session(job, keeping)
    does(session, "making.release", "AB")
    assert (len(session.job.releases) > len(job.releases)) != bool(bars["release"])
    told = does(session, "build.hand_over", "AB", agrees=True)
    assert any(e.kind == "handed over" for e in session.job.log) != bool(bars["pack"])
