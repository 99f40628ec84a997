"""Springs: how both ends stand under load by each option, air pressure for level, bounce frequency."""

import math

import msgspec

from roomy_hull.core.units import G
from roomy_hull.job.vehicle import SPRING_OPTIONS, SpringOption, Vehicle

USUAL_CONSTANT_RATE = 1.25
"""Rate of constant-load springs against the standard ones (common practice)."""
USUAL_LEAF_RATE = 0.3
"""What an extra leaf adds to the rate (common practice)."""
ATMOSPHERE = 101.325
"""Air pressure at sea level. [kPa] ISO 2533."""
POLYTROPIC = 1.3
"""Exponent of the air in a spring on the move, between 1 (slow) and 1.4 (quick); common practice."""


class Stance(msgspec.Struct, frozen=True):
    """How far each end settles from kerb, and how much lower the tail is than wished. [mm]

    `pressure` is that of the air springs, 0 where there are none [kPa]; `uncertainty` that of `tail_low`, from
    the masses alone [mm].
    """

    front_sag: float
    rear_sag: float
    tail_low: float
    pressure: float = 0.0
    uncertainty: float = 0.0


class RearSpring(msgspec.Struct, frozen=True):
    """The rear springs of one option under one load.

    Attributes:
        sag: How far the end settles from kerb. [mm]
        rate: Of one wheel about that place. [N/mm]
        pressure: Of the air springs, over the air's. [kPa]
        wished: The pressure that would make it level, before its bounds. [kPa]
        air: Part of the sprung load that the air springs carry.
    """

    sag: float
    rate: float
    pressure: float = 0.0
    wished: float = 0.0
    air: float = 0.0


class OptionRow(msgspec.Struct, frozen=True):
    """One option in one scenario: how it stands and how it bounces. [mm, kPa, Hz]"""

    option: SpringOption
    scenario: str
    stance: Stance
    wished: float
    rear_hz: float
    front_hz: float


class SpringStudy(msgspec.Struct, frozen=True):
    """All options in all scenarios, and the bounce at kerb of each. [Hz]"""

    rows: tuple[OptionRow, ...]
    kerb_hz: dict[SpringOption, float]

    def row(self, option: str, scenario: str) -> OptionRow:
        """Find one option in one scenario."""
        return next(r for r in self.rows if r.option == option and r.scenario == scenario)


def rear_spring(vehicle: Vehicle, option: str, rear: float, front_sag: float) -> RearSpring:
    """Settle the rear end by one option.

    Args:
        option: ``standard``, ``constant load``, ``extra leaf`` or ``air``.
        rear: Load of the rear axle. [kg]
        front_sag: How far the front settles; air springs set for level follow it. [mm]
    Returns:
        standard: s = ΔF/2k. Constant load C: s = (ΔF - C·g)/2k'. Extra leaf: s = ΔF/2(k + k_l) less its lift. Air:
        the standard springs and twice p·A carry ΔF; for level p = (ΔF - 2k·s)/2A within its bounds; its own rate is
        n·(p + p0)·A/h.
    Statics; the air spring's rate is that of a closed volume V = A·h under a polytropic change,
    dF/ds = n·p_abs·A²/V. ΔF is the load beyond kerb, in newtons.
    """
    s = vehicle.springs
    force = (rear - vehicle.kerb.rear) * G
    if option == "constant load":
        rate = s.constant_rate or USUAL_CONSTANT_RATE * s.rear
        return RearSpring((force - s.constant * G) / (2 * rate), rate)
    if option == "extra leaf":
        rate = s.rear + (s.leaf_rate or USUAL_LEAF_RATE * s.rear)
        return RearSpring(force / (2 * rate) - s.leaf_lift, rate)
    if option == "air":
        area = s.air_area * 100.0  # cm² to mm²; kPa·mm² are mN
        level = front_sag + vehicle.level_target
        wished = (force - 2 * s.rear * level) / (2 * area) * 1e3
        pressure = s.air_pressure or min(max(wished, s.air_least), s.air_most)
        lifts = 2 * pressure * area * 1e-3
        own = POLYTROPIC * (pressure + ATMOSPHERE) * area / s.air_height * 1e-3
        sprung = max(1.0, (rear - s.unsprung_rear) * G)
        return RearSpring(
            (force - lifts) / (2 * s.rear), s.rear + own, pressure, wished, lifts / sprung
        )
    return RearSpring(force / (2 * s.rear), s.rear)


