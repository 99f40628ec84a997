"""Shade: what stands beside a panel on the roof and takes the low sun from it."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core import lazily
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.services import sun
from roomy_hull.job.services import Source
from roomy_hull.studies.services.weather import hours_of

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    Array = npt.NDArray[np.float64]
else:
    np = lazily.module("numpy")

WATTS_A_SQUARE = 200.0
"""A panel's rating by its area (common practice). [W/m²]"""
SLENDER = 2.0
"""A panel is so many times as long as wide where its size is not given (common practice)."""
ALONG, ACROSS = 24, 16
"""The panel is sampled in so many fields: shade to a four-hundredth."""


class Shade(msgspec.Struct, frozen=True):
    """What of a panel is lit, hour by hour of the trip, 0 to 1; and what it was computed from."""

    id: str
    basis: tuple[Any, ...]
    lit: Array


class Panel(msgspec.Struct, frozen=True):
    """Where a panel lies: its middle, its size, tilt and facing against the vehicle's nose. [mm, °]"""

    x: float
    y: float
    z: float
    long: float
    wide: float
    tilt: float
    facing: float


def size(one: Source) -> tuple[float, float]:
    """Length and width of a panel, as given or by its watts. [mm]"""
    if one.long and one.wide:
        return one.long, one.wide
    wide = (one.watts / WATTS_A_SQUARE / SLENDER) ** 0.5 * 1000.0
    return SLENDER * wide, wide


def roof(assembly: Assembly) -> tuple[float, float, float]:
    """The middle of the roof, where a panel lies that is no thing of the job. [mm]"""
    box = assembly.ground.canopy or assembly.ground.cab
    x, y, _z = box.centre()
    return (x, y, box.z1)


def panel(assembly: Assembly, one: Source) -> Panel:
    """Where a panel lies.

    Args:
        one: A source of the kind ``sun``.
    Returns: On top of its thing, else on the roof; its lower edge rests there.
    """
    thing = assembly.thing(one.thing) if one.thing else None
    long, wide = size(one)
    if thing is not None:
        x, y, _z = thing.envelope.centre()
        z = thing.envelope.z1
    else:
        x, y, z = roof(assembly)
        x, y = (one.x or x), (one.y or y)
    nose = assembly.job.services.trip.nose
    return Panel(x, y, z, long, wide, one.tilt, (one.facing - nose) % 360.0)


def fields(one: Panel) -> Array:
    """The middles of the fields of a panel, in vehicle axes. [mm]

    A level one lies along the vehicle; a tilted one has its long edge level and its lower one on the roof.
    """
    a = (np.arange(ALONG) + 0.5) / ALONG - 0.5
    b = (np.arange(ACROSS) + 0.5) / ACROSS - 0.5
    if one.tilt <= 0:
        along, across, up = np.array([1.0, 0, 0]), np.array([0, 1.0, 0]), 0.0
    else:
        t, f = np.radians(one.tilt), np.radians(one.facing)
        level = np.array([-np.cos(f), np.sin(f), 0.0])  # towards where it faces
        along = np.array([np.sin(f), np.cos(f), 0.0])
        across = -level * np.cos(t) + np.array([0, 0, np.sin(t)])
        up = one.wide / 2 * float(np.sin(t))
    middle = np.array([one.x, one.y, one.z + up + 1.0])
    grid = (a[:, None, None] * one.long * along + b[None, :, None] * one.wide * across).reshape(
        -1, 3
    )
    found: Array = middle + grid
    return found


def beside(assembly: Assembly, one: Source, at: Panel) -> tuple[Box, ...]:
    """What reaches higher than a panel, but what it lies on. [mm]"""
    ground = assembly.ground
    boxes = [t.envelope for t in assembly.things if t.id != one.thing]
    boxes += [b for b in (ground.cab, ground.canopy) if b is not None]
    return tuple(b for b in boxes if b.z1 > at.z + 2.0)


def shades(assembly: Assembly, old: tuple[Shade, ...] = ()) -> tuple[Shade, ...]:
    """The shade on every panel over the trip.

    Args:
        old: Those of before: taken where nothing that they were computed from has changed.
    Returns: Those panels only that something stands beside.
    """
    trip = assembly.job.services.trip
    found = []
    for one in assembly.job.services.sources:
        if one.kind != "sun" or not one.shaded or not trip.days:
            continue
        at = panel(assembly, one)
        boxes = beside(assembly, one, at)
        if not boxes:
            continue
        basis = (at, boxes, trip.begin, trip.latitude, trip.longitude, trip.nose, len(trip.days))
        known = next((s for s in old if s.id == one.id and s.basis == basis), None)
        found.append(known or Shade(one.id, basis, _lit(at, boxes, assembly)))
    return tuple(found)


def _lit(at: Panel, boxes: tuple[Box, ...], assembly: Assembly) -> Array:
    """What of a panel is lit in every hour of the trip."""
    trip = assembly.job.services.trip
    zenith, azimuth = sun.position(hours_of(trip), trip.latitude, trip.longitude)
    lit = np.ones(len(zenith))
    day = zenith < 90.0
    ways = sun.towards(zenith[day], azimuth[day], trip.nose)
    lit[day] = 1.0 - sun.unlit(fields(at), np.array([tuple(b) for b in boxes]), ways)
    return lit
