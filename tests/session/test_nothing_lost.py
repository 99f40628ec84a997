"""Nothing is lost: recovery beside a second editor, a log that only grows, claims, and what is planted beside a job."""

import json
import os
import random
from pathlib import Path

import msgspec
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.session.jobs_on_disk import opened, path, renamed
from tests.sweeping import examples, some

from roomy_hull.core.errors import JobFileError
from roomy_hull.formats import jobfile
from roomy_hull.formats.locks import Lock
from roomy_hull.formats.settings import Recovery, Settings
from roomy_hull.job.chain import breaks, digest, heads, sealed, united
from roomy_hull.job.edits import building
from roomy_hull.job.logs import Entry
from roomy_hull.job.model import Job
from roomy_hull.session.files import (
    ChangedError,
    autosave,
    lay_together,
    let_go,
    open_job,
    recover,
    save_job,
)
from roomy_hull.session.session import Session
from roomy_hull.verdict.verdict import Verdict

__all__ = ["path"]  # a fixture
UNITS = ("tools", "camp", "waders", "recovery")


def note(session: Session, words: str) -> None:
    at = f"2026-06-01T08:00:{len(session.job.log):02d}"
    made = Entry(id=f"{words.replace(' ', '-')}-{len(session.job.log)}", at=at, words=words)
    assert session.edit("note", building.logged(session.job, made))


def dies(session: Session) -> Session:
    """What its next start has: the same folders, and nothing in memory."""
    autosave(session)
    session.settings._alive.give_up()
    let_go(session)
    keeping = session.settings
    return Session(session.job, Settings(keeping.config, keeping.state), known=session.verdict)


def left_by_a(path: Path, demo: Job, known: Verdict) -> tuple[Session, Recovery]:
    """A edits and dies: the next start of A, and the work that it finds."""
    a = opened(path, demo, known, "a")
    renamed(a, "tools", "by A")
    a = dies(a)
    (left,) = a.settings.left_behind()
    return a, left


# Recovery


@pytest.mark.parametrize("seed", some(range(200), 6))
def test_recovered_work_never_writes_over_what_another_saved(
    seed: int, path: Path, demo: Job, demo_verdict: Verdict
) -> None:
    rng = random.Random(seed)
    a = opened(path, demo, demo_verdict, "a")
    mine, theirs = rng.sample(UNITS, 2) if rng.random() < 0.7 else [rng.choice(UNITS)] * 2
    if rng.random() < 0.5:
        note(a, "ours")
        save_job(a, path)
    renamed(a, mine, "by A")
    if rng.random() < 0.5:
        note(a, "unsaved")
    b = opened(path, demo, demo_verdict, "b")
    late = rng.random() < 0.5
    if not late:
        renamed(b, theirs, "by B")
        note(b, "theirs")
        save_job(b, path)
    a = dies(a)
    if late:
        renamed(b, theirs, "by B")
        note(b, "theirs")
        save_job(b, path)
    (left,) = a.settings.left_behind()
    recover(a, left)
    assert "saved by somebody else" in a.messages.text
    assert a.job.thing(mine).name == "by A"  # type: ignore[union-attr]
    on_disk = path.read_bytes()
    with pytest.raises(ChangedError):
        save_job(a, path)
    assert path.read_bytes() == on_disk
    logged = [e.words for e in a.job.log]
    if mine == theirs:
        assert lay_together(a, path) == (f"units.{mine}.name",)
        assert path.read_bytes() == on_disk
        return
    assert lay_together(a, path) == ()
    save_job(a, path)
    saved = jobfile.load(path)
    assert saved.thing(mine).name == "by A"  # type: ignore[union-attr]
    assert saved.thing(theirs).name == "by B"  # type: ignore[union-attr]
    assert sorted(e.words for e in saved.log) == sorted([*logged, "theirs"])
    assert breaks(saved.log) == ()


