"""Circuits as pictures: the single-line plan laid out from the circuits, and their ways drawn on the vehicle."""

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from roomy_hull.core.primitives import Disc, Outline, Rect, Scene, Stroke, Words, line, rectangle
from roomy_hull.job.services import Services
from roomy_hull.studies.services.circuits import START, Circuit

WIDE, HIGH, ROW = 300.0, 66.0, 96.0
"""A box of the plan, and the distance of rows. [mm of its own]"""
COLUMNS = (0.0, 480.0, 960.0, 1640.0)
NAME, SMALL = 24.0, 20.0
"""Height of names and of what stands beside them. [mm of its own]"""
"""Where what gives power, chargers, battery and board, and what uses power stand. [mm of its own]"""


def plan(
    circuits: Sequence[Circuit],
    services: Services,
    names: Mapping[str, str],
    chosen: str,
    aspect: float,
) -> tuple[Scene, Rect]:
    """Lay the single-line plan out: what gives power at the left, what uses it at the right, no line across another.

    Args:
        circuits: In the job's order.
    Returns: Fuses are drawn as IEC 60617 draws them, a box with the line through it. [mm of its own]
    """
    uses = {c.id for c in services.consumers}
    gives = {s.id for s in services.sources}
    sheet = _Sheet(
        [c for c in circuits if c.id in uses], [c for c in circuits if c.id in gives],
        {c.ends[0]: c for c in circuits if c.id.endswith("-out")}, {c.id: c for c in circuits}, names, services, chosen,
    )  # fmt: skip
    primitives = [*sheet.middle(), *sheet.left(), *sheet.right()]
    width = COLUMNS[3] + WIDE + 60
    around = max(sheet.high + 60, (width + 40) / max(aspect, 0.2))
    return tuple(primitives), (
        -40.0,
        sheet.high / 2 - around / 2,
        width,
        sheet.high / 2 + around / 2,
    )


class _Sheet(NamedTuple):
    """What stands on the plan."""

    loads: list[Circuit]
    inputs: list[Circuit]
    outs: dict[str, Circuit]
    by_id: dict[str, Circuit]
    names: Mapping[str, str]
    services: Services
    chosen: str

    @property
    def rows(self) -> int:
        """How many things stand at the right."""
        return len(self.loads) + ("inverter" in self.by_id)

    @property
    def high(self) -> float:
        """How high the plan is. [mm of its own]"""
        return max(self.rows, 1.4 * len(self.inputs), 4) * ROW

    @property
    def battery(self) -> tuple[float, float]:
        """Where the battery stands."""
        return COLUMNS[2], 0.66 * self.high

    @property
    def board(self) -> tuple[float, float]:
        """Where the board stands."""
        return COLUMNS[2], 0.30 * self.high

    def middle(self) -> list[Stroke]:
        """Battery and board."""
        s, names = self.services, self.names
        key = s.batteries[0].thing if s.batteries else ""
        primitives = _box(
            self.battery,
            names.get(key, key or "no battery"),
            f"{sum(b.ah for b in s.batteries):g} Ah",
        )
        if self.loads:
            primitives += _box(self.board, names.get(s.board, s.board or "fuses"), "fuse board")
        if "main" in self.by_id:
            x = COLUMNS[2] + WIDE / 2
            ends = [(x, self.battery[1] - HIGH / 2), (x, self.board[1] + HIGH / 2)]
            primitives += _run(ends, self.by_id["main"], self.chosen, upright=True)
        return primitives

    def left(self) -> list[Stroke]:
        """What gives power, each charger beside what feeds it; those of one charger meet on their way, and none cross."""
        primitives: list[Stroke] = []
        fed: dict[str, list[Circuit]] = {}
        for c in self.inputs:
            fed.setdefault(c.ends[1] if c.ends[1] in self.outs else "", []).append(c)
        direct = fed.pop("", [])
        rows = [(c, key) for key, some in fed.items() for c in some] + [(c, "") for c in direct]
        step = self.high / max(len(rows), 1)
        ys = [self.high - (n + 0.5) * step for n in range(len(rows))]
        lane, last = COLUMNS[0] + WIDE + 110, COLUMNS[1] + WIDE + 80
        to = self.battery[1]
        for key in fed:
            own = [y for y, (_c, k) in zip(ys, rows, strict=True) if k == key]
            y = (own[0] + own[-1]) / 2
            primitives += _box((COLUMNS[1], y), self.names.get(key, key), "charger")
            legs = [(COLUMNS[1] + WIDE, y), (last, y), (last, to), (COLUMNS[2], to)]
            primitives += _run(legs, self.outs[key], self.chosen)
            for at, (c, k) in zip(ys, rows, strict=True):
                if k == key:
                    legs = [(COLUMNS[0] + WIDE, at), (lane, at), (lane, y), (COLUMNS[1], y)]
                    primitives += [*self.giver(at, c), *_run(legs, c, self.chosen)]
        for at, (c, k) in zip(ys, rows, strict=True):
            if not k:
                legs = [(COLUMNS[0] + WIDE, at), (last, at), (last, to), (COLUMNS[2], to)]
                primitives += [*self.giver(at, c), *_run(legs, c, self.chosen)]
        return primitives

    def giver(self, y: float, c: Circuit) -> list[Stroke]:
        """The box of what gives power."""
        started = c.ends[0] == START
        words = "starter battery" if started else self.names.get(c.ends[0], c.name)
        return _box((COLUMNS[0], y), words, c.name if started else "sun")

    def right(self) -> list[Stroke]:
        """What uses power, one under another on a bar from the board; the inverter above, from the battery."""
        primitives: list[Stroke] = []
        bar = COLUMNS[2] + WIDE + 90
        step = self.high / max(self.rows, 1)
        ys = [(n + 0.5) * step for n in range(len(self.loads))]
        if ys:
            primitives.append(
                line("plan line", (COLUMNS[2] + WIDE, self.board[1]), (bar, self.board[1]))
            )
            primitives.append(
                line("plan line", (bar, min(*ys, self.board[1])), (bar, max(*ys, self.board[1])))
            )
        for y, c in zip(ys, reversed(self.loads), strict=True):
            primitives += _run([(bar, y), (COLUMNS[3], y)], c, self.chosen)
            primitives.append(Disc("plan joint", (bar, y), 7))
            primitives += _box((COLUMNS[3], y), c.name, f"{c.amps:.1f} A")
        if "inverter" in self.by_id:
            y, from_y = self.high - 0.5 * step, self.battery[1]
            ends = [(COLUMNS[2] + WIDE, from_y), (bar - 60, from_y), (bar - 60, y), (COLUMNS[3], y)]
            primitives += _run(ends, self.by_id["inverter"], self.chosen)
            name = self.names.get(self.services.inverter.thing, "inverter")
            primitives += _box((COLUMNS[3], y), name, "mains: licensed electrician")
        return primitives


