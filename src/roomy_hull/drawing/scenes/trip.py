"""A trip as one wide picture: the days across, charge, water and gas as curves, sun and driving under them."""

from collections.abc import Sequence

import msgspec

from roomy_hull.core.primitives import Disc, Outline, Rect, Scene, Stroke, Words, line, rectangle
from roomy_hull.job.trips import Day
from roomy_hull.studies.services.trip import TripResult
from roomy_hull.studies.services.weather import PLUGGED_FROM

HIGH, UNDER, STRIP = 1000.0, 60.0, 110.0
"""Height of the curves' field, of the gap under it, and of each strip. [mm of its own]"""
LEFT = 190.0
"""Room for the axis' figures. [mm of its own]"""
NIGHT = (18.0, 6.0)
"""When it is dark, about; only drawn. [h]"""


class Stocks(msgspec.Struct, frozen=True):
    """What is left of water and gas at the end of each day, 0 to 1; empty where there is none."""

    water: tuple[float, ...] = ()
    gas: tuple[float, ...] = ()
    measured: tuple[tuple[float, float], ...] = ()
    """Hour and charge by the battery monitor, of what one wants to draw."""


def wide(days: int, aspect: float) -> float:
    """How wide the field is drawn for a picture of some aspect. [mm of its own]"""
    high = HIGH + UNDER + 2 * STRIP + 150
    return max(700.0, aspect * high - LEFT - 330.0) if days else 700.0


def drive_box(days: Sequence[Day], n: int, width: float) -> Rect:
    """Where a day's driving is drawn. [mm of its own]"""
    hour = width / (24 * len(days))
    a = LEFT + (24 * n + days[n].drive_from) * hour
    b = a + days[n].drive * hour
    top = -UNDER - STRIP - 20
    return (a, top - STRIP + 30, b, top)