def test_recovered_work_of_a_file_nobody_touched_is_saved_as_ever(
    path: Path, demo: Job, demo_verdict: Verdict
) -> None:
    a, left = left_by_a(path, demo, demo_verdict)
    assert left.base == path.read_bytes()
    recover(a, left)
    assert a.settings.left_behind() == []
    save_job(a, path)
    assert jobfile.load(path).thing("tools").name == "by A"  # type: ignore[union-attr]


def test_work_kept_by_an_older_version_asks_before_it_writes(
    path: Path, demo: Job, demo_verdict: Verdict
) -> None:
    a, left = left_by_a(path, demo, demo_verdict)
    frame = json.loads(left.file.read_bytes())
    del frame["base"], frame["sha256"]
    left.file.write_text(json.dumps(frame))
    (left,) = a.settings.left_behind()
    assert left.base is None
    recover(a, left)
    with pytest.raises(ChangedError):
        save_job(a, path)
    with pytest.raises(JobFileError, match="not known what this work began with"):
        lay_together(a, path)


def test_a_release_is_not_written_over_what_was_saved_meanwhile(
    path: Path, demo: Job, monkeypatch: pytest.MonkeyPatch
) -> None:
    from roomy_hull.cli import making

    clean = msgspec.structs.replace(demo, units=(), goods=())
    jobfile.save(clean, path)
    judged = making.verdict_of  # type: ignore[attr-defined]

    def slowly(args: object) -> Verdict:
        found = judged(args)  # type: ignore[arg-type]
        jobfile.save(msgspec.structs.replace(clean, name="Edited meanwhile"), path)
        return found

    class Args:
        job, shop, by, note, out = str(path), "", "AB", "", ""

    monkeypatch.setattr(making, "verdict_of", slowly)
    monkeypatch.setattr(Verdict, "count", lambda *_a: 0)
    with pytest.raises(JobFileError, match="nothing is released"):
        making.release(Args, None)  # type: ignore[arg-type]
    assert jobfile.load(path).name == "Edited meanwhile"
    monkeypatch.setattr(making, "verdict_of", judged)
    assert making.release(Args, None) == 0  # type: ignore[arg-type]
    assert len(jobfile.load(path).releases) == 1
    # Nor is another job's log written over by name.
    there = path.with_name("there.hull.json")
    logged = building.logged(clean, Entry(id="e", at="2026-06-01T08:00:00", words="theirs"))
    jobfile.save(logged, there)
    monkeypatch.setattr(Args, "out", str(there))
    with pytest.raises(JobFileError, match="1 entry that would be lost"):
        making.release(Args, None)  # type: ignore[arg-type]
    assert [e.words for e in jobfile.load(there).log] == ["theirs"]


# The log's chain

WORDS = st.text(st.characters(exclude_categories=["Cs"]), max_size=12)


def entry(n: int, words: str = "", **more: object) -> Entry:
    return Entry(id=f"e{n}", at=f"2026-01-01T00:00:{n % 60:02d}", words=words, **more)  # type: ignore[arg-type]


@settings(max_examples=examples(20_000, 80))
@given(st.lists(WORDS, min_size=2, max_size=8), st.integers(0, 7), st.data())
def test_whatever_is_done_to_an_entry_of_a_chain_is_seen(
    words: list[str], cut: int, data: st.DataObject
) -> None:
    old = tuple(entry(n, w) for n, w in enumerate(words[:cut]))  # of a file without links
    log = (
        sealed(old, *(entry(n + cut, w) for n, w in enumerate(words[cut:]))) if words[cut:] else old
    )
    log = sealed(log, entry(98, "sealing"), entry(99, "last"))
    assert breaks(log) == ()
    at = data.draw(st.integers(0, len(log) - 2))
    how = data.draw(st.sampled_from(["changed", "taken out", "moved", "put in"]))
    rows = list(log)
    if how == "changed":
        rows[at] = msgspec.structs.replace(rows[at], words=rows[at].words + "!")
    elif how == "taken out":
        del rows[at]
    elif how == "moved":
        rows.append(rows.pop(at))
    else:
        rows.insert(at + 1, entry(50, "put in"))
    assert breaks(rows)


