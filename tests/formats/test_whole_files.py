"""Files written whole: links, rights, what is kept, what kills leave behind, and who has a file in hand."""

import json
import os
import random
import signal
import stat
import subprocess
import sys
import time
from pathlib import Path

import pytest

from roomy_hull.core.errors import JobFileError
from roomy_hull.formats import atomic
from roomy_hull.formats.atomic import free_name, read_whole, write_whole
from roomy_hull.formats.locks import Lock


def test_a_link_stays_a_link_and_what_it_leads_to_is_written(tmp_path: Path) -> None:
    real, link = tmp_path / "real" / "job.json", tmp_path / "link.json"
    real.parent.mkdir()
    real.write_text("old")
    link.symlink_to(real)
    write_whole(link, b"new", keep=True, named=True)
    assert link.is_symlink()
    assert real.read_text() == "new"
    assert real.with_name("job.json.previous").read_text() == "old"
    assert sorted(p.name for p in tmp_path.iterdir()) == ["link.json", "real"]


def test_a_read_only_file_is_not_replaced(tmp_path: Path) -> None:
    path = tmp_path / "job.json"
    path.write_text("old")
    path.chmod(0o444)
    with pytest.raises(JobFileError, match="read-only"):
        write_whole(path, b"new")
    assert path.read_text() == "old"
    assert list(tmp_path.iterdir()) == [path]


def test_rights_are_those_of_the_mask_or_of_the_file_that_was_there(tmp_path: Path) -> None:
    before = os.umask(0o027)
    try:
        write_whole(tmp_path / "new.json", b"1")
        (tmp_path / "old.json").write_text("1")
        (tmp_path / "old.json").chmod(0o600)
        write_whole(tmp_path / "old.json", b"2")
    finally:
        os.umask(before)
    assert stat.S_IMODE((tmp_path / "new.json").stat().st_mode) == 0o640
    assert stat.S_IMODE((tmp_path / "old.json").stat().st_mode) == 0o600


def test_the_kept_version_is_there_at_every_instant(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path, kept = tmp_path / "job.json", tmp_path / "job.json.previous"
    for text in (b"1", b"2", b"3"):
        write_whole(path, text, keep=True)
    seen: list[str] = []
    for name in ("link", "replace", "unlink"):
        real = getattr(os, name)

        def watched(*args: object, _real: object = real, **more: object) -> object:
            seen.append(kept.read_text())
            found = _real(*args, **more)  # type: ignore[operator]
            seen.append(kept.read_text())
            return found

        monkeypatch.setattr(atomic.os, name, watched)  # type: ignore[attr-defined]
    write_whole(path, b"4", keep=True)
    assert set(seen) == {"2", "3"}
    assert (path.read_text(), kept.read_text()) == ("4", "3")


def test_where_there_are_no_links_the_kept_version_is_a_copy(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    def refuse(*_args: object) -> None:
        raise OSError(1, "Operation not permitted")

    monkeypatch.setattr(atomic.os, "link", refuse)  # type: ignore[attr-defined]
    path = tmp_path / "job.json"
    write_whole(path, b"1", keep=True)
    write_whole(path, b"2", keep=True)
    assert (tmp_path / "job.json.previous").read_text() == "1"
    assert len(list(tmp_path.iterdir())) == 2


@pytest.mark.parametrize("kind", ["folder", "pipe", "device", "large"])
def test_what_is_no_file_of_ours_is_refused_unread(tmp_path: Path, kind: str) -> None:
    path = tmp_path / "x.json"
    if kind == "folder":
        path.mkdir()
    elif kind == "pipe":
        os.mkfifo(path)  # reading it would wait for ever
    elif kind == "device":
        path = Path("/dev/zero")  # reading it would never end
    else:
        with path.open("wb") as file:
            file.truncate(3_000_000_000)  # three gigabytes that hold nothing
    start = time.monotonic()
    with pytest.raises(JobFileError, match=r"folder|plain file|too large"):
        read_whole(path)
    assert time.monotonic() - start < 1
    with pytest.raises(JobFileError, match="no file's name"):
        read_whole(Path("a\0b"))


def test_a_free_name_keeps_the_endings(tmp_path: Path) -> None:
    path = tmp_path / "ute.hull.json"
    assert free_name(path) == path
    path.touch()
    assert free_name(path).name == "ute-2.hull.json"
    (tmp_path / "ute-2.hull.json").touch()
    assert free_name(path).name == "ute-3.hull.json"


WRITER = """
import sys
from pathlib import Path
from roomy_hull.formats.atomic import write_whole
path = Path(sys.argv[1])
n = int(sys.argv[2])
while True:
    n += 1
    write_whole(path, (f"{n:08d} " * 20000).encode(), keep=True)
"""


def test_after_every_kill_the_file_is_whole_and_nothing_is_left_after_the_next_write(
    tmp_path: Path,
) -> None:
    # A short form of bench/kills.py, which does it ten thousand times.
    path = tmp_path / "job.json"
    rng = random.Random(5)
    write_whole(path, ("00000000 " * 20000).encode(), keep=True)
    write_whole(path, ("00000000 " * 20000).encode(), keep=True)
    for _ in range(12):
        began = int(path.read_text()[:8])
        writer = subprocess.Popen([sys.executable, "-c", WRITER, str(path), str(began)])
        time.sleep(0.15 + rng.random() * 0.15)
        writer.send_signal(signal.SIGKILL)
        writer.wait()
        for file in (path, path.with_name("job.json.previous")):
            text = file.read_text()
            assert text == text[:9] * 20000
        assert int(path.read_text()[:8]) >= began
    write_whole(path, b"done", keep=True)
    assert sorted(p.name for p in tmp_path.iterdir()) == ["job.json", "job.json.previous"]


def test_a_claim_names_its_holder_and_ends_with_its_process(tmp_path: Path) -> None:
    path = tmp_path / "ute.hull.json"
    code = (
        "import sys, time\nfrom pathlib import Path\nfrom roomy_hull.formats.locks import Lock\n"
        "c = Lock.to(Path(sys.argv[1]))\nprint(c.take(), flush=True)\ntime.sleep(60)\n"
    )
    other = subprocess.Popen(
        [sys.executable, "-c", code, str(path)], stdout=subprocess.PIPE, text=True,
        env={**os.environ, "LOGNAME": "anna"},
    )  # fmt: skip
    assert other.stdout is not None
    assert other.stdout.readline().strip() == "None"
    mine = Lock.to(path)
    holder = mine.take()
    assert holder is not None
    assert holder.user == "anna"
    assert holder.words().startswith(f"anna on {atomic.host()}, since ")
    assert mine.holder() == holder
    other.kill()
    other.wait()
    other.stdout.close()
    # A stale claim is nobody's.
    assert mine.holder() is None
    assert mine.take() is None
    assert mine.held
    assert json.loads(mine.path.read_text())["machine"] == atomic.host()
    mine.give_up()
    assert list(tmp_path.iterdir()) == []
    mine.give_up()


def test_a_damaged_claim_has_some_holder(tmp_path: Path) -> None:
    first, second = Lock(tmp_path / "c"), Lock(tmp_path / "c")
    assert first.take() is None
    (tmp_path / "c").write_text('{"since": 1e999}')
    holder = second.take()
    assert holder is not None
    assert "somebody" in holder.words()
    assert Lock(tmp_path / "nowhere" / "c").take() is None
    first.give_up()
