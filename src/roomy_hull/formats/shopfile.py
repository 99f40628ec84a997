"""The shop as a file: its materials, stock, prices, rules; what a shop does not set stays as shipped."""

import math
from pathlib import Path
from typing import Any, TypeVar

import msgspec

from roomy_hull.core.days import day_of
from roomy_hull.core.errors import FileError, InputError, JobFileError
from roomy_hull.core.material import Material
from roomy_hull.core.mechanics.bends import TestBend
from roomy_hull.formats.atomic import read_whole, write_whole
from roomy_hull.formats.plain_json import decode, encode, first_version, worded
from roomy_hull.shop.shop import DimensionRule, Prices, Rules, Shop, Stock, shipped_shop
from roomy_hull.shop.tools import Tools
from roomy_hull.shop.workshop import Workshop

T = TypeVar("T")
FORMAT = "roomy-hull-shop"
SUFFIX = ".shop.json"
MEND = "Mend the value; docs/shop.schema.json says what each field may hold."
_MAY_BE_NOUGHT = frozenset({
    "bend_radius_per_t", "kerf", "trim", "running_gap", "moving_gap", "rolling", "slope", "level_band",
    "sheet_per_kg", "bar_per_kg", "hardware", "cut_per_m", "bend", "insulation_per_m2",
    "width", "height", "overhang", "overhang_share", "price", "offcut_share", "hour", "pierce", "weld_per_m",
    "coat_per_m2", "rivet", "bolt", "seal_per_m", "hinge_per_m", "doubt", "angle", "weld", "assembly",
    "least_offcut", "tensile_mpa", "piece_minutes", "bought_minutes",
    "margin", "tax", "coat_days", "sheet", "bar", "bought", "outside",
})  # fmt: skip
_SIGNED = frozenset({"cold"})


def loads(data: bytes, place: str = "the shop file") -> Shop:
    """Read a shop from the bytes of its file; fields that it leaves out stay as shipped.

    Raises:
        FileError: The file is damaged, foreign or newer, has a field that there is not, or a value that is not allowed;
            names the field and the remedy.
    """
    if not data.strip():
        raise FileError("the file is empty", place, "Write the shop's values again.")
    try:
        raw = decode(data, place)
    except JobFileError as trouble:
        raise FileError(trouble.what, trouble.place, "A shop file is plain JSON.") from None
    if not isinstance(raw, dict) or raw.get("format") != FORMAT:
        raise FileError(
            "this is not a Roomy Hull shop", place, f'A shop file starts with "format": "{FORMAT}".'
        )
    if not first_version(raw.get("version")):
        raise FileError(
            f"the version {raw.get('version')!r} is not 1",
            place,
            "Open it with a newer Roomy Hull.",
        )
    inner = raw.get("shop")
    if not isinstance(inner, dict):
        raise FileError("there is no group of fields 'shop'", place, "See docs/formats.md.")
    frame = _merged(_frame(shipped_shop()), inner, f"{place}, shop")
    return _shop(frame, place)


def _merged(shipped: dict[str, Any], own: dict[str, Any], place: str) -> dict[str, Any]:
    """Lay a shop's own values over the shipped ones; refuse a field that there is not."""
    found = dict(shipped)
    tables = place.endswith((".materials", ".dimension_rules"))
    for key, value in own.items():
        if key not in shipped and not tables:
            raise FileError(
                f"there is no field '{key}'", place, f"Use one of {', '.join(shipped)}."
            )
        old = shipped.get(key)
        if isinstance(old, dict) or (old is None and tables):
            if not isinstance(value, dict):
                raise FileError("a group of fields is wanted", f"{place}.{key}", MEND)
            found[key] = _merged(old, value, f"{place}.{key}") if old is not None else value
        else:
            found[key] = value
    return found


