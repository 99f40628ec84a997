"""The vehicle's elevation from its own dimensions: side, ends, plan."""

import math

from roomy_hull.core.primitives import Disc, Outline, Point, Scene, Stroke, line, rectangle
from roomy_hull.core.tyres import overall_diameter, parts_of
from roomy_hull.drawing.view import View, carried_over
from roomy_hull.job.vehicle import Vehicle
from roomy_hull.kit.vehicle_pieces import tank_box


def side(vehicle: Vehicle, sign: int) -> Scene:
    """Draw the vehicle from its side.

    Args:
        vehicle: The vehicle. [mm]
        sign: 1 as seen from the left (front at the left), -1 from the right.
    Returns: Chassis, cab, glass, doors, lamps and wheels, h = ±x and k = z. [mm]
    """
    primitives = [*_chassis(vehicle), *_cab_side(vehicle), *_wheels_side(vehicle)]
    return carried_over(tuple(primitives), sign, 0.0, 0.0)


def _chassis(v: Vehicle) -> list[Stroke]:
    """Draw frame rail, springs, drive line and fuel tank."""
    low = v.rail_top - v.rail_depth
    axle = v.axle_height()
    tank = tank_box(v.fuel)[0]
    base = v.wheelbase
    return [
        rectangle("steel", -v.shape.front + 250, low, v.chassis_end, v.rail_top, 12),
        Outline("steel line", tuple(
            (base + 620 * t, axle + 45 + (low + 20 - axle - 45) * t * t)
            for t in (i / 8 - 1 for i in range(17))), closed=False),
        rectangle("steel", tank.x0, tank.z0, tank.x1, tank.z1, 40),
        rectangle("steel", v.chassis_end - 30, low - 60, v.tow.x, low + 60, 8),
        rectangle("steel", v.tow.x - 36, min(v.tow.z, low), v.tow.x, max(v.tow.z, low), 6),
        Disc("steel", (v.tow.x - 10, v.tow.z + 20), 26),
    ]  # fmt: skip


def _cab_side(v: Vehicle) -> list[Stroke]:
    """Draw the cab's side: skin, glass, seams, handles, lamps, bumper, arch."""
    s = v.shape
    nose, back = -s.front, (s.rear if v.kind == "wagon" else v.cab_back)
    top, roof_rear = s.height, (s.rear - 130 if v.kind == "wagon" else s.roof_rear)
    arch = overall_diameter(v.tyre) / 2 + 75
    axle = v.axle_height()
    bonnet_front = s.bonnet - 150
    dx = math.sqrt(max(arch**2 - (s.sill - axle) ** 2, 1.0))
    skin: tuple[tuple[float, float, float], ...] = (
        (nose + 30, s.sill + 10, 40), (nose, s.sill + 130, 40), (nose + 8, bonnet_front - 40, 60),
        (nose + 90, bonnet_front + 60, 120), (s.windscreen - 60, s.bonnet, 160),
        (s.roof_front, top, 170), (roof_rear - 10, top - 12, 110), (back, s.belt + 60, 60),
        (back, s.sill + 40, 50), (back - 30, s.sill, 20),
    )  # fmt: skip
    primitives: list[Stroke] = [
        Outline("cab", tuple((a, b) for a, b, _ in skin), radii=tuple(r for _, _, r in skin)),
        rectangle("trim", nose - 25, s.sill - 20, nose + 190, s.sill + 170, 45),
        _arch(axle, arch, s.sill - 18),
        rectangle("trim", dx - 20, s.sill - 45, back - 60, s.sill + 8, 14),
        Outline("lamp", ((nose + 10, bonnet_front - 100), (nose + 14, bonnet_front - 10),
                         (nose + 260, bonnet_front + 30), (nose + 230, bonnet_front - 70)),
                radius=25),
        Outline("detail", ((nose + 90, bonnet_front + 48), (s.windscreen - 90, s.bonnet - 14)),
                closed=False),
    ]  # fmt: skip
    if v.kind == "wagon":
        primitives += _wagon_side(v, arch, axle)
    if v.kind == "pickup":
        primitives += _tub_side(v, arch, axle)
    primitives += _windows(v)
    belt = s.belt
    for n, x in enumerate(s.doors):
        if n == 0:
            primitives.append(
                Outline("seam", ((x + 90, belt - 20), (x + 110, s.sill + 170), (x + 170, s.sill + 20)),
                        closed=False, radius=40)
            )  # fmt: skip
        else:
            primitives.append(line("seam", (x, top - 110 if n < len(s.doors) - 1 else belt),
                                (x, s.sill + 20)))  # fmt: skip
            primitives.append(rectangle("handle", x - 165, belt - 95, x - 45, belt - 70, 10))
    primitives.append(Outline("mirror", ((s.windscreen + 210, belt + 5), (s.windscreen + 200, belt + 175),
                                      (s.windscreen + 320, belt + 190), (s.windscreen + 330, belt + 20)),
                           radius=35))  # fmt: skip
    return primitives


