"""The job's file: opened, saved, held against what others made of it, and written aside while one works."""

import json
import os
import time
from pathlib import Path
from typing import Any, NamedTuple

from roomy_hull.core.errors import JobFileError
from roomy_hull.formats import jobfile
from roomy_hull.formats.claims import Claim
from roomy_hull.formats.photos import brought_along
from roomy_hull.formats.plain_json import decode, encode
from roomy_hull.formats.whole import alone, read_whole, write_whole
from roomy_hull.job.edits.merging import merged
from roomy_hull.session.session import Session


class ChangedError(JobFileError):
    """A file that somebody else has changed since it was opened here."""


class OnDisk(NamedTuple):
    """The file that a session has in hand: what it held when it was last read or written here, and the claim to it."""

    path: Path
    data: bytes
    claim: Claim


def open_job(session: Session, path: Path) -> None:
    """Open a job file.

    Parameters
    ----------
    session : Session
        Which takes it in hand.
    path : Path
        The file.

    Raises
    ------
    UserError
        The file cannot be used; the job in hand stays.
    """
    data = read_whole(path)
    job, news = jobfile.read(data, path.name)
    session.take(job, path)
    session.keeping.drop_autosave()
    session.keeping.add_recent(path)
    words = [f"Opened {path.name}.", *news] if news else [f"Opened {path.name}"]
    holder = hold(session, path, data)
    session.say(" ".join([*words, holder]) if holder else " ".join(words))


def hold(session: Session, path: Path, data: bytes) -> str:
    """Remember what a file held, and take it in hand.

    Parameters
    ----------
    session : Session
        Whose file it is now.
    path : Path
        The file.
    data : bytes
        What it holds.

    Returns
    -------
    str
        What to say where somebody else has it open; else empty.
    """
    claim = Claim.to(path)
    if session.on_disk is not None and session.on_disk.claim.path == claim.path:
        claim = session.on_disk.claim  # the file stays in hand from one save to the next
    else:
        let_go(session)
    other = claim.take()
    session.on_disk = OnDisk(path, data, claim)
    if other is None:
        left, claim.left = claim.left, None
        return (
            f"The lock of {left.words()}, was left behind and is taken over."
            if left is not None
            else ""
        )
    return (
        f"{other.words()}, has this file open too: saving will not overwrite what is saved there."
    )


def let_go(session: Session) -> None:
    """Leave the file in hand to others."""
    if session.on_disk is not None:
        session.on_disk.claim.give_up()
    session.on_disk = None


def save_job(session: Session, path: Path, *, anyway: bool = False) -> None:
    """Save the job.

    Parameters
    ----------
    session : Session
        Whose job.
    path : Path
        The file.
    anyway : bool
        Whether to write over what others made of it.

    Raises
    ------
    ChangedError
        Somebody else has changed the file since it was opened here; says when, and who has it open.
    JobFileError
        The place cannot be written; or the file could not hold the job, which is then kept in a rescue file.
    """
    job = session.history.settled
    try:
        data = jobfile.tried(job)
    except jobfile.UnwritableError as trouble:
        kept = session.keeping.rescue(job)
        raise JobFileError(
            f"{trouble.what} ({trouble.place})" if trouble.place else trouble.what, path.name,
            f"Nothing is lost: the job as it is was written to {kept}. {trouble.remedy}",
        ) from None  # fmt: skip
    # From the look at what is there to the new file in its place nobody else writes.
    with alone(path):
        if not anyway:
            _refuse_changed(session, path)
        _refuse_shorter(session, path)
        write_whole(path, data, keep=True)
    lost = brought_along(session.path, path, tuple(e.file for e in job.log if e.file))
    session.path = path
    holder = hold(session, path, data)
    session.history.mark_saved()
    session.keeping.drop_autosave()
    session.keeping.add_recent(path)
    missing = f" {len(lost)} photos could not be brought along." if lost else ""
    session.say(
        f"Saved {path.name}.{missing} {holder}".rstrip() if holder or lost else f"Saved {path.name}"
    )
    session.saved.emit()


def _refuse_changed(session: Session, path: Path) -> None:
    """Refuse to write over a file in hand that holds something else than was last read or written here."""
    known = session.on_disk
    if known is None or os.path.realpath(known.path) != os.path.realpath(path) or not path.exists():
        return
    if read_whole(path) == known.data:
        return
    when = time.strftime("%Y-%m-%d %H:%M", time.localtime(path.stat().st_mtime))
    other = known.claim.holder()
    who = f" {other.words()}, has it open." if other is not None else ""
    raise ChangedError(
        f"it was changed by somebody else, last on {when}.{who}", path.name,
        "Save a copy, lay both together, or write over it.",
    )  # fmt: skip


def _refuse_shorter(session: Session, path: Path) -> None:
    """Refuse to save a log that lacks entries which the same file holds already: a log only grows."""
    known = session.on_disk
    if known is None or os.path.realpath(known.path) != os.path.realpath(path) or not path.exists():
        return
    there = json.loads(known.data).get("log", [])
    have = {e.id for e in session.history.settled.log}
    lost = [e for e in there if isinstance(e, dict) and e.get("id") not in have]
    if lost:
        raise JobFileError(
            f"{len(lost)} entries of the log were saved already and have been undone", path.name,
            "Redo them: an entry is corrected by a later one. Or save under another name.",
        )  # fmt: skip


def lay_together(session: Session, path: Path) -> tuple[str, ...]:
    """Take over what others saved in the file in hand, part by part, where the two edits do not touch.

    Parameters
    ----------
    session : Session
        Whose job becomes both, as one step of its history; nothing where there is a conflict.
    path : Path
        The file.

    Returns
    -------
    tuple of str
        Places that both changed; empty where all could be laid together.

    Raises
    ------
    UserError
        The file cannot be read, or what came of both is no job.
    """
    known = session.on_disk
    if known is None:
        raise JobFileError("nothing is known of this file", path.name, "Save a copy.")
    data = read_whole(path)
    base, theirs = (_raw(d, path.name) for d in (known.data, data))
    mine = _raw(jobfile.dumps(session.history.settled), "the job")
    both = merged(base, mine, theirs)
    if both.conflicts:
        return both.conflicts
    job = jobfile.loads(encode(both.raw), path.name)
    if not session.edit(f"lay together with {path.name}", job):
        raise JobFileError("the two edits together make no job", path.name, "Save a copy.")
    session.on_disk = known._replace(data=data)
    return ()


def _raw(data: bytes, place: str) -> dict[str, Any]:
    """Decode a job file as it would be written today, so that two of them can be compared."""
    found: dict[str, Any] = decode(jobfile.dumps(jobfile.loads(data, place)), place)
    return found


def autosave(session: Session) -> None:
    """Write the job aside if it has changes; that it cannot be is told."""
    if session.history.dirty:
        try:
            session.keeping.autosave(session.history.settled, session.path)
        except JobFileError as trouble:
            session.say(f"Your work cannot be kept aside: {trouble} Save it.", trouble=True)
