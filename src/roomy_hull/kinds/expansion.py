"""What every kind expands into, in its own frame: u along the wall, v inward, w up. [mm]"""

import math
from typing import Any

import msgspec

from roomy_hull.core.fill import CONTENTS, FIXED, Fill
from roomy_hull.core.geometry.motion import Motion, Moved, Piece, Step
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.parts import Hardware, Part
from roomy_hull.core.poses import standing
from roomy_hull.core.primitives import Scene, Stroke, line, rectangle


class Solid(msgspec.Struct, frozen=True):
    """A box of matter. `moves` says that it travels with the drawer or slide."""

    box: Box
    role: str
    moves: bool = False


class Zone(msgspec.Struct, frozen=True):
    """Space that must stay clear: ``vent`` for air, ``running`` beside what slides."""

    box: Box
    kind: str


class PointMass(msgspec.Struct, frozen=True):
    """A mass at a point; `fill` says what scales it in a scenario, `of` which part of a body it is. [kg, mm]"""

    label: str
    kg: float
    source: str
    at: tuple[float, float, float]
    fill: Fill = FIXED
    of: str = ""


class Expansion(msgspec.Struct, frozen=True):
    """A unit written out.

    Attributes:
        solids, zones, masses, parts: What it is made of; boxes and points from the unit's own corner. [mm, kg]
        envelope: Around all solids. [mm]
        elevation: The unit as seen from the access face, h = u and k = w. [mm]
        travel: How far its moving solids come out; 0 for none. [mm]
        slide_rating, slide_load: Rating of its slides and the moving mass when full; 0 for none. [kg]
        motions: What opens, in the unit's own directions. [mm]
        plan: The unit as seen from above, h = u and k = v, drawn where it stands open. [mm]
        hollow: Whether others may stand in what its solids leave free of its envelope.
        exact: Prisms that its solids are only about, where it has a slant; else empty. [mm]
    """

    solids: tuple[Solid, ...]
    zones: tuple[Zone, ...]
    masses: tuple[PointMass, ...]
    parts: tuple[Part, ...]
    envelope: Box
    elevation: Scene
    travel: float = 0.0
    slide_rating: float = 0.0
    slide_load: float = 0.0
    motions: tuple[Motion, ...] = ()
    plan: Scene = ()
    hollow: bool = False
    exact: tuple[Piece, ...] = ()

    @property
    def bulk(self) -> tuple[Box, ...]:
        """The room that is its own: its solids where its hollow is of use to others, else its envelope. [mm]"""
        return tuple(s.box for s in self.solids) if self.hollow else (self.envelope,)


def made(
    part: Part, role: str = "made", *, moves: bool = False, whole: bool = False
) -> tuple[Solid, ...]:
    """The solids of a cut part where it stands.

    Args:
        part: A sheet or bar with its stands. [mm]
        moves: Whether it travels with a drawer or slide.
        whole: Whether it is full of what it holds: then one box around all of it.
    Returns: Base and flanges of each; nothing of what is bought. [mm]
    """
    if isinstance(part, Hardware):
        return ()
    found: list[Solid] = []
    for boxes in standing(part):
        found += [Solid(b, role, moves) for b in ((hull(boxes),) if whole else boxes)]
    return tuple(found)


def part_mass(parts: tuple[Part, ...]) -> float:
    """The mass of all made parts; hardware has none of its own. [kg]"""
    return sum(p.mass() * p.count for p in parts if hasattr(p, "mass"))


HOLE_EDGE = 20.0
"""A bolt's middle stands at least so far inside a base's edge along the rail (common practice). [mm]"""


SLOT_PLAY = 0.5
"""A bolt finds its slot within this. [mm]"""


def phase_of(u: float, pitch: float) -> float:
    """By how much something that begins at u begins past a slot of rails; 0 where a bolt finds its slot. [mm]"""
    if pitch <= 0:
        return 0.0
    past = u % pitch
    return 0.0 if min(past, pitch - past) <= SLOT_PLAY else past


