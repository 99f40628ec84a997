"""Sizes of the body on its drawing, each of which can be typed, and the dots by which they are dragged."""

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.primitives import Disc, Point, Scene, Size, Stroke, line, rectangle
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


def chosen_box(assembly: Assembly, part: str) -> tuple[Box, dict[str, str]] | None:
    """The chosen room's or rack's box, and the paths of its start, across, foot, length, width and height.

    Returns: In vehicle axes [mm]; a rear wall has neither start nor length. Nothing where there is no such part.
    """
    room, rack = assembly.ground.room(part), assembly.ground.rack(part)
    if room is not None:
        p = f"body.rooms.{part}."
        names = {"start": p + "start", "across": p + "across", "foot": p + "up"}
        return room.box, names | {n: f"{p}shell.{n}" for n in ("length", "width", "height")}
    if rack is not None:
        p = f"body.racks.{part}."
        names = {n: p + n for n in ("start", "across", "foot", "length", "width", "height")}
        if rack.rack.kind == "rear wall":
            names = {n: v for n, v in names.items() if n not in ("start", "length")}
        return rack.bars_box, names
    return None


def _part_sizes(box: Box, names: dict[str, str], station: Station) -> tuple[BodySize, ...]:
    """The sizes of a chosen room or rack as seen from a place."""
    found: list[BodySize] = []
    k = box.z1 + ROW * 0.8
    if station in ("left", "right"):
        s = ELEVATION[station].h[1]
        h = (box.x1 + ROW * 1.5) * s
        if "length" in names:
            found.append(BodySize(names["length"], (box.x0 * s, k), (box.x1 * s, k)))
        found.append(BodySize(names["height"], (h, box.z0), (h, box.z1)))
    elif station == "rear":
        h = box.y1 + ROW * 1.5
        found.append(BodySize(names["width"], (box.y0, k), (box.y1, k)))
        found.append(BodySize(names["height"], (h, box.z0), (h, box.z1)))
    return tuple(found)


def _part_handles(box: Box, names: dict[str, str], station: Station) -> tuple[Handle, ...]:
    """The dots of a chosen room or rack: its place by its middle, its sizes by its edges."""
    found: list[Handle] = []
    x, y, z = box.centre()
    if station in ("left", "right"):
        s = ELEVATION[station].h[1]
        if "start" in names:
            found.append(Handle(names["start"], (x * s, z), 0, s))
        if "length" in names:
            found.append(Handle(names["length"], (box.x1 * s, z), 0, s))
        found.append(Handle(names["height"], (x * s, box.z1), 1, 1.0))
        found.append(Handle(names["foot"], (x * s, box.z0), 1, 1.0))
    elif station == "rear":
        found.append(Handle(names["across"], (y, z), 0, 1.0))
        found.append(Handle(names["width"], (box.y1, z), 0, 2.0))
        found.append(Handle(names["height"], (y, box.z1), 1, 1.0))
        found.append(Handle(names["foot"], (y, box.z0), 1, 1.0))
    return tuple(found)


def sizes(assembly: Assembly, station: Station, part: str = "") -> tuple[BodySize, ...]:
    """The sizes that are shown from a place.

    Args:
        station: Where one stands; only sides and rear show sizes.
        part: The chosen room or rack; tray and canopy where it is none.
    Returns: In the order in which the Tab key reaches them. [mm]
    """
    ground, body = assembly.ground, assembly.job.body
    floor, canopy = ground.floor, ground.canopy
    made = body.tray.kind == "tray"
    chosen = chosen_box(assembly, part)
    if chosen is not None:
        return _part_sizes(*chosen, station)
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


def handles(assembly: Assembly, station: Station, part: str = "") -> tuple[Handle, ...]:
    """The dots that can be dragged from a place: those of a chosen room or rack, else of tray and canopy. [mm]"""
    chosen = chosen_box(assembly, part)
    if chosen is not None:
        return _part_handles(*chosen, station)
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


def scene(assembly: Assembly, station: Station, part: str = "") -> Scene:
    """Draw sizes with their extension lines, and the dots; a frame around a chosen room or rack."""
    found: list[Stroke] = []
    chosen = chosen_box(assembly, part)
    if chosen is not None:
        found.append(rectangle("selected", *ELEVATION[station].rect(chosen[0]), 4))
    for one in sizes(assembly, station, part):
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
    found += [Disc("handle dot", h.at, 24.0, h.path) for h in handles(assembly, station, part)]
    return tuple(found)
