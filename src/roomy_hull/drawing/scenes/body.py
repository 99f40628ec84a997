"""The body's elevation: tray, guards, canopy with its doors, carried items."""

from roomy_hull.assembly.assemble import Assembly
from roomy_hull.assembly.body import Ground
from roomy_hull.assembly.things import Thing
from roomy_hull.core.geometry.solids import Box
from roomy_hull.core.primitives import Disc, Lines, Outline, Scene, Stroke, line, rectangle
from roomy_hull.drawing.scenes.vehicle import wheel
from roomy_hull.drawing.view import View, carried_over
from roomy_hull.job.canopy import Canopy
from roomy_hull.job.carried import Carried
from roomy_hull.job.goods import CAB
from roomy_hull.kinds.expansion import Expansion
from roomy_hull.kit.body import sides
from roomy_hull.kit.body.pieces import parts_of
from roomy_hull.kit.body.sides import DoorPlace, stood


def tray(assembly: Assembly, view: View) -> list[Stroke]:
    """Draw the tray in an elevation: headboard, floor edge, rear guard, lamps."""
    ground = assembly.ground
    found: list[Stroke] = []
    if assembly.job.body.tray.kind == "hold":
        return found
    found += _under(ground, view)
    found += _guards(assembly, view)
    for part in parts_of(ground.tray, "rail", "headboard", "side", "tail"):
        if part.role == "side" and view.h[0] == 1:
            continue
        found.append(rectangle("tray", *view.rect(part.box), 4))
        if part.role == "headboard" and not part.id and view.h[0] == 1:
            found += _mesh(view.rect(part.box))
    floor = ground.floor
    edge = Box(floor.x0, floor.y0, floor.z1 - 70, floor.x1, floor.y1, floor.z1)
    beside = view.h[0] == 0 and view.k[0] == 2
    found.append(rectangle("tray edge", *view.rect(edge), 5))
    if beside:
        h0, k0, h1, _k1 = view.rect(edge)
        tail = h1 if view.h[1] > 0 else h0
        inner = tail - view.h[1] * 60
        found.append(rectangle("lamp red", min(tail, inner), k0 + 16, max(tail, inner), k0 + 54, 6))
    elif view.k[0] == 2 and view.near == (0, 1):
        half = floor.y1
        z = floor.z1 - 150
        for sign in (-1, 1):
            c = sign * (half - 170)
            found.append(rectangle("lamp red", c - 150, z - 50, c + 60, z + 30, 10))
            found.append(rectangle("lamp", c + 60, z - 50, c + 150, z + 30, 10))
        found.append(rectangle("plate", -185, z - 70, 185, z + 40, 8))
    return found


def _under(ground: Ground, view: View) -> list[Stroke]:
    """Draw toolboxes, trundle drawer and tank under the tray, those of the near side only."""
    found: list[Stroke] = []
    for part in ground.tray:
        box = part.box
        if part.role == "box" and view.h[0] == 0:
            near = box.y0 < 0 if view.near == (1, -1) else box.y1 > 0
            if near:
                h0, k0, h1, k1 = view.rect(box)
                found.append(rectangle("front", h0, k0, h1, k1, 10))
                found.append(rectangle("detail", h0 + 12, k0 + 12, h1 - 12, k1 - 12, 6))
                found.append(Disc("fitting", ((h0 + h1) / 2, k1 - 40), 12))
        elif part.role == "trundle" and view.h[0] == 1:
            found.append(rectangle("front", *view.rect(box), 8))
    return found


def between_rails(ground: Ground, view: View) -> list[Stroke]:
    """Draw what hangs between the chassis rails, to be painted before wheels and rails."""
    shown = parts_of(ground.tray, "tank")
    if view.h[0] != 1:
        shown += parts_of(ground.tray, "trundle")
    return [rectangle("tank" if p.role == "tank" else "front", *view.rect(p.box), 8) for p in shown]


