import json
import os
from pathlib import Path

import pytest

from roomy_hull.core.errors import JobFileError
from roomy_hull.formats import jobfile
from roomy_hull.formats.settings import RECENT_LIMIT, Settings
from roomy_hull.job.edits import units as edits
from roomy_hull.job.model import Job


def test_folders_follow_the_desktop_standard(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path / "c"))
    monkeypatch.delenv("XDG_STATE_HOME", raising=False)
    monkeypatch.setenv("HOME", str(tmp_path))
    found = Settings()
    assert found.config == tmp_path / "c" / "roomy-hull"
    assert found.state == tmp_path / ".local" / "state" / "roomy-hull"


def test_preferences_merge_and_damage_counts_as_none(keeping: Settings) -> None:
    assert keeping.preferences() == {}
    keeping.keep_preferences(dark=True)
    keeping.keep_preferences(system="us")
    assert keeping.preferences() == {"dark": True, "system": "us"}
    (keeping.config / "preferences.json").write_text("{oops")
    assert keeping.preferences() == {}
    (keeping.config / "preferences.json").write_text("[1]")
    assert keeping.preferences() == {}


def test_recent_jobs_are_the_newest_that_exist(
    keeping: Settings, tmp_path: Path, demo: Job
) -> None:
    paths = [tmp_path / f"{n}.hull.json" for n in range(RECENT_LIMIT + 3)]
    for path in paths:
        jobfile.save(demo, path)
        keeping.add_recent(path)
    keeping.add_recent(paths[5])
    assert keeping.recent()[0] == paths[5]
    assert len(keeping.recent()) == RECENT_LIMIT
    paths[5].unlink()
    assert paths[5] not in keeping.recent()


def left_by_a_dead_process(keeping: Settings, job: Job, path: Path | None) -> None:
    """What an interrupted run leaves: an autosave of a process that is gone."""
    keeping.autosave(job, path)
    own = next(keeping.state.glob("autosave-*.json"))
    frame = json.loads(own.read_text())
    frame["pid"] = 2**22 + 12345
    own.with_name("autosave-old.json").write_text(json.dumps(frame))
    own.unlink()


def test_work_of_a_run_that_died_is_recovered_whole(
    keeping: Settings, tmp_path: Path, demo: Job
) -> None:
    job = edits.changed(demo, "tools", u=500.0)
    left_by_a_dead_process(keeping, job, tmp_path / "j.hull.json")
    found = keeping.left_behind()
    assert [(r.name, r.path) for r in found] == [(job.name, tmp_path / "j.hull.json")]
    assert keeping.recover(found[0]) == job
    keeping.discard(found[0])
    assert keeping.left_behind() == []


def test_work_of_runs_that_go_on_is_left_alone(keeping: Settings, demo: Job) -> None:
    keeping.autosave(demo, None)
    other = Settings(keeping.config, keeping.state)
    assert other.left_behind() == []
    assert os.getpid() in [json.loads(p.read_text())["pid"] for p in keeping.state.glob("*.json")]
    keeping.drop_autosave()
    keeping.drop_autosave()
    assert list(keeping.state.glob("*.json")) == []


def test_damaged_autosaves_are_passed_over_or_told(keeping: Settings, demo: Job) -> None:
    left_by_a_dead_process(keeping, demo, None)
    (keeping.state / "autosave-broken.json").write_text("{")
    (keeping.state / "autosave-strange.json").write_text('{"pid": "x"}')
    found = keeping.left_behind()
    assert len(found) == 1
    assert found[0].path is None
    found[0].file.write_text(json.dumps({"job": {"format": "other"}}))
    with pytest.raises(JobFileError):
        keeping.recover(found[0])
    found[0].file.write_text("{")
    with pytest.raises(JobFileError, match="ends too early"):
        keeping.recover(found[0])
    # What is no autosave is given another name, and told.
    assert sorted(p.name for p in keeping.state.glob("*.damaged")) == [
        "autosave-broken.json.damaged", "autosave-strange.json.damaged",
    ]  # fmt: skip
    assert len(keeping.troubles) == 2
