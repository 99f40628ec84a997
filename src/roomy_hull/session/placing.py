"""Placing: where a carried thing from the stores goes first."""

from typing import Any

from roomy_hull.core.geometry.solids import Box
from roomy_hull.job.carried import Carried
from roomy_hull.job.goods import CAB
from roomy_hull.kit.body.racks import MOUNTS
from roomy_hull.kit.carried import box_of
from roomy_hull.kit.vehicle_pieces import contains
from roomy_hull.session.finding_room import side_of
from roomy_hull.verdict.verdict import Verdict


def carried_place(verdict: Verdict, made: Carried, station: str) -> Carried:
    """Put a carried item where such things go: on the roof, the wall, the bonnet, or behind the tray.

    Args:
        made: What comes from the stores. [mm]
        station: Where one stands: awnings and brackets hang on that side.
    Returns: The same thing in its first place, clear of others behind the tray and on the roof. [mm]
    """
    if made.kind in FITTED:
        return _fitted(verdict, made)
    if made.place == CAB:
        return _in_cab(verdict, made, station)
    return _on_rack(verdict, made) or _by_itself(verdict, made, station)


def _by_itself(verdict: Verdict, made: Carried, station: str) -> Carried:
    """Put a carried item on the roof, the wall, or behind the tray, clear of others. [mm]"""
    ground, things = verdict.assembly.ground, verdict.assembly.things
    shape = verdict.job.vehicle.shape
    if made.kind == "aerial":
        return made.but(x=-shape.front - 40.0, y=-shape.width / 2 + 250, z=shape.sill + 300)
    if made.kind in ("awning", "shower tent") and ground.canopy is not None:
        hung = _on_wall(made, ground.canopy, station)
        others = [t.envelope for t in things if isinstance(t.value, Carried)]
        return _clear_along(hung, others, ground.canopy)
    if made.on_roof:
        box = ground.canopy or ground.floor
        taken = [t.envelope.z1 for t in things if isinstance(t.value, Carried) and t.value.on_roof]
        top = max([box.z1 + 60, *(z + 20 for z in taken)])
        return made.but(x=box.centre()[0], y=0.0, z=top)
    floor = ground.floor
    behind = [
        t.envelope for t in things if isinstance(t.value, Carried) and t.envelope.x1 > floor.x1
    ]
    z = max(floor.z1 - 260, 560.0)
    half = made.width / 2
    if made.turn:
        # Its post stands at the tray's corner, so that it swings clear of the rear door.
        sign = -1 if made.hand == "left" else 1
        return made.but(
            x=floor.x1 + 20 + made.length / 2, y=sign * (floor.y1 - 45 - made.reach - half), z=z
        )
    steps = sorted((n * 25.0 for n in range(-40, 41)), key=abs)
    for y in (s for s in steps if abs(s) + half <= floor.y1 + 150):
        if all(b.y1 <= y - half or b.y0 >= y + half for b in behind):
            return made.but(x=floor.x1 + 20 + made.length / 2, y=y, z=z)
    rear = max(b.x1 for b in behind) if behind else floor.x1
    return made.but(x=rear + 20 + made.length / 2, y=0.0, z=z)


FITTED = frozenset({"bull bar", "winch", "steps", "battery", "hitch", "snorkel"})
"""What is bolted to the vehicle itself."""
HUNG = frozenset({"spare wheel", "jerry", "ladder", "table", "bag"})
"""What hangs on a rear wall or a hoop."""
LAID = frozenset({"tent", "load", "recovery boards"})
"""What lies on a rack's deck."""


def _free(item: Carried, taken: list[Box]) -> bool:
    """Whether a thing lies in none of some boxes."""
    box = box_of(item)
    return all(box.common(other) is None for other in taken)


def _fitted(verdict: Verdict, made: Carried) -> Carried:
    """Put what is bolted to the vehicle where it belongs. [mm]"""
    v = verdict.job.vehicle
    s, half = v.shape, made.length / 2
    have = [t.value for t in verdict.assembly.things if isinstance(t.value, Carried)]
    rear = made.kind == "winch" and "rear" in made.id
    # Behind the wheel as it turns, up to the cab's back.
    front = v.axle_height() + 200.0
    long = min(made.length, max(400.0, v.cab_back - front - 40))
    right = any(c.kind == "steps" and c.y < 0 for c in have)
    side = 1 if v.drive == "right" else -1
    places: dict[str, dict[str, Any]] = {
        "bull bar": {"x": -s.front - half - 10, "z": s.sill - 40.0},
        "winch": {"x": -s.front - half - 20, "z": s.sill + 20.0},
        "steps": {"x": front + long / 2, "y": (1 if right else -1) * (s.width / 2 + made.width / 2 - 30),
                  "z": s.sill - made.height - 110, "length": long},
        "hitch": {"x": v.tow.x - half, "z": v.tow.z - made.height},
        "snorkel": {"x": s.windscreen - 60, "y": side * (s.width / 2 + made.width / 2 + 8), "z": s.bonnet - 80,
                    "height": max(300.0, s.height - s.bonnet + 60)},
    }  # fmt: skip
    if made.kind == "battery":
        # Inward from the guard until the wheel as it turns is clear of it.
        rooms = [p.piece.box for p in verdict.assembly.ground.rooms]
        tries = (made.but(x=s.windscreen - 230 - n * 60, y=-s.width / 2 + 320 + m * 60, z=s.bonnet - 300.0)
                 for m in range(8) for n in range(6))  # fmt: skip
        return next((t for t in tries if _free(t, rooms)), made)
    if rear:
        taken = [t.envelope for t in verdict.assembly.things if isinstance(t.value, Carried)]
        spots = (made.but(x=v.chassis_end - half - 60 - n * 60, z=v.rail_top - made.height, place="under")
                 for n in range(8))  # fmt: skip
        return next((t for t in spots if _free(t, taken)), made)
    return made.but(**places[made.kind])