def _shop(frame: dict[str, Any], place: str) -> Shop:
    """Make the shop of its frame, every value checked."""
    known = set(Material.__struct_fields__)
    for key, row in frame["materials"].items():
        for field in row:
            if field not in known or field == "key":
                raise FileError(
                    f"there is no field '{field}'",
                    f"{place}, shop.materials.{key}",
                    f"Use {', '.join(sorted(known - {'key'}))}.",
                )
    tables: dict[str, Any] = {
        "materials": {
            key: _made({"key": key, **row}, Material, f"{place}, shop.materials.{key}")
            for key, row in frame["materials"].items()
        },
        "dimension_rules": {
            key: _made(row, DimensionRule, f"{place}, shop.dimension_rules.{key}")
            for key, row in frame["dimension_rules"].items()
        },
    }
    tables |= {
        name: _made(frame[name], kind, f"{place}, shop.{name}")
        for name, kind in (
            ("stock", Stock),
            ("prices", Prices),
            ("rules", Rules),
            ("tools", Tools),
            ("workshop", Workshop),
        )
    }
    tables["test_bends"] = _made(
        frame["test_bends"], tuple[TestBend, ...], f"{place}, shop.test_bends"
    )
    tables |= {
        key: _made(frame[key], str, f"{place}, shop.{key}")
        for key in ("name", "sheet", "bar", "ply")
    }
    shop = Shop(**tables)
    _check(_frame(shop), f"{place}, shop")
    for word, key in (("sheet", shop.sheet), ("bar", shop.bar), ("ply", shop.ply)):
        if key not in shop.materials:
            raise FileError(
                f"there is no material '{key}'",
                f"{place}, shop.{word}",
                f"Use one of {', '.join(shop.materials)}.",
            )
    _check_stock(shop, f"{place}, shop")
    _check_workshop(shop.workshop, f"{place}, shop.workshop")
    if not shop.stock.sheets:
        raise FileError("there is no sheet", f"{place}, shop.stock.sheets", "Enter one size.")
    for name, metal in shop.materials.items():
        if metal.k_factor >= 1:
            raise FileError(
                f"{metal.k_factor:g} is no K factor",
                f"{place}, shop.materials.{name}.k_factor",
                "It is the neutral line's part of the thickness, usually 0.33 to 0.5.",
            )
    return shop


def _check_stock(shop: Shop, place: str) -> None:
    """Refuse offcuts, prices and test bends of a metal that there is not, tools that cut nothing, a K that is none."""
    rows = [("stock.offcuts", o.material) for o in shop.stock.offcuts]
    rows += [("stock.prices", p.material) for p in shop.stock.prices]
    rows += [("test_bends", b.material) for b in shop.test_bends]
    for where, key in rows:
        if key not in shop.materials:
            raise FileError(
                f"there is no material '{key}'",
                f"{place}.{where}",
                f"Use one of {', '.join(shop.materials)}.",
            )
    for number, bend in enumerate(shop.test_bends):
        if not 1 <= bend.angle < 180:
            raise FileError(
                f"a test bend of {bend.angle:g} degrees tells nothing",
                f"{place}.test_bends[{number}].angle",
                "Bend a strip by 90 degrees.",
            )
    kinds = ("laser", "plasma", "router", "shear")
    if shop.tools.cutter.kind not in kinds:
        raise FileError(
            f"there is no cutter '{shop.tools.cutter.kind}'",
            f"{place}.tools.cutter.kind",
            f"Use one of {', '.join(kinds)}.",
        )
    for name, rows_ in (("dies", shop.tools.brake.dies), ("segments", shop.tools.brake.segments)):
        if not rows_:
            raise FileError("the list is empty", f"{place}.tools.brake.{name}", "Enter one size.")
    for key in shop.materials:
        try:
            shop.material(key)
        except InputError as trouble:
            raise FileError(trouble.what, f"{place}, {trouble.place}", trouble.remedy) from None


