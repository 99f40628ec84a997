"""Weather of one's own: a table of hourly irradiance and temperature, as typical meteorological years come."""

from __future__ import annotations

import datetime
import re
from pathlib import Path
from typing import TYPE_CHECKING, NamedTuple

from roomy_hull.core import lazily
from roomy_hull.core.errors import InputError
from roomy_hull.core.services import sun
from roomy_hull.formats.tables_in import cells_of, lines_of, text_of
from roomy_hull.job.trips import Skies, Trip

if TYPE_CHECKING:
    import numpy as np
else:
    np = lazily.module("numpy")

NAMES: dict[str, tuple[str, ...]] = {
    "level": ("ghi", "g(h)", "global horizontal", "global horizontal irradiance", "level"),
    "beam": ("dni", "gb(n)", "direct normal", "direct normal irradiance", "beam"),
    "diffuse": ("dhi", "gd(h)", "diffuse horizontal", "diffuse horizontal irradiance", "diffuse"),
    "air": ("temp_air", "t2m", "dry-bulb", "dry bulb", "dry bulb temperature", "drybulb", "temperature", "temp", "air"),
    "time": ("time", "time(utc)", "date/time", "datetime", "timestamp", "date time", "utc"),
    "date": ("date", "date (mm/dd/yyyy)"),
    "clock": ("time (hh:mm)", "hour of day", "clock"),
    "year": ("year",), "month": ("month", "mo"), "day": ("day",), "hour": ("hour", "hr"), "minute": ("minute",),
}  # fmt: skip
"""What the columns of such tables are called, in small letters, without their units."""
LARGEST = 20_000_000
"""No table of hours is larger. [bytes]"""
LONGEST_NAME = 120
"""No column has a longer name. [letters]"""
MOST_LIGHT = 1500.0
FORMS = (
    "%Y-%m-%d %H:%M:%S",
    "%Y-%m-%d %H:%M",
    "%Y%m%d:%H%M",
    "%Y/%m/%d %H:%M",
    "%d.%m.%Y %H:%M",
    "%m/%d/%Y %H:%M",
)
TYPE = "the hours of a year, one a line, with a line of names: time, ghi, dni, dhi, temp_air"


class _Row(NamedTuple):
    """One line of the table: where it stands, and its hour as month, day, hour."""

    line: int
    when: tuple[int, int, int]
    figures: dict[str, float]


def _plain(name: str) -> str:
    """A column's name without its unit."""
    name = name.strip().strip('"').lower()[:LONGEST_NAME]
    bare = re.sub(r"\s*[\[(][^\])]*(?:w/m|wh/m|c|°|k)[^\])]*[\])]", "", name)
    return bare.strip() or name


def _heads(cells: list[str]) -> dict[str, int]:
    """Which column is which."""
    found: dict[str, int] = {}
    for n, cell in enumerate(cells):
        for word in (cell.strip().lower(), _plain(cell)):
            for key, names in NAMES.items():
                if word in names and key not in found:
                    found[key] = n
    return found


def _rows(text: str, name: str) -> tuple[dict[str, int], list[tuple[int, list[str]]], bool]:
    """The heads, the lines below them, and whether the clock is that of Greenwich."""
    lines = lines_of(text, name)
    for n, line in enumerate(lines[:60]):
        mark = max(";\t,", key=line.count)
        heads = _heads(cells_of(line, mark, f"{name}, line {n + 1}"))
        if "level" in heads and "air" in heads:
            body = [
                (k, cells_of(row, mark, f"{name}, line {k}")) for k, row in enumerate(lines[n + 1 :], n + 2) if row.strip()
            ]  # fmt: skip
            return heads, [r for r in body if any(c.strip() for c in r[1])], "utc" in line.lower()
    raise InputError("no line names the columns of a weather table", name, f"Give {TYPE}.")


def _figure(cell: str, place: str) -> float:
    """A figure with a point or a comma."""
    try:
        value = float(cell.strip().replace(",", "."))
    except ValueError:
        value = float("nan")
    if not np.isfinite(value):
        raise InputError(
            f"'{cell.strip()[:40]}' is no figure", place, "Fill the gap, or take another file."
        )
    return value


def _whole(cell: str, most: int, place: str) -> int:
    """A whole number from 0."""
    value = _figure(cell, place)
    if not 0 <= value <= most:
        raise InputError(f"{value:g} is not from 0 to {most}", place, "Correct the line.")
    return int(value)


def _when(heads: dict[str, int], cells: list[str], place: str) -> tuple[int, int, int]:
    """Month, day and hour of a line."""

    def cell(key: str) -> str:
        return cells[heads[key]].strip() if key in heads and heads[key] < len(cells) else ""

    if "month" in heads and "day" in heads and "hour" in heads:
        hour = _whole(cell("hour"), 24, place)
        first = datetime.date(
            2001,
            *_month_and_day(
                _whole(cell("month"), 99, place), _whole(cell("day"), 99, place), place
            ),
        )
        at = datetime.datetime(2001, first.month, first.day) + datetime.timedelta(hours=hour)
        return at.month, at.day, at.hour
    text = (
        cell("time") if "date" not in heads else f"{cell('date')} {cell('time') or cell('clock')}"
    )
    text = text.replace("T", " ").strip()
    text = re.sub(r"(?:Z|[+-]\d\d:?\d\d)$", "", text).strip()
    late = text.endswith((" 24:00", " 24:00:00"))
    if late:  # the end of a day is the beginning of the next
        text = text.replace(" 24:00", " 00:00")
    for form in FORMS:
        try:
            at = datetime.datetime.strptime(text, form)
        except ValueError:
            continue
        if late:
            # The year matters only for its leap day, which comes round in 400 years.
            at = at.replace(year=2000 + at.year % 400) + datetime.timedelta(days=1)
        return at.month, at.day, at.hour
    raise InputError(f"'{text[:40]}' is no day and hour", place, "Write 2026-03-10 13:00.")


