"""Bars as beams: area, second moment and section modulus of a tube or flat bar standing upright."""

import msgspec

from roomy_hull.core.errors import InputError


class Section(msgspec.Struct, frozen=True):
    """A bar's section, bent about its level axis.

    Attributes:
        name: As written, the first side upright: ``100x50x4``. [mm]
        height: Its upright side. [mm]
        area: [mm²]
        inertia: Second moment of area. [mm⁴]
        modulus: Section modulus to the outer fibre. [mm³]
    """

    name: str
    height: float
    area: float
    inertia: float
    modulus: float


def section_height(name: str) -> float:
    """A bar section's first side, which stands upright. [mm]"""
    section_area(name)
    return float(name.split("x", maxsplit=1)[0])


def section_width(name: str) -> float:
    """A bar section's second side, which lies level. [mm]"""
    section_area(name)
    return float(name.split("x")[1])


def section(name: str) -> Section:
    """The properties of a rectangular tube or flat bar with sharp corners.

    Args:
        name: ``hxbxt`` for a tube, ``hxb`` for a solid bar, its first side upright. [mm]
    Returns: I = (b·h³ - (b-2t)·(h-2t)³)/12, W = 2I/h. [mm², mm⁴, mm³]
    Raises:
        InputError: The section cannot be read.

    Closed form. Rolled tubes have rounded corners: tables give up to some 8 % less.
    """
    area = section_area(name)
    sizes = [float(p) for p in name.split("x")]
    h, b = sizes[:2]
    inertia = b * h**3 / 12
    if len(sizes) == 3:
        t = sizes[2]
        inertia -= (b - 2 * t) * (h - 2 * t) ** 3 / 12
    return Section(name, h, area, inertia, 2 * inertia / h)


LEAST, MOST = 0.1, 1000.0
"""What a side or a wall of a bar may measure. [mm]"""


def section_area(section: str) -> float:
    """The cross-section area of a rectangular tube or flat bar with sharp corners.

    Args:
        section: ``bxhxt`` for a tube, ``bxh`` for a flat or solid bar. [mm]
    Returns: b·h - (b-2t)(h-2t), or b·h. [mm²]
    Raises:
        InputError: The section cannot be read, or its wall is thicker than half its side.
    """
    words = section.split("x")
    plain = all(w.isascii() and w.replace(".", "", 1).isdigit() for w in words)
    sizes = [float(w) for w in words] if plain else []
    possible = all(LEAST <= s <= MOST for s in sizes)
    if len(sizes) == 2 and possible:
        return sizes[0] * sizes[1]
    if len(sizes) == 3 and possible and 2 * sizes[2] < min(sizes[:2]):
        b, h, t = sizes
        return b * h - (b - 2 * t) * (h - 2 * t)
    raise InputError(
        f"the section '{section}' cannot be read", remedy="Write it as 40x40x3 or 25x3."
    )
