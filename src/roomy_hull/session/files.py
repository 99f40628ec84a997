"""The job's file: opened, saved, held against what others made of it, and written aside while one works."""

import os
import time
from pathlib import Path
from typing import Any

import msgspec

from roomy_hull.core.errors import JobFileError
from roomy_hull.core.wording import counted
from roomy_hull.formats import jobfile
from roomy_hull.formats.atomic import alone, read_whole, write_whole
from roomy_hull.formats.locks import Lock
from roomy_hull.formats.photos import brought_along
from roomy_hull.formats.plain_json import decode, encode
from roomy_hull.formats.settings import Recovery
from roomy_hull.job.chain import united
from roomy_hull.job.edits.merging import merged
from roomy_hull.job.logs import Entry
from roomy_hull.job.model import Job
from roomy_hull.session.session import OnDisk, Session


class ChangedError(JobFileError):
    """A file that somebody else has changed since it was opened here."""


def open_job(session: Session, path: Path) -> None:
    """Open a job file.

    Args:
        session: Which takes it in hand.
    Raises:
        UserError: The file cannot be used; the job in hand stays.
    """
    data = read_whole(path)
    job, news = jobfile.read(data, path.name)
    session.take(job, path)
    session.settings.drop_autosave()
    session.settings.add_recent(path)
    words = [f"Opened {path.name}.", *news] if news else [f"Opened {path.name}"]
    holder = hold(session, path, data, job.log)
    session.say(" ".join([*words, holder]) if holder else " ".join(words))


def hold(session: Session, path: Path, data: bytes, log: tuple[Entry, ...]) -> str:
    """Remember what a file held, and take it in hand.

    Args:
        data: What it holds; empty where that is not known.
        log: What of the log it holds: no step of the session takes that back.
    Returns: What to say where somebody else has it open, or cannot be told that it is open here; else empty.
    """
    claim = Lock.to(path)
    if session.on_disk is not None and session.on_disk.claim.path == claim.path:
        claim = session.on_disk.claim  # the file stays in hand from one save to the next
    else:
        let_go(session)
    other = claim.take()
    session.on_disk = OnDisk(path, claim)
    session.seen[os.path.realpath(path)] = data
    session.history.mark_logged(log)
    if other is not None:
        return f"{other.words()}, has this file open too: saving will not overwrite what is saved there."
    left, claim.left = claim.left, None
    words = [claim.trouble] if claim.trouble else []
    if left is not None:
        words.append(f"The lock of {left.words()}, was left behind and is taken over.")
    return " ".join(words)


def recover(session: Session, left: Recovery) -> None:
    """Take work in hand that an earlier run left behind; its file is not touched until it is saved.

    Args:
        session: Which takes it in hand.
        left: What `Settings.left_behind` found.
    Raises:
        UserError: It cannot be read or judged; the job in hand stays, and the work is kept.
    """
    job = session.settings.recover(left)
    session.take(job, left.path, saved=False)
    let_go(session)
    words = [f"Recovered {left.name}; it is not saved yet."]
    if left.path is not None:
        base = left.base or b""
        try:
            log = jobfile.loads(base, left.path.name).log if base else ()
        except JobFileError:
            base, log = b"", ()
        words.append(hold(session, left.path, base, log))
        if _changed(session, left.path, _there(left.path)):
            words.append(f"{left.path.name} was saved by somebody else meanwhile: saving will ask.")
    autosave(session)
    session.settings.discard(left)
    session.say(" ".join(w for w in words if w))


def let_go(session: Session) -> None:
    """Leave the file in hand to others."""
    if session.on_disk is not None:
        session.on_disk.claim.give_up()
    session.on_disk = None


def save_job(session: Session, path: Path, *, anyway: bool = False) -> None:
    """Save the job.

    Args:
        anyway: Whether to write over what others made of it.
    Raises:
        ChangedError: Somebody else has changed the file since it was opened here; says when, and who has it open.
        JobFileError: The place cannot be written; or the file could not hold the job, which is then kept in a rescue
            file.
    """
    # Where the name leads is looked up once. From the look at what is there to the new file in its place nobody else writes.
    true = Path(os.path.realpath(path))
    with alone(true):
        there = _there(true)
        linked = bool(there) and true.stat().st_nlink > 1
        if not anyway:
            _refuse_changed(session, path, there)
        job, more = _with_their_log(session, path, there)
        data = _written(session, job, path)
        write_whole(true, data, keep=True)
    if more:
        session.edit("take over what others logged", job)
    lost = brought_along(session.path, path, tuple(e.file for e in job.log if e.file))
    session.path = path
    holder = hold(session, path, data, job.log)
    session.history.mark_saved()
    session.settings.drop_autosave()
    session.settings.add_recent(path)
    words = [f"Saved {path.name}."]
    if more:
        words.append(f"{counted(more, 'entry', 'entries')} that others logged there: kept.")
    if lost:
        words.append(f"{len(lost)} photos could not be brought along.")
    if linked:
        words.append("The file had a second name, which keeps the version before.")
    if holder:
        words.append(holder)
    session.say(" ".join(words) if len(words) > 1 else f"Saved {path.name}")
    session.saved.emit()


