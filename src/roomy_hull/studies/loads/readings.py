"""Readings: each figure of a load as a linear function of the sums of masses."""

from collections.abc import Sequence

import msgspec

from roomy_hull.assembly.springs import roll_front
from roomy_hull.job.vehicle import Vehicle

WHEELS = ("front left", "front right", "rear left", "rear right")
Triple = tuple[float, float, float]


class Readings(msgspec.Struct, frozen=True):
    """How every figure of a vehicle is read from Σm, Σm·x and Σm·y: three factors each. [1, 1/mm]"""

    front: Triple
    rear: Triple
    gross: Triple
    left: Triple
    right: Triple
    wheels: tuple[Triple, Triple, Triple, Triple]

    def of(self, key: str) -> Triple:
        """The factors of ``front``, ``rear``, ``gross``, ``left``, ``right`` or a wheel."""
        if key in WHEELS:
            return self.wheels[WHEELS.index(key)]
        found: Triple = getattr(self, key)
        return found


def readings(vehicle: Vehicle) -> Readings:
    """How every figure is read from the three sums.

    Returns:
        front = Σm - Σm·x/L, rear = Σm·x/L. What leans to one side, Σm·y, is carried by both axles in the
        proportion of their roll stiffness: a front wheel has half its axle ± φ·Σm·y/T_f, a rear wheel ± (1-φ)·Σm·y/T_r,
        for a chassis that does not twist.
    """
    base, phi = vehicle.wheelbase, roll_front(vehicle)
    ahead, behind = phi / vehicle.track_front, (1 - phi) / vehicle.track_rear
    lean = ahead + behind
    return Readings(
        (1.0, -1 / base, 0.0),
        (0.0, 1 / base, 0.0),
        (1.0, 0.0, 0.0),
        (0.5, 0.0, -lean),
        (0.5, 0.0, lean),
        (
            (0.5, -0.5 / base, -ahead),
            (0.5, -0.5 / base, ahead),
            (0.0, 0.5 / base, -behind),
            (0.0, 0.5 / base, behind),
        ),
    )


def value_of(reading: Triple, sums: Sequence[float]) -> float:
    """Read a figure from the three sums. [kg]"""
    return reading[0] * sums[0] + reading[1] * sums[1] + reading[2] * sums[2]


def variance_of(reading: Sequence[float], spread: Sequence[float]) -> float:
    """Read a figure's variance from the covariance of the three sums; never negative. [kg²]"""
    a, b, c = reading
    s = spread
    found = a * a * s[0] + b * b * s[3] + c * c * s[5]
    return max(0.0, found + 2 * (a * b * s[1] + a * c * s[2] + b * c * s[4]))