def hour_at(days: Sequence[Day], h: float, width: float) -> tuple[int, float]:
    """Which day and hour lies at a place of the picture."""
    hours = (h - LEFT) / width * 24 * len(days)
    n = min(len(days) - 1, max(0, int(hours // 24)))
    return n, hours - 24 * n


def scene(
    found: TripResult,
    days: Sequence[Day],
    usable: float,
    stocks: Stocks,
    chosen: int,
    aspect: float,
) -> tuple[Scene, Rect]:
    """Draw a trip.

    Args:
        usable: What the batteries hold of what one wants to draw. [Wh]
        chosen: A day; -1 for none.
    Returns: Its strokes and the stretch they take. [mm of its own]
    """
    width = wide(len(days), aspect)
    hour = width / found.hours
    low = -UNDER - 2 * STRIP - 20
    primitives: list[Stroke] = [rectangle("chart field", LEFT, 0, LEFT + width, HIGH)]
    for n in range(len(days)):
        x = LEFT + 24 * n * hour
        for a, b in ((0.0, NIGHT[1]), (NIGHT[0], 24.0)):
            primitives.append(rectangle("trip night", x + a * hour, low, x + b * hour, HIGH))
        if n == chosen:
            primitives.append(rectangle("chart band", x, low, x + 24 * hour, HIGH))
        primitives += [
            line("chart grid", (x, low), (x, HIGH)),
            Words(
                "chart title" if n == chosen else "chart words",
                (x + 12 * hour, low - 60),
                f"day {n + 1}",
                11,
            ),
        ]
    for part in (0.0, 0.25, 0.5, 0.75, 1.0):
        primitives.append(line("chart grid", (LEFT, part * HIGH), (LEFT + width, part * HIGH)))
        primitives.append(
            Words(
                "chart words", (LEFT - 16, part * HIGH), f"{100 * part:.0f} %", 11, anchor="right"
            )
        )
    primitives += _curves(found, usable, stocks, hour)
    primitives += _strips(found, days, width)
    return tuple(primitives), (0.0, low - 110.0, LEFT + width + 330.0, HIGH + 40.0)


def _curves(found: TripResult, usable: float, stocks: Stocks, hour: float) -> list[Stroke]:
    """Charge with its band, water and gas, each named at its end."""
    whole = max(usable, 1e-9)

    def at(n: int, part: float) -> tuple[float, float]:
        return (LEFT + (n + 1) * hour, part * HIGH)

    left = [v / whole for v in found.lived.left.tolist()]
    high = [at(n, v / whole) for n, v in enumerate(found.high.tolist())]
    low = [at(n, v / whole) for n, v in enumerate(found.low.tolist())]
    primitives: list[Stroke] = [Outline("chart band", (*high, *reversed(low)))]
    ends: list[tuple[float, str, str]] = []
    for role, words, parts in (("curve 2", "water", stocks.water), ("curve 3", "gas", stocks.gas)):
        if parts:
            points = [(LEFT, 1.0 * HIGH * parts[0])]
            points += [(LEFT + 24 * (n + 1) * hour, p * HIGH) for n, p in enumerate(parts[1:])]
            primitives.append(Outline(role, tuple(points), closed=False))
            ends.append((points[-1][1], role, f"{words} {100 * parts[-1]:.0f} %"))
    primitives.append(Outline("curve 1", tuple(at(n, v) for n, v in enumerate(left)), closed=False))
    ends.append((left[-1] * HIGH, "curve 1", f"charge {100 * left[-1]:.0f} %"))
    for h, part in stocks.measured:
        primitives.append(Disc("measure end", (LEFT + h * hour, part * HIGH), 10))
    right = LEFT + found.hours * hour + 14
    place = -1e9
    for k, role, words in sorted(ends):
        place = max(k, place + 62)
        primitives.append(Words(role, (right, place), words, 12, anchor="left"))
    n = found.lowest_at
    words = f"lowest {found.lowest:,.0f} Wh, day {n // 24 + 1} at {(n + 1) % 24:02d}:00"
    late = n > 0.6 * found.hours
    x, y = at(n, left[n])
    primitives += [
        Disc("curve 1 dot", (x, y), 13),
        Words("chart title", (x - 20 if late else x + 20, y), words, 12, anchor="right" if late else "left",
              below=14 if left[n] > 0.12 else -14),
    ]  # fmt: skip
    return primitives


def _strips(found: TripResult, days: Sequence[Day], width: float) -> list[Stroke]:
    """What the sun gives, hour by hour, and the hours driven."""
    hour = width / found.hours
    top = -UNDER
    most = max(float(found.lived.panels.max()), 1.0)
    primitives: list[Stroke] = [
        Words("chart words", (LEFT - 16, top - part * STRIP), words, 11, anchor="right")
        for part, words in (
            (0.5, "sun"),
            (1.5, "driving" + (", mains" if any(d.plugged for d in days) else "")),
        )
    ]
    for n, watts in enumerate(found.lived.panels.tolist()):
        x = LEFT + n * hour
        if watts > 1:
            high = top - STRIP * (1 - watts / most)
            primitives.append(rectangle("trip sun", x, top - STRIP, x + hour, high))
    if most > 1:
        primitives.append(
            Words(
                "chart words",
                (LEFT + width + 14, top - STRIP / 2),
                f"up to {most:,.0f} W",
                11,
                anchor="left",
            )
        )
    for n in range(len(days)):
        a, b, c, d = drive_box(days, n, width)
        if c > a:
            primitives.append(rectangle("trip drive", a, b, c, d, 6))
            primitives.append(Disc("handle dot", (c, (b + d) / 2), 9))
        if days[n].plugged > 0:
            x = LEFT + (24 * n + PLUGGED_FROM) * hour
            end = min(x + days[n].plugged * hour, LEFT + width)
            primitives.append(
                rectangle("trip mains", x, b + (d - b) * 0.25, end, d - (d - b) * 0.25)
            )
    return primitives
