"""Access drawn: the figure reaching, what it reaches, where every good is, the canopy on its legs."""

from collections.abc import Sequence

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.ergonomics.figure import Figure
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.primitives import (
    Disc,
    Outline,
    Rect,
    Scene,
    Size,
    Stroke,
    Words,
    line,
    rectangle,
)
from roomy_hull.drawing.scenes import figure
from roomy_hull.drawing.scenes.ground import Looks, elevation, frame, slice_scene
from roomy_hull.drawing.view import ELEVATION, SLICE, Station, View
from roomy_hull.job.goods import Good
from roomy_hull.studies.access.off_on import OffOn
from roomy_hull.studies.access.reach import Seen
from roomy_hull.studies.access.spaces import Space
from roomy_hull.studies.access.stowing import Stowed

END: dict[str, Station] = {"left": "rear", "right": "rear", "rear": "left"}
"""From where one sees somebody at a side reach in, in profile."""
ROUND = 260.0
"""Round what is drawn. [mm]"""


def reaching(
    assembly: Assembly,
    space: Space,
    seen: Seen,
    stature: float,
    station: Station,
    *,
    plan: bool = False,
) -> tuple[Scene, Rect]:
    """Draw somebody at a space.

    Args:
        stature: [mm]
    Returns: What has to be open stands open; the room is filled, the arm's reach is a soft round. [mm]
    """
    view = (SLICE if plan else ELEVATION)[station]
    looks = Looks(frozenset(space.needs))
    base = slice_scene(assembly, station, looks) if plan else elevation(assembly, station, looks)
    primitives: list[Stroke] = [*base, rectangle("reach space", *view.rect(space.box), 4)]
    rects = [view.rect(space.box)]
    if seen.feet:
        body = figure.body(stature, _spot(seen.feet), _spot(seen.shoulder), _spot(seen.hand))
        arm = Figure(stature).arm
        at = view.point(*body.shoulder)
        primitives += [
            Disc("reach", at, arm),
            *figure.drawn(body, view),
            Disc("handle dot", view.point(*body.hand), 26),
        ]
        rects.append((at[0] - arm, at[1] - arm, at[0] + arm, at[1] + arm))
        foot, head = view.point(*body.feet), view.point(*body.head)
        rects.append((
            min(foot[0], head[0]) - 200,
            min(foot[1], head[1]) - 60,
            max(foot[0], head[0]) + 200,
            max(foot[1], head[1]) + 200,
        ))
    if assembly.ground.canopy is not None:
        rects.append(view.rect(assembly.ground.canopy))
    return tuple(primitives), _hull(rects)


def _spot(p: tuple[float, ...]) -> figure.Spot:
    return (p[0], p[1], p[2])


def _hull(rects: Sequence[Rect], around: float = ROUND) -> Rect:
    return (
        min(r[0] for r in rects) - around, min(r[1] for r in rects) - around,
        max(r[2] for r in rects) + around, max(r[3] for r in rects) + around,
    )  # fmt: skip


def where_is_what(
    assembly: Assembly, goods: Sequence[Good], rows: Sequence[Stowed], spaces: Sequence[Space], station: Station,
    chosen: frozenset[str] = frozenset(),
) -> tuple[Scene, Rect]:  # fmt: skip
    """Draw a side with every good's name where it is.

    Returns: Names one under another in their space, as large as they go in; more than go in are counted. [mm]
    """
    view = ELEVATION[station]
    primitives: list[Stroke] = list(elevation(assembly, station))
    by_space: dict[int, list[Good]] = {}
    for good, row in zip(goods, rows, strict=True):
        if row.space >= 0 and spaces[row.space].side == station:
            by_space.setdefault(row.space, []).append(good)
    rects = [
        view.rect(p.frame.box(p.size))
        for p in assembly.ground.bays.values()
        if p.bay.side == station
    ]
    taken: list[Rect] = []
    # What holds goods first, then from what is nearest to the eye: a name that would lie over another is left out.
    order = sorted(
        range(len(spaces)), key=lambda n: (n not in by_space, -view.nearness(spaces[n].rest))
    )
    for n in order:
        space, own = spaces[n], by_space.get(n, [])
        if space.side != station or not (own or space.device):
            continue
        rect = view.rect(space.rest)
        if own:
            marked = any(g.id in chosen for g in own)
            primitives.append(
                rectangle("goods chosen" if marked else "goods", *rect, 6, f"space:{n}")
            )
            primitives += _listed([_called(g) for g in own], rect, [g.id in chosen for g in own])
            taken.append(rect)
        else:
            name = _listed([space.name], rect, [False])
            ground = _ground(name[0])
            if not any(_over(ground, t) for t in taken):
                primitives += name
                taken.append(ground)
        thing = assembly.thing(space.owner)
        # What hangs far off, an aerial or a boat on the roof, does not make all the rest small.
        if own or (thing is not None and thing.place is not None):
            rects.append(rect)
    return tuple(primitives), _hull(rects or [frame(assembly, station)[0]], 110.0)


LEAST, MOST = 26.0, 62.0
"""Names are written so high at least and at most. [mm]"""


APART = 1.12
"""Lines are so far apart, of their height."""


def _called(good: Good) -> str:
    """A good's name with its pieces."""
    return f"{good.count} × {good.name}" if good.count > 1 else good.name


def _lines(names: Sequence[str], rect: Rect) -> tuple[int, float, float]:
    """How many names go into a rectangle, how high they are written, how high the first stands. [mm]"""
    wide, high = rect[2] - rect[0], rect[3] - rect[1]
    rows = max(1, min(len(names), int(high / LEAST)))
    size = min(MOST, high / (rows + 0.4), 2.2 * wide / max(len(n) + 1 for n in names[:rows]))
    size = max(size, LEAST * 0.8)
    return rows, size, (rect[1] + rect[3]) / 2 + (rows - 1) / 2 * size * APART


