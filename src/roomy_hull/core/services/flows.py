"""Water that runs by its own weight or by a pump, heat, gas and air: formulas of the page of figures."""

import math

from roomy_hull.core.errors import InputError

G = 9.80665
"""[m/s²]"""
VISCOSITY = 1.0e-6
"""Of water at 20 °C, kinematic. [m²/s]"""
WATER = 4.186
"""Heat to warm one litre by one kelvin. [kJ]"""
PROPANE = 46.35
"""Lower heating value of propane (from memory of tables: 46.35). [MJ/kg]"""
ATMOSPHERE = 101.325
"""[kPa]"""
SETTLES = 12
HOSE = 1.5e-6
"""Roughness of a drawn plastic hose (Moody's chart, from memory). [m]"""


def emptying(area: float, bore: float, from_head: float, to_head: float) -> float:
    """How long a tank takes to run out through a hole, without losses.

    Args:
        area: The tank's, level. [m²]
        bore: Of the hole. [m]
        from_head, to_head: Level over the hole at the beginning and the end. [m]
    Returns: t = (A/a)·√(2/g)·(√h1 - √h2) (Torricelli). [s]
    """
    hole = math.pi / 4 * bore**2
    return area / hole * math.sqrt(2 / G) * (math.sqrt(from_head) - math.sqrt(to_head))


def friction(reynolds: float, roughness: float) -> float:
    """Darcy's friction factor of a pipe.

    Returns: 64/Re below 2,300 (Poiseuille); else Colebrook (1939), solved by iteration from Swamee & Jain (1976).
    """
    if reynolds <= 0:
        return 0.0
    if reynolds < 2300.0:
        return 64.0 / reynolds
    root = -2 * math.log10(roughness / 3.7 + 5.74 / reynolds**0.9)
    for _ in range(40):
        new = -2 * math.log10(roughness / 3.7 + 2.51 * root / reynolds)
        if abs(new - root) < 1e-10:
            break
        root = new
    return 1 / root**2


def outflow(head: float, bore: float, metres: float, fittings: float = 1.5) -> float:
    """What runs out of a hose under a head of water.

    Args:
        head: Level of the water over the end of the hose. [m]
        bore, metres: Of the hose. [m]
        fittings: Loss of entry, tap and bends in velocity heads, besides what leaves with the jet.
    Returns: By Bernoulli with Darcy & Weisbach's loss; 0 without a head. [l/s]
    """
    if head <= 0:
        return 0.0
    speed = math.sqrt(2 * G * head / (1 + fittings))
    for n in range(60):
        reynolds = speed * bore / VISCOSITY
        loss = 1 + fittings + friction(reynolds, HOSE / bore) * metres / bore
        new = math.sqrt(2 * G * head / loss)
        if abs(new - speed) < 1e-9 * new:
            break
        # Halfway where it does not settle: the step from smooth to rough flow would else swing for ever.
        speed = new if n < SETTLES else (speed + new) / 2
    return speed * math.pi / 4 * bore**2 * 1000.0


def draw_time(
    litres: float, area: float, head: float, bore: float, metres: float, fittings: float = 1.5
) -> float:
    """How long it takes to draw so much from a tank whose level falls meanwhile.

    Args:
        litres: Drawn. [l]
        area: Of the tank, level. [m²]
        head: Level over the end of the hose at first. [m]
        bore, metres, fittings: As in `outflow`.
    Returns: By steps of one twentieth; infinite where the head does not last. [s]
    """
    steps, time = 20, 0.0
    for n in range(steps):
        now = head - litres / 1000.0 / area * (n + 0.5) / steps
        rate = outflow(now, bore, metres, fittings)
        if rate <= 0:
            return math.inf
        time += litres / steps / rate
    return time