def _mesh(rect: tuple[float, float, float, float]) -> list[Stroke]:
    """Draw a headboard's posts."""
    h0, k0, h1, k1 = rect
    across = tuple(h0 + (h1 - h0) * i / 6 for i in range(1, 6))
    return [Lines("detail", tuple(((h, k0), (h, k1)) for h in across))]


def _guards(assembly: Assembly, view: View) -> list[Stroke]:
    """Draw the mudguards as they are cut, with the brackets that hang them, from a side or from behind. [mm]"""
    stills = [p for p in assembly.ground.fixed if p.role == "mudguard"]
    if view.k[0] != 2:
        return []
    if view.h[0] == 0:
        rings = (p.piece.ring for p in stills if p.side == "left")
        return [Outline("trim", tuple((h * view.h[1], k) for h, k in ring)) for ring in rings]
    behind = (p.piece.box for p in stills if p.piece.box.x0 > assembly.job.vehicle.wheelbase)
    return [rectangle("trim", *view.rect(box)) for box in behind] if view.near == (0, 1) else []


def canopy(assembly: Assembly, view: View, side: str) -> list[Stroke]:
    """Draw the canopy's wall as seen, its openings, and its doors standing open (dashed)."""
    ground, body = assembly.ground, assembly.job.body.canopy
    box = ground.canopy
    if box is None or body is None:
        return []
    return shell(view, box, body, side)


def leaves(view: View, box: Box, body: Canopy, side: str) -> list[Stroke]:
    """Draw the doors of one wall of a canopy or another room. [mm]"""
    return [s for d in sides.doors(body) if d.door.side == side for s in _door(view, box, d)]


def shell(view: View, box: Box, body: Canopy, side: str, *, rails: bool = True) -> list[Stroke]:
    """Draw a canopy, or another room that is made as one: its wall as seen, roof rails, doors.

    Args:
        box: Its outside in vehicle axes. [mm]
        rails: Whether it has roof rails.
    Returns: From back to front; of a vehicle's own space its doors only. [mm]
    """
    h0, k0, h1, k1 = view.rect(box)
    if body.kind == "cargo":
        return leaves(view, box, body, side)
    k0 += body.base
    found: list[Stroke] = [rectangle("canopy", h0, k0, h1, k1, 22)]
    found.append(line("detail", (h0 + 14, k1 - 26), (h1 - 14, k1 - 26)))
    for rail in (0.12, 0.5, 0.88) if rails else ():
        c = h0 + (h1 - h0) * rail
        found.append(rectangle("trim", c - 22, k1, c + 22, k1 + 34, 6))
    if rails:
        found.append(rectangle("trim", h0 + 30, k1 + 28, h1 - 30, k1 + 52, 10))
    return found + leaves(view, box, body, side)


def _door(view: View, box: Box, place: DoorPlace) -> list[Stroke]:
    """Draw a clear opening, the edge of its rebate, and its raised leaf; a let-down half below it."""
    side = place.door.side
    h0, k0, h1, k1 = view.rect(stood(box, side, place.clear, 0.0, 1.0))
    opening = rectangle("opening", h0, k0, h1, k1, 30)
    leaf = next((one for one in place.leaves if one.made), None)
    if leaf is None:
        return [opening]
    r0, s0, r1, s1 = view.rect(stood(box, side, place.rebate, 0.0, 1.0))
    l0, _l, l1, _top = view.rect(stood(box, side, leaf.rect, 0.0, 1.0))
    rise = (k1 - k0) * 0.21
    top = s1 + 6
    strut = top + rise * 0.45
    split = place.door.split
    down = [rectangle("moving", l0, k0 - split, l1, k0, 10)] if split else []
    return [
        Outline("detail", ((r0, s0), (r1, s0), (r1, s1), (r0, s1)), radius=30),
        opening,
        *down,
        Outline("moving", ((l0, top), (l1, top), (l1 + 25, top + rise), (l0 - 25, top + rise))),
        line("moving line", (h0 + 30, k1 - 120), (h0 - 10, strut)),
        line("moving line", (h1 - 30, k1 - 120), (h1 + 10, strut)),
    ]  # fmt: skip


