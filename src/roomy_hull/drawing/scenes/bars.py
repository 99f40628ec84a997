"""A plan as bars on a calendar: a row for each person, station or thing, a column for each working day."""

from collections.abc import Sequence
from typing import NamedTuple

from roomy_hull.core.primitives import Disc, Rect, Scene, Stroke, Words, line, rectangle

GUTTER = 0.15
"""Room for the rows' names, as a part of the width of the days."""
HEAD = 0.8
"""Height of the days' names, in rows."""


class Bar(NamedTuple):
    """One bar: its key, its row, from and to in working minutes, its words, its role, whether it is held by hand."""

    key: str
    row: int
    start: float
    finish: float
    words: str
    role: str = "bar"
    held: bool = False


class Sheet(NamedTuple):
    """How the bars lie. [working minutes, and rows counted from above]

    Attributes:
        rows: How many there are.
        first, last: The stretch of time that is shown. [min]
        high: Of one row. [units of the drawing: working minutes]
    """

    rows: int
    first: float
    last: float
    high: float

    @property
    def gutter(self) -> float:
        """Room for the names, at the left. [min]"""
        return (self.last - self.first) * GUTTER

    @property
    def frame(self) -> Rect:
        """The stretch of the drawing that is seen."""
        return (self.first - self.gutter, -(self.rows + HEAD) * self.high, self.last, 0.0)

    def top(self, row: int) -> float:
        """The upper edge of a row."""
        return -(HEAD + row) * self.high

    def row_at(self, k: float) -> int:
        """The row at a height; below 0, or too many, beside them."""
        return int(-k / self.high - HEAD) if -k / self.high >= HEAD else -1


def sheet(rows: int, first: float, last: float, aspect: float) -> Sheet:
    """Lay the rows out so that they fill a place.

    Args:
        first, last: The stretch of time. [min]
    """
    wide = max(last - first, 60.0)
    return Sheet(
        rows, first, first + wide, wide * (1 + GUTTER) / max(aspect, 0.2) / (max(rows, 1) + HEAD)
    )


def scene(
    lies: Sheet, names: Sequence[str], days: Sequence[tuple[float, str]], bars: Sequence[Bar], now: float | None = None,
    due: float | None = None,
) -> Scene:  # fmt: skip
    """Draw a plan.

    Args:
        days: Where each working day begins, and its name. [min]
        now, due: The plan's day, and the end of the day on which it is due. [min]
    Returns: Lines of days and rows, bars with their words, marks.
    """
    found: list[Stroke] = []
    low = lies.top(lies.rows)
    for at, words in days:
        if lies.first <= at <= lies.last:
            found.append(line("bar day", (at, 0.0), (at, low)))
            if words:
                found.append(
                    Words(
                        "chart words",
                        (at + 6, -0.66 * lies.high * HEAD),
                        words,
                        10.0,
                        anchor="left",
                    )
                )
    for row in range(lies.rows + 1):
        found.append(
            line("bar row", (lies.first - lies.gutter, lies.top(row)), (lies.last, lies.top(row)))
        )
    pad = 0.14 * lies.high
    for bar in bars:
        a, b = max(bar.start, lies.first), min(bar.finish, lies.last)
        if b <= a:
            continue
        top = lies.top(bar.row)
        found.append(
            rectangle(
                bar.role, a, top - lies.high + pad, b, top - pad, min(4.0, (b - a) / 3), bar.key
            )
        )
        if b - a > 24:
            found.append(
                Words(
                    "bar words",
                    ((a + b) / 2, top - lies.high / 2),
                    bar.words,
                    9.5,
                    fit=(b - a) * 0.94,
                    tag=bar.key,
                    most=2,
                )
            )
        if bar.held:
            found.append(Disc("bar pin", (a + pad, top - pad * 1.6), pad * 0.9, bar.key))
    for row, name in enumerate(names):
        found.append(Words("chart words", (lies.first - lies.gutter + 6, lies.top(row) - lies.high / 2), name, 11.0,
                           anchor="left", fit=lies.gutter - 12))  # fmt: skip
    if now is not None and lies.first <= now <= lies.last:
        found.append(line("bar now", (now, 0.0), (now, low)))
    if due is not None and lies.first <= due <= lies.last:
        found.append(line("bar due", (due, 0.0), (due, low)))
        found.append(
            Words("bar due words", (due - 8, -0.2 * lies.high * HEAD), "due", 10.0, anchor="right")
        )
    return tuple(found)
