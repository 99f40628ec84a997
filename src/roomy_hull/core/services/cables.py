"""Cables: resistance, voltage drop, ampacity, fuses and plugs."""

import math
from typing import Literal, NamedTuple

from roomy_hull.core.errors import InputError

COPPER = 1.7241e-8
"""Resistivity of annealed copper at 20 °C (IEC 60028: 0.017241 Ω·mm²/m). [Ω·m]"""
ALPHA = 0.00393
"""Its change with temperature at 20 °C (IEC 60028). [1/K]"""

Where = Literal["cabin", "engine bay"]


class Section(NamedTuple):
    """A size of cable: its area [mm²], its name, and what a single core with 70 °C insulation carries in 30 °C air. [A]"""

    area: float
    name: str
    amps: float


METRIC = (
    Section(1.0, "1 mm²", 14.0), Section(1.5, "1.5 mm²", 18.0), Section(2.5, "2.5 mm²", 25.0),
    Section(4.0, "4 mm²", 35.0), Section(6.0, "6 mm²", 45.0), Section(10.0, "10 mm²", 65.0),
    Section(16.0, "16 mm²", 90.0), Section(25.0, "25 mm²", 120.0), Section(35.0, "35 mm²", 160.0),
    Section(50.0, "50 mm²", 210.0), Section(70.0, "70 mm²", 265.0), Section(95.0, "95 mm²", 310.0),
)  # fmt: skip
"""Stranded copper cable and its ampacity (ISO 10133 table A.1, from memory; 70 and 95 mm² common practice)."""
HOT = {"cabin": 1.0, "engine bay": 0.75}
"""What of the ampacity is left in a hot place (ISO 10133, from memory)."""
FUSES = (
    1,
    2,
    3,
    5,
    7.5,
    10,
    15,
    20,
    25,
    30,
    40,
    50,
    60,
    80,
    100,
    125,
    150,
    175,
    200,
    250,
    300,
    400,
    500,
)
"""Fuses that are sold (ISO 8820 blades and bolt-on strips, from memory). [A]"""
CONTINUOUS = 1.25
"""A fuse carries so many times the continuous current (common practice)."""
BREAKS = {"blade": 1000.0, "bolt": 2000.0, "class T": 20000.0}
"""What a fuse of each sort can break at 32 V and more (common practice; the maker's sheet decides). [A]"""


def gauge_area(gauge: int) -> float:
    """The copper of an AWG size.

    Args:
        gauge: 0 (1/0) to 40; -1 is 2/0, -3 is 4/0.
    Returns: By the diameters of ASTM B258: 0.127·92^((36 - n)/39) mm. [mm²]
    """
    diameter: float = 0.127 * 92.0 ** ((36 - gauge) / 39)
    return math.pi / 4 * diameter**2


GAUGES = tuple(
    Section(gauge_area(n), f"AWG {n}" if n > 0 else f"AWG {1 - n}/0", 0.0)
    for n in (18, 16, 14, 12, 10, 8, 6, 4, 2, 1, 0, -1, -2, -3)
)
"""American sizes, the thinnest first; what they carry is that of the metric size not above them."""


def resistance(area: float, celsius: float = 20.0) -> float:
    """The resistance of one core.

    Args:
        area: Copper. [mm²]
        celsius: Its temperature. [°C]
    Returns: ρ(1 + α(t - 20))/A. [Ω/m]
    """
    return COPPER * (1 + ALPHA * (celsius - 20.0)) / (area * 1e-6)


def drop(area: float, amps: float, metres: float, celsius: float = 20.0) -> float:
    """The voltage lost there and back.

    Args:
        area: Copper. [mm²]
        amps: Current. [A]
        metres: Length of the run, one way. [m]
        celsius: Temperature of the cable. [°C]
    Returns: [V]
    """
    return 2 * metres * resistance(area, celsius) * amps


def ampacity(area: float, where: Where = "cabin") -> float:
    """What a core carries for ever.

    Args:
        area: Copper; between two sizes, that of the smaller. [mm²]
        where: ``cabin`` or ``engine bay``.
    Returns: 0 for less than the smallest size. [A]
    """
    fitting = [s.amps for s in METRIC if s.area <= area * 1.02]
    return (fitting[-1] if fitting else 0.0) * HOT[where]


def smallest(
    amps: float,
    metres: float,
    volts: float,
    share: float,
    where: Where = "cabin",
    *,
    american: bool = False,
) -> Section:
    """The smallest cable that neither gets hot nor loses too much.

    Args:
        amps: Continuous current, or the fuse that the cable is to bear. [A]
        metres: Length of the run, one way. [m]
        volts: Of the system. [V]
        share: What of it may be lost, for example 0.03.
        where: ``cabin`` or ``engine bay``.
        american: AWG sizes in the place of metric ones.
    Raises:
        InputError: No single cable does; says what would help.
    """
    for one in GAUGES if american else METRIC:
        if (
            ampacity(one.area, where) >= amps
            and drop(one.area, amps, metres) <= share * volts + 1e-9
        ):
            return one
    raise InputError(
        f"no single cable carries {amps:.0f} A over {metres:.1f} m at {volts:g} V",
        remedy="Bring battery and load together, use 24 V, or two cables side by side.",
    )


def fuse(amps: float, ampacity_amps: float) -> float:
    """The fuse of a circuit: it carries the load and protects the cable.

    Args:
        amps: Continuous current. [A]
        ampacity_amps: What the cable carries. [A]
    Returns: The smallest size of at least 1.25 × the load that is not above the ampacity; 0 where there is none. [A]
    """
    fitting = [f for f in FUSES if f >= CONTINUOUS * amps - 1e-9 and f <= ampacity_amps + 1e-9]
    return float(fitting[0]) if fitting else 0.0


def short_circuit(volts: float, milliohms: float, metres: float, area: float) -> float:
    """The current into a dead short at the end of a cable.

    Args:
        volts: Of the battery at rest. [V]
        milliohms: Inside the battery. [mΩ]
        metres, area: Cable to the fault, one way, and its copper. [m, mm²]
    Returns: By Ohm's law. [A]
    """
    return volts / (milliohms * 1e-3 + 2 * metres * resistance(area))
