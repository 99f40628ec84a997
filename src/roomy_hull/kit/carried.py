"""Outside: how carried things open, in vehicle directions from their own lower front left corner.

As one faces a side, `hand` left means the end at one's left: the front end of the left side, the rear end
of the right side, the driver's left at the rear.
"""

import math

from roomy_hull.core.capabilities import Capabilities, Held, Role
from roomy_hull.core.geometry.motion import Motion, Moved, Step
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.units import G
from roomy_hull.job.carried import Carried, CarriedKind
from roomy_hull.kinds.placed import BoltSize

TENT_ROOM = 1100.0
"""Height of a tent's room above its floor (common practice). [mm]"""
LADDER, POST, CLOTH, ARM = 420.0, 40.0, 30.0, 60.0
"""Width of a ladder, of a post; thickness of cloth on its poles; width of an awning's arms. [mm]"""


def box_of(item: Carried) -> Box:
    """A carried thing's box in vehicle axes. [mm]"""
    return Box(
        item.x - item.length / 2, item.y - item.width / 2, item.z,
        item.x + item.length / 2, item.y + item.width / 2, item.z + item.height,
    )  # fmt: skip


USUAL_BOLTS: dict[CarriedKind, tuple[int, BoltSize]] = {
    "spare wheel": (3, "M12"), "jerry": (4, "M6"), "tent": (4, "M8"), "awning": (4, "M8"), "shower tent": (4, "M6"),
    "ladder": (4, "M8"), "light bar": (2, "M8"), "aerial": (1, "M6"), "recovery boards": (2, "M10"),
    "bull bar": (6, "M12"), "winch": (4, "M10"), "steps": (6, "M8"), "battery": (2, "M8"), "hitch": (2, "M16"),
    "snorkel": (4, "M6"), "table": (4, "M6"), "bag": (2, "M6"),
}  # fmt: skip
"""By what a carrier, a bracket or the thing itself is usually fastened (common practice); a plain load by nothing."""


def held(item: Carried) -> Held | None:
    """By what it is held: as the job says, else as its kind usually is; nothing where nobody can know."""
    if item.straps:
        to = item.on or "what it lies on"
        return Held("ties", item.straps, each=item.strap * G, to=to, least=2, what="strap")
    count, size = (item.bolts, item.bolt) if item.bolts else USUAL_BOLTS.get(item.kind, (0, "M8"))
    return Held("bolts", count, size, to=item.on or "its carrier") if count else None


LIFTED: frozenset[CarriedKind] = frozenset({
    "spare wheel",
    "jerry",
    "load",
    "ladder",
    "recovery boards",
})
"""What is lifted on and off."""


UNFOLDS = frozenset({"tent", "awning", "shower tent"})
"""What opens out over the ground, with or without posts."""


def says(item: Carried) -> Capabilities:
    """What a carried thing is to everybody else."""
    roles: dict[Role, bool] = {
        "bed": item.kind == "tent", "wheel": item.kind == "spare wheel", "lifted": item.kind in LIFTED,
        "battery": item.kind == "battery", "fuel": item.kind == "jerry",
    }  # fmt: skip
    powers = roles["battery"]
    return Capabilities(
        roles=frozenset(role for role, there in roles.items() if there), held=held(item),
        stands=item.kind in UNFOLDS and item.legs, ignites=powers, hurt_by_water=powers, looked_at=powers,
    )  # fmt: skip


PLATE = 70.0
"""How deep the plate of a bull bar is; behind it is room for a winch (common practice). [mm]"""


def solids(item: Carried) -> tuple[Box, ...]:
    """What of a carried thing is matter, from its own lower front left corner: its whole box, for most. [mm]"""
    a, b, c = item.length, item.width, item.height
    if item.kind != "bull bar" or a <= 2 * PLATE:
        return (Box(0, 0, 0, a, b, c),)
    # A plate across, two arms back to the chassis, hoops over it.
    arm = min(80.0, b / 6)
    low = c * 0.42
    return (
        Box(0, 0, 0, PLATE, b, low), Box(PLATE, b * 0.2, 0, a, b * 0.2 + arm, low / 2),
        Box(PLATE, b * 0.8 - arm, 0, a, b * 0.8, low / 2), Box(0, b * 0.1, low, PLATE, b * 0.9, c),
    )  # fmt: skip


def motions(item: Carried) -> tuple[Motion, ...]:
    """What opens on a carried thing.

    Args:
        item: A tent, awning, shower tent, or a wheel or can on a carrier that swings; others do not open. [mm]
    Returns: One motion, or none; x aft, y to the right, z up from the thing's own corner.
    """
    if item.kind == "tent":
        return (_tent(item),)
    if item.kind == "awning":
        return (
            (_turning_awning(item) if item.turn else _straight_awning(item),)
            if item.reach or item.turn
            else ()
        )
    if item.kind == "shower tent" and item.reach:
        return (_shower(item),)
    if item.kind in ("spare wheel", "jerry") and item.turn:
        return (_carrier(item),)
    return ()


def _end(item: Carried) -> tuple[bool, float]:
    """Say whether the hand's end is the lower one along the wall, and the wall's length there. [mm]"""
    if item.side == "right":
        return item.hand == "right", item.length
    return item.hand == "left", item.length if item.side == "left" else item.width


