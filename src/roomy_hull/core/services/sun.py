"""The sun: where it stands, how strong it is through clear air and cloud, and what falls on a tilted panel.

Written out rather than taken from a library, which would bring 84 MB and most of a second to every judgement; the tests
hold every step against pvlib.
"""

from __future__ import annotations

from typing import TYPE_CHECKING, NamedTuple

from roomy_hull.core import lazily

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
else:
    np = lazily.module("numpy")

SOLAR = 1366.1
"""Extraterrestrial irradiance at the mean distance (ASTM E490). [W/m²]"""
GROUND = 0.2
"""What of the light the ground gives back (common practice)."""


class Sky(NamedTuple):
    """Irradiance hour by hour: on the level, straight from the sun, and from the sky. [W/m²]"""

    level: Array
    beam: Array
    diffuse: Array


def position(unix: Array, latitude: float, longitude: float) -> tuple[Array, Array]:
    """Where the sun stands.

    Args:
        unix: Seconds since 1970, UTC. [s]
        latitude, longitude: North and east positive. [°]
    Returns:
        Zenith angle without refraction, and azimuth from north over east; some 0.02° off between 1950 and 2050
        (Michalsky, Solar Energy 40, 1988: the Astronomical Almanac's low-precision formulas). [°]
    """
    days = np.asarray(unix, dtype=float) / 86400.0 + 2440587.5 - 2451545.0
    mean = np.radians((280.460 + 0.9856474 * days) % 360.0)
    anomaly = np.radians((357.528 + 0.9856003 * days) % 360.0)
    ecliptic = mean + np.radians(1.915 * np.sin(anomaly) + 0.020 * np.sin(2 * anomaly))
    tilt = np.radians(23.439 - 4e-7 * days)
    right = np.arctan2(np.cos(tilt) * np.sin(ecliptic), np.cos(ecliptic))
    high = np.arcsin(np.sin(tilt) * np.sin(ecliptic))
    hours = (np.asarray(unix, dtype=float) % 86400.0) / 3600.0
    sidereal = 6.697375 + 0.0657098242 * days + hours
    turn = np.radians((sidereal * 15.0 + longitude) % 360.0) - right
    lat = np.radians(latitude)
    up = np.sin(high) * np.sin(lat) + np.cos(high) * np.cos(lat) * np.cos(turn)
    zenith = np.degrees(np.arccos(np.clip(up, -1.0, 1.0)))
    east = -np.cos(high) * np.sin(turn)
    north = np.sin(high) * np.cos(lat) - np.cos(high) * np.sin(lat) * np.cos(turn)
    return zenith, np.degrees(np.arctan2(east, north)) % 360.0


def clear(zenith: Array, day_of_year: Array, turbidity: float, altitude: float = 0.0) -> Sky:
    """How strong the sun is through clear air.

    Args:
        zenith: From `position`. [°]
        day_of_year: 1 to 366.
        turbidity: Linke's, at air mass 2: 2 clear mountain air, 3 usual, 5 haze.
        altitude: Over the sea. [m]
    Returns: Ineichen & Perez, Solar Energy 73 (2002). [W/m²]
    """
    lit = zenith < 90.0
    cosine = np.where(lit, np.cos(np.radians(zenith)), 0.0)
    seen = np.minimum(zenith, 90.0)
    # Kasten & Young (1989), then by the pressure at that height.
    mass = 1.0 / (np.cos(np.radians(seen)) + 0.50572 * (96.07995 - seen) ** -1.6364)
    mass *= np.exp(-altitude / 8434.5)
    f1, f2 = np.exp(-altitude / 8000.0), np.exp(-altitude / 1250.0)
    c1, c2 = 5.09e-5 * altitude + 0.868, 3.92e-5 * altitude + 0.0387
    angle = 2 * np.pi * (np.asarray(day_of_year, dtype=float) - 1) / 365.0
    # Spencer (1971): the distance of the sun.
    far = (1.00011 + 0.034221 * np.cos(angle) + 0.00128 * np.sin(angle)
           + 0.000719 * np.cos(2 * angle) + 7.7e-5 * np.sin(2 * angle))  # fmt: skip
    extra = SOLAR * far
    level = c1 * extra * cosine * np.exp(-c2 * mass * (f1 + f2 * (turbidity - 1)))
    level = np.where(lit, np.maximum(level, 0.0), 0.0)
    b = 0.664 + 0.163 / f1
    beam = b * np.exp(-0.09 * mass * (turbidity - 1)) * extra
    share = 1 - (0.1 - 0.2 * np.exp(-turbidity)) / (0.1 + 0.882 / f1)
    most = np.divide(level * share, cosine, out=np.zeros_like(level), where=cosine > 1e-9)
    beam = np.where(lit, np.minimum(np.maximum(beam, 0.0), np.clip(most, 0.0, 1e20)), 0.0)
    return Sky(level, beam, level - beam * cosine)