def bays(ground: Ground, view: View, side: str) -> list[Stroke]:
    """Draw the bays reached from a side: outline and slotted rail, the struts beside its openings."""
    found: list[Stroke] = []
    for place in ground.bays.values():
        if place.bay.side != side:
            continue
        h0, k0, h1, k1 = view.rect(place.frame.box(place.size))
        found.append(rectangle("bay", h0, k0, h1, k1, tag=f"bay:{place.bay.id}"))
        pitch = place.bay.pitch
        if pitch > 0:
            count = int((h1 - h0) / pitch)
            sign = view.h[1] if side != "rear" else 1
            start = h0 if sign > 0 else h1
            marks = (start + sign * i * pitch for i in range(count + 1))
            found.append(Lines("rail slot", tuple(((m, k0 - 13), (m, k0 - 3)) for m in marks)))
    found += [
        rectangle("bought dark", *view.rect(p.piece.box), 9)
        for p in ground.shut if p.role == "strut" and p.side == side
    ]  # fmt: skip
    return found


def carried(thing: Thing, view: View, tyre: str) -> Scene:
    """Draw a carried item as seen. [mm]"""
    item = thing.value
    if not isinstance(item, Carried):
        return ()
    if item.place == CAB:
        return (rectangle("behind skin", *view.rect(thing.envelope), 20, item.id),)
    return _outside(item, view, view.rect(thing.envelope), tyre)


def _outside(item: Carried, view: View, rect: tuple[float, ...], tyre: str) -> Scene:
    """Draw what is carried outside. [mm]"""
    h0, k0, h1, k1 = rect
    tag = item.id
    end_on = view.h[0] == 0
    if item.kind == "spare wheel":
        if end_on or view.k[0] != 2:
            return (
                rectangle("tyre", h0, k0, h1, k1, 70, tag),
                rectangle(
                    "steel", h0 + 40, (k0 + k1) / 2 - 30, h1 - 20, (k0 + k1) / 2 + 30, 8, tag
                ),
            )
        centre = ((h0 + h1) / 2, (k0 + k1) / 2)
        return carried_over(tuple(wheel(centre, tyre)), 1, 0.0, 0.0, tag)
    if item.kind == "jerry":
        return (
            rectangle("jerry", h0, k0, h1, k1, 30, tag),
            line("detail", (h0 + 20, k0 + 60), (h1 - 20, k1 - 90), tag=tag),
            line("detail", (h1 - 20, k0 + 60), (h0 + 20, k1 - 90), tag=tag),
            rectangle(
                "trim", h0 + (h1 - h0) * 0.25, k1 - 8, h1 - (h1 - h0) * 0.25, k1 + 26, 8, tag
            ),
        )
    if item.kind == "tent":
        return (
            rectangle("canvas", h0, k0, h1, k1, 36, tag),
            line(
                "detail",
                (h0 + 10, k0 + (k1 - k0) * 0.28),
                (h1 - 10, k0 + (k1 - k0) * 0.28),
                tag=tag,
            ),
        )
    drawn = _hung(h0, k0, h1, k1, item, upright=view.k[0] == 2)
    return drawn or _load(h0, k0, h1, k1, item, end_on and view.k[0] == 2)


