"""What else is built and fitted: rooms beside the canopy, racks, and things bolted to the vehicle."""

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.body import Ground
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.primitives import Disc, Lines, Outline, Scene, Stroke, line, rectangle
from roomy_hull.drawing.scenes import body as body_scene
from roomy_hull.drawing.view import View
from roomy_hull.job.canopy import Canopy
from roomy_hull.job.carried import Carried
from roomy_hull.kit.body import canopy as canopy_kit
from roomy_hull.kit.body import rooms as room_kit
from roomy_hull.kit.body.rooms import RoomPlace

VEHICLE_KINDS = frozenset({"bull bar", "winch", "steps", "battery", "hitch", "snorkel"})
"""Carried things that are bolted to the vehicle."""


def rooms(assembly: Assembly, view: View, side: str) -> list[Stroke]:
    """Draw the rooms beside the canopy as seen, the furthest first.

    Returns: Walls with their doors; a bought camper with its alcove; a room of the vehicle's own has none. [mm]
    """
    found: list[Stroke] = []
    there = sorted(assembly.ground.rooms_there, key=lambda r: view.nearness(r.box))
    for one in there:
        if one.room.vehicles_own:
            continue
        if one.alcove is not None:
            found.append(rectangle("canopy", *view.rect(one.alcove), 60))
        if one.room.made:
            found += body_scene.shell(
                view, one.box, one.room.shell, side, rails=one.room.kind != "side box"
            )
        else:
            found += _camper(view, one, side)
    return found


def _camper(view: View, one: RoomPlace, side: str) -> list[Stroke]:
    """Draw a bought body: its outline, a band under its roof, its doors, its tie-downs."""
    h0, k0, h1, k1 = view.rect(one.box)
    found: list[Stroke] = [rectangle("canopy", h0, k0, h1, k1, 60)]
    found.append(line("detail", (h0 + 20, k1 - 90), (h1 - 20, k1 - 90)))
    found += body_scene.leaves(view, one.box, one.room.shell, side)
    if one.room.tie_downs and view.h[0] == 0:
        found += [
            line("strap", (h, k0 + 120), (h + s * 70, k0 - 60))
            for h, s in ((h0 + 60, -1), (h1 - 60, 1))
        ]
    return found


def ghosts(assembly: Assembly, view: View, off: frozenset[str]) -> list[Stroke]:
    """Draw where rooms and racks stand that are off in the set-up, dashed. [mm]"""
    if not off:
        return []
    ground = assembly.ground
    boxes = [r.box for r in ground.rooms_there if r.room.id in off]
    boxes += [r.box for r in ground.racks if r.rack.id in off]
    return [rectangle("space", *view.rect(b), 20) for b in boxes]


def plan_rooms(assembly: Assembly, view: View) -> list[Stroke]:
    """Draw the rooms cut open from above: walls hatched, doors, inside. [mm]"""
    found: list[Stroke] = []
    for one in assembly.ground.rooms_there:
        if one.alcove is not None:
            found.append(rectangle("overhead", *view.rect(one.alcove), 40))
        found.append(rectangle("inside plan", *view.rect(one.inside)))
        level = (one.inside.z0 + one.inside.z1) / 2
        found += [
            rectangle("cut", *view.rect(p.box))
            for p in room_kit.solids(one) if p.role != "alcove" and p.box.z0 < level < p.box.z1
        ]  # fmt: skip
    return found


def plan_canopy(ground: Ground, canopy: Canopy, view: View, box: Box, clear: Box) -> list[Stroke]:
    """Draw the canopy cut open from above: inside, walls, what reaches in, doors. [mm]"""
    found: list[Stroke] = []
    found.append(rectangle("inside plan", *view.rect(clear)))
    # Cut at half height: walls, posts between doors and divider as they stand, the leaves shut.
    level = (box.z0 + canopy.base + clear.z1) / 2
    found += [
        rectangle("cut", *view.rect(p.box))
        for p in canopy_kit.solids(canopy, box) if p.box.z0 < level < p.box.z1
    ]  # fmt: skip
    found += [
        rectangle("bought dark", *view.rect(p.piece.box))
        for p in ground.shut if p.piece.box.z0 < level < p.piece.box.z1
    ]  # fmt: skip
    found += [
        rectangle("door gap", *view.rect(o.rest_box))
        for o in ground.openings if o.kind == "door" and o.rest_box.z0 < level < o.rest_box.z1
    ]  # fmt: skip
    return found


