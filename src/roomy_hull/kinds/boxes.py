"""Boxes that can be bent, or are built of boards: open boxes and carcasses, folded in one where the shop's brake can.

A box whose flanges stand all round is bent only so deep as the brake has room above its punch; a channel only so deep
as its base is wide. What is deeper is folded of what can be folded, and the other sides are plates welded in.
"""

import itertools
from typing import Any, NamedTuple

from roomy_hull.core.folded import Hole
from roomy_hull.core.geometry.solids import Box, hull
from roomy_hull.core.material import Material
from roomy_hull.core.parts import Join, Part, Pose, SheetPart
from roomy_hull.core.poses import BACK, LID, OTHER_WALL, WALL, at, composed
from roomy_hull.core.refs import Ref
from roomy_hull.kinds.expansion import Solid, made, rail_holes
from roomy_hull.kinds.kind import Site
from roomy_hull.shop.tools import Brake

LEFT, RIGHT, FRONT, REAR = range(4)
WORDS = ("left side", "right side", "front", "back")
CORNERS = ((LEFT, FRONT), (LEFT, REAR), (RIGHT, FRONT), (RIGHT, REAR))
LAP = 25.0
"""A flange by which a back or a tie is riveted in: room for a rivet off its bend and its edge (common practice). [mm]"""
FOOT = 30.0
"""A foot by which a side is riveted to its floor (common practice). [mm]"""
TIE = 40.0
"""How wide a tie between two sides is (common practice). [mm]"""
PUNCHES = 1.0
"""A flange stands so much lower than the brake's limit. [mm]"""


class Sized(NamedTuple):
    """An open box from its corner: length, width, heights of its left, right, front and rear side; its sheet. [mm]"""

    length: float
    width: float
    heights: tuple[float, float, float, float]
    thickness: float
    metal: Material


class Carcass(NamedTuple):
    """A carcass by its outside width, depth with its front, and height; thickness of front and of its sheet. [mm]"""

    width: float
    depth: float
    height: float
    front: float
    thickness: float
    metal: Material


def can_stay(box: Sized, brake: Brake, sides: tuple[int, ...]) -> bool:
    """Whether these sides of a box can be bent up with its floor."""
    h, t = box.heights, box.thickness
    for pair, base in (((LEFT, RIGHT), box.length), ((FRONT, REAR), box.width)):
        if (
            set(pair) <= set(sides)
            and min(h[n] for n in pair) > brake.channel_depth(t, base) - PUNCHES
        ):
            return False
    deep = brake.box_depth(t) - PUNCHES
    return all(min(h[a], h[b]) <= deep for a, b in CORNERS if a in sides and b in sides)


def folded_sides(box: Sized, brake: Brake) -> tuple[int, ...]:
    """Which sides of a box are folded with its floor: as many as can be, and of as many those that save most weld.

    Args:
        box: The box. [mm]
    Returns: `LEFT`, `RIGHT`, `FRONT`, `REAR`.
    """
    if box.metal.wood:
        return ()  # of boards: nothing is folded
    there = [n for n in range(4) if box.heights[n] > 0]
    rows = [c for size in range(len(there), -1, -1) for c in itertools.combinations(there, size)]

    def merit(sides: tuple[int, ...]) -> tuple[float, ...]:
        long = sum(box.width if n in (LEFT, RIGHT) else box.length for n in sides)
        return len(sides), long

    return max((s for s in rows if can_stay(box, brake, s)), key=merit, default=())


