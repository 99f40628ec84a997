"""First rooms and racks for a body as it stands: proposals to be changed, and how they are taken away again."""

from collections.abc import Callable

import msgspec

from roomy_hull.core.errors import InputError
from roomy_hull.job.canopy import Access, Bay, Canopy, Door
from roomy_hull.job.edits.layouts import slug
from roomy_hull.job.model import Job
from roomy_hull.job.rooms import Room
from roomy_hull.kit.body import canopy as canopy_kit
from roomy_hull.kit.body import racks as rack_kit
from roomy_hull.kit.body import rooms as room_kit
from roomy_hull.kit.body.doors_and_bays import body_ids, need_empty
from roomy_hull.kit.body.first_racks import APART, RACKS, first_rack
from roomy_hull.kit.body.fitting import CROSS_BOX, canopy_for
from roomy_hull.kit.body.subframe import floor_z, front_x

ROOMS: dict[str, str] = {
    "box": "Cross-box on the tray", "dog box": "Dog box on the tray", "side box": "Side box at the tray's edge",
    "camper": "Slide-in camper", "cab": "Cab bay in place of the rear seats", "hatch": "Hold under a lid",
}  # fmt: skip
"""Rooms that can be begun, and their words."""
LEAST_BOX = 450.0
"""A box shorter than this is not begun: it holds nothing that its walls do not. [mm]"""
DOG_BOX, SIDE_BOX, WIDE_TRAY = 900.0, 210.0, 1900.0
"""Length of a dog box; depth of a side box beside a camper, and from which width a tray keeps room for two. [mm]"""
CAMPER_KG_PER_M = 170.0
"""A bought slide-in body, empty, by the metre of its floor (common practice). [kg/m]"""


def added(job: Job, kind: str) -> Job:
    """Add a first room or rack of a kind where there is room for it.

    Args:
        kind: One of `ROOMS` or `RACKS`.
    Returns: The new job; the new part is the last of its list.
    Raises:
        InputError: There is no room for it, or this body takes none; says why.
    """
    body = job.body
    if len(body.rooms if kind in ROOMS else body.racks) >= 12:
        raise InputError("a body has at most 12 rooms and 12 racks", remedy="Take one away first.")
    try:
        if kind in ROOMS:
            body = body.but(rooms=(*body.rooms, _ROOMS[kind](job)))
        else:
            rack = first_rack(job, kind, slug(kind.replace(" ", "-"), _ids(job)))
            body = body.but(racks=(*body.racks, rack))
        return msgspec.structs.replace(job, body=body)
    except ValueError as trouble:
        words = {**ROOMS, **RACKS}[kind].lower()
        raise InputError(
            f"there is no room for a {words}: {trouble}", remedy="Change the sizes beside it first."
        ) from None


def taken_away(job: Job, key: str) -> Job:
    """Take a room or a rack away.

    Returns: The new job; things that were fixed to a rack stay where they are, set-ups forget it.
    Raises:
        InputError: Units stand in the room, in this layout or a kept one.
    """
    body, room = job.body, job.body.room(key)
    if room is not None:
        need_empty(job, {b.id for b in room.shell.bays}, room.name, "its bays")
    body = msgspec.structs.replace(
        body, rooms=tuple(r for r in body.rooms if r.id != key), racks=tuple(r for r in body.racks if r.id != key)
    )  # fmt: skip
    carried = tuple(msgspec.structs.replace(c, on="") if c.on == key else c for c in job.carried)
    setups = tuple(
        msgspec.structs.replace(s, off=tuple(o for o in s.off if o != key)) for s in job.setups
    )
    scenarios = tuple(
        msgspec.structs.replace(s, left_behind=tuple(o for o in s.left_behind if o != key)) for s in job.scenarios
    )  # fmt: skip
    return msgspec.structs.replace(
        job, body=body, carried=carried, setups=setups, scenarios=scenarios
    )


def _ids(job: Job) -> set[str]:
    """Every id that a room, rack, bay or door may not have again."""
    return {u.id for u in job.units} | {c.id for c in job.carried} | body_ids(job)


def _renamed(job: Job, shell: Canopy, key: str) -> Canopy:
    """A shell whose doors and bays have ids of their own, behind the room's."""
    taken = _ids(job) | {key}
    doors = tuple(msgspec.structs.replace(d, id=slug(f"{key}-{d.id}", taken)) for d in shell.doors)
    bays = tuple(
        msgspec.structs.replace(b, id=slug(f"{key}-{b.id}", taken), name=f"{shell.name}, {b.name.lower()}")
        for b in shell.bays
    )  # fmt: skip
    return msgspec.structs.replace(shell, doors=doors, bays=bays)