def first_slot(pitch: float, phase: float) -> float:
    """The first slot far enough inside a base, from the base's beginning. [mm]"""
    return math.ceil((HOLE_EDGE + phase - 1e-6) / pitch) * pitch - phase


def rail_slots(length: float, pitch: float, phase: float) -> tuple[float, float] | None:
    """The first and the last slot of a rail under a base.

    Args:
        length: Of the base along the rail. [mm]
        pitch, phase: Of the slots, and by how much the base begins past one. [mm]
    Returns: From the base's beginning; none where it covers no two far enough inside its edges. [mm]
    """
    if pitch <= 0:
        return None
    first = first_slot(pitch, phase)
    last = math.floor((length - HOLE_EDGE + phase + 1e-6) / pitch) * pitch - phase
    return (first, last) if last - first > pitch - 1e-6 else None


def rail_holes(
    length: float, width: float, pitch: float, phase: float = 0.0
) -> tuple[tuple[float, float], ...]:
    """Place four bolt holes near a base's corners, over slots of the rails.

    Args:
        length, width: Base size. [mm]
        pitch: Rail pitch; 0 or less for none. [mm]
        phase: By how much the base begins past a slot: 0 on the pitch. [mm]
    Returns: Hole centres from the base's lower left corner; empty where no pair fits. [mm]
    """
    slots = rail_slots(length, pitch, phase)
    if slots is None or width < 4 * HOLE_EDGE:
        return ()
    return tuple((x, y) for x in slots for y in (2 * HOLE_EDGE, width - 2 * HOLE_EDGE))


INWARD = 1
"""The axis v of a unit: slides go out against it."""


def pull_out(
    name: str, boxes: tuple[Box, ...], travel: float, key: str = "", *, locks: bool = True
) -> Motion:
    """A slide straight out of the bay. [mm]"""
    return Motion(
        key, name, tuple(Moved(b) for b in boxes), (Step("slide", INWARD, -travel),), locks
    )


def side_door(
    name: str, leaf: Box, hinge: str, degrees: float = 100.0, key: str = "door"
) -> Motion:
    """A door that turns out about its left or right front edge. [mm, degrees]"""
    left = hinge == "left"
    pivot = (leaf.x0 if left else leaf.x1, leaf.y0)
    return Motion(
        key, name, (Moved(leaf),), (Step("swing", 2, -degrees if left else degrees, pivot=pivot),)
    )


def lid(leaf: Box, hinge: str, out: float = 0.0, degrees: float = 90.0) -> Step:
    """The step that raises a lid about its back, left or right upper edge.

    Args:
        leaf: The lid, closed. [mm]
        hinge: ``back``, ``left`` or ``right``, seen from the access face.
        out: How far it has been slid out before. [mm]
    Returns: For the group ``lid``.
    """
    if hinge == "back":
        return Step("fold", 0, -degrees, ("lid",), (leaf.y1 - out, leaf.z1))
    if hinge == "left":
        return Step("fold", 1, degrees, ("lid",), (leaf.x0, leaf.z1))
    return Step("fold", 1, -degrees, ("lid",), (leaf.x1, leaf.z1))


def sheet_masses(
    parts: tuple[Part, ...], unit: Any, at: tuple[float, float, float]
) -> tuple[PointMass, ...]:
    """The masses of a made unit's sheet and of what it holds.

    Args:
        at: The middle of what it holds. [mm]
    Returns: Sheet and contents. [kg]
    """
    return (
        PointMass(
            "made parts",
            part_mass(parts),
            "geometry",
            (unit.width / 2, unit.depth / 2, unit.height * 0.45),
        ),
        PointMass("contents", unit.contents, unit.contents_source, at, CONTENTS),
    )


def pull(w: float, h: float) -> list[Stroke]:
    """Draw a front's recessed pull, or a line where the front is too low for one."""
    wide = min(120.0, w / 2)
    if h >= 90:
        return [rectangle("recess", (w - wide) / 2, h - 55, (w + wide) / 2, h - 25, 12)]
    return [line("detail", (w / 2 - 40, h - 14), (w / 2 + 40, h - 14))]
