"""Frame: a canopy's bars and sheets in their places, in directions of its own.

u runs aft from the canopy's front, v from its left side to the right, w up from its floor, all from the outside.
Outside stands the skin; behind it the frame. Long rails go through, all other bars stand or lie between them. Where
a door's rebate takes the room of a sill, a threshold as thick as what is left lies there instead.
"""

import itertools
import math

from roomy_hull.core.folded import Cutout
from roomy_hull.core.geometry.regions import Rect, union
from roomy_hull.core.material import Material
from roomy_hull.core.mechanics.sections import section_height, section_width
from roomy_hull.core.parts import BarPart, PartRole, Pose
from roomy_hull.core.poses import ACROSS, BACK, FORTH, REAR, WALL, Turned, at
from roomy_hull.core.refs import CANOPY
from roomy_hull.job.canopy import Canopy
from roomy_hull.kit.body import sides

INWARD = {"left": FORTH, "right": BACK, "front": WALL, "rear": REAR}
"""How a sheet stands on a wall with its flanges inward: x as one sees it from inside, y up."""
POST = Turned("w", "v", "-u")
"""A post: its length up, its second side through a side wall, its first along it."""
POST_STEP, BOW_STEP = 900.0, 900.0
"""Posts and bows stand at most so far apart (common practice). [mm]"""
LEAST_THRESHOLD = 5.0
"""A threshold thinner than this is not made: the floor's edge serves (common practice). [mm]"""
Span = tuple[float, float]


def depth(canopy: Canopy) -> float:
    """How deep skin and posts are, from the outside inward. [mm]"""
    return canopy.skin + section_width(canopy.frame)


def hung(canopy: Canopy) -> float:
    """How far skin and bows reach down from the roof's outside. [mm]"""
    return canopy.skin + section_width(canopy.frame)


def bow_count(canopy: Canopy) -> int:
    """How many bows carry the roof."""
    return max(2, math.ceil(canopy.length / BOW_STEP) + 1) + 1


def from_inside(canopy: Canopy, side: str, along: float, up: float, inward: float = 0.0) -> Pose:
    """A stand on a wall, for a sheet seen from inside.

    Args:
        canopy: The canopy. [mm]
        along, up: Its lower left corner as one sees it from inside, in the wall's directions as `sides` counts them.
            [mm]
        inward: How far from the outside. [mm]
    """
    long, wide = canopy.length, canopy.width
    corner = {
        "left": (along, inward), "right": (along, wide - inward),
        "front": (inward, along), "rear": (long - inward, along),
    }[side]  # fmt: skip
    return at(*corner, up, INWARD[side])


def seen(side: str, start: float, length: float) -> float:
    """Where a stretch of a wall begins as one sees it from inside: left and rear walls run the other way. [mm]"""
    return start + length if side in ("left", "rear") else start


def rebates(canopy: Canopy, side: str) -> list[tuple[float, float, float, float]]:
    """What the rebates of a wall's doors take of it, with the sheet of their jambs around them. [mm]"""
    t = canopy.skin
    return sorted(
        (a0 - t, z0 - t, a1 + t, z1 + t)
        for a0, z0, a1, z1 in (d.rebate for d in sides.doors(canopy) if d.door.side == side)
    )


def posts(canopy: Canopy, side: str) -> list[float]:
    """Where a side wall's posts begin, along it.

    Args:
        canopy: The canopy. [mm]
        side: ``left`` or ``right``.
    Returns:
        At the wall's ends, on both sides of every door, and at most `POST_STEP` apart; one in the middle of a
        stretch too short for two, none where it is shorter than a post. [mm]
    """
    thick, end = section_height(canopy.frame), canopy.length - canopy.skin
    found: list[float] = []
    low = canopy.skin
    for a0, _z0, a1, _z1 in [*rebates(canopy, side), (end, 0.0, end, 0.0)]:
        room = a0 - low
        if room >= 2 * thick:
            count = 1 + max(1, math.ceil(room / POST_STEP))
            step = (room - thick) / (count - 1)
            found += [low + n * step for n in range(count)]
        elif room >= thick:
            found.append(low if low == canopy.skin else a0 - thick)
        low = max(low, a1)
    return found


def _free(span: Span, taken: list[Span]) -> list[Span]:
    """What some stretches leave of another."""
    found, low = [], span[0]
    for a, b in sorted(taken):
        if a - low > 1.0:
            found.append((low, min(a, span[1])))
        low = max(low, b)
    if span[1] - low > 1.0:
        found.append((low, span[1]))
    return [(a, b) for a, b in found if b - a > 1.0]


def _lengths(
    name: str, section: str, metal: Material, rows: list[tuple[float, Pose]], role: PartRole = ""
) -> list[BarPart]:
    """Bars of one section, those of a length as one part."""
    by_length: dict[float, list[Pose]] = {}
    for long, pose in rows:
        by_length.setdefault(round(long, 3), []).append(pose)
    return [
        BarPart(f"Canopy: {name}", CANOPY, section, long, metal, len(poses), role, tuple(poses))
        for long, poses in by_length.items()
    ]