def _tent(item: Carried) -> Motion:
    """Fold the upper half over the edge on its side; a ladder and the tent's room stand there then."""
    a, b, h = item.length, item.width, item.height
    half = h / 2
    lid = Box(0, 0, half, a, b, h)
    drop = -item.z
    if item.side == "rear":
        step = Step("fold", 1, -180.0, pivot=(a, half))
        room = Box(0, 0, half, 2 * a, b, half + TENT_ROOM)
        ladder = Box(2 * a - 60, b / 2 - LADDER / 2, drop, 2 * a, b / 2 + LADDER / 2, 0)
    elif item.side == "left":
        step = Step("fold", 0, 180.0, pivot=(0.0, half))
        room = Box(0, -b, half, a, b, half + TENT_ROOM)
        ladder = Box(a / 2 - LADDER / 2, -b, drop, a / 2 + LADDER / 2, -b + 60, 0)
    else:
        step = Step("fold", 0, -180.0, pivot=(b, half))
        room = Box(0, 0, half, a, 2 * b, half + TENT_ROOM)
        ladder = Box(a / 2 - LADDER / 2, 2 * b - 60, drop, a / 2 + LADDER / 2, 2 * b, 0)
    added = (room, ladder) if item.legs else (room,)
    return Motion("", item.name, (Moved(lid),), (step,), added=added)


def _straight_awning(item: Carried) -> Motion:
    """Draw the cloth straight out of its case; two posts at its outer corners."""
    a, b, h, r = item.length, item.width, item.height, item.reach
    cloth = Box(0, 0, h - CLOTH, a, b, h)
    drop = -item.z
    if item.side == "rear":
        step = Step("slide", 0, r)
        feet = [(a + r - POST, 0.0), (a + r - POST, b - POST)]
    else:
        left = item.side == "left"
        step = Step("slide", 1, -r if left else r)
        y = -r if left else b + r - POST
        feet = [(0.0, y), (a - POST, y)]
    posts = (
        tuple(Box(x, y, drop, x + POST, y + POST, h - CLOTH) for x, y in feet) if item.legs else ()
    )
    return Motion("", item.name, (Moved(cloth),), (step,), spread=("",), added=posts)


def _turning_awning(item: Carried) -> Motion:
    """Turn the arms about one end; the cloth covers all that they pass over."""
    low, long = _end(item)
    a, b, h, turn = item.length, item.width, item.height, item.turn
    if item.side == "rear":
        arm = Box(a - ARM, 0, h - CLOTH, a, b, h)
        pivot, sign = ((a, 0.0), -1) if low else ((a, b), 1)
    elif item.side == "left":
        arm = Box(0, 0, h - CLOTH, a, ARM, h)
        pivot, sign = ((0.0, 0.0), -1) if low else ((a, 0.0), 1)
    else:
        arm = Box(0, b - ARM, h - CLOTH, a, b, h)
        pivot, sign = ((0.0, b), 1) if low else ((a, b), -1)
    posts: tuple[Box, ...] = ()
    if item.legs:
        # One post at the end of the last arm, where the cloth is stretched.
        x, y = _tip(item, pivot, sign * turn, low, long)
        posts = (Box(x - POST / 2, y - POST / 2, -item.z, x + POST / 2, y + POST / 2, h - CLOTH),)
    return Motion("", item.name, (Moved(arm),), (Step("swing", 2, sign * turn, pivot=pivot),), spread=("",),
                  added=posts)  # fmt: skip


def _tip(
    item: Carried, pivot: tuple[float, float], degrees: float, low: bool, long: float
) -> tuple[float, float]:
    """Where the last arm of a turning awning ends, a little inside its cloth. [mm]"""
    folded = {"rear": 90.0, "left": 0.0, "right": 0.0}[item.side] + (0.0 if low else 180.0)
    angle = math.radians(folded + degrees)
    return pivot[0] + (long - POST) * math.cos(angle), pivot[1] + (long - POST) * math.sin(angle)


def _shower(item: Carried) -> Motion:
    """Swing a bracket out about its hand's end; the curtain hangs over the stretch it had covered."""
    low, _long = _end(item)
    a, b, h, r = item.length, item.width, item.height, item.reach
    drop = -item.z
    turn = min(item.turn or 90.0, 180.0)
    if item.side == "rear":
        pivot, sign = ((a, 0.0), -1) if low else ((a, b), 1)
        y0 = 0.0 if low else b - r
        curtain = Box(a, y0, drop, a + r, y0 + r, 0)
    else:
        left = item.side == "left"
        y, out = (0.0, -r) if left else (b, r)
        pivot = (0.0, y) if low else (a, y)
        sign = (-1 if low else 1) * (1 if left else -1)
        x0 = 0.0 if low else a - r
        curtain = Box(x0, min(y, y + out), drop, x0 + r, max(y, y + out), 0)
    return Motion("", item.name, (Moved(Box(0, 0, 0, a, b, h)),), (Step("swing", 2, sign * turn, pivot=pivot),),
                  added=(curtain,))  # fmt: skip


def _carrier(item: Carried) -> Motion:
    """Swing what hangs on a rear carrier aside, about a post `reach` beyond its hand's edge."""
    a, b, h = item.length, item.width, item.height
    left = item.hand == "left"
    pivot = (0.0, -item.reach if left else b + item.reach)
    step = Step("swing", 2, -item.turn if left else item.turn, pivot=pivot)
    return Motion("", f"Carrier of {item.name}", (Moved(Box(0, 0, 0, a, b, h)),), (step,))
