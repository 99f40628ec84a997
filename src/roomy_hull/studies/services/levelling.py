"""Levelling in camp: which air spring to which pressure on a slope, and what slope is left."""

import math

import msgspec

from roomy_hull.assembly.springs import rear_spring
from roomy_hull.job.vehicle import Vehicle


class Level(msgspec.Struct, frozen=True):
    """One scenario on the slope of the camp.

    Attributes:
        scenario: Its id.
        left, right: Pressure of each air spring over the air's. [kPa]
        lift: By how much the rear rises from how it stands. [mm]
        ahead, side: The slope that is left, front and left so much higher. [°]
    """

    scenario: str
    left: float
    right: float
    lift: float
    ahead: float
    side: float


def level(
    vehicle: Vehicle, scenario: str, rear: float, sag: float, slope: tuple[float, float]
) -> Level:
    """Set both air springs of the rear so that it stands as level as they can.

    Args:
        rear: Load of the rear axle. [kg]
        sag: How far the front settles. [mm]
        slope: The ground rises to the front and to the left by so much. [°]
    Returns:
        Statics on the wheels' rates: the rear rises by L·tan θ as both springs take 2k of it more; the body rolls
        by φ as their couple (F_right - F_left)·T/2 turns k·T²/2 of both axles. Loads count as on the level: to 10
        degrees the error is some hundredths.
    """
    s = vehicle.springs
    poses = rear_spring(vehicle, "air", rear, sag)
    now, low = poses.pressure, poses.sag - sag
    area = s.air_area * 100.0  # mm²
    per_mm = s.rear / area * 1e3  # kPa for each mm that the rear rises
    own = s.rear * vehicle.track_rear**2 / 2
    front = s.front * vehicle.track_front**2 / 2
    stiff = own / (1 - s.roll_front) if s.roll_front > 0 else own + front  # N·mm a radian
    per_rad = (
        stiff / vehicle.track_rear / area * 1e3
    )  # kPa more right and less left for each radian
    lift = vehicle.wheelbase * math.tan(math.radians(slope[0])) + low
    roll = math.radians(slope[1])
    wished = (now + per_mm * lift - per_rad * roll, now + per_mm * lift + per_rad * roll)
    left, right = (min(max(p, s.air_least), s.air_most) for p in wished)
    risen = ((left + right) / 2 - now) / per_mm
    rolled = (right - left) / 2 / per_rad
    ahead = slope[0] - math.degrees(math.atan((risen - low) / vehicle.wheelbase))
    return Level(scenario, left, right, risen, ahead, slope[1] - math.degrees(rolled))
