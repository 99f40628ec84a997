"""The survey's drawings: each measure where it is taken, the frame out of square, towing as a region."""

import math

from roomy_hull.core.primitives import (
    Disc,
    Outline,
    Point,
    Rect,
    Scene,
    Size,
    Stroke,
    Words,
    line,
    rectangle,
)
from roomy_hull.core.units import System, show
from roomy_hull.drawing.scenes import vehicle as vehicle_scene
from roomy_hull.drawing.scenes.around import ground_line
from roomy_hull.drawing.view import SLICE
from roomy_hull.job.vehicle import Hold, Vehicle
from roomy_hull.planning.survey import Plan
from roomy_hull.studies.loads.towing import Towing

Where = tuple[str, Point, Point]
"""Which picture (``side`` or ``plan``), and both ends of a measure in it. [mm]"""


def where(vehicle: Vehicle, measure: str) -> Where:
    """Where a measure is taken, by the vehicle's sizes as they are known so far.

    Args:
        vehicle: The vehicle. [mm]
    Returns: ``side`` with (x, z), or ``plan`` with (x, y). [mm]
    """
    base, axle = vehicle.wheelbase, vehicle.axle_height()
    rail, low = vehicle.rail_top + 25, 0.0
    simple: dict[str, Where] = {
        "wheelbase_left": ("side", (0, axle), (base, axle)),
        "wheelbase_right": ("side", (0, axle), (base, axle)),
        "track_front": ("plan", (0, -vehicle.track_front / 2), (0, vehicle.track_front / 2)),
        "track_rear": ("plan", (base, -vehicle.track_rear / 2), (base, vehicle.track_rear / 2)),
        "axle_cab": ("side", (vehicle.cab_back, rail), (base, rail)),
        "axle_end": ("side", (base, rail), (vehicle.chassis_end, rail)),
        "cab_end": ("side", (vehicle.cab_back, rail + 90), (vehicle.chassis_end, rail + 90)),
        "tail_clearance": ("side", (vehicle.tow.x, low), (vehicle.tow.x, vehicle.tow.z)),
        "cab_height": ("side", (vehicle.shape.roof_front + 200, low),
                       (vehicle.shape.roof_front + 200, vehicle.shape.height)),
    }  # fmt: skip
    if measure in simple:
        return simple[measure]
    if measure.startswith("rail_") and vehicle.hold is None:
        x = vehicle.cab_back + 40 if "front" in measure else vehicle.chassis_end - 40
        return ("side", (x, low), (x, vehicle.rail_top))
    if vehicle.hold is not None and not measure.startswith("frame"):
        return _in_hold(vehicle, vehicle.hold, measure)
    half = (vehicle.rail_spread + vehicle.rail_width) / 2
    return _corner(measure, vehicle.cab_back, vehicle.chassis_end, half)


def _corner(measure: str, x0: float, x1: float, half: float) -> Where:
    """One of the six distances between four corners."""
    corners: dict[str, tuple[Point, Point]] = {
        "front": ((x0, -half), (x0, half)),
        "rear": ((x1, -half), (x1, half)),
        "left": ((x0, -half), (x1, -half)),
        "right": ((x0, half), (x1, half)),
        "diagonal_1": ((x0, -half), (x1, half)),
        "diagonal_2": ((x0, half), (x1, -half)),
    }
    a, b = corners[measure.split("_", 1)[1]]
    return ("plan", a, b)


def _in_hold(vehicle: Vehicle, hold: Hold, measure: str) -> Where:
    """Where a measure is taken in a tub or cargo area."""
    x0, x1, half = hold.start, hold.start + hold.length, hold.width / 2
    floor = hold.floor
    a0, a1 = x0 + hold.arch_start, x0 + hold.arch_start + hold.arch_length
    mid, inner = (a0 + a1) / 2, half - hold.arch_width
    high = floor + hold.height
    opening = hold.opening_width / 2
    spots: dict[str, Where] = {
        "floor_middle": ("plan", (mid, -half), (mid, half)),
        "between": ("plan", (mid + 60, -inner), (mid + 60, inner)),
        "arch_left": ("plan", (mid - 60, -half), (mid - 60, -inner)),
        "arch_right": ("plan", (mid - 60, inner), (mid - 60, half)),
        "arch_start": ("plan", (x0, -inner + 60), (a0, -inner + 60)),
        "arch_length": ("plan", (a0, -inner + 60), (a1, -inner + 60)),
        "arch_height": ("side", (mid, floor), (mid, floor + hold.arch_height)),
        "floor_height": ("side", (x1, 0), (x1, floor)),
        "wall_height": ("side", (x0 + 80, floor), (x0 + 80, high)),
        "clear_height": ("side", (x1 - 80, floor), (x1 - 80, high)),
        "parcel_height": ("side", (mid, floor), (mid, min(high, vehicle.shape.belt))),
        "rail_length": ("side", (x0, high), (x1, high)),
        "tailgate_width": ("plan", (x1 - 20, -opening), (x1 - 20, opening)),
        "tailgate_height": ("side", (x1, floor), (x1, floor + hold.opening_height)),
        "length_up": ("side", (x0, floor + 40), (x1, floor + 40)),
        "seat_depth": ("side", (x0 - 700, floor + 120), (x0, floor + 120)),
        "length_folded": ("side", (x0 - 700, floor + 200), (x1, floor + 200)),
        "belt_width": ("plan", (x1 - 300, -half), (x1 - 300, half)),
        "false_floor": ("side", (mid, floor - 180), (mid, floor)),
    }
    return spots[measure] if measure in spots else _corner(measure, x0, x1, half)


