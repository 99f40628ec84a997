"""Days and moments as files hold them: YYYY-MM-DD, and YYYY-MM-DDTHH:MM:SS."""

import math
from datetime import UTC, date, datetime, timedelta


def day_of(words: str) -> date | None:
    """Read a day.

    Args:
        words: As YYYY-MM-DD (ISO 8601); what follows a ``T`` is left out.
    Returns: None where it is no day.
    """
    day = words.partition("T")[0]
    try:
        return date.fromisoformat(day) if len(day) == 10 else None
    except ValueError:
        return None


def shifted(day: date, by: float) -> date:
    """A day so many calendar days later, parts of a day rounded away from it; at the calendar's ends it stays there."""
    try:
        return day + timedelta(days=math.copysign(math.ceil(abs(by)), by))
    except OverflowError:
        return date.max if by > 0 else date.min


def now_words() -> str:
    """The moment by the machine's clock, local time, to the second."""
    return datetime.now(UTC).astimezone().replace(tzinfo=None).isoformat(timespec="seconds")


def today() -> date:
    """The day by the machine's clock."""
    return datetime.now(UTC).astimezone().date()


def spoken(day: date) -> str:
    """A day as one says it, with its day of the week: ``Mon 3 March``."""
    return f"{day:%a} {day.day} {day:%B}"


def dated(day: date) -> str:
    """A day as one writes it in a letter: ``3 March 2027``."""
    return f"{day.day} {day:%B %Y}"
