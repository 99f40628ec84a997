"""Bars as beams: area, second moment and section modulus of a tube or flat bar standing upright."""

import msgspec

from roomy_hull.core.sheetmetal import section_area


class Section(msgspec.Struct, frozen=True):
    """A bar's section, bent about its level axis.

    Attributes
    ----------
    name : str
        As written, the first side upright: ``100x50x4``. [mm]
    height : float
        Its upright side. [mm]
    area : float
        [mm²]
    inertia : float
        Second moment of area. [mm⁴]
    modulus : float
        Section modulus to the outer fibre. [mm³]
    """

    name: str
    height: float
    area: float
    inertia: float
    modulus: float


def section(name: str) -> Section:
    """Give the properties of a rectangular tube or flat bar with sharp corners.

    Parameters
    ----------
    name : str
        ``hxbxt`` for a tube, ``hxb`` for a solid bar, its first side upright. [mm]

    Returns
    -------
    Section
        I = (b·h³ - (b-2t)·(h-2t)³)/12, W = 2I/h. [mm², mm⁴, mm³]

    Raises
    ------
    InputError
        The section cannot be read.

    Notes
    -----
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
