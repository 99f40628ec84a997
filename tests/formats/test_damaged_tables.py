"""Tables of others, damaged in every way: read, or refused in words; never a fault of the program, never held up."""

import json
import os
import random
import re
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from roomy_hull.core.errors import InputError, UserError
from roomy_hull.formats import shopfile, unitfile, vehiclefile, wantfile
from roomy_hull.formats.goods_table import goods_text, read_goods
from roomy_hull.formats.tables_in import LONGEST_LINE, MOST_LINES, text_of
from roomy_hull.formats.weatherfile import read_weather
from roomy_hull.job.goods import Good
from roomy_hull.job.model import Job
from roomy_hull.job.trips import Day, Trip
from roomy_hull.shop.shop import shipped_shop
from tests.sweeping import examples

GOODS = b"name;kg;count;place;size\nPot;1,5;2;;300 x 200 x 120\nGas;9.5;1;;\n"
TRIP = Trip(begin="2026-03-10", days=(Day(),))
Reader = Callable[[Path], Any]


def goods_of(path: Path, job: Job) -> tuple[Good, ...]:
    return read_goods(goods_text(path), job, path.name)


@pytest.fixture
def readers(demo: Job) -> dict[str, tuple[bytes, Reader]]:
    """A good file of each sort, and what reads it."""
    hours = "".join(
        f"2026-03-{d:02d} {h:02d}:00,{40 * h},300,50,{10 + h}\n"
        for d in (9, 10, 11)
        for h in range(24)
    )
    stores = {
        "format": wantfile.FORMAT,
        "version": 1,
        "want": {"things": [{"stores": "net-drawer"}]},
    }
    return {
        "weather": (f"time,ghi,dni,dhi,temp_air\n{hours}".encode(), lambda p: read_weather(p, TRIP)),
        "goods": (GOODS, lambda p: goods_of(p, demo)),
        "want": (json.dumps(stores).encode(), wantfile.load),
        "shop": (shopfile.dumps(shipped_shop()), shopfile.load),
        "unit": (_unit(demo), unitfile.load),
        "vehicle": (vehiclefile.dumps(demo.vehicle), vehiclefile.load),
    }  # fmt: skip


def _unit(demo: Job) -> bytes:
    from roomy_hull.formats import thingfile

    return thingfile.written(demo.units[0], unitfile.FORMAT, "unit")


PIECES = (
    b'"', b"\x00", b"\xff\xfe", b"\xfe\xff", b"\xef\xbb\xbf", b"\r", b"\n", b"\x85", b"\xe2\x80\xa8",
    b";", b",", b"\t",
    b"1e12", b"-1", b"nan", b"inf", b"9999-12-31 24:00", b"0000-00-00 99:99", b"\xed\xa0\x80", b"\\ud800", b"[" * 400,
    b"(" * 1700,
    b"{", b"}", b"null", b"true", b"\xd9\xa3", b"=1+1", b"9" * 400, b"x" * 5000,
)  # fmt: skip


def damaged(data: bytes, rng: random.Random) -> bytes:
    """A file with a few pieces taken out, put in twice, changed, or put in from elsewhere."""
    for _ in range(rng.randint(1, 4)):
        at, long = rng.randrange(len(data) + 1), rng.choice((1, 1, 2, 8, 60))
        how = rng.randrange(6)
        if how == 0:
            data = data[:at] + data[at + long :]
        elif how == 1:
            data = data[:at] + data[at : at + long] * rng.randint(2, 40) + data[at + long :]
        elif how == 2:
            data = data[:at] + bytes(rng.randrange(256) for _ in range(long)) + data[at + long :]
        elif how == 3:
            data = data[:at] + rng.choice(PIECES) + data[at:]
        elif how == 4:
            data = data[:at]
        else:
            words = data.decode("utf-8", "replace")
            data = words.encode(
                rng.choice(("utf-16", "utf-16-le", "utf-16-be", "cp1252")), "replace"
            )
        if not data:
            break
    return data


def refusal(read: Reader, path: Path) -> str:
    """In what words a file is refused; empty where it is read."""
    try:
        read(path)
    except UserError as trouble:
        return str(trouble)
    return ""


@pytest.mark.parametrize("sort", ["weather", "goods", "want", "shop", "unit", "vehicle"])
def test_a_damaged_file_is_read_or_refused_in_words(
    sort: str, readers: dict[str, tuple[bytes, Reader]], tmp_path: Path
) -> None:
    good, read = readers[sort]
    path = tmp_path / "x.csv"
    path.write_bytes(good)
    read(path)
    rng, refused = random.Random(2026), 0
    tried = examples(20_000, 150)
    for _ in range(tried):
        path.write_bytes(damaged(good, rng))
        said = refusal(read, path)
        refused += bool(said)
        said.encode()
    assert refused > tried / 10