def _month_and_day(month: int, day: int, place: str) -> tuple[int, int]:
    """A day of a year that is no leap year.

    Raises:
        InputError: There is no such day.
    """
    try:
        datetime.date(2001, month, min(day, 28) if (month, day) == (2, 29) else day)
    except ValueError:
        raise InputError(
            f"there is no day {day} of month {month}", place, "Correct the line."
        ) from None
    return month, 28 if (month, day) == (2, 29) else day


def _read(text: str, name: str) -> tuple[dict[tuple[int, int, int], _Row], bool]:
    """Every hour of a table by month, day and hour; whether by the clock of Greenwich."""
    heads, body, utc = _rows(text, name)
    if "time" not in heads and "date" not in heads and not {"month", "day", "hour"} <= heads.keys():
        raise InputError("no column says the hour", name, f"Give {TYPE}.")
    found: dict[tuple[int, int, int], _Row] = {}
    last = max(heads.values())
    for line, cells in body:
        if len(cells) <= last:
            if len(found) >= 24:
                continue  # notes below the table
            raise InputError("the line has too few columns", f"{name}, line {line}", "Complete it.")
        place = f"{name}, line {line}"
        when = _when(heads, cells, place)
        figures: dict[str, float] = {}
        for key in ("level", "beam", "diffuse", "air"):
            if key not in heads:
                continue
            value = _figure(cells[heads[key]], place)
            low, high = (-60.0, 60.0) if key == "air" else (-5.0, MOST_LIGHT)
            if not low <= value <= high:
                raise InputError(
                    f"{key} of {value:g} is not from {low:g} to {high:g}", place, "Correct it."
                )
            figures[key] = value if key == "air" else max(0.0, value)
        found.setdefault(when, _Row(line, when, figures))
    return found, utc


def read_weather(path: Path, trip: Trip) -> Skies:
    """Read the hours of a trip out of a weather table.

    Args:
        path: CSV with commas, semicolons or tabs: hour, ``ghi``, ``temp_air``, and ``dni`` and ``dhi`` if they are
            known (as typical meteorological years have them); the year does not matter. A head that says UTC is by that
            clock, else the hours are by the place's own. [W/m², °C]
    Raises:
        InputError: Names the line, or the hour that is missing, and what to do.
    """
    return weather_of(text_of(path, "the table", TYPE, LARGEST), path.name, trip)


def weather_of(text: str, name: str, trip: Trip) -> Skies:
    """As `read_weather`, from the text of a file."""
    if not trip.days:
        raise InputError("the trip has no days yet", "Services", "Add a day first.")
    table, utc = _read(text, name)
    shift = -round(trip.longitude / 15.0) if utc else 0
    begin = datetime.datetime.fromisoformat(trip.begin)
    rows, missing = [], []
    for h in range(24 * len(trip.days)):
        local = begin + datetime.timedelta(hours=h)
        at = local + datetime.timedelta(hours=shift)
        row = table.get((at.month, 28 if (at.month, at.day) == (2, 29) else at.day, at.hour))
        if row is None:
            missing.append(local)
        else:
            rows.append(row)
    if missing:
        raise InputError(
            f"of {24 * len(trip.days)} hours of the trip {len(missing)} are missing, first {missing[0]:%Y-%m-%d %H:%M}",
            name, "Fill the gap, or choose another first day.",
        )  # fmt: skip
    level = np.array([r.figures["level"] for r in rows])
    parts = {"level": level, "air": np.array([r.figures["air"] for r in rows])}
    if all({"beam", "diffuse"} <= r.figures.keys() for r in rows):
        parts |= {k: np.array([r.figures[k] for r in rows]) for k in ("beam", "diffuse")}
    else:
        zone = round(trip.longitude / 15.0) * 3600.0
        unix = (
            begin.replace(tzinfo=datetime.UTC).timestamp()
            - zone
            + 1800.0
            + 3600.0 * np.arange(float(len(rows)))
        )
        zenith, _azimuth = sun.position(unix, trip.latitude, trip.longitude)
        day = np.array([
            (begin + datetime.timedelta(hours=h)).timetuple().tm_yday for h in range(len(rows))
        ])
        sky = sun.split(level, zenith, day)
        parts |= {"beam": np.minimum(sky.beam, MOST_LIGHT), "diffuse": sky.diffuse}
    columns = {k: tuple(round(float(x), 1) for x in v) for k, v in parts.items()}
    return Skies(
        name=name[:120], level=columns["level"], beam=columns["beam"], diffuse=columns["diffuse"], air=columns["air"]
    )  # fmt: skip
