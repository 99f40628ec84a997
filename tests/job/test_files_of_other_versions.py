import json
from pathlib import Path

import pytest

from roomy_hull.core.errors import JobFileError
from roomy_hull.core.value import unknown_fields
from roomy_hull.formats.jobfile import dumps, load, loads
from roomy_hull.job.migrations import STEPS, to_newest
from roomy_hull.job.model import VERSION, Job

SAMPLES = sorted((Path(__file__).parent.parent / "samples").glob("*.hull.json"))


@pytest.mark.parametrize("path", SAMPLES, ids=lambda p: p.name)
def test_every_sample_opens(path: Path) -> None:
    job = load(path)
    assert loads(dumps(job)) == job


def test_there_is_a_sample_for_every_version() -> None:
    versions = {json.loads(p.read_text())["version"] for p in SAMPLES}
    assert versions == set(range(1, VERSION + 1))
    assert set(STEPS) == set(range(1, VERSION))


def test_steps_are_applied_in_turn() -> None:
    steps = {1: lambda raw: {**raw, "a": 1}, 2: lambda raw: {**raw, "b": raw["a"] + 1}}
    new = to_newest({"version": 1}, steps, newest=3)
    assert new == {"version": 3, "a": 1, "b": 2}
    with pytest.raises(JobFileError, match="no way from version 3"):
        to_newest({"version": 1}, steps, newest=4)


@pytest.mark.parametrize("version", [None, "1", 0, -3, True, 1.5])
def test_a_version_that_is_none_is_refused(version: object) -> None:
    with pytest.raises(JobFileError, match="whole number"):
        to_newest({"version": version})


def test_a_newer_file_asks_for_a_newer_program() -> None:
    with pytest.raises(JobFileError, match="newer Roomy Hull"):
        to_newest({"version": VERSION + 1})


def test_unknown_fields_survive_everywhere(demo: Job) -> None:
    raw = json.loads(dumps(demo))
    raw["later"] = {"x": [1, {"y": None}]}
    raw["vehicle"]["colour"] = "sand"
    raw["body"]["canopy"]["doors"][1]["window"] = True
    raw["units"][4]["felt"] = "grey"
    raw["scenarios"][0]["weather"] = "wet"
    job = loads(json.dumps(raw).encode())
    again = json.loads(dumps(job))
    assert again == raw
    assert set(unknown_fields(job)) == {
        "later", "vehicle.colour", "body.canopy.doors[1].window", "units[4].felt",
        "scenarios[0].weather",
    }  # fmt: skip


def test_a_field_called_extra_is_a_field_like_any_other(demo: Job) -> None:
    raw = json.loads(dumps(demo))
    raw["units"][0]["extra"] = "long"
    assert json.loads(dumps(loads(json.dumps(raw).encode()))) == raw
