"""What stands around the vehicle in its elevation: the ground, a person, overall sizes."""

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.primitives import (
    Disc,
    Lines,
    Outline,
    Rect,
    Scene,
    Size,
    Stroke,
    Words,
    line,
    rectangle,
)
from roomy_hull.drawing.view import ELEVATION, Station, View
from roomy_hull.kit.body.canopy import BayPlace


def ground_line(rect: Rect) -> list[Stroke]:
    """Draw the ground with its hatch. [mm]"""
    h0, _k0, h1, _k1 = rect
    h0, h1 = h0 - 1500, h1 + 1500
    found: list[Stroke] = [line("ground", (h0, 0.0), (h1, 0.0))]
    step = 120.0
    count = int((h1 - h0) / step)
    marks = (h0 + i * step for i in range(count))
    found.append(Lines("ground hatch", tuple(((m, 0.0), (m - 45, -45.0)) for m in marks)))
    return found


def person(assembly: Assembly, view: View, stature: float) -> list[Stroke]:
    """Draw a standing person beside the body.

    Args:
        stature: Body height. [mm]
    Returns:
        Head, trunk, arms and legs by the fractions of Drillis & Contini (1966): eye 0.936, shoulder 0.818, elbow
        0.630, hand 0.377 of stature. [mm]
    """
    floor = assembly.ground.floor
    c = floor.x0 * view.h[1] - view.h[1] * 480 if view.h[0] == 0 else floor.y1 + 420
    s = stature
    head = s * 0.13 / 2
    w = s * 0.259 / 2
    hip, shoulder, elbow, hand = 0.530 * s, 0.818 * s, 0.630 * s, 0.377 * s
    return [
        Disc("person", (c, s - head), head),
        Outline("person", ((c - w, shoulder), (c + w, shoulder), (c + w * 0.72, hip),
                           (c - w * 0.72, hip)), radius=70),
        rectangle("person", c - w * 0.7, 30, c - 14, hip + 30, 40),
        rectangle("person", c + 14, 30, c + w * 0.7, hip + 30, 40),
        rectangle("person", c - w - 58, hand, c - w + 24, shoulder - 10, 38),
        rectangle("person", c + w - 24, hand, c + w + 58, shoulder - 10, 38),
        line("person mark", (c - w - 130, elbow), (c + w + 130, elbow)),
        Words("person words", (c, s + 70), f"{s / 10:.0f} cm", 10.0),
        line("person mark", (c - w - 130, 0.936 * s), (c + w + 130, 0.936 * s)),
    ]  # fmt: skip


def overall_sizes(assembly: Assembly, station: Station, *, whole: bool) -> Scene:
    """Draw the sizes everybody asks for first.

    Args:
        whole: The whole vehicle, or close up to the canopy's side.
    Returns:
        From a side, wheelbase and rear overhang below the ground line; close up, the length and height of each
        bay's opening. [mm]
    """
    view = ELEVATION[station]
    found: list[Stroke] = []
    if whole and station in ("left", "right"):
        base, sign = assembly.job.vehicle.wheelbase, view.h[1]
        end = max([assembly.ground.floor.x1, *(t.envelope.x1 for t in assembly.things)])
        for a, b in ((0.0, base), (base, end)):
            found.append(Size("size", (a * sign, -140.0), (b * sign, -140.0)))
        for x in (0.0, base, end):
            found.append(line("extension", (x * sign, -40.0), (x * sign, -175.0)))
    if not whole:
        for place in assembly.ground.bays.values():
            if place.bay.side == station:
                for opening in place.openings:
                    found += _sized(place, opening, view)
    return tuple(found)


def _sized(place: BayPlace, opening: Rect, view: View) -> list[Stroke]:
    """An opening's length below it and its height beside it. [mm]"""
    u0, w0, u1, w1 = opening
    h0, k0, h1, k1 = view.rect(place.frame.box(Box(u0, 0, w0, u1, 1, w1)))
    edge = h0 - 95
    return [
        Size("size", (h0, k0 - 120), (h1, k0 - 120)),
        *(line("extension", (h, k0 - 20), (h, k0 - 150)) for h in (h0, h1)),
        Size("size", (edge, k0), (edge, k1)),
        *(line("extension", (h0 - 15, k), (edge - 25, k)) for k in (k0, k1)),
    ]