def _wagon_side(v: Vehicle, arch: float, axle: float) -> list[Stroke]:
    """Draw what a wagon has behind its doors: rear wheel's arch, cargo window, lamp, bumper."""
    s = v.shape
    belt, top = s.belt + 18, s.height - 78
    rear = s.rear
    return [
        _arch(axle, arch, s.sill - 18, v.wheelbase),
        Outline("glass", ((v.cab_back + 40, belt), (v.cab_back + 40, top), (rear - 230, top),
                          (rear - 110, belt)), radius=42),
        Outline("lamp red", ((rear - 90, s.belt - 190), (rear - 90, s.belt + 10), (rear - 25, s.belt + 10),
                             (rear - 12, s.belt - 190)), radius=18),
        rectangle("trim", rear - 190, s.sill - 10, rear + 25, s.sill + 130, 40),
        line("seam", (v.cab_back, top + 30), (v.cab_back, s.belt)),
    ]  # fmt: skip


def _tub_side(v: Vehicle, arch: float, axle: float) -> list[Stroke]:
    """Draw a pickup's tub: panel, rear wheel's arch, lamp, bumper."""
    s, hold = v.shape, v.hold
    top = hold.floor + hold.height if hold is not None else s.belt
    front, rear = v.cab_back + 25, s.rear
    return [
        Outline("cab", ((front, s.sill + 40), (front, top), (rear - 12, top), (rear, s.sill + 90)),
                radii=(30, 40, 45, 60)),
        _arch(axle, arch, s.sill + 20, v.wheelbase),
        rectangle("lamp red", rear - 75, top - 270, rear - 18, top - 40, 14),
        rectangle("trim", rear - 150, s.sill - 20, rear + 30, s.sill + 110, 30),
        line("detail", (front + 14, top - 26), (rear - 20, top - 26)),
    ]  # fmt: skip


def _arch(axle: float, radius: float, low: float, x: float = 0.0) -> Outline:
    """Draw the opening for a wheel, cut off at the sill. [mm]"""
    start = math.asin(max(-1.0, min(1.0, (low - axle) / radius)))
    steps = 24
    angles = [start + (math.pi - 2 * start) * i / steps for i in range(steps + 1)]
    return Outline(
        "arch", tuple((x + radius * math.cos(a), axle + radius * math.sin(a)) for a in angles)
    )


def _windows(v: Vehicle) -> list[Stroke]:
    """Cut the glass along the door seams."""
    s = v.shape
    belt, top = s.belt + 18, s.height - 78
    slope_front = (s.roof_front - s.windscreen + 60) / max(s.height - s.bonnet, 1.0)

    def front_edge(z: float) -> float:
        return s.windscreen - 60 + (z - s.bonnet) * slope_front + 95

    seams = [x for x in s.doors[1:-1] if s.windscreen + 400 < x < v.cab_back - 200]
    edges = [None, *seams, None]
    found: list[Stroke] = []
    rear_low, rear_top = v.cab_back - 75, s.roof_rear - 70
    for n in range(len(edges) - 1):
        left, right = edges[n], edges[n + 1]
        low_l = front_edge(belt) + 60 if left is None else left + 35
        top_l = front_edge(top) if left is None else left + 35
        low_r = rear_low if right is None else right - 35
        top_r = rear_top if right is None else right - 35
        found.append(
            Outline("glass", ((low_l, belt), (top_l, top), (top_r, top), (low_r, belt)), radius=42)
        )
    return found


def wheel(centre: Point, tyre: str) -> list[Stroke]:
    """Draw a wheel from its side: tyre, rim, spokes, hub. [mm]"""
    radius = overall_diameter(tyre) / 2
    rim = parts_of(tyre)[2] * 25.4 / 2
    found: list[Stroke] = [
        Disc("tyre", centre, radius), Disc("rim", centre, rim + 14), Disc("rim dark", centre, rim - 14),
    ]  # fmt: skip
    for i in range(6):
        a = math.radians(60 * i + 90)
        b0, b1 = a - 0.16, a + 0.16
        found.append(
            Outline("rim", tuple(
                (centre[0] + r * math.cos(t), centre[1] + r * math.sin(t))
                for r, t in ((40, b0 - 0.5), (rim - 6, b0), (rim - 6, b1), (40, b1 + 0.5))))
        )  # fmt: skip
    found += [Disc("rim", centre, 62), Disc("rim dark", centre, 34)]
    return found


def _wheels_side(v: Vehicle) -> list[Stroke]:
    """Draw both wheels, resting on the ground."""
    radius = overall_diameter(v.tyre) / 2
    return [*wheel((0.0, radius), v.tyre), *wheel((v.wheelbase, radius), v.tyre)]


