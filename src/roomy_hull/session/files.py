"""The job's file: opened, saved, and written aside while one works."""

from pathlib import Path

from roomy_hull.formats import jobfile
from roomy_hull.session.session import Session


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
    job, news = jobfile.opened(path)
    session.take(job, path)
    session.keeping.drop_autosave()
    session.keeping.add_recent(path)
    session.say(" ".join([f"Opened {path.name}.", *news]) if news else f"Opened {path.name}")


def save_job(session: Session, path: Path) -> None:
    """Save the job.

    Parameters
    ----------
    session : Session
        Whose job.
    path : Path
        The file.

    Raises
    ------
    JobFileError
        The place cannot be written.
    """
    jobfile.save(session.history.settled, path)
    session.path = path
    session.history.mark_saved()
    session.keeping.drop_autosave()
    session.keeping.add_recent(path)
    session.say(f"Saved {path.name}")
    session.saved.emit()


def autosave(session: Session) -> None:
    """Write the job aside if it has changes."""
    if session.history.dirty:
        session.keeping.autosave(session.history.settled, session.path)