def clouded(sky: Sky, zenith: Array, cover: Array | float) -> Sky:
    """The same sky with cloud.

    Args:
        sky: Clear. [W/m²]
        zenith: [°]
        cover: Covered part of the sky, 0 to 1.
    Returns:
        On the level 1 - 0.75·n^3.4 of the clear sky's (Kasten & Czeplak, Solar Energy 24, 1980); the beam that of
        the uncovered part, the rest from the sky. [W/m²]
    """
    n = np.clip(cover, 0.0, 1.0)
    level = sky.level * (1 - 0.75 * n**3.4)
    cosine = np.maximum(np.cos(np.radians(zenith)), 0.0)
    beam = np.minimum(
        sky.beam * (1 - n),
        np.divide(level, cosine, out=np.zeros_like(level + n), where=cosine > 1e-3),
    )
    return Sky(level, beam, np.maximum(level - beam * cosine, 0.0))


def split(level: Array, zenith: Array, day_of_year: Array) -> Sky:
    """Beam and sky of what falls on the level, where only that was measured.

    Args:
        level: On the level. [W/m²]
        zenith: [°]
        day_of_year: 1 to 366.
    Returns:
        By the clearness of the air (Erbs, Klein & Duffie, Solar Energy 28, 1982); below 3° the sun gives no beam.
        [W/m²]
    """
    cosine = np.cos(np.radians(zenith))
    angle = 2 * np.pi * (np.asarray(day_of_year, dtype=float) - 1) / 365.0
    far = (1.00011 + 0.034221 * np.cos(angle) + 0.00128 * np.sin(angle)
           + 0.000719 * np.cos(2 * angle) + 7.7e-5 * np.sin(2 * angle))  # fmt: skip
    k = np.clip(level / (SOLAR * far * np.maximum(cosine, 0.065)), 0.0, 1.0)
    part = 0.9511 - 0.1604 * k + 4.388 * k**2 - 16.638 * k**3 + 12.336 * k**4
    part = np.where(k <= 0.22, 1 - 0.09 * k, np.where(k > 0.8, 0.165, part))
    diffuse = part * level
    high = zenith <= 87.0
    beam = np.where(high, (level - diffuse) / np.where(high, cosine, 1.0), 0.0)
    return Sky(level, np.maximum(beam, 0.0), np.where(high, diffuse, level))


def on_panel(
    sky: Sky, zenith: Array, azimuth: Array, tilt: Array | float, facing: Array | float, lit: Array | float = 1.0
) -> Array:  # fmt: skip
    """What falls on a panel.

    Args:
        sky: [W/m²]
        zenith, azimuth: Of the sun. [°]
        tilt, facing: Of the panel: from the level, and towards which azimuth. [°]
        lit: The part of it that no shadow lies on.
    Returns: Beam, sky (isotropic: Liu & Jordan, 1963) and ground. [W/m²]
    """
    z, a, t, f = (np.radians(v) for v in (zenith, azimuth, tilt, facing))
    square = np.cos(z) * np.cos(t) + np.sin(z) * np.sin(t) * np.cos(a - f)
    beam = sky.beam * np.maximum(square, 0.0) * (zenith < 90.0) * lit
    found: Array = (
        beam + sky.diffuse * (1 + np.cos(t)) / 2 + sky.level * GROUND * (1 - np.cos(t)) / 2
    )
    return found


def towards(zenith: Array, azimuth: Array, nose: float) -> Array:
    """The way to the sun in vehicle axes.

    Args:
        zenith, azimuth: Of the sun. [°]
        nose: Azimuth of the vehicle's nose. [°]
    Returns: Unit vectors, (hours, 3): x aft, y to the right, z up.
    """
    z, turn = np.radians(zenith), np.radians(azimuth - nose)
    return np.stack([-np.sin(z) * np.cos(turn), np.sin(z) * np.sin(turn), np.cos(z)], axis=-1)


def unlit(points: Array, boxes: Array, ways: Array) -> Array:
    """What part of some points each way to the sun leaves in the shade of boxes.

    Args:
        points: (points, 3). [mm]
        boxes: (boxes, 6): the lower corner and the upper one. [mm]
        ways: (hours, 3), unit vectors.
    Returns: (hours,), 0 to 1: of the points from which a ray meets a box (slabs: Kay & Kajiya, 1986).
    """
    found = np.zeros((len(ways), len(points)), dtype=bool)
    # A way along an axis meets a slab everywhere or nowhere: next to nothing in place of nothing says so.
    inverse = 1.0 / np.where(np.abs(ways) < 1e-9, 1e-9, ways)
    # What does not stand higher than any of the points lies in no way that goes up.
    over = boxes[:, 5] > points[:, 2].min() if (ways[:, 2] > 0).all() else slice(None)
    for box in boxes[over]:
        near: Array | float = 0.0
        far: Array | float = np.inf
        for axis in range(3):
            a = inverse[:, axis, None] * (box[axis] - points[:, axis])
            b = inverse[:, axis, None] * (box[axis + 3] - points[:, axis])
            near = np.maximum(near, np.minimum(a, b))
            far = np.minimum(far, np.maximum(a, b))
        found |= (far > near) & (far > 1e-6)
    part: Array = found.mean(axis=-1)
    return part
