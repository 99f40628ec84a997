"""Gas struts: what a door does over its whole swing, level, on a side slope, and on a cold morning."""

import itertools
import math

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.core.units import G
from roomy_hull.job.canopy import Canopy, Door, Strut
from roomy_hull.kit.body.leaves import door_mass
from roomy_hull.shop.shop import Rules, Shop

WARM = 20.0
"""At this temperature a strut's force is stated. [°C]"""
DEAD = 90.0
"""A strut is at least so much longer than twice its stroke: end fittings and piston (common practice). [mm]"""


class Instant(msgspec.Struct, frozen=True):
    """One angle of the swing.

    Attributes:
        angle: From closed. [degree]
        hold: What one hand at the leaf's edge has to add to hold it there, level: above 0 it wants to fall, below 0 it
            opens by itself. [N]
        low, high: The same, the least and the greatest over the side slope both ways and the cold morning. [N]
    """

    angle: float
    hold: float
    low: float
    high: float


class StrutCheck(msgspec.Struct, frozen=True):
    """One door on its struts.

    Attributes:
        door: Its id.
        mass, height: Of the leaf. [kg, mm]
        strut: What was entered, or what is proposed.
        proposed: Whether it is only a proposal.
        swing: From closed to open.
        stays: Whether it stays open on the slope and in the cold.
        lift, draw: The greatest force to lift it and to draw it down, at its edge. [N]
        closed, opened: The strut's length with the door closed and open. [mm]
        trouble: Why such a strut cannot be; empty where it can.
    """

    door: str
    mass: float
    height: float
    strut: Strut
    proposed: bool
    swing: tuple[Instant, ...]
    stays: bool
    lift: float
    draw: float
    closed: float
    opened: float
    trouble: str


def _studs(strut: Strut, angle: float) -> tuple[float, float, float, float]:
    """Both studs about the hinge: body (inward, down), leaf (outward, down). [mm]"""
    a = math.radians(angle)
    # The leaf hangs down when closed and turns outward; its stud is on its inner face.
    return -strut.inset, strut.body, strut.leaf * math.sin(a), strut.leaf * math.cos(a)


def strut_length(strut: Strut, angle: float) -> float:
    """The strut's length at an angle of the door from closed. [mm]"""
    bx, by, lx, ly = _studs(strut, angle)
    return math.hypot(lx - bx, ly - by)


def strut_moment(strut: Strut, angle: float, swing: float, cold: float | None = None) -> float:
    """The opening moment of all struts about the hinge.

    Args:
        strut: Force at full length, growth, studs. [N, mm]
        angle, swing: Of the door from closed, and at most. [degree]
        cold: Temperature of a cold morning: the force goes with the absolute temperature. [°C]
    Returns: Above 0 it opens. [N·mm]
    """
    bx, by, lx, ly = _studs(strut, angle)
    dx, dy = lx - bx, ly - by
    length = math.hypot(dx, dy)
    if length <= 0:
        return 0.0
    lengths = (strut_length(strut, 0.0), strut_length(strut, swing))
    longest, stroke = max(lengths), max(abs(lengths[1] - lengths[0]), 1e-9)
    force = strut.force * (1 + strut.growth * max(0.0, longest - length) / stroke)
    if cold is not None:
        force *= (cold + 273.15) / (WARM + 273.15)
    # Lever of the push at the leaf's stud about the hinge; turning from down towards outward opens.
    arm = (dx * ly - dy * lx) / length
    return strut.count * force * arm


def leaf_moment(mass: float, height: float, angle: float, lean: float) -> float:
    """The closing moment of a leaf's weight.

    Args:
        mass, height: Of the leaf. [kg, mm]
        angle: From closed. [degree]
        lean: By how much the vehicle leans towards the door's side. [degree]
    Returns: m·g·(h/2)·sin(angle + lean); below 0 it opens by its weight. [N·mm]
    """
    return mass * G * height / 2 * math.sin(math.radians(angle + lean))


def proposal(mass: float, height: float, swing: float, r: Rules) -> Strut:
    """Propose struts for a door hinged at its top.

    Args:
        mass, height: Of the leaf. [kg, mm]
        swing: [degree]
    Returns:
        Two, in the next steps of 50 N and 10 mm, that hold it open on the slope and in the cold with a tenth to
        spare.
    """
    trial = Strut(force=100.0, body=max(160.0, round(height * 0.55 / 10) * 10), leaf=40.0)
    for share, leaf in itertools.product(
        (0.55, 0.7, 0.85), range(int(height * 0.03) * 10, 40, -10)
    ):
        body = max(160.0, round(height * share / 10) * 10)
        wider = trial.but(body=body, leaf=float(leaf))
        if not _trouble(strut_length(wider, 0.0), strut_length(wider, swing)):
            trial = wider
            break
    slope = r.slope
    wanted = 1.1 * max(leaf_moment(mass, height, swing, lean) for lean in (-slope, 0.0, slope))
    gives = strut_moment(trial, swing, swing, r.cold) / trial.force
    force = wanted / gives if gives > 0 else 100.0
    return trial.but(force=min(5000.0, max(50.0, math.ceil(force / 50) * 50)))


def check(canopy: Canopy, door: Door, shop: Shop, steps: int = 24) -> StrutCheck:
    """Check a door hinged at its top over its whole swing.

    Args:
        door: The door; struts are proposed where none are entered.
    Returns: Forces at the leaf's edge. [N]
    """
    mass = door_mass(canopy, door, shop)
    height, swing = door.height + 30.0 - door.split, door.swing
    strut = door.strut or proposal(mass, height, swing, shop.rules)
    slope = shop.rules.slope
    found = []
    for n in range(steps + 1):
        angle = swing * n / steps
        warm, cold = (strut_moment(strut, angle, swing, c) for c in (None, shop.rules.cold))
        level = leaf_moment(mass, height, angle, 0.0) - warm
        cases = [
            leaf_moment(mass, height, angle, lean) - push
            for lean in (-slope, 0.0, slope)
            for push in (warm, cold)
        ]
        found.append(Instant(angle, level / height, min(cases) / height, max(cases) / height))
    last = found[-1]
    closed, opened = strut_length(strut, 0.0), strut_length(strut, swing)
    trouble = _trouble(closed, opened)
    return StrutCheck(
        door.id, mass, height, strut, door.strut is None, tuple(found), last.high < 0,
        max(0.0, *(i.high for i in found)), max(0.0, *(-i.low for i in found)), closed, opened, trouble,
    )  # fmt: skip


def _trouble(closed: float, opened: float) -> str:
    """Say why no strut has these two lengths; nothing where one may."""
    stroke = opened - closed
    if stroke <= 0:
        return "the strut is no longer when the door is open; set its stud on the body lower"
    if closed < stroke + DEAD:
        return (
            f"closed it would be {closed:.0f} mm, but {stroke:.0f} mm of stroke want {stroke + DEAD:.0f}; "
            "set its stud on the leaf nearer to the hinge"
        )
    return ""


def study(assembly: Assembly) -> tuple[StrutCheck, ...]:
    """Check every door that is hinged at its top and is the canopy's own.

    Returns: In the order of the doors.
    """
    return tuple(
        check(canopy, d, assembly.shop)
        for canopy in assembly.job.body.shells() if canopy.kind != "cargo"
        for d in canopy.doors if d.hinge == "top"
    )  # fmt: skip
