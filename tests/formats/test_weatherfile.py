"""Weather files: the columns of typical years read whatever their names, marks and clock; gaps told with their place."""

import datetime
from pathlib import Path

import numpy as np
import pvlib
import pytest

from roomy_hull.core.errors import InputError
from roomy_hull.core.services import sun
from roomy_hull.formats.weatherfile import read_weather, weather_of
from roomy_hull.job.trips import Day, Trip

TRIP = Trip(begin="2026-03-10", days=(Day(), Day()), longitude=144.2, latitude=-35.6)
BEGIN = datetime.datetime(2019, 3, 8)
HOURS = [BEGIN + datetime.timedelta(hours=h) for h in range(24 * 6)]


def value(at: datetime.datetime) -> float:
    """A figure that names its hour."""
    return float(at.day * 24 + at.hour)


def table(head: str, when: str, mark: str = ",", *, point: str = ".") -> str:
    rows = [head]
    for t in HOURS:
        figures = (f"{x:.1f}".replace(".", point) for x in (value(t), 2.0, 3.0, 21.5))
        rows.append(mark.join((t.strftime(when), *figures)))
    return "\n".join(rows)


EXPECTED = [value(datetime.datetime(2026, 3, 10) + datetime.timedelta(hours=h)) for h in range(48)]


@pytest.mark.parametrize(
    "text",
    [
        table("time,ghi,dni,dhi,temp_air", "%Y-%m-%d %H:%M"),
        table("time,ghi,dni,dhi,temp_air", "%Y-%m-%dT%H:%M:%S"),
        table(
            "Timestamp;GHI (W/m²);DNI (W/m²);DHI (W/m²);Dry-bulb (C)",
            "%d.%m.%Y %H:%M",
            ";",
            point=",",
        ),
        "Made up, for a test\nsome,more,words\n"
        + table("time\tG(h)\tGb(n)\tGd(h)\tT2m", "%Y%m%d:%H%M", "\t"),
        table("Year,Month,Day,Hour,GHI,DNI,DHI,Temperature", "%Y,%m,%d,%H"),
        table("Date (MM/DD/YYYY),Time (HH:MM),GHI,DNI,DHI,Dry-bulb", "%m/%d/%Y,%H:%M"),
    ],
)
def test_every_usual_table_is_read(text: str) -> None:
    found = weather_of(text, "w.csv", TRIP)
    assert list(found.level) == EXPECTED
    assert set(found.air) == {21.5}
    assert (found.beam[0], found.diffuse[0]) == (2.0, 3.0)


def test_the_clock_of_greenwich_is_turned_to_the_place_s() -> None:
    found = weather_of(table("time(UTC),ghi,dni,dhi,temp_air", "%Y%m%d:%H%M"), "w.csv", TRIP)
    # 144° east are ten hours ahead.
    assert list(found.level) == [v - 10 for v in EXPECTED]


def test_beam_and_sky_are_parted_where_only_the_level_was_measured() -> None:
    text = "\n".join([
        "time,ghi,temp_air",
        *(f"{t:%Y-%m-%d %H:%M},{300 if 7 <= t.hour < 17 else 0},20" for t in HOURS),
    ])
    found = weather_of(text, "w.csv", TRIP)
    assert max(found.beam) > 0
    assert all(d <= lv + 0.1 for d, lv in zip(found.diffuse, found.level, strict=True))


def test_parting_against_pvlib() -> None:
    # Erbs, Klein & Duffie 1982, as pvlib has it.
    zenith = np.linspace(5, 86, 40)
    level, days = np.linspace(900, 20, 40), np.full(40, 172)
    theirs = pvlib.irradiance.erbs(level, zenith, days)
    ours = sun.split(level, zenith, days)
    assert ours.diffuse == pytest.approx(np.asarray(theirs["dhi"]), rel=0.02, abs=1.0)
    assert ours.beam == pytest.approx(np.asarray(theirs["dni"]), rel=0.03, abs=3.0)


GOOD = table("time,ghi,dni,dhi,temp_air", "%Y-%m-%d %H:%M")


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "no line names the columns"),
        ("ghi,temp_air\n1,2", "no column says the hour"),
        (
            "\n".join(r for r in GOOD.split("\n") if "2019-03-11 07" not in r),
            r"48 hours .* 1 are missing, first 2026-03-11 07",
        ),
        (GOOD.replace("2019-03-10 05:00,", "2019-03-10 05:00,,,"), "is no figure"),
        (GOOD.replace(",21.5", ",nan", 1), "line 2.*'nan' is no figure"),
        (GOOD.replace(",21.5", ",400", 1), "line 2.*air of 400"),
        (GOOD.replace("2019-03-08 00:00", "the eighth"), "line 2.*'the eighth' is no day and hour"),
        ("month,day,hour,ghi,temp_air\n13,40,1,2,3", "line 2.*no day 40 of month 13"),
        ("time,ghi,dni,dhi,temp_air\n2019-03-10 05:00,1", "too few columns"),
    ],
)
def test_what_is_wrong_is_told_with_its_place(text: str, words: str) -> None:
    with pytest.raises(InputError) as found:
        weather_of(text, "w.csv", TRIP)
    import re

    assert re.search(words, str(found.value)), str(found.value)


def test_no_days_no_file_and_too_large_a_file(tmp_path: Path) -> None:
    with pytest.raises(InputError, match="no days"):
        weather_of(GOOD, "w.csv", Trip())
    with pytest.raises(InputError, match="cannot be read"):
        read_weather(tmp_path / "none.csv", TRIP)
    large = tmp_path / "large.csv"
    large.write_bytes(b"x" * 20_000_001)
    with pytest.raises(InputError, match="too large"):
        read_weather(large, TRIP)
