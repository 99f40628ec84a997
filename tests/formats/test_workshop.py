"""The workshop's folder: the board, one plan of all its jobs, and two writers on one folder."""

import itertools
import json
import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import msgspec
import pytest

from roomy_hull.core.errors import FileError, JobFileError
from roomy_hull.formats import jobfile, shopfile, workshop
from roomy_hull.formats.atomic import alone, read_whole, write_whole
from roomy_hull.formats.demo import demo_job
from roomy_hull.formats.locks import Lock
from roomy_hull.formats.workshop import Memory, board_of, next_step, stage_of
from roomy_hull.job.edits import building as edits
from roomy_hull.job.model import Job
from roomy_hull.planning.plan import build_of
from roomy_hull.shop.shop import shipped_shop
from roomy_hull.verdict.verdict import judge


def here(job: Job, day: str) -> Job:
    """A job for which everything was received on a day."""
    at = f"{day}T08:00:00"
    build = build_of(judge(job).context())
    return edits.logged(
        job, *(edits.entry(at, "AB", kind="received", about=p.key) for p in build.buying)
    )


@pytest.fixture(scope="module")
def folder(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """Three jobs on the same people: two pickups due on the same day, and a wagon that nobody has begun."""
    found = tmp_path_factory.mktemp("workshop")
    for name, due in (("first", "2027-02-05"), ("second", "2027-02-05")):
        job = edits.planned(demo_job("lowfold"), begin="2027-02-01", due=due)
        jobfile.save(
            here(msgspec.structs.replace(job, name=name.capitalize()), "2027-02-01"),
            found / f"{name}.hull.json",
        )
    jobfile.save(demo_job("tarn"), found / "tarn.hull.json")
    return found


def test_the_board_says_what_is_late_and_who_is_in_the_way(folder: Path) -> None:
    board = board_of(folder, shipped_shop())
    cards = {c.name: c for c in board.cards}
    assert set(cards) == {"First", "Second", "Tarn Seed Bank"}
    assert board.plan is not None
    alone_end = build_of(judge(jobfile.load(folder / "first.hull.json")).context()).end
    both = [cards["First"], cards["Second"]]
    # Together they take longer than each alone, and whoever waits is told for whom.
    assert max(c.ready for c in both if c.ready is not None) > alone_end
    late = [c for c in both if c.late > 0]
    assert late
    assert all(c.because for c in late)
    assert any("people and stations are at" in c.because for c in late)
    assert cards["Tarn Seed Bank"].step == "begin its plan"
    assert cards["Tarn Seed Bank"].ready is None
    for job, work in (("first.hull.json", "First"), ("second.hull.json", "Second")):
        assert board.plan.end(job) == cards[work].ready
    # Nobody is at two jobs at once.
    rows = sorted(
        (p, one.start, one.finish)
        for one in board.plan.levelled.placed.values()
        for p in one.people
    )
    assert all(a[0] != b[0] or a[2] <= b[1] for a, b in itertools.pairwise(rows))


def test_rank_decides_who_waits(folder: Path, tmp_path: Path) -> None:
    for name, rank in (("first", 9), ("second", 1)):
        job = edits.planned(jobfile.load(folder / f"{name}.hull.json"), rank=rank)
        jobfile.save(job, tmp_path / f"{name}.hull.json")
    cards = {c.name: c for c in board_of(tmp_path, shipped_shop(), rounds=20).cards}
    assert cards["Second"].late <= cards["First"].late


def test_jobs_that_did_not_change_are_not_judged_again(folder: Path) -> None:
    memory: Memory = {}
    shop = shipped_shop()
    board_of(folder, shop, memory)
    before = {p: v[1] for p, v in memory.items()}
    assert board_of(folder, shop, memory).cards
    assert all(memory[p][1] is v for p, v in before.items())


def test_a_damaged_job_is_named_and_the_others_stand(folder: Path, tmp_path: Path) -> None:
    for file in folder.glob("*.hull.json"):
        write_whole(tmp_path / file.name, read_whole(file))
    (tmp_path / "broken.hull.json").write_text('{"format": "roomy-hull-job", "version": 3')
    (tmp_path / "notes.txt").write_text("not a job")
    board = board_of(tmp_path, shipped_shop())
    assert len(board.cards) == 4
    broken = next(c for c in board.cards if c.path.name == "broken.hull.json")
    assert broken.trouble
    assert broken.stage.order == 9
    with pytest.raises(FileError, match="no such folder"):
        board_of(tmp_path / "gone", shipped_shop())


def test_the_folders_own_shop_makes_its_jobs_and_lessons_are_gathered(
    folder: Path, tmp_path: Path
) -> None:
    job = jobfile.load(folder / "first.hull.json")
    job = edits.logged(
        job,
        edits.entry("2027-02-02T08:00:00", "AB", kind="lesson", words="order slides first"),
        edits.entry("2027-04-02T08:00:00", "AB", kind="visit", about="500 km", words="Nothing."),
        edits.entry(
            "2027-09-02T08:00:00", "AB", kind="visit", about="5,000 km", words="a weld cracked"
        ),
    )
    jobfile.save(job, tmp_path / "first.hull.json")
    own = shipped_shop()
    work = msgspec.structs.replace(
        own.workshop, people=own.workshop.people[1:2] + own.workshop.people[2:]
    )
    shopfile.save(
        msgspec.structs.replace(own, name="One worker", workshop=work),
        tmp_path / "ours.shop.json",
    )
    board = board_of(tmp_path, own)
    assert board.shop.name == "One worker"
    assert [(x.job, x.words) for x in board.lessons] == [
        ("First", "order slides first"),
        ("First", "a weld cracked"),
    ]
    assert {p for one in board.plan.levelled.placed.values() for p in one.people} <= {  # type: ignore[union-attr]
        "second",
        "electrician",
        "gasfitter",
    }
    (tmp_path / "ours.shop.json").write_text("{")
    with pytest.raises(FileError):
        board_of(tmp_path, own)


def test_more_jobs_than_are_shown_are_told_of(
    folder: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(workshop, "MOST_JOBS", 2)
    count = len(workshop.jobs_in(folder))
    assert count > 2
    board = board_of(folder, shipped_shop())
    assert len(board.cards) == 2
    assert f"{count} jobs are in the folder, and the first 2 are shown" in board.troubles[0]
    monkeypatch.setattr(workshop, "MOST_JOBS", count)
    assert board_of(folder, shipped_shop()).troubles == ()


def test_stages_follow_the_order_of_the_work() -> None:
    job = demo_job("lowfold")

    def stage(one: Job) -> tuple[int, str]:
        build = build_of(judge(one).context())
        return stage_of(one, build).order, next_step(one, build)

    assert stage(job)[0] == 2
    begun = edits.planned(job, begin="2027-02-01")
    assert stage(begun)[0] == 5
    assert "2027-02-01" in stage(begun)[1]
    worked = edits.logged(
        begun,
        edits.entry(
            "2027-02-02T08:00:00", "AB", kind="work", op="job:receive", hours=1.0, done=True
        ),
    )
    assert stage(worked)[0] == 6
    over = edits.logged(worked, edits.entry("2027-03-02T08:00:00", "AB", kind="handed over"))
    assert stage(over) == (8, "plan the re-check visit")
    planned = edits.planned(over, recheck="2027-04-02")
    assert stage(planned) == (8, "re-check visit (2027-04-02)")
    past = edits.planned(over, recheck="2026-03-02")
    assert stage(past) == (8, "re-check visit (2026-03-02, overdue)")
    visit = edits.entry("2027-04-02T10:00:00", "AB", kind="visit", about="500 km", words="nothing")
    assert stage(edits.logged(planned, visit)) == (8, "")
    again = edits.planned(edits.logged(planned, visit), recheck="2027-09-01")
    assert stage(again) == (8, "re-check visit (2027-09-01)")


WRITER = """
import json, os, sys, time
from pathlib import Path
from roomy_hull.formats.atomic import alone, read_whole, write_whole
path, name, count, told = Path(sys.argv[1]), sys.argv[2], int(sys.argv[3]), Path(sys.argv[4])
done = refused = 0
while done < count:
    base = read_whole(path)
    raw = json.loads(base)
    raw[name] = raw.get(name, 0) + 1
    with alone(path):
        # What a session does: it writes over nothing that changed since it was read.
        if read_whole(path) != base:
            refused += 1
            continue
        write_whole(path, json.dumps(raw).encode(), keep=True)
    done += 1
    told.write_text(json.dumps([done, refused]))
"""


def test_two_writers_lose_nothing_and_each_loser_is_told(tmp_path: Path) -> None:
    path = tmp_path / "job.hull.json"
    path.write_text("{}")
    logs = {n: tmp_path / f"{n}.txt" for n in ("one", "two")}
    runs = [
        subprocess.Popen([sys.executable, "-c", WRITER, str(path), n, "500", str(log)])
        for n, log in logs.items()
    ]
    assert [r.wait(timeout=240) for r in runs] == [0, 0]
    # A thousand saves, interleaved: every one of them is in the file.
    assert json.loads(path.read_text()) == {"one": 500, "two": 500}
    refused = [json.loads(log.read_text())[1] for log in logs.values()]
    assert all(r >= 0 for r in refused)
    assert json.loads((tmp_path / "job.hull.json.previous").read_text())


def test_a_writer_that_is_killed_leaves_a_whole_file_and_no_lock(tmp_path: Path) -> None:
    path = tmp_path / "job.hull.json"
    path.write_text("{}")
    for n in range(6):
        told = tmp_path / f"told-{n}.txt"
        run = subprocess.Popen([
            sys.executable,
            "-c",
            WRITER,
            str(path),
            f"w{n}",
            "100000",
            str(told),
        ])
        until = time.monotonic() + 60
        while f'"w{n}"' not in path.read_text() and time.monotonic() < until:
            time.sleep(0.002)
        time.sleep(0.01 * n)
        os.kill(run.pid, signal.SIGKILL)
        run.wait()
        raw = json.loads(path.read_text())
        # All that it said it had written is there; at most one more that it could not say.
        words = told.read_text() if told.exists() else ""
        if words.endswith("]"):
            said = json.loads(words)[0]
            assert said <= raw[f"w{n}"] <= said + 1
        assert all(f"w{k}" in raw for k in range(n + 1))
        with alone(path):
            write_whole(path, json.dumps(raw).encode())


def test_a_save_that_waits_too_long_says_so(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("roomy_hull.formats.atomic.WAIT", 0.05)
    path = tmp_path / "job.hull.json"
    with alone(path), pytest.raises(JobFileError, match="somebody else is writing"), alone(path):
        pass
    with alone(path):  # given back
        pass


def test_a_lock_left_behind_is_taken_over(tmp_path: Path) -> None:
    path = tmp_path / "job.hull.json"
    path.write_text("{}")
    Lock.to(path).path.write_text(
        json.dumps({"user": "Somebody", "machine": "other", "since": time.time()})
    )
    mine = Lock.to(path)
    assert mine.take() is None
    assert mine.held
    assert mine.left is not None
    assert "Somebody on other" in mine.left.words()
    mine.give_up()
    again = Lock.to(path)
    assert again.take() is None
    assert again.left is None
    again.give_up()
