"""Strips and pans bent as no kind of this program is, to try folding and bending on."""

from roomy_hull.core.folded import Bend, Face, setback
from roomy_hull.core.shapes import WELD_GAP, Sheet, pan, rectangle


def profile(
    sheet: Sheet, length: float, legs: tuple[float, ...], angles: tuple[float, ...]
) -> Face:
    """A strip bent across its length several times: channel, Z, hat, hemmed edge.

    Args:
        sheet: What it is folded of. [mm]
        length: Along the bends. [mm]
        legs: Outside lengths of what is flat, from the first to the last, each out to the outside corner. [mm]
        angles: Between one leg and the next: up where positive. [degrees]
    Returns: The first leg, along x; the others beyond its edge at the back. [mm]
    """
    backs = [setback(a, *sheet[::-1]) for a in angles]
    face = Face(rectangle(length, legs[-1] - (backs[-1] if backs else 0.0)))
    for n in range(len(backs) - 1, -1, -1):
        high = legs[n] - (backs[n - 1] if n else 0.0) - backs[n]
        face = Face(rectangle(length, high), bends=(Bend(2, angles[n], sheet.radius, face),))
    return face


def channel(sheet: Sheet, length: float, base: float, flange: float) -> Face:
    """A base between two equal flanges up. [mm]"""
    return profile(sheet, length, (flange, base, flange), (90.0, 90.0))


def zed(sheet: Sheet, length: float, low: float, web: float, high: float) -> Face:
    """A foot, a web up, and a flange away from the foot. [mm]"""
    return profile(sheet, length, (low, web, high), (90.0, -90.0))


def hat(sheet: Sheet, length: float, brim: float, side: float, top: float) -> Face:
    """Two brims, two sides, one top. [mm]"""
    return profile(sheet, length, (brim, side, top, side, brim), (90.0, -90.0, -90.0, 90.0))


def hemmed(sheet: Sheet, length: float, width: float, hem: float) -> Face:
    """A panel with its back edge turned over flat. [mm]"""
    return profile(sheet, length, (width, hem), (180.0,))


def door_skin(sheet: Sheet, length: float, width: float, deep: float, lip: float) -> Face:
    """A pan whose four flanges are turned in once more by a lip; lips stand clear of one another. [mm]"""
    base = pan(sheet, length, width, (deep, deep, deep, deep))
    s = sheet.radius + sheet.thickness
    bends = []
    for bend in base.bends:
        long = bend.face.ring[1][0]
        high = deep - 2 * s
        # Mitred by 45 degrees, from the corner of the base inward, with the weld's gap.
        short = max(0.0, lip - s) + WELD_GAP
        inner = Face(((0.0, 0.0), (long, 0.0), (long - short, lip - s), (short, lip - s)))
        bends.append(Bend(bend.edge, 90.0, sheet.radius,
                          Face(rectangle(long, high), bends=(Bend(2, 90.0, sheet.radius, inner),))))  # fmt: skip
    return Face(base.ring, bends=tuple(bends))


def wedge_wrap(sheet: Sheet, length: float, deep: float, low: float, high: float) -> Face:
    """A floor with a lower front and a higher back folded up. [mm]"""
    return pan(sheet, length, deep, (0.0, 0.0, low, high))