def _hung(h0: float, k0: float, h1: float, k1: float, item: Carried, *, upright: bool) -> Scene:  # ruff: ignore[too-many-return-statements]  # one return for each role of a body part
    """Draw an awning's case, a bracket, a ladder, lights, an aerial or boards; nothing for others."""
    tag, wide, high = item.id, h1 - h0, k1 - k0
    if item.kind in ("awning", "shower tent"):
        role = "canvas" if item.kind == "awning" else "trim"
        return (rectangle(role, h0, k0, h1, k1, min(wide, high) * 0.3, tag),
                line("detail", (h0 + 8, k0 + high * 0.3), (h1 - 8, k0 + high * 0.3), tag=tag))  # fmt: skip
    if item.kind == "ladder" and upright and wide > 100:
        rungs = max(2, int(high / 280))
        rows = tuple(
            ((h0, k0 + high * (n + 0.5) / rungs), (h1, k0 + high * (n + 0.5) / rungs))
            for n in range(rungs)
        )
        return (rectangle("trim", h0, k0, h0 + 34, k1, 10, tag), rectangle("trim", h1 - 34, k0, h1, k1, 10, tag),
                Lines("strap", rows, tag))  # fmt: skip
    if item.kind == "light bar":
        found: list[Stroke] = [rectangle("trim", h0, k0, h1, k1, 10, tag)]
        count = int(wide // 90)
        found += [Disc("lamp", (h0 + wide * (n + 0.5) / count, (k0 + k1) / 2), min(high, 70) * 0.36, tag)
                  for n in range(count)]  # fmt: skip
        return tuple(found)
    if item.kind == "aerial":
        c = (h0 + h1) / 2
        if not upright:
            return (Disc("trim", (c, (k0 + k1) / 2), 20, tag),)
        return (
            rectangle("trim", h0, k0, h1, k0 + 90, 8, tag),
            line("steel line", (c, k0 + 90), (c, k1), tag=tag),
        )
    if item.kind == "recovery boards":
        slots = tuple(
            ((h0 + wide * n / 9, k0 + high * 0.2), (h0 + wide * n / 9, k1 - high * 0.2))
            for n in range(1, 9)
        )
        return (rectangle("jerry", h0, k0, h1, k1, 14, tag), Lines("detail", slots, tag))
    return ()


def _load(h0: float, k0: float, h1: float, k1: float, item: Carried, long_side: bool) -> Scene:
    """Draw a load: a long one on the roof as an upturned hull with straps, else a cargo box."""
    tag = item.id
    if long_side and item.on_roof and item.length > 2 * item.width:
        rise = k1 - k0
        hull: Stroke = Outline("load", (
            (h0, k0), (h1, k0), (h1 - 60, k0 + rise * 0.55), (h1 - 420, k1),
            (h0 + 420, k1), (h0 + 60, k0 + rise * 0.55)), radius=110, tag=tag)  # fmt: skip
    else:
        hull = rectangle("load", h0, k0, h1, k1, 60, tag)
    straps = [
        line("strap", (h0 + (h1 - h0) * share, k0), (h0 + (h1 - h0) * share, k1), tag=tag)
        for share in (0.3, 0.7)
    ]
    return (hull, line("detail", (h0 + 8, k0 + 26), (h1 - 8, k0 + 26), tag=tag), *straps)


def rack(assembly: Assembly, view: View) -> list[Stroke]:
    """Draw the legs under what rides on the roof, down to the surface below it."""
    found: list[Stroke] = []
    ground = assembly.ground
    for thing in assembly.things:
        item = thing.value
        if not (isinstance(item, Carried) and item.on_roof and not item.on) or view.k[0] != 2:
            continue
        box = thing.envelope
        for share in (0.2, 0.8):
            if view.h[0] == 0:
                x = box.x0 + (box.x1 - box.x0) * share
                top = (
                    ground.cab.z1 - 14
                    if x < ground.cab.x1 - 60
                    else (ground.canopy.z1 if ground.canopy is not None else ground.floor.z1)
                )
                h = x * view.h[1]
            else:
                h = (box.y0 + (box.y1 - box.y0) * share) * view.h[1]
                top = ground.canopy.z1 if ground.canopy is not None else ground.cab.z1
            if box.z0 - top > 10:
                found.append(rectangle("trim", h - 16, top, h + 16, box.z0, 4))
        h0, _k0, h1, _k1 = view.rect(box)
        found.append(rectangle("trim", h0 + 60, box.z0 - 24, h1 - 60, box.z0, 6))
    return found


def lone(item: Carried, box: Box) -> Thing:
    """Make a thing of a carried item standing by itself, for its picture. [mm]"""
    expansion = Expansion((), (), (), (), box, ())
    return Thing(item.id, item.ref, item, expansion, None, box, box, (box,), (), ())
