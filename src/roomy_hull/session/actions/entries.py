"""Entries of the log: who makes them, how one is added, how a figure is asked for."""

import math
from typing import Any

from roomy_hull.core.days import day_of, now_words
from roomy_hull.job.edits import building as edits
from roomy_hull.session.session import Session


def who(session: Session) -> str:
    """Who logs: asked once, then remembered; empty where the person changes their mind."""
    known = str(session.settings.preferences().get("initials", "")).strip()
    if known:
        return known[:8]
    by = session.asker.name("Your initials, for the log", "").strip()[:8]
    if by:
        session.settings.keep_preferences(initials=by)
    return by


def log(session: Session, step: str, /, **fields: Any) -> bool:
    """Add one entry, as one step."""
    by = who(session)
    if not by:
        return False
    return session.attempt(
        step, lambda: edits.logged(session.job, edits.entry(now_words(), by, **fields))
    )


def is_day(session: Session, words: str) -> bool:
    """Whether words are a day; where they are none that is told."""
    if day_of(words) is None:
        session.say(f"'{words}' is no day: write it as YYYY-MM-DD.", trouble=True)
        return False
    return True


def figure(session: Session, words: str, wish: str) -> float | None:
    """Ask for a figure; none where nothing, or no figure, was said, which is told."""
    told = session.asker.name(words, wish)
    if not told:
        return None
    try:
        value = float(told.replace(",", "."))
    except ValueError:
        value = math.nan
    if not math.isfinite(value):
        session.say(f"'{told}' is no figure.", trouble=True)
        return None
    return value