def test_what_is_put_in_where_an_older_file_ends_is_seen() -> None:
    # Found by the sweep: an entry without links behind the last of an older file, or before the first of a new one.
    log = sealed((entry(0),), entry(1), entry(2))
    assert breaks((log[0], entry(50), *log[1:]))
    assert breaks((entry(50), *log))
    fresh = sealed((), entry(1), entry(2))
    assert breaks((entry(50), *fresh))


@settings(max_examples=examples(5_000, 60))
@given(st.lists(WORDS, max_size=4), st.lists(WORDS, max_size=4), st.lists(WORDS, max_size=4))
def test_two_branches_laid_together_hold_and_the_next_names_both(
    base: list[str], mine: list[str], theirs: list[str]
) -> None:
    log = sealed((), *(entry(n, w) for n, w in enumerate(base))) if base else ()
    one = sealed(log, *(entry(10 + n, w) for n, w in enumerate(mine))) if mine else log
    other = sealed(log, *(entry(20 + n, w) for n, w in enumerate(theirs))) if theirs else log
    both, wrong = united(one, other)
    assert wrong == ()
    assert {e.id for e in both} == {e.id for e in (*one, *other)}
    assert breaks(both) == ()
    after = sealed(both, entry(60))
    tips = {
        digest(side[-1]) for side in (one, other) if side and (side is log or side[-1] not in log)
    }
    expected = tips if len(one) > len(log) and len(other) > len(log) else {heads(both)[0]}
    assert set(after[-1].follows) == expected
    assert breaks(after) == ()


def test_a_digest_takes_what_a_later_version_writes_as_it_is() -> None:
    one = entry(1, "as it is")
    assert digest(one) == digest(
        msgspec.convert({"id": "e1", "at": one.at, "words": "as it is"}, Entry)
    )
    later = msgspec.structs.replace(one, extra={"weather": "dry"})
    assert digest(later) != digest(one)


def test_two_corrections_of_one_entry_do_not_both_stand(
    path: Path, demo: Job, demo_verdict: Verdict
) -> None:
    a = opened(path, demo, demo_verdict, "a")
    note(a, "wrong")
    save_job(a, path)
    b = opened(path, demo, demo_verdict, "b")
    wrong = a.job.log[0].id
    for session, words in ((a, "by A"), (b, "by B")):
        made = Entry(
            id=words.replace(" ", "-"), at="2026-06-02T08:00:00", words=words, corrects=wrong
        )
        assert session.edit("correct", building.logged(session.job, made))
    save_job(a, path)
    on_disk = path.read_bytes()
    with pytest.raises(ChangedError):
        save_job(b, path)
    assert any(wrong in words for words in lay_together(b, path))
    with pytest.raises(JobFileError, match="both correct"):
        save_job(b, path, anyway=True)
    assert path.read_bytes() == on_disk


def test_written_over_or_saved_elsewhere_and_back_nobodys_entry_is_gone(
    path: Path, demo: Job, demo_verdict: Verdict, tmp_path: Path
) -> None:
    a, b = (opened(path, demo, demo_verdict, name) for name in "ab")
    note(a, "by A")
    save_job(a, path)
    note(b, "by B")
    save_job(b, path, anyway=True)
    assert {e.words for e in jobfile.load(path).log} == {"by A", "by B"}
    # A saves elsewhere; B saves; A comes back to the first name, which it had in hand before.
    save_job(a, tmp_path / "elsewhere.hull.json")
    with pytest.raises(ChangedError):
        save_job(a, path)
    assert lay_together(a, path) == ()
    save_job(a, path)
    assert [e.words for e in jobfile.load(path).log] == ["by A", "by B"]
    assert breaks(jobfile.load(path).log) == ()


