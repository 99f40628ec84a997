"""What holds a chassis up and what of the bare vehicle lies on it: springs, their points, the kerb masses spread."""

import math

import msgspec

from roomy_hull.job.vehicle import Vehicle

STEP = 50.0
"""Greatest distance of the points at which a chassis is computed. [mm]"""


class Push(msgspec.Struct, frozen=True):
    """An upward force of the springs on the chassis, static. [mm, N]"""

    x: float
    newton: float
    what: str


def kerb_spread(
    vehicle: Vehicle, front: float, rear: float
) -> tuple[tuple[float, float, float], ...]:
    """Spread the bare vehicle's sprung mass so that it weighs on the axles what it was weighed at.

    Args:
        vehicle: Unsprung masses and outline. [kg, mm]
        front, rear: Axle masses of the bare vehicle, without what was aboard at the weighing. [kg]
    Returns:
        One even load from the nose to the cab's back and one from there to the chassis' end; at the axles where no
        such pair does it.
    """
    s, base = vehicle.springs, vehicle.wheelbase
    front, rear = front - s.unsprung_front, rear - s.unsprung_rear
    kg = front + rear
    nose, cab = -vehicle.shape.front, vehicle.cab_back
    tail = max(vehicle.chassis_end, vehicle.shape.rear, cab + 100)
    ahead, behind = (nose + cab) / 2, (cab + tail) / 2
    second = (rear * base - kg * ahead) / (behind - ahead)
    first = kg - second
    if min(front, rear, first, second) < 0:
        return ((front, 0.0, 0.0), (rear, base, base))
    return ((first, nose, cab), (second, cab, tail))


def points(vehicle: Vehicle, tray: tuple[float, float]) -> tuple[float, ...]:
    """The points at which the diagrams are computed, every support among them. [mm]"""
    low = min(-vehicle.shape.front, 0.0)
    high = (
        max(vehicle.chassis_end, vehicle.tow.x, tray[1], vehicle.shape.rear, vehicle.wheelbase)
        + 400
    )
    s = vehicle.springs
    marks = [
        0.0, vehicle.wheelbase, vehicle.wheelbase + s.air_x, vehicle.wheelbase - s.leaf_span / 2,
        vehicle.wheelbase + s.leaf_span / 2, vehicle.cab_back, vehicle.chassis_end, *tray, vehicle.tow.x,
    ]  # fmt: skip
    steps = math.ceil((high - low) / STEP)
    return tuple(sorted({*(low + n * STEP for n in range(steps)), high, *marks}))


def pushes(vehicle: Vehicle, front: float, rear: float, pressure: float) -> tuple[Push, ...]:
    """What the springs push up with under sprung loads, static.

    Args:
        front, rear: Sprung loads of the axles. [N]
        pressure: Of the air springs, 0 for none. [kPa]
    Returns: Together they carry front at 0 and rear at the wheelbase: force and moment both. [N, mm]
    """
    s, base = vehicle.springs, vehicle.wheelbase
    found = [Push(0.0, front, "front springs")]
    air = min(2 * pressure * s.air_area * 100 * 1e-3, max(0.0, rear))
    rest = rear - air
    if air > 0:
        found.append(Push(base + s.air_x, air, "air springs"))
    if s.leaf_span > 0:
        # The two eyes carry the rest, and hold the axle against the air springs' lever.
        half = s.leaf_span / 2
        tilt = -air * s.air_x / s.leaf_span
        found += [
            Push(base - half, rest / 2 - tilt, "leaf spring, front eye"),
            Push(base + half, rest / 2 + tilt, "leaf spring, rear eye"),
        ]
    else:
        # A coil takes force only; the axle's links hold the air springs' lever by a couple at the frame.
        found.append(Push(base, rest, "rear springs"))
        if air > 0 and s.air_x:
            arm = 400.0
            couple = -air * s.air_x / arm
            found += [
                Push(base - arm, -couple, "axle links"),
                Push(base, couple, "axle links"),
            ]
    return tuple(found)
