"""Stability: the centre of mass at the loaded attitude, static stability factor and static tilt."""

import math
from typing import Protocol

import msgspec

from roomy_hull.assembly.springs import Stance
from roomy_hull.job.vehicle import Vehicle

WORDS = (
    "Static figures: an upper bound. On its springs and tyres a vehicle leans and tips earlier, and moving "
    "it earlier still."
)


class Settled(Protocol):
    """A scenario on its springs: its id and name, how its ends settle, its centre of mass. [mm]"""

    @property
    def id(self) -> str:
        """Its id."""

    @property
    def name(self) -> str:
        """Its name."""

    @property
    def stance(self) -> Stance:
        """How its ends settle. [mm]"""

    @property
    def centre(self) -> tuple[float, float, float]:
        """Its centre of mass in vehicle axes at kerb attitude. [mm]"""


class Stability(msgspec.Struct, frozen=True):
    """One scenario.

    Attributes:
        scenario, name: Its id and name.
        x, y, height: Centre of mass: aft of the front axle, right of the middle, over level ground on loaded springs.
            [mm]
        track: Mean of both. [mm]
        factor: T/2h.
        tilt_left, tilt_right: At which it tips over its left and its right wheels, rigid. [degree]
    """

    scenario: str
    name: str
    x: float
    y: float
    height: float
    track: float
    factor: float
    tilt_left: float
    tilt_right: float


def stability(vehicle: Vehicle, loads: Settled) -> Stability:
    """Compute one scenario.

    Args:
        loads: Centre of mass at kerb attitude, and how the ends settle. [mm]
    Returns: SSF = T/2h and tilt = atan((T/2 ∓ y)/h), the springs taken as settled and then rigid.
    Static stability factor: NHTSA, rollover resistance (from memory).
    """
    x, y, z = loads.centre
    s = loads.stance
    sag = s.front_sag + (s.rear_sag - s.front_sag) * x / vehicle.wheelbase
    height = max(1.0, z - sag)
    track = (vehicle.track_front + vehicle.track_rear) / 2
    left, right = (math.degrees(math.atan2(track / 2 + sign * y, height)) for sign in (1.0, -1.0))
    return Stability(loads.id, loads.name, x, y, height, track, track / (2 * height), left, right)