def end(vehicle: Vehicle, rear: bool) -> Scene:
    """Draw the vehicle from its rear or front, h = ±y and k = z; symmetric. [mm]"""
    v, s = vehicle, vehicle.shape
    half = s.width / 2
    radius = overall_diameter(v.tyre) / 2
    section = parts_of(v.tyre)[0]
    track = v.track_rear if rear else v.track_front
    primitives: list[Stroke] = []
    for sign in (-1, 1):
        c = sign * track / 2
        primitives.append(rectangle("tyre", c - section / 2, 0, c + section / 2, 2 * radius, 45))
    axle = v.axle_height()
    primitives.append(rectangle("steel", -track / 2, axle - 45, track / 2, axle + 45, 30))
    low = v.rail_top - v.rail_depth
    for sign in (-1, 1):
        c = sign * v.rail_spread / 2
        primitives.append(rectangle("steel", c - v.rail_width / 2, low, c + v.rail_width / 2,
                                 v.rail_top, 6))  # fmt: skip
    roof = half * 0.76
    body = (
        (-half + 40, s.sill, 50), (-half, s.sill + 150, 60), (-half, s.belt, 60),
        (-roof, s.height, 130), (roof, s.height, 130), (half, s.belt, 60),
        (half, s.sill + 150, 60), (half - 40, s.sill, 50),
    )  # fmt: skip
    cab = Outline("cab", tuple((a, b) for a, b, _ in body), radii=tuple(r for _, _, r in body))
    low_half, top_half = half - 120, roof - 20
    glass = Outline("glass", ((-low_half, s.belt + 40), (-top_half, s.height - 80),
                              (top_half, s.height - 80), (low_half, s.belt + 40)), radius=70)  # fmt: skip
    if rear:
        return (cab, glass, *primitives)
    grille = s.bonnet - 190
    front: list[Stroke] = [
        cab, glass,
        Outline("detail", ((-half + 40, s.bonnet), (half - 40, s.bonnet)), closed=False),
        rectangle("trim", -half + 380, grille - 250, half - 380, grille, 50),
        rectangle("trim", -half + 10, s.sill - 20, half - 10, s.sill + 180, 60),
        rectangle("plate", -185, s.sill + 20, 185, s.sill + 130, 10),
    ]  # fmt: skip
    for sign in (-1, 1):
        c = sign * (half - 200)
        front.append(rectangle("lamp", c - 150, grille - 130, c + 150, grille + 10, 45))
        front.append(
            rectangle(
                "mirror", c + sign * 230 - 90, s.belt + 10, c + sign * 230 + 90, s.belt + 190, 35
            )
        )
    return (*primitives, *front)


def plan(vehicle: Vehicle, view: View) -> Scene:
    """Draw cab, wheels and rails from above, as a view lays x and y out. [mm]"""
    v, s = vehicle, vehicle.shape
    half = s.width / 2
    radius = overall_diameter(v.tyre) / 2
    section = parts_of(v.tyre)[0]
    primitives: list[Stroke] = []
    for x, track in ((0.0, v.track_front), (v.wheelbase, v.track_rear)):
        for sign in (-1, 1):
            c = sign * track / 2
            primitives.append(rectangle("tyre plan", x - radius, c - section / 2, x + radius,
                                     c + section / 2, 40))  # fmt: skip
    for sign in (-1, 1):
        c = sign * v.rail_spread / 2
        primitives.append(rectangle("steel plan", v.cab_back, c - v.rail_width / 2, v.chassis_end,
                                 c + v.rail_width / 2))  # fmt: skip
    nose = -s.front
    roof = half * 0.78
    back = s.rear if v.kind == "wagon" else v.cab_back
    if v.kind == "pickup":
        primitives.append(rectangle("cab", v.cab_back + 25, -half + 20, s.rear, half - 20, 60))
    skin = (
        (nose, -half * 0.62, 130), (nose, half * 0.62, 130), (nose + 190, half - 15, 150),
        (s.windscreen, half, 200), (back, half, 60), (back, -half, 60),
        (s.windscreen, -half, 200), (nose + 190, -half + 15, 150),
    )  # fmt: skip
    primitives.append(
        Outline("cab", tuple((a, b) for a, b, _ in skin), radii=tuple(r for _, _, r in skin))
    )
    primitives.append(Outline("glass", ((s.windscreen, -half + 130), (s.windscreen - 50, 0.0),
                                     (s.windscreen, half - 130), (s.roof_front, roof),
                                     (s.roof_front - 20, 0.0), (s.roof_front, -roof)), radius=60))  # fmt: skip
    roof_rear = s.rear - 130 if v.kind == "wagon" else s.roof_rear
    primitives.append(rectangle("cab roof", s.roof_front, -roof, roof_rear, roof, 90))
    primitives.append(line("seam", (nose + 110, -half * 0.5), (s.windscreen - 120, -half * 0.72)))
    primitives.append(line("seam", (nose + 110, half * 0.5), (s.windscreen - 120, half * 0.72)))
    for sign in (-1, 1):
        primitives.append(rectangle("mirror", s.windscreen + 200, sign * (half + 90) - 90,
                                 s.windscreen + 300, sign * (half + 90) + 90, 30))  # fmt: skip
    swap = view.h[0] == 1
    return carried_over(tuple(primitives), view.h[1], 0.0, 0.0, sign_k=view.k[1], swap=swap)