def test_an_entry_changed_by_hand_is_told_and_the_job_still_opens(
    path: Path, demo: Job, demo_verdict: Verdict
) -> None:
    a = opened(path, demo, demo_verdict, "a")
    for words in ("one", "two", "three"):
        note(a, words)
    save_job(a, path)
    path.write_text(path.read_text().replace('"two"', '"two and a half"'))
    open_job(a, path)
    (told,) = [f for f in a.verdict.findings if f.code == "build.log"]
    assert a.job.log[2].id in told.title
    assert a.job.log[1].id in told.title


# Claims


@pytest.mark.parametrize("round_", some(range(400), 20))
def test_taken_and_given_up_at_one_moment_two_never_hold_it(tmp_path: Path, round_: int) -> None:
    first, second, third = (Lock(tmp_path / "c") for _ in range(3))
    assert first.take() is None
    # The second has opened the file when the first gives it up and the third takes it: the old file is nobody's.
    import fcntl

    locked = fcntl.flock
    calls: list[int] = []

    def meanwhile(handle: int, how: int) -> None:
        calls.append(handle)
        if len(calls) == 1:
            first.give_up()
            assert third.take() is None
        locked(handle, how)

    fcntl.flock = meanwhile  # type: ignore[assignment]
    try:
        holder = second.take()
    finally:
        fcntl.flock = locked
    assert third.held
    assert not second.held
    assert holder is not None
    assert holder.words()
    third.give_up()
    assert not (tmp_path / "c").exists()


def test_where_there_are_no_locks_or_no_room_it_is_said(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    import errno
    import fcntl

    def without(_handle: int, _how: int) -> None:
        raise OSError(errno.ENOLCK, "No locks available")

    one = Lock(tmp_path / "c")
    monkeypatch.setattr(fcntl, "flock", without)
    assert one.take() is None
    assert "No locks available" in one.trouble
    assert not one.held
    monkeypatch.undo()
    monkeypatch.setattr(
        os, "pwrite", lambda *_a: (_ for _ in ()).throw(OSError(errno.ENOSPC, "disk full"))
    )
    assert one.take() is None
    assert "disk full" in one.trouble
    one.give_up()


def test_a_file_with_a_second_name_is_saved_and_that_is_said(
    path: Path, demo: Job, demo_verdict: Verdict, tmp_path: Path
) -> None:
    session = opened(path, demo, demo_verdict, "a")
    os.link(path, tmp_path / "second.hull.json")
    renamed(session, "tools", "by A")
    save_job(session, path)
    assert "second name" in session.messages.text
    assert jobfile.load(tmp_path / "second.hull.json").thing("tools").name != "by A"  # type: ignore[union-attr]
    renamed(session, "tools", "again")
    save_job(session, path)
    assert "second name" not in session.messages.text  # the kept version is not one


def test_a_clock_that_goes_back_changes_neither_order_nor_chain(
    path: Path, demo: Job, demo_verdict: Verdict
) -> None:
    session = opened(path, demo, demo_verdict, "a")
    for n, at in enumerate(("2026-06-02T08:00:00", "1999-01-01T00:00:00", "2038-01-20T00:00:00")):
        made = Entry(id=f"e{n}", at=at, words=str(n))
        assert session.edit("note", building.logged(session.job, made))
        save_job(session, path)
        os.utime(path, (0, 0))
    log = jobfile.load(path).log
    assert [e.words for e in log] == ["0", "1", "2"]
    assert breaks(log) == ()


def test_a_claim_from_another_machine_is_named_and_binds_nobody(
    path: Path, demo: Job, demo_verdict: Verdict
) -> None:
    Lock.to(path).path.write_text(json.dumps({"user": "K", "machine": "elsewhere", "since": 1.7e9}))
    session = opened(path, demo, demo_verdict, "a")
    assert "The lock of K on elsewhere" in session.messages.text
    assert "left behind" in session.messages.text
