"""What is planted beside a job leads nowhere."""

import json
import os
from pathlib import Path

import pytest
from tests.session.jobs_on_disk import opened, path, renamed

from roomy_hull.core.errors import JobFileError
from roomy_hull.formats import jobfile
from roomy_hull.formats.atomic import write_whole
from roomy_hull.formats.locks import Lock
from roomy_hull.formats.photos import brought_along, folder_of
from roomy_hull.job.model import Job
from roomy_hull.session.files import (
    let_go,
    save_job,
)
from roomy_hull.verdict.verdict import Verdict

__all__ = ["path"]  # a fixture

NAMES = (".{}.open", ".{}.saving", "{}.previous")


@pytest.mark.parametrize("name", NAMES)
@pytest.mark.parametrize("sort", ["symbolic", "dangling", "hard", "pipe", "folder"])
def test_what_is_planted_beside_a_job_leads_nowhere(
    name: str, sort: str, path: Path, demo: Job, demo_verdict: Verdict, tmp_path: Path
) -> None:
    victim = tmp_path / "victim"
    victim.write_text("precious")
    planted = path.with_name(name.format(path.name))
    if sort == "symbolic":
        planted.symlink_to(victim)
    elif sort == "dangling":
        planted.symlink_to(tmp_path / "not-there")
    elif sort == "hard":
        os.link(victim, planted)
    elif sort == "pipe":
        os.mkfifo(planted)
    else:
        planted.mkdir()
    session = opened(path, demo, demo_verdict, "a")
    renamed(session, "tools", "by A")
    if sort == "folder" and name.endswith("previous"):
        # In the way of the kept version it is told.
        with pytest.raises(JobFileError, match="cannot be written"):
            save_job(session, path)
    else:
        save_job(session, path)
        assert jobfile.load(path).thing("tools").name == "by A"  # type: ignore[union-attr]
    let_go(session)
    assert victim.read_text() == "precious"
    assert not (tmp_path / "not-there").exists()


def test_a_job_named_by_a_link_is_written_where_it_leads(
    path: Path, demo: Job, demo_verdict: Verdict, tmp_path: Path
) -> None:
    link = tmp_path / "link.hull.json"
    link.symlink_to(path)
    session = opened(link, demo, demo_verdict, "a")
    renamed(session, "tools", "by A")
    save_job(session, link)
    assert link.is_symlink()
    assert jobfile.load(path).thing("tools").name == "by A"  # type: ignore[union-attr]


def test_a_claim_that_somebody_else_left_in_a_shared_folder_is_taken_over(tmp_path: Path) -> None:
    kept = tmp_path / "c"
    kept.write_text(json.dumps({"user": "x", "machine": "y", "since": 1.7e9}))
    kept.chmod(0o444)
    one = Lock(kept)
    assert one.take() is None
    assert one.held
    assert one.left is not None
    assert one.left.user == "x"
    other = Lock(kept).take()
    assert other is not None
    assert other.user != "x"
    one.give_up()


def test_files_of_a_folder_are_never_written_through_links(tmp_path: Path) -> None:
    victim = tmp_path / "victim"
    victim.write_text("precious")
    out = tmp_path / "out"
    out.mkdir()
    (out / "parts.csv").symlink_to(victim)
    write_whole(out / "parts.csv", b"ours")
    assert victim.read_text() == "precious"
    assert (out / "parts.csv").read_bytes() == b"ours"
    assert not (out / "parts.csv").is_symlink()


def test_links_in_a_folder_of_photos_are_not_copied_out(tmp_path: Path) -> None:
    secret = tmp_path / "secret.jpg"
    secret.write_bytes(b"\xff\xd8\xff secret")
    old, new = tmp_path / "a.hull.json", tmp_path / "there" / "b.hull.json"
    folder_of(old).mkdir()
    (folder_of(old) / "x.jpg").symlink_to(secret)
    (folder_of(old) / "y.jpg").write_bytes(b"\xff\xd8\xff plain")
    assert brought_along(old, new, ("x.jpg", "y.jpg")) == ("x.jpg",)
    assert [p.name for p in folder_of(new).iterdir()] == ["y.jpg"]
    elsewhere = tmp_path / "elsewhere"
    elsewhere.mkdir()
    third = tmp_path / "c.hull.json"
    folder_of(third).symlink_to(elsewhere)
    assert brought_along(old, third, ("y.jpg",)) == ("y.jpg",)
    assert list(elsewhere.iterdir()) == []