def frame(vehicle: Vehicle, picture: str) -> Rect:
    """The stretch that shows the vehicle from its left or from above. [mm]"""
    end = max(vehicle.chassis_end, vehicle.tow.x, vehicle.shape.rear) + 150
    half = vehicle.shape.width / 2 + 250
    if picture == "side":
        return (-vehicle.shape.front - 150, -140, end, vehicle.shape.height + 140)
    return (-vehicle.shape.front - 150, -half, end, half)


def measure_scene(vehicle: Vehicle, measure: str, text: str = "") -> Scene:
    """Draw the vehicle and one measure on it.

    Args:
        vehicle: The vehicle. [mm]
        text: What stands on its size; its length on the drawing where nothing is given.
    Returns: From its left, or from above. [mm]
    """
    picture, a, b = where(vehicle, measure)
    found: list[Stroke]
    if picture == "side":
        found = [*ground_line(frame(vehicle, "side")), *vehicle_scene.side(vehicle, 1)]
    else:
        found = list(vehicle_scene.plan(vehicle, SLICE["left"]))
        if vehicle.hold is not None:
            found += _hold_plan(vehicle.hold)
    found += [
        Size("measure", a, b, text=text),
        Disc("measure end", a, 14),
        Disc("measure end", b, 14),
    ]
    return tuple(found)


def _hold_plan(hold: Hold) -> list[Stroke]:
    """Draw the floor and its arches from above."""
    x0, x1, half = hold.start, hold.start + hold.length, hold.width / 2
    found: list[Stroke] = [rectangle("inside plan", x0, -half, x1, half)]
    a0 = x0 + hold.arch_start
    if hold.arch_width and hold.arch_length:
        for y0, y1 in ((-half, -half + hold.arch_width), (half - hold.arch_width, half)):
            found.append(rectangle("cut", a0, y0, a0 + hold.arch_length, y1))
    return found


def square_scene(plan: Plan) -> Scene:
    """Draw the measured corners with their error drawn ten times, over a true rectangle.

    Args:
        plan: The adjusted corners. [mm]
    Returns: h aft and k to the left, so that it stands as seen from above with the front at the left. [mm]
    """
    (_, _), (_, wf), (rx, ry), (lx, ly) = plan.corners
    long, wide = (lx + rx) / 2, (wf + ry - ly) / 2
    true = [(0.0, 0.0), (0.0, wide), (long, wide), (long, 0.0)]
    shown = [
        (t[0] + 10 * (c[0] - t[0]), t[1] + 10 * (c[1] - t[1]))
        for c, t in zip(plan.corners, true, strict=True)
    ]
    flip = [(x, wide - y) for x, y in true]
    return (
        Outline("stock", tuple(flip)),
        Outline("measured frame", tuple((x, wide - y) for x, y in shown)),
        *(Disc("measure end", (x, wide - y), wide * 0.02) for x, y in shown),
    )


def square_frame(plan: Plan) -> Rect:
    """The stretch that shows the frame with its drawn error. [mm]"""
    xs = [c[0] for c in plan.corners]
    ys = [c[1] for c in plan.corners]
    pad = 0.12 * max(xs) + 60
    return (-pad, -pad, max(xs) + pad, max(ys) + pad)


def towing_scene(found: Towing, system: System, shown: str) -> tuple[Scene, Rect]:
    """Draw the towing trade-off: vehicle mass across, trailer mass up.

    Args:
        found: Region and scenarios. [kg]
    """
    one = next((p for p in found.points if p.id == shown), found.points[0])
    # Every scenario's region is framed, so that the picture keeps its scale from one to the next.
    corners = [c for p in found.points for c in p.region]
    xs = [c[0] for c in corners] + [p.vehicle for p in found.points]
    ys = [c[1] for c in corners] + [p.trailer for p in found.points]
    x0, x1, y1 = min(xs), max(xs), max([*ys, 1.0])
    wide = max(x1 - x0, 1.0)
    tall = y1 / (wide * 0.62)

    def at(x: float, y: float) -> Point:
        return ((x - x0), y / tall)

    scene: list[Stroke] = [
        *([Outline("allowed", tuple(at(*c) for c in one.region))] if len(one.region) > 2 else []),
        line("ground", at(x0, 0), at(x1 + wide * 0.04, 0)),
        line("ground", at(x0, 0), at(x0, y1 * 1.06)),
    ]
    step = 10 ** math.floor(math.log10(max(y1, 10.0)))
    for n in range(1, int(y1 / step) + 1):
        scene.append(line("extension", at(x0, n * step), at(x1, n * step)))
        scene.append(Words("centre words", (-wide * 0.02, n * step / tall),
                           show(n * step, "mass", system, unit=False), 11, anchor="right"))  # fmt: skip
    for x in (x0, x1):
        scene.append(Words("centre words", at(x, -0.07 * y1), show(x, "mass", system), 11))
    for n, point in enumerate(found.points, 1):
        if point is one and point.most > 0:
            scene.append(line("lever", at(point.vehicle, 0), at(point.vehicle, point.most)))
            scene.append(Disc("allowed most", at(point.vehicle, point.most), wide * 0.014))
        scene.append(Disc("centre", at(point.vehicle, point.trailer), wide * 0.014))
        here = at(point.vehicle, point.trailer)
        scene.append(Words("axle name", (here[0], here[1] + wide * 0.045), str(n), 11))
    return tuple(scene), (-wide * 0.16, -0.14 * y1 / tall, wide * 1.06, 1.1 * y1 / tall)