def bars(canopy: Canopy, metal: Material) -> tuple[BarPart, ...]:
    """The bars of the frame.

    Args:
        canopy: The canopy. [mm]
    Returns:
        Cant rails, sills and thresholds, posts, roof bows, end sills, each where it stands in the canopy's
        directions; none that has no length left. [mm]
    """
    high, wide = section_height(canopy.frame), section_width(canopy.frame)
    t, low, top = canopy.skin, canopy.base, canopy.height - canopy.skin
    long = canopy.length - 2 * t
    between = canopy.width - 2 * t - 2 * wide
    upright = top - low - 2 * high
    if min(long, between, upright) <= 0:
        return ()
    near = {"left": t, "right": canopy.width - t - wide}
    rails = [(long, at(t, v, top - high)) for v in near.values()]
    poses = [
        (upright, at(u + high, v, low + high, POST))
        for side, v in near.items() for u in posts(canopy, side)
    ]  # fmt: skip
    count = bow_count(canopy)
    step = (long - high) / (count - 1)
    # Lying on their first side.
    bows = [(between, at(t + n * step, t + wide, top - wide, WALL)) for n in range(count)]
    return (
        *_lengths("cant rail", canopy.frame, metal, rails),
        *_lengths("post", canopy.frame, metal, poses),
        *_lengths("roof bow", canopy.frame, metal, bows, "bow"),
        *_low_bars(canopy, metal, near),
    )


def _low_bars(canopy: Canopy, metal: Material, near: dict[str, float]) -> list[BarPart]:
    """Sills, end sills between them, and thresholds, each where it lies."""
    high, wide, t = section_height(canopy.frame), section_width(canopy.frame), canopy.skin
    low = canopy.base
    sills: list[tuple[float, Pose]] = []
    ends: list[tuple[float, Pose]] = []
    steps: list[tuple[float, float, Pose]] = []
    for side, v in near.items():
        whole, flat = _sills(canopy, side, (t, canopy.length - t), high)
        sills += [(b - a, at(a, v, low)) for a, b in whole]
        steps += [(rise, b - a, at(a, v, low)) for a, b, rise in flat]
    for side, u in (("front", t + wide), ("rear", canopy.length - t)):
        whole, flat = _sills(canopy, side, (t + wide, canopy.width - t - wide), high)
        ends += [(b - a, at(u, a, low, ACROSS)) for a, b in whole]
        steps += [(rise, b - a, at(u, a, low, ACROSS)) for a, b, rise in flat]
    made = [
        *_lengths("sill", canopy.frame, metal, sills),
        *_lengths("end sill", canopy.frame, metal, ends),
    ]
    for rise in sorted({row[0] for row in steps}):
        rows = [(b, pose) for a, b, pose in steps if a == rise]
        made += _lengths("threshold", f"{rise:g}x{wide:g}", metal, rows)
    return made


def _sills(
    canopy: Canopy, side: str, span: Span, high: float
) -> tuple[list[Span], list[tuple[float, float, float]]]:
    """The stretches of a wall's sill, and of thresholds with what room the rebates above leave them."""
    low = canopy.base
    over = [
        (max(a0, span[0]), min(a1, span[1]), z0 - low)
        for a0, z0, a1, _z1 in rebates(canopy, side)
        if z0 < low + high and a1 > span[0] and a0 < span[1]
    ]
    flat = [(a, b, math.floor(rise)) for a, b, rise in over if rise >= LEAST_THRESHOLD]
    return _free(span, [(a, b) for a, b, _rise in over]), [(a, b, float(r)) for a, b, r in flat]


def _lap(a: Rect, b: Rect) -> bool:
    """Say whether two rectangles share room."""
    return min(a[2], b[2]) > max(a[0], b[0]) and min(a[3], b[3]) > max(a[1], b[1])


def cutouts(canopy: Canopy, side: str) -> tuple[Cutout, ...]:
    """What is cut out of a wall's sheet, as one sees it from inside.

    Args:
        canopy: The canopy. [mm]
    Returns:
        The rebates of its doors, from the sheet's lower left corner; those that reach its edge too, and those of
        the rear doors in a side wall that they run into. [mm]
    """
    start, end = sheet_span(canopy, side)
    high = canopy.height - canopy.base - canopy.skin
    rows = [d.rebate for d in sides.doors(canopy) if d.door.side == side]
    if side in ("left", "right"):
        thick = min(sides.depth(canopy)[0], canopy.wall)
        for place in sides.doors(canopy):
            a0, z0, a1, z1 = place.rebate
            reaches = a0 < canopy.skin if side == "left" else a1 > canopy.width - canopy.skin
            if place.door.side == "rear" and reaches:
                rows.append((canopy.length - thick, z0, canopy.length, z1))
    if any(_lap(a, b) for a, b in itertools.combinations(rows, 2)):
        # Doors that run into each other, which is told elsewhere, take what they share only once.
        rows = union(rows)[0]
    found = []
    for row in rows:
        a0, a1 = max(row[0], start) - start, min(row[2], end) - start
        z0, z1 = max(row[1] - canopy.base, 0.0), min(row[3] - canopy.base, high)
        if min(a1 - a0, z1 - z0) <= 1:
            continue
        x = a0 if side in ("right", "front") else end - start - a1
        round_ = min(40.0, (a1 - a0) / 4, (z1 - z0) / 4)
        open_ = min(x, z0) <= 0 or x + a1 - a0 >= end - start or z1 >= high
        found.append(Cutout(x, z0, a1 - a0, z1 - z0, 0.0 if open_ else round_))
    return tuple(found)


def sheet_span(canopy: Canopy, side: str) -> Span:
    """Between where a wall's sheet runs along it: those of the sides go through, the others lie between them. [mm]"""
    inset = 0.0 if side in ("left", "right") else canopy.skin
    return inset, sides.wall_length(canopy, side) - inset
