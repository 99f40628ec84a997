"""Doors and bays added to a canopy or another room, and taken away again: proposals to be changed."""

from typing import Any

import msgspec

from roomy_hull.core.errors import InputError
from roomy_hull.job.canopy import LEAST_LEAF, Access, Bay, Canopy, Door
from roomy_hull.job.edits.layouts import slug
from roomy_hull.job.model import Job
from roomy_hull.kit.body import sides

EDGE = 60.0
"""What a new door leaves of the wall beside it for posts and laps (common practice). [mm]"""
LEAST_BAY = 150.0


def shell_at(job: Job, part: str) -> tuple[str, Canopy]:
    """The shell that is meant, and where it is in the job: a room's, else the canopy's.

    Args:
        part: A room's id, or anything else for the canopy.
    Raises:
        InputError: There is neither.
    """
    room = job.body.room(part)
    if room is not None:
        return f"body.rooms.{room.id}.shell", room.shell
    if job.body.canopy is None:
        raise InputError("there is no canopy and no room", remedy="Fit one first: the menu Body.")
    return "body.canopy", job.body.canopy


def _with(job: Job, part: str, **changes: Any) -> Job:
    """A job whose shell is changed; what its own rules refuse is told."""
    path, shell = shell_at(job, part)
    try:
        new = shell.but(**changes)
        if path == "body.canopy":
            body = job.body.but(canopy=new)
        else:
            body = job.body.but(
                rooms=tuple(msgspec.structs.replace(r, shell=new) if r.id == part else r for r in job.body.rooms)
            )  # fmt: skip
        return msgspec.structs.replace(job, body=body)
    except ValueError as trouble:
        raise InputError(str(trouble), shell.name, "The job stays as it was.") from None


def body_ids(job: Job) -> set[str]:
    """Ids of all doors, bays, rooms and racks."""
    body = job.body
    found = {d.id for d in body.doors()} | {b.id for b in body.bays()}
    return found | {r.id for r in body.rooms} | {r.id for r in body.racks}


def need_empty(job: Job, bays: set[str], where: str, words: str) -> None:
    """Refuse to take bays away in which something stands.

    Args:
        where, words: What is told: where it is, and what it stands in.
    Raises:
        InputError: Units stand in one, in this layout or a kept one; names them.
    """
    units = (*job.units, *(u for v in job.variants for u in v.units))
    here = list(dict.fromkeys(u.name for u in units if u.bay in bays))
    if here:
        raise InputError(
            f"{', '.join(here[:3])}{' …' if len(here) > 3 else ''} stand in {words}", where,
            "Delete or move them first, in the kept layouts too.",
        )  # fmt: skip


def with_door(job: Job, part: str, side: Access) -> Job:
    """Add a door in the largest stretch of a wall where there is none; above a tub's walls it is a window.

    Args:
        part: A room's id; else the canopy is meant.
    Returns: The new job, the door last.
    Raises:
        InputError: The wall has no room for another.
    """
    _path, shell = shell_at(job, part)
    wall = sides.wall_length(shell, side)
    rows = sorted((d.start, d.start + d.length) for d in shell.doors if d.side == side)
    best, at = (0.0, 0.0), shell.wall
    for a, b in [*rows, (wall - shell.wall, wall)]:
        if a - at > best[1] - best[0]:
            best = (at, a)
        at = max(at, b)
    start, length = best[0] + EDGE, best[1] - best[0] - 2 * EDGE
    sill = shell.base + 30.0
    height = shell.height - shell.roof - 40.0 - sill
    if min(length, height) < LEAST_LEAF:
        raise InputError(
            f"the {side} wall has {max(0.0, best[1] - best[0]):.0f} mm left beside its doors", shell.name,
            "Make one of them shorter first.",
        )  # fmt: skip
    key = slug(f"{side}-door", body_ids(job))
    door = Door(
        id=key,
        side=side,
        start=round(start),
        length=round(length),
        sill=round(sill),
        height=round(height),
    )
    return _with(job, part, doors=(*shell.doors, door))


def without_door(job: Job, key: str) -> Job:
    """Take a door away.

    Returns: The new job; set-ups forget its second leaf.
    Raises:
        InputError: There is no such door.
    """
    part = _owner(job, key, "doors")
    _path, shell = shell_at(job, part)
    new = _with(job, part, doors=tuple(d for d in shell.doors if d.id != key))
    setups = tuple(
        msgspec.structs.replace(s, second_doors=tuple(d for d in s.second_doors if d != key)) for s in new.setups
    )  # fmt: skip
    return msgspec.structs.replace(new, setups=setups)


def with_bay(job: Job, part: str, side: Access) -> Job:
    """Add a bay along the longest stretch of a side where there is none, as deep as there is room.

    Args:
        part: A room's id; else the canopy is meant.
    Returns: The new job, the bay last.
    Raises:
        InputError: There is no room for another.
    """
    _path, shell = shell_at(job, part)
    long, wide = shell.length - 2 * shell.wall, shell.width - 2 * shell.wall
    along, deep = (wide, long) if side == "rear" else (long, wide)
    rows = sorted((b.start, b.start + b.length) for b in shell.bays if b.side == side)
    best, at = (0.0, 0.0), 0.0
    for a, b in [*rows, (along, along)]:
        if a - at > best[1] - best[0]:
            best = (at, a)
        at = max(at, b)
    across = {"left": "right", "right": "left"}.get(side)
    other = max((b.depth for b in shell.bays if b.side == across), default=0.0)
    rear = max((b.depth for b in shell.bays if b.side == "rear"), default=0.0)
    if side == "rear":
        behind = max((b.start + b.length for b in shell.bays if b.side != "rear"), default=0.0)
        deep = long - behind - 10
    else:
        # A side keeps to its half, unless the other one took less.
        deep = deep - other - 10 if other else deep / 2 - 10
        best = (best[0], min(best[1], long - rear - 10 if rear else best[1]))
    length = best[1] - best[0]
    if min(length, deep) < LEAST_BAY:
        raise InputError(
            f"inside there are {max(0.0, length):.0f} × {max(0.0, deep):.0f} mm left at the {side}", shell.name,
            "Make another bay smaller first.",
        )  # fmt: skip
    sill = shell.base if shell.kind == "topper" else 30.0
    high = shell.height - shell.roof - sill - 6
    key = slug(f"{side}-bay", body_ids(job))
    bay = Bay(id=key, name=f"{side.capitalize()} bay", side=side, start=round(best[0]), length=int(length), depth=int(deep),
              sill=sill, height=int(high))  # fmt: skip
    return _with(job, part, bays=(*shell.bays, bay))


def without_bay(job: Job, key: str) -> Job:
    """Take a bay away.

    Raises:
        InputError: Units stand in it, in this layout or a kept one, or there is no such bay.
    """
    part = _owner(job, key, "bays")
    need_empty(job, {key}, key, "it")
    _path, shell = shell_at(job, part)
    return _with(job, part, bays=tuple(b for b in shell.bays if b.id != key))


def _owner(job: Job, key: str, field: str) -> str:
    """The room that a door or bay is in; empty for the canopy."""
    for room in job.body.rooms:
        if any(x.id == key for x in getattr(room.shell, field)):
            return room.id
    canopy = job.body.canopy
    if canopy is None or all(x.id != key for x in getattr(canopy, field)):
        raise InputError(f"there is no '{key}'", remedy="Choose one of those there are.")
    return ""
