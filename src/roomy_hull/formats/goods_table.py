"""Goods as a table: read from a spreadsheet's text or a CSV file, and written as a packing list."""

from __future__ import annotations

import math
import re
from pathlib import Path

import msgspec

from roomy_hull.core.errors import InputError
from roomy_hull.core.value import refusal
from roomy_hull.formats.csv_tables import table
from roomy_hull.formats.tables_in import cells_of, lines_of, text_of
from roomy_hull.job.goods import CAB, NATURES, WHENS, Good
from roomy_hull.job.model import Job, Scenario

NAMES: dict[str, tuple[str, ...]] = {
    "name": ("name", "good", "goods", "item", "what", "thing", "article"),
    "mass": ("kg", "mass", "weight", "kg each", "mass kg", "weight kg", "mass each"),
    "count": ("count", "number", "pieces", "pcs", "qty", "quantity", "n", "no", "no.", "nr", "nr.", "amount"),
    "place": ("place", "where", "in", "unit", "drawer", "stowed"),
    "part": ("part", "compartment"),
    "use": ("use", "class", "wanted", "when"),
    "nature": ("nature", "kind", "sort"),
    "size": ("size", "size mm", "dimensions"),
    "length": ("length", "length mm"), "width": ("width", "width mm"), "height": ("height", "height mm"),
    "litres": ("litres", "liters", "l", "volume"),
    "only": ("only", "scenarios"),
    "note": ("note", "notes", "remark"),
}  # fmt: skip
LARGEST = 5_000_000
"""No list of goods is larger. [characters]"""
MOST_ROWS = 20_000
"""Nor has any more lines, those of names and remarks among them."""
HOW = "a line each: name, kg, number; or a first line of names such as: name; kg; count; place; use; nature; size"


def _plain(cell: str) -> str:
    return re.sub(r"[\[\](){}:]", "", cell).strip().strip('"').lower()


def _mark(lines: list[str]) -> str:
    """The sign between columns: the one that most lines have most of; a comma loses to others, for decimal commas."""
    for mark in ("\t", ";"):
        if sum(mark in line for line in lines) * 2 > len(lines):
            return mark
    return ","


def _number(cell: str, place: str) -> float:
    """A figure with a point or a comma, its unit left out."""
    word = (
        re
        .sub(r"(?i)\s*(kg|mm|l|litres?|pcs)\.?$", "", cell.strip())
        .replace(" ", "")
        .replace("\u00a0", "")
    )
    if word.count(",") == 1 and "." not in word:
        word = word.replace(",", ".")
    try:
        value = float(word)
    except ValueError:
        value = float("nan")
    if not math.isfinite(value):
        raise InputError(f"'{cell.strip()[:40]}' is no figure", place, "Write 12.5 or 12,5.")
    return value


def _pieces(cell: str, place: str) -> int:
    """A whole number of pieces."""
    count = _number(cell, place)
    if count != int(count):
        raise InputError(f"'{cell}' is no number of pieces", place, "Write 1, 2, 3.")
    return int(count)


def _size(cell: str, place: str) -> tuple[float, float, float]:
    """Three figures with × or x between them. [mm]"""
    parts = re.split(r"\s*[x×*]\s*", cell.strip().lower().removesuffix("mm").strip())
    if len(parts) != 3:
        raise InputError(f"'{cell.strip()[:40]}' is no size", place, "Write 300 x 200 x 120.")
    a, b, c = (_number(p, place) for p in parts)
    return a, b, c


def read_goods(text: str, job: Job, name: str = "the pasted text") -> tuple[Good, ...]:
    """Read goods from a table.

    Args:
        text: Tabs, semicolons or commas between columns; points or commas in figures; with a line of names or without.
        job: Its units, whose names or ids say the places.
    Returns: In the order of the lines, with ids after their names.
    Raises:
        InputError: Names the line and what to write; nothing is taken then.
    """
    rows = _rows(text, name)
    heads = _heads(rows[0][1])
    if heads:
        rows = rows[1:]
    else:
        heads = {"name": 0, "mass": 1, "count": 2, "place": 3, "use": 4}
    places: dict[str, str] = {}
    for key, called in job.holders().items():
        places |= {called.strip().lower(): key, key.lower(): key}
    known = {w.strip().lower(): s.id for s in job.scenarios for w in (s.name, s.id)}
    found = [_good(cells, heads, places, known, f"{name}, line {n}") for n, cells in rows]
    return tuple(found)


def unread(text: str) -> tuple[str, ...]:
    """The columns of a table of goods that are not read, by what heads them; none where no line of names is.

    Args:
        text: As for `read_goods`, which has read it.
    """
    cells = _rows(text, "")[0][1]
    heads = _heads(cells)
    taken = set(heads.values())
    return tuple(c.strip() for n, c in enumerate(cells) if heads and n not in taken and c.strip())