def _check_workshop(own: Workshop, place: str) -> None:
    """Refuse ids that stand twice, days that are none, and a shop in which nobody ever works."""
    for field, ids in (
        ("people", [w.id for w in own.people]),
        ("stations", [s.id for s in own.stations]),
    ):
        for number, key in enumerate(ids):
            if not key or ids.index(key) != number:
                raise FileError(f"the id '{key}' is empty or stands twice", f"{place}.{field}[{number}].id",
                                "Give each its own.")  # fmt: skip
    weeks = [("days", own.days)] + [(f"people[{n}].days", w.days) for n, w in enumerate(own.people)]
    for field, days in weeks:
        if not days or not set(days) <= set(range(1, 8)):
            raise FileError(
                "days of the week are 1 (Monday) to 7, at least one", f"{place}.{field}", MEND
            )
    dated = [("closed", d) for d in own.closed]
    dated += [
        (f"people[{n}].away", d) for n, w in enumerate(own.people) for pair in w.away for d in pair
    ]
    for field, day in dated:
        if day_of(day) is None:
            raise FileError(f"'{day}' is no day", f"{place}.{field}", "Write it as YYYY-MM-DD.")
    if own.day_hours > 24:
        raise FileError(f"a day has no {own.day_hours:g} hours", f"{place}.day_hours", MEND)
    if not own.fastest <= 1 <= own.slowest:
        raise FileError("fastest is 1 at most, slowest 1 at least", f"{place}.fastest", MEND)


def _made(raw: Any, kind: type[T], place: str) -> T:
    """Make one value of a shop file, or say where it is not allowed."""
    try:
        return msgspec.convert(raw, kind)
    except msgspec.ValidationError as trouble:
        what, where = worded(str(trouble), raw)
        raise FileError(what, f"{place}.{where}" if where else place, MEND) from None
    except UnicodeEncodeError:
        raise FileError("a word holds half a sign, which is no text", place, MEND) from None


def _check(value: Any, place: str, field: str = "") -> None:
    """Refuse figures that are none, and those that have to be above 0 and are not."""
    if isinstance(value, dict):
        for key, inner in value.items():
            if not key.isprintable():  # half a sign, or a control character
                raise FileError(f"the name {key!a} is no text", place, MEND)
            _check(inner, f"{place}.{key}", key)
    elif isinstance(value, (list, tuple)):
        for number, inner in enumerate(value):
            _check(inner, f"{place}[{number}]", field)
    elif isinstance(value, (int, float)):
        low = -math.inf if field in _SIGNED else 0.0
        fine = math.isfinite(value) and (value >= low if field in _MAY_BE_NOUGHT else value > low)
        if not fine:
            more = "0 or more" if field in _MAY_BE_NOUGHT else "above 0"
            raise FileError(f"{value:g} is not {more}", place, MEND)


def _frame(shop: Shop) -> dict[str, Any]:
    """Lay a shop out as its file holds it."""
    frame: dict[str, Any] = msgspec.to_builtins(shop)
    for row in frame["materials"].values():
        del row["key"]
    return frame


def dumps(shop: Shop) -> bytes:
    """Write a shop as the bytes of its file, every value set."""
    return encode({"format": FORMAT, "version": 1, "shop": _frame(shop)})


def load(path: Path) -> Shop:
    """Read a shop file.

    Raises:
        FileError: The file cannot be read, or `loads` refuses it.
    """
    if path.is_dir():
        raise FileError("this is a folder", str(path), "Give a shop file.")
    try:
        data = read_whole(path)
    except JobFileError as trouble:
        raise FileError(trouble.what, trouble.place, trouble.remedy) from None
    return loads(data, path.name)


def in_folder(folder: Path) -> Path | None:
    """The shop file of a folder, the first by its name; none where there is none."""
    return min(folder.glob(f"*{SUFFIX}"), default=None) if folder.is_dir() else None


def save(shop: Shop, path: Path) -> None:
    """Write a shop file, whole or not at all.

    Raises:
        FileError: The place cannot be written; what was there is untouched.
    """
    try:
        write_whole(path, dumps(shop), named=True)
    except JobFileError as trouble:
        raise FileError(trouble.what, trouble.place, trouble.remedy) from None


def schema() -> dict[str, Any]:
    """Make the JSON Schema of the shop file; no field of a shop is required.

    Returns: JSON Schema, draft 2020-12.
    """
    found = msgspec.json.schema(Shop)
    for name, body in found["$defs"].items():
        # A row of a table that is not shipped has to be whole, which only reading can tell.
        body.pop("required", None)
        body["additionalProperties"] = False
        if name == "Material":
            body["properties"].pop("key")
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Roomy Hull shop file, version 1",
        "type": "object",
        "required": ["format", "version", "shop"],
        "properties": {
            "format": {"const": FORMAT},
            "version": {"const": 1},
            "shop": {"$ref": found["$ref"]},
        },
        "$defs": found["$defs"],
    }