@pytest.mark.parametrize("sort", ["weather", "goods", "want", "shop", "unit", "vehicle"])
@pytest.mark.parametrize("what", ["pipe", "device", "folder", "nothing", "huge"])
def test_what_is_no_plain_file_is_refused_at_once(
    sort: str, what: str, readers: dict[str, tuple[bytes, Reader]], tmp_path: Path
) -> None:
    path = tmp_path / "x"
    if what == "pipe":
        os.mkfifo(path)
    elif what == "device":
        path = Path("/dev/zero")
    elif what == "folder":
        path.mkdir()
    elif what == "huge":
        with path.open("wb") as file:
            file.truncate(2_000_000_000)
    with pytest.raises(UserError, match=r"plain file|folder|cannot be read|too large"):
        readers[sort][1](path)


@pytest.mark.parametrize("head", [1_600, 60_000])
def test_a_long_heading_holds_nothing_up(head: int, demo: Job, tmp_path: Path) -> None:
    # Such a one took a minute in a pattern that went back over it again and again.
    path = tmp_path / "x.csv"
    for begin in ("ghi [" + "w/m" * (head // 3), "(" * head, "[" + "c" * head):
        path.write_text(f"{begin},time,temp_air\n2026-01-01 00:00,1,2\n")
        for read in (lambda: read_weather(path, TRIP), lambda: goods_of(path, demo)):
            with pytest.raises(InputError):
                read()


def test_a_table_of_too_many_lines_is_refused_before_it_is_taken_apart(
    demo: Job, tmp_path: Path
) -> None:
    path = tmp_path / "x.csv"
    path.write_text("a,1\n" * (MOST_LINES + 5))
    with pytest.raises(InputError, match="lines"):
        goods_of(path, demo)
    with pytest.raises(InputError, match="lines"):
        read_weather(path, TRIP)
    path.write_text("name;kg\nPot;1\n" + "x" * (LONGEST_LINE + 1))
    with pytest.raises(InputError, match="line 3"):
        goods_of(path, demo)


@pytest.mark.parametrize(
    "coding", ["utf-8", "utf-8-sig", "utf-16", "utf-16-le", "utf-16-be", "cp1252"]
)
def test_a_table_in_any_usual_coding_says_the_same(coding: str, demo: Job, tmp_path: Path) -> None:
    path = tmp_path / "x.csv"
    path.write_bytes("name;kg;count\nKöfferchen é;1,5;2\n".encode(coding))
    (good,) = goods_of(path, demo)
    assert (good.name, good.mass, good.count) == ("Köfferchen é", 1.5, 2)


def test_what_is_no_text_is_refused(tmp_path: Path) -> None:
    path = tmp_path / "x.csv"
    path.write_bytes(bytes(range(256)) * 20)
    with pytest.raises(InputError, match="no text"):
        text_of(path, "a table", "another", 10_000)


@pytest.mark.parametrize(
    "line",
    ["9999-12-31 24:00,1,2", "2026-03-10 12:00,1e400,2", "1e12,1,2", '2026-03-10 12:00,"1,2', "2026-13-45 24:00,1,2"],
)  # fmt: skip
def test_hours_that_are_none_are_told(line: str, tmp_path: Path) -> None:
    path = tmp_path / "x.csv"
    path.write_text(f"time,ghi,temp_air\n{line}\n")
    with pytest.raises(InputError):
        read_weather(path, TRIP)
    path.write_text(
        f"month,day,hour,ghi,temp_air\n3,10,1e12,{line.rpartition(',')[0][-1:] or 0},5\n"
    )
    with pytest.raises(InputError, match="line 2"):
        read_weather(path, TRIP)


@pytest.mark.parametrize("figure", ["9" * 400, "-" + "9" * 400, "9" * 5000])
def test_a_figure_of_hundreds_of_digits_is_refused(
    figure: str, readers: dict[str, tuple[bytes, Reader]], tmp_path: Path
) -> None:
    # Found by the sweep: a whole number past all that a computer counts in.
    good, read = readers["shop"]
    path = tmp_path / "x.shop.json"
    text = good.decode()
    assert '"kerf":' in text
    path.write_text(re.sub(r'"kerf": [\d.]+', f'"kerf": {figure}', text, count=1))
    with pytest.raises(UserError):
        read(path)


def test_the_day_before_a_leap_day_ends_as_that_begins(tmp_path: Path) -> None:
    # At 24:00 of 28 February: in a leap year it is the 29th that begins, and the first of March comes a day later.
    path = tmp_path / "x.csv"
    rows = [("2024-02-28 24:00", 7.0), ("2024-02-29 24:00", 9.0)]
    rows += [(f"2024-03-01 {h:02d}:00", 20.0 + h) for h in range(1, 24)]
    path.write_text("time,ghi,temp_air\n" + "".join(f"{when},0,{air}\n" for when, air in rows))
    found = read_weather(path, TRIP.but(begin="2026-03-01"))
    assert found.air[:2] == (9.0, 21.0)