def racks(assembly: Assembly, view: View) -> list[Stroke]:
    """Draw racks as their bars and sheets stand, the furthest first, each with its feet. [mm]"""
    rows: list[tuple[float, Stroke]] = []
    for one in assembly.ground.racks:
        bars = len(one.members)
        for n, box in enumerate(one.boxes):
            role = "steel" if one.rack.bar_material.startswith(("mild", "stainless")) else "trim"
            mark = rectangle(
                role if n < bars else "tray", *view.rect(box), 3, tag=f"rack:{one.rack.id}"
            )
            rows.append((view.nearness(box), mark))
        if view.k[0] == 2 and not one.upright:
            for x, y, z in one.feet:
                foot = Box(x - 45, y - 45, z - 12, x + 45, y + 45, z + 12)
                rows.append((view.nearness(foot), rectangle("bought dark", *view.rect(foot), 6)))
        if one.upright and view.h[0] == 1 and view.k[0] == 2:
            rows += [
                (view.nearness(one.box), s) for s in _slots(view, one.boxes[:bars], one.rack.pitch)
            ]
    rows.sort(key=lambda r: r[0])
    return [stroke for _near, stroke in rows]


def _slots(view: View, bars: tuple[Box, ...], pitch: float) -> list[Stroke]:
    """Mark the holes of rails that lie across."""
    found: list[Stroke] = []
    for box in bars:
        h0, k0, h1, k1 = view.rect(box)
        if h1 - h0 > k1 - k0:
            k = (k0 + k1) / 2
            rows = tuple(
                ((h0 + n * pitch - 5, k), (h0 + n * pitch + 5, k))
                for n in range(1, int((h1 - h0) // pitch) + 1) if h0 + n * pitch < h1 - 5
            )  # fmt: skip
            found.append(Lines("rail slot", rows))
    return found


def fitted(item: Carried, view: View, rect: tuple[float, float, float, float]) -> Scene:
    """Draw a thing that is bolted to the vehicle, as seen.

    Args:
        rect: Its outline there. [mm]
    Returns: Strokes with its id as tag. [mm]
    """
    h0, k0, h1, k1 = rect
    tag, wide, high = item.id, h1 - h0, k1 - k0
    side_on, upright = view.h[0] == 0, view.k[0] == 2
    found: Scene = (rectangle("bought dark", h0, k0, h1, k1, 12, tag),)
    if item.place == "bonnet":
        return (rectangle("behind skin", h0, k0, h1, k1, 12, tag),)
    if item.kind == "bull bar" and upright:
        found = _bull_bar(view, rect, tag)
    elif item.kind == "winch" and upright and not side_on:
        found = (
            rectangle("bought dark", h0, k0, h1, k1, 20, tag),
            rectangle("trim", h0 + wide * 0.3, k0 + 14, h1 - wide * 0.3, k1 - 14, 8, tag),
        )
    elif item.kind == "steps":
        found = (
            rectangle("trim", h0, k0, h1, k1, 20, tag),
            line("detail", (h0 + 20, (k0 + k1) / 2), (h1 - 20, (k0 + k1) / 2), tag=tag),
        )
    elif item.kind == "hitch":
        end = (h0 + h1) / 2 if not side_on else (h1 if view.h[1] > 0 else h0)
        found = (rectangle("steel", h0, k0, h1, k1, 10, tag), Disc("steel", (end, k1), 25, tag))
    elif item.kind == "snorkel" and upright:
        top = k1 - min(130.0, high * 0.3)
        found = (
            rectangle("trim", h0, k0, h1, top + 40, 20, tag),
            rectangle("trim", h0 - 30, top, h1 + 30, k1, 30, tag),
        )
    return found


def _bull_bar(view: View, rect: tuple[float, float, float, float], tag: str) -> Scene:
    """Draw a bull bar: a sloping bumper from the side, a bumper with three hoops from the front."""
    h0, k0, h1, k1 = rect
    wide, high = h1 - h0, k1 - k0
    if view.h[0] == 0:
        nose, back = (h0, h1) if view.h[1] > 0 else (h1, h0)
        ring = ((back, k0), (nose, k0 + high * 0.1), (nose, k0 + high * 0.55), (back, k1))
        return (Outline("steel", ring, radius=30, tag=tag),)
    third, low = wide / 3, k0 + high * 0.3
    hoops = tuple(
        Outline("steel line", ((a, low), (a, k1), (a + third, k1), (a + third, low)), radius=50, tag=tag)
        for a in (h0, h0 + third, h0 + 2 * third)
    )  # fmt: skip
    return (rectangle("steel", h0, k0, h1, k0 + high * 0.42, 40, tag), *hoops)