def _free(job: Job) -> tuple[float, float]:
    """The longest stretch of the tray's floor on which nothing stands, behind the tray's front. [mm]"""
    tray, vehicle = job.body.tray, job.vehicle
    x0 = front_x(vehicle, tray)
    taken: list[tuple[float, float]] = []
    outer = canopy_kit.outside(vehicle, job.body)
    boxes = [outer] if outer is not None else []
    boxes += [r.box for r in room_kit.places(vehicle, job.body) if not r.room.vehicles_own]
    boxes += [
        b for r in rack_kit.places(vehicle, job.body) if r.rack.kind in ("hoop", "gap rack") for b in (r.box,)
    ]  # fmt: skip
    taken = sorted((b.x0 - x0 - APART, b.x1 - x0 + APART) for b in boxes)
    best, at = (0.0, 0.0), 10.0
    end = tray.length - 10.0 - (tray.side_thickness if tray.sides else 0.0)
    for a, b in [*taken, (end, end)]:
        if a - at > best[1] - best[0]:
            best = (at, a)
        at = max(at, b)
    return best


def _need_tray(job: Job, what: str) -> None:
    if job.body.tray.kind != "tray":
        raise InputError(
            f"a {job.vehicle.kind} takes no {what}", remedy="It needs a tray to stand on."
        )


def _stretch(job: Job, wanted: float, what: str) -> tuple[float, float]:
    """Where something of a length goes on the tray: start and length. [mm]"""
    a, b = _free(job)
    if b - a < LEAST_BOX:
        raise InputError(
            f"the tray has {max(0.0, b - a):.0f} mm left for a {what}",
            remedy="Make the canopy shorter or the tray longer first.",
        )
    return a, min(wanted, b - a)


def _across(job: Job) -> float:
    """How wide a room on the tray is: between the drop sides. [mm]"""
    tray = job.body.tray
    return tray.width - 20.0 - 2 * (tray.side_thickness if tray.sides else 0.0)


def _box(job: Job) -> Room:
    """A box across the tray that leaves tray behind it, or ahead."""
    _need_tray(job, "cross-box")
    start, long = _stretch(job, CROSS_BOX, "cross-box")
    key = slug("box", _ids(job))
    shell = canopy_for(long, _across(job), 940.0, full=False, start=0.0)
    shell = msgspec.structs.replace(shell, name="Cross-box", jacks=False)
    return Room(id=key, kind="box", start=start, shell=_renamed(job, shell, key))


def _dog_box(job: Job) -> Room:
    """A box with a mesh door for a dog on the kerb side, and a bay for a fridge on the other."""
    _need_tray(job, "dog box")
    start, long = _stretch(job, DOG_BOX, "dog box")
    key, side = slug("dog-box", _ids(job)), job.vehicle.kerb_side()
    shell = canopy_for(long, _across(job), 900.0, full=False, start=0.0)
    doors = tuple(
        msgspec.structs.replace(d, leaf="mesh", second="sheet") if d.side == side else d for d in shell.doors
    )  # fmt: skip
    shell = msgspec.structs.replace(shell, name="Dog box", jacks=False, doors=doors)
    return Room(id=key, kind="dog box", start=start, shell=_renamed(job, shell, key))


def _side_box(job: Job) -> Room:
    """A narrow box at the tray's edge, beside a camper where there is one."""
    _need_tray(job, "side box")
    tray = job.body.tray
    campers = [r for r in job.body.rooms if r.kind == "camper"]
    taken = {(1 if r.across > 0 else -1) for r in job.body.rooms if r.kind == "side box"}
    sign = -1 if job.vehicle.kerb_side() == "left" else 1
    sign = -sign if sign in taken else sign
    inner = campers[0].shell.width / 2 + APART if campers else tray.width / 2 - 320.0
    wide = tray.width / 2 - inner
    if wide < 150:
        raise InputError(
            f"beside the camper there are {wide:.0f} mm", remedy="A side box wants 150 at least: make the tray wider."
        )  # fmt: skip
    if campers:
        start, long = campers[0].start, min(1200.0, campers[0].shell.length)
    else:
        start, long = _stretch(job, 1200.0, "side box")
    side: Access = "left" if sign < 0 else "right"
    key = slug(f"side-box-{side}", _ids(job))
    wall, high = 25.0, 550.0
    door = Door(id="door", side=side, start=wall + 20, length=long - 2 * wall - 40, sill=30.0, height=high - 80,
                hinge="bottom", swing=100.0)  # fmt: skip
    bay = Bay(id="bay", name="Inside", side=side, start=20, length=long - 2 * wall - 40, depth=wide - 2 * wall - 5,
              sill=30.0, height=high - 66.0)  # fmt: skip
    shell = Canopy(name=f"Side box {side}", length=long, width=wide, height=high, wall=wall, roof=30.0, frame="20x20x2",
                   divider=0.0, doors=(door,), bays=(bay,))  # fmt: skip
    return Room(
        id=key, kind="side box", start=start, across=sign * (inner + wide / 2), shell=_renamed(job, shell, key)
    )  # fmt: skip


