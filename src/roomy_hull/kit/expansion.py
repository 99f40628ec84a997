"""What every kind expands into, in its own frame: u along the wall, v inward, w up. [mm]"""

import msgspec

from roomy_hull.core.sheetmetal import Part
from roomy_hull.core.solids import Box
from roomy_hull.core.strokes import Scene


class Solid(msgspec.Struct, frozen=True):
    """A box of matter. `moves` says that it travels with the drawer or slide."""

    box: Box
    role: str
    moves: bool = False


class Zone(msgspec.Struct, frozen=True):
    """Space that must stay clear: ``vent`` for air, ``running`` beside what slides."""

    box: Box
    kind: str


class Lump(msgspec.Struct, frozen=True):
    """A mass at a point.

    `fill` says what scales it in a scenario: ``fixed``, ``contents``, ``water`` or ``fuel``.
    """

    label: str
    kg: float
    source: str
    at: tuple[float, float, float]
    fill: str = "fixed"


class Expansion(msgspec.Struct, frozen=True):
    """A unit written out.

    Attributes
    ----------
    solids, zones, lumps, parts
        What it is made of; boxes and points from the unit's own corner. [mm, kg]
    envelope : Box
        Around all solids. [mm]
    likeness : Scene
        The unit as seen from the access face, h = u and k = w. [mm]
    travel : float
        How far its moving solids come out; 0 for none. [mm]
    slide_rating, slide_load : float
        Rating of its slides and the moving mass when full; 0 for none. [kg]
    """

    solids: tuple[Solid, ...]
    zones: tuple[Zone, ...]
    lumps: tuple[Lump, ...]
    parts: tuple[Part, ...]
    envelope: Box
    likeness: Scene
    travel: float = 0.0
    slide_rating: float = 0.0
    slide_load: float = 0.0


def part_mass(parts: tuple[Part, ...]) -> float:
    """Give the mass of all made parts; hardware has none of its own. [kg]"""
    return sum(p.mass() * p.count for p in parts if hasattr(p, "mass"))


def rail_holes(length: float, width: float, pitch: float) -> tuple[tuple[float, float], ...]:
    """Place four bolt holes near a base's corners, a whole number of pitches apart along x.

    Parameters
    ----------
    length, width : float
        Base size. [mm]
    pitch : float
        Rail pitch; 0 or less for none. [mm]

    Returns
    -------
    tuple of (x, y)
        Hole centres from the base's lower left corner; empty where no pair fits. [mm]
    """
    edge = 20.0
    if pitch <= 0 or length < 2 * edge + pitch or width < 4 * edge:
        return ()
    span = int((length - 2 * edge) / pitch + 1e-6) * pitch
    x0 = (length - span) / 2
    return tuple((x, y) for x in (x0, x0 + span) for y in (2 * edge, width - 2 * edge))
