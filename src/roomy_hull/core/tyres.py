"""Tyre sizes from their designation."""

import re

from roomy_hull.core.errors import InputError

_DESIGNATION = r"(?i)^\s*(?:LT|P)?(\d{3})/(\d{2,3})\s*Z?R\s*(\d{2}(?:\.5)?)\s*C?\s*$"


def overall_diameter(designation: str) -> float:
    """A tyre's overall diameter when new.

    Args:
        designation: Metric designation such as ``265/75R16``.
    Returns: rim·25.4 + 2·section·aspect/100. [mm]
    Raises:
        InputError: The designation cannot be read.

    Source: ISO 4000-1, designation of passenger-car tyres.
    """
    section, aspect, rim = parts_of(designation)
    return rim * 25.4 + 2 * section * aspect / 100


def parts_of(designation: str) -> tuple[float, float, float]:
    """Split a designation into section width [mm], aspect ratio [%] and rim [inch].

    Args:
        designation: Metric designation such as ``265/75R16``.
    Raises:
        InputError: The designation cannot be read.
    """
    found = re.match(_DESIGNATION, designation)
    if not found:
        raise InputError(
            f"the tyre size '{designation}' cannot be read",
            remedy="Write it as section/aspectRrim, for example 265/75R16.",
        )
    section, aspect, rim = (float(g) for g in found.groups())
    return section, aspect, rim


LOAD_INDEX: dict[int, float] = dict(enumerate((
    450, 462, 475, 487, 500, 515, 530, 545, 560, 580,  # 80 to 89
    600, 615, 630, 650, 670, 690, 710, 730, 750, 775,
    800, 825, 850, 875, 900, 925, 950, 975, 1000, 1030,  # 100 to 109
    1060, 1090, 1120, 1150, 1180, 1215, 1250, 1285, 1320, 1360,
    1400, 1450, 1500, 1550, 1600, 1650, 1700, 1750, 1800, 1850,  # 120 to 129
    1900, 1950, 2000, 2060, 2120, 2180, 2240, 2300, 2360, 2430,
    2500, 2575, 2650, 2725, 2800, 2900, 3000, 3075, 3150, 3250, 3350,  # 140 to 150
), 80))  # fmt: skip  # fmt: skip
"""Load index to what one tyre carries (ETRTO table, from memory). [kg]"""


def load_of_index(index: int) -> float:
    """What one tyre carries.

    Args:
        index: Load index from the side wall, such as the 116 of ``116S``.
    Returns: Load of one tyre. [kg]
    Raises:
        InputError: The table does not hold this index.

    Source: ETRTO load-index table, from memory.
    """
    try:
        return LOAD_INDEX[index]
    except KeyError:
        raise InputError(
            f"the tyre load index {index} is not in the table",
            remedy=f"Read it again; known are {min(LOAD_INDEX)} to {max(LOAD_INDEX)}.",
        ) from None
