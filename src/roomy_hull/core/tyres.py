"""Tyre sizes from their designation."""

import re

from roomy_hull.core.errors import InputError

_DESIGNATION = re.compile(r"^\s*(?:LT|P)?(\d{3})/(\d{2,3})\s*Z?R\s*(\d{2}(?:\.5)?)\s*C?\s*$", re.I)


def overall_diameter(designation: str) -> float:
    """Give a tyre's overall diameter when new.

    Parameters
    ----------
    designation : str
        Metric designation such as ``265/75R16``.

    Returns
    -------
    float
        rim·25.4 + 2·section·aspect/100. [mm]

    Raises
    ------
    InputError
        The designation cannot be read.

    Notes
    -----
    Source: ISO 4000-1, designation of passenger-car tyres.
    """
    section, aspect, rim = parts_of(designation)
    return rim * 25.4 + 2 * section * aspect / 100


def parts_of(designation: str) -> tuple[float, float, float]:
    """Split a designation into section width [mm], aspect ratio [%] and rim [inch].

    Parameters
    ----------
    designation : str
        Metric designation such as ``265/75R16``.

    Returns
    -------
    tuple of float
        Section, aspect, rim.

    Raises
    ------
    InputError
        The designation cannot be read.
    """
    found = _DESIGNATION.match(designation)
    if not found:
        raise InputError(
            f"the tyre size '{designation}' cannot be read",
            remedy="Write it as section/aspectRrim, for example 265/75R16.",
        )
    section, aspect, rim = (float(g) for g in found.groups())
    return section, aspect, rim


LOAD_INDEX: dict[int, float] = {
    85: 515, 90: 600, 95: 690, 100: 800, 101: 825, 102: 850, 103: 875, 104: 900, 105: 925, 106: 950,
    107: 975, 108: 1000, 109: 1030, 110: 1060, 111: 1090, 112: 1120, 113: 1150, 114: 1180, 115: 1215,
    116: 1250, 117: 1285, 118: 1320, 119: 1360, 120: 1400, 121: 1450, 122: 1500, 123: 1550, 124: 1600,
    125: 1650, 126: 1700, 127: 1750, 128: 1800, 129: 1850, 130: 1900,
}  # fmt: skip
"""Load index to what one tyre carries (ETRTO table, from memory). [kg]"""


def load_of_index(index: int) -> float:
    """Give what one tyre carries.

    Parameters
    ----------
    index : int
        Load index from the side wall, such as the 116 of ``116S``.

    Returns
    -------
    float
        Load of one tyre. [kg]

    Raises
    ------
    InputError
        The table does not hold this index.

    Notes
    -----
    Source: ETRTO load-index table, from memory.
    """
    try:
        return LOAD_INDEX[index]
    except KeyError:
        raise InputError(
            f"the tyre load index {index} is not in the table",
            remedy=f"Read it again; known are {min(LOAD_INDEX)} to {max(LOAD_INDEX)}.",
        ) from None
