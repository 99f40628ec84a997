"""Charts as scenes: curves over two axes with round figures, for the screen and for paper alike."""

import math
from collections.abc import Sequence

import msgspec

from roomy_hull.core.primitives import (
    Disc,
    Outline,
    Point,
    Rect,
    Scene,
    Stroke,
    Words,
    line,
    rectangle,
)


class Curve(msgspec.Struct, frozen=True):
    """One curve: its role (how it is drawn), its points in the chart's units, its name at its end."""

    role: str
    points: tuple[Point, ...]
    words: str = ""
    dots: bool = False


class Level(msgspec.Struct, frozen=True):
    """A level line such as a limit."""

    value: float
    words: str
    role: str = "curve limit"


class Chart(msgspec.Struct, frozen=True):
    """A chart: what stands on its axes, its curves and levels.

    `shade` is a band (low, high) over the whole width; `across` are words under certain places instead
    of round figures; `aspect` is width over height.
    """

    x_words: str
    y_words: str
    curves: tuple[Curve, ...]
    levels: tuple[Level, ...] = ()
    aspect: float = 1.8
    across: tuple[tuple[float, str], ...] = ()
    band: tuple[Point, ...] = ()
    mark: float | None = None
    room: float = 0.0


WORDS_APART = 46.0
"""Between the words of two curves that end together. [mm of its own]"""
WIDE = 1000.0
"""Width of a chart's field in its own millimetres."""


def ticks(low: float, high: float, about: int = 5) -> list[float]:
    """Round figures between two, about so many.

    Returns: Multiples of 1, 2 or 5 times a power of ten.
    """
    span = max(high - low, 1e-9)
    raw = span / max(about, 1)
    power = 10 ** math.floor(math.log10(raw))
    step = next(m * power for m in (1, 2, 5, 10) if m * power >= raw * 0.999)
    first = math.ceil(low / step - 1e-9)
    return [n * step for n in range(first, math.floor(high / step + 1e-9) + 1)]


def _range(values: Sequence[float]) -> tuple[float, float]:
    """A range with a little room on both sides; never empty."""
    low, high = min(values), max(values)
    room = max((high - low) * 0.06, abs(high) * 1e-3, 1e-6)
    return low - room, high + room


def figure(value: float) -> str:
    """Write a round figure of an axis."""
    if abs(value) < 1e-9:
        return "0"
    return f"{value:,.0f}" if abs(value) >= 10 or float(value).is_integer() else f"{value:,.2g}"


def _named(ends: list[tuple[float, float, Curve]]) -> list[Stroke]:
    """Write each curve's words at its end, one above another where ends lie together."""
    found: list[Stroke] = []
    lowest = -math.inf
    for height, along, curve in sorted(ends, key=lambda row: row[0]):
        lowest = max(height, lowest + WORDS_APART)
        found.append(Words(curve.role, (along, lowest), curve.words, 11, anchor="left"))
    return found


def scene(chart: Chart) -> tuple[Scene, Rect]:  # ruff: ignore[complex-structure]  # one branch for each part of a chart
    """Draw a chart.

    Args:
        chart: What to draw; empty curves give an empty field.
    Returns: Its strokes and the stretch they take, axis figures included. [mm of its own]
    """
    tall = WIDE / chart.aspect
    points = [p for c in chart.curves for p in c.points]
    xs = [p[0] for p in points] or [0.0, 1.0]
    ys = [p[1] for p in points] + [v.value for v in chart.levels] + [p[1] for p in chart.band] or [
        0.0,
        1.0,
    ]
    x0, x1 = min(xs), max(xs)
    if x1 - x0 < 1e-9:
        x0, x1 = x0 - 1, x1 + 1
    y0, y1 = _range(ys)

    def at(p: Point) -> Point:
        return ((p[0] - x0) / (x1 - x0) * WIDE, (p[1] - y0) / (y1 - y0) * tall)

    found: list[Stroke] = [rectangle("chart field", 0, 0, WIDE, tall)]
    for y in ticks(y0, y1, 4):
        found.append(line("chart grid", at((x0, y)), at((x1, y))))
        found.append(Words("chart words", (-14.0, at((x0, y))[1]), figure(y), 11, anchor="right"))
    places = chart.across or tuple((x, figure(x)) for x in ticks(x0, x1, 6))
    for x, words in places:
        found.append(line("chart grid", at((x, y0)), at((x, y1))))
        found.append(Words("chart words", (at((x, y0))[0], -26.0), words, 11))
    if len(chart.band) > 2:
        found.append(Outline("chart band", tuple(at(p) for p in chart.band)))
    if y0 < 0 < y1:
        found.append(line("chart zero", at((x0, 0.0)), at((x1, 0.0))))
    for level in chart.levels:
        here = at((x0, level.value))
        found.append(line(level.role, here, (WIDE, here[1])))
        found.append(
            Words("chart limit words", (WIDE - 8, here[1] + 30), level.words, 11, anchor="right")
        )
    ends: list[tuple[float, float, Curve]] = []
    for curve in chart.curves:
        if len(curve.points) > 1:
            found.append(line(curve.role, *(at(p) for p in curve.points)))
        if curve.dots:
            found += [Disc(f"{curve.role} dot", at(p), 9.0) for p in curve.points]
        if curve.words and curve.points:
            end = at(curve.points[-1])
            ends.append((end[1], end[0] + 10, curve))
    found += _named(ends)
    if chart.mark is not None and x0 <= chart.mark <= x1:
        found.append(line("chart mark", at((chart.mark, y0)), at((chart.mark, y1))))
    found.append(Words("chart title", (0.0, tall + 26), chart.y_words, 11, anchor="left"))
    found.append(Words("chart title", (WIDE, -58.0), chart.x_words, 11, anchor="right"))
    return tuple(found), (-95.0, -80.0, WIDE + 14 + chart.room, tall + 50)
