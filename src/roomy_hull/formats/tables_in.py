"""Tables of others, as text: read whole within bounds, in whatever coding they come, and taken apart line by line."""

import csv
from pathlib import Path

from roomy_hull.core.errors import InputError, JobFileError
from roomy_hull.formats.atomic import read_whole

MOST_LINES = 200_000
"""A table has no more lines: such a one would hold every hour of twenty years."""
ENDS = "\n\r\v\f\x1c\x1d\x1e\x85\u2028\u2029"
"""What `str.splitlines` takes for the end of a line."""
MOST_CELLS, LONGEST_CELL, LONGEST_LINE = 200, 4_000, 20_000
"""A line has no more cells, a cell and a line no more letters."""


def text_of(path: Path, what: str, remedy: str, largest: int) -> str:
    """Read a file's text.

    Args:
        what, remedy: What it should be, such as "a list of goods", and what to give instead.
        largest: No such file is larger. [bytes]
    Returns: From UTF-8, from UTF-16 with a mark or plainly so, else from the letters of Western Europe (Windows 1252).
    Raises:
        InputError: It cannot be read, is no plain file, is too large, or is no text.
    """
    try:
        data = read_whole(path, largest)
    except JobFileError as trouble:
        raise InputError(trouble.what, trouble.place, trouble.remedy) from None
    text = _decoded(data)
    if "\x00" in text:
        raise InputError("this is no text", path.name, f"Save {what} as CSV; give {remedy}.")
    return text.removeprefix("\ufeff")


def _decoded(data: bytes) -> str:
    if data.startswith((b"\xff\xfe", b"\xfe\xff")):
        return data.decode("utf-16", errors="replace")
    # Of plain Latin letters UTF-16 has every second byte empty.
    even, odd = data[0:400:2], data[1:400:2]
    for zeros, others, coding in ((odd, even, "utf-16-le"), (even, odd, "utf-16-be")):
        if (
            len(zeros) > 1
            and zeros.count(0) > 0.7 * len(zeros)
            and others.count(0) < 0.1 * len(others)
        ):
            return data.decode(coding, errors="replace")
    try:
        return data.decode("utf-8")
    except UnicodeDecodeError:
        return data.decode("cp1252", errors="replace")


def lines_of(text: str, name: str) -> list[str]:
    """Take a text apart into lines, within bounds.

    Raises:
        InputError: There are too many lines, or one is too long; names it.
    """
    # Counted before it is taken apart: a list of millions of lines takes more room than they.
    if sum(map(text.count, ENDS)) - text.count("\r\n") > MOST_LINES:
        raise InputError(f"it has more than {MOST_LINES:,} lines", name, "Take a part of it.")
    lines = text.splitlines()
    for n, line in enumerate(lines, 1):
        if len(line) > LONGEST_LINE:
            raise InputError(
                f"the line has {len(line):,} letters", f"{name}, line {n}", f"At most {LONGEST_LINE:,} are read."
            )  # fmt: skip
    return lines


def cells_of(line: str, mark: str, place: str) -> list[str]:
    """The cells of one line; a quote that does not end runs to the line's end, and no further.

    Raises:
        InputError: It has too many cells, or one is too long.
    """
    try:
        cells = next(csv.reader([line], delimiter=mark), [])
    except csv.Error as trouble:
        raise InputError(
            f"the line cannot be read ({trouble})", place, "Take its quotes out."
        ) from None
    if len(cells) > MOST_CELLS:
        raise InputError(
            f"the line has {len(cells):,} columns", place, f"At most {MOST_CELLS} are read."
        )
    long = max(map(len, cells), default=0)
    if long > LONGEST_CELL:
        raise InputError(f"a cell has {long:,} letters", place, f"Shorten it to {LONGEST_CELL:,}.")
    return cells