def _in_cab(verdict: Verdict, made: Carried, station: str) -> Carried:
    """Put a small place of the cab where it belongs: a pocket in a door, a console between the seats. [mm]"""
    v, ground = verdict.job.vehicle, verdict.assembly.ground
    s, cab = v.shape, dict(ground.insides)[CAB]
    taken = [t.envelope for t in verdict.assembly.things if t.place is None]
    taken += [p.piece.box for p in ground.rooms]
    # Doors are taller than their pockets, consoles stand on the tunnel.
    slim = made.width < 150
    first = -1 if side_of(station) != "right" else 1
    rows = [n * (s.width / 2 - 60 - made.width / 2) for n in (first, -first)] if slim else [0.0]
    z = s.sill + (140.0 if slim else 260.0)
    # Behind the arch of the wheel, where so short a cab has the room.
    ahead = min(v.axle_height() + 160.0, v.cab_back - made.length - 90.0)
    tries = (
        made.but(x=x, y=y, z=z)
        for n in range(80)
        for y in rows
        if (x := ahead + made.length / 2 + n * 25.0) < v.cab_back
    )
    return next(
        (t for t in tries if contains(cab, box_of(t)) <= 0 and _free(t, taken)),
        made.but(x=ahead + made.length / 2, y=rows[0], z=z),
    )


def _on_rack(verdict: Verdict, made: Carried) -> Carried | None:
    """Fix a thing to the first rack that takes it, at the first free place; none where no rack does."""
    ground = verdict.assembly.ground
    taken = [t.envelope for t in verdict.assembly.things if isinstance(t.value, Carried)]
    upright = made.kind in HUNG and not made.turn
    if not upright and made.kind not in LAID:
        return None
    for rack in ground.racks:
        if rack.upright != upright:
            continue
        lies = made.but(
            on=rack.rack.id, mount=MOUNTS[rack.rack.kind], on_roof=rack.rack.kind == "cab rack"
        )
        box = rack.deck
        pitch = rack.rack.pitch
        low, high = (box.y0, box.y1) if upright else (box.x0, box.x1)
        middle = (low + high) / 2
        # A wall is filled from its left, so that the most finds room; on a deck things lie in the middle.
        for n in range(-60, 61) if upright else sorted(range(-60, 61), key=abs):
            at = middle + n * pitch
            if not low <= at <= high:
                continue
            first = lies.but(
                **({"y": at, "z": box.z0} if upright else {"x": at, "y": box.centre()[1]})
            )
            there = first.but(**rack.nearest(first))
            if _free(there, taken):
                return there
    return None


def _clear_along(item: Carried, taken: list[Box], canopy: Box) -> Carried:
    """Shift a hung thing along its wall, or else up, until it is clear of what hangs there. [mm]"""
    along, long = ("y", item.width) if item.side == "rear" else ("x", item.length)
    low, high = (canopy.y0, canopy.y1) if item.side == "rear" else (canopy.x0, canopy.x1)
    middle = getattr(item, along)
    for up in (0.0, 140.0, 280.0):
        for by in sorted((n * 25.0 for n in range(-60, 61)), key=abs):
            if by and not low <= middle + by - long / 2 <= middle + by + long / 2 <= high:
                continue
            there = item.but(z=item.z + up, **{along: middle + by})
            if _free(there, taken):
                return there
    return item


def _on_wall(made: Carried, canopy: Box, station: str) -> Carried:
    """Hang an awning or bracket on the roof's edge of the side where one stands, above its door. [mm]"""
    side = side_of(station) or made.side
    z, out = canopy.z1 + 40, made.width / 2 + 6
    if side == "rear":
        turned = made.but(length=made.width, width=made.length)
        return turned.but(x=canopy.x1 + out, y=0.0, z=z, side="rear")
    y = canopy.y0 - out if side == "left" else canopy.y1 + out
    return made.but(x=canopy.centre()[0], y=y, z=z, side=side)
