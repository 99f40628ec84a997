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