def named_at(own: Sequence[Good], rect: Rect, k: float) -> Good | None:
    """The good whose name stands at a height of a rectangle.

    Args:
        rect: As it is drawn. [mm]
        k: How high. [mm]
    Returns: None between and beyond the names.
    """
    if not own:
        return None
    rows, size, top = _lines([_called(g) for g in own], rect)
    n = round((top - k) / (size * APART))
    return own[n] if 0 <= n < rows and abs(top - n * size * APART - k) <= size / 2 else None


def _ground(words: Words) -> Rect:
    """About what a name covers. [mm]"""
    wide, high = 0.55 * words.size * len(words.text) / 2, words.size * 0.6
    return (words.at[0] - wide, words.at[1] - high, words.at[0] + wide, words.at[1] + high)


def _over(a: Rect, b: Rect) -> bool:
    """Whether two rectangles share room."""
    return a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3]


def _listed(names: Sequence[str], rect: Rect, marked: Sequence[bool]) -> list[Words]:
    """Names one under another in a rectangle; what does not go in is counted."""
    wide = rect[2] - rect[0]
    rows, size, top = _lines(names, rect)
    found: list[Words] = []
    for n, (name, stands_out) in enumerate(zip(names[:rows], marked, strict=False)):
        left = len(names) - rows
        words = f"{name} and {left} more" if n == rows - 1 and left > 0 else name
        most = max(4, int(2.3 * wide / size))
        text = words if len(words) <= most else words[: most - 1] + "…"
        role = "goods chosen words" if stands_out else "goods words"
        at = ((rect[0] + rect[2]) / 2, top - n * size * APART)
        found.append(Words(role, at, text, size * 0.82, fixed=False))
    return found


def on_legs(assembly: Assembly, off: OffOn) -> tuple[Scene, Rect]:
    """Draw the canopy on its legs from behind, and from above with what stands on each.

    Returns: Nothing where there is no canopy. [mm]
    """
    box = assembly.ground.canopy
    if box is None:
        return (), (0.0, 0.0, 1.0, 1.0)
    view = ELEVATION["rear"]
    h0, _k0, h1, _k1 = view.rect(box)
    high = box.z1 - box.z0
    primitives: list[Stroke] = [
        line("ground", (h0 - 500, 0), (h1 + 500, 0)), rectangle("canopy", h0, off.lifts, h1, off.lifts + high, 20),
        rectangle("steel", h0 - 55, 0, h0 - 10, off.lifts + 350, 6),
        rectangle("steel", h1 + 10, 0, h1 + 55, off.lifts + 350, 6),
        rectangle("steel", h0 - 110, 0, h0 + 45, 14), rectangle("steel", h1 - 45, 0, h1 + 110, 14),
        Size("size", (h1 + 260, 0), (h1 + 260, off.lifts)), Size("size", (h0 - 10, 330), (h1 + 10, 330)),
    ]  # fmt: skip
    floor = view.rect(assembly.ground.floor)
    primitives.append(
        rectangle("overhead", floor[0], off.lifts - 50 - 180, floor[2], off.lifts - 50, 10)
    )
    primitives.append(
        Words(
            "chart words", ((floor[0] + floor[2]) / 2, off.lifts - 50 - 90), "tray, drives out", 11
        )
    )
    centre = view.point(*off.centre)
    primitives.append(Disc("curve 1 dot", (centre[0], centre[1] - box.z0 + off.lifts), 26))
    # From above, to the right: the front upwards.
    right = h1 + 900
    wide, long = box.y1 - box.y0, box.x1 - box.x0
    k0 = max(0.0, (off.lifts + high - long) / 2)
    primitives.append(rectangle("canopy", right, k0, right + wide, k0 + long, 20))
    spots = {
        "front left": (right, k0 + long), "front right": (right + wide, k0 + long), "rear left": (right, k0),
        "rear right": (right + wide, k0),
    }  # fmt: skip
    for name, kg in off.legs:
        x, y = spots[name]
        primitives.append(Disc("steel", (x, y), 55))
        anchor, by = ("left", 90) if "right" in name else ("right", -90)
        primitives.append(Words("chart title", (x + by, y), f"{kg:.0f} kg", 13, anchor=anchor))
    at = (right + off.centre[1] - box.y0, k0 + box.x1 - off.centre[0])
    primitives += [
        Disc("curve 1 dot", at, 30),
        Words("chart words", at, "centre of mass", 11, below=18),
    ]
    primitives.append(Outline("chart grid", ((right, k0), (right + wide, k0 + long)), closed=False))
    return tuple(primitives), (
        h0 - 620,
        -120,
        right + wide + 560,
        max(off.lifts + high, k0 + long) + 160,
    )


def figure_at(view: View, stature: float, box: Box, side: str) -> list[Stroke]:
    """Somebody who stands before a side of a box. [mm]"""
    feet = {
        "left": ((box.x0 + box.x1) / 2, box.y0 - 500, 0.0), "right": ((box.x0 + box.x1) / 2, box.y1 + 500, 0.0),
    }.get(side, (box.x1 + 500, (box.y0 + box.y1) / 2, 0.0))  # fmt: skip
    facing = {"left": (0.0, 1.0), "right": (0.0, -1.0)}.get(side, (-1.0, 0.0))
    return figure.drawn(figure.standing(stature, feet, facing), view)