def pumped(
    rise: float, bore: float, metres: float, free: float, shut: float, fittings: float = 1.5
) -> float:
    """What a pump gives at the end of a hose.

    Args:
        rise: The end of the hose over the water's level; negative where it is below. [m]
        bore, metres, fittings: As in `outflow`.
        free, shut: What the pump gives into the open, and the pressure at which it gives nothing; a straight line
            between them (common practice). [l/min, kPa]
    Returns: Where its pressure is what height, speed and friction take, by halving. [l/min]
    """
    if free <= 0 or shut * 1000.0 <= G * 1000.0 * rise:
        return 0.0
    section = math.pi / 4 * bore**2

    def spare(flow: float) -> float:
        """What is left of its pressure. [Pa]"""
        speed = flow / 60000.0 / section
        loss = 1 + fittings + friction(speed * bore / VISCOSITY, HOSE / bore) * metres / bore
        return shut * 1000.0 * (1 - flow / free) - 1000.0 * (G * rise + loss * speed**2 / 2)

    low, high = 0.0, free
    if spare(free) > 0:
        return free  # downhill it runs faster than the pump turns; the pump holds it to its own
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if spare(middle) > 0 else (low, middle)
    return (low + high) / 2


SPOUT = 0.80
"""What a short tube lets through of what Torricelli says (handbooks of hydraulics, from memory)."""


def bucket_time(litres: float, area: float, bore: float) -> float:
    """How long a bucket takes to run out through an inlet.

    Args:
        litres, area: What it holds, and its bottom. [l, m²]
        bore: Of the inlet. [m]
    Returns: Torricelli's time over the discharge of a short tube. [s]
    """
    return emptying(area, bore, litres / 1000.0 / area, 0.0) / SPOUT


def warming(litres: float, by: float) -> float:
    """Heat to warm water.

    Args:
        litres: [l]
        by: [K]
    Returns: m·c·ΔT; 6 l by 45 K take 1,130 kJ. [kJ]
    """
    return litres * WATER * by


def heated_by_gas(kilojoules: float, efficiency: float) -> float:
    """Propane that gives so much heat.

    Args:
        kilojoules: Into the water. [kJ]
        efficiency: What of the gas's heat gets there, 0 to 1.
    Returns: [kg]
    """
    return kilojoules / 1000.0 / PROPANE / efficiency


def burning_hours(kilograms: float, kilowatts: float) -> float:
    """How long gas burns.

    Args:
        kilograms: Propane. [kg]
        kilowatts: Of the burners. [kW]
    Returns: m·46.35 MJ/kg over the power; 4.5 kg at 2.5 kW 23.2 h. [h]
    """
    return kilograms * PROPANE * 1000.0 / kilowatts / 3600.0 if kilowatts > 0 else math.inf


def tyre_volume(diameter: float, section: float, rim: float) -> float:
    """The air in a tyre.

    Args:
        diameter, section, rim: Overall diameter, width of its section, and diameter of its rim. [mm]
    Returns: A ring of elliptic section: π·D·(π/4)·b·h; 265/75R16 about 79 l with the walls' thickness left out. [l]
    """
    high = (diameter - rim) / 2
    return math.pi * (diameter - high) * math.pi / 4 * section * high / 1e6


def filling_time(
    litres: float,
    from_kpa: float,
    to_kpa: float,
    free_air: float,
    tank_litres: float = 0.0,
    tank_kpa: float = 0.0,
    duty: float = 1.0,
) -> float:
    """How long a compressor takes to blow something up.

    Args:
        litres: Volume of all that is filled. [l]
        from_kpa, to_kpa: Gauge pressures. [kPa]
        free_air: What the compressor delivers of free air at pressure. [l/min]
        tank_litres, tank_kpa: A full air tank that gives first. [l, kPa]
        duty: The part of the time that it may run, 0 to 1.
    Returns: Free air V·Δp/p0 over the delivery. [min]
    Raises:
        InputError: The compressor delivers nothing.
    """
    if free_air <= 0 or not 0 < duty <= 1:
        raise InputError(
            "a compressor that delivers nothing fills nothing",
            remedy="Enter its free air delivery.",
        )
    wanted = max(0.0, litres * (to_kpa - from_kpa) / ATMOSPHERE)
    given = max(0.0, tank_litres * (tank_kpa - to_kpa) / ATMOSPHERE)
    return max(0.0, wanted - given) / free_air / duty
