"""JSON of ours: decoded with messages that name the place, made into values, and encoded so that it can be read again."""

import json
import math
import re
from typing import Any, TypeVar

import msgspec

from roomy_hull.core.errors import JobFileError
from roomy_hull.core.value import LEAST, Value, set_aside
from roomy_hull.formats.atomic import KEPT_SUFFIX

MOST_DIGITS = 300
"""A whole number has no more digits: no figure that a computer counts in has."""
MOST_QUOTED = 200
"""So much of a file's own words is said again in a message, at most. [letters]"""

T = TypeVar("T", bound=Value)


def converted(raw: dict[str, Any], kind: type[T], place: str, remedy: str) -> T:
    """Make a value of what a file holds, its unknown fields kept.

    Args:
        place, remedy: What to call the file in messages, and what to do about a value that is not allowed.
    Raises:
        JobFileError: A value is not allowed; names the field.
    """
    try:
        return msgspec.convert(set_aside(raw, kind), kind)
    except msgspec.ValidationError as trouble:
        what, where = worded(str(trouble), raw)
        raise JobFileError(what, f"{place}, {where}" if where else place, remedy) from None
    except UnicodeEncodeError:
        raise JobFileError("a word holds half a sign, which is no text", place, remedy) from None


def decode(data: bytes, place: str) -> Any:
    """Decode JSON.

    Args:
        data: UTF-8 text.
    Raises:
        JobFileError: Line and column of what is broken, a figure that is none, a field that stands twice.
    """
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as trouble:
        raise JobFileError(
            f"byte {trouble.start} is no text", place, "A job file is plain UTF-8 text."
        ) from None

    try:
        found = json.loads(text, **_hooks(text, place))
    except json.JSONDecodeError as trouble:
        cut = trouble.pos >= len(text.rstrip()) - 1 or trouble.msg.startswith("Unterminated")
        what = "the file ends too early" if cut else f"the text is damaged ({trouble.msg})"
        raise JobFileError(
            what,
            f"{place}, line {trouble.lineno}, column {trouble.colno}",
            f"The copy before the last save ends in {KEPT_SUFFIX}; open that one.",
        ) from None
    except RecursionError:
        raise JobFileError("the text is nested too deeply to be one of ours", place) from None
    except ValueError:
        raise JobFileError("the text is damaged", place) from None

    # Written as \\ud800 half a sign can be read, but never written again.
    if re.search(r"\\u[dD][89a-fA-F]", text):
        refuse_halves(found, place)
    return found


def _hooks(text: str, place: str) -> dict[str, Any]:
    """What is asked of every figure and object of a text as it is decoded."""

    def refuse(word: str) -> Any:
        line = next(
            (i for i, row in enumerate(text.splitlines(), 1) if re.search(rf"{word}\b", row)), 0
        )
        raise JobFileError(
            f"{word} is not a figure", f"{place}, line {line}", "Type the measured figure."
        )

    def once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
        found: dict[str, Any] = {}
        for key, value in pairs:
            if key in found:
                raise JobFileError(f"the field '{key}' stands twice", place, "Keep one of them.")
            found[key] = value
        return found

    def meant(word: str) -> float:
        value = float(word)
        if not math.isfinite(value):
            refuse(re.escape(word[:40]))
        return value if abs(value) >= LEAST else 0.0

    def whole(word: str) -> int:
        if len(word) > MOST_DIGITS:
            refuse(re.escape(word[:40]))
        return int(word)

    # Only such a figure can be past all that a computer counts in, or next to nothing; asking every one takes longer.
    vast = re.search(r"[eE][+-]?\d{2}|[eE]-\d|\d{300}|0\.0{6}", text)
    more = {"parse_float": meant, "parse_int": whole} if vast else {}
    return {"parse_constant": refuse, "object_pairs_hook": once, **more}


def refuse_halves(raw: Any, place: str, where: str = "") -> None:
    """Refuse text that holds half a sign (a surrogate by itself), naming the field.

    Raises:
        JobFileError: Where there is one.
    """
    if isinstance(raw, str):
        try:
            raw.encode()
        except UnicodeEncodeError:
            raise JobFileError(
                "a word holds half a sign, which is no text",
                ", ".join(w for w in (place, where) if w),
                "Type it again.",
            ) from None
    elif isinstance(raw, dict):
        for key, value in raw.items():
            refuse_halves(key, place, where)
            refuse_halves(value, place, f"{where}.{key}" if where else key)
    elif isinstance(raw, list):
        for n, value in enumerate(raw):
            refuse_halves(value, place, f"{where}[{n}]")


_AT = r"(?s)^(?P<what>.*?)(?: - at `\$\.?(?P<path>[^`]*)`)?$"


def first_version(value: object) -> bool:
    """Say whether a file is of version 1; ``true`` is no number, though Python takes it for one."""
    return isinstance(value, int) and not isinstance(value, bool) and value == 1


def worded(message: str, raw: Any) -> tuple[str, str]:
    """Split a validator's message into plain words and the place, with the unit's name."""
    found = re.match(_AT, message)
    what, path = (found["what"], found["path"] or "") if found else (message, "")
    nouns = {"float": "a figure", "int": "a whole number", "str": "a text", "array": "a list",
             "object": "a group of fields"}  # fmt: skip
    bound = r"Expected `(float|int|str|array|object)`((?: of length)? [<>]=? [^ `]+)?"
    what = (
        re
        .sub(bound, lambda m: f"{nouns[m[1]]}{m[2] or ''} is wanted", what)
        .replace("Object missing required field", "there is no field")
        .replace(", got `", ", not `")
        .replace("`", "")
    )
    what, path = (
        words if len(words) <= MOST_QUOTED else f"{words[:MOST_QUOTED]}…" for words in (what, path)
    )
    name = ""
    step = re.match(r"(\w+)\[(\d+)\]", path)
    if step and isinstance(raw, dict):
        rows = raw.get(step[1])
        row = rows[int(step[2])] if isinstance(rows, list) and int(step[2]) < len(rows) else None
        if isinstance(row, dict) and isinstance(row.get("name"), str):
            name = f" ({row['name'][:MOST_QUOTED]})"
    return what, path + name


def encode(frame: Any) -> bytes:
    """Write plain values as readable JSON that ends in a line break.

    Half a sign, which is no text, is written as JSON escapes it.
    """
    text = json.dumps(frame, indent=1, ensure_ascii=False, allow_nan=False) + "\n"
    return text.encode("utf-8", "backslashreplace")