def open_box(
    name: str, owner: Ref, box: Sized, brake: Brake, pose: Pose | None, *,
    group: str = "", join: Join = "", **floor: Any,
) -> tuple[SheetPart, ...]:  # fmt: skip
    """A box without a lid, lying with its floor down: in one piece, or of pieces that can be bent.

    Args:
        name: Of the floor with what is folded from it; a plate's follows it.
        box: Its outside sizes. [mm]
        pose: Where its lower left front corner stands; none where nobody says. [mm]
        **floor: Further fields of the floor: its role, its holes and cut-outs. [mm]
    """
    a, b, h, t, metal = box
    kept = folded_sides(box, brake)

    def stood(own: Pose) -> tuple[Pose, ...]:
        return () if pose is None else (composed(own, pose),)

    tall = max(h) > LAP * 2
    left, right, front, back = (h[n] if n in kept else 0.0 for n in range(4))
    found = [
        SheetPart(name, owner, a, b, t, metal, left, right, front, back, corners="welded" if tall else "open",
                  group=group, join=join, poses=stood(at(0.0, 0.0, 0.0)), **floor)
    ]  # fmt: skip
    for n in range(4):
        if h[n] <= 0 or n in kept:
            continue
        high = h[n] - t
        if n in (LEFT, RIGHT):
            # Between front and rear, where these are folded.
            low, far = (t if m in kept else 0.0 for m in (FRONT, REAR))
            long = b - low - far
            spot = at(0.0 if n == LEFT else a - t, low, t, WALL)
        else:
            low, far = (t if h[m] > 0 else 0.0 for m in (LEFT, RIGHT))
            long = a - low - far
            spot = at(low, t if n == FRONT else b, t, BACK)
        found.append(
            SheetPart(f"{name}, {WORDS[n]}", owner, long, high, t, metal, group=group, join=join, poses=stood(spot))
        )  # fmt: skip
    return tuple(found)


def whole(parts: tuple[Part, ...], role: str = "made") -> tuple[Solid, ...]:
    """One box around some parts, as of a drawer that is full of what it holds; it moves. [mm]"""
    return (Solid(hull(s.box for p in parts for s in made(p)), role, moves=True),)


def room_of(parts: tuple[Part, ...]) -> Box:
    """The box around some parts. [mm]"""
    return hull(s.box for p in parts for s in made(p))


def carcass(
    name: str, owner: Ref, size: Carcass, site: Site, *, full_top: bool = False, tie: bool = True,
) -> tuple[SheetPart, ...]:  # fmt: skip
    """A carcass behind its fronts: a floor and two sides, a back that keeps it square, and a tie or a top above.

    Args:
        name, owner: What it is called, and what it belongs to.
        size: Its sizes. [mm]
        site: Whose rails it is bolted to and whose brake it is bent on. [mm]
        full_top: A top over all of it, where something stands on it.
        tie: Whether there is room for a tie above what runs in it.
    Returns: The one that is bolted to the rails first, with its sides where they can be folded with it.
    """
    w, d, h, front, t, metal = size
    deep = d - front
    holes = tuple(Hole(x, y, 8.5) for x, y in rail_holes(w, deep, site.pitch, site.phase))
    wood = metal.wood
    in_one = not wood and h <= site.shop.tools.brake.channel_depth(t, w) - PUNCHES
    made_: list[SheetPart] = []
    lift = t
    if in_one:
        made_.append(
            SheetPart(name, owner, w, deep, t, metal, left=h, right=h, holes=holes, poses=(at(0.0, front, 0.0),))
        )  # fmt: skip
    else:
        # A floor, and sides that stand on it with a foot inward.
        made_.append(
            SheetPart(name, owner, w, deep, t, metal, holes=holes, poses=(at(0.0, front, 0.0),))
        )
        foot = 0.0 if wood else min(FOOT, w / 4)
        made_ += [
            SheetPart(f"{name}, left side", owner, deep, h - t, t, metal, front=foot, poses=(at(0.0, front, t, WALL),)),
            SheetPart(f"{name}, right side", owner, deep, h - t, t, metal, back=foot,
                      poses=(at(w, front, h, OTHER_WALL),)),
        ]  # fmt: skip
        lift = t if wood else 2 * t
    lap = 0.0 if wood else min(LAP, w / 4)
    made_.append(
        SheetPart(f"{name}, back", owner, w - 2 * t, h - lift, t, metal, left=lap, right=lap,
                  front=lap if in_one else 0.0, poses=(at(t, d, lift, BACK),))
    )  # fmt: skip
    if tie or full_top:
        wide = deep - t - 1.0 if full_top else min(TIE, deep / 2)
        made_.append(
            SheetPart(f"{name}, {'top' if full_top else 'tie'}", owner, w - 2 * t, wide, t, metal, left=lap, right=lap,
                      poses=(at(t, front + wide, h, LID),))
        )  # fmt: skip
    return tuple(made_)