def _written(session: Session, job: Job, path: Path) -> bytes:
    """The bytes of a job's file; a job that no file could hold is kept in a rescue file."""
    try:
        return jobfile.tried(job)
    except jobfile.UnwritableError as trouble:
        kept = session.settings.rescue(job)
        raise JobFileError(
            f"{trouble.what} ({trouble.place})" if trouble.place else trouble.what, path.name,
            f"Nothing is lost: the job as it is was written to {kept}. {trouble.remedy}",
        ) from None  # fmt: skip


def _there(path: Path) -> bytes:
    """What a file holds; nothing where there is none."""
    return read_whole(path) if path.exists() else b""


def _known(session: Session, path: Path | None) -> bytes | None:
    """What a file held when it was last read or written here; none where this job never had it in hand."""
    return session.seen.get(os.path.realpath(path)) if path is not None else None


def _changed(session: Session, path: Path, there: bytes) -> bool:
    """Whether a file that was in hand holds something else than was last read or written here."""
    known = _known(session, path)
    return known is not None and bool(there) and there != known


def _refuse_changed(session: Session, path: Path, there: bytes) -> None:
    """Refuse to write over a file that somebody else has changed."""
    if not _changed(session, path, there):
        return
    when = time.strftime("%Y-%m-%d %H:%M", time.localtime(path.stat().st_mtime))
    other = Lock.to(path).holder()
    who = f" {other.words()}, has it open." if other is not None else ""
    raise ChangedError(
        f"it was changed by somebody else, last on {when}.{who}", path.name,
        "Save a copy, lay both together, or write over it.",
    )  # fmt: skip


def _with_their_log(session: Session, path: Path, there: bytes) -> tuple[Job, int]:
    """The job with every entry that the file's log holds, and how many came of it: a log only grows.

    Raises:
        JobFileError: What both logged cannot stand together.
    """
    job = session.history.settled
    if not there:
        return job, 0
    try:
        theirs = jobfile.loads(there, path.name).log
    except JobFileError:
        return job, 0  # no job: nothing is logged in it
    in_hand = _known(session, path) is not None
    if not in_hand and {e.id for e in job.log}.isdisjoint(e.id for e in theirs):
        return job, 0  # another job's file, which one has chosen to write over
    both, wrong = united(job.log, theirs)
    if wrong:
        raise JobFileError(
            f"{wrong[0]}; an entry of the log that was saved stands", path.name,
            "Take your own back, lay both together, and correct theirs; or save a copy.",
        )  # fmt: skip
    more = len(both) - len(job.log)
    return (msgspec.structs.replace(job, log=both) if more else job), more


def lay_together(session: Session, path: Path) -> tuple[str, ...]:
    """Take over what others saved in the file in hand, part by part, where the two edits do not touch.

    Args:
        session: Whose job becomes both, as one step of its history; nothing where there is a conflict.
    Returns: Places that both changed; empty where all could be laid together.
    Raises:
        UserError: The file cannot be read, or what came of both is no job.
    """
    before = _known(session, path)
    if not before:
        raise JobFileError("it is not known what this work began with", path.name, "Save a copy.")
    data = read_whole(path)
    base, theirs = (_raw(d, path.name) for d in (before, data))
    mine = _raw(jobfile.dumps(session.history.settled), "the job")
    log, wrong = united(session.history.settled.log, jobfile.loads(data, path.name).log)
    for side in (base, mine, theirs):
        side.pop("log", None)
    both = merged(base, mine, theirs)
    if both.conflicts or wrong:
        return (*both.conflicts, *wrong)
    job = msgspec.structs.replace(jobfile.loads(encode(both.raw), path.name), log=log)
    if not session.edit(f"lay together with {path.name}", job):
        raise JobFileError("the two edits together make no job", path.name, "Save a copy.")
    session.seen[os.path.realpath(path)] = data
    return ()


def _raw(data: bytes, place: str) -> dict[str, Any]:
    """Decode a job file as it would be written today, so that two of them can be compared."""
    found: dict[str, Any] = decode(jobfile.dumps(jobfile.loads(data, place)), place)
    return found


def autosave(session: Session) -> None:
    """Write the job aside if it has changes; that it cannot be is told."""
    if session.history.dirty:
        try:
            set_aside(session)
        except JobFileError as trouble:
            session.say(f"Your work cannot be kept aside: {trouble} Save it.", trouble=True)


def set_aside(session: Session) -> None:
    """Write the job aside with what its file held when it began.

    Raises:
        JobFileError: The place cannot be written.
    """
    session.settings.autosave(session.history.settled, session.path, _known(session, session.path))
