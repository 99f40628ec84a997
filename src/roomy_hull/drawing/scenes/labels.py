"""Labels: a sheet of them to be printed and stuck on parts, each with its name, its number and a code to be scanned."""

import math
from typing import NamedTuple

from roomy_hull.core.primitives import Lines, Outline, Panel, Scene, Stroke, Words
from roomy_hull.drawing.paper import Paper

PAGE = (297.0, 210.0)
COLUMNS, ROWS = 4, 6
EDGE = 8.0
"""A sheet of A4 lying: so many labels across and down, and its margin. [mm]"""


class Label(NamedTuple):
    """What one label says: its title, the lines under it, and what its code holds."""

    title: str
    lines: tuple[str, ...]
    code: str


def _code(words: str, x: float, y: float, side: float) -> list[Stroke]:
    """A QR code (ISO/IEC 18004) as rectangles, run by run. [mm]"""
    import segno  # ruff: ignore[import-outside-top-level]  # read when labels are made

    matrix = segno.make(words, error="m", micro=False).matrix
    count = len(matrix)
    step = side / count
    found: list[Stroke] = []
    for row, bits in enumerate(matrix):
        start = None
        for n in range(count + 1):
            dark = n < count and bits[n]
            if dark and start is None:
                start = n
            if not dark and start is not None:
                top = y + side - row * step
                found.append(Panel("qr", x + start * step, top - step, x + n * step, top))
                start = None
    return found


def label_papers(labels: list[Label], title: str) -> tuple[Paper, ...]:
    """Lay labels out on sheets.

    Returns: A4 lying, four by six on each. [mm]
    """
    each = COLUMNS * ROWS
    pages = max(1, math.ceil(len(labels) / each))
    wide, high = (PAGE[0] - 2 * EDGE) / COLUMNS, (PAGE[1] - 2 * EDGE) / ROWS
    found = []
    for page in range(pages):
        scene: list[Stroke] = [Outline("label edge", ((0, 0), (PAGE[0], 0), PAGE, (0, PAGE[1])))]
        for n, label in enumerate(labels[page * each : (page + 1) * each]):
            x = EDGE + (n % COLUMNS) * wide
            y = PAGE[1] - EDGE - (n // COLUMNS + 1) * high
            scene += _label(label, x, y, wide, high)
        found.append(Paper(f"{title}, labels {page + 1} of {pages}", tuple(scene), (0, 0, *PAGE)))
    return tuple(found)


def _label(label: Label, x: float, y: float, wide: float, high: float) -> Scene:
    """One label in its place. [mm]"""
    side = min(high - 6, wide * 0.38)
    found: list[Stroke] = [Lines("label edge", (((x, y), (x + wide, y)), ((x, y), (x, y + high))))]
    found += _code(label.code, x + 3, y + (high - side) / 2, side)
    left = x + side + 6
    room = wide - side - 8
    rows = [(label.title, 3.4), *((words, 2.8) for words in label.lines)]
    k = y + high - 5.0
    for words, size in rows:
        for part in _wrapped(words, max(8, int(room / (size * 0.56)))):
            found.append(Words("label words", (left, k), part, size, fixed=False, anchor="left"))
            k -= size * 1.45
    return tuple(found)


def _wrapped(words: str, most: int) -> list[str]:
    """Words in rows of so many letters at most, two rows at most."""
    rows = [""]
    for word in words.split():
        if len(rows[-1]) + len(word) + 1 > most and rows[-1]:
            rows.append("")
        rows[-1] = f"{rows[-1]} {word}".strip()
    return [r[:most] for r in rows[:2]]
