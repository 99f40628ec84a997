"""Placing: where a carried thing from the stores goes first."""

from roomy_hull.core.geometry.solids import Box
from roomy_hull.job.carried import Carried
from roomy_hull.kit.carried import box_of
from roomy_hull.session.finding_room import side_of
from roomy_hull.verdict.verdict import Verdict


def carried_place(verdict: Verdict, made: Carried, station: str) -> Carried:
    """Put a carried item where such things go: on the roof, the wall, the bonnet, or behind the tray.

    Parameters
    ----------
    verdict : Verdict
        The job as it stands.
    made : Carried
        What comes from the stores. [mm]
    station : str
        Where one stands: awnings and brackets hang on that side.

    Returns
    -------
    Carried
        The same thing in its first place, clear of others behind the tray and on the roof. [mm]
    """
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
            box = box_of(there)
            if all(box.common(other) is None for other in taken):
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