def _box(at: tuple[float, float], words: str, under: str) -> list[Stroke]:
    """A box with its name and what it is; its left edge's middle is the place."""
    x, y = at
    return [
        rectangle("plan box", x, y - HIGH / 2, x + WIDE, y + HIGH / 2, 8),
        Words("chart title", (x + WIDE / 2, y + 13), _short(words, 23), NAME, fixed=False),
        Words("chart words", (x + WIDE / 2, y - 15), _short(under, 27), SMALL, fixed=False),
    ]


def _short(words: str, most: int) -> str:
    """As much of a name as a box holds."""
    return words if len(words) <= most else words[: most - 1] + "…"


def _run(
    points: list[tuple[float, float]], c: Circuit, chosen: str, *, upright: bool = False
) -> list[Stroke]:
    """A line with its fuse at the end where the power comes from; fuse, cable and length beside it."""
    role = "plan chosen" if c.id == chosen else "plan line"
    words = f"{c.fuse:g} A · {c.section} · {c.metres:.1f} m"
    primitives: list[Stroke] = [Outline(role, tuple(points), closed=False)]
    (x0, y0), (x1, y1) = points[0], points[1]
    if upright:
        y = (y0 + y1) / 2
        primitives.append(rectangle("plan fuse", x0 - 10, y - 26, x0 + 10, y + 26, 2))
        primitives.append(
            Words("chart words", (x0 - 20, y), words, SMALL, fixed=False, anchor="right")
        )
        return primitives
    middle = min(x0 + 46, (x0 + x1) / 2)
    primitives.append(rectangle("plan fuse", middle - 26, y0 - 10, middle + 26, y0 + 10, 2))
    if len(points) > 2:  # under the box that it comes from: its own legs are too short for words
        primitives.append(
            Words("chart words", (x0 - WIDE / 2, y0 - HIGH / 2 - 16), words, SMALL, fixed=False)
        )
    else:
        primitives.append(Words("chart words", ((x0 + x1) / 2, y0 + 24), words, SMALL, fixed=False))
    return primitives
