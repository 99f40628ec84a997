"""Doors: how canopy doors, drop sides, toolboxes and the trundle drawer open, in vehicle axes."""

from roomy_hull.core.geometry.motion import Motion, Moved, Step
from roomy_hull.core.geometry.solids import Box
from roomy_hull.job.body import Tray
from roomy_hull.job.canopy import Canopy
from roomy_hull.kit.body import fittings, sides
from roomy_hull.kit.body.pieces import BodyParts, parts_of
from roomy_hull.kit.body.sides import PANEL_GAP
from roomy_hull.kit.body.undertray import DOOR

KNUCKLE = 6.0
"""How far outside a drop side or tailboard its hinges' pins lie, so that it hangs clear of the frame (common practice).
[mm]"""


def _turn(leaf: Box, side: str, hinge: str, degrees: float, outside: float = 0.0) -> Step:
    """The step by which a leaf turns out about one of its outer edges, or about pins that lie outside it. [mm, degrees]"""
    if hinge in ("top", "bottom"):
        # A let-down leaf hangs on straps, so that it lies just below its sill when it is level.
        thick = min(leaf.x1 - leaf.x0, leaf.y1 - leaf.y0)
        z = leaf.z1 if hinge == "top" else leaf.z0 - thick - 2 * PANEL_GAP
        axis, out = (1, leaf.x1) if side == "rear" else (0, leaf.y0 if side == "left" else leaf.y1)
        out += -outside if side == "left" else outside
        # From hanging down (or standing up) towards the outside.
        sign = (1 if side in ("right", "rear") else -1) * (1 if hinge == "top" else -1)
        return Step("swing", axis, sign * degrees, pivot=(out, z))
    start = hinge == "start"
    if side == "rear":
        return Step(
            "swing",
            2,
            -degrees if start else degrees,
            pivot=(leaf.x1, leaf.y0 if start else leaf.y1),
        )
    out = leaf.y0 if side == "left" else leaf.y1
    sign = (1 if side == "right" else -1) * (1 if start else -1)
    return Step("swing", 2, sign * degrees, pivot=(leaf.x0 if start else leaf.x1, out))


def canopy_doors(canopy: Canopy, box: Box) -> tuple[tuple[str, str, Motion], ...]:
    """The motion of every leaf of a canopy's doors.

    Args:
        box: Its outside in vehicle axes. [mm]
    Returns: A let-down half is a leaf of its own, its id ending in ``:half``.
    """
    found = []
    thick = sides.depth(canopy)[0]
    for place in sides.doors(canopy):
        door = place.door
        plain = (
            f"{door.side.capitalize()} door"
            if door.id in ("left", "right", "rear")
            else f"Door {door.id}"
        )
        for leaf in place.leaves:
            lower = plain[0].lower() + plain[1:]
            below = "Let-down half of" if leaf.made or canopy.kind == "cargo" else "Tailgate below"
            name = f"{below} {lower}" if leaf.key else plain
            shut = sides.stood(box, door.side, leaf.rect, 0.0, thick)
            turn = _turn(shut, door.side, leaf.hinge, leaf.swing)
            key = f"door:{door.id}:{leaf.key}" if leaf.key else f"door:{door.id}"
            props = fittings.struts(canopy, box, place, opened=True) if not leaf.key else ()
            found.append((key, door.side, Motion("", name, (Moved(shut),), (turn,), props=props)))
    return tuple(found)


def tray_doors(tray: Tray, solids: BodyParts) -> tuple[tuple[str, str, Motion], ...]:
    """The motion of drop sides, toolbox doors and the trundle drawer.

    Args:
        solids: Its solids in vehicle axes. [mm]
    Returns: Drop sides and tailboard hang down by 180 degrees, toolbox doors let down or lift by 100.
    """
    found: list[tuple[str, str, Motion]] = []
    for part in parts_of(solids, "side", "tail"):
        leaf, side = part.box, part.side or "rear"
        key = f"side-{side}" if part.role == "side" else "tail"
        name = "Tailboard" if part.role == "tail" else f"Drop side {side}"
        turn = _turn(leaf, side, "bottom", 180.0, KNUCKLE)
        found.append((f"tray:{key}", side, Motion("", name, (Moved(leaf),), (turn,))))
    boxes = {p.id: p.box for p in parts_of(solids, "box")}
    for one in tray.boxes:
        b = boxes[one.id]
        leaf = b._replace(y1=b.y0 + DOOR) if one.side == "left" else b._replace(y0=b.y1 - DOOR)
        motion = Motion(
            "",
            f"{one.name} {one.id}",
            (Moved(leaf),),
            (_turn(leaf, one.side, "top" if one.door == "up" else "bottom", 100.0),),
        )
        found.append((f"tray:box-{one.id}", one.side, motion))
    for part in parts_of(solids, "trundle"):
        b = part.box
        step = Step("slide", 0, (b.x1 - b.x0) * 0.9)
        found.append(("tray:trundle", "rear", Motion("", "Trundle drawer", (Moved(b),), (step,))))
    return tuple(found)