def _camper(job: Job) -> Room:
    """A bought body that slides on to the tray: its floor as long as there is room, a bed over the cab."""
    _need_tray(job, "slide-in camper")
    start, long = _stretch(job, 2600.0, "slide-in camper")
    if long < 1500:
        raise InputError(
            f"a slide-in camper wants 1,500 mm of tray, and {long:.0f} are left",
            remedy="Make the tray longer, or take the canopy away.",
        )
    vehicle, tray = job.vehicle, job.body.tray
    key = slug("camper", _ids(job))
    floor = floor_z(vehicle, tray)
    over_up = max(200.0, vehicle.shape.height - floor + 80.0)
    high = max(1950.0, over_up + 700.0)
    # A wide flatbed keeps room for side boxes beside it.
    across = _across(job)
    wide = across - 2 * (SIDE_BOX + APART) if across > WIDE_TRAY else across
    door = Door(id="door", side="rear", start=wide / 2 - 300, length=600, sill=60.0, height=min(1700.0, high - 200),
                hinge="start", swing=110.0)  # fmt: skip
    bay = Bay(id="floor", name="Inside", side="rear", start=10, length=wide - 80, depth=long - 80, sill=60.0,
              height=high - 120, pitch=0.0)  # fmt: skip
    shell = Canopy(kind="cargo", name="Slide-in camper", length=long, width=wide, height=high, wall=30.0, roof=40.0,
                   divider=0.0, doors=(door,), bays=(bay,))  # fmt: skip
    over = min(1200.0, start + front_x(vehicle, tray) - vehicle.shape.roof_front)
    return Room(
        id=key, kind="camper", start=start, shell=_renamed(job, shell, key), mass=round(CAMPER_KG_PER_M * long / 1000, -1),
        mass_source="estimate", centre_along=round(over + long * 0.45), centre_up=round(high * 0.4), over=round(over),
        over_up=round(over_up),
    )  # fmt: skip


def _cab_bay(job: Job) -> Room:
    """The room behind the front seats: from their backs to the cab's back, at the sill's height."""
    vehicle, tray = job.vehicle, job.body.tray
    shape = vehicle.shape
    rows = sorted({s.x for s in vehicle.seats})
    front = rows[0] + 330.0
    back = vehicle.cab_back - 60.0
    if vehicle.kind == "wagon" and vehicle.hold is not None:
        back = min(back, vehicle.hold.start - 10.0)
    if back - front < 250:
        raise InputError(
            f"behind the front seats there are {max(0.0, back - front):.0f} mm",
            remedy="A cab bay wants 250: move the seats, or measure the cab again.",
        )
    key = slug("cab", _ids(job))
    low = shape.sill + 150.0
    high = min(shape.height - 150.0 - low, 900.0)
    wide = shape.width - 300.0
    bays = (
        Bay(id="bay", name="Behind the front seats", side="left", start=0, length=back - front - 10, depth=wide - 10,
            height=high - 10, pitch=0.0, also=("right", "inside")),
    )  # fmt: skip
    shell = Canopy(kind="cargo", name="Cab bay", length=back - front, width=wide, height=high, wall=5.0, roof=5.0,
                   divider=0.0, bays=bays)  # fmt: skip
    return Room(
        id=key, kind="cab", start=front - front_x(vehicle, tray), up=low - floor_z(vehicle, tray),
        shell=_renamed(job, shell, key), tie_downs=0,
    )  # fmt: skip


def _hatch(job: Job) -> Room:
    """A hold under the floor, reached through a lid from above and from behind."""
    tray = job.body.tray
    if tray.kind != "hold" or tray.false_floor < 120:
        raise InputError(
            "there is no false floor of 120 mm or more to put a lid in",
            remedy="Type a false floor on the stage Body first.",
        )
    key = slug("hold", _ids(job))
    deep = tray.false_floor - 20.0
    wide = tray.width - 2 * tray.wings - 20.0
    bay = Bay(id="bay", name="Under the lid", side="rear", start=0, length=wide - 10, depth=tray.length - 30,
              height=deep - 10, pitch=0.0, also=("top",))  # fmt: skip
    shell = Canopy(kind="cargo", name="Hold under the floor", length=tray.length - 20, width=wide, height=deep, wall=5.0,
                   roof=5.0, divider=0.0, bays=(bay,))  # fmt: skip
    return Room(id=key, kind="hatch", start=10, shell=_renamed(job, shell, key), tie_downs=0)


_ROOMS: dict[str, Callable[[Job], Room]] = {
    "box": _box, "dog box": _dog_box, "side box": _side_box, "camper": _camper, "cab": _cab_bay, "hatch": _hatch,
}  # fmt: skip


def takes(job: Job, kind: str) -> bool:
    """Whether a kind makes sense on this vehicle at all, so that a menu offers it."""
    tray, vehicle = job.body.tray.kind == "tray", job.vehicle.kind
    if kind in ("box", "dog box", "side box", "camper", "gap rack", "hoop"):
        return tray
    if kind == "hatch":
        return not tray
    if kind == "tub rack":
        return tray or vehicle == "pickup"
    if kind == "rear wall":
        return job.body.canopy is not None and job.body.canopy.kind != "cargo"
    return True
