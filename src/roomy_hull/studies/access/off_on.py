"""Off and on: taking the canopy off in order, what stands on each leg, whether it tips, whether one drives out."""

from __future__ import annotations

import math
from typing import Any, Protocol

import msgspec

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.scaling import scale
from roomy_hull.core.refs import CANOPY
from roomy_hull.kit.body.fittings import SOCKET, SOCKET_FOOT, leg_room
from roomy_hull.studies.access.standing import Settled

CLEAR = 50.0
"""The canopy is lifted so far over the tray before one drives out (common practice). [mm]"""


class Wired(Protocol):
    """What of the services comes apart; see `studies.services.judge.ServicesResult`."""

    circuits: tuple[Any, ...]
    fluids: Any


class OffOn(msgspec.Struct, frozen=True):
    """The canopy on its legs.

    Attributes:
        empty, loaded: Its mass bare with units, and with contents and water as in the fullest scenario. [kg]
        centre: Of the loaded canopy, in vehicle axes. [mm]
        legs: Each leg's load, loaded: the name and what stands on it. [kg]
        tips: The slope at which it would tip over its nearest edge of feet. [°]
        least_leg: How long a leg has to be from its socket's foot: to lift the canopy clear of the tray at this ride
            height. [mm]
        lifts: How high the canopy's lower edge then is over the ground. [mm]
        beside: What is left on each side between legs and the widest of what drives out. [mm]
        steps: What is done, in order.
    """

    empty: float
    loaded: float
    centre: tuple[float, float, float]
    legs: tuple[tuple[str, float], ...]
    tips: float
    least_leg: float
    lifts: float
    beside: float
    steps: tuple[str, ...]


def leg_loads(
    kg: float, at: tuple[float, float], feet: tuple[float, float, float, float]
) -> tuple[float, float, float, float]:
    """What stands on each of four legs of one stiffness under a stiff body.

    Args:
        kg: Mass. [kg]
        at: Its centre, x and y. [mm]
        feet: The rectangle of the feet: x0, y0, x1, y1. [mm]
    Returns:
        At (x0, y0), (x0, y1), (x1, y0), (x1, y1): W/4·(1 ± 2ex/a ± 2ey/b), which sum to the mass and balance about
        both axes; negative where it lifts off. [kg]
    """
    x0, y0, x1, y1 = feet
    u = 2 * (at[0] - (x0 + x1) / 2) / (x1 - x0)
    v = 2 * (at[1] - (y0 + y1) / 2) / (y1 - y0)
    return (kg / 4 * (1 - u - v), kg / 4 * (1 - u + v), kg / 4 * (1 + u - v), kg / 4 * (1 + u + v))


def tipping(at: tuple[float, float, float], feet: tuple[float, float, float, float]) -> float:
    """The slope at which a body on four legs tips.

    Args:
        at: Its centre: x, y, and the height over the ground. [mm]
        feet: The rectangle of the feet. [mm]
    Returns: atan of the nearest edge's distance over the height; below 0 where it stands over none. [°]
    """
    x, y, high = at
    near = min(x - feet[0], feet[2] - x, y - feet[1], feet[3] - y)
    return math.degrees(math.atan2(near, max(high, 1.0)))


def off_on(assembly: Assembly, services: Wired | None, settled: Settled) -> OffOn | None:
    """Take the canopy off.

    Args:
        settled: How the vehicle stands when it backs under. [mm]
    Returns: Nothing where there is no canopy that comes off.
    """
    canopy, box = assembly.job.body.canopy, assembly.ground.canopy
    if canopy is None or box is None or canopy.kind != "canopy":
        return None
    empty, kg, centre = _masses(assembly)
    along, out, _up = SOCKET
    out = out / 2 + canopy.leg_out
    feet = (box.x0 + along / 2, box.y0 - out, box.x1 - along / 2, box.y1 + out)
    loads = leg_loads(kg, (centre[0], centre[1]), feet)
    # Where the tray stands highest over the ground, the legs have to be longest.
    lifts = box.z0 - min(settled.ground(box.x0), settled.ground(box.x1)) + CLEAR
    floor = assembly.ground.floor
    height = centre[2] - box.z0 + lifts
    beside = leg_room(assembly.job.vehicle, floor.y1 - floor.y0, canopy)
    return OffOn(
        empty, kg, centre, tuple(zip(NAMES, loads, strict=True)), tipping((centre[0], centre[1], height), feet),
        lifts + SOCKET_FOOT, lifts, beside, _steps(assembly, services, canopy.jacks, beside),
    )  # fmt: skip


def _bolts(assembly: Assembly) -> str:
    """By what the canopy is held."""
    one = assembly.any_thing(CANOPY.word)
    held = one.capabilities.held if one is not None else None
    return held.words if held is not None else "its bolts"


NAMES = ("front left", "front right", "rear left", "rear right")


def _masses(assembly: Assembly) -> tuple[float, float, tuple[float, float, float]]:
    """The canopy empty and as full as it gets, and the full one's centre. [kg, mm]"""
    full = max(assembly.job.scenarios, key=lambda s: (s.canopy, s.contents + s.water))
    bare = msgspec.structs.replace(full, water=0.0, contents=0.0)
    rows = [m for m in assembly.masses() if m.mount == "canopy"]
    empty = sum(m.kg * scale(bare, m.owner, m.fill, m.mount) for m in rows)
    scaled = [(m, m.kg * scale(full, m.owner, m.fill, m.mount)) for m in rows]
    kg = sum(k for _m, k in scaled)
    x, y, z = (sum(getattr(m, a) * k for m, k in scaled) / kg if kg else 0.0 for a in "xyz")
    return empty, kg, (x, y, z)


def _steps(
    assembly: Assembly, services: Wired | None, jacks: bool, beside: float
) -> tuple[str, ...]:
    """What is done, in order; nobody is sent to drive out where the legs are in the way. [mm]"""
    found = ["Park on level, firm ground; chock the wheels; close and lock every door and drawer."]
    tied = [
        t
        for t in assembly.things
        if getattr(t.value, "mount", "") == "canopy" and getattr(t.value, "on_roof", False)
    ]
    if tied:
        found.append("Take off the roof: " + ", ".join(t.name for t in tied) + ".")
    plugs: dict[str, list[str]] = {}
    for c in services.circuits if services is not None else ():
        for crossing in c.way.plugs if c.way is not None else ():
            plugs.setdefault(crossing, []).append(c.name)
    for crossing, names in sorted(plugs.items()):
        found.append(f"Main switch off. Unplug at {crossing}: {', '.join(names)}.")
    runs = services.fluids.runs if services is not None and services.fluids is not None else ()
    for r in runs:
        if r.way.plugs:
            found.append(f"Shut off and uncouple {r.sort} at {r.way.plugs[0]}: {r.name}.")
    found.append(
        "Set the four legs into their sockets."
        if jacks
        else "Fit four legs: this canopy has no sockets for them yet."
    )
    found += [
        f"Undo what holds it to the tray: {_bolts(assembly)}.",
        f"Raise all legs in turn, a few turns each, until it is {CLEAR:.0f} mm clear all round.",
        "Nobody under it or in it. Drive out slowly, straight ahead, with somebody watching both sides."
        if beside >= 0
        else f"Do not drive out as it stands: each side lacks {-beside:.0f} mm between the legs. Set the legs further out "
        "first; then nobody under it or in it, slowly, straight ahead, with somebody watching both sides.",
        "Lower it as far as the legs allow. Fit lamps and number plate to the tray where they came off.",
    ]
    return tuple(found)