def front_sag(vehicle: Vehicle, front: float) -> float:
    """How far the front settles from kerb: ΔF/2k. [kg to mm]"""
    return (front - vehicle.kerb.front) * G / (2 * vehicle.springs.front)


def stance(vehicle: Vehicle, front: float, rear: float, option: str = "") -> Stance:
    """Settle both ends on their springs.

    Args:
        vehicle: Its springs; the option that is fitted, unless another is named.
        front, rear: Axle loads. [kg]
    Returns: Sags, and tail_low = rear sag - front sag - the owner's target. [mm, kPa]
    """
    ahead = front_sag(vehicle, front)
    behind = rear_spring(vehicle, option or vehicle.springs.school, rear, ahead)
    low = behind.sag - ahead - vehicle.level_target
    return Stance(ahead, behind.sag, low, behind.pressure)


def level_rates(vehicle: Vehicle, pressure: float) -> tuple[float, float]:
    """By how much the tail sinks for each kilogram on the front and on the rear axle.

    Args:
        pressure: Of the air springs. [kPa]
    Returns: -g/2k of the front and g/2k of the rear [mm/kg]; both 0 while air springs follow the load.
    """
    s = vehicle.springs
    follows = s.air_pressure == 0 and s.air_least < pressure < s.air_most
    if s.school == "air" and follows:
        return 0.0, 0.0
    rate = s.rear if s.school == "air" else rear_rate(vehicle)
    return -G / (2 * s.front), G / (2 * rate)


def bounce(rate: float, kg: float) -> float:
    """The bounce frequency of one end.

    Args:
        rate: Of both springs together. [N/mm]
        kg: Sprung mass on them. [kg]
    Returns: f = √(k/m)/2π. [Hz]; 0 where nothing rests on them.
    """
    return math.sqrt(rate * 1e3 / kg) / (2 * math.pi) if kg > 0 else 0.0


def compare(vehicle: Vehicle, loads: tuple[tuple[str, float, float], ...]) -> SpringStudy:
    """Compare the options in every scenario.

    Args:
        loads: Axle loads of each scenario. [kg]
    """
    s, kerb = vehicle.springs, vehicle.kerb
    rows = []
    for option in SPRING_OPTIONS:
        for key, front, rear in loads:
            ahead = front_sag(vehicle, front)
            behind = rear_spring(vehicle, option, rear, ahead)
            rows.append(
                OptionRow(
                    option,
                    key,
                    stance(vehicle, front, rear, option),
                    behind.wished,
                    bounce(2 * behind.rate, rear - s.unsprung_rear),
                    bounce(2 * s.front, front - s.unsprung_front),
                )
            )
    empty = {
        option: bounce(
            2 * rear_spring(vehicle, option, kerb.rear, 0.0).rate, kerb.rear - s.unsprung_rear
        )
        for option in SPRING_OPTIONS
    }
    return SpringStudy(tuple(rows), empty)


def roll_front(vehicle: Vehicle) -> float:
    """The front's part of the roll stiffness: k·T²/2 of each end, or what was entered."""
    s = vehicle.springs
    if s.roll_front > 0:
        return s.roll_front
    front = s.front * vehicle.track_front**2
    rear = rear_rate(vehicle) * vehicle.track_rear**2
    return front / (front + rear)


def rear_rate(vehicle: Vehicle) -> float:
    """The rear rate that resists roll: without air, which counts as its least pressure. [N/mm]"""
    if vehicle.springs.school == "air":
        return vehicle.springs.rear
    return rear_spring(vehicle, vehicle.springs.school, vehicle.kerb.rear, 0.0).rate


CAUTIONS: dict[str, str] = {
    "standard": "Simple and soft. Level empty, so the tail is low under a constant load.",
    "constant load": "Matched to the load that is always aboard. Stiff and high when the tray is bare.",
    "extra leaf": "Simple, full articulation. Stiffer at every load; the empty tail stands high.",
    "air": "Set for each load, and for level in camp. Each bears on one point of the chassis: look at the "
    "page Chassis. Fitted badly they take articulation; never run them below their least pressure, "
    "and never use them to go beyond a rating.",
}
"""What to know of each option (common practice)."""
