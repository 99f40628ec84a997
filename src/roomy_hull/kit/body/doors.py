"""Doors: how canopy doors, drop sides, toolboxes and the trundle drawer open, in vehicle axes."""

from roomy_hull.core.geometry.motion import Motion, Moved, Step
from roomy_hull.core.geometry.solids import Box
from roomy_hull.job.body import Canopy, Door, Tray
from roomy_hull.kit.body.canopy import door_box
from roomy_hull.kit.body.pieces import BodyParts, parts_of

PANEL_GAP = 5.0
"""Gap around a leaf (common practice). [mm]"""


def _leaf_box(opening: Box, side: str, thick: float) -> Box:
    """A leaf in its opening: a panel gap smaller all round, flush with the outside. [mm]"""
    g = PANEL_GAP
    x0, y0, z0, x1, y1, z1 = opening
    if side == "rear":
        return Box(x1 - thick, y0 + g, z0 + g, x1, y1 - g, z1 - g)
    if side == "left":
        return Box(x0 + g, y0, z0 + g, x1 - g, y0 + thick, z1 - g)
    return Box(x0 + g, y1 - thick, z0 + g, x1 - g, y1, z1 - g)


def _turn(leaf: Box, side: str, hinge: str, degrees: float) -> Step:
    """The step by which a leaf turns out about one of its outer edges. [mm, degrees]"""
    if hinge in ("top", "bottom"):
        # A let-down leaf hangs on straps, so that it lies just below its sill when it is level.
        thick = min(leaf.x1 - leaf.x0, leaf.y1 - leaf.y0)
        z = leaf.z1 if hinge == "top" else leaf.z0 - thick - 2 * PANEL_GAP
        axis, out = (1, leaf.x1) if side == "rear" else (0, leaf.y0 if side == "left" else leaf.y1)
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

    Parameters
    ----------
    canopy : Canopy
        The canopy.
    box : Box
        Its outside in vehicle axes. [mm]

    Returns
    -------
    tuple of (id, side, Motion)
        A let-down half is a leaf of its own, its id ending in ``:half``.
    """
    found = []
    thick = max(2.0, min(30.0, canopy.wall - PANEL_GAP))
    for door in canopy.doors:
        opening = _leaf_box(door_box(box, door), door.side, thick)
        name = (
            f"{door.side.capitalize()} door"
            if door.id in ("left", "right", "rear")
            else f"Door {door.id}"
        )
        upper = opening._replace(z0=opening.z0 + door.split)
        hinge = "top" if door.split else door.hinge
        found.append((f"door:{door.id}", door.side, _leaf(name, upper, door, hinge, door.swing)))
        if door.split:
            lower = opening._replace(z1=opening.z0 + door.split - PANEL_GAP)
            motion = _leaf(f"Let-down half of {name.lower()}", lower, door, "bottom", 90.0)
            found.append((f"door:{door.id}:half", door.side, motion))
    return tuple(found)


def _leaf(name: str, leaf: Box, door: Door, hinge: str, degrees: float) -> Motion:
    """One leaf's motion."""
    return Motion("", name, (Moved(leaf),), (_turn(leaf, door.side, hinge, degrees),))


def tray_doors(tray: Tray, solids: BodyParts) -> tuple[tuple[str, str, Motion], ...]:
    """The motion of drop sides, toolbox doors and the trundle drawer.

    Parameters
    ----------
    tray : Tray
        The tray.
    solids : tuple of BodyPart
        Its solids in vehicle axes. [mm]

    Returns
    -------
    tuple of (id, side, Motion)
        Drop sides and tailboard hang down by 180 degrees, toolbox doors let down by 100.
    """
    found: list[tuple[str, str, Motion]] = []
    for part in parts_of(solids, "side", "tail"):
        leaf, side = part.box, part.side or "rear"
        key = f"side-{side}" if part.role == "side" else "tail"
        name = "Tailboard" if part.role == "tail" else f"Drop side {side}"
        turn = _turn(leaf, side, "bottom", 180.0)
        found.append((f"tray:{key}", side, Motion("", name, (Moved(leaf),), (turn,))))
    boxes = {p.id: p.box for p in parts_of(solids, "box")}
    for one in tray.boxes:
        b = boxes[one.id]
        leaf = b._replace(y1=b.y0 + 20) if one.side == "left" else b._replace(y0=b.y1 - 20)
        motion = Motion(
            "", f"{one.name} {one.id}", (Moved(leaf),), (_turn(leaf, one.side, "bottom", 100.0),)
        )
        found.append((f"tray:box-{one.id}", one.side, motion))
    for part in parts_of(solids, "trundle"):
        b = part.box
        step = Step("slide", 0, (b.x1 - b.x0) * 0.9)
        found.append(("tray:trundle", "rear", Motion("", "Trundle drawer", (Moved(b),), (step,))))
    return tuple(found)
