"""Snapping: to the rail pitch along the wall; in height a thing comes to rest on what carries it."""

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.things import Thing
from roomy_hull.job.carried import Carried
from roomy_hull.kinds.registry import kind_of
from roomy_hull.kit.body.canopy import BayPlace

CATCH = 28.0
"""How near a floor or neighbour catches a dragged unit. [mm]"""


def snapped(
    assembly: Assembly, thing: Thing, place: BayPlace, u: float, w: float
) -> tuple[float, float]:
    """Snap a unit's lower front corner.

    Args:
        u, w: Where the hand has it. [mm]
    Returns:
        Within the bay where it fits; u on the rail pitch, or beside a neighbour that is near; w where it comes to
        rest: on the floor, behind its sill, or on the top of what stands below it, with its running gap. [mm]
    """
    size = thing.expansion.envelope
    pitch = place.bay.pitch
    room = place.size
    gap = assembly.shop.rules.running_gap
    if pitch > 0:
        u = round(u / pitch) * pitch
        most = (room.x1 - size.x1) // pitch * pitch
        u = min(max(u, 0.0), most) if most >= 0 else 0.0
    else:
        u = _nearest(u, _walls(assembly, thing, place, u, w, gap), CATCH)
        u = min(max(u, 0.0), max(0.0, room.x1 - size.x1))
    at = size.moved(u, 0.0, w)
    supports = [place.opening_for(at)[1] if thing.moves else 0.0]
    for other in assembly.things:
        if other.id == thing.id or other.place is None or other.place.bay.id != place.bay.id:
            continue
        value = other.value
        left, right = value.u, value.u + other.expansion.envelope.x1  # type: ignore[union-attr]
        if left < u + size.x1 - 1 and right > u + 1:
            between = gap if thing.moves or other.moves else 0.0
            supports.append(value.w + other.expansion.envelope.z1 + between)  # type: ignore[union-attr]
    if not isinstance(thing.value, Carried) and kind_of(thing.value).hangs:
        return u, _nearest(w, supports, CATCH)
    high = [s for s in supports if s + size.z1 <= room.z1 + 0.01] or supports[:1]
    # It falls on to the highest that is not above the hand, or is caught by one just above it.
    below = [s for s in high if s <= w + REACH]
    return u, max(below) if below else min(high)


REACH = 60.0
"""What is so little above the hand still carries what it holds. [mm]"""


def _walls(
    assembly: Assembly, thing: Thing, place: BayPlace, u: float, w: float, gap: float
) -> list[float]:
    """List the places along the wall beside neighbours and ends."""
    size = thing.expansion.envelope
    found = [0.0, place.size.x1 - size.x1]
    for other in assembly.things:
        if other.id == thing.id or other.place is None or other.place.bay.id != place.bay.id:
            continue
        value, e = other.value, other.expansion.envelope
        if value.w < w + size.z1 - 1 and value.w + e.z1 > w + 1:  # type: ignore[union-attr]
            between = gap if thing.moves or other.moves else 0.0
            found += [value.u + e.x1 + between, value.u - size.x1 - between]  # type: ignore[union-attr]
    del u
    return found


def _nearest(at: float, marks: list[float], catch: float) -> float:
    """The nearest mark within the catch, else the nearest 5 mm."""
    best = min(marks, key=lambda m: abs(m - at))
    return best if abs(best - at) <= catch else round(at / 5.0) * 5.0
