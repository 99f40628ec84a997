"""What a drawing is made of, before anything paints it: outlines, discs, words, sizes.

A scene is a tuple of these in millimetres, h to the right and k up, as seen from one place. A
painter on screen, a file writer and a test read the same scene. `role` says what a stroke means;
the theme gives it a colour, a width, a dash or a hatch.
"""

import msgspec

Point = tuple[float, float]
Rect = tuple[float, float, float, float]
"""A stretch of a drawing: left, lower, right, upper. [mm]"""


class Outline(msgspec.Struct, frozen=True):
    """A polygon or open line, its corners rounded by `radius` (one for all, or one each)."""

    role: str
    points: tuple[Point, ...]
    closed: bool = True
    radius: float = 0.0
    radii: tuple[float, ...] = ()
    tag: str = ""


class Panel(msgspec.Struct, frozen=True):
    """An upright rectangle, its corners rounded by `radius`."""

    role: str
    h0: float
    k0: float
    h1: float
    k1: float
    radius: float = 0.0
    tag: str = ""


class Lines(msgspec.Struct, frozen=True):
    """Many straight pieces of one kind: hatches, slots, ticks."""

    role: str
    pieces: tuple[tuple[Point, Point], ...]
    tag: str = ""


class Disc(msgspec.Struct, frozen=True):
    """A filled circle."""

    role: str
    centre: Point
    radius: float
    tag: str = ""


class Words(msgspec.Struct, frozen=True):
    """Text at a point. `size` is the height in mm, or in screen points where `fixed`.

    `upright` turns it by a quarter, to be read from the right; `below` sets it so many screen points lower, for a
    line under another whatever the scale. Words that are fitted take `most` rows; any number where it is 0.
    """

    role: str
    at: Point
    text: str
    size: float = 11.0
    fixed: bool = True
    anchor: str = "centre"
    fit: float = 0.0
    tag: str = ""
    upright: bool = False
    below: float = 0.0
    most: int = 0


class Size(msgspec.Struct, frozen=True):
    """A dimension between two points, drawn with arrows and its length in the user's unit."""

    role: str
    a: Point
    b: Point
    text: str = ""
    tag: str = ""


Stroke = Outline | Panel | Lines | Disc | Words | Size
Scene = tuple[Stroke, ...]


def rectangle(
    role: str, h0: float, k0: float, h1: float, k1: float, radius: float = 0.0, tag: str = ""
) -> Panel:
    """An upright rectangle between two corners, the lower left one first. [mm]"""
    return Panel(role, h0, k0, h1, k1, radius, tag)


def line(role: str, *points: Point, tag: str = "") -> Outline:
    """An open line through some points. [mm]"""
    return Outline(role, points, closed=False, tag=tag)
