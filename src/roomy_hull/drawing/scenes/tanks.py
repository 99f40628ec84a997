"""What stays in a tank below its outlet, level and on slopes."""

import math
from collections.abc import Sequence
from typing import NamedTuple

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.capabilities import Vessel
from roomy_hull.core.geometry.clipped import faces
from roomy_hull.core.primitives import Outline, Point, Rect, Scene, Stroke, Words, line
from roomy_hull.studies.services.water import SLOPE_WORDS, SLOPES, Water


def hull(points: Sequence[Point]) -> list[Point]:
    """The convex hull of points (Andrew's monotone chain). [mm]"""
    rows = sorted(set(points))

    def half(some: Sequence[Point]) -> list[Point]:
        out: list[Point] = []
        for p in some:
            while len(out) > 1 and (
                (out[-1][0] - out[-2][0]) * (p[1] - out[-2][1])
                <= (out[-1][1] - out[-2][1]) * (p[0] - out[-2][0])
            ):
                out.pop()
            out.append(p)
        return out[:-1]

    return half(rows) + half(rows[::-1])


def below(outline: Sequence[Point], at: Point, rise: float) -> list[Point]:
    """What of an outline lies below a line through a point that rises by so much (Sutherland & Hodgman). [mm, °]"""
    slope = math.tan(math.radians(rise))

    def over(p: Point) -> float:
        return p[1] - at[1] - slope * (p[0] - at[0])

    out: list[Point] = []
    for a, b in zip(outline, [*outline[1:], outline[0]], strict=True):
        u, v = over(a), over(b)
        if u <= 0:
            out.append(a)
        if u * v < 0:
            t = u / (u - v)
            out.append((a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])))
    return out


class _Section(NamedTuple):
    """A tank as one sees it on one slope: outline, outlet, how the ground rises to the right. [mm, °]"""

    outline: list[Point]
    outlet: Point
    rise: float

    def put(self, p: Point, at: Point) -> Point:
        """A point of the picture: the vehicle stands on the slope, the water lies level. [mm]"""
        a = math.radians(self.rise)
        x = p[0] - sum(q[0] for q in self.outline) / len(self.outline)
        z = p[1] - min(q[1] for q in self.outline)
        return (
            x * math.cos(a) - z * math.sin(a) + at[0],
            x * math.sin(a) + z * math.cos(a) + at[1],
        )


def _sections(vessel: Vessel) -> list[_Section]:
    """A welded tank on each of the slopes, from its left or from behind; none of a bladder or cans."""
    piece, out = vessel.hollow, vessel.outlet
    if piece is None:
        return []
    corners = [p for face in faces(piece) for p in face]
    found = []
    for nose, left in SLOPES:
        axis, rise = (1, -left) if left else (0, -nose)
        found.append(_Section(hull([(p[axis], p[2]) for p in corners]), (out[axis], out[2]), rise))
    return found


def slopes(assembly: Assembly, tanks: Sequence[Water], aspect: float) -> tuple[Scene, Rect] | None:
    """Draw every welded tank on every slope, one row a tank.

    Args:
        assembly: The job in vehicle axes. [mm]
    Returns: Nothing where no tank has walls of its own. The ground's slope is drawn under each. [mm]
    """
    primitives: list[Stroke] = []
    row, wide = 0.0, 0.0
    for tank in tanks:
        thing = assembly.any_thing(tank.id)
        vessel = thing.capabilities.vessel if thing is not None else None
        sections = _sections(vessel) if vessel is not None else []
        if not sections:
            continue
        points = [p for s in sections for p in s.outline]
        high = max(p[1] for p in points) - min(p[1] for p in points)
        cell = 60 + 1.35 * max(
            max(p[0] for p in s.outline) - min(p[0] for p in s.outline) for s in sections
        )
        for n, one in enumerate(sections):
            primitives += _one(
                one, ((n + 0.5) * cell, row), cell, (SLOPE_WORDS[n], tank.usable[n], high)
            )
        if len(tanks) > 1:
            primitives.append(
                Words(
                    "chart title",
                    (cell * 0.1, row + high * 1.2 + 300),
                    tank.name,
                    12,
                    anchor="left",
                )
            )
        row -= high * 1.4 + 480
        wide = max(wide, cell * len(SLOPES))
    if not primitives:
        return None
    drawn = [p for s in primitives if isinstance(s, Outline) for p in s.points]
    low, top = min(p[1] for p in drawn) - 40, max(p[1] for p in drawn) + 290 + 80 * (len(tanks) > 1)
    middle, tall = (low + top) / 2, max(top - low, wide / max(aspect, 0.2))
    return tuple(primitives), (0.0, middle - tall / 2, wide, middle + tall / 2)


def _one(s: _Section, at: Point, cell: float, said: tuple[str, float, float]) -> list[Stroke]:
    """One tank on one slope, with what stays in it and the ground."""
    words, litres, high = said
    rest = below(s.outline, s.outlet, -s.rise)
    found: list[Stroke] = []
    if len(rest) > 2:
        found.append(Outline("water", tuple(s.put(p, at) for p in rest)))
    found.append(Outline("tank outline", tuple(s.put(p, at) for p in s.outline)))
    x0 = sum(p[0] for p in s.outline) / len(s.outline)
    z0 = min(p[1] for p in s.outline) - 30
    found.append(line("ground", s.put((x0 - cell * 0.4, z0), at), s.put((x0 + cell * 0.4, z0), at)))
    over = (at[0], at[1] + high * 1.2 + 190)
    found += [
        Words("chart title", over, words, 12),
        Words("chart words", over, f"{litres:.1f} l run out", 11, below=16),
    ]
    return found