def _rows(text: str, name: str) -> list[tuple[int, list[str]]]:
    """The lines that are not empty, with their numbers, in cells."""
    if len(text) > LARGEST:
        raise InputError("it is too long for a list of gear", name, f"Give {HOW}.")
    rows = lines_of(text.lstrip("\ufeff"), name)
    lines = [(n, line) for n, line in enumerate(rows, 1) if line.strip()]
    if len(lines) > MOST_ROWS:
        raise InputError(
            f"it has {len(lines):,} lines", name, f"A job has at most {MOST_ROWS:,} goods."
        )
    if not lines:
        raise InputError("there is nothing in it", name, f"Give {HOW}.")
    mark = _mark([line for _n, line in lines])
    return [(n, cells_of(line, mark, f"{name}, line {n}")) for n, line in lines]


def _heads(cells: list[str]) -> dict[str, int]:
    """Which column is which; nothing where the line names none."""
    found: dict[str, int] = {}
    for n, cell in enumerate(cells):
        for key, names in NAMES.items():
            if _plain(cell) in names and key not in found:
                found[key] = n
    return found if "name" in found else {}


def _good(
    cells: list[str],
    heads: dict[str, int],
    places: dict[str, str],
    scenarios: dict[str, str],
    place: str,
) -> Good:
    """One line as a good."""

    def cell(key: str) -> str:
        n = heads.get(key, -1)
        return cells[n].strip() if 0 <= n < len(cells) else ""

    if not cell("name"):
        raise InputError("the line has no name", place, f"Give {HOW}.")
    raw: dict[str, object] = {
        "name": cell("name")[:120],
        "id": re.sub(r"[^A-Za-z0-9_.\-]+", "-", cell("name").lower()).strip("-")[:50] or "good",
    }
    for key in ("mass", "length", "width", "height", "litres"):
        if cell(key):
            raw[key] = _number(cell(key), place)
    if cell("count"):
        raw["count"] = _pieces(cell("count"), place)
    if cell("size"):
        raw["length"], raw["width"], raw["height"] = _size(cell("size"), place)
    if cell("place"):
        raw["place"] = _stowed_in(cell("place"), places, place)
    if cell("use"):
        raw["use"] = _one_of(cell("use"), WHENS, place)
    if cell("nature"):
        raw["nature"] = tuple(
            _one_of(w, NATURES, place) for w in re.split(r"[/+& ]+", cell("nature")) if w
        )
    if cell("only"):
        raw["only"] = tuple(
            scenarios[_one_of(w.strip(), tuple(scenarios), place)]
            for w in re.split(r"[/+|]+", cell("only")) if w.strip()
        )  # fmt: skip
    raw["part"], raw["note"] = cell("part"), cell("note")[:120]
    try:
        return msgspec.convert(raw, Good)
    except (msgspec.ValidationError, ValueError) as trouble:
        raise InputError(refusal(trouble), place, "Correct the line.") from None


def _stowed_in(word: str, places: dict[str, str], place: str) -> str:
    """The place that a word names."""
    key = word.lower()
    found = CAB if key == CAB else places.get(key, "")
    if not found:
        raise InputError(
            f"there is no '{word}' in the job",
            place,
            "Name a unit as the job names it, or leave it empty.",
        )
    return found


def _one_of(word: str, known: tuple[str, ...], place: str) -> str:
    """A word out of some."""
    if word.lower() not in known:
        raise InputError(
            f"'{word[:40]}' is none of: {', '.join(known)}", place, "Choose one of them."
        )
    return word.lower()


def goods_text(path: Path) -> str:
    """The text of a file with a table of goods.

    Raises:
        InputError: It cannot be read, or is too long.
    """
    return text_of(path, "the list of gear", HOW, LARGEST)


def aboard(job: Job, scenario: Scenario) -> tuple[Good, ...]:
    """The goods that are aboard in a scenario."""
    left = set(scenario.left_behind)
    return tuple(
        g
        for g in job.goods
        if (not g.only or scenario.id in g.only) and (not g.place or g.place not in left)
    )


def packing_list(job: Job, scenario: Scenario) -> str:
    """What to pack for a scenario as CSV, place by place, what is not stowed at the end. [kg, mm]"""
    names = job.holders() | {CAB: "Cab", "": "not stowed yet"}
    order = {key: n for n, key in enumerate(names)}
    rows: list[list[object]] = [
        [
            "place",
            "part",
            "good",
            "pieces",
            "kg each",
            "kg",
            "wanted",
            "nature",
            "size mm",
            "packed",
        ]
    ]
    for g in sorted(aboard(job, scenario), key=lambda g: order.get(g.place, 9999)):
        size = (
            f"{g.length:g} x {g.width:g} x {g.height:g}"
            if g.length and g.width and g.height
            else ""
        )
        rows.append([names.get(g.place, g.place), g.part, g.name, g.count, round(g.mass, 2), round(g.kg, 2), g.use,
                     " ".join(g.nature), size, ""])  # fmt: skip
    return table(rows)
