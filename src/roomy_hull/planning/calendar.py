"""Working time: the minutes in which a shop is open, one after another, and the days on which they lie."""

import bisect
import functools
from datetime import date, timedelta
from typing import NamedTuple

from roomy_hull.core.days import day_of
from roomy_hull.shop.workshop import Worker, Workshop

HORIZON = 900
"""How many working days are looked ahead: more than three years."""
Span = tuple[int, int]


class When(NamedTuple):
    """A moment of working time: its day, and the minute of that working day."""

    day: date
    minute: int


class Calendar:
    """A shop's working minutes from a day on.

    Args:
        begin: The day from which is counted; where the shop is closed, its next open day.
        shop: Its days, its hours, when it is closed.
    """

    def __init__(self, begin: date, shop: Workshop) -> None:
        self.day_minutes = max(1, round(shop.day_hours * 60))
        closed = set(shop.closed)
        found: list[date] = []
        day = begin
        # A shop that is closed for years at a stretch is none: the days are looked through so far and no further.
        for _ in range(HORIZON * 8):
            if len(found) == HORIZON:
                break
            if day.isoweekday() in shop.days and day.isoformat() not in closed:
                found.append(day)
            if day == date.max:
                break
            day += timedelta(days=1)
        self.days = found or [begin]

    def at(self, minute: int, *, ends: bool = False) -> When:
        """The day and hour of a working minute.

        Args:
            minute: From the calendar's beginning. [min]
            ends: Whether something ends then: the end of a day is then no beginning of the next.
        Returns: Days beyond the horizon are its last.
        """
        day, rest = divmod(minute, self.day_minutes)
        if ends and rest == 0 and day > 0:
            day, rest = day - 1, self.day_minutes
        if day < 0 or day >= len(self.days):
            last = 0 if day < 0 else len(self.days) - 1
            return When(self.days[last], 0 if day < 0 else self.day_minutes)
        return When(self.days[day], rest)

    def minute(self, day: date, hour: float = 0.0) -> int:
        """The first working minute of a day, or of the next open one; before the beginning: 0. [min]"""
        n = bisect.bisect_left(self.days, day)
        here = n < len(self.days) and self.days[n] == day
        return n * self.day_minutes + (min(self.day_minutes, round(hour * 60)) if here else 0)

    def end_of(self, day: date) -> int:
        """The working minute at which a day is over. [min]"""
        return bisect.bisect_right(self.days, day) * self.day_minutes

    def off(self, worker: Worker) -> tuple[Span, ...]:
        """When somebody is not there while the shop is open.

        Returns: From and to, in order, none touching the next. [min]
        """
        return _off(self, worker)


@functools.lru_cache(maxsize=256)
def _off(calendar: Calendar, worker: Worker) -> tuple[Span, ...]:
    away = [(day_of(a), day_of(b)) for a, b in worker.away]
    spans: list[list[int]] = []
    for n, day in enumerate(calendar.days):
        gone = any(a is not None and b is not None and a <= day <= b for a, b in away)
        if day.isoweekday() in worker.days and not gone:
            continue
        a, b = n * calendar.day_minutes, (n + 1) * calendar.day_minutes
        if spans and spans[-1][1] == a:
            spans[-1][1] = b
        else:
            spans.append([a, b])
    return tuple((a, b) for a, b in spans)


@functools.lru_cache(maxsize=16)
def calendar_of(begin: date, shop: Workshop) -> Calendar:
    """The calendar of a shop from a day on, made once."""
    return Calendar(begin, shop)
