"""Sizes of the body on its drawing, each of which can be typed, and the dots by which they are dragged."""

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.strokes import Disc, Point, Scene, Size, Stroke, line
from roomy_hull.drawing.view import ELEVATION, Station
from roomy_hull.kit.body.pieces import part_of

ROW = 150.0
"""Distance of one row of sizes from the next. [mm]"""


class BodySize(msgspec.Struct, frozen=True):
    """One size: the path of its value, and both ends on the drawing. [mm]"""

    path: str
    a: Point
    b: Point


class Handle(msgspec.Struct, frozen=True):
    """A dot to drag: the path it changes, where it is, along which axis and how much per millimetre."""

    path: str
    at: Point
    axis: int
    factor: float


def sizes(assembly: Assembly, station: Station) -> tuple[BodySize, ...]:
    """The sizes that are shown from a place.

    Parameters
    ----------
    assembly : Assembly
        The job in vehicle axes.
    station : str
        Where one stands; only sides and rear show sizes.

    Returns
    -------
    tuple of BodySize
        In the order in which the Tab key reaches them. [mm]
    """
    ground, body = assembly.ground, assembly.job.body
    floor, canopy = ground.floor, ground.canopy
    made = body.tray.kind == "tray"
    found: list[BodySize] = []
    if station in ("left", "right"):
        s = ELEVATION[station].h[1]
        tail = max(floor.x1, canopy.x1 if canopy else 0.0)
        if made:
            k = -ROW * 1.9
            cab = assembly.job.vehicle.cab_back
            found.append(BodySize("body.tray.gap", (cab * s, k), (floor.x0 * s, k)))
            found.append(BodySize("body.tray.length", (floor.x0 * s, k), (floor.x1 * s, k)))
            head = part_of(ground.tray, "headboard")
            if head is not None:
                h = (floor.x0 - 150) * s
                found.append(
                    BodySize(
                        "body.tray.headboard", (h, floor.z1), (h, head.box.z1 - body.tray.rack)
                    )
                )
        if canopy is not None and body.canopy is not None and body.canopy.kind != "cargo":
            k = canopy.z1 + ROW * 1.5
            found.append(BodySize("body.canopy.length", (canopy.x0 * s, k), (canopy.x1 * s, k)))
            h = (tail + ROW * 1.6) * s
            found.append(BodySize("body.canopy.height", (h, canopy.z0), (h, canopy.z1)))
    elif station == "rear":
        if made:
            found.append(BodySize("body.tray.width", (floor.y0, -ROW), (floor.y1, -ROW)))
        if canopy is not None and body.canopy is not None and body.canopy.kind != "cargo":
            k, h = canopy.z1 + ROW * 1.5, max(floor.y1, canopy.y1) + ROW
            found.append(BodySize("body.canopy.width", (canopy.y0, k), (canopy.y1, k)))
            found.append(BodySize("body.canopy.height", (h, canopy.z0), (h, canopy.z1)))
    return tuple(found)


def handles(assembly: Assembly, station: Station) -> tuple[Handle, ...]:
    """The dots that can be dragged from a place. [mm]"""
    ground, body = assembly.ground, assembly.job.body
    floor, canopy = ground.floor, ground.canopy
    made = body.tray.kind == "tray"
    own = canopy is not None and body.canopy is not None and body.canopy.kind != "cargo"
    found: list[Handle] = []
    if station in ("left", "right"):
        s = ELEVATION[station].h[1]
        if made:
            found.append(Handle("body.tray.length", (floor.x1 * s, floor.z1 - 35), 0, s))
            head = part_of(ground.tray, "headboard")
            if head is not None:
                found.append(
                    Handle("body.tray.headboard", ((head.box.x0 + 15) * s, head.box.z1), 1, 1.0)
                )
        if own and canopy is not None:
            middle = (canopy.z0 + canopy.z1) / 2
            found.append(Handle("body.canopy.length", (canopy.x1 * s, middle), 0, s))
            found.append(
                Handle("body.canopy.height", ((canopy.x0 + canopy.x1) / 2 * s, canopy.z1), 1, 1.0)
            )
    elif station == "rear":
        if made:
            found.append(Handle("body.tray.width", (floor.y1, floor.z1 - 35), 0, 2.0))
        if own and canopy is not None:
            found.append(
                Handle("body.canopy.width", (canopy.y1, (canopy.z0 + canopy.z1) / 2), 0, 2.0)
            )
            found.append(Handle("body.canopy.height", (0.0, canopy.z1), 1, 1.0))
    return tuple(found)


def scene(assembly: Assembly, station: Station) -> Scene:
    """Draw sizes with their extension lines, and the dots."""
    found: list[Stroke] = []
    for one in sizes(assembly, station):
        found.append(Size("body size", one.a, one.b, tag=one.path))
        across = abs(one.a[1] - one.b[1]) < 1e-6
        for p in (one.a, one.b):
            if across:
                to = -40.0 if p[1] < 0 else p[1] - ROW
                found.append(
                    line("extension", (p[0], to), (p[0], p[1] + (-25 if p[1] < 0 else 25)))
                )
            else:
                found.append(line("extension", (p[0] - 30, p[1]), (p[0] + 30, p[1])))
    found += [Disc("handle dot", h.at, 24.0, h.path) for h in handles(assembly, station)]
    return tuple(found)
